// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/outdated_bar.h"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <algorithm>

#include "app/phrases/words.h"
#include "app/ui/pieces.h"

namespace fin::app {
namespace {

constexpr qsizetype kNamed = 3;

bool canBeMeasured(const OutdatedPass& pass) {
  return pass.state != MeasurementState::ClipChanged;
}

QString whyOf(MeasurementState state) {
  switch (state) {
    case MeasurementState::ClipChanged:
      return QObject::tr("another file stands in the clip's place");
    case MeasurementState::NeedsFollowing:
      return QObject::tr("the marks, or the way of following, have changed");
    default:
      return QObject::tr("what was said of them, or the method, has changed");
  }
}

/// The passes of one state, with the reason; empty where there are none.
QString sentenceOn(MeasurementState state, const std::vector<OutdatedPass>& passes) {
  QStringList names;
  for (const OutdatedPass& pass : passes) {
    if (pass.state == state) names += QString::fromStdString(pass.title);
  }
  if (names.isEmpty()) return {};
  const qsizetype more = names.size() - kNamed;
  QString named = names.mid(0, kNamed).join(", ");
  if (more > 0) named += QObject::tr(" and %1 more").arg(more);
  return QObject::tr("Not compared, as %1: %2.").arg(whyOf(state), named);
}

}  // namespace

OutdatedBar::OutdatedBar(LineUp& lineUp, MeasuringQueue& queue, QWidget* parent)
    : QFrame(parent),
      lineUp_(lineUp),
      queue_(queue),
      text_(new QLabel),
      measure_(namedButton(tr("Measure them again"), "measureOutdated")),
      stop_(namedButton(tr("Stop"), "stopMeasuring")) {
  setObjectName("outdated");
  setProperty("card", true);
  text_->setObjectName("outdatedText");
  text_->setTextFormat(Qt::PlainText);
  text_->setWordWrap(true);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(16, 6, 12, 6);
  row->addWidget(text_, 1);
  row->addWidget(measure_);
  row->addWidget(stop_);
  connect(measure_, &QPushButton::clicked, this, &OutdatedBar::measureThem);
  connect(stop_, &QPushButton::clicked, &queue, &MeasuringQueue::stop);
  connect(&lineUp, &LineUp::changed, this, &OutdatedBar::refresh);
  connect(&queue, &MeasuringQueue::changed, this, &OutdatedBar::refresh);
  refresh();
}

void OutdatedBar::setWanted(bool wanted) {
  wanted_ = wanted;
  refresh();
}

/// Reading is a moment's work and is done unasked, once; following is for the person to begin.
void OutdatedBar::readAnew() {
  std::vector<PassId> ids;
  for (const OutdatedPass& pass : lineUp_.outdated()) {
    const LoggedPass* logged = lineUp_.passController().passWith(pass.id);
    if (pass.state != MeasurementState::NeedsReading || logged == nullptr) continue;
    if (!QFileInfo::exists(QString::fromStdString(logged->request.clip.string()))) continue;
    if (tried_.insert(pass.id).second) ids.push_back(pass.id);
  }
  if (!ids.empty()) queue_.add(ids, Depth::Read);
}

void OutdatedBar::refresh() {
  const auto& passes = lineUp_.outdated();
  setVisible(wanted_ && !passes.empty());
  if (wanted_) readAnew();
  QStringList sentences;
  for (const auto state :
       {MeasurementState::ClipChanged, MeasurementState::NeedsFollowing, MeasurementState::NeedsReading}) {
    if (const QString sentence = sentenceOn(state, passes); !sentence.isEmpty()) sentences += sentence;
  }
  if (queue_.left() > 0)
    sentences += tr("Measuring: %1 left.").arg(counted(queue_.left(), tr("pass"), tr("passes")));
  text_->setText(sentences.join(" "));
  measure_->setVisible(queue_.left() == 0 && std::any_of(passes.begin(), passes.end(), canBeMeasured));
  stop_->setVisible(queue_.left() > 0);
}

void OutdatedBar::measureThem() {
  std::vector<PassId> ids;
  for (const OutdatedPass& pass : lineUp_.outdated()) {
    if (canBeMeasured(pass)) ids.push_back(pass.id);
  }
  queue_.add(ids, Depth::Follow);
}

}  // namespace fin::app
