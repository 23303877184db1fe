// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/camera_sync.h"

#include "core/footage/clip_sound.h"
#include "core/signals/sound_alignment.h"

namespace fin::app {
namespace {

constexpr Seconds kStep{0.002};  ///< of true time

/// How loud a clip is in equal steps of true time.
Result<SoundLevel> heard(const PassRequest& request, const std::filesystem::path& indexes,
                         const JobControl& job) {
  const auto clip = openClip(request, {indexes, job});
  if (!clip) return tl::unexpected(clip.error());
  const auto clock = ClipClock::create((*clip)->index(), request.captureRate);
  if (!clock) return tl::unexpected(clock.error());
  return soundLevel(**clip, kStep * (1.0 / clock->factor()), job);
}

}  // namespace

CameraSync::CameraSync(PassController& controller, QObject* parent)
    : QObject(parent), controller_(controller) {
  connect(&controller, &PassController::passChanged, this, &CameraSync::changed);
  connect(&controller, &PassController::passesChanged, this, &CameraSync::changed);
  connect(&controller, &PassController::frameChanged, this, &CameraSync::changed);
}

std::vector<LoggedPass> CameraSync::partners() const {
  std::vector<LoggedPass> out;
  const LoggedPass* here = controller_.current();
  if (here == nullptr || !here->planned) return out;
  for (const LoggedPass& pass : controller_.passes()) {
    if (pass.id != here->id && pass.planned == here->planned) out.push_back(pass);
  }
  return out;
}

void CameraSync::markHere() {
  const LoggedPass* here = controller_.current();
  if (here == nullptr || !controller_.clock()) return;
  const Seconds now = controller_.clock()->timeOf(controller_.frame());
  if (here->sharedInstant == now) return;
  mark(tr("Mark this moment for all cameras"), {{here->id, now}});
}

void CameraSync::alignBySound() {
  const LoggedPass* here = controller_.current();
  if (here == nullptr) return;
  const Seconds own = here->sharedInstant.value_or(Seconds(0.0));
  aligning_.start(
      [request = here->request, own, others = partners(),
       indexes = controller_.indexFolder()](const JobControl& whole) -> Result<std::vector<Heard>> {
        const JobControl job{whole.stop, {}};
        std::vector<Heard> out;
        const auto first = heard(request, indexes, job);
        for (const LoggedPass& other : others) {
          Heard h{other.id, QString::fromStdString(other.title), tl::unexpected(Error{})};
          const auto second = first ? heard(other.request, indexes, job) : first;
          if (!second) {
            h.instant = tl::unexpected(second.error());
          } else if (const auto found = alignSound(first->rms, second->rms, kStep); !found) {
            h.instant = tl::unexpected(found.error());
          } else {
            h.instant = own + found->later;
          }
          out.push_back(std::move(h));
        }
        return out;
      },
      [this, own](Result<std::vector<Heard>> heard) {
        if (heard) {
          take(*heard, own);
        } else {
          emit told(QString::fromStdString(heard.error().message), true);
        }
        emit changed();
      });
  emit changed();
}

void CameraSync::take(const std::vector<Heard>& heard, Seconds own) {
  std::vector<std::pair<PassId, Seconds>> instants;
  for (const Heard& h : heard) {
    if (h.instant) {
      instants.emplace_back(h.id, *h.instant);
    } else {
      emit told(QString("%1: %2").arg(h.title, QString::fromStdString(h.instant.error().message)), true);
    }
  }
  if (instants.empty() || controller_.current() == nullptr) return;
  instants.emplace_back(controller_.current()->id, own);
  mark(tr("Line clips up by sound"), instants);
}

void CameraSync::mark(const QString& what, const std::vector<std::pair<PassId, Seconds>>& instants) {
  std::vector<PassChange> changes;
  for (const auto& [id, instant] : instants) {
    const LoggedPass* pass = controller_.passWith(id);
    if (pass == nullptr) continue;
    changes.push_back({*pass, *pass});
    changes.back().after.sharedInstant = instant;
  }
  if (!changes.empty()) controller_.change(what, changes);
}

std::optional<Seconds> CameraSync::sameInstantIn(const LoggedPass& partner) const {
  const LoggedPass* here = controller_.current();
  if (here == nullptr || !controller_.clock() || !here->sharedInstant || !partner.sharedInstant)
    return std::nullopt;
  return controller_.clock()->timeOf(controller_.frame()) - *here->sharedInstant + *partner.sharedInstant;
}

void CameraSync::show(PassId partner) {
  for (const LoggedPass& pass : partners()) {
    const auto instant = pass.id == partner ? sameInstantIn(pass) : std::nullopt;
    if (instant) return controller_.showInstant(partner, *instant);
  }
}

}  // namespace fin::app
