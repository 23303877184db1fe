// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/water/current.h"

#include <algorithm>
#include <cmath>
#include <initializer_list>
#include <numbers>

namespace fin {
namespace {

double cosOf(double angle_deg) {
  return std::cos(angle_deg * std::numbers::pi / 180.0);
}
double sinOf(double angle_deg) {
  return std::sin(angle_deg * std::numbers::pi / 180.0);
}
double degreesOf(double cosine) {
  return std::acos(std::clamp(cosine, -1.0, 1.0)) * 180.0 / std::numbers::pi;
}

Result<void> speeds(std::initializer_list<double> values, double angle_deg = 0.0) {
  const bool good = std::isfinite(angle_deg) && std::all_of(values.begin(), values.end(), [](double v) {
                      return std::isfinite(v) && v >= 0.0;
                    });
  if (!good) return failure(ErrorCode::BadRequest, "a speed is a number from nought up");
  return {};
}

}  // namespace

Result<double> throughWater(double ground, double current, double angle_deg) {
  if (auto ok = speeds({ground, current}, angle_deg); !ok) return tl::unexpected(ok.error());
  const double square = ground * ground + current * current - 2.0 * ground * current * cosOf(angle_deg);
  return std::sqrt(std::max(0.0, square));
}

Result<double> overGround(double water, double current, double angle_deg) {
  if (auto ok = speeds({water, current}, angle_deg); !ok) return tl::unexpected(ok.error());
  const double across = current * sinOf(angle_deg);
  if (std::abs(across) > water)
    return failure(ErrorCode::Unsupported, "the current alone is faster across this course");
  const double along = current * cosOf(angle_deg) + std::sqrt(water * water - across * across);
  if (along < 0.0) return failure(ErrorCode::Unsupported, "the current is faster than the lure may go");
  return along;
}

Result<CastInCurrent> castInCurrent(double reel, double current, double fromUpstream_deg) {
  if (auto ok = speeds({reel, current}, fromUpstream_deg); !ok) return tl::unexpected(ok.error());
  return CastInCurrent{reel - current * cosOf(fromUpstream_deg), current * sinOf(fromUpstream_deg)};
}

Result<WorkingAngles> workingAngles(double reel, double current, double slowest, double fastest) {
  if (auto ok = speeds({reel, current, slowest, fastest}); !ok) return tl::unexpected(ok.error());
  if (slowest > fastest) return failure(ErrorCode::BadRequest, "the band's ends are the wrong way round");
  if (reel + current < slowest)
    return failure(ErrorCode::Unsupported, "reeled so slowly it works at no angle");
  if (reel - current > fastest) return failure(ErrorCode::Unsupported, "reeled so fast it works at no angle");
  if (current == 0.0) return WorkingAngles{};
  return WorkingAngles{degreesOf((reel - slowest) / current), degreesOf((reel - fastest) / current)};
}

Result<double> reelAsTheCurrent(double current, double fromUpstream_deg) {
  if (auto ok = speeds({current}, fromUpstream_deg); !ok) return tl::unexpected(ok.error());
  return std::max(0.0, current * cosOf(fromUpstream_deg));
}

}  // namespace fin
