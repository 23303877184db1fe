// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>
#include <QLabel>
#include <QPushButton>

#include "app/controllers/pass_controller.h"

namespace fin::app {

/// Leads through a first measurement: one sentence at a time, at the thing itself, until there are numbers.
/// It goes on by what was done, not by what was pressed, and can be left and called back wherever one is.
class Lead : public QFrame {
  Q_OBJECT

 public:
  enum class Step { Open, Shows, Length, Ends, Nose, Tail, Follow, Numbers };
  /// The things themselves.
  struct Things {
    QWidget* open;
    QWidget* shows;
    QWidget* length;
    QWidget* footage;
    QWidget* follow;
    QWidget* numbers;
  };
  Lead(PassController& controller, Things things, QWidget& over);

  void begin();
  void leave();
  [[nodiscard]] bool leads() const { return leads_; }
  [[nodiscard]] Step step() const { return step_; }

 signals:
  void rulerWanted();
  void markWanted(MarkName mark);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  [[nodiscard]] Step due() const;
  void refresh();
  void show(Step step);
  void handOver();
  void goOn();
  void layOut();
  [[nodiscard]] QWidget* thing() const;

  PassController& controller_;
  Things things_;
  QLabel* count_;
  QLabel* words_;
  QPushButton* next_;
  QWidget* ring_;  ///< about the thing
  bool leads_ = false;
  bool shown_ = false;   ///< the person has said what the clip shows,
  bool length_ = false;  ///< and how long the known length is
  Step step_ = Step::Open;
};

}  // namespace fin::app
