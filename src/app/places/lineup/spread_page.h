// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QWidget>

#include "app/controllers/line_up.h"
#include "app/plots/spread_plot.h"

class QCustomPlot;

namespace fin::app {

/// One reading over all passes: each pass a point, each rig's mean with its interval (of a reading in words
/// how many passes of how many), and in words what can be told apart and what cannot.
class SpreadPage : public QWidget {
  Q_OBJECT

 public:
  explicit SpreadPage(LineUp& lineUp, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);
  void showReading(ReadingId reading);

 signals:
  void passWanted(PassId pass);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void refresh();
  void fillSpeeds();
  void showChosen();
  void show(ReadingId reading);
  void showClasses(ReadingId reading);
  void showDrift(ReadingId reading);
  [[nodiscard]] QStringList commonWords(const QStringList& differences) const;
  void say(const Spread& spread, const QStringList& differences);
  void listPasses(const Spread& spread, const std::vector<ComparedRig>& rigs, const ShownUnit& unit);
  [[nodiscard]] PassId passAt(QPointF at) const;
  /// Where a pass's numbers came from, in words.
  [[nodiscard]] QString originOf(PassId pass) const;

  LineUp& lineUp_;
  UnitSystem units_ = UnitSystem::Metric;
  QListWidget* choice_;
  QLabel* heading_;
  QComboBox* speed_;
  QLabel* words_;
  QCustomPlot* plot_;
  QLabel* drift_;
  QCheckBox* correctDrift_;
  QListWidget* passes_;
  std::vector<SpreadPoint> points_;
};

}  // namespace fin::app
