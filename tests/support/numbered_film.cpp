// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/numbered_film.h"

#include <gtest/gtest.h>

#include <cmath>
#include <cstdlib>
#include <opencv2/core.hpp>

namespace fin::test {
namespace {

constexpr int kBlock_px = 16;
constexpr int kBits = 8;

}  // namespace

cv::Mat numbered(std::size_t n) {
  cv::Mat image(96, 160, CV_8UC3, cv::Scalar(90, 110, 120));
  for (int bit = 0; bit < kBits; ++bit) {
    const cv::Scalar colour = ((n >> bit) & 1U) != 0 ? cv::Scalar::all(235) : cv::Scalar::all(20);
    image(cv::Rect(16 + bit * kBlock_px, 32, kBlock_px, 32)).setTo(colour);
  }
  return image;
}

std::size_t numberIn(const Picture& picture) {
  std::size_t n = 0;
  for (int bit = 0; bit < kBits; ++bit) {
    if (picture.grey().at<uchar>(48, 16 + bit * kBlock_px + 8) > 128) n |= std::size_t{1} << bit;
  }
  return n;
}

void film(const std::filesystem::path& file, const NumberedFilm& what) {
  ClipWriterOptions options{.width_px = 160, .height_px = 96, .rate = Hertz(50.0), .group = 40};
  options.bFrames = what.bFrames;
  const auto writer = ClipWriter::create(file, options);
  ASSERT_TRUE(writer) << writer.error().message;
  for (std::size_t n = 0; n < what.frames; ++n) {
    ASSERT_TRUE((*writer)->add(numbered(what.first + n), Seconds(what.time_s(n))));
  }
  ASSERT_TRUE((*writer)->finish());
}

bool ffmpeg(const std::string& arguments) {
  return std::system(("ffmpeg -nostdin -v error -y " + arguments).c_str()) == 0;
}

Track severalThings() {
  Track out{0, 350, {{MarkName::Nose, {}}, {MarkName::Tail, {}}}};
  double x = 0.0, y = 20.0;
  for (int n = 0; n < 350; ++n) {
    const double t = n / 50.0;
    const bool twitches = (t > 0.2 && t < 0.4) || (t > 1.0 && t < 1.2);
    x += (twitches ? 350.0 : t > 2.0 && t < 4.0 ? 250.0 : 0.0) / 50.0;
    y += t > 5.0 ? 180.0 * std::tanh((t - 5.0) / 0.1) / 50.0 : 0.0;
    out.marks[0].samples.push_back({true, {80.0 + x, y}, 1.0});
    out.marks[1].samples.push_back({true, {x, y}, 1.0});
  }
  return out;
}

}  // namespace fin::test
