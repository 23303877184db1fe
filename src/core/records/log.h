// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/comparison/eye_check.h"
#include "core/comparison/wishes.h"
#include "core/footage/clip_fingerprint.h"
#include "core/measuring/calibration.h"
#include "core/measuring/finding.h"
#include "core/measuring/measurement.h"
#include "core/planning/day_plan.h"
#include "core/units/ids.h"

namespace fin {

/// What a person says of a new pass, and the file that it is made on.
struct NewPass {
  std::string title;
  PassRequest request;
  ClipFingerprint clip;
  std::optional<PlannedPassId> planned = std::nullopt;
  std::string camera = {};
  DayId day = 1;
  std::shared_ptr<const Measurement> measurement = nullptr;  ///< where it was measured already
  std::optional<Finding> finding = std::nullopt;             ///< as LoggedPass
};

/// One pass as the log keeps it: what the person said (the request) and by what its clip is known again.
struct LoggedPass {
  PassId id;
  std::string title;
  PassRequest request;
  ClipFingerprint clip;                  ///< of the file that the pass was made on
  std::optional<PlannedPassId> planned;  ///< the planned pass that it was filmed for
  std::string camera;                    ///< "fixed", "chase", "top", or as the person calls it
  DayId day = 1;
  /// When, on this clip's true time from its first frame, the instant comes that all clips of the planned
  /// pass share.
  std::optional<Seconds> sharedInstant;
  bool removed = false;  ///< out of sight; nothing of it is deleted
  /// Set where the program looked for the marks by itself: a person has still to look. Until then nothing of
  /// it is compared.
  std::optional<Finding> finding = std::nullopt;

  friend bool operator==(const LoggedPass&, const LoggedPass&) = default;
};

/// A pass before and after a person changed it.
struct PassChange {
  LoggedPass before;
  LoggedPass after;
};

/// Size and time as they hold for the clips of one camera on one day.
struct KeptCalibration {
  std::string camera;
  std::string day;  ///< yyyy-mm-dd
  Calibration calibration;
  std::filesystem::path madeOn;  ///< the clip it was made on

  friend bool operator==(const KeptCalibration&, const KeptCalibration&) = default;
};

/// What is kept for a camera on a day; null where nothing is.
const KeptCalibration* keptFor(const std::vector<KeptCalibration>& all, const std::string& camera,
                               const std::string& day);

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

/// The log: one SQLite file (.finlog) in which everything is kept as it is done. Clips stay where they are
/// and are named relative to the log's folder. The schema number is in user_version; older logs are migrated
/// when opened, newer ones are opened for reading only. A file of another program is refused untouched.
///
/// Nothing is overwritten that was not read: a change says what it stands on, and where the log holds
/// something else (another window wrote it, or it cannot be read) it is refused as a whole. A row that cannot
/// be read is left out, named in unreadable(), and stays as it is.
///
/// Errors: NotWritable (also when the file was moved, deleted or replaced meanwhile), Unreadable, MovedOn,
/// with the file's or row's name. Every change is one transaction: it is there whole or not at all. One
/// connection, for use by one thread.
class Log {
 public:
  /// Opens a log, or begins one where there is none.
  static Result<std::unique_ptr<Log>> open(const std::filesystem::path& file);
  /// Opens a log that is there for looking only; `why` is what is told of it.
  static Result<std::unique_ptr<Log>> openForLooking(const std::filesystem::path& file, std::string why);
  virtual ~Log() = default;

  [[nodiscard]] virtual const std::filesystem::path& file() const = 0;
  /// Why nothing can be written; empty where it can.
  [[nodiscard]] virtual const std::string& readOnlyReason() const = 0;
  /// What could not be read so far, by its name, and why. It stays in the log as it is.
  [[nodiscard]] virtual const std::map<std::string, std::string>& unreadable() const = 0;
  /// True once after another program or window has changed the file.
  [[nodiscard]] virtual bool changedElsewhere() = 0;

  /// Runs several changes as one: all of them are in the log, or none.
  [[nodiscard]] virtual Result<void> together(const std::function<Result<void>()>& changes) = 0;

  /// Those of all days that are not removed and can be read.
  [[nodiscard]] virtual Result<std::vector<LoggedPass>> passes() const = 0;
  [[nodiscard]] virtual Result<LoggedPass> pass(PassId id) const = 0;
  [[nodiscard]] virtual Result<PassId> addPass(const NewPass& pass) = 0;
  /// MovedOn where one of them is no longer as it was before.
  [[nodiscard]] virtual Result<void> changePasses(const std::vector<PassChange>& changes) = 0;

  /// With its track, and as readings and warnings alone.
  [[nodiscard]] virtual Result<std::shared_ptr<const Measurement>> measurement(PassId id) const = 0;
  [[nodiscard]] virtual Result<std::shared_ptr<const Measurement>> readingsOf(PassId id) const = 0;
  /// MovedOn where the pass has another clip or another request by now than was measured.
  [[nodiscard]] virtual Result<void> saveMeasurement(PassId id, const Measurement& measurement) = 0;

  [[nodiscard]] virtual Result<std::vector<KeptCalibration>> calibrations() const = 0;
  /// What is kept for a camera and day; none takes it away.
  [[nodiscard]] virtual Result<void> keepCalibration(const std::string& camera, const std::string& day,
                                                     const std::optional<KeptCalibration>& before,
                                                     const std::optional<KeptCalibration>& after) = 0;
  [[nodiscard]] virtual Result<std::vector<KeptLens>> lenses() const = 0;
  /// In place of the lens of the same camera, size and window.
  [[nodiscard]] virtual Result<void> keepLens(const KeptLens& lens) = 0;

  /// All days, by date; none where nothing was planned or filmed yet.
  [[nodiscard]] virtual Result<std::vector<DayHead>> days() const = 0;
  /// Days on which a rig was filmed.
  [[nodiscard]] virtual Result<std::vector<DayId>> daysOf(RigId rig) const = 0;
  /// A day with all that is its own goes out of sight, or comes back. Nothing is deleted.
  [[nodiscard]] virtual Result<void> hideDay(DayId day, bool hidden) = 0;
  /// A day's plan with the log's rack; an empty one where nothing was planned yet.
  [[nodiscard]] virtual Result<DayPlan> plan(DayId day = 1) const = 0;
  /// Writes the rows that differ, each only where the log holds it as it was before. A day that was never
  /// planned begins as DayPlan with its number and the log's rack.
  [[nodiscard]] virtual Result<void> savePlan(const DayPlan& before, const DayPlan& after) = 0;

  /// A number that no row of the rack or of a sheet and no day has, or had while a clip was put to it.
  [[nodiscard]] virtual Result<std::int64_t> freeId() const = 0;

  /// What a day is decided by; as usual where nothing was said yet.
  [[nodiscard]] virtual Result<VerdictPlan> verdict(DayId day = 1) const = 0;
  [[nodiscard]] virtual Result<void> saveVerdict(const VerdictPlan& before, const VerdictPlan& after,
                                                 DayId day = 1) = 0;

  /// What was scored by eye, in the order in which it was.
  [[nodiscard]] virtual Result<std::vector<EyeScore>> eyeScores() const = 0;
  [[nodiscard]] virtual Result<void> addEyeScores(const std::vector<EyeScore>& scores) = 0;
  /// Of one property; all of it.
  [[nodiscard]] virtual Result<void> forgetEyeScores(ReadingId property) = 0;

  /// By how many dB the clips of a camera are to be heard louder, where that was said.
  [[nodiscard]] virtual Result<std::map<std::string, double>> cameraGains_dB() const = 0;
  /// None forgets it.
  [[nodiscard]] virtual Result<void> keepCameraGain(const std::string& camera,
                                                    std::optional<double> gain_dB) = 0;
};

}  // namespace fin
