// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/pass_controller.h"

#include <QFileInfo>
#include <algorithm>

#include "app/controllers/pass_changes.h"
#include "app/controllers/rate_doubt.h"
#include "app/phrases/words.h"
#include "app/ui/settings.h"

namespace fin::app {
namespace {

namespace fs = std::filesystem;

fs::path pathOf(const QString& file) {
  return fs::path(QFileInfo(file).absoluteFilePath().toStdString());
}

QString nameOf(const LoggedPass& pass) {
  return QString::fromStdString(pass.request.clip.filename().string());
}

}  // namespace

PassController::PassController(Log& log, Edits& edits, QObject* parent)
    : QObject(parent), log_(log), edits_(edits) {
  readPasses();
}

const LoggedPass* PassController::passWith(PassId id) const {
  const auto found =
      std::find_if(passes_.begin(), passes_.end(), [id](const LoggedPass& p) { return p.id == id; });
  return found == passes_.end() ? nullptr : &*found;
}

const LoggedPass* PassController::current() const {
  return currentId_ ? passWith(*currentId_) : nullptr;
}

bool PassController::clipChanged() const {
  return clip_ && current() != nullptr && clip_->info().fingerprint != current()->clip;
}

const ReadingSet& PassController::readings() const {
  static const ReadingSet none;
  if (result_) return result_->readings;
  return shown_ ? shown_->readings : none;
}

MeasuringOrder PassController::order(bool anew) const {
  return {current()->request, current()->clip, measured_, anew};
}

void PassController::readPasses() {
  auto passes = log_.passes();
  if (!passes) return tell(passes.error());
  passes_ = std::move(*passes);
}

void PassController::reload() {
  readPasses();
  emit passesChanged();
  if (current() == nullptr) currentId_.reset();
  openCurrentClip();
}

// --- clips that come in -------------------------------------------------------------------------------

void PassController::openClip(const QString& file) {
  takeIn(file, {.title = QFileInfo(file).completeBaseName()});
}

void PassController::takeIn(const QString& file, const Intake& intake) {
  intakes_.emplace_back(file, intake);
  takeInNext();
}

Job<std::shared_ptr<const Clip>>::Progress PassController::tellLookedThrough(const fs::path& file) {
  return [this, name = QString::fromStdString(file.filename().string())](double share, double left_s) {
    emit lookedThrough(name, share, left_s);
  };
}

void PassController::stopOpening() {
  intakes_.clear();
  takingIn_.stop();
  opening_.stop();
  emit told(tr("You stopped reading the clip. Open it again when you like."), false);
}

/// The next clip is looked through in the background: a long one takes its time. A file that is no clip is
/// told and never enters the log.
void PassController::takeInNext() {
  if (takingIn_.running() || intakes_.empty()) return;
  const auto [file, intake] = intakes_.front();
  intakes_.erase(intakes_.begin());
  const fs::path path = pathOf(file);
  takingIn_.start(
      [path, indexes = indexFolder_](const JobControl& job) {
        return Clip::open(path, {indexes, job});
      },
      [this, file = file, intake = intake](Result<std::shared_ptr<const Clip>> clip) {
        if (clip) {
          keepIntake(file, intake, **clip);
        } else {
          tell(clip.error());
        }
        takeInNext();
      },
      tellLookedThrough(path));
}

void PassController::keepIntake(const QString& file, const Intake& intake, const Clip& clip) {
  NewPass pass{.title = intake.title.toStdString(),
               .request = {},
               .clip = clip.info().fingerprint,
               .planned = intake.planned,
               .camera = intake.camera,
               .day = day_};
  pass.request.clip = pathOf(file);
  pass.request.protocol = intake.protocol;
  pass.request.view = intake.view;
  pass.request.rigName = intake.rigName;
  pass.request.thresholds = Settings::all().thresholds();
  pass.request.lastFrame = clip.index().frameCount() - 1;
  if (clip.info().writtenRate) pass.request.captureRate = clip.info().writtenRate;
  add(tr("Open %1").arg(QFileInfo(file).fileName()), {pass});
}

void PassController::add(const QString& what, const std::vector<NewPass>& passes) {
  // Done again, they come back as they were rather than a second time.
  const auto ids = std::make_shared<std::vector<PassId>>();
  const auto act = [this, passes, ids]() -> Result<void> {
    if (!ids->empty()) return setRemoved(*ids, false);
    std::vector<PassId> added;
    const auto done = log_.together([&]() -> Result<void> {
      for (const NewPass& pass : passes) {
        const auto id = log_.addPass(pass);
        if (!id) return tl::unexpected(id.error());
        added.push_back(*id);
        if (pass.measurement == nullptr) continue;
        if (auto ok = log_.saveMeasurement(*id, *pass.measurement); !ok) return ok;
      }
      return {};
    });
    if (!done) return done;
    *ids = added;
    readPasses();
    emit passesChanged();
    select(ids->back());
    return {};
  };
  (void)edits_.perform(what, act, [this, ids] { return setRemoved(*ids, true); });
}

// --- edits ----------------------------------------------------------------------------------------------

void PassController::assign(PassId id, std::optional<PlannedPassId> planned, const std::string& camera) {
  const LoggedPass* pass = passWith(id);
  if (pass == nullptr || (pass->planned == planned && pass->camera == camera)) return;
  LoggedPass after = *pass;
  after.planned = planned;
  after.camera = camera;
  change(tr("Put a clip to its pass"), {{*pass, after}});
}

void PassController::useThresholds(const Thresholds& thresholds) {
  const std::vector<PassChange> changes = readBy(thresholds, passes_);
  if (!changes.empty()) change(tr("Name motions by other thresholds"), changes);
}

void PassController::removeCurrent() {
  if (!currentId_) return;
  const PassId id = *currentId_;
  (void)edits_.perform(
      tr("Take the pass out"), [this, id] { return setRemoved({id}, true); },
      [this, id] { return setRemoved({id}, false); });
}

Result<void> PassController::setRemoved(const std::vector<PassId>& ids, bool removed) {
  std::vector<PassChange> changes;
  for (const PassId id : ids) {
    auto now = log_.pass(id);
    if (!now) return tl::unexpected(now.error());
    LoggedPass after = *now;
    after.removed = removed;
    changes.push_back({std::move(*now), std::move(after)});
  }
  return write(changes);
}

void PassController::edit(const QString& what, const std::function<void(PassRequest&)>& change) {
  const LoggedPass* pass = current();
  if (pass == nullptr) return;
  LoggedPass after = *pass;
  change(after.request);
  if (after == *pass) return;
  if (after.request.marks != pass->request.marks) after.finding.reset();  // a person has looked
  if (auto ok = validate(after.request, Stage::Draft); !ok) {
    tell(ok.error());
    emit requestChanged();  // fields go back to what stands
    return;
  }
  this->change(what, {{*pass, after}});
}

void PassController::change(const QString& what, const std::vector<PassChange>& changes) {
  const auto done = edits_.perform(
      what, [this, changes] { return write(changes); }, [this, changes] { return write(reversed(changes)); });
  if (!done) emit requestChanged();  // fields go back to what stands
}

Result<void> PassController::write(const std::vector<PassChange>& changes) {
  if (auto done = log_.changePasses(changes); !done) return done;
  show(changes);
  // An act on what was said of one pass shows that pass, and so does its coming back.
  const auto& [was, is] = changes.back();
  const bool asks = was.removed || (changes.size() == 1 && was.request != is.request);
  if (asks && !is.removed) select(is.id);
  return {};
}

void PassController::show(const std::vector<PassChange>& written) {
  const auto before = current() != nullptr ? std::optional(*current()) : std::nullopt;
  for (const PassChange& change : written) {
    std::erase_if(passes_, [&](const LoggedPass& p) { return p.id == change.after.id; });
    if (change.after.removed) continue;
    const auto place = std::find_if(passes_.begin(), passes_.end(),
                                    [&](const LoggedPass& p) { return p.id > change.after.id; });
    passes_.insert(place, change.after);
  }
  if (std::any_of(written.begin(), written.end(), listedOtherwise)) emit passesChanged();
  if (currentId_ && current() == nullptr) {
    currentId_ = passes_.empty() ? std::nullopt : std::optional(passes_.back().id);
    return openCurrentClip();
  }
  showCurrent(before);
}

void PassController::showMeasured(const PassChange& written) {
  for (LoggedPass& pass : passes_) {
    if (pass.id == written.after.id) pass = written.after;
  }
  emit passesChanged();
  if (currentId_ == written.after.id) openCurrentClip();
}

/// What changed of the pass on the bench.
void PassController::showCurrent(const std::optional<LoggedPass>& before) {
  const LoggedPass* pass = current();
  if (pass == nullptr || !before || pass->id != before->id || *pass == *before) {
    emit requestChanged();
    return;
  }
  if (otherClip(*before, *pass)) return openCurrentClip();
  refreshClock();
  emit requestChanged();
  if (pass->request != before->request) measureNow();
}

// --- the pass on the bench ------------------------------------------------------------------------------

void PassController::select(PassId id) {
  if (currentId_ == id) return;
  currentId_ = id;
  openCurrentClip();
}

void PassController::setDay(DayId day) {
  if (day_ == day) return;
  day_ = day;
  readPasses();  // those of a day that was taken out are gone with it, or back
  emit passesChanged();
  if (current() != nullptr && current()->day == day_) return;
  const auto first =
      std::find_if(passes_.begin(), passes_.end(), [day](const LoggedPass& p) { return p.day == day; });
  if (first != passes_.end()) return select(first->id);
  currentId_.reset();
  openCurrentClip();
}

void PassController::moveTo(DayId day, const std::vector<PassId>& ids) {
  std::vector<PassChange> changes;
  for (const PassId id : ids) {
    const LoggedPass* pass = passWith(id);
    if (pass == nullptr || pass->day == day) continue;
    LoggedPass after = *pass;
    after.day = day;
    after.planned.reset();
    if (const auto there = calibrationOn(day, pass->camera)) applyCalibration(after.request, *there);
    changes.push_back({*pass, after});
  }
  if (changes.empty()) return;
  change(tr("Move to another day"), changes);
  std::vector<PassId> anew;
  for (const PassChange& one : changes) {
    if (!(one.before.request == one.after.request)) anew.push_back(one.after.id);
  }
  if (!anew.empty()) emit readAnewWanted(anew);
}

std::optional<Calibration> PassController::calibrationOn(DayId day, const std::string& camera) const {
  if (camera.empty()) return std::nullopt;  // nobody said which one it was
  const auto days = log_.days();
  const auto kept = log_.calibrations();
  if (!days || !kept) return std::nullopt;
  const auto head = std::find_if(days->begin(), days->end(), [day](const DayHead& d) { return d.id == day; });
  if (head == days->end()) return std::nullopt;
  if (const KeptCalibration* own = keptFor(*kept, camera, head->date)) return own->calibration;
  const auto twin = std::find_if(passes_.begin(), passes_.end(),
                                 [&](const LoggedPass& p) { return p.day == day && p.camera == camera; });
  return twin == passes_.end() ? std::nullopt : std::optional(calibrationOf(twin->request));
}

void PassController::openCurrentClip() {
  measuring_.stop();
  opening_.stop();
  followingNow_ = false;
  clip_.reset();
  clock_.reset();
  measured_.reset();
  shown_.reset();
  result_.reset();
  frame_ = 0;
  const LoggedPass* pass = current();
  if (pass != nullptr) {
    if (auto measured = log_.measurement(pass->id)) {
      measured_ = std::move(*measured);
    } else {
      tell(measured.error());
    }
    shown_ = measured_;
  }
  emit passChanged();
  emit resultChanged();
  if (pass == nullptr) return;
  opening_.start(
      [request = pass->request, indexes = indexFolder_](const JobControl& job) {
        return fin::openClip(request, {indexes, job});
      },
      [this](Result<std::shared_ptr<const Clip>> clip) { clipOpened(std::move(clip)); },
      tellLookedThrough(pass->request.clip));
}

void PassController::clipOpened(Result<std::shared_ptr<const Clip>> clip) {
  const LoggedPass* pass = current();
  if (pass == nullptr) return;
  if (!clip) {
    emit told(tr("%1. Its readings are kept; put the clip back, or find it.")
                  .arg(QString::fromStdString(clip.error().message)),
              true);
    return;
  }
  clip_ = std::move(*clip);
  frame_ = std::min(pass->request.firstFrame, clip_->index().frameCount() - 1);
  refreshClock();
  if (wantedInstant_ && clock_)
    frame_ = clip_->index().frameShownAt(*wantedInstant_ * (1.0 / clock_->factor()));
  wantedInstant_.reset();
  emit passChanged();
  emit frameChanged();
  if (clipChanged()) {
    emit told(
        tr("%1 is another file than this pass was made on. The readings here are of the earlier file, and "
           "nothing is measured on the new one until you say so.")
            .arg(nameOf(*pass)),
        true);
  } else if (const QString odd = oddOf(clip_->info(), pass->request.captureRate); !odd.isEmpty()) {
    emit told(odd, false);
  }
  measureNow();
}

void PassController::showInstant(PassId id, Seconds instant) {
  if (currentId_ == id && clock_)
    return showFrame(clip_->index().frameShownAt(instant * (1.0 / clock_->factor())));
  wantedInstant_ = instant;
  select(id);
}

void PassController::refreshClock() {
  clock_.reset();
  if (!clip_ || current() == nullptr) return;
  if (auto clock = ClipClock::create(clip_->index(), current()->request.captureRate)) clock_ = *clock;
}

void PassController::showFrame(std::size_t frame) {
  if (!clip_) return;
  const std::size_t wanted = std::min(frame, clip_->index().frameCount() - 1);
  if (wanted == frame_) return;
  frame_ = wanted;
  emit frameChanged();
}

std::vector<FrameStretch> PassController::doubtful() const {
  if (!result_ || current() == nullptr) return {};
  std::vector<FrameStretch> out = doubtfulStretches(result_->track);
  const auto& fouled = current()->request.fouled;
  std::erase_if(out, [&fouled](const FrameStretch& s) {
    return std::any_of(fouled.begin(), fouled.end(), [&s](const FouledStretch& f) {
      return f.frames.holds(s.first) && f.frames.holds(s.last);
    });
  });
  return out;
}

void PassController::showNextDoubtful() {
  const std::vector<FrameStretch> stretches = doubtful();
  if (stretches.empty()) return;
  const auto next = std::find_if(stretches.begin(), stretches.end(),
                                 [this](const FrameStretch& s) { return s.first > frame_; });
  showFrame(next == stretches.end() ? stretches.front().first : next->first);
}

void PassController::findClip(const QString& file) {
  const LoggedPass* pass = current();
  if (pass == nullptr) return;
  const auto found = fingerprintOf(pathOf(file));
  if (!found) return tell(found.error());
  if (*found != pass->clip) {
    emit told(tr("%1 is another clip than the one this pass was made on; open it as a pass of its own.")
                  .arg(QFileInfo(file).fileName()),
              true);
    return;
  }
  edit(tr("Find the clip"), [&](PassRequest& request) { request.clip = pathOf(file); });
}

void PassController::takeChangedClip() {
  if (!clipChanged()) return;
  LoggedPass after = *current();
  after.clip = clip_->info().fingerprint;
  change(tr("Measure the file that is there now"), {{*current(), after}});
}

// --- measuring ------------------------------------------------------------------------------------------

void PassController::followAnew() {
  measureNow(true);
}

void PassController::stopFollowing() {
  if (!followingNow_) return;
  measuring_.stop();
  followingNow_ = false;
  emit resultChanged();
  emit told(tr("You stopped following. Nothing of it was kept; track it again when you like."), false);
}

void PassController::measureNow(bool anew) {
  measuring_.stop();
  followingNow_ = false;
  if (current() == nullptr || !clip_) return;
  const MeasuringOrder wanted = order(anew);
  const NextStep step = nextStep(wanted, clip_->info().fingerprint);
  if (step == NextStep::Mark || step == NextStep::ChooseClip) {
    result_.reset();
    if (step == NextStep::Mark) shown_.reset();
    emit resultChanged();
    return;
  }
  followingNow_ = step == NextStep::Follow;
  measuring_.start([wanted, clip = clip_](const JobControl& job) { return measure(wanted, clip, {}, job); },
                   [this, id = *currentId_](Result<Measured> measured) {
                     followingNow_ = false;
                     if (measured) return keepMeasured(id, std::move(*measured));
                     result_.reset();
                     emit resultChanged();
                     tell(measured.error());
                   },
                   [this](double share, double left_s) {
                     if (followingNow_) emit progressed(share, left_s);
                   });
  emit resultChanged();
}

void PassController::keepMeasured(PassId id, Measured measured) {
  const bool fresh = measured.measurement != measured_;
  measured_ = std::move(measured.measurement);
  shown_ = measured_;
  result_ = std::move(measured.result);
  if (fresh && log_.readOnlyReason().empty()) {
    if (auto ok = log_.saveMeasurement(id, *measured_); !ok) tell(ok.error());
  }
  emit resultChanged();
  // What is to know of the clip itself was told when it was opened.
  const std::size_t known = clip_->info().warnings.size();
  if (result_->warnings.size() > known) emit told(QString::fromStdString(result_->warnings[known]), false);
  if (const QString doubt = rateDoubt(log_, passes_, *current(), result_->readings); !doubt.isEmpty())
    emit told(doubt, true);
}

}  // namespace fin::app
