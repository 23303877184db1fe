// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/body/reduced_film.h"

#include <algorithm>
#include <cmath>

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
  const cv::Size size(std::max(1, static_cast<int>(std::lround(picture->width() * film_.scale))),
                      std::max(1, static_cast<int>(std::lround(picture->height() * film_.scale))));
  const cv::Mat& kept = film_.frames.emplace(frame, picture->reduced(size)).first->second;
  held_bytes_ += bytesOf(kept);
  while (held_bytes_ > room_bytes_ && film_.frames.size() > 1) thin();
  return picture;
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
