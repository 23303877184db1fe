// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/head_on_wobble.h"

#include <algorithm>
#include <cmath>

#include "core/readings/rhythm_readings.h"
#include "core/signals/line_fit.h"

namespace fin {
namespace {

constexpr double kNoseSlides_px = 2.5;    ///< from one side to the other (95 %)
constexpr double kHeightPlaced_px = 0.8;  ///< by which back and belly may be off together (95 %)

std::optional<PixelPoint> seenAt(const Track& track, MarkName name, std::size_t i,
                                 const Rectification& picture) {
  const MarkTrack* mark = track.find(name);
  if (mark == nullptr || !mark->samples[i].seen) return std::nullopt;
  return picture.flat(mark->samples[i].at);
}

/// The height in the picture over time: a body that comes evenly nearer has one over it on a straight line.
struct Height {
  std::optional<LineFit> inverse;

  [[nodiscard]] double at(double t) const { return 1.0 / inverse->at(t); }
};

Height heightOf(const Track& track, std::span<const double> time_s, const Rectification& picture) {
  Series inverse;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    const auto back = seenAt(track, MarkName::Back, i, picture);
    const auto belly = seenAt(track, MarkName::Belly, i, picture);
    if (back && belly && length(*back - *belly).value() > 1.0)
      inverse.add(time_s[i], 1.0 / length(*back - *belly).value());
  }
  const auto line = fitLine(inverse);
  return {line ? std::optional(*line) : std::nullopt};
}

}  // namespace

Series headOnYaw_deg(const Track& track, std::span<const double> time_s, const Rectification& picture,
                     const HeadOnBody& body) {
  Series out;
  const Height height = heightOf(track, time_s, picture);
  if (!height.inverse) return out;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    const auto nose = seenAt(track, MarkName::Nose, i, picture);
    const auto tail = seenAt(track, MarkName::Tail, i, picture);
    if (!nose || !tail) continue;
    const double aside = (*tail - *nose).x_px;
    const double share = aside * body.height_mm / (height.at(time_s[i]) * body.length_mm);
    if (std::abs(share) <= 1.0) out.add(time_s[i], std::asin(share) * kDegreesPerRadian);
  }
  return out;
}

void readHeadOnWobble(const Series& yaw_deg, double bodyLength_px, double height_px, const HeadOnBody& body,
                      ReadingSheet& sheet) {
  const double spacing = yaw_deg.spacing_s();
  if (yaw_deg.size() < 8 || spacing <= 0.0) return;
  const Swing swing{"wobble", bodyLength_px, 1.0, 1.0 / spacing};
  const auto wobble = findSwinging(yaw_deg, swing);
  if (!wobble) {
    for (const ReadingId id : {ReadingId::WobbleFrequency, ReadingId::WobbleAngle, ReadingId::CycleVariation})
      sheet.refuse(id, wobble.error().message);
    return;
  }
  sheet.give(ReadingId::WobbleFrequency, rateOf(*wobble, swing));
  for (const Cycle& c : wobble->cycles) sheet.evidence().cycles.push_back({c.from_s, c.to_s});
  sheet.give(ReadingId::CycleVariation, variationOf(*wobble, swing));
  Estimate angle = angleOf(*wobble, swing);
  // What is seen of a nose that turns to and fro slides along it.
  angle.alsoUnsureBy({UncertaintySource::Marks, kNoseSlides_px / bodyLength_px * kDegreesPerRadian});
  const double size = std::hypot(kHeightPlaced_px / height_px, body.lengthU95_mm / body.length_mm);
  angle.alsoUnsureBy({UncertaintySource::Scale, angle.value * size});
  angle.grade = worse(angle.grade, gradeOf(angle.value, angle.u95));
  sheet.give(ReadingId::WobbleAngle, angle);
}

}  // namespace fin
