// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <QString>
#include <QUndoStack>
#include <functional>
#include <memory>
#include <optional>
#include <vector>

#include "app/jobs/background.h"
#include "core/calibration/clip_clock.h"
#include "core/records/log.h"

namespace fin::app {

/// The passes of a log and the one that lies on the bench: what the person said of it, its clip, its track
/// and its readings. Every edit goes through the undo stack and is in the log before it is shown. Following
/// and reading run in the background and start by themselves as soon as what they need is there.
class PassDesk : public QObject {
  Q_OBJECT

 public:
  /// Both must outlive the desk.
  PassDesk(Log& log, QUndoStack& undo, QObject* parent = nullptr);

  [[nodiscard]] const Log& log() const { return log_; }
  /// Where indexes of clips looked through before are kept; none are kept before this is said.
  void setIndexFolder(std::filesystem::path folder) { indexFolder_ = std::move(folder); }
  [[nodiscard]] const std::filesystem::path& indexFolder() const { return indexFolder_; }
  [[nodiscard]] const std::vector<LoggedPass>& passes() const { return passes_; }

  /// The pass on the bench; null when there is none.
  [[nodiscard]] const LoggedPass* current() const;
  [[nodiscard]] const std::shared_ptr<const Clip>& clip() const { return clip_; }
  [[nodiscard]] const std::optional<ClipClock>& clock() const { return clock_; }
  /// Of the request as it stands; null until it has been followed and read.
  [[nodiscard]] const PassResult* result() const { return result_ ? &*result_ : nullptr; }
  /// Readings to show: of the result, or as the log kept them while there is none.
  [[nodiscard]] const ReadingSet& readings() const { return result_ ? result_->readings : keptReadings_; }
  [[nodiscard]] std::size_t frame() const { return frame_; }
  [[nodiscard]] bool busy() const { return opening_.running() || reading_.running() || takingIn_.running(); }
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
    std::optional<RowId> planned;
    std::string camera;
  };
  void takeIn(const QString& file, const Intake& intake);
  /// Puts a clip to another planned pass or camera. Undoable.
  void assign(RowId id, std::optional<RowId> planned, const std::string& camera);
  void select(RowId id);
  /// Takes the pass on the bench out of the log. Undoable.
  void removeCurrent();
  void showFrame(std::size_t frame);
  /// Where following was doubtful, outside of what is fouled.
  [[nodiscard]] std::vector<FrameStretch> doubtful() const;
  /// Goes to the first frame of the next doubtful stretch; from the last one to the first.
  void showNextDoubtful();
  /// Changes what was said of the pass on the bench. Undoable; nothing happens when nothing changes.
  void edit(const QString& what, const std::function<void(PassRequest&)>& change);
  /// Follows once more from the marks, whatever the log holds.
  void followAnew();
  void stopFollowing();
  /// Gives up looking through the clips that are being opened.
  void stopOpening();
  [[nodiscard]] bool opening() const { return opening_.running() || takingIn_.running(); }
  /// Puts another pass on the bench at an instant of its own true time.
  void showInstant(RowId id, Seconds instant);
  /// Points the pass on the bench to where its clip is now.
  void findClip(const QString& file);

  // For the undo commands.
  void applyRequest(RowId id, const PassRequest& request);
  void applyRequests(const std::vector<std::pair<RowId, PassRequest>>& requests);
  void applySharedInstants(const std::vector<std::pair<RowId, std::optional<Seconds>>>& instants);
  void applyRemoved(RowId id, bool removed);
  void applyAssignment(RowId id, std::optional<RowId> planned, const std::string& camera);

 signals:
  void passesChanged();
  void passChanged();  ///< another pass, or another clip under it
  void requestChanged();
  void resultChanged();
  void frameChanged();
  void progressed(double share, double left_s);
  /// A clip is being looked through for the first time.
  void lookedThrough(const QString& file, double share, double left_s);
  /// Something to tell where it happened; `trouble` when it went wrong.
  void told(const QString& message, bool trouble);

 private:
  struct Outcome {
    std::optional<LoggedTrack> fresh;  ///< followed just now
    Result<PassResult> result;
  };
  void reload();
  [[nodiscard]] static bool readyToFollow(const PassRequest& request);
  void tell(const Error& error) { emit told(QString::fromStdString(error.message), true); }
  void takeInNext();
  void keepIntake(const QString& file, const Intake& intake, const Clip& clip);
  void openCurrentClip();
  void clipOpened(const LoggedPass& pass, Result<std::shared_ptr<const Clip>> clip);
  void refreshClock();
  void readAgain(bool anew = false);
  [[nodiscard]] Clip::OpenOptions openOptions(const std::filesystem::path& file, const std::stop_token& stop);
  void keepRequest(RowId id, const PassRequest& request);
  void tellAboutClip();
  void keepOutcome(RowId id, Outcome outcome);

  Log& log_;
  QUndoStack& undo_;
  std::vector<LoggedPass> passes_;
  std::optional<RowId> currentId_;
  std::shared_ptr<const Clip> clip_;
  std::optional<ClipClock> clock_;
  std::optional<LoggedTrack> track_;
  std::optional<PassResult> result_;
  ReadingSet keptReadings_;
  std::size_t frame_ = 0;
  std::optional<Seconds> wantedInstant_;  ///< to be shown when the clip is open
  std::filesystem::path indexFolder_;
  bool followingNow_ = false;
  Background<Result<std::shared_ptr<const Clip>>> opening_;
  std::vector<std::pair<QString, Intake>> intakes_;  ///< waiting for their turn
  Background<Result<std::shared_ptr<const Clip>>> takingIn_;
  Background<Outcome> reading_;
};

}  // namespace fin::app
