// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/rules_page.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

#include "app/ui/pieces.h"

namespace fin::app {

RulesPage::RulesPage(WaterController& water, QWidget* parent)
    : QWidget(parent),
      water_(water),
      table_(new RowTable({tr("Rule"), tr("When"), tr("Wants"), tr("Because")}, "rules", tr("Add a rule"),
                          tr("Write them as they stand here: + more, - less, -> near, x2 counts double."))) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(headingLabel(tr("Anglers' opinions, as you hold them")));
  layout->addWidget(table_, 1);
  auto* row = new QHBoxLayout;
  auto* usual = namedButton(tr("All as they were"), "usualRules");
  row->addWidget(usual);
  row->addStretch();
  layout->addLayout(row);
  connect(usual, &QPushButton::clicked, this, [this] {
    water_.days().edit(tr("Rules as they were"), [](DayPlan& plan) { plan.rules.clear(); });
  });
  connect(table_, &RowTable::typed, this, &RulesPage::typed);
  connect(table_, &RowTable::addWanted, this, [this] {
    const std::int64_t id = water_.days().freeId() + static_cast<std::int64_t>(usualRules().size());
    water_.editRules(tr("Add a rule"), [id](std::vector<TieRule>& rules) {
      rules.push_back({id, std::to_string(rules.size() + 1), "clarity < 1", "kick_angle +", ""});
    });
  });
  connect(table_, &RowTable::removeWanted, this, [this](int at) {
    water_.editRules(tr("Remove a rule"),
                     [at](std::vector<TieRule>& rules) { rules.erase(rules.begin() + at); });
  });
  connect(&water_, &WaterController::changed, this, [this] {
    if (isVisible()) refresh();
  });
}

void RulesPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void RulesPage::refresh() {
  std::vector<QStringList> rows;
  for (const TieRule& rule : water_.season().rules) {
    rows.push_back({QString::fromStdString(rule.name), QString::fromStdString(rule.when),
                    QString::fromStdString(rule.wants), QString::fromStdString(rule.because)});
  }
  table_->show(rows);
}

void RulesPage::typed(int row, int column, const QString& text) {
  TieRule rule = water_.season().rules[static_cast<std::size_t>(row)];
  const std::string word = text.toStdString();
  QString trouble;
  const auto check = [&trouble](const auto& parsed) {
    if (!parsed) trouble = asSentence(QString::fromStdString(parsed.error().message)) + ".";
  };
  if (column == 1) check(parseWhen(word));
  if (column == 2) check(parseWants(word));
  table_->say(trouble);
  if (!trouble.isEmpty()) return refresh();
  std::string TieRule::*const members[] = {&TieRule::name, &TieRule::when, &TieRule::wants,
                                           &TieRule::because};
  water_.editRules(tr("Write a rule"), [&](std::vector<TieRule>& rules) {
    rules[static_cast<std::size_t>(row)].*members[column] = word;
  });
}

}  // namespace fin::app
