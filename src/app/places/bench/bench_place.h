// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QFrame>
#include <QLabel>
#include <QStackedWidget>
#include <QWidget>

#include "app/canvas/view/footage_view.h"
#include "app/jobs/frame_loader.h"
#include "app/places/bench/calibration_panel.h"
#include "app/places/bench/lead.h"
#include "app/places/bench/mend_panel.h"
#include "app/places/bench/playback.h"
#include "app/places/bench/quiet_bar.h"
#include "app/places/bench/readings_panel.h"
#include "app/places/bench/sound_lane.h"
#include "app/places/bench/steps_panel.h"
#include "app/places/bench/trace_view.h"
#include "app/places/bench/transport_bar.h"
#include "app/places/bench/twitch_bar.h"
#include "app/ui/actions.h"

namespace fin::app {

/// One clip: footage, its trace on the same time, what was said of it, and its readings.
class BenchPlace : public QWidget {
  Q_OBJECT

 public:
  BenchPlace(const CalibrationPanel::Models& models, FurtherCrossings& ways, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);
  void setCadence(const Cadence& cadence) { twitches_->setCadence(cadence); }
  [[nodiscard]] FootageView& footage() { return *footage_; }
  /// Asks for a file and opens it as a new pass.
  void chooseClip();
  /// Leads through a measurement, from what is there already.
  void showHow();
  [[nodiscard]] const ActionTable& actions() const { return actions_; }

 signals:
  void planWanted();
  void demoWanted();
  void logWanted();

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QWidget* buildHead();
  QFrame* buildMessage();
  QFrame* buildOffer();
  QWidget* buildEmpty();
  QWidget* buildWork(const CalibrationPanel::Models& models, FurtherCrossings& ways);
  void refreshPasses();
  void passChanged();
  void showMessage(const QString& text, bool trouble);
  void takeRuler();
  void takeMark(MarkName mark);
  void takeOutline();
  void takeHiding();
  void takeOwnRuler();
  void takeSquare();
  void takeLine(LinesCard::Line line);
  void offerFoundLines(LinesCard::Line line);
  void offerKeptCalibration();
  void take(std::unique_ptr<Tool> tool, const QString& inHand);
  void findClip();
  void fillActions();
  void buildLead();

  PassController& controller_;
  KeptCalibrations& kept_;
  FrameLoader loader_;
  Playback playback_;
  QComboBox* chooser_;
  QFrame* message_;
  QLabel* messageText_;
  PassRequest messageOn_;  ///< as it stood when the message was shown
  QPushButton* find_;
  QPushButton* measureNew_;
  QPushButton* stop_;
  QFrame* offer_;  ///< of the size and time that are kept for the camera
  QLabel* offerText_;
  QStackedWidget* stack_;
  FootageView* footage_;
  TransportBar* transport_;
  TraceView* trace_;
  TwitchBar* twitches_;
  QuietBar* quiet_;
  StepsPanel* steps_;
  ReadingsPanel* readings_;
  CalibrationPanel* calibration_;
  MendPanel* mend_;
  QPushButton* open_;
  Lead* lead_;
  ActionTable actions_;
  QWidget* usual_;        ///< steps and readings
  QStackedWidget* side_;  ///< the usual, more on size and time, or putting right
};

}  // namespace fin::app
