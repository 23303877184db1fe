// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/frame_loader.h"
#include "app/jobs/job.h"
#include "core/rehearsal/rehearse.h"

#include <gtest/gtest.h>

#include <QtTest/QTest>
#include <atomic>
#include <stdexcept>

namespace fin::app {
namespace {

constexpr int kPatience_ms = 20000;

TEST(Job, HandsItsOutcomeToTheThreadThatBeganIt) {
  Job<int> job;
  std::optional<int> got;
  QThread* on = nullptr;
  job.start([](const JobControl&) -> Result<int> { return 7; },
            [&](Result<int> outcome) {
              got = *outcome;
              on = QThread::currentThread();
            });
  EXPECT_TRUE(job.running());
  EXPECT_FALSE(got) << "never from within start";
  ASSERT_TRUE(QTest::qWaitFor([&] { return got.has_value(); }, kPatience_ms));
  EXPECT_EQ(got, 7);
  EXPECT_EQ(on, QThread::currentThread());
  EXPECT_FALSE(job.running());
}

TEST(Job, TellsAnExceptionAsAFaultOfTheProgram) {
  Job<int> job;
  std::optional<Error> told;
  job.start([](const JobControl&) -> Result<int> { throw std::runtime_error("out of paint"); },
            [&](Result<int> outcome) { told = outcome.error(); });
  ASSERT_TRUE(QTest::qWaitFor([&] { return told.has_value(); }, kPatience_ms));
  EXPECT_EQ(told->code, ErrorCode::Broken);
  EXPECT_NE(told->message.find("out of paint"), std::string::npos);
}

/// Work that goes on until it is asked to stop, and a while longer if it is told so.
struct Stubborn {
  std::shared_ptr<std::atomic<int>> begun = std::make_shared<std::atomic<int>>(0);
  std::shared_ptr<std::atomic<int>> ended = std::make_shared<std::atomic<int>>(0);
  std::shared_ptr<std::atomic<bool>> letGo = std::make_shared<std::atomic<bool>>(false);

  [[nodiscard]] Job<int>::Work work() const {
    return [*this](const JobControl& control) -> Result<int> {
      ++*begun;
      while (!control.cancelled() || !*letGo) QThread::msleep(1);
      ++*ended;
      return 1;
    };
  }
};

TEST(Job, StopsWithoutWaitingAndItsOutcomeIsVoid) {
  Stubborn stubborn;
  Job<int> job;
  int done = 0;
  job.start(stubborn.work(), [&](Result<int>) { ++done; });
  ASSERT_TRUE(QTest::qWaitFor([&] { return *stubborn.begun == 1; }, kPatience_ms));
  job.stop();  // returns although the work has not let go
  EXPECT_EQ(*stubborn.ended, 0);
  EXPECT_FALSE(job.running());
  *stubborn.letGo = true;
  ASSERT_TRUE(QTest::qWaitFor([&] { return *stubborn.ended == 1; }, kPatience_ms));
  QTest::qWait(20);
  EXPECT_EQ(done, 0);
}

TEST(Job, ANewerStartMakesTheOlderOutcomeVoid) {
  Stubborn older;
  Job<int> job;
  std::vector<int> got;
  job.start(older.work(), [&](Result<int>) { got.push_back(1); });
  ASSERT_TRUE(QTest::qWaitFor([&] { return *older.begun == 1; }, kPatience_ms));
  job.start([](const JobControl&) -> Result<int> { return 2; },
            [&](Result<int> outcome) { got.push_back(*outcome); });
  ASSERT_TRUE(QTest::qWaitFor([&] { return !got.empty(); }, kPatience_ms))
      << "the newer one does not wait for the older";
  *older.letGo = true;
  ASSERT_TRUE(QTest::qWaitFor([&] { return *older.ended == 1; }, kPatience_ms));
  QTest::qWait(20);
  EXPECT_EQ(got, std::vector{2});
}

TEST(Job, OutlivesItsOwnerQuietly) {
  Stubborn stubborn;
  int done = 0;
  {
    Job<int> job;
    job.start(stubborn.work(), [&](Result<int>) { ++done; });
    ASSERT_TRUE(QTest::qWaitFor([&] { return *stubborn.begun == 1; }, kPatience_ms));
  }
  *stubborn.letGo = true;
  ASSERT_TRUE(QTest::qWaitFor([&] { return *stubborn.ended == 1; }, kPatience_ms));
  QTest::qWait(20);
  EXPECT_EQ(done, 0);
}

TEST(Job, MayBeginAnewFromItsOwnEnd) {
  Job<int> job;
  int rounds = 0;
  std::function<void()> begin = [&] {
    job.start([](const JobControl&) -> Result<int> { return 1; },
              [&](Result<int>) {
                if (++rounds < 3) begin();
              });
  };
  begin();
  ASSERT_TRUE(QTest::qWaitFor([&] { return rounds == 3; }, kPatience_ms));
  EXPECT_FALSE(job.running());
}

TEST(Job, ReportsHowFarItIs) {
  Job<int> job;
  std::vector<double> shares;
  bool done = false;
  job.start(
      [](const JobControl& control) -> Result<int> {
        for (int i = 1; i <= 10; ++i) {
          control.report(0.1 * i);
          QThread::msleep(60);  // nobody is told more often than a person can read
        }
        return 1;
      },
      [&](Result<int>) { done = true; },
      [&](double share, double left_s) {
        shares.push_back(share);
        EXPECT_GE(left_s, 0.0);
      });
  ASSERT_TRUE(QTest::qWaitFor([&] { return done; }, kPatience_ms));
  ASSERT_GE(shares.size(), 2U);
  EXPECT_TRUE(std::is_sorted(shares.begin(), shares.end()));
  EXPECT_LE(shares.back(), 1.0);
}

TEST(FrameLoader, MayGoWhileItsThreadDecodes) {
  const auto file = std::filesystem::temp_directory_path() / "agile-fin-loader.mp4";
  RehearsalScene scene;
  scene.camera.width_px = 320;
  scene.camera.height_px = 180;
  scene.length = Seconds(0.2);
  ASSERT_TRUE(filmRehearsal(scene, file));
  const auto clip = Clip::open(file);
  ASSERT_TRUE(clip);
  int loaded = 0;
  for (int i = 0; i < 20; ++i) {
    FrameLoader loader;
    QObject::connect(&loader, &FrameLoader::loaded, &loader, [&] { ++loaded; });
    loader.setClip(*clip);
    loader.request(static_cast<std::size_t>(i));
  }
  QTest::qWait(100);
  EXPECT_EQ(loaded, 0) << "what comes after the loader has gone is not delivered";
  std::filesystem::remove(file);
}

}  // namespace
}  // namespace fin::app
