// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/sheet.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>

namespace fin {
namespace {

std::string missingMark(const ReadingSpec& spec, const PassNeeds& needs) {
  for (MarkName mark : spec.marks) {
    if (std::find(needs.marks.begin(), needs.marks.end(), mark) == needs.marks.end()) {
      return std::string(toString(mark));
    }
  }
  return {};
}

}  // namespace

bool isAsked(const ReadingSpec& spec, const PassNeeds& needs) {
  const auto placed = [&](MarkName mark) {
    return std::find(needs.marks.begin(), needs.marks.end(), mark) != needs.marks.end();
  };
  switch (spec.askedWith) {
    case AskedWith::Always:
      return true;
    case AskedWith::OwnLength:
      return needs.hasOwnLength;
    case AskedWith::PullLine:
      return needs.hasPullLine;
    case AskedWith::Blade:
      return placed(MarkName::Blade);
    case AskedWith::Mid:
      return placed(MarkName::Mid);
    case AskedWith::Hook:
      return placed(MarkName::Hook);
    case AskedWith::Outline:
      return needs.hasOutline && needs.hasWaterline;
    case AskedWith::Levels:
      return needs.hasLevels;
    case AskedWith::Sound:
      return needs.hasSound;
  }
  return true;
}

std::string whyNot(const ReadingSpec& spec, const PassNeeds& needs) {
  if (std::find(spec.shownBy.begin(), spec.shownBy.end(), needs.view) == spec.shownBy.end()) {
    std::string others;
    for (View v : spec.shownBy) others += (others.empty() ? "" : " or ") + std::string(toString(v));
    return fmt::format("a {} view does not show it directly; film it from the {} view", toString(needs.view),
                       others);
  }
  if (const std::string mark = missingMark(spec, needs); !mark.empty()) {
    return fmt::format("the {} mark is not placed", mark);
  }
  if (spec.needsScale && !needs.hasScale) return "no scale: mark a known length in the lure's plane";
  if (spec.needsWaterline && !needs.hasWaterline) return "no waterline is marked";
  if (spec.needsOutline && !needs.hasOutline) return "no outline of the lure is marked";
  return {};
}

void ReadingSheet::give(ReadingId id, std::string text, std::vector<std::string> notes, double n) {
  found_.insert_or_assign(id, Text{std::move(text), std::move(notes), n});
}

const Estimate* ReadingSheet::estimate(ReadingId id) const {
  const auto found = found_.find(id);
  return found == found_.end() ? nullptr : std::get_if<Estimate>(&found->second);
}

ReadingSet ReadingSheet::complete(const PassNeeds& needs) const {
  ReadingSet set;
  for (const ReadingSpec& spec : readingsOf(needs.protocol)) {
    if (!isAsked(spec, needs)) continue;
    const auto found = found_.find(spec.id);
    if (std::string why = whyNot(spec, needs); !why.empty()) {
      set.refused.push_back({spec.id, std::move(why)});
    } else if (found == found_.end()) {
      set.refused.push_back({spec.id, "the lure was not followed well enough"});
    } else if (const auto* e = std::get_if<Estimate>(&found->second)) {
      set.readings.push_back(
          {spec.id, e->value, std::string(spec.unit), e->u95, e->n, e->grade, e->notes, e->parts});
    } else if (const auto* t = std::get_if<Text>(&found->second)) {
      set.readings.push_back(
          {spec.id, t->text, std::string(spec.unit), std::nullopt, t->n, Grade::Good, t->notes});
    } else {
      set.refused.push_back({spec.id, std::get<std::string>(found->second)});
    }
  }
  return set;
}

Grade gradeOf(double value, double u95) {
  if (u95 <= 0.03 * std::abs(value)) return Grade::Good;
  return u95 <= 0.10 * std::abs(value) ? Grade::Fair : Grade::Poor;
}

Grade worse(Grade a, Grade b) {
  return std::max(a, b);
}

}  // namespace fin
