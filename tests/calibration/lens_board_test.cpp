// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/lens_board.h"

#include <gtest/gtest.h>

#include <cmath>
#include <cstdio>
#include <functional>

#include "core/rehearsal/board_film.h"

namespace fin {
namespace {

BoardScene smallBoard() {
  BoardScene scene;
  scene.width_px = 640;
  scene.height_px = 360;
  scene.lens = {470.0, 470.0, 322.0, 177.0, {-0.22, 0.06, 0.0, 0.0, 0.0}};
  scene.frames = 40;
  return scene;
}

/// Views from the truth, shaken by nothing: for the judgement of views.
std::vector<BoardView> trueViews(const BoardScene& scene) {
  const BoardFilm film(scene);
  std::vector<BoardView> out;
  for (std::size_t n = 0; n < scene.frames; ++n) out.push_back({n, film.cornersAt(n)});
  return out;
}

TEST(LensBoard, FindsTheCornersWithinASixthOfAPixel) {
  BoardFilm film(smallBoard());
  std::size_t found = 0;
  for (std::size_t n = 0; n < film.frameCount(); n += 5) {
    const auto view = findBoard(*film.frame(n), smallBoard().board, n);
    if (!view) continue;
    ++found;
    const auto truth = film.cornersAt(n);
    // The same corners, from one end or the other.
    const bool turned = length(view->corners.front() - truth.front()).value() > 5.0;
    double sum = 0.0;
    for (std::size_t i = 0; i < truth.size(); ++i) {
      const PixelPoint t = turned ? truth[truth.size() - 1 - i] : truth[i];
      sum += std::pow(length(view->corners[i] - t).value(), 2);
    }
    EXPECT_LT(std::sqrt(sum / static_cast<double>(truth.size())), 1.0 / 6.0) << n;
  }
  EXPECT_GE(found, 5U);
}

TEST(LensBoard, RecoversTheLensThatTheRehearsalWasFilmedThrough) {
  const BoardScene scene = smallBoard();
  BoardFilm film(scene);
  const auto fit = lensFromClip(film, scene.board);
  ASSERT_TRUE(fit) << fit.error().message;
  std::printf("focal length %.2f px (true %.2f), k1 %.4f (true %.4f), residual %.3f px\n", fit->lens.fx,
              scene.lens.fx, fit->lens.k[0], scene.lens.k[0], fit->rms.value());
  EXPECT_LT(fit->rms.value(), 0.15);
  EXPECT_NEAR(fit->lens.fx, scene.lens.fx, 0.01 * scene.lens.fx);
  // What matters: how far a point of the picture's corner is moved.
  for (const PixelPoint p : {PixelPoint{30.0, 30.0}, {610.0, 40.0}, {320.0, 330.0}, {100.0, 180.0}}) {
    const auto shift = [p](const Lens& lens) { return lens.straightened(p) - p; };
    EXPECT_LT(length(shift(fit->lens) - shift(scene.lens)).value(), 1.2) << p.x_px;
  }
  EXPECT_EQ(fit->residuals.size(), fit->frames.size() * 54);
}

TEST(LensBoard, ChoosesViewsThatDiffer) {
  const BoardScene scene = smallBoard();
  std::vector<BoardView> views = trueViews(scene);
  // Many copies of one view add nothing.
  std::vector<BoardView> held(30, views[3]);
  held.insert(held.end(), views.begin(), views.begin() + 9);
  const auto chosen = variedViews(held, 9, scene.width_px, scene.height_px);
  const auto copies =
      std::count_if(chosen.begin(), chosen.end(), [&](const BoardView& v) { return v.frame == 3; });
  EXPECT_LE(copies, 1);
}

struct PoorFilm {
  const char* name;
  BoardScene scene;
  const char* why;
};

BoardScene changed(const std::function<void(BoardScene&)>& change) {
  BoardScene scene = smallBoard();
  change(scene);
  return scene;
}

TEST(LensBoard, RefusesPoorViewsAndSaysWhatToFilmInstead) {
  const PoorFilm films[] = {
      {"few", changed([](BoardScene& s) { s.frames = 5; }), "seen whole in 5 frames"},
      {"middle only", changed([](BoardScene& s) { s.reach = 0.0; }), "into all corners"},
  };
  for (const PoorFilm& f : films) {
    const auto fit = solveLens(trueViews(f.scene), f.scene.board, f.scene.width_px, f.scene.height_px);
    ASSERT_FALSE(fit) << f.name;
    EXPECT_EQ(fit.error().code, ErrorCode::Unsupported);
    EXPECT_NE(fit.error().message.find(f.why), std::string::npos) << fit.error().message;
  }
}

TEST(LensBoard, RefusesABoardThatBends) {
  const BoardScene scene = smallBoard();
  std::vector<BoardView> views = trueViews(scene);
  for (BoardView& v : views) {
    for (std::size_t i = 0; i < v.corners.size(); ++i) {
      v.corners[i].y_px += 4.0 * std::sin(0.7 * static_cast<double>(i % 9) + static_cast<double>(v.frame));
    }
  }
  const auto fit = solveLens(views, scene.board, scene.width_px, scene.height_px);
  ASSERT_FALSE(fit);
  EXPECT_NE(fit.error().message.find("flat and stiff"), std::string::npos) << fit.error().message;
}

TEST(LensBoard, RefusesAClipWithoutABoard) {
  BoardScene scene = smallBoard();
  scene.frames = 12;
  BoardFilm film(scene);
  const auto fit = lensFromClip(film, {.columns = 7, .rows = 4, .field = Millimetres(25.0)});
  ASSERT_FALSE(fit);
  EXPECT_NE(fit.error().message.find("7 × 4"), std::string::npos);
}

}  // namespace
}  // namespace fin
