// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/decoded_frames.h"

extern "C" {
#include <libavutil/pixdesc.h>
}

#include <fmt/format.h>
#include <algorithm>
#include <opencv2/core.hpp>

namespace fin {
namespace {

cv::Mat turned(const cv::Mat& image, int clockwise_deg) {
  if (clockwise_deg == 0) return image;
  cv::Mat out;
  cv::rotate(image, out,
             clockwise_deg == 90    ? cv::ROTATE_90_CLOCKWISE
             : clockwise_deg == 180 ? cv::ROTATE_180
                                    : cv::ROTATE_90_COUNTERCLOCKWISE);
  return out;
}

bool hasPlainLuma(const AVFrame& frame) {
  const AVPixFmtDescriptor* d = av_pix_fmt_desc_get(static_cast<AVPixelFormat>(frame.format));
  return d != nullptr && (d->flags & AV_PIX_FMT_FLAG_RGB) == 0 && (d->flags & AV_PIX_FMT_FLAG_PAL) == 0 &&
         d->comp[0].depth == 8 && d->comp[0].step == 1 && d->comp[0].plane == 0;
}

cv::Mat converted(const AVFrame& frame, AVPixelFormat to, int matType) {
  const av::Scaler scaler(sws_getContext(frame.width, frame.height, static_cast<AVPixelFormat>(frame.format),
                                         frame.width, frame.height, to, SWS_BILINEAR, nullptr, nullptr,
                                         nullptr));
  cv::Mat out(frame.height, frame.width, matType);
  std::uint8_t* planes[] = {out.data, nullptr, nullptr, nullptr};
  const int strides[] = {static_cast<int>(out.step), 0, 0, 0};
  if (scaler) sws_scale(scaler.get(), frame.data, frame.linesize, 0, frame.height, planes, strides);
  return out;
}

/// A decoded frame; the grey picture is the decoder's own luma plane wherever it has one.
class DecodedSource : public Picture::Source {
 public:
  DecodedSource(av::FramePtr frame, int clockwise_deg)
      : frame_(std::move(frame)), clockwise_deg_(clockwise_deg) {
    const AVFrame& f = *frame_;
    const cv::Mat luma = hasPlainLuma(f) ? cv::Mat(f.height, f.width, CV_8UC1, f.data[0],
                                                   static_cast<std::size_t>(f.linesize[0]))
                                         : converted(f, AV_PIX_FMT_GRAY8, CV_8UC1);
    grey_ = turned(luma, clockwise_deg_);
  }

  [[nodiscard]] const cv::Mat& grey() const override { return grey_; }
  [[nodiscard]] cv::Mat rgb() const override {
    return turned(converted(*frame_, AV_PIX_FMT_RGB24, CV_8UC3), clockwise_deg_);
  }

 private:
  av::FramePtr frame_;
  int clockwise_deg_;
  cv::Mat grey_;
};

bool isWhole(const AVFrame& frame) {
  return frame.decode_error_flags == 0 && (frame.flags & AV_FRAME_FLAG_CORRUPT) == 0;
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
  return openDecoder();
}

Result<void> DecodedFrames::openDecoder() {
  const AVCodec* decoder = avcodec_find_decoder(input_.video->codecpar->codec_id);
  codec_.reset(decoder != nullptr ? avcodec_alloc_context3(decoder) : nullptr);
  if (codec_) {
    avcodec_parameters_to_context(codec_.get(), input_.video->codecpar);
    codec_->pkt_timebase = input_.video->time_base;
    codec_->thread_count = options_.threads;
  }
  if (!codec_ || avcodec_open2(codec_.get(), decoder, nullptr) < 0) {
    return failure(ErrorCode::Unreadable,
                   fmt::format("{}: nothing here can decode {}", clip_->info().path.filename().string(),
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
  const bool byDts = (input_.format->iformat->flags & AVFMT_TS_DISCONT) != 0;
  const std::int64_t target = byDts ? key.dts : key.pts;
  if (av_seek_frame(input_.format.get(), input_.video->index, target, AVSEEK_FLAG_BACKWARD) < 0) return false;
  avcodec_flush_buffers(codec_.get());
  ended_ = false;
  packetWaits_ = false;
  while (!packetWaits_) {
    av_packet_unref(packet_.get());
    if (av_read_frame(input_.format.get(), packet_.get()) < 0) return false;
    packetWaits_ = packet_->stream_index == input_.video->index;
  }
  const std::int64_t landed = packet_->dts != AV_NOPTS_VALUE ? packet_->dts : packet_->pts;
  return landed <= key.dts;
}

/// Gives the decoder one more packet (or the end of the clip). False when there is no more to give.
bool DecodedFrames::feed() {
  if (ended_) return false;
  while (!packetWaits_) {
    av_packet_unref(packet_.get());
    if (av_read_frame(input_.format.get(), packet_.get()) < 0) {
      ended_ = true;
      avcodec_send_packet(codec_.get(), nullptr);
      return true;
    }
    packetWaits_ = packet_->stream_index == input_.video->index;
  }
  // A damaged packet is refused here; its frames are missed by their time stamps later.
  if (avcodec_send_packet(codec_.get(), packet_.get()) != AVERROR(EAGAIN)) packetWaits_ = false;
  return true;
}

Result<Picture> DecodedFrames::decodeUntil(std::size_t n) {
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
    if (!isWhole(*frame)) {
      damaged_.insert(*at);
      if (*at == n) break;
      continue;
    }
    const Picture picture(std::make_shared<DecodedSource>(std::move(frame), clip_->info().clockwiseTurn_deg));
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
