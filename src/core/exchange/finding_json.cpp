// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/finding_json.h"

#include "core/exchange/json_documents.h"

namespace fin {

FIN_ENUM_AS_WORD(MarkName, markNamed)

void to_json(nlohmann::json& to, const PixelPoint& from) {
  to = {from.x_px, from.y_px};
}
void from_json(const nlohmann::json& from, PixelPoint& to) {
  to = {from.at(0).get<double>(), from.at(1).get<double>()};
}

constexpr auto keysOf(const MarkSeed*) {
  return std::tuple{key("name", &MarkSeed::name), key("frame", &MarkSeed::frame), key("at", &MarkSeed::at)};
}

constexpr auto keysOf(const FoundMark*) {
  return std::tuple{key("mark", &FoundMark::seed), key("sure", &FoundMark::sure)};
}

constexpr auto keysOf(const Finding*) {
  return std::tuple{key("marks", &Finding::marks), key("reason", &Finding::reason)};
}

namespace records {

std::string toJson(const Finding& finding) {
  return write(finding);
}
Result<Finding> findingFrom(const std::string& text) {
  return readAs<Finding>(text);
}

}  // namespace records
}  // namespace fin
