// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QListWidget>
#include <QPushButton>

namespace fin::app {

/// Photos of a day or a water: added with a button or dropped here, looked at, taken out. The files stay
/// where they are.
class PhotoRow : public QWidget {
  Q_OBJECT

 public:
  /// `name` is the list's.
  explicit PhotoRow(const char* name, QWidget* parent = nullptr);
  void show(const std::vector<std::string>& files);
  /// Adds those that are pictures, and says why others are not.
  void add(const QStringList& files);

 signals:
  /// A person changed which photos there are.
  void changed(const std::vector<std::string>& files);

 protected:
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;

 private:
  QListWidget* photos_;
  QPushButton* remove_;
  QLabel* trouble_;
  std::vector<std::string> files_;
};

}  // namespace fin::app
