// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QStackedWidget>

namespace fin::app {

/// The pages of a place, changed from one row above them.
class PageTabs : public QWidget {
  Q_OBJECT

 public:
  explicit PageTabs(QWidget* parent = nullptr);
  /// `name` is the tab's.
  void addPage(const QString& title, const char* name, QWidget* page);
  void go(int page);
  /// Of the page that is seen.
  [[nodiscard]] QString pageTitle() const { return tabs_->checkedButton()->text(); }

 private:
  QButtonGroup* tabs_;
  QHBoxLayout* row_;
  QStackedWidget* pages_;
};

}  // namespace fin::app
