// SPDX-License-Identifier: GPL-3.0-or-later
// How long films take to make, over how long they play: 1920 × 1080 at 30 a second and a tenth of the true
// speed, of one, two, four and six clips of 1280 × 720 at 120 a second, as MP4 and as WebM. Under 1 it is
// made faster than it plays.
#include <fmt/format.h>

#include <chrono>
#include <cmath>
#include <filesystem>
#include <opencv2/core.hpp>

#include "core/footage/clip_writer.h"
#include "core/publishing/make_film.h"

namespace {

namespace fs = std::filesystem;
using namespace fin;

constexpr double kFilmed_Hz = 120.0;
constexpr double kPart_s = 1.0;

/// A patch that swims through noise, as hard to code as footage.
bool filmClip(const fs::path& file) {
  const auto writer =
      ClipWriter::create(file, {.width_px = 1280, .height_px = 720, .rate = Hertz(kFilmed_Hz)});
  if (!writer) return false;
  cv::RNG random(7);
  cv::Mat ground(720, 1280, CV_8UC3);
  random.fill(ground, cv::RNG::NORMAL, 120.0, 12.0);
  for (int n = 0; n < static_cast<int>(kFilmed_Hz * kPart_s) + 1; ++n) {
    cv::Mat frame = ground.clone();
    frame(cv::Rect(300 + 4 * n, 300 + static_cast<int>(30.0 * std::sin(0.3 * n)), 150, 36))
        .setTo(cv::Scalar(60, 140, 90));
    if (!(*writer)->add(frame, Seconds(n / kFilmed_Hz))) return false;
  }
  return (*writer)->finish().has_value();
}

FilmScript scriptOf(const fs::path& clip, std::size_t passes) {
  FilmScript out{.title = "", .slowness = 10.0};
  FilmPass pass{.clip = clip, .to_s = kPart_s, .caption = "Rig", .length_px = 150.0, .mmPerPixel = 0.6};
  FilmTrace trace{"Angle, °", {}, {}};
  for (int n = 0; n < static_cast<int>(kFilmed_Hz * kPart_s); ++n) {
    const auto frame = static_cast<std::size_t>(n);
    pass.lure.push_back({frame, {375.0 + 4 * n, 318.0}});
    trace.t_s.push_back(n / kFilmed_Hz);
    trace.y.push_back(std::sin(0.3 * n));
  }
  pass.trace = trace;
  out.passes.assign(passes, pass);
  return out;
}

}  // namespace

int main() {
  const fs::path folder = fs::temp_directory_path() / "agile-fin-filming";
  fs::create_directories(folder);
  const fs::path clip = folder / "clip.mp4";
  if (!filmClip(clip)) return 1;
  for (const std::size_t passes : {1U, 2U, 4U, 6U}) {
    for (const char* ending : {".mp4", ".webm"}) {
      const auto began = std::chrono::steady_clock::now();
      const auto made = makeFilm(scriptOf(clip, passes), folder / (std::string("film") + ending));
      const double took_s = std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
      if (!made) return 1;
      fmt::print("{} clips as {}: {} pictures, {:.1f} s long, made in {:.2f} of that\n", passes, ending + 1,
                 made->pictures, made->length_s, took_s / made->length_s);
    }
  }
  fs::remove_all(folder);
  return 0;
}
