// SPDX-License-Identifier: GPL-3.0-or-later
// The program itself, started as a person starts it for the first time.
#include <gtest/gtest.h>

#include <QDir>
#include <QFile>
#include <QImage>
#include <QProcess>
#include <QTemporaryDir>
#include <set>

namespace fin::app {
namespace {

constexpr int kPatience_ms = 60'000;

class FirstView : public testing::Test {
 protected:
  int start(const QString& home) {
    QProcess program;
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert("HOME", home);
    for (const char* name : {"XDG_DATA_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME", "DISPLAY",
                             "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"})
      environment.remove(name);
    program.setProcessEnvironment(environment);
    program.start(program_, {"--demo", "--first-view", picture_});
    if (!program.waitForFinished(kPatience_ms)) return -1;
    said_ = program.readAllStandardError();
    return program.exitCode();
  }
  void expectPicture() {
    const QImage picture(picture_);
    ASSERT_EQ(picture.size(), QSize(1280, 800));
    // Of the water in the footage there are many shades.
    std::set<QRgb> colours;
    for (int x = 100; x < 800; x += 7) {
      for (int y = 120; y < 500; y += 7) colours.insert(picture.pixel(x, y));
    }
    EXPECT_GT(colours.size(), 500U);
    QFile::remove(picture_);
  }

  QString program_ = FIN_PROGRAM;
  QTemporaryDir folder_;
  QString picture_ = folder_.filePath("view.png");
  QByteArray said_;
};

TEST_F(FirstView, OfTheDemoIsThereFromACleanHomeAndAgain) {
  ASSERT_EQ(start(folder_.path()), 0) << said_.toStdString();
  expectPicture();
  EXPECT_EQ(QDir(folder_.filePath(".local/share/agile-fin/demo-day")).entryList({"*.finlog"}).size(), 1);
  ASSERT_EQ(start(folder_.path()), 0) << said_.toStdString();
  expectPicture();
  EXPECT_EQ(QDir(folder_.filePath(".local/share/agile-fin/demo-day")).entryList({"*.finlog"}).size(), 1);
}

TEST_F(FirstView, OfTheDemoIsThereWhereNothingCanBeKept) {
  const QString home = folder_.filePath("no folder");
  QFile file(home);
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  file.close();
  ASSERT_EQ(start(home), 0) << said_.toStdString();
  expectPicture();
}

/// Installed, with half of the demo's files.
TEST_F(FirstView, OfADemoThatIsHalfThereNamesWhatIsMissing) {
  const QString shipped = folder_.filePath("share/agile-fin/demo-day");
  ASSERT_TRUE(QDir().mkpath(shipped) && QDir().mkpath(folder_.filePath("bin")));
  program_ = folder_.filePath("bin/agile-fin");
  ASSERT_TRUE(QFile::copy(FIN_PROGRAM, program_));
  ASSERT_TRUE(QFile::copy(FIN_DEMO "/manifest.json", shipped + "/manifest.json"));
  EXPECT_EQ(start(folder_.path()), 1);
  EXPECT_TRUE(said_.contains("is missing")) << said_.toStdString();
  EXPECT_TRUE(QDir(folder_.filePath(".local/share/agile-fin/demo-day")).entryList(QDir::Files).isEmpty());
}

TEST_F(FirstView, ThatCannotBeWrittenIsAnError) {
  picture_ = folder_.filePath("nowhere/view.png");
  EXPECT_EQ(start(folder_.path()), 1);
  EXPECT_TRUE(said_.contains("cannot be written")) << said_.toStdString();
}

}  // namespace
}  // namespace fin::app
