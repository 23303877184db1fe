// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/publishing/ballot_page.h"

#include <charconv>
#include <nlohmann/json.hpp>

namespace fin {
namespace {

using nlohmann::json;

/// JSON that may stand in a script: nothing in it ends the script.
std::string inScript(const json& value) {
  std::string out;
  for (const char c : value.dump(-1, ' ', false, json::error_handler_t::replace)) {
    if (c == '<' || c == '>' || c == '&') {
      constexpr const char* kHex = "0123456789abcdef";
      out += std::string("\\u00") + kHex[(c >> 4) & 15] + kHex[c & 15];
    } else {
      out += c;
    }
  }
  return out;
}

constexpr const char* kHead = R"page(<!DOCTYPE html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'self' file: data: blob: 'unsafe-inline'; connect-src 'none'">
<title>A vote</title>
<style>
  body { margin: 0; background: #f6f1e7; color: #1e262c; font: 18px/1.45 Inter, system-ui, sans-serif; }
  main { max-width: 1100px; margin: 0 auto; padding: 18px 16px 40px; }
  h1 { font-size: 1.5em; line-height: 1.2; margin: 0.3em 0; }
  .faint { color: #555b5d; }
  .pair { display: grid; grid-template-columns: 1fr 1fr; gap: 14px; margin-top: 14px; }
  .one { background: #fdfbf6; border: 1px solid #cfc6b4; border-radius: 12px; padding: 10px; }
  video { width: 100%; aspect-ratio: 4 / 3; background: #2a2f33; border-radius: 8px; display: block; }
  button { font: inherit; font-weight: 600; padding: 14px 18px; border-radius: 10px; border: 1px solid #a84412;
           background: #a84412; color: #fff; width: 100%; margin-top: 10px; cursor: pointer; }
  button.plain { background: #fdfbf6; color: #1e262c; border-color: #cfc6b4; max-width: 420px; display: block; margin: 14px auto 0; }
  button:focus-visible { outline: 3px solid #1e262c; outline-offset: 2px; }
  textarea { width: 100%; box-sizing: border-box; height: 9em; font: 14px/1.4 monospace; }
  progress { width: 100%; height: 10px; accent-color: #a84412; }
  a { text-decoration: none; }
  @media (max-width: 560px) {
    .pair { grid-template-columns: 1fr; gap: 8px; }
    .one { padding: 6px; }
    video { aspect-ratio: 3 / 2; object-fit: cover; }
    button { padding: 10px 6px; margin-top: 6px; }
    .keys { display: none; }
  }
</style>
</head>
<body><main id="main"><noscript>This page needs scripts to be allowed: it draws the pairs and keeps your answers.</noscript></main>
<script>
"use strict";
const VOTE = )page";

constexpr const char* kTail = R"page(;
const key = "agile-fin-vote-" + VOTE.id;
const main = document.getElementById("main");

function drawn(most) { return crypto.getRandomValues(new Uint32Array(1))[0] % most; }
function shuffled(list) {
  for (let i = list.length - 1; i > 0; --i) { const j = drawn(i + 1); [list[i], list[j]] = [list[j], list[i]]; }
  return list;
}
function sided(pair) { return drawn(2) ? [pair[1], pair[0]] : [pair[0], pair[1]]; }
function begun() {
  const all = [];
  for (let a = 0; a < VOTE.clips.length; ++a)
    for (let b = a + 1; b < VOTE.clips.length; ++b) all.push([VOTE.clips[a].code, VOTE.clips[b].code]);
  const once = shuffled(all).slice(0, VOTE.most);
  const again = shuffled(once.slice()).slice(0, Math.max(1, Math.round(once.length / 5)));
  const voter = Array.from(crypto.getRandomValues(new Uint8Array(16)), b => b.toString(16).padStart(2, "0")).join("");
  return { voter, pairs: once.concat(again).map(sided), answers: [] };
}
function stored() { try { return JSON.parse(localStorage.getItem(key)); } catch (e) { return null; } }
function store() { try { localStorage.setItem(key, JSON.stringify(state)); } catch (e) { /* it is asked once more after a reload */ } }
let state = stored() || begun();
store();

function element(tag, text, parent, look) {
  const out = document.createElement(tag);
  if (text) out.textContent = text;
  if (look) out.className = look;
  parent.append(out);
  return out;
}
function clip(code, parent) {
  const files = VOTE.clips.find(c => c.code === code);
  const video = element("video", "", parent);
  Object.assign(video, { muted: true, loop: true, autoplay: true, playsInline: true });
  for (const [file, type] of [[files.mp4, "video/mp4"], [files.webm, "video/webm"]]) {
    if (!file) continue;
    const source = element("source", "", video);
    source.src = file;
    source.type = type;
  }
}
function answer(choice) {
  if (state.answers.length >= state.pairs.length) return;
  const [left, right] = state.pairs[state.answers.length];
  state.answers.push({ left, right, choice });
  store();
  show();
}
function show() {
  main.replaceChildren();
  const at = state.answers.length;
  if (at >= state.pairs.length) return finished();
  element("h1", VOTE.asked, main);
  const where = element("p", "Pair " + (at + 1) + " of " + state.pairs.length + ".", main, "faint");
  element("span", " Arrow keys work too: left, right, down for no difference.", where, "keys");
  const bar = element("progress", "", main);
  bar.max = state.pairs.length;
  bar.value = at;
  bar.setAttribute("aria-label", "Pairs answered");
  const pair = element("div", "", main, "pair");
  ["left", "right"].forEach((side, i) => {
    const one = element("div", "", pair, "one");
    clip(state.pairs[at][i], one);
    const button = element("button", "This one", one);
    button.setAttribute("aria-label", i ? "The second one" : "The first one");
    button.onclick = () => answer(side);
  });
  element("button", "No difference", main, "plain").onclick = () => answer("same");
}
function finished() {
  const text = JSON.stringify({ format: "agile-fin-ballot/1", vote: VOTE.id, voter: state.voter, answers: state.answers }, null, 1);
  const name = "ballot-" + state.voter.slice(0, 8) + ".json";
  element("h1", "Thank you. That was all.", main);
  element("p", "Nothing was sent anywhere. Keep this file and send it to the one who asked you.", main);
  const link = element("a", "", main);
  link.href = URL.createObjectURL(new Blob([text], { type: "application/json" }));
  link.download = name;
  element("button", "Keep " + name, link, "plain");
  element("p", "Or copy this text:", main, "faint");
  const area = element("textarea", "", main);
  area.id = "ballot";
  area.readOnly = true;
  area.value = text;
  area.setAttribute("aria-label", "Your ballot as text");
}
document.addEventListener("keydown", event => {
  const choice = { ArrowLeft: "left", ArrowRight: "right", ArrowDown: "same" }[event.key];
  if (!choice || event.target.tagName === "TEXTAREA") return;
  event.preventDefault();
  answer(choice);
});
show();
</script>
</body>
</html>
)page";

}  // namespace

std::string ballotCode(std::size_t place) {
  return "k" + std::to_string(place + 1);
}

std::optional<std::size_t> placeOfBallotCode(const std::string& code) {
  std::size_t number = 0;
  const char* end = code.data() + code.size();
  if (code.size() < 2 || code.front() != 'k') return std::nullopt;
  const auto [stopped, failed] = std::from_chars(code.data() + 1, end, number);
  if (failed != std::errc() || stopped != end || number == 0) return std::nullopt;
  return number - 1;
}

std::string ballotPage(const Vote& vote, const std::vector<BallotClip>& clips) {
  json data{{"id", vote.id},
            {"asked", vote.asked.empty() ? "Which of the two do you like better?" : vote.asked},
            {"most", kMostBallotPairs},
            {"clips", json::array()}};
  for (const BallotClip& clip : clips)
    data["clips"].push_back({{"code", ballotCode(clip.place)}, {"mp4", clip.mp4}, {"webm", clip.webm}});
  return kHead + inScript(data) + kTail;
}

}  // namespace fin
