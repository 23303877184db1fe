// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/frame_loader.h"

#include <QMetaObject>
#include <algorithm>
#include <cstdlib>

#include "app/jobs/picture_image.h"

namespace fin::app {
namespace {

constexpr std::size_t kCacheBytes = 128U << 20U;
constexpr std::size_t kAhead = 24;      ///< frames decoded on in the direction of travel
constexpr std::size_t kGlimpses = 240;  ///< small copies that are kept
constexpr int kGlimpseWidth_px = 320;

}  // namespace

FrameLoader::FrameLoader(QObject* parent)
    : QObject(parent), thread_([this](const std::stop_token& stop) { run(stop); }) {}

FrameLoader::~FrameLoader() = default;

void FrameLoader::setClip(std::shared_ptr<const Clip> clip) {
  const std::lock_guard lock(mutex_);
  clip_ = std::move(clip);
  wish_.reset();
  glimpses_.clear();
  ++turn_;
  wake_.notify_all();
}

void FrameLoader::request(std::size_t frame) {
  std::optional<std::pair<std::size_t, QImage>> nearest;
  {
    const std::lock_guard lock(mutex_);
    wish_ = frame;
    wake_.notify_all();
    auto at = glimpses_.lower_bound(frame);
    if (at != glimpses_.begin() &&
        (at == glimpses_.end() || frame - std::prev(at)->first < at->first - frame))
      --at;
    if (at != glimpses_.end()) nearest = *at;
  }
  if (nearest) emit glimpsed(nearest->first, nearest->second);
}

/// Where there are too many, the one whose neighbours lie nearest goes.
void FrameLoader::rememberGlimpse(std::size_t frame, const Picture& picture) {
  {
    const std::lock_guard lock(mutex_);
    if (glimpses_.contains(frame)) return;
  }
  const QImage small = imageOf(picture).scaledToWidth(kGlimpseWidth_px).convertToFormat(QImage::Format_RGB16);
  const std::lock_guard lock(mutex_);
  glimpses_[frame] = small;
  if (glimpses_.size() <= kGlimpses) return;
  auto crowded = std::next(glimpses_.begin());
  for (auto at = crowded; std::next(at) != glimpses_.end(); ++at) {
    const auto room = [](auto i) { return std::next(i)->first - std::prev(i)->first; };
    if (room(at) < room(crowded)) crowded = at;
  }
  glimpses_.erase(crowded);
}

bool FrameLoader::wishWaits(unsigned turn) {
  const std::lock_guard lock(mutex_);
  return wish_.has_value() || turn != turn_;
}

void FrameLoader::run(const std::stop_token& stop) {
  unsigned turn = 0;
  std::shared_ptr<const Clip> clip;
  std::unique_ptr<FrameSource> source;
  std::size_t last = 0;
  while (!stop.stop_requested()) {
    std::size_t frame = 0;
    {
      std::unique_lock lock(mutex_);
      if (!wake_.wait(lock, stop, [&] { return wish_.has_value(); })) return;
      frame = *wish_;
      wish_.reset();
      if (turn != turn_) source.reset();
      turn = turn_;
      clip = clip_;
    }
    if (!clip) continue;
    if (!source) {
      auto opened = Clip::reader(clip, {kCacheBytes, 0});
      if (!opened) {
        deliver(turn, frame, tl::unexpected(opened.error()));
        continue;
      }
      source = std::move(*opened);
    }
    if (frame >= source->frameCount()) continue;
    const auto picture = source->frame(frame);
    deliver(turn, frame, picture);
    if (picture) rememberGlimpse(frame, *picture);
    const bool backwards = frame < last;
    last = frame;
    for (std::size_t i = 1; i <= kAhead && !backwards && !wishWaits(turn) && !stop.stop_requested(); ++i) {
      if (frame + i < source->frameCount()) (void)source->frame(frame + i);
    }
  }
}

void FrameLoader::deliver(unsigned turn, std::size_t frame, const Result<Picture>& picture) {
  const QImage image = picture ? imageOf(*picture) : QImage();
  const QString why = picture ? QString() : QString::fromStdString(picture.error().message);
  QMetaObject::invokeMethod(
      this,
      [this, turn, frame, image, why] {
        if (turn != turn_) return;
        if (image.isNull()) {
          emit failed(frame, why);
        } else {
          emit loaded(frame, image);
        }
      },
      Qt::QueuedConnection);
}

}  // namespace fin::app
