// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/lines_card.h"

#include <QGridLayout>

#include "app/ui/pieces.h"

namespace fin::app {
namespace {

using Line = LinesCard::Line;

constexpr Line kLines[] = {Line::Plumb, Line::Waterline, Line::Bottom, Line::Pull};

QString nameOf(Line line) {
  switch (line) {
    case Line::Plumb:
      return QObject::tr("Plumb line");
    case Line::Waterline:
      return QObject::tr("Waterline");
    case Line::Bottom:
      return QObject::tr("Bottom");
    case Line::Pull:
      return QObject::tr("Pull line");
  }
  return {};
}

std::optional<PixelLine>& lineOf(PassRequest& request, Line line) {
  switch (line) {
    case Line::Plumb:
      return request.plumb;
    case Line::Waterline:
      return request.waterline;
    case Line::Bottom:
      return request.bottom;
    case Line::Pull:
      break;
  }
  return request.pullLine;
}

}  // namespace

LinesCard::LinesCard(PassController& controller, QWidget* parent) : QWidget(parent), controller_(controller) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(4);
  int row = 0;
  for (const Line line : kLines) {
    const QByteArray number = QByteArray::number(++row);
    auto* draw = namedButton(nameOf(line), "line" + number);
    auto* find = namedButton(tr("Find"), "findLine" + number);
    find->setAccessibleName(tr("Find: %1").arg(nameOf(line)));
    find->setToolTip(tr("Shows straight edges of this picture, of which you take one."));
    auto* away = namedButton(tr("Away"), "lineAway" + number);
    away->setAccessibleName(tr("Take away: %1").arg(nameOf(line)));
    grid->addWidget(draw, row, 0);
    grid->addWidget(find, row, 1);
    grid->addWidget(away, row, 2);
    away_.push_back(away);
    connect(draw, &QPushButton::clicked, this, [this, line] { emit lineWanted(line); });
    connect(find, &QPushButton::clicked, this, [this, line] { emit foundLinesWanted(line); });
    connect(away, &QPushButton::clicked, this, [this, line] {
      controller_.edit(tr("Take a line away"), [line](PassRequest& r) { lineOf(r, line).reset(); });
    });
  }
  connect(&controller, &PassController::passChanged, this, &LinesCard::refresh);
  connect(&controller, &PassController::requestChanged, this, &LinesCard::refresh);
}

void LinesCard::takeLine(Line line, const PixelLine& drawn) {
  controller_.edit(tr("Draw a line"), [&](PassRequest& r) { lineOf(r, line) = drawn; });
}

void LinesCard::refresh() {
  if (controller_.current() == nullptr) return;
  PassRequest request = controller_.current()->request;
  QStringList drawn;
  for (std::size_t i = 0; i < away_.size(); ++i) {
    const bool there = lineOf(request, kLines[i]).has_value();
    enableOr(*away_[i], there, tr("This line is not marked."));
    if (there) drawn << nameOf(kLines[i]);
  }
  emit stateChanged(drawn.isEmpty() ? tr("None; up is taken from the picture.") : drawn.join(", ") + ".");
}

}  // namespace fin::app
