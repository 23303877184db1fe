// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <opencv2/imgproc.hpp>

#include "core/tracking/body/pose_path.h"
#include "core/tracking/body/riding.h"
#include "core/tracking/body/watch_body.h"

namespace fin {
namespace {

const cv::Size kPicture(260, 150);
constexpr double kLength_px = 44.0;

AxisPose poseAt(PixelPoint middle, double angle, double shown = 1.0) {
  const PixelPoint half = PixelPoint{std::cos(angle), std::sin(angle)} * (0.5 * shown * kLength_px);
  return {middle + half, middle - half};
}

/// A lure in false colours (luma and two colour differences): thick at the head, pale at its tail.
void paint(cv::Mat& picture, const AxisPose& pose) {
  constexpr int kFine = 4;  // sixteenths of a pixel
  const auto fixed = [](PixelPoint p) {
    return cv::Point(static_cast<int>(std::lround(p.x_px * (1 << kFine))),
                     static_cast<int>(std::lround(p.y_px * (1 << kFine))));
  };
  const PixelPoint along = pose.axis() * (1.0 / std::max(pose.length_px(), 1e-9));
  const PixelPoint across{-along.y_px, along.x_px};
  const PixelPoint shoulder = pose.tail + pose.axis() * 0.7;
  const std::vector<cv::Point> body{fixed(pose.nose + along * 3.0), fixed(shoulder + across * 7.0),
                                    fixed(pose.tail + across * 2.0), fixed(pose.tail - across * 2.0),
                                    fixed(shoulder - across * 7.0)};
  cv::fillConvexPoly(picture, body, cv::Scalar(70, 105, 165), cv::LINE_AA, kFine);
  const PixelPoint rear = pose.tail + pose.axis() * 0.1;
  cv::circle(picture, fixed(rear), 2 << kFine, cv::Scalar(190, 128, 128), cv::FILLED, cv::LINE_AA, kFine);
}

/// Water whose light dances: the same wall in every frame, under stripes that wander.
cv::Mat water(std::size_t frame) {
  cv::Mat out(kPicture, CV_8UC3);
  for (int y = 0; y < out.rows; ++y) {
    for (int x = 0; x < out.cols; ++x) {
      const double tile = (x / 23 + y / 17) % 2 == 0 ? 118.0 : 134.0;
      const double light = 1.0 + 0.15 * std::sin(0.21 * x + 0.13 * y + 0.9 * static_cast<double>(frame));
      out.at<cv::Vec3b>(y, x) = {static_cast<uchar>(tile * light), 140, 118};
    }
  }
  return out;
}

constexpr std::size_t kFrames = 60;
AxisPose swimming(std::size_t n) {
  const auto t = static_cast<double>(n);
  return poseAt({45.0 + 2.9 * t, 75.0 + 12.0 * std::sin(0.1 * t)}, 0.4 * std::sin(0.35 * t));
}

ReducedFilm filmOf(const std::function<void(cv::Mat&, std::size_t)>& also = {}) {
  ReducedFilm out;
  for (std::size_t n = 0; n < kFrames; ++n) {
    cv::Mat& picture = out.frames[n] = water(n);
    paint(picture, swimming(n));
    if (also) also(picture, n);
  }
  return out;
}

std::set<std::size_t> allFrames() {
  std::set<std::size_t> out;
  for (std::size_t n = 0; n < kFrames; ++n) out.insert(n);
  return out;
}

/// Its way as it is found from the first frame alone.
PosePath pathThrough(const ReducedFilm& film, Foreshortening turns) {
  const PoseHints hints{{{0, swimming(0)}}, {}, {}};
  BodyEvidence evidence(film, 0, swimming(0), [](std::size_t) { return std::nullopt; }, false, {});
  return findPosePath(allFrames(), evidence, hints, turns);
}

TEST(BodyPath, FollowsABodyUnderDancingLightFromOnePlace) {
  const PosePath path = pathThrough(filmOf(), Foreshortening::None);
  ASSERT_EQ(path.size(), kFrames);
  double sum = 0.0;
  std::size_t sure = 0;
  for (const auto& [n, posed] : path) {
    const double off_px = apart_px(posed.pose, swimming(n));
    sum += off_px * off_px;
    // Along the body a pose is known to about 4 % of its length.
    EXPECT_LT(off_px, 2.5) << "frame " << n;
    sure += posed.sure ? 1 : 0;
  }
  // Here every pose is right; what is called unsure is merely less like the rest.
  EXPECT_GE(sure, kFrames - 10);
  EXPECT_LT(std::sqrt(sum / static_cast<double>(kFrames)), 1.5);  // 3.4 % of its length
}

TEST(BodyPath, GoesOnBehindSomethingThatHidesIt) {
  const auto board = [](cv::Mat& picture, std::size_t n) {
    if (n >= 25 && n < 32) cv::rectangle(picture, {85, 20, 80, 110}, cv::Scalar(60, 120, 130), cv::FILLED);
  };
  const PosePath path = pathThrough(filmOf(board), Foreshortening::None);
  for (std::size_t n = 36; n < kFrames; ++n) EXPECT_LT(apart_px(path.at(n).pose, swimming(n)), 2.5) << n;
  for (std::size_t n = 27; n < 31; ++n)
    EXPECT_FALSE(path.at(n).sure) << "nothing is seen of it in frame " << n;
}

TEST(BodyPath, KeepsItsEndsWhereItTurnsRound) {
  // It turns round about the plumb: seen from the side it shortens, then points the other way.
  const auto spinning = [](std::size_t n) {
    const double turn = 0.16 * static_cast<double>(n);
    const PixelPoint half{0.5 * kLength_px * std::cos(turn), 6.0};
    const PixelPoint middle{130.0, 40.0 + static_cast<double>(n)};
    return AxisPose{middle + half, middle - half};
  };
  ReducedFilm film;
  for (std::size_t n = 0; n < kFrames; ++n) {
    film.frames[n] = water(n);
    paint(film.frames[n], spinning(n));
  }
  BodyEvidence evidence(film, 0, spinning(0), [](std::size_t) { return std::nullopt; }, false, {});
  const PosePath path =
      findPosePath(allFrames(), evidence, {{{0, spinning(0)}}, {}, {}}, Foreshortening::Any);
  std::size_t right = 0;
  std::size_t broadside = 0;
  for (const auto& [n, posed] : path) {
    if (spinning(n).length_px() < 0.7 * kLength_px) continue;  // nearly end on
    ++broadside;
    right += dot(posed.pose.axis(), spinning(n).axis()) > 0.0 ? 1 : 0;
  }
  EXPECT_GT(broadside, 30U);
  EXPECT_EQ(right, broadside);
}

/// A way across a wide picture, and a mark that lies nearer to the camera than the body's middle.
struct WideWay {
  static constexpr double kNear = 0.012;
  static constexpr PixelPoint kMiddle{640.0, 360.0};
  BodyWay way;
  MarkTrack followed{MarkName::Nose, std::vector<MarkSample>(200)};
  std::vector<MarkSeed> seeds;

  WideWay() {
    for (std::size_t n = 0; n < 200; ++n) {
      const PixelPoint nose{120.0 + 5.0 * static_cast<double>(n), 360.0};
      way[n] = {{nose, nose - PixelPoint{100.0, 0.0}}, true};
      followed.samples[n] = {true, markAt(n), 1.0};
    }
    seeds = {{MarkName::Nose, 0, way.at(0).pose.nose}};
    followed.samples[0].at = seeds[0].at;
  }
  [[nodiscard]] PixelPoint markAt(std::size_t n) const {
    const PixelPoint nose = way.at(n).pose.nose;
    return nose + (nose - kMiddle - (way.at(0).pose.nose - kMiddle)) * kNear;
  }
  [[nodiscard]] Riding ride() const { return rideOn(way, followed, 0, seeds, kMiddle); }
};

TEST(Riding, TellsHowMuchNearerToTheCameraAMarkLies) {
  const WideWay wide;
  const Riding riding = wide.ride();
  EXPECT_NEAR(riding.nearness.value, WideWay::kNear, 0.001);
  EXPECT_EQ(riding.agreeing, 200U);
}

TEST(Riding, CarriesALostMarkWhereItShouldBe) {
  WideWay wide;
  for (std::size_t n = 120; n < 200; ++n) wide.followed.samples[n] = {};
  const Riding riding = wide.ride();
  for (std::size_t n = 120; n < 200; ++n)
    EXPECT_LT(length(riding.marks.at(n).at - wide.markAt(n)).value(), 1.0) << n;
}

TEST(Riding, DoesNotBelieveAMarkThatSlidAside) {
  WideWay wide;
  for (std::size_t n = 100; n < 200; ++n) wide.followed.samples[n].at.x_px -= 12.0;
  const Riding riding = wide.ride();
  for (std::size_t n = 101; n < 200; ++n) {
    EXPECT_FALSE(riding.marks.at(n).agrees) << n;
    EXPECT_LT(length(riding.marks.at(n).at - wide.markAt(n)).value(), 1.5) << n;
  }
}

/// Its frames, as a clip would give them.
class Swimmer : public FrameSource {
 public:
  [[nodiscard]] std::size_t frameCount() const override { return kFrames; }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override {
    return Seconds(0.02 * static_cast<double>(frame));
  }
  [[nodiscard]] Result<Picture> frame(std::size_t frame) override {
    return Picture(std::make_shared<Shown>(film_.frames.at(frame)));
  }

 private:
  struct Shown : Picture::Source {
    explicit Shown(cv::Mat colours) : planes(std::move(colours)) { cv::extractChannel(planes, luma, 0); }
    [[nodiscard]] const cv::Mat& grey() const override { return luma; }
    [[nodiscard]] cv::Mat rgb() const override { return {}; }
    [[nodiscard]] cv::Mat reduced(cv::Size size) const override {
      EXPECT_EQ(size, planes.size());
      return planes;
    }
    cv::Mat planes;
    cv::Mat luma;
  };
  ReducedFilm film_ = filmOf();
};

TEST(WatchBody, CarriesALostEndAndLeavesOneThatHoldsAsItIs) {
  Swimmer swimmer;
  FilmingFrameSource filming(swimmer, kLength_px, 1 << 30);
  for (std::size_t n = 0; n < kFrames; ++n) ASSERT_TRUE(filming.frame(n));
  Track track{0, kFrames, {{MarkName::Nose, {}}, {MarkName::Tail, {}}}};
  for (std::size_t n = 0; n < kFrames; ++n) {
    track.marks[0].samples.push_back({true, swimming(n).nose, 1.0});
    track.marks[1].samples.push_back(n < 20 ? MarkSample{true, swimming(n).tail, 1.0} : MarkSample{});
  }
  const Track before = track;
  const std::vector<MarkSeed> seeds{{MarkName::Nose, 0, swimming(0).nose},
                                    {MarkName::Tail, 0, swimming(0).tail}};
  const std::vector<HiddenRegion> hidden{{50, 59, {{0.0, 0.0}, {260.0, 0.0}, {260.0, 150.0}, {0.0, 150.0}}}};
  std::stop_source stopped;
  stopped.request_stop();
  const BodyWatch request{seeds, hidden, false, Foreshortening::None};
  const auto done = watchBody(filming, request, track, {stopped.get_token(), {}});
  ASSERT_FALSE(done);
  EXPECT_EQ(done.error().code, ErrorCode::Cancelled);
  EXPECT_FALSE(track.marks[1].samples[30].seen) << "stopped, it leaves the track as it was";
  EXPECT_EQ(filming.film().frames.size(), kFrames / 4) << "it does not film on";
  ASSERT_TRUE(watchBody(filming, request, track));
  for (std::size_t n = 0; n < kFrames; ++n) {
    EXPECT_EQ(track.marks[0].samples[n].at, before.marks[0].samples[n].at) << n;
    const MarkSample& tail = track.marks[1].samples[n];
    if (n >= 50) {
      EXPECT_FALSE(tail.seen) << "it lies in a hidden part in frame " << n;
      continue;
    }
    ASSERT_TRUE(tail.seen) << n;
    EXPECT_LT(length(tail.at - swimming(n).tail).value(), 2.0) << n;
  }
}

/// Pictures of one grey level.
class Plain : public FrameSource {
 public:
  [[nodiscard]] std::size_t frameCount() const override { return 64; }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override {
    return Seconds(0.02 * static_cast<double>(frame));
  }
  [[nodiscard]] Result<Picture> frame(std::size_t /*frame*/) override {
    return Picture::fromMat(cv::Mat(96, 192, CV_8UC3, cv::Scalar(90, 90, 90)));
  }
};

TEST(WatchBody, PutsBackAMarkThatSlidAsideThoughItWasSureUpToTheLastFrame) {
  Swimmer swimmer;
  FilmingFrameSource filming(swimmer, kLength_px, 1 << 30);
  for (std::size_t n = 0; n < kFrames; ++n) ASSERT_TRUE(filming.frame(n));
  Track track{0, kFrames, {{MarkName::Nose, {}}, {MarkName::Tail, {}}}};
  const PixelPoint aside{0.0, 14.0};
  for (std::size_t n = 0; n < kFrames; ++n) {
    track.marks[0].samples.push_back({true, swimming(n).nose, 1.0});
    track.marks[1].samples.push_back({true, swimming(n).tail + aside * (n < 30 ? 0.0 : 1.0), 1.0});
  }
  const std::vector<MarkSeed> seeds{{MarkName::Nose, 0, swimming(0).nose},
                                    {MarkName::Tail, 0, swimming(0).tail}};
  ASSERT_TRUE(watchBody(filming, {seeds, {}, false, Foreshortening::None}, track));
  for (std::size_t n = 30; n < kFrames; ++n) {
    const MarkSample& tail = track.marks[1].samples[n];
    EXPECT_LT(length(tail.at - swimming(n).tail).value(), 3.0) << n;
    EXPECT_LT(tail.quality, kDoubtfulBelow) << "it is not as sure as a mark that was seen: " << n;
  }
}

TEST(ReducedFilm, KeepsFewerFramesOnceTheRoomIsFullAndOthersWhereTheyAreWanted) {
  Plain source;
  // The body is to be 48 px long in it: half the size, 48 × 96 × 3 bytes a frame.
  FilmingFrameSource filming(source, 96.0, 13 * 48 * 96 * 3);
  for (std::size_t n = 0; n < 64; ++n) ASSERT_TRUE(filming.frame(n));
  const ReducedFilm& film = filming.film();
  ASSERT_EQ(film.frames.size(), 8U);
  EXPECT_TRUE(film.frames.contains(56));
  EXPECT_FALSE(film.frames.contains(60));
  EXPECT_EQ(film.frames.at(0).size(), cv::Size(96, 48));
  const PixelPoint p{17.0, 31.0};
  EXPECT_NEAR(film.toFull(film.toReduced(p)).x_px, p.x_px, 1e-9);
  filming.filmAlso({0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10});
  ASSERT_EQ(film.frames.size(), 13U) << "there is room for five more of the nine";
  EXPECT_TRUE(film.frames.contains(1) && film.frames.contains(3) && film.frames.contains(10));
  FilmingFrameSource none(source, 0.0, 1 << 20);
  ASSERT_TRUE(none.frame(0));
  EXPECT_TRUE(none.film().frames.empty()) << "without a body nothing is kept";
}

}  // namespace
}  // namespace fin
