// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/clip_sound.h"

#include "core/footage/av_handles.h"

extern "C" {
#include <libavutil/channel_layout.h>
#include <libswresample/swresample.h>
}

#include <algorithm>
#include <cmath>

namespace fin {
namespace {

constexpr double kHole_s = 0.02;  ///< a stamp that runs ahead by more tells of a hole in the recording

struct FreeResampler {
  void operator()(SwrContext* c) const { swr_free(&c); }
};
using Resampler = std::unique_ptr<SwrContext, FreeResampler>;

Resampler resamplerFor(const AVFrame& frame, int rate_Hz) {
  AVChannelLayout mono = AV_CHANNEL_LAYOUT_MONO;
  AVChannelLayout given = frame.ch_layout;
  SwrContext* raw = nullptr;
  if (swr_alloc_set_opts2(&raw, &mono, AV_SAMPLE_FMT_FLT, rate_Hz, &given,
                          static_cast<AVSampleFormat>(frame.format), frame.sample_rate, 0, nullptr) < 0) {
    return nullptr;
  }
  Resampler out(raw);
  if (swr_init(raw) < 0) return nullptr;
  return out;
}

/// Decoded stretches of sound onto the clip's line of time.
class SoundLine {
 public:
  SoundLine(const SoundWanted& wanted, const SoundSink& sink)
      : wanted_(wanted), rate_Hz_(static_cast<int>(std::lround(wanted.rate.value()))), sink_(sink) {}

  void add(const AVFrame& frame, double at_s) {
    if (!resampler_) {
      resampler_ = resamplerFor(frame, rate_Hz_);
      next_s_ = at_s;
    }
    if (!resampler_) return;
    if (std::abs(at_s - next_s_) > kHole_s) {
      drain();
      swr_init(resampler_.get());
      next_s_ = at_s;
    }
    push(const_cast<const std::uint8_t**>(frame.extended_data), frame.nb_samples);
  }
  void drain() {
    if (resampler_) push(nullptr, 0);
  }

 private:
  void push(const std::uint8_t** data, int count) {
    const int room = swr_get_out_samples(resampler_.get(), count) + 32;
    buffer_.resize(static_cast<std::size_t>(room));
    auto* out = reinterpret_cast<std::uint8_t*>(buffer_.data());
    const int got = swr_convert(resampler_.get(), &out, room, data, count);
    if (got > 0) handOver(std::span(buffer_.data(), static_cast<std::size_t>(got)));
  }
  /// Only what lies in the wanted part.
  void handOver(std::span<const float> samples) {
    const double rate = rate_Hz_;
    const double start_s = next_s_;
    next_s_ += static_cast<double>(samples.size()) / rate;
    const auto inside = [&](double limit_s) {
      const double at = std::ceil((limit_s - start_s) * rate - 1e-6);
      return static_cast<std::size_t>(std::clamp(at, 0.0, static_cast<double>(samples.size())));
    };
    const std::size_t first = inside(wanted_.from.value());
    const std::size_t end = inside(wanted_.to.value());
    if (first < end)
      sink_(samples.subspan(first, end - first), Seconds(start_s + static_cast<double>(first) / rate));
  }

  SoundWanted wanted_;
  int rate_Hz_;
  const SoundSink& sink_;
  Resampler resampler_;
  double next_s_ = 0.0;
  std::vector<float> buffer_;
};

}  // namespace

Result<void> decodeSound(const Clip& clip, const SoundWanted& wanted, const SoundSink& sink,
                         const JobControl& job) {
  auto input = av::openInput(clip.info().path, av::Wanted::Sound);
  if (!input) return tl::unexpected(input.error());
  const av::Codec codec = av::openDecoder(*input->stream, 1);
  if (!codec) return failure(ErrorCode::Unreadable, "there is no decoder for the clip's sound");
  if (wanted.from.value() > 0.0) {
    const auto target = static_cast<std::int64_t>(
        (wanted.from.value() - 1.0 + clip.index().startOnFile().value()) / av_q2d(input->stream->time_base));
    (void)av_seek_frame(input->format.get(), input->stream->index, target, AVSEEK_FLAG_BACKWARD);
  }
  const double length_s = clip.index().timeOf(clip.index().frameCount() - 1).value();
  SoundLine line(wanted, sink);
  const av::PacketPtr packet(av_packet_alloc());
  const av::FramePtr frame(av_frame_alloc());
  double at_s = 0.0;
  const auto takeFrames = [&] {
    while (avcodec_receive_frame(codec.get(), frame.get()) >= 0) {
      if (frame->best_effort_timestamp != AV_NOPTS_VALUE) {
        at_s = static_cast<double>(frame->best_effort_timestamp) * av_q2d(input->stream->time_base) -
               clip.index().startOnFile().value();
      }
      line.add(*frame, at_s);
    }
  };
  while (at_s < wanted.to.value() && av_read_frame(input->format.get(), packet.get()) >= 0) {
    if (packet->stream_index == input->stream->index && avcodec_send_packet(codec.get(), packet.get()) >= 0)
      takeFrames();
    av_packet_unref(packet.get());
    if (job.cancelled()) return failure(ErrorCode::Cancelled, "reading the sound was stopped");
    if (length_s > 0.0) job.report(std::clamp(at_s / length_s, 0.0, 1.0));
  }
  avcodec_send_packet(codec.get(), nullptr);
  takeFrames();
  line.drain();
  return {};
}

Result<SoundLevel> soundLevel(const Clip& clip, Seconds step, const JobControl& job) {
  constexpr double kRate_Hz = 16000.0;
  SoundLevel out;
  out.step = step;
  const double length_s = clip.index().timeOf(clip.index().frameCount() - 1).value() + step.value();
  const auto steps = static_cast<std::size_t>(length_s / step.value()) + 1;
  out.rms.assign(steps, 0.0F);
  out.peak.assign(steps, 0.0F);
  std::vector<int> counts(steps, 0);
  const auto sink = [&](std::span<const float> samples, Seconds at) {
    for (std::size_t i = 0; i < samples.size(); ++i) {
      const double t = at.value() + static_cast<double>(i) / kRate_Hz;
      const auto k = static_cast<std::size_t>(t / step.value());
      if (t < 0.0 || k >= steps) continue;
      out.rms[k] += samples[i] * samples[i];
      out.peak[k] = std::max(out.peak[k], std::abs(samples[i]));
      ++counts[k];
    }
  };
  if (auto ok = decodeSound(clip, {Hertz(kRate_Hz), Seconds(0.0), Seconds(length_s)}, sink, job); !ok)
    return tl::unexpected(ok.error());
  for (std::size_t k = 0; k < steps; ++k) {
    if (counts[k] > 0) out.rms[k] = std::sqrt(out.rms[k] / static_cast<float>(counts[k]));
  }
  return out;
}

}  // namespace fin
