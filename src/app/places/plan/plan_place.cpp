// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/plan_place.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/places/plan/equal_page.h"
#include "app/places/plan/filming_page.h"
#include "app/places/plan/foretell_page.h"
#include "app/places/plan/question_page.h"
#include "app/places/plan/rack_page.h"
#include "app/places/plan/sheet_page.h"
#include "app/places/plan/water_page.h"
#include "app/print/sheets.h"
#include "app/print/writing.h"
#include "app/ui/files.h"
#include "app/ui/pieces.h"

namespace fin::app {

PlanPlace::PlanPlace(LogBook& book, QWidget* parent)
    : QWidget(parent), pages_(new QStackedWidget), rack_(new RackPage(book.days())) {
  DayController& controller = book.days();
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(14, 12, 14, 12);
  row->setSpacing(18);
  auto* left = new QVBoxLayout;
  left->setSpacing(6);
  row->addLayout(left);
  row->addWidget(pages_, 1);

  const std::pair<QString, QWidget*> pages[] = {
      {tr("1  Question"), new QuestionPage(controller)}, {tr("2  Rack"), rack_},
      {tr("3  Water"), new WaterPage(controller)},       {tr("4  Cameras"), new FilmingPage(controller)},
      {tr("5  Held equal"), new EqualPage(controller)},  {tr("6  Pass sheet"), new SheetPage(controller)},
      {tr("7  Foretell"), new ForetellPage(book)}};
  for (const auto& [name, page] : pages) {
    auto* step = new QPushButton(name);
    step->setObjectName(QString("step%1").arg(steps_.size() + 1));
    step->setCheckable(true);
    step->setFixedWidth(136);
    step->setStyleSheet("text-align: left; padding-left: 12px;");
    const auto which = static_cast<Page>(steps_.size());
    connect(step, &QPushButton::clicked, this, [this, which] { go(which); });
    steps_.push_back(step);
    left->addWidget(step);
    pages_->addWidget(page);
  }
  left->addStretch();
  auto* problem = faintLabel({});
  problem->setFixedWidth(136);
  left->addWidget(problem);
  auto* print = namedButton(tr("Cautions, PDF …"), "printCautions");
  left->addWidget(print);
  connect(print, &QPushButton::clicked, this, [this, problem] {
    const QString file = askWhereTo(this, tr("Where to"), "cautions.pdf");
    if (file.isEmpty()) return;
    const auto done = printCautions(withEnding(file, ".pdf"));
    problem->setText(done ? QString() : QString::fromStdString(done.error().message));
  });
  go(Page::Question);
}

void PlanPlace::go(Page page) {
  const auto index = static_cast<int>(page);
  pages_->setCurrentIndex(index);
  for (std::size_t i = 0; i < steps_.size(); ++i) steps_[i]->setChecked(static_cast<int>(i) == index);
}

}  // namespace fin::app
