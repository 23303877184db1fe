// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/log/log_choice.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/ui/files.h"
#include "app/ui/pieces.h"

namespace fin::app {
namespace {

constexpr int kTextWidth_px = 640;

QString filter() {
  return QObject::tr("Logs (*.finlog)");
}

QLabel* centred(const QString& text) {
  auto* label = new WholeLabel(breakable(text));
  label->setFixedWidth(kTextWidth_px);
  label->setAlignment(Qt::AlignCenter);
  return label;
}

}  // namespace

LogChoice::LogChoice(const QString& file, const QString& trouble, QWidget* parent) : QWidget(parent) {
  auto* layout = new QVBoxLayout(this);
  auto* what =
      centred(trouble.isEmpty() ? tr("Everything you do is saved at once, in %1.").arg(file) : trouble);
  what->setObjectName("logText");
  what->setProperty("trouble", !trouble.isEmpty());
  auto* row = new QHBoxLayout;
  auto* open = new QPushButton(tr("Open another log …"));
  auto* begin = new QPushButton(tr("Begin a new log …"));
  row->addStretch();
  row->addWidget(open);
  row->addWidget(begin);
  row->addStretch();
  layout->addStretch();
  const auto inTheMiddle = [layout](QWidget* widget) {
    auto* line = new QHBoxLayout;
    line->addStretch();
    line->addWidget(widget);
    line->addStretch();
    layout->addLayout(line);
  };
  inTheMiddle(what);
  layout->addSpacing(14);
  layout->addLayout(row);
  layout->addStretch();
  connect(open, &QPushButton::clicked, this, &LogChoice::openAnother);
  connect(begin, &QPushButton::clicked, this, &LogChoice::beginAnother);
}

void LogChoice::openAnother() {
  const QString file = askForFile(this, tr("Open another log"), filter());
  if (!file.isEmpty()) emit chosen(file);
}

void LogChoice::beginAnother() {
  QString file = askWhereTo(this, tr("Begin a new log"), {}, filter());
  if (file.isEmpty()) return;
  if (!file.endsWith(".finlog")) file += ".finlog";
  emit chosen(file);
}

}  // namespace fin::app
