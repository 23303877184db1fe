// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/clip_writer.h"

#include "core/footage/av_handles.h"

extern "C" {
#include <libavutil/display.h>
#include <libavutil/opt.h>
}

#include <fmt/format.h>
#include <cmath>

namespace fin {
namespace {

constexpr int kTicksPerSecond = 90000;

struct CloseOutput {
  void operator()(AVFormatContext* c) const {
    if (c->pb != nullptr) avio_closep(&c->pb);
    avformat_free_context(c);
  }
};

const AVCodec* encoderFor(const std::filesystem::path& path) {
  if (path.extension() == ".avi") return avcodec_find_encoder(AV_CODEC_ID_MJPEG);
  const AVCodec* best = avcodec_find_encoder_by_name("libx264");
  return best != nullptr ? best : avcodec_find_encoder(AV_CODEC_ID_MPEG4);
}

class AvClipWriter : public ClipWriter {
 public:
  AvClipWriter(std::filesystem::path path, ClipWriterOptions options)
      : path_(std::move(path)), options_(options) {}

  Result<void> open() {
    AVFormatContext* raw = nullptr;
    if (avformat_alloc_output_context2(&raw, nullptr, nullptr, path_.c_str()) < 0 || raw == nullptr) {
      return refused("this ending names no container");
    }
    format_.reset(raw);
    if (auto ready = openEncoder(); !ready) return ready;
    if (auto ready = addStream(); !ready) return ready;
    if (const int code = avio_open(&raw->pb, ("file:" + path_.string()).c_str(), AVIO_FLAG_WRITE); code < 0) {
      return refused(av::reason(code));
    }
    if (const int code = avformat_write_header(raw, nullptr); code < 0) return refused(av::reason(code));
    return {};
  }

  Result<void> add(const cv::Mat& rgb, Seconds time) override {
    av_frame_make_writable(frame_.get());
    const std::uint8_t* planes[] = {rgb.data, nullptr, nullptr, nullptr};
    const int strides[] = {static_cast<int>(rgb.step), 0, 0, 0};
    sws_scale(scaler_.get(), planes, strides, 0, rgb.rows, frame_->data, frame_->linesize);
    frame_->pts = std::llround(time.value() * codec_->time_base.den / codec_->time_base.num);
    return encode(frame_.get());
  }

  Result<void> finish() override {
    if (auto flushed = encode(nullptr); !flushed) return flushed;
    if (const int code = av_write_trailer(format_.get()); code < 0) return refused(av::reason(code));
    return {};
  }

 private:
  tl::unexpected<Error> refused(const std::string& why) const {
    return failure(ErrorCode::NotWritable,
                   fmt::format("{} cannot be written: {}", path_.filename().string(), why), path_.string());
  }

  Result<void> openEncoder() {
    const AVCodec* encoder = encoderFor(path_);
    if (encoder == nullptr) return refused("no encoder is there");
    codec_.reset(avcodec_alloc_context3(encoder));
    codec_->width = options_.width_px;
    codec_->height = options_.height_px;
    // AVI counts frames; the other containers carry each frame's own time.
    codec_->time_base = path_.extension() == ".avi" ? av_d2q(1.0 / options_.rate.value(), 100000)
                                                    : AVRational{1, kTicksPerSecond};
    codec_->framerate = av_d2q(options_.rate.value(), 100000);
    codec_->pix_fmt = encoder->id == AV_CODEC_ID_MJPEG ? AV_PIX_FMT_YUVJ420P : AV_PIX_FMT_YUV420P;
    codec_->gop_size = options_.group;
    codec_->max_b_frames = encoder->id == AV_CODEC_ID_MJPEG ? 0 : options_.bFrames;
    codec_->bit_rate = 8'000'000;
    if ((format_->oformat->flags & AVFMT_GLOBALHEADER) != 0) codec_->flags |= AV_CODEC_FLAG_GLOBAL_HEADER;
    av_opt_set(codec_->priv_data, "preset", "veryfast", 0);
    av_opt_set(codec_->priv_data, "crf", std::to_string(options_.quality).c_str(), 0);
    if (const int code = avcodec_open2(codec_.get(), encoder, nullptr); code < 0)
      return refused(av::reason(code));

    frame_->format = codec_->pix_fmt;
    frame_->width = codec_->width;
    frame_->height = codec_->height;
    if (av_frame_get_buffer(frame_.get(), 0) < 0) return refused("no memory");
    scaler_.reset(sws_getContext(codec_->width, codec_->height, AV_PIX_FMT_RGB24, codec_->width,
                                 codec_->height, codec_->pix_fmt, SWS_BILINEAR, nullptr, nullptr, nullptr));
    return {};
  }

  Result<void> addStream() {
    stream_ = avformat_new_stream(format_.get(), nullptr);
    avcodec_parameters_from_context(stream_->codecpar, codec_.get());
    stream_->time_base = codec_->time_base;
    stream_->avg_frame_rate = codec_->framerate;
    if (options_.clockwiseTurn_deg != 0) {
      auto* matrix = av_stream_new_side_data(stream_, AV_PKT_DATA_DISPLAYMATRIX, 9 * sizeof(std::int32_t));
      if (matrix == nullptr) return refused("no memory");
      av_display_rotation_set(reinterpret_cast<std::int32_t*>(matrix), -options_.clockwiseTurn_deg);
    }
    return {};
  }

  Result<void> encode(const AVFrame* frame) {
    if (const int code = avcodec_send_frame(codec_.get(), frame); code < 0) return refused(av::reason(code));
    while (avcodec_receive_packet(codec_.get(), packet_.get()) >= 0) {
      av_packet_rescale_ts(packet_.get(), codec_->time_base, stream_->time_base);
      packet_->stream_index = stream_->index;
      if (const int code = av_interleaved_write_frame(format_.get(), packet_.get()); code < 0) {
        return refused(av::reason(code));
      }
    }
    return {};
  }

  std::filesystem::path path_;
  ClipWriterOptions options_;
  std::unique_ptr<AVFormatContext, CloseOutput> format_;
  av::Codec codec_;
  AVStream* stream_ = nullptr;
  av::FramePtr frame_{av_frame_alloc()};
  av::PacketPtr packet_{av_packet_alloc()};
  av::Scaler scaler_;
};

}  // namespace

Result<std::unique_ptr<ClipWriter>> ClipWriter::create(const std::filesystem::path& path,
                                                       ClipWriterOptions options) {
  av::beQuiet();
  auto writer = std::make_unique<AvClipWriter>(path, options);
  if (auto ready = writer->open(); !ready) return tl::unexpected(ready.error());
  return writer;
}

}  // namespace fin
