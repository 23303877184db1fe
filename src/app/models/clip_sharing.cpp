// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/models/clip_sharing.h"

#include "app/commands/pass_commands.h"
#include "core/footage/clip_sound.h"
#include "core/signals/sound_alignment.h"

namespace fin::app {
namespace {

constexpr Seconds kStep{0.002};  ///< of true time

/// How loud a clip is in equal steps of true time.
Result<SoundLevel> heard(const PassRequest& request, const std::stop_token& stop) {
  const auto clip = openClip(request, {.job = {stop, {}}});
  if (!clip) return tl::unexpected(clip.error());
  const auto clock = ClipClock::create((*clip)->index(), request.captureRate);
  if (!clock) return tl::unexpected(clock.error());
  return soundLevel(**clip, kStep * (1.0 / clock->factor()), {stop, {}});
}

}  // namespace

ClipSharing::ClipSharing(PassDesk& desk, QUndoStack& undo, QObject* parent)
    : QObject(parent), desk_(desk), undo_(undo) {
  connect(&desk, &PassDesk::passChanged, this, &ClipSharing::changed);
  connect(&desk, &PassDesk::passesChanged, this, &ClipSharing::changed);
  connect(&desk, &PassDesk::frameChanged, this, &ClipSharing::changed);
}

std::vector<LoggedPass> ClipSharing::partners() const {
  std::vector<LoggedPass> out;
  const LoggedPass* here = desk_.current();
  if (here == nullptr || !here->planned) return out;
  for (const LoggedPass& pass : desk_.passes()) {
    if (pass.id != here->id && pass.planned == here->planned) out.push_back(pass);
  }
  return out;
}

void ClipSharing::markHere() {
  const LoggedPass* here = desk_.current();
  if (here == nullptr || !desk_.clock()) return;
  const Seconds now = desk_.clock()->timeOf(desk_.frame());
  if (here->sharedInstant == now) return;
  undo_.push(new ShareInstant(desk_, tr("Mark the shared instant"), {{here->id, here->sharedInstant}},
                              {{here->id, now}}));
}

void ClipSharing::alignBySound() {
  const LoggedPass* here = desk_.current();
  if (here == nullptr) return;
  const Seconds own = here->sharedInstant.value_or(Seconds(0.0));
  aligning_.start(
      [request = here->request, own, others = partners()](const std::stop_token& stop) {
        std::vector<Heard> out;
        const auto first = heard(request, stop);
        for (const LoggedPass& other : others) {
          Heard h{other.id, QString::fromStdString(other.title), tl::unexpected(Error{})};
          const auto second = first ? heard(other.request, stop) : first;
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
      [this, own](const std::vector<Heard>& heard) { take(heard, own); });
  emit changed();
}

void ClipSharing::take(const std::vector<Heard>& heard, Seconds own) {
  ShareInstant::Instants before;
  ShareInstant::Instants after;
  const auto put = [&](RowId id, Seconds instant) {
    for (const LoggedPass& pass : desk_.passes()) {
      if (pass.id == id) before.emplace_back(id, pass.sharedInstant);
    }
    after.emplace_back(id, instant);
  };
  for (const Heard& h : heard) {
    if (h.instant) {
      put(h.id, *h.instant);
    } else {
      emit told(QString("%1: %2").arg(h.title, QString::fromStdString(h.instant.error().message)), true);
    }
  }
  if (!after.empty() && desk_.current() != nullptr) {
    put(desk_.current()->id, own);
    undo_.push(new ShareInstant(desk_, tr("Line clips up by sound"), std::move(before), std::move(after)));
  }
  emit changed();
}

std::optional<Seconds> ClipSharing::sameInstantIn(const LoggedPass& partner) const {
  const LoggedPass* here = desk_.current();
  if (here == nullptr || !desk_.clock() || !here->sharedInstant || !partner.sharedInstant)
    return std::nullopt;
  return desk_.clock()->timeOf(desk_.frame()) - *here->sharedInstant + *partner.sharedInstant;
}

void ClipSharing::show(RowId partner) {
  for (const LoggedPass& pass : partners()) {
    const auto instant = pass.id == partner ? sameInstantIn(pass) : std::nullopt;
    if (instant) return desk_.showInstant(partner, *instant);
  }
}

}  // namespace fin::app
