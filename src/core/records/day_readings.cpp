// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/day_readings.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace fin {
namespace {

constexpr double kDay_s = 86400.0;
constexpr int kBlocksOfADay = 1000;  ///< more than any sheet has

const PlannedPass* plannedFor(const LoggedPass& pass, const DayPlan& plan) {
  const auto found = std::find_if(plan.sheet.begin(), plan.sheet.end(),
                                  [&](const PlannedPass& p) { return pass.planned == p.id; });
  return found == plan.sheet.end() ? nullptr : &*found;
}

/// Where a day filmed several pieces of a rig, each is held against the others: which one a pass is of.
std::string pieceOf(const PlannedPass& planned, const DayPlan& plan) {
  std::set<PieceId> pieces;
  for (const PlannedPass& pass : plan.sheet) {
    if (pass.rig == planned.rig && pass.piece) pieces.insert(pass.piece);
  }
  const auto piece = std::find_if(plan.rack.pieces.begin(), plan.rack.pieces.end(),
                                  [&](const Piece& p) { return p.id == planned.piece; });
  if (pieces.size() < 2 || piece == plan.rack.pieces.end()) return {};
  return fmt::format(", piece {}", piece->number);
}

/// The rig's name as the rack has it, else as it was said of the pass.
std::string rigOf(const LoggedPass& pass, const PlannedPass* planned, const DayPlan& plan) {
  if (planned != nullptr && plan.rack.rig(planned->rig) != nullptr)
    return plan.rack.nameOn(pass.day, planned->rig) + pieceOf(*planned, plan);
  return pass.request.rigName.empty() ? pass.title : pass.request.rigName;
}

ComparedPass comparedPass(const LoggedPass& pass, const PlannedPass* planned, const DayPlan& plan,
                          const Measurement& measured) {
  ComparedPass out{pass.id,
                   pass.title,
                   rigOf(pass, planned, plan),
                   pass.planned,
                   pass.request.protocol,
                   showsAction(pass.request.view, pass.request.marks),
                   measured.readings};
  out.from = provenanceOf(measured);
  out.camera = pass.camera;
  out.day = pass.day;
  out.cameraDay = fmt::format("{} of {}", pass.camera, pass.day.value());
  if (const auto scale = scaleOf(pass.request, pass.request.scalePlane); scale && *scale)
    out.lengthU95 = (*scale)->relativeU95();
  if (planned == nullptr) return out;
  out.control = planned->control;
  out.block = planned->block;
  out.lineOut_mm = planned->lineOut_mm;
  if (planned->finished_s > 0.0) {
    out.made_s = planned->finished_s;
    out.cameraDay += fmt::format(" {}", static_cast<std::int64_t>(planned->finished_s / kDay_s));
  }
  return out;
}

}  // namespace

Result<DayReadings> dayReadings(const Log& log, const DayPlan& plan, FingerprintCache& fingerprints) {
  return readingsOver(log, {plan}, fingerprints);
}

Result<DayReadings> readingsOver(const Log& log, const std::vector<DayPlan>& plans,
                                 FingerprintCache& fingerprints) {
  const auto passes = log.passes();
  if (!passes) return tl::unexpected(passes.error());
  DayReadings out;
  for (const DayPlan& plan : plans) {
    out.fouled += static_cast<std::size_t>(
        std::count_if(plan.sheet.begin(), plan.sheet.end(),
                      [](const PlannedPass& p) { return p.state == PassState::Fouled; }));
  }
  for (const LoggedPass& pass : *passes) {
    const auto plan =
        std::find_if(plans.begin(), plans.end(), [&](const DayPlan& p) { return p.id == pass.day; });
    if (plan == plans.end()) continue;
    const PlannedPass* planned = plannedFor(pass, *plan);
    if (planned != nullptr && planned->state == PassState::Fouled) continue;
    if (pass.finding) continue;
    const auto measured = log.readingsOf(pass.id);
    if (!measured || !*measured || (*measured)->readings.readings.empty()) continue;
    const auto now = fingerprints.of(pass.request.clip);
    const auto state = now && *now != pass.clip ? MeasurementState::ClipChanged
                                                : stateOf(measured->get(), pass.request, pass.clip);
    if (state != MeasurementState::Current) {
      out.outdated.push_back({pass.id, pass.title, state});
      continue;
    }
    out.current.push_back(comparedPass(pass, planned, *plan, **measured));
    if (auto& block = out.current.back().block)
      *block += kBlocksOfADay * static_cast<int>(plan - plans.begin());
  }
  return out;
}

}  // namespace fin
