// SPDX-License-Identifier: GPL-3.0-or-later
// Logs of every earlier schema, written by the releases of their time with a value in every place.
#include <SQLiteCpp/SQLiteCpp.h>
#include <gtest/gtest.h>

#include "core/records/day_readings.h"
#include "core/records/log.h"
#include "support/reading_words.h"
#include "support/small_scene.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

/// A log as it was left, and since which schema it is.
struct Earlier {
  const char* file;
  int version;
};

class EarlierLog : public testing::TestWithParam<Earlier> {
 protected:
  void SetUp() override {
    const fs::path from = fs::path(FIN_EARLIER_LOGS) / GetParam().file;
    ASSERT_TRUE(fs::exists(from)) << from;
    fs::copy_file(from, file());
    test::write(folder_ / "pull.mp4", "stands for a clip: the log only asks by what it is known again");
    auto log = Log::open(file());
    ASSERT_TRUE(log) << log.error().message;
    log_ = std::move(*log);
    EXPECT_EQ(log_->readOnlyReason(), "");
  }
  void TearDown() override {
    EXPECT_TRUE(!log_ || log_->unreadable().empty()) << log_->unreadable().begin()->first;
  }
  [[nodiscard]] fs::path file() const { return folder_ / "day.finlog"; }
  [[nodiscard]] int version() const { return GetParam().version; }

  test::TemporaryFolder folder_;
  std::unique_ptr<Log> log_;
};

TEST_P(EarlierLog, ComparesWithNothingInvented) {
  FingerprintCache fingerprints;
  const auto day = dayReadings(*log_, *log_->plan(), fingerprints);
  ASSERT_TRUE(day) << day.error().message;
  std::vector<ComparedPass> passes = day->current;
  for (const ReadingId reading : readingsAmong(passes)) {
    const Spread spread = compare(valuesOf(passes, reading), reading, {.furtherPasses = true});
    EXPECT_LE(spread.rigs.size(), 1U);
    EXPECT_TRUE(spread.pairs.empty());
    EXPECT_FALSE(spread.whyNoPairs.empty());
  }
}

TEST_P(EarlierLog, KeepsWhatWasSaidOfThePasses) {
  const auto passes = log_->passes();
  ASSERT_TRUE(passes) << passes.error().message;
  ASSERT_EQ(passes->size(), 1U) << "the other was taken out";
  const LoggedPass& pass = passes->front();
  EXPECT_EQ(pass.title, "Pull one");
  EXPECT_EQ(pass.clip, *fingerprintOf(folder_ / "pull.mp4"));
  const PassRequest& r = pass.request;
  EXPECT_EQ(r.clip, folder_ / "pull.mp4");
  EXPECT_EQ(r.captureRate, Hertz(180.5));
  EXPECT_EQ(r.pull, Pull::Right);
  ASSERT_TRUE(r.scale && r.scalePlane && r.plumb && r.waterline && r.bottom && r.lens && r.outline &&
              r.quiet);
  EXPECT_EQ(r.scale->to, (PixelPoint{902.75, 655.5}));
  EXPECT_EQ(r.scale->lengthU95, Millimetres(1.5));
  EXPECT_EQ(r.scalePlane->cameraToLure, Millimetres(1620.0));
  EXPECT_EQ(r.lens->k[4], 0.003);
  EXPECT_EQ(r.marks.size(), 3U);
  EXPECT_EQ(r.bodyHalfHeight, Millimetres(9.0));
  EXPECT_EQ(r.firstFrame, 3U);
  EXPECT_EQ(r.lastFrame, 12U);
  EXPECT_EQ(r.rigName, "Vinto 11, 7 g head");
  EXPECT_EQ(r.rigNote, "a note");
  EXPECT_EQ(pass.camera, version() >= 2 ? "top" : "");
  EXPECT_EQ(pass.sharedInstant, version() >= 3 ? std::optional(Seconds(1.25)) : std::nullopt);
  const auto removed = log_->pass(2);
  ASSERT_TRUE(removed);
  EXPECT_TRUE(removed->removed);
}

TEST_P(EarlierLog, KeepsTrackAndReadingsAndReadsThemOnceMore) {
  const auto measured = log_->measurement(1);
  ASSERT_TRUE(measured && *measured);
  const Measurement& m = **measured;
  ASSERT_EQ(m.track.marks.size(), 2U);
  EXPECT_EQ(m.track.firstFrame, 3U);
  EXPECT_EQ(m.track.marks[0].samples[7].at, (PixelPoint{212.5 + 56.0, 340.25}));
  EXPECT_EQ(m.track.marks[1].samples[7].at.y_px, 342.25);
  EXPECT_FALSE(m.track.marks[0].samples[4].seen);
  EXPECT_EQ(m.track.outline.empty(), version() < 4);
  if (version() >= 4) {
    EXPECT_EQ(m.track.outline[2].contours, (std::vector<std::vector<PixelPoint>>{{{1, 2}, {3, 4}, {5, 6}}}));
    EXPECT_EQ(m.track.brightness[1], 101.5);
  }
  EXPECT_TRUE(sameFollowing(m.followedFrom, log_->pass(1)->request));
  const Reading* speed = m.readings.find(ReadingId::TravelSpeed);
  ASSERT_NE(speed, nullptr);
  EXPECT_EQ(std::get<double>(speed->value), 270.625);
  EXPECT_EQ(speed->u95, 2.5);
  EXPECT_EQ(speed->grade, Grade::Fair);
  EXPECT_EQ(speed->notes, (std::vector<std::string>{"a note", "another"}));
  EXPECT_EQ(std::get<std::string>(m.readings.find(ReadingId::FallMode)->value), "plumb");
  EXPECT_EQ(m.readings.refused.front().why, "no waterline is marked");
  // From which request it was read was not kept then: it is not compared before it was read again.
  FingerprintCache fingerprints;
  const auto day = dayReadings(*log_, *log_->plan(), fingerprints);
  ASSERT_TRUE(day);
  EXPECT_TRUE(day->current.empty());
  EXPECT_EQ(day->outdated.size(), 1U);
}

TEST_P(EarlierLog, KeepsTheDaysPlan) {
  const auto plan = log_->plan();
  ASSERT_TRUE(plan) << plan.error().message;
  if (version() < 2) {
    EXPECT_EQ(*plan, DayPlan{});
    return;
  }
  EXPECT_EQ(plan->name, "A day at the trough");
  EXPECT_EQ(plan->questions, (std::vector<std::string>{"fall", "wobble"}));
  ASSERT_EQ(plan->rack.models.size(), 1U);
  const Model& model = plan->rack.models[0];
  EXPECT_EQ(model.family, Family::Jerkbait);
  EXPECT_EQ(model.price, 4.25);
  EXPECT_EQ(model.photo, "p.png");
  EXPECT_EQ(model.whyNotGraded, "ours");
  const Rig& rig = plan->rack.rigs.at(0);
  EXPECT_EQ(rig.insertPlace, InsertPlace::High);
  EXPECT_EQ(rig.lineStrength_kg, 6.0);
  EXPECT_EQ(rig.link, "snap");
  EXPECT_EQ(plan->water.salinity_g_kg, 6.0);
  EXPECT_EQ(plan->filming.captureRate_Hz, 240.0);
  EXPECT_EQ(plan->heldEqual[0].exception, "another rod after noon");
  EXPECT_EQ(plan->options.seed, 7U);
  ASSERT_EQ(plan->sheet.size(), 4U);
  EXPECT_EQ(plan->sheet[0].state, PassState::Done);
  EXPECT_EQ(plan->sheet[0].note, "windy");
  EXPECT_EQ(plan->sheet[0].finished_s, 1.75e9);
  EXPECT_EQ(plan->sheet[1].whyFouled, "a leaf");
  EXPECT_EQ(plan->cadence.pause, Seconds(3.5));
  EXPECT_EQ(plan->watchedFolder, "/clips");
  EXPECT_EQ(log_->pass(1)->planned, plan->sheet[0].id);
}

TEST_P(EarlierLog, KeepsWhatBelongsToCamerasAndTheVerdict) {
  const auto calibrations = log_->calibrations();
  const auto lenses = log_->lenses();
  const auto verdict = log_->verdict();
  ASSERT_TRUE(calibrations && lenses && verdict);
  ASSERT_EQ(calibrations->size(), version() >= 3 ? 1U : 0U);
  ASSERT_EQ(lenses->size(), version() >= 3 ? 1U : 0U);
  if (version() >= 3) {
    EXPECT_EQ(calibrations->front().calibration, calibrationOf(log_->pass(1)->request));
    EXPECT_EQ(lenses->front().window, "flat port");
    EXPECT_EQ(lenses->front().rms, Pixels(0.25));
  }
  EXPECT_EQ(verdict->interest, version() >= 5 ? "one of us" : "");
  if (version() >= 5) {
    EXPECT_EQ(verdict->wishes.front().weight, 0.5);
  }
  const auto gains = log_->cameraGains_dB();
  ASSERT_TRUE(gains);
  EXPECT_EQ(gains->size(), version() >= 6 ? 1U : 0U);
  ASSERT_TRUE(log_->eyeScores()) << "also where a log of this schema had no such table yet";
}

TEST_P(EarlierLog, TakesEveryKindOfChangeAfterwards) {
  const DayPlan plan = *log_->plan();
  DayPlan after = plan;
  after.questions = {"pause"};
  EXPECT_TRUE(log_->savePlan(plan, after));
  const LoggedPass pass = *log_->pass(1);
  LoggedPass moved = pass;
  moved.camera = "chase";
  EXPECT_TRUE(log_->changePasses({{pass, moved}}));
  EXPECT_TRUE(log_->addEyeScores({{1, ReadingId::WobbleAngle, 6.0}}));
  EXPECT_TRUE(log_->keepCameraGain("chase", 2.0));
  EXPECT_TRUE(log_->saveVerdict(*log_->verdict(), {.conclusion = "none"}));
  log_.reset();
  const auto again = Log::open(file());
  ASSERT_TRUE(again) << again.error().message;
  EXPECT_EQ((*again)->plan()->questions, std::vector<std::string>{"pause"});
  EXPECT_EQ((*again)->pass(1)->camera, "chase");
  SQLite::Database plain(file().string(), SQLite::OPEN_READONLY);
  EXPECT_EQ(plain.execAndGet("PRAGMA integrity_check").getString(), "ok");
  EXPECT_EQ(plain.execAndGet("SELECT count(*) FROM pragma_foreign_key_check").getInt(), 0);
}

INSTANTIATE_TEST_SUITE_P(Log, EarlierLog,
                         testing::Values(Earlier{"1.finlog", 1}, Earlier{"2.finlog", 2},
                                         Earlier{"3.finlog", 3}, Earlier{"4.finlog", 4},
                                         Earlier{"5-without-scores.finlog", 5}, Earlier{"5.finlog", 5},
                                         Earlier{"6.finlog", 6}, Earlier{"7.finlog", 7},
                                         Earlier{"8.finlog", 8}, Earlier{"9.finlog", 9},
                                         Earlier{"10.finlog", 10}),
                         [](const auto& param) {
                           std::string name(param.param.file);
                           std::replace_if(
                               name.begin(), name.end(), [](char c) { return c == '.' || c == '-'; }, '_');
                           return "Schema" + name;
                         });

}  // namespace
}  // namespace fin
