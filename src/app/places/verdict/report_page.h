// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLineEdit>
#include <QPlainTextEdit>
#include <QTextBrowser>
#include <QWidget>

#include "app/controllers/publisher.h"
#include "app/controllers/verdict_controller.h"
#include "app/jobs/job.h"
#include "app/places/making_row.h"
#include "app/print/report.h"

namespace fin::app {

/// The report as it will be read, what has to be said in it by hand, and where it goes.
class ReportPage : public QWidget {
  Q_OBJECT

 public:
  explicit ReportPage(VerdictController& controller, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);
  /// Stills are still being taken from the clips, or rankings worked out.
  [[nodiscard]] bool busy() const { return busyGathering() || publisher_.busy(); }
  /// The web page and the cards are folders.
  enum class Form { Pdf, WebPage, Cards, Table, Json };
  /// Writes it; a file gets the form's ending where the name has another one. Says below how it went.
  void write(Form form, const QString& name);

 protected:
  void showEvent(QShowEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  QWidget* buildLeft();
  void refresh();
  void takeStills();
  void keepWords();
  void writeWaiting();
  void writeReadings(Form form, const QString& name);
  void say(const Result<void>& done, const QString& file);
  [[nodiscard]] bool busyGathering() const { return taking_.running() || controller_.rankings().busy(); }

  VerdictController& controller_;
  UnitSystem units_ = UnitSystem::Metric;
  QPlainTextEdit* conclusion_;
  QLineEdit* interest_;
  QLineEdit* prices_;
  Publisher publisher_;
  MakingRow* row_;
  QTextBrowser* page_;
  std::vector<std::pair<Form, QString>> waiting_;  ///< to be written when the rankings are there
  std::map<QString, QImage> pictures_;             ///< by rig
  std::vector<PassId> picturesOf_;                 ///< the passes that they were taken from
  Job<std::map<QString, QImage>> taking_;
};

}  // namespace fin::app
