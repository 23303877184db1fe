// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/session.h"

#include <gtest/gtest.h>

#include "core/rehearsal/rehearse.h"
#include "support/logged.h"
#include "support/reading_words.h"
#include "support/small_scene.h"

namespace fin {
namespace {

constexpr const char* kSha = "0123";

PassRequest markedRequest() {
  PassRequest request;
  request.clip = "/pool/a.mp4";
  request.view = View::Top;
  request.marks = {{MarkName::Nose, 0, {50, 40}}, {MarkName::Tail, 0, {20, 40}}};
  request.scale = ScaleMark{{0, 90}, {100, 90}, Millimetres(200.0), Millimetres(1.0)};
  return request;
}

Measurement current(const PassRequest& request) {
  LoggedPass pass{.id = 1, .title = "One", .request = request, .clip = {7, kSha}};
  return test::measurementOf(pass, {});
}

/// A change of a request, and what a measurement of the earlier one is worth after it.
struct Change {
  const char* name;
  void (*change)(PassRequest&);
  MeasurementState after;
};
class MeasurementStateTest : public testing::TestWithParam<Change> {};

TEST_P(MeasurementStateTest, FollowsFromWhatWasChanged) {
  const PassRequest before = markedRequest();
  const Measurement measurement = current(before);
  ASSERT_EQ(stateOf(&measurement, before, {7, kSha}), MeasurementState::Current);
  PassRequest after = before;
  GetParam().change(after);
  EXPECT_EQ(stateOf(&measurement, after, {7, kSha}), GetParam().after);
}

constexpr auto kCurrent = MeasurementState::Current;
constexpr auto kRead = MeasurementState::NeedsReading;
constexpr auto kFollow = MeasurementState::NeedsFollowing;

INSTANTIATE_TEST_SUITE_P(
    Measuring, MeasurementStateTest,
    testing::Values(Change{"ClipMoved", [](PassRequest& r) { r.clip = "/elsewhere/a.mp4"; }, kCurrent},
                    Change{"RigNamed", [](PassRequest& r) { r.rigName = "Vinto 11"; }, kCurrent},
                    Change{"NoteOnTheRig", [](PassRequest& r) { r.rigNote = "dull"; }, kCurrent},
                    Change{"Scale", [](PassRequest& r) { r.scale->length = Millimetres(210.0); }, kRead},
                    Change{"RollingShutter", [](PassRequest& r) { r.rollingShutter = Seconds(0.01); }, kRead},
                    Change{"Rate", [](PassRequest& r) { r.captureRate = Hertz(240.0); }, kRead},
                    Change{"Protocol", [](PassRequest& r) { r.protocol = Protocol::Fall; }, kFollow},
                    Change{"View", [](PassRequest& r) { r.view = View::Side; }, kFollow},
                    Change{"Fouled",
                           [](PassRequest& r) {
                             r.fouled = {{{3, 9}, "a leaf"}};
                           },
                           kRead},
                    Change{"Waterline",
                           [](PassRequest& r) {
                             r.waterline = PixelLine{{0, 1}, {99, 1}};
                           },
                           kRead},
                    Change{"BackgroundWithoutChase", [](PassRequest& r) { r.followBackground = true; },
                           kRead},
                    Change{"Mark", [](PassRequest& r) { r.marks[0].at.x_px += 1.0; }, kFollow},
                    Change{"Window", [](PassRequest& r) { r.lastFrame = 12; }, kFollow},
                    Change{"Outline",
                           [](PassRequest& r) {
                             r.outline = OutlineSeed{0, {{1, 1}, {9, 1}, {9, 9}}};
                           },
                           kFollow},
                    Change{"Hidden",
                           [](PassRequest& r) {
                             r.hidden = {{0, 5, {{1, 1}, {9, 1}, {9, 9}}}};
                           },
                           kFollow},
                    Change{"ByField", [](PassRequest& r) { r.byField = true; }, kFollow},
                    Change{"ChaseWithBackground",
                           [](PassRequest& r) {
                             r.view = View::Chase;
                             r.followBackground = true;
                           },
                           kFollow}),
    [](const auto& param) { return std::string(param.param.name); });

TEST(MeasurementStateOf, KnowsAnotherFileAndOtherMethods) {
  const PassRequest request = markedRequest();
  Measurement measurement = current(request);
  EXPECT_EQ(stateOf(nullptr, request, {7, kSha}), kFollow);
  EXPECT_EQ(stateOf(&measurement, request, {8, kSha}), MeasurementState::ClipChanged);
  EXPECT_EQ(stateOf(&measurement, request, {7, "4567"}), MeasurementState::ClipChanged);
  measurement.methodVersion = kMethodVersion - 1;
  EXPECT_EQ(stateOf(&measurement, request, {7, kSha}), kRead);
  measurement.followingVersion = kFollowingVersion - 1;
  EXPECT_EQ(stateOf(&measurement, request, {7, kSha}), kFollow);
}

MeasuringOrder orderOn(const PassRequest& request, std::shared_ptr<const Measurement> earlier) {
  MeasuringOrder out;
  out.request = request;
  out.madeOn = {7, kSha};
  out.earlier = std::move(earlier);
  return out;
}

TEST(NextStep, AsksForMarksAndForTheFileAndFollowsAnewWhenTold) {
  const PassRequest request = markedRequest();
  MeasuringOrder order = orderOn(request, std::make_shared<const Measurement>(current(request)));
  EXPECT_EQ(nextStep(order, {7, kSha}), NextStep::Nothing);
  EXPECT_EQ(nextStep(order, {9, kSha}), NextStep::ChooseClip);
  order.anew = true;
  EXPECT_EQ(nextStep(order, {7, kSha}), NextStep::Follow);
  order.request.marks.pop_back();
  EXPECT_EQ(nextStep(order, {7, kSha}), NextStep::Mark);
  EXPECT_EQ(nextStep(orderOn(request, nullptr), {7, kSha}), NextStep::Follow);
}

class Measuring : public testing::Test {
 protected:
  void SetUp() override {
    const RehearsalScene scene = test::smallPull();
    ASSERT_TRUE(filmRehearsal(scene, folder_ / "a.mp4"));
    request_ = requestFor(RehearsalTank(scene), folder_ / "a.mp4");
    clip_ = *Clip::open(folder_ / "a.mp4");
  }
  [[nodiscard]] MeasuringOrder order(std::shared_ptr<const Measurement> earlier = nullptr) const {
    return {request_, clip_->info().fingerprint, std::move(earlier)};
  }

  test::TemporaryFolder folder_;
  PassRequest request_;
  std::shared_ptr<const Clip> clip_;
};

TEST_F(Measuring, MakesARecordThatIsCurrentAndThenOnlyReadsIt) {
  const auto first = measure(order(), clip_);
  ASSERT_TRUE(first) << first.error().message;
  EXPECT_TRUE(first->followed);
  const Measurement& record = *first->measurement;
  EXPECT_EQ(stateOf(&record, request_, clip_->info().fingerprint), kCurrent);
  EXPECT_EQ(record.frames.read, record.track.frameCount);
  EXPECT_GT(record.frames.followed, record.frames.read / 2);
  EXPECT_GT(record.madeAt_s, 1.7e9);
  ASSERT_NE(record.readings.find(ReadingId::TravelSpeed), nullptr);
  // Nothing was changed: the record itself comes back.
  const auto again = measure(order(first->measurement), clip_);
  ASSERT_TRUE(again);
  EXPECT_EQ(again->measurement, first->measurement);
  EXPECT_FALSE(again->followed);
  // The scale was: the same track is read, into a record of its own.
  request_.scale->length = request_.scale->length * 2.0;
  const auto larger = measure(order(first->measurement), clip_);
  ASSERT_TRUE(larger);
  EXPECT_FALSE(larger->followed);
  EXPECT_EQ(larger->measurement->followedAt_s, record.followedAt_s);
  EXPECT_NEAR(std::get<double>(larger->measurement->readings.find(ReadingId::TravelSpeed)->value),
              2.0 * std::get<double>(record.readings.find(ReadingId::TravelSpeed)->value), 1e-6);
}

TEST_F(Measuring, MeasuresNothingOnAnotherFile) {
  MeasuringOrder other = order();
  other.madeOn.sha256 = "of the file before";
  const auto refused = measure(other, clip_);
  ASSERT_FALSE(refused);
  EXPECT_EQ(refused.error().code, ErrorCode::ClipChanged);
}

TEST_F(Measuring, ATrackOfAnotherFileIsNotReadOn) {
  auto earlier = std::make_shared<Measurement>(*measure(order(), clip_)->measurement);
  earlier->clip.sha256 = "of the file before";
  for (MarkTrack& mark : earlier->track.marks) mark.samples.assign(mark.samples.size(), {true, {1, 1}, 1.0});
  // The person said that the file now in place is to be measured: it is followed from its own frames.
  const MeasuringOrder now = order(earlier);
  EXPECT_EQ(stateOf(earlier.get(), request_, now.madeOn), MeasurementState::ClipChanged);
  const auto measured = measure(now, clip_);
  ASSERT_TRUE(measured) << measured.error().message;
  EXPECT_TRUE(measured->followed);
  EXPECT_NE(measured->result.track.marks[0].samples[5].at, (PixelPoint{1, 1}));
}

TEST_F(Measuring, AViewThatIsSwitchedGivesWhatTheCommandLineGives) {
  // Filmed by a chasing camera, as was said first: what lies behind is followed and subtracted.
  request_.view = View::Chase;
  request_.followBackground = true;
  const auto chase = measure(order(), clip_);
  ASSERT_TRUE(chase) << chase.error().message;
  ASSERT_FALSE(chase->measurement->track.background.empty());
  request_.view = View::Side;
  const auto switched = measure(order(chase->measurement), clip_);
  const auto fresh = measure(order(), clip_);
  ASSERT_TRUE(switched && fresh);
  EXPECT_TRUE(switched->result.track.background.empty());
  for (const ReadingId name : {ReadingId::TravelSpeed, ReadingId::RiseRate}) {
    const Reading* a = switched->measurement->readings.find(name);
    const Reading* b = fresh->measurement->readings.find(name);
    ASSERT_EQ(a == nullptr, b == nullptr) << name;
    if (a == nullptr) continue;
    EXPECT_NEAR(std::get<double>(a->value), std::get<double>(b->value), 1e-9) << name;
  }
}

/// Frames of a clip that are counted, and after which the work is asked to stop.
class CountedFrames : public FrameSource {
 public:
  CountedFrames(FrameSource& from, std::size_t stopAfter) : from_(from), stopAfter_(stopAfter) {}
  [[nodiscard]] std::size_t frameCount() const override { return from_.frameCount(); }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override { return from_.timeOf(frame); }
  Result<Picture> frame(std::size_t n) override {
    const std::lock_guard lock(mutex_);
    if (++asked_ == stopAfter_) source_.request_stop();
    return from_.frame(n);
  }
  [[nodiscard]] std::stop_token token() const { return source_.get_token(); }
  [[nodiscard]] std::size_t afterStop() const { return asked_ > stopAfter_ ? asked_ - stopAfter_ : 0; }
  [[nodiscard]] std::size_t asked() const { return asked_; }

 private:
  FrameSource& from_;
  std::size_t stopAfter_;
  std::size_t asked_ = 0;
  std::stop_source source_;
  std::mutex mutex_;
};

TEST_F(Measuring, StopsWithinAFewFramesFromEveryPhase) {
  // Read ahead: two dozen frames may be on their way, which take a tenth of a second.
  constexpr std::size_t kOnTheirWay = 32;
  request_.outline = OutlineSeed{request_.firstFrame, {}};
  const auto& marks = request_.marks;
  const double left = std::min(marks[0].at.x_px, marks[1].at.x_px) - 4.0;
  const double right = std::max(marks[0].at.x_px, marks[1].at.x_px) + 4.0;
  const double y = marks[0].at.y_px;
  request_.outline->polygon = {{left, y - 9}, {right, y - 9}, {right, y + 9}, {left, y + 9}};
  const auto plain = Clip::reader(clip_, {});
  ASSERT_TRUE(plain);
  CountedFrames all(**plain, 0);
  ASSERT_TRUE(followPass(request_, *clip_, all, {}, 0));
  ASSERT_GT(all.asked(), 200U) << "marks, what lies behind, and the outline go over the frames";
  for (std::size_t at = 1; at < all.asked(); at += all.asked() / 7) {
    const auto source = Clip::reader(clip_, {});
    CountedFrames counted(**source, at);
    const auto stopped = followPass(request_, *clip_, counted, {counted.token(), {}}, 0);
    ASSERT_FALSE(stopped) << "after " << at << " of " << all.asked();
    EXPECT_EQ(stopped.error().code, ErrorCode::Cancelled);
    EXPECT_LE(counted.afterStop(), kOnTheirWay) << "after " << at << " of " << all.asked();
  }
}

}  // namespace
}  // namespace fin
