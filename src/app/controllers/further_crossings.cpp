// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/further_crossings.h"

#include "app/controllers/pass_changes.h"
#include "app/phrases/words.h"

namespace fin::app {

FurtherCrossings::FurtherCrossings(PassController& controller, QObject* parent)
    : QObject(parent), controller_(controller) {
  connect(&controller, &PassController::passChanged, this, [this] {
    if (looking()) stop();
    splitting_.stop();
  });
}

void FurtherCrossings::look() {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr || !controller_.clip() || controller_.result() == nullptr || looking()) return;
  looking_.start(
      [clip = controller_.clip(), request = pass->request,
       track = controller_.result()->track](const JobControl& job) -> Result<std::vector<PassRequest>> {
        auto source = Clip::reader(clip, {});
        if (!source) return tl::unexpected(source.error());
        return furtherPasses(request, track, **source, job);
      },
      [this, kept = *pass](Result<std::vector<PassRequest>> further) { keep(kept, std::move(further)); },
      [this](double share, double) { emit progressed(share); });
  emit changed();
}

void FurtherCrossings::split() {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr || !controller_.clip() || controller_.result() == nullptr) return;
  splitting_.start(
      [clip = controller_.clip(), request = pass->request, track = controller_.result()->track](
          const JobControl& job) { return measureStretches(request, track, clip, job); },
      [this, kept = *pass](const Result<std::vector<MeasuredPart>>& parts) { keepParts(kept, parts); });
}

void FurtherCrossings::keepParts(const LoggedPass& pass, const Result<std::vector<MeasuredPart>>& parts) {
  if (!parts) return emit told(QString::fromStdString(parts.error().message), true);
  if (parts->empty())
    return emit told(tr("The lure does one thing all along, as far as can be told."), false);
  QStringList names;
  for (const MeasuredPart& part : *parts) names << spokenName(part.request.protocol).toLower();
  controller_.add(tr("Split by what the lure does"), asPasses(pass, *parts));
  emit told(tr("Each a pass of its own now: %1. Move its window if a cut is off.").arg(names.join(", ")),
            false);
}

void FurtherCrossings::stop() {
  looking_.stop();
  emit changed();
}

void FurtherCrossings::keep(const LoggedPass& pass, Result<std::vector<PassRequest>> further) {
  emit changed();
  if (!further) return emit told(QString::fromStdString(further.error().message), true);
  if (further->empty())
    return emit told(tr("The lure does not come back: it was not found in the picture again."), false);
  std::vector<NewPass> passes;
  for (std::size_t i = 0; i < further->size(); ++i)
    passes.push_back({pass.title + tr(", way %1").arg(i + 2).toStdString(), (*further)[i], pass.clip,
                      pass.planned, pass.camera, pass.day});
  controller_.add(tr("Make further passes"), passes);
  emit told(tr("%1 through the picture, each a pass of its own now.")
                .arg(counted(further->size(), tr("further way"), tr("further ways"))),
            false);
}

}  // namespace fin::app
