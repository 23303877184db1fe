// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>
#include <fstream>
#include <iostream>
#include <iterator>

#include "cli/commands.h"
#include "core/passes/measure.h"
#include "core/passes/result_files.h"

namespace fin::cli {
namespace {

Result<std::string> slurp(const std::string& name) {
  if (name == "-") return std::string(std::istreambuf_iterator<char>(std::cin), {});
  std::error_code ignored;
  std::ifstream file(name, std::ios::binary);
  if (!file || std::filesystem::is_directory(name, ignored)) {
    return failure(ErrorCode::BadRequest, name + ": the pass file cannot be read", name);
  }
  return std::string(std::istreambuf_iterator<char>(file), {});
}

Result<void> spill(const std::filesystem::path& path, const std::string& text) {
  std::ofstream file(path, std::ios::binary);
  file << text;
  file.flush();
  if (!file) return failure(ErrorCode::BadRequest, path.string() + ": cannot be written here", path.string());
  return {};
}

struct Measured {
  PassRequest request;
  PassResult result;
};

Result<Measured> measure(const ReadCommand& command) {
  const auto text = slurp(command.pass);
  if (!text) return tl::unexpected(text.error());
  const auto folder =
      command.pass == "-" ? std::filesystem::path() : std::filesystem::path(command.pass).parent_path();
  auto request = parsePassRequest(*text, folder);
  if (!request) return tl::unexpected(request.error());
  const auto clip = openClip(*request);
  if (!clip) return tl::unexpected(clip.error());
  const auto source = Clip::reader(*clip, {});
  if (!source) return tl::unexpected(source.error());
  auto track = followPass(*request, **clip, **source);
  if (!track) return tl::unexpected(track.error());
  auto result = readPass(*request, **clip, std::move(*track));
  if (!result) return tl::unexpected(result.error());
  return Measured{std::move(*request), std::move(*result)};
}

}  // namespace

Exit complain(const Error& error) {
  fmt::print(stderr, "agile-fin-cli: {}\n", error.message);
  return exitFor(error);
}

Exit exitFor(const Error& error) {
  switch (error.code) {
    case ErrorCode::Unreadable:
    case ErrorCode::Damaged:
      return Exit::Unreadable;
    case ErrorCode::Lost:
      return Exit::Lost;
    default:
      return Exit::BadRequest;
  }
}

Exit run(const ReadCommand& command) {
  const auto measured = measure(command);
  if (!measured) return complain(measured.error());
  if (command.track) {
    if (auto ok = spill(*command.track, writeTrack(measured->result)); !ok) return complain(ok.error());
  }
  if (lureLost(measured->request, measured->result)) {
    return complain({ErrorCode::Lost, "the lure was lost right after its marks; no reading stands", ""});
  }
  const std::string json = writeReadings(measured->request, measured->result);
  for (const std::string& w : measured->result.warnings) fmt::print(stderr, "agile-fin-cli: {}\n", w);
  if (command.out) {
    if (auto ok = spill(*command.out, json); !ok) return complain(ok.error());
  } else {
    std::cout << json;
  }
  return Exit::Done;
}

}  // namespace fin::cli
