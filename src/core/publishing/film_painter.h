// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/publishing: how a film's pictures are laid out and drawn.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/footage/picture.h"
#include "core/publishing/canvas.h"
#include "core/publishing/film_plan.h"

namespace fin::publishing {

/// Where one pass is drawn.
struct FilmCell {
  Box picture;
  Box caption;
  Box trace;     ///< empty where no pass has one
  Box readings;  ///< beside the picture; empty but for a single pass that has any
};
struct FilmLayout {
  Box title;
  Box counter;
  Box foot;
  std::vector<FilmCell> cells;
  double unit = 1.0;  ///< a pixel at 1920 × 1080
};
/// As many columns as make the pictures largest.
FilmLayout layOut(const FilmScript& script);

/// What of a frame a cell shows: the middle in the frame's pixels, and how many of the film's a frame's pixel
/// is wide.
struct FilmSight {
  PixelPoint middle;
  double zoom = 1.0;
};

/// Draws one film's pictures. Pass pictures are only drawn again where their frame is another one.
class FilmPainter {
 public:
  /// All must outlive it. `rates_Hz`: at how many frames a true second each was filmed.
  FilmPainter(const FilmScript& script, const FilmPlan& plan, std::vector<cv::Size> sizes,
              std::vector<double> rates_Hz);

  /// A frame of a pass, from now on. May be called for several passes at once.
  void show(std::size_t pass, const Picture& frame, std::size_t number);
  /// The picture of the film as it now stands; valid until the next call. `heard` is the pass whose sound
  /// runs.
  const cv::Mat& picture(std::size_t number, std::optional<std::size_t> heard);
  const cv::Mat& titleCard();
  const cv::Mat& endCard(const std::vector<std::string>& lines);
  /// What is heard, written at the foot.
  void setSoundWords(std::string words) { soundWords_ = std::move(words); }

 private:
  void drawStill();
  void drawTrace(const FilmCell& cell, const FilmPass& pass);
  void drawReadings(const FilmCell& cell, const FilmPass& pass, double own_s);
  void drawHead(double film_s);
  void drawHeld(const Box& picture, const std::string& words);
  void drawPass(std::size_t i, std::size_t number, bool heard);
  void turnOver();
  void drawScaleBar(const Box& box, const FilmPass& pass, double zoom);
  [[nodiscard]] FilmSight sightOf(std::size_t pass, std::size_t frame) const;
  [[nodiscard]] double traceX(const Box& axes, double film_s) const;

  const FilmScript& script_;
  const FilmPlan& plan_;
  std::vector<cv::Size> sizes_;
  std::vector<double> rates_Hz_;
  FilmLayout layout_;
  std::vector<std::vector<FilmLure>> smooth_;  ///< by pass, so that the picture does not shake with the lure
  double oneSize_ = 1.0;                       ///< the film's pixels in a millimetre, with FilmView::OneSize
  Canvas still_;                               ///< what does not change
  Canvas canvas_;
  Canvas other_;
  std::string soundWords_;
};

}  // namespace fin::publishing
