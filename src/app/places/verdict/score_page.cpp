// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/verdict/score_page.h"

#include <qcustomplot.h>

#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>

#include "app/phrases/verdict_words.h"
#include "app/plots/plot.h"
#include "app/ui/pieces.h"
#include "app/ui/table_heads.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr int kRowHeight_px = 46;
// Before the properties' columns, and after them.
enum Lead { kPlace, kRig, kLeads };
enum Tail { kTotal, kPlaces, kByMeasuring, kByWeights, kByBoth };

/// The rig cannot be told apart from one that is ranked beside it in this property.
bool isTooClose(const ScoreTable& table, std::size_t wish, std::size_t entry) {
  const auto& own = table.cells[wish][entry];
  if (!own) return false;
  for (std::size_t e = 0; e < table.entries.size(); ++e) {
    const auto& other = table.cells[wish][e];
    if (e == entry || !other || !table.entries[e].graded) continue;
    if (own->letters.find_first_of(other->letters) != std::string::npos) return true;
  }
  return false;
}

QString totalName(ScorePage::School school, Scoring scoring) {
  if (school == ScorePage::School::Price)
    return scoring == Scoring::Points ? QObject::tr("Points\nper money") : QObject::tr("Places\nwith price");
  return scoring == Scoring::Points ? QObject::tr("Points\nof 10") : QObject::tr("Places\nadded");
}

}  // namespace

ScorePage::ScorePage(VerdictController& controller, School school, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      school_(school),
      wishes_(new WishEditor(controller.lineUp(), school != School::Places)),
      basis_(new QComboBox),
      first_(new QLabel),
      firmness_(new QLabel),
      table_(new QTableWidget),
      words_(faintLabel({})) {
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(14);
  layout->addWidget(buildLeft());
  auto* right = new QVBoxLayout;
  right->setSpacing(6);
  first_->setObjectName("firstPlace");
  setLetters(*first_, "large");
  first_->setWordWrap(true);
  right->addWidget(first_);
  firmness_->setObjectName("firmness");
  firmness_->setWordWrap(true);
  right->addWidget(firmness_);
  TableHeads::keepWhole(*table_);
  table_->setObjectName("ranking");
  table_->setAccessibleName(tr("Rigs in order; Enter on a property shows its passes"));
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->setTabKeyNavigation(false);
  table_->setToolTip(tr("Double press or Enter on a property: see its passes beside each other."));
  table_->verticalHeader()->hide();
  table_->verticalHeader()->setDefaultSectionSize(kRowHeight_px);
  right->addWidget(table_, 3);
  if (school == School::Price) {
    prices_ = dressedPlot("pricePlot");
    right->addWidget(prices_, 2);
  }
  words_->setObjectName("verdictWords");
  right->addWidget(words_);
  layout->addLayout(right, 1);
  connect(table_, &QTableWidget::itemActivated, this, [this](QTableWidgetItem* item) {
    const auto wish = static_cast<std::size_t>(item->column() - kLeads);
    const std::vector<Wish> wishes = controller_.wishes();
    if (item->column() >= kLeads && wish < wishes.size() && wishes[wish].judged.empty())
      emit readingWanted(wishes[wish].reading);
  });
  connect(&controller, &VerdictController::changed, this, &ScorePage::refresh);
  connect(&controller.rankings(), &Rankings::ready, this, &ScorePage::refresh);
}

QWidget* ScorePage::buildLeft() {
  auto* box = new QWidget;
  keepColumn(*box, kChoicesWidth_px);
  auto* left = new QVBoxLayout(box);
  left->setContentsMargins(0, 0, 0, 0);
  basis_->setObjectName("basis");
  basis_->setAccessibleName(tr("What is weighed against the price"));
  basis_->addItem(tr("Places against price"), static_cast<int>(Scoring::Places));
  basis_->addItem(tr("Points against price"), static_cast<int>(Scoring::Points));
  basis_->setVisible(school_ == School::Price);
  left->addWidget(basis_);
  left->addWidget(headingLabel(tr("What counts")));
  left->addWidget(wishes_, 1);
  connect(basis_, &QComboBox::currentIndexChanged, this, &ScorePage::refresh);
  connect(wishes_, &WishEditor::edited, this, [this](const QString& what, const std::vector<Wish>& wishes) {
    controller_.edit(what, [&](VerdictPlan& plan) { plan.wishes = wishes; });
  });
  return box;
}

void ScorePage::setUnits(UnitSystem units) {
  units_ = units;
  wishes_->setUnits(units);
  refresh();
}

void ScorePage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

RankOptions ScorePage::options() const {
  RankOptions out;
  if (school_ == School::Points) out.scoring = Scoring::Points;
  if (school_ == School::Price) {
    out.scoring = static_cast<Scoring>(basis_->currentData().toInt());
    out.againstPrice = true;
  }
  return out;
}

void ScorePage::refresh() {
  if (!isVisible()) return;  // chances cost; they are found when somebody looks
  wishes_->show(controller_.wishes(), controller_.plan().judgements);
  const ScoreTable table = controller_.tableBy(controller_.wishes());
  const Ranking* found = controller_.rankings().of(table, options());
  if (found == nullptr) return firmness_->setText(tr("Working out how firm the order is …"));
  const Ranking& ranking = *found;
  first_->setText(firstInWords(table, ranking));
  firmness_->setText(firmnessInWords(table, ranking));
  fillTable(table, ranking);
  QStringList lines = leftInWords(table, ranking);
  if (controller_.plan().wishes.empty() && !table.wishes.empty())
    lines += tr("What counts is proposed from what was read of most rigs; change it on the left.");
  if (!ranking.placings.empty()) lines += tr("≈ cannot be told apart from another rig in this property.");
  words_->setText(lines.join("\n"));
  if (prices_ != nullptr) drawPrices(table, ranking);
}

void ScorePage::fillTable(const ScoreTable& table, const Ranking& ranking) {
  QStringList heads{tr("Place"), tr("Rig")};
  for (std::size_t w = 0; w < table.wishes.size(); ++w) {
    QString head = spokenWish(table.wishes[w]).replace(", ", ",\n");
    if (table.wishes[w].weight != 1.0) head += " × " + plainNumber(table.wishes[w].weight);
    if (table.speeds_mm_s[w]) head += "\n" + tr("at %1").arg(spokenPull(*table.speeds_mm_s[w], units_));
    heads += head;
  }
  heads << totalName(school_, options().scoring) << tr("May be\nplace") << tr("First place:\nmeasured")
        << tr("other\nweights") << tr("both");
  table_->clear();
  table_->setColumnCount(static_cast<int>(heads.size()));
  table_->setHorizontalHeaderLabels(heads);
  table_->setRowCount(0);
  const auto add = [&](std::size_t entry, const Placing* placing) {
    table_->setRowCount(table_->rowCount() + 1);
    fillRow(table_->rowCount() - 1, table, entry, placing);
  };
  for (const Placing& p : ranking.placings) add(p.entry, &p);
  for (std::size_t e = 0; e < table.entries.size(); ++e) {
    const bool ranked = std::any_of(ranking.placings.begin(), ranking.placings.end(),
                                    [e](const Placing& p) { return p.entry == e; });
    if (!ranked) add(e, nullptr);
  }
  table_->resizeColumnsToContents();
  table_->horizontalHeader()->setSectionResizeMode(kRig, QHeaderView::Stretch);
  table_->horizontalHeader()->setMinimumSectionSize(56);
}

void ScorePage::fillRow(int row, const ScoreTable& table, std::size_t entry, const Placing* placing) {
  const Entry& rig = table.entries[entry];
  const bool points = options().scoring == Scoring::Points;
  QTableWidgetItem* place = readOnlyCell(
      placing != nullptr ? plainNumber(placing->place, 1) : QString(QChar(0x2013)), Qt::AlignCenter);
  if (placing != nullptr) place->setFont(largeFont());
  table_->setItem(row, kPlace, place);
  const QString second =
      !rig.graded ? tr("not graded")
      : school_ == School::Price && rig.price
          ? QString("%1 %2").arg(*rig.price, 0, 'f', 2).arg(QString::fromStdString(rig.currency))
          : QString();
  const QString name = QString::fromStdString(rig.rig);
  table_->setItem(row, kRig, readOnlyCell(second.isEmpty() ? name : name + "\n" + second));
  int column = kLeads;
  for (std::size_t w = 0; w < table.wishes.size(); ++w, ++column) {
    const auto& value = table.cells[w][entry];
    if (!value) {
      table_->setItem(row, column, readOnlyCell(QString(QChar(0x2013)), Qt::AlignCenter));
      continue;
    }
    const Wish& wish = table.wishes[w];
    QString text = spokenValue(wish, *value, units_);
    if (placing != nullptr && placing->cells[w]) {
      const QString score = plainNumber(*placing->cells[w], 1);
      text = (points ? tr("%1 points").arg(score) : score + ".") +
             (isTooClose(table, w, entry) ? QString::fromUtf8(" ≈") : QString()) + "\n" + text;
    }
    auto* item = readOnlyCell(text, Qt::AlignCenter);
    item->setToolTip(!wish.judged.empty() ? tr("Judged by eye or hand")
                     : value->passes == 1 ? tr("One pass")
                                          : tr("Mean of %1 passes").arg(value->passes));
    table_->setItem(row, column, item);
  }
  if (placing == nullptr) return;
  table_->setItem(row, column + kTotal, readOnlyCell(plainNumber(placing->total), Qt::AlignCenter));
  auto* places = readOnlyCell(placesInWords(*placing), Qt::AlignCenter);
  places->setToolTip(tr("As far as the measuring tells, in 95 of 100 cases; %1 on average.")
                         .arg(plainNumber(placing->meanPlace, 1)));
  table_->setItem(row, column + kPlaces, places);
  table_->setItem(row, column + kByMeasuring,
                  readOnlyCell(percent(placing->first.byMeasuring), Qt::AlignCenter));
  table_->setItem(row, column + kByWeights, readOnlyCell(percent(placing->first.byWeights), Qt::AlignCenter));
  table_->setItem(row, column + kByBoth, readOnlyCell(percent(placing->first.byBoth), Qt::AlignCenter));
}

/// Points against price, and the line of those that nothing beats at their price.
void ScorePage::drawPrices(const ScoreTable& table, const Ranking& ranking) {
  prices_->clearPlottables();
  prices_->clearItems();
  prices_->setVisible(!ranking.placings.empty());
  if (ranking.placings.empty()) return;
  const Ranking points = rank(table, {.scoring = Scoring::Points, .draws = 1});
  std::vector<double> price, merit;
  std::vector<QString> names;
  std::string currency;
  for (const Placing& ranked : ranking.placings) {
    const auto scored = std::find_if(points.placings.begin(), points.placings.end(),
                                     [&](const Placing& p) { return p.entry == ranked.entry; });
    if (scored == points.placings.end()) continue;
    price.push_back(*table.entries[ranked.entry].price);
    merit.push_back(scored->total);
    names.push_back(QString::fromStdString(table.entries[ranked.entry].rig));
    currency = table.entries[ranked.entry].currency;
  }
  prices_->setVisible(!price.empty());
  if (price.empty()) return;
  const std::vector<bool> best = notBeaten(price, merit);
  QCPGraph* line = prices_->addGraph();
  line->setLineStyle(QCPGraph::lsStepLeft);
  line->setPen(QPen(theme().accent, 1.5, Qt::DashLine));
  const double dearest = *std::max_element(price.begin(), price.end());
  for (std::size_t i = 0; i < price.size(); ++i) {
    if (best[i]) line->addData(price[i], merit[i]);
    QCPGraph* dot = prices_->addGraph();
    dot->setLineStyle(QCPGraph::lsNone);
    dot->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDisc,
                                         QPen(best[i] ? theme().accent : theme().faint),
                                         best[i] ? theme().accent : theme().faint, 9));
    dot->addData(price[i], merit[i]);
    auto* label = new QCPItemText(prices_);
    label->setText(names[i]);
    // Names that would lie over each other go above and below in turn.
    const bool below = std::any_of(price.begin(), price.begin() + static_cast<std::ptrdiff_t>(i),
                                   [&](double p) { return std::abs(p - price[i]) < 0.3 * dearest; });
    label->setPositionAlignment(Qt::AlignLeft | (below ? Qt::AlignTop : Qt::AlignBottom));
    label->position->setCoords(price[i], merit[i]);
    label->setPadding(QMargins(6, below ? 3 : 0, 0, below ? 0 : 3));
    label->setColor(theme().ink);
  }
  prices_->xAxis->setLabel(tr("Price, %1").arg(QString::fromStdString(currency)));
  prices_->yAxis->setLabel(tr("Points of 10"));
  prices_->xAxis->setRange(0.0, 1.3 * dearest);
  prices_->yAxis->setRange(-1.5, 11.5);
  prices_->setAccessibleName(
      tr("Points against price; the line joins the rigs that none beats at their price"));
  prices_->replot();
}

}  // namespace fin::app
