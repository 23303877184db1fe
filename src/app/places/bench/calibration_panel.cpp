// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/calibration_panel.h"

#include "app/places/bench/lens_card.h"
#include "app/places/bench/plane_card.h"
#include "app/places/bench/rate_card.h"
#include "app/places/bench/sharing_card.h"
#include "app/ui/pieces.h"

namespace fin::app {

CalibrationPanel::CalibrationPanel(const Models& models, QWidget* parent)
    : QScrollArea(parent), controller_(models.controller), layout_(new QVBoxLayout) {
  setWidgetResizable(true);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setFrameShape(QFrame::NoFrame);
  auto* content = new QWidget;
  content->setLayout(layout_);
  layout_->setContentsMargins(0, 0, 8, 0);
  layout_->setSpacing(7);
  auto* back = namedButton(tr("Back to the numbers"), "calibrationDone");
  layout_->addWidget(back);
  camera_ = add(tr("This camera, today"), "foldCamera", new CameraCard(models.controller, models.kept));
  add(tr("The true time"), "foldRate", new RateCard(models.controller));
  add(tr("A ruler in another plane"), "foldPlane", new PlaneCard(models.controller));
  sight_ = add(tr("The lure as a ruler; its heading"), "foldSight", new SightCard(models.controller));
  square_ = add(tr("Size from four corners"), "foldSquare", new SquareCard(models.controller));
  lines_ = add(tr("Plumb, waterline, bottom, pull"), "foldLines", new LinesCard(models.controller));
  auto* lens = add(tr("The lens"), "foldLens", new LensCard(models.controller, models.lenses));
  // Once the layout has made room for it.
  connect(
      lens, &LensCard::lensFound, this, [this](QWidget* shown) { ensureWidgetVisible(shown); },
      Qt::QueuedConnection);
  add(tr("Other cameras of this pass"), "foldSharing", new SharingCard(models.controller, models.sharing));
  layout_->addWidget(buildMoving());
  layout_->addStretch();
  setWidget(content);
  connect(back, &QPushButton::clicked, this, &CalibrationPanel::done);
  connect(&controller_, &PassController::passChanged, this, &CalibrationPanel::refresh);
  connect(&controller_, &PassController::requestChanged, this, &CalibrationPanel::refresh);
  refresh();
}

template <class Card>
Card* CalibrationPanel::add(const QString& title, const char* name, Card* card) {
  auto* fold = new Fold(title, name, card);
  folds_.push_back(fold);
  layout_->addWidget(fold);
  connect(card, &Card::stateChanged, fold, &Fold::setState);
  connect(fold, &Fold::opened, this, [this, fold] {
    for (Fold* other : folds_) {
      if (other != fold) other->setOpen(false);
    }
    QMetaObject::invokeMethod(
        this, [this, fold] { ensureWidgetVisible(fold); }, Qt::QueuedConnection);
  });
  return card;
}

QWidget* CalibrationPanel::buildMoving() {
  follow_ = new QCheckBox(tr("The camera moves: follow the background"));
  follow_->setObjectName("followBackground");
  follow_->setToolTip(tr("For a camera that moves along: what lies behind the lure tells how it moved."));
  connect(follow_, &QCheckBox::clicked, this, [this](bool on) {
    controller_.edit(tr("Follow the background"), [on](PassRequest& r) { r.followBackground = on; });
  });
  return follow_;
}

void CalibrationPanel::open(const char* fold) {
  if (auto* head = findChild<QPushButton*>(fold)) static_cast<Fold*>(head->parentWidget())->setOpen(true);
}

void CalibrationPanel::refresh() {
  const LoggedPass* pass = controller_.current();
  widget()->setEnabled(pass != nullptr && controller_.clip() != nullptr);
  if (pass == nullptr) return;
  follow_->setVisible(pass->request.view == View::Chase);
  follow_->setChecked(pass->request.followBackground);
}

}  // namespace fin::app
