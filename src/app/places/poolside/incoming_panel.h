// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QWidget>

#include "app/controllers/incoming_clips.h"
#include "core/units/result.h"

namespace fin::app {

/// Clips that have come in: each offered to its pass, to be taken in by one key.
class IncomingPanel : public QWidget {
  Q_OBJECT

 public:
  IncomingPanel(DayController& day, IncomingClips& incoming, QWidget* parent = nullptr);
  void takeChosen();
  /// All that are offered a pass of their own.
  void takeAll();
  void watchFolder(const QString& folder);
  /// Lets the rehearsal tank film the pass that is to be made now, into the watched folder.
  void rehearse();

 private:
  void chooseFolder();
  void refresh();
  void offerChosen();
  [[nodiscard]] QString chosenFile() const;

  DayController& day_;
  IncomingClips& incoming_;
  QLabel* folder_;
  QLabel* trouble_;
  QLabel* waiting_;
  QListWidget* list_;
  QComboBox* pass_;
  QComboBox* camera_;
  QPushButton* take_;
  QPushButton* all_;
  QPushButton* leave_;
  QPushButton* rehearse_;
  Job<void> filming_;
};

}  // namespace fin::app
