// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QFrame>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>

#include "app/controllers/film_maker.h"
#include "app/places/making_row.h"

namespace fin::app {

/// What is to be said in a film of what runs in step, its shape and its sound, and how far it is made.
class FilmPanel : public QFrame {
  Q_OBJECT

 public:
  explicit FilmPanel(QWidget* parent = nullptr);

  /// Where nothing was typed yet.
  void propose(const QString& title, const QStringList& end);
  /// What the script holds of it.
  void fillIn(FilmScript& script) const;
  /// Sound can be heard at true speed only.
  void setSlowed(bool slowed);
  [[nodiscard]] FilmMaker& maker() { return maker_; }

 signals:
  void filmWanted(const QString& file);
  void scriptWanted(const QString& file);

 private:
  void refresh();

  FilmMaker maker_;
  QLineEdit* title_;
  QPlainTextEdit* end_;
  QComboBox* shape_;
  QComboBox* sound_;
  QPushButton* make_;
  QPushButton* script_;
};

}  // namespace fin::app
