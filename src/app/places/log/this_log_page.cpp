// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/log/this_log_page.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

#include "app/phrases/row_words.h"
#include "app/phrases/words.h"
#include "app/ui/files.h"
#include "app/ui/pieces.h"

namespace fin::app {
namespace {

std::filesystem::path pathOf(const QString& file) {
  return {file.toStdString()};
}

QString spoken(const KeptVersion& version) {
  QStringList differences;
  for (const KeptVersion::Difference& d : version.differences) {
    const auto told = [](const std::string& text) {
      return text.empty() ? QObject::tr("nothing") : QString::fromStdString(text);
    };
    QString what = QString::fromStdString(d.what);
    differences +=
        QObject::tr("%1: here %2, kept aside %3").arg(what.replace('_', ' '), told(d.here), told(d.kept));
  }
  const QString by =
      version.editor.empty() ? QString() : QObject::tr(" by %1").arg(QString::fromStdString(version.editor));
  return QObject::tr("%1 %2  (kept aside: changed%3 %4)\n%5")
      .arg(rowKind(version.kind), QString::fromStdString(version.name), by, spokenMoment(version.edited_s),
           differences.join("\n"));
}

}  // namespace

ThisLogPage::ThisLogPage(const std::filesystem::path& log, QWidget* parent)
    : QWidget(parent),
      log_(log),
      told_(new WholeLabel),
      versions_(new QListWidget),
      heading_(headingLabel(tr("Changed in two ways"))),
      take_(namedButton(tr("Take what was kept aside"), "takeVersion")),
      keep_(namedButton(tr("Leave it as it is here"), "keepVersion")),
      takenOut_(new TakenOutList(log)),
      editor_(new QLineEdit) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(8);
  auto* row = new QHBoxLayout;
  const auto act = [&](const QString& text, const char* name, const QString& help, auto run) {
    auto* button = namedButton(text, name);
    button->setToolTip(help);
    row->addWidget(button);
    connect(button, &QPushButton::clicked, this, run);
    acts_.push_back(button);
  };
  act(tr("Export it …"), "exportLog", tr("Everything as a folder of JSON and CSV that any program can read."),
      [this] {
        const QString folder = askWhereTo(this, tr("A new folder for the export"), "log-export");
        if (!folder.isEmpty()) exportTo(folder);
      });
  act(tr("Bring in another log …"), "mergeLog",
      tr("Another person's log comes into this one; nothing is lost."), [this] {
        const QString file = askForFile(this, tr("The other log"), tr("Logs (*.finlog)"));
        if (!file.isEmpty()) merge(file);
      });
  act(tr("Find moved clips …"), "findClips",
      tr("Looks below a folder for clips that are no longer where they were."), [this] {
        const QString folder = askForFolder(this, tr("Look below this folder"));
        if (!folder.isEmpty()) findClips(folder);
      });
  row->addStretch();
  layout->addLayout(row);
  row = new QHBoxLayout;
  act(tr("Open an export …"), "importLog", tr("Makes a log of a folder that was exported, and opens it."),
      [this] {
        const QString folder = askForFolder(this, tr("Folder of the export"));
        if (folder.isEmpty()) return;
        QString file = askWhereTo(this, tr("The new log"), "from-export.finlog", tr("Logs (*.finlog)"));
        if (file.isEmpty()) return;
        if (!file.endsWith(".finlog")) file += ".finlog";
        importFrom(folder, file);
      });
  act(tr("Thin copy …"), "thinCopy",
      tr("A new log without what was taken out and without tracks; this one stays as it is."), [this] {
        QString file = askWhereTo(this, tr("The thin copy"), "thin.finlog", tr("Logs (*.finlog)"));
        if (file.isEmpty()) return;
        if (!file.endsWith(".finlog")) file += ".finlog";
        copyThin(file);
      });
  auto* you = new QLabel(tr("Changes here are by"));
  you->setBuddy(editor_);
  row->addSpacing(14);
  row->addWidget(you);
  row->addWidget(editor_, 1);
  layout->addLayout(row);
  editor_->setObjectName("logEditor");
  editor_->setAccessibleName(tr("Who changes this copy of the log"));
  editor_->setPlaceholderText(tr("your name, so that two people's changes can be told apart"));
  connect(editor_, &QLineEdit::editingFinished, this, [this] {
    if (const auto done = sayEditor(log_, editor_->text().trimmed().toStdString()); !done)
      say(QString::fromStdString(done.error().message), true);
  });
  told_->setObjectName("thisLogTold");
  layout->addWidget(told_);
  layout->addWidget(heading_);
  versions_->setObjectName("keptVersions");
  versions_->setAccessibleName(tr("What was changed in two logs in two ways"));
  versions_->setWordWrap(true);
  layout->addWidget(versions_, 1);
  auto* choice = new QHBoxLayout;
  choice->addWidget(take_);
  choice->addWidget(keep_);
  choice->addStretch();
  layout->addLayout(choice);
  layout->addWidget(takenOut_, 1);
  layout->addStretch();
  connect(takenOut_, &TakenOutList::told, this, &ThisLogPage::say);
  connect(takenOut_, &TakenOutList::broughtBack, this, [this] {
    emit logChanged();
    refresh();
  });
  connect(take_, &QPushButton::clicked, this, [this] { decide(true); });
  connect(keep_, &QPushButton::clicked, this, [this] { decide(false); });
}

void ThisLogPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void ThisLogPage::refresh() {
  versions_->clear();
  auto kept = keptVersions(log_);
  kept_ = kept ? std::move(*kept) : std::vector<KeptVersion>();
  if (!kept) say(QString::fromStdString(kept.error().message), true);
  for (const KeptVersion& version : kept_) versions_->addItem(spoken(version));
  if (!kept_.empty()) versions_->setCurrentRow(0);
  for (QWidget* w : {static_cast<QWidget*>(heading_), static_cast<QWidget*>(versions_),
                     static_cast<QWidget*>(take_), static_cast<QWidget*>(keep_)})
    w->setVisible(!kept_.empty());
  takenOut_->refresh();
  if (const auto editor = editorOf(log_); editor && !editor_->hasFocus())
    editor_->setText(QString::fromStdString(*editor));
  for (QPushButton* button : acts_)
    enableOr(*button, !busy(), tr("Something is still being done with this log."));
}

void ThisLogPage::say(const QString& text, bool trouble) {
  told_->setText(breakable(text));
  setLook(*told_, "trouble", trouble);
}

void ThisLogPage::decide(bool takeIt) {
  const int row = versions_->currentRow();
  if (row < 0) return;
  const auto done = decideOn(log_, kept_[static_cast<std::size_t>(row)].id, takeIt);
  if (!done) say(QString::fromStdString(done.error().message), true);
  emit logChanged();
  refresh();
}

void ThisLogPage::count(const QString& doing, std::function<Result<LogCounts>()> work,
                        std::function<QString(const LogCounts&)> tell) {
  say(doing, false);
  counting_.start([work = std::move(work)](const JobControl&) { return work(); },
                  [this, tell = std::move(tell)](Result<LogCounts> counts) {
                    say(counts ? tell(*counts) : QString::fromStdString(counts.error().message), !counts);
                    emit logChanged();
                    refresh();
                  });
  refresh();
}

void ThisLogPage::exportTo(const QString& folder) {
  count(
      tr("The log is being exported …"), [log = log_, to = pathOf(folder)] { return exportLog(log, to); },
      [folder](const LogCounts& c) {
        return tr("Exported to %1: %2 rows in %3 files.").arg(folder).arg(c.rows).arg(c.files);
      });
}

void ThisLogPage::importFrom(const QString& folder, const QString& file) {
  count(
      tr("The export is being taken in …"),
      [from = pathOf(folder), to = pathOf(file)] { return importLog(from, to); },
      [this, file](const LogCounts& c) {
        emit openWanted(file);
        return tr("%1 holds %2 rows.").arg(file).arg(c.rows);
      });
}

void ThisLogPage::copyThin(const QString& file) {
  count(
      tr("The log is being copied …"),
      [log = log_, to = pathOf(file)]() -> Result<LogCounts> {
        if (auto done = thinCopy(log, to); !done) return tl::unexpected(done.error());
        return LogCounts{};
      },
      [file](const LogCounts&) { return tr("Copied to %1.").arg(file); });
}

void ThisLogPage::findClips(const QString& folder) {
  count(
      tr("Clips are being looked for …"),
      [log = log_, from = pathOf(folder)] { return fin::findClips(log, from); },
      [](const LogCounts& c) {
        return c.clips + c.missingClips == 0 ? tr("All clips are where they were.")
                                             : tr("Found %1; %2 not there.")
                                                   .arg(counted(c.clips, tr("clip"), tr("clips")))
                                                   .arg(counted(c.missingClips, tr("is"), tr("are")));
      });
}

void ThisLogPage::merge(const QString& other) {
  say(tr("The other log is being brought in …"), false);
  merging_.start([log = log_, from = pathOf(other)](const JobControl&) { return mergeLogs(log, from); },
                 [this](Result<MergeCounts> counts) {
                   if (counts) {
                     say(tr("%1 came in, %2 were the same. Changed in both: %3 as the other log has them, %4 "
                            "as this one.")
                             .arg(counted(counts->added, tr("row"), tr("rows")))
                             .arg(counts->same)
                             .arg(counts->overtaken)
                             .arg(counts->kept),
                         false);
                   } else {
                     say(QString::fromStdString(counts.error().message), true);
                   }
                   emit logChanged();
                   refresh();
                 });
  refresh();
}

}  // namespace fin::app
