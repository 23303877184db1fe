// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <filesystem>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/units/points.h"
#include "core/units/quantity.h"
#include "core/units/result.h"

namespace fin {

/// What is seen of each clip: all of it; the lure, each as large as another; the lure, a millimetre as long
/// in every picture.
enum class FilmView { Whole, Near, OneSize };
/// Heard at true speed only: nothing; as recorded; each pass made as loud as the others in its still water.
enum class FilmSound { None, Recorded, Matched };

/// Where the lure is in the picture.
struct FilmLure {
  std::size_t frame = 0;
  PixelPoint at;

  friend bool operator==(const FilmLure&, const FilmLure&) = default;
};

/// What is drawn under a picture, against the clip's own true time.
struct FilmTrace {
  std::string says;  ///< with its unit: "Angle, °"
  std::vector<double> t_s;
  std::vector<double> y;   ///< as they are shown
  bool downwards = false;  ///< larger values lie lower, as depths do

  friend bool operator==(const FilmTrace&, const FilmTrace&) = default;
};

/// A reading as it stands from a time on, until one with the same name follows.
struct FilmWords {
  double from_s = 0.0;  ///< on the clip's own true time
  std::string name;
  std::string value;

  friend bool operator==(const FilmWords&, const FilmWords&) = default;
};

/// One clip among those in step. Times are true ones, from the clip's first frame.
struct FilmPass {
  std::optional<std::filesystem::path>
      passFile;  ///< to be measured for what is not said here (filmed_pass.h)
  std::filesystem::path clip;
  std::optional<Hertz> captureRate;  ///< the clip's own time stamps are true where absent
  bool byField = false;
  std::optional<double> instant_s;  ///< laid on that of the others; its beginning where absent
  std::optional<double> from_s;
  std::optional<double> to_s;
  std::string caption;
  std::string note;            ///< "shown, not graded"
  std::vector<FilmLure> lure;  ///< rising; none: the whole picture is shown
  std::optional<double> length_px;
  std::optional<double> mmPerPixel;
  std::optional<double> quietFrom_s;
  std::optional<double> quietTo_s;
  std::optional<FilmTrace> trace;
  std::vector<FilmWords> readings;

  [[nodiscard]] double instant() const { return instant_s.value_or(from_s.value_or(0.0)); }
  friend bool operator==(const FilmPass&, const FilmPass&) = default;
};

/// A film as it is asked for (`agile-fin-film/1`).
struct FilmScript {
  std::string title;             ///< no title card where empty
  std::vector<std::string> end;  ///< lines of the end card; none where empty
  std::vector<FilmPass> passes;
  double slowness = 10.0;  ///< 10: a tenth of the true speed
  double rate_Hz = 30.0;
  int width_px = 1920;
  int height_px = 1080;
  FilmView view = FilmView::Near;
  FilmSound sound = FilmSound::None;
  bool inches = false;  ///< on the scale bar
  bool bare = false;    ///< the picture alone: no captions, traces or counter

  friend bool operator==(const FilmScript&, const FilmScript&) = default;
};

constexpr std::size_t kMostFilmPasses = 6;
constexpr double kTitle_s = 3.0;
constexpr double kEndCard_s = 6.0;

std::string_view toString(FilmView view);
std::string_view toString(FilmSound sound);
std::optional<FilmView> filmViewNamed(std::string_view text);
std::optional<FilmSound> filmSoundNamed(std::string_view text);

/// What can be told wrong without its clips. BadRequest with the key's name.
Result<void> validate(const FilmScript& script);

}  // namespace fin
