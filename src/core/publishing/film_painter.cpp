// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/publishing/film_painter.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <map>
#include <opencv2/imgproc.hpp>

namespace fin::publishing {
namespace {

constexpr double kLureShare = 0.42;  ///< of the picture's width that a lure's length takes
constexpr double kNearer = 2.5;      ///< where its length is not known
constexpr double kMostZoom = 8.0;
constexpr double kSteady_s = 0.15;  ///< true time to either side over which the lure's place is averaged
constexpr double kTitleLetters = 36.0;
constexpr double kCounterLetters = 56.0;
constexpr double kCaptionLetters = 32.0;
constexpr double kSmallLetters = 22.0;
constexpr double kCaptionShare = 0.62;                  ///< of its line, where a note stands beside it
constexpr Colour kPlate{kMat.r, kMat.g, kMat.b, 0.62};  ///< under letters on footage
constexpr double kHole = 3.0;  ///< as many usual steps between two values are a hole in a trace

/// Means over a short time, so that a picture cut there does not shake with the lure.
std::vector<FilmLure> steadied(const std::vector<FilmLure>& lure, double rate_Hz) {
  const auto reach = static_cast<double>(std::max(1L, std::lround(kSteady_s * rate_Hz)));
  std::vector<FilmLure> out;
  out.reserve(lure.size());
  std::size_t from = 0, to = 0;
  PixelPoint sum;
  for (const FilmLure& at : lure) {
    while (to < lure.size() && static_cast<double>(lure[to].frame) <= static_cast<double>(at.frame) + reach)
      sum = sum + lure[to++].at;
    while (static_cast<double>(lure[from].frame) < static_cast<double>(at.frame) - reach)
      sum = sum - lure[from++].at;
    out.push_back({at.frame, sum * (1.0 / static_cast<double>(to - from))});
  }
  return out;
}

PixelPoint placeAt(const std::vector<FilmLure>& lure, std::size_t frame) {
  const auto after = std::lower_bound(lure.begin(), lure.end(), frame,
                                      [](const FilmLure& l, std::size_t f) { return l.frame < f; });
  if (after == lure.begin()) return after->at;
  if (after == lure.end()) return lure.back().at;
  const FilmLure& before = *(after - 1);
  const double share =
      static_cast<double>(frame - before.frame) / static_cast<double>(after->frame - before.frame);
  return before.at * (1.0 - share) + after->at * share;
}

/// Cuts what a cell shows out of a frame; beyond the frame's rim it stays as it is.
void cutInto(cv::Mat to, const cv::Mat& rgb, const FilmSight& sight) {
  const cv::Rect2d wanted(sight.middle.x_px - to.cols / (2.0 * sight.zoom),
                          sight.middle.y_px - to.rows / (2.0 * sight.zoom), to.cols / sight.zoom,
                          to.rows / sight.zoom);
  const cv::Rect from =
      cv::Rect(
          cv::Point(static_cast<int>(std::floor(wanted.x)), static_cast<int>(std::floor(wanted.y))),
          cv::Point(static_cast<int>(std::ceil(wanted.br().x)), static_cast<int>(std::ceil(wanted.br().y)))) &
      cv::Rect(0, 0, rgb.cols, rgb.rows);
  if (from.empty()) return;
  const auto shown = [&](double x, double origin) {
    return static_cast<int>(std::lround((x - origin) * sight.zoom));
  };
  const cv::Rect place(cv::Point(shown(from.x, wanted.x), shown(from.y, wanted.y)),
                       cv::Point(shown(from.br().x, wanted.x), shown(from.br().y, wanted.y)));
  const cv::Rect seen = place & cv::Rect(0, 0, to.cols, to.rows);
  if (seen.empty()) return;
  cv::Mat colours, part;
  cv::cvtColor(rgb(from), colours, cv::COLOR_RGB2BGRA);
  cv::resize(colours, part, place.size(), 0, 0, sight.zoom < 1.0 ? cv::INTER_AREA : cv::INTER_LINEAR);
  part(seen - place.tl()).copyTo(to(seen));
}

/// 1, 2 or 5 times a power of ten, not longer than that.
double roundLength(double most) {
  const double power = std::pow(10.0, std::floor(std::log10(most)));
  for (const double k : {5.0, 2.0}) {
    if (k * power <= most) return k * power;
  }
  return power;
}

/// What is seen of all traces that say the same, so that they can be compared.
std::pair<double, double> rangeOf(const FilmScript& script, const FilmPlan& plan, const std::string& says) {
  double least = std::numeric_limits<double>::max(), most = std::numeric_limits<double>::lowest();
  for (const FilmPass& pass : script.passes) {
    if (!pass.trace || pass.trace->says != says) continue;
    for (std::size_t i = 0; i < pass.trace->y.size(); ++i) {
      const double film_s = pass.trace->t_s[i] - pass.instant();
      if (film_s < plan.begins_s || film_s > plan.timeOf(plan.pictures)) continue;
      least = std::min(least, pass.trace->y[i]);
      most = std::max(most, pass.trace->y[i]);
    }
  }
  if (least > most) return {0.0, 1.0};
  if (most - least < 1e-9) return {least - 1.0, most + 1.0};
  return {least, most};
}

/// With as many decimals as a hundredth of the range has.
std::string rangeInWords(double least, double most) {
  const int decimals = std::clamp(2 - static_cast<int>(std::floor(std::log10(most - least))), 0, 4);
  const auto rounded = [decimals](double value) {
    std::string out = fmt::format("{:.{}f}", std::abs(value), decimals);
    const bool nothing = out.find_first_not_of("0.") == std::string::npos;
    return value < 0.0 && !nothing ? "−" + out : out;
  };
  return rounded(least) + " to " + rounded(most);
}

double usualStep(const std::vector<double>& t) {
  return t.size() < 2 ? 0.0 : (t.back() - t.front()) / static_cast<double>(t.size() - 1);
}

/// With a minus sign as long as its plus.
std::string counted(double time_s) {
  return (time_s < -0.0005 ? "−" : "") + fmt::format("{:.3f}", std::abs(time_s));
}

std::string slownessInWords(double slowness) {
  return slowness <= 1.0 ? "true speed" : fmt::format("1/{:g} of true speed", slowness);
}

}  // namespace

FilmPainter::FilmPainter(const FilmScript& script, const FilmPlan& plan, std::vector<cv::Size> sizes,
                         std::vector<double> rates_Hz)
    : script_(script),
      plan_(plan),
      sizes_(std::move(sizes)),
      rates_Hz_(std::move(rates_Hz)),
      layout_(layOut(script)),
      still_(script.width_px, script.height_px),
      canvas_(script.width_px, script.height_px),
      other_(script.width_px, script.height_px) {
  double least = std::numeric_limits<double>::max();
  for (std::size_t i = 0; i < script.passes.size(); ++i) {
    const FilmPass& pass = script.passes[i];
    smooth_.push_back(steadied(pass.lure, rates_Hz_[i]));
    if (!pass.mmPerPixel) continue;
    const double width = layout_.cells[i].picture.w;
    const double shown_px = pass.length_px ? *pass.length_px / kLureShare : sizes_[i].width / kNearer;
    least = std::min(least, width / (shown_px * *pass.mmPerPixel));
  }
  oneSize_ = least;
  drawStill();
  still_.pixels().copyTo(canvas_.pixels());
}

FilmSight FilmPainter::sightOf(std::size_t i, std::size_t frame) const {
  const FilmPass& pass = script_.passes[i];
  const Box& box = layout_.cells[i].picture;
  const double fit = std::min(box.w / sizes_[i].width, box.h / sizes_[i].height);
  FilmSight out{{sizes_[i].width / 2.0, sizes_[i].height / 2.0}, fit};
  if (script_.view == FilmView::Whole || smooth_[i].empty()) return out;
  out.middle = placeAt(smooth_[i], frame);
  if (script_.view == FilmView::OneSize) {
    out.zoom = oneSize_ * *pass.mmPerPixel;
    return out;
  }
  const double wanted = pass.length_px ? kLureShare * box.w / *pass.length_px : kNearer * fit;
  out.zoom = std::clamp(wanted, fit, kMostZoom * fit);
  // The picture's own rim is no help: the cut stays within it where it can.
  const double halfW = box.w / (2.0 * out.zoom), halfH = box.h / (2.0 * out.zoom);
  if (2 * halfW < sizes_[i].width)
    out.middle.x_px = std::clamp(out.middle.x_px, halfW, sizes_[i].width - halfW);
  if (2 * halfH < sizes_[i].height)
    out.middle.y_px = std::clamp(out.middle.y_px, halfH, sizes_[i].height - halfH);
  return out;
}

/// On the still picture, so that several passes may be shown at once: each has its own part of it.
void FilmPainter::show(std::size_t pass, const Picture& frame, std::size_t number) {
  cv::Mat to = still_.pixels()(layout_.cells[pass].picture.pixels());
  to.setTo(cv::Scalar(255 * kMat.b, 255 * kMat.g, 255 * kMat.r, 255));
  cutInto(to, frame.rgb(), sightOf(pass, number));
}

/// Time zero of the traces lies on the instant that all share.
double FilmPainter::traceX(const Box& axes, double film_s) const {
  const double length_s = static_cast<double>(plan_.pictures) * plan_.step_s;
  return axes.x + axes.w * std::clamp((film_s - plan_.begins_s) / length_s, 0.0, 1.0);
}

void FilmPainter::drawTrace(const FilmCell& cell, const FilmPass& pass) {
  const double u = layout_.unit;
  const Box axes = cell.trace.within(6.0 * u);
  still_.fill(axes, kCard, 6.0 * u);
  if (!pass.trace || pass.trace->y.empty()) {
    still_.text(axes.within(8.0 * u), "no trace was followed",
                {.size_px = kSmallLetters * u, .colour = kFaint});
    return;
  }
  const FilmTrace& trace = *pass.trace;
  const auto [least, most] = rangeOf(script_, plan_, trace.says);
  const double top = axes.y + 30.0 * u, bottom = axes.bottom() - 8.0 * u;
  const double hole_s = kHole * usualStep(trace.t_s);
  const double ends_s = plan_.timeOf(plan_.pictures);
  std::vector<std::pair<double, double>> line;
  const auto draw = [&] {
    still_.line(line, kInk, 2.2 * u);
    line.clear();
  };
  for (std::size_t i = 0; i < trace.y.size(); ++i) {
    const double film_s = trace.t_s[i] - pass.instant();
    if (film_s < plan_.begins_s || film_s > ends_s) continue;
    if (i > 0 && trace.t_s[i] - trace.t_s[i - 1] > hole_s) draw();
    const double share = (trace.y[i] - least) / (most - least);
    line.emplace_back(traceX(axes, film_s),
                      bottom - (bottom - top) * (trace.downwards ? 1.0 - share : share));
  }
  draw();
  const Box words{axes.x + 10.0 * u, axes.y + 2.0 * u, axes.w - 20.0 * u, 28.0 * u};
  still_.text(words, trace.says, {.size_px = kSmallLetters * u, .colour = kFaint});
  still_.text(words, rangeInWords(least, most),
              {.size_px = kSmallLetters * u, .colour = kFaint, .lie = Lie::Right, .evenFigures = true});
}

void FilmPainter::drawStill() {
  const double u = layout_.unit;
  still_.fill({0, 0, static_cast<double>(script_.width_px), static_cast<double>(script_.height_px)}, kPaper);
  for (const FilmCell& cell : layout_.cells) still_.fill(cell.picture, kMat);
  if (script_.bare) return;
  still_.text(layout_.title, script_.title, {.size_px = kTitleLetters * u, .bold = true});
  for (std::size_t i = 0; i < layout_.cells.size(); ++i) {
    const FilmCell& cell = layout_.cells[i];
    const FilmPass& pass = script_.passes[i];
    if (cell.trace.h > 0.0) drawTrace(cell, pass);
  }
}

void FilmPainter::drawScaleBar(const Box& box, const FilmPass& pass, double zoom) {
  if (!pass.mmPerPixel) return;
  const double u = layout_.unit;
  const double unit_mm = script_.inches ? 25.4 : 1.0;
  const double px = zoom / *pass.mmPerPixel * unit_mm;  // the film's pixels in a unit
  const double length = roundLength(0.3 * box.w / px);
  const double x = box.x + 18.0 * u, y = box.bottom() - 22.0 * u;
  canvas_.fill({x - 10.0 * u, y - 38.0 * u, length * px + 20.0 * u, 50.0 * u}, kPlate, 6.0 * u);
  canvas_.line({{x, y - 8.0 * u}, {x, y}, {x + length * px, y}, {x + length * px, y - 8.0 * u}}, kOnMat,
               3.0 * u);
  canvas_.text({x, y - 36.0 * u, std::max(length * px, 90.0 * u), 28.0 * u},
               fmt::format("{:g} {}", length, script_.inches ? "in" : "mm"),
               {.size_px = kSmallLetters * u, .colour = kOnMat});
}

void FilmPainter::drawReadings(const FilmCell& cell, const FilmPass& pass, double own_s) {
  const double u = layout_.unit;
  canvas_.fill(cell.readings, kCard, 10.0 * u);
  // The latest of each name, in the order in which the names first came.
  std::vector<const FilmWords*> now;
  for (const FilmWords& words : pass.readings) {
    if (words.from_s > own_s) continue;
    const auto same =
        std::find_if(now.begin(), now.end(), [&](const FilmWords* w) { return w->name == words.name; });
    if (same == now.end()) {
      now.push_back(&words);
    } else {
      *same = &words;
    }
  }
  const Box inner = cell.readings.within(22.0 * u);
  if (now.empty())
    canvas_.text(inner, "Readings come up as the footage bears them out.",
                 {.size_px = 26.0 * u, .colour = kFaint, .wraps = true});
  const double each = std::min(112.0 * u, now.empty() ? inner.h : inner.h / static_cast<double>(now.size()));
  double y = inner.y;
  for (const FilmWords* words : now) {
    canvas_.text({inner.x, y, inner.w, 0.36 * each}, words->name, {.size_px = 0.23 * each, .colour = kFaint});
    canvas_.text({inner.x, y + 0.36 * each, inner.w, 0.5 * each}, words->value,
                 {.size_px = 0.34 * each, .bold = true, .evenFigures = true});
    y += each;
  }
}

void FilmPainter::drawHead(double film_s) {
  const double u = layout_.unit;
  const Box& counter = layout_.counter;
  canvas_.text({counter.x, 0.0, counter.w, 0.66 * counter.h}, counted(film_s) + " s",
               {.size_px = kCounterLetters * u, .bold = true, .lie = Lie::Right, .evenFigures = true});
  canvas_.text({counter.x, 0.62 * counter.h, counter.w, 0.34 * counter.h},
               "true time, " + slownessInWords(script_.slowness),
               {.size_px = kSmallLetters * u, .colour = kFaint, .lie = Lie::Right});
  canvas_.text(layout_.foot, soundWords_, {.size_px = kSmallLetters * u, .colour = kFaint});
}

/// Where a pass holds its frame.
void FilmPainter::drawHeld(const Box& picture, const std::string& words) {
  const double u = layout_.unit, width = std::min(260.0 * u, picture.w);
  const Box plate{picture.x + (picture.w - width) / 2.0, picture.y + 14.0 * u, width, 46.0 * u};
  canvas_.fill(plate, kPlate, 8.0 * u);
  canvas_.text(plate, words, {.size_px = 28.0 * u, .colour = kOnMat, .lie = Lie::Middle});
}

void FilmPainter::drawPass(std::size_t i, std::size_t number, bool heard) {
  const double u = layout_.unit, film_s = plan_.timeOf(number);
  const FilmCell& cell = layout_.cells[i];
  const FilmPass& pass = script_.passes[i];
  const FilmedFrames& frames = plan_.passes[i];
  const double own_s = pass.instant() + film_s;
  drawScaleBar(cell.picture, pass, sightOf(i, frames.frames[number]).zoom);
  if (own_s < frames.from_s) drawHeld(cell.picture, "not begun yet");
  if (own_s >= frames.to_s) drawHeld(cell.picture, "ended");
  const Box& caption = cell.caption;
  std::string note = pass.note;
  if (heard) note = note.empty() ? "you hear this one" : "you hear this one; " + note;
  const double share = note.empty() ? 1.0 : kCaptionShare;
  canvas_.text({caption.x, caption.y, share * caption.w, caption.h}, pass.caption,
               {.size_px = kCaptionLetters * u, .colour = heard ? kAccent : kInk, .bold = true});
  canvas_.text({caption.x + (share + 0.02) * caption.w, caption.y, (0.98 - share) * caption.w, caption.h},
               note, {.size_px = kSmallLetters * u, .colour = kFaint, .lie = Lie::Right});
  if (cell.trace.h > 0.0) {
    const Box axes = cell.trace.within(6.0 * u);
    const double x = traceX(axes, film_s);
    canvas_.line({{x, axes.y}, {x, axes.bottom()}}, kAccent, 3.0 * u);
  }
  if (cell.readings.h > 0.0) drawReadings(cell, pass, own_s);
}

/// Another picture than the one that may still be read.
void FilmPainter::turnOver() {
  std::swap(canvas_, other_);
}

const cv::Mat& FilmPainter::picture(std::size_t number, std::optional<std::size_t> heard) {
  turnOver();
  still_.pixels().copyTo(canvas_.pixels());
  if (script_.bare) return canvas_.pixels();
  drawHead(plan_.timeOf(number));
  for (std::size_t i = 0; i < layout_.cells.size(); ++i) drawPass(i, number, heard == i);
  return canvas_.pixels();
}

const cv::Mat& FilmPainter::titleCard() {
  turnOver();
  const double u = layout_.unit, w = script_.width_px, h = script_.height_px;
  canvas_.fill({0, 0, w, h}, kPaper);
  canvas_.fill({0.1 * w, 0.3 * h, 10.0 * u, 0.4 * h}, kAccent);
  const double x = 0.1 * w + 44.0 * u;
  const double high = canvas_.text({x, 0.3 * h, 0.8 * w, 0.24 * h}, script_.title,
                                   {.size_px = 84.0 * u, .bold = true, .wraps = true});
  std::string rigs;
  for (const FilmPass& pass : script_.passes) rigs += (rigs.empty() ? "" : "  ·  ") + pass.caption;
  canvas_.text({x, 0.3 * h + high + 30.0 * u, 0.8 * w, 0.4 * h - high - 30.0 * u}, rigs,
               {.size_px = 38.0 * u, .colour = kFaint, .wraps = true});
  return canvas_.pixels();
}

const cv::Mat& FilmPainter::endCard(const std::vector<std::string>& lines) {
  turnOver();
  const double u = layout_.unit, w = script_.width_px, h = script_.height_px;
  canvas_.fill({0, 0, w, h}, kPaper);
  const Box inner{0.08 * w, 0.07 * h, 0.84 * w, 0.86 * h};
  double y = inner.y;
  y += canvas_.text({inner.x, y, inner.w, 90.0 * u}, "What to know",
                    {.size_px = 60.0 * u, .bold = true, .wraps = true});
  y += 28.0 * u;
  double letters = 34.0 * u;
  if (lines.size() > 9) letters *= 9.0 / static_cast<double>(lines.size());
  for (const std::string& line : lines) {
    if (y >= inner.bottom()) break;
    canvas_.fill({inner.x, y + 0.5 * letters, 0.35 * letters, 0.35 * letters}, kAccent);
    y += canvas_.text({inner.x + 1.0 * letters, y, inner.w - letters, inner.bottom() - y}, line,
                      {.size_px = letters, .wraps = true});
    y += 0.5 * letters;
  }
  return canvas_.pixels();
}

}  // namespace fin::publishing
