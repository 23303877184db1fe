// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/verdict/together_page.h"

#include <qcustomplot.h>

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QVBoxLayout>

#include "app/plots/plot.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

enum Order { kBySpeed, kByPrey };

QListWidget* namedList(const char* name, const QString& accessible) {
  auto* list = new QListWidget;
  list->setObjectName(name);
  list->setAccessibleName(accessible);
  list->setWordWrap(true);
  list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  return list;
}

QString namesIn(const SpeedSet& set) {
  QStringList names;
  for (const std::string& rig : set.rigs) names += QString::fromStdString(rig);
  return names.join(" + ");
}

}  // namespace

TogetherPage::TogetherPage(VerdictController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      heading_(new QLabel),
      plot_(dressedPlot("bandPlot")),
      words_(faintLabel({})),
      sets_(namedList("speedSets", tr("Rigs that share a speed"))),
      pairs_(namedList("speedPairs", tr("Pairs for two rods"))),
      order_(namedList("dayOrder", tr("Order for a day of fishing"))),
      school_(new QButtonGroup(this)),
      prey_(new UnitBox(tr("Length of what the fish eat"), "mm", {10.0, 500.0, 0})) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(6);
  heading_->setObjectName("togetherHeading");
  setLetters(*heading_, "large");
  heading_->setWordWrap(true);
  layout->addWidget(heading_);
  plot_->yAxis->grid()->setVisible(false);
  layout->addWidget(plot_, 3);
  words_->setObjectName("togetherWords");
  layout->addWidget(words_);
  layout->addWidget(buildBelow(), 3);
  connect(&controller, &VerdictController::changed, this, &TogetherPage::refresh);
}

QWidget* TogetherPage::buildBelow() {
  auto* below = new QWidget;
  auto* row = new QHBoxLayout(below);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(14);
  const auto column = [&](const QString& heading, QWidget* above, QListWidget* list) {
    auto* box = new QVBoxLayout;
    box->addWidget(headingLabel(heading));
    if (above != nullptr) box->addWidget(above);
    box->addWidget(list, 1);
    row->addLayout(box, 1);
  };
  column(tr("Share a speed"), nullptr, sets_);
  column(tr("For two rods"), nullptr, pairs_);
  auto* schools = new QWidget;
  auto* line = new QHBoxLayout(schools);
  line->setContentsMargins(0, 0, 0, 0);
  int id = 0;
  for (const auto& [name, text] :
       {std::pair("orderBySpeed", tr("Size by speed")), {"orderByPrey", tr("Size by prey")}}) {
    auto* button = namedButton(text, name);
    button->setCheckable(true);
    school_->addButton(button, id++);
    line->addWidget(button);
  }
  school_->button(kBySpeed)->setChecked(true);
  prey_->setObjectName("prey");
  line->addWidget(prey_);
  line->addStretch();
  column(tr("Order for a day"), schools, order_);
  connect(school_, &QButtonGroup::idClicked, this, &TogetherPage::refresh);
  connect(prey_, &UnitBox::edited, this, [this](double length) {
    controller_.edit(tr("Length of the prey"), [length](VerdictPlan& plan) { plan.prey_mm = length; });
  });
  return below;
}

void TogetherPage::setUnits(UnitSystem units) {
  units_ = units;
  refresh();
}

void TogetherPage::refresh() {
  const std::vector<SpeedBand> bands = bandsOf(controller_.lineUp().passes());
  prey_->show(controller_.plan().prey_mm);
  prey_->setVisible(school_->checkedId() == kByPrey);
  draw(bands);
  listSets(bands);
  listOrder(bands);
  const bool single = std::any_of(bands.begin(), bands.end(), [](const SpeedBand& b) { return !b.ladder; });
  QStringList lines;
  if (single)
    lines +=
        tr("Hollow: filmed at one speed only; its range is unknown. A ladder of speeds tells the "
           "band.");
  lines += tr("An arrow: it may go further, but was not filmed there.");
  words_->setText(bands.empty() ? QString() : lines.join(" "));
}

void TogetherPage::draw(const std::vector<SpeedBand>& bands) {
  plot_->clearItems();
  plot_->setVisible(!bands.empty());
  if (bands.empty()) return;
  const ShownUnit unit = shownUnit(kPullSpeed, units_);
  auto lanes = QSharedPointer<QCPAxisTickerText>::create();
  double fastest = 0.0;
  for (std::size_t i = 0; i < bands.size(); ++i) {
    const SpeedBand& band = bands[i];
    const double lane = -static_cast<double>(i);
    const QColor colour = markColour(static_cast<int>(i));
    lanes->addTick(lane, QString::fromStdString(band.rig));
    fastest = std::max(fastest, band.to_mm_s * unit.factor);
    auto* bar = new QCPItemRect(plot_);
    bar->topLeft->setCoords(band.from_mm_s * unit.factor, lane + 0.3);
    bar->bottomRight->setCoords(band.to_mm_s * unit.factor, lane - 0.3);
    bar->setPen(QPen(colour, 2));
    bar->setBrush(band.ladder ? QBrush(colour) : QBrush(theme().card));
    const auto arrow = [&](double from, double by) {
      auto* line = new QCPItemLine(plot_);
      line->start->setCoords(from * unit.factor, lane);
      line->end->setCoords((from + by) * unit.factor, lane);
      line->setPen(QPen(colour, 1.5, Qt::DotLine));
      line->setHead(QCPLineEnding(QCPLineEnding::esLineArrow, 7, 8));
    };
    if (band.openBelow) arrow(band.from_mm_s, -0.08 * band.from_mm_s);
    if (band.openAbove) arrow(band.to_mm_s, 0.08 * band.to_mm_s);
  }
  plot_->xAxis->setLabel(tr("Pulled at, %1").arg(unit.unit));
  plot_->xAxis->setRange(0.0, 1.12 * fastest);
  plot_->yAxis->setTicker(lanes);
  plot_->yAxis->setRange(0.5 - static_cast<double>(bands.size()), 0.5);
  plot_->setAccessibleName(tr("Speeds at which each rig was seen to work"));
  plot_->replot();
}

void TogetherPage::listSets(const std::vector<SpeedBand>& bands) {
  const auto fill = [&](QListWidget& list, const std::vector<SpeedSet>& sets, const QString& none) {
    list.clear();
    for (const SpeedSet& set : sets) {
      list.addItem(
          tr("%1\n%2 to %3")
              .arg(namesIn(set), spokenPull(set.from_mm_s, units_), spokenPull(set.to_mm_s, units_)));
    }
    if (sets.empty()) list.addItem(none);
  };
  const std::vector<SpeedSet> sets = setsThatShare(bands);
  fill(*sets_, sets, tr("No two rigs were seen to work at one speed."));
  fill(*pairs_, pairsThatShare(bands), tr("No pair shares a speed."));
  if (bands.empty()) {
    heading_->setText(tr("No rig was pulled at a speed that was read yet."));
  } else if (sets.empty()) {
    heading_->setText(tr("No two rigs share a speed."));
  } else {
    heading_->setText(tr("%1 can be pulled together at %2 to %3")
                          .arg(counted(sets.front().rigs.size(), tr("rig"), tr("rigs")),
                               spokenPull(sets.front().from_mm_s, units_),
                               spokenPull(sets.front().to_mm_s, units_)));
  }
}

void TogetherPage::listOrder(const std::vector<SpeedBand>& bands) {
  const std::vector<Entry> entries = controller_.lineUp().entries();
  std::vector<OrderedRig> rigs;
  for (const SpeedBand& band : bands) {
    const auto entry =
        std::find_if(entries.begin(), entries.end(), [&](const Entry& e) { return e.rig == band.rig; });
    rigs.push_back({band.rig, 0.5 * (band.from_mm_s + band.to_mm_s),
                    entry == entries.end() ? std::nullopt : entry->length_mm});
  }
  const bool prey = school_->checkedId() == kByPrey;
  rigs = prey ? byPrey(std::move(rigs), controller_.plan().prey_mm) : bySpeed(std::move(rigs));
  order_->clear();
  const ShownUnit mm = shownUnit("mm", units_);
  int n = 0;
  for (const OrderedRig& rig : rigs) {
    const QString length =
        rig.length_mm
            ? QString("%1 %2").arg(*rig.length_mm * mm.factor, 0, 'f', mm.factor < 1.0 ? 1 : 0).arg(mm.unit)
            : tr("length not noted");
    order_->addItem(tr("%1.  %2, %3, about %4")
                        .arg(++n)
                        .arg(QString::fromStdString(rig.rig), length, spokenPull(rig.speed_mm_s, units_)));
  }
  if (!rigs.empty())
    order_->addItem(
        prey ? tr("Nearest to the prey's length first.")
             : tr("Begin at the top and work down until they bite; up again when wind or cloud comes."));
}

}  // namespace fin::app
