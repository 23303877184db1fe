// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QUndoCommand>

namespace fin::app {

/// A whole value of a desk, before and after: such values are small, and nothing can be forgotten. The desk
/// has apply(value).
template <class Desk, class Value>
class SwapCommand : public QUndoCommand {
 public:
  SwapCommand(Desk& desk, const QString& what, Value before, Value after)
      : QUndoCommand(what), desk_(desk), before_(std::move(before)), after_(std::move(after)) {}
  void undo() override { desk_.apply(before_); }
  void redo() override { desk_.apply(after_); }

 private:
  Desk& desk_;
  Value before_;
  Value after_;
};

}  // namespace fin::app
