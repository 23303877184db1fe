// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QTreeWidget>

#include "app/controllers/incoming_clips.h"

namespace fin::app {

/// The passes of the day with the clips of each. A clip is dragged to another pass, or moved there by Alt and
/// the up and down keys; waiting clips can be dropped on a pass.
class RunList : public QTreeWidget {
  Q_OBJECT

 public:
  RunList(DayController& day, PassController& passes, IncomingClips& incoming, QWidget* parent = nullptr);
  /// What a dragged clip is carried as.
  static QString mimeType() { return "application/x-agile-fin-clip"; }
  [[nodiscard]] QTreeWidgetItem* itemOf(PlannedPassId planned) const;

 protected:
  [[nodiscard]] QStringList mimeTypes() const override { return {mimeType()}; }
  [[nodiscard]] QMimeData* mimeData(const QList<QTreeWidgetItem*>& items) const override;
  bool dropMimeData(QTreeWidgetItem* parent, int index, const QMimeData* data,
                    Qt::DropAction action) override;
  [[nodiscard]] Qt::DropActions supportedDropActions() const override {
    return Qt::MoveAction | Qt::CopyAction;
  }
  void changeEvent(QEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void refresh();

  DayController& day_;
  PassController& passes_;
  IncomingClips& incoming_;
};

}  // namespace fin::app
