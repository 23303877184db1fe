// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QImage>
#include <QString>
#include <vector>

#include "app/controllers/verdict_controller.h"

namespace fin::app {

/// A picture from the footage.
struct ReportStill {
  QString caption;
  QImage picture;  ///< null where the clip is gone; then `caption` says so
};

/// The day as a page that stands alone: the question, the line-up, what was held equal, the verdict and how
/// firm it is, the readings with their uncertainty and spread, stills, caveats, the interest declared. HTML
/// of the kind that both a browser and Qt's rich text show, pictures within. Empty while the rankings are
/// still being worked out (Rankings::ready).
QString reportPage(const VerdictController& controller, const std::vector<ReportStill>& stills,
                   UnitSystem units);

}  // namespace fin::app
