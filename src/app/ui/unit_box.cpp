// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/unit_box.h"

#include <QSignalBlocker>
#include <QToolTip>
#include <cmath>

#include "core/units/typed_amount.h"

namespace fin::app {

constexpr int kLeastWidth = 76;

UnitBox::UnitBox(const QString& name, const char* unit, Range range, QWidget* parent)
    : QDoubleSpinBox(parent), unit_(unit), range_(range) {
  setAccessibleName(name);
  setButtonSymbols(NoButtons);
  setKeyboardTracking(false);
  setMinimumWidth(kLeastWidth);  // a wide range would else ask for the room of its longest number
  setUnits(UnitSystem::Metric);
  connect(this, &QDoubleSpinBox::valueChanged, this, [this] {
    stands_ = metric();
    emit edited(stands_);
  });
  connect(lineEdit(), &QLineEdit::textEdited, this, [this] { trouble_.clear(); });
}

void UnitBox::show(double metric) {
  const QSignalBlocker quiet(this);
  setValue(shown_.shown(metric));
  stands_ = this->metric();
}

/// The box puts its own unit behind whatever was typed.
QString UnitBox::ownWords(QString text) const {
  if (text.endsWith(suffix())) text.chop(suffix().size());
  return text.trimmed();
}

Result<double> UnitBox::typed(const QString& text) const {
  const std::string metric = unit_ == kPullSpeed ? "mm/s" : unit_;
  return typedAmount(ownWords(text).toStdString(), metric, shown_.unit.toStdString());
}

/// While it is typed, much is not yet anything.
QValidator::State UnitBox::validate(QString& text, int& /*position*/) const {
  if (text == specialValueText()) return QValidator::Acceptable;
  const auto metric = typed(text);
  if (!metric) return QValidator::Intermediate;
  // As far off as rounding to what is shown may bring it.
  const double spare = std::pow(10.0, -range_.decimals);
  const bool inRange = *metric >= range_.from - spare && *metric <= range_.to + spare;
  return inRange ? QValidator::Acceptable : QValidator::Intermediate;
}

double UnitBox::valueFromText(const QString& text) const {
  if (text == specialValueText()) return minimum();
  const auto metric = typed(text);
  return shown_.shown(metric ? *metric : stands_);
}

/// What stood there before comes back, and why is said where the person looks.
void UnitBox::fixup(QString& text) const {
  const auto metric = typed(text);
  const auto shown = [this](double amount) { return textFromValue(shown_.shown(amount)); };
  trouble_ = metric ? tr("%1 is out of range: from %2 to %3%4.")
                          .arg(ownWords(text), shown(range_.from), shown(range_.to), suffix())
                    : QString::fromStdString(metric.error().message) + ".";
  QToolTip::showText(mapToGlobal(QPoint(0, height())), trouble_);
  text = textFromValue(shown_.shown(stands_)) + suffix();
}

void UnitBox::setUnits(UnitSystem units) {
  const double kept = metric();
  const QSignalBlocker quiet(this);
  shown_ = shownUnit(unit_, units);
  // An inch is coarse: two decimals more keep a millimetre a millimetre, three in a knot.
  setDecimals(range_.decimals + (shown_.factor < 0.01 ? 3 : shown_.factor < 1.0 ? 2 : 0));
  setRange(shown_.shown(range_.from), shown_.shown(range_.to));
  setSuffix(shown_.unit.isEmpty() ? QString() : " " + shown_.unit);
  setValue(shown_.shown(kept));
  stands_ = kept;
}

void setUnitsWithin(QWidget& widget, UnitSystem units) {
  for (UnitBox* box : widget.findChildren<UnitBox*>()) box->setUnits(units);
}

}  // namespace fin::app
