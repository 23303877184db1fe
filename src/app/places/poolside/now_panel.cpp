// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/poolside/now_panel.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/ui/pieces.h"
#include "app/ui/theme.h"
#include "app/ui/unit_box.h"

namespace fin::app {
namespace {

constexpr int kButtonHeight = 62;
constexpr double kNoWater_C = -3.0;    ///< stands for not said: no water is that cold
constexpr double kNoSalt_g_kg = -1.0;  ///< likewise

QPushButton* largeButton(const QString& text, const char* name) {
  QPushButton* b = namedButton(text, name);
  b->setMinimumHeight(kButtonHeight);
  setLetters(*b, "strong");
  b->setFocusPolicy(Qt::TabFocus);
  return b;
}

/// Words to choose from; others can be typed.
QComboBox* choiceOf(const QStringList& words) {
  auto* box = new QComboBox;
  box->setEditable(true);
  box->setInsertPolicy(QComboBox::NoInsert);
  box->addItem(QString());
  box->addItems(words);
  box->lineEdit()->setPlaceholderText(QObject::tr("not said"));
  return box;
}

}  // namespace

NowPanel::NowPanel(DayController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      count_(new QLabel),
      rig_(new QLabel),
      task_(new QLabel),
      next_(new QLabel),
      plan_(largeButton(tr("Plan a day"), "planADay")),
      below_(new QStackedWidget),
      note_(new QLineEdit),
      lineOut_(new UnitBox(tr("Line out, from this pass on"), "m", {0.0, 200.0, 1})),
      light_(choiceOf({tr("bright sun"), tr("cloud"), tr("shade"), tr("dusk"), tr("lamp")})),
      wind_(choiceOf({tr("calm"), tr("light wind"), tr("fresh wind"), tr("gusts")})),
      water_(new UnitBox(tr("Temperature of the water, from this pass on"), "°C", {kNoWater_C, 45.0, 1})),
      salt_(new UnitBox(tr("Salt in the water, from this pass on"), "g/kg", {kNoSalt_g_kg, 42.0, 1})) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(4);
  count_->setProperty("faint", true);
  setLetters(*count_, "middle");
  rig_->setObjectName("nowRig");
  setLetters(*rig_, "huge");
  rig_->setWordWrap(true);
  task_->setObjectName("nowTask");
  setLetters(*task_, "larger");
  task_->setWordWrap(true);
  next_->setObjectName("nextPass");
  setLetters(*next_, "middle");
  next_->setProperty("faint", true);
  next_->setWordWrap(true);
  layout->addWidget(count_);
  layout->addWidget(rig_);
  layout->addWidget(task_);
  layout->addSpacing(10);
  layout->addWidget(plan_, 0, Qt::AlignLeft);
  layout->addStretch();
  layout->addWidget(next_);
  below_->addWidget(buildButtons());
  below_->addWidget(buildReasons());
  below_->addWidget(buildNote());
  layout->addWidget(below_);
  plan_->setProperty("primary", true);
  connect(plan_, &QPushButton::clicked, this, &NowPanel::planWanted);
  connect(&controller, &DayController::planChanged, this, &NowPanel::refresh);
  refresh();
}

QWidget* NowPanel::buildButtons() {
  auto* bar = new QWidget;
  auto* row = new QHBoxLayout(bar);
  row->setContentsMargins(0, 0, 0, 0);
  const auto add = [&](const QString& text, const char* name, auto&& what) {
    auto* b = largeButton(text, name);
    connect(b, &QPushButton::clicked, this, what);
    row->addWidget(b);
    buttons_.push_back(b);
  };
  add(tr("1  Done"), "done", [this] { controller_.finishNow(PassState::Done); });
  add(tr("2  Fouled"), "fouled", [this] { below_->setCurrentIndex(1); });
  add(tr("3  Again"), "again", [this] { controller_.makeLastAgain(); });
  add(tr("4  Skip"), "skip", [this] { controller_.finishNow(PassState::Skipped); });
  add(tr("5  Note"), "note", [this] {
    below_->setCurrentIndex(2);
    note_->setText(controller_.now() == nullptr ? QString()
                                                : QString::fromStdString(controller_.now()->note));
    note_->setFocus();
  });
  buttons_.front()->setProperty("primary", true);
  return bar;
}

QWidget* NowPanel::buildReasons() {
  auto* bar = new QWidget;
  auto* grid = new QGridLayout(bar);
  grid->setContentsMargins(0, 0, 0, 0);
  const QString reasons[] = {tr("missed the frame"), tr("caught on line or leaf"), tr("the pace varied"),
                             tr("rigged crooked"), tr("the camera failed")};
  int i = 0;
  for (const QString& why : reasons) {
    auto* b = largeButton(QString("%1  %2").arg(i + 1).arg(why), "reason");
    connect(b, &QPushButton::clicked, this, [this, why] { foul(why); });
    reasons_.push_back(b);
    grid->addWidget(b, i / 3, i % 3);
    ++i;
  }
  auto* back = largeButton(tr("6  Not fouled"), "notFouled");
  connect(back, &QPushButton::clicked, this, [this] { below_->setCurrentIndex(0); });
  reasons_.push_back(back);
  grid->addWidget(back, i / 3, i % 3);
  return bar;
}

QWidget* NowPanel::buildNote() {
  auto* bar = new QWidget;
  auto* rows = new QVBoxLayout(bar);
  rows->setContentsMargins(0, 0, 0, 0);
  auto* row = new QHBoxLayout;
  rows->addLayout(row);
  note_->setObjectName("noteText");
  note_->setAccessibleName(tr("Note on this pass"));
  note_->setMinimumHeight(kButtonHeight - 10);
  setLetters(*note_, "middle");
  note_->setPlaceholderText(tr("Anything worth knowing about this pass; Enter saves it"));
  row->addWidget(note_, 1);
  auto* lineLabel = new QLabel(tr("Line out"));
  lineLabel->setBuddy(lineOut_);
  row->addWidget(lineLabel);
  lineOut_->setObjectName("lineOut");
  lineOut_->setSpecialValueText(tr("not said"));
  lineOut_->setMinimumHeight(kButtonHeight - 10);
  row->addWidget(lineOut_);
  connect(lineOut_, &UnitBox::edited, this,
          [this](double metres) { controller_.sayLineOut(1000.0 * metres); });
  connect(note_, &QLineEdit::returnPressed, this, [this] {
    controller_.noteNow(note_->text());
    below_->setCurrentIndex(0);
    parentWidget()->setFocus();
  });
  auto* weather = new QHBoxLayout;
  rows->addLayout(weather);
  const auto add = [weather](const QString& words, QWidget* field, const char* name) {
    auto* label = new QLabel(words);
    label->setBuddy(field);
    weather->addWidget(label);
    field->setObjectName(name);
    weather->addWidget(field, 1);
  };
  light_->setAccessibleName(tr("Light, from this pass on"));
  wind_->setAccessibleName(tr("Wind, from this pass on"));
  water_->setSpecialValueText(tr("not said"));
  add(tr("Light"), light_, "passLight");
  add(tr("Wind"), wind_, "passWind");
  add(tr("Water"), water_, "passWater");
  salt_->setSpecialValueText(tr("not said"));
  add(tr("Salt"), salt_, "passSalt");
  for (QComboBox* box : {light_, wind_}) {
    connect(box, &QComboBox::activated, this, &NowPanel::sayWeather);
    connect(box->lineEdit(), &QLineEdit::editingFinished, this, &NowPanel::sayWeather);
  }
  for (UnitBox* box : {water_, salt_}) connect(box, &UnitBox::edited, this, &NowPanel::sayWeather);
  return bar;
}

void NowPanel::sayWeather() {
  const double water_C = water_->metric();
  const double salt = salt_->metric();
  controller_.sayWeather({.light = light_->currentText(),
                          .wind = wind_->currentText(),
                          .water_C = water_C > kNoWater_C ? std::optional(water_C) : std::nullopt,
                          .salinity_g_kg = salt > kNoSalt_g_kg ? std::optional(salt) : std::nullopt});
}

void NowPanel::foul(const QString& why) {
  controller_.finishNow(PassState::Fouled, why);
  below_->setCurrentIndex(0);
}

bool NowPanel::key(int number) {
  const auto& row = below_->currentIndex() == 1 ? reasons_ : buttons_;
  if (number < 1 || number > static_cast<int>(row.size()) || below_->currentIndex() == 2) return false;
  row[static_cast<std::size_t>(number - 1)]->click();
  return true;
}

void NowPanel::refresh() {
  const auto& sheet = controller_.plan().sheet;
  const PlannedPass* now = controller_.now();
  const PlannedPass* after = controller_.after();
  const auto made = std::count_if(sheet.begin(), sheet.end(),
                                  [](const PlannedPass& p) { return p.state != PassState::Planned; });
  for (std::size_t i = 0; i < buttons_.size(); ++i)
    enableOr(*buttons_[i], i == 2 ? made > 0 : now != nullptr,
             i == 2 ? tr("No pass was made yet.") : tr("No planned pass is left."));
  plan_->setVisible(sheet.empty());
  below_->setVisible(!sheet.empty());
  if (now == nullptr) {
    count_->clear();
    rig_->setText(sheet.empty() ? tr("Nothing is planned yet") : tr("The day is done"));
    task_->setText(sheet.empty()
                       ? tr("Choose what to find out and with which rigs; the passes come from that.")
                       : tr("%1 passes were made.").arg(made));
    next_->clear();
    return;
  }
  count_->setText(tr("Pass %1 of %2, block %3").arg(made + 1).arg(sheet.size()).arg(now->block));
  rig_->setText(controller_.titleOf(*now));
  lineOut_->show(now->lineOut_mm.value_or(0.0) / 1000.0);
  light_->setCurrentText(QString::fromStdString(now->light));
  wind_->setCurrentText(QString::fromStdString(now->wind));
  water_->show(now->water_C.value_or(kNoWater_C));
  salt_->show(now->salinity_g_kg.value_or(kNoSalt_g_kg));
  task_->setText(controller_.taskOf(*now) +
                 (now->note.empty() ? QString() : "\n" + QString::fromStdString(now->note)));
  next_->setText(after == nullptr
                     ? tr("Then the day is done.")
                     : tr("Then: %1. %2").arg(controller_.titleOf(*after), controller_.taskOf(*after)));
}

}  // namespace fin::app
