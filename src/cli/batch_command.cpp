// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>
#include <glob.h>
#include <algorithm>
#include <atomic>
#include <fstream>
#include <map>
#include <mutex>
#include <set>
#include <thread>
#include <vector>

#include "cli/commands.h"
#include "cli/interruptible.h"
#include "cli/measure_file.h"
#include "core/exchange/pass_json.h"
#include "core/exchange/result_files.h"
#include "core/units/whole_file.h"

namespace fin::cli {
namespace {

namespace fs = std::filesystem;

constexpr std::string_view kPassEnding = ".pass.json";

bool isPass(const fs::path& file) {
  return file.filename().string().ends_with(kPassEnding);
}

/// Those below one folder; a folder that may not be read is told and passed over.
void addBelow(const fs::path& place, std::map<fs::path, fs::path>& found) {
  std::vector<fs::path> folders{place};
  while (!folders.empty()) {
    const fs::path folder = folders.back();
    folders.pop_back();
    std::error_code failed;
    for (fs::directory_iterator at(folder, failed), end; !failed && at != end; at.increment(failed)) {
      std::error_code ignored;
      if (at->is_directory(ignored) && !at->is_symlink(ignored)) {
        folders.push_back(at->path());
      } else if (at->is_regular_file(ignored) && isPass(at->path())) {
        found.emplace(at->path(), folder.lexically_relative(place));
      }
    }
    if (failed)
      fmt::print(stderr, "agile-fin-cli: {} is passed over: {}\n", folder.string(), failed.message());
  }
}

/// Every pass file below the folders, and those that the patterns name, each once and in order; with where it
/// lies below the folder that was named.
std::map<fs::path, fs::path> passesOf(const std::vector<std::string>& places) {
  std::map<fs::path, fs::path> found;
  for (const std::string& place : places) {
    std::error_code ignored;
    if (fs::is_directory(place, ignored)) {
      addBelow(place, found);
      continue;
    }
    glob_t matches{};
    if (::glob(place.c_str(), 0, nullptr, &matches) == 0) {
      for (std::size_t i = 0; i < matches.gl_pathc; ++i) found.emplace(matches.gl_pathv[i], "");
    } else {
      found.emplace(place, "");  // told as missing when its turn comes
    }
    ::globfree(&matches);
  }
  return found;
}

/// Where a pass's readings go: beside it, or as deep in the folder for results as it lies in its own.
fs::path resultFor(const fs::path& pass, const fs::path& below, const std::optional<fs::path>& folder) {
  std::string name = pass.filename().string();
  if (isPass(pass)) name.resize(name.size() - kPassEnding.size());
  return (folder ? (*folder / below).lexically_normal() : pass.parent_path()) / (name + ".readings.json");
}

fs::path trackBeside(const fs::path& result) {
  fs::path track = result;
  return track.replace_extension().replace_extension(".track.csv");
}

std::string contentOf(const fs::path& file) {
  std::error_code ignored;
  if (!fs::is_regular_file(file, ignored)) return {};  // a pipe would keep us waiting
  std::ifstream in(file, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

/// True where readings and track are there already, made by this method from the pass and the clip as they
/// are.
bool isDone(const fs::path& pass, const fs::path& result) {
  std::error_code ignored;
  if (!fs::is_regular_file(trackBeside(result), ignored)) return false;
  const auto made = madeFrom(contentOf(result));
  if (!made) return false;
  auto request = parsePassRequest(contentOf(pass), pass.parent_path());
  if (!request) return false;
  if (request->findMarks) {  // those that were found are as good as asked for
    request->findMarks = false;
    request->looksLike.reset();
    request->marks = made->readFrom.marks;
    request->outline = made->readFrom.outline;
  }
  const auto clip = fingerprintOf(request->clip);
  return clip && stateOf(&*made, *request, *clip) == MeasurementState::Current;
}

/// The passes still to be made, handed out one by one to the workers.
class Batch {
 public:
  struct Task {
    fs::path pass;
    fs::path result;
  };
  explicit Batch(std::vector<Task> tasks) : tasks_(std::move(tasks)) {}

  Exit run(unsigned workers) {
    share_.keptBytes = roomForFrames_bytes() / workers;
    std::vector<std::jthread> threads;
    for (unsigned i = 0; i < workers; ++i) threads.emplace_back([this] { work(); });
    threads.clear();  // waits for them
    fmt::print(stderr, "agile-fin-cli: {} read, {} there already, {} failed, {} left\n", read_, kept_,
               failed_, tasks_.size() - read_ - kept_ - failed_);
    return stopped() ? Exit::Interrupted : worst_;
  }

 private:
  [[nodiscard]] bool stopped() const { return interruptible_.token().stop_requested(); }

  void work() {
    for (std::size_t i = next_++; i < tasks_.size() && !stopped(); i = next_++) {
      try {
        one(tasks_[i]);
      } catch (const std::exception& e) {  // of one pass; the others go on
        fail(tasks_[i].pass,
             {ErrorCode::Broken, std::string("went wrong inside the program: ") + e.what(), ""});
      }
    }
  }

  void one(const Task& task) {
    const auto& [pass, result] = task;
    if (isDone(pass, result)) return tell(pass, "there already", kept_);
    const auto measured = measureFile(pass.string(), share_, {interruptible_.token(), {}});
    if (!measured) {
      if (measured.error().code == ErrorCode::Cancelled) return;
      return fail(pass, measured.error());
    }
    if (lureLost(measured->request, measured->result))
      return fail(pass, {ErrorCode::Lost, "the lure was lost right after its marks; no reading stands", ""});
    if (auto ok = writeWhole(trackBeside(result), writeTrack(measured->result)); !ok)
      return fail(pass, ok.error());
    // Last, so that readings that are there mean that all of it is.
    if (auto ok = writeWhole(result, writeReadings(measured->request, measured->result, measured->clip)); !ok)
      return fail(pass, ok.error());
    tell(pass, fmt::format("{} readings", measured->result.readings.readings.size()), read_);
  }

  void tell(const fs::path& pass, const std::string& what, std::size_t& count) {
    const std::lock_guard lock(telling_);
    ++count;
    fmt::print(stderr, "agile-fin-cli: {} of {}: {}: {}\n", read_ + kept_ + failed_, tasks_.size(),
               pass.filename().string(), what);
  }
  void fail(const fs::path& pass, const Error& error) {
    tell(pass, error.message, failed_);
    const std::lock_guard lock(telling_);
    worst_ = std::max(worst_, exitFor(error));
  }

  std::vector<Task> tasks_;
  MeasuringMeans share_{1, 0};  ///< of each worker
  std::atomic<std::size_t> next_ = 0;
  Interruptible interruptible_;
  std::mutex telling_;
  std::size_t read_ = 0;
  std::size_t kept_ = 0;
  std::size_t failed_ = 0;
  Exit worst_ = Exit::Done;
};

}  // namespace

Exit run(const BatchCommand& command) {
  std::vector<Batch::Task> tasks;
  std::set<fs::path> results;
  for (const auto& [pass, below] : passesOf(command.places)) {
    tasks.push_back({pass, resultFor(pass, below, command.out)});
    if (!results.insert(tasks.back().result).second)
      return complain({ErrorCode::BadRequest,
                       tasks.back().result.string() + ": two of the passes would be written here", ""});
  }
  if (tasks.empty())
    return complain({ErrorCode::BadRequest, "there is no pass file (*.pass.json) in what was named", ""});
  for (const Batch::Task& task : tasks) {
    std::error_code failed;
    const fs::path folder = task.result.parent_path();
    if (command.out) fs::create_directories(folder, failed);
    if (failed) return complain({ErrorCode::BadRequest, folder.string() + ": cannot be made", ""});
  }
  const unsigned cores = std::max(1U, std::thread::hardware_concurrency());
  const unsigned wanted = command.jobs > 0 ? static_cast<unsigned>(command.jobs) : cores;
  return Batch(std::move(tasks)).run(std::min<unsigned>(wanted, 64));
}

}  // namespace fin::cli
