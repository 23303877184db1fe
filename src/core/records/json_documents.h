// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <nlohmann/json.hpp>
#include <optional>
#include <string>

#include "core/units/result.h"

// What the log's JSON documents share; for the files that write and read them.

namespace nlohmann {

template <class T>
struct adl_serializer<std::optional<T>> {
  static void to_json(json& to, const std::optional<T>& from) {
    if (from) {
      to = *from;
    } else {
      to = nullptr;
    }
  }
  static void from_json(const json& from, std::optional<T>& to) {
    if (from.is_null()) {
      to.reset();
    } else {
      to = from.get<T>();
    }
  }
};

}  // namespace nlohmann

// Words rather than numbers stand for what is one of a few, so that other tools can read them; an unknown
// word leaves what stood there.
#define FIN_ENUM_AS_WORD(Type, named)                                   \
  void to_json(nlohmann::json& to, Type from) {                         \
    to = std::string(toString(from));                                   \
  }                                                                     \
  void from_json(const nlohmann::json& from, Type& to) {                \
    if (const auto value = named(from.get<std::string>())) to = *value; \
  }

namespace fin::records {

template <class T>
std::string write(const T& value) {
  using nlohmann::json;
  return json(value).dump(-1, ' ', false, json::error_handler_t::replace);
}

template <class T>
Result<T> readAs(const std::string& text) {
  using nlohmann::json;
  try {
    return json::parse(text).get<T>();
  } catch (const json::exception& e) {
    return failure(ErrorCode::Unreadable, std::string("a document in the log cannot be read: ") + e.what());
  }
}

}  // namespace fin::records
