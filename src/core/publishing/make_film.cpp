// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/publishing/make_film.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <future>
#include <memory>

#include "core/footage/clip_writer.h"
#include "core/publishing/film_painter.h"
#include "core/publishing/film_plan.h"
#include "core/publishing/film_sound.h"
#include "core/units/whole_file.h"

namespace fin {
namespace {

namespace fs = std::filesystem;
using publishing::FilmClip;
using publishing::FilmPainter;
using publishing::FilmSounds;

constexpr int kGroup = 60;
constexpr int kQuality = 21;

Result<FilmClip> opened(const FilmPass& pass, const JobControl& job) {
  auto clip = Clip::open(pass.clip, {{}, {job.stop, {}}});
  if (!clip) return tl::unexpected(clip.error());
  if (pass.byField && !(*clip)->info().interlaced)
    return failure(ErrorCode::BadRequest, "by_field: " + pass.clip.filename().string() + " is not interlaced",
                   "by_field");
  if (pass.byField) clip = Clip::byField(*clip);
  const auto clock = ClipClock::create((*clip)->index(), pass.captureRate);
  if (!clock) return tl::unexpected(clock.error());
  FilmClip out{*clip, *clock, {}};
  for (std::size_t n = 0; n < (*clip)->index().frameCount(); ++n)
    out.time_s.push_back(clock->timeOf(n).value());
  return out;
}

/// The file's place while it is being written: gone again unless it is kept.
class PartFile {
 public:
  explicit PartFile(fs::path file) : file_(std::move(file)), part_(file_) {
    part_.replace_filename("." + file_.stem().string() + partMark() + file_.extension().string());
  }
  ~PartFile() {
    std::error_code ignored;
    if (!kept_) fs::remove(part_, ignored);
  }
  PartFile(const PartFile&) = delete;
  PartFile& operator=(const PartFile&) = delete;
  [[nodiscard]] const fs::path& path() const { return part_; }
  Result<void> keep() {
    std::error_code failed;
    fs::rename(part_, file_, failed);
    if (failed)
      return failure(ErrorCode::NotWritable, file_.string() + " cannot be written: " + failed.message(),
                     file_.string());
    kept_ = true;
    return {};
  }

 private:
  fs::path file_;
  fs::path part_;
  bool kept_ = false;
};

Result<void> checkEnding(const fs::path& file) {
  const std::string ending = file.extension().string();
  if (ending == ".mp4" || ending == ".webm") return {};
  return failure(ErrorCode::BadRequest, file.string() + ": a film is written as .mp4 or .webm", "out");
}

/// Makes one film.
class FilmMaking {
 public:
  FilmMaking(const FilmScript& script, const JobControl& job) : script_(script), job_(job) {}

  Result<FilmMade> into(const fs::path& file) {
    if (auto ok = open(); !ok) return tl::unexpected(ok.error());
    PartFile part(file);
    ClipWriterOptions options{.width_px = script_.width_px,
                              .height_px = script_.height_px,
                              .rate = Hertz(script_.rate_Hz),
                              .group = kGroup,
                              .quality = kQuality,
                              .soundRate_Hz = sounds_.heard.empty() ? 0 : publishing::kFilmSound_Hz,
                              .forShowing = true};
    auto writer = ClipWriter::create(part.path(), options);
    if (!writer) return tl::unexpected(writer.error());
    writer_ = std::move(*writer);
    if (auto ok = writeAll(); !ok) return tl::unexpected(ok.error());
    if (auto ok = settle(); !ok) return tl::unexpected(ok.error());
    if (auto ok = writer_->finish(); !ok) return tl::unexpected(ok.error());
    if (auto ok = part.keep(); !ok) return tl::unexpected(ok.error());
    made_.length_s = static_cast<double>(written_) / script_.rate_Hz;
    return made_;
  }

 private:
  Result<void> open() {
    std::vector<std::vector<double>> times_s;
    for (const FilmPass& pass : script_.passes) {
      auto clip = opened(pass, job_);
      if (!clip) return tl::unexpected(clip.error());
      times_s.push_back(clip->time_s);
      clips_.push_back(std::move(*clip));
    }
    auto plan = planFilm(script_, times_s);
    if (!plan) return tl::unexpected(plan.error());
    plan_ = std::move(*plan);
    auto sounds = publishing::filmSounds(script_, plan_, clips_, job_);
    if (!sounds) return tl::unexpected(sounds.error());
    sounds_ = std::move(*sounds);
    std::vector<cv::Size> sizes;
    std::vector<double> rates_Hz;
    for (const FilmClip& one : clips_) {
      sizes.emplace_back(one.clip->info().width_px, one.clip->info().height_px);
      rates_Hz.push_back(one.clock.rate().value());
    }
    for (std::size_t i = 0; i < clips_.size(); ++i)
      made_.notes.push_back(script_.passes[i].caption + ": " + framesInWords(plan_.passes[i], rates_Hz[i]) +
                            ".");
    made_.notes.push_back(sounds_.says);
    painter_ = std::make_unique<FilmPainter>(script_, plan_, std::move(sizes), std::move(rates_Hz));
    painter_->setSoundWords(sounds_.says);
    turns_.assign(sounds_.heard.begin(), sounds_.heard.end());
    if (turns_.empty()) turns_.emplace_back(std::nullopt);
    const auto cardOf = [this](double length_s) {
      return static_cast<std::size_t>(std::lround(length_s * script_.rate_Hz));
    };
    if (!script_.title.empty() && !script_.bare) made_.titlePictures = cardOf(kTitle_s);
    if (!script_.end.empty() && !script_.bare) made_.endPictures = cardOf(kEndCard_s);
    made_.pictures = plan_.pictures * turns_.size();
    return {};
  }

  Result<void> writeAll() {
    if (auto ok = writeCard(painter_->titleCard(), made_.titlePictures); !ok) return ok;
    for (const std::optional<std::size_t>& heard : turns_) {
      if (auto ok = writeTurn(heard); !ok) return ok;
    }
    if (damaged_ > 0)
      made_.notes.push_back(fmt::format("{} damaged frames are shown as the ones before them.", damaged_));
    std::vector<std::string> lines = script_.end;
    lines.insert(lines.end(), made_.notes.begin(), made_.notes.end());
    return writeCard(painter_->endCard(lines), made_.endPictures);
  }

  Result<void> writeCard(const cv::Mat& card, std::size_t pictures) {
    for (std::size_t k = 0; k < pictures; ++k) {
      if (auto ok = write(card, {}); !ok) return ok;
    }
    return {};
  }

  Result<void> writeTurn(std::optional<std::size_t> heard) {
    std::vector<std::unique_ptr<FrameSource>> readers;
    for (const FilmClip& one : clips_) {
      auto reader = Clip::reader(one.clip, {});
      if (!reader) return tl::unexpected(reader.error());
      readers.push_back(std::move(*reader));
    }
    const std::vector<float> silence;
    const std::vector<float>& sound = heard ? sounds_.of[*heard] : silence;
    for (std::size_t k = 0; k < plan_.pictures; ++k) {
      if (auto ok = showFrames(readers, k); !ok) return ok;
      const auto at = [&](std::size_t picture) { return sound.size() * picture / plan_.pictures; };
      const std::span<const float> part = std::span(sound).subspan(at(k), at(k + 1) - at(k));
      if (auto ok = write(painter_->picture(k, heard), part); !ok) return ok;
    }
    return {};
  }

  /// Passes whose frame is another one than before, side by side.
  Result<void> showFrames(const std::vector<std::unique_ptr<FrameSource>>& readers, std::size_t picture) {
    std::vector<std::future<Result<bool>>> shown;
    for (std::size_t i = 0; i < readers.size(); ++i) {
      const std::size_t frame = plan_.passes[i].frames[picture];
      if (picture > 0 && plan_.passes[i].frames[picture - 1] == frame) continue;
      const auto show = [this, i, frame, &reader = *readers[i]]() -> Result<bool> {
        const auto decoded = reader.frame(frame);
        if (decoded) painter_->show(i, *decoded, frame);
        if (!decoded && decoded.error().code != ErrorCode::Damaged) return tl::unexpected(decoded.error());
        return decoded.has_value();
      };
      shown.push_back(std::async(readers.size() > 1 ? std::launch::async : std::launch::deferred, show));
    }
    Result<void> out;
    for (auto& one : shown) {
      const Result<bool> whole = one.get();
      if (!whole) {
        out = tl::unexpected(whole.error());
      } else if (!*whole) {
        ++damaged_;
      }
    }
    return out;
  }

  /// Where there is sound, a card is silent for as long as it is shown.
  Result<void> write(const cv::Mat& picture, std::span<const float> sound) {
    if (job_.cancelled()) return failure(ErrorCode::Cancelled, "making the film was stopped");
    if (auto ok = writer_->add(picture, Seconds(static_cast<double>(written_) / script_.rate_Hz)); !ok)
      return ok;
    ++written_;
    const double all = static_cast<double>(made_.titlePictures + made_.pictures + made_.endPictures);
    job_.report(static_cast<double>(written_) / all);
    if (sounds_.heard.empty()) return {};
    if (auto ok = settle(); !ok) return ok;
    if (!sound.empty()) {
      soundWritten_ += sound.size();
      return writer_->addSound(sound);
    }
    const auto due = static_cast<std::size_t>(
        std::lround(static_cast<double>(written_) / script_.rate_Hz * publishing::kFilmSound_Hz));
    const std::vector<float> silence(due > soundWritten_ ? due - soundWritten_ : 0, 0.0F);
    soundWritten_ += silence.size();
    return writer_->addSound(silence);
  }

  /// Waits for the picture that is being written.
  Result<void> settle() { return writing_.valid() ? writing_.get() : Result<void>(); }

  const FilmScript& script_;
  const JobControl& job_;
  std::vector<FilmClip> clips_;
  FilmPlan plan_;
  FilmSounds sounds_;
  std::vector<std::optional<std::size_t>> turns_;  ///< the pass that is heard, or none
  std::unique_ptr<FilmPainter> painter_;
  std::unique_ptr<ClipWriter> writer_;
  std::size_t written_ = 0;
  std::size_t soundWritten_ = 0;
  std::size_t damaged_ = 0;
  FilmMade made_;
  std::future<Result<void>> writing_;  ///< last, so that it is waited for before anything else goes
};

}  // namespace

Result<FilmMade> makeFilm(const FilmScript& script, const fs::path& file, const JobControl& job) {
  if (auto ok = validate(script); !ok) return tl::unexpected(ok.error());
  if (auto ok = checkEnding(file); !ok) return tl::unexpected(ok.error());
  return FilmMaking(script, job).into(file);
}

}  // namespace fin
