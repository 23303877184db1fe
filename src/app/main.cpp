// SPDX-License-Identifier: GPL-3.0-or-later
#include <QApplication>
#include <QCommandLineParser>
#include <QDeadlineTimer>
#include <QDir>
#include <QProgressDialog>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTimer>
#include <algorithm>
#include <cstdio>
#include <memory>
#include <string_view>

#include "app/main_window.h"
#include "app/places/log/log_choice.h"
#include "app/ui/settings.h"
#include "app/ui/shipped.h"
#include "app/ui/theme.h"
#include "demo/shipped_demo.h"

namespace {

namespace fs = std::filesystem;

constexpr int kPatience_ms = 60'000;  ///< with the first view

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

fs::path demoFolder() {
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
  void open(const fs::path& file) { show(fin::Log::open(file)); }

  /// The demo that comes with the program, as a log of one's own; the first time it is taken in.
  void openDemo(const fs::path& keepIn) {
    progress_ = std::make_unique<QProgressDialog>(tr("Opening the demo …"), QString(), 0, 0);
    progress_->setMinimumDuration(600);
    const fs::path shipped = fin::app::shipped("demo-day");
    const fs::path temporary = temporary_.path().toStdString();
    placing_.start([shipped, keepIn,
                    temporary](const fin::JobControl&) { return fin::placeDemo(shipped, keepIn, temporary); },
                   [this](const fin::Result<fin::DemoPlace>& place) {
                     progress_.reset();
                     if (!place) return tellTrouble(place.error());
                     if (!show(fin::openDemo(*place))) return;
                     window_->day().choose(1);  // the story begins with the first day
                     window_->go(fin::app::Place::Bench);
                     beginInTheMiddle();
                     if (!place->note.empty()) window_->say(QString::fromStdString(place->note));
                   });
  }

  /// Draws the first view into a picture and ends.
  void drawFirstView(const QString& file) {
    auto* wait = new QTimer(this);
    const QDeadlineTimer patience(kPatience_ms);
    connect(wait, &QTimer::timeout, this, [this, file, patience] {
      if (trouble_ || patience.hasExpired()) return QApplication::exit(1);
      if (window_ == nullptr || !window_->settled()) return;
      if (window_->grab().save(file)) return QApplication::quit();
      std::fprintf(stderr, "agile-fin: %s cannot be written\n", qPrintable(file));
      QApplication::exit(1);
    });
    wait->start(50);
  }

 private:
  /// Of the first pass: where the lure is well in the picture.
  void beginInTheMiddle() {
    fin::app::PassController& passes = window_->passController();
    const auto once = std::make_shared<QMetaObject::Connection>();
    *once = connect(&passes, &fin::app::PassController::resultChanged, window_.get(), [&passes, once] {
      const fin::PassResult* result = passes.result();
      if (result == nullptr) return;
      disconnect(*once);
      passes.showFrame(result->track.firstFrame + result->track.frameCount / 2);
    });
  }

  void openChosen(const QString& file) { open(fs::path(file.toStdString())); }

  bool show(fin::Result<std::unique_ptr<fin::Log>> log) {
    if (!log) {
      tellTrouble(log.error());
      return false;
    }
    auto window = std::make_unique<fin::app::MainWindow>(std::move(*log), indexFolder());
    connect(window.get(), &fin::app::MainWindow::logChosen, this, &Program::openChosen, Qt::QueuedConnection);
    const auto openDemoDay = [this] { openDemo(demoFolder()); };
    connect(window.get(), &fin::app::MainWindow::demoWanted, this, openDemoDay, Qt::QueuedConnection);
    window->show();
    window_ = std::move(window);
    choice_.reset();
    return true;
  }

  /// In the window where a person looks, and on standard error. A log that is open stays open.
  void tellTrouble(const fin::Error& error) {
    std::fprintf(stderr, "agile-fin: %s\n", error.message.c_str());
    trouble_ = true;
    if (window_ != nullptr) return window_->say(QString::fromStdString(error.message));
    auto page = std::make_unique<fin::app::LogChoice>(QString(), QString::fromStdString(error.message));
    connect(page.get(), &fin::app::LogChoice::chosen, this, &Program::openChosen, Qt::QueuedConnection);
    page->resize(760, 320);
    page->show();
    choice_ = std::move(page);
  }

  std::unique_ptr<fin::app::MainWindow> window_;
  std::unique_ptr<fin::app::LogChoice> choice_;  ///< in place of the window where no log could be opened
  bool trouble_ = false;
  std::unique_ptr<QProgressDialog> progress_;
  QTemporaryDir temporary_;
  fin::app::Job<fin::DemoPlace> placing_;
};

}  // namespace

int main(int argc, char** argv) {
  // A picture of the first view needs no display.
  const bool draws = std::any_of(
      argv, argv + argc, [](const char* a) { return std::string_view(a).starts_with("--first-view"); });
  if (draws && qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  QApplication::setApplicationName("agile-fin");
  QApplication::setApplicationDisplayName("Agile Fin");
  QApplication::setApplicationVersion(FIN_VERSION);
  QApplication::setDesktopFileName("agile-fin");
  fin::app::Settings::all().keepIn(
      QDir(QStandardPaths::writableLocation(QStandardPaths::AppConfigLocation)).filePath("settings.ini"));
  fin::app::dress(application);

  QCommandLineParser parser;
  parser.setApplicationDescription("Measures fishing lures from footage.");
  parser.addHelpOption();
  parser.addVersionOption();
  const QCommandLineOption demo("demo", "Open the demo: three test days and an autumn on the water.");
  const QCommandLineOption keepIn("demo-folder", "Where your own log of the demo is kept.", "folder");
  const QCommandLineOption firstView("first-view", "Draw the first view into a picture, and end.",
                                     "file.png");
  parser.addOptions({demo, keepIn, firstView});
  parser.addPositionalArgument("log", "The log to open (.finlog).", "[log]");
  parser.process(application);

  Program program;
  if (parser.isSet(firstView)) program.drawFirstView(parser.value(firstView));
  QMetaObject::invokeMethod(
      &program,
      [&] {
        if (parser.isSet(demo)) {
          program.openDemo(parser.isSet(keepIn) ? fs::path(parser.value(keepIn).toStdString())
                                                : demoFolder());
        } else if (!parser.positionalArguments().isEmpty()) {
          program.open(nameAmong(argc, argv, parser.positionalArguments().front()));
        } else {
          program.open(ownLog());
        }
      },
      Qt::QueuedConnection);
  return QApplication::exec();
}
