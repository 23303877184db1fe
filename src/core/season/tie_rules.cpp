// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/tie_rules.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>

namespace fin {
namespace {

using How = RuleTest::How;

std::string trimmed(const std::string& text) {
  const std::size_t from = text.find_first_not_of(" \t");
  if (from == std::string::npos) return {};
  return text.substr(from, text.find_last_not_of(" \t") - from + 1);
}

std::vector<std::string> parted(const std::string& text, const std::string& by) {
  std::vector<std::string> out;
  std::size_t from = 0;
  for (std::size_t at = text.find(by); at != std::string::npos; at = text.find(by, from)) {
    out.push_back(trimmed(text.substr(from, at - from)));
    from = at + by.size();
  }
  out.push_back(trimmed(text.substr(from)));
  return out;
}

std::optional<double> numberFrom(const std::string& text) {
  double out = 0.0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), out);
  if (error != std::errc() || end != text.data() + text.size() || !std::isfinite(out)) return std::nullopt;
  return out;
}

tl::unexpected<Error> notUnderstood(const std::string& what) {
  return failure(ErrorCode::BadRequest, fmt::format("\"{}\" is not understood", what));
}

/// Which condition, or hours, takes, misses.
bool nameInto(const std::string& name, RuleTest& test) {
  if (name == "hours") test.of = RuleTest::Of::Hours;
  if (name == "takes") test.of = RuleTest::Of::Takes;
  if (name == "misses") test.of = RuleTest::Of::Misses;
  if (test.of != RuleTest::Of::Condition) return true;
  for (const ConditionSpec& spec : conditionSpecs()) {
    if (spec.name != name) continue;
    test.what = spec.what;
    return true;
  }
  return false;
}

Result<RuleTest> parseTest(const std::string& text) {
  RuleTest test;
  constexpr std::string_view kKnown = " known";
  if (text.ends_with(kKnown) && nameInto(trimmed(text.substr(0, text.size() - kKnown.size())), test))
    return test;
  constexpr std::pair<std::string_view, How> kHow[] = {
      {"<=", How::AtMost}, {">=", How::AtLeast}, {"<", How::Below}, {">", How::Above}, {"=", How::Equal}};
  for (const auto& [sign, how] : kHow) {
    const std::size_t at = text.find(sign);
    if (at == std::string::npos) continue;
    if (!nameInto(trimmed(text.substr(0, at)), test)) return notUnderstood(trimmed(text.substr(0, at)));
    test.how = how;
    const std::string value = trimmed(text.substr(at + sign.size()));
    if (const auto number = numberFrom(value)) {
      test.value = *number;
      return test;
    }
    const auto& words = specOf(test.what).words;
    const bool known =
        test.of == RuleTest::Of::Condition && std::find(words.begin(), words.end(), value) != words.end();
    if (!known) return notUnderstood(value);
    test.value = value;
    return test;
  }
  return notUnderstood(text);
}

/// Of a word its place among the condition's words.
std::optional<double> placeOf(Condition what, std::string_view word) {
  const auto& words = specOf(what).words;
  const auto found = std::find(words.begin(), words.end(), word);
  if (found == words.end()) return std::nullopt;
  return static_cast<double>(found - words.begin());
}

/// What a test looks at, and what it holds it against; none where it is not known.
std::optional<std::pair<double, double>> sidesOf(const RuleTest& test, const DayFacts& facts) {
  const auto counted = [](const std::optional<std::size_t>& n) {
    return n ? std::optional(static_cast<double>(*n)) : std::nullopt;
  };
  std::optional<double> is;
  std::optional<double> wanted;
  if (const double* number = std::get_if<double>(&test.value)) {
    wanted = *number;
    if (test.of == RuleTest::Of::Hours) is = facts.hours;
    if (test.of == RuleTest::Of::Takes) is = counted(facts.takes);
    if (test.of == RuleTest::Of::Misses) is = counted(facts.misses);
    if (test.of == RuleTest::Of::Condition) is = facts.water.number(test.what);
  } else if (const auto word = facts.water.word(test.what)) {
    wanted = placeOf(test.what, std::get<std::string>(test.value));
    is = placeOf(test.what, *word);
  }
  if (!is || !wanted) return std::nullopt;
  return std::pair(*is, *wanted);
}

/// None where it is not known.
std::optional<bool> holds(const RuleTest& test, const DayFacts& facts) {
  if (test.how == How::Known) {
    const ConditionLine* line = facts.water.line(test.what);
    if (line == nullptr) return std::nullopt;
    return !line->unknown();
  }
  const auto sides = sidesOf(test, facts);
  if (!sides) return std::nullopt;
  const auto [is, wanted] = *sides;
  switch (test.how) {
    case How::Below:
      return is < wanted;
    case How::AtMost:
      return is <= wanted;
    case How::AtLeast:
      return is >= wanted;
    case How::Above:
      return is > wanted;
    default:
      return is == wanted;
  }
}

std::string nameOf(const RuleTest& test) {
  switch (test.of) {
    case RuleTest::Of::Takes:
      return "takes";
    case RuleTest::Of::Misses:
      return "misses";
    default:
      return std::string(specOf(test.what).name);
  }
}

bool sidesInto(const std::string& text, TieWish& wish) {
  for (const std::string& word : parted(text, "/")) {
    const auto side = schoolSideNamed(word);
    if (!side || *side == SchoolSide::None) return false;
    wish.sides.push_back(*side);
  }
  return true;
}

bool targetInto(const std::string& text, TieWish& wish) {
  wish.direction = Direction::Target;
  if (wish.of == TieWish::Of::Finish) {
    wish.bright = text == "bright";
    return text == "bright" || text == "dull";
  }
  if (wish.of == TieWish::Of::Length && text == "prey") {
    wish.targetIsPrey = true;
    return true;
  }
  const auto number = numberFrom(text);
  wish.target = number.value_or(0.0);
  return number.has_value();
}

bool propertyInto(const std::string& name, TieWish& wish) {
  if (name == "length") {
    wish.of = TieWish::Of::Length;
  } else if (name == "finish") {
    wish.of = TieWish::Of::Finish;
  } else if (name == "days_unseen") {
    wish.of = TieWish::Of::DaysUnseen;
  } else if (const auto reading = readingNamed(name)) {
    wish.reading = *reading;
  } else {
    return false;
  }
  return true;
}

Result<TieWish> parseWish(const std::string& whole) {
  TieWish wish;
  std::string text = whole;
  if (const std::size_t open = text.find('('); open != std::string::npos) {
    const std::size_t close = text.find(')', open);
    if (close == std::string::npos || !sidesInto(trimmed(text.substr(open + 1, close - open - 1)), wish))
      return notUnderstood(whole);
    text = trimmed(text.substr(0, open));
  }
  if (const std::size_t times = text.rfind(" x"); times != std::string::npos) {
    const auto weight = numberFrom(trimmed(text.substr(times + 2)));
    if (!weight || *weight <= 0.0) return notUnderstood(whole);
    wish.weight = *weight;
    text = trimmed(text.substr(0, times));
  }
  if (const std::size_t arrow = text.find("->"); arrow != std::string::npos) {
    if (!propertyInto(trimmed(text.substr(0, arrow)), wish) ||
        !targetInto(trimmed(text.substr(arrow + 2)), wish))
      return notUnderstood(whole);
    return wish;
  }
  const char sign = text.empty() ? ' ' : text.back();
  if (sign != '+' && sign != '-') return notUnderstood(whole);
  wish.direction = sign == '+' ? Direction::More : Direction::Less;
  if (!propertyInto(trimmed(text.substr(0, text.size() - 1)), wish) || wish.of == TieWish::Of::Finish)
    return notUnderstood(whole);
  return wish;
}

bool isSilenced(const TieWish& wish, const std::vector<SchoolSide>& schools) {
  return std::any_of(wish.sides.begin(), wish.sides.end(), [&schools](SchoolSide side) {
    return std::find(schools.begin(), schools.end(), oppositeOf(side)) != schools.end();
  });
}

}  // namespace

Result<RuleWhen> parseWhen(const std::string& text) {
  RuleWhen out;
  for (const std::string& way : parted(text, " or ")) {
    std::vector<RuleTest>& tests = out.emplace_back();
    for (const std::string& one : parted(way, " and ")) {
      const auto test = parseTest(one);
      if (!test) return tl::unexpected(test.error());
      tests.push_back(*test);
    }
  }
  return out;
}

Result<std::vector<TieWish>> parseWants(const std::string& text) {
  std::vector<TieWish> out;
  for (const std::string& one : parted(text, ",")) {
    auto wish = parseWish(one);
    if (!wish) return tl::unexpected(wish.error());
    out.push_back(std::move(*wish));
  }
  return out;
}

RuleState stateOf(const TieRule& rule, const DayFacts& facts, const std::vector<SchoolSide>& schools) {
  if (!rule.on) return {.is = RuleState::Is::Off};
  const auto when = parseWhen(rule.when);
  const auto wants = parseWants(rule.wants);
  if (!when || !wants)
    return {.is = RuleState::Is::Wrong, .why = when ? wants.error().message : when.error().message};
  RuleState out;
  for (const std::vector<RuleTest>& way : *when) {
    bool all = true;
    bool none = false;
    std::string unknown;
    for (const RuleTest& test : way) {
      const auto so = holds(test, facts);
      all = all && so.value_or(false);
      none = none || !so.value_or(true);
      if (!so && unknown.empty()) unknown = nameOf(test);
    }
    if (all) out.is = RuleState::Is::Awake;
    if (out.is == RuleState::Is::No && !none && !unknown.empty()) {
      out.is = RuleState::Is::Asleep;
      out.why = unknown;
    }
    if (out.is == RuleState::Is::Awake) break;
  }
  if (out.is != RuleState::Is::Awake) return out;
  out.why.clear();
  for (const TieWish& wish : *wants) (isSilenced(wish, schools) ? out.silenced : out.wishes).push_back(wish);
  return out;
}

const std::vector<TieRule>& usualRules() {
  static const std::vector<TieRule> rules{
      {1, "1", "water < 8 or change <= -2",
       "pause_drift -> 0 x2 (finesse), fall_rate - (finesse), onset_speed - (finesse)",
       "cold fish follow little"},
      {2, "2", "water >= 12 and water <= 22 and change > -2 and change < 2",
       "blowout_speed + x2 (search), cycle_variation - (steady)", "lively fish catch up"},
      {3, "3", "clarity < 1", "rattle_level + x2 (loud), kick_angle + (loud), wobble_angle + (loud)",
       "felt before seen"},
      {4, "4", "clarity > 3", "rattle_level - (quiet), wobble_angle - (quiet)", "too much is noticed"},
      {5, "5", "wind >= first crests", "kick_angle + x2, blowout_speed +, length + (by_speed)", "chop hides"},
      {6, "6", "wind <= scales and light = bright", "length - x2 (by_speed), onset_speed -, rattle_level -",
       "wary fish"},
      {7, "7", "light = dusk or light = dark or cloud >= 7", "rattle_level +, finish -> dull (dull)",
       "little to see"},
      {8, "8", "light = bright and clarity > 2", "flash_rate +, finish -> bright (bright)", "flashes carry"},
      {9, "9", "prey known", "length -> prey x2 (by_prey)", "usual food"},
      {10, "10", "fish = follow", "breakouts + x2 (hunting), stop_time - (hunting), erraticness + (hunting)",
       "broken rhythm decides them"},
      {11, "11", "fish = miss or misses >= 1", "length - x2 (by_speed)", "easier mouthful"},
      {12, "12", "cover = weed or cover = wood or bottom = weed",
       "glide_angle - x2 (glide), fall_rate - (glide)", "stays above"},
      {13, "13", "cover = piles or cover = wall or cover = edge", "glide_angle + x2 (plumb)", "drops beside"},
      {14, "14", "depth > 4 and fish depth = low", "fall_rate + x2, fall_kick_angle +",
       "arrives, works sinking"},
      {15, "15", "bottom = weed or bottom = stone", "stand_angle + x2, stand_time +", "stays in sight"},
      {16, "16", "cover = wood", "roll_angle -, roll_list -> 0", "tilting hooks catch"},
      {17, "17", "pull = with the current and current >= 0.2", "onset_speed - x2", "little water passes"},
      {18, "18", "place = known and takes = 0",
       "spring_back_ratio + x2 (finesse), stop_time - (finesse), pause_drift -> 0 (finesse)",
       "moves without leaving"},
      {19, "19", "place = strange and hours < 1", "blowout_speed + x2 (search), length + (search/by_speed)",
       "searches most"},
      {20, "20", "much fished = yes", "cycle_variation + (hunting), days_unseen + (hunting)", "odd, new"}};
  return rules;
}

}  // namespace fin
