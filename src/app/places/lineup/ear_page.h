// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QWidget>
#include <array>

#include "app/controllers/ear_controller.h"
#include "app/controllers/studied_passes.h"
#include "app/jobs/clip_voice.h"
#include "core/measuring/hear_pass.h"

class QCustomPlot;

namespace fin::app {

/// Two passes heard one after the other, and how loud each was over its own quiet. What gain they are heard
/// with is always said.
class EarPage : public QWidget {
  Q_OBJECT

 public:
  enum class Gain { AsRecorded, QuietAlike, KeptForCamera };

  EarPage(EarController& controller, LineUp& lineUp, QWidget* parent = nullptr);
  /// What would be heard now; none where two sounds are not ready.
  [[nodiscard]] std::optional<HeardInTurn> heardNow() const;
  [[nodiscard]] bool busy() const { return studied_.busy() || hearing_.running(); }

 private:
  struct Voice {
    PassId id;
    QString title;
    std::string camera;
    Result<HeardPass> heard;
  };
  QLayout* buildChoices();
  QLayout* buildGains();
  void refresh();
  void want();
  void hearWanted();
  void draw();
  void tell();
  void listen();
  /// Of the first and of the second; why not, where they cannot be matched.
  [[nodiscard]] Result<std::array<double, 2>> gains_dB() const;
  [[nodiscard]] bool ready() const;

  EarController& controller_;
  LineUp& lineUp_;
  StudiedPasses studied_;
  Job<std::vector<Voice>> hearing_;
  std::vector<Voice> voices_;
  std::array<QComboBox*, 2> passes_;
  QComboBox* gain_;
  QComboBox* slowness_;
  QPushButton* listen_;
  QLabel* heading_;
  QCustomPlot* plot_;
  std::array<QLabel*, 2> cameras_;
  std::array<QDoubleSpinBox*, 2> kept_;
  QLabel* words_;
  ClipVoice voice_;
};

}  // namespace fin::app
