// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <map>
#include <string>
#include <string_view>
#include <variant>

#include "core/readings/evidence.h"
#include "core/readings/reading.h"
#include "core/readings/registry.h"

namespace fin {

/// What is known before a pass is read: decides which readings can be asked for at all.
struct PassNeeds {
  Protocol protocol = Protocol::Retrieve;
  View view = View::Side;
  std::vector<MarkName> marks;
  bool hasScale = false;
  bool hasWaterline = false;
  bool hasOutline = false;
  bool hasOwnLength = false;
  bool hasPullLine = false;
  bool hasLevels = false;  ///< waterline and bottom
  bool hasSound = false;
};

/// Whether a reading is asked of such a pass at all.
bool isAsked(const ReadingSpec& spec, const PassNeeds& needs);
/// Why a reading cannot be asked of such a pass; empty where it can.
std::string whyNot(const ReadingSpec& spec, const PassNeeds& needs);

/// Collects what a protocol's methods found, and turns it into a whole set in which nothing is missing.
class ReadingSheet {
 public:
  void give(ReadingId id, Estimate estimate) { found_.insert_or_assign(id, std::move(estimate)); }
  void give(ReadingId id, std::string text, std::vector<std::string> notes, double n);
  void refuse(ReadingId id, std::string why) { found_.insert_or_assign(id, std::move(why)); }

  /// Where the readings came from; for the methods to write.
  [[nodiscard]] Evidence& evidence() { return evidence_; }

  [[nodiscard]] const Estimate* estimate(ReadingId id) const;
  [[nodiscard]] ReadingSet complete(const PassNeeds& needs) const;

 private:
  struct Text {
    std::string text;
    std::vector<std::string> notes;
    double n;
  };
  std::map<ReadingId, std::variant<Estimate, Text, std::string>> found_;
  Evidence evidence_;
};

/// Grade by the width of the interval: up to 3 % of the value good, up to 10 % fair.
Grade gradeOf(double value, double u95);
Grade worse(Grade a, Grade b);

}  // namespace fin
