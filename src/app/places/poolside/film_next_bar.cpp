// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/poolside/film_next_bar.h"

#include <QHBoxLayout>

#include "app/ui/theme.h"
#include "core/planning/replan.h"

namespace fin::app {
namespace {

QString listed(QStringList names) {
  const QString last = names.takeLast();
  return names.isEmpty() ? last : QObject::tr("%1 and %2").arg(names.join(", "), last);
}

QString spoken(const FilmNext& next, const QStringList& open) {
  switch (next.state) {
    case FilmNext::State::Nothing:
      return {};
    case FilmNext::State::TooEarly:
      return QObject::tr("What to film next is said here after three measured passes of every rig.");
    case FilmNext::State::Settled:
      return QObject::tr("All is settled, as far as eight passes of each could: no more passes are needed.");
    case FilmNext::State::Open:
      break;
  }
  QStringList by;
  for (const ReadingId reading : next.by) by += spokenName(reading).toLower();
  const QString rest = next.settled.empty() ? QString() : QObject::tr("; the rest is settled");
  return QObject::tr("Film next: %1 of %2%3. Open: %4.")
      .arg(counted(next.more, QObject::tr("more pass"), QObject::tr("more passes")), listed(open), rest,
           by.join(", "));
}

}  // namespace

FilmNextBar::FilmNextBar(DayController& day, const VerdictController& verdict, QWidget* parent)
    : QFrame(parent),
      day_(day),
      verdict_(verdict),
      text_(new WholeLabel),
      question_(new QComboBox),
      replan_(namedButton(tr("Plan the rest like this  R"), "replan")) {
  setObjectName("filmNext");
  setProperty("card", true);
  text_->setObjectName("filmNextText");
  text_->setTextFormat(Qt::PlainText);
  setLetters(*text_, "middle");
  question_->setObjectName("settleWhat");
  question_->setAccessibleName(tr("What is to be settled"));
  question_->addItem(tr("who is best"));
  question_->addItem(tr("any two rigs"));
  question_->setToolTip(tr("Who is best needs far fewer passes than telling any two rigs apart."));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(16, 4, 12, 4);
  row->addWidget(text_, 1);
  row->addWidget(new QLabel(tr("To settle")));
  row->addWidget(question_);
  row->addWidget(replan_);
  connect(question_, &QComboBox::currentIndexChanged, this, &FilmNextBar::refresh);
  connect(replan_, &QPushButton::clicked, this, &FilmNextBar::replan);
  connect(&verdict, &VerdictController::changed, this, &FilmNextBar::refresh);
  show({});
}

ToSettle FilmNextBar::toSettle() const {
  return question_->currentIndex() == 0 ? ToSettle::Best : ToSettle::All;
}

/// On a blind day its letter, as everywhere here.
QString FilmNextBar::toldAs(const std::string& rig) const {
  const DayPlan& plan = day_.plan();
  for (const PlannedPass& pass : plan.sheet) {
    const Rig* known = plan.rack.rig(pass.rig);
    if (known != nullptr && plan.rack.fullName(*known) == rig) return day_.titleOf(pass);
  }
  return QString::fromStdString(rig);
}

void FilmNextBar::refresh() {
  finding_.start(
      [passes = verdict_.lineUp().passes(), wishes = verdict_.wishes(), what = toSettle(),
       worths = verdict_.plan().worths](const JobControl&) -> Result<FilmNext> {
        return filmNext(passes, wishes, what, worths);
      },
      [this](Result<FilmNext> next) {
        if (next) show(std::move(*next));
      });
}

void FilmNextBar::show(FilmNext next) {
  next_ = std::move(next);
  setVisible(next_.state != FilmNext::State::Nothing);
  QStringList open;
  for (const std::string& rig : next_.open) open += toldAs(rig);
  text_->setText(spoken(next_, open));
  enableOr(*replan_, next_.state == FilmNext::State::Open,
           tr("Nothing is open that more passes would settle."));
}

void FilmNextBar::replan() {
  if (next_.state != FilmNext::State::Open) return;
  std::vector<RigId> rigs;
  const Rack& rack = day_.plan().rack;
  for (const Rig& rig : rack.rigs) {
    const std::string name = rack.fullName(rig);
    if (std::find(next_.open.begin(), next_.open.end(), name) != next_.open.end()) rigs.push_back(rig.id);
  }
  auto sheet = replanned(day_.plan().sheet, rigs, next_.more, day_.plan().options, day_.freeId());
  if (!sheet) {
    text_->setText(QString::fromStdString(sheet.error().message));
    return;
  }
  day_.edit(tr("Plan the rest of the day"), [&](DayPlan& plan) { plan.sheet = std::move(*sheet); });
}

}  // namespace fin::app
