// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QPushButton>

namespace fin::app {

/// The photo of a model: shown, chosen with a button, or dropped here. The file stays where it is.
class RackPhoto : public QWidget {
  Q_OBJECT

 public:
  explicit RackPhoto(QWidget* parent = nullptr);
  /// `any` where there is a model that could have one.
  void show(const QString& file, bool any);
  /// Takes a file if it is a picture, and says so if not.
  void take(const QString& file);

 signals:
  void chosen(const QString& file);
  void refused(const QString& why);

 protected:
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;

 private:
  QLabel* picture_;
  QPushButton* choose_;
  QPushButton* remove_;
};

}  // namespace fin::app
