// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/rest.h"

#include <gtest/gtest.h>

#include <cmath>

#include "support/reading_words.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

constexpr double kRestRate_Hz = 60.0;

/// Falls nose first, lands, stands, and falls over when it is time (never where that is past the end).
struct Landing {
  double lands_s = 1.5;
  double fallsOver_s = 5.0;
  double stands_deg = 62.0;
  double end_s = 6.0;

  [[nodiscard]] PassTraces traces() const {
    PassTraces out;
    out.inMillimetres = true;
    out.bodyLength = 80.0;
    out.frameRate_Hz = kRestRate_Hz;
    for (int n = 0; n < static_cast<int>(end_s * kRestRate_Hz); ++n) {
      const double t = n / kRestRate_Hz;
      const double over = std::clamp((t - fallsOver_s) / 0.3, 0.0, 1.0);
      const double angle = (stands_deg + over * (5.0 - stands_deg)) / kDegreesPerRadian;
      out.upCentre.add(t, 300.0 - 200.0 * std::min(t, lands_s) - 35.0 * over);
      out.alongCentre.add(t, 0.0);
      out.bodyAlong.add(t, 80.0 * std::cos(angle));
      out.bodyUp.add(t, -80.0 * std::sin(angle));
      out.axis.add(t, 0.0);
    }
    return out;
  }
  [[nodiscard]] ReadingSet read(double bottom_deg = 0.0) const {
    ReadingSheet sheet;
    readRest(traces(), bottom_deg, sheet);
    return sheet.complete({Protocol::Rest, View::Side, {MarkName::Nose, MarkName::Tail}, true, false, false});
  }
};

using test::valueOf;

TEST(Rest, ReadsHowItStandsAndForHowLong) {
  const ReadingSet set = Landing{}.read();
  // Below 30° after the part (62 - 30) / (62 - 5) of the 0.3 s in which it falls over.
  EXPECT_NEAR(valueOf(set, ReadingId::StandTime), 5.0 + 0.3 * 32.0 / 57.0 - 1.5, 0.05);
  EXPECT_NEAR(valueOf(set, ReadingId::StandAngle), 62.0, 1.5);
}

TEST(Rest, StandsToTheEndAndSaysSo) {
  Landing stays;
  stays.fallsOver_s = 100.0;
  const ReadingSet set = stays.read();
  EXPECT_NEAR(valueOf(set, ReadingId::StandTime), 4.5, 0.06);
  EXPECT_EQ(set.find(ReadingId::StandTime)->notes.front().rfind("still standing", 0), 0U);
}

TEST(Rest, MeasuresAgainstTheBottomThatIsMarked) {
  Landing stays;
  stays.fallsOver_s = 100.0;
  // The nose points down along the pull; a bottom that rises that way is met more steeply.
  EXPECT_NEAR(valueOf(stays.read(4.0), ReadingId::StandAngle), 66.0, 0.2);
}

TEST(Rest, TellsALureThatLiesDownAtOnce) {
  Landing flat;
  flat.stands_deg = 12.0;
  flat.fallsOver_s = 100.0;
  const ReadingSet set = flat.read();
  EXPECT_EQ(set.find(ReadingId::StandAngle), nullptr);
  EXPECT_LT(valueOf(set, ReadingId::StandTime), 0.05);
}

TEST(Rest, RefusesALureThatIsStillFalling) {
  Landing falls;
  falls.lands_s = 100.0;
  falls.end_s = 1.4;
  const ReadingSet set = falls.read();
  ASSERT_EQ(set.find(ReadingId::StandAngle), nullptr);
  EXPECT_NE(set.refused.front().why.find("come to rest"), std::string::npos);
}

}  // namespace
}  // namespace fin
