// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QUndoCommand>

#include "app/models/pass_desk.h"

namespace fin::app {

/// What was said of a pass, before and after.
class EditPass : public QUndoCommand {
 public:
  EditPass(PassDesk& desk, RowId id, const QString& what, PassRequest before, PassRequest after)
      : QUndoCommand(what), desk_(desk), id_(id), before_(std::move(before)), after_(std::move(after)) {}
  void undo() override { desk_.applyRequest(id_, before_); }
  void redo() override { desk_.applyRequest(id_, after_); }

 private:
  PassDesk& desk_;
  RowId id_;
  PassRequest before_;
  PassRequest after_;
};

/// Which planned pass a clip was filmed for, and by which camera.
class AssignClip : public QUndoCommand {
 public:
  struct Whose {
    std::optional<RowId> planned;
    std::string camera;
  };
  AssignClip(PassDesk& desk, RowId id, Whose before, Whose after)
      : QUndoCommand(QObject::tr("Put a clip to its pass")),
        desk_(desk),
        id_(id),
        before_(std::move(before)),
        after_(std::move(after)) {}
  void undo() override { desk_.applyAssignment(id_, before_.planned, before_.camera); }
  void redo() override { desk_.applyAssignment(id_, after_.planned, after_.camera); }

 private:
  PassDesk& desk_;
  RowId id_;
  Whose before_;
  Whose after_;
};

/// The instant that the clips of one pass share, before and after.
class ShareInstant : public QUndoCommand {
 public:
  using Instants = std::vector<std::pair<RowId, std::optional<Seconds>>>;
  ShareInstant(PassDesk& desk, const QString& what, Instants before, Instants after)
      : QUndoCommand(what), desk_(desk), before_(std::move(before)), after_(std::move(after)) {}
  void undo() override { desk_.applySharedInstants(before_); }
  void redo() override { desk_.applySharedInstants(after_); }

 private:
  PassDesk& desk_;
  Instants before_;
  Instants after_;
};

/// A pass that comes into the log or goes out of it.
class ShowPass : public QUndoCommand {
 public:
  ShowPass(PassDesk& desk, RowId id, const QString& what, bool removed)
      : QUndoCommand(what), desk_(desk), id_(id), removed_(removed) {}
  void undo() override { desk_.applyRemoved(id_, !removed_); }
  void redo() override { desk_.applyRemoved(id_, removed_); }

 private:
  PassDesk& desk_;
  RowId id_;
  bool removed_;
};

}  // namespace fin::app
