// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/passes_file.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include "core/exchange/readings_json.h"

namespace fin {
namespace {

using nlohmann::ordered_json;

ordered_json toJson(const Entry& entry) {
  ordered_json out{{"rig", entry.rig}, {"model", entry.model}, {"graded", entry.graded}};
  if (!entry.graded) out["why_not_graded"] = entry.whyNotGraded;
  if (entry.price) {
    out["price"] = *entry.price;
    out["currency"] = entry.currency;
  }
  return out;
}

ordered_json toJson(const Provenance& from) {
  return {{"clip", from.clip.filename().string()},
          {"clip_bytes", from.fingerprint.size_bytes},
          {"clip_sha256", from.fingerprint.sha256},
          {"first_frame", from.firstFrame},
          {"frames", toJson(from.frames)},
          {"method", from.methodVersion},
          {"made_at_s", from.madeAt_s}};
}

std::string joined(const std::vector<std::string>& notes) {
  return fmt::format("{}", fmt::join(notes, "; "));
}

}  // namespace

std::string writePasses(const std::string& day, const std::vector<Entry>& entries,
                        const std::vector<ComparedPass>& passes) {
  ordered_json out{{"format", "agile-fin-passes/1"}, {"day", day}, {"method", kMethodVersion}};
  out["rigs"] = ordered_json::array();
  for (const Entry& entry : entries) out["rigs"].push_back(toJson(entry));
  out["passes"] = ordered_json::array();
  for (const ComparedPass& pass : passes) {
    ordered_json one{{"pass", pass.title}, {"rig", pass.rig}, {"protocol", toString(pass.protocol)}};
    if (pass.control) one["control"] = true;
    putReadings(pass.readings, one);
    if (pass.from) one["made_from"] = toJson(*pass.from);
    out["passes"].push_back(std::move(one));
  }
  return out.dump(1, ' ', false, ordered_json::error_handler_t::replace) + "\n";
}

ReadingRows rowsOf(const std::vector<ComparedPass>& passes) {
  ReadingRows out{{"rig", "pass", "protocol", "reading", "value", "unit", "u95", "n", "grade", "notes"}, {}};
  for (const ComparedPass& pass : passes) {
    const std::string protocol(toString(pass.protocol));
    for (const Reading& r : pass.readings.readings) {
      const auto* number = std::get_if<double>(&r.value);
      out.rows.push_back({pass.rig, pass.title, protocol, std::string(toString(r.id)),
                          number != nullptr ? fmt::format("{:.6g}", *number) : std::get<std::string>(r.value),
                          r.unit, r.u95 ? fmt::format("{:.3g}", *r.u95) : "", fmt::format("{:g}", r.n),
                          std::string(toString(r.grade)), joined(r.notes)});
    }
    for (const Refusal& r : pass.readings.refused)
      out.rows.push_back(
          {pass.rig, pass.title, protocol, std::string(toString(r.id)), "", "", "", "", "refused", r.why});
  }
  return out;
}

}  // namespace fin
