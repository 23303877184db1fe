// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/making.h"

namespace fin::app {

void Making::start(Job<QString>::Work work) {
  job_.start(
      std::move(work),
      [this](const Result<QString>& made) {
        emit done(made ? *made : QString::fromStdString(made.error().message), !made);
      },
      [this](double share, double left_s) { emit progressed(share, left_s); });
  emit begun();
}

void Making::stop() {
  if (!busy()) return;
  job_.stop();
  emit done(tr("Stopped. Nothing was left behind."), false);
}

}  // namespace fin::app
