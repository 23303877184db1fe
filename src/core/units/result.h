// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <tl/expected.hpp>
#include <utility>

namespace fin {

enum class ErrorCode {
  BadRequest,    ///< what was asked for cannot be meant
  Unreadable,    ///< a clip or a file cannot be read
  Damaged,       ///< one frame of a readable clip cannot be decoded
  Unsupported,   ///< the footage cannot support it
  Lost,          ///< the lure was not followed
  Cancelled,     ///< the person stopped it
  NotWritable,   ///< a file or folder cannot be written
  NewerVersion,  ///< made by a newer program
  ClipChanged,   ///< a clip is another file than the one that was worked with
  MovedOn,       ///< what a change stands on was changed elsewhere meanwhile
  Broken,        ///< something that should never happen; a fault of the program
};

/// What went wrong in the field, in a sentence for the person. `where` names the key, file or table.
struct Error {
  ErrorCode code = ErrorCode::BadRequest;
  std::string message;
  std::string where;
};

template <class T>
using Result = tl::expected<T, Error>;

inline tl::unexpected<Error> failure(ErrorCode code, std::string message, std::string where = {}) {
  return tl::unexpected<Error>(Error{code, std::move(message), std::move(where)});
}

}  // namespace fin
