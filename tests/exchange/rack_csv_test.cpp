// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/rack_csv.h"

#include <gtest/gtest.h>

#include <random>

namespace fin {
namespace {

RackImport import(const std::string& text) {
  const auto table = readCsv(text);
  EXPECT_TRUE(table);
  auto done = importRack({}, *table, guessColumns(*table));
  EXPECT_TRUE(done) << (done ? "" : done.error().message);
  return *done;
}

TEST(RackCsv, TakesSemicolonsDecimalCommasAndAByteOrderMark) {
  const auto done = import(
      "\xEF\xBB\xBFModel;Type;Length;Weight;Rig;Head\r\nVinto 11;soft plastic;110,5;9;7 g head;7\r\n"
      "Vinto 11;soft plastic;110,5;9;4 g head;4,0\r\nOblig 18;spoon;64;18;;\r\n");
  EXPECT_TRUE(done.bad.empty());
  ASSERT_EQ(done.rack.models.size(), 2U);
  ASSERT_EQ(done.rack.rigs.size(), 3U);
  EXPECT_EQ(done.rack.models[0].length_mm, 110.5);
  EXPECT_EQ(done.rack.rigs[1].head_g, 4.0);
  EXPECT_EQ(done.rack.fullName(done.rack.rigs[1]), "Vinto 11, 4 g head");
  EXPECT_EQ(done.rack.models[1].family, Family::Spoon);
}

TEST(RackCsv, TakesTheUnitThatAHeadNames) {
  const auto done = import("Model,Weight (oz),length_in,\"Hook, g\"\nVinto,0.5,4,1.2\nOblag,3/8,90 mm,\n");
  ASSERT_EQ(done.rack.models.size(), 2U) << done.bad.front().why;
  EXPECT_NEAR(*done.rack.models[0].weight_g, 14.1748, 1e-4);
  EXPECT_NEAR(*done.rack.models[0].length_mm, 101.6, 1e-9);
  EXPECT_EQ(done.rack.rigs[0].hook_g, 1.2);
  EXPECT_NEAR(*done.rack.models[1].weight_g, 10.6311, 1e-4);
  EXPECT_NEAR(*done.rack.models[1].length_mm, 90.0, 1e-9) << "a cell's own unit comes first";
}

TEST(RackCsv, NamesABadLineAndGoesOn) {
  const auto done =
      import("model,family,weight_g\nA,spoon,12\nB,teapot,3\nC,spoon,heavy\n,spoon,4\nD,jerkbait,9\nE\n");
  EXPECT_EQ(done.rack.models.size(), 2U);
  ASSERT_EQ(done.bad.size(), 4U);
  EXPECT_EQ(done.bad[0].line, 3U);
  EXPECT_NE(done.bad[0].why.find("teapot"), std::string::npos);
  EXPECT_EQ(done.bad[1].line, 4U);
  EXPECT_NE(done.bad[1].why.find("weight_g"), std::string::npos);
  EXPECT_EQ(done.bad[2].line, 5U);
  EXPECT_EQ(done.bad[3].line, 7U);
}

TEST(RackCsv, ComesBackFromItsOwnExport) {
  Rack rack;
  rack.models.push_back({.id = 1,
                         .name = "Skrell \"95\", long",
                         .family = Family::Jerkbait,
                         .length_mm = 95.0,
                         .price = 12.5,
                         .currency = "EUR",
                         .buoyancy = Buoyancy::Hangs,
                         .graded = false,
                         .whyNotGraded = "a member\ndesigned it"});
  rack.rigs.push_back(
      {.id = 2, .model = 1, .name = "size 4", .hook_g = 0.8, .insertPlace = InsertPlace::Low});
  const auto table = readCsv(writeCsv(exportRack(rack)));
  ASSERT_TRUE(table);
  const auto back = importRack({}, *table, guessColumns(*table));
  ASSERT_TRUE(back);
  EXPECT_TRUE(back->bad.empty()) << back->bad.front().why;
  EXPECT_EQ(back->rack, rack);
}

TEST(RackCsv, ReadsTenThousandLines) {
  std::string text = "model\tfamily\trig\n";
  for (int i = 0; i < 10000; ++i)
    text += "M" + std::to_string(i / 4) + "\tspoon\tR" + std::to_string(i) + "\n";
  const auto done = import(text);
  EXPECT_EQ(done.rack.models.size(), 2500U);
  EXPECT_EQ(done.rack.rigs.size(), 10000U);
}

TEST(RackCsv, AsksForTheNameWhereNoColumnHoldsIt) {
  const auto table = readCsv("what,heavy\nA,3\n");
  ASSERT_TRUE(table);
  EXPECT_EQ(importRack({}, *table, guessColumns(*table)).error().where, "model");
  EXPECT_TRUE(importRack({}, *table, {{"model", 0}, {"weight_g", 1}}));
  EXPECT_FALSE(readCsv(""));
}

TEST(RackCsv, ReadsWhatSpreadsheetsMakeOfIt) {
  // "modèle;poids", "Vérité;9,5" in the encodings that spreadsheets write.
  const std::string utf8 = "mod\xC3\xA8le;poids\nV\xC3\xA9rit\xC3\xA9;9,5\n";
  const std::string latin1 = "mod\xE8le;poids\nV\xE9rit\xE9;9,5\n";
  std::string low = "\xFF\xFE";
  std::string high = "\xFE\xFF";
  for (const char c : latin1) {
    low += {c, '\0'};
    high += {'\0', c};
  }
  for (const std::string& bytes : {utf8, "\xEF\xBB\xBF" + utf8, latin1, low, high}) {
    const auto table = readCsv(bytes);
    ASSERT_TRUE(table);
    EXPECT_EQ(table->heads, (std::vector<std::string>{"mod\xC3\xA8le", "poids"}));
    EXPECT_EQ(table->rows, (std::vector<std::vector<std::string>>{{"V\xC3\xA9rit\xC3\xA9", "9,5"}}));
  }
}

TEST(RackCsv, NamesTheLineOfAQuoteThatIsNeverClosed) {
  std::string text = "model,note\nA,plain\nB,\"opened\n";
  for (int i = 0; i < 100000; ++i) text += "C,more\n";
  const auto table = readCsv(text);
  ASSERT_FALSE(table);
  EXPECT_NE(table.error().message.find("line 3"), std::string::npos) << table.error().message;
  // An inch mark is no quote, and a note may have a few lines.
  EXPECT_TRUE(readCsv("model,note\nA 5\",short\nB,\"two\nlines\"\n"));
}

TEST(RackCsv, WritesNoFormulas) {
  const CsvTable table{',', {"model", "note"}, {{"=1+1", "-12.5"}, {"@cmd", "+a"}, {"'quoted", "-"}}};
  const std::string text = writeCsv(table);
  EXPECT_EQ(text, "model,note\n'=1+1,-12.5\n'@cmd,'+a\n'quoted,'-\n");
  const auto back = readCsv(text);
  ASSERT_TRUE(back);
  EXPECT_EQ(back->rows, table.rows) << "and reads them back as they were";
}

TEST(RackCsv, IsThrownByNothingThatIsNoTable) {
  std::mt19937 draw(7);
  const std::string alphabet = "ab,;\t|\"\n\r='\xE9\xFF\xC3\xA8";
  for (int round = 0; round < 2000; ++round) {
    std::string text;
    for (std::size_t n = draw() % 60; n > 0; --n) text += alphabet[draw() % alphabet.size()];
    const auto table = readCsv(text);
    EXPECT_TRUE(table || !table.error().message.empty());
  }
}

}  // namespace
}  // namespace fin
