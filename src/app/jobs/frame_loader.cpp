// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/frame_loader.h"

#include <algorithm>
#include <condition_variable>
#include <map>
#include <mutex>
#include <optional>
#include <stop_token>

#include "app/jobs/picture_image.h"
#include "app/jobs/relay.h"

namespace fin::app {
namespace {

constexpr std::size_t kCacheBytes = 128U << 20U;
constexpr std::size_t kAhead = 24;      ///< frames decoded on in the direction of travel
constexpr std::size_t kGlimpses = 240;  ///< small copies that are kept
constexpr int kGlimpseWidth_px = 320;

}  // namespace

struct FrameLoader::Outcome {
  unsigned turn = 0;
  std::size_t frame = 0;
  QImage image;  ///< null where it failed
  QString why;
};

/// What both threads have.
struct FrameLoader::Shared : std::enable_shared_from_this<FrameLoader::Shared> {
  std::stop_source stop;
  std::mutex mutex;  ///< of all below but the loader
  std::condition_variable_any wake;
  std::shared_ptr<const Clip> clip;
  std::optional<std::size_t> wish;
  std::map<std::size_t, QImage> glimpses;
  unsigned turn = 0;
  FrameLoader* loader = nullptr;  ///< null once it is gone; changed and used on the window's thread alone

  /// The nearest small copy that there is.
  std::optional<std::pair<std::size_t, QImage>> nearest(std::size_t frame) const {
    auto at = glimpses.lower_bound(frame);
    if (at != glimpses.begin() && (at == glimpses.end() || frame - std::prev(at)->first < at->first - frame))
      --at;
    return at == glimpses.end() ? std::nullopt : std::optional(*at);
  }
  /// Where there are too many, the one whose neighbours lie nearest goes.
  void remember(std::size_t frame, const Picture& picture) {
    {
      const std::lock_guard lock(mutex);
      if (glimpses.contains(frame)) return;
    }
    const QImage small = imageOf(picture, kGlimpseWidth_px);
    const std::lock_guard lock(mutex);
    glimpses[frame] = small;
    if (glimpses.size() <= kGlimpses) return;
    auto crowded = std::next(glimpses.begin());
    for (auto at = crowded; std::next(at) != glimpses.end(); ++at) {
      const auto room = [](auto i) { return std::next(i)->first - std::prev(i)->first; };
      if (room(at) < room(crowded)) crowded = at;
    }
    glimpses.erase(crowded);
  }
  unsigned turnNow() {
    const std::lock_guard lock(mutex);
    return turn;
  }
  /// To the window's thread.
  void post(Outcome outcome) {
    relay().post([shared = weak_from_this(), outcome = std::move(outcome)] {
      const auto here = shared.lock();
      if (here && here->loader != nullptr) here->loader->deliver(outcome);
    });
  }
  bool wishWaits(unsigned since) {
    const std::lock_guard lock(mutex);
    return wish.has_value() || since != turn || stop.stop_requested();
  }
};

FrameLoader::FrameLoader(QObject* parent) : QObject(parent), shared_(std::make_shared<Shared>()) {
  shared_->loader = this;
  startThread([shared = shared_] {
    while (!shared->stop.stop_requested()) {
      try {
        run(*shared);
      } catch (const std::exception& e) {  // of one frame; the next wish is tried all the same
        shared->post({shared->turnNow(), 0, {}, QString::fromUtf8(e.what())});
      }
    }
  });
}

FrameLoader::~FrameLoader() {
  shared_->loader = nullptr;
  shared_->stop.request_stop();
}

void FrameLoader::setClip(std::shared_ptr<const Clip> clip) {
  const std::lock_guard lock(shared_->mutex);
  shared_->clip = std::move(clip);
  shared_->wish.reset();
  shared_->glimpses.clear();
  ++shared_->turn;
  shared_->wake.notify_all();
}

void FrameLoader::request(std::size_t frame) {
  std::optional<std::pair<std::size_t, QImage>> nearest;
  {
    const std::lock_guard lock(shared_->mutex);
    shared_->wish = frame;
    shared_->wake.notify_all();
    nearest = shared_->nearest(frame);
  }
  if (nearest) emit glimpsed(nearest->first, nearest->second);
}

void FrameLoader::run(Shared& shared) {
  const std::stop_token stop = shared.stop.get_token();
  unsigned turn = 0;
  std::shared_ptr<const Clip> clip;
  std::unique_ptr<FrameSource> source;
  std::size_t last = 0;
  const auto deliver = [&shared, &turn](std::size_t frame, const Result<Picture>& picture) {
    if (picture) return shared.post({turn, frame, imageOf(*picture), {}});
    shared.post({turn, frame, {}, QString::fromStdString(picture.error().message)});
  };
  while (!stop.stop_requested()) {
    std::size_t frame = 0;
    {
      std::unique_lock lock(shared.mutex);
      if (!shared.wake.wait(lock, stop, [&] { return shared.wish.has_value(); })) return;
      frame = *shared.wish;
      shared.wish.reset();
      if (turn != shared.turn) source.reset();
      turn = shared.turn;
      clip = shared.clip;
    }
    if (!clip) continue;
    if (!source) {
      auto opened = Clip::reader(clip, {kCacheBytes, 0});
      if (!opened) {
        deliver(frame, tl::unexpected(opened.error()));
        continue;
      }
      source = std::move(*opened);
    }
    if (frame >= source->frameCount()) continue;
    const auto picture = source->frame(frame);
    deliver(frame, picture);
    if (picture) shared.remember(frame, *picture);
    const bool backwards = frame < last;
    last = frame;
    for (std::size_t i = 1; i <= kAhead && !backwards && !shared.wishWaits(turn); ++i) {
      if (frame + i < source->frameCount()) (void)source->frame(frame + i);
    }
  }
}

void FrameLoader::deliver(const Outcome& outcome) {
  {
    const std::lock_guard lock(shared_->mutex);
    if (outcome.turn != shared_->turn) return;
  }
  if (outcome.image.isNull()) {
    emit failed(outcome.frame, outcome.why);
  } else {
    emit loaded(outcome.frame, outcome.image);
  }
}

}  // namespace fin::app
