// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QKeySequence>
#include <QString>
#include <functional>
#include <vector>

class QKeyEvent;

namespace fin::app {

/// One thing that can be done: by its key, and from the sheet of keys.
struct Action {
  QString what;  ///< "Place the nose"
  std::vector<QKeySequence> keys;
  std::function<void()> run;
};

/// All that can be done in one place or on one page of it. Its keys act through heard(), and the sheet of
/// keys lists it: nothing acts that is not in a table.
class ActionTable {
 public:
  /// `where` as a heading: "Bench"; `why` says why nothing of it can be done now, and is empty where it can.
  explicit ActionTable(QString where, std::function<QString()> why = {});

  ActionTable& add(const QString& what, std::vector<QKeySequence> keys, std::function<void()> run);
  /// Something done by hand alone, or on the thing itself (a drag, an arrow key): told, not run from the
  /// sheet.
  ActionTable& tell(const QString& what, const QString& how);

  /// Does what a key stands for; false where it is no key of this table, or nothing can be done.
  bool heard(const QKeyEvent& event) const;

  struct Told {
    QString what;
    QString how;
  };
  [[nodiscard]] const QString& where() const { return where_; }
  [[nodiscard]] QString why() const { return why_ ? why_() : QString(); }
  [[nodiscard]] const std::vector<Action>& actions() const { return actions_; }
  [[nodiscard]] const std::vector<Told>& told() const { return told_; }

 private:
  QString where_;
  std::function<QString()> why_;
  std::vector<Action> actions_;
  std::vector<Told> told_;
};

/// "D", "Ctrl Z", "1 … 5": as it stands on the sheet.
QString spokenKeys(const std::vector<QKeySequence>& keys);

}  // namespace fin::app
