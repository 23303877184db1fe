// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/records: how a store says no from within a transaction.
#pragma once

#include <fmt/format.h>
#include <stdexcept>

#include "core/units/result.h"

namespace fin::records {

/// Thrown by stores within a transaction, which it rolls back; becomes the error of the log's function.
class Refused : public std::runtime_error {
 public:
  explicit Refused(Error error) : std::runtime_error(error.message), error_(std::move(error)) {}
  [[nodiscard]] const Error& error() const { return error_; }

 private:
  Error error_;
};

/// What a change stands on is no longer what the log holds.
[[noreturn]] inline void refuseMovedOn(const std::string& what) {
  throw Refused({ErrorCode::MovedOn,
                 what + " was changed elsewhere meanwhile; nothing was overwritten, and it is shown as it "
                        "stands now",
                 what});
}
/// What cannot be read is not written over.
[[noreturn]] inline void refuseUnread(const std::string& what, const std::string& why) {
  throw Refused(
      {ErrorCode::Unreadable,
       fmt::format("{} cannot be read ({}) and so is not written over; nothing was changed", what, why),
       what});
}

}  // namespace fin::records
