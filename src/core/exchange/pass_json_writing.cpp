// SPDX-License-Identifier: GPL-3.0-or-later
#include <nlohmann/json.hpp>

#include "core/exchange/pass_json.h"
#include "core/exchange/pass_words.h"
#include "core/exchange/relative_name.h"

namespace fin {
namespace {

using nlohmann::json;

json toJson(PixelPoint p) {
  return json::array({p.x_px, p.y_px});
}
json toJson(const std::vector<PixelPoint>& polygon) {
  json out = json::array();
  for (const PixelPoint p : polygon) out.push_back(toJson(p));
  return out;
}
json toJson(const PixelLine& l) {
  return {{"from", toJson(l.from)}, {"to", toJson(l.to)}};
}

}  // namespace

std::string writePassRequest(const PassRequest& request, const std::filesystem::path& folder) {
  json out{{"format", "agile-fin-pass/1"},
           {"clip", relativeName(request.clip, folder)},
           {"view", toString(request.view)}};
  if (request.findStretches) {
    out["stretches"] = "find";
  } else if (!request.stretches.empty()) {
    for (const ClipStretch& s : request.stretches)
      out["stretches"].push_back({{"protocol", toString(s.protocol)},
                                  {"first_frame", s.frames.first},
                                  {"last_frame", s.frames.last}});
  } else {
    out["protocol"] = toString(request.protocol);
  }
  if (request.captureRate) out["capture_rate"] = request.captureRate->value();
  if (request.rollingShutter) out["rolling_shutter_ms"] = 1e3 * request.rollingShutter->value();
  if (request.byField) out["by_field"] = true;
  if (request.pull) out["pull"] = kPulls[static_cast<std::size_t>(*request.pull)];
  if (const auto& s = request.scale) {
    out["scale"] = {{"from", toJson(s->from)},
                    {"to", toJson(s->to)},
                    {"length_mm", s->length.value()},
                    {"length_u95_mm", s->lengthU95.value()}};
  }
  if (const auto& q = request.square) {
    json corners = json::array();
    for (const PixelPoint c : q->corners) corners.push_back(toJson(c));
    out["square"] = {{"corners", corners},
                     {"width_mm", q->width.value()},
                     {"height_mm", q->height.value()},
                     {"side_u95_mm", q->sideU95.value()}};
  }
  if (const auto& p = request.scalePlane) {
    out["scale_plane"] = {{"camera_to_scale_mm", p->cameraToScale.value()},
                          {"camera_to_lure_mm", p->cameraToLure.value()}};
  }
  if (request.ownLength) {
    out["own_length_mm"] = request.ownLength->length.value();
    out["own_length_u95_mm"] = request.ownLength->u95.value();
  }
  if (request.seenFrom) out["seen_from"] = kSeenFrom[static_cast<std::size_t>(*request.seenFrom)];
  if (request.viewAngle) {
    out["view_angle_deg"] = request.viewAngle->deg;
    out["view_angle_u95_deg"] = request.viewAngle->u95_deg;
  }
  if (request.pullLine) out["pull_line"] = toJson(*request.pullLine);
  if (request.plumb) out["plumb"] = toJson(*request.plumb);
  if (request.waterline) out["waterline"] = toJson(*request.waterline);
  if (request.bottom) out["bottom"] = toJson(*request.bottom);
  if (const auto& l = request.lens) {
    out["lens"] = {
        {"model", "pinhole-radtan"}, {"fx", l->fx}, {"fy", l->fy}, {"cx", l->cx}, {"cy", l->cy}, {"k", l->k}};
  }
  if (request.looksLike) out["looks_like"] = relativeName(*request.looksLike, folder);
  out["marks"] = request.findMarks ? json("find") : json::array();
  for (const MarkSeed& m : request.marks) {
    out["marks"].push_back({{"name", toString(m.name)}, {"frame", m.frame}, {"at", toJson(m.at)}});
  }
  if (const auto& o = request.outline) {
    out["outline"] = {{"frame", o->frame}, {"polygon", toJson(o->polygon)}};
  }
  for (const HiddenRegion& h : request.hidden) {
    out["hidden"].push_back(
        {{"first_frame", h.firstFrame}, {"last_frame", h.lastFrame}, {"polygon", toJson(h.polygon)}});
  }
  for (const FouledStretch& f : request.fouled) {
    out["fouled"].push_back({{"first_frame", f.frames.first}, {"last_frame", f.frames.last}, {"why", f.why}});
  }
  if (request.bodyHalfHeight) out["body_half_height_mm"] = request.bodyHalfHeight->value();
  if (request.followBackground) out["follow_background"] = true;
  if (request.firstFrame > 0) out["first_frame"] = request.firstFrame;
  if (request.lastFrame) out["last_frame"] = *request.lastFrame;
  if (request.quiet)
    out["quiet"] = {{"from_s", request.quiet->from.value()}, {"to_s", request.quiet->to.value()}};
  if (request.twitches)
    out["twitches"] = {{"starts_s", request.twitches->starts_s}, {"left_out_s", request.twitches->leftOut_s}};
  if (request.thresholds != Thresholds{}) {
    for (const ThresholdKey& threshold : kThresholdKeys)
      out["thresholds"][threshold.key] = request.thresholds.*threshold.value;
  }
  if (!request.rigName.empty() || !request.rigNote.empty() || request.head) {
    out["rig"] = {{"name", request.rigName}, {"note", request.rigNote}};
    if (request.head) out["rig"]["head_in_water_g"] = request.head->inWater_g;
  }
  return out.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
}

}  // namespace fin
