// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QWidget>

#include "app/controllers/verdict_controller.h"
#include "app/places/verdict/wish_editor.h"

namespace fin::app {

/// No winner over all, but the best for each purpose, with the reason; what a purpose takes can be changed.
class PurposePage : public QWidget {
  Q_OBJECT

 public:
  explicit PurposePage(VerdictController& controller, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  QWidget* buildLeft();
  void refresh();
  void showChosen();
  void showPicks(const Purpose& purpose);
  void editChosen(const QString& what, const std::function<void(Purpose&)>& change);

  VerdictController& controller_;
  UnitSystem units_ = UnitSystem::Metric;
  QTableWidget* purposes_;
  QLineEdit* name_;
  WishEditor* wishes_;
  QPushButton* remove_;
  QLabel* heading_;
  QTableWidget* picks_;
  QLabel* words_;
};

}  // namespace fin::app
