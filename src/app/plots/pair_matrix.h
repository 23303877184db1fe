// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>
#include <vector>

namespace fin::app {

/// Any two of several things in a small picture: filled where they are apart, with by how much; open where
/// they are too close to call. Each cell says in words what it shows where the pointer rests.
class PairMatrix : public QWidget {
  Q_OBJECT

 public:
  struct Cell {
    std::size_t row = 0;
    std::size_t column = 0;  ///< after the row
    bool apart = false;
    QString text;
    QString words;
  };
  explicit PairMatrix(QWidget* parent = nullptr);
  void show(const QStringList& names, std::vector<Cell> cells);
  [[nodiscard]] QSize sizeHint() const override;
  [[nodiscard]] QSize minimumSizeHint() const override { return sizeHint(); }
  /// Of a cell, in this widget.
  [[nodiscard]] QRect placeOf(std::size_t row, std::size_t column) const;

 protected:
  bool event(QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;

 private:
  [[nodiscard]] int namesWidth() const;

  QStringList names_;
  std::vector<Cell> cells_;
};

}  // namespace fin::app
