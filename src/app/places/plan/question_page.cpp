// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/question_page.h"

#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QStringList>
#include <QVBoxLayout>
#include <algorithm>

#include "app/phrases/words.h"
#include "app/places/plan/day_fields.h"
#include "app/ui/pieces.h"
#include "core/planning/questions.h"

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
    : QWidget(parent), controller_(controller), asked_(new QListWidget), answers_(new QScrollArea) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(16);
  auto* left = new QVBoxLayout;
  left->addWidget(headingLabel(tr("What do you want to know today?")));
  left->addWidget(asked_, 1);
  left->addWidget(new DayFields(controller));
  row->addLayout(left, 3);
  auto* right = new QVBoxLayout;
  right->addWidget(headingLabel(tr("These passes answer it")));
  right->addWidget(answers_, 1);
  row->addLayout(right, 2);

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
