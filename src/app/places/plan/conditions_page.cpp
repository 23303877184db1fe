// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/conditions_page.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/ui/fold.h"
#include "app/ui/pieces.h"
#include "core/season/water_cautions.h"
#include "core/units/typed_amount.h"

namespace fin::app {
namespace {

QString text(std::string_view words) {
  return QString::fromUtf8(words.data(), static_cast<qsizetype>(words.size()));
}

}  // namespace

ConditionsPage::ConditionsPage(WaterController& water, QWidget* parent)
    : QWidget(parent),
      water_(water),
      trouble_(new WholeLabel),
      noted_(new QListWidget),
      takeBack_(namedButton(tr("Take it back"), "takeBackNote")),
      opposed_(new WholeLabel),
      cautions_(new WholeLabel) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(18);
  auto* scroll = new QScrollArea;
  scroll->setWidgetResizable(true);
  auto* left = new QWidget;
  auto* layout = new QVBoxLayout(left);
  layout->setContentsMargins(0, 0, 8, 0);
  layout->addWidget(headingLabel(tr("Seven things are enough. \"unknown\" is an answer.")));
  layout->addWidget(buildFields(true));
  auto* more = new Fold(tr("More"), "moreConditions", buildFields(false));
  more->setState(tr("depth of the fish, cover, tide, what is known of the place"));
  layout->addWidget(more);
  layout->addStretch();
  scroll->setWidget(left);
  row->addWidget(scroll, 3);
  row->addWidget(buildNoted(), 2);
  connect(&water_, &WaterController::changed, this, [this] {
    if (isVisible()) refresh();
  });
}

QWidget* ConditionsPage::buildFields(bool enough) {
  auto* box = new QWidget;
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(8);
  int line = 0;
  for (const ConditionSpec& spec : conditionSpecs()) {
    if (spec.enough != enough) continue;
    auto* field = new QComboBox;
    field->setEditable(true);
    field->setInsertPolicy(QComboBox::NoInsert);
    field->setObjectName("condition_" + text(toString(spec.what)));
    field->setAccessibleName(spokenName(spec.what));
    field->setToolTip(helpFor(spec.what));
    for (const std::string_view word : spec.words) field->addItem(text(word));
    field->addItem(tr("unknown"));
    field->lineEdit()->setPlaceholderText(spec.takesNumber() ? tr("a number") : tr("choose"));
    auto* label = new QLabel(spokenName(spec.what));
    label->setBuddy(field);
    label->setToolTip(helpFor(spec.what));
    auto* unit = new QLabel;
    grid->addWidget(label, line, 0);
    grid->addWidget(field, line, 1);
    grid->addWidget(unit, line, 2);
    grid->setColumnStretch(1, 1);
    fields_.push_back({spec.what, field, unit});
    const auto typed = [this, field, what = spec.what] { take(what, field->currentText().trimmed()); };
    connect(field, &QComboBox::activated, this, typed);
    connect(field->lineEdit(), &QLineEdit::editingFinished, this, typed);
    ++line;
  }
  return box;
}

QWidget* ConditionsPage::buildNoted() {
  auto* box = new QWidget;
  auto* layout = new QVBoxLayout(box);
  layout->setContentsMargins(0, 0, 0, 0);
  trouble_->setObjectName("conditionTrouble");
  setLook(*trouble_, "trouble", true);
  layout->addWidget(trouble_);
  opposed_->setObjectName("contradictions");
  setLook(*opposed_, "trouble", true);
  layout->addWidget(opposed_);
  layout->addWidget(headingLabel(tr("Noted so far")));
  noted_->setObjectName("notedConditions");
  noted_->setAccessibleName(tr("What was noted of the water, the newest first"));
  layout->addWidget(noted_, 1);
  auto* row = new QHBoxLayout;
  row->addWidget(takeBack_);
  row->addStretch();
  layout->addLayout(row);
  cautions_->setObjectName("waterCautions");
  setLook(*cautions_, "trouble", true);
  layout->addWidget(cautions_);
  layout->addWidget(cautionLines(Step::OnTheWater));
  connect(takeBack_, &QPushButton::clicked, this, [this] {
    if (noted_->currentItem() != nullptr)
      water_.takeBackNote(noted_->currentItem()->data(Qt::UserRole).toULongLong());
  });
  return box;
}

void ConditionsPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void ConditionsPage::take(Condition what, const QString& typed) {
  const WaterNow water = water_.water();
  const ConditionLine* now = water.line(what);
  if (typed.isEmpty() || (now != nullptr && typed == spokenLine(*now, units()).section(' ', 0, 0))) return;
  ConditionLine line{.what = what};
  const ConditionSpec& spec = specOf(what);
  const ShownUnit unit = shownUnit(spec.unit, units());
  const bool isWord =
      std::find(spec.words.begin(), spec.words.end(), typed.toStdString()) != spec.words.end();
  if (isWord) {
    line.word = typed.toStdString();
  } else if (typed != tr("unknown") && spec.takesNumber()) {
    const auto amount = typedAmount(typed.toStdString(), spec.unit, unit.unit.toStdString());
    if (!amount) return trouble_->setText(QString::fromStdString(amount.error().message));
    line.number = *amount;
  } else if (typed != tr("unknown")) {
    line.word = typed.toStdString();
  }
  const auto good = validate(line);
  trouble_->setText(good ? QString() : asSentence(QString::fromStdString(good.error().message)) + ".");
  if (!good) return refresh();
  if (now != nullptr && now->number == line.number && now->word == line.word) return;
  water_.note(line);
}

void ConditionsPage::refresh() {
  const WaterNow water = water_.water();
  for (const Field& field : fields_) {
    const QSignalBlocker quiet(field.box);
    const ConditionSpec& spec = specOf(field.what);
    const ShownUnit unit = shownUnit(spec.unit, units());
    field.unit->setText(unit.unit);
    if (field.box->lineEdit()->hasFocus() && field.box->lineEdit()->isModified()) continue;
    const ConditionLine* line = water.line(field.what);
    QString shown;
    if (line != nullptr)
      shown = line->number ? QString::number(unit.shown(*line->number), 'g', 4) : spokenLine(*line, units());
    field.box->setCurrentText(shown);
  }
  noted_->clear();
  const auto& lines = water_.plan().conditions;
  for (std::size_t i = lines.size(); i > 0; --i) {
    const ConditionLine& line = lines[i - 1];
    auto* item = new QListWidgetItem(
        QString("%1   %2: %3").arg(spokenClock(line.at_s), spokenName(line.what), spokenLine(line, units())),
        noted_);
    item->setData(Qt::UserRole, QVariant::fromValue<qulonglong>(i - 1));
  }
  if (noted_->count() > 0) noted_->setCurrentRow(0);
  enableOr(*takeBack_, noted_->count() > 0, tr("Nothing was noted yet."));
  const auto lined = [](const std::vector<std::string>& all) {
    QStringList out;
    for (const std::string& one : all) out += QString::fromStdString(one);
    return out.join("\n");
  };
  const QString opposed = lined(contradictionsIn(water));
  opposed_->setText(opposed);
  opposed_->setVisible(!opposed.isEmpty());
  const QString cautions = lined(cautionsOn(water));
  cautions_->setText(cautions);
  cautions_->setVisible(!cautions.isEmpty());
}

}  // namespace fin::app
