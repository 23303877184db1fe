// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <QSettings>
#include <QVariant>
#include <memory>

#include "app/phrases/words.h"
#include "core/readings/thresholds.h"

namespace fin::app {

enum class Look { AsTheSystem, Light, Dark };

/// What a person chose about the program itself; nothing of it is in a log. Kept in a file once keepIn() has
/// said where, for this run only before.
class Settings : public QObject {
  Q_OBJECT

 public:
  /// Those of the program.
  static Settings& all();

  /// Reads what the file holds, and writes to it from now on.
  void keepIn(const QString& file);
  /// Why they cannot be kept; empty where they can.
  [[nodiscard]] QString trouble() const;

  [[nodiscard]] Look look() const;
  void setLook(Look look);
  [[nodiscard]] int textSize_percent() const;
  void setTextSize_percent(int percent);
  [[nodiscard]] UnitSystem units() const;
  void setUnits(UnitSystem units);
  [[nodiscard]] PullUnit pullUnit() const;
  void setPullUnit(PullUnit unit);
  /// Where clips were taken from last; empty at first.
  [[nodiscard]] QString clipFolder() const;
  void setClipFolder(const QString& folder);
  /// Where any other file was read or written last; empty at first.
  [[nodiscard]] QString fileFolder() const;
  void setFileFolder(const QString& folder);
  /// The sound device's name as the system has it; empty for the system's own choice.
  [[nodiscard]] QByteArray soundDevice() const;
  void setSoundDevice(const QByteArray& device);
  /// Whether clips that come in for a planned pass are found, followed and read unasked.
  [[nodiscard]] bool measuresByItself() const;
  void setMeasuresByItself(bool on);
  /// That clips are read by which come in from now on.
  [[nodiscard]] Thresholds thresholds() const;
  void setThresholds(const Thresholds& thresholds);

 signals:
  void looksChanged();
  void unitsChanged();

 private:
  [[nodiscard]] QVariant value(const QString& name) const { return values_.value(name); }
  bool keep(const QString& name, const QVariant& value);

  QVariantMap values_;
  std::unique_ptr<QSettings> file_;
};

}  // namespace fin::app
