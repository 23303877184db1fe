// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/result_files.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include "core/exchange/pass_json.h"
#include "core/exchange/readings_json.h"

namespace fin {
namespace {

using nlohmann::ordered_json;

ordered_json toJson(const Reading& r) {
  ordered_json out{{"name", toString(r.id)}};
  if (r.stretch) out["stretch"] = *r.stretch;
  if (const auto* text = std::get_if<std::string>(&r.value)) {
    out["value"] = *text;
  } else {
    out["value"] = std::get<double>(r.value);
  }
  out["unit"] = r.unit;
  if (r.u95) out["u95"] = *r.u95;
  out["n"] = r.n;
  out["grade"] = toString(r.grade);
  out["notes"] = r.notes;
  return out;
}

std::string cellsOf(const OutlineSample& s) {
  if (!s.seen) return ",,,,,,";
  return fmt::format(",{:.1f},{:.3f},{:.3f},{:.2f},{:.2f},{:.2f}", s.area_px2, s.centre.x_px, s.centre.y_px,
                     s.angle_rad * kDegreesPerRadian, s.length_px, s.width_px);
}

}  // namespace

ordered_json toJson(const FrameCounts& frames) {
  return {{"read", frames.read}, {"followed", frames.followed}, {"bridged", frames.bridged}};
}

void putReadings(const ReadingSet& set, ordered_json& into) {
  into["readings"] = ordered_json::array();
  for (const Reading& r : set.readings) into["readings"].push_back(toJson(r));
  into["refused"] = ordered_json::array();
  for (const Refusal& r : set.refused) {
    ordered_json refusal{{"name", toString(r.id)}, {"why", r.why}};
    if (r.stretch) refusal["stretch"] = *r.stretch;
    into["refused"].push_back(std::move(refusal));
  }
}

std::string writeReadings(const PassRequest& request, const PassResult& result,
                          const ClipFingerprint& fingerprint) {
  ordered_json out;
  out["format"] = "agile-fin-readings/1";
  out["clip"] = request.clip.filename().string();
  if (result.stretches.empty()) {
    out["protocol"] = toString(request.protocol);
  } else {
    for (const ClipStretch& s : result.stretches)
      out["stretches"].push_back({{"protocol", toString(s.protocol)},
                                  {"first_frame", s.frames.first},
                                  {"last_frame", s.frames.last}});
  }
  out["view"] = toString(request.view);
  out["method"] = kMethodVersion;
  out["frames"] =
      toJson(FrameCounts{result.track.frameCount, result.track.followed(), result.track.bridged()});
  out["time"] = {{"from_s", result.time_s.empty() ? 0.0 : result.time_s.front()},
                 {"to_s", result.time_s.empty() ? 0.0 : result.time_s.back()},
                 {"basis", result.timeBasis}};
  putReadings(result.readings, out);
  for (const FoundMark& mark : result.found)
    out["found"].push_back({{"name", toString(mark.seed.name)},
                            {"frame", mark.seed.frame},
                            {"at", {mark.seed.at.x_px, mark.seed.at.y_px}},
                            {"sure", mark.sure}});
  out["warnings"] = result.warnings;
  if (!request.rigName.empty() || !request.rigNote.empty()) {
    out["rig"] = {{"name", request.rigName}, {"note", request.rigNote}};
  }
  out["made_from"] = {
      {"clip_bytes", fingerprint.size_bytes},
      {"clip_sha256", fingerprint.sha256},
      {"following", kFollowingVersion},
      {"pass", ordered_json::parse(writePassRequest(request, request.clip.parent_path()), nullptr, false)}};
  // A file name need not be UTF-8; JSON must be.
  return out.dump(1, ' ', false, ordered_json::error_handler_t::replace) + "\n";
}

std::optional<Measurement> madeFrom(const std::string& readings) {
  const auto file = ordered_json::parse(readings, nullptr, false);
  if (!file.is_object() || !file.contains("made_from")) return std::nullopt;
  try {
    const auto& made = file.at("made_from");
    auto pass = parsePassRequest(made.at("pass").dump(), {});
    if (!pass) return std::nullopt;
    Measurement out;
    out.clip = {made.at("clip_bytes").get<std::uintmax_t>(), made.at("clip_sha256").get<std::string>()};
    out.followingVersion = made.at("following").get<int>();
    out.methodVersion = file.at("method").get<int>();
    out.followedFrom = *pass;
    out.readFrom = std::move(*pass);
    return out;
  } catch (const nlohmann::json::exception&) {
    return std::nullopt;
  }
}

std::string writeTrack(const PassResult& result) {
  std::string out = "frame,time_s";
  for (const MarkTrack& m : result.track.marks) {
    out += fmt::format(",{0}_x_px,{0}_y_px,{0}_quality", toString(m.name));
  }
  const bool outline = !result.track.outline.empty();
  if (outline)
    out +=
        ",outline_area_px2,outline_cx_px,outline_cy_px,outline_angle_deg,outline_length_px,outline_width_px";
  out += "\n";
  for (std::size_t i = 0; i < result.track.frameCount; ++i) {
    out += fmt::format("{},{:.6f}", result.track.firstFrame + i, result.time_s[i]);
    for (const MarkTrack& m : result.track.marks) {
      const MarkSample& s = m.samples[i];
      out += s.seen ? fmt::format(",{:.3f},{:.3f},{:.3f}", s.at.x_px, s.at.y_px, s.quality) : ",,,";
    }
    if (outline) out += cellsOf(result.track.outline[i]);
    out += "\n";
  }
  return out;
}

}  // namespace fin
