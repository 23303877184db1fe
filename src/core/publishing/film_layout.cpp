// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>

#include "core/publishing/film_painter.h"

namespace fin::publishing {
namespace {

constexpr double kTop = 96.0;
constexpr double kFoot = 44.0;
constexpr double kEdge = 24.0;
constexpr double kCaption = 52.0;
constexpr double kTrace = 130.0;
constexpr double kShape = 4.0 / 3.0;  ///< of a picture that shows a lure well
constexpr double kReadingsShare = 0.3;

/// The largest picture of that shape in a box.
double roomIn(double w, double h) {
  if (w <= 0.0 || h <= 0.0) return 0.0;
  const double width = std::min(w, h * kShape);
  return width * width / kShape;
}

int columnsFor(int count, const Box& room, double below) {
  int best = 1;
  double most = -1.0;
  for (int columns = 1; columns <= count; ++columns) {
    const int rows = (count + columns - 1) / columns;
    const double area = roomIn(room.w / columns, room.h / rows - below);
    if (area > most) {
      most = area;
      best = columns;
    }
  }
  return best;
}

FilmCell cellIn(const Box& box, double unit, bool traced, bool read) {
  FilmCell out;
  Box left = box;
  if (read) {
    const double width = kReadingsShare * box.w;
    out.readings = {box.right() - width, box.y, width, box.h};
    left.w -= width + kEdge * unit;
  }
  const double trace = traced ? kTrace * unit : 0.0;
  out.picture = {left.x, left.y, left.w, left.h - kCaption * unit - trace};
  out.caption = {left.x, out.picture.bottom(), left.w, kCaption * unit};
  if (traced) out.trace = {left.x, out.caption.bottom(), left.w, trace};
  return out;
}

}  // namespace

FilmLayout layOut(const FilmScript& script) {
  FilmLayout out;
  const double w = script.width_px, h = script.height_px;
  const auto count = static_cast<int>(script.passes.size());
  if (script.bare) {
    const int columns = columnsFor(count, {0, 0, w, h}, 0.0);
    const int rows = (count + columns - 1) / columns;
    for (int i = 0; i < count; ++i)
      out.cells.push_back({{std::floor(w * (i % columns) / columns), std::floor(h * (i / columns) / rows),
                            std::floor(w / columns), std::floor(h / rows)},
                           {},
                           {},
                           {}});
    return out;
  }
  out.unit = std::min(std::max(w, h) / 1920.0, std::min(w, h) / 1080.0);
  const double u = out.unit, edge = kEdge * u;
  const bool narrow = w < h;
  out.counter = {w - edge - (narrow ? 0.55 : 0.36) * w, 0.0, (narrow ? 0.55 : 0.36) * w, kTop * u};
  out.title = {edge, 0.0, out.counter.x - 2 * edge, kTop * u};
  out.foot = {edge, h - kFoot * u, w - 2 * edge, kFoot * u};
  const Box room{edge, kTop * u, w - 2 * edge, h - (kTop + kFoot) * u};
  const bool traced = std::any_of(script.passes.begin(), script.passes.end(),
                                  [](const FilmPass& p) { return p.trace.has_value(); });
  const bool read = count == 1 && !script.passes.front().readings.empty();
  const int columns = columnsFor(count, room, (kCaption + (traced ? kTrace : 0.0)) * u);
  const int rows = (count + columns - 1) / columns;
  const double cellW = (room.w - (columns - 1) * edge) / columns;
  const double cellH = room.h / rows;
  for (int i = 0; i < count; ++i) {
    const Box box{std::floor(room.x + (i % columns) * (cellW + edge)),
                  std::floor(room.y + (i / columns) * cellH), std::floor(cellW), std::floor(cellH)};
    out.cells.push_back(cellIn(box, u, traced, read));
  }
  return out;
}

}  // namespace fin::publishing
