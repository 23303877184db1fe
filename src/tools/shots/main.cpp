// SPDX-License-Identifier: GPL-3.0-or-later
// Draws the main views of the demo day into pictures, as the README shows them.
#include <QApplication>
#include <QCommandLineParser>
#include <cstdio>

#include "app/ui/theme.h"
#include "demo/demo_day.h"
#include "tools/shots/shots.h"

namespace {

int fail(const std::string& why) {
  std::fprintf(stderr, "shots: %s\n", why.c_str());
  return 1;
}

}  // namespace

int main(int argc, char** argv) {
  QApplication application(argc, argv);
  QApplication::setApplicationName("agile-fin");
  fin::app::dress(application);

  QCommandLineParser parser;
  parser.setApplicationDescription("Draws the main views of the demo day into pictures.");
  parser.addHelpOption();
  parser.addPositionalArgument("demo", "Folder of the demo day; it is filmed where it is not there yet.");
  parser.addPositionalArgument("pictures", "Folder for the pictures.");
  parser.process(application);
  const QStringList folders = parser.positionalArguments();
  if (folders.size() != 2) return fail("name the folder of the demo day and the one for the pictures");
  if (!QDir().mkpath(folders[1])) return fail(folders[1].toStdString() + " cannot be made");

  const auto made = fin::makeDemoDay(folders[0].toStdString());
  if (!made) return fail(made.error().message);
  auto log = fin::Log::open(*made);
  if (!log) return fail(log.error().message);
  fin::app::MainWindow window(std::move(*log));
  window.show();
  new fin::app::Shots(window, QDir(folders[1]), &window);
  return QApplication::exec();
}
