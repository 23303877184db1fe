// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <optional>
#include <string>
#include <vector>

#include "app/models/day_desk.h"
#include "core/comparison/speed_ladder.h"
#include "core/comparison/spread.h"

namespace fin::app {

class PassDesk;

/// A pass that was read, as it is compared with others.
struct ComparedPass {
  RowId id = 0;
  QString title;
  std::string rig;  ///< its full name
  std::optional<RowId> rigId;
  std::optional<RowId> planned;
  Protocol protocol = Protocol::Retrieve;
  std::optional<double> speed_mm_s;  ///< of a pull, as it was read
  ReadingSet readings;
};

/// One value in a comparison, and the pass that it came from.
struct ComparedValue {
  RowId pass = 0;
  QString title;
  double value = 0.0;
  double u95 = 0.0;
};
struct ComparedRig {
  std::string rig;
  std::vector<ComparedValue> values;
};

/// How deep a rig ran at one speed.
struct DepthPoint {
  double speed_mm_s = 0.0;
  double depth_mm = 0.0;
  double u95_mm = 0.0;
};

/// As the comparison takes them.
RigValues numbersOf(const ComparedRig& rig);

/// The passes of the log that were read, by rig. Fouled ones are left out, and counted.
class LineUp : public QObject {
  Q_OBJECT

 public:
  /// All must outlive it.
  LineUp(const Log& log, const PassDesk& desk, const DayDesk& day, QObject* parent = nullptr);

  /// Reads the log again; costs little, but nothing has to be done while nobody looks.
  void refresh();

  [[nodiscard]] const DayDesk& day() const { return day_; }
  [[nodiscard]] const std::vector<ComparedPass>& passes() const { return passes_; }
  [[nodiscard]] std::size_t fouled() const { return fouled_; }
  /// Names of all readings with a number, in the order of the protocols.
  [[nodiscard]] std::vector<std::string> readings() const;
  /// Speeds of the pulls, each standing for those within a tenth of it; rising.
  [[nodiscard]] std::vector<double> speeds() const;
  /// The values of one reading, of pulls at about one speed where one is given. Several clips of one pass
  /// give one value: the surest.
  [[nodiscard]] std::vector<ComparedRig> valuesOf(const std::string& reading,
                                                  std::optional<double> speed_mm_s = {}) const;
  /// What should have been equal between the passes with this reading and was not, in words.
  [[nodiscard]] QStringList differencesFor(const std::string& reading,
                                           std::optional<double> speed_mm_s = {}) const;
  /// Rigs that were pulled at two speeds and more, each with its rungs.
  [[nodiscard]] std::vector<std::pair<std::string, std::vector<LadderRung>>> ladders() const;

  /// Rigs whose running depth was read, by rising speed.
  [[nodiscard]] std::vector<std::pair<std::string, std::vector<DepthPoint>>> depths() const;

 signals:
  void changed();

 private:
  const Log& log_;
  const PassDesk& desk_;
  const DayDesk& day_;
  std::vector<ComparedPass> passes_;
  std::size_t fouled_ = 0;
};

}  // namespace fin::app
