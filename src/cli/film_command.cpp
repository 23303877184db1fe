// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include <chrono>

#include "cli/commands.h"
#include "cli/interruptible.h"
#include "cli/measure_file.h"
#include "core/exchange/film_json.h"
#include "core/publishing/filmed_pass.h"
#include "core/publishing/make_film.h"

namespace fin::cli {
namespace {

constexpr double kEvery_s = 3.0;

using Clock = std::chrono::steady_clock;

/// Says how far a film is, and how long it still takes, every few seconds.
class FilmProgress {
 public:
  void say(double share) {
    if (told_s_ < 0.0) began_ = Clock::now(), told_s_ = 0.0;  // clips are open, sound is read
    const double spent_s = std::chrono::duration<double>(Clock::now() - began_).count();
    if (spent_s - told_s_ < kEvery_s || share <= 0.0) return;
    told_s_ = spent_s;
    fmt::print(stderr, "agile-fin-cli: {:.0f} %, {:.0f} s left\n", 100.0 * share, spent_s / share - spent_s);
  }
  [[nodiscard]] double spent_s() const {
    return std::chrono::duration<double>(Clock::now() - began_).count();
  }

 private:
  Clock::time_point began_ = Clock::now();
  double told_s_ = -1.0;  ///< not begun
};

/// Where a pass file is named, follows it for what the script does not say itself.
Result<void> fillIn(FilmScript& script, const JobControl& job) {
  const FilmLanguage language = plainFilmLanguage();
  for (FilmPass& pass : script.passes) {
    if (!pass.passFile) continue;
    const auto measured = measureFile(pass.passFile->string(), {}, {job.stop, {}});
    if (!measured) return tl::unexpected(measured.error());
    fmt::print(stderr, "agile-fin-cli: {} is followed\n", pass.passFile->filename().string());
    const bool alone = script.passes.size() == 1 && pass.readings.empty() && !script.bare;
    pass = filmedPass(measured->request, measured->result, language, std::move(pass));
    if (!alone) continue;
    const auto clip = openClip(measured->request, {.job = {job.stop, {}}});
    if (!clip) return tl::unexpected(clip.error());
    auto words = readingsAsTheyArise(measured->request, measured->result, *clip, language, {job.stop, {}});
    if (!words) return tl::unexpected(words.error());
    pass.readings = std::move(*words);
  }
  return {};
}

Result<FilmMade> made(const FilmCommand& command, const JobControl& job) {
  const auto text = slurp(command.script);
  if (!text) return tl::unexpected(text.error());
  const auto folder =
      command.script == "-" ? std::filesystem::path() : std::filesystem::path(command.script).parent_path();
  auto script = parseFilm(*text, folder);
  if (!script) return tl::unexpected(script.error());
  if (auto ok = fillIn(*script, job); !ok) return tl::unexpected(ok.error());
  return makeFilm(*script, command.out, job);
}

}  // namespace

Exit run(const FilmCommand& command) {
  const Interruptible interruptible;
  FilmProgress progress;
  const auto film =
      made(command, {interruptible.token(), [&progress](double share) { progress.say(share); }});
  if (!film && film.error().code == ErrorCode::Cancelled) {
    fmt::print(stderr, "agile-fin-cli: stopped; nothing was left behind\n");
    return Exit::Interrupted;
  }
  if (!film) return complain(film.error());
  for (const std::string& note : film->notes) fmt::print(stderr, "agile-fin-cli: {}\n", note);
  fmt::print(stderr,
             "agile-fin-cli: {} pictures of the passes, {} of the title, {} of the end card; {:.1f} s, made "
             "in {:.1f} s\n",
             film->pictures, film->titlePictures, film->endPictures, film->length_s, progress.spent_s());
  return Exit::Done;
}

}  // namespace fin::cli
