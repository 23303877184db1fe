// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/phrases/class_words.h"

#include <QObject>

#include "app/phrases/words.h"

namespace fin::app {
namespace {

QString nameOf(const ClassSpread& spread, std::size_t rig) {
  return QString::fromStdString(spread.rigs[rig].rig);
}

}  // namespace

QString spokenClasses(const RigClasses& rig) {
  QStringList parts;
  for (const ClassCount& one : rig.classes) {
    const QString name = QString::fromStdString(one.name);
    parts += parts.isEmpty() ? QObject::tr("%1 in %2 of %3 (%4 to %5 %)")
                                   .arg(name)
                                   .arg(one.passes)
                                   .arg(counted(rig.passes, QObject::tr("pass"), QObject::tr("passes")))
                                   .arg(100.0 * rig.commonestFrom, 0, 'f', 0)
                                   .arg(100.0 * rig.commonestTo, 0, 'f', 0)
                             : QObject::tr("%1 in %2").arg(name).arg(one.passes);
  }
  QString out = parts.join(", ");
  if (rig.refused > 0) out += (out.isEmpty() ? QString() : "; ") + QObject::tr("%1 refused").arg(rig.refused);
  return out;
}

QStringList classesInWords(const ClassSpread& spread) {
  QStringList apart;
  QStringList close;
  QStringList few;
  for (const ClassPair& pair : spread.pairs) {
    const QString names = QObject::tr("%1 and %2").arg(nameOf(spread, pair.a), nameOf(spread, pair.b));
    (pair.apart ? apart : pair.tooFew ? few : close) += names;
  }
  QStringList out;
  if (!apart.isEmpty()) out += QObject::tr("<b>Told apart:</b> %1.").arg(apart.join("; ").toHtmlEscaped());
  if (!close.isEmpty())
    out += QObject::tr("<b>Too close to call:</b> %1.").arg(close.join("; ").toHtmlEscaped());
  if (!few.isEmpty())
    out += QObject::tr(
               "<b>Too few passes:</b> %1. Even all of one way against all of another would not tell them "
               "apart; %2 of each could.")
               .arg(few.join("; ").toHtmlEscaped(),
                    counted(spread.passesThatCouldTell, QObject::tr("pass"), QObject::tr("passes")));
  return out;
}

}  // namespace fin::app
