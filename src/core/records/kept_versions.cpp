// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/kept_versions.h"

#include "core/records/on_database.h"
#include "core/records/portable_rows.h"

namespace fin {
namespace {

namespace fs = std::filesystem;
using namespace records;
using nlohmann::ordered_json;

std::string wordsFor(const ordered_json& value) {
  return value.is_string() ? value.get<std::string>() : value.is_null() ? std::string() : value.dump();
}

/// Where two contents differ, down to single values.
void addDifferences(const ordered_json& here, const ordered_json& kept, const std::string& at,
                    std::vector<KeptVersion::Difference>& out) {
  if (here == kept) return;
  if (!here.is_object() || !kept.is_object()) {
    out.push_back({at, wordsFor(here), wordsFor(kept)});
    return;
  }
  for (const auto& [key, value] : here.items())
    addDifferences(value, kept.value(key, ordered_json()), at.empty() || key != "doc" ? key : at, out);
  for (const auto& [key, value] : kept.items()) {
    if (!here.contains(key)) out.push_back({key, {}, wordsFor(value)});
  }
}

}  // namespace

Result<std::vector<KeptVersion>> keptVersions(const fs::path& file) {
  return onDatabase(file, [&file](SQLite::Database& database) -> Result<std::vector<KeptVersion>> {
    PortableRows rows(database, fs::absolute(file).parent_path(), {});
    SQLite::Statement query(
        database,
        "SELECT id, kind, uid, version, editor, edited_s FROM conflict WHERE settled = 0 ORDER BY id");
    std::vector<KeptVersion> out;
    while (query.executeStep()) {
      KeptVersion one{.id = query.getColumn(0).getInt64(), .kind = query.getColumn(1).getString()};
      const auto standing = rows.rowWith(one.kind, query.getColumn(2).getString());
      if (!standing) continue;
      const ordered_json kept = ordered_json::parse(query.getColumn(3).getString(), nullptr, false);
      addDifferences(standing->content, kept, "", one.differences);
      if (one.differences.empty()) continue;
      one.name = nameIn(standing->content);
      one.editor = query.getColumn(4).isNull() ? std::string() : query.getColumn(4).getString();
      one.edited_s = query.getColumn(5).getDouble();
      out.push_back(std::move(one));
    }
    return out;
  });
}

Result<void> decideOn(const fs::path& file, std::int64_t version, bool takeIt) {
  return onDatabase(file, [&](SQLite::Database& database) -> Result<void> {
    SQLite::Transaction transaction(database, SQLite::TransactionBehavior::IMMEDIATE);
    SQLite::Statement query(database, "SELECT kind, uid, version FROM conflict WHERE id = ?");
    query.bind(1, version);
    if (!query.executeStep()) return failure(ErrorCode::BadRequest, "the log holds no such version");
    if (takeIt) {
      PortableRows rows(database, fs::absolute(file).parent_path(), {});
      const std::string kind = query.getColumn(0).getString();
      const auto standing = rows.rowWith(kind, query.getColumn(1).getString());
      if (!standing) return failure(ErrorCode::BadRequest, "what it is a version of is no longer there");
      rows.put(kind, *standing, ordered_json::parse(query.getColumn(2).getString()));
    }
    SQLite::Statement settle(database, "UPDATE conflict SET settled = 1 WHERE kind = ? AND uid = ?");
    settle.bind(1, query.getColumn(0).getString());
    settle.bind(2, query.getColumn(1).getString());
    settle.exec();
    transaction.commit();
    return {};
  });
}

}  // namespace fin
