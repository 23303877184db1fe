// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/studied_passes.h"

#include <algorithm>

#include "app/controllers/pass_controller.h"

namespace fin::app {

double StudiedPass::end_s() const {
  if (!clock || clip->index().frameCount() == 0) return 0.0;
  return clock->timeOf(clip->index().frameCount() - 1).value();
}

std::optional<double> instantIn(const StudiedPass& pass, Instant instant) {
  if (!pass.result) return std::nullopt;
  const PassResult& result = *pass.result;
  const auto twitch = [&](std::size_t n) {
    const auto& twitches = result.evidence.twitches;
    return n < twitches.size() ? std::optional(twitches[n].span.from_s) : std::nullopt;
  };
  switch (instant) {
    case Instant::RunBegins:
      return result.traces.axis.empty() ? std::nullopt : std::optional(result.traces.axis.t_s.front());
    case Instant::TouchDown:
      return result.evidence.steady ? std::optional(result.evidence.steady->to_s) : std::nullopt;
    case Instant::FirstTwitch:
      return twitch(0);
    case Instant::SecondTwitch:
      return twitch(1);
    case Instant::Stop:
      return result.evidence.stop_s;
  }
  return std::nullopt;
}

/// What is needed of the log to open a pass elsewhere.
struct StudiedPasses::Order {
  PassId id;
  QString rig;
  QString title;
  MeasuringOrder measuring;
};

StudiedPasses::StudiedPasses(const LineUp& lineUp, QObject* parent) : QObject(parent), lineUp_(lineUp) {
  connect(&lineUp, &LineUp::changed, this, &StudiedPasses::dropChanged);
}

void StudiedPasses::dropChanged() {
  const std::size_t dropped = std::erase_if(passes_, [this](const auto& kept) {
    const auto now = lineUp_.passController().log().pass(kept.first);
    return kept.second.outdated || !now || now->request != kept.second.request;
  });
  if (dropped == 0) return;
  openMissing();
  emit changed();
}

void StudiedPasses::want(const std::vector<PassId>& passes) {
  wanted_ = passes;
  std::erase_if(passes_, [&](const auto& kept) {
    return std::find(passes.begin(), passes.end(), kept.first) == passes.end();
  });
  openMissing();
  emit changed();
}

std::vector<const StudiedPass*> StudiedPasses::ready() const {
  std::vector<const StudiedPass*> out;
  for (const PassId id : wanted_) {
    if (const auto found = passes_.find(id); found != passes_.end()) out.push_back(&found->second);
  }
  return out;
}

/// A pass that has to be followed first is being followed elsewhere, or waits for it: it is shown without its
/// traces.
StudiedPass StudiedPasses::open(const Order& order, const std::filesystem::path& indexes,
                                const JobControl& job) {
  const MeasuringOrder& measuring = order.measuring;
  StudiedPass out{.id = order.id, .rig = order.rig, .title = order.title, .request = measuring.request};
  const auto trouble = [&out](const Error& error) {
    out.trouble = QString::fromStdString(error.message);
    return out;
  };
  auto clip = openClip(out.request, {indexes, {job.stop, {}}});
  if (!clip) return trouble(clip.error());
  out.clip = std::move(*clip);
  auto clock = ClipClock::create(out.clip->index(), out.request.captureRate);
  if (!clock) return trouble(clock.error());
  out.clock = *clock;
  const NextStep step = nextStep(measuring, out.clip->info().fingerprint);
  if (step == NextStep::Follow || step == NextStep::Mark) {
    out.outdated = measuring.earlier != nullptr;
    out.trouble = QObject::tr("not followed yet");
    return out;
  }
  auto measured = measure(measuring, out.clip, {}, {job.stop, {}});
  if (!measured) return trouble(measured.error());
  out.result = std::move(measured->result);
  return out;
}

void StudiedPasses::openMissing() {
  std::vector<Order> orders;
  const Log& log = lineUp_.passController().log();
  for (const PassId id : wanted_) {
    if (passes_.contains(id)) continue;
    const auto& read = lineUp_.passes();
    const auto pass =
        std::find_if(read.begin(), read.end(), [id](const ComparedPass& p) { return p.id == id; });
    const auto kept = log.pass(id);
    if (pass == read.end() || !kept) continue;
    auto measured = log.measurement(id);
    orders.push_back({id,
                      QString::fromStdString(pass->rig),
                      QString::fromStdString(pass->title),
                      {kept->request, kept->clip, measured ? std::move(*measured) : nullptr}});
  }
  if (orders.empty()) return opening_.stop();
  opening_.start(
      [orders, indexes = lineUp_.passController().indexFolder()](
          const JobControl& job) -> Result<std::vector<StudiedPass>> {
        std::vector<StudiedPass> out;
        for (const Order& order : orders) {
          if (!job.cancelled()) out.push_back(open(order, indexes, job));
        }
        return out;
      },
      [this](Result<std::vector<StudiedPass>> opened) {
        if (opened) {
          for (StudiedPass& pass : *opened) passes_.insert_or_assign(pass.id, std::move(pass));
        }
        emit changed();
      });
}

}  // namespace fin::app
