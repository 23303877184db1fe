// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/mend_panel.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/phrases/words.h"
#include "app/ui/pieces.h"

namespace fin::app {
namespace {

constexpr int kDoubtfulHeight_px = 150;
enum Role { kFrame = Qt::UserRole, kLast, kKind, kIndex };
enum class Kind { Seed, Outline, Hidden, Fouled };

template <class T>
void eraseAt(std::vector<T>& list, int index) {
  list.erase(list.begin() + index);
}

/// Takes one thing that was said out of a request.
void takeOut(PassRequest& request, Kind kind, int index) {
  switch (kind) {
    case Kind::Seed:
      return eraseAt(request.marks, index);
    case Kind::Outline:
      return request.outline.reset();
    case Kind::Hidden:
      return eraseAt(request.hidden, index);
    case Kind::Fouled:
      return eraseAt(request.fouled, index);
  }
}

}  // namespace

MendPanel::MendPanel(PassController& controller, FurtherCrossings& ways, QWidget* parent)
    : QWidget(parent), controller_(controller), ways_(ways) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(8);
  auto* back = namedButton(tr("Done"), "mendDone");
  auto* row = new QHBoxLayout;
  row->addWidget(headingLabel(tr("Correct the track")), 1);
  row->addWidget(back);
  layout->addLayout(row);
  layout->addWidget(buildDoubtful());
  layout->addWidget(buildSaid(), 1);
  connect(back, &QPushButton::clicked, this, &MendPanel::done);
  connect(&controller, &PassController::passChanged, this, [this] {
    foulFrom_.reset();
    refresh();
  });
  connect(&controller, &PassController::requestChanged, this, &MendPanel::refresh);
  connect(&controller, &PassController::resultChanged, this, &MendPanel::refresh);
  connect(&controller, &PassController::frameChanged, this, &MendPanel::refreshHere);
  connect(&ways, &FurtherCrossings::changed, this, &MendPanel::refreshWays);
  connect(&ways, &FurtherCrossings::progressed, this, [this](double share) {
    if (ways_.looking()) look_->setText(tr("Stop looking (%1 %)").arg(100.0 * share, 0, 'f', 0));
  });
  refresh();
}

QWidget* MendPanel::buildDoubtful() {
  auto* box = card();
  auto* layout = new QVBoxLayout(box);
  doubtfulText_ = new QLabel;
  doubtfulText_->setObjectName("doubtfulText");
  doubtfulText_->setWordWrap(true);
  doubtful_ = new QListWidget;
  doubtful_->setObjectName("doubtful");
  doubtful_->setAccessibleName(tr("Doubtful stretches"));
  doubtful_->setMaximumHeight(kDoubtfulHeight_px);
  next_ = namedButton(tr("Next doubtful  E"), "nextDoubtful");
  layout->addWidget(doubtfulText_);
  layout->addWidget(doubtful_);
  layout->addWidget(next_);
  look_ = namedButton({}, "furtherWays");
  look_->setToolTip(tr("Where the lure crosses the picture again, each way becomes a pass of its own."));
  layout->addWidget(look_);
  split_ = namedButton(tr("It does several things: split the clip"), "splitClip");
  split_->setToolTip(tr("Twitches, pulls, falls, hops: each becomes a pass of its own."));
  layout->addWidget(split_);
  connect(split_, &QPushButton::clicked, &ways_, &FurtherCrossings::split);
  connect(look_, &QPushButton::clicked, this, [this] { ways_.looking() ? ways_.stop() : ways_.look(); });
  connect(next_, &QPushButton::clicked, &controller_, &PassController::showNextDoubtful);
  connect(doubtful_, &QListWidget::itemActivated, this,
          [this](QListWidgetItem* item) { controller_.showFrame(item->data(kFrame).toULongLong()); });
  connect(doubtful_, &QListWidget::itemClicked, doubtful_, &QListWidget::itemActivated);
  return box;
}

QWidget* MendPanel::buildSaid() {
  auto* box = card();
  auto* grid = new QGridLayout(box);
  auto* how = new QLabel(tr(
      "Drag a mark to where it belongs: it is tracked again to either side, until it joins its old path."));
  how->setWordWrap(true);
  how->setProperty("faint", true);
  auto* outline = namedButton(tr("Outline  4"), "drawOutline");
  outline->setToolTip(tr("Draw once around the lure; its silhouette is followed from there."));
  auto* hide = namedButton(tr("Hide a part  H"), "hidePart");
  hide->setToolTip(tr("Draw around something that must not be taken for the lure, in all frames."));
  foul_ = namedButton({}, "foulHere");
  said_ = new QListWidget;
  said_->setObjectName("said");
  said_->setAccessibleName(tr("What you said"));
  takeBack_ = namedButton(tr("Take back"), "takeBack");
  grid->addWidget(how, 0, 0, 1, 2);
  grid->addWidget(outline, 1, 0);
  grid->addWidget(hide, 1, 1);
  grid->addWidget(foul_, 2, 0, 1, 2);
  grid->addWidget(headingLabel(tr("What you said")), 3, 0, 1, 2);
  grid->addWidget(said_, 4, 0, 1, 2);
  grid->addWidget(takeBack_, 5, 0, 1, 2);
  connect(outline, &QPushButton::clicked, this, &MendPanel::outlineWanted);
  connect(hide, &QPushButton::clicked, this, &MendPanel::hideWanted);
  connect(foul_, &QPushButton::clicked, this, &MendPanel::foulHere);
  connect(takeBack_, &QPushButton::clicked, this, &MendPanel::takeBack);
  connect(said_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
    enableOr(*takeBack_, item != nullptr, tr("Choose something above first."));
    if (item != nullptr && said_->hasFocus()) controller_.showFrame(item->data(kFrame).toULongLong());
  });
  return box;
}

void MendPanel::refresh() {
  refreshDoubtful();
  refreshWays();
  refreshSaid();
}

void MendPanel::refreshDoubtful() {
  const std::vector<FrameStretch> stretches = controller_.doubtful();
  const auto& clock = controller_.clock();
  doubtful_->clear();
  for (const FrameStretch& s : stretches) {
    const double at_s = clock ? clock->timeOf(s.first).value() : 0.0;
    auto* item = new QListWidgetItem(
        tr("%1 s, %2").arg(at_s, 0, 'f', 2).arg(counted(s.last - s.first + 1, tr("frame"), tr("frames"))),
        doubtful_);
    item->setData(kFrame, QVariant::fromValue<qulonglong>(s.first));
    item->setData(kLast, QVariant::fromValue<qulonglong>(s.last));
  }
  doubtful_->setVisible(!stretches.empty());
  enableOr(*next_, !stretches.empty(), tr("Nothing is doubtful."));
  if (controller_.result() == nullptr) {
    doubtfulText_->setText(tr("Nothing is followed yet."));
  } else if (stretches.empty()) {
    doubtfulText_->setText(tr("Nothing is doubtful: the marks were held well wherever they were seen."));
  } else {
    doubtfulText_->setText(
        tr("Look here: %1 in which a mark was held badly or not at all, or may be something else.")
            .arg(counted(stretches.size(), tr("stretch"), tr("stretches"))));
  }
  refreshHere();
}

/// What goes with the frame that is shown.
void MendPanel::refreshHere() {
  for (int i = 0; i < doubtful_->count(); ++i) {
    QListWidgetItem* item = doubtful_->item(i);
    const FrameStretch s{item->data(kFrame).toULongLong(), item->data(kLast).toULongLong()};
    if (s.holds(controller_.frame())) doubtful_->setCurrentItem(item);
  }
  foul_->setText(foulFrom_ ? tr("… to here is fouled  X") : tr("Fouled from here …  X"));
}

void MendPanel::refreshWays() {
  for (QPushButton* b : {look_, split_})
    enableOr(*b, controller_.result() != nullptr, tr("Nothing is measured yet."));
  look_->setText(ways_.looking() ? tr("Stop looking") : tr("It swims past again: find more passes …"));
}

void MendPanel::refreshSaid() {
  said_->clear();
  enableOr(*takeBack_, false, tr("Choose something above first."));
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr) return;
  const auto add = [this](const QString& text, std::size_t frame, Kind kind, std::size_t index) {
    auto* item = new QListWidgetItem(text, said_);
    item->setData(kFrame, QVariant::fromValue<qulonglong>(frame));
    item->setData(kKind, static_cast<int>(kind));
    item->setData(kIndex, static_cast<int>(index));
  };
  const PassRequest& request = pass->request;
  for (std::size_t i = 0; i < request.marks.size(); ++i) {
    const MarkSeed& s = request.marks[i];
    add(tr("%1 in frame %2").arg(spokenName(s.name)).arg(s.frame), s.frame, Kind::Seed, i);
  }
  if (request.outline)
    add(tr("Outline in frame %1").arg(request.outline->frame), request.outline->frame, Kind::Outline, 0);
  for (std::size_t i = 0; i < request.hidden.size(); ++i)
    add(tr("A hidden part"), request.hidden[i].firstFrame, Kind::Hidden, i);
  for (std::size_t i = 0; i < request.fouled.size(); ++i) {
    const FrameStretch& f = request.fouled[i].frames;
    add(tr("Fouled, frames %1–%2").arg(f.first).arg(f.last), f.first, Kind::Fouled, i);
  }
}

void MendPanel::takeBack() {
  const QListWidgetItem* item = said_->currentItem();
  if (item == nullptr) return;
  const auto kind = static_cast<Kind>(item->data(kKind).toInt());
  const int index = item->data(kIndex).toInt();
  controller_.edit(tr("Take back: %1").arg(item->text()),
                   [kind, index](PassRequest& request) { takeOut(request, kind, index); });
}

void MendPanel::foulHere() {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr || !controller_.clip()) return;
  const std::size_t here = controller_.frame();
  const auto& fouled = pass->request.fouled;
  const auto inside = std::find_if(fouled.begin(), fouled.end(),
                                   [here](const FouledStretch& f) { return f.frames.holds(here); });
  if (!foulFrom_ && inside != fouled.end()) {
    const auto index = static_cast<int>(inside - fouled.begin());
    return controller_.edit(tr("Count the stretch again"),
                            [index](PassRequest& request) { eraseAt(request.fouled, index); });
  }
  if (!foulFrom_) {
    foulFrom_ = here;
    return refreshHere();
  }
  const auto [first, last] = std::minmax(*foulFrom_, here);
  foulFrom_.reset();
  controller_.edit(tr("Foul a stretch"), [first = first, last = last](PassRequest& request) {
    request.fouled.push_back({{first, last}, {}});
  });
}

}  // namespace fin::app
