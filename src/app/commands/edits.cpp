// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/commands/edits.h"

namespace fin::app {
namespace {

/// What was done and how it is taken back. The stack only moves past it: the acts are carried out before, as
/// they may fail.
class Performed : public QUndoCommand {
 public:
  Performed(const QString& what, Edits::Act act, Edits::Act back)
      : QUndoCommand(what), act_(std::move(act)), back_(std::move(back)) {}
  [[nodiscard]] const Edits::Act& act() const { return act_; }
  [[nodiscard]] const Edits::Act& back() const { return back_; }

 private:
  Edits::Act act_;
  Edits::Act back_;
};

Performed* performedAt(const QUndoStack& stack, int index) {
  return const_cast<Performed*>(static_cast<const Performed*>(stack.command(index)));
}

}  // namespace

Edits::Edits(QObject* parent) : QObject(parent) {
  connect(&stack_, &QUndoStack::indexChanged, this, &Edits::changed);
}

Result<void> Edits::perform(const QString& what, const Act& act, const Act& back) {
  const Result<void> done = act();
  if (done) {
    stack_.push(new Performed(what, act, back));
  } else {
    tell(done.error());
  }
  return done;
}

void Edits::undo() {
  if (!stack_.canUndo()) return;
  Performed* last = performedAt(stack_, stack_.index() - 1);
  if (const auto done = last->back()(); !done) {
    tell(done.error());
    if (done.error().code != ErrorCode::MovedOn) return;
    last->setObsolete(true);  // and the stack drops it
  }
  stack_.undo();
}

void Edits::redo() {
  if (!stack_.canRedo()) return;
  Performed* next = performedAt(stack_, stack_.index());
  if (const auto done = next->act()(); !done) {
    tell(done.error());
    if (done.error().code != ErrorCode::MovedOn) return;
    next->setObsolete(true);
  }
  stack_.redo();
}

void Edits::tell(const Error& error) {
  emit told(QString::fromStdString(error.message), true);
  if (error.code == ErrorCode::MovedOn) emit movedOn();
}

}  // namespace fin::app
