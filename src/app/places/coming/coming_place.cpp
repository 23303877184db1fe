// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/coming/coming_place.h"

#include <QLabel>
#include <QVBoxLayout>

namespace fin::app {

ComingPlace::ComingPlace(const QString& line, QWidget* parent) : QWidget(parent) {
  auto* layout = new QVBoxLayout(this);
  auto* text = new QLabel(line);
  text->setWordWrap(true);
  text->setMaximumWidth(560);
  text->setAlignment(Qt::AlignCenter);
  layout->addWidget(text, 0, Qt::AlignCenter);
}

}  // namespace fin::app
