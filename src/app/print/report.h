// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QImage>
#include <QStringList>
#include <map>
#include <optional>
#include <vector>

#include "app/controllers/verdict_controller.h"

namespace fin::app {

struct ReportReading {
  QString name;
  QString value;  ///< "5.4 ± 0.1 per second"
};

/// One rig as it is shown to others.
struct ReportRig {
  QString name;
  bool graded = true;
  QString standing;                     ///< "Place 2 of 5", "shown, not graded: …", or why it has no place
  QStringList nearlyFor;                ///< where it is no first: the purposes in which it is placed best
  QStringList goodFor;                  ///< "Slow roll (81 %)"
  std::vector<ReportReading> readings;  ///< six at most, what it is scored by first
  QStringList madeOf;                   ///< size, hooks, colours, hardware, how it was rigged
  QStringList prices;                   ///< by shop and date
  QStringList againstControl;           ///< how it differs from the rig that came again all day
  QImage picture;                       ///< cut about the lure; null where its clip is gone
  QString loop;  ///< of the web page: its clip without an ending; empty where there is none
};

struct ReportPlot {
  QString title;
  QString sentence;
  QImage picture;
};
struct ReportTable {
  QStringList heads;
  std::vector<QStringList> rows;
};
struct ReportSection {
  QString title;
  QStringList lines;
  ReportTable table;
};

/// A day as it is told to others: plain text everywhere, and pictures. A value, which any thread may read.
struct Report {
  QString title;
  QStringList asked;
  QString answer;    ///< in a sentence
  QString firmness;  ///< how sure that is
  QString ownWords;
  ReportPlot order;
  ReportTable purposes;
  std::vector<ReportRig> rigs;
  std::vector<ReportPlot> comparisons;
  ReportSection vote;                  ///< empty where nobody voted
  std::vector<ReportSection> methods;  ///< how it was done, caveats, interest
  std::vector<ReportSection> appendix;
};

/// None while the rankings are still being worked out (Rankings::ready). `pictures` by rig.
std::optional<Report> reportOf(const VerdictController& controller, const std::map<QString, QImage>& pictures,
                               UnitSystem units);

enum class ReportForm { Print, Web };
/// HTML: of the kind that Qt's rich text shows, or a page that stands alone but for its loops. All text is
/// escaped, pictures are within, nothing is fetched.
QString reportHtml(const Report& report, ReportForm form);

}  // namespace fin::app
