// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/clip_writer.h"

#include "core/footage/av_handles.h"

extern "C" {
#include <libavutil/channel_layout.h>
#include <libavutil/display.h>
#include <libavutil/imgutils.h>
#include <libavutil/opt.h>
}

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <thread>
#include <vector>

namespace fin {
namespace {

constexpr int kTicksPerSecond = 90000;
constexpr int kVp9Finer = 12;  ///< the same look has a higher number there

struct CloseOutput {
  void operator()(AVFormatContext* c) const {
    if (c->pb != nullptr) avio_closep(&c->pb);
    avformat_free_context(c);
  }
};

/// VP9 at a pace that two cores keep up with.
void hurry(AVCodecContext& codec, int quality) {
  codec.bit_rate = 0;
  codec.thread_count = std::clamp(static_cast<int>(std::thread::hardware_concurrency()), 1, 8);
  av_opt_set(codec.priv_data, "deadline", "realtime", 0);
  av_opt_set(codec.priv_data, "cpu-used", "8", 0);
  av_opt_set(codec.priv_data, "row-mt", "1", 0);
  av_opt_set(codec.priv_data, "lag-in-frames", "0", 0);
  av_opt_set(codec.priv_data, "tile-columns", "2", 0);
  av_opt_set(codec.priv_data, "crf", std::to_string(quality + kVp9Finer).c_str(), 0);
}

const AVCodec* encoderFor(const std::filesystem::path& path) {
  if (path.extension() == ".avi") return avcodec_find_encoder(AV_CODEC_ID_MJPEG);
  if (path.extension() == ".webm") return avcodec_find_encoder_by_name("libvpx-vp9");
  const AVCodec* best = avcodec_find_encoder_by_name("libx264");
  return best != nullptr ? best : avcodec_find_encoder(AV_CODEC_ID_MPEG4);
}

class AvClipWriter : public ClipWriter {
 public:
  AvClipWriter(std::filesystem::path path, ClipWriterOptions options)
      : path_(std::move(path)), options_(options) {}

  Result<void> open() {
    AVFormatContext* raw = nullptr;
    const std::string place = "file:" + path_.string();
    if (avformat_alloc_output_context2(&raw, nullptr, nullptr, place.c_str()) < 0 || raw == nullptr) {
      return refused("this ending names no container");
    }
    format_.reset(raw);
    if (auto ready = openEncoder(); !ready) return ready;
    if (auto ready = addStream(); !ready) return ready;
    if (options_.soundRate_Hz > 0) {
      if (auto ready = openSound(); !ready) return ready;
    }
    if (const int code = avio_open(&raw->pb, place.c_str(), AVIO_FLAG_WRITE); code < 0) {
      return refused(av::reason(code));
    }
    AVDictionary* settings = nullptr;
    if (options_.forShowing) av_dict_set(&settings, "movflags", "+faststart", 0);
    const int code = avformat_write_header(raw, &settings);
    av_dict_free(&settings);
    if (code < 0) return refused(av::reason(code));
    return {};
  }

  Result<void> add(const cv::Mat& picture, Seconds time) override {
    av_frame_make_writable(frame_.get());
    if (picture.channels() == 4) {
      convertQuickly(picture);
    } else {
      const std::uint8_t* planes[] = {picture.data, nullptr, nullptr, nullptr};
      const int strides[] = {static_cast<int>(picture.step), 0, 0, 0};
      sws_scale(scaler_.get(), planes, strides, 0, picture.rows, frame_->data, frame_->linesize);
    }
    frame_->pts = std::llround(time.value() * codec_->time_base.den / codec_->time_base.num);
    return encode(*codec_, *stream_, frame_.get());
  }

  Result<void> addSound(std::span<const float> samples) override {
    waiting_.insert(waiting_.end(), samples.begin(), samples.end());
    const auto block = static_cast<std::size_t>(soundFrame_->nb_samples);
    std::size_t done = 0;
    for (; done + block <= waiting_.size(); done += block) {
      av_frame_make_writable(soundFrame_.get());
      std::copy_n(waiting_.begin() + static_cast<std::ptrdiff_t>(done), block,
                  reinterpret_cast<float*>(soundFrame_->data[0]));
      soundFrame_->pts = soundAt_;
      soundAt_ += soundFrame_->nb_samples;
      if (auto ok = encode(*sound_, *soundStream_, soundFrame_.get()); !ok) return ok;
    }
    waiting_.erase(waiting_.begin(), waiting_.begin() + static_cast<std::ptrdiff_t>(done));
    return {};
  }

  Result<void> finish() override {
    if (auto flushed = encode(*codec_, *stream_, nullptr); !flushed) return flushed;
    if (sound_) {
      if (auto rest = fillLastBlock(); !rest) return rest;
      if (auto flushed = encode(*sound_, *soundStream_, nullptr); !flushed) return flushed;
    }
    if (const int code = av_write_trailer(format_.get()); code < 0) return refused(av::reason(code));
    avio_flush(format_->pb);
    if (const int code = format_->pb->error; code < 0) return refused(av::reason(code));
    if (const int code = avio_closep(&format_->pb); code < 0) return refused(av::reason(code));
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
    if (encoder->id == AV_CODEC_ID_VP9) {
      hurry(*codec_, options_.quality);
    } else {
      av_opt_set(codec_->priv_data, "preset", options_.forShowing ? "superfast" : "veryfast", 0);
      av_opt_set(codec_->priv_data, "crf", std::to_string(options_.quality).c_str(), 0);
    }
    if (options_.forShowing) {
      codec_->colorspace = AVCOL_SPC_SMPTE170M;
      codec_->color_primaries = AVCOL_PRI_BT709;
      codec_->color_trc = AVCOL_TRC_BT709;
      codec_->color_range = AVCOL_RANGE_MPEG;
    }
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

  /// Several times as fast as the scaler, by the same matrix (BT.601, not full range).
  void convertQuickly(const cv::Mat& picture) {
    cv::cvtColor(picture, planar_, cv::COLOR_BGRA2YUV_I420);
    const int w = codec_->width, h = codec_->height;
    const std::uint8_t* from = planar_.data;
    for (int plane = 0; plane < 3; ++plane) {
      const int planeW = plane == 0 ? w : w / 2, planeH = plane == 0 ? h : h / 2;
      av_image_copy_plane(frame_->data[plane], frame_->linesize[plane], from, planeW, planeW, planeH);
      from += static_cast<std::ptrdiff_t>(planeW) * planeH;
    }
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

  Result<void> openSound() {
    const bool opus = path_.extension() == ".webm";
    const AVCodec* encoder =
        opus ? avcodec_find_encoder_by_name("libopus") : avcodec_find_encoder(AV_CODEC_ID_AAC);
    if (encoder == nullptr) return refused("no encoder for sound is there");
    sound_.reset(avcodec_alloc_context3(encoder));
    sound_->sample_fmt = opus ? AV_SAMPLE_FMT_FLT : AV_SAMPLE_FMT_FLTP;  // of one channel they are the same
    sound_->sample_rate = options_.soundRate_Hz;
    sound_->ch_layout = AV_CHANNEL_LAYOUT_MONO;
    sound_->time_base = {1, options_.soundRate_Hz};
    sound_->bit_rate = 128'000;
    if ((format_->oformat->flags & AVFMT_GLOBALHEADER) != 0) sound_->flags |= AV_CODEC_FLAG_GLOBAL_HEADER;
    if (const int code = avcodec_open2(sound_.get(), encoder, nullptr); code < 0)
      return refused(av::reason(code));
    soundStream_ = avformat_new_stream(format_.get(), nullptr);
    avcodec_parameters_from_context(soundStream_->codecpar, sound_.get());
    soundStream_->time_base = sound_->time_base;
    soundFrame_->format = sound_->sample_fmt;
    soundFrame_->ch_layout = sound_->ch_layout;
    soundFrame_->sample_rate = sound_->sample_rate;
    soundFrame_->nb_samples = sound_->frame_size;
    if (av_frame_get_buffer(soundFrame_.get(), 0) < 0) return refused("no memory");
    return {};
  }

  /// What is left over does not fill a block: silence follows it.
  Result<void> fillLastBlock() {
    if (!options_.forShowing || waiting_.empty()) return {};
    return addSound(
        std::vector<float>(static_cast<std::size_t>(soundFrame_->nb_samples) - waiting_.size(), 0.0F));
  }

  Result<void> encode(AVCodecContext& codec, const AVStream& stream, const AVFrame* frame) {
    if (const int code = avcodec_send_frame(&codec, frame); code < 0) return refused(av::reason(code));
    while (avcodec_receive_packet(&codec, packet_.get()) >= 0) {
      av_packet_rescale_ts(packet_.get(), codec.time_base, stream.time_base);
      packet_->stream_index = stream.index;
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
  cv::Mat planar_;
  av::Codec sound_;
  AVStream* soundStream_ = nullptr;
  av::FramePtr soundFrame_{av_frame_alloc()};
  std::vector<float> waiting_;  ///< samples that do not fill a block yet
  std::int64_t soundAt_ = 0;    ///< samples written
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
