// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/look/look_place.h"

#include <qcustomplot.h>

#include <QGridLayout>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QVBoxLayout>

#include "app/plots/pass_trace.h"
#include "app/plots/plot.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr std::size_t kStills = 3;
constexpr std::size_t kNumbers = 6;  ///< the first ones of a pass

/// How sure the program is, and of what.
QString sentenceOn(const Finding& finding) {
  if (!finding.found())
    return QObject::tr("Not found: %1. Open it on the bench and place the marks by hand.")
        .arg(QString::fromStdString(finding.reason));
  if (finding.sure() >= kSureEnough) return QObject::tr("Found, and sure of both ends.");
  QStringList doubtful;
  for (const FoundMark& mark : finding.marks) {
    if (mark.sure < kSureEnough) doubtful << spokenName(mark.seed.name).toLower();
  }
  return QObject::tr("Look closely: not sure of the %1.").arg(doubtful.join(QObject::tr(" and the ")));
}

QString scaleOf(const PassRequest& request) {
  if (request.scale || request.square) return {};
  if (request.ownLength)
    return QObject::tr("Size from the lure's own length in the rack, to %1 %.")
        .arg(100.0 * (request.ownLength->u95 / request.ownLength->length), 0, 'f', 0);
  return QObject::tr("No known length: no sizes or speeds. Mark one on the bench.");
}

QString severalThings(const std::vector<Protocol>& several) {
  QStringList out;
  for (const Protocol protocol : several) out << spokenName(protocol).toLower();
  return out.isEmpty() ? QString()
                       : QObject::tr("Several things in one clip: %1. Split it (S).").arg(out.join(", "));
}

}  // namespace

LookPlace::LookPlace(LookThrough& look, QWidget* parent)
    : QWidget(parent),
      look_(look),
      title_(new QLabel),
      count_(faintLabel({})),
      sentence_(new QLabel),
      axis_(faintLabel({})),
      plot_(dressedPlot("lookTrace")),
      numbers_(new QLabel),
      notes_(new WholeLabel),
      take_(namedButton(tr("Take it  Enter"), "takeFound")),
      swap_(namedButton(tr("Ends are swapped  X"), "swapEnds")),
      bench_(namedButton(tr("Open on the bench  B"), "foundToBench")),
      foul_(namedButton(tr("Fouled  F"), "foulFound")),
      split_(namedButton(tr("Split it  S"), "splitFound")),
      actions_(tr("Look through"),
               [this] { return look_.current() == nullptr ? tr("No pass waits for a look.") : QString(); }) {
  setFocusPolicy(Qt::StrongFocus);
  title_->setObjectName("lookTitle");
  title_->setTextFormat(Qt::PlainText);
  setLetters(*title_, "large");
  sentence_->setObjectName("lookSentence");
  sentence_->setTextFormat(Qt::PlainText);
  sentence_->setWordWrap(true);
  numbers_->setObjectName("lookNumbers");
  numbers_->setTextFormat(Qt::RichText);
  numbers_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  setLetters(*numbers_, "middle");
  notes_->setObjectName("lookNotes");
  notes_->setTextFormat(Qt::PlainText);
  notes_->setProperty("faint", true);
  count_->setObjectName("lookCount");
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(14, 12, 14, 12);
  layout->setSpacing(8);
  auto* head = new QHBoxLayout;
  head->addWidget(title_, 1);
  head->addWidget(count_);
  layout->addLayout(head);
  layout->addWidget(sentence_);
  auto* row = new QHBoxLayout;
  row->setSpacing(8);
  for (std::size_t i = 0; i < kStills; ++i) {
    stills_.push_back(new StillView);
    stills_.back()->setObjectName("lookStill" + QString::number(i));
    row->addWidget(stills_.back(), 1);
  }
  layout->addLayout(row, 5);
  auto* below = new QHBoxLayout;
  below->setSpacing(16);
  auto* trace = new QVBoxLayout;
  trace->setSpacing(2);
  trace->addWidget(axis_);
  trace->addWidget(plot_, 1);
  below->addLayout(trace, 3);
  auto* told = new QVBoxLayout;
  told->addWidget(numbers_);
  told->addWidget(notes_);
  told->addStretch();
  below->addLayout(told, 2);
  layout->addLayout(below, 4);
  layout->addWidget(buildButtons());
  fillActions();
  connect(&look, &LookThrough::changed, this, &LookPlace::refresh);
  refresh();
}

QWidget* LookPlace::buildButtons() {
  auto* bar = new QWidget;
  auto* row = new QHBoxLayout(bar);
  row->setContentsMargins(0, 0, 0, 0);
  take_->setProperty("primary", true);
  for (QPushButton* button : {take_, swap_, bench_, foul_, split_}) {
    button->setFocusPolicy(Qt::NoFocus);  // the keys belong to the page
    button->setMinimumHeight(40);
    row->addWidget(button);
  }
  row->addStretch();
  auto* before = namedButton(tr("Back  Left"), "lookBefore");
  auto* later = namedButton(tr("Later  Right"), "lookLater");
  for (QPushButton* button : {before, later}) {
    button->setFocusPolicy(Qt::NoFocus);
    button->setMinimumHeight(40);
    row->addWidget(button);
  }
  connect(take_, &QPushButton::clicked, &look_, &LookThrough::take);
  connect(swap_, &QPushButton::clicked, &look_, &LookThrough::swapEnds);
  connect(bench_, &QPushButton::clicked, this, &LookPlace::openOnBench);
  connect(foul_, &QPushButton::clicked, &look_, &LookThrough::foul);
  connect(split_, &QPushButton::clicked, &look_, &LookThrough::split);
  connect(before, &QPushButton::clicked, this, [this] { look_.step(-1); });
  connect(later, &QPushButton::clicked, this, [this] { look_.step(1); });
  return bar;
}

void LookPlace::fillActions() {
  actions_.add(tr("Take the pass"), {Qt::Key_Return, Qt::Key_Enter}, [this] { look_.take(); })
      .add(tr("Nose and tail are swapped"), {Qt::Key_X}, [this] { look_.swapEnds(); })
      .add(tr("Open the pass on the bench"), {Qt::Key_B}, [this] { openOnBench(); })
      .add(tr("The pass is fouled"), {Qt::Key_F}, [this] { look_.foul(); })
      .add(tr("Split the clip by what the lure does"), {Qt::Key_S}, [this] { look_.split(); })
      .add(tr("Leave it for later"), {Qt::Key_Right}, [this] { look_.step(1); })
      .add(tr("Back to the one before"), {Qt::Key_Left}, [this] { look_.step(-1); });
}

void LookPlace::keyPressEvent(QKeyEvent* event) {
  if (!actions_.heard(*event)) QWidget::keyPressEvent(event);
}

void LookPlace::setUnits(UnitSystem units) {
  units_ = units;
  refresh();
}

void LookPlace::openOnBench() {
  if (const LoggedPass* pass = look_.current()) emit benchWanted(pass->id);
}

void LookPlace::refresh() {
  const LoggedPass* pass = look_.current();
  const LookedPass* looked = look_.shown();
  for (std::size_t i = 0; i < stills_.size(); ++i) {
    const bool there = looked != nullptr && i < looked->stills.size();
    stills_[i]->show(there ? std::optional(looked->stills[i]) : std::nullopt);
  }
  showButtons(pass, looked);
  plot_->clearGraphs();
  plot_->setVisible(looked != nullptr && looked->result);
  if (pass == nullptr) {
    title_->setText(tr("No pass waits for a look"));
    count_->clear();
    sentence_->setText(
        tr("Clips that come in are measured by themselves. Here you look at each of them once; then it is "
           "compared."));
    for (QLabel* label : {axis_, numbers_, notes_}) label->clear();
    plot_->replot();
    return;
  }
  title_->setText(QString::fromStdString(pass->title));
  const std::size_t doubtful = look_.doubtful();
  count_->setText(tr("%1 of %2; %3")
                      .arg(look_.place() + 1)
                      .arg(look_.waiting().size())
                      .arg(doubtful == 0 ? tr("none doubtful") : tr("%1 doubtful").arg(doubtful)));
  sentence_->setText(sentenceOn(*pass->finding));
  setLook(*sentence_, "trouble", !pass->finding->found());
  showTrace(*pass, looked);
  showNumbers(*pass, looked);
}

void LookPlace::showButtons(const LoggedPass* pass, const LookedPass* looked) {
  const QString none = tr("No pass waits for a look.");
  const bool any = pass != nullptr, found = any && pass->finding->found();
  const QString why = any ? tr("Nothing was found here.") : none;
  setLook(*take_, "primary", found || !any);
  setLook(*bench_, "primary", any && !found);
  enableOr(*take_, found, why);
  enableOr(*swap_, found, why);
  enableOr(*bench_, any, none);
  enableOr(*foul_, any, none);
  split_->setVisible(any && looked != nullptr && !looked->several.empty());
}

void LookPlace::showTrace(const LoggedPass& pass, const LookedPass* looked) {
  if (looked == nullptr || !looked->result) {
    axis_->setText(looked == nullptr ? tr("Opening …") : looked->trouble);
    plot_->replot();
    return;
  }
  const ShownTrace trace = traceFor(pass.request, *looked->result, units_);
  axis_->setText(trace.axis);
  QCPGraph* graph = plot_->addGraph();
  graph->setPen(QPen(theme().ink, 1.6));
  fillTrace(*graph, trace.series);
  plot_->xAxis->setLabel(tr("True time, s"));
  plot_->rescaleAxes();
  plot_->yAxis->scaleRange(1.1);
  plot_->replot();
}

void LookPlace::showNumbers(const LoggedPass& pass, const LookedPass* looked) {
  QString rows;
  QStringList notes;
  if (looked != nullptr && looked->result) {
    const ReadingSet& readings = looked->result->readings;
    for (std::size_t i = 0; i < std::min(kNumbers, readings.readings.size()); ++i) {
      const Reading& r = readings.readings[i];
      const SpokenValue value = spoken(r, units_);
      rows += QString(
                  "<tr><td style='padding-right:22px'>%1</td><td align='right'><b>%2</b></td>"
                  "<td style='padding-left:6px'>%3 %4</td></tr>")
                  .arg(spokenName(r.id).toHtmlEscaped(), value.value.toHtmlEscaped(),
                       value.uncertainty.toHtmlEscaped(), value.unit.toHtmlEscaped());
    }
    if (rows.isEmpty() && !readings.refused.empty())
      notes << asSentence(QString::fromStdString(readings.refused.front().why)) + ".";
    if (const QString several = severalThings(looked->several); !several.isEmpty()) notes << several;
  }
  if (pass.finding->found()) {
    if (const QString scale = scaleOf(pass.request); !scale.isEmpty()) notes << scale;
  }
  numbers_->setText(rows.isEmpty() ? QString() : "<table>" + rows + "</table>");
  notes_->setText(notes.join("\n"));
}

}  // namespace fin::app
