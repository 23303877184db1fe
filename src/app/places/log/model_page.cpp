// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/log/model_page.h"

#include <qcustomplot.h>

#include <QDate>
#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/phrases/spread_words.h"
#include "app/phrases/verdict_words.h"
#include "app/plots/plot.h"
#include "app/ui/photo.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"
#include "core/comparison/judging.h"
#include "core/readings/registry.h"
#include "core/units/date.h"

namespace fin::app {
namespace {

constexpr QSize kPhoto{150, 90};
constexpr double kDay_s = 86400.0;
constexpr double kLevel = 0.05;

QString dayAndMonth(const std::string& date) {
  const QDate day = QDate::fromString(QString::fromStdString(date), Qt::ISODate);
  return day.isValid() ? QLocale::c().toString(day, "d MMM yyyy") : QObject::tr("a day without a date");
}

/// A number as it was typed: none where the cell is empty; false where it is no number.
bool numberFrom(const QString& text, std::optional<double>& to) {
  if (text.isEmpty()) {
    to.reset();
    return true;
  }
  bool good = false;
  const double number = QString(text).replace(',', '.').replace(QChar(0x2212), '-').toDouble(&good);
  if (good) to = number;
  return good;
}

QString shown(const std::optional<double>& number) {
  return number ? plainNumber(*number, 3) : QString();
}

QString stateInWords(ClaimState state) {
  switch (state) {
    case ClaimState::Kept:
      return QObject::tr("kept");
    case ClaimState::Broken:
      return QObject::tr("broken");
    case ClaimState::Undecided:
      return QObject::tr("undecided: it lies across a bound");
    case ClaimState::Untested:
      break;
  }
  return QObject::tr("untested");
}

QString stateWord(PieceState state) {
  switch (state) {
    case PieceState::Used:
      return QObject::tr("used");
    case PieceState::Spare:
      return QObject::tr("spare");
    case PieceState::Worn:
      return QObject::tr("worn");
    case PieceState::Lost:
      break;
  }
  return QObject::tr("lost");
}

/// The reading that a tester means by what was typed.
std::optional<ReadingId> readingMeant(const QString& text) {
  for (const Protocol protocol : kAllProtocols) {
    for (const ReadingSpec& spec : readingsOf(protocol)) {
      if (!isClass(spec.id) && spokenName(spec.id).compare(text, Qt::CaseInsensitive) == 0) return spec.id;
    }
  }
  return readingNamed(text.toStdString());
}

template <class Row, class Id>
Row* rowWith(std::vector<Row>& rows, Id id) {
  const auto found = std::find_if(rows.begin(), rows.end(), [id](const Row& r) { return r.id == id; });
  return found == rows.end() ? nullptr : &*found;
}

}  // namespace

ModelPage::ModelPage(LogBook& book, const VerdictController& verdict, QWidget* parent)
    : QWidget(parent),
      book_(book),
      verdict_(verdict),
      photo_(new QLabel),
      name_(new QLabel),
      facts_(new WholeLabel),
      tabs_(new PageTabs),
      readings_(new QListWidget),
      sentence_(new WholeLabel),
      plot_(dressedPlot("historyPlot")),
      claims_(new RowTable({tr("What is said"), tr("Reading"), tr("At least"), tr("At most"), tr("So far")},
                           "claims", tr("Add a claim"),
                           tr("Kept where the whole interval lies within, broken where it lies outside."))),
      pieces_(new RowTable({tr("Number"), tr("State"), tr("Paid"), tr("Currency"), tr("Note")}, "pieces",
                           tr("Add a piece"), tr("This very lure: used, spare, worn or lost."))),
      prices_(new RowTable({tr("Shop"), tr("Date"), tr("Price"), tr("Currency")}, "prices", tr("Add a price"),
                           tr("What a shop asked, and when."))),
      judged_(new WholeLabel) {
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
  auto* judged = new QWidget;
  auto* inside = new QVBoxLayout(judged);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->addWidget(judged_);
  inside->addStretch();
  tabs_->addPage(tr("Judged"), "modelJudgedPage", judged);
  layout->addWidget(tabs_, 1);
  connect(claims_, &RowTable::typed, this, &ModelPage::claimTyped);
  connect(pieces_, &RowTable::typed, this, &ModelPage::pieceTyped);
  connect(prices_, &RowTable::typed, this, &ModelPage::priceTyped);
  DayController& days = book_.days();
  const auto on = [this, &days](RowTable* table, const QString& add, const QString& remove, auto make,
                                auto erase) {
    connect(table, &RowTable::addWanted, this, [this, &days, add, make] {
      const std::int64_t id = days.freeId();
      days.edit(add, [&](DayPlan& plan) { make(plan.rack, id); });
    });
    connect(table, &RowTable::removeWanted, this, [&days, remove, erase](int row) {
      days.edit(remove, [&](DayPlan& plan) { erase(plan.rack, static_cast<std::size_t>(row)); });
    });
  };
  on(
      claims_, tr("Add a claim"), tr("Remove a claim"),
      [this](Rack& rack, std::int64_t id) {
        rack.claims.push_back({.id = id, .model = model_, .reading = ReadingId::FallRate});
      },
      [this](Rack& rack, std::size_t row) {
        std::erase_if(rack.claims, [&](const Claim& c) { return c.id == claimRows_[row]; });
      });
  on(
      pieces_, tr("Add a piece"), tr("Remove a piece"),
      [this](Rack& rack, std::int64_t id) {
        rack.pieces.push_back({.id = id, .model = model_, .number = static_cast<int>(pieceRows_.size()) + 1});
      },
      [this](Rack& rack, std::size_t row) {
        std::erase_if(rack.pieces, [&](const Piece& p) { return p.id == pieceRows_[row]; });
      });
  on(
      prices_, tr("Add a price"), tr("Remove a price"),
      [this](Rack& rack, std::int64_t id) {
        const std::string today = QDate::currentDate().toString(Qt::ISODate).toStdString();
        rack.prices.push_back({.id = id, .model = model_, .currency = model()->currency, .date = today});
      },
      [this](Rack& rack, std::size_t row) {
        std::erase_if(rack.prices, [&](const Price& p) { return p.id == priceRows_[row]; });
      });
  connect(&days, &DayController::planChanged, this, [this] {
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
  fillClaims();
  fillPieces();
  fillPrices();
  fillJudged();
}

QString ModelPage::historyInWords(const RigHistory& history) const {
  const RigDay& last = history.days.back();
  const double mean = history.history.days.back().mean;
  QString out =
      tr("%1 on %2")
          .arg(spokenAs(history.reading, mean,
                        history.latest ? 0.5 * (history.latest->to - history.latest->from) : 0.0, units_),
               dayAndMonth(last.date));
  const History::Pair* change = nullptr;
  for (const History::Pair& pair : history.history.pairs) {
    if (pair.b + 1 == history.days.size()) change = &pair;  // the last two that have enough passes
  }
  if (change == nullptr) return out + tr(". Two passes on two days would show whether it changes.");
  const DayChange& c = change->change;
  const ShownUnit unit =
      differenceUnit(c.byRatio ? Scaling::Ratio : Scaling::Difference, history.reading, units_);
  const QString by =
      tr("%1 to %2 %3").arg(signedNumber(c.from * unit.factor), signedNumber(c.to * unit.factor), unit.unit);
  const QString since = dayAndMonth(history.days[change->a].date);
  if (c.p >= kLevel) return out + tr(". Whether it changed since %1 is too close to call.").arg(since);
  return out + (c.bridged
                    ? tr(". Changed since %1 by %2: the lure, as the control was the same.").arg(since, by)
                    : tr(". Changed since %1 by %2: lure or day? No control was filmed twice on both.")
                          .arg(since, by));
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
  if (history.setAside > 0)
    words += tr(" Set aside: %1 at another speed.").arg(counted(history.setAside, tr("pull"), tr("pulls")));
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

const RigHistory* ModelPage::latestOf(ReadingId reading) const {
  const RigHistory* out = nullptr;
  for (const RigHistory& history : record_.histories) {
    if (history.reading != reading) continue;
    if (out == nullptr || history.days.back().date >= out->days.back().date) out = &history;
  }
  return out;
}

void ModelPage::fillClaims() {
  claimRows_.clear();
  std::vector<QStringList> rows;
  for (const Claim& claim : book_.days().plan().rack.claims) {
    if (claim.model != model_) continue;
    claimRows_.push_back(claim.id);
    const ShownUnit unit = shownUnit(claim.reading, units_);
    const auto bound = [&unit](const std::optional<double>& b) {
      return b ? QString("%1 %2").arg(shown(unit.shown(*b)), unit.unit).trimmed() : QString();
    };
    const RigHistory* latest = latestOf(claim.reading);
    QString so = stateInWords(stateOf(claim, latest == nullptr ? std::nullopt : latest->latest));
    if (latest != nullptr) so += tr(" (%1)").arg(dayAndMonth(latest->days.back().date));
    rows.push_back({QString::fromStdString(claim.words), spokenName(claim.reading), bound(claim.least),
                    bound(claim.most), so});
  }
  claims_->show(rows);
}

void ModelPage::claimTyped(int row, int column, const QString& text) {
  const ClaimId id = claimRows_[static_cast<std::size_t>(row)];
  DayPlan after = book_.days().plan();
  Claim* claim = rowWith(after.rack.claims, id);
  if (claim == nullptr) return;
  QString trouble;
  const ShownUnit unit = shownUnit(claim->reading, units_);
  const auto bound = [&](std::optional<double>& to) {
    QString number = text;
    if (!unit.unit.isEmpty()) number.remove(unit.unit);
    std::optional<double> typed;
    if (!numberFrom(number.trimmed(), typed)) {
      trouble = tr("%1 is no number.").arg(text);
    } else {
      to = typed ? std::optional(unit.metric(*typed)) : std::nullopt;
    }
  };
  if (column == 0) claim->words = text.toStdString();
  if (column == 1) {
    const auto reading = readingMeant(text);
    if (reading) {
      claim->reading = *reading;
    } else {
      trouble =
          tr("No reading is called %1. Names are as in the Line-up: Fall rate, Wobble rate, Climb rate.")
              .arg(text);
    }
  }
  if (column == 2) bound(claim->least);
  if (column == 3) bound(claim->most);
  claims_->say(trouble);
  if (!trouble.isEmpty()) return fillClaims();
  book_.days().edit(tr("Claim"), [&after](DayPlan& plan) { plan.rack.claims = after.rack.claims; });
}

void ModelPage::fillPieces() {
  pieceRows_.clear();
  std::vector<QStringList> rows;
  for (const Piece& piece : book_.days().plan().rack.pieces) {
    if (piece.model != model_) continue;
    pieceRows_.push_back(piece.id);
    rows.push_back({QString::number(piece.number), stateWord(piece.state), shown(piece.paid),
                    QString::fromStdString(piece.currency), QString::fromStdString(piece.note)});
  }
  pieces_->show(rows);
}

void ModelPage::pieceTyped(int row, int column, const QString& text) {
  const PieceId id = pieceRows_[static_cast<std::size_t>(row)];
  QString trouble;
  std::optional<double> number;
  std::optional<PieceState> state;
  if (column == 0 || column == 2) {
    if (!numberFrom(text, number)) trouble = tr("%1 is no number.").arg(text);
  }
  for (const PieceState one : {PieceState::Used, PieceState::Spare, PieceState::Worn, PieceState::Lost}) {
    if (stateWord(one).compare(text, Qt::CaseInsensitive) == 0) state = one;
  }
  if (column == 1 && !state) trouble = tr("A piece is used, spare, worn or lost, not %1.").arg(text);
  pieces_->say(trouble);
  if (!trouble.isEmpty()) return fillPieces();
  book_.days().edit(tr("Piece"), [&](DayPlan& plan) {
    Piece* piece = rowWith(plan.rack.pieces, id);
    if (piece == nullptr) return;
    if (column == 0 && number) piece->number = static_cast<int>(*number);
    if (column == 1) piece->state = *state;
    if (column == 2) piece->paid = number;
    if (column == 3) piece->currency = text.toStdString();
    if (column == 4) piece->note = text.toStdString();
  });
}

void ModelPage::fillPrices() {
  priceRows_.clear();
  std::vector<QStringList> rows;
  for (const Price& price : book_.days().plan().rack.prices) {
    if (price.model != model_) continue;
    priceRows_.push_back(price.id);
    rows.push_back({QString::fromStdString(price.shop), QString::fromStdString(price.date),
                    shown(price.amount), QString::fromStdString(price.currency)});
  }
  prices_->show(rows);
}

void ModelPage::priceTyped(int row, int column, const QString& text) {
  const PriceId id = priceRows_[static_cast<std::size_t>(row)];
  QString trouble;
  std::optional<double> number;
  if (column == 1 && !text.isEmpty() && !dayNumberOf(text.toStdString()))
    trouble = tr("%1 is no date. Write it like 2026-11-29.").arg(text);
  if (column == 2 && (!numberFrom(text, number) || (number && *number < 0.0)))
    trouble = tr("%1 is no price.").arg(text);
  prices_->say(trouble);
  if (!trouble.isEmpty()) return fillPrices();
  book_.days().edit(tr("Price"), [&](DayPlan& plan) {
    Price* price = rowWith(plan.rack.prices, id);
    if (price == nullptr) return;
    if (column == 0) price->shop = text.toStdString();
    if (column == 1) price->date = text.toStdString();
    if (column == 2) price->amount = number.value_or(0.0);
    if (column == 3) price->currency = text.toStdString();
  });
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
