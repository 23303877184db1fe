// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/readings/reading.h"
#include "core/tracking/track.h"

namespace fin {

/// One kind of pass that helps to answer a question.
struct Proposal {
  Protocol protocol = Protocol::Retrieve;
  View view = View::Side;
  std::vector<MarkName> marks;
  int passes = 3;  ///< per rig
  bool severalSpeeds = false;
  std::string_view shows;
  std::string_view cannotShow;
};

/// Something a tester asks of a lure.
struct Question {
  std::string_view key;
  std::string_view asked;
  std::vector<Proposal> proposals;
};

const std::vector<Question>& questions();
const Question* questionNamed(std::string_view key);

/// What answers several questions at once: every protocol and view once, with all the marks and the most
/// passes that any of them wants.
std::vector<Proposal> proposalsFor(const std::vector<std::string>& keys);

}  // namespace fin
