// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/whole_file.h"

#include <fcntl.h>
#include <unistd.h>

#include <atomic>
#include <cerrno>
#include <cstring>
#include <string>
#include <utility>

namespace fin {
namespace {

namespace fs = std::filesystem;

tl::unexpected<Error> notWritten(const fs::path& file, const std::string& why) {
  return failure(ErrorCode::NotWritable, file.string() + " cannot be written: " + why, file.string());
}

/// A descriptor that is closed at the latest when it goes out of sight.
class Descriptor {
 public:
  explicit Descriptor(int number) : number_(number) {}
  ~Descriptor() { close(); }
  Descriptor(const Descriptor&) = delete;
  Descriptor& operator=(const Descriptor&) = delete;
  [[nodiscard]] int number() const { return number_; }
  bool close() {
    const int number = std::exchange(number_, -1);
    return number < 0 || ::close(number) == 0;
  }

 private:
  int number_;
};

bool writeAll(int descriptor, std::string_view content) {
  while (!content.empty()) {
    const ssize_t written = ::write(descriptor, content.data(), content.size());
    if (written < 0 && errno == EINTR) continue;
    if (written <= 0) return false;
    content.remove_prefix(static_cast<std::size_t>(written));
  }
  return ::fsync(descriptor) == 0;
}

/// A name that was moved is only sure when the folder is on the disk as well; not every file system can.
void syncFolder(const fs::path& folder) {
  const Descriptor opened(::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
  if (opened.number() >= 0) (void)::fsync(opened.number());
}

}  // namespace

Result<void> writeWhole(const fs::path& file, std::string_view content) {
  std::error_code failed;
  const auto kind = fs::status(file, failed).type();
  if (kind != fs::file_type::regular && kind != fs::file_type::not_found)
    return notWritten(file, "something else than a file is in its place");
  fs::path part = file;
  part += ".part";
  Descriptor out(::open(part.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0666));
  if (out.number() < 0) return notWritten(file, std::strerror(errno));
  if (!writeAll(out.number(), content) || !out.close() || ::rename(part.c_str(), file.c_str()) != 0) {
    const std::string why = std::strerror(errno);
    fs::remove(part, failed);
    return notWritten(file, why);
  }
  syncFolder(file.parent_path());
  return {};
}

std::string partMark() {
  static std::atomic<unsigned> count = 0;
  return ".part" + std::to_string(::getpid()) + "-" + std::to_string(++count);
}

}  // namespace fin
