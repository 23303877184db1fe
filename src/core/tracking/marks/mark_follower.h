// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <map>
#include <span>

#include "core/footage/picture.h"
#include "core/tracking/marks/appearance.h"
#include "core/tracking/marks/mark_detail.h"
#include "core/tracking/marks/prediction.h"
#include "core/tracking/marks/still_scene.h"
#include "core/tracking/track.h"

namespace fin {

/// Follows marks from one picture to the next, in either direction of time. Each step predicts
/// (MotionModel), looks (MarkAppearance), and verifies (verification.h); a mark that does not hold up is
/// reported as not seen and looked for again around where it should be.
class MarkFollower {
 public:
  /// `body_px` between its ends, 0 if unknown; `scale` as in Followed, at the picture it begins with.
  MarkFollower(double body_px, double frameSpacing_s, double scale);

  /// A mark as it was found: its place by its detail where there is one, else by its wider look.
  struct Followed {
    MarkSample sample;
    bool byDetail = false;
    double angle_rad = 0.0;  ///< how the body lies there
    double scale = 1.0;      ///< and how large it is in the picture, of what it was at the first seed
  };

  /// All marks that a person placed in this picture: put there exactly, and their looks learnt.
  void give(const Picture& picture, double time_s, std::span<const MarkSeed> seeds);
  /// Where the known marks are in the next picture. Marks given for it are passed over.
  /// Nothing is looked for where `hidden` says so.
  using Hidden = std::function<bool(PixelPoint)>;
  std::map<MarkName, Followed> step(const Picture& picture, double time_s, std::span<const MarkSeed> given,
                                    const Hidden& hidden);

  /// What following would have found of a mark just given.
  [[nodiscard]] Followed placed(const Picture& picture, double time_s, const MarkSeed& seed) const;
  [[nodiscard]] bool knows(MarkName name) const { return appearances_.contains(name); }
  /// How well a place's look could be told from its neighbours' (PatchTemplate::structure).
  [[nodiscard]] double structureAt(const Picture& picture, PixelPoint at) const {
    return PatchTemplate(picture.grey(), {at, 0.0, scale_}, radius_px_).structure();
  }

 private:
  struct Looked;
  [[nodiscard]] std::optional<MarkName> rigidPartnerOf(MarkName name) const;
  [[nodiscard]] bool swingsPast(MarkName name) const;
  void rememberLength(MarkName end, double apart_px);
  [[nodiscard]] double angleAt(MarkName name, PixelPoint at, double time_s) const;
  [[nodiscard]] PixelPoint expected(MarkName name, double time_s) const;
  [[nodiscard]] Looked look(const Picture& picture, MarkName name, double time_s, const Hidden& hidden) const;
  [[nodiscard]] std::vector<MarkAppearance::Candidate> lookAt(const Picture& picture, MarkName name,
                                                              const PatchPose& pose, double time_s,
                                                              int reach_px) const;
  void lookAround(const Picture& picture, MarkName name, PixelPoint partner, double time_s,
                  std::vector<MarkAppearance::Candidate>& candidates) const;
  [[nodiscard]] std::optional<PixelPoint> seenPartner(MarkName name, double time_s) const;
  [[nodiscard]] bool tooFarFromPartner(MarkName name, PixelPoint at, double time_s) const;
  void settle(const Picture& picture, std::map<MarkName, Looked>& looked);
  [[nodiscard]] bool liesOnAnother(MarkName name, PixelPoint at, double time_s) const;
  void weighByDetail(const Picture& picture, MarkName name, const PatchPose& pose, double time_s,
                     int reach_px, std::vector<MarkAppearance::Candidate>& candidates) const;
  void verify(const Picture& picture, std::map<MarkName, Looked>& looked);
  void learn(const Picture& picture, const std::map<MarkName, Looked>& looked);
  void grow(const Picture& picture, const std::map<MarkName, Looked>& looked);

  int radius_px_;
  double spacing_s_;
  double scale_;                           ///< how large the lure is in the picture, of what it was at first
  std::map<MarkName, bool> endOn_;         ///< when both ends were followed last
  std::map<MarkName, double> longest_px_;  ///< that an end has been from its partner
  std::map<MarkName, double> given_px_;    ///< and was where a person placed it
  StillScene scene_;
  MotionModel motion_;
  std::map<MarkName, MarkDetail> details_;
  std::map<MarkName, MarkAppearance> appearances_;
};

}  // namespace fin
