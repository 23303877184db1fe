// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/replan.h"

#include <algorithm>
#include <map>
#include <set>

namespace fin {
namespace {

constexpr char kWhySkipped[] = "settled by then";

int lastBlock(const std::vector<PlannedPass>& sheet) {
  int out = 0;
  for (const PlannedPass& pass : sheet) out = std::max(out, pass.block);
  return out;
}

/// Blocks of which every one of these rigs still has a pass to be made.
std::size_t blocksLeft(const std::vector<PlannedPass>& sheet, const std::vector<RigId>& rigs) {
  std::map<RigId, std::set<int>> left;
  for (const PlannedPass& pass : sheet) {
    if (pass.state == PassState::Planned && !pass.control) left[pass.rig].insert(pass.block);
  }
  std::size_t fewest = std::numeric_limits<std::size_t>::max();
  for (const RigId rig : rigs) fewest = std::min(fewest, left[rig].size());
  return fewest;
}

}  // namespace

Result<std::vector<PlannedPass>> replanned(const std::vector<PlannedPass>& sheet,
                                           const std::vector<RigId>& rigs, std::size_t passes,
                                           const SheetOptions& options, std::int64_t freeId) {
  if (rigs.empty() || passes == 0) return failure(ErrorCode::BadRequest, "nothing is left to be settled");
  std::vector<PlannedPass> out = sheet;
  for (PlannedPass& pass : out) {
    const bool wanted = std::find(rigs.begin(), rigs.end(), pass.rig) != rigs.end();
    if (pass.state != PassState::Planned || wanted || pass.control) continue;
    pass.state = PassState::Skipped;
    if (pass.note.empty()) pass.note = kWhySkipped;
  }
  const std::size_t left = blocksLeft(out, rigs);
  if (left >= passes) return out;
  SheetOptions more = options;
  more.repeats = static_cast<int>(passes - left);
  more.seed = options.seed + static_cast<unsigned>(out.size());
  more.controlRig = 0;
  auto blocks = makeSheet(rigs, more);
  if (!blocks) return blocks;
  const int before = lastBlock(sheet);
  for (PlannedPass& pass : *blocks) {
    pass.id = freeId++;
    pass.block += before;
    // On a blind day a rig keeps the letter that it has.
    const auto known =
        std::find_if(sheet.begin(), sheet.end(), [&](const PlannedPass& p) { return p.rig == pass.rig; });
    if (known != sheet.end()) pass.label = known->label;
    out.push_back(std::move(pass));
  }
  return out;
}

}  // namespace fin
