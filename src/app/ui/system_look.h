// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <QPalette>

class QDBusVariant;

namespace fin::app {

/// Whether the system shows itself dark: asked of the desktop's portal
/// (org.freedesktop.portal.Settings, color-scheme), which also tells of changes while the program runs; where
/// there is none, told from the palette that the program was started with.
class SystemLook : public QObject {
  Q_OBJECT

 public:
  explicit SystemLook(const QPalette& atStart, QObject* parent = nullptr);
  [[nodiscard]] bool isDark() const { return dark_; }

 signals:
  void changed();

 private slots:
  void heard(const QString& area, const QString& name, const QDBusVariant& value);

 private:
  void take(const QVariant& scheme);

  bool dark_ = false;
};

}  // namespace fin::app
