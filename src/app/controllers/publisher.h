// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <map>

#include "app/controllers/line_up.h"
#include "app/controllers/making.h"
#include "app/print/report.h"
#include "core/comparison/vote.h"

namespace fin::app {

/// A pass that stands for its rig where only one can be seen.
struct ShownPass {
  QString rig;
  PassRequest request;
  std::shared_ptr<const Measurement> measured;
};
/// One for each rig, in the order in which rigs were read: of the protocol and view that most rigs have, so
/// that they can be compared, else the first.
std::vector<ShownPass> shownPasses(const LineUp& lineUp);

/// A picture of each, cut about the lure; none of those whose clip is gone. For any thread.
std::map<QString, QImage> picturesOf(const std::vector<ShownPass>& passes, const JobControl& job);

/// Folders that are shown to others, with clips in them.
class Publisher : public Making {
  Q_OBJECT

 public:
  using Making::Making;

  /// The report as a page with a looping clip of each rig.
  void writeWebPage(const Report& report, const std::vector<ShownPass>& passes, const QString& folder);
  /// The page of a vote with a nameless clip of each rig in it. Rigs without a clip stay out of the page.
  void writeBallot(const Vote& vote, const std::vector<ShownPass>& passes, const QString& folder);
};

}  // namespace fin::app
