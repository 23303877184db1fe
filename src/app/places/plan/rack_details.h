// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QGridLayout>
#include <QScrollArea>
#include <vector>

#include "app/places/plan/rack_photo.h"
#include "app/places/plan/rack_table.h"
#include "app/ui/fold.h"

namespace fin::app {

/// All that is known of one rig and its model, as a form: what its family is asked for first, the rest under
/// “more”. Edits go through the table's model.
class RackDetails : public QScrollArea {
  Q_OBJECT

 public:
  RackDetails(DayController& controller, RackTable& table, QWidget* parent = nullptr);
  /// The row of the table that is shown; none below 0.
  void showRow(int row);
  /// The cursor goes into the name of what was just added.
  void beginNamingModel();
  void beginNamingRig();

 signals:
  void refused(const QString& why);

 private:
  /// The form's lines of a model, or of a rig: those asked for, and those under “more”.
  struct Part {
    QGridLayout* asked = nullptr;
    QGridLayout* more = nullptr;
  };
  struct Line {
    QLabel* label = nullptr;
    QWidget* edit = nullptr;
    bool placed = false;
    bool asked = false;
  };
  Part addPart(class QVBoxLayout& to, const QString& heading, const QString& more, const char* name);
  [[nodiscard]] QWidget* editorOf(std::size_t field);
  void place(Family family);
  void put(std::size_t field, const QString& text);
  void refresh();
  [[nodiscard]] const Model* model() const;

  DayController& controller_;
  RackTable& table_;
  RackPhoto* photo_;
  Part model_;
  Part rig_;
  std::vector<Line> lines_;
  int row_ = -1;
};

}  // namespace fin::app
