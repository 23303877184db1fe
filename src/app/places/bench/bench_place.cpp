// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/bench_place.h"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QPushButton>
#include <QSignalBlocker>
#include <QStyle>
#include <QVBoxLayout>

#include "app/canvas/tools/found_lines_tool.h"
#include "app/canvas/tools/loop_tool.h"
#include "app/canvas/tools/mark_tool.h"
#include "app/canvas/tools/points_tool.h"
#include "app/phrases/words.h"
#include "app/places/bench/welcome.h"
#include "app/ui/files.h"
#include "app/ui/pieces.h"
#include "app/ui/settings.h"
#include "core/calibration/line_finder.h"

namespace fin::app {
namespace {

constexpr int kSideWidth = 318;

QString clipFilter() {
  return QObject::tr("Clips (*.mp4 *.mov *.mkv *.avi *.m4v *.ts *.mts *.webm);;All files (*)");
}

}  // namespace

BenchPlace::BenchPlace(const CalibrationPanel::Models& models, FurtherCrossings& ways, QWidget* parent)
    : QWidget(parent),
      controller_(models.controller),
      kept_(models.kept),
      playback_(models.controller),
      actions_(tr("Bench"), [this] { return controller_.clip() ? QString() : tr("open a clip first"); }) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(14, 8, 14, 10);
  layout->setSpacing(8);
  layout->addWidget(buildHead());
  stack_ = new QStackedWidget;
  stack_->addWidget(buildEmpty());
  stack_->addWidget(buildWork(models, ways));
  layout->addWidget(stack_, 1);

  PassController& controller = models.controller;
  connect(&controller, &PassController::passesChanged, this, &BenchPlace::refreshPasses);
  connect(&controller, &PassController::passChanged, this, &BenchPlace::passChanged);
  connect(&controller, &PassController::frameChanged, this, [this] { loader_.request(controller_.frame()); });
  connect(&controller, &PassController::told, this, &BenchPlace::showMessage);
  // What was said of the clip before an edit no longer holds; that an edit failed does.
  connect(&controller, &PassController::requestChanged, this, [this] {
    const LoggedPass* pass = controller_.current();
    if (pass != nullptr && !controller_.clipChanged() && messageOn_ != pass->request) message_->hide();
  });
  connect(&controller, &PassController::lookedThrough, this,
          [this](const QString& file, double share, double left_s) {
            showMessage(tr("Looking through %1, once: %2 %, about %3 s left.")
                            .arg(file)
                            .arg(100.0 * share, 0, 'f', 0)
                            .arg(left_s, 0, 'f', 0),
                        false);
          });
  connect(&models.kept, &KeptCalibrations::told, this, &BenchPlace::showMessage);
  connect(&models.kept, &KeptCalibrations::changed, this, &BenchPlace::offerKeptCalibration);
  connect(&models.lenses, &LensController::told, this, &BenchPlace::showMessage);
  connect(&models.sharing, &CameraSync::told, this, &BenchPlace::showMessage);
  connect(&ways, &FurtherCrossings::told, this, &BenchPlace::showMessage);
  connect(&loader_, &FrameLoader::glimpsed, footage_, &FootageView::showGlimpse);
  connect(&loader_, &FrameLoader::loaded, footage_, &FootageView::showPicture);
  connect(&loader_, &FrameLoader::failed, this,
          [this](std::size_t, const QString& why) { footage_->showReason(why); });
  connect(footage_, &FootageView::toolChanged, this, [this] {
    if (footage_->tool() == nullptr) steps_->showInHand({});
  });
  connect(footage_, &FootageView::fileDropped, &controller, &PassController::openClip);
  connect(footage_, &FootageView::markPressed, this, &BenchPlace::takeMark);
  connect(trace_, &TraceView::frameWanted, &controller, &PassController::showFrame);
  connect(steps_, &StepsPanel::rulerWanted, this, &BenchPlace::takeRuler);
  connect(steps_, &StepsPanel::markWanted, this, &BenchPlace::takeMark);
  connect(steps_, &StepsPanel::told, this, &BenchPlace::showMessage);
  buildLead();
  fillActions();
  refreshPasses();
  passChanged();
}

QWidget* BenchPlace::buildHead() {
  auto* head = new QWidget;
  auto* layout = new QVBoxLayout(head);
  layout->setContentsMargins(0, 0, 0, 0);
  auto* row = new QHBoxLayout;
  chooser_ = new QComboBox;
  chooser_->setObjectName("passChooser");
  chooser_->setAccessibleName(tr("The pass on the bench"));
  chooser_->setMinimumWidth(420);
  open_ = new QPushButton(tr("Open a clip …"));
  open_->setObjectName("openClip");
  auto* remove = new QPushButton(tr("Remove"));
  remove->setObjectName("takeOut");
  remove->setToolTip(
      tr("Takes this pass out of the log. Undo brings it back; the clip itself stays where it is."));
  row->addWidget(chooser_);
  row->addWidget(open_);
  row->addWidget(remove);
  row->addStretch();
  auto* how = namedButton(tr("Show me how"), "showMeHow");
  how->setToolTip(tr("Leads you through a first measurement, step by step."));
  row->addWidget(how);
  layout->addLayout(row);

  layout->addWidget(buildMessage());
  layout->addWidget(buildOffer());

  connect(chooser_, &QComboBox::activated, this,
          [this](int index) { controller_.select(chooser_->itemData(index).toLongLong()); });
  connect(open_, &QPushButton::clicked, this, &BenchPlace::chooseClip);
  connect(how, &QPushButton::clicked, this, [this] { lead_->begin(); });
  connect(how, &QPushButton::clicked, this, &BenchPlace::showHow);
  connect(remove, &QPushButton::clicked, &controller_, &PassController::removeCurrent);
  connect(&controller_, &PassController::passChanged, remove,
          [this, remove] { enableOr(*remove, controller_.current() != nullptr, tr("No pass is here.")); });
  enableOr(*remove, controller_.current() != nullptr, tr("No pass is here."));
  return head;
}

QFrame* BenchPlace::buildMessage() {
  message_ = card();
  message_->setObjectName("message");
  auto* row = new QHBoxLayout(message_);
  row->setContentsMargins(12, 6, 8, 6);
  messageText_ = new QLabel;
  messageText_->setObjectName("messageText");
  messageText_->setWordWrap(true);
  find_ = new QPushButton(tr("Find the clip …"));
  measureNew_ = namedButton(tr("Measure this file"), "measureChangedClip");
  stop_ = namedButton(tr("Stop"), "stopOpening");
  auto* close = new QPushButton(tr("Close"));
  row->addWidget(messageText_, 1);
  row->addWidget(find_);
  row->addWidget(measureNew_);
  row->addWidget(stop_);
  row->addWidget(close);
  message_->hide();
  connect(find_, &QPushButton::clicked, this, &BenchPlace::findClip);
  connect(measureNew_, &QPushButton::clicked, &controller_, &PassController::takeChangedClip);
  connect(stop_, &QPushButton::clicked, &controller_, &PassController::stopOpening);
  connect(close, &QPushButton::clicked, message_, &QWidget::hide);
  return message_;
}

QFrame* BenchPlace::buildOffer() {
  offer_ = card();
  auto* row = new QHBoxLayout(offer_);
  row->setContentsMargins(12, 6, 8, 6);
  offerText_ = new QLabel;
  offerText_->setWordWrap(true);
  auto* use = namedButton(tr("Use them here"), "useOffered");
  use->setProperty("primary", true);
  row->addWidget(offerText_, 1);
  row->addWidget(use);
  offer_->hide();
  connect(use, &QPushButton::clicked, &kept_, &KeptCalibrations::use);
  return offer_;
}

/// Only to a clip of which nothing was said yet.
void BenchPlace::offerKeptCalibration() {
  const KeptCalibration* kept = kept_.kept();
  const LoggedPass* pass = controller_.current();
  const bool fresh = pass != nullptr && !pass->request.scale && !pass->request.square;
  offer_->setVisible(kept != nullptr && fresh);
  if (kept == nullptr) return;
  offerText_->setText(tr("Scale and time of %1 are saved for this camera today.")
                          .arg(QString::fromStdString(kept->madeOn.filename().string())));
}

QWidget* BenchPlace::buildEmpty() {
  auto* welcome = new Welcome;
  connect(welcome, &Welcome::measureWanted, this, [this] {
    lead_->begin();
    chooseClip();
  });
  connect(welcome, &Welcome::planWanted, this, &BenchPlace::planWanted);
  connect(welcome, &Welcome::demoWanted, this, &BenchPlace::demoWanted);
  connect(welcome, &Welcome::logWanted, this, &BenchPlace::logWanted);
  return welcome;
}

QWidget* BenchPlace::buildWork(const CalibrationPanel::Models& models, FurtherCrossings& ways) {
  footage_ = new FootageView(controller_);
  transport_ = new TransportBar(controller_, playback_);
  trace_ = new TraceView(controller_);
  steps_ = new StepsPanel(controller_);
  readings_ = new ReadingsPanel(controller_);

  auto* work = new QWidget;
  auto* row = new QHBoxLayout(work);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(14);
  auto* left = new QVBoxLayout;
  left->setSpacing(5);
  left->addWidget(footage_, 11);
  left->addWidget(transport_);
  quiet_ = new QuietBar(controller_);
  auto* sound = new SoundLane(controller_, *quiet_);
  left->addWidget(quiet_);
  left->addWidget(sound);
  twitches_ = new TwitchBar(controller_);
  left->addWidget(twitches_);
  left->addWidget(trace_, 5);
  connect(trace_, &TraceView::twitchAdded, twitches_, &TwitchBar::add);
  connect(trace_, &TraceView::stretchLeftOut, this, [this](std::size_t first, std::size_t last) {
    controller_.edit(tr("Leave a stretch out"), [=](PassRequest& request) {
      request.fouled.push_back({{first, last}, tr("left out on the trace").toStdString()});
    });
  });
  connect(trace_, &TraceView::twitchMoved, twitches_, &TwitchBar::move);
  row->addLayout(left, 1);
  usual_ = new QWidget;
  auto* right = new QVBoxLayout(usual_);
  right->setContentsMargins(0, 0, 0, 0);
  right->setSpacing(10);
  right->addWidget(steps_);
  right->addWidget(readings_, 1);
  calibration_ = new CalibrationPanel(models);
  side_ = new QStackedWidget;
  mend_ = new MendPanel(controller_, ways);
  for (QWidget* page : {usual_, static_cast<QWidget*>(calibration_), static_cast<QWidget*>(mend_)})
    side_->addWidget(page);
  keepColumn(*side_, kSideWidth);
  row->addWidget(side_);
  connect(steps_, &StepsPanel::moreWanted, this, [this] { side_->setCurrentWidget(calibration_); });
  connect(steps_, &StepsPanel::mendWanted, this, [this] { side_->setCurrentWidget(mend_); });
  connect(calibration_, &CalibrationPanel::done, this, [this] { side_->setCurrentWidget(usual_); });
  connect(mend_, &MendPanel::done, this, [this] { side_->setCurrentWidget(usual_); });
  connect(mend_, &MendPanel::outlineWanted, this, &BenchPlace::takeOutline);
  connect(mend_, &MendPanel::hideWanted, this, &BenchPlace::takeHiding);
  connect(&calibration_->square(), &SquareCard::cornersWanted, this, &BenchPlace::takeSquare);
  connect(&calibration_->lines(), &LinesCard::lineWanted, this, &BenchPlace::takeLine);
  connect(&calibration_->lines(), &LinesCard::foundLinesWanted, this, &BenchPlace::offerFoundLines);
  connect(sound, &SoundLane::frameWanted, &controller_, &PassController::showFrame);
  return work;
}

void BenchPlace::setUnits(UnitSystem units) {
  steps_->setUnits(units);
  readings_->setUnits(units);
  trace_->setUnits(units);
  calibration_->setUnits(units);
}

void BenchPlace::refreshPasses() {
  const QSignalBlocker quiet(chooser_);
  chooser_->clear();
  for (const LoggedPass& pass : controller_.passes()) {
    if (pass.day != controller_.day()) continue;
    chooser_->addItem(QString::fromStdString(pass.title), QVariant::fromValue<qlonglong>(pass.id.value()));
  }
  if (controller_.current() != nullptr)
    chooser_->setCurrentIndex(
        chooser_->findData(QVariant::fromValue<qlonglong>(controller_.current()->id.value())));
}

void BenchPlace::passChanged() {
  stack_->setCurrentIndex(controller_.current() == nullptr ? 0 : 1);
  message_->hide();
  footage_->dropTool();
  footage_->clear();
  refreshPasses();
  loader_.setClip(controller_.clip());
  if (controller_.clip()) loader_.request(controller_.frame());
}

void BenchPlace::showMessage(const QString& text, bool trouble) {
  messageText_->setText(breakable(asSentence(text)));
  setLook(*messageText_, "trouble", trouble);
  stop_->setVisible(controller_.opening());
  find_->setVisible(controller_.current() != nullptr && (!controller_.clip() || controller_.clipChanged()) &&
                    !controller_.busy());
  measureNew_->setVisible(controller_.clipChanged());
  if (const LoggedPass* pass = controller_.current()) messageOn_ = pass->request;
  message_->show();
}

void BenchPlace::take(std::unique_ptr<Tool> tool, const QString& inHand) {
  playback_.stop();
  connect(tool.get(), &Tool::finished, footage_, &FootageView::dropTool);
  footage_->takeTool(std::move(tool));
  steps_->showInHand(inHand);
}

void BenchPlace::takeRuler() {
  const auto drawn = [this](const std::vector<PixelPoint>& ends) {
    controller_.edit(tr("Set the known length"), [&](PassRequest& r) {
      const Millimetres u95 = r.scale ? r.scale->lengthU95 : Millimetres(0.0);
      r.scale = ScaleMark{ends[0], ends[1], steps_->knownLength(), u95};
      r.square.reset();
    });
  };
  take(std::make_unique<PointsTool>(
           QStringList{tr("Press on one end of the known length."), tr("Now its other end.")}, drawn),
       "ruler");
}

void BenchPlace::takeSquare() {
  const QStringList words{tr("Press on the upper left corner."), tr("Now the upper right one."),
                          tr("The lower right one."), tr("And the lower left one.")};
  take(std::make_unique<PointsTool>(
           words,
           [this](const std::vector<PixelPoint>& corners) { calibration_->square().takeCorners(corners); }),
       {});
}

void BenchPlace::takeLine(LinesCard::Line which) {
  const QStringList words{tr("Press on one place of the line."), tr("Now on another, far from the first.")};
  take(std::make_unique<PointsTool>(words,
                                    [this, which](const std::vector<PixelPoint>& ends) {
                                      calibration_->lines().takeLine(which, {ends[0], ends[1]});
                                    }),
       {});
}

void BenchPlace::offerFoundLines(LinesCard::Line which) {
  if (!footage_->hasPicture()) return;
  const QImage grey = footage_->picture().convertToFormat(QImage::Format_Grayscale8);
  const cv::Mat view(grey.height(), grey.width(), CV_8UC1, const_cast<uchar*>(grey.constBits()),
                     static_cast<std::size_t>(grey.bytesPerLine()));
  auto found = findLines(Picture::fromMat(view),
                         which == LinesCard::Line::Plumb ? LineKind::Upright : LineKind::Level);
  take(std::make_unique<FoundLinesTool>(
           std::move(found), [this, which](PixelLine line) { calibration_->lines().takeLine(which, line); }),
       {});
}

void BenchPlace::takeMark(MarkName mark) {
  take(std::make_unique<MarkTool>(controller_, mark, nullptr), QString::fromUtf8(toString(mark).data()));
}

void BenchPlace::takeOutline() {
  take(std::make_unique<LoopTool>(tr("the lure"),
                                  [this](const std::vector<PixelPoint>& rim) {
                                    controller_.edit(tr("Draw the outline"), [&](PassRequest& r) {
                                      r.outline = OutlineSeed{controller_.frame(), rim};
                                    });
                                  }),
       {});
}

/// Where its length is not known yet, it is typed.
void BenchPlace::takeOwnRuler() {
  if (calibration_->sight().takeOrLeaveOwnLength()) return;
  side_->setCurrentWidget(calibration_);
  calibration_->open("foldSight");
  calibration_->sight().beginTyping();
}

void BenchPlace::takeHiding() {
  const auto drawn = [this](const std::vector<PixelPoint>& rim) {
    controller_.edit(tr("Hide a part"), [&](PassRequest& r) {
      r.hidden.push_back({0, controller_.clip()->index().frameCount() - 1, rim});
    });
  };
  take(std::make_unique<LoopTool>(tr("what must not be taken for the lure"), drawn), {});
}

void BenchPlace::chooseClip() {
  const QString file = askForClip(this, tr("Open a clip"), clipFilter());
  if (!file.isEmpty()) controller_.openClip(file);
}

void BenchPlace::findClip() {
  const QString file = askForClip(this, tr("Where the clip is now"), clipFilter());
  if (!file.isEmpty()) controller_.findClip(file);
}

void BenchPlace::showHow() {
  side_->setCurrentWidget(usual_);
  lead_->begin();
}

void BenchPlace::buildLead() {
  lead_ = new Lead(controller_,
                   {open_, steps_->shows(), steps_->length(), footage_, steps_->follow(), readings_}, *this);
  connect(lead_, &Lead::rulerWanted, this, &BenchPlace::takeRuler);
  connect(lead_, &Lead::markWanted, this, &BenchPlace::takeMark);
}

void BenchPlace::fillActions() {
  const auto step = [this](int frames) { return [this, frames] { transport_->step(frames); }; };
  const auto mark = [this](MarkName name) { return [this, name] { takeMark(name); }; };
  actions_.add(tr("One frame back"), {Qt::Key_D}, step(-1))
      .add(tr("One frame on"), {Qt::Key_F}, step(1))
      .add(tr("Ten frames back"), {Qt::Key_S}, step(-10))
      .add(tr("Ten frames on"), {Qt::Key_G}, step(10))
      .add(tr("Play slowly, pause"), {Qt::Key_Space}, [this] { playback_.toggle(); })
      .add(tr("Mark both ends of the known length"), {Qt::Key_R}, [this] { takeRuler(); })
      .add(tr("Place the nose"), {Qt::Key_1}, mark(MarkName::Nose))
      .add(tr("Place the tail"), {Qt::Key_2}, mark(MarkName::Tail))
      .add(tr("Place the tip of a soft tail"), {Qt::Key_3}, mark(MarkName::Tip))
      .add(tr("Draw around the lure"), {Qt::Key_4}, [this] { takeOutline(); })
      .add(tr("Place the back (head-on)"), {Qt::Key_5}, mark(MarkName::Back))
      .add(tr("Place the belly (head-on)"), {Qt::Key_6}, mark(MarkName::Belly))
      .add(tr("Place a spot on the flank (side)"), {Qt::Key_7}, mark(MarkName::Flank))
      .add(tr("Place a mark in the middle of the body"), {Qt::Key_8}, mark(MarkName::Mid))
      .add(tr("Place a mark on the blade"), {Qt::Key_9}, mark(MarkName::Blade))
      .add(tr("Place the hook (held still)"), {Qt::Key_0}, mark(MarkName::Hook))
      .add(tr("Take the lure as the ruler, or no longer"), {Qt::Key_L}, [this] { takeOwnRuler(); })
      .add(tr("Draw around what is to be hidden"), {Qt::Key_H}, [this] { takeHiding(); })
      .add(tr("Next doubtful stretch"), {Qt::Key_E}, [this] { controller_.showNextDoubtful(); })
      .add(tr("Foul from here, to here"), {Qt::Key_X},
           [this] {
             side_->setCurrentWidget(mend_);
             mend_->foulHere();
           })
      .add(tr("A twitch starts here"), {Qt::Key_T}, [this] { twitches_->addHere(); })
      .add(tr("Not a twitch"), {Qt::Key_Y}, [this] { twitches_->removeNearest(); })
      .add(tr("Leave the twitch out, or back in"), {Qt::Key_U}, [this] { twitches_->leaveOutOrIn(); })
      .add(tr("The nearest twitch starts a frame earlier"), {Qt::Key_Comma},
           [this] { twitches_->moveNearest(-1); })
      .add(tr("The nearest twitch starts a frame later"), {Qt::Key_Period},
           [this] { twitches_->moveNearest(1); })
      .add(tr("Quiet from here, to here (sound)"), {Qt::Key_Q}, [this] { quiet_->quietHere(); })
      .add(tr("Whole picture"), {Qt::Key_W}, [this] { footage_->fit(); })
      .add(tr("Nearer"), {Qt::Key_Plus}, [this] { footage_->nearer(); })
      .add(tr("Further away"), {Qt::Key_Minus}, [this] { footage_->further(); })
      .tell(tr("Move the cross half a pixel (with Shift: five), place it"), tr("Arrows, Enter"))
      .tell(tr("Put down what is in hand"), tr("Esc"))
      .tell(tr("Leave a stretch out of the numbers"), tr("Shift and drag in the trace"));
}

void BenchPlace::keyPressEvent(QKeyEvent* event) {
  if (!actions_.heard(*event)) QWidget::keyPressEvent(event);
}

}  // namespace fin::app
