// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/log/log_place.h"

#include <QAbstractButton>
#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/ui/pieces.h"

namespace fin::app {
namespace {

using Kind = Findable::Kind;
constexpr int kAll = -1;

}  // namespace

LogPlace::LogPlace(LogBook& book, const VerdictController& verdict, const WaterController& water,
                   const std::filesystem::path& file, QWidget* parent)
    : QWidget(parent),
      book_(book),
      season_(new SeasonLine),
      words_(new QLineEdit),
      kinds_(new QButtonGroup(this)),
      list_(new QListView),
      found_(new FoundModel(this)),
      pages_(new QStackedWidget),
      model_(new ModelPage(book, verdict, water)),
      day_(new DayPage(book)),
      water_(new WaterBodyPage(book, water)),
      choice_(new LogChoice(QString::fromStdString(file.string()), {})),
      thisLog_(new ThisLogPage(file)),
      unfinished_(new WholeLabel) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(16, 10, 16, 12);
  layout->setSpacing(8);
  layout->addWidget(season_);
  unfinished_->setObjectName("unfinished");
  layout->addWidget(unfinished_);
  auto* log = new QWidget;
  auto* both = new QVBoxLayout(log);
  both->setContentsMargins(0, 0, 0, 0);
  both->addWidget(choice_);
  both->addWidget(thisLog_, 1);
  auto* row = new QHBoxLayout;
  row->setSpacing(16);
  row->addWidget(buildFinding(), 2);
  for (QWidget* page :
       {log, static_cast<QWidget*>(model_), static_cast<QWidget*>(day_), static_cast<QWidget*>(water_)})
    pages_->addWidget(page);
  row->addWidget(pages_, 5);
  layout->addLayout(row, 1);
  connect(season_, &SeasonLine::dayWanted, this, [this](DayId day) { showThing(Kind::Day, day.value()); });
  connect(thisLog_, &ThisLogPage::logChanged, this, &LogPlace::logChanged);
  connect(day_, &DayPage::passWanted, this, &LogPlace::passWanted);
  connect(water_, &WaterBodyPage::dayWanted, this, [this](DayId day) { showThing(Kind::Day, day.value()); });
  connect(&book_, &LogBook::changed, this, &LogPlace::find);
  connect(&book_.days(), &DayController::planChanged, this, [this] {
    if (isVisible()) refresh();
  });
}

QWidget* LogPlace::buildFinding() {
  auto* left = new QWidget;
  auto* layout = new QVBoxLayout(left);
  layout->setContentsMargins(0, 0, 0, 0);
  words_->setObjectName("findWords");
  words_->setAccessibleName(tr("Find by words"));
  words_->setPlaceholderText(tr("find: a lure, a date, a water, a pass"));
  words_->setClearButtonEnabled(true);
  for (QAbstractButton* clear : words_->findChildren<QAbstractButton*>())
    clear->setAccessibleName(tr("Clear what is searched for"));
  layout->addWidget(words_);
  auto* chips = new QHBoxLayout;
  chips->setSpacing(4);
  const std::tuple<int, QString, const char*> all[] = {
      {kAll, tr("All"), "findAll"},
      {static_cast<int>(Kind::Model), tr("Models"), "findModels"},
      {static_cast<int>(Kind::Rig), tr("Rigs"), "findRigs"},
      {static_cast<int>(Kind::Day), tr("Days"), "findDays"},
      {static_cast<int>(Kind::Water), tr("Waters"), "findWaters"}};
  for (const auto& [kind, text, name] : all) {
    auto* chip = namedButton(text, name);
    chip->setCheckable(true);
    chip->setChecked(kind == kAll);
    chip->setProperty("chip", true);
    kinds_->addButton(chip, kind == kAll ? static_cast<int>(Kind::Pass) + 1 : kind);
    chips->addWidget(chip);
  }
  chips->addStretch();
  layout->addLayout(chips);
  list_->setObjectName("foundList");
  list_->setAccessibleName(tr("What was found"));
  list_->setModel(found_);
  list_->setUniformItemSizes(true);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setTextElideMode(Qt::ElideRight);
  layout->addWidget(list_, 1);
  auto* below = new QHBoxLayout;
  auto* water = namedButton(tr("Add a water"), "addWater");
  auto* log = namedButton(tr("This log …"), "thisLog");
  below->addWidget(water);
  below->addStretch();
  below->addWidget(log);
  layout->addLayout(below);
  connect(words_, &QLineEdit::textChanged, this, &LogPlace::find);
  connect(words_, &QLineEdit::returnPressed, this, [this] {
    if (found_->rowCount() == 0) return;
    list_->setFocus();
    list_->setCurrentIndex(found_->index(0));
  });
  connect(kinds_, &QButtonGroup::idClicked, this, &LogPlace::find);
  // What is chosen, not what merely gets the focus.
  connect(list_->selectionModel(), &QItemSelectionModel::selectionChanged, this,
          [this](const QItemSelection& chosen) {
            if (!chosen.indexes().isEmpty()) showFound(chosen.indexes().front());
          });
  connect(list_, &QListView::activated, this, [this](const QModelIndex& index) {
    const Findable* one = found_->at(index);
    if (one != nullptr && one->kind == Kind::Pass) emit passWanted(one->id);
  });
  connect(water, &QPushButton::clicked, this, &LogPlace::addWater);
  connect(log, &QPushButton::clicked, this, [this] {
    shown_.reset();
    pages_->setCurrentIndex(0);
  });
  return left;
}

void LogPlace::setUnits(UnitSystem units) {
  model_->setUnits(units);
  day_->setUnits(units);
}

void LogPlace::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
  words_->setFocus();
  if (!shown_) showThing(Kind::Day, book_.days().plan().id.value());
}

void LogPlace::refresh() {
  const auto& days = book_.days().days();
  showSeason(shown_ && shown_->first == Kind::Day ? DayId(shown_->second) : book_.days().plan().id);
  QStringList open;
  for (const DayHead& day : days) {
    if (day.open > 0)
      open += tr("%1, %2").arg(book_.days().dayName(day.id),
                               counted(day.open, tr("pass still to be made"), tr("passes still to be made")));
  }
  constexpr qsizetype kTold = 3;
  const qsizetype more = open.size() - kTold;
  if (more > 0)
    open = open.mid(open.size() - kTold) +
           QStringList(tr("and %1 more").arg(counted(static_cast<std::size_t>(more), tr("day"), tr("days"))));
  unfinished_->setVisible(!open.isEmpty());
  unfinished_->setText(tr("Unfinished: %1.").arg(open.join("; ")));
  book_.refresh();
}

void LogPlace::showSeason(DayId chosen) {
  const auto& days = book_.days().days();
  const std::vector<DayId> changed = changedFrom(days, book_.days().plan().rack);
  season_->show(days, chosen, {changed.begin(), changed.end()});
}

void LogPlace::find() {
  const auto& all = book_.findables();
  std::vector<std::size_t> these = found(all, words_->text().toStdString());
  const int kind = kinds_->checkedId();
  if (kind <= static_cast<int>(Kind::Pass))
    std::erase_if(these, [&](std::size_t i) { return static_cast<int>(all[i].kind) != kind; });
  const QSignalBlocker quiet(list_->selectionModel());
  found_->show(&all, std::move(these));
  if (shown_) list_->setCurrentIndex(found_->rowOf(shown_->first, shown_->second));
}

void LogPlace::showFound(const QModelIndex& index) {
  const Findable* one = found_->at(index);
  if (one == nullptr) return;
  if (one->kind == Kind::Pass) return showThing(Kind::Day, one->day.value());
  showThing(one->kind, one->id);
}

void LogPlace::showThing(Kind kind, std::int64_t id) {
  if (kind == Kind::Rig) {
    const Rig* rig = book_.days().plan().rack.rig(id);
    if (rig == nullptr) return;
    kind = Kind::Model;
    id = rig->model.value();
  }
  shown_ = {kind, id};
  if (kind == Kind::Model) {
    model_->show(id);
    pages_->setCurrentWidget(model_);
  } else if (kind == Kind::Water) {
    water_->show(id);
    pages_->setCurrentWidget(water_);
  } else {
    day_->show(id);
    showSeason(id);
    pages_->setCurrentWidget(day_);
  }
}

void LogPlace::addWater() {
  const WaterId id = book_.days().freeId();
  book_.days().edit(tr("Add a water"), [id, name = tr("New water").toStdString()](DayPlan& plan) {
    plan.waters.push_back({.id = id, .name = name});
  });
  showThing(Kind::Water, id.value());
}

}  // namespace fin::app
