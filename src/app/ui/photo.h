// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPixmap>
#include <QString>

namespace fin::app {

/// A picture file at most this large, read no larger than it is shown; a null picture for what cannot be
/// read.
QPixmap photoWithin(const QString& file, const QSize& most);
/// Why a file cannot be shown as a photo; empty where it can. A file that would keep the window waiting is
/// refused.
QString whyNoPhoto(const QString& file);

}  // namespace fin::app
