// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/typed_amount.h"

#include <gtest/gtest.h>

#include <cmath>
#include <string>

namespace fin {
namespace {

struct Typed {
  const char* text;
  const char* wanted;
  const char* usual;
  double amount;

  friend std::ostream& operator<<(std::ostream& out, const Typed& t) { return out << t.text; }
};

class TypedAmount : public testing::TestWithParam<Typed> {};

TEST_P(TypedAmount, IsReadWithAnyUnitOfItsKind) {
  const Typed& t = GetParam();
  const auto amount = typedAmount(t.text, t.wanted, t.usual);
  ASSERT_TRUE(amount) << amount.error().message;
  EXPECT_NEAR(*amount, t.amount, 1e-9 + 1e-7 * std::abs(t.amount));
}

// Independent values: NIST, SP 811, appendix B.8.
INSTANTIATE_TEST_SUITE_P(
    Units, TypedAmount,
    testing::Values(Typed{"95", "mm", "mm", 95.0}, Typed{"3.75", "mm", "in", 95.25},
                    Typed{"3 3/4 in", "mm", "mm", 95.25}, Typed{"3/8 oz", "g", "g", 10.631071172},
                    Typed{"0.375", "g", "oz", 10.631071172}, Typed{"1.8 mph", "mm/s", "mm/s", 804.672},
                    Typed{"5 km/h", "mm/s", "in/s", 1388.8888889},
                    Typed{"2 knots", "mm/s", "mm/s", 1028.8888889}, Typed{" 12,5  cm ", "mm", "mm", 125.0},
                    Typed{"6'", "m", "m", 1.8288}, Typed{"64.4 °F", "°C", "°C", 18.0},
                    Typed{"18", "°C", "°C", 18.0}, Typed{"10 gallons", "l", "l", 37.85411784},
                    Typed{"2 lb", "kg", "kg", 0.90718474}, Typed{"-2.5 G", "g", "g", -2.5},
                    Typed{"-1 1/2", "g", "g", -1.5}, Typed{"35 g/kg", "g/kg", "g/kg", 35.0},
                    Typed{"120", "beats", "beats", 120.0}, Typed{"1500 ms", "s", "s", 1.5}));

TEST(TypedAmount, SaysWhatToTypeInstead) {
  const auto why = [](const char* text, const char* wanted) {
    const auto amount = typedAmount(text, wanted, wanted);
    return amount ? std::string("taken") : amount.error().message;
  };
  EXPECT_EQ(why("4 bananas", "mm"), "\"4 bananas\" is not a length: try 95 mm or 3 3/4 in");
  EXPECT_EQ(why("3 oz", "mm/s"), "\"3 oz\" is not a speed: try 250 mm/s or 1.8 mph");
  EXPECT_EQ(why("35 g", "g/kg"), "\"35 g\" is not a number");
  for (const char* text :
       {"", "mm", "1/0 mm", "1 2 mm", "1/2/3 mm", "1.2.3 mm", "nan", "inf mm", "- 3", "5 mm mm", "1e5 mm"})
    EXPECT_NE(why(text, "mm"), "taken") << text;
}

}  // namespace
}  // namespace fin
