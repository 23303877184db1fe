// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/sight_card.h"

#include <QGridLayout>
#include <QSignalBlocker>

#include "app/ui/pieces.h"
#include "app/ui/settings.h"

namespace fin::app {
namespace {

constexpr double kLongestLure_mm = 2000.0;
constexpr double kUsualU95_mm = 0.5;
constexpr double kUsualAngleU95_deg = 3.0;

}  // namespace

SightCard::SightCard(PassController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      length_(
          new UnitBox(tr("The lure's length from nose mark to tail mark"), "mm", {0.0, kLongestLure_mm, 1})),
      unsure_(new UnitBox(tr("How far that may be off"), "mm", {0.05, 50.0, 2})),
      sideLabel_(new QLabel(tr("The camera swims"))),
      side_(new QComboBox),
      angle_(new UnitBox(tr("Heading out of the picture, nose away positive"), "°", {-89.0, 89.0, 0})),
      angleUnsure_(new UnitBox(tr("How far the heading may be off"), "°", {0.5, 30.0, 1})) {
  length_->setObjectName("ownLength");
  length_->setSpecialValueText(tr("not the ruler"));
  unsure_->setObjectName("ownLengthU95");
  side_->setObjectName("seenFrom");
  side_->setAccessibleName(sideLabel_->text());
  for (const auto& [text, from] : {std::pair(tr("beside it"), SeenFrom::Side),
                                   {tr("behind it"), SeenFrom::Behind},
                                   {tr("ahead of it"), SeenFrom::Ahead},
                                   {tr("above it"), SeenFrom::Above}})
    side_->addItem(text, static_cast<int>(from));
  angle_->setObjectName("viewAngle");
  angleUnsure_->setObjectName("viewAngleU95");
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->addWidget(
      faintLabel(tr("From nose mark to tail mark. Where no ruler is in the picture, sizes come from it.")), 0,
      0, 1, 3);
  grid->addWidget(new QLabel(tr("Own length")), 1, 0);
  grid->addWidget(length_, 1, 1);
  unsure_->setPrefix("± ");
  grid->addWidget(unsure_, 1, 2);
  grid->addWidget(sideLabel_, 2, 0);
  grid->addWidget(side_, 2, 1, 1, 2);
  grid->addWidget(
      faintLabel(
          tr("Seen from the side, a wobble shows best 20 to 30° askew. Say the angle if you know it.")),
      3, 0, 1, 3);
  grid->addWidget(new QLabel(tr("Askew by")), 4, 0);
  grid->addWidget(angle_, 4, 1);
  angleUnsure_->setPrefix("± ");
  grid->addWidget(angleUnsure_, 4, 2);
  connect(length_, &UnitBox::edited, this, &SightCard::keepLength);
  connect(unsure_, &UnitBox::edited, this, &SightCard::keepLength);
  connect(angle_, &UnitBox::edited, this, &SightCard::keepAngle);
  connect(angleUnsure_, &UnitBox::edited, this, &SightCard::keepAngle);
  connect(side_, &QComboBox::activated, this, [this] {
    const auto from = static_cast<SeenFrom>(side_->currentData().toInt());
    controller_.edit(tr("Say from where it is seen"), [from](PassRequest& r) { r.seenFrom = from; });
  });
  connect(&controller, &PassController::passChanged, this, &SightCard::refresh);
  connect(&controller, &PassController::requestChanged, this, &SightCard::refresh);
  connect(&controller, &PassController::resultChanged, this, &SightCard::refresh);
  connect(&Settings::all(), &Settings::unitsChanged, this, &SightCard::refresh);
}

void SightCard::keepLength() {
  const double metric = length_->metric();
  const Millimetres u95(unsure_->metric());
  controller_.edit(tr("Say the lure's own length"), [&](PassRequest& r) {
    r.ownLength = metric > 0.0 ? std::optional(OwnLength{Millimetres(metric), u95}) : std::nullopt;
  });
}

/// Square on and nothing known are the same: nothing is stated.
void SightCard::keepAngle() {
  const double deg = angle_->metric();
  const double u95 = angleUnsure_->metric();
  controller_.edit(tr("Say how it heads"), [&](PassRequest& r) {
    r.viewAngle = deg != 0.0 ? std::optional(StatedAngle{deg, u95}) : std::nullopt;
  });
}

bool SightCard::takeOrLeaveOwnLength() {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr) return true;
  std::optional<OwnLength> known;
  for (const LoggedPass& other : controller_.passes()) {
    if (other.request.ownLength && !other.request.rigName.empty() &&
        other.request.rigName == pass->request.rigName)
      known = other.request.ownLength;
  }
  if (pass->request.ownLength) known.reset();
  if (!pass->request.ownLength && !known) return false;
  controller_.edit(tr("Take the lure as the ruler"), [&](PassRequest& r) { r.ownLength = known; });
  return true;
}

void SightCard::refresh() {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr) return;
  const PassRequest& r = pass->request;
  length_->show(r.ownLength ? r.ownLength->length.value() : 0.0);
  unsure_->show(r.ownLength ? r.ownLength->u95.value() : kUsualU95_mm);
  side_->setCurrentIndex(side_->findData(static_cast<int>(r.seenFrom.value_or(SeenFrom::Side))));
  const bool chased = r.view == View::Chase;
  side_->setVisible(chased);
  sideLabel_->setVisible(chased);
  angle_->show(r.viewAngle ? r.viewAngle->deg : 0.0);
  angleUnsure_->show(r.viewAngle ? r.viewAngle->u95_deg : kUsualAngleU95_deg);
  QStringList state;
  if (r.ownLength)
    state << tr("The lure is a ruler of %1.")
                 .arg(spokenAmount(r.ownLength->length.value(), "mm", 1, Settings::all().units()));
  if (r.viewAngle) state << tr("Askew by %1°.").arg(r.viewAngle->deg);
  emit stateChanged(state.isEmpty() ? tr("Not the ruler.") : state.join(" "));
}

}  // namespace fin::app
