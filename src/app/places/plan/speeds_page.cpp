// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/speeds_page.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLineEdit>
#include <QPainter>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QStyledItemDelegate>
#include <QVBoxLayout>
#include <algorithm>

#include "app/phrases/water_words.h"
#include "app/print/pocket_card.h"
#include "app/print/writing.h"
#include "app/ui/files.h"
#include "app/ui/pieces.h"
#include "app/ui/table_heads.h"
#include "app/ui/theme.h"
#include "core/water/current.h"

namespace fin::app {
namespace {

constexpr double kMostSpeed_mm_s = 10000.0;
constexpr double kMostDepth_mm = 100000.0;

QString bandOf(const TierRig& rig, UnitSystem units) {
  const QString band =
      QObject::tr("%1 to %2").arg(spokenPull(rig.from_mm_s, units), spokenPull(rig.to_mm_s, units));
  return rig.heard ? QObject::tr("%1, only heard").arg(band) : band;
}

constexpr int kFromRole = Qt::UserRole + 1;
constexpr int kToRole = Qt::UserRole + 2;
constexpr int kMostRole = Qt::UserRole + 3;
constexpr int kHeardRole = Qt::UserRole + 4;

/// From the slowest to the fastest speed; dotted and hollow where it was only heard.
class BandBar : public QStyledItemDelegate {
 public:
  using QStyledItemDelegate::QStyledItemDelegate;
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    QStyledItemDelegate::paint(painter, option, index);
    const double most = index.data(kMostRole).toDouble();
    if (!(most > 0.0)) return;
    const QRectF room = QRectF(option.rect).adjusted(8, 9, -8, -9);
    const auto x = [&](int role) { return room.left() + room.width() * index.data(role).toDouble() / most; };
    const bool heard = index.data(kHeardRole).toBool();
    painter->save();
    painter->setPen(QPen(theme().accent, 1.5, heard ? Qt::DotLine : Qt::SolidLine));
    painter->setBrush(heard ? QBrush(Qt::NoBrush) : QBrush(theme().accent));
    painter->drawRect(QRectF(QPointF(x(kFromRole), room.top()), QPointF(x(kToRole), room.bottom())));
    painter->restore();
  }
};

/// A number box; nought stands for not said.
UnitBox* saidBox(const QString& name, const char* object, const char* unit, double most) {
  auto* box = new UnitBox(name, unit, {0.0, most, 0});
  box->setObjectName(object);
  box->setSpecialValueText(QObject::tr("not said"));
  return box;
}

std::optional<double> said(const UnitBox& box) {
  return box.metric() > 0.0 ? std::optional(box.metric()) : std::nullopt;
}

}  // namespace

SpeedsPage::SpeedsPage(WaterController& water, QWidget* parent)
    : QWidget(parent),
      water_(water),
      headline_(new WholeLabel),
      tiers_(new WholeLabel),
      rigs_(new QTableWidget),
      slowest_(saidBox(tr("Slowest speed that was heard of"), "heardSlowest", "mm/s", kMostSpeed_mm_s)),
      fastest_(saidBox(tr("Fastest speed that was heard of"), "heardFastest", "mm/s", kMostSpeed_mm_s)),
      shallowest_(saidBox(tr("Shallowest depth that was heard of"), "heardShallowest", "mm", kMostDepth_mm)),
      deepest_(saidBox(tr("Deepest depth that was heard of"), "heardDeepest", "mm", kMostDepth_mm)),
      from_(new QLineEdit),
      pull_(new UnitBox(tr("Speed over ground, or of the reel"), "mm/s", {0.0, kMostSpeed_mm_s, 0})),
      current_(new UnitBox(tr("Current"), "mm/s", {0.0, kMostSpeed_mm_s, 0})),
      angle_(new UnitBox(tr("Angle"), "°", {0.0, 180.0, 0})),
      currentWords_(new WholeLabel),
      printed_(faintLabel({})) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(18);
  auto* left = new QVBoxLayout;
  headline_->setObjectName("tiersHeadline");
  setLetters(*headline_, "large");
  left->addWidget(headline_);
  tiers_->setObjectName("tiers");
  tiers_->setTextFormat(Qt::RichText);
  left->addWidget(tiers_);
  left->addWidget(headingLabel(tr("At which speeds they work")));
  rigs_->setObjectName("tierRigs");
  rigs_->setAccessibleName(tr("Rigs, and at which speeds they work"));
  TableHeads::keepWhole(*rigs_);
  rigs_->setColumnCount(3);
  rigs_->setHorizontalHeaderLabels({tr("Rig"), tr("Slow to fast; dotted: only heard"), tr("Speeds")});
  rigs_->verticalHeader()->hide();
  rigs_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  rigs_->setSelectionBehavior(QAbstractItemView::SelectRows);
  rigs_->setSelectionMode(QAbstractItemView::SingleSelection);
  rigs_->setTabKeyNavigation(false);
  rigs_->setItemDelegateForColumn(1, new BandBar(rigs_));
  rigs_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  rigs_->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
  left->addWidget(rigs_, 1);
  auto* print = new QHBoxLayout;
  auto* card = namedButton(tr("Pocket card, PDF …"), "pocketCard");
  print->addWidget(card);
  print->addWidget(printed_, 1);
  left->addLayout(print);
  row->addLayout(left, 3);
  auto* scroll = new QScrollArea;
  scroll->setWidgetResizable(true);
  auto* sums = new QWidget;
  auto* right = new QVBoxLayout(sums);
  right->setContentsMargins(0, 0, 8, 0);
  right->addWidget(buildHeard());
  right->addWidget(buildCurrent());
  right->addStretch();
  scroll->setWidget(sums);
  row->addWidget(scroll, 2);
  connect(rigs_, &QTableWidget::itemSelectionChanged, this, &SpeedsPage::showHeard);
  connect(card, &QPushButton::clicked, this, &SpeedsPage::printCard);
  connect(&water_, &WaterController::changed, this, [this] {
    if (isVisible()) refresh();
  });
}

QWidget* SpeedsPage::buildHeard() {
  auto* box = card();
  auto* form = new QFormLayout(box);
  form->setContentsMargins(12, 8, 12, 10);
  form->addRow(headingLabel(tr("What was heard of the chosen rig")));
  form->addRow(tr("Slowest"), slowest_);
  form->addRow(tr("Fastest"), fastest_);
  form->addRow(tr("Shallowest"), shallowest_);
  form->addRow(tr("Deepest"), deepest_);
  form->addRow(tr("From whom"), from_);
  form->addRow(faintLabel(tr("Heard speeds fill in where none was measured. They are never scored.")));
  from_->setObjectName("heardFrom");
  from_->setAccessibleName(tr("From whom it was heard"));
  const auto keep = [this] {
    const RigId rig = chosen();
    water_.days().edit(tr("What was heard of a rig"), [&](DayPlan& plan) {
      for (Rig& one : plan.rack.rigs) {
        if (one.id == rig)
          one.heard = {said(*slowest_), said(*fastest_), said(*shallowest_), said(*deepest_),
                       from_->text().trimmed().toStdString()};
      }
    });
  };
  for (UnitBox* one : {slowest_, fastest_, shallowest_, deepest_}) connect(one, &UnitBox::edited, this, keep);
  connect(from_, &QLineEdit::editingFinished, this, keep);
  return box;
}

QWidget* SpeedsPage::buildCurrent() {
  auto* box = card();
  auto* form = new QFormLayout(box);
  form->setContentsMargins(12, 8, 12, 10);
  form->addRow(headingLabel(tr("In a current")));
  pull_->setObjectName("currentPull");
  current_->setObjectName("currentSpeed");
  angle_->setObjectName("currentAngle");
  form->addRow(tr("Over ground, or reeled at"), pull_);
  form->addRow(tr("Current"), current_);
  form->addRow(tr("Angle"), angle_);
  form->addRow(faintLabel(tr("Towed: between the course and where it flows to. Cast: from upstream.")));
  currentWords_->setObjectName("currentWords");
  form->addRow(currentWords_);
  pull_->show(500.0);
  current_->show(300.0);
  angle_->show(90.0);
  for (UnitBox* one : {pull_, current_, angle_}) connect(one, &UnitBox::edited, this, &SpeedsPage::answer);
  return box;
}

void SpeedsPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

RigId SpeedsPage::chosen() const {
  const QTableWidgetItem* item = rigs_->currentRow() < 0 ? nullptr : rigs_->item(rigs_->currentRow(), 0);
  return item == nullptr ? RigId() : RigId(item->data(Qt::UserRole).toLongLong());
}

void SpeedsPage::refresh() {
  const UnitSystem units = water_.days().units();
  const auto& bands = water_.season().bands;
  const auto tiers = tiersOf(bands, water_.plan().waterDay.rods);
  QStringList lines;
  if (tiers) {
    headline_->setText(
        tr("%1, from fast and long to slow and short").arg(counted(tiers->size(), tr("tier"), tr("tiers"))));
    for (std::size_t t = 0; t < tiers->size(); ++t) {
      QStringList names;
      for (const std::size_t i : (*tiers)[t].rigs)
        names += QString::fromStdString(bands[i].name).toHtmlEscaped() +
                 (bands[i].heard ? tr(" (heard)") : QString());
      lines += QString("<b>%1</b> %2: %3")
                   .arg(t + 1)
                   .arg(names.join(tr(" and ")), inAllSpeeds((*tiers)[t].middle()));
    }
  } else {
    headline_->setText(asSentence(QString::fromStdString(tiers.error().message)) + ".");
    lines += tr("A band of speeds comes from pulls at several speeds, or from what was heard.");
  }
  tiers_->setText(lines.join("<br>"));
  const RigId before = chosen();
  const QSignalBlocker quiet(rigs_);
  double most = 0.0;
  for (const TierRig& band : bands) most = std::max(most, band.to_mm_s);
  const auto& rigs = water_.plan().rack.rigs;
  rigs_->setRowCount(static_cast<int>(rigs.size()));
  for (int r = 0; r < rigs_->rowCount(); ++r) {
    const Rig& rig = rigs[static_cast<std::size_t>(r)];
    const auto band =
        std::find_if(bands.begin(), bands.end(), [&rig](const TierRig& b) { return b.rig == rig.id; });
    auto* name = readOnlyCell(water_.rigName(rig.id));
    name->setData(Qt::UserRole, QVariant::fromValue<qlonglong>(rig.id.value()));
    auto* bar = readOnlyCell({});
    if (band != bands.end()) {
      bar->setData(kFromRole, band->from_mm_s);
      bar->setData(kToRole, band->to_mm_s);
      bar->setData(kMostRole, most);
      bar->setData(kHeardRole, band->heard);
    }
    rigs_->setItem(r, 0, name);
    rigs_->setItem(r, 1, bar);
    rigs_->setItem(r, 2, readOnlyCell(band == bands.end() ? tr("not known") : bandOf(*band, units)));
    if (rig.id == before) rigs_->selectRow(r);
  }
  if (rigs_->currentRow() < 0 && rigs_->rowCount() > 0) rigs_->selectRow(0);
  showHeard();
  answer();
}

void SpeedsPage::showHeard() {
  const Rig* rig = water_.plan().rack.rig(chosen());
  for (QWidget* w :
       {static_cast<QWidget*>(slowest_), static_cast<QWidget*>(fastest_), static_cast<QWidget*>(shallowest_),
        static_cast<QWidget*>(deepest_), static_cast<QWidget*>(from_)})
    enableOr(*w, rig != nullptr, tr("Choose a rig first."));
  if (rig == nullptr) return;
  slowest_->show(rig->heard.slowest_mm_s.value_or(0.0));
  fastest_->show(rig->heard.fastest_mm_s.value_or(0.0));
  shallowest_->show(rig->heard.shallowest_mm.value_or(0.0));
  deepest_->show(rig->heard.deepest_mm.value_or(0.0));
  if (!from_->hasFocus()) from_->setText(QString::fromStdString(rig->heard.from));
}

void SpeedsPage::answer() {
  const double g = pull_->metric(), c = current_->metric(), angle = angle_->metric();
  QStringList words;
  const auto tell = [&words](const Result<double>& speed, const QString& sentence) {
    words += speed ? sentence.arg(inAllSpeeds(*speed))
                   : asSentence(QString::fromStdString(speed.error().message)) + ".";
  };
  tell(throughWater(g, c, angle), tr("Towed at that over ground, it goes through the water at %1."));
  tell(overGround(g, c, angle), tr("To go at that through the water, tow it over ground at %1."));
  if (const auto cast = castInCurrent(g, c, angle))
    words +=
        tr("Cast at that angle from upstream and reeled at that: %1 along its line, carried sideways at %2.")
            .arg(spokenSpeed(cast->alongLine, water_.days().units()),
                 spokenSpeed(cast->sideways, water_.days().units()));
  tell(reelAsTheCurrent(c, angle), tr("So as to go no faster than the current, reel at %1."));
  const auto& bands = water_.season().bands;
  const auto band =
      std::find_if(bands.begin(), bands.end(), [this](const TierRig& b) { return b.rig == chosen(); });
  if (band != bands.end()) {
    const auto angles = workingAngles(g, c, band->from_mm_s, band->to_mm_s);
    words += angles ? tr("%1 works from %2° to %3° from upstream.")
                          .arg(QString::fromStdString(band->name))
                          .arg(qRound(angles->from_deg))
                          .arg(qRound(angles->to_deg))
                    : QString::fromStdString(band->name) + ": " +
                          QString::fromStdString(angles.error().message) + ".";
  }
  currentWords_->setText(words.join("\n"));
}

void SpeedsPage::printCard() {
  const QString file = askWhereTo(this, tr("Where to"), "pocket-card.pdf");
  if (file.isEmpty()) return;
  const WaterSeason& season = water_.season();
  const PocketCard card = pocketCard(season.rack, season.passes, season.bands, water_.plan().waterDay.rods,
                                     water_.plan().cadence);
  const QString title = water_.days().dayName(water_.plan().id);
  const auto done = printPocketCard(card, title, withEnding(file, ".pdf"));
  printed_->setText(done ? tr("Printed to %1.").arg(file) : QString::fromStdString(done.error().message));
}

}  // namespace fin::app
