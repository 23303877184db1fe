// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/publishing: what films and cards are drawn on.
#pragma once

#include <memory>
#include <opencv2/core/mat.hpp>
#include <string>
#include <utility>
#include <vector>

namespace fin::publishing {

struct Colour {
  double r = 0.0, g = 0.0, b = 0.0, a = 1.0;
};
// Paper and ink as in the window.
constexpr Colour kPaper{0.965, 0.949, 0.918};
constexpr Colour kCard{0.996, 0.992, 0.980};
constexpr Colour kInk{0.118, 0.149, 0.173};
constexpr Colour kFaint{0.365, 0.392, 0.412};
constexpr Colour kAccent{0.706, 0.322, 0.118};
constexpr Colour kMat{0.165, 0.184, 0.200};
constexpr Colour kOnMat{0.95, 0.95, 0.94};
constexpr Colour kLine{0.80, 0.77, 0.72};

struct Box {
  double x = 0.0, y = 0.0, w = 0.0, h = 0.0;

  [[nodiscard]] double right() const { return x + w; }
  [[nodiscard]] double bottom() const { return y + h; }
  [[nodiscard]] Box within(double edge) const { return {x + edge, y + edge, w - 2 * edge, h - 2 * edge}; }
  [[nodiscard]] cv::Rect pixels() const {
    return {static_cast<int>(x), static_cast<int>(y), static_cast<int>(w), static_cast<int>(h)};
  }
};

enum class Lie { Left, Middle, Right };

struct Letters {
  double size_px = 30.0;
  Colour colour = kInk;
  bool bold = false;
  Lie lie = Lie::Left;
  bool wraps = false;  ///< over several lines from the box's top; else one line, in the middle of its height
  bool evenFigures = false;
};

/// A picture of BGRX pixels that is written and drawn on (cairo, pango). Text that does not fit its box ends
/// in an ellipsis; it is plain text, whatever stands in it. For one thread at a time.
class Canvas {
 public:
  Canvas(int width_px, int height_px);
  ~Canvas();
  Canvas(Canvas&&) noexcept;
  Canvas& operator=(Canvas&&) noexcept;

  [[nodiscard]] int width() const { return pixels_.cols; }
  [[nodiscard]] int height() const { return pixels_.rows; }
  /// CV_8UC4; what is drawn later goes over what is set here.
  [[nodiscard]] cv::Mat& pixels() { return pixels_; }
  void fill(const Box& box, Colour colour, double round_px = 0.0);
  void line(const std::vector<std::pair<double, double>>& points, Colour colour, double width_px);
  /// Returns how high the text is.
  double text(const Box& box, const std::string& text, const Letters& letters);
  void clipTo(const Box& box);
  void unclip();

 private:
  struct Drawn;
  cv::Mat pixels_;
  std::unique_ptr<Drawn> drawn_;
};

}  // namespace fin::publishing
