// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/exchange: documents that are read to the letter.
#pragma once

#include <fmt/format.h>

#include <cmath>
#include <nlohmann/json.hpp>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/units/points.h"
#include "core/units/result.h"

namespace fin::strict {

using nlohmann::json;

/// What a document is called, and its format: "pass", "agile-fin-pass/1".
struct Document {
  const char* word;
  const char* format;
};

/// Thrown only while a document is read, to leave nested reading at once.
struct Wrong {
  Error error;
};

[[noreturn]] inline void fail(const std::string& key, const std::string& why) {
  throw Wrong{{ErrorCode::BadRequest, key + ": " + why, key}};
}

/// One JSON object whose keys are asked for by name; what nobody asked for is an error.
class Object {
 public:
  /// All must outlive it.
  Object(const json& value, std::string path, const Document& document)
      : value_(value), path_(std::move(path)), document_(document) {
    if (!value_.is_object()) fail(path_.empty() ? document_.word : path_, "must be an object");
  }
  [[nodiscard]] Object inner(const json& value, const std::string& path) const {
    return {value, path, document_};
  }
  void needFormat() {
    if (text("format") != document_.format)
      fail("format", std::string("must be \"") + document_.format + "\"");
  }

  [[nodiscard]] std::string pathOf(const std::string& key) const {
    return path_.empty() ? key : path_ + "." + key;
  }
  const json* get(const std::string& key) {
    asked_.insert(key);
    const auto found = value_.find(key);
    return found == value_.end() ? nullptr : &*found;
  }
  const json& need(const std::string& key) {
    const json* found = get(key);
    if (found == nullptr) fail(pathOf(key), "is missing");
    return *found;
  }
  double number(const std::string& key) { return toNumber(need(key), pathOf(key)); }
  std::optional<double> maybeNumber(const std::string& key) {
    const json* found = get(key);
    if (found == nullptr) return std::nullopt;
    return toNumber(*found, pathOf(key));
  }
  std::string text(const std::string& key) { return toText(need(key), pathOf(key)); }
  std::string textOr(const std::string& key, const std::string& otherwise) {
    const json* found = get(key);
    return found == nullptr ? otherwise : toText(*found, pathOf(key));
  }
  std::optional<std::size_t> maybeFrame(const std::string& key) {
    const json* found = get(key);
    if (found == nullptr) return std::nullopt;
    return toFrame(*found, pathOf(key));
  }
  /// False where it is absent.
  bool yes(const std::string& key) {
    const json* found = get(key);
    if (found == nullptr) return false;
    if (!found->is_boolean()) fail(pathOf(key), "must be true or false");
    return found->get<bool>();
  }
  std::size_t frame(const std::string& key) { return toFrame(need(key), pathOf(key)); }
  PixelPoint point(const std::string& key) { return toPoint(need(key), pathOf(key)); }
  /// Empty where it is absent.
  std::vector<double> numbers(const std::string& key) {
    std::vector<double> out;
    const json* list = get(key);
    if (list == nullptr) return out;
    if (!list->is_array()) fail(pathOf(key), "must be a list of numbers");
    for (const json& value : *list) out.push_back(toNumber(value, pathOf(key)));
    return out;
  }
  void nothingElse() const {
    for (const auto& [key, unused] : value_.items()) {
      if (!asked_.contains(key)) fail(pathOf(key), std::string("is not a key of ") + document_.format);
    }
  }

  /// Each object of a list, which may be absent.
  template <typename Read>
  void eachOf(const std::string& key, const Read& read) {
    const json* list = get(key);
    if (list == nullptr) return;
    if (!list->is_array()) fail(pathOf(key), "must be a list");
    for (std::size_t i = 0; i < list->size(); ++i) {
      Object object = inner((*list)[i], fmt::format("{}[{}]", pathOf(key), i));
      read(object);
      object.nothingElse();
    }
  }

  static double toNumber(const json& value, const std::string& path) {
    if (!value.is_number()) fail(path, "must be a number");
    const auto number = value.get<double>();
    if (!std::isfinite(number)) fail(path, "must be a finite number");
    return number;
  }
  static std::string toText(const json& value, const std::string& path) {
    if (!value.is_string()) fail(path, "must be a text");
    return value.get<std::string>();
  }
  static std::size_t toFrame(const json& value, const std::string& path) {
    if (!value.is_number_integer() || (!value.is_number_unsigned() && value.get<std::int64_t>() < 0)) {
      fail(path, "must be a frame number, counted from 0");
    }
    return value.get<std::size_t>();
  }
  static PixelPoint toPoint(const json& value, const std::string& path) {
    if (!value.is_array() || value.size() != 2) fail(path, "must be [x, y] in picture pixels");
    return {toNumber(value[0], path), toNumber(value[1], path)};
  }

 private:
  const json& value_;
  std::string path_;
  const Document& document_;
  std::set<std::string> asked_;
};

/// `read` of the document's JSON. BadRequest with the key's name, for what `read` fails on too, for JSON that
/// is none, is nested too deep or has anything after it.
template <typename Read>
auto parse(const std::string& text, const Document& document, const Read& read)
    -> Result<decltype(read(json()))> {
  constexpr int kDeepest = 32;
  bool tooDeep = false;
  const auto watchDepth = [&](int depth, json::parse_event_t, json&) {
    tooDeep |= depth > kDeepest;
    return depth <= kDeepest;
  };
  try {
    const json root = json::parse(text, watchDepth);
    if (tooDeep) fail(document.word, "is nested too deep");
    return read(root);
  } catch (const Wrong& wrong) {
    return tl::unexpected(wrong.error);
  } catch (const json::exception& e) {
    return failure(ErrorCode::BadRequest,
                   fmt::format("the {} is not valid JSON: {}", document.word, e.what()), document.word);
  }
}

}  // namespace fin::strict
