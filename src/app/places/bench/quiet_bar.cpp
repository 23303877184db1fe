// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/quiet_bar.h"

#include <QHBoxLayout>
#include <algorithm>

#include "app/ui/pieces.h"

namespace fin::app {

QuietBar::QuietBar(PassController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      here_(namedButton({}, "quietHere")),
      none_(namedButton(tr("No quiet"), "noQuiet")),
      slowness_(new QComboBox),
      listen_(namedButton(tr("Listen"), "listen")),
      words_(faintLabel({})) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(5);
  row->addWidget(here_);
  row->addWidget(none_);
  for (const auto& [text, times] :
       {std::pair(tr("as it was"), 1.0), {tr("half as fast"), 2.0}, {tr("a quarter as fast"), 4.0}})
    slowness_->addItem(text, times);
  slowness_->setObjectName("soundSlowness");
  slowness_->setAccessibleName(tr("How slowly the sound is heard; slower is lower as well"));
  row->addWidget(listen_);
  row->addWidget(slowness_);
  words_->setObjectName("quietWords");
  row->addWidget(words_, 1);
  connect(here_, &QPushButton::clicked, this, &QuietBar::quietHere);
  connect(none_, &QPushButton::clicked, this, [this] {
    controller_.edit(tr("No quiet stretch"), [](PassRequest& request) { request.quiet.reset(); });
  });
  connect(listen_, &QPushButton::clicked, this, &QuietBar::listen);
  connect(&voice_, &ClipVoice::told, words_, &QLabel::setText);
  connect(&voice_, &ClipVoice::speakingChanged, this,
          [this](bool on) { listen_->setText(on ? tr("Hush") : tr("Listen")); });
  connect(&controller, &PassController::passChanged, this, [this] {
    from_s_.reset();
    voice_.stop();
    refresh();
  });
  connect(&controller, &PassController::requestChanged, this, &QuietBar::refresh);
  refresh();
}

void QuietBar::refresh() {
  const LoggedPass* pass = controller_.current();
  const bool applies = pass != nullptr && controller_.clip() && pass->request.protocol == Protocol::Sound &&
                       controller_.clip()->info().hasSound;
  setVisible(applies);
  if (!applies) return;
  const auto& quiet = pass->request.quiet;
  here_->setText(from_s_ ? tr("Quiet to here  Q") : tr("Quiet from here  Q"));
  enableOr(*none_, quiet.has_value(), tr("No quiet stretch is marked."));
  words_->setText(
      from_s_ ? tr("Go to where the quiet ends.")
      : quiet
          ? tr("Quiet from %1 to %2 s.").arg(quiet->from.value(), 0, 'f', 2).arg(quiet->to.value(), 0, 'f', 2)
          : tr("Mark where only the water is heard: the level is given above that."));
  emit fromChanged();
}

void QuietBar::quietHere() {
  if (isHidden()) return;
  const double here = controller_.clip()->index().timeOf(controller_.frame()).value();
  if (!from_s_) {
    from_s_ = here;
    return refresh();
  }
  const auto [from, to] = std::minmax(*from_s_, here);
  from_s_.reset();
  if (to > from) {
    controller_.edit(tr("Quiet stretch"), [from = from, to = to](PassRequest& request) {
      request.quiet = QuietStretch{Seconds(from), Seconds(to)};
    });
  }
  refresh();
}

/// From the frame that is shown to the end of the window; from its beginning where that is past.
void QuietBar::listen() {
  if (voice_.speaking()) return voice_.stop();
  const PassRequest& request = controller_.current()->request;
  const std::size_t last = lastFrameOf(request, *controller_.clip());
  const std::size_t first =
      controller_.frame() < last ? std::max(controller_.frame(), request.firstFrame) : request.firstFrame;
  voice_.speak(controller_.clip(), {first, last}, slowness_->currentData().toDouble());
}

}  // namespace fin::app
