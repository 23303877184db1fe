// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/typed_amount.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <optional>
#include <string>

namespace fin {
namespace {

enum class Kind { Length, Speed, Mass, Temperature, Volume, Time };

/// base = times · amount + plus
struct Unit {
  std::string_view name;
  Kind kind;
  double times;
  double plus = 0.0;
};

constexpr double kInch_mm = 25.4;
constexpr double kMile_mm = 1609344.0;
constexpr double kNauticalMile_mm = 1852000.0;
constexpr double kHour_s = 3600.0;
constexpr double kPound_g = 453.59237;
constexpr double kGallon_l = 3.785411784;

constexpr std::array kUnits{
    Unit{"mm", Kind::Length, 1.0},
    Unit{"cm", Kind::Length, 10.0},
    Unit{"m", Kind::Length, 1000.0},
    Unit{"in", Kind::Length, kInch_mm},
    Unit{"inch", Kind::Length, kInch_mm},
    Unit{"inches", Kind::Length, kInch_mm},
    Unit{"\"", Kind::Length, kInch_mm},
    Unit{"ft", Kind::Length, 12.0 * kInch_mm},
    Unit{"foot", Kind::Length, 12.0 * kInch_mm},
    Unit{"feet", Kind::Length, 12.0 * kInch_mm},
    Unit{"'", Kind::Length, 12.0 * kInch_mm},
    Unit{"yd", Kind::Length, 36.0 * kInch_mm},
    Unit{"mm/s", Kind::Speed, 1.0},
    Unit{"cm/s", Kind::Speed, 10.0},
    Unit{"m/s", Kind::Speed, 1000.0},
    Unit{"km/h", Kind::Speed, 1e6 / kHour_s},
    Unit{"kmh", Kind::Speed, 1e6 / kHour_s},
    Unit{"in/s", Kind::Speed, kInch_mm},
    Unit{"ft/s", Kind::Speed, 12.0 * kInch_mm},
    Unit{"mph", Kind::Speed, kMile_mm / kHour_s},
    Unit{"kn", Kind::Speed, kNauticalMile_mm / kHour_s},
    Unit{"kt", Kind::Speed, kNauticalMile_mm / kHour_s},
    Unit{"knot", Kind::Speed, kNauticalMile_mm / kHour_s},
    Unit{"knots", Kind::Speed, kNauticalMile_mm / kHour_s},
    Unit{"mg", Kind::Mass, 0.001},
    Unit{"g", Kind::Mass, 1.0},
    Unit{"kg", Kind::Mass, 1000.0},
    Unit{"oz", Kind::Mass, kPound_g / 16.0},
    Unit{"ounce", Kind::Mass, kPound_g / 16.0},
    Unit{"ounces", Kind::Mass, kPound_g / 16.0},
    Unit{"lb", Kind::Mass, kPound_g},
    Unit{"lbs", Kind::Mass, kPound_g},
    Unit{"grain", Kind::Mass, kPound_g / 7000.0},
    Unit{"grains", Kind::Mass, kPound_g / 7000.0},
    Unit{"°c", Kind::Temperature, 1.0},
    Unit{"c", Kind::Temperature, 1.0},
    Unit{"°f", Kind::Temperature, 5.0 / 9.0, -160.0 / 9.0},
    Unit{"f", Kind::Temperature, 5.0 / 9.0, -160.0 / 9.0},
    Unit{"ml", Kind::Volume, 0.001},
    Unit{"l", Kind::Volume, 1.0},
    Unit{"litre", Kind::Volume, 1.0},
    Unit{"litres", Kind::Volume, 1.0},
    Unit{"liter", Kind::Volume, 1.0},
    Unit{"liters", Kind::Volume, 1.0},
    Unit{"gal", Kind::Volume, kGallon_l},
    Unit{"gallon", Kind::Volume, kGallon_l},
    Unit{"gallons", Kind::Volume, kGallon_l},
    Unit{"ms", Kind::Time, 0.001},
    Unit{"s", Kind::Time, 1.0},
    Unit{"min", Kind::Time, 60.0},
};

std::string_view sayKind(Kind kind) {
  switch (kind) {
    case Kind::Length:
      return "a length: try 95 mm or 3 3/4 in";
    case Kind::Speed:
      return "a speed: try 250 mm/s or 1.8 mph";
    case Kind::Mass:
      return "a weight: try 10 g or 3/8 oz";
    case Kind::Temperature:
      return "a temperature: try 18 °C or 64 °F";
    case Kind::Volume:
      return "a volume: try 40 l or 10 gal";
    case Kind::Time:
      return "a time: try 1.5 s";
  }
  return {};
}

std::string lowered(std::string_view text) {
  std::string out(text);
  std::transform(out.begin(), out.end(), out.begin(),
                 [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; });
  return out;
}

const Unit* unitNamed(std::string_view text) {
  const std::string name = lowered(text);
  const auto found =
      std::find_if(kUnits.begin(), kUnits.end(), [&](const Unit& u) { return u.name == name; });
  return found == kUnits.end() ? nullptr : &*found;
}

bool isBlank(char c) {
  return c == ' ' || c == '\t';
}

/// Reads numbers off the front of a text.
class Reader {
 public:
  explicit Reader(std::string_view text) : left_(text) { skipBlanks(); }

  std::optional<double> number() {
    std::string digits;
    std::size_t at = 0;
    if (!left_.empty() && (left_[0] == '-' || left_[0] == '+')) digits += left_[at++] == '-' ? "-" : "";
    while (at < left_.size() &&
           ((left_[at] >= '0' && left_[at] <= '9') || left_[at] == '.' || left_[at] == ','))
      digits += left_[at] == ',' ? '.' : left_[at], ++at;
    double out = 0.0;
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), out);
    if (error != std::errc() || end != digits.data() + digits.size()) return std::nullopt;
    left_.remove_prefix(at);
    skipBlanks();
    return out;
  }
  bool takes(char c) {
    if (left_.empty() || left_[0] != c) return false;
    left_.remove_prefix(1);
    skipBlanks();
    return true;
  }
  [[nodiscard]] std::string_view rest() const {
    std::string_view out = left_;
    while (!out.empty() && isBlank(out.back())) out.remove_suffix(1);
    return out;
  }
  [[nodiscard]] bool atDigit() const { return !left_.empty() && left_[0] >= '0' && left_[0] <= '9'; }

 private:
  void skipBlanks() {
    while (!left_.empty() && isBlank(left_[0])) left_.remove_prefix(1);
  }
  std::string_view left_;
};

/// "2.5", "3/8", "2 1/2"
std::optional<double> amountAt(Reader& reader) {
  const auto first = reader.number();
  if (!first) return std::nullopt;
  const auto over = [&](double upper) -> std::optional<double> {
    const auto lower = reader.number();
    return lower && *lower > 0.0 ? std::optional(upper / *lower) : std::nullopt;
  };
  if (reader.takes('/')) return over(*first);
  if (!reader.atDigit()) return first;
  const auto upper = reader.number();
  if (!upper || !reader.takes('/')) return std::nullopt;
  const auto part = over(*upper);
  return part ? std::optional(*first + (*first < 0.0 ? -*part : *part)) : std::nullopt;
}

}  // namespace

Result<double> typedAmount(std::string_view text, std::string_view wanted, std::string_view usual) {
  const Unit* to = unitNamed(wanted);
  const auto isNo = [&](std::string_view what) {
    return failure(ErrorCode::BadRequest, "\"" + std::string(text) + "\" is not " + std::string(what));
  };
  const std::string_view expected = to == nullptr ? "a number" : sayKind(to->kind);
  Reader reader(text);
  const auto amount = amountAt(reader);
  if (!amount || !std::isfinite(*amount)) return isNo(expected);
  const std::string_view said = reader.rest().empty() ? usual : reader.rest();
  if (to == nullptr)
    return reader.rest().empty() || said == wanted ? Result<double>(*amount) : isNo(expected);
  const Unit* from = unitNamed(said);
  if (from == nullptr || from->kind != to->kind) return isNo(expected);
  return (*amount * from->times + from->plus - to->plus) / to->times;
}

}  // namespace fin
