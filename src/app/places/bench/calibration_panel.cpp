// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/calibration_panel.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/look/pieces.h"
#include "core/calibration/refraction.h"

namespace fin::app {
namespace {

using Line = CalibrationPanel::Line;

constexpr Line kLines[] = {Line::Plumb, Line::Waterline, Line::Bottom};

QString nameOf(Line line) {
  switch (line) {
    case Line::Plumb:
      return QObject::tr("Plumb line");
    case Line::Waterline:
      return QObject::tr("Waterline");
    case Line::Bottom:
      return QObject::tr("Bottom");
  }
  return {};
}

}  // namespace

std::optional<PixelLine>& lineOf(PassRequest& request, Line line) {
  return line == Line::Plumb ? request.plumb : line == Line::Waterline ? request.waterline : request.bottom;
}

CalibrationPanel::CalibrationPanel(PassDesk& desk, QWidget* parent) : QScrollArea(parent), desk_(desk) {
  setWidgetResizable(true);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* content = new QWidget;
  auto* layout = new QVBoxLayout(content);
  layout->setContentsMargins(0, 0, 8, 0);
  layout->setSpacing(8);
  auto* back = namedButton(tr("Back to the numbers"), "calibrationDone");
  layout->addWidget(back);
  layout->addWidget(buildRate());
  layout->addWidget(buildPlane());
  layout->addWidget(buildLines());
  follow_ = new QCheckBox(tr("Follow the background"));
  follow_->setObjectName("followBackground");
  follow_->setToolTip(tr("For a camera that moves along: what lies behind the lure tells how it moved."));
  layout->addWidget(follow_);
  layout->addStretch();
  setWidget(content);
  connect(back, &QPushButton::clicked, this, &CalibrationPanel::done);
  connect(follow_, &QCheckBox::clicked, this, [this](bool on) {
    desk_.edit(tr("Follow the background"), [on](PassRequest& r) { r.followBackground = on; });
  });
  connect(&desk, &PassDesk::passChanged, this, [this] {
    from_.reset();
    to_.reset();
    refresh();
  });
  connect(&desk, &PassDesk::requestChanged, this, &CalibrationPanel::refresh);
  refresh();
}

QWidget* CalibrationPanel::buildRate() {
  auto* box = card();
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(11, 8, 11, 9);
  grid->addWidget(headingLabel(tr("The true time")), 0, 0, 1, 2);
  rate_ = faintLabel({});
  rate_->setObjectName("rateNow");
  grid->addWidget(rate_, 1, 0, 1, 2);
  grid->addWidget(
      faintLabel(tr("Not known? Find two frames with a known time between them: a stopwatch in view, a "
                    "blinking light, beats of the pacer.")),
      2, 0, 1, 2);
  auto* from = namedButton(tr("From this frame"), "rateFrom");
  auto* to = namedButton(tr("To this frame"), "rateTo");
  grid->addWidget(from, 3, 0);
  grid->addWidget(to, 3, 1);
  interval_ = faintLabel({});
  grid->addWidget(interval_, 4, 0, 1, 2);
  between_ = new UnitBox(tr("True time between them"), "s", {0.0, 100000.0, 3});
  between_->setObjectName("trueTime");
  auto* take = namedButton(tr("That is the rate"), "takeRate");
  grid->addWidget(between_, 5, 0);
  grid->addWidget(take, 5, 1);
  connect(from, &QPushButton::clicked, this, [this] {
    from_ = desk_.frame();
    refresh();
  });
  connect(to, &QPushButton::clicked, this, [this] {
    to_ = desk_.frame();
    refresh();
  });
  connect(take, &QPushButton::clicked, this, &CalibrationPanel::takeRate);
  return box;
}

QWidget* CalibrationPanel::buildPlane() {
  auto* box = card();
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(11, 8, 11, 9);
  grid->addWidget(headingLabel(tr("A ruler in another plane")), 0, 0, 1, 2);
  plane_ = faintLabel({});
  plane_->setObjectName("planeNow");
  grid->addWidget(plane_, 1, 0, 1, 2);
  const auto add = [&](int row, const QString& text, const char* name, const char* unit, double most) {
    auto* input = new UnitBox(text, unit, {0.0, most, 0});
    input->setObjectName(name);
    auto* label = new QLabel(text);
    label->setBuddy(input);
    grid->addWidget(label, row, 0);
    grid->addWidget(input, row, 1);
    return input;
  };
  constexpr double kFar_mm = 100000.0;
  lureAir_ = add(2, tr("Camera to window"), "planeAir", "mm", kFar_mm);
  glass_ = add(3, tr("Glass"), "planeGlass", "mm", kFar_mm);
  lureWater_ = add(4, tr("Water to the lure"), "planeLure", "mm", kFar_mm);
  rulerWater_ = add(5, tr("Water to the ruler"), "planeRuler", "mm", kFar_mm);
  rulerAir_ = add(6, tr("or ruler dry, at"), "planeDry", "mm", kFar_mm);
  salt_ = add(7, tr("Salt"), "planeSalt", "g/kg", 42.0);
  auto* take = namedButton(tr("It hangs there"), "takePlane");
  auto* same = namedButton(tr("Same plane"), "samePlane");
  grid->addWidget(take, 8, 0);
  grid->addWidget(same, 8, 1);
  connect(take, &QPushButton::clicked, this, &CalibrationPanel::takePlane);
  connect(same, &QPushButton::clicked, this, [this] {
    desk_.edit(tr("Ruler in the lure's plane"), [](PassRequest& r) { r.scalePlane.reset(); });
  });
  return box;
}

QWidget* CalibrationPanel::buildLines() {
  auto* box = card();
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(11, 8, 11, 9);
  grid->addWidget(headingLabel(tr("Lines in the lure's plane")), 0, 0, 1, 2);
  int row = 1;
  for (const Line line : kLines) {
    auto* draw = new QPushButton(nameOf(line));
    draw->setObjectName(QString("line%1").arg(row));
    auto* away = new QPushButton(tr("Take away"));
    grid->addWidget(draw, row, 0);
    grid->addWidget(away, row, 1);
    lines_.emplace_back(draw, away);
    ++row;
    connect(draw, &QPushButton::clicked, this, [this, line] { emit lineWanted(line); });
    connect(away, &QPushButton::clicked, this, [this, line] { dropLine(line); });
  }
  return box;
}

void CalibrationPanel::dropLine(Line line) {
  desk_.edit(tr("Take a line away"), [line](PassRequest& r) { lineOf(r, line).reset(); });
}

void CalibrationPanel::takeRate() {
  if (!desk_.clip() || !from_ || !to_) return;
  const auto rate = rateFromInterval(desk_.clip()->index(), *from_, *to_, Seconds(between_->metric()));
  if (!rate) {
    interval_->setText(QString::fromStdString(rate.error().message));
    return;
  }
  desk_.edit(tr("Find the filming rate"), [&](PassRequest& r) { r.captureRate = *rate; });
}

void CalibrationPanel::takePlane() {
  const GramsPerKilogram salt(salt_->metric());
  const Millimetres air(lureAir_->metric());
  const Millimetres glass(glass_->metric());
  const auto lure = apparentDistance({air, glass, Millimetres(lureWater_->metric())}, salt);
  const bool dry = rulerAir_->metric() > 0.0;
  const auto ruler = dry ? apparentDistance({Millimetres(rulerAir_->metric()), {}, {}}, salt)
                         : apparentDistance({air, glass, Millimetres(rulerWater_->metric())}, salt);
  if (!lure || !ruler) {
    plane_->setText(QString::fromStdString((lure ? ruler : lure).error().message));
    return;
  }
  desk_.edit(tr("Say where the ruler hangs"), [&](PassRequest& r) {
    r.scalePlane = ScalePlane{*ruler, *lure};
  });
}

void CalibrationPanel::refresh() {
  const LoggedPass* pass = desk_.current();
  widget()->setEnabled(pass != nullptr && desk_.clip() != nullptr);
  if (pass == nullptr) return;
  PassRequest request = pass->request;
  if (desk_.clip()) {
    const double plays = desk_.clip()->index().regularRate().value();
    rate_->setText(request.captureRate
                       ? tr("Filmed at %1 frames a second, plays at %2.")
                             .arg(request.captureRate->value(), 0, 'f', 2)
                             .arg(plays, 0, 'f', 2)
                       : tr("Plays at %1 frames a second; taken to be filmed so.").arg(plays, 0, 'f', 2));
  }
  interval_->setText(from_ && to_ ? tr("From frame %1 to frame %2.").arg(*from_).arg(*to_)
                     : from_      ? tr("From frame %1 to …").arg(*from_)
                                  : QString());
  plane_->setText(
      request.scalePlane
          ? tr("The ruler seems %1 mm off, the lure %2 mm: every length is %3 times what the ruler says.")
                .arg(request.scalePlane->cameraToScale.value(), 0, 'f', 0)
                .arg(request.scalePlane->cameraToLure.value(), 0, 'f', 0)
                .arg(request.scalePlane->cameraToLure / request.scalePlane->cameraToScale, 0, 'f', 3)
          : tr("The ruler is taken to hang in the lure's plane."));
  for (std::size_t i = 0; i < lines_.size(); ++i) {
    lines_[i].second->setEnabled(lineOf(request, kLines[i]).has_value());
  }
  follow_->setEnabled(request.view == View::Chase);
  follow_->setChecked(request.followBackground);
}

}  // namespace fin::app
