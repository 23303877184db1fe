// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/publishing/film_sound.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/footage/clip_sound.h"

namespace fin::publishing {
namespace {

constexpr double kTrueSpeed = 0.01;  ///< a clip that plays slower or faster by less is heard

bool atTrueSpeed(const FilmClip& clip) {
  return std::abs(clip.clock.factor() - 1.0) < kTrueSpeed;
}

/// Samples from one own time to another; silence where the recording has none.
Result<std::vector<float>> samplesOf(const FilmClip& clip, double from_s, std::size_t count,
                                     const JobControl& job) {
  std::vector<float> out(count, 0.0F);
  const double to_s = from_s + static_cast<double>(count) / kFilmSound_Hz;
  const auto take = [&](std::span<const float> samples, Seconds at) {
    const long first = std::lround((at.value() - from_s) * kFilmSound_Hz);
    for (std::size_t i = 0; i < samples.size(); ++i) {
      const long place = first + static_cast<long>(i);
      if (place >= 0 && place < static_cast<long>(count)) out[static_cast<std::size_t>(place)] = samples[i];
    }
  };
  const SoundWanted wanted{Hertz(kFilmSound_Hz), Seconds(from_s), Seconds(to_s)};
  if (auto ok = decodeSound(*clip.clip, wanted, take, {job.stop, {}}); !ok) return tl::unexpected(ok.error());
  return out;
}

double rmsOf(const std::vector<float>& samples) {
  double sum = 0.0;
  for (const float s : samples) sum += static_cast<double>(s) * s;
  return samples.empty() ? 0.0 : std::sqrt(sum / static_cast<double>(samples.size()));
}

std::string decibels(double gain) {
  return gain > 0.999 ? "as it is" : fmt::format("{:.1f} dB softer", -20.0 * std::log10(gain));
}

/// By how much each of those heard is turned down.
Result<std::vector<double>> gainsOf(const FilmScript& script, const std::vector<FilmClip>& clips,
                                    const std::vector<std::size_t>& heard, const JobControl& job) {
  std::vector<double> loud;
  for (const std::size_t i : heard) {
    const FilmPass& pass = script.passes[i];
    const auto count = static_cast<std::size_t>((*pass.quietTo_s - *pass.quietFrom_s) * kFilmSound_Hz);
    auto still = samplesOf(clips[i], *pass.quietFrom_s, count, job);
    if (!still) return tl::unexpected(still.error());
    loud.push_back(rmsOf(*still));
    if (loud.back() <= 0.0)
      return failure(
          ErrorCode::BadRequest,
          fmt::format("passes[{}].quiet: nothing at all is heard there, so loudness cannot be matched", i),
          "quiet");
  }
  const double least = *std::min_element(loud.begin(), loud.end());
  std::vector<double> out;
  for (const double one : loud) out.push_back(least / one);
  return out;
}

}  // namespace

Result<FilmSounds> filmSounds(const FilmScript& script, const FilmPlan& plan,
                              const std::vector<FilmClip>& clips, const JobControl& job) {
  FilmSounds out;
  out.of.resize(clips.size());
  if (script.sound == FilmSound::None) {
    out.says = script.slowness > 1.0 ? "Slowed, so without sound." : "Without sound.";
    return out;
  }
  std::vector<std::string> silent;
  for (std::size_t i = 0; i < clips.size(); ++i) {
    if (clips[i].clip->info().hasSound && atTrueSpeed(clips[i])) {
      out.heard.push_back(i);
    } else {
      silent.push_back(script.passes[i].caption + (clips[i].clip->info().hasSound
                                                       ? " (its sound is not at true speed)"
                                                       : " (no sound in its clip)"));
    }
  }
  std::vector<double> gains(out.heard.size(), 1.0);
  if (script.sound == FilmSound::Matched && !out.heard.empty()) {
    auto matched = gainsOf(script, clips, out.heard, job);
    if (!matched) return tl::unexpected(matched.error());
    gains = std::move(*matched);
  }
  const auto count = static_cast<std::size_t>(
      std::lround(static_cast<double>(plan.pictures) / script.rate_Hz * kFilmSound_Hz));
  for (std::size_t k = 0; k < out.heard.size(); ++k) {
    const std::size_t i = out.heard[k];
    auto samples = samplesOf(clips[i], script.passes[i].instant() + plan.begins_s, count, job);
    if (!samples) return tl::unexpected(samples.error());
    for (float& s : *samples) s *= static_cast<float>(gains[k]);
    out.of[i] = std::move(*samples);
  }
  if (out.heard.empty()) {
    out.says = "No clip has sound at true speed.";
    return out;
  }
  out.says =
      script.sound == FilmSound::Matched ? "Sound: made equally loud in still water" : "Sound: as recorded";
  if (out.heard.size() > 1) out.says += ", one after the other";
  if (script.sound == FilmSound::Matched) {
    for (std::size_t k = 0; k < out.heard.size(); ++k)
      out.says += fmt::format("{} {} {}", k == 0 ? ":" : ";", script.passes[out.heard[k]].caption,
                              decibels(gains[k]));
  }
  out.says += ".";
  for (const std::string& one : silent) out.says += " Not heard: " + one + ".";
  return out;
}

}  // namespace fin::publishing
