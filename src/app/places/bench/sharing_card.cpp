// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/sharing_card.h"

#include "app/ui/pieces.h"

namespace fin::app {

SharingCard::SharingCard(PassController& controller, CameraSync& sharing, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      sharing_(sharing),
      mark_(namedButton(tr("All cameras: this moment"), "markShared")),
      align_(namedButton(tr("Line them up by their sound"), "alignBySound")),
      rows_(new QVBoxLayout) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(mark_);
  layout->addWidget(align_);
  layout->addLayout(rows_);
  connect(mark_, &QPushButton::clicked, &sharing, &CameraSync::markHere);
  connect(align_, &QPushButton::clicked, &sharing, &CameraSync::alignBySound);
  connect(&sharing, &CameraSync::changed, this, &SharingCard::refresh);
}

void SharingCard::refresh() {
  while (QLayoutItem* item = rows_->takeAt(0)) {
    item->widget()->deleteLater();
    delete item;
  }
  const LoggedPass* here = controller_.current();
  const auto partners = sharing_.partners();
  enableOr(*mark_, here != nullptr && here->planned.has_value(),
           tr("This clip belongs to no planned pass, so no other camera has filmed the same one."));
  enableOr(*align_, !partners.empty() && !sharing_.aligning(),
           partners.empty() ? tr("No other camera filmed this pass.") : tr("They are being lined up."));
  for (const LoggedPass& partner : partners) {
    const auto instant = sharing_.sameInstantIn(partner);
    const QString camera = partner.camera.empty() ? QString::fromStdString(partner.title)
                                                  : QString::fromStdString(partner.camera);
    auto* show =
        namedButton(instant ? tr("%1: the same moment, %2 s").arg(camera).arg(instant->value(), 0, 'f', 3)
                            : tr("%1: not lined up yet").arg(camera),
                    "showPartner");
    enableOr(*show, instant && instant->value() >= 0.0,
             instant ? tr("That camera was not running yet.") : tr("Line the cameras up first."));
    connect(show, &QPushButton::clicked, this, [this, id = partner.id] { sharing_.show(id); });
    rows_->addWidget(show);
  }
  emit stateChanged(here == nullptr || !here->planned ? tr("This clip belongs to no planned pass.")
                    : partners.empty()                ? tr("No other clip of this pass has come in.")
                    : here->sharedInstant ? tr("The moment marked for all cameras is at %1 s of this clip.")
                                                .arg(here->sharedInstant->value(), 0, 'f', 3)
                                          : tr("Not lined up with %1 other clips.").arg(partners.size()));
}

}  // namespace fin::app
