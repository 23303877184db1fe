// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLineEdit>
#include <QListWidget>
#include <QTextBrowser>
#include <vector>

#include "app/places/place.h"

namespace fin::app {

/// The guide beside the program: its chapters, and one of them open. It is read from the folder that comes
/// with the program.
class GuideWindow : public QWidget {
  Q_OBJECT

 public:
  struct Where {
    QString chapter;  ///< file name without its ending
    QString heading;  ///< in it; empty for its top
  };
  explicit GuideWindow(const QString& folder, QWidget* parent = nullptr);

  /// Where the guide speaks of a page of a place, by the page's own title.
  [[nodiscard]] Where whereOf(Place place, const QString& page) const;
  void open(const Where& where);
  /// Of what is open and seen first.
  [[nodiscard]] QString chapter() const { return chapter_; }
  [[nodiscard]] QString heading() const { return heading_; }
  [[nodiscard]] QTextBrowser& text() { return *text_; }

 signals:
  void keysWanted();

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  struct Chapter {
    QString name;
    QString title;
    QStringList headings;
    QString words;  ///< all of it, to be looked through
  };
  void readChapters();
  void narrow();
  void showFound();
  void giveRoom();
  void goToHeading();
  [[nodiscard]] const Chapter* find(const QString& name) const;

  QString folder_;
  std::vector<Chapter> chapters_;
  QString chapter_;
  QString heading_;
  QLineEdit* words_;
  QListWidget* list_;
  QTextBrowser* text_;
};

}  // namespace fin::app
