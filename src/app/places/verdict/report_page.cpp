// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/verdict/report_page.h"

#include <QHBoxLayout>
#include <QScrollBar>
#include <QVBoxLayout>

#include "app/phrases/words.h"
#include "app/print/rig_card.h"
#include "app/print/writing.h"
#include "app/ui/files.h"
#include "app/ui/pieces.h"
#include "core/exchange/passes_file.h"
#include "core/exchange/rack_csv.h"

namespace fin::app {
namespace {

constexpr int kPrint_pt = 9;

}  // namespace

ReportPage::ReportPage(VerdictController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      conclusion_(new QPlainTextEdit),
      interest_(new QLineEdit),
      prices_(new QLineEdit),
      row_(new MakingRow(publisher_, "reportDone", "stopReport")),
      page_(new QTextBrowser) {
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(14);
  layout->addWidget(buildLeft());
  page_->setObjectName("report");
  page_->setAccessibleName(tr("The report as it will be read"));
  page_->setOpenLinks(false);
  layout->addWidget(page_, 1);
  connect(&controller, &VerdictController::changed, this, &ReportPage::refresh);
  connect(&controller.rankings(), &Rankings::ready, this, [this] {
    refresh();
    writeWaiting();
  });
}

QWidget* ReportPage::buildLeft() {
  auto* box = new QWidget;
  keepColumn(*box, kChoicesWidth_px);
  auto* left = new QVBoxLayout(box);
  left->setContentsMargins(0, 0, 0, 0);
  const auto add = [&](const QString& text, QWidget* input, const char* name) {
    auto* label = headingLabel(text);
    label->setBuddy(input);
    input->setObjectName(name);
    input->setAccessibleName(text);
    left->addWidget(label);
    left->addWidget(input);
  };
  add(tr("In our own words"), conclusion_, "conclusion");
  conclusion_->setMaximumHeight(150);
  conclusion_->setTabChangesFocus(true);
  add(tr("Our interest in any of them"), interest_, "interest");
  add(tr("Prices noted where and when"), prices_, "pricesFrom");
  auto* keep = namedButton(tr("Take into the report"), "keepWords");
  left->addWidget(keep);
  connect(keep, &QPushButton::clicked, this, &ReportPage::keepWords);
  for (QLineEdit* line : {interest_, prices_})
    connect(line, &QLineEdit::editingFinished, this, &ReportPage::keepWords);
  left->addStretch();
  const std::tuple<QString, const char*, Form> ways[] = {
      {tr("Write as PDF …"), "report.pdf", Form::Pdf},
      {tr("Web page with clips …"), "report-page", Form::WebPage},
      {tr("Cards for phones …"), "report-cards", Form::Cards},
      {tr("All readings as a table …"), "readings.csv", Form::Table},
      {tr("All readings as JSON …"), "readings.json", Form::Json}};
  for (const auto& [text, name, form] : ways) {
    auto* button = namedButton(text, name);
    connect(button, &QPushButton::clicked, this, [this, name = QString(name), form = form] {
      const QString file = askWhereTo(this, tr("Where to"), name);
      if (!file.isEmpty()) write(form, file);
    });
    left->addWidget(button);
  }
  left->addWidget(row_);
  return box;
}

/// One step of undo for all three.
void ReportPage::keepWords() {
  controller_.edit(tr("Words of the report"), [this](VerdictPlan& plan) {
    plan.conclusion = conclusion_->toPlainText().trimmed().toStdString();
    plan.interest = interest_->text().trimmed().toStdString();
    plan.pricesFrom = prices_->text().trimmed().toStdString();
  });
}

void ReportPage::hideEvent(QHideEvent* event) {
  if (!event->spontaneous()) keepWords();  // whoever goes on to another page loses nothing
  QWidget::hideEvent(event);
}

void ReportPage::setUnits(UnitSystem units) {
  units_ = units;
  refresh();
}

void ReportPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void ReportPage::refresh() {
  if (!isVisible()) return;
  const VerdictPlan& plan = controller_.plan();
  if (!conclusion_->hasFocus()) conclusion_->setPlainText(QString::fromStdString(plan.conclusion));
  if (!interest_->hasFocus()) interest_->setText(QString::fromStdString(plan.interest));
  if (!prices_->hasFocus()) prices_->setText(QString::fromStdString(plan.pricesFrom));
  takeStills();
  const int at = page_->verticalScrollBar()->value();
  const auto report = reportOf(controller_, pictures_, units_);
  if (!report) return;  // until the rankings are there
  page_->setHtml(reportHtml(*report, ReportForm::Print));
  page_->verticalScrollBar()->setValue(at);
}

/// Only when other passes were read.
void ReportPage::takeStills() {
  std::vector<PassId> passes;
  for (const ComparedPass& pass : controller_.lineUp().passes()) passes.push_back(pass.id);
  if (passes == picturesOf_) return;
  picturesOf_ = passes;
  taking_.start(
      [shown = shownPasses(controller_.lineUp())](
          const JobControl& job) -> Result<std::map<QString, QImage>> { return picturesOf(shown, job); },
      [this](Result<std::map<QString, QImage>> pictures) {
        if (pictures) pictures_ = std::move(*pictures);
        refresh();
        writeWaiting();
      });
}

/// What was asked for before pictures and rankings were there.
void ReportPage::writeWaiting() {
  for (const auto& [form, name] : std::exchange(waiting_, {})) write(form, name);
}

void ReportPage::write(Form form, const QString& name) {
  if (form == Form::Table || form == Form::Json) return writeReadings(form, name);
  takeStills();
  const auto report = busyGathering() ? std::nullopt : reportOf(controller_, pictures_, units_);
  if (!report) {
    waiting_.emplace_back(form, name);
    return row_->say(tr("It is written as soon as the pictures are taken and the rankings worked out."),
                     false);
  }
  if (form == Form::WebPage && publisher_.busy()) return;  // how far it is stands below
  if (form == Form::WebPage) return publisher_.writeWebPage(*report, shownPasses(controller_.lineUp()), name);
  if (form == Form::Cards) {
    const auto cards = writeRigCards(*report, name);
    return cards
               ? row_->say(tr("Written: %1 in %2").arg(counted(*cards, tr("card"), tr("cards")), name), false)
               : row_->say(QString::fromStdString(cards.error().message), true);
  }
  const QString file = withEnding(name, ".pdf");
  say(printHtml(reportHtml(*report, ReportForm::Print), report->title, file,
                {.points = kPrint_pt, .contents = true}),
      file);
}

void ReportPage::writeReadings(Form form, const QString& name) {
  const auto& passes = controller_.lineUp().passes();
  const QString file = withEnding(name, form == Form::Json ? ".json" : ".csv");
  if (form == Form::Json) {
    const std::string& day = controller_.lineUp().day().plan().name;
    return say(
        writeFile(file, QByteArray::fromStdString(writePasses(day, controller_.lineUp().entries(), passes))),
        file);
  }
  ReadingRows rows = rowsOf(passes);
  say(writeFile(file,
                QByteArray::fromStdString(writeCsv({',', std::move(rows.heads), std::move(rows.rows)}))),
      file);
}

void ReportPage::say(const Result<void>& done, const QString& file) {
  row_->say(done ? tr("Written: %1").arg(file) : QString::fromStdString(done.error().message), !done);
}

}  // namespace fin::app
