// SPDX-License-Identifier: GPL-3.0-or-later
// A lure that is held before the camera: nothing is followed, and nothing has to move.
#include <gtest/gtest.h>

#include <opencv2/imgproc.hpp>

#include "core/comparison/speed_ladder.h"
#include "core/footage/clip_writer.h"
#include "core/measuring/session.h"
#include "support/reading_words.h"
#include "support/small_scene.h"

namespace fin {
namespace {

/// Twenty frames of a plain lure, straight or with its rear half bent down by 12°.
std::filesystem::path heldStill(const test::TemporaryFolder& folder, bool bent) {
  cv::Mat image(400, 600, CV_8UC3, cv::Scalar(170, 180, 185));
  const cv::Scalar skin(60, 80, 50);
  cv::ellipse(image, {300, 200}, {150, 24}, 0.0, 0.0, 360.0, skin, cv::FILLED);
  if (bent) {
    image.setTo(cv::Scalar(170, 180, 185));
    cv::line(image, {160, 230}, {300, 200}, skin, 40);
    cv::line(image, {300, 200}, {440, 200}, skin, 40);
  }
  const auto file = folder / (bent ? "bent.mp4" : "straight.mp4");
  ClipWriterOptions options;
  options.width_px = 600;
  options.height_px = 400;
  options.rate = Hertz(25.0);
  auto writer = ClipWriter::create(file, options);
  EXPECT_TRUE(writer);
  for (int n = 0; n < 20; ++n) EXPECT_TRUE((*writer)->add(image, Seconds(n / 25.0)));
  EXPECT_TRUE((*writer)->finish());
  return file;
}

PassRequest askedOf(const std::filesystem::path& clip, PixelPoint tail) {
  PassRequest out;
  out.clip = clip;
  out.protocol = Protocol::Still;
  out.view = View::Side;
  out.marks = {{MarkName::Nose, 0, {445.0, 200.0}}, {MarkName::Tail, 0, tail}};
  out.outline = OutlineSeed{
      4, {{130.0, 240.0}, {300.0, 160.0}, {475.0, 160.0}, {475.0, 240.0}, {300.0, 245.0}, {140.0, 270.0}}};
  return out;
}

TEST(StillPass, TellsAStraightLureFromABentOne) {
  const test::TemporaryFolder folder;
  const auto bendOf = [&](bool bent) {
    const auto file = heldStill(folder, bent);
    const auto clip = *Clip::open(file);
    const PassRequest request = askedOf(file, bent ? PixelPoint{160.0, 230.0} : PixelPoint{155.0, 200.0});
    const auto done = measure({request, clip->info().fingerprint, nullptr}, clip);
    EXPECT_TRUE(done) << done.error().message;
    if (!done) return -1.0;
    EXPECT_EQ(done->measurement->frames.followed, 20U) << "its marks lie where they were placed";
    return numberIn(done->measurement->readings, ReadingId::BodyBend).value_or(-1.0);
  };
  EXPECT_LT(bendOf(false), 0.6);
  // A kink of 12° in its middle stands 5.3 % off the chord; a cubic takes it for an arc that goes on at both
  // ends.
  EXPECT_NEAR(bendOf(true), 5.6, 0.6);
}

TEST(StillPass, AsksForTheOutline) {
  const test::TemporaryFolder folder;
  const auto file = heldStill(folder, false);
  const auto clip = *Clip::open(file);
  PassRequest request = askedOf(file, {155.0, 200.0});
  request.outline.reset();
  const auto done = measure({request, clip->info().fingerprint, nullptr}, clip);
  ASSERT_TRUE(done);
  EXPECT_NE(test::whyRefused(done->measurement->readings, ReadingId::BodyBend).find("outline"),
            std::string::npos);
}

}  // namespace
}  // namespace fin
