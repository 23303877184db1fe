// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/rack_fields.h"

#include <fmt/format.h>
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
                    const char* words) {
  return field<Owner, Word>(
      std::move(name), std::move(heads), member,
      [named, words](const std::string& text) -> Result<Word> {
        if (const auto value = named(text)) return *value;
        return failure(ErrorCode::BadRequest, fmt::format("“{}” is not one of {}", text, words));
      },
      [](const Word& value) { return std::string(toString(value)); });
}

std::vector<RackField> allFields() {
  return {
      textField("model", {"name", "lure"}, &Model::name),
      wordField("family", {"type", "kind"}, &Model::family, familyNamed,
                "soft plastic, jerkbait, spoon, bladed bait"),
      numberField("length_mm", {"length"}, &Model::length_mm),
      numberField("weight_g", {"weight"}, &Model::weight_g),
      numberField("price", {"cost"}, &Model::price),
      textField("currency", {}, &Model::currency),
      textField("colours", {"colors", "colour", "color"}, &Model::colours),
      textField("material", {}, &Model::material),
      wordField("buoyancy", {"floats"}, &Model::buoyancy, buoyancyNamed, "unknown, floats, hangs, sinks"),
      textField("hooks", {}, &Model::hooks),
      textField("hardware", {}, &Model::hardware),
      textField("claims", {"makersclaims"}, &Model::claims),
      textField("note", {"notes", "remark"}, &Model::note),
      textField("photo", {"picture"}, &Model::photo),
      textField("not_graded_because", {"notgraded", "interest"}, &Model::whyNotGraded),
      textField("rig", {"rigging"}, &Rig::name),
      numberField("hook_g", {"hook", "hookweight"}, &Rig::hook_g),
      textField("hook_size", {"size"}, &Rig::hookSize),
      numberField("head_g", {"head", "jighead", "headweight"}, &Rig::head_g),
      numberField("insert_g", {"insert"}, &Rig::insert_g),
      wordField("insert_place", {}, &Rig::insertPlace, insertPlaceNamed, "none, high, middle, low"),
      textField("trailer", {}, &Rig::trailer),
      textField("skirt", {}, &Rig::skirt),
      textField("line", {"linetype"}, &Rig::line),
      numberField("line_strength_kg", {"linestrength"}, &Rig::lineStrength_kg),
      textField("tie_point", {"tie"}, &Rig::tiePoint),
      textField("link", {"swivel", "snap"}, &Rig::link),
  };
}

}  // namespace

const std::vector<RackField>& rackFields() {
  static const std::vector<RackField> all = allFields();
  return all;
}

}  // namespace fin
