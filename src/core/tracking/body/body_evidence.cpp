// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/body/body_evidence.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/tracking/background/pixel_median.h"

namespace fin {
namespace {

constexpr float kDarkness = 12.0F;  ///< grey levels added, so that dark noise does not count as colour
constexpr int kCoarse = 8;          ///< reduced pixels a cell of the light
constexpr int kLightCells = 13;     ///< over which the light is averaged

constexpr std::size_t kMostLearnt = 25;
constexpr double kSearched = 1.8;  ///< body lengths about where it is known to be
constexpr std::size_t kFewestLearnt = 5;
constexpr double kHides = 0.45;  ///< of the body's length about its axis
constexpr double kHidden = 1e9;  ///< a value that counts for none
constexpr double kScatterQuantile = 0.85;
constexpr int kScatterSmooth_px = 5;
constexpr std::array<float, 3> kLeastScatter{0.05F, 0.012F, 0.012F};
constexpr float kNoDifference = 2.4F;  ///< scatters that say neither
constexpr float kClear = 1.6F;         ///< more of them that say the body

constexpr int kRimOfBox = 10;
constexpr std::size_t kRoom_bytes = 200'000'000;

constexpr double kCore = 0.05;  ///< of the body's length beside its axis: surely the body
constexpr double kRing = 0.5;   ///< from there on it is surely not
constexpr double kBand = 0.28;
constexpr float kLooksLikeIt = 0.2F;
constexpr int kLearnRounds = 2;

/// Luma's logarithm and the colours' shares of luma.
void toFeatures(const cv::Mat& frame, BodyEvidence::Planes& out) {
  static const std::array<float, 256> kLog = [] {
    std::array<float, 256> t{};
    for (int i = 0; i < 256; ++i)
      t[static_cast<std::size_t>(i)] = std::log(static_cast<float>(i) + kDarkness);
    return t;
  }();
  static const std::array<float, 256> kOver = [] {
    std::array<float, 256> t{};
    for (int i = 0; i < 256; ++i) t[static_cast<std::size_t>(i)] = 1.0F / (static_cast<float>(i) + kDarkness);
    return t;
  }();
  for (cv::Mat& plane : out) plane.create(frame.size(), CV_32FC1);
  for (int y = 0; y < frame.rows; ++y) {
    const auto* from = frame.ptr<cv::Vec3b>(y);
    auto* l = out[0].ptr<float>(y);
    auto* b = out[1].ptr<float>(y);
    auto* r = out[2].ptr<float>(y);
    for (int x = 0; x < frame.cols; ++x) {
      const float over = kOver[from[x][0]];
      l[x] = kLog[from[x][0]];
      b[x] = (static_cast<float>(from[x][1]) - 128.0F) * over;
      r[x] = (static_cast<float>(from[x][2]) - 128.0F) * over;
    }
  }
}

/// Their means over the surroundings, a cell for kCoarse pixels.
BodyEvidence::Planes coarseLight(const cv::Mat& frame) {
  cv::Mat small;
  // Whole cells, which is quick; what is left over at the edges is lit as its neighbours are.
  const cv::Size cells(std::max(1, frame.cols / kCoarse), std::max(1, frame.rows / kCoarse));
  const cv::Rect whole(0, 0, std::min(frame.cols, cells.width * kCoarse),
                       std::min(frame.rows, cells.height * kCoarse));
  cv::resize(frame(whole), small, cells, 0.0, 0.0, cv::INTER_AREA);
  BodyEvidence::Planes out;
  toFeatures(small, out);
  for (cv::Mat& plane : out) cv::blur(plane, plane, cv::Size(kLightCells, kLightCells));
  return out;
}

/// Features of a part of a frame that lies within it.
BodyEvidence::Planes featuresOf(const cv::Mat& frame, const BodyEvidence::Planes& light,
                                const cv::Rect& box) {
  BodyEvidence::Planes out;
  toFeatures(frame(box), out);
  // Cell i's middle lies at (i + 0.5) · kCoarse − 0.5.
  const cv::Matx23d map(1.0 / kCoarse, 0.0, (box.x + 0.5) / kCoarse - 0.5,  //
                        0.0, 1.0 / kCoarse, (box.y + 0.5) / kCoarse - 0.5);
  for (std::size_t k = 0; k < 3; ++k) {
    cv::Mat under;
    cv::warpAffine(light[k], under, map, box.size(), cv::INTER_LINEAR | cv::WARP_INVERSE_MAP,
                   cv::BORDER_REPLICATE);
    out[k] -= under;
  }
  return out;
}

cv::Rect wholeOf(const cv::Mat& m) {
  return {0, 0, m.cols, m.rows};
}

/// How far a place lies from the axis between a pose's ends.
double besideAxis_px(const AxisPose& pose, double x, double y) {
  const PixelPoint from = PixelPoint{x, y} - pose.tail;
  const PixelPoint axis = pose.axis();
  const double share = std::clamp(dot(from, axis) / std::max(dot(axis, axis), 1e-9), 0.0, 1.0);
  return length(from - axis * share).value();
}

std::size_t bytesOf(const BodyView& view) {
  return 4 * view.evidence.total() * view.evidence.elemSize();
}

/// What a body hides about its axis: 255 there.
cv::Mat swathe(cv::Size size, const std::optional<AxisPose>& pose, double aside_px) {
  cv::Mat out = cv::Mat::zeros(size, CV_8UC1);
  if (!pose) return out;
  const auto place = [](PixelPoint p) {
    return cv::Point(static_cast<int>(std::lround(p.x_px)), static_cast<int>(std::lround(p.y_px)));
  };
  cv::line(out, place(pose->nose), place(pose->tail), cv::Scalar(255),
           std::max(1, static_cast<int>(2.0 * aside_px)));
  return out;
}

/// Of values in order the one below which a share of those that are clear lie, where it is known.
void takeShare(const std::vector<cv::Mat>& sorted, const cv::Mat& clear, const cv::Mat& known, double share,
               cv::Mat to) {
  for (int y = 0; y < to.rows; ++y) {
    for (int x = 0; x < to.cols; ++x) {
      if (known.at<uchar>(y, x) == 0) continue;
      const auto nth = static_cast<std::size_t>(share * (clear.at<uchar>(y, x) - 1));
      to.at<float>(y, x) = sorted[nth].at<float>(y, x);
    }
  }
}

}  // namespace

/// Where the body may be looked for: about where it is known to be, and anywhere if that is not known of
/// some.
cv::Mat BodyEvidence::whereItGoes(cv::Size size, const KnownPose& known, double body_px) const {
  cv::Mat out = cv::Mat::zeros(size, CV_8UC1);
  for (const auto& [n, frame] : film_.frames) {
    const auto pose = known(n);
    if (!pose) return cv::Mat(size, CV_8UC1, cv::Scalar(255));
    const PixelPoint m = pose->middle();
    cv::circle(out, {static_cast<int>(m.x_px), static_cast<int>(m.y_px)},
               static_cast<int>(kSearched * body_px), cv::Scalar(255), cv::FILLED);
  }
  return out;
}

BodyEvidence::BodyEvidence(const ReducedFilm& film, std::size_t seedFrame, const AxisPose& seed,
                           const KnownPose& known, bool moving, const std::stop_token& stop)
    : film_(film) {
  if (!moving) learnBackground(known, seed.length_px(), stop);
  if (stop.stop_requested()) return;
  learnColours(seedFrame, seed);
}

void BodyEvidence::learnBackground(const KnownPose& known, double body_px, const std::stop_token& stop) {
  const cv::Size size = film_.frames.begin()->second.size();
  const cv::Mat wanted = whereItGoes(size, known, body_px);
  const cv::Rect box = cv::boundingRect(wanted);
  std::vector<Planes> samples;
  std::vector<cv::Mat> hidden;  // by the body
  const std::size_t count = std::min(film_.frames.size(), kMostLearnt);
  std::size_t i = 0;
  std::size_t taken = 0;
  for (const auto& [n, frame] : film_.frames) {
    if (i++ * count / film_.frames.size() < taken) continue;
    ++taken;
    samples.push_back(featuresOf(frame, lightOf(n), box));
    hidden.push_back(swathe(frame.size(), known(n), kHides * body_px));
  }
  if (samples.size() < kFewestLearnt) return;
  cv::Mat clear(size, CV_8UC1, cv::Scalar(static_cast<double>(samples.size())));
  for (const cv::Mat& h : hidden) cv::subtract(clear, 1, clear, h);
  known_ = (clear >= static_cast<double>(kFewestLearnt)) & wanted;
  for (std::size_t k = 0; k < 3; ++k) {
    if (stop.stop_requested()) return;
    std::vector<cv::Mat> values;
    for (std::size_t s = 0; s < samples.size(); ++s)
      values.push_back(samples[s][k].setTo(kHidden, hidden[s](box)));
    middle_[k] = cv::Mat::zeros(size, CV_32FC1);
    cv::Mat scatter = cv::Mat::zeros(size, CV_32FC1);
    const cv::Mat middle = middle_[k](box);
    sortPixels(values);
    takeShare(values, clear(box), known_(box), 0.5, middle);
    for (cv::Mat& v : values) cv::absdiff(v, middle, v);
    sortPixels(values);
    takeShare(values, clear(box), known_(box), kScatterQuantile, scatter(box));
    cv::blur(scatter, scatter, cv::Size(kScatterSmooth_px, kScatterSmooth_px));
    cv::max(scatter, kLeastScatter[k], scatter);
    cv::divide(1.0, scatter, overScatter_[k]);
  }
}

cv::Mat BodyEvidence::fromBackground(const Planes& features, const cv::Rect& box) const {
  cv::Mat sum = cv::Mat::zeros(box.size(), CV_32FC1);
  const int width = box.width;
  for (std::size_t k = 0; k < 3; ++k) {
    for (int y = 0; y < box.height; ++y) {
      const auto* seen = features[k].ptr<float>(y);
      const auto* middle = middle_[k].ptr<float>(y + box.y) + box.x;
      const auto* over = overScatter_[k].ptr<float>(y + box.y) + box.x;
      float* __restrict to = sum.ptr<float>(y);
      for (int x = 0; x < width; ++x) {
        const float off = (seen[x] - middle[x]) * over[x];
        to[x] += off * off;
      }
    }
  }
  cv::sqrt(sum, sum);
  cv::Mat out = (sum - kNoDifference) * (1.0 / kClear);
  cv::min(out, 1.0, out);
  cv::max(out, -1.0, out);
  out.setTo(0.0, known_(box) == 0);
  return out;
}

cv::Mat BodyEvidence::fromColours(const Planes& features) const {
  cv::Mat out(features[0].size(), CV_32FC1);
  for (int y = 0; y < out.rows; ++y) {
    const std::array<const float*, 3> from{features[0].ptr<float>(y), features[1].ptr<float>(y),
                                           features[2].ptr<float>(y)};
    auto* to = out.ptr<float>(y);
    for (int x = 0; x < out.cols; ++x) to[x] = odds_.of({from[0][x], from[1][x], from[2][x]});
  }
  return out;
}

void BodyEvidence::learnColours(std::size_t seedFrame, const AxisPose& seed) {
  const auto found = film_.frames.find(seedFrame);
  if (found == film_.frames.end()) return;
  const cv::Rect box = wholeOf(found->second);
  const Planes features = featuresOf(found->second, lightOf(seedFrame), box);
  // Which pixels are surely the body, which surely not, and which it is for the evidence to tell.
  cv::Mat looksIt = known_.empty() ? cv::Mat::zeros(box.size(), CV_32FC1) : fromBackground(features, box);
  std::vector<ColourOdds::Colour> all, core;
  for (int round = 0; round <= kLearnRounds; ++round) {
    std::vector<ColourOdds::Colour> body, rest;
    for (int y = 0; y < box.height; ++y) {
      for (int x = 0; x < box.width; ++x) {
        const ColourOdds::Colour colour{features[0].at<float>(y, x), features[1].at<float>(y, x),
                                        features[2].at<float>(y, x)};
        const double beside = besideAxis_px(seed, x, y) / seed.length_px();
        const bool surely = beside < kCore;
        if (surely || (beside < kBand && looksIt.at<float>(y, x) > kLooksLikeIt)) body.push_back(colour);
        if (beside > kRing) rest.push_back(colour);
        if (round > 0) continue;
        all.push_back(colour);
        if (surely) core.push_back(colour);
      }
    }
    if (round == 0) odds_.setRange(all, core);
    odds_.learn(body, rest);
    if (!odds_.learnt()) return;
    looksIt = seen(seedFrame, box).evidence;
  }
}

BodyView BodyEvidence::at(std::size_t frame, const cv::Rect& box) {
  const auto known = kept_.find(frame);
  if (known != kept_.end()) {
    const cv::Rect has(known->second.corner, known->second.evidence.size());
    if ((box & has) == box) return known->second.part(box);
    kept_bytes_ -= bytesOf(known->second);
    kept_.erase(known);
  }
  const int rim = box.width / kRimOfBox;
  const BodyView view = seen(frame, {box.x - rim, box.y - rim, box.width + 2 * rim, box.height + 2 * rim});
  if (kept_bytes_ + bytesOf(view) <= kRoom_bytes) {
    kept_bytes_ += bytesOf(view);
    kept_.emplace(frame, view);
  }
  return view.part(box);
}

const BodyEvidence::Planes& BodyEvidence::lightOf(std::size_t frame) {
  const auto [known, isNew] = light_.try_emplace(frame);
  if (isNew) known->second = coarseLight(film_.frames.at(frame));
  return known->second;
}

BodyView BodyEvidence::seen(std::size_t frame, const cv::Rect& box) {
  BodyView out{box.tl(), cv::Mat::zeros(box.size(), CV_32FC1), {}};
  for (cv::Mat& plane : out.look) plane = cv::Mat::zeros(box.size(), CV_32FC1);
  const auto found = film_.frames.find(frame);
  if (found == film_.frames.end()) return out;
  const cv::Rect inside = box & wholeOf(found->second);
  if (inside.empty()) return out;
  const Planes features = featuresOf(found->second, lightOf(frame), inside);
  const cv::Rect here = inside - box.tl();
  for (std::size_t k = 0; k < 3; ++k) features[k].copyTo(out.look[k](here));
  cv::Mat part = out.evidence(here);
  if (odds_.learnt()) fromColours(features).copyTo(part);
  if (!known_.empty()) {
    const cv::Mat apart = fromBackground(features, inside);
    const cv::Mat both = !odds_.learnt() ? apart : cv::Mat(0.5 * part + 0.5 * apart);
    both.copyTo(part, known_(inside));
  }
  cv::blur(out.evidence, out.evidence, cv::Size(3, 3));
  return out;
}

}  // namespace fin
