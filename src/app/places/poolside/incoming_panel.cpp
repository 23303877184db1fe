// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/poolside/incoming_panel.h"

#include <QDateTime>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QMimeData>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <algorithm>

#include "app/places/poolside/run_list.h"
#include "app/ui/pieces.h"
#include "app/ui/settings.h"
#include "core/rehearsal/simulated_camera.h"

namespace fin::app {
namespace {

constexpr int kLowestList_px = 44;

/// A list whose rows can be dragged onto a pass.
class WaitingList : public QListWidget {
 protected:
  [[nodiscard]] QStringList mimeTypes() const override { return {RunList::mimeType()}; }
  [[nodiscard]] QMimeData* mimeData(const QList<QListWidgetItem*>& items) const override {
    auto* carried = new QMimeData;
    if (!items.isEmpty())
      carried->setData(RunList::mimeType(),
                       "waiting:" + items.front()->data(Qt::UserRole).toString().toUtf8());
    return carried;
  }
};

}  // namespace

IncomingPanel::IncomingPanel(DayController& day, IncomingClips& incoming, QWidget* parent)
    : QWidget(parent),
      day_(day),
      incoming_(incoming),
      folder_(faintLabel({})),
      trouble_(new QLabel),
      waiting_(faintLabel({})),
      list_(new WaitingList),
      pass_(new QComboBox),
      camera_(new QComboBox),
      take_(namedButton(tr("Take it in  T"), "takeClip")),
      all_(namedButton({}, "takeAllClips")),
      leave_(namedButton(tr("Leave out"), "leaveClip")),
      rehearse_(namedButton(tr("Rehearsal camera films this pass"), "rehearse")) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(5);
  auto* head = new QHBoxLayout;
  head->addWidget(headingLabel(tr("Clips coming in")));
  head->addStretch();
  auto* choose = namedButton(tr("Watch a folder …"), "watchFolder");
  head->addWidget(choose);
  layout->addLayout(head);
  trouble_->setObjectName("folderTrouble");
  trouble_->setProperty("trouble", true);
  trouble_->setWordWrap(true);
  trouble_->hide();
  layout->addWidget(folder_);
  layout->addWidget(trouble_);
  list_->setObjectName("waitingClips");
  list_->setAccessibleName(tr("Clips that wait for their pass"));
  list_->setDragEnabled(true);
  list_->setWordWrap(true);
  list_->setMinimumHeight(kLowestList_px);
  list_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Ignored);  // the rest comes first
  layout->addWidget(list_, 1);
  layout->addWidget(waiting_);
  pass_->setObjectName("clipPass");
  pass_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  pass_->setMinimumContentsLength(14);
  pass_->setAccessibleName(tr("The pass this clip belongs to"));
  camera_->setObjectName("clipCamera");
  camera_->setAccessibleName(tr("The camera that took it"));
  camera_->addItems({tr("fixed"), tr("chase"), tr("top")});
  camera_->setEditable(true);
  auto* choice = new QHBoxLayout;
  choice->addWidget(pass_, 1);
  choice->addWidget(camera_);
  layout->addLayout(choice);
  auto* row = new QHBoxLayout;
  row->addWidget(take_);
  row->addWidget(all_);
  row->addWidget(leave_);
  row->addStretch();
  layout->addLayout(row);
  layout->addWidget(rehearse_);
  take_->setProperty("primary", true);

  connect(choose, &QPushButton::clicked, this, &IncomingPanel::chooseFolder);
  connect(take_, &QPushButton::clicked, this, &IncomingPanel::takeChosen);
  connect(all_, &QPushButton::clicked, this, &IncomingPanel::takeAll);
  connect(leave_, &QPushButton::clicked, this, [this] { incoming_.leave(chosenFile()); });
  connect(rehearse_, &QPushButton::clicked, this, &IncomingPanel::rehearse);
  connect(list_, &QListWidget::currentRowChanged, this, &IncomingPanel::offerChosen);
  connect(&incoming, &IncomingClips::changed, this, &IncomingPanel::refresh);
  connect(&day, &DayController::planChanged, this, &IncomingPanel::refresh);
  connect(&incoming.watch(), &FolderWatch::trouble, this, [this](const QString& why) {
    trouble_->setText(why);
    trouble_->setVisible(!why.isEmpty());
  });
  connect(&incoming.watch(), &FolderWatch::waiting, this, [this](int files) {
    waiting_->setText(files == 0 ? QString() : tr("%1 still being written …").arg(files));
  });
  refresh();
}

QString IncomingPanel::chosenFile() const {
  return list_->currentItem() == nullptr ? QString() : list_->currentItem()->data(Qt::UserRole).toString();
}

void IncomingPanel::refresh() {
  const QString kept = chosenFile();
  {
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (const auto& w : incoming_.waiting()) {
      const QString begun =
          QDateTime::fromMSecsSinceEpoch(static_cast<qint64>(1000.0 * w.clip.begun_s)).toString("HH:mm:ss");
      QString text = tr("%1, begun %2, %3 s")
                         .arg(QFileInfo(w.clip.file).fileName(), begun)
                         .arg(w.clip.length_s, 0, 'f', 1);
      if (!w.sameAs.isEmpty()) text += tr("\nthe very same clip as %1").arg(w.sameAs);
      auto* item = new QListWidgetItem(text, list_);
      item->setData(Qt::UserRole, w.clip.file);
      if (w.clip.file == kept) list_->setCurrentItem(item);
    }
    if (list_->currentRow() < 0 && list_->count() > 0) list_->setCurrentRow(0);
  }
  {
    const QSignalBlocker quiet(pass_);
    pass_->clear();
    pass_->addItem(tr("none of these passes"), QVariant());
    for (const PlannedPass& p : day_.plan().sheet) {
      pass_->addItem(QString("%1: %2").arg(day_.titleOf(p), day_.taskOf(p)),
                     QVariant::fromValue<qlonglong>(p.id.value()));
    }
  }
  const QString folder = QString::fromStdString(day_.plan().watchedFolder);
  folder_->setText(folder.isEmpty() ? tr("No folder is watched yet.")
                                    : tr("Watching %1").arg(QFileInfo(folder).fileName()));
  folder_->setToolTip(folder);
  const bool any = list_->count() > 0;
  for (QWidget* w : {static_cast<QWidget*>(take_), static_cast<QWidget*>(leave_),
                     static_cast<QWidget*>(pass_), static_cast<QWidget*>(camera_)})
    w->setVisible(any);  // there is nothing to choose for
  const std::size_t offered = incoming_.offered().size();
  all_->setVisible(offered > 1);
  all_->setText(tr("Take in all %1").arg(offered));
  enableOr(*rehearse_, !folder.isEmpty() && day_.now() != nullptr && !filming_.running(),
           filming_.running() ? tr("It is filming.")
           : folder.isEmpty() ? tr("Watch a folder first: the rehearsal camera films into it.")
                              : tr("No pass is left to film."));
  offerChosen();
}

void IncomingPanel::offerChosen() {
  for (const auto& w : incoming_.waiting()) {
    if (w.clip.file != chosenFile()) continue;
    const int at = w.offered ? pass_->findData(QVariant::fromValue<qlonglong>(w.offered->value())) : 0;
    pass_->setCurrentIndex(std::max(at, 0));
  }
}

void IncomingPanel::takeChosen() {
  const QString file = chosenFile();
  if (file.isEmpty()) return;
  const QVariant planned = pass_->currentData();
  incoming_.take(file, planned.isValid() ? std::optional<PlannedPassId>(planned.toLongLong()) : std::nullopt,
                 camera_->currentText());
}

void IncomingPanel::takeAll() {
  incoming_.takeOffered(camera_->currentText());
}

void IncomingPanel::watchFolder(const QString& folder) {
  day_.edit(tr("Watch a folder"), [&](DayPlan& plan) { plan.watchedFolder = folder.toStdString(); });
}

void IncomingPanel::chooseFolder() {
  const QString folder =
      QFileDialog::getExistingDirectory(this, tr("Watch a folder"), Settings::all().clipFolder());
  if (!folder.isEmpty()) watchFolder(folder);
}

void IncomingPanel::rehearse() {
  const PlannedPass* now = day_.now();
  if (now == nullptr || filming_.running()) return;
  const Rig* rig = day_.plan().rack.rig(now->rig);
  const Model* model = rig == nullptr ? nullptr : day_.plan().rack.model(rig->model);
  const auto seed = static_cast<unsigned>(now->id.value() * 101 + now->attempt);
  auto scene = sceneFor(model == nullptr ? Model{} : *model, rig == nullptr ? Rig{} : *rig, *now, seed);
  if (!scene) {
    trouble_->setText(QString::fromStdString(scene.error().message));
    trouble_->show();
    return;
  }
  const QDir folder(QString::fromStdString(day_.plan().watchedFolder));
  const QString file = folder.filePath(QString("pass-%1-%2.mp4").arg(now->id.value()).arg(now->attempt));
  enableOr(*rehearse_, false, tr("It is filming."));
  rehearse_->setText(tr("The rehearsal camera is filming …"));
  filming_.start([scene = *scene, path = file.toStdString()](
                     const JobControl& job) { return filmRehearsal(scene, path, Hertz(30.0), job); },
                 [this](Result<void> done) {
                   rehearse_->setText(tr("Rehearsal camera films this pass"));
                   trouble_->setVisible(!done);
                   if (!done) trouble_->setText(QString::fromStdString(done.error().message));
                   refresh();
                 });
}

}  // namespace fin::app
