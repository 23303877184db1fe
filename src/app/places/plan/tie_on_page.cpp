// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/tie_on_page.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPainter>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QStyledItemDelegate>
#include <QVBoxLayout>
#include <algorithm>

#include "app/ui/pieces.h"
#include "app/ui/table_heads.h"
#include "app/ui/theme.h"
#include "core/season/rule_record.h"

namespace fin::app {
namespace {

constexpr int kFloorRole = Qt::UserRole;
constexpr int kCeilingRole = Qt::UserRole + 1;
constexpr double kMost = 10.0;

/// A bar from what is known to what may be, 0 to 10 points.
class PointsBar : public QStyledItemDelegate {
 public:
  using QStyledItemDelegate::QStyledItemDelegate;
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    QStyledItemDelegate::paint(painter, option, index);
    const QRectF room = QRectF(option.rect).adjusted(8, 9, -8, -9);
    const auto x = [&room](double points) { return room.left() + room.width() * points / kMost; };
    const double floor = index.data(kFloorRole).toDouble();
    const double ceiling = index.data(kCeilingRole).toDouble();
    painter->save();
    painter->setRenderHint(QPainter::Antialiasing);
    painter->setPen(QPen(theme().line, 1));
    painter->drawLine(QPointF(x(0), room.center().y()), QPointF(x(kMost), room.center().y()));
    painter->setPen(QPen(theme().accent, 1));
    painter->setBrush(theme().card);
    painter->drawRect(QRectF(QPointF(x(floor), room.top()), QPointF(x(ceiling), room.bottom())));
    painter->setBrush(theme().accent);
    painter->drawRect(QRectF(QPointF(x(0), room.top()), QPointF(x(floor), room.bottom())));
    painter->restore();
  }
};

}  // namespace

TieOnPage::TieOnPage(WaterController& water, QWidget* parent)
    : QWidget(parent),
      water_(water),
      headline_(new WholeLabel),
      words_(new WholeLabel),
      rigs_(new QTableWidget),
      chosen_(new WholeLabel),
      reasons_(new WholeLabel),
      rules_(new QListWidget) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(18);
  auto* left = new QVBoxLayout;
  headline_->setObjectName("tieOnHeadline");
  setLetters(*headline_, "large");
  left->addWidget(headline_);
  words_->setObjectName("tieOnWords");
  left->addWidget(words_);
  TableHeads::keepWhole(*rigs_);
  rigs_->setObjectName("tieOnRigs");
  rigs_->setAccessibleName(tr("Rigs by what speaks for them"));
  rigs_->setColumnCount(3);
  rigs_->setHorizontalHeaderLabels({tr("Rig"), tr("Points"), tr("Known")});
  rigs_->verticalHeader()->hide();
  rigs_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  rigs_->setSelectionBehavior(QAbstractItemView::SelectRows);
  rigs_->setSelectionMode(QAbstractItemView::SingleSelection);
  rigs_->setTabKeyNavigation(false);
  rigs_->setItemDelegateForColumn(1, new PointsBar(rigs_));
  rigs_->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
  rigs_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  rigs_->horizontalHeader()->setSectionResizeMode(2, QHeaderView::ResizeToContents);
  rigs_->setToolTip(tr("Points from 0 to 10: filled what is known, hollow what may be."));
  left->addWidget(rigs_, 3);
  chosen_->setObjectName("tieOnChosen");
  chosen_->setProperty("heading", true);
  left->addWidget(chosen_);
  reasons_->setObjectName("tieOnReasons");
  auto* scroll = new QScrollArea;
  scroll->setWidgetResizable(true);
  scroll->setWidget(reasons_);
  left->addWidget(scroll, 2);
  row->addLayout(left, 5);
  auto* right = new QVBoxLayout;
  right->addWidget(buildSchools());
  right->addWidget(buildRules(), 1);
  row->addLayout(right, 4);
  connect(rigs_, &QTableWidget::itemSelectionChanged, this, &TieOnPage::showReasons);
  connect(&water_, &WaterController::changed, this, [this] {
    if (isVisible()) refresh();
  });
}

QWidget* TieOnPage::buildSchools() {
  auto* box = card();
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(12, 8, 12, 10);
  grid->addWidget(headingLabel(tr("Schools: where anglers quarrel")), 0, 0, 1, 4);
  const std::tuple<QString, SchoolSide, SchoolSide, const char*> all[] = {
      {tr("Size"), SchoolSide::BySpeed, SchoolSide::ByPrey, "schoolSize"},
      {tr("Rhythm"), SchoolSide::Steady, SchoolSide::Hunting, "schoolRhythm"},
      {tr("Sound"), SchoolSide::Loud, SchoolSide::Quiet, "schoolSound"},
      {tr("Fall"), SchoolSide::Plumb, SchoolSide::Glide, "schoolFall"},
      {tr("Finish"), SchoolSide::Bright, SchoolSide::Dull, "schoolFinish"},
      {tr("Way"), SchoolSide::Search, SchoolSide::Finesse, "schoolWay"}};
  int cell = 0;
  for (const auto& [name, one, other, object] : all) {
    auto* choice = new QComboBox;
    choice->setObjectName(object);
    choice->setAccessibleName(name);
    for (const SchoolSide side : {SchoolSide::None, one, other})
      choice->addItem(spokenSide(side), static_cast<int>(side));
    auto* label = new QLabel(name);
    label->setBuddy(choice);
    grid->addWidget(label, 1 + cell / 2, 2 * (cell % 2));
    grid->addWidget(choice, 1 + cell / 2, 2 * (cell % 2) + 1);
    schools_.push_back({one, other, choice});
    connect(choice, &QComboBox::activated, this, [this, choice, first = one, second = other] {
      water_.setSchool(first, second, static_cast<SchoolSide>(choice->currentData().toInt()));
    });
    ++cell;
  }
  return box;
}

QWidget* TieOnPage::buildRules() {
  auto* box = new QWidget;
  auto* layout = new QVBoxLayout(box);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(headingLabel(tr("Anglers' opinions")));
  layout->addWidget(
      faintLabel(tr("Nothing here was measured: ticked rules are looked at, those that are awake count. "
                    "On the page Opinions you can write your own.")));
  rules_->setObjectName("tieRules");
  rules_->setAccessibleName(tr("Rules, and whether they are awake"));
  rules_->setWordWrap(true);
  rules_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  layout->addWidget(rules_, 1);
  connect(rules_, &QListWidget::itemChanged, this, [this](const QListWidgetItem* item) {
    const int row = rules_->row(item);
    const bool on = item->checkState() == Qt::Checked;
    water_.editRules(tr("Switch a rule"), [row, on](std::vector<TieRule>& rules) {
      if (static_cast<std::size_t>(row) < rules.size()) rules[static_cast<std::size_t>(row)].on = on;
    });
  });
  return box;
}

void TieOnPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void TieOnPage::refresh() {
  result_ = water_.tieOn();
  const auto& candidates = water_.candidates();
  const auto& rules = water_.season().rules;
  QStringList words;
  if (result_.whyNone.empty()) {
    const TieChoice& first = result_.choices.front();
    headline_->setText(tr("Tie on: %1").arg(QString::fromStdString(candidates[first.candidate].name)));
    if (result_.tooClose) {
      const QString second = QString::fromStdString(candidates[result_.choices[1].candidate].name);
      headline_->setText(tr("Too close to call: %1 or %2")
                             .arg(QString::fromStdString(candidates[first.candidate].name), second));
    }
  } else {
    headline_->setText(asSentence(QString::fromStdString(result_.whyNone)) + ".");
  }
  QStringList film;
  for (std::size_t i = 0; i < result_.film.size() && i < 3; ++i)
    film += QString::fromUtf8("“%1”").arg(spokenName(result_.film[i]));
  if (!film.isEmpty())
    words +=
        tr("Not known of all rigs, and asked for here: %1. Film them to tell more.").arg(film.join(", "));
  for (const auto& [a, b] : result_.opposed)
    words +=
        tr("Two rules oppose each other, and both count: %1, and %2.")
            .arg(spokenWish(result_.wishes[a].wish, units()), spokenWish(result_.wishes[b].wish, units()));
  words_->setText(words.join("\n"));
  {
    const QSignalBlocker quiet(rigs_);
    rigs_->setRowCount(static_cast<int>(result_.choices.size()));
    for (int r = 0; r < rigs_->rowCount(); ++r) {
      const TieChoice& choice = result_.choices[static_cast<std::size_t>(r)];
      rigs_->setItem(r, 0, readOnlyCell(QString::fromStdString(candidates[choice.candidate].name)));
      auto* bar = readOnlyCell({});
      bar->setData(kFloorRole, choice.floor);
      bar->setData(kCeilingRole, result_.wishes.empty() ? 0.0 : choice.ceiling);
      bar->setData(Qt::AccessibleTextRole, spokenPoints(choice));
      rigs_->setItem(r, 1, bar);
      const int known = qRound(100.0 * choice.known);
      rigs_->setItem(r, 2,
                     readOnlyCell(choice.ranked ? tr("%1 %").arg(known) : tr("%1 %: not ranked").arg(known)));
    }
    if (rigs_->rowCount() > 0) rigs_->selectRow(0);
  }
  showReasons();
  const QSignalBlocker quiet(rules_);
  rules_->clear();
  const WaterSeason& season = water_.season();
  const auto records = ruleRecords(season.candidates, rules, season.days, season.runs);
  for (std::size_t i = 0; i < rules.size(); ++i) {
    const RuleState& state = result_.rules[i];
    QString how;
    if (state.is == RuleState::Is::Awake)
      how = state.wishes.empty() ? tr("awake, silenced by your schools") : tr("awake");
    if (state.is == RuleState::Is::Asleep)
      how = tr("asleep: %1 not noted").arg(QString::fromStdString(state.why));
    if (state.is == RuleState::Is::Wrong)
      how = tr("not understood: %1").arg(QString::fromStdString(state.why));
    QString line = QString("%1  %2: %3")
                       .arg(QString::fromStdString(rules[i].name), QString::fromStdString(rules[i].when),
                            QString::fromStdString(rules[i].because));
    if (!how.isEmpty()) line += QString::fromUtf8("  ·  ") + how;
    if (const RuleRecord& so = records[i]; so.pickHours + so.otherHours > 0.0)
      line += tr("\nso far its picks %1 fish in %2 h, others %3 in %4 h")
                  .arg(so.pickFish)
                  .arg(so.pickHours, 0, 'f', 1)
                  .arg(so.otherFish)
                  .arg(so.otherHours, 0, 'f', 1);
    auto* item = new QListWidgetItem(line, rules_);
    item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
    item->setCheckState(rules[i].on ? Qt::Checked : Qt::Unchecked);
    if (state.is == RuleState::Is::Awake) {
      QFont bold = item->font();
      bold.setWeight(QFont::DemiBold);
      item->setFont(bold);
    }
  }
  for (const Switch& one : schools_) {
    const QSignalBlocker silent(one.box);
    const auto& chosen = water_.plan().waterDay.schools;
    const auto has = [&chosen](SchoolSide side) {
      return std::find(chosen.begin(), chosen.end(), side) != chosen.end();
    };
    one.box->setCurrentIndex(has(one.one) ? 1 : has(one.other) ? 2 : 0);
  }
}

void TieOnPage::showReasons() {
  const int row = rigs_->currentRow();
  if (row < 0 || static_cast<std::size_t>(row) >= result_.choices.size()) {
    chosen_->clear();
    return reasons_->clear();
  }
  const TieChoice& choice = result_.choices[static_cast<std::size_t>(row)];
  chosen_->setText(
      tr("What speaks for %1: %2 of 10 points")
          .arg(QString::fromStdString(water_.candidates()[choice.candidate].name), spokenPoints(choice)));
  reasons_->setText(
      reasonsFor(result_, result_.choices[static_cast<std::size_t>(row)], water_.season().rules, units())
          .join("\n"));
}

}  // namespace fin::app
