// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/decoded_frames.h"

extern "C" {
#include <libavutil/pixdesc.h>
}

#include <fmt/format.h>
#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/core.hpp>
#include <opencv2/imgproc.hpp>

namespace fin {
namespace {

/// How a stored picture becomes the shown one: first stretched to square pixels, then turned.
struct Showing {
  int width_px = 0;  ///< before it is turned
  int clockwise_deg = 0;
};

cv::Mat turned(const cv::Mat& image, int clockwise_deg) {
  if (clockwise_deg == 0) return image;
  cv::Mat out;
  cv::rotate(image, out,
             clockwise_deg == 90    ? cv::ROTATE_90_CLOCKWISE
             : clockwise_deg == 180 ? cv::ROTATE_180
                                    : cv::ROTATE_90_COUNTERCLOCKWISE);
  return out;
}

cv::Mat shown(const cv::Mat& stored, const Showing& showing) {
  cv::Mat image = stored;
  if (showing.width_px != stored.cols) {
    cv::resize(stored, image, cv::Size(showing.width_px, stored.rows), 0.0, 0.0, cv::INTER_LINEAR);
  }
  return turned(image, showing.clockwise_deg);
}

bool hasPlainLuma(const AVFrame& frame) {
  const AVPixFmtDescriptor* d = av_pix_fmt_desc_get(static_cast<AVPixelFormat>(frame.format));
  return d != nullptr && (d->flags & AV_PIX_FMT_FLAG_RGB) == 0 && (d->flags & AV_PIX_FMT_FLAG_PAL) == 0 &&
         d->comp[0].depth == 8 && d->comp[0].step == 1 && d->comp[0].plane == 0;
}

constexpr int kScalerRoom_px = 64;

cv::Mat converted(const AVFrame& frame, AVPixelFormat to, int matType) {
  const av::Scaler scaler(sws_getContext(frame.width, frame.height, static_cast<AVPixelFormat>(frame.format),
                                         frame.width, frame.height, to, SWS_BILINEAR, nullptr, nullptr,
                                         nullptr));
  // The scaler writes whole vectors and so past the end of a row: there has to be room.
  const cv::Mat roomy(frame.height + 1, frame.width + kScalerRoom_px, matType);
  const cv::Mat out = roomy(cv::Rect(0, 0, frame.width, frame.height));
  std::uint8_t* planes[] = {out.data, nullptr, nullptr, nullptr};
  const int strides[] = {static_cast<int>(out.step), 0, 0, 0};
  if (scaler) sws_scale(scaler.get(), frame.data, frame.linesize, 0, frame.height, planes, strides);
  return out;
}

bool isHalved(int format) {
  return format == AV_PIX_FMT_YUV420P || format == AV_PIX_FMT_YUVJ420P;
}

/// Colours at half the size, eight bits each, of a frame that stores them otherwise; none of one that has
/// none.
av::FramePtr halvedColours(const AVFrame& frame) {
  const AVPixFmtDescriptor* d = av_pix_fmt_desc_get(static_cast<AVPixelFormat>(frame.format));
  if (d == nullptr || d->nb_components < 3 || (d->flags & (AV_PIX_FMT_FLAG_RGB | AV_PIX_FMT_FLAG_PAL)) != 0)
    return nullptr;
  av::FramePtr out(av_frame_alloc());
  if (!out) return nullptr;
  out->format = AV_PIX_FMT_YUV420P;
  out->width = frame.width;
  out->height = frame.height;
  const av::Scaler scaler(sws_getContext(frame.width, frame.height, static_cast<AVPixelFormat>(frame.format),
                                         frame.width, frame.height, AV_PIX_FMT_YUV420P, SWS_FAST_BILINEAR,
                                         nullptr, nullptr, nullptr));
  if (!scaler || av_frame_get_buffer(out.get(), 0) < 0) return nullptr;
  sws_scale(scaler.get(), frame.data, frame.linesize, 0, frame.height, out->data, out->linesize);
  return out;
}

/// A picture made smaller: by halves, which is quick, and by what is then left.
cv::Mat madeSmaller(const cv::Mat& image, cv::Size size) {
  cv::Mat now = image;
  while (now.cols >= 2 * size.width && now.rows >= 2 * size.height && now.cols > 1 && now.rows > 1) {
    cv::Mat half;
    cv::resize(now, half, cv::Size(now.cols / 2, now.rows / 2), 0.0, 0.0, cv::INTER_AREA);
    now = half;
  }
  cv::Mat out;
  cv::resize(now, out, size, 0.0, 0.0, cv::INTER_LINEAR);
  return out;
}

/// A decoded frame; the grey picture is the decoder's own luma plane wherever it has one.
class DecodedSource : public Picture::Source {
 public:
  DecodedSource(av::FramePtr frame, Showing showing) : frame_(std::move(frame)), showing_(showing) {
    const AVFrame& f = *frame_;
    luma_ = hasPlainLuma(f)
                ? cv::Mat(f.height, f.width, CV_8UC1, f.data[0], static_cast<std::size_t>(f.linesize[0]))
                : converted(f, AV_PIX_FMT_GRAY8, CV_8UC1);
    grey_ = shown(luma_, showing_);
    if (!isHalved(f.format)) colours_ = halvedColours(f);
  }

  [[nodiscard]] const cv::Mat& grey() const override { return grey_; }
  [[nodiscard]] cv::Mat rgb() const override {
    return shown(converted(*frame_, AV_PIX_FMT_RGB24, CV_8UC3), showing_);
  }
  [[nodiscard]] cv::Mat colours(const cv::Rect& box) const override {
    if (halved() == nullptr) return Picture::Source::colours(box);
    const cv::Rect upright = beforeTurning(box);
    return turned(showing_.width_px == frame_->width ? fromPlanes(upright) : stretchedPlanes(upright),
                  showing_.clockwise_deg);
  }
  [[nodiscard]] cv::Mat reduced(cv::Size size) const override {
    const AVFrame* frame = halved();
    if (frame == nullptr) return Picture::Source::reduced(size);
    const bool onItsSide = showing_.clockwise_deg % 180 != 0;
    const cv::Size stored = onItsSide ? cv::Size(size.height, size.width) : size;
    std::array<cv::Mat, 3> planes;
    for (int k = 0; k < 3; ++k) {
      const cv::Size whole = k == 0 ? cv::Size(frame->width, frame->height)
                                    : cv::Size((frame->width + 1) / 2, (frame->height + 1) / 2);
      const cv::Mat plane(whole, CV_8UC1, frame->data[k], static_cast<std::size_t>(frame->linesize[k]));
      planes[static_cast<std::size_t>(k)] = madeSmaller(plane, stored);
    }
    cv::Mat out;
    cv::merge(planes.data(), planes.size(), out);
    return turned(out, showing_.clockwise_deg);
  }

 private:
  /// The frame that holds colour at half the size; none where there is no colour.
  [[nodiscard]] const AVFrame* halved() const {
    return isHalved(frame_->format) ? frame_.get() : colours_.get();
  }

  /// Where a part of the shown picture was before it was turned.
  [[nodiscard]] cv::Rect beforeTurning(const cv::Rect& box) const {
    const int right = grey_.cols - box.br().x;
    const int below = grey_.rows - box.br().y;
    switch (showing_.clockwise_deg) {
      case 90:
        return {box.y, right, box.height, box.width};
      case 180:
        return {right, below, box.width, box.height};
      case 270:
        return {below, box.x, box.height, box.width};
      default:
        return box;
    }
  }

  /// A part of a picture whose pixels are stretched to squares: from the stored ones about it.
  [[nodiscard]] cv::Mat stretchedPlanes(const cv::Rect& box) const {
    const double storedPerShown = static_cast<double>(frame_->width) / showing_.width_px;
    const auto storedAt = [&](int x) { return (x + 0.5) * storedPerShown - 0.5; };
    const int from = std::max(0, static_cast<int>(std::floor(storedAt(box.x))));
    const int to = std::min(frame_->width, static_cast<int>(std::ceil(storedAt(box.br().x))) + 1);
    const cv::Mat stored = fromPlanes({from, box.y, to - from, box.height});
    const cv::Matx23d map(storedPerShown, 0.0, storedAt(box.x) - from, 0.0, 1.0, 0.0);
    cv::Mat out;
    cv::warpAffine(stored, out, map, box.size(), cv::INTER_LINEAR | cv::WARP_INVERSE_MAP,
                   cv::BORDER_REPLICATE);
    return out;
  }

  [[nodiscard]] cv::Mat fromPlanes(const cv::Rect& box) const {
    const cv::Mat planes[] = {luma_(box), colourPlane(1, box), colourPlane(2, box)};
    cv::Mat out;
    cv::merge(planes, 3, out);
    return out;
  }

  /// Colour is stored at half the size: beside every other pixel of a row, between two rows.
  [[nodiscard]] cv::Mat colourPlane(int plane, const cv::Rect& box) const {
    const int lastX = (frame_->width + 1) / 2 - 1;
    const int lastY = (frame_->height + 1) / 2 - 1;
    const int firstX = box.x / 2;
    const int pairs = (box.br().x - 1) / 2 - firstX + 1;
    cv::Mat out(box.height, 2 * pairs, CV_8UC1);
    // One row of colour at its own width, between two of those stored, in quarters.
    std::vector<std::uint16_t> between(static_cast<std::size_t>(pairs) + 1);
    for (int y = box.y; y < box.y + box.height; ++y) {
      const int upper = std::clamp((y + 1) / 2 - 1, 0, lastY);
      const int lower = std::min((y + 1) / 2, lastY);
      const int share = y % 2 == 0 ? 3 : 1;  // of four, for the lower row
      const std::ptrdiff_t stride = halved()->linesize[plane];
      const std::uint8_t* a = halved()->data[plane] + upper * stride + firstX;
      const std::uint8_t* b = halved()->data[plane] + lower * stride + firstX;
      const auto quarters = [&](int i) {
        return static_cast<std::uint16_t>((4 - share) * a[i] + share * b[i]);
      };
      std::uint16_t* q = between.data();
      for (int i = 0; i < pairs; ++i) q[i] = quarters(i);
      q[pairs] = quarters(std::min(pairs, lastX - firstX));
      auto* to = out.ptr<uchar>(y - box.y);
      for (int i = 0; i < pairs; ++i) {
        to[2 * i] = static_cast<uchar>((q[i] + 2) / 4);
        to[2 * i + 1] = static_cast<uchar>((q[i] + q[i + 1] + 4) / 8);
      }
    }
    return out(cv::Rect(box.x % 2, 0, box.width, box.height));
  }

  av::FramePtr frame_;
  av::FramePtr colours_;  ///< where the frame itself does not store them so
  Showing showing_;
  cv::Mat luma_;  ///< as it is stored
  cv::Mat grey_;
};

bool isWhole(const AVFrame& frame) {
  return frame.decode_error_flags == 0 && (frame.flags & AV_FRAME_FLAG_CORRUPT) == 0;
}

/// A clip whose pictures change their size midway is one clip only as far as they do not.
bool hasStoredSize(const AVFrame& frame, const AVStream& stream) {
  return frame.width == stream.codecpar->width && frame.height == stream.codecpar->height;
}

constexpr std::size_t kReadOnLimit = 24;  ///< frames: nearer than this, reading on beats any seek

}  // namespace

Result<std::unique_ptr<FrameSource>> DecodedFrames::open(std::shared_ptr<const Clip> clip,
                                                         Clip::ReaderOptions options) {
  std::unique_ptr<DecodedFrames> reader(new DecodedFrames(std::move(clip), options));
  if (auto ready = reader->restart(); !ready) return tl::unexpected(ready.error());
  return reader;
}

Result<void> DecodedFrames::restart() {
  auto input = av::openInput(clip_->info().path);
  if (!input) return tl::unexpected(input.error());
  codec_.reset();
  input_ = std::move(*input);
  packetWaits_ = false;
  ended_ = false;
  next_ = 0;
  codec_ = av::openDecoder(*input_.stream, options_.threads);
  if (!codec_) {
    return failure(ErrorCode::Unreadable,
                   fmt::format("{}: there is no decoder for {}", clip_->info().path.filename().string(),
                               clip_->info().codec),
                   clip_->info().path.string());
  }
  return {};
}

Result<Picture> DecodedFrames::frame(std::size_t n) {
  if (n >= frameCount()) {
    return failure(ErrorCode::BadRequest, fmt::format("frame {} is past the end of the clip", n));
  }
  if (const auto found = kept_.find(n); found != kept_.end()) {
    recent_.splice(recent_.begin(), recent_, found->second);
    return found->second->picture;
  }
  if (!damaged_.contains(n) && !readsOnTo(n) && !seekBefore(n)) {
    if (auto ready = restart(); !ready) return tl::unexpected(ready.error());
  }
  if (damaged_.contains(n)) return failure(ErrorCode::Damaged, fmt::format("frame {} is damaged", n));
  return decodeUntil(n);
}

bool DecodedFrames::readsOnTo(std::size_t n) const {
  if (n < next_) return false;
  const ClipIndex& index = clip_->index();
  return n - next_ < kReadOnLimit || (next_ > 0 && index.groupOf(n) == index.groupOf(next_ - 1));
}

bool DecodedFrames::seekBefore(std::size_t n) {
  for (const ClipIndex::Packet& key : clip_->index().keysBefore(n)) {
    if (!landsBefore(key)) continue;
    const auto first = clip_->index().frameAt(key.pts);
    next_ = first.value_or(0);
    return true;
  }
  return false;
}

bool DecodedFrames::landsBefore(const ClipIndex::Packet& key) {
  const bool startsAnew = !clip_->index().restarts().empty();  // then no time stamp says where it is
  const bool byDts = (input_.format->iformat->flags & AVFMT_TS_DISCONT) != 0;
  const std::int64_t target = startsAnew ? key.pos : byDts ? key.dts : key.pts;
  const int how = startsAnew ? AVSEEK_FLAG_BYTE : AVSEEK_FLAG_BACKWARD;
  if (av_seek_frame(input_.format.get(), input_.stream->index, target, how) < 0) return false;
  avcodec_flush_buffers(codec_.get());
  ended_ = false;
  packetWaits_ = false;
  if (!nextPacket()) return false;
  const std::int64_t landed = packet_->dts != AV_NOPTS_VALUE ? packet_->dts : packet_->pts;
  return landed <= key.dts;
}

/// Fills packet_ with the next one of the picture stream, on the index's line of time.
bool DecodedFrames::nextPacket() {
  while (!packetWaits_) {
    av_packet_unref(packet_.get());
    if (av_read_frame(input_.format.get(), packet_.get()) < 0) return false;
    packetWaits_ = packet_->stream_index == input_.stream->index;
  }
  const std::int64_t shift = clip_->index().shiftAt(packet_->pos);
  if (packet_->pts != AV_NOPTS_VALUE) packet_->pts += shift;
  if (packet_->dts != AV_NOPTS_VALUE) packet_->dts += shift;
  return true;
}

/// Gives the decoder one more packet (or the end of the clip). False when there is no more to give.
bool DecodedFrames::feed() {
  if (ended_) return false;
  if (!packetWaits_ && !nextPacket()) {
    ended_ = true;
    avcodec_send_packet(codec_.get(), nullptr);
    return true;
  }
  // A damaged packet is refused here; its frames are missed by their time stamps later.
  if (avcodec_send_packet(codec_.get(), packet_.get()) != AVERROR(EAGAIN)) packetWaits_ = false;
  return true;
}

Result<Picture> DecodedFrames::decodeUntil(std::size_t n) {
  const ClipInfo& info = clip_->info();
  const Showing showing{info.clockwiseTurn_deg % 180 == 0 ? info.width_px : info.height_px,
                        info.clockwiseTurn_deg};
  while (true) {
    av::FramePtr frame(av_frame_alloc());
    const int got = avcodec_receive_frame(codec_.get(), frame.get());
    if (got == AVERROR(EAGAIN) && feed()) continue;
    if (got < 0 && got != AVERROR_EOF && feed()) continue;
    if (got < 0) break;
    const auto at = clip_->index().frameAt(frame->best_effort_timestamp);
    if (!at || *at < next_) continue;
    for (std::size_t missed = next_; missed < *at; ++missed) damaged_.insert(missed);
    next_ = *at + 1;
    if (!isWhole(*frame) || !hasStoredSize(*frame, *input_.stream)) {
      damaged_.insert(*at);
      if (*at == n) break;
      continue;
    }
    const Picture picture(std::make_shared<DecodedSource>(std::move(frame), showing));
    remember(*at, picture);
    if (*at == n) return picture;
    if (*at > n) break;
  }
  damaged_.insert(n);
  return failure(ErrorCode::Damaged, fmt::format("frame {} is damaged", n));
}

void DecodedFrames::remember(std::size_t n, const Picture& picture) {
  const auto bytes = static_cast<std::size_t>(clip_->info().width_px) *
                     static_cast<std::size_t>(clip_->info().height_px) * 3 / 2;
  const std::size_t room = options_.cacheBytes / std::max<std::size_t>(bytes, 1);
  if (room == 0) return;
  if (const auto old = kept_.find(n); old != kept_.end()) {
    recent_.erase(old->second);
    kept_.erase(old);
  }
  recent_.push_front({n, picture});
  kept_[n] = recent_.begin();
  while (recent_.size() > room) {
    kept_.erase(recent_.back().frame);
    recent_.pop_back();
  }
}

}  // namespace fin
