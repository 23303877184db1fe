// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <QString>
#include <functional>
#include <memory>
#include <optional>
#include <vector>

#include "app/commands/edits.h"
#include "app/jobs/job.h"
#include "core/calibration/clip_clock.h"
#include "core/measuring/session.h"
#include "core/records/log.h"

namespace fin::app {

/// The passes of a log and the one that lies on the bench: what the person said of it, its clip, and what was
/// measured of it. Every edit goes through the history and is in the log before it is shown. Following and
/// reading run in the background and start by themselves as soon as what they need is there; what is to be
/// run is the core's decision (nextStep). For the window's thread.
class PassController : public QObject {
  Q_OBJECT

 public:
  /// Both must outlive it.
  PassController(Log& log, Edits& edits, QObject* parent = nullptr);

  [[nodiscard]] const Log& log() const { return log_; }
  /// Where indexes of clips looked through before are kept; none are kept before this is said.
  void setIndexFolder(std::filesystem::path folder) { indexFolder_ = std::move(folder); }
  [[nodiscard]] const std::filesystem::path& indexFolder() const { return indexFolder_; }
  /// Of all days.
  [[nodiscard]] const std::vector<LoggedPass>& passes() const { return passes_; }
  [[nodiscard]] const LoggedPass* passWith(PassId id) const;
  /// The day that new clips belong to, and whose passes are offered.
  [[nodiscard]] DayId day() const { return day_; }
  /// Where the pass on the bench is of another day, the first one of this day takes its place.
  void setDay(DayId day);
  /// Puts passes to another day; what they were planned as stays behind, and size and time become those of
  /// their camera on that day, where they are known. Undoable.
  void moveTo(DayId day, const std::vector<PassId>& ids);

  /// The pass on the bench; null when there is none.
  [[nodiscard]] const LoggedPass* current() const;
  [[nodiscard]] const std::shared_ptr<const Clip>& clip() const { return clip_; }
  [[nodiscard]] const std::optional<ClipClock>& clock() const { return clock_; }
  /// The file in the clip's place is another one than the pass was made on.
  [[nodiscard]] bool clipChanged() const;
  /// Of the request as it stands; null until it has been followed and read.
  [[nodiscard]] const PassResult* result() const { return result_ ? &*result_ : nullptr; }
  /// The record behind the readings; null where there are none.
  [[nodiscard]] const Measurement* measurement() const { return shown_.get(); }
  /// Readings to show: of the result, or as the log keeps them while there is none.
  [[nodiscard]] const ReadingSet& readings() const;
  [[nodiscard]] std::size_t frame() const { return frame_; }
  [[nodiscard]] bool busy() const {
    return opening_.running() || measuring_.running() || takingIn_.running();
  }
  /// All is said that following (or, for sound, listening) needs.
  [[nodiscard]] bool ready() const { return current() != nullptr && readyToFollow(current()->request); }
  [[nodiscard]] bool following() const { return followingNow_; }

  /// Takes a clip in as a new pass. Undoable.
  void openClip(const QString& file);
  /// The same for a clip that was filmed for a planned pass.
  struct Intake {
    QString title;
    Protocol protocol = Protocol::Retrieve;
    View view = View::Top;
    std::string rigName;
    std::optional<PlannedPassId> planned;
    std::string camera;
  };
  void takeIn(const QString& file, const Intake& intake);
  /// Adds passes and shows the last of them. One act, undoable.
  void add(const QString& what, const std::vector<NewPass>& passes);
  /// Puts a clip to another planned pass or camera. Undoable.
  void assign(PassId id, std::optional<PlannedPassId> planned, const std::string& camera);
  void select(PassId id);
  /// Reads all passes of the log by these. Undoable.
  void useThresholds(const Thresholds& thresholds);
  /// Takes the pass on the bench out of the log. Undoable.
  void removeCurrent();
  void showFrame(std::size_t frame);
  /// Where following was doubtful, outside of what is fouled.
  [[nodiscard]] std::vector<FrameStretch> doubtful() const;
  /// Goes to the first frame of the next doubtful stretch; from the last one to the first.
  void showNextDoubtful();
  /// Changes what was said of the pass on the bench. Undoable; nothing happens when nothing changes.
  void edit(const QString& what, const std::function<void(PassRequest&)>& change);
  /// Changes of several passes as one act. Undoable.
  void change(const QString& what, const std::vector<PassChange>& changes);
  /// Follows once more from the marks, whatever the log holds.
  void followAnew();
  void stopFollowing();
  /// Gives up looking through the clips that are being opened.
  void stopOpening();
  [[nodiscard]] bool opening() const { return opening_.running() || takingIn_.running(); }
  /// Puts another pass on the bench at an instant of its own true time.
  void showInstant(PassId id, Seconds instant);
  /// Points the pass on the bench to where its clip is now.
  void findClip(const QString& file);
  /// Makes the pass on the bench one of the file that stands in its clip's place by now. Undoable.
  void takeChangedClip();

  /// Shows what others have written into the log.
  void show(const std::vector<PassChange>& written);
  /// Shows a pass that was measured elsewhere, with its new measurement in the log.
  void showMeasured(const PassChange& written);
  /// Reads everything from the log once more.
  void reload();

 signals:
  void passesChanged();
  void passChanged();  ///< another pass, or another clip under it
  void requestChanged();
  void resultChanged();
  /// These stand on other size and time now.
  void readAnewWanted(const std::vector<PassId>& passes);
  void frameChanged();
  void progressed(double share, double left_s);
  /// A clip is being looked through for the first time.
  void lookedThrough(const QString& file, double share, double left_s);
  /// Something to tell where it happened; `trouble` when it went wrong.
  void told(const QString& message, bool trouble);

 private:
  Result<void> write(const std::vector<PassChange>& changes);
  /// What is kept for a camera on a day, else what another pass of it stands on.
  [[nodiscard]] std::optional<Calibration> calibrationOn(DayId day, const std::string& camera) const;
  Result<void> setRemoved(const std::vector<PassId>& ids, bool removed);
  [[nodiscard]] MeasuringOrder order(bool anew = false) const;
  void readPasses();
  void tell(const Error& error) { emit told(QString::fromStdString(error.message), true); }
  void takeInNext();
  void keepIntake(const QString& file, const Intake& intake, const Clip& clip);
  void showCurrent(const std::optional<LoggedPass>& before);
  void openCurrentClip();
  void clipOpened(Result<std::shared_ptr<const Clip>> clip);
  void refreshClock();
  void measureNow(bool anew = false);
  void keepMeasured(PassId id, Measured measured);
  Job<std::shared_ptr<const Clip>>::Progress tellLookedThrough(const std::filesystem::path& file);

  Log& log_;
  Edits& edits_;
  std::vector<LoggedPass> passes_;
  std::optional<PassId> currentId_;
  DayId day_ = 1;
  std::shared_ptr<const Clip> clip_;
  std::optional<ClipClock> clock_;
  std::shared_ptr<const Measurement> measured_;  ///< the newest of the pass, whatever it is worth now
  std::shared_ptr<const Measurement> shown_;     ///< the one whose readings are shown
  std::optional<PassResult> result_;
  std::size_t frame_ = 0;
  std::optional<Seconds> wantedInstant_;  ///< to be shown when the clip is open
  std::filesystem::path indexFolder_;
  bool followingNow_ = false;
  std::vector<std::pair<QString, Intake>> intakes_;  ///< waiting for their turn
  Job<std::shared_ptr<const Clip>> opening_;
  Job<std::shared_ptr<const Clip>> takingIn_;
  Job<Measured> measuring_;
};

}  // namespace fin::app
