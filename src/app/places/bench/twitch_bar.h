// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QWidget>

#include "app/controllers/pass_controller.h"
#include "core/planning/pacing.h"

namespace fin::app {

/// Puts the starts of twitches right that were found wrongly, and says how even the hand was against the
/// pacer. Only there for passes with twitches.
class TwitchBar : public QWidget {
  Q_OBJECT

 public:
  explicit TwitchBar(PassController& controller, QWidget* parent = nullptr);
  void setCadence(const Cadence& cadence);

  void addHere();
  void removeNearest();
  void leaveOutOrIn();
  /// Moves the start nearest to the frame that is shown, by frames.
  void moveNearest(int frames);
  // As the trace hands them over, on true time.
  void add(double at_s);
  void move(double from_s, double to_s);

 private:
  void refresh();
  [[nodiscard]] bool applies() const;
  [[nodiscard]] double here_s() const;
  void change(const QString& what, const std::function<void(TwitchStarts&)>& change);
  [[nodiscard]] QString cadenceWords() const;

  PassController& controller_;
  Cadence cadence_;
  QLabel* what_;  ///< twitches or hops
  QPushButton* asFound_;
  QLabel* words_;
};

}  // namespace fin::app
