// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>

#include "app/controllers/pass_controller.h"
#include "core/measuring/find_marks.h"

namespace fin::app {

/// Finds, in the background, the lure in the clip on the bench, and places its marks in place of those that
/// are there. One undo takes that back. Given up when another pass comes onto the bench.
class LureFinder : public QObject {
  Q_OBJECT

 public:
  /// It must outlive this.
  explicit LureFinder(PassController& controller, QObject* parent = nullptr);

  /// Looks; stops where it looks already.
  void look();
  [[nodiscard]] bool looking() const { return looking_.running(); }

 signals:
  void changed();  ///< it looks now, or no longer
  void told(const QString& message, bool trouble);

 private:
  void place(Result<FoundPass> found);

  PassController& controller_;
  Job<FoundPass> looking_;
};

}  // namespace fin::app
