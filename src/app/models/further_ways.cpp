// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/models/further_ways.h"

#include "app/commands/pass_commands.h"
#include "app/look/words.h"

namespace fin::app {

FurtherWays::FurtherWays(PassDesk& desk, Log& log, QUndoStack& undo, QObject* parent)
    : QObject(parent), desk_(desk), log_(log), undo_(undo) {
  connect(&desk, &PassDesk::passChanged, this, [this] {
    if (looking()) stop();
  });
}

void FurtherWays::look() {
  const LoggedPass* pass = desk_.current();
  if (pass == nullptr || !desk_.clip() || desk_.result() == nullptr || looking()) return;
  const auto tellProgress = [this](double share) {
    QMetaObject::invokeMethod(
        this, [this, share] { emit progressed(share); }, Qt::QueuedConnection);
  };
  looking_.start(
      [clip = desk_.clip(), request = pass->request, track = desk_.result()->track,
       tellProgress](const std::stop_token& stop) -> Result<std::vector<PassRequest>> {
        auto source = Clip::reader(clip, {});
        if (!source) return tl::unexpected(source.error());
        return furtherPasses(request, track, **source, {stop, tellProgress});
      },
      [this, kept = *pass](Result<std::vector<PassRequest>> further) { keep(kept, std::move(further)); });
  emit changed();
}

void FurtherWays::stop() {
  looking_.stop();
  emit changed();
}

void FurtherWays::keep(const LoggedPass& pass, Result<std::vector<PassRequest>> further) {
  emit changed();
  if (!further) return emit told(QString::fromStdString(further.error().message), true);
  if (further->empty())
    return emit told(tr("The lure does not come back: it was not found in the picture again."), false);
  undo_.beginMacro(tr("Make further passes"));
  for (std::size_t i = 0; i < further->size(); ++i) {
    const auto id = log_.addPass(pass.title + tr(", way %1").arg(i + 2).toStdString(), (*further)[i]);
    const auto assigned = id ? log_.assign(*id, pass.planned, pass.camera) : Result<void>{};
    if (!id || !assigned) {
      emit told(QString::fromStdString((!id ? id.error() : assigned.error()).message), true);
      break;
    }
    undo_.push(new ShowPass(desk_, *id, tr("Make a further pass"), false));
  }
  undo_.endMacro();
  emit told(tr("%1 through the picture, each a pass of its own now.")
                .arg(counted(further->size(), tr("further way"), tr("further ways"))),
            false);
}

}  // namespace fin::app
