// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QWidget>

#include "app/controllers/verdict_controller.h"
#include "app/ui/actions.h"

namespace fin::app {

/// What no camera shows: looks, finish, how it casts. Points from 0 to 10 typed into a table, or a quick
/// game: which of these two, as they lie there or as their photos show them? Its rigs are drawn so that those
/// meet that met least; names stay covered unless they are asked for, so that the one who chooses need not
/// see them.
class JudgedPage : public QWidget {
  Q_OBJECT

 public:
  explicit JudgedPage(VerdictController& controller, QWidget* parent = nullptr);
  [[nodiscard]] const ActionTable& actions() const { return actions_; }

 protected:
  void showEvent(QShowEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  QWidget* buildGame();
  void refresh();
  void fillTable();
  void drawPair();
  void showPair();
  void choose(double forFirst);
  void typed(int row, int column);
  [[nodiscard]] std::string property() const;
  [[nodiscard]] std::vector<std::string> rigs() const;
  [[nodiscard]] QPixmap photoOf(const std::string& rig) const;

  ActionTable actions_;
  VerdictController& controller_;
  QComboBox* property_;
  QLineEdit* judge_;
  QTableWidget* table_;
  QLabel* question_;
  QPushButton* first_;
  QPushButton* second_;
  QPushButton* equal_;
  QPushButton* names_;
  std::string pairFirst_, pairSecond_;
};

}  // namespace fin::app
