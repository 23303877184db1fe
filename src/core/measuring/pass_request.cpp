// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/pass_request.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <tuple>

#include "core/calibration/clip_clock.h"

namespace fin {
namespace {

tl::unexpected<Error> wrong(const std::string& key, const std::string& why) {
  return failure(ErrorCode::BadRequest, key + ": " + why, key);
}

Result<void> checkLine(const std::optional<PixelLine>& line, const char* key) {
  if (line && length(line->to - line->from).value() < 1.0) return wrong(key, "its two ends lie on one spot");
  return {};
}

double heightAt(const PixelLine& line, double x_px) {
  const double run = line.to.x_px - line.from.x_px;
  const double share = std::abs(run) > 1e-9 ? (x_px - line.from.x_px) / run : 0.5;
  return line.from.y_px + share * (line.to.y_px - line.from.y_px);
}

/// Down is towards larger y: the waterline has to lie over the bottom where both were drawn.
Result<void> checkLevels(const PassRequest& request) {
  if (!request.waterline || !request.bottom) return {};
  const double x = midpoint(request.bottom->from, request.bottom->to).x_px;
  if (heightAt(*request.waterline, x) >= heightAt(*request.bottom, x)) {
    return wrong("waterline", "it lies below the bottom; one of the two lines is wrong");
  }
  return {};
}

Result<void> checkMarks(const PassRequest& request) {
  for (std::size_t i = 0; i < request.marks.size(); ++i) {
    for (std::size_t j = 0; j < i; ++j) {
      const MarkSeed& a = request.marks[i];
      const MarkSeed& b = request.marks[j];
      if (a.name == b.name && a.frame == b.frame && !(a.at == b.at)) {
        return wrong("marks", fmt::format("{} has two places in frame {}", toString(a.name), a.frame));
      }
    }
  }
  if (request.outline && request.outline->polygon.size() < 3) {
    return wrong("outline", "a polygon needs at least three corners");
  }
  return {};
}

}  // namespace

PassNeeds needsOf(const PassRequest& request) {
  PassNeeds out{.protocol = request.protocol, .view = request.view};
  for (const MarkSeed& s : request.marks) out.marks.push_back(s.name);
  out.hasScale = request.scale || request.square || request.ownLength;
  out.hasWaterline = request.waterline.has_value();
  out.hasOutline = request.outline.has_value();
  out.hasOwnLength = request.ownLength.has_value();
  out.hasPullLine = request.pullLine.has_value();
  out.hasLevels = request.waterline && request.bottom;
  return out;
}

bool followsBackground(const PassRequest& request) {
  return request.followBackground && request.view == View::Chase;
}

Foreshortening turnsOf(const PassRequest& request) {
  if (hasStretches(request) || request.protocol == Protocol::Fall || request.protocol == Protocol::Rest)
    return Foreshortening::Any;
  if (request.view == View::Top) return Foreshortening::None;
  return request.protocol == Protocol::Retrieve ? Foreshortening::Slight : Foreshortening::Any;
}

std::optional<double> bodyLength_px(const PassRequest& request) {
  for (const MarkSeed& a : request.marks) {
    for (const MarkSeed& b : request.marks) {
      if (a.frame == b.frame && a.name == MarkName::Nose && b.name == MarkName::Tail)
        return length(a.at - b.at).value();
    }
  }
  return std::nullopt;
}

Result<Rectification> rectificationOf(const PassRequest& request) {
  Rectification out{request.lens, std::nullopt};
  if (!request.square) return out;
  SquareMark mark = *request.square;
  if (request.lens) {
    for (PixelPoint& corner : mark.corners) corner = request.lens->straightened(corner);
  }
  const auto square = PlaneSquare::create(mark);
  if (!square) return tl::unexpected(square.error());
  out.square = *square;
  return out;
}

Result<std::optional<Scale>> scaleOf(const PassRequest& request, const std::optional<ScalePlane>& plane) {
  const auto picture = rectificationOf(request);
  if (!picture) return tl::unexpected(picture.error());
  Result<Scale> scale = tl::unexpected(Error{});
  if (picture->square) {
    scale = Scale::ofSquare(*picture->square, plane);
  } else if (request.scale) {
    ScaleMark mark = *request.scale;
    mark.from = picture->flat(mark.from);
    mark.to = picture->flat(mark.to);
    scale = Scale::create(mark, plane);
  } else {
    return std::optional<Scale>();
  }
  if (!scale) return tl::unexpected(scale.error());
  return std::optional(*scale);
}

Result<void> validate(const PassRequest& request, Stage stage) {
  if (stage == Stage::Whole && request.protocol != Protocol::Sound && request.marks.empty() &&
      !request.findMarks && !request.outline) {
    return wrong("marks", "place the lure's marks or its outline");
  }
  if (request.looksLike && !request.findMarks) return wrong("looks_like", "goes with \"marks\": \"find\"");
  if (request.lastFrame && *request.lastFrame < request.firstFrame) {
    return wrong("last_frame", "the window ends before first_frame");
  }
  if (request.captureRate && !(request.captureRate->value() > 0.0 && *request.captureRate < kHighestRate)) {
    return wrong("capture_rate", "must be the frames per second of the camera");
  }
  if (request.rollingShutter &&
      !(request.rollingShutter->value() >= 0.0 && *request.rollingShutter <= kLongestRollingShutter)) {
    return wrong("rolling_shutter_ms", "must be the milliseconds from a picture's first row to its last");
  }
  if (request.lens) {
    if (auto ok = request.lens->validate(); !ok) return ok;
  }
  if (request.scale && request.square) return wrong("square", "give a scale or a square, not both");
  if (auto scale = scaleOf(request, request.scalePlane); !scale) return tl::unexpected(scale.error());
  if (request.bodyHalfHeight && !(request.bodyHalfHeight->value() > 0.0)) {
    return wrong("body_half_height_mm", "must be more than zero");
  }
  if (request.ownLength &&
      !(request.ownLength->length.value() > 0.0 && request.ownLength->u95.value() >= 0.0)) {
    return wrong("own_length_mm", "must be more than zero, and its u95 no less");
  }
  if (request.viewAngle && !(std::abs(request.viewAngle->deg) < 90.0 && request.viewAngle->u95_deg > 0.0)) {
    return wrong("view_angle_deg", "must lie between -90 and 90, with a u95 of more than zero");
  }
  for (std::size_t i = 0; i < request.stretches.size(); ++i) {
    const FrameStretch& at = request.stretches[i].frames;
    if (at.last < at.first) return wrong("stretches", "one ends before its first frame");
    if (i > 0 && at.first <= request.stretches[i - 1].frames.last)
      return wrong("stretches", "they must follow one another");
  }
  if (request.head && !std::isfinite(request.head->inWater_g))
    return wrong("rig.head_in_water_g", "is no weight");
  if (request.quiet && !(request.quiet->to > request.quiet->from)) {
    return wrong("quiet", "it ends before it starts");
  }
  if (request.twitches) {
    const std::vector<double>& starts = request.twitches->starts_s;
    if (std::adjacent_find(starts.begin(), starts.end(), std::greater_equal<>()) != starts.end())
      return wrong("twitches", "their starts must rise");
    for (const double out : request.twitches->leftOut_s) {
      if (std::find(starts.begin(), starts.end(), out) == starts.end())
        return wrong("twitches", "what is left out must be one of the starts");
    }
  }
  for (const ThresholdKey& threshold : kThresholdKeys) {
    if (!threshold.allows(request.thresholds.*threshold.value))
      return wrong(threshold.key, fmt::format("must be from {} to {}", threshold.least, threshold.most));
  }
  for (const auto& [line, key] : {std::pair{&request.plumb, "plumb"},
                                  {&request.waterline, "waterline"},
                                  {&request.bottom, "bottom"},
                                  {&request.pullLine, "pull_line"}}) {
    if (auto ok = checkLine(*line, key); !ok) return ok;
  }
  if (auto ok = checkLevels(request); !ok) return ok;
  return checkMarks(request);
}

}  // namespace fin
