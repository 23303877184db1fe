// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/plan_json.h"

#include "core/exchange/reading_word.h"

namespace nlohmann {

template <class Unit>
struct adl_serializer<fin::Quantity<Unit>> {
  static void to_json(json& to, fin::Quantity<Unit> from) { to = from.value(); }
  static void from_json(const json& from, fin::Quantity<Unit>& to) {
    to = fin::Quantity<Unit>(from.get<double>());
  }
};

template <class Kind>
struct adl_serializer<fin::Id<Kind>> {
  static void to_json(json& to, fin::Id<Kind> from) { to = from.value(); }
  static void from_json(const json& from, fin::Id<Kind>& to) { to = from.get<std::int64_t>(); }
};

}  // namespace nlohmann

namespace fin {

using nlohmann::json;

FIN_ENUM_AS_WORD(Family, familyNamed)
FIN_ENUM_AS_WORD(Buoyancy, buoyancyNamed)
FIN_ENUM_AS_WORD(InsertPlace, insertPlaceNamed)
FIN_ENUM_AS_WORD(Protocol, protocolNamed)
FIN_ENUM_AS_WORD(View, viewNamed)
FIN_ENUM_AS_WORD(PassState, passStateNamed)
FIN_ENUM_AS_WORD(PieceState, pieceStateNamed)
FIN_ENUM_AS_WORD(DayKind, dayKindNamed)
FIN_ENUM_AS_WORD(Finish, finishNamed)
FIN_ENUM_AS_WORD(Condition, conditionNamed)
FIN_ENUM_AS_WORD(RunEventKind, runEventKindNamed)
FIN_ENUM_AS_WORD(TakenOn, takenOnNamed)
FIN_ENUM_AS_WORD(HookedWhere, hookedWhereNamed)
FIN_ENUM_AS_WORD(SchoolSide, schoolSideNamed)

constexpr auto keysOf(const HeardOf*) {
  return std::tuple{key("slowest_mm_s", &HeardOf::slowest_mm_s), key("fastest_mm_s", &HeardOf::fastest_mm_s),
                    key("shallowest_mm", &HeardOf::shallowest_mm), key("deepest_mm", &HeardOf::deepest_mm),
                    key("from", &HeardOf::from)};
}

constexpr auto keysOf(const Model*) {
  return std::tuple{key("id", &Model::id),
                    key("name", &Model::name),
                    key("family", &Model::family),
                    key("length_mm", &Model::length_mm),
                    key("weight_g", &Model::weight_g),
                    key("price", &Model::price),
                    key("currency", &Model::currency),
                    key("colours", &Model::colours),
                    key("material", &Model::material),
                    key("buoyancy", &Model::buoyancy),
                    key("hooks", &Model::hooks),
                    key("hardware", &Model::hardware),
                    key("claims", &Model::claims),
                    key("note", &Model::note),
                    key("photo", &Model::photo),
                    key("graded", &Model::graded),
                    key("why_not_graded", &Model::whyNotGraded),
                    key("finish", &Model::finish)};
}

constexpr auto keysOf(const Rig*) {
  return std::tuple{key("id", &Rig::id),
                    key("model", &Rig::model),
                    key("name", &Rig::name),
                    key("hook_g", &Rig::hook_g),
                    key("hook_size", &Rig::hookSize),
                    key("head_g", &Rig::head_g),
                    key("insert_g", &Rig::insert_g),
                    key("insert_place", &Rig::insertPlace),
                    key("trailer", &Rig::trailer),
                    key("skirt", &Rig::skirt),
                    key("line", &Rig::line),
                    key("line_strength_kg", &Rig::lineStrength_kg),
                    key("tie_point", &Rig::tiePoint),
                    key("link", &Rig::link),
                    key("heard", &Rig::heard)};
}

constexpr auto keysOf(const Edition*) {
  return std::tuple{key("id", &Edition::id), key("was", &Edition::was), key("days", &Edition::days)};
}

constexpr auto keysOf(const Piece*) {
  return std::tuple{key("id", &Piece::id),         key("model", &Piece::model),
                    key("number", &Piece::number), key("state", &Piece::state),
                    key("paid", &Piece::paid),     key("currency", &Piece::currency),
                    key("note", &Piece::note)};
}

constexpr auto keysOf(const Price*) {
  return std::tuple{key("id", &Price::id),         key("model", &Price::model),
                    key("amount", &Price::amount), key("currency", &Price::currency),
                    key("shop", &Price::shop),     key("date", &Price::date)};
}

constexpr auto keysOf(const Claim*) {
  return std::tuple{key("id", &Claim::id),           key("model", &Claim::model), key("words", &Claim::words),
                    key("reading", &Claim::reading), key("least", &Claim::least), key("most", &Claim::most)};
}

constexpr auto keysOf(const WaterBody*) {
  return std::tuple{key("id", &WaterBody::id), key("name", &WaterBody::name),
                    key("position", &WaterBody::position), key("note", &WaterBody::note),
                    key("photos", &WaterBody::photos)};
}

constexpr auto keysOf(const PlannedPass*) {
  return std::tuple{key("id", &PlannedPass::id),
                    key("rig", &PlannedPass::rig),
                    key("protocol", &PlannedPass::protocol),
                    key("view", &PlannedPass::view),
                    key("speed_mm_s", &PlannedPass::speed_mm_s),
                    key("block", &PlannedPass::block),
                    key("control", &PlannedPass::control),
                    key("attempt", &PlannedPass::attempt),
                    key("state", &PlannedPass::state),
                    key("label", &PlannedPass::label),
                    key("why_fouled", &PlannedPass::whyFouled),
                    key("note", &PlannedPass::note),
                    key("piece", &PlannedPass::piece),
                    key("line_out_mm", &PlannedPass::lineOut_mm),
                    key("light", &PlannedPass::light),
                    key("wind", &PlannedPass::wind),
                    key("water_C", &PlannedPass::water_C),
                    key("salinity_g_kg", &PlannedPass::salinity_g_kg),
                    key("finished_s", &PlannedPass::finished_s)};
}

constexpr auto keysOf(const WaterPlan*) {
  return std::tuple{key("name", &WaterPlan::name),
                    key("length_mm", &WaterPlan::length_mm),
                    key("width_mm", &WaterPlan::width_mm),
                    key("depth_mm", &WaterPlan::depth_mm),
                    key("temperature_C", &WaterPlan::temperature_C),
                    key("salinity_g_kg", &WaterPlan::salinity_g_kg),
                    key("wanted_salinity_g_kg", &WaterPlan::wantedSalinity_g_kg),
                    key("bag_kg", &WaterPlan::bag_kg),
                    key("empty_tank_kg", &WaterPlan::emptyTank_kg),
                    key("clarity_m", &WaterPlan::clarity_m)};
}

constexpr auto keysOf(const FilmingPlan*) {
  return std::tuple{key("air_mm", &FilmingPlan::air_mm),
                    key("glass_mm", &FilmingPlan::glass_mm),
                    key("water_mm", &FilmingPlan::water_mm),
                    key("field_of_view_deg", &FilmingPlan::fieldOfView_deg),
                    key("width_px", &FilmingPlan::width_px),
                    key("capture_rate_Hz", &FilmingPlan::captureRate_Hz),
                    key("exposure_s", &FilmingPlan::exposure_s),
                    key("mark_mm", &FilmingPlan::mark_mm),
                    key("ruler_off_mm", &FilmingPlan::rulerOff_mm),
                    key("mains_Hz", &FilmingPlan::mains_Hz),
                    key("pull_speed_mm_s", &FilmingPlan::pullSpeed_mm_s),
                    key("wobble_Hz", &FilmingPlan::wobble_Hz),
                    key("body_length_mm", &FilmingPlan::bodyLength_mm),
                    key("fall_rate_mm_s", &FilmingPlan::fallRate_mm_s),
                    key("time_constant_s", &FilmingPlan::timeConstant_s),
                    key("steady_part_mm", &FilmingPlan::steadyPart_mm),
                    key("water_depth_mm", &FilmingPlan::waterDepth_mm)};
}

constexpr auto keysOf(const HeldEqual*) {
  return std::tuple{key("what", &HeldEqual::what), key("value", &HeldEqual::value),
                    key("exception", &HeldEqual::exception)};
}

constexpr auto keysOf(const SheetTask*) {
  return std::tuple{key("protocol", &SheetTask::protocol), key("view", &SheetTask::view),
                    key("speeds_mm_s", &SheetTask::speeds_mm_s)};
}

constexpr auto keysOf(const SheetOptions*) {
  return std::tuple{key("tasks", &SheetOptions::tasks),
                    key("repeats", &SheetOptions::repeats),
                    key("seed", &SheetOptions::seed),
                    key("control_rig", &SheetOptions::controlRig),
                    key("control_every", &SheetOptions::controlEvery),
                    key("blind", &SheetOptions::blind),
                    key("cameras_together", &SheetOptions::camerasTogether),
                    key("minutes_per_pass", &SheetOptions::minutesPerPass),
                    key("minutes_per_rig", &SheetOptions::minutesPerRig),
                    key("daylight_min", &SheetOptions::daylight_min)};
}

constexpr auto keysOf(const Cadence*) {
  return std::tuple{key("twitches", &Cadence::twitches), key("between", &Cadence::between),
                    key("pause", &Cadence::pause)};
}

constexpr auto keysOf(const ForetoldLine*) {
  return std::tuple{key("rig", &ForetoldLine::rig),       key("reading", &ForetoldLine::reading),
                    key("over", &ForetoldLine::over),     key("line", &ForetoldLine::line),
                    key("chance", &ForetoldLine::chance), key("said_s", &ForetoldLine::said_s)};
}

constexpr auto keysOf(const ForetoldOrder*) {
  return std::tuple{key("reading", &ForetoldOrder::reading), key("rigs", &ForetoldOrder::rigs),
                    key("said_s", &ForetoldOrder::said_s)};
}

constexpr auto keysOf(const Foretold*) {
  return std::tuple{key("lines", &Foretold::lines), key("orders", &Foretold::orders)};
}

constexpr auto keysOf(const ConditionLine*) {
  return std::tuple{key("at_s", &ConditionLine::at_s), key("what", &ConditionLine::what),
                    key("number", &ConditionLine::number), key("word", &ConditionLine::word)};
}

constexpr auto keysOf(const RunEvent*) {
  return std::tuple{key("id", &RunEvent::id),
                    key("at_s", &RunEvent::at_s),
                    key("kind", &RunEvent::kind),
                    key("rod", &RunEvent::rod),
                    key("rig", &RunEvent::rig),
                    key("piece", &RunEvent::piece),
                    key("speed_mm_s", &RunEvent::speed_mm_s),
                    key("block", &RunEvent::block),
                    key("length_mm", &RunEvent::length_mm),
                    key("taken_on", &RunEvent::on),
                    key("hooked", &RunEvent::hooked),
                    key("released", &RunEvent::released),
                    key("until_s", &RunEvent::until_s),
                    key("fished", &RunEvent::fished),
                    key("tier", &RunEvent::tier),
                    key("note", &RunEvent::note)};
}

constexpr auto keysOf(const WaterDayPlan*) {
  return std::tuple{key("schools", &WaterDayPlan::schools), key("rods", &WaterDayPlan::rods),
                    key("patience_min", &WaterDayPlan::patience_min),
                    key("block_minutes", &WaterDayPlan::blockMinutes), key("seed", &WaterDayPlan::seed)};
}

constexpr auto keysOf(const TieRule*) {
  return std::tuple{key("id", &TieRule::id),           key("name", &TieRule::name),
                    key("when", &TieRule::when),       key("wants", &TieRule::wants),
                    key("because", &TieRule::because), key("on", &TieRule::on)};
}

constexpr auto keysOf(const DayPlan*) {
  return std::tuple{key("kind", &DayPlan::kind),
                    key("date", &DayPlan::date),
                    key("water_body", &DayPlan::waterBody),
                    key("people", &DayPlan::people),
                    key("name", &DayPlan::name),
                    key("questions", &DayPlan::questions),
                    key("water", &DayPlan::water),
                    key("filming", &DayPlan::filming),
                    key("held_equal", &DayPlan::heldEqual),
                    key("options", &DayPlan::options),
                    key("cadence", &DayPlan::cadence),
                    key("line_per_turn_mm", &DayPlan::linePerTurn_mm),
                    key("watched_folder", &DayPlan::watchedFolder),
                    key("photos", &DayPlan::photos),
                    key("foretold", &DayPlan::foretold),
                    key("water_day", &DayPlan::waterDay),
                    key("conditions", &DayPlan::conditions)};
}

namespace records {

std::string toJson(const Model& model) {
  return write(model);
}
std::string toJson(const Rig& rig) {
  return write(rig);
}
std::string toJson(const PlannedPass& pass) {
  return write(pass);
}
std::string toJson(const Edition& edition) {
  return write(edition);
}
std::string toJson(const Piece& piece) {
  return write(piece);
}
std::string toJson(const Price& price) {
  return write(price);
}
std::string toJson(const Claim& claim) {
  return write(claim);
}
std::string toJson(const WaterBody& water) {
  return write(water);
}
std::string toJson(const TieRule& rule) {
  return write(rule);
}
std::string toJson(const RunEvent& event) {
  return write(event);
}
std::string dayToJson(const DayPlan& plan) {
  return write(plan);
}
Result<Model> modelFrom(const std::string& text) {
  return readAs<Model>(text);
}
Result<Rig> rigFrom(const std::string& text) {
  return readAs<Rig>(text);
}
Result<PlannedPass> plannedFrom(const std::string& text) {
  return readAs<PlannedPass>(text);
}
Result<Edition> editionFrom(const std::string& text) {
  return readAs<Edition>(text);
}
Result<Piece> pieceFrom(const std::string& text) {
  return readAs<Piece>(text);
}
Result<Price> priceFrom(const std::string& text) {
  return readAs<Price>(text);
}
Result<Claim> claimFrom(const std::string& text) {
  return readAs<Claim>(text);
}
Result<WaterBody> waterBodyFrom(const std::string& text) {
  return readAs<WaterBody>(text);
}
Result<TieRule> tieRuleFrom(const std::string& text) {
  return readAs<TieRule>(text);
}
Result<RunEvent> runEventFrom(const std::string& text) {
  return readAs<RunEvent>(text);
}
Result<DayPlan> dayFrom(const std::string& text) {
  return readAs<DayPlan>(text);
}

}  // namespace records
}  // namespace fin
