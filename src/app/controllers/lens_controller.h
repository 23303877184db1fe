// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <vector>

#include "app/controllers/pass_controller.h"
#include "core/calibration/lens_board.h"

namespace fin::app {

/// Finds a camera's lens from a clip of the board, and keeps lenses by camera, size of picture and window.
class LensController : public QObject {
  Q_OBJECT

 public:
  /// Both must outlive this.
  LensController(PassController& controller, Log& log, QObject* parent = nullptr);

  /// The lenses that fit the picture of the clip on the bench.
  [[nodiscard]] std::vector<KeptLens> fitting() const;
  /// Gives the pass on the bench this lens, or none. Undoable.
  void use(const std::optional<Lens>& lens);

  /// Looks for the board through the clip on the bench, in the background.
  void solve(const LensBoard& board);
  void stop();
  [[nodiscard]] bool solving() const { return solving_.running(); }
  /// Of the last solving that went well; null before and after another pass came onto the bench.
  [[nodiscard]] const LensFit* fit() const { return fit_ ? &*fit_ : nullptr; }
  /// Keeps the lens just found, for clips that this camera takes through such a window.
  void keep(const QString& window);

 signals:
  void changed();
  void progressed(double share);
  void told(const QString& message, bool trouble);

 private:
  PassController& controller_;
  Log& log_;
  std::optional<LensFit> fit_;
  Job<LensFit> solving_;
};

}  // namespace fin::app
