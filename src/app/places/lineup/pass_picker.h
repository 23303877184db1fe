// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QListWidget>

#include "app/controllers/studied_passes.h"

namespace fin::app {

/// The passes that were read, to be ticked for being seen beside each other: two to six.
class PassPicker : public QListWidget {
  Q_OBJECT

 public:
  static constexpr std::size_t kMost = 6;

  PassPicker(const LineUp& lineUp, StudiedPasses& studied, QWidget* parent = nullptr);

 private:
  void refresh();
  void take();

  const LineUp& lineUp_;
  StudiedPasses& studied_;
};

}  // namespace fin::app
