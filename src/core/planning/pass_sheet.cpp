// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/pass_sheet.h"

#include <algorithm>
#include <array>
#include <numeric>
#include <random>

#include "core/units/names.h"

namespace fin {
namespace {

constexpr std::array<std::string_view, 4> kStates{"planned", "done", "fouled", "skipped"};

/// Whole number in 0 … n − 1, the same on every machine (unlike std::uniform_int_distribution).
std::size_t below(std::mt19937& random, std::size_t n) {
  const auto range = static_cast<std::uint_fast32_t>(n);
  const std::uint_fast32_t limit = std::mt19937::max() - std::mt19937::max() % range;
  std::uint_fast32_t drawn = random();
  while (drawn >= limit) drawn = random();
  return drawn % range;
}

template <class T>
void shuffle(std::vector<T>& items, std::mt19937& random) {
  for (std::size_t i = items.size(); i > 1; --i) std::swap(items[i - 1], items[below(random, i)]);
}

std::vector<std::size_t> permutation(std::size_t n, std::mt19937& random) {
  std::vector<std::size_t> out(n);
  std::iota(out.begin(), out.end(), std::size_t{0});
  shuffle(out, random);
  return out;
}

/// Rows of randomised Latin squares, as many as are wanted.
class RigOrders {
 public:
  RigOrders(std::size_t rigs, std::mt19937& random) : rigs_(rigs), random_(random) {}

  std::vector<std::size_t> next() {
    if (row_ == 0) {
      rows_ = permutation(rigs_, random_);
      columns_ = permutation(rigs_, random_);
      letters_ = permutation(rigs_, random_);
    }
    std::vector<std::size_t> out;
    for (std::size_t c = 0; c < rigs_; ++c) out.push_back(letters_[(rows_[row_] + columns_[c]) % rigs_]);
    row_ = (row_ + 1) % rigs_;
    return out;
  }

 private:
  std::size_t rigs_;
  std::mt19937& random_;
  std::size_t row_ = 0;
  std::vector<std::size_t> rows_, columns_, letters_;
};

/// The passes of one rig in one block.
std::vector<PlannedPass> passesOf(RigId rig, int block, const SheetOptions& options) {
  std::vector<PlannedPass> out;
  for (const SheetTask& task : options.tasks) {
    PlannedPass pass;
    pass.rig = rig;
    pass.block = block;
    pass.protocol = task.protocol;
    pass.view = task.view;
    if (task.speeds_mm_s.empty()) out.push_back(pass);
    for (double speed : task.speeds_mm_s) {
      pass.speed_mm_s = speed;
      out.push_back(pass);
    }
  }
  return out;
}

void nameBlind(std::vector<PlannedPass>& sheet, const std::vector<RigId>& rigs, std::mt19937& random) {
  const std::vector<std::size_t> letters = permutation(rigs.size(), random);
  for (PlannedPass& pass : sheet) {
    const auto at = static_cast<std::size_t>(std::find(rigs.begin(), rigs.end(), pass.rig) - rigs.begin());
    std::size_t letter = letters[at];
    std::string label;
    do {
      label.insert(label.begin(), static_cast<char>('A' + letter % 26));
      letter = letter / 26;
    } while (letter-- > 0);
    pass.label = label;
  }
}

}  // namespace

std::string_view toString(PassState state) {
  return kStates[static_cast<std::size_t>(state)];
}

std::optional<PassState> passStateNamed(std::string_view text) {
  return enumNamed<PassState>(kStates, text);
}

Result<std::vector<PlannedPass>> makeSheet(const std::vector<RigId>& rigs, const SheetOptions& options) {
  if (rigs.empty()) return failure(ErrorCode::BadRequest, "put at least one rig on the rack first", "rigs");
  if (options.tasks.empty())
    return failure(ErrorCode::BadRequest, "ask a question first: it says which passes to make", "tasks");
  if (options.repeats < 1)
    return failure(ErrorCode::BadRequest, "every pass has to be made at least once", "repeats");

  std::mt19937 random(options.seed);
  RigOrders orders(rigs.size(), random);
  std::vector<PlannedPass> sheet;
  int sinceControl = 0;
  for (int block = 1; block <= options.repeats; ++block) {
    for (std::size_t rig : orders.next()) {
      std::vector<PlannedPass> passes = passesOf(rigs[rig], block, options);
      shuffle(passes, random);
      for (PlannedPass& pass : passes) {
        sheet.push_back(std::move(pass));
        ++sinceControl;
      }
      // Control passes come between rigs, so that nothing is tied on twice for them.
      if (options.controlRig == 0 || sinceControl < std::max(options.controlEvery, 1)) continue;
      PlannedPass control = passesOf(options.controlRig, block, options).front();
      control.control = true;
      sheet.push_back(std::move(control));
      sinceControl = 0;
    }
  }
  if (options.blind) {
    std::vector<RigId> all = rigs;
    if (options.controlRig != 0 && std::find(all.begin(), all.end(), options.controlRig) == all.end()) {
      all.push_back(options.controlRig);
    }
    nameBlind(sheet, all, random);
  }
  for (std::size_t i = 0; i < sheet.size(); ++i) sheet[i].id = static_cast<std::int64_t>(i + 1);
  return sheet;
}

SheetTime timeFor(const std::vector<PlannedPass>& sheet, const SheetOptions& options) {
  SheetTime out;
  RigId onTheLine;
  for (const PlannedPass& pass : sheet) {
    if (pass.state != PassState::Planned) {
      onTheLine = pass.rig;
      continue;
    }
    if (pass.rig != onTheLine) ++out.rigChanges;
    onTheLine = pass.rig;
    out.minutes += options.minutesPerPass;
  }
  out.minutes += options.minutesPerRig * out.rigChanges;
  return out;
}

PlannedPass againAfter(const PlannedPass& fouled, PlannedPassId id) {
  PlannedPass again = fouled;
  again.id = id;
  again.state = PassState::Planned;
  again.attempt = fouled.attempt + 1;
  again.whyFouled.clear();
  again.note.clear();
  again.finished_s = 0.0;
  return again;
}

std::optional<std::size_t> nextPass(const std::vector<PlannedPass>& sheet) {
  for (std::size_t i = 0; i < sheet.size(); ++i) {
    if (sheet[i].state == PassState::Planned) return i;
  }
  return std::nullopt;
}

}  // namespace fin
