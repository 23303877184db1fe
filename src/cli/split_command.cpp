// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include "cli/commands.h"
#include "cli/measure_file.h"
#include "core/exchange/pass_json.h"

namespace fin::cli {

Exit run(const SplitCommand& command) {
  const auto measured = measureFile(command.pass.string());
  if (!measured) return complain(measured.error());
  const auto clip = openClip(measured->request);
  if (!clip) return complain(clip.error());
  const auto source = Clip::reader(*clip, {});
  if (!source) return complain(source.error());
  const auto further = furtherPasses(measured->request, measured->result.track, **source);
  if (!further) return complain(further.error());
  std::string name = command.pass.filename().string();
  if (name.ends_with(".pass.json")) name.resize(name.size() - std::string(".pass.json").size());
  for (std::size_t i = 0; i < further->size(); ++i) {
    const auto file = command.pass.parent_path() / fmt::format("{}-way{}.pass.json", name, i + 2);
    std::error_code ignored;
    if (std::filesystem::exists(file, ignored))
      return complain(
          {ErrorCode::BadRequest, file.string() + ": is there already and is not written over", ""});
    if (auto ok = spill(file, writePassRequest((*further)[i], file.parent_path())); !ok)
      return complain(ok.error());
    fmt::print("{}\n", file.string());
  }
  if (further->empty()) fmt::print(stderr, "agile-fin-cli: the lure does not come back\n");
  return Exit::Done;
}

}  // namespace fin::cli
