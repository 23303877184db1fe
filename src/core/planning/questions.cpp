// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/questions.h"

#include <algorithm>

namespace fin {
namespace {

using enum MarkName;

const std::vector<MarkName> kBody{Nose, Tail};
const std::vector<MarkName> kKick{Nose, Tail, Tip};

}  // namespace

const std::vector<Question>& questions() {
  static const std::vector<Question> all{
      {"wobble",
       "How wide and how fast does it work on a straight pull, and how slow can I go before it dies?",
       {{Protocol::Retrieve, View::Top, kKick, 2, true, "wobbles, their width, tail sweep and kick, evenness",
         "depth and roll"}}},
      {"rolls",
       "At which speed does it roll, lay over or spin, and twist my line?",
       {{Protocol::Retrieve,
         View::HeadOn,
         {Back, Belly},
         2,
         true,
         "roll, laying over, whole turns",
         "pull speed: say it from the handle or a second camera"},
        {Protocol::Retrieve,
         View::Side,
         {Nose, Tail, Flank},
         2,
         true,
         "roll by the flank mark, twist per metre",
         "wobble, but for flashes"}}},
      {"hunts",
       "Is it steady, or does it break out by itself?",
       {{Protocol::Retrieve, View::Top, kBody, 4, false, "evenness of the wobble, breaking out to the side",
         "breaking out upwards: the side view shows that"}}},
      {"fall",
       "How does it fall: how fast, nose first or level, straight or gliding, and does the tail still kick?",
       {{Protocol::Fall, View::Side, kKick, 3, false, "fall rate, attitude, glide, way of falling, kick",
         "a drift towards or away from the camera"}}},
      {"jerk",
       "How far does it dart, does it come back, does it stop dead, is each one different?",
       {{Protocol::Twitch, View::Side, kBody, 3, false, "dart, spring-back, stop, drift in the pause",
         "darting to the side: the top view shows that"},
        {Protocol::Twitch, View::Top, kBody, 2, false, "darts to either side and their spread",
         "rising and sinking"}}},
      {"pause",
       "What does it do in the pause: hang, creep up or sink?",
       {{Protocol::Twitch, View::Side, kBody, 3, false, "drift and attitude in the pause",
         "less than a pause's own length allows: make it two seconds or more"}}},
      {"walk",
       "Does it walk to both sides, and does it climb out?",
       {{Protocol::Walk, View::Top, kBody, 3, false, "swings, sides, their share",
         "climb: the side view shows that"},
        {Protocol::Walk, View::Side, kBody, 1, false, "climb with each twitch", "swings"}}},
      {"bottom",
       "On the bottom, does it stand up or lie on its side?",
       {{Protocol::Rest, View::Side, kBody, 3, false, "standing angle and time",
         "how it does on weed or stones"}}},
      {"hop",
       "Hopped off the bottom, how high does it come, how does it fall back, and does the tail kick?",
       {{Protocol::Hop, View::Side, kKick, 3, false, "height, fall back, kick on the way down",
         "hops towards or away from the camera"}}},
      {"drag",
       "Dragged over the bottom, does it move by itself?",
       {{Protocol::Drag, View::Side, kKick, 3, false, "turning and kick for every metre pulled",
         "turning to the side: the top view shows that"},
        {Protocol::Drag, View::Top, kKick, 1, false, "turning to the side and kick for every metre",
         "turning up and down"}}},
      {"skirt",
       "Does the skirt stay spread, and does it quiver?",
       {{Protocol::Skirt,
         View::Side,
         {},
         3,
         false,
         "area while moving, flare at the stop, settling, quiver",
         "depth of the skirt along the line of sight"}}},
      {"straight",
       "Is it rigged straight?",
       {{Protocol::Still,
         View::Top,
         {Nose, Tail, Hook},
         1,
         false,
         "bend of the body, hook beside its middle",
         "a bend towards the camera: turn it by a quarter for that"}}},
      {"sound",
       "Is it louder or duller, and does it rattle on each twitch?",
       {{Protocol::Sound,
         View::Side,
         {},
         3,
         false,
         "level over a quiet stretch, knocks, strongest tone",
         "loudness as such: only a comparison with one camera at one distance and fixed gain"}}},
      {"depth",
       "How deep does it run at this speed and this much line?",
       {{Protocol::Retrieve, View::Side, kBody, 2, true, "depth under the marked waterline",
         "deeper than the tank"}}},
      {"change",
       "What did changing one thing do (hook, insert, head, tail, skirt)?",
       {{Protocol::Fall, View::Side, kKick, 4, false, "fall before and after",
         "a change smaller than the scatter"},
        {Protocol::Retrieve, View::Top, kKick, 4, false, "wobble and kick before and after",
         "a change smaller than the scatter"}}},
  };
  return all;
}

const Question* questionNamed(std::string_view key) {
  const auto& all = questions();
  const auto found = std::find_if(all.begin(), all.end(), [key](const Question& q) { return q.key == key; });
  return found == all.end() ? nullptr : &*found;
}

std::vector<Proposal> proposalsFor(const std::vector<std::string>& keys) {
  std::vector<Proposal> out;
  for (const std::string& key : keys) {
    const Question* question = questionNamed(key);
    if (question == nullptr) continue;
    for (const Proposal& p : question->proposals) {
      const auto same = std::find_if(out.begin(), out.end(), [&](const Proposal& o) {
        return o.protocol == p.protocol && o.view == p.view;
      });
      if (same == out.end()) {
        out.push_back(p);
        continue;
      }
      same->passes = std::max(same->passes, p.passes);
      same->severalSpeeds |= p.severalSpeeds;
      for (MarkName mark : p.marks) {
        if (std::find(same->marks.begin(), same->marks.end(), mark) == same->marks.end())
          same->marks.push_back(mark);
      }
    }
  }
  return out;
}

}  // namespace fin
