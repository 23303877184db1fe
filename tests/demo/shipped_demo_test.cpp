// SPDX-License-Identifier: GPL-3.0-or-later
// The demo as it comes with the program: it is what the rehearsal would make, it says what the tank did, and
// it opens wherever it is put.
#include "demo/shipped_demo.h"

#include <gtest/gtest.h>

#include <fstream>
#include <opencv2/core.hpp>
#include <set>

#include "core/footage/clip.h"
#include "core/measuring/session.h"
#include "core/rehearsal/rehearse.h"
#include "demo/demo_day.h"
#include "support/small_scene.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

const fs::path kShipped = FIN_DEMO;

std::vector<DemoPass> allPasses() {
  std::vector<DemoPass> out = demoPasses();
  const auto add = [&out](std::vector<DemoPass> more) {
    std::move(more.begin(), more.end(), std::back_inserter(out));
  };
  add(furtherPasses());
  add(saltDayPasses());
  add(wornDayPasses());
  return out;
}

/// A log of the shipped demo, taken in once.
class ShippedDemo : public testing::Test {
 protected:
  static void SetUpTestSuite() {
    folder_ = std::make_unique<test::TemporaryFolder>();
    const auto place = placeDemo(kShipped, folder_->path() / "kept", folder_->path() / "none");
    ASSERT_TRUE(place) << place.error().message;
    EXPECT_EQ(place->note, "");
    EXPECT_EQ(place->forLookingOnly, "");
    auto log = openDemo(*place);
    ASSERT_TRUE(log) << log.error().message;
    log_ = std::move(*log);
    passes_ = *log_->passes();
    rack_ = log_->plan(1)->rack;
  }
  static void TearDownTestSuite() {
    log_.reset();
    folder_.reset();
  }
  static const LoggedPass& logged(const DemoPass& pass) {
    const auto found = std::find_if(passes_.begin(), passes_.end(),
                                    [&](const LoggedPass& p) { return p.title == pass.title; });
    if (found == passes_.end()) throw std::runtime_error(pass.title + " is not in the shipped demo");
    return *found;
  }
  static std::shared_ptr<const Measurement> measured(const DemoPass& pass) {
    const auto kept = log_->measurement(logged(pass).id);
    if (!kept || *kept == nullptr) throw std::runtime_error(pass.title + " was not measured");
    return *kept;
  }
  static double valueOf(const DemoPass& pass, ReadingId id) {
    const auto kept = measured(pass);
    const Reading* reading = kept->readings.find(id);
    if (reading == nullptr) throw std::runtime_error(pass.title + " has no " + std::string(toString(id)));
    return std::get<double>(reading->value);
  }
  static DemoPass passIn(const std::string& file) {
    const auto all = allPasses();
    const auto found =
        std::find_if(all.begin(), all.end(), [&](const DemoPass& p) { return p.file == file; });
    if (found != all.end()) return *found;
    throw std::runtime_error("the demo has no " + file);
  }
  static double valueOf(const std::string& file, ReadingId id) { return valueOf(passIn(file), id); }

  inline static std::unique_ptr<test::TemporaryFolder> folder_;
  inline static std::unique_ptr<Log> log_;
  inline static std::vector<LoggedPass> passes_;
  inline static Rack rack_;
};

TEST_F(ShippedDemo, HoldsWhatTheRehearsalWouldMake) {
  const auto all = allPasses();
  EXPECT_EQ(passes_.size(), all.size() + 1) << "and the board";
  for (const DemoPass& pass : all) {
    const LoggedPass& kept = logged(pass);
    PassRequest expected = demoRequest(pass, kept.request.clip, rack_);
    EXPECT_EQ(kept.request, expected) << pass.title << ": make the demo anew (agile-fin-cli rehearse --ship)";
  }
}

TEST_F(ShippedDemo, IsSmallEnoughToCarryAbout) {
  std::uintmax_t bytes = 0;
  for (const auto& file : fs::directory_iterator(kShipped / "clips")) bytes += file.file_size();
  EXPECT_LT(bytes, 25'000'000U);
}

/// One of each kind is filmed and followed once more.
TEST_F(ShippedDemo, IsFilmedAndReadAsTheRehearsalDoesItNow) {
  constexpr double kNearer = 0.75;      ///< drawn otherwise, it would be 1 and more; now it is 0.3 to 0.6
  constexpr double kCoding_grey = 6.0;  ///< the mean that coding at this quality changes a grey by, and noise
  for (const char* file : {"skrell-95-pull.mp4", "vinto-11-fall-7g.mp4", "oblig-18-pull-2.mp4",
                           "tavver-12-skirt.mp4", "mirk-10-fall.mp4"}) {
    const DemoPass pass = passIn(file);
    const auto clip = Clip::open(logged(pass).request.clip);
    ASSERT_TRUE(clip) << file;
    const auto reader = Clip::reader(*clip, {});
    RehearsalTank tank(pass.scene);
    RehearsalScene other = pass.scene;
    other.lure.shape = LureShape::Plain;
    RehearsalTank plain(other);
    ASSERT_EQ((*clip)->index().frameCount(), tank.frameCount()) << file;
    const std::size_t middle = tank.frameCount() / 2;
    const auto shipped = (*reader)->frame(middle);
    const auto now = tank.frame(middle);
    const auto unlike = plain.frame(middle);
    ASSERT_TRUE(shipped && now && unlike) << file;
    const auto off = [&shipped](const Picture& picture, const cv::Rect& where) {
      cv::Mat difference;
      cv::absdiff(shipped->grey()(where), picture.grey()(where), difference);
      return cv::mean(difference)[0];
    };
    EXPECT_LT(off(*now, {0, 0, now->grey().cols, now->grey().rows}), kCoding_grey)
        << file << ": make the demo anew";
    // The lure is too small a part of the picture to be missed in the whole of it: where it is, the clip is
    // much nearer to how it is drawn now than to the same lure drawn plainly.
    const cv::Rect lure = tank.paintedLure(tank.instantOf(middle)).box;
    ASSERT_FALSE(lure.empty()) << file;
    EXPECT_LT(off(*now, lure), kNearer * off(*unlike, lure)) << file << ": make the demo anew";
  }
  const DemoPass fall = passIn("vinto-11-fall-7g.mp4");
  const auto kept = measured(fall);
  const auto clip = Clip::open(logged(fall).request.clip);
  const auto again = measure({logged(fall).request, logged(fall).clip, nullptr}, *clip);
  ASSERT_TRUE(again) << again.error().message;
  ASSERT_EQ(again->measurement->readings.readings.size(), kept->readings.readings.size());
  for (const Reading& reading : kept->readings.readings) {
    const Reading* now = again->measurement->readings.find(reading.id);
    ASSERT_NE(now, nullptr) << toString(reading.id);
    // Another compiler may round otherwise.
    const double* value = std::get_if<double>(&reading.value);
    if (value == nullptr) continue;
    EXPECT_NEAR(std::get<double>(now->value), *value, 1e-3 * std::abs(*value) + 1e-3) << toString(reading.id);
  }
}

/// What was read lies where the tank put it: within its own half-width and 2 % (one pass in twenty may miss
/// its half-width, and some sixty are looked at).
TEST_F(ShippedDemo, SaysWhatTheTankDid) {
  const auto near = [](const DemoPass& pass, ReadingId id, double truth) {
    const auto kept = measured(pass);
    const Reading* reading = kept->readings.find(id);
    ASSERT_NE(reading, nullptr) << pass.title << " has no " << toString(id);
    EXPECT_NEAR(std::get<double>(reading->value), truth, reading->u95.value_or(0.0) + 0.02 * truth)
        << pass.title << ", " << toString(id);
  };
  for (const DemoPass& pass : allPasses()) {
    if (pass.saidRate || pass.quiet) continue;
    if (const auto* sink = std::get_if<Sink>(&pass.scene.motion))
      near(pass, ReadingId::FallRate, sink->speed_mm_s);
    const auto* pull = std::get_if<StraightPull>(&pass.scene.motion);
    if (pull == nullptr || pass.scene.camera.view != View::Top) continue;
    near(pass, ReadingId::TravelSpeed, pull->speed_mm_s);
    if (pull->wobble_deg > 5.0 && pull->unevenness < 0.1)
      near(pass, ReadingId::WobbleFrequency, pull->wobble_Hz);
  }
}

TEST_F(ShippedDemo, TellsItsStory) {
  using enum ReadingId;
  EXPECT_GT(valueOf("tavver-12-skirt.mp4", FlareHalfLife), 1.5 * valueOf("hasp-14-skirt.mp4", FlareHalfLife))
      << "rubber stands open longer than silicone";
  EXPECT_GT(valueOf("skrell-95-salt.mp4", PauseDrift), 20.0) << "salt breaks the claim that it hangs";
  EXPECT_LT(std::abs(valueOf("skrell-95-twitches.mp4", PauseDrift)), 5.0) << "it held in the first water";
  EXPECT_GT(valueOf("vinto-11-unused-1.mp4", FallKickAngle),
            valueOf("vinto-11-worn-1.mp4", FallKickAngle) + 3.0)
      << "a worn tail kicks less";
  EXPECT_GT(valueOf("vinto-11-rest.mp4", StandTime), valueOf("tavver-12-rest.mp4", StandTime) + 0.5);
  EXPECT_GT(valueOf("pellow-110-walk.mp4", SwingAngle), valueOf("skrell-95-walk.mp4", SwingAngle) + 15.0);
  EXPECT_GT(valueOf("skrell-95-depth-350.mp4", RunningDepth),
            valueOf("skrell-95-depth-180.mp4", RunningDepth) + 40.0)
      << "it dives";
  EXPECT_LT(valueOf("oblig-18-depth-340.mp4", RunningDepth),
            valueOf("oblig-18-depth-190.mp4", RunningDepth) - 40.0)
      << "it climbs";
  EXPECT_NEAR(valueOf("pellow-110-chased.mp4", TravelSpeed), 270.0, 15.0);
  EXPECT_NEAR(valueOf("pellow-110-pull-3.mp4", TravelSpeed), 2.0 * 258.0, 15.0)
      << "its rate was said twice too high";
}

/// A demo that lies here, to be spoiled.
class PlaceDemo : public testing::Test {
 protected:
  void SetUp() override { fs::copy(kShipped, shipped_, fs::copy_options::recursive); }
  Result<DemoPlace> place() { return placeDemo(shipped_, kept_, temporary_); }

  test::TemporaryFolder folder_;
  fs::path shipped_ = folder_ / "shipped";
  fs::path kept_ = folder_ / "kept";
  fs::path temporary_ = folder_ / "temporary";
};

TEST_F(PlaceDemo, KeepsWhatWasDoneInIt) {
  const auto first = place();
  ASSERT_TRUE(first) << first.error().message;
  {
    const auto log = openDemo(*first);
    const auto before = (*log)->plan(1);
    DayPlan after = *before;
    after.name = "My own name";
    ASSERT_TRUE((*log)->savePlan(*before, after));
  }
  const auto second = place();
  ASSERT_TRUE(second);
  EXPECT_EQ(second->log, first->log);
  EXPECT_EQ((*openDemo(*second))->plan(1)->name, "My own name");
}

TEST_F(PlaceDemo, LeavesAnOlderDemoAsItIsAndNamesIt) {
  fs::create_directories(kept_);
  std::ofstream(kept_ / "demo-day.finlog") << "older";
  const auto placed = place();
  ASSERT_TRUE(placed) << placed.error().message;
  EXPECT_NE(placed->note.find("demo-day.finlog"), std::string::npos);
  EXPECT_EQ(fs::file_size(kept_ / "demo-day.finlog"), 5U);
  EXPECT_EQ(place()->note, "") << "said once";
}

TEST_F(PlaceDemo, OpensForLookingOnlyWhereNothingCanBeKept) {
  std::ofstream(kept_) << "a file where the folder should be";
  const auto placed = place();
  ASSERT_TRUE(placed) << placed.error().message;
  EXPECT_NE(placed->forLookingOnly, "");
  const auto log = openDemo(*placed);
  ASSERT_TRUE(log);
  EXPECT_EQ((*log)->readOnlyReason(), placed->forLookingOnly);
  const auto before = (*log)->plan(1);
  DayPlan after = *before;
  after.name = "Cannot be kept";
  const auto saved = (*log)->savePlan(*before, after);
  ASSERT_FALSE(saved);
  EXPECT_EQ(saved.error().code, ErrorCode::NotWritable);
}

TEST_F(PlaceDemo, NamesAFileThatWasChangedAndLeavesNothingHalfMade) {
  std::ofstream(shipped_ / "pass.json", std::ios::app) << "\n";
  const auto placed = place();
  ASSERT_FALSE(placed);
  EXPECT_NE(placed.error().message.find("pass.json was changed"), std::string::npos)
      << placed.error().message;
  EXPECT_TRUE(!fs::exists(kept_) || fs::is_empty(kept_));
}

TEST_F(PlaceDemo, SaysThatItIsNotThereAtAll) {
  fs::remove(shipped_ / "manifest.json");
  const auto placed = place();
  ASSERT_FALSE(placed);
  EXPECT_EQ(placed.error().code, ErrorCode::Unreadable);
}

TEST_F(PlaceDemo, CountsClipsThatAreMissingOrWereChanged) {
  fs::remove(shipped_ / "clips" / "mirk-10-fall.mp4");
  std::ofstream(shipped_ / "clips" / "skrell-95-pull.mp4", std::ios::app) << "x";
  const auto placed = place();
  ASSERT_TRUE(placed) << placed.error().message;
  EXPECT_EQ(placed->note.substr(0, 2), "2 ") << placed->note;
}

/// What was made is shipped whole, and nothing of what was shipped before stays beside it.
TEST_F(PlaceDemo, IsShippedAgainAsItWasTakenIn) {
  const auto placed = place();
  ASSERT_TRUE(placed);
  const fs::path again = folder_ / "again";
  ASSERT_TRUE(shipDemo(placed->log, again));
  std::ofstream(again / "clips" / "of-another-demo.mp4") << "x";
  ASSERT_TRUE(shipDemo(placed->log, again));
  std::set<std::string> before;
  std::set<std::string> now;
  for (const auto& clip : fs::directory_iterator(shipped_ / "clips"))
    before.insert(clip.path().filename().string());
  for (const auto& clip : fs::directory_iterator(again / "clips"))
    now.insert(clip.path().filename().string());
  EXPECT_EQ(now, before);
  EXPECT_EQ(fs::file_size(again / "reading.csv"), fs::file_size(shipped_ / "reading.csv"));
}

TEST_F(PlaceDemo, FindsItsClipsWhereTheyWereMovedTo) {
  ASSERT_TRUE(place());
  const fs::path elsewhere = folder_ / "elsewhere";
  fs::rename(shipped_, elsewhere);
  const auto placed = placeDemo(elsewhere, kept_, temporary_);
  ASSERT_TRUE(placed);
  EXPECT_EQ(placed->note, "");
  const auto log = openDemo(*placed);
  const auto passes = (*log)->passes();
  ASSERT_TRUE(passes);
  for (const LoggedPass& pass : *passes) EXPECT_TRUE(fs::exists(pass.request.clip)) << pass.title;
}

}  // namespace
}  // namespace fin
