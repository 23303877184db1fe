// SPDX-License-Identifier: GPL-3.0-or-later
#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QProgressDialog>
#include <QStandardPaths>
#include <cstdio>

#include "app/look/theme.h"
#include "app/main_window.h"
#include "app/places/log/log_choice.h"
#include "app/shots.h"
#include "core/rehearsal/demo_day.h"

namespace {

namespace fs = std::filesystem;

fs::path dataFolder() {
  return fs::path(QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation).toStdString());
}

fs::path indexFolder() {
  return fs::path(QStandardPaths::writableLocation(QStandardPaths::CacheLocation).toStdString()) / "indexes";
}

fs::path ownLog() {
  const QDir documents(QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation));
  documents.mkpath("Agile Fin");
  return fs::path(documents.filePath("Agile Fin/my-tests.finlog").toStdString());
}

/// Opens a log in a window of its own, or says why it cannot.
class Program : public QObject {
 public:
  explicit Program(QString shots) : shots_(std::move(shots)) {}

  void open(const fs::path& file) {
    auto log = fin::Log::open(file);
    if (!log) return tellTrouble(log.error());
    auto window = std::make_unique<fin::app::MainWindow>(std::move(*log), indexFolder());
    connect(window.get(), &fin::app::MainWindow::logChosen, this, &Program::openChosen, Qt::QueuedConnection);
    window->show();
    if (!shots_.isEmpty()) new fin::app::Shots(*window, QDir(shots_), this);
    window_ = std::move(window);
  }

  void openDemo(const fs::path& folder) {
    progress_ = std::make_unique<QProgressDialog>(
        tr("The rehearsal tank films the demo day; this is done once."), tr("Stop"), 0, 1000);
    progress_->setMinimumDuration(600);
    connect(progress_.get(), &QProgressDialog::canceled, this, [] { QApplication::quit(); });
    making_.start(
        [this, folder](const std::stop_token& stop) {
          return fin::makeDemoDay(folder, {stop, [this](double share) {
                                             QMetaObject::invokeMethod(
                                                 this,
                                                 [this, share] {
                                                   if (progress_)
                                                     progress_->setValue(static_cast<int>(1000 * share));
                                                 },
                                                 Qt::QueuedConnection);
                                           }});
        },
        [this](fin::Result<fs::path> made) {
          progress_.reset();
          if (!made) return tellTrouble(made.error());
          open(*made);
        });
  }

 private:
  void openChosen(const QString& file) { open(fs::path(file.toStdString())); }

  /// In the window where a person looks; where pictures are made, on standard error.
  void tellTrouble(const fin::Error& error) {
    std::fprintf(stderr, "agile-fin: %s\n", error.message.c_str());
    if (!shots_.isEmpty()) return QApplication::exit(1);
    auto page = std::make_unique<fin::app::LogChoice>(QString(), QString::fromStdString(error.message));
    connect(page.get(), &fin::app::LogChoice::chosen, this, &Program::openChosen, Qt::QueuedConnection);
    page->resize(760, 320);
    page->show();
    window_ = std::move(page);
  }

  QString shots_;
  std::unique_ptr<QWidget> window_;
  std::unique_ptr<QProgressDialog> progress_;
  fin::app::Background<fin::Result<fs::path>> making_;
};

}  // namespace

int main(int argc, char** argv) {
  QApplication application(argc, argv);
  QApplication::setApplicationName("agile-fin");
  QApplication::setApplicationDisplayName("Agile Fin");
  QApplication::setApplicationVersion(FIN_VERSION);
  fin::app::dress(application);

  QCommandLineParser parser;
  parser.setApplicationDescription("Measures fishing lures from footage.");
  parser.addHelpOption();
  parser.addVersionOption();
  const QCommandLineOption demo("demo",
                                "Open the demo day (filmed by the rehearsal tank at the first time).");
  const QCommandLineOption demoFolder("demo-folder", "Where the demo day is kept.", "folder");
  const QCommandLineOption shots("shots", "Write a PNG of each main view into a folder and end.", "folder");
  parser.addOptions({demo, demoFolder, shots});
  parser.addPositionalArgument("log", "The log to open (.finlog).", "[log]");
  parser.process(application);

  if (parser.isSet(shots) && !QDir().mkpath(parser.value(shots))) {
    std::fprintf(stderr, "agile-fin: %s cannot be made\n", qPrintable(parser.value(shots)));
    return 1;
  }
  Program program(parser.value(shots));
  QMetaObject::invokeMethod(
      &program,
      [&] {
        if (parser.isSet(demo)) {
          program.openDemo(parser.isSet(demoFolder) ? fs::path(parser.value(demoFolder).toStdString())
                                                    : dataFolder() / "demo-day");
        } else if (!parser.positionalArguments().isEmpty()) {
          program.open(fs::path(parser.positionalArguments().front().toStdString()));
        } else {
          program.open(ownLog());
        }
      },
      Qt::QueuedConnection);
  return QApplication::exec();
}
