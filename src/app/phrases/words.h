// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>
#include <optional>

#include "core/footage/clip.h"
#include "core/measuring/measurement.h"
#include "core/planning/pass_sheet.h"
#include "core/readings/reading.h"
#include "core/tracking/track.h"

namespace fin::app {

enum class UnitSystem { Metric, Imperial };

/// What the speed of a pull is shown in; all else goes with the units.
enum class PullUnit { AsTheUnits, KilometresPerHour, MilesPerHour, Knots };
/// Everywhere from now on. For the window's thread.
void showPullsIn(PullUnit unit);
/// Stands for the unit of a pull, which is kept in mm/s.
constexpr std::string_view kPullSpeed = "pull";

/// The reading's name as a tester says it, and as the field does; docs/terms.md lists both.
QString spokenName(ReadingId reading);
QString fieldName(ReadingId reading);
QString spokenName(Protocol protocol);
QString spokenName(View view);
QString spokenName(MarkName mark);
QString spokenName(Grade grade);
/// "done", "fouled: a leaf"; nothing for a pass still to be made.
QString spokenState(const PlannedPass& pass);

/// A number in the units of the person, with as many decimals as its uncertainty deserves.
struct SpokenValue {
  QString value;        ///< "6.61", or the word itself
  QString uncertainty;  ///< "± 0.03", empty for words
  QString unit;
};
SpokenValue spoken(const Reading& reading, UnitSystem units);

/// The same in one line, of a reading's name and number: "6.61 ± 0.03 Hz".
QString spokenAs(ReadingId reading, double value, double u95, UnitSystem units);

/// An amount that was set or worked out, with as many decimals as it has in metric: "7.0 g", "0.247 oz".
QString spokenAmount(double metric, std::string_view unit, int decimals, UnitSystem units);
/// A speed that was set or asked for: "250 mm/s"; spokenPull where a lure is pulled at it: "0.90 km/h".
QString spokenSpeed(double mm_s, UnitSystem units);
QString spokenPull(double mm_s, UnitSystem units);

/// What is to know of a clip before it is measured, its rate as a person said it; empty where nothing is.
QString oddOf(const ClipInfo& clip, std::optional<Hertz> saidRate);
/// With a capital at its beginning, unless a file's name stands there.
QString asSentence(const QString& text);
/// "1 frame", "3 frames".
QString counted(std::size_t count, const QString& one, const QString& many);

/// "how was this measured": definition, what lies behind it, and its notes.
QString howMeasured(const Reading& reading);
/// Of which clip and frames, by which method and when.
QString spokenOrigin(const Provenance& from);
QString spokenMoment(double sinceEpoch_s);

/// What a number in an SI-based unit has to be multiplied by, what then is added, and the unit it then has.
struct ShownUnit {
  double factor = 1.0;
  QString unit;
  double plus = 0.0;  ///< for degrees Fahrenheit alone

  [[nodiscard]] double shown(double metric) const { return metric * factor + plus; }
  [[nodiscard]] double metric(double shown) const { return (shown - plus) / factor; }
};
ShownUnit shownUnit(std::string_view unit, UnitSystem units);
/// The same of a reading: its rates are "per second", its pitch is in hertz.
ShownUnit shownUnit(ReadingId reading, UnitSystem units);

}  // namespace fin::app
