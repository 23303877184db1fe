// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/look_through.h"

#include <algorithm>

#include "app/controllers/pass_changes.h"
#include "app/jobs/picture_image.h"

namespace fin::app {
namespace {

/// Both ends of the body change places; a soft tail's tip is such an end.
void swapEndsOf(std::vector<MarkSeed>& marks) {
  const bool soft =
      std::any_of(marks.begin(), marks.end(), [](const MarkSeed& m) { return m.name == MarkName::Tip; });
  const MarkName rear = soft ? MarkName::Tip : MarkName::Tail;
  for (MarkSeed& mark : marks) {
    if (mark.name == MarkName::Nose) {
      mark.name = rear;
    } else if (mark.name == rear) {
      mark.name = MarkName::Nose;
    }
  }
}

LookedPass lookedAt(Glance glance) {
  LookedPass out;
  for (std::size_t i = 0; i < glance.stills.size(); ++i)
    out.stills.push_back({imageOf(glance.pictures[i]), std::move(glance.stills[i]), glance.doubt == i});
  out.result = std::move(glance.result);
  out.several = std::move(glance.several);
  return out;
}

}  // namespace

LookThrough::LookThrough(const Log& log, PassController& passes, DayController& day, MeasuringQueue& queue,
                         QObject* parent)
    : QObject(parent), log_(log), passes_(passes), day_(day), queue_(queue) {
  connect(&passes, &PassController::passesChanged, this, &LookThrough::refresh);
  connect(&passes, &PassController::requestChanged, this, &LookThrough::refresh);
  connect(&queue, &MeasuringQueue::changed, this, &LookThrough::refresh);
  refresh();
}

void LookThrough::refresh() {
  std::vector<const LoggedPass*> passes;
  for (const LoggedPass& pass : passes_.passes()) {
    if (pass.finding) passes.push_back(&pass);
  }
  std::stable_sort(passes.begin(), passes.end(), [](const LoggedPass* a, const LoggedPass* b) {
    return a->finding->sure() < b->finding->sure();
  });
  const LoggedPass* looked = current();
  const std::optional<PassId> kept = looked != nullptr ? std::optional(looked->id) : std::nullopt;
  waiting_.clear();
  for (const LoggedPass* pass : passes) waiting_.push_back(pass->id);
  // What comes in meanwhile must not change the picture that is being looked at.
  const auto still = kept ? std::find(waiting_.begin(), waiting_.end(), *kept) : waiting_.end();
  if (still != waiting_.end()) at_ = static_cast<std::size_t>(still - waiting_.begin());
  if (at_ >= waiting_.size()) at_ = 0;
  std::erase_if(opened_, [this](const auto& one) {
    const LoggedPass* pass = passes_.passWith(one.first);
    return pass == nullptr || !pass->finding || pass->request != one.second.request;
  });
  openMissing();
  emit changed();
}

std::size_t LookThrough::doubtful() const {
  return static_cast<std::size_t>(std::count_if(waiting_.begin(), waiting_.end(), [this](PassId id) {
    const LoggedPass* pass = passes_.passWith(id);
    return pass != nullptr && pass->finding && pass->finding->sure() < kSureEnough;
  }));
}

const LoggedPass* LookThrough::current() const {
  const LoggedPass* pass = at_ < waiting_.size() ? passes_.passWith(waiting_[at_]) : nullptr;
  return pass != nullptr && pass->finding ? pass : nullptr;
}

const LookedPass* LookThrough::shown() const {
  const LoggedPass* pass = current();
  const auto found = pass != nullptr ? opened_.find(pass->id) : opened_.end();
  return found == opened_.end() ? nullptr : &found->second.pass;
}

void LookThrough::begin() {
  at_ = 0;
  openMissing();
  emit changed();
}

void LookThrough::step(int by) {
  if (waiting_.empty()) return;
  const auto count = static_cast<int>(waiting_.size());
  at_ = static_cast<std::size_t>((static_cast<int>(at_) + by + count) % count);
  openMissing();
  emit changed();
}

// --- stills ---------------------------------------------------------------------------------------------

void LookThrough::openMissing() {
  if (openingId_) return;  // its end calls for the next
  for (std::size_t ahead = 0; ahead < std::min<std::size_t>(2, waiting_.size()); ++ahead) {
    const PassId id = waiting_[(at_ + ahead) % waiting_.size()];
    const LoggedPass* pass = passes_.passWith(id);
    if (pass != nullptr && !opened_.contains(id)) return open(*pass);
  }
}

void LookThrough::open(const LoggedPass& pass) {
  auto measured = log_.measurement(pass.id);
  const MeasuringOrder order{pass.request, pass.clip, measured ? std::move(*measured) : nullptr};
  openingId_ = pass.id;
  opening_.start(
      [order, indexes = passes_.indexFolder()](const JobControl& job) -> Result<LookedPass> {
        const auto clip = openClip(order.request, {indexes, {job.stop, {}}});
        if (!clip) return tl::unexpected(clip.error());
        auto glance = glanceAt(order, *clip, job);
        if (!glance) return tl::unexpected(glance.error());
        return lookedAt(std::move(*glance));
      },
      [this, id = pass.id, request = pass.request](Result<LookedPass> looked) {
        openingId_.reset();
        if (!looked) looked = LookedPass{{}, {}, {}, QString::fromStdString(looked.error().message)};
        opened_.insert_or_assign(id, Opened{request, std::move(*looked)});
        openMissing();
        emit changed();
      });
}

// --- what the person says -------------------------------------------------------------------------------

void LookThrough::say(const QString& what, const std::function<void(LoggedPass&)>& change) {
  const LoggedPass* pass = current();
  if (pass == nullptr) return;
  LoggedPass after = *pass;
  change(after);
  passes_.change(what, {{*pass, after}});
}

void LookThrough::take() {
  const LoggedPass* pass = current();
  if (pass == nullptr || !pass->finding->found()) return;
  say(tr("Take the pass"), [](LoggedPass& p) { p.finding.reset(); });
}

void LookThrough::swapEnds() {
  const LoggedPass* pass = current();
  if (pass == nullptr || !pass->finding->found()) return;
  const PassId id = pass->id;
  say(tr("Swap nose and tail"), [](LoggedPass& p) {
    swapEndsOf(p.request.marks);
    for (std::size_t i = 0; i < p.finding->marks.size(); ++i) {
      p.finding->marks[i].seed = p.request.marks[i];
    }
  });
  queue_.add({id}, Depth::Follow);
}

void LookThrough::foul() {
  const LoggedPass* pass = current();
  if (pass == nullptr) return;
  const std::optional<PlannedPassId> planned = pass->planned;
  if (planned) {
    day_.edit(tr("Fouled, when looked through"), [&](DayPlan& plan) {
      for (PlannedPass& p : plan.sheet) {
        if (p.id != *planned) continue;
        p.state = PassState::Fouled;
        p.whyFouled = tr("seen when looked through").toStdString();
      }
    });
  }
  say(tr("Fouled, when looked through"), [&planned](LoggedPass& p) {
    p.finding.reset();
    if (planned) return;  // the sheet says so
    const std::size_t last = p.request.lastFrame.value_or(p.request.firstFrame);
    p.request.fouled.push_back({{p.request.firstFrame, last}, QObject::tr("fouled").toStdString()});
  });
}

void LookThrough::split() {
  const LoggedPass* pass = current();
  const LookedPass* looked = shown();
  if (pass == nullptr || looked == nullptr || !looked->result) return;
  splitting_.start(
      [request = pass->request, track = looked->result->track,
       indexes = passes_.indexFolder()](const JobControl& job) -> Result<std::vector<MeasuredPart>> {
        const auto clip = openClip(request, {indexes, {job.stop, {}}});
        if (!clip) return tl::unexpected(clip.error());
        return measureStretches(request, track, *clip, job);
      },
      [this, pass = *pass](const Result<std::vector<MeasuredPart>>& parts) {
        if (!parts) return emit told(QString::fromStdString(parts.error().message), true);
        if (parts->empty()) return;
        // They wait for a look of their own, in place of the whole.
        say(tr("Split by what the lure does"), [](LoggedPass& p) { p.removed = true; });
        std::vector<NewPass> passes = asPasses(pass, *parts);
        for (NewPass& part : passes) part.finding = pass.finding;
        passes_.add(tr("Split by what the lure does"), passes);
      });
}

}  // namespace fin::app
