// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/steps_panel.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QStyle>
#include <algorithm>

#include "app/phrases/words.h"
#include "app/ui/pieces.h"

namespace fin::app {
namespace {

constexpr double kHighestRate = 20000.0;
constexpr double kLongest_mm = 20000.0;
constexpr double kUsualLength_mm = 100.0;
constexpr int kMarksInARow = 3;

QLabel* heading(const QString& text) {
  auto* label = new QLabel(text);
  label->setProperty("heading", true);
  return label;
}

bool placed(const PassRequest& request, MarkName mark) {
  return std::any_of(request.marks.begin(), request.marks.end(),
                     [mark](const MarkSeed& s) { return s.name == mark; });
}

/// Whether a mark tells anything in such a pass.
bool fits(MarkName mark, const PassRequest& request) {
  const bool pull = request.protocol == Protocol::Retrieve;
  switch (mark) {
    case MarkName::Nose:
    case MarkName::Tail:
      return true;
    case MarkName::Tip:
      return request.view != View::HeadOn && request.protocol != Protocol::Still;
    case MarkName::Back:
    case MarkName::Belly:
      return request.view == View::HeadOn;
    case MarkName::Flank:
      return pull && (request.view == View::Side || request.view == View::Chase);
    case MarkName::Mid:
      return (pull && request.view == View::Chase) || request.protocol == Protocol::Hop;
    case MarkName::Blade:
      return pull && request.view == View::Top;
    case MarkName::Hook:
      return request.protocol == Protocol::Still;
  }
  return false;
}

void makePrimary(QPushButton* button, bool primary) {
  if (button->property("primary").toBool() == primary) return;
  button->setProperty("primary", primary);
  button->style()->unpolish(button);
  button->style()->polish(button);
}

QString leftText(double left_s) {
  return left_s < 1.5 ? QObject::tr("a moment left") : QObject::tr("about %1 s left").arg(left_s, 0, 'f', 0);
}

}  // namespace

StepsPanel::StepsPanel(PassController& controller, QWidget* parent)
    : QWidget(parent), controller_(controller), finder_(new LureFinder(controller, this)) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(6);
  buildClipRow(*grid);
  buildLengthRow(*grid);
  buildMarksRow(*grid);
  buildFollowRow(*grid);
  connect(&controller, &PassController::passChanged, this, &StepsPanel::refresh);
  connect(&controller, &PassController::requestChanged, this, &StepsPanel::refresh);
  connect(&controller, &PassController::resultChanged, this, &StepsPanel::refresh);
  connect(&controller, &PassController::progressed, this, &StepsPanel::tellProgress);
  refresh();
}

void StepsPanel::buildClipRow(QGridLayout& grid) {
  protocol_ = new QComboBox;
  for (Protocol p : kAllProtocols) protocol_->addItem(spokenName(p), static_cast<int>(p));
  protocol_->setObjectName("protocol");
  protocol_->setAccessibleName(tr("What the lure does"));
  view_ = new QComboBox;
  for (View v : {View::Top, View::Side, View::HeadOn, View::Chase})
    view_->addItem(spokenName(v), static_cast<int>(v));
  view_->setObjectName("view");
  view_->setAccessibleName(tr("Where the camera is"));
  rate_ = new QDoubleSpinBox;
  rate_->setObjectName("rate");
  rate_->setRange(0.0, kHighestRate);
  rate_->setDecimals(3);
  rate_->setSpecialValueText(tr("as the clip says"));
  rate_->setSuffix(tr(" frames/s"));
  rate_->setButtonSymbols(QAbstractSpinBox::NoButtons);
  rate_->setKeyboardTracking(false);
  rate_->setAccessibleName(tr("Frames per second while filming"));
  rate_->setToolTip(
      tr("Frames per second that the camera took. Slow motion plays slower than it was filmed."));
  grid.addWidget(heading(tr("The clip shows")), 0, 0, 1, 2);
  grid.addWidget(protocol_, 1, 0);
  grid.addWidget(view_, 1, 1);
  grid.addWidget(new QLabel(tr("Filmed at")), 2, 0);
  grid.addWidget(rate_, 2, 1);
  connect(protocol_, &QComboBox::activated, this, [this] {
    const auto p = static_cast<Protocol>(protocol_->currentData().toInt());
    controller_.edit(tr("Say what the lure does"), [p](PassRequest& r) {
      r.protocol = p;
      if (p == Protocol::Fall) r.view = View::Side;
      if (p == Protocol::Walk) r.view = View::Top;
    });
  });
  connect(view_, &QComboBox::activated, this, [this] {
    const auto v = static_cast<View>(view_->currentData().toInt());
    controller_.edit(tr("Say where the camera is"), [v](PassRequest& r) { r.view = v; });
  });
  connect(rate_, &QDoubleSpinBox::valueChanged, this, [this](double value) {
    controller_.edit(tr("Say the filming rate"), [value](PassRequest& r) {
      r.captureRate = value > 0.0 ? std::optional(Hertz(value)) : std::nullopt;
    });
  });
}

void StepsPanel::buildLengthRow(QGridLayout& grid) {
  length_ = new UnitBox(tr("The known length"), "mm", {0.0, kLongest_mm, 1});
  length_->setObjectName("length");
  length_->show(kUsualLength_mm);
  ruler_ = new QPushButton(tr("Mark both ends  R"));
  ruler_->setObjectName("ruler");
  ruler_->setCheckable(true);
  scaleText_ = faintLabel({});
  grid.addWidget(heading(tr("A known length in the lure's plane")), 3, 0, 1, 2);
  grid.addWidget(length_, 4, 0);
  grid.addWidget(ruler_, 4, 1);
  auto* more = new QPushButton(tr("More …"));
  more->setObjectName("moreCalibration");
  more->setToolTip(
      tr("What is kept for the camera, true time, a ruler in another plane, four corners, plumb, waterline, "
         "bottom, the lens, other cameras"));
  grid.addWidget(scaleText_, 5, 0);
  grid.addWidget(more, 5, 1);
  connect(more, &QPushButton::clicked, this, &StepsPanel::moreWanted);
  connect(ruler_, &QPushButton::clicked, this, &StepsPanel::rulerWanted);
  connect(length_, &UnitBox::edited, this, [this](double metric) {
    controller_.edit(tr("Set known length"), [metric](PassRequest& r) {
      if (r.scale) r.scale->length = Millimetres(metric);
    });
  });
}

void StepsPanel::buildMarksRow(QGridLayout& grid) {
  marksHeading_ = heading(tr("Where they are in this frame"));
  grid.addWidget(marksHeading_, 6, 0);
  find_ = namedButton({}, "findLure");
  find_->setToolTip(tr("Looks for what moves as one, and places nose and tail on it."));
  grid.addWidget(find_, 6, 1);
  connect(find_, &QPushButton::clicked, finder_, &LureFinder::look);
  connect(finder_, &LureFinder::changed, this, &StepsPanel::refresh);
  connect(finder_, &LureFinder::told, this, &StepsPanel::told);
  marksGrid_ = new QGridLayout;
  marksGrid_->setSpacing(4);
  grid.addLayout(marksGrid_, 7, 0, 1, 2);
  for (const auto& [mark, key] : {std::pair(MarkName::Nose, "1"),
                                  {MarkName::Tail, "2"},
                                  {MarkName::Tip, "3"},
                                  {MarkName::Back, "5"},
                                  {MarkName::Belly, "6"},
                                  {MarkName::Flank, "7"},
                                  {MarkName::Mid, "8"},
                                  {MarkName::Blade, "9"},
                                  {MarkName::Hook, "0"}}) {
    auto* button = new QPushButton(QString("%1  %2").arg(spokenName(mark), key), this);
    button->setObjectName(QString::fromUtf8(toString(mark).data()));
    button->setCheckable(true);
    marks_[mark] = button;
    connect(button, &QPushButton::clicked, this, [this, m = mark] { emit markWanted(m); });
  }
  thickness_ = new UnitBox(tr("Half the body's height where the flank spot sits"), "mm", {0.0, 200.0, 1});
  thickness_->setObjectName("halfThickness");
  thickness_->setSpecialValueText(tr("not said"));
  thicknessRow_ = new QWidget;
  auto* thickness = new QHBoxLayout(thicknessRow_);
  thickness->setContentsMargins(0, 0, 0, 0);
  thickness->addWidget(new QLabel(tr("Half its height at the spot")), 1);
  thickness->addWidget(thickness_);
  thicknessRow_->setToolTip(
      tr("From mid height to the back, where the flank spot sits: the roll is told from how far the spot "
         "lies off the middle."));
  grid.addWidget(thicknessRow_, 8, 0, 1, 2);
  connect(thickness_, &UnitBox::edited, this, [this](double metric) {
    controller_.edit(tr("Say half the body's height"), [metric](PassRequest& r) {
      r.bodyHalfHeight = metric > 0.0 ? std::optional(Millimetres(metric)) : std::nullopt;
    });
  });
}

void StepsPanel::buildFollowRow(QGridLayout& grid) {
  followText_ = faintLabel({});
  followText_->setObjectName("followText");
  progress_ = new QProgressBar;
  progress_->setRange(0, 1000);
  followButton_ = new QPushButton;
  followButton_->setObjectName("follow");
  grid.addWidget(followText_, 9, 0, 1, 2);
  mend_ = new QPushButton(tr("Correct …"));
  mend_->setObjectName("mend");
  mend_->setToolTip(tr("Where following was doubtful; corrections, outline, hidden parts, fouled stretches"));
  connect(mend_, &QPushButton::clicked, this, &StepsPanel::mendWanted);
  grid.addWidget(mend_, 10, 0);
  grid.addWidget(progress_, 10, 0);
  grid.addWidget(followButton_, 10, 1);
  connect(followButton_, &QPushButton::clicked, this,
          [this] { controller_.following() ? controller_.stopFollowing() : controller_.followAnew(); });
}

void StepsPanel::showInHand(const QString& objectName) {
  ruler_->setChecked(objectName == ruler_->objectName());
  for (auto& [mark, button] : marks_) button->setChecked(objectName == button->objectName());
}

void StepsPanel::setUnits(UnitSystem units) {
  units_ = units;
  refresh();
}

void StepsPanel::refresh() {
  const LoggedPass* pass = controller_.current();
  setEnabled(pass != nullptr && controller_.clip() != nullptr);
  if (pass == nullptr) return;
  const PassRequest& request = pass->request;
  find_->setText(finder_->looking() ? tr("Stop looking") : tr("Find the lure"));
  const QSignalBlocker quietRate(rate_);
  protocol_->setCurrentIndex(protocol_->findData(static_cast<int>(request.protocol)));
  view_->setCurrentIndex(view_->findData(static_cast<int>(request.view)));
  rate_->setValue(request.captureRate ? request.captureRate->value() : 0.0);
  if (request.scale) length_->show(request.scale->length.value());
  const auto scale = scaleOf(request, request.scalePlane);
  const bool ruled = scale && *scale;
  const bool sized = ruled || request.ownLength;
  if (ruled) {
    const ShownUnit shown = shownUnit("mm", units_);
    scaleText_->setText(
        tr("%1 %2/px ± %3 %")
            .arg((*scale)->mmPerPixel() * shown.factor, 0, 'f', units_ == UnitSystem::Metric ? 3 : 5)
            .arg(shown.unit)
            .arg(100.0 * (*scale)->relativeU95(), 0, 'f', 1));
  } else if (request.ownLength) {
    scaleText_->setText(tr("The lure is the ruler"));
  } else {
    scaleText_->setText(tr("No known length yet: no sizes or speeds"));
  }
  const bool nose = placed(request, MarkName::Nose);
  const bool tail = placed(request, MarkName::Tail);
  makePrimary(ruler_, !sized);
  marks_[MarkName::Tip]->setToolTip(
      tr("The end of a soft or hinged tail; it tells the kick. Not needed otherwise."));
  marks_[MarkName::Flank]->setToolTip(
      tr("A spot at mid height on the side that faces the camera; with an outline it tells the roll."));
  marks_[MarkName::Mid]->setToolTip(tr(
      "A spot where the body turns, or bends: it helps to tell a wobble seen from the side, and how a body "
      "bends in a hop."));
  marks_[MarkName::Blade]->setToolTip(tr("A spot on a blade that beats behind or beside the body."));
  marks_[MarkName::Hook]->setToolTip(
      tr("Where the hook leaves the body; it tells whether it sits in the middle."));
  for (auto& [mark, button] : marks_) marksGrid_->removeWidget(button);
  int shown = 0;
  for (auto& [mark, button] : marks_) {
    const bool visible =
        (fits(mark, request) && request.protocol != Protocol::Sound) || placed(request, mark);
    button->setVisible(visible);
    if (visible) marksGrid_->addWidget(button, shown / kMarksInARow, shown % kMarksInARow);
    if (visible) ++shown;
  }
  const bool ahead = request.view == View::HeadOn && placed(request, MarkName::Back);
  thicknessRow_->setVisible(ahead || placed(request, MarkName::Flank));
  thickness_->show(request.bodyHalfHeight ? request.bodyHalfHeight->value() : 0.0);
  makePrimary(marks_[MarkName::Nose], sized && !nose);
  makePrimary(marks_[MarkName::Tail], sized && nose && !tail);
  refreshFollowing();
}

void StepsPanel::refreshFollowing() {
  const bool ready = controller_.ready();
  progress_->setVisible(controller_.following());
  // A sound is heard, and nothing in it followed.
  const bool sound = controller_.current()->request.protocol == Protocol::Sound;
  marksHeading_->setVisible(!sound);
  find_->setVisible(!sound);
  followText_->setVisible(!sound);
  mend_->setVisible(!controller_.following() && !sound);
  if (controller_.following()) progress_->setValue(0);
  followButton_->setVisible(ready && !sound && !controller_.clipChanged());
  followButton_->setText(controller_.following() ? tr("Stop") : tr("Track again"));
  if (const PassResult* result = controller_.result()) {
    QString text =
        tr("Followed in %1 of %2 frames.").arg(result->track.followed()).arg(result->track.frameCount);
    const std::size_t doubtful = controller_.doubtful().size();
    if (doubtful > 0)
      text += " " + tr("%1 to look at.").arg(counted(doubtful, tr("stretch"), tr("stretches")));
    followText_->setText(text);
  } else if (controller_.following()) {
    followText_->setText(tr("Following the marks …"));
  } else if (controller_.clipChanged()) {
    followText_->setText(tr("Nothing is measured on this file yet."));
  } else {
    followText_->setText(ready ? tr("Not followed yet.")
                         : controller_.current()->request.protocol == Protocol::Skirt
                             ? tr("Draw once around the lure (4); its outline is followed from there.")
                             : tr("Place two marks once; the rest is followed from there."));
  }
}

void StepsPanel::tellProgress(double share, double left_s) {
  progress_->setValue(static_cast<int>(1000.0 * share));
  progress_->setFormat(tr("%p %"));
  followText_->setText(tr("Following the marks, %1.").arg(leftText(left_s)));
}

}  // namespace fin::app
