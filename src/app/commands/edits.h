// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <QUndoStack>
#include <functional>

#include "core/units/result.h"

namespace fin::app {

/// Everything a person changes, to be undone and done again. An act is one change of the log, whole or not at
/// all: what failed is not remembered, and undoing or redoing that fails leaves log and history as they were.
/// What can never be undone any more, because the log has moved on elsewhere, is forgotten.
class Edits : public QObject {
  Q_OBJECT

 public:
  using Act = std::function<Result<void>()>;

  explicit Edits(QObject* parent = nullptr);

  /// Does it and remembers it with what takes it back. Where it fails the reason is told, and returned.
  Result<void> perform(const QString& what, const Act& act, const Act& back);
  /// The same for a value that is swapped whole: `write` brings it from one to the other. Nothing is done,
  /// and true returned, where `change` changes nothing.
  template <class Value>
  bool swap(const QString& what, const Value& before, const std::function<void(Value&)>& change,
            const std::function<Result<void>(const Value& from, const Value& to)>& write) {
    Value after = before;
    change(after);
    if (after == before) return true;
    return perform(
               what, [=] { return write(before, after); }, [=] { return write(after, before); })
        .has_value();
  }
  void undo();
  void redo();

  [[nodiscard]] bool canUndo() const { return stack_.canUndo(); }
  [[nodiscard]] bool canRedo() const { return stack_.canRedo(); }
  [[nodiscard]] QString undoText() const { return stack_.undoText(); }
  [[nodiscard]] QString redoText() const { return stack_.redoText(); }
  /// How many acts are remembered.
  [[nodiscard]] int count() const { return stack_.count(); }

 signals:
  void changed();  ///< what can be undone or redone
  void told(const QString& message, bool trouble);
  /// What the window shows is no longer what the log holds.
  void movedOn();

 private:
  void tell(const Error& error);

  QUndoStack stack_;
};

}  // namespace fin::app
