// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/tank_frame.h"

namespace fin {
namespace {

PixelPoint unit(PixelPoint v) {
  return v * (1.0 / length(v).value());
}

}  // namespace

PixelPoint Rectification::flat(PixelPoint seen) const {
  const PixelPoint p = lens ? lens->straightened(seen) : seen;
  return square ? square->flattened(p) : p;
}

TankFrame::TankFrame(const Parts& parts)
    : scale_(parts.scale), along_(unit(parts.along)), up_(unit(parts.up)) {}

TankPoint TankFrame::toTank(PixelPoint p) const {
  const double size = scale_ ? scale_->mmPerPixel() : 1.0;
  return {dot(p, along_) * size, dot(p, up_) * size};
}

TankPoint TankFrame::shiftToTank(PixelPoint shift, double mmPerPixel) const {
  return {dot(shift, along_) * mmPerPixel, dot(shift, up_) * mmPerPixel};
}

PixelPoint upFromPlumb(const std::optional<PixelLine>& plumb) {
  if (!plumb) return {0.0, -1.0};
  const PixelPoint v = plumb->to - plumb->from;
  return v.y_px > 0.0 ? v * -1.0 : v;
}

}  // namespace fin
