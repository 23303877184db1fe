// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/rattle.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>

#include "core/signals/sound_spectrum.h"

namespace fin {
namespace {

constexpr std::size_t kStretch = 1024;  ///< samples, about 20 ms
constexpr std::size_t kHop = 256;
constexpr std::size_t kFineStretch = 4096;
constexpr std::size_t kFineHop = 512;
constexpr double kOnset_dB = 10.0;
constexpr double kOver_dB = 7.0;  ///< below, a knock has died away
constexpr double kLowest_Hz = 80.0;
constexpr float kFullScale = 0.985F;
constexpr std::size_t kClippedRun = 3;    ///< samples at full scale in a row
constexpr float kHeardAtAll = 3e-5F;      ///< one step of 16 bits
constexpr double kBesideKnock_s = 0.12;   ///< of background looked at on either side of a knock
constexpr double kClearOfKnock_s = 0.02;  ///< before its onset
constexpr double kDiedAway_s = 0.18;      ///< after it
constexpr double kLevelU95_dB = 0.2;      ///< at least: knocks cut at the ends of the window
constexpr double kBinShare = 0.25;        ///< of a bin, between which the peak is told (95 %)
constexpr double kPitchShare = 0.005;     ///< by which a knock's pitch wanders while it dies away (95 %)
constexpr double kGainFollows_dB = 3.0;
constexpr std::size_t kFewestKnocks = 3;
constexpr const char* kOnlyCompare = "compare only passes with one camera at one distance with fixed gain";

Series levelOf(const std::vector<float>& samples, double rate_Hz) {
  return earLevel(soundSpectra(samples, rate_Hz, kStretch, kHop));
}

double meanPower_dB(const Series& level) {
  double sum = 0.0;
  for (const double dB : level.y) sum += std::pow(10.0, dB / 10.0);
  return 10.0 * std::log10(sum / static_cast<double>(level.size()));
}

/// When knocks begin: the level rises through 10 dB over the background, having died away before.
std::vector<double> onsetsOf(const Series& level, double background_dB) {
  std::vector<double> out;
  bool on = false;
  for (std::size_t i = 0; i < level.size(); ++i) {
    const double over = level.y[i] - background_dB;
    if (!on && over > kOnset_dB) {
      out.push_back(level.t_s[i]);
      on = true;
    } else if (over < kOver_dB) {
      on = false;
    }
  }
  return out;
}

/// Runs of samples at full scale: what was louder than the camera could hold.
std::size_t clippedPlaces(const std::vector<float>& samples) {
  std::size_t places = 0;
  std::size_t run = 0;
  for (const float s : samples) {
    run = std::abs(s) >= kFullScale ? run + 1 : 0;
    if (run == kClippedRun) ++places;
  }
  return places;
}

bool isSilent(const std::vector<float>& samples) {
  return std::all_of(samples.begin(), samples.end(), [](float s) { return std::abs(s) < kHeardAtAll; });
}

/// By how much the background sinks while the lure is loud, dB: what a gain does that follows the loudness.
/// Of the stretches right after knocks against those right before them, and of the window against the quiet
/// stretch.
double sinkingBackground_dB(const Series& level, const std::vector<double>& onsets, const Series& quiet) {
  std::vector<double> drops;
  for (const double onset_s : onsets) {
    const Series before = level.between(onset_s - kBesideKnock_s, onset_s - kClearOfKnock_s);
    const Series after = level.between(onset_s + kDiedAway_s, onset_s + kDiedAway_s + kBesideKnock_s);
    const bool another = std::any_of(onsets.begin(), onsets.end(), [&](double other) {
      return other != onset_s && std::abs(other - onset_s) < kDiedAway_s + 2.0 * kBesideKnock_s;
    });
    if (before.size() > 4 && after.size() > 4 && !another)
      drops.push_back(median(before.y) - median(after.y));
  }
  const double out = drops.size() < kFewestKnocks ? 0.0 : median(drops);
  return quiet.size() > 4 ? std::max(out, median(quiet.y) - median(level.y)) : out;
}

void readLevel(const HeardPass& heard, const Series& window, const std::vector<double>& onsets,
               ReadingSheet& sheet) {
  if (const std::size_t places = clippedPlaces(heard.window) + clippedPlaces(heard.quiet); places > 0) {
    sheet.refuse(ReadingId::RattleLevel,
                 fmt::format("the sound is clipped in {} places: it was louder than the "
                             "camera could hold; turn its gain down and film again",
                             places));
    return;
  }
  if (heard.quiet.empty()) {
    sheet.refuse(ReadingId::RattleLevel,
                 "no quiet stretch is marked, so there is nothing to compare the level with");
    return;
  }
  const Series quiet = levelOf(heard.quiet, heard.rate_Hz);
  if (quiet.size() < 4) {
    sheet.refuse(ReadingId::RattleLevel, "the quiet stretch is too short; mark a second or more");
    return;
  }
  Estimate e;
  e.value = meanPower_dB(window) - meanPower_dB(quiet);
  // Stretches that overlap by three quarters count for a quarter each.
  const double independent = static_cast<double>(quiet.size()) * kHop / kStretch;
  e.u95 = std::hypot(kLevelU95_dB, kNormal95 * robustSpread(quiet.y) / std::sqrt(std::max(independent, 1.0)));
  e.n = static_cast<double>(window.size());
  e.grade = e.u95 < 1.0 ? Grade::Good : e.u95 < 3.0 ? Grade::Fair : Grade::Poor;
  e.notes = {"A-weighted", kOnlyCompare};
  if (const double sinks = sinkingBackground_dB(window, onsets, quiet); sinks > kGainFollows_dB) {
    e.grade = Grade::Poor;
    e.u95 = std::hypot(e.u95, sinks);
    e.notes.push_back(
        fmt::format("the background sinks by {:.0f} dB when it is loud: the camera's gain seems "
                    "to follow the loudness; set it to a fixed one",
                    sinks));
  }
  sheet.give(ReadingId::RattleLevel, e);
}

/// The strongest peak of the knocks' spectrum over the background's.
void readPitch(const HeardPass& heard, const std::vector<double>& onsets, ReadingSheet& sheet) {
  const SoundSpectra fine = soundSpectra(heard.window, heard.rate_Hz, kFineStretch, kFineHop);
  if (onsets.empty() || fine.empty()) {
    sheet.refuse(ReadingId::RattlePeakFrequency, "no knock stands out by 10 dB");
    return;
  }
  const double half_s = 0.5 * static_cast<double>(kFineStretch) / heard.rate_Hz;
  const auto bins = fine.power.front().size();
  std::vector<double> loud(bins, 0.0);
  std::vector<double> still(bins, 0.0);
  double loudCount = 0.0;
  double stillCount = 0.0;
  for (std::size_t i = 0; i < fine.power.size(); ++i) {
    const bool near = std::any_of(onsets.begin(), onsets.end(), [&](double t) {
      return fine.time_s[i] > t - 0.5 * half_s && fine.time_s[i] < t + half_s;
    });
    std::vector<double>& sum = near ? loud : still;
    (near ? loudCount : stillCount) += 1.0;
    for (std::size_t k = 0; k < bins; ++k) sum[k] += fine.power[i][k];
  }
  const auto over = [&](std::size_t k) {
    return loud[k] / std::max(loudCount, 1.0) - still[k] / std::max(stillCount, 1.0);
  };
  std::size_t best = static_cast<std::size_t>(kLowest_Hz / fine.hertzPerBin);
  for (std::size_t k = best; k + 1 < bins; ++k) {
    if (over(k) > over(best)) best = k;
  }
  const double left = std::log(std::max(over(best - 1), 1e-20));
  const double middle = std::log(std::max(over(best), 1e-20));
  const double right = std::log(std::max(over(best + 1), 1e-20));
  const double bend = left - 2.0 * middle + right;
  const double shift = bend < 0.0 ? std::clamp(0.5 * (left - right) / bend, -0.5, 0.5) : 0.0;
  Estimate e;
  e.value = (static_cast<double>(best) + shift) * fine.hertzPerBin;
  e.u95 = std::hypot(kBinShare * fine.hertzPerBin, kPitchShare * e.value);
  e.n = static_cast<double>(onsets.size());
  e.grade = gradeOf(e.value, e.u95);
  e.notes.push_back(kOnlyCompare);
  sheet.give(ReadingId::RattlePeakFrequency, e);
}

}  // namespace

void readRattle(const HeardPass& heard, ReadingSheet& sheet) {
  const Series level = levelOf(heard.window, heard.rate_Hz);
  if (level.size() < 8) return;
  if (isSilent(heard.window)) {
    for (const ReadingSpec& spec : readingsOf(Protocol::Sound))
      sheet.refuse(spec.id, "the clip's sound is silent; see that the camera records any, and film again");
    return;
  }
  const std::vector<double> onsets = onsetsOf(level, median(level.y));
  readLevel(heard, level, onsets, sheet);
  const double span = static_cast<double>(heard.window.size()) / heard.rate_Hz;
  Estimate rate;
  rate.n = static_cast<double>(onsets.size());
  rate.value = rate.n / span;
  rate.u95 = std::max(1.0, 0.05 * rate.n) / span;
  rate.grade = rate.n >= 5.0 ? Grade::Good : Grade::Fair;
  rate.notes.push_back(kOnlyCompare);
  sheet.give(ReadingId::RattleRate, rate);
  readPitch(heard, onsets, sheet);
}

std::vector<double> knocksOf(const HeardPass& heard) {
  const Series level = levelOf(heard.window, heard.rate_Hz);
  return level.empty() ? std::vector<double>() : onsetsOf(level, median(level.y));
}

Series levelOverQuiet(const HeardPass& heard) {
  Series level = levelOf(heard.window, heard.rate_Hz);
  const Series quiet = levelOf(heard.quiet, heard.rate_Hz);
  const double nought = median(quiet.empty() ? level.y : quiet.y);
  for (double& dB : level.y) dB -= nought;
  return level;
}

Result<double> gainToMatch_dB(const HeardPass& first, const HeardPass& second) {
  const Series a = levelOf(first.quiet, first.rate_Hz);
  const Series b = levelOf(second.quiet, second.rate_Hz);
  if (a.empty() || b.empty()) {
    return failure(ErrorCode::Unsupported, "mark a quiet stretch in both clips: by them they are matched");
  }
  return median(a.y) - median(b.y);
}

}  // namespace fin
