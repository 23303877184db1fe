// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/camera_card.h"

#include <QLineEdit>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <set>

#include "app/ui/pieces.h"

namespace fin::app {
namespace {

QString valueText(const std::optional<Reading>& reading, UnitSystem units) {
  if (!reading) return QObject::tr("refused");
  const SpokenValue v = spoken(*reading, units);
  return QString("%1 %2 %3").arg(v.value, v.uncertainty, v.unit).simplified();
}

}  // namespace

CameraCard::CameraCard(PassController& controller, KeptCalibrations& kept, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      kept_(kept),
      camera_(new QComboBox),
      keep_(namedButton({}, "keepCalibration")),
      use_(namedButton(tr("Use what is kept"), "useCalibration")),
      changes_(faintLabel({})) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  camera_->setEditable(true);
  camera_->setObjectName("passCamera");
  camera_->setAccessibleName(tr("The camera that took this clip"));
  layout->addWidget(camera_);
  layout->addWidget(keep_);
  layout->addWidget(use_);
  changes_->setObjectName("calibrationChanges");
  changes_->setTextFormat(Qt::RichText);
  layout->addWidget(changes_);
  const auto say = [this] {
    if (const LoggedPass* pass = controller_.current())
      controller_.assign(pass->id, pass->planned, camera_->currentText().trimmed().toStdString());
  };
  connect(camera_, &QComboBox::activated, this, say);
  connect(camera_->lineEdit(), &QLineEdit::editingFinished, this, say);
  connect(keep_, &QPushButton::clicked, &kept, &KeptCalibrations::keep);
  connect(use_, &QPushButton::clicked, &kept, &KeptCalibrations::use);
  connect(&kept, &KeptCalibrations::changed, this, &CameraCard::refresh);
}

void CameraCard::setUnits(UnitSystem units) {
  units_ = units;
  refresh();
}

QString CameraCard::changesText() const {
  if (kept_.changes().empty()) return kept_.reading() ? tr("Measuring the passes again …") : QString();
  QString rows;
  for (const ReadingChange& c : kept_.changes()) {
    rows += QString("<br><b>%1</b> %2: %3 → %4")
                .arg(c.pass.toHtmlEscaped(), spokenName(c.reading), valueText(c.before, units_),
                     valueText(c.after, units_));
  }
  return tr("What changed:") + rows;
}

void CameraCard::refresh() {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr) return;
  {
    const QSignalBlocker quiet(camera_);
    std::set<QString> names{tr("fixed"), tr("chase"), tr("top")};
    for (const LoggedPass& p : controller_.passes()) {
      if (!p.camera.empty()) names.insert(QString::fromStdString(p.camera));
    }
    camera_->clear();
    for (const QString& name : names) camera_->addItem(name);
    camera_->setEditText(QString::fromStdString(pass->camera));
  }
  const KeptCalibration* kept = kept_.kept();
  const bool same = kept != nullptr && kept->calibration == calibrationOf(pass->request);
  const auto standing = kept_.standingOnKept().size();
  enableOr(*keep_, !same && !calibrationOf(pass->request).empty(),
           same ? tr("They are saved already.") : tr("Nothing is calibrated yet."));
  keep_->setText(kept == nullptr || standing == 0 ? tr("Save these for the camera today")
                                                  : tr("Change it for all %1 passes").arg(standing));
  use_->setVisible(kept != nullptr && !same);
  emit stateChanged(kept == nullptr ? tr("Nothing is saved for this camera today.")
                    : same          ? tr("As saved for the camera today; %1 passes use it.").arg(standing)
                                    : tr("Saved on %1 with different values. %2 passes use it.")
                                 .arg(QString::fromStdString(kept->madeOn.filename().string()))
                                 .arg(standing));
  changes_->setText(changesText());
  changes_->setVisible(!changes_->text().isEmpty());
}

}  // namespace fin::app
