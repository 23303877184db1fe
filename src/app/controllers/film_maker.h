// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>

#include "app/controllers/studied_passes.h"
#include "app/phrases/words.h"
#include "core/publishing/make_film.h"

namespace fin::app {

/// A pass of a film with what the program knows of it.
struct FilmedPassOrder {
  StudiedPass pass;
  double instant_s = 0.0;
  QString note;
};
/// A film as it is asked for in the window: `script` without its passes.
struct FilmOrder {
  FilmScript script;
  std::vector<FilmedPassOrder> passes;
  UnitSystem units = UnitSystem::Metric;
};

/// Makes films in the background, one at a time. For the window's thread.
class FilmMaker : public QObject {
  Q_OBJECT

 public:
  explicit FilmMaker(QObject* parent = nullptr) : QObject(parent) {}

  /// Nothing is left of one that was being made.
  void make(const FilmOrder& order, const QString& file);
  /// The same as a script, beside which the clips are named.
  void writeScript(const FilmOrder& order, const QString& file);
  void stop();
  [[nodiscard]] bool busy() const { return job_.running(); }

 signals:
  void begun();
  void progressed(double share, double left_s);
  /// How it went.
  void done(const QString& message, bool trouble);

 private:
  Job<QString> job_;
};

}  // namespace fin::app
