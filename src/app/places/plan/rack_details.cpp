// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/rack_details.h"

#include <QComboBox>
#include <QLineEdit>
#include <QVBoxLayout>
#include <algorithm>

#include "app/ui/pieces.h"
#include "app/ui/settings.h"

namespace fin::app {
namespace {

constexpr int kWide_px = 320;
constexpr int kSpacing_px = 4;

std::size_t fieldNamed(const char* name) {
  const auto found = std::find_if(rackFields().begin(), rackFields().end(),
                                  [name](const RackField& f) { return f.name == name; });
  return static_cast<std::size_t>(found - rackFields().begin());
}

QGridLayout* formGrid() {
  auto* grid = new QGridLayout;
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(kSpacing_px);
  grid->setColumnStretch(1, 1);
  return grid;
}

}  // namespace

RackDetails::RackDetails(DayController& controller, RackTable& table, QWidget* parent)
    : QScrollArea(parent), controller_(controller), table_(table), photo_(new RackPhoto) {
  setWidgetResizable(true);
  setFixedWidth(kWide_px);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* content = new QWidget;
  auto* layout = new QVBoxLayout(content);
  layout->setContentsMargins(0, 0, 8, 0);
  layout->setSpacing(8);
  model_ = addPart(*layout, tr("The model"), tr("More about the model"), "moreOfModel");
  layout->addWidget(photo_);
  rig_ = addPart(*layout, tr("The rig on it"), tr("More about the rig"), "moreOfRig");
  layout->addStretch();
  const std::size_t photo = fieldNamed("photo");
  for (std::size_t i = 0; i < rackFields().size(); ++i) {
    Line line;
    if (i != photo) {
      line.edit = editorOf(i);
      line.label = new QLabel(columnTitle(rackFields()[i]));
      line.label->setBuddy(line.edit);
    }
    lines_.push_back(line);
  }
  place(Family::SoftPlastic);
  setWidget(content);
  connect(photo_, &RackPhoto::chosen, this, [this, photo](const QString& file) { put(photo, file); });
  connect(photo_, &RackPhoto::refused, this, &RackDetails::refused);
  connect(&Settings::all(), &Settings::unitsChanged, this, &RackDetails::refresh);
  connect(&controller, &DayController::planChanged, this, &RackDetails::refresh);
  refresh();
}

RackDetails::Part RackDetails::addPart(QVBoxLayout& to, const QString& heading, const QString& more,
                                       const char* name) {
  Part out{formGrid(), formGrid()};
  to.addWidget(headingLabel(heading));
  to.addLayout(out.asked);
  auto* content = new QWidget;
  content->setLayout(out.more);
  to.addWidget(new Fold(more, name, content));
  return out;
}

QWidget* RackDetails::editorOf(std::size_t field) {
  const RackField& of = rackFields()[field];
  const QString name = "rack_" + QString::fromStdString(of.name);
  if (of.words.empty()) {
    auto* edit = new QLineEdit;
    edit->setObjectName(name);
    connect(edit, &QLineEdit::editingFinished, this, [this, edit, field] { put(field, edit->text()); });
    return edit;
  }
  auto* choice = new QComboBox;
  choice->setObjectName(name);
  for (const std::string& word : of.words) choice->addItem(QString::fromStdString(word));
  connect(choice, &QComboBox::activated, this, [this, choice, field] { put(field, choice->currentText()); });
  return choice;
}

void RackDetails::put(std::size_t field, const QString& text) {
  const QModelIndex at = table_.index(row_, static_cast<int>(field));
  if (at.isValid() && at.data().toString() != text) table_.setData(at, text, Qt::EditRole);
}

/// Every line where its family has it. A line stays in its part, and lines keep their order.
void RackDetails::place(Family family) {
  QWidget* before = nullptr;
  for (const bool asked : {true, false}) {
    for (std::size_t i = 0; i < lines_.size(); ++i) {
      Line& line = lines_[i];
      const RackField& field = rackFields()[i];
      const auto& of = field.askedOf;
      if (line.edit == nullptr || asked != (std::find(of.begin(), of.end(), family) != of.end())) continue;
      Part& part = field.ofRig ? rig_ : model_;
      if (!line.placed || line.asked != asked) {
        for (QGridLayout* grid : {part.asked, part.more}) {
          grid->removeWidget(line.label);
          grid->removeWidget(line.edit);
        }
        QGridLayout* to = asked ? part.asked : part.more;
        to->addWidget(line.label, static_cast<int>(i), 0);
        to->addWidget(line.edit, static_cast<int>(i), 1);
        line.placed = true;
        line.asked = asked;
      }
    }
  }
  for (const bool rig : {false, true}) {
    for (const bool asked : {true, false}) {
      for (std::size_t i = 0; i < lines_.size(); ++i) {
        if (lines_[i].edit == nullptr || lines_[i].asked != asked || rackFields()[i].ofRig != rig) continue;
        if (before != nullptr) setTabOrder(before, lines_[i].edit);
        before = lines_[i].edit;
      }
    }
  }
}

const Model* RackDetails::model() const {
  const Rig* rig = controller_.plan().rack.rig(table_.rigAt(row_));
  return rig == nullptr ? nullptr : controller_.plan().rack.model(rig->model);
}

void RackDetails::showRow(int row) {
  row_ = row;
  refresh();
}

void RackDetails::refresh() {
  const bool any = row_ >= 0 && row_ < table_.rowCount();
  const Model* shown = any ? model() : nullptr;
  if (shown != nullptr) place(shown->family);
  photo_->show(shown == nullptr ? QString() : QString::fromStdString(shown->photo), any);
  for (std::size_t i = 0; i < lines_.size(); ++i) {
    if (lines_[i].edit == nullptr) continue;
    lines_[i].label->setText(columnTitle(rackFields()[i]));
    enableOr(*lines_[i].edit, any, tr("Choose a rig in the table first."));
    const QString text = any ? table_.index(row_, static_cast<int>(i)).data().toString() : QString();
    if (auto* edit = qobject_cast<QLineEdit*>(lines_[i].edit); edit != nullptr && edit->text() != text)
      edit->setText(text);
    if (auto* choice = qobject_cast<QComboBox*>(lines_[i].edit)) choice->setCurrentText(text);
  }
}

void RackDetails::beginNamingModel() {
  beginNaming(*qobject_cast<QLineEdit*>(lines_[fieldNamed("model")].edit));
}

void RackDetails::beginNamingRig() {
  beginNaming(*qobject_cast<QLineEdit*>(lines_[fieldNamed("rig")].edit));
}

}  // namespace fin::app
