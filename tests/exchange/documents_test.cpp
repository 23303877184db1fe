// SPDX-License-Identifier: GPL-3.0-or-later
// The documents within a log: what they carry there and back, and what happens where a part is missing or
// odd.
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>
#include <random>

#include "core/exchange/json_documents.h"
#include "core/exchange/plan_json.h"
#include "core/exchange/verdict_json.h"

namespace fin::records {
namespace {

using nlohmann::json;

PlannedPass wholePass() {
  PlannedPass p{.id = 3, .rig = 2, .protocol = Protocol::Walk, .view = View::Top};
  p.speed_mm_s = 250.5;
  p.block = 2;
  p.control = true;
  p.attempt = 3;
  p.state = PassState::Skipped;
  p.label = "B";
  p.whyFouled = "a leaf";
  p.note = "windy";
  p.piece = 9;
  p.lineOut_mm = 12000.0;
  p.light = "cloud";
  p.wind = "calm";
  p.water_C = 14.5;
  p.salinity_g_kg = 6.0;
  p.finished_s = 1.75e9;
  return p;
}

VerdictPlan wholeVerdict() {
  VerdictPlan v;
  v.wishes = {{ReadingId::PauseDrift, Direction::Target, 2.5, 2.0, 260.0, PointsCurve{12.0, 6.0, 0.0}}};
  v.purposes = {{"Under the ice", {{.reading = ReadingId::FallRate, .direction = Direction::Less}}}};
  v.prey_mm = 60.0;
  v.pricesFrom = "the shop, this week";
  v.interest = "one of us";
  v.judgements.scores = {{"Look", "Vinto 11", "one", 7.5}};
  v.judgements.duels = {{"Glow", "Vinto 11", "Hasp 14", 0.5}};
  v.conclusion = "all good";
  v.wishes.push_back({.reading = ReadingId::FallMode, .className = "glide", .demanded = true});
  v.worths = {{ReadingId::FallRate, 0.05}};
  v.vote = {"0a", "Which?", {"Vinto 11", "Hasp 14"}, {{"x", {{0, 1, 1.0}, {1, 0, 0.5}}}}};
  return v;
}

TEST(Documents, CarryAPassAndAVerdictThereAndBack) {
  EXPECT_EQ(*plannedFrom(toJson(wholePass())), wholePass());
  EXPECT_EQ(*verdictFrom(toJson(wholeVerdict())), wholeVerdict());
}

TEST(Documents, CarryWhatALogHoldsOfItsLuresThereAndBack) {
  const Edition edition{
      .id = 1, .was = {.id = 2, .model = 3, .name = "7 g head", .hookSize = "4"}, .days = {1, 20}};
  EXPECT_EQ(*editionFrom(toJson(edition)), edition);
  const Piece piece{4, 3, 2, PieceState::Lost, 1.9, "EUR", "in the reeds"};
  EXPECT_EQ(*pieceFrom(toJson(piece)), piece);
  const Price price{5, 3, 1.9, "EUR", "Vemmelin", "2027-05-02"};
  EXPECT_EQ(*priceFrom(toJson(price)), price);
  const Claim claim{6, 3, "hangs", ReadingId::RiseRate, -5.0, {}};
  EXPECT_EQ(*claimFrom(toJson(claim)), claim);
  const WaterBody water{7, "Trough", "behind the loft", "shady", {"a.jpg"}};
  EXPECT_EQ(*waterBodyFrom(toJson(water)), water);
  DayPlan day;
  day.kind = DayKind::Water;
  day.date = "2027-05-02";
  day.waterBody = 7;
  day.people = "two of us";
  day.photos = {"b.jpg"};
  day.foretold = {{{11, ReadingId::FallRate, false, 200.0, 0.7, 1e9}},
                  {{ReadingId::FallRate, {11, 12}, 2e9}}};
  day.waterDay = {{SchoolSide::ByPrey, SchoolSide::Finesse}, 3, 20.0, 15.0, 7};
  day.conditions = {{1e9, Condition::Clarity, 2.2, ""},
                    {2e9, Condition::Light, {}, "dusk"},
                    {3e9, Condition::Tide, {}, ""}};
  EXPECT_EQ(*dayFrom(dayToJson(day)), day);
}

TEST(Documents, CarryADayOnTheWaterThereAndBack) {
  const RunEvent fish{9,     1.8e9,          RunEventKind::Caught, 2,    11,    3,    420.0, 4,
                      510.0, TakenOn::Pause, HookedWhere::Mouth,   true, 1.9e9, true, 2,     "by the wall"};
  EXPECT_EQ(*runEventFrom(toJson(fish)), fish);
  const TieRule rule{8, "3", "clarity < 1", "rattle_level + x2", "felt before seen", false};
  EXPECT_EQ(*tieRuleFrom(toJson(rule)), rule);
  const Rig rig{.id = 2, .model = 1, .heard = {1000.0, 1500.0, 800.0, 1200.0, "a friend"}};
  EXPECT_EQ(*rigFrom(toJson(rig)), rig);
  const Model model{.id = 1, .finish = Finish::Dull};
  EXPECT_EQ(*modelFrom(toJson(model)), model);
}

TEST(Documents, TakeWhatIsMissingAsItIsByDefault) {
  EXPECT_EQ(*modelFrom("{}"), Model{});
  EXPECT_EQ(*rigFrom(R"({"id": 4})"), (Rig{.id = 4}));
  EXPECT_EQ(*dayFrom("{}"), DayPlan{});
  // Each key of a whole document, left out in turn.
  const json whole = json::parse(toJson(wholePass()));
  for (const auto& [key, value] : whole.items()) {
    json less = whole;
    less.erase(key);
    const auto read = plannedFrom(less.dump());
    ASSERT_TRUE(read) << key;
    EXPECT_NE(*read, wholePass()) << key << " was not kept";
  }
}

TEST(Documents, NameWhatCannotBeRead) {
  for (const char* text : {"", "[]", "3", "{\"id\": \"three\"}", "{\"protocol\": \"swim\"}", "{\"view\": 3}",
                           "{\"speed_mm_s\": \"fast\"}", "{\"id\": 1", "{\"control\": 7}"}) {
    const auto read = plannedFrom(text);
    ASSERT_FALSE(read) << text;
    EXPECT_EQ(read.error().code, ErrorCode::Unreadable);
    EXPECT_FALSE(read.error().message.empty());
  }
  EXPECT_FALSE(verdictFrom(R"({"wishes": [{"reading": "shimmer"}]})")) << "a reading of a later program";
  EXPECT_FALSE(verdictFrom(R"({"wishes": [{"reading": "fall_rate", "direction": "up"}]})"));
}

TEST(Documents, KeepKeysOfALaterProgram) {
  const std::string stored = R"({"id": 3, "name": "Vinto 11", "scent": "garlic", "length_mm": 110})";
  auto model = modelFrom(stored);
  ASSERT_TRUE(model);
  model->length_mm = 112.0;
  const json after = json::parse(updated(stored, toJson(*model)));
  EXPECT_EQ(after["scent"], "garlic");
  EXPECT_EQ(after["length_mm"], 112.0);
  EXPECT_EQ(after["name"], "Vinto 11");
}

TEST(Documents, CallNothingAsTheProgramsMembersAreCalled) {
  DayPlan day;
  day.options.tasks = {{Protocol::Fall, View::Side, {1.0}}};
  for (const std::string& text :
       {toJson(Model{}), toJson(Rig{}), toJson(wholePass()), dayToJson(day), toJson(wholeVerdict())}) {
    const json flat = json::parse(text).flatten();
    for (const auto& [path, value] : flat.items()) {
      // Small letters and signs; capitals only in units (Hz, C).
      for (std::size_t i = 1; i < path.size(); ++i)
        EXPECT_FALSE(std::isupper(path[i]) != 0 && path[i - 1] != '_') << path;
    }
  }
}

/// A document with one of its bytes changed, taken out or put in twice, or a part of it missing.
std::string spoilt(std::string text, std::mt19937& random) {
  const auto place = [&] { return random() % text.size(); };
  switch (random() % 4) {
    case 0:
      text[place()] = static_cast<char>(random() % 256);
      break;
    case 1:
      text.erase(place(), 1 + random() % 20);
      break;
    case 2:
      text.insert(place(), 1, text[place()]);
      break;
    default:
      text.resize(place());
  }
  return text;
}

TEST(Documents, AreThrownByNothingAndNeverReadAsWhatTheyAreNot) {
  std::mt19937 random(17);
  const std::string pass = toJson(wholePass());
  const std::string verdict = toJson(wholeVerdict());
  const std::string day = dayToJson(DayPlan{});
  std::size_t read = 0;
  for (int i = 0; i < 4000; ++i) {
    const auto p = plannedFrom(spoilt(pass, random));
    const auto v = verdictFrom(spoilt(verdict, random));
    const auto d = dayFrom(spoilt(day, random));
    // What can be read again says the same once more: nothing half read is handed on.
    if (p) {
      EXPECT_EQ(*plannedFrom(toJson(*p)), *p);
      ++read;
    }
    if (v) {
      EXPECT_EQ(*verdictFrom(toJson(*v)), *v);
    }
    if (d) {
      EXPECT_EQ(*dayFrom(dayToJson(*d)), *d);
    }
  }
  EXPECT_GT(read, 200U) << "many a change is within a text or a number";
  EXPECT_LT(read, 3600U) << "and many break it";
}

}  // namespace
}  // namespace fin::records
