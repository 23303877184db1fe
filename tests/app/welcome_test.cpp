// SPDX-License-Identifier: GPL-3.0-or-later
// What a person sees who has measured nothing yet.
#include <QPushButton>
#include <QSignalSpy>

#include "whole_texts.h"
#include "window_fixture.h"

namespace fin::app {
namespace {

class FirstHour : public WindowTest {
 protected:
  void SetUp() override {
    openWindow();
    window_->resize(1280, 800);
    QTest::qWait(50);
  }
};

TEST_F(FirstHour, OffersFourWaysToBegin) {
  QSignalSpy demo(window_.get(), &MainWindow::demoWanted);
  for (const char* name : {"welcomeMeasure", "welcomePlan", "welcomeDemo", "welcomeLog"})
    EXPECT_TRUE(find<QPushButton>(name)->isVisible()) << name;
  press("welcomeDemo");
  EXPECT_EQ(demo.size(), 1);
  press("welcomePlan");
  EXPECT_TRUE(window_->plan().isVisible());
}

TEST_F(FirstHour, ComesFromAnEmptyPoolsideToThePlan) {
  window_->go(Place::Poolside);
  EXPECT_FALSE(find<QPushButton>("done")->isVisible()) << "there is no pass that could be done";
  press("planADay");
  EXPECT_TRUE(window_->plan().isVisible());
}

TEST_F(FirstHour, ComesFromNothingToCompareToTheBench) {
  for (const Place place : {Place::LineUp, Place::Verdict}) {
    window_->go(place);
    EXPECT_TRUE(find<QFrame>("nothingYet")->isVisible());
    press("measureFirst");
    EXPECT_TRUE(window_->bench().isVisible());
    EXPECT_TRUE(find<QFrame>("lead")->isVisible());
    EXPECT_FALSE(find<QFrame>("nothingYet")->isVisible());
  }
}

TEST_F(FirstHour, HasEveryWordWhole) {
  for (const Place place :
       {Place::Plan, Place::Poolside, Place::Bench, Place::LineUp, Place::Verdict, Place::Log}) {
    window_->go(place);
    // What is shown for the first time is laid out in a later turn of the loop.
    EXPECT_TRUE(QTest::qWaitFor([this] { return test::cutIn(*window_).empty(); }))
        << "cut off in place " << static_cast<int>(place) << ": "
        << testing::PrintToString(test::cutIn(*window_));
  }
}

}  // namespace
}  // namespace fin::app
