// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/rack_fields.h"

#include <fmt/format.h>
#include <fmt/ranges.h>
#include <algorithm>
#include <string_view>

#include "core/units/typed_amount.h"

namespace fin {
namespace {

/// The unit that a field's name ends in; empty for what has none.
std::string_view unitOf(std::string_view name) {
  for (const std::string_view unit : {"_mm", "_g", "_kg"}) {
    if (name.ends_with(unit)) return unit.substr(1);
  }
  return {};
}

/// A number of no less than nothing, with any unit of its kind or in the field's own.
Result<double> number(const std::string& text, std::string_view unit) {
  auto amount = typedAmount(text, unit, unit);
  if (amount && *amount < 0.0)
    return failure(ErrorCode::BadRequest, fmt::format("“{}” is less than nothing", text));
  return amount;
}

std::string shown(const std::optional<double>& v) {
  return v ? fmt::format("{:g}", *v) : std::string();
}

Model& ownerOf(Model& m, Rig&, const Model*) {
  return m;
}
Rig& ownerOf(Model&, Rig& r, const Rig*) {
  return r;
}
const Model& ownerOf(const Model& m, const Rig&, const Model*) {
  return m;
}
const Rig& ownerOf(const Model&, const Rig& r, const Rig*) {
  return r;
}

template <class Owner, class Value>
RackField field(std::string name, std::vector<std::string> heads, Value Owner::*member,
                std::function<Result<Value>(const std::string&)> parse,
                std::function<std::string(const Value&)> show) {
  constexpr const Owner* kOwner = nullptr;
  return {name,
          std::string(unitOf(name)),
          std::move(heads),
          std::is_same_v<Owner, Rig>,
          [member, parse, name](Model& m, Rig& r, const std::string& text) -> Result<void> {
            Value& to = ownerOf(m, r, kOwner).*member;
            if (text.empty()) {
              to = Value{};
              return {};
            }
            auto value = parse(text);
            if (!value) return failure(ErrorCode::BadRequest, name + ": " + value.error().message, name);
            to = std::move(*value);
            return {};
          },
          [member, show](const Model& m, const Rig& r) { return show(ownerOf(m, r, kOwner).*member); }};
}

template <class Owner>
RackField textField(std::string name, std::vector<std::string> heads, std::string Owner::*member) {
  return field<Owner, std::string>(
      std::move(name), std::move(heads), member,
      [](const std::string& text) { return Result<std::string>(text); },
      [](const std::string& value) { return value; });
}

template <class Owner>
RackField numberField(std::string name, std::vector<std::string> heads,
                      std::optional<double> Owner::*member) {
  const std::string_view unit = unitOf(name);
  return field<Owner, std::optional<double>>(
      std::move(name), std::move(heads), member,
      [unit](const std::string& text) {
        return number(text, unit).map([](double v) { return std::optional(v); });
      },
      shown);
}

template <class Owner, class Word, class Named>
RackField wordField(std::string name, std::vector<std::string> heads, Word Owner::*member, Named named,
                    std::vector<std::string> words) {
  RackField out = field<Owner, Word>(
      std::move(name), std::move(heads), member,
      [named, words](const std::string& text) -> Result<Word> {
        if (const auto value = named(text)) return *value;
        return failure(ErrorCode::BadRequest,
                       fmt::format("“{}” is not one of {}", text, fmt::join(words, ", ")));
      },
      [](const Word& value) { return std::string(toString(value)); });
  out.words = std::move(words);
  return out;
}

constexpr Family kSoft = Family::SoftPlastic;
constexpr Family kJerk = Family::Jerkbait;
constexpr Family kSpoon = Family::Spoon;
constexpr Family kBladed = Family::BladedBait;

RackField asked(RackField field, std::vector<Family> of = {kSoft, kJerk, kSpoon, kBladed}) {
  field.askedOf = std::move(of);
  return field;
}

std::vector<RackField> allFields() {
  return {
      asked(textField("model", {"name", "lure"}, &Model::name)),
      asked(wordField("family", {"type", "kind"}, &Model::family, familyNamed,
                      {"soft plastic", "jerkbait", "spoon", "bladed bait"})),
      asked(numberField("length_mm", {"length"}, &Model::length_mm)),
      asked(numberField("weight_g", {"weight"}, &Model::weight_g)),
      asked(numberField("price", {"cost"}, &Model::price)),
      asked(textField("currency", {}, &Model::currency)),
      textField("colours", {"colors", "colour", "color"}, &Model::colours),
      asked(textField("material", {}, &Model::material), {kSoft}),
      asked(wordField("buoyancy", {"floats"}, &Model::buoyancy, buoyancyNamed,
                      {"unknown", "floats", "hangs", "sinks"}),
            {kJerk}),
      asked(textField("hooks", {}, &Model::hooks), {kJerk, kSpoon}),
      textField("hardware", {}, &Model::hardware),
      textField("claims", {"makersclaims"}, &Model::claims),
      textField("note", {"notes", "remark"}, &Model::note),
      textField("photo", {"picture"}, &Model::photo),
      textField("not_graded_because", {"notgraded", "interest"}, &Model::whyNotGraded),
      asked(textField("rig", {"rigging"}, &Rig::name)),
      asked(numberField("hook_g", {"hook", "hookweight"}, &Rig::hook_g), {kSoft, kJerk, kSpoon}),
      asked(textField("hook_size", {"size"}, &Rig::hookSize), {kSoft, kJerk, kSpoon}),
      asked(numberField("head_g", {"head", "jighead", "headweight"}, &Rig::head_g), {kSoft, kBladed}),
      asked(numberField("insert_g", {"insert"}, &Rig::insert_g), {kSoft}),
      asked(wordField("insert_place", {}, &Rig::insertPlace, insertPlaceNamed,
                      {"none", "high", "middle", "low"}),
            {kSoft}),
      asked(textField("trailer", {}, &Rig::trailer), {kBladed}),
      asked(textField("skirt", {}, &Rig::skirt), {kBladed}),
      asked(textField("line", {"linetype"}, &Rig::line)),
      numberField("line_strength_kg", {"linestrength"}, &Rig::lineStrength_kg),
      textField("tie_point", {"tie"}, &Rig::tiePoint),
      asked(textField("link", {"swivel", "snap"}, &Rig::link), {kJerk, kSpoon}),
  };
}

}  // namespace

const std::vector<RackField>& rackFields() {
  static const std::vector<RackField> all = allFields();
  return all;
}

}  // namespace fin
