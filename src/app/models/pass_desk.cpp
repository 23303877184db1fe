// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/models/pass_desk.h"

#include <QFileInfo>
#include <algorithm>
#include <chrono>

#include "app/commands/pass_commands.h"
#include "app/models/rate_doubt.h"

namespace fin::app {
namespace {

namespace fs = std::filesystem;

fs::path pathOf(const QString& file) {
  return fs::path(QFileInfo(file).absoluteFilePath().toStdString());
}

/// Share done and the time left, told at most a few times a second.
class ProgressTeller {
 public:
  using Tell = std::function<void(double, double)>;
  explicit ProgressTeller(Tell tell) : tell_(std::move(tell)), start_(Clock::now()), last_(start_) {}
  void operator()(double share) {
    const auto now = Clock::now();
    if (now - last_ < std::chrono::milliseconds(100) || share <= 0.0) return;
    last_ = now;
    const double spent_s = std::chrono::duration<double>(now - start_).count();
    tell_(share, spent_s / share * (1.0 - share));
  }

 private:
  using Clock = std::chrono::steady_clock;
  Tell tell_;
  Clock::time_point start_;
  Clock::time_point last_;
};

bool hasSeed(const PassRequest& request, MarkName name) {
  return std::any_of(request.marks.begin(), request.marks.end(),
                     [name](const MarkSeed& s) { return s.name == name; });
}

}  // namespace

PassDesk::PassDesk(Log& log, QUndoStack& undo, QObject* parent) : QObject(parent), log_(log), undo_(undo) {
  reload();
}

const LoggedPass* PassDesk::current() const {
  const auto found = std::find_if(passes_.begin(), passes_.end(),
                                  [this](const LoggedPass& p) { return p.id == currentId_; });
  return found == passes_.end() ? nullptr : &*found;
}

void PassDesk::reload() {
  auto passes = log_.passes();
  if (!passes) return tell(passes.error());
  passes_ = std::move(*passes);
  emit passesChanged();
}

void PassDesk::openClip(const QString& file) {
  takeIn(file, {.title = QFileInfo(file).completeBaseName()});
}

void PassDesk::takeIn(const QString& file, const Intake& intake) {
  intakes_.emplace_back(file, intake);
  takeInNext();
}

Clip::OpenOptions PassDesk::openOptions(const fs::path& file, const std::stop_token& stop) {
  const auto tellProgress = [this, name = QString::fromStdString(file.filename().string())](double share,
                                                                                            double left_s) {
    QMetaObject::invokeMethod(
        this,
        [this, name, share, left_s] {
          if (opening()) emit lookedThrough(name, share, left_s);
        },
        Qt::QueuedConnection);
  };
  return {indexFolder_, {stop, ProgressTeller(tellProgress)}};
}

void PassDesk::stopOpening() {
  intakes_.clear();
  takingIn_.stop();
  opening_.stop();
  emit told(tr("Looking through the clip was stopped. Open it again when it suits."), false);
}

/// The next clip is looked through in the background: a long one takes its time. A file that is no clip is
/// told and never enters the log.
void PassDesk::takeInNext() {
  if (takingIn_.running() || intakes_.empty()) return;
  const auto [file, intake] = intakes_.front();
  intakes_.erase(intakes_.begin());
  takingIn_.start([this, path = pathOf(file)](
                      const std::stop_token& stop) { return Clip::open(path, openOptions(path, stop)); },
                  [this, file = file, intake = intake](Result<std::shared_ptr<const Clip>> clip) {
                    if (clip) {
                      keepIntake(file, intake, **clip);
                    } else {
                      tell(clip.error());
                    }
                    takeInNext();
                  });
}

void PassDesk::keepIntake(const QString& file, const Intake& intake, const Clip& clip) {
  PassRequest request;
  request.clip = pathOf(file);
  request.protocol = intake.protocol;
  request.view = intake.view;
  request.rigName = intake.rigName;
  request.lastFrame = clip.index().frameCount() - 1;
  if (clip.info().writtenRate) request.captureRate = clip.info().writtenRate;
  const auto id = log_.addPass(intake.title.toStdString(), request);
  if (!id) return tell(id.error());
  if (auto ok = log_.assign(*id, intake.planned, intake.camera); !ok) return tell(ok.error());
  undo_.push(new ShowPass(*this, *id, tr("Open %1").arg(QFileInfo(file).fileName()), false));
}

void PassDesk::assign(RowId id, std::optional<RowId> planned, const std::string& camera) {
  for (const LoggedPass& pass : passes_) {
    if (pass.id != id || (pass.planned == planned && pass.camera == camera)) continue;
    undo_.push(new AssignClip(*this, id, {pass.planned, pass.camera}, {planned, camera}));
    return;
  }
}

void PassDesk::applyAssignment(RowId id, std::optional<RowId> planned, const std::string& camera) {
  if (auto ok = log_.assign(id, planned, camera); !ok) return tell(ok.error());
  reload();
}

void PassDesk::removeCurrent() {
  if (!currentId_) return;
  undo_.push(new ShowPass(*this, *currentId_, tr("Take the pass out"), true));
}

void PassDesk::applyRemoved(RowId id, bool removed) {
  if (auto ok = log_.setRemoved(id, removed); !ok) return tell(ok.error());
  reload();
  if (!removed) return select(id);
  if (currentId_ != id) return;
  currentId_.reset();
  if (!passes_.empty()) return select(passes_.back().id);
  openCurrentClip();
}

void PassDesk::select(RowId id) {
  if (currentId_ == id) return;
  currentId_ = id;
  openCurrentClip();
}

void PassDesk::openCurrentClip() {
  reading_.stop();
  opening_.stop();
  followingNow_ = false;
  clip_.reset();
  clock_.reset();
  track_.reset();
  result_.reset();
  keptReadings_ = {};
  frame_ = 0;
  const LoggedPass* pass = current();
  if (pass != nullptr) {
    if (auto kept = log_.readings(pass->id)) keptReadings_ = std::move(*kept);
    if (auto track = log_.track(pass->id)) {
      track_ = std::move(*track);
    } else {
      tell(track.error());
    }
  }
  emit passChanged();
  emit resultChanged();
  if (pass == nullptr) return;
  opening_.start(
      [this, request = pass->request](const std::stop_token& stop) {
        return fin::openClip(request, openOptions(request.clip, stop));
      },
      [this, kept = *pass](Result<std::shared_ptr<const Clip>> clip) { clipOpened(kept, std::move(clip)); });
}

void PassDesk::clipOpened(const LoggedPass& pass, Result<std::shared_ptr<const Clip>> clip) {
  if (!clip) {
    emit told(tr("%1. Its readings are kept; put the clip back, or find it.")
                  .arg(QString::fromStdString(clip.error().message)),
              true);
    return;
  }
  clip_ = std::move(*clip);
  const auto print = printOf(pass.request.clip);
  const bool changed = print && *print != pass.clip;
  frame_ = std::min(pass.request.firstFrame, clip_->index().frameCount() - 1);
  refreshClock();
  if (wantedInstant_ && clock_)
    frame_ = clip_->index().frameShownAt(*wantedInstant_ * (1.0 / clock_->factor()));
  wantedInstant_.reset();
  emit passChanged();
  emit frameChanged();
  if (changed) {
    emit told(
        tr("%1 was changed since it was read. The readings below are of the earlier clip; follow anew to "
           "read this one.")
            .arg(QString::fromStdString(pass.request.clip.filename().string())),
        true);
    return;
  }
  tellAboutClip();
  readAgain();
}

void PassDesk::showInstant(RowId id, Seconds instant) {
  if (currentId_ == id && clock_)
    return showFrame(clip_->index().frameShownAt(instant * (1.0 / clock_->factor())));
  wantedInstant_ = instant;
  select(id);
}

/// What is to know of the clip before anything is measured on it.
void PassDesk::tellAboutClip() {
  QStringList words;
  for (const std::string& warning : clip_->info().warnings) words << QString::fromStdString(warning);
  const auto& said = current()->request.captureRate;
  if (const auto& written = clip_->info().writtenRate; written && !(said == written)) {
    words << tr("the camera wrote that it filmed %1 frames a second").arg(written->value());
  }
  if (!words.isEmpty()) emit told(words.join("; ") + ".", false);
}

void PassDesk::refreshClock() {
  clock_.reset();
  if (!clip_) return;
  if (auto clock = ClipClock::create(clip_->index(), current()->request.captureRate)) clock_ = *clock;
}

void PassDesk::showFrame(std::size_t frame) {
  if (!clip_) return;
  const std::size_t wanted = std::min(frame, clip_->index().frameCount() - 1);
  if (wanted == frame_) return;
  frame_ = wanted;
  emit frameChanged();
}

std::vector<FrameStretch> PassDesk::doubtful() const {
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

void PassDesk::showNextDoubtful() {
  const std::vector<FrameStretch> stretches = doubtful();
  if (stretches.empty()) return;
  const auto next = std::find_if(stretches.begin(), stretches.end(),
                                 [this](const FrameStretch& s) { return s.first > frame_; });
  showFrame(next == stretches.end() ? stretches.front().first : next->first);
}

void PassDesk::edit(const QString& what, const std::function<void(PassRequest&)>& change) {
  const LoggedPass* pass = current();
  if (pass == nullptr) return;
  PassRequest after = pass->request;
  change(after);
  if (after == pass->request) return;
  if (auto ok = validate(after, Stage::Draft); !ok) {
    tell(ok.error());
    emit requestChanged();  // fields go back to what stands
    return;
  }
  undo_.push(new EditPass(*this, pass->id, what, pass->request, std::move(after)));
}

void PassDesk::keepRequest(RowId id, const PassRequest& request) {
  if (auto ok = log_.saveRequest(id, request); !ok) return tell(ok.error());
  for (LoggedPass& pass : passes_) {
    if (pass.id == id) pass.request = request;
  }
}

void PassDesk::applyRequest(RowId id, const PassRequest& request) {
  if (currentId_ != id) {
    keepRequest(id, request);
    return select(id);
  }
  applyRequests({{id, request}});
}

void PassDesk::applyRequests(const std::vector<std::pair<RowId, PassRequest>>& requests) {
  const auto before = current() != nullptr ? std::optional(current()->request) : std::nullopt;
  for (const auto& [id, request] : requests) keepRequest(id, request);
  const LoggedPass* pass = current();
  if (pass == nullptr || pass->request == before) {
    emit requestChanged();  // fields go back to what stands
    return;
  }
  if (pass->request.clip != before->clip || pass->request.byField != before->byField) {
    reload();
    return openCurrentClip();
  }
  refreshClock();
  emit requestChanged();
  readAgain();
}

void PassDesk::applySharedInstants(const std::vector<std::pair<RowId, std::optional<Seconds>>>& instants) {
  for (const auto& [id, instant] : instants) {
    if (auto ok = log_.setSharedInstant(id, instant); !ok) return tell(ok.error());
  }
  reload();
}

bool PassDesk::readyToFollow(const PassRequest& request) {
  const auto both = [&request](MarkName a, MarkName b) { return hasSeed(request, a) && hasSeed(request, b); };
  return request.protocol == Protocol::Sound || request.outline || both(MarkName::Nose, MarkName::Tail) ||
         (request.view == View::HeadOn && both(MarkName::Back, MarkName::Belly));
}

void PassDesk::followAnew() {
  track_.reset();
  readAgain(true);
}

void PassDesk::stopFollowing() {
  if (!followingNow_) return;
  reading_.stop();
  followingNow_ = false;
  emit resultChanged();
  emit told(tr("Following was stopped. Nothing of it is kept; follow again when it suits."), false);
}

void PassDesk::readAgain(bool anew) {
  const LoggedPass* pass = current();
  if (pass == nullptr || !clip_) return;
  reading_.stop();
  followingNow_ = false;
  const PassRequest request = pass->request;
  const bool known = !anew && track_ && sameFollowing(track_->followedFrom, request);
  if (!known && !readyToFollow(request)) {
    result_.reset();
    keptReadings_ = {};
    emit resultChanged();
    return;
  }
  followingNow_ = !known;
  const auto tellProgress = [this](double share, double left_s) {
    QMetaObject::invokeMethod(
        this, [this, share, left_s] { emit progressed(share, left_s); }, Qt::QueuedConnection);
  };
  reading_.start(
      [clip = clip_, request, known, earlier = anew ? std::nullopt : track_,
       tellProgress](const std::stop_token& stop) {
        Outcome out{std::nullopt, tl::unexpected(Error{})};
        Track followed;
        if (known) {
          followed = earlier->track;
        } else {
          auto source = Clip::reader(clip, {});
          if (!source) return Outcome{std::nullopt, tl::unexpected(source.error())};
          const JobControl job{stop, ProgressTeller(tellProgress)};
          auto fresh =
              earlier ? followPassAgain(request, earlier->track, earlier->followedFrom, *clip, **source, job)
                      : followPass(request, *clip, **source, job);
          if (!fresh) return Outcome{std::nullopt, tl::unexpected(fresh.error())};
          followed = *fresh;
          out.fresh = LoggedTrack{std::move(*fresh), request};
        }
        out.result = readPass(request, *clip, std::move(followed));
        return out;
      },
      [this, id = pass->id](Outcome outcome) { keepOutcome(id, std::move(outcome)); });
  emit resultChanged();
}

void PassDesk::keepOutcome(RowId id, Outcome outcome) {
  followingNow_ = false;
  if (outcome.fresh) {
    track_ = std::move(outcome.fresh);
    if (log_.readOnlyReason().empty()) {
      if (auto ok = log_.saveTrack(id, *track_); !ok) tell(ok.error());
    }
  }
  if (!outcome.result) {
    result_.reset();
    emit resultChanged();
    return tell(outcome.result.error());
  }
  result_ = std::move(*outcome.result);
  keptReadings_ = result_->readings;
  if (log_.readOnlyReason().empty()) {
    if (auto ok = log_.saveReadings(id, result_->readings); !ok) tell(ok.error());
  }
  emit resultChanged();
  // What is to know of the clip itself was told when it was opened.
  const std::size_t known = clip_->info().warnings.size();
  if (result_->warnings.size() > known) emit told(QString::fromStdString(result_->warnings[known]), false);
  if (const QString doubt = rateDoubt(log_, passes_, *current(), keptReadings_); !doubt.isEmpty())
    emit told(doubt, true);
}

void PassDesk::findClip(const QString& file) {
  const LoggedPass* pass = current();
  if (pass == nullptr) return;
  const auto print = printOf(pathOf(file));
  if (!print) return tell(print.error());
  if (*print != pass->clip) {
    emit told(tr("%1 is another clip than the one this pass was read from; open it as a pass of its own.")
                  .arg(QFileInfo(file).fileName()),
              true);
    return;
  }
  edit(tr("Find the clip"), [&](PassRequest& request) { request.clip = pathOf(file); });
}

}  // namespace fin::app
