// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/measure_file.h"
#include "core/exchange/pass_json.h"

#include <fstream>
#include <iostream>
#include <iterator>

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

}  // namespace

Result<MeasuredFile> measureFile(const std::string& pass, const MeasuringMeans& means,
                                 const JobControl& job) {
  const auto text = slurp(pass);
  if (!text) return tl::unexpected(text.error());
  const auto folder = pass == "-" ? std::filesystem::path() : std::filesystem::path(pass).parent_path();
  auto request = parsePassRequest(*text, folder);
  if (!request) return tl::unexpected(request.error());
  const auto clip = openClip(*request, {.job = {job.stop, {}}});
  if (!clip) return tl::unexpected(clip.error());
  auto measured = measure({*request, (*clip)->info().fingerprint, nullptr}, *clip, means, job);
  if (!measured) return tl::unexpected(measured.error());
  return MeasuredFile{std::move(*request), std::move(measured->result)};
}

Result<void> handOut(const std::optional<std::filesystem::path>& path, const std::string& text) {
  if (path) return spill(*path, text);
  std::cout << text;
  return {};
}

Result<void> spill(const std::filesystem::path& path, const std::string& text) {
  std::error_code failed;
  const auto kind = std::filesystem::status(path, failed).type();
  const bool plain =
      kind == std::filesystem::file_type::regular || kind == std::filesystem::file_type::not_found;
  std::filesystem::path part = path;
  if (plain) part += ".part";  // a pipe or a device is written to as it is
  std::ofstream file(part, std::ios::binary);
  file << text;
  file.close();
  if (file && plain) std::filesystem::rename(part, path, failed);
  if (!file || (plain && failed))
    return failure(ErrorCode::BadRequest, path.string() + ": cannot be written here", path.string());
  return {};
}

}  // namespace fin::cli
