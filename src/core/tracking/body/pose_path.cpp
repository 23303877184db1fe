// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/body/pose_path.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <opencv2/imgproc.hpp>
#include <optional>

#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr double kSearch_px = 10.0;
constexpr std::size_t kMostHypotheses = 6;
constexpr double kSamePose_px = 1.0;
constexpr double kGood = 0.75;  ///< of what the shape agrees at its seed

// Costs of a way.
constexpr double kLacking = 12.0;   ///< of a shape that agrees with nothing there
constexpr double kUnlike = 4.0;     ///< of a look that is not its own
constexpr double kShortness = 0.5;  ///< of a body that is seen shortened to nothing
constexpr double kSpread = 0.2;     ///< of the body's length that an axis changes from frame to frame
constexpr double kMove = 0.35;      ///< and its middle
constexpr double kMostForAStep = 25.0;
constexpr double kElsewhere = 0.35;   ///< of the body's length
constexpr double kContradicts = 6.0;  ///< marks that were surely followed to elsewhere
constexpr double kEndOnBelow = 0.45;  ///< of the body's length
constexpr double kSwapped = 20.0;     ///< ends from one frame to the next
constexpr double kOther = 0.08;       ///< of the body's length: farther apart it is another pose

constexpr double kLengthFree = 0.02;
constexpr double kSureShare = 0.85;    ///< of the agreement in most frames
constexpr double kSureLikeness = 0.3;  ///< under that in most frames
constexpr double kSureMargin = 3.0;

constexpr double kFirstShare = 0.5;
constexpr std::size_t kAveraged = 60;

/// How a length is held to that of the frames around.
struct LengthHold {
  double strength = 0.3;
  std::size_t frames = 7;  ///< about one, whose lengths are taken together
};
LengthHold holdFor(Foreshortening turns) {
  switch (turns) {
    case Foreshortening::None:
      return {3.0, 51};
    case Foreshortening::Slight:
      return {0.6, 15};
    case Foreshortening::Any:
      break;
  }
  return {0.3, 7};
}

struct Hypothesis {
  BodyShape::Fit fit;
  bool given = false;
  double against = 0.0;  ///< cost of what else is known of the frame
};
using Hypotheses = std::vector<Hypothesis>;

AxisPose moved(const AxisPose& pose, PixelPoint by) {
  return {pose.nose + by, pose.tail + by};
}

class PathFinder {
 public:
  PathFinder(const std::set<std::size_t>& frames, BodyEvidence& evidence, const PoseHints& hints,
             Foreshortening turns, const std::stop_token& stop)
      : frames_(frames),
        evidence_(evidence),
        hints_(hints),
        hold_(holdFor(turns)),
        stop_(stop),
        shape_(firstShape()) {
    usual_ = judge(hints_.given.begin()->first, hints_.given.begin()->second).agreement;
  }

  /// Nothing where it was stopped.
  PosePath find() {
    gather();
    if (!stop_.stop_requested()) learnShape(decide());
    if (!stop_.stop_requested()) refine(decide());
    return stop_.stop_requested() ? PosePath{} : decide();
  }

 private:
  [[nodiscard]] BodyShape firstShape() const {
    const auto& [frame, pose] = *hints_.given.begin();
    const double around = 1.1 * pose.length_px();
    const PixelPoint m = pose.middle();
    const cv::Rect box(static_cast<int>(m.x_px - around), static_cast<int>(m.y_px - around),
                       static_cast<int>(2.0 * around) + 2, static_cast<int>(2.0 * around) + 2);
    return {evidence_.at(frame, box), pose};
  }
  [[nodiscard]] BodyShape::Fit judge(std::size_t n, const AxisPose& pose) {
    return shape_.judged(evidence_.at(n, shape_.reach(pose, 2.0)), pose);
  }

  void consider(std::size_t n, const AxisPose& start, double usualLength) {
    const BodyView view = evidence_.at(n, shape_.reach(start, kSearch_px));
    const auto fit = shape_.fitted(view, start, usualLength, kLengthFree, BodyShape::Care::Quick);
    add(n, {fit, false, against(n, fit.pose)});
  }
  /// Marks that were surely followed to elsewhere speak against a pose.
  [[nodiscard]] double against(std::size_t n, const AxisPose& pose) const {
    if (!hints_.surelyFound.contains(n)) return 0.0;
    return apart_px(pose, hints_.found.at(n)) > kElsewhere * shape_.length_px() ? kContradicts : 0.0;
  }
  void add(std::size_t n, const Hypothesis& h) {
    Hypotheses& some = at_[n];
    for (Hypothesis& known : some) {
      if (apart_px(known.fit.pose, h.fit.pose) > kSamePose_px) continue;
      if (!known.given && costOf(h) < costOf(known)) known = h;
      return;
    }
    some.push_back(h);
    std::sort(some.begin(), some.end(), [this](const Hypothesis& a, const Hypothesis& b) {
      return a.given != b.given ? a.given : costOf(a) < costOf(b);
    });
    if (some.size() > kMostHypotheses) some.pop_back();
  }

  void gather() {
    for (const auto& [n, pose] : hints_.given) {
      if (frames_.contains(n)) at_[n] = {{judge(n, pose), true}};
    }
    for (const auto& [n, pose] : hints_.found) {
      if (stop_.stop_requested()) return;
      if (frames_.contains(n) && !hints_.given.contains(n)) consider(n, pose, shape_.length_px());
    }
    walk(frames_.begin(), frames_.end());
    walk(frames_.rbegin(), frames_.rend());
  }

  /// Each frame's best pose is tried, moved on, in the next one; where it does not fit well there, others.
  template <typename Iterator>
  void walk(Iterator from, Iterator end) {
    std::optional<AxisPose> before;
    std::optional<AxisPose> last;
    for (; from != end && !stop_.stop_requested(); ++from) {
      const std::size_t n = *from;
      if (last && !hints_.given.contains(n)) tryFrom(n, before, *last);
      if (at_[n].empty() || (!last && !hints_.given.contains(n))) continue;
      before = last;
      last = at_[n].front().fit.pose;
    }
  }
  void tryFrom(std::size_t n, const std::optional<AxisPose>& before, const AxisPose& last) {
    const PixelPoint step = before ? last.middle() - before->middle() : PixelPoint{};
    consider(n, moved(last, step), last.length_px());
    if (fitsWell(n)) return;
    consider(n, last, last.length_px());
    if (before)
      consider(n, {last.nose * 2.0 - before->nose, last.tail * 2.0 - before->tail}, last.length_px());
    if (!fitsWell(n)) detect(n, last);
  }
  [[nodiscard]] bool fitsWell(std::size_t n) {
    return !at_[n].empty() && at_[n].front().fit.agreement >= kGood * usual_;
  }

  /// Bodies of about the right size near where it was, by the evidence's own extent.
  void detect(std::size_t n, const AxisPose& near) {
    const double body = shape_.length_px();
    const cv::Rect box = shape_.reach(near, 1.2 * body);
    const BodyView view = evidence_.at(n, box);
    cv::Mat heap;
    cv::GaussianBlur(view.evidence, heap, cv::Size(0, 0), 0.15 * body);
    for (int peak = 0; peak < 3; ++peak) {
      cv::Point top;
      double height = 0.0;
      cv::minMaxLoc(heap, nullptr, &height, nullptr, &top);
      if (height <= 0.0) return;
      cv::circle(heap, top, static_cast<int>(0.5 * body), cv::Scalar(-1.0), cv::FILLED);
      layOver(n, view, top);
    }
  }
  void layOver(std::size_t n, const BodyView& view, cv::Point top) {
    const double body = shape_.length_px();
    const int reach = static_cast<int>(0.7 * body);
    const cv::Rect around = cv::Rect(top.x - reach, top.y - reach, 2 * reach + 1, 2 * reach + 1) &
                            cv::Rect({}, view.evidence.size());
    const cv::Moments m = cv::moments(cv::max(view.evidence(around), 0.0));
    if (m.m00 <= 0.0) return;
    const PixelPoint middle{m.m10 / m.m00 + around.x + view.corner.x,
                            m.m01 / m.m00 + around.y + view.corner.y};
    const double angle = 0.5 * std::atan2(2.0 * m.mu11, m.mu20 - m.mu02);
    for (const double shown : {1.0, 0.6}) {
      for (const double way : {1.0, -1.0}) {
        const PixelPoint half = PixelPoint{std::cos(angle), std::sin(angle)} * (0.5 * shown * way * body);
        consider(n, {middle + half, middle - half}, shown * body);
      }
    }
  }

  [[nodiscard]] double costOf(const Hypothesis& h) const {
    const double shortness = std::max(0.0, 1.0 - h.fit.pose.length_px() / shape_.length_px());
    const double lacking = std::max(0.0, 1.0 - h.fit.agreement / std::max(usual_, 1e-3));
    return kLacking * lacking + kShortness * shortness + kUnlike * (1.0 - h.fit.likeness) + h.against;
  }
  [[nodiscard]] double costBetween(const Hypothesis& a, const Hypothesis& b, double frames) const {
    const double spread = shape_.length_px() * std::sqrt(frames);
    const double turn = length(a.fit.pose.axis() - b.fit.pose.axis()).value() / (kSpread * spread);
    const double move = length(a.fit.pose.middle() - b.fit.pose.middle()).value() / (kMove * spread);
    // It may come to point the other way only where it is seen end on in between.
    const double shorter = std::min(a.fit.pose.length_px(), b.fit.pose.length_px());
    const bool swapped =
        dot(a.fit.pose.axis(), b.fit.pose.axis()) < 0.0 && shorter > kEndOnBelow * shape_.length_px();
    return std::min(turn * turn, kMostForAStep) + std::min(move * move, kMostForAStep) +
           (swapped ? kSwapped : 0.0);
  }

  /// The cheapest way through all frames, and how much dearer ways through other poses would be.
  PosePath decide() {
    std::vector<std::size_t> frames;
    std::vector<const Hypotheses*> some;
    for (const auto& [n, hypotheses] : at_) {
      if (hypotheses.empty()) continue;
      frames.push_back(n);
      some.push_back(&hypotheses);
    }
    const std::size_t count = frames.size();
    std::vector<std::vector<double>> to(count), from(count);
    const auto step = [&](std::size_t i, std::size_t j, std::size_t k) {
      return costBetween((*some[i])[j], (*some[i + 1])[k], static_cast<double>(frames[i + 1] - frames[i]));
    };
    for (std::size_t i = 0; i < count; ++i) {
      for (std::size_t k = 0; k < some[i]->size(); ++k) {
        double best = i == 0 ? 0.0 : std::numeric_limits<double>::max();
        for (std::size_t j = 0; i > 0 && j < some[i - 1]->size(); ++j)
          best = std::min(best, to[i - 1][j] + step(i - 1, j, k));
        to[i].push_back(best + costOf((*some[i])[k]));
      }
    }
    for (std::size_t i = count; i-- > 0;) {
      for (std::size_t k = 0; k < some[i]->size(); ++k) {
        double best = i + 1 == count ? 0.0 : std::numeric_limits<double>::max();
        for (std::size_t j = 0; i + 1 < count && j < some[i + 1]->size(); ++j)
          best = std::min(best, from[i + 1][j] + costOf((*some[i + 1])[j]) + step(i, k, j));
        from[i].push_back(best);
      }
    }
    PosePath out;
    for (std::size_t i = 0; i < count; ++i) {
      const auto whole = [&](std::size_t k) { return to[i][k] + from[i][k]; };
      std::size_t best = 0;
      for (std::size_t k = 1; k < some[i]->size(); ++k) {
        if (whole(k) < whole(best)) best = k;
      }
      const BodyShape::Fit& chosen = (*some[i])[best].fit;
      double margin = kMostForAStep;
      for (std::size_t k = 0; k < some[i]->size(); ++k) {
        if (apart_px(chosen.pose, (*some[i])[k].fit.pose) >= kOther * shape_.length_px())
          margin = std::min(margin, whole(k) - whole(best));
      }
      out[frames[i]] = {chosen.pose, chosen.agreement / std::max(usual_, 1e-3), chosen.likeness, false,
                        margin};
    }
    judgeSureness(out);
    return out;
  }
  static void judgeSureness(PosePath& path) {
    std::vector<double> agreements;
    std::vector<double> likenesses;
    for (const auto& [n, posed] : path) {
      agreements.push_back(posed.agreement);
      likenesses.push_back(posed.likeness);
    }
    if (path.empty()) return;
    const double agreement = kSureShare * std::min(quantileOf(std::span(agreements), 0.5), 1.0);
    const double likeness = quantileOf(std::span(likenesses), 0.5) - kSureLikeness;
    for (auto& [n, posed] : path)
      posed.sure = posed.agreement >= agreement && posed.likeness >= likeness && posed.margin >= kSureMargin;
  }

  void learnShape(const PosePath& path) {
    std::vector<double> agreements;
    for (const auto& [n, posed] : path) agreements.push_back(posed.agreement);
    const double usual = quantileOf(std::span(agreements), 0.5);
    const std::size_t every = std::max<std::size_t>(1, path.size() / kAveraged);
    std::size_t k = 0;
    for (const auto& [n, posed] : path) {
      const bool whole = posed.pose.length_px() > 0.85 * shape_.length_px();
      if (k++ % every != 0 || posed.agreement < usual || !whole) continue;
      shape_.add(evidence_.at(n, shape_.reach(posed.pose, 2.0)), posed.pose);
    }
    shape_.average(kFirstShare);
    usual_ = judge(hints_.given.begin()->first, hints_.given.begin()->second).agreement;
    for (auto& [n, some] : at_) {
      if (stop_.stop_requested()) return;
      for (Hypothesis& h : some) h.fit = judge(n, h.fit.pose);
    }
  }

  /// The chosen way with all that the shape tells, its length held to that of the frames around.
  void refine(const PosePath& path) {
    std::vector<std::size_t> frames;
    std::vector<double> lengths;
    for (const auto& [n, posed] : path) {
      frames.push_back(n);
      lengths.push_back(posed.pose.length_px());
    }
    for (std::size_t i = 0; i < frames.size() && !stop_.stop_requested(); ++i) {
      const std::size_t n = frames[i];
      if (hints_.given.contains(n)) continue;
      const std::size_t half = std::min({hold_.frames / 2, i, frames.size() - 1 - i});
      std::vector<double> around{lengths.begin() + static_cast<std::ptrdiff_t>(i - half),
                                 lengths.begin() + static_cast<std::ptrdiff_t>(i + half + 1)};
      const double usual = quantileOf(std::span(around), 0.5);
      const AxisPose& pose = path.at(n).pose;
      const BodyView view = evidence_.at(n, shape_.reach(pose, kSearch_px));
      const auto fit = shape_.fitted(view, pose, usual, hold_.strength, BodyShape::Care::Thorough);
      for (Hypothesis& h : at_[n]) {
        if (apart_px(h.fit.pose, pose) < 1e-9) h.fit = fit;
      }
    }
  }

  const std::set<std::size_t>& frames_;
  BodyEvidence& evidence_;
  const PoseHints& hints_;
  LengthHold hold_;
  const std::stop_token& stop_;
  BodyShape shape_;
  double usual_ = 1.0;
  std::map<std::size_t, Hypotheses> at_;
};

}  // namespace

PosePath findPosePath(const std::set<std::size_t>& frames, BodyEvidence& evidence, const PoseHints& hints,
                      Foreshortening turns, const std::stop_token& stop) {
  if (hints.given.empty() || !frames.contains(hints.given.begin()->first)) return {};
  return PathFinder(frames, evidence, hints, turns, stop).find();
}

}  // namespace fin
