// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <gtest/gtest.h>

#include <QtTest/QTest>

#include "app/main_window.h"
#include "app/ui/settings.h"
#include "support/small_scene.h"

namespace fin::app {

/// The real window on a log of its own, to be driven by mouse and keys.
class WindowTest : public testing::Test {
 protected:
  ~WindowTest() override { Settings::all().setUnits(UnitSystem::Metric); }

  static constexpr int kPatience_ms = 60000;

  void openWindow() {
    window_.reset();
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    window_ = std::make_unique<MainWindow>(std::move(*log));
    window_->show();
    window_->activateWindow();
    ASSERT_TRUE(QTest::qWaitForWindowActive(window_.get()));
  }
  template <class T>
  T* find(const QString& name) {
    T* found = window_->findChild<T*>(name);
    EXPECT_NE(found, nullptr) << name.toStdString();
    return found;
  }
  /// Of the page that is to be seen: pages of one kind share their names.
  template <class T>
  T* visible(const QString& name) {
    for (T* widget : window_->findChildren<T*>(name)) {
      if (widget->isVisible()) return widget;
    }
    ADD_FAILURE() << name.toStdString() << " is not to be seen";
    return nullptr;
  }
  void press(const QString& button) { QTest::mouseClick(find<QPushButton>(button), Qt::LeftButton); }
  template <class Box>
  void typeInto(Box* box, const QString& text) {
    box->setFocus();
    box->selectAll();
    QTest::keyClicks(box, text);
    QTest::keyClick(box, Qt::Key_Return);
  }
  template <class Condition>
  static bool waitFor(const Condition& condition) {
    return QTest::qWaitFor(condition, kPatience_ms);
  }

  test::TemporaryFolder folder_;
  std::unique_ptr<MainWindow> window_;
};

}  // namespace fin::app
