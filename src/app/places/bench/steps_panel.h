// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QWidget>
#include <map>

#include "app/controllers/lure_finder.h"
#include "app/controllers/pass_controller.h"
#include "app/ui/unit_box.h"

namespace fin::app {

/// What the person says once about a clip, from top to bottom: what it shows, how long a known length is,
/// where nose and tail are. The step that waits is the one in the accent colour.
class StepsPanel : public QWidget {
  Q_OBJECT

 public:
  explicit StepsPanel(PassController& controller, QWidget* parent = nullptr);
  [[nodiscard]] Millimetres knownLength() const { return Millimetres(length_->metric()); }
  void setUnits(UnitSystem units);
  /// What a person is led to.
  [[nodiscard]] QWidget* shows() { return protocol_; }
  [[nodiscard]] QWidget* length() { return length_; }
  [[nodiscard]] QWidget* follow() { return followText_; }
  /// Marks the buttons of what is in hand.
  void showInHand(const QString& objectName);

 signals:
  void rulerWanted();
  void moreWanted();  ///< on size and time
  void mendWanted();  ///< putting right what was followed
  void markWanted(MarkName mark);
  void told(const QString& message, bool trouble);

 private:
  void buildClipRow(class QGridLayout& grid);
  void buildLengthRow(class QGridLayout& grid);
  void buildMarksRow(class QGridLayout& grid);
  void buildFollowRow(class QGridLayout& grid);
  void refresh();
  void refreshFollowing();
  void tellProgress(double share, double left_s);

  PassController& controller_;
  QComboBox* protocol_;
  QComboBox* view_;
  QDoubleSpinBox* rate_;
  UnitBox* length_;
  UnitSystem units_ = UnitSystem::Metric;
  QPushButton* ruler_;
  QLabel* scaleText_;
  QGridLayout* marksGrid_ = nullptr;
  std::map<MarkName, QPushButton*> marks_;
  QWidget* thicknessRow_;
  UnitBox* thickness_;
  QLabel* marksHeading_ = nullptr;
  LureFinder* finder_;
  QPushButton* find_ = nullptr;
  QLabel* followText_;
  QProgressBar* progress_;
  QPushButton* followButton_;
  QPushButton* mend_;
};

}  // namespace fin::app
