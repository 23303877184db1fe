// SPDX-License-Identifier: GPL-3.0-or-later
// Draws the main views of the demo day into pictures, as the README shows them.
#include <QApplication>
#include <QCommandLineParser>
#include <QTemporaryDir>
#include <cstdio>

#include "app/ui/theme.h"
#include "demo/shipped_demo.h"
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
  parser.addPositionalArgument("demo", "The demo as it comes with the program.");
  parser.addPositionalArgument("pictures", "Folder for the pictures.");
  parser.process(application);
  const QStringList folders = parser.positionalArguments();
  if (folders.size() != 2) return fail("name the folder of the demo and the one for the pictures");
  if (!QDir().mkpath(folders[1])) return fail(folders[1].toStdString() + " cannot be made");

  // A log of its own, as the pictures change it.
  const QTemporaryDir own;
  const std::filesystem::path keepIn = own.path().toStdString();
  const auto place = fin::placeDemo(folders[0].toStdString(), keepIn, keepIn);
  if (!place) return fail(place.error().message);
  auto log = fin::openDemo(*place);
  if (!log) return fail(log.error().message);
  fin::app::MainWindow window(std::move(*log));
  window.show();
  new fin::app::Shots(window, QDir(folders[1]), &window);
  return QApplication::exec();
}
