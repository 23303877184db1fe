// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/lens_controller.h"

namespace fin::app {

LensController::LensController(PassController& controller, Log& log, QObject* parent)
    : QObject(parent), controller_(controller), log_(log) {
  connect(&controller, &PassController::passChanged, this, [this] {
    solving_.stop();
    fit_.reset();
    emit changed();
  });
  connect(&controller, &PassController::requestChanged, this, &LensController::changed);
}

std::vector<KeptLens> LensController::fitting() const {
  std::vector<KeptLens> out;
  const auto all = log_.lenses();
  if (!all || !controller_.clip()) return out;
  for (const KeptLens& lens : *all) {
    if (lens.width_px == controller_.clip()->info().width_px &&
        lens.height_px == controller_.clip()->info().height_px)
      out.push_back(lens);
  }
  return out;
}

void LensController::use(const std::optional<Lens>& lens) {
  controller_.edit(lens ? tr("Allow for the lens") : tr("Allow for no lens"),
                   [lens](PassRequest& request) { request.lens = lens; });
}

void LensController::solve(const LensBoard& board) {
  if (!controller_.clip()) return;
  fit_.reset();
  solving_.start(
      [clip = controller_.clip(), board](const JobControl& job) -> Result<LensFit> {
        auto source = Clip::reader(clip, {});
        if (!source) return tl::unexpected(source.error());
        return lensFromClip(**source, board, job);
      },
      [this](Result<LensFit> fit) {
        if (fit) {
          fit_ = std::move(*fit);
        } else {
          emit told(QString::fromStdString(fit.error().message), true);
        }
        emit changed();
      },
      [this](double share, double) { emit progressed(share); });
  emit changed();
}

void LensController::stop() {
  solving_.stop();
  emit changed();
}

void LensController::keep(const QString& window) {
  if (!fit_ || controller_.current() == nullptr) return;
  const auto ok = log_.keepLens({controller_.current()->camera, fit_->width_px, fit_->height_px,
                                 window.toStdString(), fit_->lens, fit_->rms});
  if (!ok) emit told(QString::fromStdString(ok.error().message), true);
  emit changed();
}

}  // namespace fin::app
