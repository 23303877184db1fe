// SPDX-License-Identifier: GPL-3.0-or-later

#include <opencv2/imgproc.hpp>

#include "core/tracking/finding/known_body.h"

namespace fin {
namespace {

constexpr int kPatch_px = 13;  ///< of a body that is laid out
constexpr int kSearchAlong_px = 11;
constexpr int kSearchAcross_px = 7;

LaidOutBody mirrored(const LaidOutBody& body) {
  LaidOutBody out = body;
  out.look = cv::Mat();
  out.mask = cv::Mat();
  cv::flip(body.look, out.look, 0);
  cv::flip(body.mask, out.mask, 0);
  return out;
}

cv::Rect patchAt(double column, double row, int wider, int higher) {
  return {cvRound(column) - kPatch_px / 2 - wider, cvRound(row) - kPatch_px / 2 - higher,
          kPatch_px + 2 * wider, kPatch_px + 2 * higher};
}

/// Where a patch of the one looks most alike in the other.
KnownPlace placeOn(const LaidOutBody& from, const LureLook::Mark& mark, const LaidOutBody& to, bool flipped) {
  const cv::Rect all(0, 0, LaidOutBody::kColumns, LaidOutBody::kRows);
  const double row = flipped ? LaidOutBody::kRows - 1.0 - mark.row : mark.row;
  const cv::Rect patch = patchAt(mark.column, row, 0, 0) & all;
  const cv::Rect reach = patchAt(mark.column, row, kSearchAlong_px, kSearchAcross_px) & all;
  KnownPlace out{mark.column, row, 0.0};
  if (patch.width < kPatch_px || patch.height < kPatch_px || reach.width < patch.width ||
      reach.height < patch.height)
    return out;
  cv::Mat likeness;
  cv::matchTemplate(to.look(reach), from.look(patch), likeness, cv::TM_CCOEFF_NORMED);
  cv::Point best;
  cv::minMaxLoc(likeness, nullptr, &out.likeness, nullptr, &best);
  out.column = mark.column + (reach.x + best.x - patch.x);
  out.row = row + (reach.y + best.y - patch.y);
  return out;
}

}  // namespace

KnownBody recognised(const LureLook& look, const LaidOutBody& body) {
  KnownBody best;
  for (const bool flipped : {false, true}) {
    const LaidOutBody known = flipped ? mirrored(look.body) : look.body;
    for (const bool round : {false, true}) {
      const LaidOutBody seen = round ? body.turnedRound() : body;
      const double alike = alikeness(known, seen);
      if (best.likeness && alike <= *best.likeness) continue;
      best = {seen, alike, {}};
      for (const LureLook::Mark& mark : look.marks)
        best.places.push_back(placeOn(known, mark, seen, flipped));
    }
  }
  return best;
}

}  // namespace fin
