// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <random>

#include "core/exchange/pass_json.h"
#include "core/exchange/result_files.h"
#include "core/measuring/pass_request.h"

namespace fin {
namespace {

const std::string kWhole = R"({
  "format": "agile-fin-pass/1", "clip": "a.mp4", "protocol": "retrieve", "view": "top", "capture_rate": 180.0,
  "rolling_shutter_ms": 11.5, "pull": "left",
  "scale": {"from": [102.0, 655.5], "to": [902.0, 655.5], "length_mm": 500.0, "length_u95_mm": 1.0},
  "scale_plane": {"camera_to_scale_mm": 1500.0, "camera_to_lure_mm": 1620.0},
  "plumb": {"from": [640.0, 20.0], "to": [655.0, 700.0]},
  "lens": {"model": "pinhole-radtan", "fx": 900.0, "fy": 900.0, "cx": 640.0, "cy": 360.0, "k": [-0.2, 0.05, 0.0, 0.0, 0.0]},
  "marks": [{"name": "nose", "frame": 0, "at": [212.4, 340.1]}, {"name": "tail", "frame": 0, "at": [150.2, 338.9]}],
  "first_frame": 0, "last_frame": 899, "rig": {"name": "x", "note": "y"}})";

std::string with(const std::string& from, const std::string& to) {
  std::string text = kWhole;
  const auto at = text.find(from);
  EXPECT_NE(at, std::string::npos) << from;
  return text.replace(at, from.size(), to);
}

TEST(PassRequest, ComesBackFromItsOwnJson) {
  const auto request = parsePassRequest(kWhole, "/day");
  ASSERT_TRUE(request) << request.error().message;
  EXPECT_EQ(request->clip, "/day/a.mp4");
  EXPECT_EQ(request->rollingShutter, Seconds(0.0115));
  EXPECT_EQ(request->pull, Pull::Left);
  EXPECT_EQ(request->marks.size(), 2U);
  const auto again = parsePassRequest(writePassRequest(*request, "/day"), "/day");
  ASSERT_TRUE(again) << again.error().message;
  EXPECT_EQ(*again, *request);
}

TEST(PassRequest, KeepsWhatWasSaidOfTwitches) {
  const auto request = parsePassRequest(
      with("\"first_frame\"",
           "\"twitches\": {\"starts_s\": [0.5, 1.25], \"left_out_s\": [1.25]}, \"first_frame\""),
      ".");
  ASSERT_TRUE(request) << request.error().message;
  EXPECT_EQ(request->twitches, (TwitchStarts{{0.5, 1.25}, {1.25}}));
  EXPECT_EQ(*parsePassRequest(writePassRequest(*request, "."), "."), *request);
  for (const char* wrong : {"[1.25, 0.5], \"left_out_s\": []", "[0.5], \"left_out_s\": [0.7]", "[\"x\"]"}) {
    const auto refused = parsePassRequest(
        with("\"first_frame\"", std::string("\"twitches\": {\"starts_s\": ") + wrong + "}, \"first_frame\""),
        ".");
    ASSERT_FALSE(refused) << wrong;
    EXPECT_TRUE(refused.error().message.find("twitches") != std::string::npos ||
                refused.error().message.find("starts_s") != std::string::npos)
        << refused.error().message;
  }
}

TEST(PassRequest, TakesStretchesInPlaceOfAProtocol) {
  const std::string clip = R"({"format": "agile-fin-pass/1", "clip": "a.mp4", "marks": [], )";
  const auto parse = [&](const std::string& more) {
    return parsePassRequest(clip + more + "}", ".", Stage::Draft);
  };
  const auto listed = parse(
      R"("stretches": [{"protocol": "twitch", "first_frame": 0, "last_frame": 9},
                       {"protocol": "pause", "first_frame": 10, "last_frame": 20}])");
  ASSERT_TRUE(listed) << listed.error().message;
  ASSERT_EQ(listed->stretches.size(), 2U);
  EXPECT_EQ(listed->stretches[1].protocol, Protocol::Pause);
  EXPECT_EQ(*parsePassRequest(writePassRequest(*listed, "."), ".", Stage::Draft), *listed);
  const auto found = parse(R"("stretches": "find")");
  ASSERT_TRUE(found);
  EXPECT_TRUE(found->findStretches);
  EXPECT_EQ(*parsePassRequest(writePassRequest(*found, "."), ".", Stage::Draft), *found);
  EXPECT_FALSE(parse(R"("protocol": "fall", "stretches": "find")")) << "one or the other";
  EXPECT_FALSE(parse(R"("stretches": [{"protocol": "twitch", "first_frame": 5, "last_frame": 2}])"));
  EXPECT_FALSE(parse(R"("stretches": [{"protocol": "fall", "first_frame": 0, "last_frame": 9},
                                      {"protocol": "fall", "first_frame": 9, "last_frame": 12}])"));
  EXPECT_FALSE(parse(R"("stretches": [])"));
}

TEST(PassRequest, WeighsAHeadInTheWater) {
  const auto head = [](const std::string& rig) {
    return parsePassRequest(
        R"({"format": "agile-fin-pass/1", "clip": "a.mp4", "protocol": "fall", "marks": [],
                               "rig": )" +
            rig + "}",
        ".", Stage::Draft);
  };
  EXPECT_EQ(head(R"({"head_in_water_g": 1.6})")->head->inWater_g, 1.6);
  // Of 7 g of lead 1 − 998.2 / 11300 stays.
  EXPECT_NEAR(head(R"({"head_g": 7})")->head->inWater_g, 6.3816, 1e-4);
  EXPECT_NEAR(head(R"({"head_g": 7, "head_metal": "tungsten"})")->head->inWater_g, 6.6380, 1e-4);
  EXPECT_FALSE(head(R"({"head_g": 7, "head_metal": "butter"})"));
  EXPECT_FALSE(head(R"({"head_g": 7, "head_in_water_g": 6})"));
}

TEST(PassRequest, KeepsWhereMotionsTakeAnotherName) {
  const auto request = parsePassRequest(
      with("\"first_frame\"", "\"thresholds\": {\"glide_from\": 0.5}, \"first_frame\""), ".");
  ASSERT_TRUE(request) << request.error().message;
  EXPECT_EQ(request->thresholds, (Thresholds{0.5, 30.0, 10.0}));
  EXPECT_EQ(*parsePassRequest(writePassRequest(*request, "."), "."), *request);
  const auto refused =
      parsePassRequest(with("\"first_frame\"", "\"thresholds\": {\"glide_from\": 0}, \"first_frame\""), ".");
  ASSERT_FALSE(refused);
  EXPECT_EQ(refused.error().where, "glide_from");
}

struct Wrong {
  const char* from;
  const char* to;
  const char* key;
};

class WrongPass : public testing::TestWithParam<Wrong> {};

TEST_P(WrongPass, NamesTheKey) {
  const auto request = parsePassRequest(with(GetParam().from, GetParam().to), ".");
  ASSERT_FALSE(request);
  EXPECT_EQ(request.error().code, ErrorCode::BadRequest);
  EXPECT_NE(request.error().message.find(GetParam().key), std::string::npos) << request.error().message;
}

const Wrong kWrongs[] = {{"agile-fin-pass/1", "agile-fin-pass/9", "format"},
                         {"\"pull\"", "\"pul\"", "pul"},
                         {"500.0", "0.0", "length_mm"},
                         {"180.0", "-3", "capture_rate"},
                         {"180.0", "1e999", "pass"},
                         {"11.5", "-1", "rolling_shutter_ms"},
                         {"11.5", "500", "rolling_shutter_ms"},
                         {"\"nose\"", "\"eye\"", "name"},
                         {"899", "-1", "last_frame"},
                         {"\"tail\", \"frame\": 0", "\"nose\", \"frame\": 0", "marks"},
                         {"1500.0", "0", "scale_plane"},
                         {"\"y\"}}", "\"y\"}} x", "pass"}};

INSTANTIATE_TEST_SUITE_P(Keys, WrongPass, testing::ValuesIn(kWrongs));

TEST(PassRequest, LetsADraftWaitForItsMarksButNotAWholeOne) {
  const std::string draft = R"({"format": "agile-fin-pass/1", "clip": "a.mp4", "protocol": "fall"})";
  EXPECT_TRUE(parsePassRequest(draft, ".", Stage::Draft));
  EXPECT_FALSE(parsePassRequest(draft, "."));
}

TEST(PassRequest, IsThrownByNothingThatIsNone) {
  std::mt19937 draw(3);
  const std::string alphabet = "{}[]\",:0123456789eE.-ntf \xC3\xFF";
  int read = 0;
  for (int round = 0; round < 3000; ++round) {
    std::string text = kWhole;
    for (std::size_t i = draw() % 3; i < 3; ++i) {
      const std::size_t at = draw() % text.size();
      switch (draw() % 4) {
        case 0:
          text[at] = alphabet[draw() % alphabet.size()];
          break;
        case 1:
          text.erase(at, 1 + draw() % 9);
          break;
        case 2:
          text.insert(at, 1, alphabet[draw() % alphabet.size()]);
          break;
        default:
          text.resize(at + 1);
      }
    }
    const auto request = parsePassRequest(text, "/day", Stage::Draft);
    EXPECT_TRUE(request || !request.error().message.empty()) << text;
    if (!request) continue;
    ++read;
    // What was read is written so that it reads the same.
    EXPECT_EQ(*parsePassRequest(writePassRequest(*request, "/day"), "/day", Stage::Draft), *request) << text;
  }
  EXPECT_GT(read, 20) << "some changes leave a pass a pass";
}

TEST(ReadingsFile, SaysWhatItWasMadeFrom) {
  const auto request = parsePassRequest(kWhole, "/day");
  ASSERT_TRUE(request);
  const ClipFingerprint clip{1234, "abcd"};
  const auto made = madeFrom(writeReadings(*request, {}, clip));
  ASSERT_TRUE(made);
  EXPECT_EQ(stateOf(&*made, *request, clip), MeasurementState::Current);
  EXPECT_EQ(stateOf(&*made, *request, {1235, "abcd"}), MeasurementState::ClipChanged);
  for (const char* none : {"", "{}", "[1]", R"({"made_from": []})", R"({"made_from": {"pass": {}}})"})
    EXPECT_FALSE(madeFrom(none)) << none;
}

TEST(TrackCsv, LeavesACellEmptyWhereAMarkWasNotSeen) {
  PassResult result;
  result.track = {5, 2, {{MarkName::Nose, {{true, {1.5, 2.25}, 0.75}, {}}}}};
  result.time_s = {0.25, 0.5};
  EXPECT_EQ(writeTrack(result),
            "frame,time_s,nose_x_px,nose_y_px,nose_quality\n5,0.250000,1.500,2.250,0.750\n6,0.500000,,,\n");
}

}  // namespace
}  // namespace fin
