// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/records: the documents of a plan as JSON.
#pragma once

#include <string>

#include "core/planning/day_plan.h"
#include "core/units/result.h"

namespace fin::records {

std::string toJson(const Model& model);
std::string toJson(const Rig& rig);
std::string toJson(const PlannedPass& pass);
std::string toJson(const Edition& edition);
std::string toJson(const Piece& piece);
std::string toJson(const Price& price);
std::string toJson(const Claim& claim);
std::string toJson(const WaterBody& water);
std::string toJson(const TieRule& rule);
std::string toJson(const RunEvent& event);
/// All of a day but its number, rack, waters, rules, sheet and events, which have tables of their own.
std::string dayToJson(const DayPlan& plan);

// Keys that are absent keep their defaults; unknown ones are passed over. Errors: Unreadable.
Result<Model> modelFrom(const std::string& json);
Result<Rig> rigFrom(const std::string& json);
Result<PlannedPass> plannedFrom(const std::string& json);
Result<Edition> editionFrom(const std::string& json);
Result<Piece> pieceFrom(const std::string& json);
Result<Price> priceFrom(const std::string& json);
Result<Claim> claimFrom(const std::string& json);
Result<WaterBody> waterBodyFrom(const std::string& json);
Result<TieRule> tieRuleFrom(const std::string& json);
Result<RunEvent> runEventFrom(const std::string& json);
Result<DayPlan> dayFrom(const std::string& json);

}  // namespace fin::records
