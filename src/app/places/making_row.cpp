// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/making_row.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

#include "app/ui/pieces.h"

namespace fin::app {
namespace {

QString timeLeft(double seconds) {
  return seconds < 90.0 ? QObject::tr("%1 s left").arg(seconds, 0, 'f', 0)
                        : QObject::tr("%1 min left").arg(seconds / 60.0, 0, 'f', 0);
}

}  // namespace

MakingRow::MakingRow(Making& making, const char* said, const char* stop, QWidget* parent)
    : QWidget(parent),
      making_(making),
      progress_(new QProgressBar),
      stop_(namedButton(tr("Stop"), stop)),
      said_(new WholeLabel) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  auto* row = new QHBoxLayout;
  progress_->setAccessibleName(tr("How far it is made"));
  row->addWidget(progress_, 1);
  row->addWidget(stop_);
  layout->addLayout(row);
  said_->setObjectName(said);
  said_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  layout->addWidget(said_);
  connect(stop_, &QPushButton::clicked, this, [this] { making_.stop(); });
  connect(&making, &Making::begun, this, [this] {
    progress_->setRange(0, 0);  // until it is known how long it takes
    say({}, false);
  });
  connect(&making, &Making::progressed, this, [this](double share, double left_s) {
    progress_->setRange(0, 100);
    progress_->setValue(static_cast<int>(100.0 * share));
    progress_->setFormat("%p %, " + timeLeft(left_s));
  });
  connect(&making, &Making::done, this, &MakingRow::say);
  refresh();
}

void MakingRow::say(const QString& message, bool trouble) {
  said_->setText(breakable(message));
  setLook(*said_, "trouble", trouble);
  refresh();
}

void MakingRow::refresh() {
  progress_->setVisible(making_.busy());
  stop_->setVisible(making_.busy());
  said_->setVisible(!said_->text().isEmpty());
}

}  // namespace fin::app
