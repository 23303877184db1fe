// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <optional>
#include <set>

#include "core/tracking/marks/follow.h"

namespace fin {
namespace {

using Seeds = std::vector<MarkSeed>;

constexpr std::size_t kFirstReach_frames = 150;  ///< to either side of a corrected place
constexpr std::size_t kFurtherReach = 4;         ///< times as far, where the new way is not yet the old one
constexpr std::size_t kMeetsOver_frames = 30;
constexpr double kMeets_px = 0.4;
constexpr double kMeetsIn = 0.9;  ///< of those frames

struct Touched {
  MarkName mark = MarkName::Nose;
  FrameStretch frames;
  std::optional<std::size_t> corrected;  ///< the one frame in which the mark's place was given or moved
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
      if (t.corrected != seed.frame) t.corrected.reset();
      return;
    }
    out.push_back({seed.name, frames, seed.frame});
  };
  for (const MarkSeed& s : before) {
    if (!has(now, s)) touch(s);
  }
  for (const MarkSeed& s : now) {
    if (!has(before, s)) touch(s);
  }
  for (Touched& t : out) {
    // The only place of a mark decides what it is followed by: moved a little, it moves all of its way.
    bool stands = false;
    bool another = false;
    for (const MarkSeed& s : now) {
      if (s.name == t.mark) (s.frame == t.corrected ? stands : another) = true;
    }
    if (!stands || !another) t.corrected.reset();
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

/// Whether a mark's new way is its old one again in these frames.
bool meets(const Track& fresh, const Track& earlier, MarkName mark, FrameStretch frames) {
  const MarkTrack& is = *fresh.find(mark);
  const MarkTrack& was = *earlier.find(mark);
  double meeting = 0.0;
  for (std::size_t n = frames.first; n <= frames.last; ++n) {
    const MarkSample& a = is.samples[n - fresh.firstFrame];
    const MarkSample& b = was.samples[n - earlier.firstFrame];
    const bool asSure = (a.quality >= kDoubtfulBelow) == (b.quality >= kDoubtfulBelow);
    if (a.seen && b.seen && asSure && length(a.at - b.at).value() <= kMeets_px) meeting += 1.0;
  }
  return meeting >= kMeetsIn * static_cast<double>(frames.last - frames.first + 1);
}

/// From a corrected place to either side, as far as the new way differs from the old one.
Result<Track> followAround(FrameSource& source, const FollowRequest& request, const Track& earlier,
                           const Touched& touched, const JobControl& job) {
  const std::size_t at = *touched.corrected;
  const FrameStretch whole = touched.frames;
  for (std::size_t back = kFirstReach_frames, on = kFirstReach_frames;;) {
    const FrameStretch frames{at - std::min(back, at - whole.first), at + std::min(on, whole.last - at)};
    const Seeds seeds = seedsFor({touched.mark, frames, at}, request, earlier);
    auto fresh = followMarks(source, {seeds, frames.first, frames.last, request.hidden}, job);
    if (!fresh) return fresh;
    const bool metBefore =
        frames.first == whole.first ||
        meets(*fresh, earlier, touched.mark, {frames.first, frames.first + kMeetsOver_frames - 1});
    const bool metAfter =
        frames.last == whole.last ||
        meets(*fresh, earlier, touched.mark, {frames.last + 1 - kMeetsOver_frames, frames.last});
    if (metBefore && metAfter) return fresh;
    if (!metBefore) back *= kFurtherReach;
    if (!metAfter) on *= kFurtherReach;
  }
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
    const JobControl here = partOf(job, part(i), part(i + 1));
    const FollowRequest stretch{seedsFor(t, request, earlier), t.frames.first, t.frames.last, request.hidden};
    auto fresh =
        t.corrected ? followAround(source, request, earlier, t, here) : followMarks(source, stretch, here);
    if (!fresh) return fresh;
    takeOver(out, *fresh, t.mark);
  }
  return out;
}

}  // namespace fin
