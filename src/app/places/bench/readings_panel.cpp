// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/readings_panel.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

/// Grade by word and by filled dots, so that colour is not needed.
QString gradeText(Grade grade) {
  const int dots = grade == Grade::Good ? 3 : grade == Grade::Fair ? 2 : 1;
  const QString space(QChar(QChar::Nbsp));  // so that the word stays beside its dots
  return QString(dots, QChar(0x25CF)) + QString(3 - dots, QChar(0x25CB)) + space + spokenName(grade);
}

/// What one reading will be worth, before anything was followed.
QString feasibilityText(const Feasibility& f, UnitSystem units) {
  QString out = QString("<b>%1</b>").arg(spokenName(f.id).toHtmlEscaped());
  if (f.expectedU95) {
    const ShownUnit unit = shownUnit(f.unit, units);
    out += QObject::tr(", to about ± %1 %2").arg(*f.expectedU95 * unit.factor, 0, 'g', 2).arg(unit.unit);
  }
  if (!f.toSay.empty()) out += QString(" (%1)").arg(QString::fromStdString(f.toSay).toHtmlEscaped());
  if (!f.better.empty()) out += QObject::tr("; %1").arg(QString::fromStdString(f.better).toHtmlEscaped());
  return out;
}

/// `origin` is where it came from, where that is to be shown.
QFrame* cardFor(const Reading& reading, UnitSystem units, const std::optional<QString>& origin,
                const std::function<void()>& toggle) {
  auto* card = new QFrame;
  card->setProperty("card", true);
  card->setObjectName("reading_" + QString::fromUtf8(toString(reading.id)));
  auto* layout = new QVBoxLayout(card);
  layout->setContentsMargins(11, 7, 8, 7);
  layout->setSpacing(1);

  auto* top = new QHBoxLayout;
  top->addWidget(faintLabel(spokenName(reading.id)), 1);
  auto* how = new QPushButton(origin ? QObject::tr("close") : QObject::tr("how?"));
  how->setObjectName("how");
  how->setAccessibleName(QObject::tr("How %1 was measured").arg(spokenName(reading.id)));
  setLetters(*how, "small");
  how->setFixedHeight(24);
  QObject::connect(how, &QPushButton::clicked, card, toggle);
  top->addWidget(how);
  layout->addLayout(top);

  const SpokenValue value = spoken(reading, units);
  auto* row = new QHBoxLayout;
  row->setSpacing(7);
  auto* number = new QLabel(value.value);
  number->setObjectName("value");
  setLetters(*number, "large");
  row->addWidget(number);
  row->addWidget(new QLabel(QString("%1 %2").arg(value.uncertainty, value.unit)), 0, Qt::AlignBottom);
  row->addStretch();
  if (reading.u95) row->addWidget(faintLabel(gradeText(reading.grade)), 0, Qt::AlignBottom);
  layout->addLayout(row);
  if (origin) layout->addWidget(faintLabel(howMeasured(reading) + "\n" + *origin));
  const QString spokenAll =
      QString("%1 %2 %3 %4").arg(spokenName(reading.id), value.value, value.uncertainty, value.unit);
  card->setAccessibleName(spokenAll);
  return card;
}

}  // namespace

ReadingsPanel::ReadingsPanel(PassController& controller, QWidget* parent)
    : QScrollArea(parent), controller_(controller) {
  setWidgetResizable(true);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setFrameShape(QFrame::NoFrame);
  connect(&controller, &PassController::resultChanged, this, &ReadingsPanel::rebuild);
  connect(&controller, &PassController::passChanged, this, &ReadingsPanel::rebuild);
  connect(&controller, &PassController::requestChanged, this, [this] {
    if (controller_.result() == nullptr) rebuild();
  });
  rebuild();
}

void ReadingsPanel::setUnits(UnitSystem units) {
  units_ = units;
  rebuild();
}

void ReadingsPanel::addFeasibilities(QVBoxLayout& layout) {
  if (controller_.following() || !controller_.clip() || controller_.current() == nullptr) {
    layout.addWidget(faintLabel(controller_.following()
                                    ? tr("The numbers come when the lure has been followed.")
                                    : tr("This clip's numbers will be here.")));
    return;
  }
  const auto feasibilities = feasibilityFor(controller_.current()->request, *controller_.clip());
  const auto add = [&](const QString& title, bool standing) {
    auto* heading = new QLabel(title);
    heading->setProperty("heading", true);
    layout.addWidget(heading);
    for (const Feasibility& f : feasibilities) {
      if (f.why.empty() != standing) continue;
      layout.addWidget(faintRichLabel(standing ? feasibilityText(f, units_)
                                               : QString("<b>%1</b>: %2")
                                                     .arg(spokenName(f.id).toHtmlEscaped(),
                                                          QString::fromStdString(f.why).toHtmlEscaped())));
    }
  };
  add(tr("What this clip can tell"), true);
  add(tr("What it cannot"), false);
}

void ReadingsPanel::rebuild() {
  auto* content = new QWidget;
  auto* layout = new QVBoxLayout(content);
  layout->setContentsMargins(0, 0, 6, 0);
  layout->setSpacing(6);
  const ReadingSet& set = controller_.readings();
  for (const Reading& reading : set.readings) {
    const ReadingId id = reading.id;
    const auto origin =
        opened_ == id ? std::optional(spokenOrigin(provenanceOf(*controller_.measurement()))) : std::nullopt;
    layout->addWidget(cardFor(reading, units_, origin, [this, id] {
      opened_ = opened_ == id ? std::nullopt : std::optional(id);
      QMetaObject::invokeMethod(this, &ReadingsPanel::rebuild, Qt::QueuedConnection);
    }));
  }
  if (set.readings.empty() && set.refused.empty()) addFeasibilities(*layout);
  if (!set.refused.empty()) {
    auto* heading = new QLabel(tr("What this clip does not show"));
    heading->setProperty("heading", true);
    layout->addWidget(heading);
    for (const Refusal& refusal : set.refused) {
      layout->addWidget(faintRichLabel(QString("<b>%1</b>: %2")
                                           .arg(spokenName(refusal.id).toHtmlEscaped(),
                                                QString::fromStdString(refusal.why).toHtmlEscaped())));
    }
  }
  layout->addStretch();
  setWidget(content);
}

}  // namespace fin::app
