// SPDX-License-Identifier: GPL-3.0-or-later
// The guide as a window: its chapters, finding a word, links and pictures.
#include "app/places/guide_window.h"

#include <gtest/gtest.h>

#include <QDir>
#include <QTextBlock>
#include <QtTest/QTest>

#include "app/ui/shipped.h"

namespace fin::app {
namespace {

QString guideFolder() {
  return QString::fromStdString((shipped("docs") / "guide").string());
}

QStringList listed(const GuideWindow& guide) {
  QStringList out;
  const auto* list = guide.findChild<QListWidget*>("guideChapters");
  for (int i = 0; i < list->count(); ++i) out += list->item(i)->text();
  return out;
}

TEST(Guide, HasEveryChapterOfItsFolder) {
  const GuideWindow guide(guideFolder());
  EXPECT_EQ(listed(guide).size(), QDir(guideFolder()).entryList({"*.md"}).size())
      << "a chapter that the first page does not list is found by nobody";
}

TEST(Guide, NarrowsToTheChaptersWithAWordAndGoesToIt) {
  GuideWindow guide(guideFolder());
  guide.open({"index", {}});
  auto* words = guide.findChild<QLineEdit*>("guideWords");
  words->setText("spring-back");
  const QStringList found = listed(guide);
  EXPECT_TRUE(found.contains("What the readings mean"));
  EXPECT_FALSE(found.contains("Log"));
  emit words->returnPressed();
  EXPECT_EQ(guide.text().textCursor().selectedText().toLower(), "spring-back");
  words->clear();
  EXPECT_GT(listed(guide).size(), found.size());
}

TEST(Guide, ShowsItsPicturesAndFollowsItsLinks) {
  GuideWindow guide(guideFolder());
  guide.open({"filming-well", {}});
  int pictures = 0;
  for (QTextBlock block = guide.text().document()->begin(); block.isValid(); block = block.next()) {
    for (auto at = block.begin(); !at.atEnd(); ++at) {
      const QTextCharFormat format = at.fragment().charFormat();
      if (!format.isImageFormat()) continue;
      const QVariant picture =
          guide.text().loadResource(QTextDocument::ImageResource, QUrl(format.toImageFormat().name()));
      EXPECT_FALSE(picture.value<QImage>().isNull()) << format.toImageFormat().name().toStdString();
      ++pictures;
    }
  }
  EXPECT_EQ(pictures, 3);
  guide.text().setSource(QUrl("plan.md"));
  EXPECT_EQ(guide.chapter(), "plan");
  EXPECT_EQ(guide.findChild<QListWidget*>("guideChapters")->currentItem()->text(), "Plan");
}

TEST(Guide, SaysWhereItIsMissing) {
  const GuideWindow guide("/nowhere/guide");
  EXPECT_TRUE(guide.findChild<QTextBrowser*>("guideText")->toPlainText().contains("/nowhere/guide"));
  EXPECT_TRUE(listed(guide).isEmpty());
}

TEST(Guide, AsksForTheKeys) {
  GuideWindow guide(guideFolder());
  int asked = 0;
  QObject::connect(&guide, &GuideWindow::keysWanted, &guide, [&asked] { ++asked; });
  QTest::mouseClick(guide.findChild<QPushButton*>("guideKeys"), Qt::LeftButton);
  QTest::keyClick(&guide, Qt::Key_F2);
  EXPECT_EQ(asked, 2);
}

}  // namespace
}  // namespace fin::app
