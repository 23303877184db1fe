// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/lens_card.h"

#include <QFileDialog>
#include <QGridLayout>
#include <QPainter>
#include <QSignalBlocker>

#include "app/print/sheets.h"
#include "app/print/writing.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

/// How many times as long residuals are drawn, so that they can be seen and do not cover each other.
double timesAsLong(const LensFit& fit) {
  constexpr double kSeen = 0.02;  // of the picture's width
  const double wanted = kSeen * fit.width_px / std::max(fit.rms.value(), 1e-3);
  for (const double times : {1000.0, 500.0, 200.0, 100.0, 50.0, 20.0}) {
    if (times <= wanted) return times;
  }
  return 10.0;
}

QSpinBox* cornerBox(int value, const char* name, const QString& spoken) {
  auto* box = new QSpinBox;
  box->setRange(3, 30);
  box->setValue(value);
  box->setButtonSymbols(QAbstractSpinBox::NoButtons);
  box->setObjectName(name);
  box->setAccessibleName(spoken);
  return box;
}

}  // namespace

ResidualPicture::ResidualPicture(QWidget* parent) : QWidget(parent) {
  setMinimumHeight(150);
  setAccessibleName(tr("How far each found corner misses the lens"));
  hide();
}

void ResidualPicture::show(const LensFit& fit) {
  fit_ = fit;
  QWidget::show();
  update();
}

void ResidualPicture::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  if (fit_.width_px == 0) return;
  const double scale =
      std::min(static_cast<double>(width()) / fit_.width_px, (height() - 18.0) / fit_.height_px);
  painter.fillRect(QRectF(0, 0, fit_.width_px * scale, fit_.height_px * scale), theme().paper);
  painter.setPen(QPen(theme().accent, 1.2));
  const double longer = timesAsLong(fit_);
  for (const LensFit::Residual& r : fit_.residuals) {
    const QPointF at = QPointF(r.at.x_px, r.at.y_px) * scale;
    painter.drawLine(at, at + QPointF(r.off.x_px, r.off.y_px) * (scale * longer));
  }
  painter.setPen(theme().ink);
  painter.setFont(smallFont());
  painter.drawText(rect().adjusted(0, height() - 17, 0, 0), Qt::AlignLeft,
                   tr("misses, %1 times as long as they are").arg(longer, 0, 'f', 0));
}

LensCard::LensCard(PassController& controller, LensController& lenses, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      lenses_(lenses),
      choice_(new QComboBox),
      columns_(cornerBox(9, "boardColumns", tr("Inner corners across"))),
      rows_(cornerBox(6, "boardRows", tr("Inner corners down"))),
      field_(new UnitBox(tr("Side of a field"), "mm", {1.0, 500.0, 1})),
      solve_(namedButton(tr("Find the lens in this clip"), "solveLens")),
      progress_(new QProgressBar),
      found_(faintLabel({})),
      residuals_(new ResidualPicture),
      window_(new QComboBox),
      keep_(namedButton(tr("Keep it"), "keepLens")) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  choice_->setObjectName("lensChoice");
  choice_->setAccessibleName(tr("The lens that is allowed for"));
  grid->addWidget(choice_, 0, 0, 1, 3);
  grid->addWidget(
      faintLabel(tr("A new one: film a chequered board under water, whole, slowly, in all corners of the "
                    "picture and tilted; then open that clip.")),
      1, 0, 1, 3);
  grid->addWidget(new QLabel(tr("Inner corners")), 2, 0);
  grid->addWidget(columns_, 2, 1);
  grid->addWidget(rows_, 2, 2);
  field_->setObjectName("boardField");
  field_->show(25.0);
  auto* print = namedButton(tr("Print the board …"), "printBoard");
  grid->addWidget(field_, 3, 0);
  grid->addWidget(print, 3, 1, 1, 2);
  grid->addWidget(solve_, 4, 0, 1, 3);
  progress_->setRange(0, 1000);
  grid->addWidget(progress_, 5, 0, 1, 3);
  found_->setObjectName("lensFound");
  grid->addWidget(found_, 6, 0, 1, 3);
  grid->addWidget(residuals_, 7, 0, 1, 3);
  window_->setEditable(true);
  window_->addItems({tr("flat window"), tr("domed window"), tr("air")});
  window_->setObjectName("lensWindow");
  window_->setAccessibleName(tr("What the camera looks through"));
  grid->addWidget(window_, 8, 0, 1, 2);
  grid->addWidget(keep_, 8, 2);

  connect(choice_, &QComboBox::activated, this, [this](int index) {
    if (index <= static_cast<int>(kept_.size())) {
      lenses_.use(index == 0 ? std::nullopt : std::optional(kept_[static_cast<std::size_t>(index - 1)].lens));
    }
  });
  connect(print, &QPushButton::clicked, this, &LensCard::printBoard);
  connect(solve_, &QPushButton::clicked, this,
          [this] { lenses_.solving() ? lenses_.stop() : lenses_.solve(board()); });
  connect(keep_, &QPushButton::clicked, this, [this] { lenses_.keep(window_->currentText()); });
  connect(&lenses, &LensController::changed, this, &LensCard::refresh);
  connect(&lenses, &LensController::progressed, progress_,
          [this](double share) { progress_->setValue(static_cast<int>(1000 * share)); });
  refresh();
}

LensBoard LensCard::board() const {
  return {columns_->value(), rows_->value(), Millimetres(field_->metric())};
}

void LensCard::printBoard() {
  const QString file =
      QFileDialog::getSaveFileName(this, tr("Print the board"), "board.pdf", tr("PDF (*.pdf)"));
  if (file.isEmpty()) return;
  const auto printed = printLensBoard(board(), withEnding(file, ".pdf"));
  emit lenses_.told(printed ? tr("The board is in %1. Print it at true size; its fields must measure %2 mm.")
                                  .arg(file)
                                  .arg(board().field.value())
                            : QString::fromStdString(printed.error().message),
                    !printed);
}

/// None, those kept for pictures of this size, and one from elsewhere that the pass holds.
void LensCard::fillChoice() {
  const QSignalBlocker quiet(choice_);
  kept_ = lenses_.fitting();
  choice_->clear();
  choice_->addItem(tr("No lens allowed for"));
  for (const KeptLens& lens : kept_) {
    choice_->addItem(tr("%1, %2 (± %3 px)")
                         .arg(lens.camera.empty() ? tr("camera") : QString::fromStdString(lens.camera),
                              QString::fromStdString(lens.window))
                         .arg(lens.rms.value(), 0, 'f', 2));
  }
  const auto& lens = controller_.current()->request.lens;
  const auto same =
      std::find_if(kept_.begin(), kept_.end(), [&](const KeptLens& k) { return k.lens == lens; });
  if (lens && same == kept_.end()) choice_->addItem(tr("the pass's own"));
  choice_->setCurrentIndex(!lens ? 0 : static_cast<int>(same - kept_.begin()) + 1);
  emit stateChanged(lens ? tr("Allowed for: %1.").arg(choice_->currentText())
                         : tr("None; straight lines may look bent towards the edge."));
}

void LensCard::refresh() {
  if (controller_.current() == nullptr) return;
  fillChoice();
  solve_->setText(lenses_.solving() ? tr("Stop") : tr("Find the lens in this clip"));
  progress_->setVisible(lenses_.solving());
  const LensFit* fit = lenses_.fit();
  for (QWidget* w : {static_cast<QWidget*>(found_), static_cast<QWidget*>(residuals_),
                     static_cast<QWidget*>(window_), static_cast<QWidget*>(keep_)})
    w->setVisible(fit != nullptr);
  if (fit == nullptr) return;
  found_->setText(
      tr("Found from %1 views: corners miss by %2 px, focal length %3 px ± %4 %, seen in %5 % of the "
         "picture.")
          .arg(fit->frames.size())
          .arg(fit->rms.value(), 0, 'f', 2)
          .arg(fit->lens.fx, 0, 'f', 0)
          .arg(100.0 * fit->focalRelativeU95, 0, 'f', 1)
          .arg(100.0 * fit->covered, 0, 'f', 0));
  residuals_->show(*fit);
  emit lensFound(keep_);
}

}  // namespace fin::app
