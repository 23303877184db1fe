// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/controllers/making.h"
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

class FilmMaker : public Making {
  Q_OBJECT

 public:
  using Making::Making;

  void make(const FilmOrder& order, const QString& file);
  /// The same as a script, beside which the clips are named.
  void writeScript(const FilmOrder& order, const QString& file);
};

}  // namespace fin::app
