// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QWidget>

#include "app/models/pass_desk.h"

namespace fin::app {

/// Putting right what following did: where it is doubtful, and everything the person said about it, each of
/// which can be taken back.
class MendPanel : public QWidget {
  Q_OBJECT

 public:
  explicit MendPanel(PassDesk& desk, QWidget* parent = nullptr);

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
  void refreshSaid();
  void takeBack();

  PassDesk& desk_;
  std::optional<std::size_t> foulFrom_;
  QLabel* doubtfulText_;
  QListWidget* doubtful_;
  QPushButton* next_;
  QPushButton* foul_;
  QListWidget* said_;
  QPushButton* takeBack_;
};

}  // namespace fin::app
