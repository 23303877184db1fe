// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/hear_pass.h"

#include <algorithm>
#include <cmath>

#include "core/footage/clip_sound.h"
#include "core/measuring/measure.h"

namespace fin {
namespace {

constexpr double kHeardRate_Hz = 48000.0;
constexpr double kBetween_s = 0.5;  ///< two sounds heard in turn
constexpr double kSameTimeFactor = 1e-3;

}  // namespace

Result<HeardPass> hearPass(const PassRequest& request, const Clip& clip, const ClipClock& clock,
                           const JobControl& job) {
  if (!clip.info().hasSound) return failure(ErrorCode::Unsupported, "the clip has no sound");
  if (std::abs(clock.factor() - 1.0) > kSameTimeFactor) {
    return failure(ErrorCode::Unsupported,
                   "the clip was filmed faster than it plays: its sound is not on true time");
  }
  HeardPass heard{kHeardRate_Hz, {}, {}};
  const auto hear = [&](Seconds from, Seconds to, std::vector<float>& into) {
    return decodeSound(
        clip, {Hertz(heard.rate_Hz), from, to},
        [&into](std::span<const float> samples, Seconds) {
          into.insert(into.end(), samples.begin(), samples.end());
        },
        job);
  };
  const std::size_t last = lastFrameOf(request, clip);
  const std::size_t first = std::min(request.firstFrame, last);
  if (auto ok = hear(clock.timeOf(first), clock.timeOf(last), heard.window); !ok)
    return tl::unexpected(ok.error());
  if (request.quiet) {
    if (auto ok = hear(request.quiet->from, request.quiet->to, heard.quiet); !ok)
      return tl::unexpected(ok.error());
  }
  return heard;
}

HeardInTurn inTurn(const HeardPass& first, double firstGain_dB, const HeardPass& second,
                   double secondGain_dB) {
  const auto factorOf = [](double dB) { return std::pow(10.0, dB / 20.0); };
  const auto peakOf = [](const std::vector<float>& samples) {
    double peak = 0.0;
    for (const float s : samples) peak = std::max(peak, static_cast<double>(std::abs(s)));
    return peak;
  };
  const double peak = std::max(peakOf(first.window) * factorOf(firstGain_dB),
                               peakOf(second.window) * factorOf(secondGain_dB));
  HeardInTurn out;
  out.lowered_dB = peak > 1.0 ? 20.0 * std::log10(peak) : 0.0;
  const auto add = [&](const std::vector<float>& samples, double gain_dB) {
    const double factor = factorOf(gain_dB - out.lowered_dB);
    for (const float s : samples) out.samples.push_back(static_cast<float>(factor * static_cast<double>(s)));
  };
  add(first.window, firstGain_dB);
  out.samples.resize(out.samples.size() + static_cast<std::size_t>(kBetween_s * first.rate_Hz), 0.0F);
  out.second_s = static_cast<double>(out.samples.size()) / first.rate_Hz;
  add(second.window, secondGain_dB);
  return out;
}

}  // namespace fin
