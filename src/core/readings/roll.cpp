// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/roll.h"

#include <fmt/format.h>
#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/readings/outline_mask.h"
#include "core/readings/rhythm_readings.h"
#include "core/signals/block_mean.h"
#include "core/signals/line_fit.h"

namespace fin {
namespace {

constexpr double kBesideSpot_px = 2.5;  ///< along the body, in which the rim is looked at
constexpr double kThinOfHalf = 0.6;     ///< of the half height: narrower things are no body
constexpr double kFarthestOut = 1.25;   ///< of the half height: beyond, the spot is not on the body
constexpr double kSpinsFrom_deg = 360.0;
constexpr double kHidden_frames = 3.5;   ///< a longer gap is taken for the spot's hiding
constexpr double kHidesFrom_deg = 40.0;  ///< a spot is surely seen nearer to the middle of its side
constexpr std::size_t kSlopeOver = 6;    ///< samples
constexpr std::size_t kFewestAngles = 12;
constexpr std::size_t kRollBlocks = 8;
constexpr double kFlankU95_deg = 2.0;    ///< parallax of the spot against the outline
constexpr double kWorstAskew_deg = 6.0;  ///< where the camera's distance is not known

const std::array kNames{ReadingId::RollFrequency, ReadingId::RollAngle, ReadingId::RollList,
                        ReadingId::SpinTurns, ReadingId::TwistPerMetre};

/// Adds an angle known up to whole turns. After a short step it is the nearest; after a gap over which the
/// mark `hid` the one nearest to where the roll was going.
void addUnwrapped(Series& roll, double time_s, double angle_deg, double spacing_s, bool hid = true) {
  if (roll.empty()) return roll.add(time_s, angle_deg);
  double expected = roll.y.back();
  const double gap_s = time_s - roll.t_s.back();
  if (hid && gap_s > kHidden_frames * spacing_s && roll.size() >= kSlopeOver) {
    const Series lately = roll.between(roll.t_s[roll.size() - kSlopeOver], roll.t_s.back());
    const bool whole = lately.span_s() < 2.0 * kSlopeOver * spacing_s;
    if (const auto line = fitLine(lately); whole && line) expected += line->slope * gap_s;
  }
  roll.add(time_s, expected + std::remainder(angle_deg - expected, 360.0));
}

/// A spot that is near the middle of its side before and after a gap was only lost.
bool couldHide(const Series& roll, double angle_deg) {
  const auto farRound = [](double deg) { return std::abs(std::remainder(deg, 360.0)) > kHidesFrom_deg; };
  return farRound(angle_deg) || (!roll.empty() && farRound(roll.y.back()));
}

double spacingOf(std::span<const double> time_s) {
  return time_s.size() > 1 ? (time_s.back() - time_s.front()) / static_cast<double>(time_s.size() - 1) : 1.0;
}

PixelPoint upOf(const Geometry& geometry) {
  const auto plumb = geometry.plumb ? std::optional(geometry.picture.flat(*geometry.plumb)) : std::nullopt;
  const PixelPoint up = upFromPlumb(plumb);
  return up * (1.0 / length(up).value());
}

RollTrace headOn(const Track& track, std::span<const double> time_s, const Geometry& geometry) {
  RollTrace out;
  const MarkTrack* back = track.find(MarkName::Back);
  const MarkTrack* belly = track.find(MarkName::Belly);
  if (back == nullptr || belly == nullptr) {
    out.lacking = "the back and belly marks are not placed";
    return out;
  }
  const PixelPoint up = upOf(geometry);
  const PixelPoint right{-up.y_px, up.x_px};
  std::vector<double> arms;
  const double spacing = spacingOf(time_s);
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    if (!back->samples[i].seen || !belly->samples[i].seen) continue;
    const PixelPoint d =
        geometry.picture.flat(back->samples[i].at) - geometry.picture.flat(belly->samples[i].at);
    // The lure comes at the camera: its own right is the picture's left.
    addUnwrapped(out.roll, time_s[i], std::atan2(-dot(d, right), dot(d, up)) * kDegreesPerRadian, spacing);
    arms.push_back(0.5 * length(d).value());
  }
  out.arm_px = median(arms);
  return out;
}

/// How far above the body's mid line a place lies, across the body; none where the body is not seen there.
/// Hooks and bits of line that hang on the outline are thinner than the body and do not count.
std::optional<double> overMidLine(const OutlineSample& outline, PixelPoint at, PixelPoint up,
                                  double half_px) {
  const cv::Rect box = boundsOf(outline);
  cv::Mat body = maskOf(outline, box);
  const int thin = std::max(3, static_cast<int>(kThinOfHalf * half_px));
  cv::morphologyEx(body, body, cv::MORPH_OPEN,
                   cv::getStructuringElement(cv::MORPH_ELLIPSE, cv::Size(thin, thin)));
  const PixelPoint axis{std::cos(outline.angle_rad), std::sin(outline.angle_rad)};
  PixelPoint across{axis.y_px, -axis.x_px};
  if (dot(across, up) < 0.0) across = across * -1.0;
  double low = 1e9;
  double high = -1e9;
  for (int y = 0; y < body.rows; ++y) {
    const uchar* row = body.ptr<uchar>(y);
    for (int x = 0; x < body.cols; ++x) {
      const PixelPoint d = PixelPoint{1.0 * (box.x + x), 1.0 * (box.y + y)} - at;
      if (row[x] == 0 || std::abs(dot(d, axis)) > kBesideSpot_px) continue;
      low = std::min(low, dot(d, across));
      high = std::max(high, dot(d, across));
    }
  }
  if (high <= low) return std::nullopt;
  return -0.5 * (low + high);
}

bool pulledLeft(const Track& track, const Geometry& geometry) {
  if (geometry.pull) return *geometry.pull == Pull::Left;
  const OutlineSample* first = nullptr;
  const OutlineSample* last = nullptr;
  for (const OutlineSample& s : track.outline) {
    if (!s.seen) continue;
    if (first == nullptr) first = &s;
    last = &s;
  }
  return first != nullptr && last->centre.x_px < first->centre.x_px;
}

RollTrace side(const Track& track, std::span<const double> time_s, const Geometry& geometry,
               const RollView& view) {
  RollTrace out;
  const MarkTrack* flank = track.find(MarkName::Flank);
  if (flank == nullptr) {
    out.lacking = "the flank mark is not placed; from the side a spot at mid height shows the roll";
  } else if (track.outline.empty()) {
    out.lacking = "no outline of the lure is marked; the flank spot is measured against its mid line";
  } else if (!view.halfHeight_px) {
    out.lacking = "half the body's thickness is not said, or there is no scale for it";
  }
  if (!out.lacking.empty()) return out;
  const PixelPoint up = upOf(geometry);
  // Pulled right the camera sees the lure's right side: leaning to the right brings its spot down.
  const double sense = pulledLeft(track, geometry) ? 1.0 : -1.0;
  const double spacing = spacingOf(time_s);
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    const OutlineSample& o = track.outline[i];
    if (!flank->samples[i].seen || !o.seen || !o.whole) continue;
    const auto over = overMidLine(o, flank->samples[i].at, up, *view.halfHeight_px);
    if (!over || std::abs(*over) > kFarthestOut * *view.halfHeight_px) continue;
    double up_deg = std::asin(std::clamp(*over / *view.halfHeight_px, -1.0, 1.0)) * kDegreesPerRadian;
    // Seen from above, the spot lies lower on the lure than it is, and the other way round.
    if (view.cameraDistance_px)
      up_deg +=
          std::atan2(o.centre.y_px - view.pictureMiddleY_px, *view.cameraDistance_px) * kDegreesPerRadian;
    addUnwrapped(out.roll, time_s[i], sense * up_deg, spacing, couldHide(out.roll, sense * up_deg));
  }
  out.arm_px = *view.halfHeight_px;
  out.askew = !view.cameraDistance_px;
  return out;
}

void readSpin(const RollTrace& trace, const LineFit& line, ReadingSheet& sheet) {
  const double turns = std::abs(line.slope) * trace.span_s / 360.0;
  Estimate spin;
  spin.value = std::floor(turns);
  spin.u95 = std::max(0.5, line.slopeU95 * trace.span_s / 360.0);
  spin.n = static_cast<double>(trace.roll.size());
  spin.grade = gradeOf(spin.value, spin.u95);
  spin.notes.push_back(fmt::format("it goes through {:.1f} turns; whole ones are counted", turns));
  sheet.give(ReadingId::SpinTurns, spin);
  for (const ReadingId id : {ReadingId::RollFrequency, ReadingId::RollAngle, ReadingId::RollList})
    sheet.refuse(id, "it spins right round: there is no rocking to measure");
  const Estimate* speed = sheet.estimate(ReadingId::TravelSpeed);
  if (speed == nullptr || std::abs(speed->value) <= speed->u95) {
    sheet.refuse(ReadingId::TwistPerMetre, "it needs a travel speed");
    return;
  }
  Estimate twist;
  twist.value = std::abs(line.slope) / 360.0 / (std::abs(speed->value) / 1000.0);
  twist.u95 = twist.value * std::hypot(line.slopeU95 / line.slope, speed->u95 / speed->value);
  twist.u95 = std::hypot(twist.u95, twist.value * 0.15 / std::max(turns, 1.0));
  twist.n = spin.n;
  twist.grade = gradeOf(twist.value, twist.u95);
  sheet.give(ReadingId::TwistPerMetre, twist);
}

void readRocking(const RollTrace& trace, ReadingSheet& sheet) {
  Estimate none;
  none.n = static_cast<double>(trace.roll.size());
  none.u95 = 0.5;
  sheet.give(ReadingId::SpinTurns, none);
  if (sheet.estimate(ReadingId::TravelSpeed) != nullptr) {
    none.u95 = 0.1;
    sheet.give(ReadingId::TwistPerMetre, none);
  }
  const Swing body{"roll", trace.arm_px, 1.0, trace.frameRate_Hz};
  const auto rocking = findSwinging(trace.roll, body);
  const double whole_s = rocking ? rocking->cycles.front().from_s : trace.roll.t_s.front();
  const double end_s = rocking ? rocking->cycles.back().to_s : trace.roll.t_s.back();
  const Mean mean = blockMean(trace.roll.between(whole_s, end_s), kRollBlocks);
  Estimate list;
  list.value = mean.value;
  const double place = std::sqrt(2.0) * markPlaceU95(Pixels(2.0 * trace.arm_px)).value() /
                       (2.0 * trace.arm_px) * kDegreesPerRadian;
  list.setUncertainty({{UncertaintySource::Scatter, mean.u95},
                       {UncertaintySource::Marks, std::hypot(place, kFlankU95_deg / 2.0)},
                       {UncertaintySource::ViewingAngle, trace.askew ? kWorstAskew_deg : 0.0}});
  list.n = static_cast<double>(trace.roll.size());
  list.grade = list.u95 < 2.0 ? Grade::Good : list.u95 < 5.0 ? Grade::Fair : Grade::Poor;
  if (trace.askew)
    list.notes.push_back(
        "the camera's distance is not known: the angle under which it sees the lure is left in");
  sheet.give(ReadingId::RollList, list);
  if (!rocking) {
    for (const ReadingId id : {ReadingId::RollFrequency, ReadingId::RollAngle})
      sheet.refuse(id, rocking.error().message);
    return;
  }
  sheet.give(ReadingId::RollFrequency, rateOf(*rocking, body));
  Estimate angle = angleOf(*rocking, body);
  angle.alsoUnsureBy(
      {UncertaintySource::Marks, angle.value * 0.03});  // of the half height, or of the marks' own size
  sheet.give(ReadingId::RollAngle, angle);
}

}  // namespace

RollTrace traceRoll(const Track& track, std::span<const double> time_s, const Geometry& geometry,
                    const RollView& view) {
  RollTrace out =
      geometry.view == View::HeadOn ? headOn(track, time_s, geometry) : side(track, time_s, geometry, view);
  out.span_s = time_s.empty() ? 0.0 : time_s.back() - time_s.front();
  const double spacing = out.roll.spacing_s();
  out.frameRate_Hz = spacing > 0.0 ? 1.0 / spacing : 0.0;
  if (out.lacking.empty() && out.roll.size() < kFewestAngles)
    out.lacking = "the marks that show the roll were hardly seen";
  return out;
}

void readRoll(const RollTrace& trace, ReadingSheet& sheet) {
  if (!trace.lacking.empty()) {
    for (const ReadingId id : kNames) sheet.refuse(id, trace.lacking);
    return;
  }
  const auto line = fitLine(trace.roll);
  if (!line) return;
  const auto [low, high] = std::minmax_element(trace.roll.y.begin(), trace.roll.y.end());
  const bool spins = *high - *low >= kSpinsFrom_deg && std::abs(line->slope) * trace.span_s >= kSpinsFrom_deg;
  spins ? readSpin(trace, *line, sheet) : readRocking(trace, sheet);
}

}  // namespace fin
