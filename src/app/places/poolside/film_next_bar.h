// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QFrame>
#include <QPushButton>

#include "app/controllers/verdict_controller.h"
#include "app/jobs/job.h"
#include "app/ui/pieces.h"
#include "core/comparison/film_next.h"

namespace fin::app {

/// At the water: which further passes would settle most, found in the background, and one press that makes
/// the rest of the sheet so. Hidden until two rigs can be compared.
class FilmNextBar : public QFrame {
  Q_OBJECT

 public:
  /// Both must outlive it.
  FilmNextBar(DayController& day, const VerdictController& verdict, QWidget* parent = nullptr);
  void replan();

 private:
  void refresh();
  void show(FilmNext next);
  [[nodiscard]] ToSettle toSettle() const;
  [[nodiscard]] QString toldAs(const std::string& rig) const;

  DayController& day_;
  const VerdictController& verdict_;
  FilmNext next_;
  Job<FilmNext> finding_;
  WholeLabel* text_;
  QComboBox* question_;
  QPushButton* replan_;
};

}  // namespace fin::app
