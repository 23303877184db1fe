// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

#include "core/calibration/lens.h"
#include "core/footage/frame_source.h"
#include "core/units/job_control.h"

namespace fin {

/// A chequered board: how many corners lie inside it, where four fields meet, and how wide a field is.
struct LensBoard {
  int columns = 9;
  int rows = 6;
  Millimetres field{25.0};

  friend bool operator==(const LensBoard&, const LensBoard&) = default;
};

/// The board in one frame: its inner corners, row after row.
struct BoardView {
  std::size_t frame = 0;
  std::vector<PixelPoint> corners;
};

/// None where the board is not seen whole.
std::optional<BoardView> findBoard(const Picture& picture, const LensBoard& board, std::size_t frame = 0);

/// A lens and how far it can be trusted.
struct LensFit {
  struct Residual {
    PixelPoint at;
    PixelPoint off;  ///< found corner minus where the lens puts it
  };
  Lens lens;
  Pixels rms{0.0};
  double focalRelativeU95 = 0.0;
  double covered = 0.0;  ///< share of the picture, in 8 × 5 cells, in which corners were seen
  std::vector<std::size_t> frames;
  std::vector<Residual> residuals;
  int width_px = 0;
  int height_px = 0;
};

/// Fewest views of the board, most root mean square, least share of the picture, and widest 95 % of the focal
/// length that a lens is taken with.
constexpr std::size_t kFewestBoardViews = 8;
constexpr Pixels kMostLensRms{1.0};
constexpr double kLeastCovered = 0.45;
constexpr double kMostFocalU95 = 0.02;

/// Views that differ in place, size and tilt, at most `most`: each next one lies farthest from those chosen.
std::vector<BoardView> variedViews(const std::vector<BoardView>& views, std::size_t most, int width_px,
                                   int height_px);

/// Radial–tangential lens from views of the board (Z. Zhang, A flexible new technique for camera calibration,
/// 2000), views that fit far worse than the rest left out. Unsupported, with what to film differently, where
/// the views are too few, the corners leave too much of the picture empty, the board was never tilted, or the
/// residual is more than kMostLensRms.
Result<LensFit> solveLens(const std::vector<BoardView>& views, const LensBoard& board, int width_px,
                          int height_px);

/// Looks for the board through a clip, chooses frames and solves. Errors as solveLens, and Cancelled.
Result<LensFit> lensFromClip(FrameSource& source, const LensBoard& board, const JobControl& job = {});

}  // namespace fin
