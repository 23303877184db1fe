// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/lure_finder.h"

#include "core/measuring/finding.h"

namespace fin::app {

LureFinder::LureFinder(PassController& controller, QObject* parent)
    : QObject(parent), controller_(controller) {
  connect(&controller, &PassController::passChanged, this, [this] {
    looking_.stop();
    emit changed();
  });
}

void LureFinder::look() {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr || !controller_.clip()) return;
  if (looking()) {
    looking_.stop();
  } else {
    looking_.start([clip = controller_.clip(), request = pass->request](
                       const JobControl& job) { return findMarks(request, clip, {}, job); },
                   [this](Result<FoundPass> found) { place(std::move(found)); });
  }
  emit changed();
}

void LureFinder::place(Result<FoundPass> found) {
  emit changed();
  if (!found) return emit told(QString::fromStdString(found.error().message), true);
  controller_.edit(tr("Find the lure"), [&](PassRequest& request) {
    request.marks = found->request.marks;
    request.outline = found->request.outline;
  });
  controller_.showFrame(found->request.marks.front().frame);
  const bool sure = Finding{found->found, {}}.sure() >= kSureEnough;
  emit told(sure ? tr("Found. Look whether nose and tail sit right; drag them if not.")
                 : tr("Found, but not for sure: look whether nose and tail sit right, and are not swapped."),
            false);
}

}  // namespace fin::app
