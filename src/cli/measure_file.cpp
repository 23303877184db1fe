// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/measure_file.h"
#include "core/exchange/pass_json.h"
#include "core/measuring/find_marks.h"
#include "core/units/whole_file.h"

#include <fstream>
#include <iostream>
#include <iterator>

namespace fin::cli {
namespace {

/// A pass file is a few kilobytes, a film with its traces some megabytes; what is larger is something else.
constexpr std::uintmax_t kLargestText_bytes = 64U << 20U;

}  // namespace

Result<std::string> slurp(const std::string& name) {
  if (name == "-") return std::string(std::istreambuf_iterator<char>(std::cin), {});
  std::error_code ignored;
  std::ifstream file(name, std::ios::binary);
  const bool large = std::filesystem::is_regular_file(name, ignored) &&
                     std::filesystem::file_size(name, ignored) > kLargestText_bytes;
  if (!file || large || std::filesystem::is_directory(name, ignored)) {
    return failure(ErrorCode::BadRequest, name + ": the file cannot be read", name);
  }
  return std::string(std::istreambuf_iterator<char>(file), {});
}

namespace {

Result<KnownLure> knownTo(const PassRequest& request, const JobControl& job) {
  if (!request.looksLike) return KnownLure{};
  const auto other = requestIn(request.looksLike->string());
  if (!other) return tl::unexpected(other.error());
  auto look = lookOfPass(*other, job);
  if (!look) return tl::unexpected(look.error());
  return KnownLure{std::move(*look), {}};
}

}  // namespace

Result<PassRequest> requestIn(const std::string& pass) {
  const auto text = slurp(pass);
  if (!text) return tl::unexpected(text.error());
  const auto folder = pass == "-" ? std::filesystem::path() : std::filesystem::path(pass).parent_path();
  return parsePassRequest(*text, folder);
}

Result<MeasuredFile> measureRequest(PassRequest request, const MeasuringMeans& means, const JobControl& job) {
  const auto clip = openClip(request, {.job = {job.stop, {}}});
  if (!clip) return tl::unexpected(clip.error());
  std::vector<FoundMark> found;
  if (request.findMarks) {
    const auto known = knownTo(request, job);
    if (!known) return tl::unexpected(known.error());
    auto pass = findMarks(std::move(request), *clip, *known, job);
    if (!pass) return tl::unexpected(pass.error());
    request = std::move(pass->request);
    found = std::move(pass->found);
  }
  auto measured = measure({request, (*clip)->info().fingerprint, nullptr}, *clip, means, job);
  if (!measured) return tl::unexpected(measured.error());
  measured->result.found = std::move(found);
  return MeasuredFile{std::move(request), (*clip)->info().fingerprint, std::move(measured->result)};
}

Result<MeasuredFile> measureFile(const std::string& pass, const MeasuringMeans& means,
                                 const JobControl& job) {
  auto request = requestIn(pass);
  if (!request) return tl::unexpected(request.error());
  return measureRequest(std::move(*request), means, job);
}

Result<void> handOut(const std::optional<std::filesystem::path>& path, const std::string& text) {
  if (path) return spill(*path, text);
  std::cout << text << std::flush;
  if (!std::cout) return failure(ErrorCode::NotWritable, "standard output cannot be written");
  return {};
}

Result<void> spill(const std::filesystem::path& path, const std::string& text) {
  std::error_code ignored;
  const auto kind = std::filesystem::status(path, ignored).type();
  if (kind != std::filesystem::file_type::fifo && kind != std::filesystem::file_type::character)
    return writeWhole(path, text);
  std::ofstream pipe(path, std::ios::binary);
  pipe << text << std::flush;
  if (!pipe) return failure(ErrorCode::NotWritable, path.string() + " cannot be written", path.string());
  return {};
}

}  // namespace fin::cli
