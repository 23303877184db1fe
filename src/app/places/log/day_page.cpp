// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/log/day_page.h"

#include <QFormLayout>
#include <QLineEdit>
#include <QVBoxLayout>
#include <algorithm>

#include "app/phrases/water_words.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"
#include "core/planning/questions.h"

namespace fin::app {
namespace {

constexpr int kIdRole = Qt::UserRole;
constexpr int kEventRole = Qt::UserRole + 1;

}  // namespace

DayPage::DayPage(LogBook& book, QWidget* parent)
    : QWidget(parent),
      book_(book),
      name_(new QLabel),
      facts_(new WholeLabel),
      passes_(new QListWidget),
      photos_(new PhotoRow("dayPhotos")),
      choose_(namedButton(tr("Work on this day"), "workOnDay")),
      take_(namedButton(tr("Move it to the day in the strip"), "takeEvent")) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  auto* head = new QHBoxLayout;
  name_->setObjectName("loggedDay");
  setLetters(*name_, "large");
  head->addWidget(name_, 1);
  head->addWidget(choose_);
  layout->addLayout(head);
  facts_->setObjectName("dayFacts");
  facts_->setTextFormat(Qt::RichText);
  layout->addWidget(facts_);
  passes_->setObjectName("dayPasses");
  passes_->setAccessibleName(tr("Passes of this day; Enter shows one on the bench"));
  layout->addWidget(passes_, 1);
  auto* move = new QHBoxLayout;
  move->addWidget(take_);
  move->addStretch();
  layout->addLayout(move);
  connect(take_, &QPushButton::clicked, this, [this] {
    const QListWidgetItem* item = passes_->currentItem();
    if (item == nullptr) return;
    book_.days().takeEvents(day_, {item->data(kEventRole).toLongLong()});
    show(day_);
  });
  layout->addWidget(photos_);
  connect(photos_, &PhotoRow::changed, this, [this](const std::vector<std::string>& files) {
    const DayId day = day_;
    book_.days().choose(day);  // a day is changed where it can be undone
    book_.days().edit(tr("Photos of the day"), [&files](DayPlan& plan) { plan.photos = files; });
    show(day);
  });
  connect(choose_, &QPushButton::clicked, this, [this] { book_.days().choose(day_); });
  connect(passes_, &QListWidget::itemActivated, this, [this](const QListWidgetItem* item) {
    if (item->data(kIdRole).isValid()) emit passWanted(item->data(kIdRole).toLongLong());
  });
}

void DayPage::show(DayId day) {
  day_ = day;
  const DayPlan plan = book_.planOf(day);
  name_->setText(book_.days().dayName(day));
  enableOr(*choose_, day != book_.days().plan().id, tr("It is the day that is shown now."));
  QStringList lines;
  const auto line = [&lines](const QString& what, const QString& text) {
    if (!text.isEmpty()) lines += QString("<b>%1</b> %2").arg(what, text.toHtmlEscaped());
  };
  line(tr("By"), QString::fromStdString(plan.people));
  QString water = QString::fromStdString(plan.water.name);
  for (const WaterBody& body : plan.waters) {
    if (body.id == plan.waterBody) water = QString::fromStdString(body.name);
  }
  QStringList state;
  if (!water.isEmpty()) state += water;
  state += spokenAmount(plan.water.temperature_C, "°C", 1, units_);
  if (plan.water.salinity_g_kg > 0.0) state += tr("%1 g/kg of salt").arg(plan.water.salinity_g_kg);
  if (plan.kind == DayKind::Water) {
    line(tr("Water"), water);
    line(tr("It was"), spokenWater(WaterNow(plan.conditions, 1e300), units_));
  } else {
    line(tr("Water"), state.join(", "));
  }
  QStringList asked;
  for (const Question& q : questions()) {
    if (std::find(plan.questions.begin(), plan.questions.end(), q.key) != plan.questions.end())
      asked += QString::fromUtf8(q.asked.data(), static_cast<qsizetype>(q.asked.size()));
  }
  line(tr("Asked"), asked.join(" "));
  std::size_t done = 0, fouled = 0;
  for (const PlannedPass& pass : plan.sheet) {
    done += pass.state == PassState::Done ? 1 : 0;
    fouled += pass.state == PassState::Fouled ? 1 : 0;
  }
  if (!plan.sheet.empty())
    line(tr("Sheet"), tr("%1 of %2 made, %3 fouled").arg(done).arg(plan.sheet.size()).arg(fouled));
  facts_->setText(lines.join("<br>"));
  photos_->show(plan.photos);
  passes_->clear();
  for (const RunEvent& event : plan.events) {
    if (event.kind == RunEventKind::Fish || event.kind == RunEventKind::Rest) continue;
    const Rig* rig = plan.rack.rig(event.rig);
    QString words = spokenEvent(event);
    if (rig != nullptr) words += ": " + QString::fromStdString(plan.rack.fullName(*rig));
    auto* item = new QListWidgetItem(words, passes_);
    item->setData(kEventRole, QVariant::fromValue<qlonglong>(event.id.value()));
  }
  take_->setVisible(plan.kind == DayKind::Water && passes_->count() > 0);
  const bool another = day != book_.days().plan().id && book_.days().plan().kind == DayKind::Water;
  enableOr(*take_, another, tr("Choose another day on the water in the strip first."));
  if (take_->isVisibleTo(this)) passes_->setCurrentRow(0);
  for (const LoggedPass& pass : book_.passes().passes()) {
    if (pass.day != day) continue;
    auto* item = new QListWidgetItem(QString::fromStdString(pass.title), passes_);
    item->setData(kIdRole, QVariant::fromValue<qlonglong>(pass.id.value()));
  }
}

WaterBodyPage::WaterBodyPage(LogBook& book, const WaterController& season, QWidget* parent)
    : QWidget(parent),
      book_(book),
      season_(season),
      rates_(new WholeLabel),
      name_(new QLineEdit),
      position_(new QLineEdit),
      note_(new QLineEdit),
      photos_(new PhotoRow("waterPhotos")),
      days_(new QListWidget) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  auto* form = new QFormLayout;
  const auto field = [&](const QString& label, QLineEdit* edit, const char* name,
                         std::string WaterBody::*of) {
    edit->setObjectName(name);
    form->addRow(label, edit);
    connect(edit, &QLineEdit::editingFinished, this, [this, label, edit, of] {
      change(label, [&](WaterBody& water) { water.*of = edit->text().trimmed().toStdString(); });
    });
  };
  field(tr("Name"), name_, "bodyName", &WaterBody::name);
  field(tr("Where it is"), position_, "bodyPosition", &WaterBody::position);
  field(tr("Note"), note_, "bodyNote", &WaterBody::note);
  position_->setPlaceholderText(tr("for you alone: it stands in no report and on no card"));
  layout->addLayout(form);
  rates_->setObjectName("bodyRates");
  layout->addWidget(rates_);
  layout->addWidget(photos_);
  connect(photos_, &PhotoRow::changed, this, [this](const std::vector<std::string>& files) {
    change(tr("Photos of the water"), [&files](WaterBody& water) { water.photos = files; });
    show(water_);
  });
  layout->addWidget(headingLabel(tr("Days here")));
  days_->setObjectName("waterDays");
  days_->setAccessibleName(tr("Days on this water"));
  layout->addWidget(days_, 1);
  connect(days_, &QListWidget::itemActivated, this,
          [this](const QListWidgetItem* item) { emit dayWanted(item->data(kIdRole).toLongLong()); });
}

void WaterBodyPage::change(const QString& what, const std::function<void(WaterBody&)>& make) {
  book_.days().edit(what, [&](DayPlan& plan) {
    for (WaterBody& water : plan.waters) {
      if (water.id == water_) make(water);
    }
  });
}

void WaterBodyPage::show(WaterId id) {
  water_ = id;
  for (const WaterBody& water : book_.days().plan().waters) {
    if (water.id != id) continue;
    name_->setText(QString::fromStdString(water.name));
    position_->setText(QString::fromStdString(water.position));
    note_->setText(QString::fromStdString(water.note));
    photos_->show(water.photos);
  }
  fillRates();
  days_->clear();
  for (const DayHead& day : book_.days().days()) {
    if (day.waterBody != id) continue;
    auto* item = new QListWidgetItem(book_.days().dayName(day.id), days_);
    item->setData(kIdRole, QVariant::fromValue<qlonglong>(day.id.value()));
  }
}

/// What was caught here, and between which depths it was fished.
void WaterBodyPage::fillRates() {
  const WaterSeason& all = season_.season();
  double hours = 0.0, least = 0.0, most = 0.0;
  std::size_t fish = 0;
  for (std::size_t d = 0; d < all.days.size(); ++d) {
    if (all.days[d].waterBody != water_) continue;
    hours += all.runs[d].rodHours();
    fish += all.runs[d].count(RunEventKind::Caught);
    for (const ConditionLine& line : all.days[d].conditions) {
      if (line.what != Condition::Depth || !line.number) continue;
      least = least > 0.0 ? std::min(least, *line.number) : *line.number;
      most = std::max(most, *line.number);
    }
  }
  QString words;
  if (hours > 0.0)
    words = tr("%1 fish in %2 rod-hours: %3 an hour.")
                .arg(fish)
                .arg(hours, 0, 'f', 1)
                .arg(spokenRate(*exactRate(fish, hours)));
  if (most > 0.0) words += tr(" Fished at %1 to %2 m of depth.").arg(least).arg(most);
  rates_->setText(words.trimmed());
  rates_->setVisible(!words.isEmpty());
}

}  // namespace fin::app
