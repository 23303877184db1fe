// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/square_card.h"

#include <QGridLayout>
#include <QLabel>

#include "app/ui/pieces.h"

namespace fin::app {
namespace {

constexpr double kPoorResidual_px = 2.0;

}  // namespace

SquareCard::SquareCard(PassController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      width_(new UnitBox(tr("Upper side"), "mm", {0.0, 20000.0, 1})),
      height_(new UnitBox(tr("Right side"), "mm", {0.0, 20000.0, 1})),
      away_(namedButton(tr("Take away"), "squareAway")) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->addWidget(
      faintLabel(tr("A tile or a slate in the lure's plane. It also tells how far the camera stands "
                    "askew, and allows for it.")),
      0, 0, 1, 2);
  int row = 1;
  for (const auto& [box, name, text] :
       {std::tuple(width_, "squareWidth", tr("Upper side")), {height_, "squareHeight", tr("Right side")}}) {
    box->setObjectName(name);
    box->show(200.0);
    auto* label = new QLabel(text);
    label->setBuddy(box);
    grid->addWidget(label, row, 0);
    grid->addWidget(box, row++, 1);
    connect(box, &UnitBox::edited, this, [this] {
      controller_.edit(tr("Say the sides"), [this](PassRequest& r) {
        if (!r.square) return;
        r.square->width = Millimetres(width_->metric());
        r.square->height = Millimetres(height_->metric());
      });
    });
  }
  auto* corners = namedButton(tr("Its four corners"), "squareCorners");
  grid->addWidget(corners, row, 0);
  grid->addWidget(away_, row, 1);
  connect(corners, &QPushButton::clicked, this, &SquareCard::cornersWanted);
  connect(away_, &QPushButton::clicked, this,
          [this] { controller_.edit(tr("Take the square away"), [](PassRequest& r) { r.square.reset(); }); });
  connect(&controller, &PassController::passChanged, this, &SquareCard::refresh);
  connect(&controller, &PassController::requestChanged, this, &SquareCard::refresh);
}

void SquareCard::takeCorners(const std::vector<PixelPoint>& corners) {
  SquareMark mark{{}, Millimetres(width_->metric()), Millimetres(height_->metric())};
  std::copy_n(corners.begin(), mark.corners.size(), mark.corners.begin());
  controller_.edit(tr("Set the square"), [&](PassRequest& r) {
    r.square = mark;
    r.scale.reset();
  });
}

QString SquareCard::stateText(const SquareMark& mark) const {
  const auto scale = scaleOf(controller_.current()->request, controller_.current()->request.scalePlane);
  const ClipInfo& info = controller_.clip()->info();
  const auto check = checkSquare(mark, controller_.current()->request.lens, info.width_px, info.height_px);
  if (!scale || !*scale) return {};
  if (!check) return QString::fromStdString(check.error().message);
  QString text = tr("%1 mm/px ± %2 %, the camera %3° askew, corners off by %4 px.")
                     .arg((*scale)->mmPerPixel(), 0, 'f', 3)
                     .arg(100.0 * (*scale)->relativeU95(), 0, 'f', 1)
                     .arg(check->tilt_deg, 0, 'f', 0)
                     .arg(check->residual.value(), 0, 'f', 1);
  if (check->residual.value() > kPoorResidual_px)
    text += tr(" That is no rectangle: press on the corners again, or check the sides.");
  return text;
}

void SquareCard::refresh() {
  if (controller_.current() == nullptr || !controller_.clip()) return;
  const auto& square = controller_.current()->request.square;
  enableOr(*away_, square.has_value(), tr("No corners are marked."));
  if (square) {
    width_->show(square->width.value());
    height_->show(square->height.value());
  }
  emit stateChanged(square ? stateText(*square) : tr("None; a length is used."));
}

}  // namespace fin::app
