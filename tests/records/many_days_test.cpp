// SPDX-License-Identifier: GPL-3.0-or-later
// A log of several days: what is a day's own, what is all days', and what is only out of sight.
#include <SQLiteCpp/SQLiteCpp.h>
#include <gtest/gtest.h>

#include "core/records/day_readings.h"
#include "core/records/log.h"
#include "support/logged.h"
#include "support/small_scene.h"

namespace fin {
namespace {

class ManyDays : public testing::Test {
 protected:
  void SetUp() override {
    log_ = std::move(*Log::open(folder_ / "season.finlog"));
    first_.rack.models = {{.id = 1, .name = "Vinto"}};
    first_.rack.rigs = {{.id = 2, .model = 1, .name = "7 g head", .hookSize = "4"}};
    first_.rack.pieces = {{.id = 3, .model = 1, .number = 1, .state = PieceState::Worn, .paid = 1.9}};
    first_.rack.prices = {{.id = 4, .model = 1, .amount = 1.9, .currency = "EUR", .shop = "Vemmelin"}};
    first_.rack.claims = {{.id = 5, .model = 1, .reading = ReadingId::RiseRate, .least = -5.0, .most = 5.0}};
    first_.waters = {{.id = 6, .name = "Trough", .position = "not for others"}};
    first_.name = "Trough";
    first_.date = "2027-05-02";
    first_.waterBody = 6;
    first_.sheet = {{.id = 7, .rig = 2, .state = PassState::Done}};
    ASSERT_TRUE(log_->savePlan(DayPlan{}, first_));
    second_.id = 20;
    second_.rack = first_.rack;
    second_.waters = first_.waters;
    DayPlan fresh = second_;
    second_.kind = DayKind::Water;
    second_.date = "2027-04-01";
    second_.sheet = {{.id = 21, .rig = 2, .state = PassState::Done}};
    ASSERT_TRUE(log_->savePlan(fresh, second_));
  }
  PassId pass(DayId day, PlannedPassId planned, double rate) {
    PassRequest request;
    request.clip = folder_ / ("clip " + std::to_string(planned.value()) + ".mp4");
    test::write(request.clip, "clip " + std::to_string(planned.value()));
    const PassId id = test::addPass(*log_, "fall", request, planned, "top");
    const LoggedPass before = *log_->pass(id);
    LoggedPass after = before;
    after.day = day;
    EXPECT_TRUE(log_->changePasses({{before, after}}));
    test::keepReadings(*log_, id, {{{ReadingId::FallRate, rate, "mm/s", 1.0, 60.0}}, {}});
    return id;
  }

  test::TemporaryFolder folder_;
  std::unique_ptr<Log> log_;
  DayPlan first_;
  DayPlan second_;
  FingerprintCache fingerprints_;
};

TEST_F(ManyDays, KeepEachWhatIsItsOwnAndShareTheRest) {
  log_.reset();
  log_ = std::move(*Log::open(folder_ / "season.finlog"));
  EXPECT_EQ(*log_->plan(1), first_);
  EXPECT_EQ(*log_->plan(20), second_);
  const auto days = log_->days();
  ASSERT_TRUE(days);
  ASSERT_EQ(days->size(), 2U);
  EXPECT_EQ((*days)[0].id, DayId(20)) << "by date";
  EXPECT_EQ((*days)[0].kind, DayKind::Water);
  EXPECT_EQ((*days)[1].name, "Trough");
  EXPECT_EQ((*days)[1].planned, 1U);
  EXPECT_GT(*log_->freeId(), 21);
  DayPlan after = second_;
  after.rack.models[0].note = "said on the second day";
  ASSERT_TRUE(log_->savePlan(second_, after));
  EXPECT_EQ(log_->plan(1)->rack.models[0].note, "said on the second day");
  VerdictPlan verdict;
  verdict.interest = "none";
  ASSERT_TRUE(log_->saveVerdict({}, verdict, 20));
  EXPECT_EQ(log_->verdict(20)->interest, "none");
  EXPECT_EQ(log_->verdict(1)->interest, "");
}

TEST_F(ManyDays, OfOneDateAreInTheOrderOfTheirNumbers) {
  DayPlan after = second_;
  after.date = first_.date;
  ASSERT_TRUE(log_->savePlan(second_, after));
  EXPECT_EQ(log_->days()->front().id, DayId(1));
}

TEST_F(ManyDays, ArePutOutOfSightWithTheirPassesAndComeBack) {
  const PassId id = pass(20, 21, 200.0);
  ASSERT_TRUE(log_->hideDay(20, true));
  EXPECT_EQ(log_->days()->size(), 1U);
  EXPECT_TRUE(log_->passes()->empty());
  ASSERT_TRUE(log_->hideDay(20, false));
  EXPECT_EQ(log_->passes()->front().id, id);
  EXPECT_EQ(*log_->plan(20), second_);
}

TEST_F(ManyDays, WhatIsTakenOutIsHiddenAndComesBackByItsNumber) {
  DayPlan without = first_;
  without.rack.rigs.clear();
  ASSERT_TRUE(log_->savePlan(first_, without));
  EXPECT_TRUE(log_->plan(1)->rack.rigs.empty());
  {
    SQLite::Database plain((folder_ / "season.finlog").string(), SQLite::OPEN_READONLY);
    EXPECT_EQ(plain.execAndGet("SELECT count(*) FROM rig WHERE removed = 1").getInt(), 1)
        << "nothing is deleted";
  }
  ASSERT_TRUE(log_->savePlan(without, first_));
  EXPECT_EQ(*log_->plan(1), first_);
  const auto twice = log_->savePlan(without, first_);
  ASSERT_FALSE(twice) << "it is there already";
  EXPECT_EQ(twice.error().code, ErrorCode::MovedOn);
}

TEST_F(ManyDays, KnowEachRowByARandomNumberAndWhenItWasChanged) {
  const auto ask = [this](const std::string& sql) {
    SQLite::Database plain((folder_ / "season.finlog").string(), SQLite::OPEN_READONLY);
    return plain.execAndGet(sql).getString();
  };
  const std::string uid = ask("SELECT uid FROM model");
  EXPECT_EQ(uid.size(), 16U);
  EXPECT_NE(uid, ask("SELECT uid FROM rig"));
  const double before = std::stod(ask("SELECT edited_s FROM model"));
  EXPECT_GT(before, 1.7e9);
  DayPlan after = first_;
  after.rack.models[0].note = "changed";
  ASSERT_TRUE(log_->savePlan(first_, after));
  EXPECT_EQ(ask("SELECT uid FROM model"), uid);
  EXPECT_GE(std::stod(ask("SELECT edited_s FROM model")), before);
  EXPECT_EQ(ask("SELECT count(*) FROM planned_pass WHERE uid IS NULL"), "0");
}

TEST_F(ManyDays, ComparedTogetherKeepTheirBlocksAndCamerasApart) {
  pass(1, 7, 200.0);
  pass(20, 21, 210.0);
  EXPECT_EQ(dayReadings(*log_, first_, fingerprints_)->current.size(), 1U);
  const auto both = readingsOver(*log_, {first_, second_}, fingerprints_);
  ASSERT_TRUE(both);
  ASSERT_EQ(both->current.size(), 2U);
  EXPECT_NE(both->current[0].block, both->current[1].block);
  EXPECT_NE(both->current[0].cameraDay, both->current[1].cameraDay);
  EXPECT_EQ(both->current[0].rig, both->current[1].rig);
}

TEST_F(ManyDays, ARigThatWasChangedByThenIsAnotherRig) {
  pass(1, 7, 200.0);
  pass(20, 21, 210.0);
  first_.rack.editions = {{.id = 30, .was = first_.rack.rigs[0], .days = {1}}};
  first_.rack.rigs[0].hookSize = "2";
  second_.rack = first_.rack;
  const auto both = readingsOver(*log_, {first_, second_}, fingerprints_);
  ASSERT_TRUE(both);
  EXPECT_EQ(both->current[0].rig, "Vinto, 7 g head (hook 4)");
  EXPECT_EQ(both->current[1].rig, "Vinto, 7 g head");
}

}  // namespace
}  // namespace fin
