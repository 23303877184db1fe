// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <span>

#include "core/exchange/pass_json.h"
#include "core/exchange/pass_words.h"
#include "core/exchange/strict_json.h"
#include "core/units/names.h"
#include "core/water/weight_change.h"

namespace fin {
namespace {

using nlohmann::json;
using strict::fail;
using strict::Object;

constexpr strict::Document kPass{"pass", "agile-fin-pass/1"};

/// "retrieve, fall, …"
std::string listed(std::span<const Protocol> protocols) {
  std::string out;
  for (const Protocol p : protocols) out.append(out.empty() ? "" : ", ").append(toString(p));
  return out;
}

std::optional<PixelLine> readLine(Object& pass, const std::string& key) {
  const json* value = pass.get(key);
  if (value == nullptr) return std::nullopt;
  Object line = pass.inner(*value, key);
  PixelLine out{line.point("from"), line.point("to")};
  line.nothingElse();
  return out;
}

std::optional<ScaleMark> readScale(Object& pass) {
  const json* value = pass.get("scale");
  if (value == nullptr) return std::nullopt;
  Object scale = pass.inner(*value, "scale");
  ScaleMark out{scale.point("from"), scale.point("to"), Millimetres(scale.number("length_mm")),
                Millimetres(scale.maybeNumber("length_u95_mm").value_or(0.0))};
  scale.nothingElse();
  return out;
}

std::optional<SquareMark> readSquare(Object& pass) {
  const json* value = pass.get("square");
  if (value == nullptr) return std::nullopt;
  Object object = pass.inner(*value, "square");
  SquareMark out{{},
                 Millimetres(object.number("width_mm")),
                 Millimetres(object.number("height_mm")),
                 Millimetres(object.maybeNumber("side_u95_mm").value_or(0.0))};
  const json& corners = object.need("corners");
  if (!corners.is_array() || corners.size() != out.corners.size())
    fail("square.corners", "must be four points");
  for (std::size_t i = 0; i < out.corners.size(); ++i)
    out.corners[i] = Object::toPoint(corners[i], "square.corners");
  object.nothingElse();
  return out;
}

std::optional<ScalePlane> readPlane(Object& pass) {
  const json* value = pass.get("scale_plane");
  if (value == nullptr) return std::nullopt;
  Object plane = pass.inner(*value, "scale_plane");
  ScalePlane out{Millimetres(plane.number("camera_to_scale_mm")),
                 Millimetres(plane.number("camera_to_lure_mm"))};
  plane.nothingElse();
  return out;
}

std::optional<Lens> readLens(Object& pass) {
  const json* value = pass.get("lens");
  if (value == nullptr) return std::nullopt;
  Object object = pass.inner(*value, "lens");
  if (object.text("model") != "pinhole-radtan") fail("lens.model", "must be \"pinhole-radtan\"");
  Lens lens{object.number("fx"), object.number("fy"), object.number("cx"), object.number("cy"), {}};
  const json& k = object.need("k");
  if (!k.is_array() || k.size() > lens.k.size()) fail("lens.k", "must be up to five numbers");
  for (std::size_t i = 0; i < k.size(); ++i) lens.k[i] = Object::toNumber(k[i], "lens.k");
  object.nothingElse();
  return lens;
}

std::vector<MarkSeed> readMarks(Object& pass) {
  std::vector<MarkSeed> out;
  pass.eachOf("marks", [&out](Object& mark) {
    const std::string name = mark.text("name");
    const auto known = markNamed(name);
    if (!known) fail(mark.pathOf("name"), "there is no mark called \"" + name + "\"");
    out.push_back({*known, mark.maybeFrame("frame").value_or(0), mark.point("at")});
  });
  return out;
}

std::vector<PixelPoint> readPolygon(Object& object) {
  std::vector<PixelPoint> out;
  const json& polygon = object.need("polygon");
  const std::string path = object.pathOf("polygon");
  if (!polygon.is_array()) fail(path, "must be a list of points");
  for (const json& p : polygon) out.push_back(Object::toPoint(p, path));
  return out;
}

std::optional<OutlineSeed> readOutline(Object& pass) {
  const json* value = pass.get("outline");
  if (value == nullptr) return std::nullopt;
  Object object = pass.inner(*value, "outline");
  OutlineSeed out{object.maybeFrame("frame").value_or(0), readPolygon(object)};
  object.nothingElse();
  return out;
}

FrameStretch readStretch(Object& object) {
  const FrameStretch out{object.frame("first_frame"), object.frame("last_frame")};
  if (out.last < out.first) fail(object.pathOf("last_frame"), "must not be before first_frame");
  return out;
}

std::vector<HiddenRegion> readHidden(Object& pass) {
  std::vector<HiddenRegion> out;
  pass.eachOf("hidden", [&out](Object& object) {
    const FrameStretch frames = readStretch(object);
    out.push_back({frames.first, frames.last, readPolygon(object)});
    if (out.back().polygon.size() < 3) fail(object.pathOf("polygon"), "needs at least three points");
  });
  return out;
}

std::vector<FouledStretch> readFouled(Object& pass) {
  std::vector<FouledStretch> out;
  pass.eachOf("fouled", [&out](Object& object) {
    const FrameStretch frames = readStretch(object);
    out.push_back({frames, object.textOr("why", "")});
  });
  return out;
}

std::optional<QuietStretch> readQuiet(Object& pass) {
  const json* value = pass.get("quiet");
  if (value == nullptr) return std::nullopt;
  Object object = pass.inner(*value, "quiet");
  QuietStretch out{Seconds(object.number("from_s")), Seconds(object.number("to_s"))};
  object.nothingElse();
  return out;
}

std::optional<TwitchStarts> readTwitches(Object& pass) {
  const json* value = pass.get("twitches");
  if (value == nullptr) return std::nullopt;
  Object object = pass.inner(*value, "twitches");
  TwitchStarts out{object.numbers("starts_s"), object.numbers("left_out_s")};
  object.nothingElse();
  return out;
}

Thresholds readThresholds(Object& pass) {
  Thresholds out;
  const json* value = pass.get("thresholds");
  if (value == nullptr) return out;
  Object object = pass.inner(*value, "thresholds");
  for (const ThresholdKey& threshold : kThresholdKeys) {
    double& number = out.*threshold.value;
    number = object.maybeNumber(threshold.key).value_or(number);
  }
  object.nothingElse();
  return out;
}

std::optional<Pull> readPull(Object& pass) {
  const json* value = pass.get("pull");
  if (value == nullptr) return std::nullopt;
  const std::string text = Object::toText(*value, "pull");
  const auto found = std::find(kPulls.begin(), kPulls.end(), text);
  if (found == kPulls.end()) fail("pull", "must be right, left, up or down");
  return static_cast<Pull>(found - kPulls.begin());
}

void readOwnLength(Object& pass, PassRequest& out) {
  const auto length = pass.maybeNumber("own_length_mm");
  const auto u95 = pass.maybeNumber("own_length_u95_mm");
  if (!length) {
    if (u95) fail("own_length_u95_mm", "needs own_length_mm");
    return;
  }
  out.ownLength = OwnLength{Millimetres(*length)};
  if (u95) out.ownLength->u95 = Millimetres(*u95);
}

void readSight(Object& pass, PassRequest& out) {
  if (const json* value = pass.get("seen_from")) {
    out.seenFrom = enumNamed<SeenFrom>(kSeenFrom, Object::toText(*value, "seen_from"));
    if (!out.seenFrom) fail("seen_from", "must be side, behind, ahead or above");
  }
  const auto angle = pass.maybeNumber("view_angle_deg");
  const auto u95 = pass.maybeNumber("view_angle_u95_deg");
  if (angle) out.viewAngle = StatedAngle{*angle};
  if (u95 && !angle) fail("view_angle_u95_deg", "needs view_angle_deg");
  if (u95) out.viewAngle->u95_deg = *u95;
}

void readStretches(Object& pass, PassRequest& out) {
  const json* value = pass.get("stretches");
  if (value == nullptr) return;
  if (value->is_string()) {
    if (value->get<std::string>() != "find") fail("stretches", "must be a list, or \"find\"");
    out.findStretches = true;
    return;
  }
  pass.eachOf("stretches", [&](Object& one) {
    const auto protocol = protocolNamed(one.text("protocol"));
    if (!protocol) fail("stretches", "protocol must be one of " + listed(kAllProtocols) + " or pause");
    out.stretches.push_back({*protocol, {one.frame("first_frame"), one.frame("last_frame")}});
  });
  if (out.stretches.empty()) fail("stretches", "holds none");
}

void readHead(Object& rig, PassRequest& out) {
  const auto inWater = rig.maybeNumber("head_in_water_g");
  const auto inAir = rig.maybeNumber("head_g");
  const std::string metal = rig.textOr("head_metal", "");
  if (inWater && inAir) fail("rig.head_g", "give it in air or in water, not both");
  if (inWater) out.head = RigHead{*inWater};
  if (!inAir) return;
  const auto density = densityOfMetal(metal.empty() ? "lead" : metal);
  if (!density) fail("rig.head_metal", "must be lead, tungsten, steel or brass");
  constexpr KilogramsPerCubicMetre kWater{998.2};  // fresh, at 20 °C
  out.head = RigHead{weightInWater(Grams(*inAir), *density, kWater).value()};
}

void readRig(Object& pass, PassRequest& out) {
  const json* value = pass.get("rig");
  if (value == nullptr) return;
  Object rig = pass.inner(*value, "rig");
  out.rigName = rig.textOr("name", "");
  out.rigNote = rig.textOr("note", "");
  readHead(rig, out);
  rig.nothingElse();
}

PassRequest readPass(const json& root, const std::filesystem::path& folder) {
  Object pass(root, "", kPass);
  pass.needFormat();
  PassRequest out;
  const std::string clip = pass.text("clip");
  if (clip.empty()) fail("clip", "names no file");
  out.clip = folder / std::filesystem::path(clip);
  readStretches(pass, out);
  if (const json* named = pass.get("protocol"); named != nullptr || !hasStretches(out)) {
    const auto protocol = protocolNamed(pass.text("protocol"));
    if (!protocol) fail("protocol", "must be one of " + listed(kAllProtocols));
    if (hasStretches(out)) fail("stretches", "stand in place of protocol: give one of them");
    out.protocol = *protocol;
  }
  const auto view = viewNamed(pass.textOr("view", "side"));
  if (!view) fail("view", "must be side, top, head-on or chase");
  out.view = *view;
  if (const auto rate = pass.maybeNumber("capture_rate")) out.captureRate = Hertz(*rate);
  if (const auto ms = pass.maybeNumber("rolling_shutter_ms")) out.rollingShutter = Seconds(*ms / 1e3);
  out.pull = readPull(pass);
  out.scale = readScale(pass);
  out.square = readSquare(pass);
  out.scalePlane = readPlane(pass);
  out.plumb = readLine(pass, "plumb");
  out.waterline = readLine(pass, "waterline");
  out.bottom = readLine(pass, "bottom");
  out.lens = readLens(pass);
  readOwnLength(pass, out);
  readSight(pass, out);
  out.pullLine = readLine(pass, "pull_line");
  const json* marks = pass.get("marks");
  out.findMarks = marks != nullptr && *marks == "find";
  if (!out.findMarks) out.marks = readMarks(pass);
  if (pass.get("looks_like") != nullptr)
    out.looksLike = folder / std::filesystem::path(pass.text("looks_like"));
  out.outline = readOutline(pass);
  out.hidden = readHidden(pass);
  out.fouled = readFouled(pass);
  if (const auto half = pass.maybeNumber("body_half_height_mm")) out.bodyHalfHeight = Millimetres(*half);
  out.byField = pass.yes("by_field");
  out.followBackground = pass.yes("follow_background");
  out.firstFrame = pass.maybeFrame("first_frame").value_or(0);
  out.lastFrame = pass.maybeFrame("last_frame");
  out.quiet = readQuiet(pass);
  out.twitches = readTwitches(pass);
  out.thresholds = readThresholds(pass);
  readRig(pass, out);
  pass.nothingElse();
  return out;
}

}  // namespace

Result<PassRequest> parsePassRequest(const std::string& text, const std::filesystem::path& folder,
                                     Stage stage) {
  const auto request =
      strict::parse(text, kPass, [&folder](const json& root) { return readPass(root, folder); });
  if (!request) return request;
  if (auto ok = validate(*request, stage); !ok) return tl::unexpected(ok.error());
  return request;
}

}  // namespace fin
