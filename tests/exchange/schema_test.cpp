// SPDX-License-Identifier: GPL-3.0-or-later
// The schemas in docs/schemas say what the golden files are, and refuse what the program refuses.
#include <gtest/gtest.h>

#include <fstream>
#include <nlohmann/json.hpp>
#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validator.hpp>

#include "core/exchange/pass_json.h"

namespace fin {
namespace {

using nlohmann::json;
using Adapter = valijson::adapters::NlohmannJsonAdapter;

json jsonIn(const std::filesystem::path& file) {
  std::ifstream in(file);
  EXPECT_TRUE(in) << file;
  return json::parse(in);
}

json schemaNamed(const std::string& name) {
  return jsonIn(std::filesystem::path(FIN_SCHEMAS) / (name + ".schema.json"));
}

/// What is wrong with a document; empty where it is as its schema says.
std::string wrongWith(const json& document, const json& described) {
  valijson::Schema schema;
  valijson::SchemaParser().populateSchema(Adapter(described), schema);
  valijson::ValidationResults results;
  if (valijson::Validator().validate(schema, Adapter(document), &results)) return {};
  std::string out = "not valid";
  valijson::ValidationResults::Error error;
  while (results.popError(error)) {
    for (const std::string& where : error.context) out += " " + where;
    out += ": " + error.description;
  }
  return out;
}

struct Format {
  const char* golden;
  const char* schema;
};
class Schemas : public testing::TestWithParam<Format> {};

TEST_P(Schemas, SayWhatTheGoldenFilesAre) {
  const json document = jsonIn(std::filesystem::path(FIN_GOLDEN_FILES) / GetParam().golden);
  json schema = schemaNamed(GetParam().schema);
  EXPECT_EQ(wrongWith(document, schema), "");
  // Every key is described, also where a document may have others.
  schema["additionalProperties"] = false;
  EXPECT_EQ(wrongWith(document, schema), "");
  for (const auto& key : schema.at("required")) {
    json without = document;
    without.erase(key.get<std::string>());
    EXPECT_NE(wrongWith(without, schema), "") << key;
  }
}

INSTANTIATE_TEST_SUITE_P(
    Exchange, Schemas,
    testing::Values(Format{"pass.json", "pass"}, Format{"pass-square.json", "pass"},
                    Format{"pass.readings.json", "readings"}, Format{"ladder.readings.json", "readings"},
                    Format{"heads.readings.json", "readings"}, Format{"day.passes.json", "passes"},
                    Format{"film.json", "film"}, Format{"ballot.json", "ballot"}, Format{"vote.json", "vote"},
                    Format{"model.json", "model"}, Format{"rig.json", "rig"},
                    Format{"planned-pass.json", "planned-pass"}, Format{"day.json", "day"},
                    Format{"verdict.json", "verdict"}, Format{"run-event.json", "run-event"},
                    Format{"tie-rule.json", "tie-rule"}, Format{"day.comparison.json", "comparison"}),
    [](const auto& param) {
      std::string name(param.param.golden);
      std::erase_if(name, [](char c) { return std::isalnum(c) == 0; });
      return name;
    });

TEST(PassSchema, RefusesWhatTheProgramRefuses) {
  const json schema = schemaNamed("pass");
  const json whole = jsonIn(std::filesystem::path(FIN_GOLDEN_FILES) / "pass.json");
  const auto refused = [&](const char* where, const json& value) {
    json document = whole;
    document[json::json_pointer(where)] = value;
    EXPECT_FALSE(parsePassRequest(document.dump(), "/day", Stage::Draft)) << where;
    EXPECT_NE(wrongWith(document, schema), "") << where;
  };
  refused("/later", 1);
  refused("/format", "agile-fin-pass/2");
  refused("/protocol", "swim");
  refused("/view", "below");
  refused("/pull", "away");
  refused("/capture_rate", "fast");
  refused("/marks/0/name", "ear");
  refused("/marks/0/at", json::array({1.0}));
  refused("/lens/model", "fisheye");
  refused("/hidden/0/polygon", json::array());
  refused("/scale/depth_mm", 3.0);
  refused("/first_frame", -1);
}

}  // namespace
}  // namespace fin
