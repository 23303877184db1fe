// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/rack_fields.h"

#include <gtest/gtest.h>

#include <set>

namespace fin {
namespace {

const RackField& field(const std::string& name) {
  for (const RackField& f : rackFields()) {
    if (f.name == name) return f;
  }
  ADD_FAILURE() << "no field " << name;
  return rackFields().front();
}

/// Two texts that a field may hold, told from each other by the field.
struct Sample {
  const char* field;
  const char* first;
  const char* second;
};

class RackFields : public testing::TestWithParam<Sample> {};

TEST_P(RackFields, HoldWhatWasPutInAndForgetItWhenCleared) {
  const RackField& f = field(GetParam().field);
  Model model;
  Rig rig;
  const std::string empty = f.get(model, rig);
  for (const char* text : {GetParam().first, GetParam().second}) {
    ASSERT_TRUE(f.set(model, rig, text)) << text;
    EXPECT_EQ(f.get(model, rig), text);
  }
  EXPECT_NE(model == Model{} && rig == Rig{}, true);
  EXPECT_EQ(f.ofRig, model == Model{}) << "it is kept where it is said to be";
  ASSERT_TRUE(f.set(model, rig, ""));
  EXPECT_EQ(f.get(model, rig), empty);
  EXPECT_EQ(model, Model{});
  EXPECT_EQ(rig, Rig{});
}

INSTANTIATE_TEST_SUITE_P(
    Planning, RackFields,
    testing::Values(Sample{"model", "Vinto 11", "Skrell 95"}, Sample{"family", "jerkbait", "bladed bait"},
                    Sample{"length_mm", "110", "95.5"}, Sample{"weight_g", "9.5", "14"},
                    Sample{"price", "4.25", "12"}, Sample{"currency", "EUR", "SEK"},
                    Sample{"colours", "dark", "pearl"}, Sample{"material", "resin", "wood"},
                    Sample{"buoyancy", "floats", "sinks"}, Sample{"hooks", "two trebles", "one single"},
                    Sample{"hardware", "rings 2", "none"}, Sample{"claims", "sinks slowly", "hangs"},
                    Sample{"note", "n", "m"}, Sample{"photo", "a.png", "b.png"},
                    Sample{"not_graded_because", "ours", "a gift"}, Sample{"rig", "7 g head", "4 g head"},
                    Sample{"hook_g", "1.5", "2"}, Sample{"hook_size", "2/0", "4"},
                    Sample{"head_g", "7", "4.5"}, Sample{"insert_g", "0.5", "1"},
                    Sample{"insert_place", "high", "low"}, Sample{"trailer", "t", "u"},
                    Sample{"skirt", "rubber", "silicone"}, Sample{"line", "braid", "mono"},
                    Sample{"line_strength_kg", "6", "8"}, Sample{"tie_point", "nose", "back"},
                    Sample{"link", "snap", "ring"}),
    [](const auto& param) { return std::string(param.param.field); });

TEST(RackFieldsAll, AreTriedAboveAndHaveHeadsOfTheirOwn) {
  EXPECT_EQ(rackFields().size(), 27U) << "a new field wants a sample above";
  std::set<std::string> heads;
  for (const RackField& f : rackFields()) {
    EXPECT_TRUE(heads.insert(f.name).second) << f.name;
    for (const std::string& other : f.otherHeads) EXPECT_TRUE(heads.insert(other).second) << other;
  }
}

TEST(RackFieldsAll, NameTheFieldOfWhatCannotBeMeantAndLeaveItAsItWas) {
  for (const auto& [name, text] : {std::pair("length_mm", "long"),
                                   {"length_mm", "-3"},
                                   {"price", "4.25 EUR"},
                                   {"weight_g", "1e999"},
                                   {"weight_g", "nan"},
                                   {"head_g", "7,5,1"},
                                   {"family", "worm"},
                                   {"buoyancy", "swims"},
                                   {"insert_place", "left"}}) {
    Model model;
    model.length_mm = 110.0;
    Rig rig;
    const auto set = field(name).set(model, rig, text);
    ASSERT_FALSE(set) << name << " = " << text;
    EXPECT_EQ(set.error().code, ErrorCode::BadRequest);
    EXPECT_EQ(set.error().message.rfind(name, 0), 0U) << set.error().message;
    EXPECT_EQ(model.length_mm, 110.0);
    EXPECT_EQ(rig, Rig{});
  }
}

TEST(RackFieldsAll, TakeDecimalCommasAsWellAsPoints) {
  Model model;
  Rig rig;
  ASSERT_TRUE(field("weight_g").set(model, rig, "9,5"));
  EXPECT_EQ(model.weight_g, 9.5);
}

}  // namespace
}  // namespace fin
