// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/sheet.h"

#include <gtest/gtest.h>

#include "support/reading_words.h"

namespace fin {
namespace {

/// All that a reading can need.
PassNeeds everything(Protocol protocol, View view) {
  return {protocol,
          view,
          {MarkName::Nose, MarkName::Tail, MarkName::Tip, MarkName::Back, MarkName::Belly, MarkName::Flank,
           MarkName::Mid, MarkName::Blade, MarkName::Hook},
          true,
          true,
          true};
}

class Specs : public testing::TestWithParam<Protocol> {};

TEST_P(Specs, AskForWhatIsMissingByItsName) {
  for (const ReadingSpec& spec : readingsOf(GetParam())) {
    ASSERT_FALSE(spec.shownBy.empty()) << spec.id;
    const PassNeeds whole = everything(GetParam(), spec.shownBy.front());
    EXPECT_EQ(whyNot(spec, whole), "") << spec.id;
    for (const MarkName mark : spec.marks) {
      PassNeeds without = whole;
      std::erase(without.marks, mark);
      EXPECT_NE(whyNot(spec, without).find(toString(mark)), std::string::npos) << spec.id;
    }
    PassNeeds noScale = whole;
    noScale.hasScale = false;
    EXPECT_EQ(whyNot(spec, noScale).find("no scale") != std::string::npos, spec.needsScale) << spec.id;
    PassNeeds noWaterline = whole;
    noWaterline.hasWaterline = false;
    EXPECT_EQ(whyNot(spec, noWaterline).find("waterline") != std::string::npos, spec.needsWaterline)
        << spec.id;
    PassNeeds noOutline = whole;
    noOutline.hasOutline = false;
    EXPECT_EQ(whyNot(spec, noOutline).find("outline") != std::string::npos, spec.needsOutline) << spec.id;
  }
}

TEST_P(Specs, NameTheViewsThatShowAReading) {
  for (const ReadingSpec& spec : readingsOf(GetParam())) {
    for (const View view : {View::Side, View::Top, View::HeadOn, View::Chase}) {
      const std::string why = whyNot(spec, everything(GetParam(), view));
      const bool shown = std::find(spec.shownBy.begin(), spec.shownBy.end(), view) != spec.shownBy.end();
      EXPECT_EQ(why.empty(), shown) << spec.id << " " << toString(view);
      if (shown) continue;
      for (const View other : spec.shownBy)
        EXPECT_NE(why.find(toString(other)), std::string::npos) << spec.id << ": " << why;
    }
  }
}

TEST_P(Specs, HaveALengthInTheirUnitWhereTheyNeedAScaleAndAreNotAskedTwice) {
  std::set<ReadingId> seen;
  for (const ReadingSpec& spec : readingsOf(GetParam())) {
    EXPECT_TRUE(seen.insert(spec.id).second) << spec.id;
    // Times, angles and rates are read without a scale; the lure's own length is one.
    const bool length = spec.askedWith != AskedWith::OwnLength &&
                        (spec.unit.find("mm") != std::string_view::npos || spec.unit.ends_with("/m"));
    if (length) {
      EXPECT_TRUE(spec.needsScale) << spec.id;
    }
  }
}

INSTANTIATE_TEST_SUITE_P(All, Specs, testing::ValuesIn(kAllProtocols),
                         [](const auto& param) { return std::string(toString(param.param)); });

TEST(ReadingSheet, SaysTheFirstReasonAndNeverBothAValueAndARefusal) {
  ReadingSheet sheet;
  sheet.give(ReadingId::TravelSpeed, {.value = 250.0, .u95 = 2.0, .n = 100.0});
  sheet.refuse(ReadingId::WobbleFrequency, "nothing steady stands out");
  sheet.give(ReadingId::WobbleAngle, {.value = 20.0, .u95 = 1.0, .n = 9.0});
  sheet.refuse(ReadingId::WobbleAngle, "changed its mind");
  const PassNeeds needs = everything(Protocol::Retrieve, View::Top);
  const ReadingSet set = sheet.complete(needs);
  EXPECT_EQ(std::get<double>(set.find(ReadingId::TravelSpeed)->value), 250.0);
  EXPECT_EQ(test::whyRefused(set, ReadingId::WobbleFrequency), "nothing steady stands out");
  EXPECT_EQ(test::whyRefused(set, ReadingId::WobbleAngle), "changed its mind") << "what was said last";
  EXPECT_EQ(set.find(ReadingId::WobbleAngle), nullptr);
  EXPECT_FALSE(test::whyRefused(set, ReadingId::TailSweep).empty()) << "what nobody wrote has a reason too";
  const auto all = readingsOf(Protocol::Retrieve);
  const auto asked =
      std::count_if(all.begin(), all.end(), [&](const auto& spec) { return isAsked(spec, needs); });
  EXPECT_EQ(set.readings.size() + set.refused.size(), static_cast<std::size_t>(asked));
  EXPECT_LT(set.readings.size() + set.refused.size(), all.size()) << "nobody drew the line of the pull";
}

TEST(GradeOf, GoesByTheWidthOfTheInterval) {
  EXPECT_EQ(gradeOf(100.0, 3.0), Grade::Good);
  EXPECT_EQ(gradeOf(-100.0, 3.1), Grade::Fair);
  EXPECT_EQ(gradeOf(100.0, 10.0), Grade::Fair);
  EXPECT_EQ(gradeOf(100.0, 10.1), Grade::Poor);
  EXPECT_EQ(gradeOf(0.0, 0.1), Grade::Poor);
  EXPECT_EQ(worse(Grade::Good, Grade::Fair), Grade::Fair);
}

}  // namespace
}  // namespace fin
