// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/welcome.h"

#include <QGridLayout>
#include <QVBoxLayout>

#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr int kButtonWidth_px = 240;
constexpr int kTextWidth_px = 380;

}  // namespace

Welcome::Welcome(QWidget* parent) : QWidget(parent) {
  auto* title = new QLabel(tr("Measure how a lure moves"));
  setLetters(*title, "title");
  auto* ways = new QGridLayout;
  ways->setHorizontalSpacing(18);
  ways->setVerticalSpacing(14);
  const auto offer = [&](const QString& text, const char* name, const QString& what,
                         void (Welcome::*wanted)()) {
    const int row = ways->rowCount();
    auto* button = namedButton(text, name);
    button->setFixedWidth(kButtonWidth_px);
    button->setMinimumHeight(44);
    button->setProperty("primary", row == 1);
    auto* told = new QLabel(what);
    told->setWordWrap(true);
    told->setFixedWidth(kTextWidth_px);
    ways->addWidget(button, row, 0);
    ways->addWidget(told, row, 1);
    connect(button, &QPushButton::clicked, this, wanted);
  };
  offer(tr("Measure a clip …"), "welcomeMeasure",
        tr("Say how long something in the picture is and where the lure's nose and tail are. The numbers "
           "follow."),
        &Welcome::measureWanted);
  offer(tr("Plan a day"), "welcomePlan",
        tr("Choose your questions and your rigs. You get a list of passes to film, in a fair order."),
        &Welcome::planWanted);
  offer(
      tr("Look at the demo"), "welcomeDemo",
      tr("A made-up day with everything in it. It is filmed by the program itself, once, in a few minutes."),
      &Welcome::demoWanted);
  offer(tr("Open a log …"), "welcomeLog", tr("Go on with a day that you saved before."), &Welcome::logWanted);
  auto* layout = new QVBoxLayout(this);
  layout->addStretch();
  layout->addWidget(title, 0, Qt::AlignHCenter);
  layout->addSpacing(22);
  auto* middle = new QHBoxLayout;
  middle->addStretch();
  middle->addLayout(ways);
  middle->addStretch();
  layout->addLayout(middle);
  layout->addStretch();
}

}  // namespace fin::app
