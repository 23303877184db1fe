// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <set>

#include "core/tracking/follow.h"

namespace fin {
namespace {

using Seeds = std::vector<MarkSeed>;

struct Touched {
  MarkName mark = MarkName::Nose;
  FrameStretch frames;
};

bool has(const Seeds& seeds, const MarkSeed& seed) {
  return std::find(seeds.begin(), seeds.end(), seed) != seeds.end();
}

/// From the seed before a frame to the one after it; to the ends of the window where there is none.
FrameStretch between(const Seeds& seeds, MarkName mark, std::size_t frame, FrameStretch window) {
  FrameStretch out = window;
  for (const MarkSeed& s : seeds) {
    if (s.name != mark) continue;
    if (s.frame < frame) out.first = std::max(out.first, s.frame);
    if (s.frame > frame) out.last = std::min(out.last, s.frame);
  }
  return out;
}

std::vector<Touched> touchedBy(const Seeds& before, const Seeds& now, FrameStretch window) {
  std::vector<Touched> out;
  const auto touch = [&](const MarkSeed& seed) {
    const FrameStretch frames = between(now, seed.name, seed.frame, window);
    for (Touched& t : out) {
      if (t.mark != seed.name) continue;
      t.frames = {std::min(t.frames.first, frames.first), std::max(t.frames.last, frames.last)};
      return;
    }
    out.push_back({seed.name, frames});
  };
  for (const MarkSeed& s : before) {
    if (!has(now, s)) touch(s);
  }
  for (const MarkSeed& s : now) {
    if (!has(before, s)) touch(s);
  }
  return out;
}

/// The seeds of the touched mark, and with each where the others were found.
Seeds seedsFor(const Touched& touched, const FollowRequest& request, const Track& earlier) {
  Seeds out;
  for (const MarkSeed& s : request.seeds) {
    if (touched.frames.holds(s.frame)) out.push_back(s);
  }
  const Seeds said = out;
  for (const MarkSeed& s : said) {
    if (s.name != touched.mark) continue;
    for (const MarkTrack& other : earlier.marks) {
      const MarkSample& found = other.samples[s.frame - earlier.firstFrame];
      const bool known = std::any_of(out.begin(), out.end(), [&](const MarkSeed& o) {
        return o.name == other.name && o.frame == s.frame;
      });
      if (other.name != touched.mark && !known && found.seen && found.quality >= kDoubtfulBelow)
        out.push_back({other.name, s.frame, found.at});
    }
  }
  return out;
}

void takeOver(Track& into, const Track& fresh, MarkName mark) {
  const std::size_t offset = fresh.firstFrame - into.firstFrame;
  const auto target = std::find_if(into.marks.begin(), into.marks.end(),
                                   [mark](const MarkTrack& m) { return m.name == mark; });
  const MarkTrack& found = *fresh.find(mark);
  for (std::size_t i = 0; i < fresh.frameCount; ++i) {
    target->samples[offset + i] = found.samples[i];
    if (fresh.brightness[i]) into.brightness[offset + i] = fresh.brightness[i];
  }
}

std::set<MarkName> namesIn(const Seeds& seeds) {
  std::set<MarkName> out;
  for (const MarkSeed& s : seeds) out.insert(s.name);
  return out;
}

}  // namespace

Result<Track> followChanged(FrameSource& source, const FollowRequest& request, const Track& earlier,
                            const Seeds& before, const JobControl& job) {
  const bool sameWindow = earlier.firstFrame == request.firstFrame &&
                          earlier.frameCount == request.lastFrame - request.firstFrame + 1;
  if (!sameWindow || namesIn(before) != namesIn(request.seeds)) return followMarks(source, request, job);
  Track out = earlier;
  const auto touched = touchedBy(before, request.seeds, {request.firstFrame, request.lastFrame});
  for (std::size_t i = 0; i < touched.size(); ++i) {
    const Touched& t = touched[i];
    const auto part = [&](std::size_t done) {
      return static_cast<double>(done) / static_cast<double>(touched.size());
    };
    const FollowRequest stretch{seedsFor(t, request, earlier), t.frames.first, t.frames.last, request.hidden};
    auto fresh = followMarks(source, stretch, partOf(job, part(i), part(i + 1)));
    if (!fresh) return fresh;
    takeOver(out, *fresh, t.mark);
  }
  return out;
}

}  // namespace fin
