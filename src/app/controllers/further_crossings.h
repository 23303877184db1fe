// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>

#include "app/controllers/pass_controller.h"
#include "core/measuring/session.h"

namespace fin::app {

/// Looks, in the background, for further ways of the lure through the clip on the bench, and makes each a
/// pass of its own. One undo takes them all out again. Given up when another pass comes onto the bench.
class FurtherCrossings : public QObject {
  Q_OBJECT

 public:
  /// It must outlive this.
  FurtherCrossings(PassController& controller, QObject* parent = nullptr);

  void look();
  /// Makes each thing that the lure does in the clip on the bench, one after the other, a pass of its own,
  /// read from what was followed.
  void split();
  void stop();
  [[nodiscard]] bool looking() const { return looking_.running(); }

 signals:
  void changed();  ///< it looks now, or no longer
  void progressed(double share);
  void told(const QString& message, bool trouble);

 private:
  void keep(const LoggedPass& pass, Result<std::vector<PassRequest>> further);
  void keepParts(const LoggedPass& pass, const Result<std::vector<MeasuredPart>>& parts);

  PassController& controller_;
  Job<std::vector<PassRequest>> looking_;
  Job<std::vector<MeasuredPart>> splitting_;
};

}  // namespace fin::app
