// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/days_sheet.h"

#include <QDate>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/ui/pieces.h"
#include "app/ui/theme.h"
#include "core/units/date.h"

namespace fin::app {
namespace {

constexpr int kDayRole = Qt::UserRole;
constexpr int kWidth_px = 680;
constexpr int kListHeight_px = 300;

QString spoken(const DayHead& day, const QString& name) {
  QStringList parts{name};
  if (day.kind == DayKind::Water) parts += QObject::tr("on the water");
  if (day.planned > 0)
    parts += counted(day.planned, QObject::tr("pass planned"), QObject::tr("passes planned"));
  parts += counted(day.clips, QObject::tr("clip"), QObject::tr("clips"));
  return parts.join("  ·  ");
}

}  // namespace

DaysSheet::DaysSheet(DayController& days, PassController& passes, LineUp& lineUp, QWidget* parent)
    : QFrame(parent),
      days_(days),
      passes_(passes),
      lineUp_(lineUp),
      list_(new QListWidget),
      date_(new QLineEdit(QDate::currentDate().toString(Qt::ISODate))),
      change_(new QLineEdit),
      trouble_(new QLabel),
      again_(namedButton(tr("Test this day again"), "retest")),
      move_(namedButton(tr("Move the pass on the bench here"), "movePass")),
      hide_(namedButton(tr("Take this day out"), "hideDay")) {
  setMinimumWidth(kWidth_px);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(20, 16, 20, 18);
  layout->setSpacing(10);
  auto* heading = new QLabel(tr("The days of this log"));
  setLetters(*heading, "large");
  layout->addWidget(heading);
  layout->addWidget(
      faintLabel(tr("Enter shows a day. What is ticked is compared with the day that is shown, in the "
                    "Line-up and the Verdict.")));
  list_->setObjectName("dayList");
  list_->setAccessibleName(tr("Days; ticked ones are compared beside the one that is shown"));
  list_->setMinimumHeight(kListHeight_px);
  list_->installEventFilter(this);
  layout->addWidget(list_, 1);
  auto* row = new QHBoxLayout;
  row->addWidget(move_);
  row->addStretch();
  row->addWidget(hide_);
  layout->addLayout(row);
  layout->addWidget(buildNew());
  connect(list_, &QListWidget::itemDoubleClicked, this, &DaysSheet::choose);
  connect(list_, &QListWidget::itemChanged, this, &DaysSheet::tick);
  connect(list_, &QListWidget::currentRowChanged, this, &DaysSheet::showUsable);
  connect(hide_, &QPushButton::clicked, this, [this] {
    days_.choose(marked());
    days_.hideDay();
  });
  connect(move_, &QPushButton::clicked, this, [this] {
    if (passes_.current() != nullptr) passes_.moveTo(marked(), {passes_.current()->id});
    refresh();
  });
  connect(&days, &DayController::planChanged, this, &DaysSheet::refresh);
  refresh();
}

QWidget* DaysSheet::buildNew() {
  auto* box = card();
  auto* layout = new QVBoxLayout(box);
  auto* row = new QHBoxLayout;
  auto* label = new QLabel(tr("A new day on"));
  label->setBuddy(date_);
  date_->setObjectName("newDate");
  date_->setAccessibleName(tr("Date of the new day: year, month, day"));
  date_->setMaximumWidth(130);
  auto* test = namedButton(tr("Test day"), "newTestDay");
  auto* water = namedButton(tr("Day on the water"), "newWaterDay");
  row->addWidget(label);
  row->addWidget(date_);
  row->addWidget(test);
  row->addWidget(water);
  row->addStretch();
  layout->addLayout(row);
  auto* retest = new QHBoxLayout;
  auto* what = new QLabel(tr("or once more, with"));
  what->setBuddy(change_);
  change_->setObjectName("whatChanges");
  change_->setAccessibleName(tr("The one thing that is different"));
  change_->setPlaceholderText(tr("the one thing that is different"));
  retest->addWidget(what);
  retest->addWidget(change_, 1);
  retest->addWidget(again_);
  layout->addLayout(retest);
  trouble_->setObjectName("dayTrouble");
  trouble_->setProperty("trouble", true);
  trouble_->hide();
  layout->addWidget(trouble_);
  const auto begin = [this](DayKind kind) {
    const auto on = date();
    if (!on) return;
    days_.beginDay(kind, *on);
    emit done();
  };
  connect(test, &QPushButton::clicked, this, [begin] { begin(DayKind::Test); });
  connect(water, &QPushButton::clicked, this, [begin] { begin(DayKind::Water); });
  connect(change_, &QLineEdit::textChanged, this, &DaysSheet::showUsable);
  connect(again_, &QPushButton::clicked, this, [this] {
    const auto on = date();
    if (!on) return;
    days_.choose(marked());
    days_.beginRetest(*on, change_->text().trimmed());
    emit done();
  });
  return box;
}

std::optional<QString> DaysSheet::date() {
  const QString text = date_->text().trimmed();
  const bool good = dayNumberOf(text.toStdString()).has_value();
  trouble_->setText(
      tr("%1 is no date. Write it like %2.")
          .arg(text.isEmpty() ? tr("Nothing") : text, QDate::currentDate().toString(Qt::ISODate)));
  trouble_->setVisible(!good);
  return good ? std::optional(text) : std::nullopt;
}

DayId DaysSheet::marked() const {
  const QListWidgetItem* item = list_->currentItem();
  return item == nullptr ? days_.plan().id : DayId(item->data(kDayRole).toLongLong());
}

void DaysSheet::refresh() {
  const QSignalBlocker quiet(list_);
  const DayId before = list_->count() == 0 ? days_.plan().id : marked();
  list_->clear();
  const auto& days = days_.days();
  for (auto day = days.rbegin(); day != days.rend(); ++day) {
    auto* item = new QListWidgetItem(spoken(*day, days_.dayName(day->id)), list_);
    item->setData(kDayRole, QVariant::fromValue<qlonglong>(day->id.value()));
    const bool shown = day->id == days_.plan().id;
    QFont font = item->font();
    font.setBold(shown);
    item->setFont(font);
    if (day->id == before) list_->setCurrentItem(item);
    if (shown) continue;
    const auto& beside = lineUp_.besides();
    const bool ticked = std::find(beside.begin(), beside.end(), day->id) != beside.end();
    item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
    item->setCheckState(ticked ? Qt::Checked : Qt::Unchecked);
  }
  if (list_->currentItem() == nullptr) list_->setCurrentRow(0);
  showUsable();
}

void DaysSheet::showUsable() {
  const LoggedPass* pass = passes_.current();
  enableOr(*move_, pass != nullptr && pass->day != marked(),
           pass == nullptr ? tr("No pass lies on the bench.") : tr("The pass on the bench is of this day."));
  enableOr(*hide_, days_.days().size() > 1, tr("This is the only day of the log."));
  enableOr(*again_, !change_->text().trimmed().isEmpty(), tr("Say first what is different this time."));
}

void DaysSheet::tick() {
  std::vector<DayId> beside;
  for (int row = 0; row < list_->count(); ++row) {
    const QListWidgetItem* item = list_->item(row);
    if ((item->flags() & Qt::ItemIsUserCheckable) != 0 && item->checkState() == Qt::Checked)
      beside.emplace_back(item->data(kDayRole).toLongLong());
  }
  lineUp_.setBesides(std::move(beside));
}

void DaysSheet::choose() {
  days_.choose(marked());
  emit done();
}

bool DaysSheet::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter) {
      choose();
      return true;
    }
  }
  return QFrame::eventFilter(watched, event);
}

}  // namespace fin::app
