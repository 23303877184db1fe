// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/simulated_camera.h"

#include <gtest/gtest.h>

namespace fin {
namespace {

PlannedPass passOf(Protocol protocol, View view) {
  return {.protocol = protocol, .view = view};
}

TEST(SimulatedCamera, FilmsWhatThePlannedPassAsksFor) {
  const Model model{.family = Family::BladedBait, .length_mm = 60.0};
  for (const auto& [protocol, view] : {std::pair(Protocol::Retrieve, View::Top),
                                       {Protocol::Retrieve, View::Side},
                                       {Protocol::Fall, View::Side},
                                       {Protocol::Twitch, View::Side},
                                       {Protocol::Walk, View::Top},
                                       {Protocol::Hop, View::Side},
                                       {Protocol::Skirt, View::Side},
                                       {Protocol::Rest, View::Side}}) {
    const auto scene = sceneFor(model, {}, passOf(protocol, view), 3);
    ASSERT_TRUE(scene) << toString(protocol) << ": " << scene.error().message;
    EXPECT_EQ(protocolOf(scene->motion), protocol);
    EXPECT_EQ(scene->camera.view, view);
  }
}

TEST(SimulatedCamera, SaysWhatItCannotPlay) {
  const auto none = sceneFor({}, {}, passOf(Protocol::Sound, View::Side), 3);
  ASSERT_FALSE(none);
  EXPECT_EQ(none.error().code, ErrorCode::Unsupported);
  EXPECT_NE(none.error().message.find("sound"), std::string::npos) << none.error().message;
}

/// Every lure of the tank that a person rehearses with is seen whole at the least once.
TEST(SimulatedCamera, ShowsEveryFamilyWithItsMarksInThePicture) {
  for (const Family family : {Family::SoftPlastic, Family::Jerkbait, Family::Spoon, Family::BladedBait}) {
    const Model model{.family = family, .length_mm = 90.0};
    for (const auto& [protocol, view] : {std::pair(Protocol::Retrieve, View::Top),
                                         {Protocol::Fall, View::Side},
                                         {Protocol::Twitch, View::Side},
                                         {Protocol::Rest, View::Side}}) {
      const RehearsalTank tank(*sceneFor(model, {}, passOf(protocol, view), 5));
      const PassRequest request = requestFor(tank, "clip.mp4");
      // Long enough to be read: half a second at 120 a second.
      EXPECT_GT(*request.lastFrame - request.firstFrame, 60U) << toString(protocol);
      EXPECT_NE(tank.scene().lure.shape, LureShape::Plain);
    }
  }
}

TEST(SimulatedCamera, GivesTwoPassesThatDiffer) {
  const Model model{.family = Family::Jerkbait, .length_mm = 95.0};
  const auto one = sceneFor(model, {}, passOf(Protocol::Retrieve, View::Top), 1);
  const auto two = sceneFor(model, {}, passOf(Protocol::Retrieve, View::Top), 2);
  EXPECT_NE(std::get<StraightPull>(one->motion).wobble_Hz, std::get<StraightPull>(two->motion).wobble_Hz);
}

}  // namespace
}  // namespace fin
