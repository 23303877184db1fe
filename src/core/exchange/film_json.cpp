// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/film_json.h"

#include "core/exchange/relative_name.h"
#include "core/exchange/strict_json.h"

namespace fin {
namespace {

using nlohmann::json;
using strict::fail;
using strict::Object;

constexpr strict::Document kFilm{"film", "agile-fin-film/1"};
constexpr double kRound = 1000.0;  ///< places are kept to a thousandth of a pixel

std::vector<FilmLure> readLure(Object& pass) {
  const json* value = pass.get("lure");
  if (value == nullptr) return {};
  Object lure = pass.inner(*value, pass.pathOf("lure"));
  const auto frames = lure.numbers("frames"), x = lure.numbers("x_px"), y = lure.numbers("y_px");
  lure.nothingElse();
  if (frames.size() != x.size() || frames.size() != y.size())
    fail(pass.pathOf("lure"), "needs as many frames as places");
  std::vector<FilmLure> out;
  for (std::size_t i = 0; i < frames.size(); ++i) {
    if (frames[i] < 0.0) fail(pass.pathOf("lure.frames"), "must be frame numbers, counted from 0");
    out.push_back({static_cast<std::size_t>(frames[i]), {x[i], y[i]}});
  }
  return out;
}

std::optional<FilmTrace> readTrace(Object& pass) {
  const json* value = pass.get("trace");
  if (value == nullptr) return std::nullopt;
  Object trace = pass.inner(*value, pass.pathOf("trace"));
  FilmTrace out{trace.text("says"), trace.numbers("t_s"), trace.numbers("y"), trace.yes("downwards")};
  trace.nothingElse();
  return out;
}

void readQuiet(Object& pass, FilmPass& out) {
  const json* value = pass.get("quiet");
  if (value == nullptr) return;
  Object quiet = pass.inner(*value, pass.pathOf("quiet"));
  out.quietFrom_s = quiet.number("from_s");
  out.quietTo_s = quiet.number("to_s");
  quiet.nothingElse();
}

FilmPass readPass(Object& pass, const std::filesystem::path& folder) {
  FilmPass out;
  const std::string file = pass.textOr("pass", "");
  if (!file.empty()) out.passFile = folder / file;
  const std::string clip = file.empty() ? pass.text("clip") : pass.textOr("clip", "");
  if (!clip.empty()) out.clip = folder / clip;
  if (const auto rate = pass.maybeNumber("capture_rate")) out.captureRate = Hertz(*rate);
  out.byField = pass.yes("by_field");
  out.instant_s = pass.maybeNumber("instant_s");
  out.from_s = pass.maybeNumber("from_s");
  out.to_s = pass.maybeNumber("to_s");
  out.caption = pass.textOr("caption", "");
  out.note = pass.textOr("note", "");
  out.lure = readLure(pass);
  out.length_px = pass.maybeNumber("length_px");
  out.mmPerPixel = pass.maybeNumber("mm_per_px");
  readQuiet(pass, out);
  out.trace = readTrace(pass);
  pass.eachOf("readings", [&out](Object& reading) {
    out.readings.push_back({reading.number("from_s"), reading.text("name"), reading.text("value")});
  });
  return out;
}

template <class Enum>
Enum word(Object& film, const char* key, Enum usual, std::optional<Enum> (*named)(std::string_view),
          const char* choices) {
  const std::string text = film.textOr(key, std::string(toString(usual)));
  const auto found = named(text);
  if (!found) fail(key, std::string("must be ") + choices);
  return *found;
}

FilmScript readFilm(const json& root, const std::filesystem::path& folder) {
  Object film(root, "", kFilm);
  film.needFormat();
  FilmScript out;
  out.title = film.textOr("title", "");
  if (const json* end = film.get("end")) {
    if (!end->is_array()) fail("end", "must be a list of lines");
    for (const json& line : *end) out.end.push_back(Object::toText(line, "end"));
  }
  out.width_px = static_cast<int>(film.maybeNumber("width").value_or(out.width_px));
  out.height_px = static_cast<int>(film.maybeNumber("height").value_or(out.height_px));
  out.rate_Hz = film.maybeNumber("rate").value_or(out.rate_Hz);
  out.slowness = film.maybeNumber("slowness").value_or(out.slowness);
  out.view = word(film, "view", out.view, filmViewNamed, "whole, near or one-size");
  out.sound = word(film, "sound", out.sound, filmSoundNamed, "none, recorded or matched");
  out.inches = film.yes("inches");
  out.bare = film.yes("bare");
  if (film.get("passes") == nullptr) fail("passes", "is missing");
  film.eachOf("passes", [&](Object& pass) { out.passes.push_back(readPass(pass, folder)); });
  film.nothingElse();
  return out;
}

template <class T>
void put(json& to, const char* key, const std::optional<T>& value) {
  if (value) to[key] = *value;
}

json lureOf(const std::vector<FilmLure>& lure) {
  json frames = json::array(), x = json::array(), y = json::array();
  for (const FilmLure& at : lure) {
    frames.push_back(at.frame);
    x.push_back(std::round(kRound * at.at.x_px) / kRound);
    y.push_back(std::round(kRound * at.at.y_px) / kRound);
  }
  return {{"frames", frames}, {"x_px", x}, {"y_px", y}};
}

json toJson(const FilmPass& pass, const std::filesystem::path& folder) {
  json out = json::object();
  if (pass.passFile) out["pass"] = relativeName(*pass.passFile, folder);
  if (!pass.clip.empty()) out["clip"] = relativeName(pass.clip, folder);
  if (pass.captureRate) out["capture_rate"] = pass.captureRate->value();
  if (pass.byField) out["by_field"] = true;
  put(out, "instant_s", pass.instant_s);
  put(out, "from_s", pass.from_s);
  put(out, "to_s", pass.to_s);
  if (!pass.caption.empty()) out["caption"] = pass.caption;
  if (!pass.note.empty()) out["note"] = pass.note;
  if (!pass.lure.empty()) out["lure"] = lureOf(pass.lure);
  put(out, "length_px", pass.length_px);
  put(out, "mm_per_px", pass.mmPerPixel);
  if (pass.quietFrom_s) out["quiet"] = {{"from_s", *pass.quietFrom_s}, {"to_s", *pass.quietTo_s}};
  if (pass.trace) {
    out["trace"] = {{"says", pass.trace->says}, {"t_s", pass.trace->t_s}, {"y", pass.trace->y}};
    if (pass.trace->downwards) out["trace"]["downwards"] = true;
  }
  for (const FilmWords& words : pass.readings)
    out["readings"].push_back({{"from_s", words.from_s}, {"name", words.name}, {"value", words.value}});
  return out;
}

}  // namespace

Result<FilmScript> parseFilm(const std::string& text, const std::filesystem::path& folder) {
  return strict::parse(text, kFilm, [&folder](const json& root) { return readFilm(root, folder); });
}

std::string writeFilm(const FilmScript& script, const std::filesystem::path& folder) {
  json out{{"format", kFilm.format},          {"width", script.width_px},    {"height", script.height_px},
           {"rate", script.rate_Hz},          {"slowness", script.slowness}, {"view", toString(script.view)},
           {"sound", toString(script.sound)}, {"passes", json::array()}};
  if (!script.title.empty()) out["title"] = script.title;
  if (!script.end.empty()) out["end"] = script.end;
  if (script.inches) out["inches"] = true;
  if (script.bare) out["bare"] = true;
  for (const FilmPass& pass : script.passes) out["passes"].push_back(toJson(pass, folder));
  return out.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
}

}  // namespace fin
