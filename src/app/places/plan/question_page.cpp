// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/question_page.h"

#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QStringList>
#include <QVBoxLayout>
#include <algorithm>

#include "app/phrases/words.h"
#include "app/ui/pieces.h"
#include "core/planning/questions.h"
#include "core/units/date.h"

namespace fin::app {
namespace {

QString text(std::string_view words) {
  return QString::fromUtf8(words.data(), static_cast<qsizetype>(words.size()));
}

QFrame* proposalCard(const Proposal& p) {
  auto* box = card();
  auto* layout = new QVBoxLayout(box);
  layout->setContentsMargins(12, 8, 12, 8);
  layout->setSpacing(2);
  layout->addWidget(headingLabel(QString("%1, %2").arg(spokenName(p.protocol), spokenName(p.view))));
  QStringList marks;
  for (MarkName m : p.marks) marks << spokenName(m).toLower();
  layout->addWidget(
      faintLabel(QObject::tr("%1 passes of each rig%2. Marks: %3.")
                     .arg(p.passes)
                     .arg(p.severalSpeeds ? QObject::tr(" at each of several speeds") : QString(),
                          marks.isEmpty() ? QObject::tr("the outline, or none") : marks.join(", "))));
  layout->addWidget(faintRichLabel(QObject::tr("<b>Shows</b> %1.").arg(text(p.shows).toHtmlEscaped())));
  layout->addWidget(
      faintRichLabel(QObject::tr("<b>Does not show</b> %1.").arg(text(p.cannotShow).toHtmlEscaped())));
  return box;
}

}  // namespace

QuestionPage::QuestionPage(DayController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      name_(new QLineEdit),
      date_(new QLineEdit),
      people_(new QLineEdit),
      asked_(new QListWidget),
      answers_(new QScrollArea) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(16);
  auto* left = new QVBoxLayout;
  left->addWidget(headingLabel(tr("What do you want to know today?")));
  left->addWidget(asked_, 1);
  auto* nameRow = new QHBoxLayout;
  auto* nameLabel = new QLabel(tr("The day's name"));
  nameLabel->setBuddy(name_);
  nameRow->addWidget(nameLabel);
  nameRow->addWidget(name_, 1);
  auto* whenRow = new QHBoxLayout;
  auto* dateLabel = new QLabel(tr("Date"));
  dateLabel->setBuddy(date_);
  whenRow->addWidget(dateLabel);
  whenRow->addWidget(date_);
  auto* peopleLabel = new QLabel(tr("Who is there"));
  peopleLabel->setBuddy(people_);
  whenRow->addWidget(peopleLabel);
  whenRow->addWidget(people_, 1);
  left->addLayout(nameRow);
  left->addLayout(whenRow);
  row->addLayout(left, 3);
  auto* right = new QVBoxLayout;
  right->addWidget(headingLabel(tr("These passes answer it")));
  right->addWidget(answers_, 1);
  row->addLayout(right, 2);

  name_->setObjectName("dayName");
  date_->setObjectName("dayDate");
  date_->setAccessibleName(tr("Date of the day: year, month, day"));
  date_->setPlaceholderText(tr("2026-11-29"));
  date_->setMaximumWidth(110);
  people_->setObjectName("dayPeople");
  people_->setAccessibleName(tr("Who is there"));
  asked_->setObjectName("questions");
  asked_->setWordWrap(true);
  asked_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  asked_->setWordWrap(true);
  asked_->setSpacing(4);
  asked_->setAccessibleName(tr("Questions"));
  answers_->setWidgetResizable(true);
  for (const Question& q : questions()) {
    auto* item = new QListWidgetItem(text(q.asked), asked_);
    item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
    item->setData(Qt::UserRole, text(q.key));
    item->setCheckState(Qt::Unchecked);
  }
  connect(asked_, &QListWidget::itemChanged, this, &QuestionPage::takeQuestions);
  connect(name_, &QLineEdit::editingFinished, this, [this] {
    controller_.edit(tr("Name the day"), [this](DayPlan& plan) { plan.name = name_->text().toStdString(); });
  });
  connect(date_, &QLineEdit::editingFinished, this, [this] {
    const QString text = date_->text().trimmed();
    const bool good = text.isEmpty() || dayNumberOf(text.toStdString());
    setLook(*date_, "trouble", !good);
    date_->setToolTip(good ? QString() : tr("%1 is no date. Write it like 2026-11-29.").arg(text));
    if (good)
      controller_.edit(tr("Date of the day"), [&text](DayPlan& plan) { plan.date = text.toStdString(); });
  });
  connect(people_, &QLineEdit::editingFinished, this, [this] {
    controller_.edit(tr("Who is there"),
                     [this](DayPlan& plan) { plan.people = people_->text().toStdString(); });
  });
  connect(&controller, &DayController::planChanged, this, &QuestionPage::refresh);
  refresh();
}

void QuestionPage::takeQuestions() {
  controller_.edit(tr("Ask a question"), [this](DayPlan& plan) {
    plan.questions.clear();
    for (int i = 0; i < asked_->count(); ++i) {
      if (asked_->item(i)->checkState() != Qt::Checked) continue;
      plan.questions.push_back(asked_->item(i)->data(Qt::UserRole).toString().toStdString());
    }
    std::vector<double> speeds;
    for (const SheetTask& task : plan.options.tasks) {
      if (!task.speeds_mm_s.empty()) speeds = task.speeds_mm_s;
    }
    plan.options.tasks = tasksFor(plan.questions, speeds, plan.options.camerasTogether);
    int passes = 1;
    for (const Proposal& p : proposalsFor(plan.questions)) passes = std::max(passes, p.passes);
    plan.options.repeats = passes;
  });
}

void QuestionPage::refresh() {
  const QSignalBlocker quiet(asked_);
  const auto& chosen = controller_.plan().questions;
  for (int i = 0; i < asked_->count(); ++i) {
    const std::string key = asked_->item(i)->data(Qt::UserRole).toString().toStdString();
    const bool on = std::find(chosen.begin(), chosen.end(), key) != chosen.end();
    asked_->item(i)->setCheckState(on ? Qt::Checked : Qt::Unchecked);
  }
  if (!name_->hasFocus()) {
    name_->setText(QString::fromStdString(controller_.plan().name));
    name_->setCursorPosition(0);
  }
  if (!date_->hasFocus()) {
    date_->setText(QString::fromStdString(dateOf(controller_.plan())));
    setLook(*date_, "trouble", false);
  }
  if (!people_->hasFocus()) people_->setText(QString::fromStdString(controller_.plan().people));
  auto* content = new QWidget;
  auto* layout = new QVBoxLayout(content);
  layout->setContentsMargins(0, 0, 6, 0);
  const auto proposals = proposalsFor(chosen);
  for (const Proposal& p : proposals) layout->addWidget(proposalCard(p));
  if (proposals.empty())
    layout->addWidget(faintLabel(tr("Tick what you want to know; what to film follows from it.")));
  layout->addStretch();
  answers_->setWidget(content);
}

}  // namespace fin::app
