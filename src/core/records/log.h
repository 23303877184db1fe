// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/comparison/eye_check.h"
#include "core/comparison/wishes.h"
#include "core/footage/clip_print.h"
#include "core/passes/calibration.h"
#include "core/passes/measure.h"
#include "core/planning/day_plan.h"

namespace fin {

/// One pass as the log keeps it: what the person said (the request) and by what its clip is known again.
struct LoggedPass {
  RowId id = 0;
  std::string title;
  PassRequest request;
  ClipPrint clip;
  std::optional<RowId> planned;  ///< the planned pass that it was filmed for
  std::string camera;            ///< "fixed", "chase", "top", or as the person calls it
  /// When, on this clip's true time from its first frame, the instant comes that all clips of the planned
  /// pass share.
  std::optional<Seconds> sharedInstant;
};

/// Size and time as they hold for the clips of one camera on one day.
struct KeptCalibration {
  std::string camera;
  std::string day;  ///< yyyy-mm-dd
  Calibration calibration;
  std::filesystem::path madeOn;  ///< the clip it was made on

  friend bool operator==(const KeptCalibration&, const KeptCalibration&) = default;
};

/// A lens, by camera, size of its picture, and what it looks through.
struct KeptLens {
  std::string camera;
  int width_px = 0;
  int height_px = 0;
  std::string window;  ///< "air", "flat port", or as the person calls it
  Lens lens;
  Pixels rms{0.0};

  friend bool operator==(const KeptLens&, const KeptLens&) = default;
};

/// A track with what it was followed from, so that an outdated one is told from a good one.
struct LoggedTrack {
  Track track;
  PassRequest followedFrom;
};

/// True when a track of `before` stands for `now` as well: same clip, marks, outline and window.
bool sameFollowing(const PassRequest& before, const PassRequest& now);

/// The log: one SQLite file (.finlog) in which everything is kept as it is done. Clips stay where they are
/// and are named relative to the log's folder. The schema number is in user_version; older logs are brought
/// forward when opened, newer ones are opened for reading only.
///
/// Errors: NotWritable, Unreadable, NewerVersion, with the file's name. Every change is one transaction: it
/// is there whole or not at all. One connection, for use by one thread.
class Log {
 public:
  /// Opens a log, or begins one where there is none.
  static Result<std::unique_ptr<Log>> open(const std::filesystem::path& file);
  virtual ~Log() = default;

  [[nodiscard]] virtual const std::filesystem::path& file() const = 0;
  /// Why nothing can be written; empty where it can.
  [[nodiscard]] virtual const std::string& readOnlyReason() const = 0;

  [[nodiscard]] virtual Result<std::vector<LoggedPass>> passes() const = 0;
  [[nodiscard]] virtual Result<LoggedPass> pass(RowId id) const = 0;
  [[nodiscard]] virtual Result<RowId> addPass(const std::string& title, const PassRequest& request) = 0;
  /// Takes a pass out of sight or brings it back; nothing of it is deleted.
  [[nodiscard]] virtual Result<void> setRemoved(RowId id, bool removed) = 0;
  [[nodiscard]] virtual Result<void> saveRequest(RowId id, const PassRequest& request) = 0;

  /// Says for which planned pass, and by which camera, a clip was filmed.
  [[nodiscard]] virtual Result<void> assign(RowId id, std::optional<RowId> planned,
                                            const std::string& camera) = 0;

  [[nodiscard]] virtual Result<void> setSharedInstant(RowId id, std::optional<Seconds> instant) = 0;

  [[nodiscard]] virtual Result<std::vector<KeptCalibration>> calibrations() const = 0;
  /// In place of what was kept for this camera and day; none takes it away.
  [[nodiscard]] virtual Result<void> keepCalibration(const std::string& camera, const std::string& day,
                                                     const std::optional<KeptCalibration>& kept) = 0;
  [[nodiscard]] virtual Result<std::vector<KeptLens>> lenses() const = 0;
  /// In place of the lens of the same camera, size and window.
  [[nodiscard]] virtual Result<void> keepLens(const KeptLens& lens) = 0;

  /// The day's plan with its rack; an empty one where nothing was planned yet.
  [[nodiscard]] virtual Result<DayPlan> plan() const = 0;
  [[nodiscard]] virtual Result<void> savePlan(const DayPlan& plan) = 0;

  /// What the day is decided by; as usual where nothing was said yet.
  [[nodiscard]] virtual Result<VerdictPlan> verdict() const = 0;
  [[nodiscard]] virtual Result<void> saveVerdict(const VerdictPlan& plan) = 0;

  /// What was scored by eye, in the order in which it was.
  [[nodiscard]] virtual Result<std::vector<EyeScore>> eyeScores() const = 0;
  [[nodiscard]] virtual Result<void> addEyeScore(const EyeScore& score) = 0;
  /// Of one property; all of it.
  [[nodiscard]] virtual Result<void> forgetEyeScores(const std::string& property) = 0;

  /// By how many dB the clips of a camera are to be heard louder, where that was said.
  [[nodiscard]] virtual Result<std::map<std::string, double>> cameraGains_dB() const = 0;
  /// None forgets it.
  [[nodiscard]] virtual Result<void> keepCameraGain(const std::string& camera,
                                                    std::optional<double> gain_dB) = 0;

  [[nodiscard]] virtual Result<std::optional<LoggedTrack>> track(RowId id) const = 0;
  [[nodiscard]] virtual Result<void> saveTrack(RowId id, const LoggedTrack& track) = 0;
  [[nodiscard]] virtual Result<ReadingSet> readings(RowId id) const = 0;
  [[nodiscard]] virtual Result<void> saveReadings(RowId id, const ReadingSet& readings) = 0;
};

}  // namespace fin
