// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/verdict/judged_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QRandomGenerator>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <algorithm>

#include "app/phrases/verdict_words.h"
#include "app/ui/photo.h"
#include "app/ui/pieces.h"
#include "app/ui/table_heads.h"
#include "app/ui/theme.h"
#include "core/comparison/judging.h"
#include "core/comparison/points.h"

namespace fin::app {
namespace {

constexpr int kBesideScores = 2;  ///< columns: the rig, and its value
constexpr int kTall_px = 84;
constexpr QSize kPhoto{260, 150};

}  // namespace

JudgedPage::JudgedPage(VerdictController& controller, QWidget* parent)
    : QWidget(parent),
      actions_(tr("Verdict, judged"),
               [this] { return isVisible() ? QString() : tr("open the page Judged first"); }),
      controller_(controller),
      property_(new QComboBox),
      judge_(new QLineEdit),
      table_(new QTableWidget),
      question_(new QLabel),
      first_(namedButton({}, "chooseFirst")),
      second_(namedButton({}, "chooseSecond")),
      equal_(namedButton(tr("Equal  ↓"), "chooseEqual")),
      names_(namedButton(tr("Show names"), "showNames")) {
  actions_.add(tr("Choose the left one"), {Qt::Key_Left}, [this] { choose(1.0); })
      .add(tr("Choose the right one"), {Qt::Key_Right}, [this] { choose(0.0); })
      .add(tr("Call them equal"), {Qt::Key_Down}, [this] { choose(0.5); });
  setFocusPolicy(Qt::StrongFocus);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(8);
  auto* row = new QHBoxLayout;
  auto* label = new QLabel(tr("Judge"));
  label->setBuddy(property_);
  property_->setObjectName("judgedProperty");
  property_->setAccessibleName(tr("What is judged; another one can be typed"));
  property_->setEditable(true);
  property_->setInsertPolicy(QComboBox::NoInsert);
  property_->setMinimumWidth(220);
  auto* by = new QLabel(tr("by"));
  by->setBuddy(judge_);
  judge_->setObjectName("judgeName");
  judge_->setAccessibleName(tr("Who judges"));
  judge_->setPlaceholderText(tr("who judges"));
  judge_->setMaximumWidth(180);
  auto* remove = namedButton(tr("Remove from the list"), "removeProperty");
  for (QWidget* w : {static_cast<QWidget*>(label), static_cast<QWidget*>(property_),
                     static_cast<QWidget*>(by), static_cast<QWidget*>(judge_)})
    row->addWidget(w);
  row->addStretch();
  row->addWidget(remove);
  layout->addLayout(row);
  layout->addWidget(buildGame());
  table_->setObjectName("judgedScores");
  table_->setAccessibleName(tr("Points from 0 to 10, by rig"));
  TableHeads::keepWhole(*table_);
  table_->setColumnCount(kBesideScores + 1);
  table_->setHorizontalHeaderLabels({tr("Rig"), tr("So far"), tr("Points, 0 to 10")});
  table_->horizontalHeader()->setStretchLastSection(true);
  table_->setColumnWidth(0, 320);
  table_->setColumnWidth(1, 220);
  table_->verticalHeader()->hide();
  table_->setTabKeyNavigation(false);
  layout->addWidget(table_, 1);
  layout->addWidget(
      faintLabel(tr("Type points, or let somebody choose between two. Add it under By places or By points, "
                    "and it counts there.")));
  connect(property_, &QComboBox::activated, this, &JudgedPage::refresh);
  connect(property_->lineEdit(), &QLineEdit::editingFinished, this, [this] {
    const std::string name = property();
    const auto& known = controller_.plan().judgements.properties;
    if (!name.empty() && std::find(known.begin(), known.end(), name) == known.end())
      controller_.edit(tr("Judge %1").arg(QString::fromStdString(name)),
                       [&name](VerdictPlan& plan) { plan.judgements.properties.push_back(name); });
    refresh();
  });
  connect(remove, &QPushButton::clicked, this, [this] {
    controller_.edit(tr("Remove %1").arg(property_->currentText()), [name = property()](VerdictPlan& plan) {
      std::erase(plan.judgements.properties, name);
    });
  });
  connect(table_, &QTableWidget::cellChanged, this, &JudgedPage::typed);
  connect(names_, &QPushButton::clicked, this, &JudgedPage::showPair);
  connect(&controller, &VerdictController::changed, this, &JudgedPage::refresh);
}

QWidget* JudgedPage::buildGame() {
  QFrame* box = card();
  auto* layout = new QVBoxLayout(box);
  question_->setObjectName("whichOfTwo");
  setLetters(*question_, "large");
  auto* head = new QHBoxLayout;
  head->addWidget(question_, 1);
  names_->setCheckable(true);
  names_->setToolTip(tr("For whoever hands them over. The one who chooses should not see it."));
  head->addWidget(names_);
  layout->addLayout(head);
  auto* row = new QHBoxLayout;
  for (QPushButton* button : {first_, equal_, second_}) {
    button->setMinimumHeight(kTall_px);
    button->setFocusPolicy(Qt::TabFocus);
    button->installEventFilter(this);
    setLetters(*button, "strong");
    row->addWidget(button, button == equal_ ? 1 : 3);
  }
  layout->addLayout(row);
  connect(first_, &QPushButton::clicked, this, [this] { choose(1.0); });
  connect(second_, &QPushButton::clicked, this, [this] { choose(0.0); });
  connect(equal_, &QPushButton::clicked, this, [this] { choose(0.5); });
  return box;
}

std::string JudgedPage::property() const {
  return property_->currentText().trimmed().toStdString();
}

std::vector<std::string> JudgedPage::rigs() const {
  std::vector<std::string> out;
  const Rack& rack = controller_.lineUp().day().plan().rack;
  for (const Rig& rig : rack.rigs) out.push_back(rack.fullName(rig));
  return out;
}

void JudgedPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void JudgedPage::keyPressEvent(QKeyEvent* event) {
  if (!actions_.heard(*event)) QWidget::keyPressEvent(event);
}

/// Buttons would step to each other with these keys.
bool JudgedPage::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::KeyPress && actions_.heard(*static_cast<QKeyEvent*>(event))) return true;
  return QWidget::eventFilter(watched, event);
}

void JudgedPage::refresh() {
  if (!isVisible()) return;
  {
    const QSignalBlocker quiet(property_);
    const QString now = property_->currentText();
    property_->clear();
    for (const std::string& name : controller_.plan().judgements.properties)
      property_->addItem(QString::fromStdString(name));
    const int at = property_->findText(now);
    property_->setCurrentIndex(std::max(at, 0));
  }
  fillTable();
  drawPair();
}

void JudgedPage::fillTable() {
  const QSignalBlocker quiet(table_);
  const auto values = judgedValues(controller_.plan().judgements, property());
  const std::vector<std::string> all = rigs();
  table_->setRowCount(static_cast<int>(all.size()));
  for (int row = 0; row < table_->rowCount(); ++row) {
    const std::string& rig = all[static_cast<std::size_t>(row)];
    const auto value =
        std::find_if(values.begin(), values.end(), [&](const auto& v) { return v.first == rig; });
    const QString sofar = value == values.end()
                              ? tr("not judged")
                              : spokenValue({.judged = property()}, value->second, UnitSystem::Metric);
    table_->setItem(row, 0, readOnlyCell(QString::fromStdString(rig)));
    table_->setItem(row, 1, readOnlyCell(sofar));
    table_->setItem(row, kBesideScores, new QTableWidgetItem);
  }
}

/// Points are added: the same judge may judge again, and both count.
void JudgedPage::typed(int row, int column) {
  if (column != kBesideScores) return;
  const QString text = table_->item(row, column)->text().trimmed();
  bool good = false;
  const double points = QString(text).replace(',', '.').toDouble(&good);
  if (text.isEmpty()) return;
  if (!good || points < 0.0 || points > kMostPoints) {
    const QSignalBlocker quiet(table_);
    table_->item(row, column)->setToolTip(tr("Points go from 0 to 10."));
    table_->item(row, column)->setText({});
    question_->setText(tr("Points go from 0 to 10: %1 was not kept.").arg(text));
    return;
  }
  const Judgements::Score score{property(), rigs()[static_cast<std::size_t>(row)],
                                judge_->text().trimmed().toStdString(), points};
  controller_.edit(tr("Points for %1").arg(property_->currentText()),
                   [&score](VerdictPlan& plan) { plan.judgements.scores.push_back(score); });
}

/// Two that met least; of those, at random.
void JudgedPage::drawPair() {
  const std::vector<std::string> all = rigs();
  const bool any = all.size() >= 2;
  for (QPushButton* button : {first_, second_, equal_, names_})
    enableOr(*button, any, tr("Put two rigs on the rack first."));
  question_->setText(any ? tr("%1: which of these two?").arg(property_->currentText())
                         : tr("Put two rigs on the rack first."));
  if (!any) return;
  const auto met = [this](const std::string& a, const std::string& b) {
    const auto& duels = controller_.plan().judgements.duels;
    return std::count_if(duels.begin(), duels.end(), [&](const Judgements::Duel& d) {
      return d.property == property() && ((d.first == a && d.second == b) || (d.first == b && d.second == a));
    });
  };
  std::ptrdiff_t fewest = -1;
  std::vector<std::pair<std::string, std::string>> pairs;
  for (std::size_t i = 0; i < all.size(); ++i) {
    for (std::size_t j = i + 1; j < all.size(); ++j) {
      const std::ptrdiff_t times = met(all[i], all[j]);
      if (fewest >= 0 && times > fewest) continue;
      if (times < fewest || fewest < 0) pairs.clear();
      fewest = times;
      pairs.emplace_back(all[i], all[j]);
    }
  }
  auto* random = QRandomGenerator::global();
  const auto& pair = pairs[static_cast<std::size_t>(random->bounded(static_cast<int>(pairs.size())))];
  pairFirst_ = pair.first;
  pairSecond_ = pair.second;
  if (random->bounded(2) == 1) std::swap(pairFirst_, pairSecond_);
  showPair();
}

void JudgedPage::showPair() {
  const bool named = names_->isChecked();
  for (const auto& [button, rig] : {std::pair(first_, pairFirst_), std::pair(second_, pairSecond_)}) {
    const QPixmap photo = photoOf(rig);
    button->setIcon(photo);
    button->setIconSize(photo.size());
  }
  first_->setText(named ? tr("←  Left: %1").arg(QString::fromStdString(pairFirst_)) : tr("←  Left one"));
  second_->setText(named ? tr("Right: %1  →").arg(QString::fromStdString(pairSecond_)) : tr("Right one  →"));
}

QPixmap JudgedPage::photoOf(const std::string& name) const {
  const Rack& rack = controller_.lineUp().day().plan().rack;
  for (const Rig& rig : rack.rigs) {
    const Model* model = rack.model(rig.model);
    if (model != nullptr && rack.fullName(rig) == name)
      return photoWithin(QString::fromStdString(model->photo), kPhoto);
  }
  return {};
}

void JudgedPage::choose(double forFirst) {
  if (!first_->isEnabled() || property().empty()) return;
  const Judgements::Duel duel{property(), pairFirst_, pairSecond_, forFirst};
  controller_.edit(tr("Which of two: %1").arg(property_->currentText()),
                   [&duel](VerdictPlan& plan) { plan.judgements.duels.push_back(duel); });
  setFocus();
}

}  // namespace fin::app
