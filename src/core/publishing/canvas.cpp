// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/publishing/canvas.h"

#include <pango/pangocairo.h>

#include <numbers>

namespace fin::publishing {
namespace {

constexpr const char* kFonts = "Inter, DejaVu Sans, sans-serif";

struct FreeFont {
  void operator()(PangoFontDescription* f) const { pango_font_description_free(f); }
};
struct FreeAttributes {
  void operator()(PangoAttrList* a) const { pango_attr_list_unref(a); }
};

}  // namespace

struct Canvas::Drawn {
  struct FreeSurface {
    void operator()(cairo_surface_t* s) const { cairo_surface_destroy(s); }
  };
  struct FreePen {
    void operator()(cairo_t* c) const { cairo_destroy(c); }
  };
  struct Unref {
    void operator()(PangoLayout* layout) const { g_object_unref(layout); }
  };
  std::unique_ptr<cairo_surface_t, FreeSurface> surface;
  std::unique_ptr<cairo_t, FreePen> pen;
  std::unique_ptr<PangoLayout, Unref> layout;

  void colour(Colour c) const { cairo_set_source_rgba(pen.get(), c.r, c.g, c.b, c.a); }
};

Canvas::Canvas(int width_px, int height_px)
    : pixels_(height_px, width_px, CV_8UC4, cv::Scalar::all(255)), drawn_(std::make_unique<Drawn>()) {
  drawn_->surface.reset(cairo_image_surface_create_for_data(pixels_.data, CAIRO_FORMAT_RGB24, width_px,
                                                            height_px, static_cast<int>(pixels_.step)));
  drawn_->pen.reset(cairo_create(drawn_->surface.get()));
  drawn_->layout.reset(pango_cairo_create_layout(drawn_->pen.get()));
}
Canvas::~Canvas() = default;
Canvas::Canvas(Canvas&&) noexcept = default;
Canvas& Canvas::operator=(Canvas&&) noexcept = default;

void Canvas::fill(const Box& box, Colour colour, double round_px) {
  cairo_surface_mark_dirty(drawn_->surface.get());
  cairo_t* pen = drawn_->pen.get();
  drawn_->colour(colour);
  if (round_px <= 0.0) {
    cairo_rectangle(pen, box.x, box.y, box.w, box.h);
  } else {
    constexpr double kQuarter = std::numbers::pi / 2.0;
    cairo_new_sub_path(pen);
    cairo_arc(pen, box.right() - round_px, box.y + round_px, round_px, -kQuarter, 0.0);
    cairo_arc(pen, box.right() - round_px, box.bottom() - round_px, round_px, 0.0, kQuarter);
    cairo_arc(pen, box.x + round_px, box.bottom() - round_px, round_px, kQuarter, 2 * kQuarter);
    cairo_arc(pen, box.x + round_px, box.y + round_px, round_px, 2 * kQuarter, 3 * kQuarter);
    cairo_close_path(pen);
  }
  cairo_fill(pen);
  cairo_surface_flush(drawn_->surface.get());
}

void Canvas::line(const std::vector<std::pair<double, double>>& points, Colour colour, double width_px) {
  if (points.size() < 2) return;
  cairo_surface_mark_dirty(drawn_->surface.get());
  cairo_t* pen = drawn_->pen.get();
  drawn_->colour(colour);
  cairo_set_line_width(pen, width_px);
  cairo_set_line_join(pen, CAIRO_LINE_JOIN_ROUND);
  cairo_move_to(pen, points.front().first, points.front().second);
  for (const auto& [x, y] : points) cairo_line_to(pen, x, y);
  cairo_stroke(pen);
  cairo_surface_flush(drawn_->surface.get());
}

double Canvas::text(const Box& box, const std::string& text, const Letters& letters) {
  if (text.empty() || box.w <= 0.0 || box.h <= 0.0) return 0.0;
  cairo_surface_mark_dirty(drawn_->surface.get());
  PangoLayout* layout = drawn_->layout.get();
  const std::unique_ptr<PangoFontDescription, FreeFont> font(pango_font_description_from_string(kFonts));
  pango_font_description_set_weight(font.get(), letters.bold ? PANGO_WEIGHT_SEMIBOLD : PANGO_WEIGHT_NORMAL);
  pango_font_description_set_absolute_size(font.get(), letters.size_px * PANGO_SCALE);
  pango_layout_set_font_description(layout, font.get());
  const std::unique_ptr<PangoAttrList, FreeAttributes> attributes(pango_attr_list_new());
  if (letters.evenFigures) pango_attr_list_insert(attributes.get(), pango_attr_font_features_new("tnum=1"));
  pango_layout_set_attributes(layout, attributes.get());
  pango_layout_set_width(layout, static_cast<int>(box.w * PANGO_SCALE));
  // A negative height counts lines.
  pango_layout_set_height(layout, letters.wraps ? static_cast<int>(box.h * PANGO_SCALE) : -1);
  pango_layout_set_wrap(layout, PANGO_WRAP_WORD_CHAR);
  pango_layout_set_ellipsize(layout, PANGO_ELLIPSIZE_END);
  pango_layout_set_alignment(layout, letters.lie == Lie::Left     ? PANGO_ALIGN_LEFT
                                     : letters.lie == Lie::Middle ? PANGO_ALIGN_CENTER
                                                                  : PANGO_ALIGN_RIGHT);
  pango_layout_set_text(layout, text.c_str(), static_cast<int>(text.size()));
  int height = 0;
  pango_layout_get_pixel_size(layout, nullptr, &height);
  drawn_->colour(letters.colour);
  cairo_move_to(drawn_->pen.get(), box.x, letters.wraps ? box.y : box.y + (box.h - height) / 2.0);
  pango_cairo_show_layout(drawn_->pen.get(), layout);
  cairo_surface_flush(drawn_->surface.get());
  return height;
}

void Canvas::clipTo(const Box& box) {
  cairo_save(drawn_->pen.get());
  cairo_rectangle(drawn_->pen.get(), box.x, box.y, box.w, box.h);
  cairo_clip(drawn_->pen.get());
}
void Canvas::unclip() {
  cairo_restore(drawn_->pen.get());
}

}  // namespace fin::publishing
