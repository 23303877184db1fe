// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QTableWidget>

#include "app/controllers/publisher.h"
#include "app/controllers/verdict_controller.h"
#include "app/places/making_row.h"

class QCustomPlot;

namespace fin::app {

/// A vote among people who do not know whose clips they see: the page that asks, the ballots that come back,
/// what they say, and whether the readings say the same.
class VotePage : public QWidget {
  Q_OBJECT

 public:
  explicit VotePage(VerdictController& controller, QWidget* parent = nullptr);
  /// Writes the page with the ticked rigs into a folder; the vote begins with it.
  void writePage(const QString& folder);
  /// Counts what can be counted, and says of the rest why it cannot.
  void takeIn(const QStringList& files);
  [[nodiscard]] bool busy() const { return publisher_.busy(); }

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  QWidget* buildLeft();
  QWidget* buildRight();
  void refresh();
  void showRigs();
  void showPairs(const VoteCount& count);
  void showReadings(const VoteCount& count);
  void keepQuestion();
  [[nodiscard]] std::vector<std::string> ticked() const;

  VerdictController& controller_;
  Publisher publisher_;
  QLineEdit* asked_;
  QListWidget* rigs_;
  QLabel* leftOut_;
  MakingRow* row_;
  QLabel* first_;
  QLabel* words_;
  QWidget* result_;
  QCustomPlot* plot_;
  QTableWidget* pairs_;
  QTableWidget* readings_;
};

}  // namespace fin::app
