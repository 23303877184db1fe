// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/phrases/row_words.h"

#include <QObject>

namespace fin::app {

QString rowKind(const std::string& kind) {
  if (kind == "planned_pass") return QObject::tr("Planned pass");
  if (kind == "eye_score") return QObject::tr("Score by eye");
  if (kind == "tie_rule") return QObject::tr("Rule");
  if (kind == "run_event") return QObject::tr("Noted on the water:");
  QString out = QString::fromStdString(kind);
  if (!out.isEmpty()) out[0] = out[0].toUpper();
  return out;
}

}  // namespace fin::app
