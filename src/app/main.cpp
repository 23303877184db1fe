// SPDX-License-Identifier: GPL-3.0-or-later
#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QProgressDialog>
#include <QStandardPaths>
#include <cstdio>

#include "app/main_window.h"
#include "app/places/log/log_choice.h"
#include "app/ui/settings.h"
#include "app/ui/theme.h"
#include "demo/demo_day.h"

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

fs::path demoDay() {
  return dataFolder() / "demo-day";
}

/// The argument as the system gave it: a file's name need not be UTF-8.
fs::path nameAmong(int argc, char** argv, const QString& shown) {
  for (int i = 1; i < argc; ++i) {
    if (QString::fromLocal8Bit(argv[i]) == shown) return {argv[i]};
  }
  return {shown.toStdString()};
}

/// Opens a log in a window of its own, or says why it cannot.
class Program : public QObject {
 public:
  void open(const fs::path& file, fin::DayId first = {}) {
    auto log = fin::Log::open(file);
    if (!log) return tellTrouble(log.error());
    auto window = std::make_unique<fin::app::MainWindow>(std::move(*log), indexFolder());
    connect(window.get(), &fin::app::MainWindow::logChosen, this, &Program::openChosen, Qt::QueuedConnection);
    const auto openDemoDay = [this] { openDemo(demoDay()); };
    connect(window.get(), &fin::app::MainWindow::demoWanted, this, openDemoDay, Qt::QueuedConnection);
    if (first) window->day().choose(first);
    window->show();
    window_ = std::move(window);
  }

  void openDemo(const fs::path& folder) {
    progress_ = std::make_unique<QProgressDialog>(
        tr("The rehearsal tank films the demo day; this is done once."), tr("Stop"), 0, 1000);
    progress_->setMinimumDuration(600);
    connect(progress_.get(), &QProgressDialog::canceled, this, [this] {
      making_.stop();
      if (!window_) QApplication::quit();
    });
    making_.start([folder](const fin::JobControl& job) { return fin::makeDemoDay(folder, job); },
                  [this](fin::Result<fs::path> made) {
                    progress_.reset();
                    if (!made) return tellTrouble(made.error());
                    open(*made, 1);  // the story begins with the first day
                  },
                  [this](double share, double) {
                    if (progress_) progress_->setValue(static_cast<int>(1000 * share));
                  });
  }

 private:
  void openChosen(const QString& file) { open(fs::path(file.toStdString())); }

  /// In the window where a person looks, and on standard error.
  void tellTrouble(const fin::Error& error) {
    std::fprintf(stderr, "agile-fin: %s\n", error.message.c_str());
    auto page = std::make_unique<fin::app::LogChoice>(QString(), QString::fromStdString(error.message));
    connect(page.get(), &fin::app::LogChoice::chosen, this, &Program::openChosen, Qt::QueuedConnection);
    page->resize(760, 320);
    page->show();
    window_ = std::move(page);
  }

  std::unique_ptr<QWidget> window_;
  std::unique_ptr<QProgressDialog> progress_;
  fin::app::Job<fs::path> making_;
};

}  // namespace

int main(int argc, char** argv) {
  QApplication application(argc, argv);
  QApplication::setApplicationName("agile-fin");
  QApplication::setApplicationDisplayName("Agile Fin");
  QApplication::setApplicationVersion(FIN_VERSION);
  fin::app::Settings::all().keepIn(
      QDir(QStandardPaths::writableLocation(QStandardPaths::AppConfigLocation)).filePath("settings.ini"));
  fin::app::dress(application);

  QCommandLineParser parser;
  parser.setApplicationDescription("Measures fishing lures from footage.");
  parser.addHelpOption();
  parser.addVersionOption();
  const QCommandLineOption demo("demo",
                                "Open the demo day (filmed by the rehearsal tank at the first time).");
  const QCommandLineOption demoFolder("demo-folder", "Where the demo day is kept.", "folder");
  parser.addOptions({demo, demoFolder});
  parser.addPositionalArgument("log", "The log to open (.finlog).", "[log]");
  parser.process(application);

  Program program;
  QMetaObject::invokeMethod(
      &program,
      [&] {
        if (parser.isSet(demo)) {
          program.openDemo(parser.isSet(demoFolder) ? fs::path(parser.value(demoFolder).toStdString())
                                                    : demoDay());
        } else if (!parser.positionalArguments().isEmpty()) {
          program.open(nameAmong(argc, argv, parser.positionalArguments().front()));
        } else {
          program.open(ownLog());
        }
      },
      Qt::QueuedConnection);
  return QApplication::exec();
}
