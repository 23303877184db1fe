// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/schema.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <fmt/format.h>

#include <array>
#include <boost/uuid/name_generator_sha1.hpp>
#include <boost/uuid/uuid_io.hpp>
#include <string>

namespace fin::records {
namespace {

/// Step n brings a log from version n to n + 1. A step that was released is never changed.
constexpr std::array kSteps{
    R"sql(
CREATE TABLE clip (
  id INTEGER PRIMARY KEY,
  path TEXT NOT NULL UNIQUE,         -- relative to the log's folder where it lies below it
  size_bytes INTEGER NOT NULL,
  sha256 TEXT NOT NULL               -- of size, head, middle and tail
);
CREATE TABLE pass (
  id INTEGER PRIMARY KEY,
  clip_id INTEGER NOT NULL REFERENCES clip(id),
  title TEXT NOT NULL,
  request TEXT NOT NULL,             -- agile-fin-pass/1: what the person said
  removed INTEGER NOT NULL DEFAULT 0
);
CREATE TABLE track (
  pass_id INTEGER PRIMARY KEY REFERENCES pass(id),
  first_frame INTEGER NOT NULL,
  frame_count INTEGER NOT NULL,
  marks TEXT NOT NULL,               -- names, separated by spaces
  followed_from TEXT NOT NULL        -- agile-fin-pass/1
);
CREATE TABLE track_sample (
  pass_id INTEGER NOT NULL REFERENCES pass(id),
  mark TEXT NOT NULL,
  frame INTEGER NOT NULL,
  x_px REAL NOT NULL,
  y_px REAL NOT NULL,
  quality REAL NOT NULL,
  PRIMARY KEY (pass_id, mark, frame)
) WITHOUT ROWID;
CREATE TABLE reading (
  pass_id INTEGER NOT NULL REFERENCES pass(id),
  place INTEGER NOT NULL,            -- in the protocol's order
  name TEXT NOT NULL,
  value REAL,                        -- NULL for words
  words TEXT,
  unit TEXT NOT NULL,
  u95 REAL,
  n REAL NOT NULL,
  grade TEXT NOT NULL,
  notes TEXT NOT NULL,               -- a JSON list
  method INTEGER NOT NULL,           -- version of the method that made it
  PRIMARY KEY (pass_id, name)
);
CREATE TABLE refusal (
  pass_id INTEGER NOT NULL REFERENCES pass(id),
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  why TEXT NOT NULL,
  PRIMARY KEY (pass_id, name)
);
)sql",
    R"sql(
CREATE TABLE model (
  id INTEGER PRIMARY KEY,
  doc TEXT NOT NULL,                 -- JSON: everything that is known of it
  name TEXT GENERATED ALWAYS AS (doc ->> 'name'),
  family TEXT GENERATED ALWAYS AS (doc ->> 'family'),
  length_mm REAL GENERATED ALWAYS AS (doc ->> 'length_mm'),
  weight_g REAL GENERATED ALWAYS AS (doc ->> 'weight_g'),
  price REAL GENERATED ALWAYS AS (doc ->> 'price'),
  currency TEXT GENERATED ALWAYS AS (doc ->> 'currency'),
  graded INTEGER GENERATED ALWAYS AS (doc ->> 'graded')
);
CREATE TABLE rig (
  id INTEGER PRIMARY KEY,
  doc TEXT NOT NULL,
  model_id INTEGER GENERATED ALWAYS AS (doc ->> 'model'),
  name TEXT GENERATED ALWAYS AS (doc ->> 'name'),
  head_g REAL GENERATED ALWAYS AS (doc ->> 'head_g'),
  hook_g REAL GENERATED ALWAYS AS (doc ->> 'hook_g')
);
CREATE TABLE day (
  id INTEGER PRIMARY KEY,
  doc TEXT NOT NULL,                 -- question, water, cameras, what was held equal, how the sheet is made
  name TEXT GENERATED ALWAYS AS (doc ->> 'name')
);
CREATE TABLE planned_pass (
  day_id INTEGER NOT NULL REFERENCES day(id),
  id INTEGER NOT NULL,
  place INTEGER NOT NULL,            -- in the day's order
  doc TEXT NOT NULL,
  rig_id INTEGER GENERATED ALWAYS AS (doc ->> 'rig'),
  protocol TEXT GENERATED ALWAYS AS (doc ->> 'protocol'),
  state TEXT GENERATED ALWAYS AS (doc ->> 'state'),
  why_fouled TEXT GENERATED ALWAYS AS (doc ->> 'whyFouled'),
  PRIMARY KEY (day_id, id)
);
ALTER TABLE pass ADD COLUMN planned_id INTEGER;          -- of the day's planned passes
ALTER TABLE pass ADD COLUMN camera TEXT NOT NULL DEFAULT '';
)sql",
    R"sql(
ALTER TABLE pass ADD COLUMN shared_instant_s REAL;       -- true time from the clip's first frame
CREATE TABLE calibration (
  camera TEXT NOT NULL,
  day TEXT NOT NULL,                 -- yyyy-mm-dd
  doc TEXT NOT NULL,                 -- agile-fin-pass/1: the clip it was made on, size and time
  PRIMARY KEY (camera, day)
);
CREATE TABLE lens (
  camera TEXT NOT NULL,
  width_px INTEGER NOT NULL,
  height_px INTEGER NOT NULL,
  window TEXT NOT NULL,              -- what it looks through
  fx REAL NOT NULL,
  fy REAL NOT NULL,
  cx REAL NOT NULL,
  cy REAL NOT NULL,
  k TEXT NOT NULL,                   -- a JSON list: k1, k2, p1, p2, k3
  rms_px REAL NOT NULL,
  PRIMARY KEY (camera, width_px, height_px, window)
);
)sql",
    R"sql(
CREATE TABLE outline_sample (
  pass_id INTEGER NOT NULL REFERENCES pass(id),
  frame INTEGER NOT NULL,
  whole INTEGER NOT NULL,            -- no edge of the picture cuts it
  area_px2 REAL NOT NULL,
  x_px REAL NOT NULL,                -- of its middle
  y_px REAL NOT NULL,
  angle_rad REAL NOT NULL,
  length_px REAL NOT NULL,
  width_px REAL NOT NULL,
  luma REAL NOT NULL,                -- mean in it
  rims TEXT NOT NULL,                -- pixels "x y x y …", rims parted by semicolons
  PRIMARY KEY (pass_id, frame)
) WITHOUT ROWID;
CREATE TABLE body_brightness (
  pass_id INTEGER NOT NULL REFERENCES pass(id),
  frame INTEGER NOT NULL,
  luma REAL NOT NULL,                -- mean between nose and tail
  PRIMARY KEY (pass_id, frame)
) WITHOUT ROWID;
)sql",
    R"sql(
CREATE TABLE verdict (
  day_id INTEGER PRIMARY KEY,
  doc TEXT NOT NULL                  -- JSON: properties with weights and curves, purposes, what is declared
);
CREATE TABLE eye_score (
  id INTEGER PRIMARY KEY,
  pass_id INTEGER NOT NULL REFERENCES pass(id),
  property TEXT NOT NULL,            -- name of the reading that was judged by eye
  score REAL NOT NULL                -- 0 to 10
);
)sql",
    R"sql(
CREATE TABLE camera_gain (
  camera TEXT PRIMARY KEY,
  gain_dB REAL NOT NULL              -- by which its clips are heard louder (softer below 0); no reading has it
);
)sql",
    // A pass keeps the file it was made on even where another stands in that place by now; and one record
    // holds what a pass's numbers come from. From what earlier programs read it is not known which request
    // they read, so that they are read once more.
    R"sql(
CREATE TABLE clip_of_pass (
  id INTEGER PRIMARY KEY,
  path TEXT NOT NULL,                -- relative to the log's folder where it lies below it
  size_bytes INTEGER NOT NULL,
  sha256 TEXT NOT NULL,              -- of size, head, middle and tail
  UNIQUE (path, size_bytes, sha256)
);
INSERT INTO clip_of_pass SELECT id, path, size_bytes, sha256 FROM clip;
DROP TABLE clip;
ALTER TABLE clip_of_pass RENAME TO clip;
CREATE TABLE measurement (
  pass_id INTEGER PRIMARY KEY REFERENCES pass(id),
  clip_size_bytes INTEGER NOT NULL,  -- the file that was followed
  clip_sha256 TEXT NOT NULL,
  followed_from TEXT,                -- agile-fin-pass/1; NULL where not known
  following_version INTEGER NOT NULL,
  followed_at_s REAL NOT NULL,       -- seconds since 1970 UTC; 0 where not known
  first_frame INTEGER NOT NULL,
  frame_count INTEGER NOT NULL,
  marks TEXT NOT NULL,               -- names, separated by spaces
  outline_lost TEXT NOT NULL,        -- why no outline could be followed although one was drawn
  read_from TEXT,                    -- agile-fin-pass/1; NULL where not known
  method_version INTEGER NOT NULL,
  made_at_s REAL NOT NULL,           -- seconds since 1970 UTC; 0 where not known
  frames_read INTEGER NOT NULL,
  frames_followed INTEGER NOT NULL,
  frames_bridged INTEGER NOT NULL,
  warnings TEXT NOT NULL             -- a JSON list
);
INSERT INTO measurement
  SELECT pass.id, clip.size_bytes, clip.sha256, track.followed_from,
         coalesce((SELECT max(method) FROM reading WHERE reading.pass_id = pass.id), 0), 0,
         coalesce(track.first_frame, 0), coalesce(track.frame_count, 0), coalesce(track.marks, ''), '', NULL,
         coalesce((SELECT max(method) FROM reading WHERE reading.pass_id = pass.id), 0), 0,
         coalesce(track.frame_count, 0), 0, 0, '[]'
  FROM pass JOIN clip ON clip.id = pass.clip_id LEFT JOIN track ON track.pass_id = pass.id
  WHERE track.pass_id IS NOT NULL OR EXISTS (SELECT 1 FROM reading WHERE reading.pass_id = pass.id);
DROP TABLE track;
-- Some logs of version 5 were made before there were scores by eye.
CREATE TABLE IF NOT EXISTS eye_score (
  id INTEGER PRIMARY KEY,
  pass_id INTEGER NOT NULL REFERENCES pass(id),
  property TEXT NOT NULL,
  score REAL NOT NULL
);
)sql",
    // What documents call things no longer follows the program's own names: words parted by "_", as in every
    // other format.
    R"sql(
UPDATE model SET doc = replace(doc, '"whyNotGraded":', '"why_not_graded":');
UPDATE rig SET doc = replace(doc, '"hookSize":', '"hook_size":');
UPDATE rig SET doc = replace(doc, '"insertPlace":', '"insert_place":');
UPDATE rig SET doc = replace(doc, '"lineStrength_kg":', '"line_strength_kg":');
UPDATE rig SET doc = replace(doc, '"tiePoint":', '"tie_point":');
UPDATE planned_pass SET doc = replace(doc, '"whyFouled":', '"why_fouled":');
UPDATE planned_pass SET doc = replace(doc, '"lineOut_mm":', '"line_out_mm":');
UPDATE day SET doc = replace(doc, '"bodyLength_mm":', '"body_length_mm":');
UPDATE day SET doc = replace(doc, '"camerasTogether":', '"cameras_together":');
UPDATE day SET doc = replace(doc, '"captureRate_Hz":', '"capture_rate_Hz":');
UPDATE day SET doc = replace(doc, '"controlEvery":', '"control_every":');
UPDATE day SET doc = replace(doc, '"controlRig":', '"control_rig":');
UPDATE day SET doc = replace(doc, '"emptyTank_kg":', '"empty_tank_kg":');
UPDATE day SET doc = replace(doc, '"fallRate_mm_s":', '"fall_rate_mm_s":');
UPDATE day SET doc = replace(doc, '"fieldOfView_deg":', '"field_of_view_deg":');
UPDATE day SET doc = replace(doc, '"heldEqual":', '"held_equal":');
UPDATE day SET doc = replace(doc, '"linePerTurn_mm":', '"line_per_turn_mm":');
UPDATE day SET doc = replace(doc, '"minutesPerPass":', '"minutes_per_pass":');
UPDATE day SET doc = replace(doc, '"minutesPerRig":', '"minutes_per_rig":');
UPDATE day SET doc = replace(doc, '"pullSpeed_mm_s":', '"pull_speed_mm_s":');
UPDATE day SET doc = replace(doc, '"rulerOff_mm":', '"ruler_off_mm":');
UPDATE day SET doc = replace(doc, '"steadyPart_mm":', '"steady_part_mm":');
UPDATE day SET doc = replace(doc, '"timeConstant_s":', '"time_constant_s":');
UPDATE day SET doc = replace(doc, '"wantedSalinity_g_kg":', '"wanted_salinity_g_kg":');
UPDATE day SET doc = replace(doc, '"watchedFolder":', '"watched_folder":');
UPDATE day SET doc = replace(doc, '"waterDepth_mm":', '"water_depth_mm":');
UPDATE verdict SET doc = replace(doc, '"pricesFrom":', '"prices_from":');
UPDATE verdict SET doc = replace(doc, '"correctDrift":', '"correct_drift":');
ALTER TABLE planned_pass DROP COLUMN why_fouled;
ALTER TABLE planned_pass ADD COLUMN why_fouled TEXT GENERATED ALWAYS AS (doc ->> 'why_fouled');
)sql",
    // What the program found by itself and nobody has looked at: a JSON document; NULL elsewhere.
    R"sql(
ALTER TABLE pass ADD COLUMN finding TEXT;
)sql",
    // Many days: what the log owns beside them, and whose each pass is; its end is manyDaysRows().
    R"sql(
CREATE TABLE about (
  name TEXT PRIMARY KEY,
  value TEXT NOT NULL                -- editor: who changes this copy
);
CREATE TABLE conflict (
  id INTEGER PRIMARY KEY,
  kind TEXT NOT NULL,                -- the table that it is of
  uid TEXT NOT NULL,
  version TEXT NOT NULL,             -- JSON: the row as it was in the other log, or here before it was overtaken
  editor TEXT,
  edited_s REAL,
  settled INTEGER NOT NULL DEFAULT 0,
  UNIQUE (kind, uid, version)
);
CREATE TABLE edition (
  id INTEGER PRIMARY KEY,
  doc TEXT NOT NULL                  -- JSON: how a rig was tied on earlier days
);
CREATE TABLE piece (
  id INTEGER PRIMARY KEY,
  doc TEXT NOT NULL                  -- JSON: this very lure
);
CREATE TABLE price (
  id INTEGER PRIMARY KEY,
  doc TEXT NOT NULL                  -- JSON: of a model, in a shop, on a date
);
CREATE TABLE claim (
  id INTEGER PRIMARY KEY,
  doc TEXT NOT NULL                  -- JSON: what is said of a model, as bounds of a reading
);
CREATE TABLE water (
  id INTEGER PRIMARY KEY,
  doc TEXT NOT NULL                  -- JSON: a pool, a tank, a lake
);
ALTER TABLE pass ADD COLUMN day_id INTEGER NOT NULL DEFAULT 1;
INSERT OR IGNORE INTO day (id, doc) SELECT 1, '{}' WHERE EXISTS (SELECT 1 FROM pass);
)sql",
    // Days on the water: what happened while fishing, and the rules that a lure is chosen by.
    R"sql(
CREATE TABLE tie_rule (
  id INTEGER PRIMARY KEY,
  doc TEXT NOT NULL,                 -- JSON; none of them: as the program has them
  removed INTEGER NOT NULL DEFAULT 0
);
CREATE TABLE run_event (
  day_id INTEGER NOT NULL REFERENCES day(id),
  id INTEGER NOT NULL,
  place INTEGER NOT NULL,            -- in the day's order
  doc TEXT NOT NULL,                 -- JSON: a rig tied on, a fish, a rest
  removed INTEGER NOT NULL DEFAULT 0,
  PRIMARY KEY (day_id, id)
);
)sql"};

/// A table of rows that a person makes.
struct EditedTable {
  const char* name;
  const char* changes;  ///< columns by which a row counts as changed
  const char* key = "id = new.id";
};

/// By what a table's rows of two logs are known as the same (a random number), who changed them and when.
std::string knownAndDated(const EditedTable& table) {
  return fmt::format(R"sql(
ALTER TABLE {0} ADD COLUMN uid TEXT;
ALTER TABLE {0} ADD COLUMN editor TEXT;
ALTER TABLE {0} ADD COLUMN edited_s REAL;
UPDATE {0} SET uid = lower(hex(randomblob(8)));
CREATE UNIQUE INDEX {0}_uid ON {0} (uid);
CREATE TRIGGER {0}_made AFTER INSERT ON {0} WHEN new.uid IS NULL BEGIN
  UPDATE {0} SET uid = lower(hex(randomblob(8))), edited_s = (julianday('now') - 2440587.5) * 86400.0,
    editor = (SELECT value FROM about WHERE name = 'editor') WHERE {2};
END;
CREATE TRIGGER {0}_edited AFTER UPDATE OF {1} ON {0} BEGIN
  UPDATE {0} SET edited_s = (julianday('now') - 2440587.5) * 86400.0,
    editor = (SELECT value FROM about WHERE name = 'editor') WHERE {2};
END;
)sql",
                     table.name, table.changes, table.key);
}

/// What every such table gets with version 10, and whether a row is out of sight.
std::string manyDaysRows() {
  using Table = EditedTable;
  constexpr std::array kHidden{"model",   "rig",   "day",   "planned_pass", "piece",
                               "edition", "price", "claim", "water"};
  const std::array kTables{
      Table{"model", "doc, removed"},
      Table{"rig", "doc, removed"},
      Table{"day", "doc, removed"},
      Table{"planned_pass", "doc, place, removed", "day_id = new.day_id AND id = new.id"},
      Table{"piece", "doc, removed"},
      Table{"edition", "doc, removed"},
      Table{"price", "doc, removed"},
      Table{"claim", "doc, removed"},
      Table{"water", "doc, removed"},
      Table{"pass",
            "clip_id, title, request, planned_id, camera, shared_instant_s, removed, finding, day_id"},
      Table{"verdict", "doc", "day_id = new.day_id"},
      Table{"eye_score", "score"},
  };
  std::string out;
  for (const char* table : kHidden)
    out += fmt::format("ALTER TABLE {} ADD COLUMN removed INTEGER NOT NULL DEFAULT 0;\n", table);
  for (const Table& table : kTables) out += knownAndDated(table);
  return out;
}

/// The end of version 11.
std::string waterDayRows() {
  return knownAndDated({"tie_rule", "doc, removed"}) +
         knownAndDated({"run_event", "doc, place, removed", "day_id = new.day_id AND id = new.id"});
}

/// Written into a log's head, by which it is told from other programs' files: "FINL".
constexpr int kApplicationId = 0x46494E4C;
constexpr int kLastVersionWithoutId = 6;

constexpr int kRowsHaveUids = 10;  ///< from this version on
constexpr int kDaysOnTheWater = 11;

/// Copies of one log that are brought up to date one by one must know their rows as the same when they are
/// merged: from the log's first clip, the row's number and what it is called. A log without a clip keeps
/// random numbers: nobody knows whose copy it is.
void nameRowsOfCopiesAlike(SQLite::Database& database) {
  SQLite::Statement first(database, "SELECT sha256 FROM clip ORDER BY id LIMIT 1");
  if (!first.executeStep()) return;
  const std::string origin = first.getColumn(0).getString();
  const boost::uuids::name_generator_sha1 named(boost::uuids::ns::oid());
  constexpr std::array<std::pair<const char*, const char*>, 7> kCalled{{{"model", "doc ->> 'name'"},
                                                                        {"rig", "doc ->> 'name'"},
                                                                        {"day", "''"},
                                                                        {"planned_pass", "doc ->> 'rig'"},
                                                                        {"pass", "title"},
                                                                        {"verdict", "day_id"},
                                                                        {"eye_score", "property"}}};
  for (const auto& [table, called] : kCalled) {
    SQLite::Statement rows(database, fmt::format("SELECT rowid, {} FROM {}", called, table));
    SQLite::Statement update(database, fmt::format("UPDATE {} SET uid = ? WHERE rowid = ?", table));
    while (rows.executeStep()) {
      const std::int64_t row = rows.getColumn(0).getInt64();
      const auto uid = named(fmt::format("{} {} {} {}", origin, table, row, rows.getColumn(1).getString()));
      std::string figures = to_string(uid);
      std::erase(figures, '-');
      update.bind(1, figures.substr(0, 16));
      update.bind(2, row);
      update.exec();
      update.reset();
    }
  }
}

int numberOf(const SQLite::Database& database, const char* sql) {
  SQLite::Statement query(database, sql);
  return query.executeStep() ? query.getColumn(0).getInt() : 0;
}

}  // namespace

int currentVersion() {
  return static_cast<int>(kSteps.size());
}

int versionOf(const SQLite::Database& database) {
  return numberOf(database, "PRAGMA user_version");
}

bool isLog(const SQLite::Database& database) {
  if (numberOf(database, "SELECT count(*) FROM sqlite_schema") == 0) return versionOf(database) == 0;
  const int id = numberOf(database, "PRAGMA application_id");
  if (versionOf(database) < 1) return false;
  // Logs of the first six versions have no id.
  const bool ours =
      numberOf(database,
               "SELECT count(*) FROM sqlite_schema WHERE type = 'table' AND name IN ('clip', 'pass')") == 2;
  return ours && (id == kApplicationId || (id == 0 && versionOf(database) <= kLastVersionWithoutId));
}

void migrate(SQLite::Database& database) {
  const int from = versionOf(database);
  if (from >= currentVersion()) return;
  // Tables that others refer to may be made anew within.
  database.exec("PRAGMA foreign_keys = OFF");
  SQLite::Transaction transaction(database, SQLite::TransactionBehavior::IMMEDIATE);
  if (versionOf(database) != from) return;  // another window was faster
  for (int step = from; step < currentVersion(); ++step) {
    database.exec(kSteps[static_cast<std::size_t>(step)]);
    if (step + 1 == kRowsHaveUids) database.exec(manyDaysRows());
    if (step + 1 == kDaysOnTheWater) database.exec(waterDayRows());
  }
  if (from > 0 && from < kRowsHaveUids) nameRowsOfCopiesAlike(database);
  database.exec("PRAGMA user_version = " + std::to_string(currentVersion()));
  database.exec("PRAGMA application_id = " + std::to_string(kApplicationId));
  transaction.commit();
}

}  // namespace fin::records
