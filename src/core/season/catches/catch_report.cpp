// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/catches/catch_report.h"

#include <algorithm>
#include <set>

namespace fin {
namespace {

constexpr double kPer = 10.0;             ///< money
constexpr std::size_t kFewestToShow = 3;  ///< rigs with a reading, for it to be worth a line

/// What was paid for the pieces of a model that were fished, lost ones too.
void payInto(RigCatches& rig, const Rack& rack, const std::set<PieceId>& fished) {
  const Rig* known = rack.rig(rig.tally.rig);
  if (known == nullptr) return;
  for (const Piece& piece : rack.pieces) {
    const bool used = piece.state != PieceState::Spare || fished.contains(piece.id);
    if (piece.model != known->model || !used || !piece.paid) continue;
    rig.paid += *piece.paid;
    rig.currency = piece.currency;
  }
  if (rig.paid > 0.0) rig.perTenPaid = *exactRate(rig.tally.fish, rig.paid / kPer);
}

std::set<PieceId> piecesFished(const std::vector<RunningDay>& days) {
  std::set<PieceId> out;
  for (const RunningDay& day : days) {
    for (const Stint& stint : day.stints) {
      if (stint.piece) out.insert(stint.piece);
    }
  }
  return out;
}

std::vector<RigEffort> effortsOf(const std::vector<RigCatches>& rigs) {
  std::vector<RigEffort> out;
  for (const RigCatches& rig : rigs) out.push_back({rig.rig, rig.tally.hours, rig.tally.fish});
  return out;
}

/// Holm's step-down over those pairs alone for which `among` holds.
template <class Among>
void adjust(std::vector<RigsByCatch>& pairs, const Among& among) {
  std::vector<double> p;
  for (const RigsByCatch& pair : pairs) {
    if (among(pair)) p.push_back(pair.inBlocks ? pair.inBlocks->p : pair.whole.p);
  }
  const std::vector<double> adjusted = holm(p);
  std::size_t next = 0;
  for (RigsByCatch& pair : pairs) {
    if (among(pair)) pair.p = adjusted[next++];
  }
}

void comparePairs(CatchReport& report, const std::vector<RunningDay>& days) {
  for (std::size_t a = 0; a < report.rigs.size(); ++a) {
    for (std::size_t b = a + 1; b < report.rigs.size(); ++b) {
      const RigTally& first = report.rigs[a].tally;
      const RigTally& second = report.rigs[b].tally;
      const auto whole = compareRates({"", first.hours, first.fish}, {"", second.hours, second.fish});
      if (!whole) continue;
      RigsByCatch pair{.a = a, .b = b, .whole = *whole};
      const auto blocks = blocksOf(days, first.rig, second.rig);
      pair.blocks = blocks.size();
      if (const auto within = compareInBlocks(blocks)) pair.inBlocks = *within;
      pair.toTell = hoursToTell(report.rigs[a].shrunk.value, report.rigs[b].shrunk.value);
      report.pairs.push_back(std::move(pair));
    }
  }
  adjust(report.pairs, [](const RigsByCatch& pair) { return pair.inBlocks.has_value(); });
  adjust(report.pairs, [](const RigsByCatch& pair) { return !pair.inBlocks; });
}

TankAndWater held(ReadingId reading, const CatchReport& report, const std::vector<TieCandidate>& measured) {
  TankAndWater out{.reading = reading};
  std::vector<double> values, rates;
  std::vector<RigEffort> efforts;
  for (const RigCatches& rig : report.rigs) {
    const auto found = std::find_if(measured.begin(), measured.end(),
                                    [&rig](const TieCandidate& c) { return c.rig == rig.tally.rig; });
    if (found == measured.end() || !found->readings.contains(reading)) continue;
    values.push_back(found->readings.at(reading));
    rates.push_back(rig.shrunk.value);
    efforts.push_back({rig.rig, rig.tally.hours, rig.tally.fish});
  }
  out.rigs = values.size();
  out.tooFew = tooFewForTheWater(efforts);
  if (!out.tooFew.empty()) return out;
  if (const auto agreement = spearman(values, rates)) {
    out.agreement = *agreement;
  } else {
    out.tooFew = agreement.error().message;
  }
  return out;
}

void holdAgainstTheTank(CatchReport& report, const std::vector<TieCandidate>& measured) {
  std::set<ReadingId> readings;
  for (const TieCandidate& candidate : measured) {
    for (const auto& [reading, value] : candidate.readings) readings.insert(reading);
  }
  readings.erase(ReadingId::TravelSpeed);
  std::vector<double> p;
  for (const ReadingId reading : readings) {
    TankAndWater one = held(reading, report, measured);
    if (one.rigs < kFewestToShow) continue;
    if (one.tooFew.empty()) p.push_back(one.agreement.p);
    report.tank.push_back(std::move(one));
  }
  const std::vector<double> adjusted = holm(p);
  std::size_t next = 0;
  for (TankAndWater& one : report.tank) {
    if (one.tooFew.empty()) one.p = adjusted[next++];
  }
}

}  // namespace

CatchReport catchReport(const Rack& rack, const std::vector<RunningDay>& days,
                        const std::vector<TieCandidate>& measured) {
  CatchReport out;
  const std::set<PieceId> fished = piecesFished(days);
  for (const RunningDay& day : days)
    out.troubles.insert(out.troubles.end(), day.troubles.begin(), day.troubles.end());
  for (const RigTally& tally : talliesOf(days)) {
    const Rig* rig = rack.rig(tally.rig);
    const Model* model = rig == nullptr ? nullptr : rack.model(rig->model);
    if (model == nullptr || !model->graded || !(tally.hours > 0.0)) continue;
    RigCatches one{.rig = rack.fullName(*rig), .tally = tally};
    one.fish = *exactRate(tally.fish, tally.hours);
    one.misses = *exactRate(tally.misses, tally.hours);
    one.follows = *exactRate(tally.follows, tally.hours);
    payInto(one, rack, fished);
    out.rigs.push_back(std::move(one));
  }
  if (const auto shrunk = shrunkRates(effortsOf(out.rigs))) {
    out.how = shrunk->how;
    out.a = shrunk->a;
    out.b = shrunk->b;
    for (std::size_t i = 0; i < out.rigs.size(); ++i) out.rigs[i].shrunk = shrunk->rates[i];
  }
  std::stable_sort(out.rigs.begin(), out.rigs.end(),
                   [](const RigCatches& a, const RigCatches& b) { return a.shrunk.value > b.shrunk.value; });
  comparePairs(out, days);
  holdAgainstTheTank(out, measured);
  return out;
}

}  // namespace fin
