// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

namespace fin::app {

/// A place that is not built yet: says in one line what will be there.
class ComingPlace : public QWidget {
  Q_OBJECT

 public:
  explicit ComingPlace(const QString& line, QWidget* parent = nullptr);
};

}  // namespace fin::app
