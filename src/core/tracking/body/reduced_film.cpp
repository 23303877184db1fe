// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/body/reduced_film.h"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <vector>

namespace fin {
namespace {

constexpr double kBodyInFilm_px = 48.0;

std::size_t bytesOf(const cv::Mat& picture) {
  return picture.total() * picture.elemSize();
}

}  // namespace

FilmingFrameSource::FilmingFrameSource(FrameSource& source, double body_px, std::size_t room_bytes)
    : source_(source), room_bytes_(body_px > 0.0 ? room_bytes : 0) {
  film_.scale = std::min(1.0, kBodyInFilm_px / std::max(body_px, 1.0));
}

Result<Picture> FilmingFrameSource::frame(std::size_t frame) {
  auto picture = source_.frame(frame);
  if (!picture || room_bytes_ == 0 || frame % every_ != 0 || film_.frames.contains(frame)) return picture;
  film(frame, *picture);
  while (held_bytes_ > room_bytes_ && film_.frames.size() > 1) thin();
  return picture;
}

void FilmingFrameSource::film(std::size_t frame, const Picture& picture) {
  const cv::Size size(std::max(1, static_cast<int>(std::lround(picture.width() * film_.scale))),
                      std::max(1, static_cast<int>(std::lround(picture.height() * film_.scale))));
  held_bytes_ += bytesOf(film_.frames.emplace(frame, picture.reduced(size)).first->second);
}

void FilmingFrameSource::filmAlso(const std::set<std::size_t>& frames, const JobControl& job) {
  if (room_bytes_ == 0) return;
  std::vector<std::size_t> missing;
  std::copy_if(frames.begin(), frames.end(), std::back_inserter(missing),
               [&](std::size_t n) { return !film_.frames.contains(n); });
  const std::size_t each = film_.frames.empty() ? 1 : bytesOf(film_.frames.begin()->second);
  const std::size_t fit = (room_bytes_ - std::min(held_bytes_, room_bytes_)) / each;
  if (fit == 0) return;
  const std::size_t every = (missing.size() + fit - 1) / fit;
  for (std::size_t i = 0; i < missing.size() && held_bytes_ < room_bytes_ && !job.cancelled(); ++i) {
    if (i % every != 0) continue;
    if (const auto picture = source_.frame(missing[i])) film(missing[i], *picture);
    job.report(static_cast<double>(i + 1) / static_cast<double>(missing.size()));
  }
}

void FilmingFrameSource::thin() {
  every_ *= 2;
  for (auto kept = film_.frames.begin(); kept != film_.frames.end();) {
    if (kept->first % every_ == 0) {
      ++kept;
    } else {
      held_bytes_ -= bytesOf(kept->second);
      kept = film_.frames.erase(kept);
    }
  }
}

}  // namespace fin
