// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/ladder_page.h"

#include <qcustomplot.h>

#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/plots/cadence_plot.h"
#include "app/plots/plot.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

QString numberText(const Reading& reading, UnitSystem units) {
  return spokenAs(reading.id, std::get<double>(reading.value), reading.u95.value_or(0.0), units);
}

/// Notes and refusals, a line each.
QStringList wordsOn(const ReadingSet& readings) {
  QStringList lines;
  for (const Reading& reading : readings.readings) {
    QStringList notes;
    for (const std::string& note : reading.notes) notes += QString::fromStdString(note);
    if (!notes.isEmpty()) {
      lines += QString("<b>%1:</b> %2.")
                   .arg(spokenName(reading.id).toHtmlEscaped(), notes.join("; ").toHtmlEscaped());
    }
  }
  for (const Refusal& refusal : readings.refused) {
    lines +=
        QString("<b>%1:</b> %2.")
            .arg(spokenName(refusal.id).toHtmlEscaped(), QString::fromStdString(refusal.why).toHtmlEscaped());
  }
  return lines;
}

}  // namespace

LadderPage::LadderPage(LineUp& lineUp, QWidget* parent)
    : QWidget(parent),
      lineUp_(lineUp),
      rig_(new QComboBox),
      band_(new QLabel),
      words_(new QLabel),
      plot_(dressedPlot("ladderPlot")) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  auto* row = new QHBoxLayout;
  auto* label = new QLabel(tr("Rig"));
  label->setBuddy(rig_);
  rig_->setObjectName("ladderRig");
  rig_->setAccessibleName(tr("Rig whose ladder is read"));
  rig_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
  row->addWidget(label);
  row->addWidget(rig_);
  row->addStretch();
  layout->addLayout(row);
  band_->setObjectName("ladderBand");
  setLetters(*band_, "large");
  band_->setWordWrap(true);
  layout->addWidget(band_);
  layout->addWidget(plot_, 1);
  words_->setObjectName("ladderWords");
  words_->setTextFormat(Qt::RichText);
  words_->setWordWrap(true);
  layout->addWidget(words_);
  connect(rig_, &QComboBox::currentIndexChanged, this, &LadderPage::show);
  connect(&lineUp, &LineUp::changed, this, &LadderPage::refresh);
}

void LadderPage::setUnits(UnitSystem units) {
  units_ = units;
  refresh();
}

void LadderPage::refresh() {
  ladders_ = laddersOf(lineUp_.passes());
  cadences_ = cadencesOf(lineUp_.passes());
  {
    const QSignalBlocker quiet(rig_);
    const QString before = rig_->currentText();
    rig_->clear();
    int longest = 0;
    for (std::size_t i = 0; i < ladders_.size(); ++i) {
      rig_->addItem(QString::fromStdString(ladders_[i].first));
      if (ladders_[i].second.size() > ladders_[static_cast<std::size_t>(longest)].second.size())
        longest = static_cast<int>(i);
    }
    for (const auto& [rig, rungs] : cadences_)
      rig_->addItem(tr("%1, twitched").arg(QString::fromStdString(rig)));
    const int known = rig_->findText(before);
    rig_->setCurrentIndex(known >= 0 ? known : rig_->count() == 0 ? -1 : longest);
  }
  show();
}

void LadderPage::show() {
  plot_->clearPlottables();
  plot_->clearItems();
  const int chosen = rig_->currentIndex();
  enableOr(*rig_, chosen >= 0, tr("No rig was pulled at several speeds yet."));
  plot_->setVisible(chosen >= 0);
  if (chosen < 0) {
    band_->setText(tr("No rig was pulled at two speeds yet."));
    words_->setText(tr(
        "Plan straight pulls of one rig at three speeds or more, from dead slow to too fast. From them come "
        "the speed at which its action begins and the one at which it goes wrong. Twitches of one rig at two "
        "intervals and more tell how slowly it has to be twitched to keep its depth."));
    return;
  }
  if (chosen >= static_cast<int>(ladders_.size()))
    return showTwitches(
        evaluateCadence(cadences_[static_cast<std::size_t>(chosen) - ladders_.size()].second));
  plot_->yAxis->setLabel(tr("Width of the action, °"));
  const ShownUnit unit = shownUnit(kPullSpeed, units_);
  plot_->xAxis->setLabel(tr("Pulled at, %1").arg(unit.unit));
  double fastest = 0.0;
  double widest = 1.0;
  for (const auto& [rig, rungs] : ladders_) {
    for (const LadderRung& rung : rungs) {
      fastest = std::max(fastest, rung.speed_mm_s * unit.factor);
      widest = std::max(widest, rung.action_deg.value_or(0.0) + rung.actionU95_deg);
    }
  }
  plot_->xAxis->setRange(0.0, 1.06 * fastest);
  plot_->yAxis->setRange(-0.04 * widest, 1.12 * widest);  // a cross at nothing stays whole
  for (std::size_t i = 0; i < ladders_.size(); ++i) {
    const bool isChosen = static_cast<int>(i) == chosen;
    const SpeedLadder ladder = evaluateLadder(ladders_[i].second);
    if (isChosen) shade(ladder);
    draw(ladder, markColour(static_cast<int>(i)), isChosen);
    if (isChosen) say(ladder);
  }
  plot_->replot();
}

void LadderPage::showTwitches(const CadenceLadder& ladder) {
  drawCadence(*plot_, ladder, units_);
  const Reading* holds = ladder.readings.find(ReadingId::HoldInterval);
  band_->setText(holds != nullptr
                     ? tr("Keeps its depth when twitched every %1 or slower").arg(numberText(*holds, units_))
                     : tr("When it keeps its depth is not told yet"));
  QStringList lines = wordsOn(ladder.readings);
  if (const Reading* level = ladder.readings.find(ReadingId::LevelInterval))
    lines.prepend(tr("<b>Climbs no more</b> when twitched every %1.").arg(numberText(*level, units_)));
  lines += tr("Nothing is said of intervals that were not filmed.");
  words_->setText(lines.join("<br>"));
}

/// The usable band, from onset to the fastest pull that went well; hatched from there to the blow-out, as the
/// limit lies somewhere between.
void LadderPage::shade(const SpeedLadder& ladder) {
  const double factor = shownUnit(kPullSpeed, units_).factor;
  const auto onset = numberIn(ladder.readings, ReadingId::OnsetSpeed);
  if (!onset) return;
  const auto blowout = numberIn(ladder.readings, ReadingId::BlowoutSpeed);
  double good = *onset;
  for (const LadderRung& rung : ladder.rungs) {
    if (!blowout || rung.speed_mm_s < *blowout) good = std::max(good, rung.speed_mm_s);
  }
  const auto band = [&](double from, double to, const QBrush& brush) {
    auto* item = new QCPItemRect(plot_);
    item->topLeft->setCoords(from * factor, plot_->yAxis->range().upper);
    item->bottomRight->setCoords(to * factor, plot_->yAxis->range().lower);
    item->setPen(Qt::NoPen);
    item->setBrush(brush);
  };
  band(*onset, good, theme().accentSoft);
  if (blowout) band(good, *blowout, QBrush(theme().accentSoft, Qt::BDiagPattern));
}

void LadderPage::draw(const SpeedLadder& ladder, const QColor& colour, bool chosen) {
  const double factor = shownUnit(kPullSpeed, units_).factor;
  std::vector<double> x, y;
  QVector<double> seenX, seenY, seenU, lostX, lostY;
  for (const LadderRung& rung : ladder.rungs) {
    if (!rung.action_deg) {
      lostX.push_back(rung.speed_mm_s * factor);
      lostY.push_back(0.0);
      continue;
    }
    seenX.push_back(rung.speed_mm_s * factor);
    seenY.push_back(*rung.action_deg);
    seenU.push_back(rung.actionU95_deg);
    if (x.empty() || seenX.back() > x.back()) {
      x.push_back(seenX.back());
      y.push_back(seenY.back());
    }
  }
  const QColor ink = chosen ? colour : theme().line;
  addCurve(*plot_, x, y, QPen(ink, chosen ? 2.5 : 1.5, chosen ? Qt::SolidLine : Qt::DashLine));
  QCPGraph* points = plot_->addGraph();
  points->setLineStyle(QCPGraph::lsNone);
  points->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCircle, QPen(ink, 2), theme().card, 9));
  points->setData(seenX, seenY, true);
  auto* bars = new QCPErrorBars(plot_->xAxis, plot_->yAxis);
  bars->setDataPlottable(points);
  bars->setPen(QPen(ink, 1.4));
  bars->setData(seenU);
  QCPGraph* lost = plot_->addGraph();
  lost->setLineStyle(QCPGraph::lsNone);
  lost->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCross, QPen(ink, 2), Qt::NoBrush, 11));
  lost->setData(lostX, lostY, true);
}

void LadderPage::say(const SpeedLadder& ladder) {
  const auto onset = numberIn(ladder.readings, ReadingId::OnsetSpeed);
  const auto blowout = numberIn(ladder.readings, ReadingId::BlowoutSpeed);
  const auto text = [&](ReadingId id) { return numberText(*ladder.readings.find(id), units_); };
  band_->setText(onset && blowout ? tr("Works from %1; goes wrong at %2")
                                        .arg(text(ReadingId::OnsetSpeed), text(ReadingId::BlowoutSpeed))
                 : onset   ? tr("Works from %1 on").arg(text(ReadingId::OnsetSpeed))
                 : blowout ? tr("Goes wrong at %1").arg(text(ReadingId::BlowoutSpeed))
                           : tr("No usable band in the speeds filmed"));
  QStringList lines = wordsOn(ladder.readings);
  const bool lost = std::any_of(ladder.rungs.begin(), ladder.rungs.end(),
                                [](const LadderRung& r) { return !r.action_deg.has_value(); });
  if (lost) lines += tr("A cross stands for a pull in which no steady rhythm was found.");
  lines += tr("Nothing is said of speeds that were not filmed.");
  words_->setText(lines.join("<br>"));
}

}  // namespace fin::app
