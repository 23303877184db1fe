// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/passes/hear_pass.h"

#include <algorithm>
#include <cmath>

#include "core/footage/clip_sound.h"

namespace fin {
namespace {

constexpr double kHeardRate_Hz = 48000.0;
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

}  // namespace fin
