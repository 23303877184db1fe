// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/system_look.h"

#include <QDBusConnection>
#include <QDBusMessage>
#include <QDBusPendingCallWatcher>
#include <QDBusPendingReply>
#include <QDBusVariant>

namespace fin::app {
namespace {

const QString kService = "org.freedesktop.portal.Desktop";
const QString kObject = "/org/freedesktop/portal/desktop";
const QString kInterface = "org.freedesktop.portal.Settings";
const QString kArea = "org.freedesktop.appearance";
const QString kName = "color-scheme";
constexpr uint kPrefersDark = 1;

}  // namespace

SystemLook::SystemLook(const QPalette& atStart, QObject* parent)
    : QObject(parent),
      dark_(atStart.color(QPalette::Window).lightness() < atStart.color(QPalette::WindowText).lightness()) {
  QDBusConnection bus = QDBusConnection::sessionBus();
  if (!bus.isConnected()) return;
  bus.connect(kService, kObject, kInterface, "SettingChanged", this,
              SLOT(heard(QString, QString, QDBusVariant)));
  QDBusMessage ask = QDBusMessage::createMethodCall(kService, kObject, kInterface, "Read");
  ask << kArea << kName;
  auto* answer = new QDBusPendingCallWatcher(bus.asyncCall(ask), this);
  connect(answer, &QDBusPendingCallWatcher::finished, this, [this](QDBusPendingCallWatcher* told) {
    const QDBusPendingReply<QDBusVariant> reply = *told;
    if (!reply.isError()) take(reply.value().variant());
    told->deleteLater();
  });
}

void SystemLook::heard(const QString& area, const QString& name, const QDBusVariant& value) {
  if (area == kArea && name == kName) take(value.variant());
}

void SystemLook::take(const QVariant& scheme) {
  // The older of the portal's two ways to answer wraps the number once more.
  const QVariant number = scheme.canConvert<QDBusVariant>() ? scheme.value<QDBusVariant>().variant() : scheme;
  const bool dark = number.toUInt() == kPrefersDark;
  if (dark == dark_) return;
  dark_ = dark;
  emit changed();
}

}  // namespace fin::app
