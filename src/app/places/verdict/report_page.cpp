// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/verdict/report_page.h"

#include <QHBoxLayout>
#include <QScrollBar>
#include <QVBoxLayout>

#include "app/canvas/view/lure_place.h"
#include "app/controllers/pass_controller.h"
#include "app/jobs/picture_image.h"
#include "app/print/writing.h"
#include "app/ui/files.h"
#include "app/ui/pieces.h"
#include "core/exchange/passes_file.h"
#include "core/exchange/rack_csv.h"

namespace fin::app {
namespace {

constexpr int kStill_px = 640;
constexpr int kPrint_pt = 9;
constexpr double kNearer = 2.5;

/// A frame of a pass, to be taken in the background.
struct Wanted {
  QString caption;
  std::filesystem::path clip;
  std::size_t frame = 0;
  std::optional<QPointF> lure;  ///< where it is in that frame
};

/// About the lure, in the picture's own shape.
QRect partAbout(QPointF lure, QSize picture) {
  QRect part(QPoint(), picture / kNearer);
  part.moveCenter(lure.toPoint());
  part.moveLeft(std::clamp(part.left(), 0, picture.width() - part.width()));
  part.moveTop(std::clamp(part.top(), 0, picture.height() - part.height()));
  return part;
}

ReportStill take(const Wanted& wanted, const std::stop_token& stop) {
  ReportStill out{wanted.caption, {}};
  const auto clip = Clip::open(wanted.clip, {{}, {stop, {}}});
  const auto reader = clip ? Clip::reader(*clip, {}) : tl::unexpected(clip.error());
  const auto picture = reader ? (*reader)->frame(wanted.frame) : tl::unexpected(reader.error());
  if (!picture) {
    out.caption = QObject::tr("%1: its clip is gone or cannot be read").arg(wanted.caption);
    return out;
  }
  const QSize size(picture->width(), picture->height());
  out.picture = imageOf(*picture, kStill_px, wanted.lure ? partAbout(*wanted.lure, size) : QRect());
  return out;
}

}  // namespace

ReportPage::ReportPage(VerdictController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      conclusion_(new QPlainTextEdit),
      interest_(new QLineEdit),
      prices_(new QLineEdit),
      done_(faintLabel({})),
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
    for (const auto& [form, name] : std::exchange(waiting_, {})) write(form, name);
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
      {tr("Write as a web page …"), "report.html", Form::WebPage},
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
  done_->setObjectName("reportDone");
  left->addWidget(done_);
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
  const QString html = reportPage(controller_, stills_, units_);
  if (html.isEmpty()) return;  // until the rankings are there
  page_->setHtml(html);
  page_->verticalScrollBar()->setValue(at);
}

/// One frame of every rig, from the middle of what was followed; only when other passes were read.
void ReportPage::takeStills() {
  std::vector<PassId> passes;
  std::vector<Wanted> wanted;
  QStringList rigs;
  const Log& log = controller_.lineUp().passController().log();
  for (const ComparedPass& pass : controller_.lineUp().passes()) {
    const QString rig = QString::fromStdString(pass.rig);
    if (rigs.contains(rig)) continue;
    rigs += rig;
    passes.push_back(pass.id);
  }
  if (passes == stillsOf_) return;
  stillsOf_ = passes;
  for (std::size_t i = 0; i < passes.size(); ++i) {
    const auto kept = log.pass(passes[i]);
    const auto measured = log.measurement(passes[i]);
    if (!kept) continue;
    Wanted one{rigs[static_cast<qsizetype>(i)], kept->request.clip, kept->request.firstFrame, {}};
    if (measured && *measured) {
      const Track& way = (*measured)->track;
      one.frame = way.firstFrame + way.frameCount / 2;
      one.lure = lurePlace(way, one.frame, 3);
    }
    wanted.push_back(std::move(one));
  }
  taking_.start(
      [wanted](const JobControl& job) -> Result<std::vector<ReportStill>> {
        std::vector<ReportStill> out;
        for (const Wanted& w : wanted) {
          if (!job.cancelled()) out.push_back(take(w, job.stop));
        }
        return out;
      },
      [this](Result<std::vector<ReportStill>> stills) {
        if (stills) stills_ = std::move(*stills);
        refresh();
      });
}

void ReportPage::write(Form form, const QString& name) {
  const QString page = reportPage(controller_, stills_, units_);
  if (page.isEmpty() && (form == Form::Pdf || form == Form::WebPage)) {
    waiting_.emplace_back(form, name);
    return done_->setText(tr("It is written as soon as the rankings are worked out."));
  }
  const auto& passes = controller_.lineUp().passes();
  const std::string& day = controller_.lineUp().day().plan().name;
  const char* endings[] = {".pdf", ".html", ".csv", ".json"};
  const QString file = withEnding(name, endings[static_cast<int>(form)]);
  const auto content = [&]() -> QByteArray {
    if (form == Form::WebPage) return page.toUtf8();
    if (form == Form::Json)
      return QByteArray::fromStdString(writePasses(day, controller_.lineUp().entries(), passes));
    ReadingRows rows = rowsOf(passes);
    return QByteArray::fromStdString(writeCsv({',', std::move(rows.heads), std::move(rows.rows)}));
  };
  const Result<void> done = form == Form::Pdf ? printHtml(page, QString::fromStdString(day), file, kPrint_pt)
                                              : writeFile(file, content());
  setLook(*done_, "trouble", !done);
  done_->setText(done ? tr("Written: %1").arg(file) : QString::fromStdString(done.error().message));
}

}  // namespace fin::app
