// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/verdict_json.h"

#include "core/exchange/json_documents.h"

namespace fin {

FIN_ENUM_AS_WORD(Direction, directionNamed)
FIN_ENUM_AS_WORD(ReadingId, readingNamed)

NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(PointsCurve, none, half, full)
NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(Wish, reading, direction, target, weight, speed_mm_s, curve)
NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(Purpose, name, wishes)
NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(VerdictPlan, wishes, purposes, prey_mm, pricesFrom, interest,
                                                conclusion, correctDrift)

namespace records {

std::string toJson(const VerdictPlan& plan) {
  return write(plan);
}
Result<VerdictPlan> verdictFrom(const std::string& text) {
  return readAs<VerdictPlan>(text);
}

}  // namespace records
}  // namespace fin
