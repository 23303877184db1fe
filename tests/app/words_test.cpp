// SPDX-License-Identifier: GPL-3.0-or-later
// What is said of numbers, in the words that a person reads.
#include <gtest/gtest.h>

#include <QDateTime>

#include "app/phrases/words.h"
#include "core/readings/registry.h"
#include "support/reading_words.h"
#include "terms.h"

namespace fin::app {
namespace {

struct Conversion {
  const char* unit;
  double metric;    ///< what one is shown as
  double imperial;  ///< computed from the definition of inch, foot, ounce and pound
  const char* imperialUnit;
};
class ShownUnits : public testing::TestWithParam<Conversion> {};

TEST_P(ShownUnits, AreThoseOfTheirDefinition) {
  const auto& [unit, metric, imperial, word] = GetParam();
  EXPECT_NEAR(shownUnit(unit, UnitSystem::Metric).factor, metric, 1e-9);
  const ShownUnit shown = shownUnit(unit, UnitSystem::Imperial);
  EXPECT_NEAR(shown.factor, imperial, 1e-6 * imperial) << shown.unit.toStdString();
  EXPECT_EQ(shown.unit, QString::fromUtf8(word));
}

INSTANTIATE_TEST_SUITE_P(
    Words, ShownUnits,
    testing::Values(Conversion{"mm", 1.0, 1.0 / 25.4, "in"}, Conversion{"mm/s", 1.0, 1.0 / 25.4, "in/s"},
                    Conversion{"s/m", 1.0, 0.3048, "s/ft"}, Conversion{"g", 1.0, 1.0 / 28.349523125, "oz"},
                    Conversion{"kg", 1.0, 1.0 / 0.45359237, "lb"},
                    Conversion{"mm²", 1.0, 1.0 / 645.16, "in²"}, Conversion{"Hz", 1.0, 1.0, "per second"},
                    Conversion{"%", 1.0, 1.0, "%"}));

TEST(SpokenNames, AreDifferentWithinAProtocolAndWithoutProgramWords) {
  for (const Protocol p : kAllProtocols) {
    QStringList names;
    for (const ReadingSpec& spec : readingsOf(p)) {
      const QString name = spokenName(spec.id);
      EXPECT_FALSE(names.contains(name)) << spec.id;
      EXPECT_FALSE(name.contains('_')) << spec.id;
      EXPECT_TRUE(name.front().isUpper()) << spec.id;
      names += name;
    }
    EXPECT_FALSE(spokenName(p).isEmpty());
  }
}

TEST(SpokenNames, AreThoseOfTheListOfTerms) {
  const std::vector<QStringList> rows = test::tableOf("Readings");
  ASSERT_EQ(rows.size(), kReadingCount);
  for (const QStringList& row : rows) {
    const auto id = readingNamed(row[2].mid(1, row[2].size() - 2).toStdString());
    ASSERT_TRUE(id) << row[2].toStdString();
    EXPECT_EQ(row[0], spokenName(*id));
    EXPECT_EQ(row[1], fieldName(*id)) << row[0].toStdString();
  }
}

TEST(HowMeasured, SaysNothingThatIsSaidOtherwise) {
  const std::vector<QStringList> otherwise = test::tableOf("Said otherwise");
  ASSERT_FALSE(otherwise.empty());
  for (const Protocol p : kAllProtocols) {
    for (const ReadingSpec& spec : readingsOf(p)) {
      const QString how = howMeasured({spec.id, 1.0, std::string(spec.unit), 0.1, 3.0});
      for (const QStringList& row : otherwise) EXPECT_FALSE(how.contains(row[0])) << how.toStdString();
    }
  }
}

TEST(SpokenAs, HasTheUnitOfTheReading) {
  EXPECT_EQ(spokenAs(ReadingId::FallRate, 160.0, 2.0, UnitSystem::Metric), QString::fromUtf8("160 ± 2 mm/s"));
  EXPECT_EQ(spokenAs(ReadingId::FallRate, 254.0, 2.54, UnitSystem::Imperial),
            QString::fromUtf8("10.00 ± 0.10 in/s"));
  EXPECT_EQ(spokenAs(ReadingId::OnsetSpeed, 115.0, 6.0, UnitSystem::Metric),
            QString::fromUtf8("115 ± 6 mm/s"));
  EXPECT_EQ(shownUnit(ReadingId::RattleRate, UnitSystem::Metric).unit, "per second");
  EXPECT_EQ(shownUnit(ReadingId::RattlePeakFrequency, UnitSystem::Imperial).unit, "Hz")
      << "a pitch, not a rate";
  EXPECT_TRUE(spokenAs(ReadingId::WobbleAngle, -0.4, 0.1, UnitSystem::Metric).startsWith(QChar(0x2212)))
      << "a minus is no hyphen";
}

TEST(SpokenOrigin, TellsClipFramesMethodAndWhen) {
  const double noon = static_cast<double>(QDateTime(QDate(2026, 11, 27), QTime(12, 5)).toSecsSinceEpoch());
  const Provenance from{"/pool/clips/pull one.mp4", {1234, "abcd"}, 12, {100, 96, 3}, 10, noon};
  EXPECT_EQ(
      spokenOrigin(from),
      "From pull one.mp4, frames 12 to 111: 96 followed, 3 bridged over short gaps. Measured on 27 Nov 2026, "
      "12:05, method 10.");
  Provenance early = from;
  early.madeAt_s = 0.0;
  EXPECT_TRUE(spokenOrigin(early).endsWith("Measured by method 10; when is not known."));
}

TEST(HowMeasured, TellsDefinitionCountSharesAndNotes) {
  Reading r{ReadingId::TravelSpeed, 250.0, "mm/s", 5.0, 240.0, Grade::Good, {"a note"}};
  r.parts = {{UncertaintySource::Scale, 4.0}, {UncertaintySource::Marks, 3.0}};
  const QString how = howMeasured(r);
  for (const char* part : {"its slope is the speed", "240 frames stand behind it", "the known length 64 %",
                           "the placing of the marks 36 %", "a longer known length", "a note."})
    EXPECT_TRUE(how.contains(part)) << part << "\n" << how.toStdString();
  Reading wobble{ReadingId::WobbleAngle, 20.0, "deg", 1.0, 9.0};
  EXPECT_TRUE(howMeasured(wobble).contains("9 whole wobbles stand behind it"));
  EXPECT_FALSE(howMeasured(wobble).contains("It comes from")) << "its parts are not told apart";
}

TEST(AsSentence, BeginsWithACapitalButLeavesAFilesName) {
  EXPECT_EQ(asSentence("the nose is doubtful"), "The nose is doubtful");
  EXPECT_EQ(asSentence("notes.mp4: no film"), "notes.mp4: no film");
  EXPECT_EQ(asSentence(""), "");
}

TEST(Counted, AgreesWithItsNumber) {
  EXPECT_EQ(counted(1, "pass", "passes"), "1 pass");
  EXPECT_EQ(counted(0, "pass", "passes"), "0 passes");
  EXPECT_EQ(counted(7, "pass", "passes"), "7 passes");
}

TEST(SpokenSpeed, HasADecimalOnlyWhereTheUnitIsCoarse) {
  EXPECT_EQ(spokenSpeed(254.0, UnitSystem::Metric), "254 mm/s");
  EXPECT_EQ(spokenSpeed(254.0, UnitSystem::Imperial), "10.0 in/s");
}

}  // namespace
}  // namespace fin::app
