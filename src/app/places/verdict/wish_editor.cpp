// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/verdict/wish_editor.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/phrases/verdict_words.h"
#include "app/ui/pieces.h"
#include "core/comparison/class_spread.h"
#include "core/comparison/ranking.h"
#include "core/readings/registry.h"

namespace fin::app {
namespace {

struct WeightWord {
  double weight;
  const char* word;
};
constexpr WeightWord kWeights[] = {{0.0, QT_TR_NOOP("not at all")},
                                   {0.5, QT_TR_NOOP("half")},
                                   {1.0, QT_TR_NOOP("once")},
                                   {2.0, QT_TR_NOOP("double")},
                                   {3.0, QT_TR_NOOP("three times")}};

bool isOfPull(ReadingId reading) {
  const auto pulls = readingsOf(Protocol::Retrieve);
  return std::any_of(pulls.begin(), pulls.end(), [&](const ReadingSpec& s) { return s.id == reading; });
}

/// Of a rig's value: of classes the share of passes, of what is judged points.
std::string_view unitOf(const Wish& wish) {
  if (!wish.judged.empty()) return "";
  return isClass(wish.reading) ? "%" : fin::unitOf(wish.reading);
}

void choose(QComboBox& box, const QVariant& data) {
  const QSignalBlocker quiet(&box);
  box.setCurrentIndex(std::max(0, box.findData(data)));
}

}  // namespace

WishEditor::WishEditor(const LineUp& lineUp, bool curves, QWidget* parent)
    : QWidget(parent),
      lineUp_(lineUp),
      curves_(curves),
      list_(new QListWidget),
      add_(new QComboBox),
      remove_(namedButton(tr("Remove"), "removeWish")) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(6);
  list_->setObjectName("wishes");
  list_->setAccessibleName(tr("What counts"));
  list_->setWordWrap(true);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  layout->addWidget(list_, 1);
  auto* row = new QHBoxLayout;
  add_->setObjectName("addWish");
  add_->setAccessibleName(tr("Add what counts"));
  add_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
  row->addWidget(add_, 1);
  row->addWidget(remove_);
  layout->addLayout(row);
  connect(list_, &QListWidget::currentRowChanged, this, &WishEditor::spellOut);
  connect(add_, &QComboBox::activated, this, [this] {
    if (!add_->currentData().isValid()) return;
    std::vector<Wish> more = wishes_;
    const QVariant what = add_->currentData();
    more.push_back(what.typeId() == QMetaType::QString
                       ? Wish{.judged = what.toString().toStdString()}
                       : usualWish(what.value<ReadingId>(), lineUp_.passes()));
    emit edited(tr("Add %1").arg(add_->currentText()), more);
    list_->setCurrentRow(list_->count() - 1);
  });
  connect(remove_, &QPushButton::clicked, this, [this] {
    if (chosen() < 0) return;
    std::vector<Wish> fewer = wishes_;
    fewer.erase(fewer.begin() + chosen());
    emit edited(tr("Remove %1").arg(list_->currentItem()->text()), fewer);
  });
}

void WishEditor::setUnits(UnitSystem units) {
  units_ = units;
  spelled_.reset();
  show(wishes_, judgements_);
}

void WishEditor::show(std::vector<Wish> wishes, const Judgements& judgements) {
  judgements_ = judgements;
  wishes_ = std::move(wishes);
  fillList();
  fillChoice();
  spellOut();
}

void WishEditor::fillList() {
  const QSignalBlocker quiet(list_);
  const int before = std::max(0, list_->currentRow());
  list_->clear();
  for (const Wish& wish : wishes_) {
    const ShownUnit unit = shownUnit(unitOf(wish), units_);
    const QString way = wish.direction == Direction::More ? tr("more")
                        : wish.direction == Direction::Less
                            ? tr("less")
                            : tr("near %1 %2").arg(wish.target * unit.factor).arg(unit.unit);
    QString line = QString("%1: %2").arg(spokenWish(wish), way.trimmed());
    if (wish.demanded) line += ", " + tr("demanded");
    for (const WeightWord& w : kWeights) {
      if (w.weight == wish.weight && w.weight != 1.0) line += ", " + tr(w.word);
    }
    new QListWidgetItem(line, list_);
  }
  list_->setCurrentRow(std::min(before, list_->count() - 1));
}

/// All readings of the day that are not there yet.
void WishEditor::fillChoice() {
  const QSignalBlocker quiet(add_);
  add_->clear();
  add_->addItem(tr("Add what counts …"));
  std::vector<ReadingId> readings = readingsAmong(lineUp_.passes(), ReadAs::Either);
  if (!laddersOf(lineUp_.passes()).empty())
    readings.insert(readings.end(), std::begin(kLadderReadings), std::end(kLadderReadings));
  for (const ReadingId reading : readings) {
    if (std::none_of(wishes_.begin(), wishes_.end(),
                     [&](const Wish& w) { return w.judged.empty() && w.reading == reading; }))
      add_->addItem(spokenName(reading), QVariant::fromValue(reading));
  }
  for (const std::string& property : judgements_.properties) {
    if (std::none_of(wishes_.begin(), wishes_.end(), [&](const Wish& w) { return w.judged == property; }))
      add_->addItem(spokenWish({.judged = property}), QString::fromStdString(property));
  }
}

void WishEditor::spellOut() {
  const bool any = chosen() >= 0;
  enableOr(*remove_, any, tr("Choose what counts above first."));
  const Wish wish = any ? wishes_[static_cast<std::size_t>(chosen())] : Wish{};
  const auto now = any ? std::optional(std::tuple(wish.reading, wish.judged, wish.direction, wish.demanded))
                       : std::nullopt;
  if (now == spelled_ && form_ != nullptr) return fillForm();
  spelled_ = now;
  if (form_ != nullptr) {
    form_->hide();
    form_->deleteLater();  // it may be what is being typed into
  }
  form_ = nullptr;
  if (!any) return;
  form_ = new QWidget;
  auto* form = new QFormLayout(form_);
  form->setContentsMargins(0, 0, 0, 0);
  form->setVerticalSpacing(4);
  const std::string unit(unitOf(wish));
  if (wish.judged.empty() && isClass(wish.reading)) buildClass(*form, wish);
  buildWanted(*form, wish, unit.c_str());
  buildWeight(*form);
  buildSpeed(*form, wish);
  if (curves_) buildCurve(*form, wish, unit.c_str());
  static_cast<QVBoxLayout*>(layout())->addWidget(form_);
  setUnitsWithin(*form_, units_);
  form_->show();
  fillForm();
}

/// Which class is wanted, of those that were read.
void WishEditor::buildClass(QFormLayout& form, const Wish& wish) {
  auto* classes = new QComboBox;
  classes->setObjectName("wantedClass");
  QStringList names;
  for (const std::string& name : compareClasses(lineUp_.passes(), wish.reading).classes)
    names += QString::fromStdString(name);
  const QString now = QString::fromStdString(wish.className);
  if (!names.contains(now)) names += now;
  classes->addItems(names);
  classes->setCurrentText(now);
  form.addRow(spokenName(wish.reading), classes);
  connect(classes, &QComboBox::textActivated, this, [this](const QString& name) {
    change(tr("Which is wanted"), [&](Wish& w) {
      w.className = name.toStdString();
      w.curve.reset();
    });
  });
  auto* demanded = new QCheckBox(tr("Demanded: leave out who does not show it"));
  demanded->setObjectName("demanded");
  demanded->setChecked(wish.demanded);
  demanded->setToolTip(tr("Only rigs are ranked that showed it in more than half of their passes."));
  form.addRow(demanded);
  connect(demanded, &QCheckBox::clicked, this, [this](bool on) {
    change(on ? tr("Demanded") : tr("Not demanded"), [on](Wish& w) { w.demanded = on; });
  });
}

void WishEditor::buildWanted(QFormLayout& form, const Wish& wish, const char* unit) {
  wanted_ = new QComboBox;
  wanted_->setObjectName("wanted");
  for (const auto& [direction, word] : {std::pair(Direction::More, tr("more")),
                                        {Direction::Less, tr("less")},
                                        {Direction::Target, tr("near a target")}})
    wanted_->addItem(word, static_cast<int>(direction));
  form.addRow(tr("Wanted"), wanted_);
  connect(wanted_, &QComboBox::activated, this, [this] {
    change(tr("Which way is wanted"), [this](Wish& w) {
      w.direction = static_cast<Direction>(wanted_->currentData().toInt());
      w.curve.reset();
    });
  });
  target_ = nullptr;
  if (wish.direction != Direction::Target) return;
  target_ = new UnitBox(tr("Target"), unit, {-1e6, 1e6, 1});
  target_->setObjectName("target");
  form.addRow(tr("Target"), target_);
  connect(target_, &UnitBox::edited, this,
          [this](double to) { change(tr("Target"), [to](Wish& w) { w.target = to; }); });
}

void WishEditor::buildWeight(QFormLayout& form) {
  weight_ = new QComboBox;
  weight_->setObjectName("weight");
  for (const WeightWord& w : kWeights) weight_->addItem(tr(w.word), w.weight);
  form.addRow(tr("Counts"), weight_);
  connect(weight_, &QComboBox::activated, this, [this] {
    change(tr("How much it counts"), [this](Wish& w) { w.weight = weight_->currentData().toDouble(); });
  });
}

void WishEditor::buildSpeed(QFormLayout& form, const Wish& wish) {
  speed_ = nullptr;
  if (!wish.judged.empty() || !isOfPull(wish.reading)) return;
  speed_ = new QComboBox;
  speed_->setObjectName("wishSpeed");
  speed_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
  speed_->addItem(tr("most rigs' speed"), 0.0);
  std::vector<double> speeds = speedsOf(lineUp_.passes());
  if (wish.speed_mm_s) speeds.push_back(*wish.speed_mm_s);
  for (const double speed : speeds) {
    if (speed_->findData(speed) < 0) speed_->addItem(tr("about %1").arg(spokenPull(speed, units_)), speed);
  }
  form.addRow(tr("Pulled at"), speed_);
  connect(speed_, &QComboBox::activated, this, [this] {
    const double speed = speed_->currentData().toDouble();
    change(tr("Speed that counts"),
           [speed](Wish& w) { w.speed_mm_s = speed > 0.0 ? std::optional(speed) : std::nullopt; });
  });
}

void WishEditor::buildCurve(QFormLayout& form, const Wish& wish, const char* unit) {
  ownCurve_ = new QCheckBox(tr("Points as I set them"));
  ownCurve_->setObjectName("ownCurve");
  ownCurve_->setToolTip(tr("Otherwise 0 points for the day's worst and 10 for its best."));
  form.addRow(ownCurve_);
  connect(ownCurve_, &QCheckBox::clicked, this, [this](bool own) {
    change(tr("Points"), [this, own](Wish& w) {
      const PointsCurve curve = curveOf(w);
      w.curve = own ? std::optional(curve) : std::nullopt;
    });
  });
  const auto box = [&](const QString& label, const char* name, auto set) {
    auto* input = new UnitBox(label, unit, {-1e6, 1e6, 1});
    input->setObjectName(name);
    form.addRow(label, input);
    connect(input, &UnitBox::edited, this, [this, set](double to) {
      change(tr("Points"), [&](Wish& w) {
        if (!w.curve) w.curve = curveOf(w);
        set(*w.curve, to);
      });
    });
    return input;
  };
  const bool target = wish.direction == Direction::Target;
  none_ = box(target ? tr("0 points when off by") : tr("0 points at"), "pointsNone",
              [](PointsCurve& c, double v) { c.none = v; });
  half_ = full_ = nullptr;
  if (target) return;
  half_ = box(tr("5 points at"), "pointsHalf", [](PointsCurve& c, double v) { c.half = v; });
  full_ = box(tr("10 points at"), "pointsFull", [](PointsCurve& c, double v) { c.full = v; });
}

/// As it stands, or as the day gives it.
PointsCurve WishEditor::curveOf(const Wish& wish) const {
  const ScoreTable table = tableFor(lineUp_.passes(), lineUp_.entries(), {wish}, judgements_);
  return curveFor(wish, gradedValues(table, 0)).value_or(PointsCurve{});
}

void WishEditor::fillForm() {
  if (chosen() < 0) return;
  const Wish& wish = wishes_[static_cast<std::size_t>(chosen())];
  choose(*wanted_, static_cast<int>(wish.direction));
  choose(*weight_, wish.weight);
  if (target_ != nullptr) target_->show(wish.target);
  if (speed_ != nullptr) choose(*speed_, wish.speed_mm_s.value_or(0.0));
  if (!curves_) return;
  ownCurve_->setChecked(wish.curve.has_value());
  const PointsCurve curve = curveOf(wish);
  none_->show(curve.none);
  if (half_ != nullptr) half_->show(curve.half.value_or(0.5 * (curve.none + curve.full)));
  if (full_ != nullptr) full_->show(curve.full);
}

void WishEditor::change(const QString& what, const std::function<void(Wish&)>& change) {
  if (chosen() < 0) return;
  std::vector<Wish> after = wishes_;
  Wish& wish = after[static_cast<std::size_t>(chosen())];
  change(wish);
  emit edited(QString("%1: %2").arg(what, spokenWish(wish)), after);
}

}  // namespace fin::app
