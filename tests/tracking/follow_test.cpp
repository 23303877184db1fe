// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/follow.h"
#include "core/footage/cached_frame_source.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/core.hpp>
#include <opencv2/imgproc.hpp>

#include "core/tracking/background/background.h"
#include "support/small_scene.h"

namespace fin {
namespace {

constexpr std::array kEnds{MarkName::Nose, MarkName::Tail};

FollowRequest fromTruth(const RehearsalTank& tank) {
  const PassRequest request = requestFor(tank, {});
  return {request.marks, request.firstFrame, *request.lastFrame};
}

struct Errors {
  double rms_px = 0.0;
  double worstTrusted_px = 0.0;  ///< of samples with quality from 0.5
  double seenShare = 0.0;
};

Errors errorsOf(const RehearsalTank& tank, const Track& track) {
  Errors out;
  double n = 0.0;
  for (const MarkTrack& mark : track.marks) {
    for (std::size_t i = 0; i < mark.samples.size(); ++i) {
      const MarkSample& s = mark.samples[i];
      if (!s.seen) continue;
      const double e = length(s.at - tank.markAt(mark.name, track.firstFrame + i)).value();
      out.rms_px += e * e;
      n += 1.0;
      if (s.quality >= 0.5) out.worstTrusted_px = std::max(out.worstTrusted_px, e);
    }
  }
  out.rms_px = std::sqrt(out.rms_px / n);
  out.seenShare = n / static_cast<double>(track.marks.size() * track.frameCount);
  return out;
}

struct Named {
  const char* name;
  RehearsalScene scene;
};
void PrintTo(const Named& named, std::ostream* out) {
  *out << named.name;
}
class Followed : public testing::TestWithParam<Named> {};

TEST_P(Followed, StaysOnTheMarksToAFractionOfAPixel) {
  RehearsalTank tank(GetParam().scene);
  const auto track = followMarks(tank, fromTruth(tank));
  ASSERT_TRUE(track) << track.error().message;
  const Errors errors = errorsOf(tank, *track);
  // What the readings' uncertainties reckon with.
  EXPECT_LT(errors.rms_px, markPlaceU95(Pixels(0.0)).value());
  // The hard landing of a fall is the worst: it stops within one frame.
  EXPECT_LT(errors.worstTrusted_px, 4.0);
  EXPECT_GT(errors.seenShare, 0.97);
}

RehearsalScene noisy(RehearsalScene scene) {
  scene.noise_grey = 6.0;
  scene.dancingLight = 0.15;
  return scene;
}

INSTANTIATE_TEST_SUITE_P(Scenes, Followed,
                         testing::Values(Named{"pull", test::smallPull(1)}, Named{"fall", test::smallFall(2)},
                                         Named{"noisy", noisy(test::smallPull(3))}),
                         [](const auto& scene) { return scene.param.name; });

TEST(Follow, HoldsTheMarksOfALureThatComesNearer) {
  RehearsalScene scene = test::smallPull();
  scene.camera.view = View::HeadOn;
  scene.camera.distance_mm = 700.0;
  scene.camera.focal_px = 1300.0;
  scene.motion = StraightPull{
      .speed_mm_s = 200.0, .start_mm = -700.0, .wobble_Hz = 3.0, .wobble_deg = 10.0, .roll_deg = 30.0};
  scene.length = Seconds(4.5);
  RehearsalTank tank(scene);
  FollowRequest request{{}, 0, tank.frameCount() - 1};
  for (const MarkName name : {MarkName::Back, MarkName::Belly})
    request.seeds.push_back({name, 0, tank.markAt(name, 0)});
  const auto apart = [&](std::size_t n) {
    return length(tank.markAt(MarkName::Back, n) - tank.markAt(MarkName::Belly, n)).value();
  };
  ASSERT_GT(apart(request.lastFrame), 2.0 * apart(0));
  const auto track = followMarks(tank, request);
  ASSERT_TRUE(track) << track.error().message;
  for (const MarkTrack& mark : track->marks) {
    double power = 0.0;
    double seen = 0.0;
    for (std::size_t n = 0; n < mark.samples.size(); ++n) {
      const MarkSample& s = mark.samples[n];
      if (!s.seen) continue;
      power += std::pow(length(s.at - tank.markAt(mark.name, n)).value() / apart(n), 2);
      seen += 1.0;
    }
    const auto frames = static_cast<double>(mark.samples.size());
    EXPECT_GT(seen, 0.95 * frames) << toString(mark.name);
    // At its first size the patch would come to lie beside: 0.28 and 0.42 of what is between the marks.
    EXPECT_LT(std::sqrt(power / seen), 0.12) << toString(mark.name);
  }
}

TEST(Follow, SaysLostWhenTheLureLeavesThePicture) {
  RehearsalScene scene = test::smallPull();
  scene.length = Seconds(3.0);  // it is out after about two seconds
  RehearsalTank tank(scene);
  FollowRequest request = fromTruth(tank);
  request.lastFrame = tank.frameCount() - 1;
  const auto track = followMarks(tank, request);
  ASSERT_TRUE(track);
  const Track truth = tank.trueTrack(kEnds);
  for (MarkName name : kEnds) {
    const MarkTrack& found = *track->find(name);
    for (std::size_t i = 0; i < found.samples.size(); ++i) {
      const bool outside = !truth.find(name)->samples[track->firstFrame + i].seen;
      if (outside) {
        EXPECT_FALSE(found.samples[i].seen) << toString(name) << " at " << i;
      }
    }
  }
}

TEST(Follow, ObeysACorrectionExactly) {
  RehearsalTank tank(test::smallPull());
  FollowRequest request = fromTruth(tank);
  const PixelPoint said = tank.markAt(MarkName::Nose, 90) + PixelPoint{0.4, -0.3};
  request.seeds.push_back({MarkName::Nose, 90, said});
  const auto track = followMarks(tank, request);
  ASSERT_TRUE(track);
  EXPECT_EQ(track->find(MarkName::Nose)->samples[90 - track->firstFrame].at, said);
}

TEST(Follow, GoesAnewOnlyBetweenTheCorrections) {
  RehearsalTank tank(test::smallPull());
  FollowRequest request = fromTruth(tank);
  request.seeds.push_back({MarkName::Nose, 60, tank.markAt(MarkName::Nose, 60)});
  request.seeds.push_back({MarkName::Nose, 120, tank.markAt(MarkName::Nose, 120)});
  Track earlier = *followMarks(tank, request);
  // Something that following would never give, to tell what was kept.
  for (MarkTrack& mark : earlier.marks) {
    for (MarkSample& s : mark.samples) s.quality = 0.77;
  }
  FollowRequest corrected = request;
  const PixelPoint said = tank.markAt(MarkName::Nose, 90) + PixelPoint{0.3, 0.2};
  corrected.seeds.push_back({MarkName::Nose, 90, said});
  const auto track = followChanged(tank, corrected, earlier, request.seeds);
  ASSERT_TRUE(track) << track.error().message;
  const auto sample = [&](MarkName name, std::size_t frame) {
    return track->find(name)->samples[frame - track->firstFrame];
  };
  EXPECT_EQ(sample(MarkName::Nose, 90).at, said);
  for (std::size_t n = request.firstFrame; n <= request.lastFrame; ++n) {
    const bool kept = sample(MarkName::Nose, n).quality == 0.77;
    EXPECT_EQ(kept, n < 60 || n > 120) << n;
    EXPECT_EQ(sample(MarkName::Tail, n).quality, 0.77) << n;
  }
  EXPECT_LT(errorsOf(tank, *track).rms_px, markPlaceU95(Pixels(0.0)).value());
}

TEST(Follow, GoesAnewFromACorrectionUntilTheWayIsTheOldOne) {
  RehearsalScene scene = test::smallHops();
  std::get<Hops>(scene.motion).ahead_mm = 0.0;
  RehearsalTank tank(scene);
  CachedFrameSource filmed(tank, std::size_t{1} << 30);
  const FollowRequest request = fromTruth(tank);
  const Track right = *followMarks(filmed, request);
  for (const std::size_t wrongTo : {std::size_t{265}, request.lastFrame}) {
    Track earlier = right;
    const auto at = [](Track& track, std::size_t n) -> MarkSample& {
      const auto nose = std::find_if(track.marks.begin(), track.marks.end(),
                                     [](const MarkTrack& m) { return m.name == MarkName::Nose; });
      return nose->samples[n - track.firstFrame];
    };
    for (MarkTrack& mark : earlier.marks) {
      for (MarkSample& s : mark.samples) s.quality = 0.77;
    }
    for (std::size_t n = 215; n <= wrongTo; ++n) at(earlier, n).at = at(earlier, n).at + PixelPoint{8.0, 3.0};
    FollowRequest corrected = request;
    corrected.seeds.push_back({MarkName::Nose, 240, tank.markAt(MarkName::Nose, 240)});
    auto track = followChanged(filmed, corrected, earlier, request.seeds);
    ASSERT_TRUE(track) << track.error().message;
    EXPECT_LT(errorsOf(tank, *track).rms_px, markPlaceU95(Pixels(0.0)).value()) << wrongTo;
    EXPECT_EQ(at(*track, request.firstFrame).quality, 0.77) << "far before, it was right as it was";
    EXPECT_EQ(at(*track, request.lastFrame).quality == 0.77, wrongTo != request.lastFrame);
  }
  // The only place of a mark, moved by less than what counts as the same way, moves all of it.
  FollowRequest moved = request;
  const auto nose = std::find_if(moved.seeds.begin(), moved.seeds.end(),
                                 [](const MarkSeed& s) { return s.name == MarkName::Nose; });
  nose->at = nose->at + PixelPoint{0.3, 0.0};
  const auto track = followChanged(filmed, moved, right, request.seeds);
  ASSERT_TRUE(track) << track.error().message;
  EXPECT_NE(track->find(MarkName::Nose)->samples.back().at, right.find(MarkName::Nose)->samples.back().at);
}

TEST(Follow, DoubtsWhereTheWaysFromBothSidesDisagree) {
  RehearsalTank tank(test::smallPull());
  FollowRequest request = fromTruth(tank);
  // A correction that lies on the body, but not on the mark: the ways cannot agree around it.
  const PixelPoint beside = tank.markAt(MarkName::Nose, 90) +
                            (tank.markAt(MarkName::Tail, 90) - tank.markAt(MarkName::Nose, 90)) * 0.4;
  request.seeds.push_back({MarkName::Nose, 90, beside});
  const auto track = followMarks(tank, request);
  ASSERT_TRUE(track) << track.error().message;
  const std::vector<FrameStretch> doubtful = doubtfulStretches(*track);
  EXPECT_TRUE(std::any_of(doubtful.begin(), doubtful.end(),
                          [](const FrameStretch& s) { return s.first < 90 && s.last > 60; }));
}

/// A spot that goes right and hides for eight frames. Another one just like it comes down from above
/// meanwhile, to where the first would come out, if it is to be mistaken for it.
class HidingSpot : public FrameSource {
 public:
  static constexpr std::size_t kHides = 40;
  static constexpr std::size_t kBack = 48;

  explicit HidingSpot(bool another, double noise_grey = 2.0) : another_(another), wall_(240, 420, CV_8UC1) {
    cv::RNG(7).fill(wall_, cv::RNG::NORMAL, 110.0, noise_grey);
  }
  [[nodiscard]] std::size_t frameCount() const override { return 90; }
  [[nodiscard]] Seconds timeOf(std::size_t n) const override {
    return Seconds(static_cast<double>(n) / 100.0);
  }
  [[nodiscard]] Result<Picture> frame(std::size_t n) override {
    cv::Mat picture = wall_.clone();
    const bool hidden = n >= kHides && (another_ || n < kBack);
    if (!hidden) draw(picture, at(n));
    if (another_) draw(picture, at(n) - PixelPoint{0.0, 6.0 * static_cast<double>(n < 50 ? 50 - n : 0)});
    return Picture::fromMat(picture);
  }
  static PixelPoint at(std::size_t n) { return {40.0 + 3.5 * static_cast<double>(n), 170.0}; }

 private:
  static void draw(cv::Mat& picture, PixelPoint at) {
    for (int y = 0; y < picture.rows; ++y) {
      for (int x = 0; x < picture.cols; ++x) {
        const double away = length(PixelPoint{1.0 * x, 1.0 * y} - at).value();
        picture.at<uchar>(y, x) = cv::saturate_cast<uchar>(
            picture.at<uchar>(y, x) + 90.0 * std::exp(-0.06 * away * away) * std::cos(0.6 * away));
      }
    }
  }

  bool another_;
  cv::Mat wall_;
};

TEST(Follow, GoesBackFromWhereAMarkIsSeenAgain) {
  for (const bool another : {false, true}) {
    HidingSpot source(another);
    const FollowRequest request{{{MarkName::Tip, 0, HidingSpot::at(0)}}, 0, source.frameCount() - 1};
    const auto track = followMarks(source, request);
    ASSERT_TRUE(track) << track.error().message;
    const auto& tip = track->marks.front().samples;
    for (std::size_t n = 55; n < tip.size(); ++n) {
      ASSERT_TRUE(tip[n].seen) << n;
      EXPECT_LT(length(tip[n].at - HidingSpot::at(n)).value(), 0.5) << n;
      // It is found in the same place, but has come from elsewhere: that is no mark to measure.
      EXPECT_EQ(tip[n].quality < kDoubtfulBelow, another) << n << ", " << tip[n].quality;
    }
    EXPECT_GT(tip[HidingSpot::kHides - 2].quality, 0.9) << "before it was hidden all was well";
  }
}

/// A body with a spot at either end and a soft tail, which kicks; a leaf comes from below to cover the tail's
/// tip, and goes on before it.
class LeafAtTheTail : public FrameSource {
 public:
  LeafAtTheTail() : wall_(300, 460, CV_8UC1) { cv::RNG(7).fill(wall_, cv::RNG::NORMAL, 120.0, 2.0); }
  [[nodiscard]] std::size_t frameCount() const override { return 120; }
  [[nodiscard]] Seconds timeOf(std::size_t n) const override {
    return Seconds(static_cast<double>(n) / 50.0);
  }
  [[nodiscard]] Result<Picture> frame(std::size_t n) override {
    cv::Mat picture = wall_.clone();
    cv::line(picture, dotted(at(MarkName::Nose, n)), dotted(at(MarkName::Tail, n)), cv::Scalar(60), 14,
             cv::LINE_AA, kDots);
    cv::line(picture, dotted(at(MarkName::Tail, n)), dotted(at(MarkName::Tip, n)), cv::Scalar(70), 6,
             cv::LINE_AA, kDots);
    for (const MarkName name : {MarkName::Nose, MarkName::Tail, MarkName::Tip})
      cv::circle(picture, dotted(at(name, n)), 5 << kDots, cv::Scalar(name == MarkName::Tip ? 210 : 150),
                 cv::FILLED, cv::LINE_AA, kDots);
    cv::ellipse(picture, dotted(leafAt(n)), {12 << kDots, 7 << kDots}, 50.0, 0.0, 360.0, cv::Scalar(25),
                cv::FILLED, cv::LINE_AA, kDots);
    return Picture::fromMat(picture);
  }
  static PixelPoint at(MarkName name, std::size_t n) {
    const PixelPoint nose{60.0 + 1.5 * static_cast<double>(n), 150.0};
    if (name == MarkName::Nose) return nose;
    const PixelPoint tail = nose + PixelPoint{70.0, 0.0};
    const double bend = 0.6 * std::sin(2.0 * std::numbers::pi * static_cast<double>(n) / 24.0);
    return name == MarkName::Tail ? tail : tail + PixelPoint{46.0 * std::cos(bend), 46.0 * std::sin(bend)};
  }
  static PixelPoint leafAt(std::size_t n) {
    const auto since = static_cast<double>(n) - kOver;
    return at(MarkName::Tip, static_cast<std::size_t>(kOver)) + PixelPoint{2.0, -1.0} * since;
  }
  static constexpr double kOver = 50.0;  ///< the frame in which it covers the tip

 private:
  static constexpr int kDots = 4;  ///< bits after the point
  static cv::Point dotted(PixelPoint p) {
    return {static_cast<int>(std::lround(p.x_px * (1 << kDots))),
            static_cast<int>(std::lround(p.y_px * (1 << kDots)))};
  }
  cv::Mat wall_;
};

TEST(Follow, LetsALeafGoThatHidASoftTip) {
  LeafAtTheTail source;
  FollowRequest request{{}, 0, source.frameCount() - 1};
  for (const MarkName name : {MarkName::Nose, MarkName::Tail, MarkName::Tip})
    request.seeds.push_back({name, 0, LeafAtTheTail::at(name, 0)});
  const auto track = followMarks(source, request);
  ASSERT_TRUE(track) << track.error().message;
  const auto& tip = track->find(MarkName::Tip)->samples;
  for (std::size_t n = 95; n < tip.size(); ++n) {
    EXPECT_TRUE(tip[n].seen) << n;
    EXPECT_LT(length(tip[n].at - LeafAtTheTail::at(MarkName::Tip, n)).value(), 3.0) << n;
  }
}

TEST(Follow, LeavesAnEndWithoutTextureToTheBodyIfTheOtherCanBeHeld) {
  HidingSpot source(false, 0.3);
  const PixelPoint bare{30.0, 0.0};
  FollowRequest request{
      {{MarkName::Nose, 0, HidingSpot::at(0)}, {MarkName::Tail, 0, HidingSpot::at(0) + bare}}, 0, 30};
  const auto track = followMarks(source, request);
  ASSERT_TRUE(track) << track.error().message;
  for (std::size_t n = 1; n <= 30; ++n) {
    EXPECT_TRUE(track->marks[0].samples[n].seen) << n;
    EXPECT_FALSE(track->marks[1].samples[n].seen) << n;
  }
  EXPECT_TRUE(track->marks[1].samples[0].seen) << "where it was placed";
  request.seeds[0].at = {300.0, 60.0};
  const auto neither = followMarks(source, request);
  ASSERT_FALSE(neither);
  EXPECT_EQ(neither.error().code, ErrorCode::Lost);
}

TEST(Follow, LooksForNothingInAHiddenPart) {
  RehearsalTank tank(test::smallPull());
  FollowRequest request = fromTruth(tank);
  request.hidden = {{0, tank.frameCount(), {{200.0, 0.0}, {280.0, 0.0}, {280.0, 270.0}, {200.0, 270.0}}}};
  const auto track = followMarks(tank, request);
  ASSERT_TRUE(track);
  EXPECT_GT(errorsOf(tank, *track).seenShare, 0.25) << "before the hidden part it is followed";
  for (const MarkTrack& mark : track->marks) {
    for (const MarkSample& s : mark.samples) {
      // A place is settled by up to a pixel or two after it was chosen.
      EXPECT_FALSE(s.seen && s.at.x_px > 203.0 && s.at.x_px < 277.0) << toString(mark.name);
    }
  }
}

TEST(Follow, FindsAnEndAgainThatWasLongOutOfSight) {
  RehearsalTank tank(test::smallPull());
  FollowRequest request = fromTruth(tank);
  const std::size_t gone = request.firstFrame + 30;
  const std::size_t back = gone + 80;
  for (std::size_t n = gone; n < back; ++n) {
    const PixelPoint nose = tank.markAt(MarkName::Nose, n);
    const auto corner = [nose](double x, double y) { return nose + PixelPoint{x, y}; };
    request.hidden.push_back({n, n, {corner(-40, -40), corner(12, -40), corner(12, 40), corner(-40, 40)}});
  }
  const auto track = followMarks(tank, request);
  ASSERT_TRUE(track);
  const auto& nose = track->find(MarkName::Nose)->samples;
  EXPECT_FALSE(nose[back - 2 - track->firstFrame].seen);
  for (std::size_t n = back + 3; n < back + 20; ++n) {
    ASSERT_TRUE(nose[n - track->firstFrame].seen) << n;
    EXPECT_LT(length(nose[n - track->firstFrame].at - tank.markAt(MarkName::Nose, n)).value(), 1.0) << n;
  }
}

TEST(Follow, DoubtsTheEndsOfABodyThatTurnsTowardsTheCamera) {
  RehearsalScene scene = test::smallPull();
  scene.camera.view = View::Side;
  auto& pull = std::get<StraightPull>(scene.motion);
  pull.wobble_deg = 150.0;
  pull.wobble_Hz = 1.0;
  RehearsalTank tank(scene);
  const FollowRequest request = fromTruth(tank);
  const auto track = followMarks(tank, request);
  ASSERT_TRUE(track);
  const auto apart = [&](std::size_t n) {
    return length(tank.markAt(MarkName::Nose, n) - tank.markAt(MarkName::Tail, n)).value();
  };
  double longest = 0.0;
  for (std::size_t n = request.firstFrame; n <= request.lastFrame; ++n) longest = std::max(longest, apart(n));
  std::size_t endOn = 0;
  for (std::size_t n = request.firstFrame; n <= request.lastFrame; ++n) {
    if (apart(n) > 0.5 * longest) continue;
    ++endOn;
    for (const MarkTrack& mark : track->marks)
      EXPECT_LT(mark.samples[n - request.firstFrame].quality, kDoubtfulBelow) << toString(mark.name) << n;
  }
  EXPECT_GT(endOn, 20U);
}

TEST(Track, SaysWhereToLook) {
  const auto seen = [](double quality) { return MarkSample{true, {}, quality}; };
  Track track{100, 20, {{MarkName::Nose, std::vector<MarkSample>(20, seen(0.9))}}};
  auto& samples = track.marks[0].samples;
  samples[0] = samples[1] = {};  // not there yet
  samples[5] = seen(0.3);        // doubtful
  samples[8] = {};               // a gap soon after
  samples[16] = seen(0.1);
  samples[18] = samples[19] = {};  // gone
  const std::vector<FrameStretch> expected{{105, 108}, {116, 116}};
  EXPECT_EQ(doubtfulStretches(track), expected);
}

TEST(Follow, GoesBothWaysFromASeedInTheMiddle) {
  RehearsalTank tank(test::smallPull());
  FollowRequest request = fromTruth(tank);
  for (MarkSeed& s : request.seeds) {
    s.frame = 100;
    s.at = tank.markAt(s.name, 100);
  }
  const auto track = followMarks(tank, request);
  ASSERT_TRUE(track);
  EXPECT_GT(errorsOf(tank, *track).seenShare, 0.97);
  EXPECT_LT(errorsOf(tank, *track).rms_px, markPlaceU95(Pixels(0.0)).value());
}

TEST(Follow, RefusesMarksThatCannotBeMeant) {
  RehearsalTank tank(test::smallPull());
  const FollowRequest good = fromTruth(tank);
  const auto refused = [&](auto change) {
    FollowRequest request = good;
    change(request);
    const auto track = followMarks(tank, request);
    return !track && track.error().code == ErrorCode::BadRequest && track.error().message.find("marks") == 0;
  };
  EXPECT_TRUE(refused([](FollowRequest& r) { r.seeds[0].at = {-20.0, 10.0}; }));
  EXPECT_TRUE(refused([](FollowRequest& r) { r.seeds[0].at = r.seeds[1].at; }));
  EXPECT_TRUE(refused([](FollowRequest& r) { r.seeds[0].frame = 100000; }));
  EXPECT_TRUE(refused([](FollowRequest& r) { r.seeds.clear(); }));
}

TEST(Follow, RefusesAnEmptyWall) {
  RehearsalScene scene = test::smallPull();
  scene.noise_grey = 0.4;
  RehearsalTank tank(scene);
  FollowRequest request = fromTruth(tank);
  request.seeds = {{MarkName::Nose, request.firstFrame, {300.0, 20.0}}};
  const auto track = followMarks(tank, request);
  ASSERT_FALSE(track);
  EXPECT_NE(track.error().message.find("too little detail"), std::string::npos) << track.error().message;
}

/// A picture that is seen through a window which moves over a larger one: the background of a moving camera.
class MovingWindow : public FrameSource {
 public:
  explicit MovingWindow(RehearsalTank& tank) : picture_(*tank.frame(0)) {}
  [[nodiscard]] std::size_t frameCount() const override { return 80; }
  [[nodiscard]] Seconds timeOf(std::size_t n) const override {
    return Seconds(static_cast<double>(n) / 100.0);
  }
  [[nodiscard]] Result<Picture> frame(std::size_t n) override {
    return Picture::fromMat(
        picture_.rgb()(cv::Rect(static_cast<int>(2 * n), 20 + static_cast<int>(n) / 4, 300, 200)));
  }

 private:
  Picture picture_;
};

TEST(Background, IsFollowedBehindAMovingCamera) {
  RehearsalScene scene = test::smallPull();
  scene.noise_grey = 1.0;
  RehearsalTank tank(scene);
  MovingWindow source(tank);
  Track track{0, source.frameCount(), {}};
  ASSERT_TRUE(followBackground(source, track));
  for (std::size_t n = 0; n < track.frameCount; n += 13) {
    ASSERT_TRUE(track.background[n].seen) << n;
    // The window goes right, so what is seen goes left; a few hundredths of a pixel a frame add up.
    EXPECT_NEAR(track.background[n].at.x_px, -2.0 * static_cast<double>(n), 0.8) << n;
    EXPECT_NEAR(track.background[n].at.y_px, -static_cast<double>(n / 4), 0.8) << n;
  }
}

TEST(Follow, StopsWhenAsked) {
  RehearsalTank tank(test::smallPull());
  std::stop_source stop;
  JobControl job{stop.get_token(), [&](double share) {
                   if (share > 0.3) stop.request_stop();
                 }};
  const auto track = followMarks(tank, fromTruth(tank), job);
  ASSERT_FALSE(track);
  EXPECT_EQ(track.error().code, ErrorCode::Cancelled);
}

}  // namespace
}  // namespace fin
