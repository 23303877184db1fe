// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/film_panel.h"

#include <QVBoxLayout>

#include "app/ui/files.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr int kEndHeight_px = 110;

}  // namespace

FilmPanel::FilmPanel(QWidget* parent)
    : QFrame(parent),
      title_(new QLineEdit),
      end_(new QPlainTextEdit),
      shape_(new QComboBox),
      sound_(new QComboBox),
      make_(namedButton(tr("Make the film …"), "makeFilm")),
      script_(namedButton(tr("Write its script …"), "writeFilmScript")) {
  setProperty("card", true);
  setObjectName("filmPanel");
  auto* layout = new QVBoxLayout(this);
  auto* heading = new QLabel(tr("A film of what runs here"));
  setLetters(*heading, "strong");
  layout->addWidget(heading);
  layout->addWidget(faintLabel(tr("As slowly, from the same instant and as near as it is seen here.")));
  const auto add = [&](const QString& text, QWidget* input, const char* name) {
    auto* label = headingLabel(text);
    label->setBuddy(input);
    input->setObjectName(name);
    input->setAccessibleName(text);
    layout->addWidget(label);
    layout->addWidget(input);
  };
  add(tr("Title"), title_, "filmTitle");
  add(tr("What to know, at its end"), end_, "filmEnd");
  end_->setMinimumHeight(kEndHeight_px);
  end_->setTabChangesFocus(true);
  shape_->addItem(tr("wide, 1920 × 1080"), QSize(1920, 1080));
  shape_->addItem(tr("wide and small, 1280 × 720"), QSize(1280, 720));
  shape_->addItem(tr("upright, 1080 × 1920"), QSize(1080, 1920));
  add(tr("Shape"), shape_, "filmShape");
  sound_->addItem(tr("none"), static_cast<int>(FilmSound::None));
  sound_->addItem(tr("as recorded, one after the other"), static_cast<int>(FilmSound::Recorded));
  sound_->addItem(tr("equally loud in still water"), static_cast<int>(FilmSound::Matched));
  add(tr("Sound"), sound_, "filmSound");
  make_->setProperty("primary", true);
  layout->addWidget(make_);
  layout->addWidget(script_);
  layout->addWidget(new MakingRow(maker_, "filmSaid", "stopFilm"));
  layout->addStretch();
  connect(make_, &QPushButton::clicked, this, [this] {
    const QString file = askWhereTo(this, tr("Where to"), "in-step.mp4", tr("Films (*.mp4 *.webm)"));
    if (!file.isEmpty()) emit filmWanted(file);
  });
  connect(script_, &QPushButton::clicked, this, [this] {
    const QString file = askWhereTo(this, tr("Where to"), "in-step.film.json");
    if (!file.isEmpty()) emit scriptWanted(file);
  });
  connect(&maker_, &FilmMaker::begun, this, &FilmPanel::refresh);
  connect(&maker_, &FilmMaker::done, this, &FilmPanel::refresh);
  setSlowed(true);
  refresh();
}

void FilmPanel::propose(const QString& title, const QStringList& end) {
  if (!title_->isModified()) title_->setText(title);
  if (!end_->document()->isModified()) {
    end_->setPlainText(end.join("\n"));
    end_->document()->setModified(false);
  }
}

void FilmPanel::fillIn(FilmScript& script) const {
  script.title = title_->text().trimmed().toStdString();
  for (const QString& line : end_->toPlainText().split('\n', Qt::SkipEmptyParts))
    script.end.push_back(line.trimmed().toStdString());
  const QSize size = shape_->currentData().toSize();
  script.width_px = size.width();
  script.height_px = size.height();
  script.sound =
      script.slowness > 1.0 ? FilmSound::None : static_cast<FilmSound>(sound_->currentData().toInt());
}

void FilmPanel::setSlowed(bool slowed) {
  enableOr(*sound_, !slowed, tr("A slowed film is silent: choose true speed."));
  if (slowed) sound_->setCurrentIndex(0);
}

void FilmPanel::refresh() {
  make_->setEnabled(!maker_.busy());
  script_->setEnabled(!maker_.busy());
}

}  // namespace fin::app
