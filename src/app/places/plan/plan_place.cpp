// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/plan_place.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/places/plan/conditions_page.h"
#include "app/places/plan/equal_page.h"
#include "app/places/plan/filming_page.h"
#include "app/places/plan/foretell_page.h"
#include "app/places/plan/question_page.h"
#include "app/places/plan/rack_page.h"
#include "app/places/plan/rules_page.h"
#include "app/places/plan/sheet_page.h"
#include "app/places/plan/speeds_page.h"
#include "app/places/plan/tie_on_page.h"
#include "app/places/plan/water_day_page.h"
#include "app/places/plan/water_page.h"
#include "app/print/sheets.h"
#include "app/print/writing.h"
#include "app/ui/files.h"
#include "app/ui/pieces.h"

namespace fin::app {

PlanPlace::PlanPlace(LogBook& book, WaterController& water, QWidget* parent)
    : QWidget(parent), water_(water), pages_(new QStackedWidget), rack_(new RackPage(book.days())) {
  DayController& controller = book.days();
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(14, 12, 14, 12);
  row->setSpacing(18);
  auto* left = new QVBoxLayout;
  left->setSpacing(6);
  row->addLayout(left);
  row->addWidget(pages_, 1);

  QWidget* const pages[] = {new QuestionPage(controller), rack_,
                            new WaterPage(controller),    new FilmingPage(controller),
                            new EqualPage(controller),    new SheetPage(controller),
                            new ForetellPage(book),       new WaterDayPage(water),
                            new ConditionsPage(water),    new TieOnPage(water),
                            new RulesPage(water),         new SpeedsPage(water)};
  for (QWidget* page : pages) {
    auto* step = new QPushButton;
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
  // A day on the water begins with its own page, before the rack.
  left->insertWidget(0, steps_[static_cast<std::size_t>(Page::WaterDay)]);
  connect(&water_, &WaterController::changed, this, &PlanPlace::showSteps);
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
  titles_.resize(steps_.size());
  showSteps();
}

/// Those of the chosen day's kind.
void PlanPlace::showSteps() {
  const bool wet = water_.onTheWater();
  const std::vector<std::pair<Page, QString>> dry{
      {Page::Question, tr("Question")}, {Page::Rack, tr("Rack")},        {Page::Water, tr("Water")},
      {Page::Cameras, tr("Cameras")},   {Page::Equal, tr("Held equal")}, {Page::Sheet, tr("Pass sheet")},
      {Page::Foretell, tr("Foretell")}};
  const std::vector<std::pair<Page, QString>> onTheWater{
      {Page::WaterDay, tr("The day")}, {Page::Rack, tr("Rack")},         {Page::Conditions, tr("Conditions")},
      {Page::TieOn, tr("Tie on")},     {Page::Opinions, tr("Opinions")}, {Page::Speeds, tr("Speeds")}};
  const auto& steps = wet ? onTheWater : dry;
  bool here = false;
  for (std::size_t i = 0; i < steps_.size(); ++i) {
    const auto step = std::find_if(steps.begin(), steps.end(),
                                   [i](const auto& s) { return s.first == static_cast<Page>(i); });
    steps_[i]->setVisible(step != steps.end());
    if (step == steps.end()) continue;
    titles_[i] = step->second;
    steps_[i]->setText(QString("%1  %2").arg(step - steps.begin() + 1).arg(step->second));
    here = here || pages_->currentIndex() == static_cast<int>(i);
  }
  go(here ? static_cast<Page>(pages_->currentIndex()) : steps.front().first);
}

void PlanPlace::go(Page page) {
  const auto index = static_cast<int>(page);
  pages_->setCurrentIndex(index);
  for (std::size_t i = 0; i < steps_.size(); ++i) steps_[i]->setChecked(static_cast<int>(i) == index);
}

}  // namespace fin::app
