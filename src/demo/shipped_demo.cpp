// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/shipped_demo.h"

#include <fmt/format.h>

#include <algorithm>

#include "core/footage/clip_fingerprint.h"
#include "core/records/log_folder.h"
#include "core/units/whole_file.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

constexpr const char* kClips = "clips";
constexpr std::size_t kEditionLength = 8;

/// Which demo this is: any change to what is shipped changes it.
Result<std::string> editionOf(const fs::path& shipped) {
  const auto sha = sha256Of(shipped / "manifest.json");
  if (!sha)
    return failure(
        ErrorCode::Unreadable,
        fmt::format("the demo that comes with the program is not in {}; install it again, or make it "
                    "anew with agile-fin-cli rehearse",
                    shipped.string()),
        shipped.string());
  return sha->substr(0, kEditionLength);
}

/// Under a name of its own until it is whole.
Result<void> takeIn(const fs::path& shipped, const fs::path& log) {
  std::error_code failed;
  fs::create_directories(log.parent_path(), failed);
  if (failed)
    return failure(ErrorCode::NotWritable, log.parent_path().string() + ": " + failed.message(),
                   log.parent_path().string());
  const fs::path unfinished = log.string() + partMark();
  fs::remove(unfinished, failed);
  if (const auto taken = importLog(shipped, unfinished); !taken) return tl::unexpected(taken.error());
  fs::rename(unfinished, log, failed);
  if (failed) return failure(ErrorCode::NotWritable, log.string() + ": " + failed.message(), log.string());
  return {};
}

/// The demo may have been installed elsewhere since: its clips are looked for where they are now.
Result<std::string> findItsClips(const fs::path& log, const fs::path& shipped) {
  std::error_code failed;
  if (!fs::is_directory(shipped / kClips, failed))
    return std::string("The demo's clips are not there; what was read of them is.");
  const auto found = findClips(log, shipped / kClips);
  if (!found) return tl::unexpected(found.error());
  if (found->missingClips == 0) return std::string();
  return fmt::format("{} of the demo's clips are missing or were changed; what was read of them is there.",
                     found->missingClips);
}

std::string olderBeside(const fs::path& log) {
  std::error_code failed;
  for (const auto& entry : fs::directory_iterator(log.parent_path(), failed)) {
    if (entry.path().extension() == ".finlog" && entry.path() != log)
      return fmt::format("An older demo, with all that you did in it, is kept beside this one: {}.",
                         entry.path().string());
  }
  return {};
}

}  // namespace

Result<DemoPlace> placeDemo(const fs::path& from, const fs::path& keepIn, const fs::path& temporary) {
  const fs::path shipped = fs::absolute(from).lexically_normal();  // a log names clips from where it lies
  const auto edition = editionOf(shipped);
  if (!edition) return tl::unexpected(edition.error());
  DemoPlace place;
  const std::string name = fmt::format("demo-{}.finlog", *edition);
  place.log = keepIn / name;
  std::error_code failed;
  const bool isNew = !fs::exists(place.log, failed);
  if (isNew) {
    auto taken = takeIn(shipped, place.log);
    if (!taken && taken.error().code == ErrorCode::NotWritable) {
      place.forLookingOnly =
          fmt::format("Nothing can be kept in {}: the demo is open for looking only, and no change is saved",
                      keepIn.string());
      place.log = temporary / name;
      taken = takeIn(shipped, place.log);
    }
    if (!taken) return tl::unexpected(taken.error());
  }
  const auto clips = findItsClips(place.log, shipped);
  if (!clips && clips.error().code != ErrorCode::NotWritable) return tl::unexpected(clips.error());
  place.note = clips.value_or("");
  // Said once, when this one is new.
  if (const std::string older = isNew ? olderBeside(place.log) : ""; !older.empty())
    place.note += (place.note.empty() ? "" : " ") + older;
  return place;
}

Result<std::unique_ptr<Log>> openDemo(const DemoPlace& place) {
  return place.forLookingOnly.empty() ? Log::open(place.log)
                                      : Log::openForLooking(place.log, place.forLookingOnly);
}

Result<void> shipDemo(const fs::path& log, const fs::path& shipped) {
  if (const auto done = exportLog(log, shipped); !done) return tl::unexpected(done.error());
  std::error_code failed;
  fs::remove_all(shipped / kClips, failed);  // of a demo that was shipped before
  fs::create_directories(shipped / kClips, failed);
  const auto open = Log::open(log);
  if (!open) return tl::unexpected(open.error());
  const auto passes = (*open)->passes();
  if (!passes) return tl::unexpected(passes.error());
  for (const LoggedPass& pass : *passes) {
    fs::copy_file(pass.request.clip, shipped / kClips / pass.request.clip.filename(),
                  fs::copy_options::overwrite_existing, failed);
    if (failed)
      return failure(ErrorCode::NotWritable, pass.request.clip.string() + ": " + failed.message(),
                     pass.request.clip.string());
  }
  return {};
}

}  // namespace fin
