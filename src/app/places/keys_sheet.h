// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLineEdit>
#include <QTreeWidget>
#include <functional>
#include <vector>

#include "app/ui/actions.h"

namespace fin::app {

/// All that can be done, with its keys: what is done where one is comes first. Typing narrows it; Enter or a
/// double press does the chosen one.
class KeysSheet : public QFrame {
  Q_OBJECT

 public:
  /// `run` does an action of a table.
  using Run = std::function<void(const ActionTable&, const Action&)>;
  KeysSheet(std::vector<const ActionTable*> tables, Run run, QWidget* parent = nullptr);
  [[nodiscard]] QLineEdit& words() { return *words_; }
  [[nodiscard]] QSize sizeHint() const override;

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void fill();
  void doChosen();

  std::vector<const ActionTable*> tables_;
  Run run_;
  QLineEdit* words_;
  QTreeWidget* list_;
};

}  // namespace fin::app
