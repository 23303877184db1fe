// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <nlohmann/json.hpp>
#include <optional>
#include <stdexcept>
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
// word makes the document unreadable.
#define FIN_ENUM_AS_WORD(Type, named)                                       \
  void to_json(nlohmann::json& to, Type from) {                             \
    to = std::string(toString(from));                                       \
  }                                                                         \
  void from_json(const nlohmann::json& from, Type& to) {                    \
    const auto value = named(from.get<std::string>());                      \
    if (!value) throw std::invalid_argument("unknown word " + from.dump()); \
    to = *value;                                                            \
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
  } catch (const std::exception& e) {
    return failure(ErrorCode::Unreadable, e.what());
  }
}

/// A document with what has changed in it; keys that this program does not know stay as they are.
inline std::string updated(const std::string& stored, const std::string& fresh) {
  using nlohmann::json;
  json out = json::parse(stored, nullptr, false);
  json now = json::parse(fresh);
  if (!out.is_object()) return fresh;
  out.update(now);
  return out.dump(-1, ' ', false, json::error_handler_t::replace);
}

}  // namespace fin::records
