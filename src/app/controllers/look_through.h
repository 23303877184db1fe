// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QImage>
#include <QObject>
#include <map>

#include "app/controllers/day_controller.h"
#include "app/controllers/measuring_queue.h"
#include "core/measuring/glance.h"

namespace fin::app {

/// One still of a pass, ready to be painted.
struct ShownStill {
  QImage picture;
  Still still;
  bool doubt = false;
};

/// A pass that was measured by itself, as it is looked at.
struct LookedPass {
  std::vector<ShownStill> stills;
  std::optional<PassResult> result;
  std::vector<Protocol> several;  ///< as Glance
  QString trouble;                ///< why nothing can be shown
};

/// Goes through the passes that the program measured by itself, the doubtful ones first, and takes what the
/// person says of each. Every act can be undone. Stills are decoded in the background, those of the next pass
/// ahead. For the window's thread.
class LookThrough : public QObject {
  Q_OBJECT

 public:
  /// All must outlive it.
  LookThrough(const Log& log, PassController& passes, DayController& day, MeasuringQueue& queue,
              QObject* parent = nullptr);

  /// Those that wait, the one that is least sure first; one in which nothing was found before all.
  [[nodiscard]] const std::vector<PassId>& waiting() const { return waiting_; }
  /// How many of them are to be looked at closely.
  [[nodiscard]] std::size_t doubtful() const;
  /// The one that is looked at; null where none waits.
  [[nodiscard]] const LoggedPass* current() const;
  [[nodiscard]] std::size_t place() const { return at_; }
  /// Null while it is being opened.
  [[nodiscard]] const LookedPass* shown() const;

  /// From the one that is least sure.
  void begin();
  void step(int by);
  /// It was measured rightly: from now on it is compared.
  void take();
  /// Nose and tail change places, and it is followed anew.
  void swapEnds();
  /// It does not count.
  void foul();
  /// Each thing that the lure does becomes a pass of its own.
  void split();

 signals:
  void changed();
  void told(const QString& message, bool trouble);

 private:
  void refresh();
  void openMissing();
  void open(const LoggedPass& pass);
  void say(const QString& what, const std::function<void(LoggedPass&)>& change);

  const Log& log_;
  PassController& passes_;
  DayController& day_;
  MeasuringQueue& queue_;
  std::vector<PassId> waiting_;
  std::size_t at_ = 0;
  struct Opened {
    PassRequest request;
    LookedPass pass;
  };
  std::map<PassId, Opened> opened_;
  std::optional<PassId> openingId_;
  Job<LookedPass> opening_;
  Job<std::vector<MeasuredPart>> splitting_;
};

}  // namespace fin::app
