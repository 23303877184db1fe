// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/settings.h"

#include <QDir>
#include <QFileInfo>
#include <algorithm>

namespace fin::app {
namespace {

constexpr int kSmallestText_percent = 100;
constexpr int kLargestText_percent = 130;

// As they stand in the file.
const QString kLook = "look";
const QString kTextSize = "text_size_percent";
const QString kUnits = "units";
const QString kPullUnit = "pull_unit";
const QString kClipFolder = "clip_folder";
const QString kFileFolder = "file_folder";
const QString kSoundDevice = "sound_device";
const QString kByItself = "measures_by_itself";

}  // namespace

Settings& Settings::all() {
  static Settings settings;
  return settings;
}

void Settings::keepIn(const QString& file) {
  QDir().mkpath(QFileInfo(file).path());
  file_ = std::make_unique<QSettings>(file, QSettings::IniFormat);
  for (const QString& name : file_->allKeys()) values_[name] = file_->value(name);
  showPullsIn(pullUnit());
  emit looksChanged();
  emit unitsChanged();
}

QString Settings::trouble() const {
  if (!file_) return {};
  const QString folder = QFileInfo(file_->fileName()).path();
  if (file_->isWritable() && file_->status() == QSettings::NoError) return {};
  return tr("What you choose here holds until you close the program: %1 cannot be written.").arg(folder);
}

bool Settings::keep(const QString& name, const QVariant& value) {
  if (values_.value(name) == value) return false;
  values_[name] = value;
  if (file_) {
    file_->setValue(name, value);
    file_->sync();
  }
  return true;
}

Look Settings::look() const {
  const QString look = value(kLook).toString();
  return look == "light" ? Look::Light : look == "dark" ? Look::Dark : Look::AsTheSystem;
}

void Settings::setLook(Look look) {
  const char* const names[] = {"as_the_system", "light", "dark"};
  if (keep(kLook, names[static_cast<int>(look)])) emit looksChanged();
}

int Settings::textSize_percent() const {
  const int percent = value(kTextSize).toInt();
  return std::clamp(percent, kSmallestText_percent, kLargestText_percent);
}

void Settings::setTextSize_percent(int percent) {
  if (keep(kTextSize, percent)) emit looksChanged();
}

UnitSystem Settings::units() const {
  return value(kUnits).toString() == "us" ? UnitSystem::Imperial : UnitSystem::Metric;
}

void Settings::setUnits(UnitSystem units) {
  if (keep(kUnits, units == UnitSystem::Imperial ? "us" : "metric")) emit unitsChanged();
}

PullUnit Settings::pullUnit() const {
  const QString unit = value(kPullUnit).toString();
  return unit == "km/h"    ? PullUnit::KilometresPerHour
         : unit == "mph"   ? PullUnit::MilesPerHour
         : unit == "knots" ? PullUnit::Knots
                           : PullUnit::AsTheUnits;
}

void Settings::setPullUnit(PullUnit unit) {
  const char* const names[] = {"as_the_units", "km/h", "mph", "knots"};
  if (!keep(kPullUnit, names[static_cast<int>(unit)])) return;
  showPullsIn(unit);
  emit unitsChanged();
}

bool Settings::measuresByItself() const {
  return values_.value(kByItself, true).toBool();
}

void Settings::setMeasuresByItself(bool on) {
  keep(kByItself, on);
}

QString Settings::clipFolder() const {
  return value(kClipFolder).toString();
}

void Settings::setClipFolder(const QString& folder) {
  keep(kClipFolder, folder);
}

QString Settings::fileFolder() const {
  return value(kFileFolder).toString();
}

void Settings::setFileFolder(const QString& folder) {
  keep(kFileFolder, folder);
}

QByteArray Settings::soundDevice() const {
  return value(kSoundDevice).toByteArray();
}

void Settings::setSoundDevice(const QByteArray& device) {
  keep(kSoundDevice, device);
}

/// What cannot be meant is as defined.
Thresholds Settings::thresholds() const {
  Thresholds out;
  for (const ThresholdKey& threshold : kThresholdKeys) {
    bool number = false;
    const double kept = value(threshold.key).toDouble(&number);
    if (number && threshold.allows(kept)) out.*threshold.value = kept;
  }
  return out;
}

void Settings::setThresholds(const Thresholds& thresholds) {
  for (const ThresholdKey& threshold : kThresholdKeys) keep(threshold.key, thresholds.*threshold.value);
}

}  // namespace fin::app
