// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/actions.h"

#include <QKeyEvent>
#include <QStringList>
#include <algorithm>

namespace fin::app {
namespace {

/// Whether an event is a key's; but for letters, which characters Shift is needed for depends on the
/// keyboard.
bool isKey(const QKeyEvent& event, const QKeySequence& key) {
  const QKeyCombination wanted = key[0];
  if (event.key() != wanted.key()) return false;
  Qt::KeyboardModifiers counts = Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier;
  if (wanted.key() >= Qt::Key_A && wanted.key() <= Qt::Key_Z) counts |= Qt::ShiftModifier;
  return (event.modifiers() & counts) == (wanted.keyboardModifiers() & counts);
}

}  // namespace

ActionTable::ActionTable(QString where, std::function<QString()> why)
    : where_(std::move(where)), why_(std::move(why)) {}

ActionTable& ActionTable::add(const QString& what, std::vector<QKeySequence> keys,
                              std::function<void()> run) {
  actions_.push_back({what, std::move(keys), std::move(run)});
  return *this;
}

ActionTable& ActionTable::tell(const QString& what, const QString& how) {
  told_.push_back({what, how});
  return *this;
}

bool ActionTable::heard(const QKeyEvent& event) const {
  for (const Action& action : actions_) {
    const bool meant = std::any_of(action.keys.begin(), action.keys.end(),
                                   [&](const QKeySequence& key) { return isKey(event, key); });
    if (!meant) continue;
    if (!why().isEmpty()) return false;
    action.run();
    return true;
  }
  return false;
}

QString spokenKeys(const std::vector<QKeySequence>& keys) {
  QStringList out;
  for (const QKeySequence& key : keys) {
    QString text = key.toString(QKeySequence::NativeText);
    if (text.size() > 1) text.replace('+', ' ');
    out.push_back(text);
  }
  return out.join(", ");
}

}  // namespace fin::app
