// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/models/lens_desk.h"

namespace fin::app {

LensDesk::LensDesk(PassDesk& desk, Log& log, QObject* parent) : QObject(parent), desk_(desk), log_(log) {
  connect(&desk, &PassDesk::passChanged, this, [this] {
    solving_.stop();
    fit_.reset();
    emit changed();
  });
  connect(&desk, &PassDesk::requestChanged, this, &LensDesk::changed);
}

std::vector<KeptLens> LensDesk::fitting() const {
  std::vector<KeptLens> out;
  const auto all = log_.lenses();
  if (!all || !desk_.clip()) return out;
  for (const KeptLens& lens : *all) {
    if (lens.width_px == desk_.clip()->info().width_px && lens.height_px == desk_.clip()->info().height_px)
      out.push_back(lens);
  }
  return out;
}

void LensDesk::use(const std::optional<Lens>& lens) {
  desk_.edit(lens ? tr("Allow for the lens") : tr("Allow for no lens"),
             [lens](PassRequest& request) { request.lens = lens; });
}

void LensDesk::solve(const LensBoard& board) {
  if (!desk_.clip()) return;
  fit_.reset();
  const auto tellProgress = [this](double share) {
    QMetaObject::invokeMethod(
        this, [this, share] { emit progressed(share); }, Qt::QueuedConnection);
  };
  solving_.start(
      [clip = desk_.clip(), board, tellProgress](const std::stop_token& stop) -> Result<LensFit> {
        auto source = Clip::reader(clip, {});
        if (!source) return tl::unexpected(source.error());
        return lensFromClip(**source, board, {stop, tellProgress});
      },
      [this](Result<LensFit> fit) {
        if (fit) {
          fit_ = std::move(*fit);
        } else {
          emit told(QString::fromStdString(fit.error().message), true);
        }
        emit changed();
      });
  emit changed();
}

void LensDesk::stop() {
  solving_.stop();
  emit changed();
}

void LensDesk::keep(const QString& window) {
  if (!fit_ || desk_.current() == nullptr) return;
  const auto ok = log_.keepLens({desk_.current()->camera, fit_->width_px, fit_->height_px,
                                 window.toStdString(), fit_->lens, fit_->rms});
  if (!ok) emit told(QString::fromStdString(ok.error().message), true);
  emit changed();
}

}  // namespace fin::app
