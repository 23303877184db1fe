// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/apart/on_scale.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "core/units/estimate.h"

namespace fin {
namespace {

constexpr double kTooUnsure = 0.25;  ///< of a value, for its logarithm
constexpr double kOneSpeed = 0.1;

Scaling scalingFor(const std::vector<const ComparedRig*>& rigs, Scaling usual) {
  for (const ComparedRig* rig : rigs) {
    for (const ComparedValue& v : rig->values) {
      if (usual == Scaling::Ratio && (!(v.value > 0.0) || v.u95 > kTooUnsure * v.value))
        return Scaling::Difference;
      if (usual == Scaling::Share && !(v.n > 0.0)) return Scaling::Difference;
    }
  }
  return usual;
}

/// k of n, as an angle.
double angleOf(double k, double n) {
  return std::asin(std::sqrt((k + 0.375) / (n + 0.75)));
}

/// What of a value's half-width is its own, without that of the known length.
double ownSd(const ComparedValue& v, double shared) {
  return std::sqrt(std::max(0.0, v.u95 * v.u95 - shared * shared)) / kNormal95;
}

bool ofOneTying(const ComparedValue& a, const ComparedValue& b) {
  if (!a.block || a.block != b.block || a.tiedOnAgain || b.tiedOnAgain) return false;
  if (!a.speed_mm_s || !b.speed_mm_s) return a.speed_mm_s.has_value() == b.speed_mm_s.has_value();
  return std::abs(*a.speed_mm_s - *b.speed_mm_s) <= kOneSpeed * *a.speed_mm_s;
}

std::vector<std::vector<const ComparedValue*>> tyingsOf(const ComparedRig& rig) {
  std::vector<std::vector<const ComparedValue*>> out;
  for (const ComparedValue& v : rig.values) {
    const auto known = std::find_if(out.begin(), out.end(),
                                    [&](const auto& tying) { return ofOneTying(*tying.front(), v); });
    if (known == out.end()) {
      out.push_back({&v});
    } else {
      known->push_back(&v);
    }
  }
  return out;
}

/// The mean of what all of them have; none where one lacks it.
template <class Of>
std::optional<double> meanOfAll(const std::vector<const ComparedValue*>& tying, const Of& of) {
  double sum = 0.0;
  for (const ComparedValue* v : tying) {
    const std::optional<double> one = of(*v);
    if (!one) return std::nullopt;
    sum += *one / static_cast<double>(tying.size());
  }
  return sum;
}

}  // namespace

bool OnScale::oneCameraDay() const {
  return std::all_of(cameraDays.begin(), cameraDays.end(),
                     [this](const std::string& day) { return day == cameraDays.front(); });
}

double OnScale::back(double y) const {
  if (scaling == Scaling::Ratio) return std::exp(y);
  if (scaling == Scaling::Difference) return y;
  const double root = std::sin(std::clamp(y, 0.0, 0.5 * std::numbers::pi));
  return 100.0 * root * root;
}

double OnScale::told(double difference) const {
  if (scaling == Scaling::Ratio) return std::expm1(difference);
  return scaling == Scaling::Share ? 100.0 * difference : difference;
}

double OnScale::untold(double told) const {
  if (scaling == Scaling::Ratio) return std::log1p(told);
  return scaling == Scaling::Share ? 0.01 * told : told;
}

OnScale onScale(const std::vector<const ComparedRig*>& rigs, Scaling usual, int lengthsWithin) {
  OnScale out{.scaling = scalingFor(rigs, usual), .lengths = lengthsWithin};
  const double lengths = std::abs(lengthsWithin);
  // One known length a camera and day: where passes say otherwise, the least sure of them.
  std::map<std::string, double> lengthU95;
  for (const ComparedRig* rig : rigs) {
    for (const ComparedValue& v : rig->values)
      lengthU95[v.cameraDay] = std::max(lengthU95[v.cameraDay], lengths * v.lengthU95);
  }
  for (std::size_t i = 0; i < rigs.size(); ++i) {
    for (const auto& tying : tyingsOf(*rigs[i])) {
      FitValue value{.rig = i, .block = tying.front()->block};
      const auto n = static_cast<double>(tying.size());
      const std::string& day = tying.front()->cameraDay;
      double squares = 0.0, shared = 0.0;
      for (const ComparedValue* v : tying) {
        const double ofLength = lengths * v->lengthU95 * std::abs(v->value);
        switch (out.scaling) {
          case Scaling::Ratio:
            value.y += std::log(v->value) / n;
            squares += std::pow(ownSd(*v, ofLength) / v->value, 2);
            shared += lengthU95[day] / n;
            break;
          case Scaling::Difference:
            value.y += v->value / n;
            squares += std::pow(ownSd(*v, ofLength), 2);
            shared += lengthU95[day] * v->value / n;
            break;
          case Scaling::Share:
            value.y += angleOf(0.01 * v->value * v->n, v->n) / n;
            squares += 1.0 / (4.0 * v->n + 2.0);
            break;
        }
      }
      value.ownSd = std::sqrt(squares / n / n);
      value.logSpeed = meanOfAll(tying, [](const ComparedValue& v) {
        return v.speed_mm_s ? std::optional(std::log(*v.speed_mm_s)) : std::nullopt;
      });
      value.hour = meanOfAll(tying, [](const ComparedValue& v) { return v.hour; });
      out.values.push_back(value);
      out.cameraDays.push_back(day);
      out.shared.push_back(shared);
    }
  }
  return out;
}

}  // namespace fin
