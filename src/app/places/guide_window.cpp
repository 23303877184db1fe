// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/guide_window.h"

#include <QDir>
#include <QHBoxLayout>
#include <QImageReader>
#include <QKeyEvent>
#include <QTextBlock>
#include <QTextList>
#include <QTimer>
#include <QVBoxLayout>
#include <algorithm>

#include "app/ui/pieces.h"

namespace fin::app {
namespace {

constexpr int kWidestPicture_px = 620;
constexpr double kMargin_px = 22.0;
constexpr double kOverHeading_px = 20.0;
constexpr double kUnderParagraph_px = 9.0;
constexpr double kUnderItem_px = 4.0;

/// Chapters that speak of a place, the one that says most first.
QStringList chaptersOf(Place place) {
  switch (place) {
    case Place::Plan:
      return {"plan", "on-the-water"};
    case Place::Poolside:
      return {"poolside", "on-the-water"};
    case Place::Bench:
      return {"bench"};
    case Place::LineUp:
      return {"line-up"};
    case Place::Verdict:
      return {"verdict", "on-the-water"};
    case Place::Log:
      return {"log"};
    case Place::LookThrough:
      return {"look-through"};
  }
  return {"index"};
}

/// Pictures no wider than a page.
class GuideText : public QTextBrowser {
 public:
  QVariant loadResource(int type, const QUrl& name) override {
    if (type != QTextDocument::ImageResource) return QTextBrowser::loadResource(type, name);
    QImageReader reader(source().resolved(name).toLocalFile());
    const QSize size = reader.size();
    if (size.width() > kWidestPicture_px)
      reader.setScaledSize(size.scaled(kWidestPicture_px, size.height(), Qt::KeepAspectRatio));
    return reader.read();
  }
};

}  // namespace

GuideWindow::GuideWindow(const QString& folder, QWidget* parent)
    : QWidget(parent, Qt::Window),
      folder_(folder),
      words_(new QLineEdit),
      list_(new QListWidget),
      text_(new GuideText) {
  setObjectName("guide");
  setWindowTitle(tr("Guide to Agile Fin"));
  resize(1000, 760);
  auto* row = new QHBoxLayout(this);
  auto* left = new QVBoxLayout;
  row->addLayout(left);
  words_->setObjectName("guideWords");
  words_->setPlaceholderText(tr("Find a word"));
  words_->setAccessibleName(tr("Find a word in the guide"));
  words_->setClearButtonEnabled(true);
  left->addWidget(words_);
  list_->setObjectName("guideChapters");
  list_->setAccessibleName(tr("Chapters"));
  left->addWidget(list_, 1);
  auto* keys = namedButton(tr("Keys  F2"), "guideKeys");
  left->addWidget(keys);
  text_->setObjectName("guideText");
  text_->setAccessibleName(tr("Chapter"));
  text_->setOpenExternalLinks(false);
  row->addWidget(text_, 1);
  readChapters();
  list_->setFixedWidth(list_->sizeHintForColumn(0) + 40);
  words_->setFixedWidth(list_->width());
  connect(list_, &QListWidget::currentItemChanged, this, [this](const QListWidgetItem* item) {
    const QString name = item != nullptr ? item->data(Qt::UserRole).toString() : QString();
    if (!name.isEmpty() && name != chapter_) open({name, {}});
  });
  connect(words_, &QLineEdit::textChanged, this, &GuideWindow::narrow);
  connect(words_, &QLineEdit::returnPressed, this, &GuideWindow::showFound);
  connect(keys, &QPushButton::clicked, this, &GuideWindow::keysWanted);
  connect(text_, &QTextBrowser::sourceChanged, this, [this](const QUrl& at) {
    chapter_ = QFileInfo(at.path()).completeBaseName();
    giveRoom();
    for (int i = 0; i < list_->count(); ++i) {
      if (list_->item(i)->data(Qt::UserRole) == chapter_) list_->setCurrentRow(i);
    }
  });
}

void GuideWindow::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) close();
  if (event->key() == Qt::Key_F2) emit keysWanted();
}

/// In the order in which the first page lists them.
void GuideWindow::readChapters() {
  const auto read = [this](const QString& name) {
    QFile file(QDir(folder_).filePath(name + ".md"));
    if (!file.open(QIODevice::ReadOnly)) return;
    Chapter chapter{name, {}, {}, QString::fromUtf8(file.readAll())};
    for (const QString& line : chapter.words.split('\n')) {
      if (line.startsWith("# ") && chapter.title.isEmpty()) chapter.title = line.mid(2);
      if (line.startsWith("## ")) chapter.headings += line.mid(3);
    }
    chapters_.push_back(std::move(chapter));
  };
  read("index");
  if (chapters_.empty()) {
    text_->setPlainText(tr("The guide is not in %1. Install the program again.").arg(folder_));
    return;
  }
  static const QRegularExpression link(R"(^\d+\. \[[^\]]+\]\(([a-z-]+)\.md\))",
                                       QRegularExpression::MultilineOption);
  for (auto at = link.globalMatch(chapters_.front().words); at.hasNext();) read(at.next().captured(1));
  narrow();
}

void GuideWindow::narrow() {
  const QString wanted = words_->text().trimmed();
  const QSignalBlocker quiet(list_);
  list_->clear();
  for (const Chapter& chapter : chapters_) {
    if (!chapter.words.contains(wanted, Qt::CaseInsensitive)) continue;
    auto* item = new QListWidgetItem(chapter.title, list_);
    item->setData(Qt::UserRole, chapter.name);
    if (chapter.name == chapter_) list_->setCurrentItem(item);
  }
}

/// Enter in the words goes to where they stand next: in this chapter, else in the first that has them.
void GuideWindow::showFound() {
  const QString wanted = words_->text().trimmed();
  if (wanted.isEmpty() || text_->find(wanted) || list_->count() == 0) return;
  open({list_->item(0)->data(Qt::UserRole).toString(), {}});
  text_->find(wanted);
}

const GuideWindow::Chapter* GuideWindow::find(const QString& name) const {
  const auto found =
      std::find_if(chapters_.begin(), chapters_.end(), [&](const Chapter& c) { return c.name == name; });
  return found == chapters_.end() ? nullptr : &*found;
}

GuideWindow::Where GuideWindow::whereOf(Place place, const QString& page) const {
  const QStringList names = chaptersOf(place);
  for (const QString& name : names) {
    const Chapter* chapter = find(name);
    if (chapter != nullptr && chapter->headings.contains(page)) return {name, page};
  }
  return {names.front(), {}};
}

void GuideWindow::open(const Where& where) {
  if (find(where.chapter) == nullptr) return;
  text_->setSource(QUrl::fromLocalFile(QDir(folder_).filePath(where.chapter + ".md")));
  heading_ = where.heading;
  // Where it stands is known once the text was laid out.
  if (!heading_.isEmpty()) QTimer::singleShot(0, this, &GuideWindow::goToHeading);
}

/// Markdown comes without room between its paragraphs.
void GuideWindow::giveRoom() {
  for (QTextBlock block = text_->document()->begin(); block.isValid(); block = block.next()) {
    QTextBlockFormat format = block.blockFormat();
    const bool heads = format.headingLevel() > 0;
    format.setTopMargin(heads ? kOverHeading_px : 0.0);
    format.setBottomMargin(block.textList() != nullptr ? kUnderItem_px : kUnderParagraph_px);
    QTextCursor(block).setBlockFormat(format);
  }
  text_->document()->setDocumentMargin(kMargin_px);
}

/// With the heading at the top of what is seen.
void GuideWindow::goToHeading() {
  for (QTextBlock block = text_->document()->begin(); block.isValid(); block = block.next()) {
    if (block.blockFormat().headingLevel() == 0 || block.text() != heading_) continue;
    text_->moveCursor(QTextCursor::End);
    text_->setTextCursor(QTextCursor(block));
    return;
  }
}

}  // namespace fin::app
