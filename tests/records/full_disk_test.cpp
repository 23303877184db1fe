// SPDX-License-Identifier: GPL-3.0-or-later
// A disk that is full at any one write: the change did not happen, and the log is as it was before.
#include "support/full_disk.h"

#include <gtest/gtest.h>

#include "core/records/log.h"
#include "support/logged.h"
#include "support/small_scene.h"

namespace fin {
namespace {

/// One kind of change, and what the log holds of it.
struct Kind {
  const char* name;
  std::function<Result<void>(Log&)> change;
  bool newLog = false;
};

PassRequest markedOn(const std::filesystem::path& clip) {
  PassRequest request;
  request.clip = clip;
  request.marks = {{MarkName::Nose, 0, {5, 5}}};
  return request;
}

DayPlan dayPlan() {
  DayPlan plan;
  plan.name = "A day";
  for (std::int64_t i = 1; i <= 6; ++i) {
    plan.rack.models.push_back({.id = i, .name = "Bait " + std::to_string(i)});
    plan.rack.rigs.push_back({.id = 20 + i, .model = i});
    for (std::int64_t pass = 6 * i; pass < 6 * i + 6; ++pass)
      plan.sheet.push_back({.id = pass, .rig = 20 + i});
  }
  return plan;
}

/// Everything that a log holds, to be compared.
struct Contents {
  DayPlan plan;
  VerdictPlan verdict;
  std::vector<LoggedPass> passes;
  std::vector<KeptCalibration> calibrations;
  std::vector<KeptLens> lenses;
  std::size_t scores = 0;
  std::map<std::string, double> gains;
  std::vector<double> speeds;  ///< of the passes that were measured

  friend bool operator==(const Contents&, const Contents&) = default;
};

Contents contentsOf(const Log& log) {
  Contents out{*log.plan(),   *log.verdict(),          *log.passes(),         *log.calibrations(),
               *log.lenses(), log.eyeScores()->size(), *log.cameraGains_dB(), {}};
  for (const LoggedPass& pass : out.passes) {
    const auto measured = log.measurement(pass.id);
    if (measured && *measured)
      out.speeds.push_back(std::get<double>((*measured)->readings.find(ReadingId::TravelSpeed)->value));
  }
  return out;
}

class FullDiskTest : public testing::Test {
 protected:
  void SetUp() override {
    test::write(folder_ / "a.mp4", "stands for a clip");
    auto log = *Log::open(file());
    ASSERT_TRUE(log->savePlan(DayPlan{}, dayPlan()));
    pass_ = test::addPass(*log, "One", markedOn(folder_ / "a.mp4"));
    test::keepReadings(*log, pass_, readings(250.0), track());
  }
  [[nodiscard]] std::filesystem::path file() const { return folder_ / "day.finlog"; }
  static ReadingSet readings(double speed) {
    return {{{ReadingId::TravelSpeed, speed, "mm/s", 2.0, 100.0}}, {}};
  }
  static Track track() {
    return {0, 400, {{MarkName::Nose, std::vector<MarkSample>(400, {true, {1.5, 2.5}, 1.0})}}};
  }
  std::vector<Kind> kinds() {
    const PassId pass = pass_;
    const auto clip = folder_ / "a.mp4";
    return {{"plan",
             [](Log& log) {
               DayPlan after = *log.plan();
               after.questions = {"fall"};
               after.rack.models.pop_back();
               for (PlannedPass& p : after.sheet)
                 p.note = "a long note, so that it takes some room on the disk";
               return log.savePlan(*log.plan(), after);
             }},
            {"verdict", [](Log& log) { return log.saveVerdict({}, {.conclusion = "none"}); }},
            {"new pass",
             [clip](Log& log) -> Result<void> {
               const auto id = log.addPass({"Two", markedOn(clip), *fingerprintOf(clip)});
               return id ? Result<void>{} : tl::unexpected(id.error());
             }},
            {"pass",
             [pass](Log& log) {
               LoggedPass after = *log.pass(pass);
               after.camera = "top";
               return log.changePasses({{*log.pass(pass), after}});
             }},
            {"measurement",
             [pass](Log& log) {
               return log.saveMeasurement(pass,
                                          test::measurementOf(*log.pass(pass), readings(300.0), track()));
             }},
            {"several together",
             [pass](Log& log) {
               return log.together([&]() -> Result<void> {
                 LoggedPass after = *log.pass(pass);
                 after.camera = "chase";
                 if (auto ok = log.changePasses({{*log.pass(pass), after}}); !ok) return ok;
                 return log.keepCalibration("chase", "2026-11-27", std::nullopt,
                                            KeptCalibration{"chase", "2026-11-27"});
               });
             }},
            {"lens",
             [](Log& log) {
               return log.keepLens({"top", 640, 480, "air", {1.0, 1.0}, Pixels(0.2)});
             }},
            {"scores",
             [pass](Log& log) {
               return log.addEyeScores({{pass, ReadingId::WobbleAngle, 7.0}});
             }},
            {"gain", [](Log& log) { return log.keepCameraGain("top", 3.0); }}};
  }

  test::TemporaryFolder folder_;
  PassId pass_;
};

TEST_F(FullDiskTest, AtAnyWriteNothingIsChangedAndItIsSaid) {
  const auto copy = folder_ / "copy.finlog";
  for (const Kind& kind : kinds()) {
    std::size_t tried = 0;
    for (bool wrote = false; !wrote; ++tried) {
      ASSERT_LT(tried, 400U) << kind.name << " never comes to an end";
      std::filesystem::copy_file(file(), copy, std::filesystem::copy_options::overwrite_existing);
      const test::FullDisk disk(1000000);
      auto log = *Log::open(copy);
      const Contents before = contentsOf(*log);
      test::FullDisk::fillAfter(tried);
      const auto done = kind.change(*log);
      const bool refused = test::FullDisk::refused();
      test::FullDisk::empty();
      wrote = done.has_value();
      if (wrote) {
        EXPECT_NE(contentsOf(*log), before) << kind.name;
        continue;
      }
      EXPECT_TRUE(refused) << kind.name;
      EXPECT_EQ(done.error().code, ErrorCode::NotWritable) << kind.name << " after " << tried;
      EXPECT_EQ(contentsOf(*log), before) << kind.name << " after " << tried;
      log.reset();
      EXPECT_EQ(contentsOf(**Log::open(copy)), before) << kind.name << " after " << tried << ", opened again";
    }
    EXPECT_GT(tried, 2U) << kind.name << " writes more than once";
  }
}

TEST_F(FullDiskTest, ALogThatCannotBeBegunIsToldAndLeavesNoHalfOfOne) {
  for (std::size_t writes = 0;; ++writes) {
    ASSERT_LT(writes, 400U);
    const auto fresh = folder_ / ("new" + std::to_string(writes) + ".finlog");
    const test::FullDisk disk(writes);
    const auto log = Log::open(fresh);
    test::FullDisk::empty();
    if (log) {
      EXPECT_TRUE((*log)->readOnlyReason().empty() || test::FullDisk::refused());
      if ((*log)->readOnlyReason().empty()) break;
      continue;
    }
    EXPECT_FALSE(log.error().message.empty());
    const auto again = Log::open(fresh);
    ASSERT_TRUE(again) << "with room it is a log: " << again.error().message;
    EXPECT_TRUE((*again)->plan());
  }
}

}  // namespace
}  // namespace fin
