// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/ear_page.h"

#include <qcustomplot.h>

#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/controllers/pass_controller.h"
#include "app/phrases/words.h"
#include "app/plots/pass_trace.h"
#include "app/plots/plot.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr double kMostGain_dB = 40.0;
constexpr double kKnock_dB = 10.0;

QString spokenGain(double dB) {
  if (std::abs(dB) < 0.05) return EarPage::tr("as recorded");
  return (dB > 0.0 ? EarPage::tr("%1 dB louder") : EarPage::tr("%1 dB softer")).arg(std::abs(dB), 0, 'f', 1);
}

}  // namespace

EarPage::EarPage(EarController& controller, LineUp& lineUp, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      lineUp_(lineUp),
      studied_(lineUp),
      passes_{new QComboBox, new QComboBox},
      gain_(new QComboBox),
      slowness_(new QComboBox),
      listen_(namedButton(tr("Hear in turn"), "hearInTurn")),
      heading_(new QLabel),
      plot_(dressedPlot("earPlot")),
      cameras_{new QLabel, new QLabel},
      kept_{new QDoubleSpinBox, new QDoubleSpinBox},
      words_(new QLabel) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(8);
  layout->addLayout(buildChoices());
  heading_->setObjectName("earHeading");
  setLetters(*heading_, "large");
  heading_->setWordWrap(true);
  layout->addWidget(heading_);
  plot_->legend->setBrush(theme().card);
  plot_->legend->setBorderPen(QPen(theme().line));
  plot_->legend->setTextColor(theme().ink);
  plot_->xAxis->setLabel(tr("s since the window began"));
  plot_->yAxis->setLabel(tr("Louder than still water by, dB"));
  layout->addWidget(plot_, 100);
  layout->addLayout(buildGains());
  words_->setObjectName("earWords");
  words_->setWordWrap(true);
  layout->addWidget(words_);
  layout->addStretch(1);
  connect(&lineUp, &LineUp::changed, this, &EarPage::refresh);
  connect(&studied_, &StudiedPasses::changed, this, &EarPage::hearWanted);
  connect(&controller, &EarController::changed, this, &EarPage::tell);
  connect(&voice_, &ClipVoice::told, words_, &QLabel::setText);
  connect(&voice_, &ClipVoice::speakingChanged, this,
          [this](bool on) { listen_->setText(on ? tr("Hush") : tr("Hear in turn")); });
  refresh();
}

QLayout* EarPage::buildChoices() {
  auto* row = new QHBoxLayout;
  const char* names[] = {"earFirst", "earSecond"};
  const QString words[] = {tr("Hear"), tr("then")};
  for (std::size_t i = 0; i < passes_.size(); ++i) {
    auto* label = new QLabel(words[i]);
    label->setBuddy(passes_[i]);
    passes_[i]->setObjectName(names[i]);
    passes_[i]->setAccessibleName(i == 0 ? tr("The pass that is heard first") : tr("The pass heard then"));
    passes_[i]->setMinimumWidth(230);
    connect(passes_[i], &QComboBox::currentIndexChanged, this, &EarPage::want);
    row->addWidget(label);
    row->addWidget(passes_[i], 1);
  }
  gain_->addItems({tr("as recorded"), tr("with their quiet alike"), tr("with each camera's gain")});
  gain_->setObjectName("earGain");
  gain_->setAccessibleName(tr("How loud they are heard"));
  connect(gain_, &QComboBox::currentIndexChanged, this, &EarPage::tell);
  for (const auto& [text, times] :
       {std::pair(tr("as fast as it was"), 1.0), {tr("half as fast"), 2.0}, {tr("a quarter as fast"), 4.0}})
    slowness_->addItem(text, times);
  slowness_->setObjectName("earSlowness");
  slowness_->setAccessibleName(tr("How slowly they are heard; slower is lower as well"));
  listen_->setProperty("primary", true);
  connect(listen_, &QPushButton::clicked, this, &EarPage::listen);
  row->addWidget(gain_);
  row->addWidget(slowness_);
  row->addWidget(listen_);
  return row;
}

QLayout* EarPage::buildGains() {
  auto* row = new QHBoxLayout;
  const char* names[] = {"earFirstGain", "earSecondGain"};
  for (std::size_t i = 0; i < kept_.size(); ++i) {
    kept_[i]->setObjectName(names[i]);
    kept_[i]->setRange(-kMostGain_dB, kMostGain_dB);
    kept_[i]->setDecimals(1);
    kept_[i]->setButtonSymbols(QAbstractSpinBox::NoButtons);
    kept_[i]->setSuffix(tr(" dB"));
    kept_[i]->setKeyboardTracking(false);
    cameras_[i]->setBuddy(kept_[i]);
    connect(kept_[i], &QDoubleSpinBox::valueChanged, this, [this, i](double dB) {
      if (!ready()) return;
      controller_.setGain(voices_[i].camera, dB);
      if (dB != 0.0) gain_->setCurrentIndex(static_cast<int>(Gain::KeptForCamera));
    });
    row->addWidget(cameras_[i]);
    row->addWidget(kept_[i]);
  }
  row->addStretch();
  return row;
}

/// The sound passes that were read; what was chosen stays chosen.
void EarPage::refresh() {
  std::vector<const ComparedPass*> heard;
  for (const ComparedPass& pass : lineUp_.passes()) {
    if (pass.protocol == Protocol::Sound) heard.push_back(&pass);
  }
  for (std::size_t i = 0; i < passes_.size(); ++i) {
    const QSignalBlocker quiet(passes_[i]);
    const QVariant before = passes_[i]->currentData();
    passes_[i]->clear();
    for (const ComparedPass* pass : heard)
      passes_[i]->addItem(QString::fromStdString(pass->title),
                          QVariant::fromValue<qlonglong>(pass->id.value()));
    const int kept = passes_[i]->findData(before);
    passes_[i]->setCurrentIndex(kept >= 0 ? kept : std::min(static_cast<int>(i), passes_[i]->count() - 1));
  }
  want();
}

void EarPage::want() {
  voice_.stop();
  std::vector<PassId> wanted;
  for (const QComboBox* box : passes_) {
    if (box->currentIndex() >= 0) wanted.push_back(box->currentData().toLongLong());
  }
  if (wanted.size() == 2 && wanted[0] == wanted[1]) wanted.pop_back();
  if (wanted == studied_.wanted() && !voices_.empty()) return;
  voices_.clear();
  studied_.want(wanted);
}

/// Decodes what is open and not heard yet.
void EarPage::hearWanted() {
  struct Order {
    Voice voice;
    PassRequest request;
    std::shared_ptr<const Clip> clip;
    ClipClock clock;
  };
  std::vector<Order> orders;
  voices_.clear();
  for (const StudiedPass* pass : studied_.ready()) {
    Voice voice{pass->id, pass->title, {}, failure(ErrorCode::Unsupported, pass->trouble.toStdString())};
    for (const LoggedPass& logged : lineUp_.passController().passes()) {
      if (logged.id == pass->id) voice.camera = logged.camera;
    }
    if (pass->clip && pass->clock) {
      orders.push_back({std::move(voice), pass->request, pass->clip, *pass->clock});
    } else {
      voices_.push_back(std::move(voice));
    }
  }
  hearing_.start(
      [orders](const JobControl& job) -> Result<std::vector<Voice>> {
        std::vector<Voice> out;
        for (const Order& order : orders) {
          out.push_back(order.voice);
          out.back().heard = hearPass(order.request, *order.clip, order.clock, {job.stop, {}});
        }
        return out;
      },
      [this](Result<std::vector<Voice>> heard) {
        if (heard) {
          for (Voice& voice : *heard) voices_.push_back(std::move(voice));
        }
        tell();
      });
  tell();
}

bool EarPage::ready() const {
  return voices_.size() == 2 && voices_[0].heard && voices_[1].heard;
}

Result<std::array<double, 2>> EarPage::gains_dB() const {
  switch (static_cast<Gain>(gain_->currentIndex())) {
    case Gain::AsRecorded:
      break;
    case Gain::QuietAlike: {
      const auto second = gainToMatch_dB(*voices_[0].heard, *voices_[1].heard);
      if (!second) return tl::unexpected(second.error());
      return std::array{0.0, *second};
    }
    case Gain::KeptForCamera:
      return std::array{controller_.gain_dB(voices_[0].camera), controller_.gain_dB(voices_[1].camera)};
  }
  return std::array{0.0, 0.0};
}

std::optional<HeardInTurn> EarPage::heardNow() const {
  if (!ready()) return std::nullopt;
  const auto gains = gains_dB();
  if (!gains) return std::nullopt;
  return inTurn(*voices_[0].heard, (*gains)[0], *voices_[1].heard, (*gains)[1]);
}

/// With what gain they are heard, and what keeps them from being heard.
void EarPage::tell() {
  draw();
  const bool sameCamera = ready() && voices_[0].camera == voices_[1].camera;
  for (std::size_t i = 0; i < kept_.size(); ++i) {
    const bool shown = ready() && !(i == 1 && sameCamera);
    kept_[i]->setVisible(shown);
    cameras_[i]->setVisible(shown);
    if (!shown) continue;
    const QSignalBlocker quiet(kept_[i]);
    kept_[i]->setValue(controller_.gain_dB(voices_[i].camera));
    cameras_[i]->setText(tr("Camera “%1” is heard louder by").arg(QString::fromStdString(voices_[i].camera)));
    kept_[i]->setAccessibleName(cameras_[i]->text());
  }
  enableOr(*gain_, ready(), tr("Choose two passes first."));
  const auto now = heardNow();
  enableOr(*listen_, now.has_value(), tr("Choose two passes first."));
  if (passes_[0]->count() < 2) {
    heading_->setText(tr("Nothing to hear beside each other yet."));
    words_->setText(
        tr("Film two passes for their sound, by one camera at one distance with its gain set "
           "fixed, and read them on the bench."));
    return;
  }
  if (!ready()) {
    heading_->setText(busy() ? tr("The sounds are being opened …")
                             : tr("Choose two passes to hear one after the other."));
    QStringList why;
    for (const Voice& voice : voices_) {
      if (!voice.heard)
        why += tr("%1: %2.").arg(voice.title, QString::fromStdString(voice.heard.error().message));
    }
    words_->setText(why.join(" "));
    return;
  }
  const auto gains = gains_dB();
  if (!gains) {
    heading_->setText(tr("They cannot be matched."));
    words_->setText(QString::fromStdString(gains.error().message));
    return;
  }
  const bool plain = (*gains)[0] == 0.0 && (*gains)[1] == 0.0 && now->lowered_dB < 0.05;
  heading_->setText(
      plain ? tr("Both are heard as recorded.")
            : tr("Heard: the first %1, the second %2.")
                  .arg(spokenGain((*gains)[0] - now->lowered_dB), spokenGain((*gains)[1] - now->lowered_dB)));
  QStringList more;
  if (now->lowered_dB > 0.05)
    more += tr("Both are lowered by %1 dB, so that nothing is clipped.").arg(now->lowered_dB, 0, 'f', 1);
  if (!sameCamera)
    more +=
        tr("They were recorded by different cameras: what is louder here need not have been in the water.");
  more += tr("No gain goes into a reading.");
  words_->setText(more.join(" "));
}

void EarPage::draw() {
  plot_->clearPlottables();
  plot_->setVisible(ready());
  plot_->legend->setVisible(true);
  if (!ready()) return;
  double longest = 0.0;
  double loudest = kKnock_dB;
  for (std::size_t i = 0; i < voices_.size(); ++i) {
    const Series level = levelOverQuiet(*voices_[i].heard);
    QCPGraph* graph = plot_->addGraph();
    graph->setPen(QPen(markColour(static_cast<int>(i)), 1.8, i == 0 ? Qt::SolidLine : Qt::DashLine));
    graph->setName(voices_[i].title);
    fillTrace(*graph, level);
    for (std::size_t k = 0; k < level.size(); ++k) {
      longest = std::max(longest, level.t_s[k]);
      loudest = std::max(loudest, level.y[k]);
    }
  }
  plot_->xAxis->setRange(0.0, longest);
  plot_->yAxis->setRange(-kKnock_dB, 1.25 * loudest);
  plot_->setAccessibleName(tr("Loudness of both above still water, over time"));
  plot_->replot();
}

void EarPage::listen() {
  if (voice_.speaking()) return voice_.stop();
  if (const auto now = heardNow()) voice_.say(now->samples, slowness_->currentData().toDouble());
}

}  // namespace fin::app
