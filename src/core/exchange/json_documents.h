// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <nlohmann/json.hpp>
#include <optional>
#include <stdexcept>
#include <string>
#include <tuple>

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
  inline void to_json(nlohmann::json& to, Type from) {                      \
    to = std::string(toString(from));                                       \
  }                                                                         \
  inline void from_json(const nlohmann::json& from, Type& to) {             \
    const auto value = named(from.get<std::string>());                      \
    if (!value) throw std::invalid_argument("unknown word " + from.dump()); \
    to = *value;                                                            \
  }

namespace fin {

/// A key of a document, and the member that it keeps.
template <class Type, class Member>
struct DocumentKey {
  const char* name;
  Member Type::*member;
};
template <class Type, class Member>
constexpr DocumentKey<Type, Member> key(const char* name, Member Type::*member) {
  return {name, member};
}

/// A type whose document is listed by `keysOf(const Type*)`: a tuple of its keys. Keys that a document lacks
/// leave their members as they are by default.
template <class Type>
concept Documented = requires(const Type* type) {
  keysOf(type);
};

template <Documented Type>
void to_json(nlohmann::json& to, const Type& from) {
  std::apply([&](const auto&... k) { ((to[k.name] = from.*k.member), ...); }, keysOf(&from));
}
template <Documented Type>
void from_json(const nlohmann::json& from, Type& to) {
  if (!from.is_object()) throw std::invalid_argument("an object is wanted in place of " + from.dump());
  to = {};
  const auto take = [&](const auto& k) {
    if (const auto found = from.find(k.name); found != from.end()) found->get_to(to.*k.member);
  };
  std::apply([&](const auto&... k) { (take(k), ...); }, keysOf(&to));
}

}  // namespace fin

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
