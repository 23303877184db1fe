// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/lead.h"

#include <QEvent>
#include <QHBoxLayout>
#include <QPainter>
#include <QVBoxLayout>
#include <algorithm>

#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr int kWide_px = 320;
constexpr int kBeside_px = 16;
constexpr int kRing_px = 3;
constexpr int kSteps = 8;

class Ring : public QWidget {
 public:
  explicit Ring(QWidget* parent) : QWidget(parent) { setAttribute(Qt::WA_TransparentForMouseEvents); }

 protected:
  void paintEvent(QPaintEvent* /*event*/) override {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme().accent, kRing_px));
    painter.drawRoundedRect(QRectF(rect()).adjusted(2, 2, -2, -2), 8, 8);
  }
};

QString wordsOf(Lead::Step step) {
  switch (step) {
    case Lead::Step::Open:
      return QObject::tr("Open a clip in which one lure moves past.");
    case Lead::Step::Shows:
      return QObject::tr("What does the lure do here, and where was the camera? Choose both.");
    case Lead::Step::Length:
      return QObject::tr(
          "Find something in the picture whose length you know, as far away as the lure: a ruler, a tile. "
          "Type how long it is.");
    case Lead::Step::Ends:
      return QObject::tr("Press on one end of it, then on the other.");
    case Lead::Step::Nose:
      return QObject::tr("Press on the lure's nose. If you don't see it yet, go on with F or +10 first.");
    case Lead::Step::Tail:
      return QObject::tr("Now press where its body ends, at the tail.");
    case Lead::Step::Follow:
      return QObject::tr("The lure is being followed through the clip. That takes a moment.");
    case Lead::Step::Numbers:
      return QObject::tr("These are your numbers. Press how? on one to see where it comes from.");
  }
  return {};
}

}  // namespace

Lead::Lead(PassController& controller, Things things, QWidget& over)
    : QFrame(&over),
      controller_(controller),
      things_(things),
      count_(faintLabel({})),
      words_(new QLabel),
      next_(namedButton({}, "leadNext")),
      ring_(new Ring(&over)) {
  setObjectName("lead");
  setProperty("card", true);
  setFixedWidth(kWide_px);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(16, 12, 16, 12);
  layout->addWidget(count_);
  words_->setObjectName("leadWords");
  words_->setWordWrap(true);
  layout->addWidget(words_);
  auto* row = new QHBoxLayout;
  auto* leave = namedButton(tr("Leave"), "leaveLead");
  leave->setToolTip(tr("Show me how calls it back."));
  row->addWidget(leave);
  row->addStretch();
  next_->setProperty("primary", true);
  row->addWidget(next_);
  layout->addLayout(row);
  connect(leave, &QPushButton::clicked, this, &Lead::leave);
  connect(next_, &QPushButton::clicked, this, &Lead::goOn);
  for (const auto changed : {&PassController::passChanged, &PassController::requestChanged,
                             &PassController::resultChanged, &PassController::passesChanged})
    connect(&controller, changed, this, &Lead::refresh);
  over.installEventFilter(this);
  for (QWidget* thing :
       {things.open, things.shows, things.length, things.footage, things.follow, things.numbers})
    thing->installEventFilter(this);
  hide();
  ring_->hide();
}

void Lead::begin() {
  leads_ = true;
  const LoggedPass* pass = controller_.current();
  // What was said already is not asked for again.
  const bool begun = pass != nullptr && (pass->request.scale || !pass->request.marks.empty());
  shown_ = begun;
  length_ = begun;
  show(due());
}

void Lead::leave() {
  leads_ = false;
  hide();
  ring_->hide();
}

Lead::Step Lead::due() const {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr || !controller_.clip()) return Step::Open;
  const PassRequest& request = pass->request;
  const auto placed = [&](MarkName name) {
    return std::any_of(request.marks.begin(), request.marks.end(),
                       [name](const MarkSeed& seed) { return seed.name == name; });
  };
  if (!shown_) return Step::Shows;
  if (!request.scale && !request.square) return length_ ? Step::Ends : Step::Length;
  if (!placed(MarkName::Nose)) return Step::Nose;
  if (!placed(MarkName::Tail)) return Step::Tail;
  return controller_.result() != nullptr ? Step::Numbers : Step::Follow;
}

void Lead::refresh() {
  if (!leads_) return;
  if (const Step now = due(); now != step_) show(now);
  layOut();
}

void Lead::show(Step step) {
  step_ = step;
  count_->setText(tr("Step %1 of %2").arg(static_cast<int>(step) + 1).arg(kSteps));
  words_->setText(wordsOf(step));
  next_->setText(step == Step::Numbers ? tr("Done") : tr("That's right"));
  next_->setVisible(step == Step::Shows || step == Step::Length || step == Step::Numbers);
  QFrame::show();
  ring_->show();
  layOut();
  // What is to be pressed is in hand at once, as soon as what was in it is put down.
  QMetaObject::invokeMethod(this, &Lead::handOver, Qt::QueuedConnection);
}

void Lead::handOver() {
  if (!leads_) return;
  if (step_ == Step::Ends) emit rulerWanted();
  if (step_ == Step::Nose) emit markWanted(MarkName::Nose);
  if (step_ == Step::Tail) emit markWanted(MarkName::Tail);
}

void Lead::goOn() {
  if (step_ == Step::Numbers) return leave();
  shown_ = true;
  length_ |= step_ == Step::Length;
  refresh();
}

QWidget* Lead::thing() const {
  switch (step_) {
    case Step::Open:
      return things_.open;
    case Step::Shows:
      return things_.shows;
    case Step::Length:
      return things_.length;
    case Step::Ends:
    case Step::Nose:
    case Step::Tail:
      return things_.footage;
    case Step::Follow:
      return things_.follow;
    case Step::Numbers:
      return things_.numbers;
  }
  return things_.open;
}

/// In the footage's corner, under what stands at the top, or to the left of what stands at the right.
void Lead::layOut() {
  if (!leads_) return;
  const QWidget* over = parentWidget();
  const QRect at(thing()->mapTo(over, QPoint(0, 0)), thing()->size());
  adjustSize();
  QPoint to = at.topLeft() - QPoint(width() + kBeside_px, 0);
  if (thing() == things_.footage) to = at.topLeft() + QPoint(kBeside_px, kBeside_px);
  if (thing() == things_.open) to = at.bottomLeft() + QPoint(0, kBeside_px);
  move(std::clamp(to.x(), 0, std::max(0, over->width() - width())),
       std::clamp(to.y(), 0, std::max(0, over->height() - height())));
  const int more = thing() == things_.footage ? 0 : kRing_px + 2;
  ring_->setGeometry(at.adjusted(-more, -more, more, more));
  ring_->raise();
  raise();
}

bool Lead::eventFilter(QObject* /*watched*/, QEvent* event) {
  const bool moved = event->type() == QEvent::Resize || event->type() == QEvent::Move ||
                     event->type() == QEvent::Show || event->type() == QEvent::LayoutRequest;
  if (moved && leads_) QMetaObject::invokeMethod(this, &Lead::layOut, Qt::QueuedConnection);
  return false;
}

}  // namespace fin::app
