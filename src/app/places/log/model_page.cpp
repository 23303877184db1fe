// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/log/model_page.h"

#include <qcustomplot.h>

#include <QDate>
#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/phrases/spread_words.h"
#include "app/phrases/verdict_words.h"
#include "app/phrases/water_words.h"
#include "app/places/log/model_tables.h"
#include "app/plots/plot.h"
#include "app/ui/photo.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"
#include "core/comparison/judging.h"
#include "core/readings/registry.h"
#include "core/season/catches/wear.h"
#include "core/units/date.h"

namespace fin::app {
namespace {

constexpr QSize kPhoto{150, 90};
constexpr double kDay_s = 86400.0;
constexpr double kLevel = 0.05;

}  // namespace

ModelPage::ModelPage(LogBook& book, const VerdictController& verdict, const WaterController& water,
                     QWidget* parent)
    : QWidget(parent),
      book_(book),
      verdict_(verdict),
      water_(water),
      photo_(new QLabel),
      name_(new QLabel),
      facts_(new WholeLabel),
      tabs_(new PageTabs),
      readings_(new QListWidget),
      sentence_(new WholeLabel),
      plot_(dressedPlot("historyPlot")),
      claims_(new ClaimsTable(book, record_)),
      pieces_(new PiecesTable(book)),
      prices_(new PricesTable(book)),
      judged_(new WholeLabel),
      catches_(new WholeLabel) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  auto* head = new QHBoxLayout;
  name_->setObjectName("modelName");
  setLetters(*name_, "large");
  facts_->setObjectName("modelFacts");
  auto* words = new QVBoxLayout;
  words->addWidget(name_);
  words->addWidget(facts_);
  words->addStretch();
  head->addLayout(words, 1);
  head->addWidget(photo_);
  layout->addLayout(head);
  judged_->setObjectName("modelJudged");
  tabs_->layout()->setContentsMargins(0, 4, 0, 0);
  tabs_->addPage(tr("Readings"), "modelReadings", buildReadings());
  tabs_->addPage(tr("Claims"), "modelClaims", claims_);
  tabs_->addPage(tr("Pieces"), "modelPieces", pieces_);
  tabs_->addPage(tr("Prices"), "modelPrices", prices_);
  const auto addWords = [this](const QString& title, const char* name, QLabel* told) {
    auto* page = new QWidget;
    auto* inside = new QVBoxLayout(page);
    inside->setContentsMargins(0, 0, 0, 0);
    inside->addWidget(told);
    inside->addStretch();
    tabs_->addPage(title, name, page);
  };
  addWords(tr("Judged"), "modelJudgedPage", judged_);
  catches_->setObjectName("modelCatches");
  addWords(tr("Catches"), "modelCatchesPage", catches_);
  layout->addWidget(tabs_, 1);
  connect(&book_.days(), &DayController::planChanged, this, [this] {
    if (isVisible()) refresh();
  });
}

QWidget* ModelPage::buildReadings() {
  auto* page = new QWidget;
  auto* row = new QHBoxLayout(page);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(14);
  readings_->setObjectName("historyReadings");
  readings_->setAccessibleName(tr("Readings of this model"));
  readings_->setWordWrap(true);
  readings_->setMinimumWidth(250);
  readings_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  row->addWidget(readings_, 2);
  auto* right = new QVBoxLayout;
  sentence_->setObjectName("historySentence");
  setLetters(*sentence_, "middle");
  right->addWidget(sentence_);
  right->addWidget(plot_, 1);
  row->addLayout(right, 3);
  connect(readings_, &QListWidget::currentRowChanged, this, &ModelPage::drawHistory);
  return page;
}

const Model* ModelPage::model() const {
  return book_.days().plan().rack.model(model_);
}

void ModelPage::setUnits(UnitSystem units) {
  units_ = units;
  if (model() != nullptr) refresh();
}

void ModelPage::show(ModelId model) {
  model_ = model;
  record_ = book_.recordOf(model);
  readings_->setCurrentRow(-1);
  refresh();
}

void ModelPage::refresh() {
  const Model* shownModel = model();
  if (shownModel == nullptr) return;
  name_->setText(QString::fromStdString(shownModel->name));
  QStringList facts;
  if (shownModel->length_mm) facts += spokenAmount(*shownModel->length_mm, "mm", 0, units_);
  if (shownModel->weight_g) facts += spokenAmount(*shownModel->weight_g, "g", 1, units_);
  if (!shownModel->colours.empty()) facts += QString::fromStdString(shownModel->colours);
  QStringList rigs;
  for (const Rig& rig : book_.days().plan().rack.rigs) {
    if (rig.model == model_ && !rig.name.empty()) rigs += QString::fromStdString(rig.name);
  }
  if (!rigs.isEmpty()) facts += tr("tied as: %1").arg(rigs.join("; "));
  if (!shownModel->graded) facts += tr("shown, not graded");
  facts_->setText(facts.join("  ·  "));
  photo_->setPixmap(photoWithin(QString::fromStdString(shownModel->photo), kPhoto));
  fillReadings();
  claims_->showModel(model_, units_);
  pieces_->showModel(model_);
  prices_->showModel(model_);
  fillJudged();
  fillCatches();
}

QString ModelPage::historyInWords(const RigHistory& history) const {
  const RigDay& last = history.days.back();
  const double mean = history.history.days.back().mean;
  QString out =
      tr("%1 on %2")
          .arg(spokenAs(history.reading, mean,
                        history.latest ? 0.5 * (history.latest->to - history.latest->from) : 0.0, units_),
               dayMonthYear(last.date));
  const History::Pair* change = nullptr;
  for (const History::Pair& pair : history.history.pairs) {
    if (pair.b + 1 == history.days.size()) change = &pair;  // the last two that have enough passes
  }
  if (change == nullptr && history.heard && history.days.size() > 1)
    return out + tr(". Loudness of two days is only compared where the control was heard on both.");
  if (change == nullptr) return out + tr(". Two passes on two days would show whether it changes.");
  const DayChange& c = change->change;
  const ShownUnit unit =
      differenceUnit(c.byRatio ? Scaling::Ratio : Scaling::Difference, history.reading, units_);
  const QString by =
      tr("%1 to %2 %3").arg(signedNumber(c.from * unit.factor), signedNumber(c.to * unit.factor), unit.unit);
  const QString since = dayMonthYear(history.days[change->a].date);
  if (c.p >= kLevel) return out + tr(". Whether it changed since %1 is too close to call.").arg(since);
  return out + (c.bridged
                    ? tr(". Changed since %1 by %2: the lure, as the control was the same.").arg(since, by)
                    : tr(". Changed since %1 by %2: lure or day? No control was filmed twice on both.")
                          .arg(since, by));
}

/// What other water alone does to a fall; nothing where the water was the same.
QString ModelPage::waterShiftInWords(const RigHistory& history) const {
  const WaterDiffers water = waterDiffers(record_.waters);
  if (history.days.size() < 2 || (!water.salinity && !water.temperature)) return {};
  if (history.reading == ReadingId::PauseDrift && water.salinity)
    return tr(" Saltier water lifts it: it sinks less or rises more in the pause by that alone.");
  if (history.reading != ReadingId::FallRate) return {};
  const auto shift = book_.fallShift(record_, history, history.days.front().day, history.days.back().day);
  if (!shift) return {};
  const double before = history.history.days.front().mean;
  const QString how =
      shift->bodyAssumed
          ? tr(" By its weight in the water alone, the body taken as nothing, %1 would become %2.")
          : tr(" By its weight in the water alone %1 would become %2.");
  return how.arg(spokenAmount(before, "mm/s", 1, units_),
                 spokenAmount(before * shift->ratio, "mm/s", 1, units_));
}

/// How it goes with the hours that it was fished; nothing before four test days.
QString ModelPage::wearInWords(const RigHistory& history) const {
  const Rack& rack = book_.days().plan().rack;
  const auto rig = std::find_if(rack.rigs.begin(), rack.rigs.end(),
                                [&](const Rig& r) { return rack.fullName(r) == history.rig; });
  if (rig == rack.rigs.end()) return {};
  std::vector<FishedDay> fished;
  const WaterSeason& season = water_.season();
  for (std::size_t d = 0; d < season.days.size(); ++d)
    fished.push_back({dateOf(season.days[d]), season.runs[d]});
  const auto wear = wearOf(history, rig->id, fished);
  if (!wear) return {};
  const ShownUnit unit = shownUnit(history.reading, units_);
  return tr(" With every rod-hour it changes by %1 (%2 to %3) %4.")
      .arg(signedNumber(wear->perHour * unit.factor), signedNumber(wear->from * unit.factor),
           signedNumber(wear->to * unit.factor), unit.unit);
}

void ModelPage::fillReadings() {
  const QSignalBlocker quiet(readings_);
  const int before = readings_->currentRow();
  readings_->clear();
  for (const RigHistory& history : record_.histories) {
    readings_->addItem(
        QString("%1  ·  %2").arg(spokenName(history.reading), QString::fromStdString(history.rig)));
  }
  readings_->setCurrentRow(readings_->count() == 0 ? -1 : std::clamp(before, 0, readings_->count() - 1));
  drawHistory();
}

/// Rings are passes, diamonds the means of days.
void ModelPage::drawHistory() {
  plot_->clearPlottables();
  plot_->clearItems();
  const int row = readings_->currentRow();
  plot_->setVisible(row >= 0);
  if (row < 0) {
    sentence_->setText(tr("Nothing of this model was measured yet."));
    return;
  }
  const RigHistory& history = record_.histories[static_cast<std::size_t>(row)];
  QString words = historyInWords(history);
  const WaterDiffers water = waterDiffers(record_.waters);
  if (history.days.size() > 1 && water.salinity)
    words += tr(" The water had %1 to %2 g of salt a kilogram.")
                 .arg(water.leastSalinity_g_kg)
                 .arg(water.mostSalinity_g_kg);
  if (history.days.size() > 1 && water.temperature)
    words +=
        tr(" The water was %1 to %2.")
            .arg(spokenAmount(water.least_C, "°C", 1, units_), spokenAmount(water.most_C, "°C", 1, units_));
  words += waterShiftInWords(history) + wearInWords(history);
  if (history.setAside > 0)
    words += tr(" Set aside: %1 at another speed.").arg(counted(history.setAside, tr("pull"), tr("pulls")));
  if (history.otherBeat > 0)
    words += tr(" Set aside: %1 at another beat.").arg(counted(history.otherBeat, tr("pass"), tr("passes")));
  sentence_->setText(words);
  const ShownUnit unit = shownUnit(history.reading, units_);
  QVector<double> x, y, meanX, meanY;
  double day = 0.0;
  for (std::size_t i = 0; i < history.days.size(); ++i) {
    const auto number = dayNumberOf(history.days[i].date);
    day = number ? static_cast<double>(*number) : day + 1.0;
    for (const double value : history.days[i].values.rig) {
      x.push_back(day * kDay_s);
      y.push_back(unit.shown(value));
    }
    meanX.push_back(day * kDay_s);
    meanY.push_back(unit.shown(history.history.days[i].mean));
  }
  auto* line = plot_->addGraph();
  line->setPen(QPen(theme().accent, 1.6, Qt::DashLine));
  line->setScatterStyle({QCPScatterStyle::ssDiamond, QPen(theme().accent, 2), theme().accent, 11});
  line->setData(meanX, meanY);
  auto* rings = plot_->addGraph();
  rings->setLineStyle(QCPGraph::lsNone);
  rings->setScatterStyle({QCPScatterStyle::ssCircle, QPen(theme().ink, 1.6), theme().card, 8});
  rings->setData(x, y);
  const QSharedPointer<QCPAxisTickerDateTime> ticker(new QCPAxisTickerDateTime);
  ticker->setDateTimeFormat("d MMM yy");
  ticker->setDateTimeSpec(Qt::UTC);
  plot_->xAxis->setTicker(ticker);
  plot_->xAxis->setRange(meanX.front() - 5.0 * kDay_s, meanX.back() + 5.0 * kDay_s);
  const auto [low, high] = std::minmax_element(y.begin(), y.end());
  const double room = std::max(0.15 * (*high - *low), 0.01 * std::abs(*high) + 1e-6);
  plot_->yAxis->setRange(*low - room, *high + room);
  const QString name = spokenName(history.reading);
  plot_->yAxis->setLabel(unit.unit.isEmpty() ? name : QString("%1, %2").arg(name, unit.unit));
  plot_->setAccessibleName(tr("%1 by day: rings are passes, diamonds means of days").arg(name));
  plot_->replot();
}

void ModelPage::fillCatches() {
  QStringList lines;
  for (const RigTally& tally : talliesOf(water_.season().runs)) {
    const Rig* rig = book_.days().plan().rack.rig(tally.rig);
    if (rig == nullptr || rig->model != model_ || !(tally.hours > 0.0)) continue;
    lines += tr("%1: %2 fish in %3 rod-hours, %4 an hour; %5, %6")
                 .arg(water_.rigName(tally.rig))
                 .arg(tally.fish)
                 .arg(tally.hours, 0, 'f', 1)
                 .arg(spokenRate(*exactRate(tally.fish, tally.hours)),
                      counted(tally.misses, tr("miss"), tr("misses")),
                      counted(tally.follows, tr("follow"), tr("follows")));
  }
  catches_->setText(lines.isEmpty() ? tr("It was not fished yet.") : lines.join("\n"));
}

void ModelPage::fillJudged() {
  QStringList lines;
  const Rack& rack = book_.days().plan().rack;
  for (const std::string& property : verdict_.plan().judgements.properties) {
    for (const auto& [rig, value] : judgedValues(verdict_.plan().judgements, property)) {
      const bool ours = std::any_of(rack.rigs.begin(), rack.rigs.end(), [&, &rig = rig](const Rig& r) {
        return r.model == model_ && rack.fullName(r) == rig;
      });
      if (ours)
        lines += tr("%1: %2 (%3)")
                     .arg(QString::fromStdString(property), spokenValue({.judged = property}, value, units_),
                          QString::fromStdString(rig));
    }
  }
  judged_->setText(lines.isEmpty() ? tr("Nobody has judged it yet. Do so in the Verdict, under Judged.")
                                   : lines.join("\n"));
}

}  // namespace fin::app
