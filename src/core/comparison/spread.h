// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/comparison/apart/rig_fit.h"
#include "core/readings/scaling.h"
#include "core/units/ids.h"

namespace fin {

/// One value in a comparison, and the pass that it came from.
struct ComparedValue {
  PassId pass;
  std::string title;
  double value = 0.0;
  double u95 = 0.0;
  double n = 0.0;                 ///< cycles, events or frames behind it
  std::optional<int> block = {};  ///< of the day's sheet
  bool tiedOnAgain = false;       ///< beside the others of its block: a control
  std::optional<double> speed_mm_s = {};
  std::optional<double> hour = {};  ///< since 1970
  std::string cameraDay = {};       ///< passes of one share the error of their known length
  double lengthU95 = 0.0;           ///< of that length, relative
};
/// One reading of one rig over its passes.
struct ComparedRig {
  std::string rig;
  std::vector<ComparedValue> values;
};

/// A rig's value over its passes: of what is compared by ratios the geometric mean.
struct RigMean {
  std::string rig;
  std::size_t passes = 0;
  double mean = 0.0;
  double from = 0.0;  ///< 95 %
  double to = 0.0;
  double lengthU95 = 0.0;     ///< of its half-width, through the known length; as the length grows
  std::string letters;        ///< rigs that share a letter cannot be told apart; empty where none was tested
  std::size_t placeFrom = 1;  ///< by falling value, as far as it is sure
  std::size_t placeTo = 1;
  bool mayBeMost = true;
  bool mayBeLeast = true;

  [[nodiscard]] double u95() const { return 0.5 * (to - from); }
};

/// Two rigs, by their place in Spread::rigs; a lies over b.
struct RigPair {
  std::size_t a = 0;
  std::size_t b = 0;
  double difference = 0.0;  ///< a over b: the ratio less one, or a − b
  double from = 0.0;        ///< of it, 95 % for all pairs together
  double to = 0.0;
  double p = 1.0;  ///< two-sided, for the number of rigs
  bool apart = false;
  double alikeWithin = 0.0;  ///< they differ by no more than that, as `difference`
  bool alike = false;        ///< by less than is worth having, surely
  /// Further passes of each that would settle a difference of this size four times in five, at least one;
  /// none where no number of passes up to a hundred would, where they are apart, or where it was not asked.
  std::optional<std::size_t> morePasses;
};

struct Spread {
  std::vector<RigMean> rigs;              ///< by falling mean
  std::vector<RigPair> pairs;             ///< none where nothing can be compared
  std::string whyNoPairs;                 ///< what is missing
  Scaling scaling = Scaling::Difference;  ///< as used
  bool notByRatio = false;  ///< though it usually is: a value is not above nought, or too unsure
  Adjusted adjusted;

  [[nodiscard]] bool byRatio() const { return scaling == Scaling::Ratio; }
};

struct CompareOptions {
  bool furtherPasses = false;  ///< whether they are wanted: it is what takes the time
  double share = 1.0;          ///< of the level that this look may spend (passes_needed.h)
  /// A difference worth having: the ratio less one, percentage points, or in the reading's unit. Further
  /// passes are counted for it. Not looked at where a reading is not compared by ratio that usually is.
  std::optional<double> worth = {};
};

/// Compares rigs by one reading.
///
/// Repeats of one tying are averaged first. Then the day is fitted (rig_fit.h); any two rigs are apart where
/// twice the chance of the studentised range is below 5 %, which holds however many rigs there are and where
/// some scatter twice as far as others; with two rigs by Welch's t. What all passes of one camera and day
/// share cancels between them (JCGM 100:2008). A rig may be the most where no other lies above it by more
/// than Šidák's bound for so many (S. Gupta, 1965; J. Hsu, 1984). Letters by insertion and absorption (H.-P.
/// Piepho, 2004). Where the fit is refused, means and intervals stand by themselves (Student's t over the
/// passes; a single one's own half-width). Checked against worked examples. Pure; on any thread.
Spread compare(const std::vector<ComparedRig>& rigs, ReadingId reading, const CompareOptions& options = {});

/// Values that are no reading: scores by eye or hand.
struct HowCompared {
  Scaling scaling = Scaling::Difference;
  double step = 0.0;  ///< as stepOf()
  int lengths = 0;    ///< as lengthsIn()
};
Spread compare(const std::vector<ComparedRig>& rigs, const HowCompared& how,
               const CompareOptions& options = {});

double meanOf(const std::vector<double>& values);
/// The standard deviation within groups, over all of them that have two values and more.
struct PooledScatter {
  double sd = 0.0;
  double degrees = 0.0;  ///< of freedom
};
std::optional<PooledScatter> pooledScatter(const std::vector<std::vector<double>>& groups);
/// S. Holm's adjustment, 1979, in the order given.
std::vector<double> holm(const std::vector<double>& p);

}  // namespace fin
