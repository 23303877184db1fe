// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/film_maker.h"

#include "app/phrases/publish_words.h"
#include "core/exchange/film_json.h"
#include "core/publishing/filmed_pass.h"
#include "core/units/whole_file.h"

namespace fin::app {
namespace {

constexpr double kReadingShare = 0.2;  ///< of the work, where readings are taken as they arise

/// Everything in it; for a single pass its readings as they arise.
Result<FilmScript> scriptOf(const FilmOrder& order, const JobControl& job) {
  FilmScript out = order.script;
  const FilmLanguage language = filmLanguage(order.units);
  for (const FilmedPassOrder& one : order.passes) {
    const StudiedPass& pass = one.pass;
    FilmPass said{.clip = pass.request.clip,
                  .captureRate = pass.request.captureRate,
                  .byField = pass.request.byField,
                  .instant_s = one.instant_s,
                  .caption = pass.rig.toStdString(),
                  .note = one.note.toStdString()};
    if (pass.result) said = filmedPass(pass.request, *pass.result, language, std::move(said));
    out.passes.push_back(std::move(said));
  }
  for (const FilmPass& pass : out.passes) {
    if (out.sound == FilmSound::Matched && !pass.quietFrom_s)
      return failure(ErrorCode::BadRequest,
                     QObject::tr("%1: its still water is not marked. Mark it on the Bench with Q, or take "
                                 "the sound as recorded.")
                         .arg(QString::fromStdString(pass.caption))
                         .toStdString(),
                     "quiet");
  }
  const StudiedPass& first = order.passes.front().pass;
  if (order.passes.size() > 1 || !first.result) return out;
  auto words = readingsAsTheyArise(first.request, *first.result, first.clip, language, job);
  if (!words) return tl::unexpected(words.error());
  out.passes.front().readings = std::move(*words);
  return out;
}

}  // namespace

void FilmMaker::make(const FilmOrder& order, const QString& file) {
  start([order, file](const JobControl& job) -> Result<QString> {
    const double begins = order.passes.size() == 1 ? kReadingShare : 0.0;
    const auto script = scriptOf(order, partOf(job, 0.0, begins));
    if (!script) return tl::unexpected(script.error());
    const auto made = makeFilm(*script, file.toStdString(), partOf(job, begins, 1.0));
    if (!made) return tl::unexpected(made.error());
    return tr("Made: %1, %2 s long.").arg(file).arg(made->length_s, 0, 'f', 1);
  });
}

void FilmMaker::writeScript(const FilmOrder& order, const QString& file) {
  start([order, file](const JobControl& job) -> Result<QString> {
    const auto script = scriptOf(order, job);
    if (!script) return tl::unexpected(script.error());
    const std::filesystem::path place = file.toStdString();
    if (auto ok = writeWhole(place, writeFilm(*script, place.parent_path())); !ok)
      return tl::unexpected(ok.error());
    return tr("Written: %1. The command line makes the film of it: agile-fin-cli film.").arg(file);
  });
}

}  // namespace fin::app
