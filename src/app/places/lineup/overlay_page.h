// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QWidget>

#include "app/phrases/words.h"
#include "app/places/lineup/pass_picker.h"

class QCustomPlot;

namespace fin::app {

/// Passes laid over each other: their traces from a shared instant, their ways through the water from their
/// start, every twitch from its own start, the spread of a skirt from the stop.
class OverlayPage : public QWidget {
  Q_OBJECT

 public:
  enum class What { Traces, Paths, Twitches, Skirts };

  OverlayPage(LineUp& lineUp, StudiedPasses& studied, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);
  void choose(What what) { what_->setCurrentIndex(static_cast<int>(what)); }

 private:
  void refresh();
  bool draw(const StudiedPass& pass, const QPen& pen);
  bool drawTrace(const StudiedPass& pass, const QPen& pen);
  bool drawPath(const StudiedPass& pass, const QPen& pen);
  bool drawTwitches(const StudiedPass& pass, const QPen& pen);
  bool drawSkirt(const StudiedPass& pass, const QPen& pen);
  void lie(const StudiedPass& pass, const std::vector<double>& x, const std::vector<double>& y,
           const QPen& pen);
  void setScale();
  [[nodiscard]] What what() const { return static_cast<What>(what_->currentIndex()); }

  StudiedPasses& studied_;
  UnitSystem units_ = UnitSystem::Metric;
  QComboBox* what_;
  QLabel* sentence_;
  QCustomPlot* plot_;
  QLabel* words_;
};

}  // namespace fin::app
