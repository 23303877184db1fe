// SPDX-License-Identifier: GPL-3.0-or-later
// The writer that bench/kill-rounds kills, and the one who looks afterwards.
//   kill_rounds begin FOLDER     makes the log
//   kill_rounds write FOLDER     changes it again and again, and says each change once the log has it
//   kill_rounds check FOLDER     what was said last is in the log, whole
#include <fmt/format.h>
#include <fstream>
#include <iostream>

#include "core/records/log.h"

namespace {

namespace fs = std::filesystem;
using namespace fin;

constexpr std::size_t kFrames = 300;

int fail(const std::string& why) {
  fmt::print(stderr, "kill_rounds: {}\n", why);
  return 1;
}

/// Every change writes one number into three places, as one act: the plan's note, the pass's camera, and a
/// measurement whose every frame has it.
Result<void> change(Log& log, long number) {
  return log.together([&]() -> Result<void> {
    const auto plan = log.plan();
    if (!plan) return tl::unexpected(plan.error());
    DayPlan after = *plan;
    after.sheet.front().note = std::to_string(number);
    if (auto ok = log.savePlan(*plan, after); !ok) return ok;
    const auto pass = log.pass(1);
    if (!pass) return tl::unexpected(pass.error());
    LoggedPass changed = *pass;
    changed.camera = std::to_string(number);
    if (auto ok = log.changePasses({{*pass, changed}}); !ok) return ok;
    Measurement m;
    m.clip = changed.clip;
    m.followedFrom = changed.request;
    m.readFrom = changed.request;
    m.followedAt_s = static_cast<double>(number);
    const MarkSample sample{true, {static_cast<double>(number), 0.0}, 1.0};
    m.track = {0, kFrames, {{MarkName::Nose, std::vector<MarkSample>(kFrames, sample)}}};
    m.readings.readings = {{ReadingId::TravelSpeed, static_cast<double>(number), "mm/s", 1.0, 1.0}};
    return log.saveMeasurement(1, m);
  });
}

/// The number that all three places hold; none where they do not agree.
std::optional<long> numberIn(const Log& log) {
  const auto plan = log.plan();
  const auto pass = log.pass(1);
  const auto measured = log.measurement(1);
  if (!plan || !pass || !measured || !log.unreadable().empty()) return std::nullopt;
  const std::string& note = plan->sheet.front().note;
  if (note.empty()) return 0;
  const long number = std::stol(note);
  if (pass->camera != note || !*measured) return std::nullopt;
  for (const MarkSample& s : (*measured)->track.marks.front().samples) {
    if (!s.seen || static_cast<long>(s.at.x_px) != number) return std::nullopt;
  }
  return static_cast<long>(std::get<double>((*measured)->readings.find(ReadingId::TravelSpeed)->value)) ==
                 number
             ? std::optional(number)
             : std::nullopt;
}

int begin(const fs::path& folder) {
  std::ofstream(folder / "clip.mp4") << "stands for a clip";
  const auto log = Log::open(folder / "day.finlog");
  if (!log) return fail(log.error().message);
  DayPlan plan;
  plan.sheet = {{.id = 1}};
  if (auto ok = (*log)->savePlan(DayPlan{}, plan); !ok) return fail(ok.error().message);
  PassRequest request;
  request.clip = folder / "clip.mp4";
  const auto pass = (*log)->addPass({"One", request, *fingerprintOf(request.clip)});
  return pass ? 0 : fail(pass.error().message);
}

int write(const fs::path& folder) {
  const auto log = Log::open(folder / "day.finlog");
  if (!log) return fail(log.error().message);
  const auto last = numberIn(**log);
  if (!last) return fail("the log does not agree with itself");
  for (long number = *last + 1;; ++number) {
    if (auto ok = change(**log, number); !ok) return fail(ok.error().message);
    std::cout << number << std::endl;  // acknowledged
  }
}

int check(const fs::path& folder) {
  const auto log = Log::open(folder / "day.finlog");
  if (!log) return fail(log.error().message);
  const auto held = numberIn(**log);
  if (!held) return fail("the log does not agree with itself");
  long said = 0;
  std::ifstream in(folder / "said");
  for (long number = 0; in >> number;) said = number;
  return *held >= said ? 0 : fail(fmt::format("{} was acknowledged, {} is there", said, *held));
}

}  // namespace

int main(int argc, char** argv) {
  if (argc != 3) return fail("begin, write or check, and a folder");
  const std::string what = argv[1];
  return what == "begin" ? begin(argv[2]) : what == "write" ? write(argv[2]) : check(argv[2]);
}
