// SPDX-License-Identifier: GPL-3.0-or-later
// Exactness of random access: every clip of a folder is read on once, then frames are asked for in any order
// by a reader of its own; each must be, to the last grey value, the frame that reading on gave.
//   random_access FOLDER...
#include <fmt/format.h>
#include <filesystem>
#include <opencv2/core.hpp>
#include <random>
#include <vector>

#include "core/footage/clip.h"

namespace {

namespace fs = std::filesystem;

/// Grey values folded into one number; 0 for a damaged frame.
std::uint64_t foldedGrey(const fin::Result<fin::Picture>& picture) {
  if (!picture) return 0;
  std::uint64_t hash = 14695981039346656037ULL;
  const cv::Mat& grey = picture->grey();
  for (int y = 0; y < grey.rows; ++y) {
    for (int x = 0; x < grey.cols; ++x) hash = (hash ^ grey.at<uchar>(y, x)) * 1099511628211ULL;
  }
  return hash;
}

struct Tally {
  std::size_t clips = 0;
  std::size_t tried = 0;
  std::size_t wrong = 0;
};

void tryClip(const fs::path& file, Tally& tally) {
  const auto clip = fin::Clip::open(file);
  if (!clip) return;  // no clip: others check how that is said
  auto on = fin::Clip::reader(*clip, {});
  auto jumping = fin::Clip::reader(*clip, {});
  if (!on || !jumping) return;
  std::vector<std::uint64_t> truth;
  for (std::size_t n = 0; n < (*clip)->index().frameCount(); ++n)
    truth.push_back(foldedGrey((*on)->frame(n)));
  std::mt19937 random(7);
  std::uniform_int_distribution<std::size_t> any(0, truth.size() - 1);
  std::size_t wrong = 0;
  constexpr std::size_t kTries = 60;
  for (std::size_t i = 0; i < kTries; ++i) {
    const std::size_t n = any(random);
    if (foldedGrey((*jumping)->frame(n)) != truth[n]) ++wrong;
  }
  fmt::print("{:32} {:6} frames  {:2} of {} wrong\n", file.filename().string(), truth.size(), wrong, kTries);
  ++tally.clips;
  tally.tried += kTries;
  tally.wrong += wrong;
}

}  // namespace

int main(int argc, char** argv) {
  Tally tally;
  for (int i = 1; i < argc; ++i) {
    for (const auto& entry : fs::recursive_directory_iterator(argv[i])) {
      if (entry.is_regular_file()) tryClip(entry.path(), tally);
    }
  }
  fmt::print("clips: {}, frames asked for: {}, wrong: {}\n", tally.clips, tally.tried, tally.wrong);
  return tally.wrong == 0 && tally.clips > 0 ? 0 : 1;
}
