// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/measuring_queue.h"

#include <algorithm>

namespace fin::app {

MeasuringQueue::MeasuringQueue(Log& log, const PassController& passes, QObject* parent)
    : QObject(parent), log_(log), passes_(passes) {}

void MeasuringQueue::add(const std::vector<PassId>& passes, bool follow) {
  for (const PassId id : passes) {
    const auto same =
        std::find_if(waiting_.begin(), waiting_.end(), [id](const Waiting& w) { return w.id == id; });
    if (same == waiting_.end()) {
      waiting_.push_back({id, follow});
    } else {
      same->follow = same->follow || follow;
    }
  }
  next();
}

void MeasuringQueue::stop() {
  waiting_.clear();
  measuring_.stop();
  emit changed();
}

void MeasuringQueue::next() {
  while (!measuring_.running() && !waiting_.empty()) {
    const Waiting waiting = waiting_.front();
    waiting_.pop_front();
    begin(waiting);
  }
  emit changed();
}

/// What is wrong with a clip is told with its pass, when it is opened.
void MeasuringQueue::begin(const Waiting& waiting) {
  const auto pass = log_.pass(waiting.id);
  const auto earlier = log_.measurement(waiting.id);
  if (!pass || pass->removed || !earlier) return;
  const MeasuringOrder order{pass->request, pass->clip, *earlier};
  measuring_.start(
      [order, follow = waiting.follow,
       indexes = passes_.indexFolder()](const JobControl& job) -> Result<Measured> {
        const auto clip = openClip(order.request, {indexes, {job.stop, {}}});
        if (!clip) return tl::unexpected(clip.error());
        const NextStep step = nextStep(order, (*clip)->info().fingerprint);
        if (step == NextStep::Follow && !follow)
          return failure(ErrorCode::Unsupported, "it has to be tracked again");
        return measure(order, *clip, {}, job);
      },
      [this, pass = *pass,
       before = *earlier ? (*earlier)->readings : ReadingSet{}](Result<Measured> measured) {
        keep(pass, before, std::move(measured));
        next();
      });
}

void MeasuringQueue::keep(const LoggedPass& pass, const ReadingSet& before, Result<Measured> measured) {
  if (measured && log_.readOnlyReason().empty()) {
    if (auto ok = log_.saveMeasurement(pass.id, *measured->measurement); !ok)
      measured = tl::unexpected(ok.error());
  }
  if (measured) {
    emit this->measured(pass.id, before, measured->measurement->readings);
  } else {
    emit told(QString("%1: %2").arg(QString::fromStdString(pass.title),
                                    QString::fromStdString(measured.error().message)),
              true);
  }
}

}  // namespace fin::app
