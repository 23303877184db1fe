// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/pieces.h"

#include <QResizeEvent>
#include <QStyle>
#include <QVBoxLayout>
#include <algorithm>

namespace fin::app {
namespace {

QString captionFrom(std::string_view words) {
  return QString::fromUtf8(words.data(), static_cast<qsizetype>(words.size()));
}

class ColumnWidth : public QObject {
 public:
  ColumnWidth(QWidget& column, int width_px) : QObject(&column), column_(column), width_px_(width_px) {
    column.installEventFilter(this);
    fit();
  }
  bool eventFilter(QObject* /*watched*/, QEvent* event) override {
    if (event->type() == QEvent::LayoutRequest || event->type() == QEvent::Show ||
        event->type() == QEvent::Polish)
      fit();
    return false;
  }

 private:
  void fit() { column_.setFixedWidth(std::max(width_px_, column_.minimumSizeHint().width())); }

  QWidget& column_;
  int width_px_;
};

}  // namespace

void keepColumn(QWidget& column, int width_px) {
  new ColumnWidth(column, width_px);
}

WholeLabel::WholeLabel(const QString& text, QWidget* parent) : QLabel(text, parent) {
  setWordWrap(true);
}

QSize WholeLabel::sizeHint() const {
  return {QLabel::sizeHint().width(), std::max(QLabel::sizeHint().height(), heightForWidth(width()))};
}

QSize WholeLabel::minimumSizeHint() const {
  return {QLabel::minimumSizeHint().width(), text().isEmpty() ? 0 : heightForWidth(width())};
}

void WholeLabel::resizeEvent(QResizeEvent* event) {
  QLabel::resizeEvent(event);
  if (event->size().width() != event->oldSize().width()) updateGeometry();
}

QLabel* headingLabel(const QString& words) {
  auto* label = new QLabel(words);
  label->setProperty("heading", true);
  return label;
}

QLabel* faintLabel(const QString& words) {
  auto* label = new WholeLabel(words);
  label->setProperty("faint", true);
  return label;
}

QLabel* faintRichLabel(const QString& html) {
  QLabel* label = faintLabel(html);
  label->setTextFormat(Qt::RichText);
  return label;
}

QString breakable(QString text) {
  return text.replace("/", QString("/") + QChar(0x200B));
}

void setLook(QWidget& widget, const char* property, bool on) {
  if (widget.property(property).toBool() == on) return;
  widget.setProperty(property, on);
  widget.style()->unpolish(&widget);
  widget.style()->polish(&widget);
}

void enableOr(QWidget& control, bool usable, const QString& why) {
  constexpr const char* kUsual = "usualToolTip";
  if (!control.property(kUsual).isValid()) control.setProperty(kUsual, control.toolTip());
  control.setEnabled(usable);
  control.setToolTip(usable ? control.property(kUsual).toString() : why);
  control.setAccessibleDescription(usable ? QString() : why);
}

void beginNaming(QLineEdit& name) {
  name.setFocus();
  name.selectAll();
}

QPushButton* namedButton(const QString& words, const char* objectName) {
  auto* button = new QPushButton(words);
  button->setObjectName(objectName);
  return button;
}

QFrame* card() {
  auto* frame = new QFrame;
  frame->setProperty("card", true);
  return frame;
}

QTableWidgetItem* readOnlyCell(const QString& text, Qt::Alignment align) {
  auto* item = new QTableWidgetItem(text);
  item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
  item->setTextAlignment(align);
  item->setToolTip(text);
  return item;
}

QWidget* cautionLines(Step step) {
  const auto here = cautionsFor(step);
  if (here.empty()) return nullptr;
  auto* box = card();
  auto* layout = new QVBoxLayout(box);
  layout->setContentsMargins(12, 8, 12, 8);
  layout->setSpacing(3);
  for (const Caution& c : here) {
    auto* line =
        new QLabel(QString("<b>%1.</b> %2")
                       .arg(captionFrom(c.heading).toHtmlEscaped(), captionFrom(c.brief).toHtmlEscaped()));
    line->setTextFormat(Qt::RichText);
    line->setWordWrap(true);
    line->setToolTip(captionFrom(c.full));
    layout->addWidget(line);
  }
  return box;
}

}  // namespace fin::app
