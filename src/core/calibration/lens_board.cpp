// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/lens_board.h"
#include "core/units/estimate.h"

#include <fmt/format.h>
#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <opencv2/calib3d.hpp>
#include <opencv2/imgproc.hpp>
#include <set>

namespace fin {
namespace {

constexpr std::size_t kFramesLookedAt = 120;
constexpr std::size_t kViewsUsed = 24;
constexpr int kGlimpseWidth_px = 480;
constexpr double kWorseThanRest = 2.5;  ///< a view whose residual is so many times the median is left out

std::vector<cv::Point2f> asFloats(const std::vector<PixelPoint>& points) {
  std::vector<cv::Point2f> out;
  for (const PixelPoint p : points) out.emplace_back(static_cast<float>(p.x_px), static_cast<float>(p.y_px));
  return out;
}

std::vector<cv::Point3f> cornersOf(const LensBoard& board) {
  std::vector<cv::Point3f> out;
  const auto field = static_cast<float>(board.field.value());
  for (int r = 0; r < board.rows; ++r) {
    for (int c = 0; c < board.columns; ++c)
      out.emplace_back(field * static_cast<float>(c), field * static_cast<float>(r), 0.0F);
  }
  return out;
}

/// Place, size and tilt of a board in the picture, each about 0 … 1.
using Look = std::array<double, 5>;

Look lookOf(const BoardView& view, int width_px, int height_px) {
  const PixelPoint first = view.corners.front();
  const PixelPoint last = view.corners.back();
  PixelPoint sum;
  for (const PixelPoint p : view.corners) sum = sum + p;
  const PixelPoint middle = sum * (1.0 / static_cast<double>(view.corners.size()));
  // Where the two diagonals' halves differ in length the board is tilted.
  const double half = length(middle - first).value();
  const double other = length(last - middle).value();
  const PixelPoint along = last - first;
  return {middle.x_px / width_px, middle.y_px / height_px, length(along).value() / width_px,
          2.0 * std::log(half / other), std::atan2(along.y_px, along.x_px)};
}

double apart(const Look& a, const Look& b) {
  double sum = 0.0;
  for (std::size_t i = 0; i < a.size(); ++i) sum += std::pow(a[i] - b[i], 2);
  return sum;
}

struct Solved {
  Lens lens;
  double rms = 0.0;
  double focalU95 = 0.0;
  std::vector<double> perView;
  std::vector<cv::Mat> turns;
  std::vector<cv::Mat> shifts;
};

Solved solve(const std::vector<BoardView>& views, const LensBoard& board, int width_px, int height_px) {
  std::vector<std::vector<cv::Point2f>> seen;
  for (const BoardView& v : views) seen.push_back(asFloats(v.corners));
  const std::vector<std::vector<cv::Point3f>> plane(views.size(), cornersOf(board));
  cv::Mat camera = cv::Mat::eye(3, 3, CV_64F);
  cv::Mat bend;
  cv::Mat spreads;
  cv::Mat poseSpreads;
  cv::Mat perView;
  Solved out;
  // The sixth-power term only fits noise unless the view is very wide.
  out.rms = cv::calibrateCamera(plane, seen, cv::Size(width_px, height_px), camera, bend, out.turns,
                                out.shifts, spreads, poseSpreads, perView, cv::CALIB_FIX_K3);
  out.lens = {
      camera.at<double>(0, 0), camera.at<double>(1, 1), camera.at<double>(0, 2), camera.at<double>(1, 2), {}};
  for (std::size_t i = 0; i < out.lens.k.size(); ++i) out.lens.k[i] = bend.at<double>(static_cast<int>(i));
  out.focalU95 =
      kNormal95 * std::max(spreads.at<double>(0) / out.lens.fx, spreads.at<double>(1) / out.lens.fy);
  for (int i = 0; i < perView.rows; ++i) out.perView.push_back(perView.at<double>(i));
  return out;
}

std::vector<BoardView> withoutPoor(const std::vector<BoardView>& views, const std::vector<double>& perView) {
  std::vector<double> sorted = perView;
  std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2),
                   sorted.end());
  const double limit = kWorseThanRest * sorted[sorted.size() / 2];
  std::vector<BoardView> out;
  for (std::size_t i = 0; i < views.size(); ++i) {
    if (perView[i] <= limit) out.push_back(views[i]);
  }
  return out;
}

double coveredBy(const std::vector<BoardView>& views, int width_px, int height_px) {
  constexpr int kAcross = 8;
  constexpr int kDown = 5;
  std::set<std::pair<int, int>> cells;
  for (const BoardView& v : views) {
    for (const PixelPoint p : v.corners)
      cells.insert(
          {static_cast<int>(p.x_px * kAcross / width_px), static_cast<int>(p.y_px * kDown / height_px)});
  }
  return static_cast<double>(cells.size()) / (kAcross * kDown);
}

std::vector<LensFit::Residual> residualsOf(const std::vector<BoardView>& views, const LensBoard& board,
                                           const Solved& solved) {
  const Lens& l = solved.lens;
  const cv::Mat camera = (cv::Mat_<double>(3, 3) << l.fx, 0, l.cx, 0, l.fy, l.cy, 0, 0, 1);
  const cv::Mat bend(1, static_cast<int>(l.k.size()), CV_64F, const_cast<double*>(l.k.data()));
  std::vector<LensFit::Residual> out;
  for (std::size_t i = 0; i < views.size(); ++i) {
    std::vector<cv::Point2f> put;
    cv::projectPoints(cornersOf(board), solved.turns[i], solved.shifts[i], camera, bend, put);
    for (std::size_t j = 0; j < put.size(); ++j) {
      const PixelPoint at = views[i].corners[j];
      out.push_back({at, at - PixelPoint{put[j].x, put[j].y}});
    }
  }
  return out;
}

tl::unexpected<Error> poor(const std::string& why) {
  return failure(ErrorCode::Unsupported, why, "lens");
}

Result<void> judge(const LensFit& fit) {
  if (fit.covered < kLeastCovered) {
    return poor(fmt::format("the board was seen in {:.0f} % of the picture only; carry it into all corners",
                            100.0 * fit.covered));
  }
  if (fit.rms > kMostLensRms) {
    return poor(
        fmt::format("the corners miss the lens by {:.2f} px; hold the board flat and stiff, and move it "
                    "slowly so that nothing blurs",
                    fit.rms.value()));
  }
  if (!(fit.focalRelativeU95 <= kMostFocalU95)) {
    return poor(
        "the board was hardly tilted, so that near and far cannot be told apart; tilt it by a third "
        "of a right angle in several directions");
  }
  return {};
}

tl::unexpected<Error> stopped() {
  return failure(ErrorCode::Cancelled, "looking for the board was stopped");
}

std::optional<BoardView> boardIn(const cv::Mat& grey, const LensBoard& board, std::size_t frame, int how) {
  std::vector<cv::Point2f> corners;
  if (!cv::findChessboardCornersSB(grey, cv::Size(board.columns, board.rows), corners, how))
    return std::nullopt;
  BoardView out{frame, {}};
  for (const cv::Point2f& c : corners) out.corners.push_back({c.x, c.y});
  return out;
}

/// Quickly, in a small picture: whether the board is there, and roughly where.
std::optional<BoardView> glimpseBoard(const Picture& picture, const LensBoard& board, std::size_t frame) {
  const double shrink = std::min(1.0, static_cast<double>(kGlimpseWidth_px) / picture.width());
  cv::Mat small;
  cv::resize(picture.grey(), small, {}, shrink, shrink, cv::INTER_AREA);
  auto view = boardIn(small, board, frame, 0);
  if (view) {
    for (PixelPoint& p : view->corners) p = p * (1.0 / shrink);
  }
  return view;
}

}  // namespace

std::optional<BoardView> findBoard(const Picture& picture, const LensBoard& board, std::size_t frame) {
  return boardIn(picture.grey(), board, frame, cv::CALIB_CB_ACCURACY);
}

std::vector<BoardView> variedViews(const std::vector<BoardView>& views, std::size_t most, int width_px,
                                   int height_px) {
  std::vector<BoardView> out;
  if (views.empty()) return out;
  std::vector<Look> looks;
  for (const BoardView& v : views) looks.push_back(lookOf(v, width_px, height_px));
  std::vector<double> nearest(views.size(), std::numeric_limits<double>::max());
  std::size_t next = 0;
  while (out.size() < std::min(most, views.size())) {
    out.push_back(views[next]);
    for (std::size_t i = 0; i < views.size(); ++i)
      nearest[i] = std::min(nearest[i], apart(looks[i], looks[next]));
    next = static_cast<std::size_t>(std::max_element(nearest.begin(), nearest.end()) - nearest.begin());
  }
  return out;
}

Result<LensFit> solveLens(const std::vector<BoardView>& views, const LensBoard& board, int width_px,
                          int height_px) {
  std::vector<BoardView> used = variedViews(views, kViewsUsed, width_px, height_px);
  if (used.size() < kFewestBoardViews) {
    return poor(
        fmt::format("the board of {} × {} inner corners was seen whole in {} frames; {} different ones "
                    "are needed, all of it in the picture, slowly, in all corners and tilted",
                    board.columns, board.rows, used.size(), kFewestBoardViews));
  }
  try {
    Solved solved = solve(used, board, width_px, height_px);
    const std::vector<BoardView> good = withoutPoor(used, solved.perView);
    if (good.size() < used.size() && good.size() >= kFewestBoardViews) {
      used = good;
      solved = solve(used, board, width_px, height_px);
    }
    LensFit fit;
    fit.lens = solved.lens;
    fit.rms = Pixels(solved.rms);
    fit.focalRelativeU95 = solved.focalU95;
    fit.covered = coveredBy(used, width_px, height_px);
    for (const BoardView& v : used) fit.frames.push_back(v.frame);
    fit.residuals = residualsOf(used, board, solved);
    fit.width_px = width_px;
    fit.height_px = height_px;
    if (auto ok = judge(fit); !ok) return tl::unexpected(ok.error());
    return fit;
  } catch (const cv::Exception&) {
    return poor("no lens fits these views of the board; film it again, whole, still and tilted");
  }
}

Result<LensFit> lensFromClip(FrameSource& source, const LensBoard& board, const JobControl& job) {
  const std::size_t frames = source.frameCount();
  const std::size_t step = std::max<std::size_t>(1, frames / kFramesLookedAt);
  constexpr double kGlimpsing = 0.6;  // of the whole work
  std::vector<BoardView> glimpsed;
  int width_px = 0;
  int height_px = 0;
  for (std::size_t n = 0; n < frames; n += step) {
    if (job.cancelled()) return stopped();
    const auto picture = source.frame(n);
    if (!picture && picture.error().code == ErrorCode::Damaged) continue;
    if (!picture) return tl::unexpected(picture.error());
    width_px = picture->width();
    height_px = picture->height();
    if (auto view = glimpseBoard(*picture, board, n)) glimpsed.push_back(std::move(*view));
    job.report(kGlimpsing * static_cast<double>(n) / static_cast<double>(frames));
  }
  const std::vector<BoardView> chosen = variedViews(glimpsed, kViewsUsed, width_px, height_px);
  std::vector<BoardView> views;
  for (std::size_t i = 0; i < chosen.size(); ++i) {
    if (job.cancelled()) return stopped();
    const auto picture = source.frame(chosen[i].frame);
    if (!picture) return tl::unexpected(picture.error());
    if (auto view = findBoard(*picture, board, chosen[i].frame)) views.push_back(std::move(*view));
    job.report(kGlimpsing + (1.0 - kGlimpsing) * static_cast<double>(i) / static_cast<double>(chosen.size()));
  }
  return solveLens(views, board, width_px, height_px);
}

}  // namespace fin
