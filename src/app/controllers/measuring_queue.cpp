// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/measuring_queue.h"

#include <QFileInfo>
#include <algorithm>

#include "core/measuring/calibration.h"

namespace fin::app {
namespace {

bool isUnmarked(const PassRequest& request) {
  return request.protocol != Protocol::Sound && request.marks.empty() && !request.outline;
}

bool isMarkedByHand(const LoggedPass& pass) {
  const auto has = [&](MarkName name) {
    return std::any_of(pass.request.marks.begin(), pass.request.marks.end(),
                       [name](const MarkSeed& m) { return m.name == name; });
  };
  return !pass.finding && has(MarkName::Nose) && has(MarkName::Tail);
}

}  // namespace

MeasuringQueue::MeasuringQueue(Log& log, PassController& passes, QObject* parent)
    : QObject(parent), log_(log), passes_(passes) {}

std::vector<PassId> MeasuringQueue::unmarked() const {
  std::vector<PassId> out;
  for (const LoggedPass& pass : passes_.passes()) {
    const bool waits = atHand_ == pass.id || std::any_of(waiting_.begin(), waiting_.end(),
                                                         [&](const Waiting& w) { return w.id == pass.id; });
    if (isUnmarked(pass.request) && !pass.finding && !waits) out.push_back(pass.id);
  }
  return out;
}

void MeasuringQueue::add(const std::vector<PassId>& passes, Depth depth) {
  if (left() == 0) {
    done_ = 0;
    since_.start();
  }
  for (const PassId id : passes) {
    const auto same =
        std::find_if(waiting_.begin(), waiting_.end(), [id](const Waiting& w) { return w.id == id; });
    if (same == waiting_.end()) {
      waiting_.push_back({id, depth});
    } else {
      same->depth = std::max(same->depth, depth);
    }
  }
  next();
}

void MeasuringQueue::stop() {
  waiting_.clear();
  measuring_.stop();
  atHand_.reset();
  emit changed();
}

std::optional<double> MeasuringQueue::left_s() const {
  const double gone = static_cast<double>(done_) + share_;
  if (done_ == 0 || left() == 0) return std::nullopt;
  const double each = static_cast<double>(since_.elapsed()) * 1e-3 / gone;
  return each * (static_cast<double>(left()) - share_);
}

void MeasuringQueue::next() {
  share_ = 0.0;
  while (!measuring_.running() && !waiting_.empty()) {
    const Waiting waiting = waiting_.front();
    waiting_.pop_front();
    begin(waiting);
  }
  emit changed();
}

/// Size and time as they are kept for the camera that day, where nothing is said of them.
void MeasuringQueue::takeKeptCalibration(const LoggedPass& pass, PassRequest& request) const {
  if (request.scale || request.square) return;
  const auto all = log_.calibrations();
  if (!all) return;
  const KeptCalibration* kept = keptFor(*all, pass.camera, dayOf(request.clip));
  if (kept != nullptr) applyCalibration(request, kept->calibration);
}

MeasuringQueue::Known MeasuringQueue::knownOf(const LoggedPass& pass) const {
  Known out;
  const auto plan = log_.plan(pass.day);
  const auto rigOf = [&plan](const LoggedPass& p) -> const Rig* {
    if (!plan) return nullptr;
    const auto planned = std::find_if(plan->sheet.begin(), plan->sheet.end(),
                                      [&p](const PlannedPass& one) { return p.planned == one.id; });
    return planned == plan->sheet.end() ? nullptr : plan->rack.rig(planned->rig);
  };
  if (const Rig* rig = rigOf(pass)) {
    const Model* model = plan->rack.model(rig->model);
    if (model != nullptr && model->length_mm) out.lure.length = Millimetres(*model->length_mm);
  }
  const std::string& rig = pass.request.rigName;
  if (rig.empty()) return out;
  for (const LoggedPass& other : passes_.passes()) {
    if (other.id != pass.id && other.request.rigName == rig && other.request.view == pass.request.view &&
        isMarkedByHand(other))
      out.alike = other.request;
  }
  const auto look = looks_.find({rig, pass.request.view});
  if (look != looks_.end() && out.alike == look->second.from) {
    out.lure.look = look->second.look;
    out.alike.reset();
  }
  return out;
}

/// What is wrong with a clip is told with its pass, when it is opened.
void MeasuringQueue::begin(const Waiting& waiting) {
  const auto pass = log_.pass(waiting.id);
  const auto earlier = log_.measurement(waiting.id);
  if (!pass || pass->removed || !earlier) return;
  MeasuringOrder order{pass->request, pass->clip, *earlier};
  const bool find = waiting.depth == Depth::Find && isUnmarked(order.request);
  if (find) takeKeptCalibration(*pass, order.request);
  atHand_ = waiting.id;
  measuring_.start(
      [order, depth = waiting.depth, known = find ? knownOf(*pass) : Known{},
       indexes = passes_.indexFolder()](const JobControl& job) {
        return work(order, depth, known, indexes, job);
      },
      [this, pass = *pass, before = *earlier ? (*earlier)->readings : ReadingSet{}](Result<Outcome> outcome) {
        atHand_.reset();
        keep(pass, before, std::move(outcome));
        ++done_;
        next();
      },
      [this](double share, double) {
        share_ = share;
        emit progressed();
      });
}

Result<MeasuringQueue::Outcome> MeasuringQueue::work(MeasuringOrder order, Depth depth, Known known,
                                                     const std::filesystem::path& indexes,
                                                     const JobControl& job) {
  const auto clip = openClip(order.request, {indexes, {job.stop, {}}});
  if (!clip) return tl::unexpected(clip.error());
  Outcome out{order.request, {}, {}, {}};
  if (depth == Depth::Find && isUnmarked(order.request)) {
    if (known.alike) {
      // Where its look cannot be had, the lure is found without it, and it is not tried again.
      if (auto look = lookOfPass(*known.alike, {job.stop, {}})) known.lure.look = std::move(*look);
      out.learnt = Look{std::move(*known.alike), known.lure.look};
    }
    auto found = findMarks(order.request, *clip, known.lure, {job.stop, {}});
    if (!found && found.error().code != ErrorCode::Lost) return tl::unexpected(found.error());
    if (!found) {
      out.finding = Finding{{}, found.error().message};
      return out;
    }
    out.request = order.request = std::move(found->request);
    out.finding = Finding{std::move(found->found), {}};
  }
  if (nextStep(order, (*clip)->info().fingerprint) == NextStep::Follow && depth == Depth::Read)
    return failure(ErrorCode::Unsupported, "it has to be tracked again");
  auto measured = measure(order, *clip, {}, job);
  if (!measured) return tl::unexpected(measured.error());
  out.measurement = std::move(measured->measurement);
  return out;
}

void MeasuringQueue::keep(const LoggedPass& pass, const ReadingSet& before, Result<Outcome> outcome) {
  LoggedPass after = pass;
  if (outcome) {
    after.request = outcome->request;
    if (outcome->finding) after.finding = outcome->finding;
    if (outcome->learnt) looks_.insert_or_assign({pass.request.rigName, pass.request.view}, *outcome->learnt);
  }
  Result<void> kept;
  if (outcome && log_.readOnlyReason().empty()) {
    kept = log_.together([&]() -> Result<void> {
      if (after != pass) {
        if (auto ok = log_.changePasses({{pass, after}}); !ok) return ok;
      }
      if (outcome->measurement == nullptr) return {};
      return log_.saveMeasurement(pass.id, *outcome->measurement);
    });
  }
  if (!outcome) kept = tl::unexpected(outcome.error());
  // A person was faster, and is right.
  if (!kept && outcome && outcome->finding && kept.error().code == ErrorCode::MovedOn) return;
  if (!kept)
    return emit told(QString("%1: %2").arg(QString::fromStdString(pass.title),
                                           QString::fromStdString(kept.error().message)),
                     true);
  if (after != pass) passes_.showMeasured({pass, after});
  if (outcome->measurement) emit measured(pass.id, before, outcome->measurement->readings);
}

}  // namespace fin::app
