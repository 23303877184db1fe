// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/log/model_tables.h"

#include <QDate>
#include <QLocale>
#include <algorithm>

#include "app/phrases/verdict_words.h"
#include "core/readings/registry.h"
#include "core/units/date.h"

namespace fin::app {
namespace {

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

/// Adding and removing rows of a model, undoable. `list` is the rack's; `make` gives a new row.
template <class Row, class Make>
void editRows(RowTable& table, LogBook& book, std::vector<Row> Rack::*list, const QString& add,
              const QString& remove, const std::vector<decltype(Row::id)>& rows, const Make& make) {
  DayController& days = book.days();
  QObject::connect(&table, &RowTable::addWanted, &table, [&days, list, add, make] {
    const std::int64_t id = days.freeId();
    days.edit(add, [&](DayPlan& plan) { (plan.rack.*list).push_back(make(id)); });
  });
  QObject::connect(&table, &RowTable::removeWanted, &table, [&days, list, remove, &rows](int row) {
    const auto id = rows[static_cast<std::size_t>(row)];
    days.edit(remove, [&](DayPlan& plan) {
      std::erase_if(plan.rack.*list, [id](const Row& r) { return r.id == id; });
    });
  });
}

}  // namespace

QString dayMonthYear(const std::string& date) {
  const QDate day = QDate::fromString(QString::fromStdString(date), Qt::ISODate);
  return day.isValid() ? QLocale::c().toString(day, "d MMM yyyy") : QObject::tr("a day without a date");
}

ClaimsTable::ClaimsTable(LogBook& book, const LogBook::ModelRecord& record, QWidget* parent)
    : RowTable({tr("What is said"), tr("Reading"), tr("At least"), tr("At most"), tr("So far")}, "claims",
               tr("Add a claim"),
               tr("Kept where the whole interval lies within, broken where it lies outside."), 0, parent),
      book_(book),
      record_(record) {
  connect(this, &RowTable::typed, this, &ClaimsTable::keep);
  editRows(
      *this, book, &Rack::claims, tr("Add a claim"), tr("Remove a claim"), rows_,
      [this](std::int64_t id) { return Claim{.id = id, .model = model_, .reading = ReadingId::FallRate}; });
}

const RigHistory* ClaimsTable::latestOf(ReadingId reading) const {
  const RigHistory* out = nullptr;
  for (const RigHistory& history : record_.histories) {
    if (history.reading != reading) continue;
    if (out == nullptr || history.days.back().date >= out->days.back().date) out = &history;
  }
  return out;
}

void ClaimsTable::showModel(ModelId model, UnitSystem units) {
  model_ = model;
  units_ = units;
  rows_.clear();
  std::vector<QStringList> cells;
  for (const Claim& claim : book_.days().plan().rack.claims) {
    if (claim.model != model_) continue;
    rows_.push_back(claim.id);
    const ShownUnit unit = shownUnit(claim.reading, units_);
    const auto bound = [&unit](const std::optional<double>& b) {
      return b ? QString("%1 %2").arg(shown(unit.shown(*b)), unit.unit).trimmed() : QString();
    };
    const RigHistory* latest = latestOf(claim.reading);
    QString so = stateInWords(stateOf(claim, latest == nullptr ? std::nullopt : latest->latest));
    if (latest != nullptr) so += tr(" (%1)").arg(dayMonthYear(latest->days.back().date));
    cells.push_back({QString::fromStdString(claim.words), spokenName(claim.reading), bound(claim.least),
                     bound(claim.most), so});
  }
  show(cells);
}

void ClaimsTable::keep(int row, int column, const QString& text) {
  const ClaimId id = rows_[static_cast<std::size_t>(row)];
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
  say(trouble);
  if (!trouble.isEmpty()) return showModel(model_, units_);
  book_.days().edit(tr("Claim"), [&after](DayPlan& plan) { plan.rack.claims = after.rack.claims; });
}

PiecesTable::PiecesTable(LogBook& book, QWidget* parent)
    : RowTable({tr("Number"), tr("State"), tr("Paid"), tr("Currency"), tr("Note")}, "pieces",
               tr("Add a piece"), tr("This very lure: used, spare, worn or lost."), 0, parent),
      book_(book) {
  connect(this, &RowTable::typed, this, &PiecesTable::keep);
  editRows(*this, book, &Rack::pieces, tr("Add a piece"), tr("Remove a piece"), rows_,
           [this](std::int64_t id) {
             return Piece{.id = id, .model = model_, .number = static_cast<int>(rows_.size()) + 1};
           });
}

void PiecesTable::showModel(ModelId model) {
  model_ = model;
  rows_.clear();
  std::vector<QStringList> cells;
  for (const Piece& piece : book_.days().plan().rack.pieces) {
    if (piece.model != model_) continue;
    rows_.push_back(piece.id);
    cells.push_back({QString::number(piece.number), stateWord(piece.state), shown(piece.paid),
                     QString::fromStdString(piece.currency), QString::fromStdString(piece.note)});
  }
  show(cells);
}

void PiecesTable::keep(int row, int column, const QString& text) {
  const PieceId id = rows_[static_cast<std::size_t>(row)];
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
  say(trouble);
  if (!trouble.isEmpty()) return showModel(model_);
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

PricesTable::PricesTable(LogBook& book, QWidget* parent)
    : RowTable({tr("Shop"), tr("Date"), tr("Price"), tr("Currency")}, "prices", tr("Add a price"),
               tr("What a shop asked, and when."), 0, parent),
      book_(book) {
  connect(this, &RowTable::typed, this, &PricesTable::keep);
  editRows(*this, book, &Rack::prices, tr("Add a price"), tr("Remove a price"), rows_,
           [this](std::int64_t id) {
             const Model* model = book_.days().plan().rack.model(model_);
             return Price{.id = id,
                          .model = model_,
                          .currency = model == nullptr ? std::string() : model->currency,
                          .date = QDate::currentDate().toString(Qt::ISODate).toStdString()};
           });
}

void PricesTable::showModel(ModelId model) {
  model_ = model;
  rows_.clear();
  std::vector<QStringList> cells;
  for (const Price& price : book_.days().plan().rack.prices) {
    if (price.model != model_) continue;
    rows_.push_back(price.id);
    cells.push_back({QString::fromStdString(price.shop), QString::fromStdString(price.date),
                     shown(price.amount), QString::fromStdString(price.currency)});
  }
  show(cells);
}

void PricesTable::keep(int row, int column, const QString& text) {
  const PriceId id = rows_[static_cast<std::size_t>(row)];
  QString trouble;
  std::optional<double> number;
  if (column == 1 && !text.isEmpty() && !dayNumberOf(text.toStdString()))
    trouble = tr("%1 is no date. Write it like 2026-11-29.").arg(text);
  if (column == 2 && (!numberFrom(text, number) || (number && *number < 0.0)))
    trouble = tr("%1 is no price.").arg(text);
  say(trouble);
  if (!trouble.isEmpty()) return showModel(model_);
  book_.days().edit(tr("Price"), [&](DayPlan& plan) {
    Price* price = rowWith(plan.rack.prices, id);
    if (price == nullptr) return;
    if (column == 0) price->shop = text.toStdString();
    if (column == 1) price->date = text.toStdString();
    if (column == 2) price->amount = number.value_or(0.0);
    if (column == 3) price->currency = text.toStdString();
  });
}

}  // namespace fin::app
