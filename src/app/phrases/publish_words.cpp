// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/phrases/publish_words.h"

#include <QCoreApplication>

#include "app/plots/pass_trace.h"
#include "core/measuring/main_trace.h"

namespace fin::app {
namespace {

QString published(const char* text) {
  return QCoreApplication::translate("publishing", text);
}

}  // namespace

QString gradedNote(const Entry& entry) {
  return entry.graded ? QString() : published("shown, not graded");
}

QStringList caveatsOf(const VerdictPlan& plan, const std::vector<Entry>& shown) {
  QStringList out{published("Not every model was tested, and one tank is not a lake.")};
  bool priced = false;
  for (const Entry& entry : shown) priced |= entry.price.has_value();
  if (!plan.pricesFrom.empty()) {
    out += published("Prices: %1. They change.").arg(QString::fromStdString(plan.pricesFrom));
  } else if (priced) {
    out += published("Prices change; when they were noted is not said.");
  }
  for (const Entry& entry : shown) {
    if (entry.graded) continue;
    QString line = published("%1 is shown, not graded").arg(QString::fromStdString(entry.rig));
    if (!entry.whyNotGraded.empty()) line += ": " + QString::fromStdString(entry.whyNotGraded);
    out += line + ".";
  }
  out += plan.interest.empty()
             ? published("Interest of the testers: none was declared.")
             : published("Interest of the testers: %1").arg(QString::fromStdString(plan.interest));
  return out;
}

FilmLanguage filmLanguage(UnitSystem units) {
  return {[units](const Reading& reading) {
            const SpokenValue said = spoken(reading, units);
            const QString value =
                QString("%1 %2 %3").arg(said.value, said.uncertainty, said.unit).simplified();
            return FilmWords{0.0, spokenName(reading.id).toStdString(), value.toStdString()};
          },
          [units](const PassRequest& request, const PassResult& result) {
            const ShownTrace trace = traceFor(request, result, units);
            return FilmTrace{trace.axis.toStdString(), trace.series.t_s, trace.series.y,
                             mainTraceOf(request, result).what == MainTrace::What::Depth};
          }};
}

}  // namespace fin::app
