// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/commands/edits.h"

#include <gtest/gtest.h>

#include <optional>
#include <string>

namespace fin::app {
namespace {

/// A number that is changed by acts, which fail while they are told to.
struct Counter {
  int value = 0;
  std::optional<ErrorCode> fails;
  Edits::Act add(int amount) {
    return [this, amount]() -> Result<void> {
      if (fails) return failure(*fails, "it would not");
      value += amount;
      return {};
    };
  }
};

TEST(Edits, RememberWhatWasDoneAndNotWhatFailed) {
  Counter counter;
  Edits edits;
  QStringList told;
  QObject::connect(&edits, &Edits::told, &edits, [&](const QString& why, bool) { told += why; });
  ASSERT_TRUE(edits.perform("One", counter.add(1), counter.add(-1)));
  counter.fails = ErrorCode::NotWritable;
  EXPECT_FALSE(edits.perform("Ten", counter.add(10), counter.add(-10)));
  EXPECT_EQ(edits.count(), 1);
  EXPECT_EQ(edits.undoText(), "One");
  EXPECT_EQ(told, QStringList{"it would not"});
}

TEST(Edits, StandStillWhenUndoingOrRedoingFails) {
  Counter counter;
  Edits edits;
  ASSERT_TRUE(edits.perform("One", counter.add(1), counter.add(-1)));
  counter.fails = ErrorCode::NotWritable;
  edits.undo();
  EXPECT_TRUE(edits.canUndo()) << "it can be tried again";
  EXPECT_EQ(counter.value, 1);
  counter.fails.reset();
  edits.undo();
  EXPECT_EQ(counter.value, 0);
  counter.fails = ErrorCode::NotWritable;
  edits.redo();
  EXPECT_TRUE(edits.canRedo());
  counter.fails.reset();
  edits.redo();
  EXPECT_EQ(counter.value, 1);
}

TEST(Edits, ForgetWhatCanNeverBeUndoneAnyMore) {
  Counter counter;
  Edits edits;
  int movedOn = 0;
  QObject::connect(&edits, &Edits::movedOn, &edits, [&] { ++movedOn; });
  ASSERT_TRUE(edits.perform("One", counter.add(1), counter.add(-1)));
  ASSERT_TRUE(edits.perform("Two", counter.add(2), counter.add(-2)));
  counter.fails = ErrorCode::MovedOn;
  edits.undo();
  EXPECT_EQ(movedOn, 1);
  EXPECT_EQ(edits.undoText(), "One");
  counter.fails.reset();
  edits.undo();
  EXPECT_EQ(counter.value, 2) << "only what was One is taken back";
}

TEST(Edits, SwapAWholeValueThereAndBackAndDoNothingForNothing) {
  Edits edits;
  std::string shown = "as it was";
  bool fails = false;
  const auto write = [&](const std::string& from, const std::string& to) -> Result<void> {
    if (fails || from != shown) return failure(ErrorCode::MovedOn, "it stands on something else");
    shown = to;
    return {};
  };
  const auto changeTo = [&](const char* text) {
    return edits.swap<std::string>(
        "Change", shown, [text](std::string& s) { s = text; }, write);
  };
  EXPECT_TRUE(changeTo("as it was"));
  EXPECT_EQ(edits.count(), 0) << "nothing to be undone";
  EXPECT_TRUE(changeTo("otherwise"));
  EXPECT_EQ(shown, "otherwise");
  fails = true;
  EXPECT_FALSE(changeTo("lost"));
  EXPECT_EQ(shown, "otherwise");
  EXPECT_EQ(edits.count(), 1);
  fails = false;
  edits.undo();
  EXPECT_EQ(shown, "as it was");
  edits.redo();
  EXPECT_EQ(shown, "otherwise");
}

}  // namespace
}  // namespace fin::app
