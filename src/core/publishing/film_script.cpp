// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/publishing/film_script.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

#include "core/units/names.h"

namespace fin {
namespace {

constexpr std::array<std::string_view, 3> kFilmViews{"whole", "near", "one-size"};
constexpr std::array<std::string_view, 3> kFilmSounds{"none", "recorded", "matched"};
constexpr double kSlowest = 1000.0;
constexpr double kLowestRate_Hz = 1.0;
constexpr double kHighestRate_Hz = 120.0;
constexpr int kSmallest_px = 64;
constexpr int kLargest_px = 4096;

tl::unexpected<Error> wrong(const std::string& key, const std::string& why) {
  return failure(ErrorCode::BadRequest, key + ": " + why, key);
}

Result<void> validate(const FilmPass& pass, const std::string& key) {
  if (pass.clip.empty()) return wrong(key + ".clip", "names no file");
  if (pass.from_s && pass.to_s && *pass.to_s <= *pass.from_s)
    return wrong(key + ".to_s", "must be after from_s");
  for (std::size_t i = 1; i < pass.lure.size(); ++i) {
    if (pass.lure[i].frame <= pass.lure[i - 1].frame)
      return wrong(key + ".lure", "its frames must rise from one to the next");
  }
  if (pass.trace && pass.trace->t_s.size() != pass.trace->y.size())
    return wrong(key + ".trace", "needs as many times as values");
  if (pass.trace && !std::is_sorted(pass.trace->t_s.begin(), pass.trace->t_s.end()))
    return wrong(key + ".trace", "its times must rise");
  if (pass.length_px && *pass.length_px <= 0.0) return wrong(key + ".length_px", "must be over 0");
  if (pass.mmPerPixel && *pass.mmPerPixel <= 0.0) return wrong(key + ".mm_per_px", "must be over 0");
  if (pass.quietFrom_s.has_value() != pass.quietTo_s.has_value() ||
      (pass.quietFrom_s && *pass.quietTo_s <= *pass.quietFrom_s))
    return wrong(key + ".quiet", "needs from_s, and to_s after it");
  return {};
}

}  // namespace

std::string_view toString(FilmView view) {
  return kFilmViews[static_cast<std::size_t>(view)];
}
std::string_view toString(FilmSound sound) {
  return kFilmSounds[static_cast<std::size_t>(sound)];
}
std::optional<FilmView> filmViewNamed(std::string_view text) {
  return enumNamed<FilmView>(kFilmViews, text);
}
std::optional<FilmSound> filmSoundNamed(std::string_view text) {
  return enumNamed<FilmSound>(kFilmSounds, text);
}

Result<void> validate(const FilmScript& script) {
  if (script.passes.empty()) return wrong("passes", "holds none");
  if (script.passes.size() > kMostFilmPasses)
    return wrong("passes",
                 fmt::format("holds {}; a film shows {} at most", script.passes.size(), kMostFilmPasses));
  if (script.slowness < 1.0 || script.slowness > kSlowest)
    return wrong("slowness", "must be from 1 (true speed) to 1000");
  if (script.rate_Hz < kLowestRate_Hz || script.rate_Hz > kHighestRate_Hz)
    return wrong("rate", "must be from 1 to 120 pictures a second");
  for (const auto& [key, size] : {std::pair("width", script.width_px), {"height", script.height_px}}) {
    if (size < kSmallest_px || size > kLargest_px || size % 2 != 0)
      return wrong(key, "must be an even number of pixels from 64 to 4096");
  }
  if (script.sound != FilmSound::None && script.slowness > 1.0)
    return wrong("sound", "is heard at true speed only; a slowed film is silent");
  for (std::size_t i = 0; i < script.passes.size(); ++i) {
    const FilmPass& pass = script.passes[i];
    const std::string key = fmt::format("passes[{}]", i);
    if (auto ok = validate(pass, key); !ok) return ok;
    if (script.sound == FilmSound::Matched && !pass.quietFrom_s)
      return wrong(key + ".quiet", "is missing: loudness is matched on the still water of every pass");
    if (script.view == FilmView::OneSize && !pass.mmPerPixel)
      return wrong(key + ".mm_per_px", "is missing: without a known length there is no one size");
  }
  return {};
}

}  // namespace fin
