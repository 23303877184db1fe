// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/plan_json.h"

#include "core/exchange/json_documents.h"

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

NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(Model, id, name, family, length_mm, weight_g, price, currency,
                                                colours, material, buoyancy, hooks, hardware, claims, note,
                                                photo, graded, whyNotGraded)
NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(Rig, id, model, name, hook_g, hookSize, head_g, insert_g,
                                                insertPlace, trailer, skirt, line, lineStrength_kg, tiePoint,
                                                link)
NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(PlannedPass, id, rig, protocol, view, speed_mm_s, block,
                                                control, attempt, state, label, whyFouled, note, lineOut_mm,
                                                finished_s)
NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(WaterPlan, name, length_mm, width_mm, depth_mm, temperature_C,
                                                salinity_g_kg, wantedSalinity_g_kg, bag_kg, emptyTank_kg,
                                                clarity_m)
NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(FilmingPlan, air_mm, glass_mm, water_mm, fieldOfView_deg,
                                                width_px, captureRate_Hz, exposure_s, mark_mm, rulerOff_mm,
                                                mains_Hz, pullSpeed_mm_s, wobble_Hz, bodyLength_mm,
                                                fallRate_mm_s, timeConstant_s, steadyPart_mm, waterDepth_mm)
NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(HeldEqual, what, value, exception)
NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(SheetTask, protocol, view, speeds_mm_s)
NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(SheetOptions, tasks, repeats, seed, controlRig, controlEvery,
                                                blind, camerasTogether, minutesPerPass, minutesPerRig,
                                                daylight_min)
NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(Cadence, twitches, between, pause)
NLOHMANN_DEFINE_TYPE_NON_INTRUSIVE_WITH_DEFAULT(DayPlan, name, questions, water, filming, heldEqual, options,
                                                cadence, linePerTurn_mm, watchedFolder)

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
Result<DayPlan> dayFrom(const std::string& text) {
  return readAs<DayPlan>(text);
}

}  // namespace records
}  // namespace fin
