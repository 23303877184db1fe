// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QWidget>

#include "app/controllers/further_crossings.h"

namespace fin::app {

/// Correcting what following did: where it is doubtful, and everything the person said about it, each of
/// which can be taken back.
class MendPanel : public QWidget {
  Q_OBJECT

 public:
  MendPanel(PassController& controller, FurtherCrossings& ways, QWidget* parent = nullptr);

  /// Begins a fouled stretch at the frame shown, or ends the one begun; inside a fouled stretch it takes that
  /// one away.
  void foulHere();

 signals:
  void hideWanted();
  void outlineWanted();
  void done();

 private:
  QWidget* buildDoubtful();
  QWidget* buildSaid();
  void refresh();
  void refreshDoubtful();
  void refreshHere();
  void refreshWays();
  void refreshSaid();
  void takeBack();

  PassController& controller_;
  FurtherCrossings& ways_;
  std::optional<std::size_t> foulFrom_;
  QLabel* doubtfulText_;
  QListWidget* doubtful_;
  QPushButton* next_;
  QPushButton* split_;
  QPushButton* look_;  ///< for further ways
  QPushButton* foul_;
  QListWidget* said_;
  QPushButton* takeBack_;
};

}  // namespace fin::app
