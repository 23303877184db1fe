// SPDX-License-Identifier: GPL-3.0-or-later
#include "tools/shots/shots.h"

#include <QApplication>
#include <QLineEdit>
#include <QPixmap>
#include <QTableView>
#include <cstdio>
#include <utility>

#include "app/places/plan/rack_page.h"
#include "app/print/sheets.h"

namespace fin::app {

constexpr int kTick_ms = 60;
constexpr int kQuietTicks = 6;
constexpr std::int64_t kGlassDay = 1300;  ///< of the demo: on the water, like a mirror

Shots::Shots(MainWindow& window, const QDir& folder, QObject* parent)
    : QObject(parent), window_(window), folder_(folder) {
  window_.day().choose(1);
  const auto bench = [this](std::size_t pass, double share) {
    window_.go(Place::Bench);
    PassController& controller = window_.passController();
    if (pass >= controller.passes().size()) return;
    controller.select(controller.passes()[pass].id);
    connect(&controller, &PassController::resultChanged, this, [&controller, share] {
      const PassResult* result = controller.result();
      if (result != nullptr && controller.frame() == result->track.firstFrame) {
        controller.showFrame(result->track.firstFrame +
                             static_cast<std::size_t>(share * static_cast<double>(result->track.frameCount)));
      }
    });
  };
  const auto plan = [this](PlanPlace::Page page) {
    window_.go(Place::Plan);
    window_.plan().go(page);
  };
  left_ = {{"plan-question.png", [plan] { plan(PlanPlace::Page::Question); }},
           {"plan-rack.png",
            [this, plan] {
              plan(PlanPlace::Page::Rack);
              window_.plan().rack().findChild<QTableView*>("rack")->selectRow(0);
            }},
           {"plan-water.png", [plan] { plan(PlanPlace::Page::Water); }},
           {"plan-cameras.png", [plan] { plan(PlanPlace::Page::Cameras); }},
           {"plan-held-equal.png", [plan] { plan(PlanPlace::Page::Equal); }},
           {"plan-sheet.png", [plan] { plan(PlanPlace::Page::Sheet); }},
           {"poolside.png", [this] { window_.go(Place::Poolside); }},
           {"bench-pull.png", [bench] { bench(1, 0.55); }},
           {"bench-putting-right.png",
            [this] {
              press("mend");
              press("nextDoubtful");
              const FootageView& footage = window_.bench().footage();
              window_.bench().footage().zoomBy(4.0, QPointF(footage.width() * 0.78, footage.height() * 0.5));
            }},
           {"bench-fall.png",
            [this, bench] {
              press("mendDone");
              window_.bench().footage().fit();
              bench(3, 0.6);
            }},
           // On the pass of the picture before, which lies ready.
           {"bench-size-and-time.png",
            [this] {
              window_.bench().findChild<QPushButton*>("moreCalibration")->click();
              press("foldCamera");
            }},
           {"bench-found-lines.png",
            [this] {
              press("foldLines");
              press("findLine3");
            }},
           {"bench-other-cameras.png",
            [this, bench] {
              bench(5, 0.5);
              // Only an open clip can be listened to.
              whenOpen_ = [this] {
                press("foldSharing");
                press("alignBySound");
              };
            }},
           {"bench-lens.png", [this, bench] {
              bench(6, 0.0);
              whenOpen_ = [this] {
                press("foldLens");
                press("solveLens");
              };
            }}};
  const auto lineUp = [this](const char* file, LineUpPlace::Page page) {
    left_.push_back({file, [this, page] {
                       window_.go(Place::LineUp);
                       window_.lineUp().go(page);
                     }});
  };
  left_.push_back({"line-up-in-step.png", [this] {
                     window_.go(Place::LineUp);
                     window_.lineUp().go(LineUpPlace::Page::InStep);
                     std::vector<PassId> some;
                     for (const LoggedPass& pass : window_.passController().passes()) {
                       for (const char* file : {"skrell-95-pull.mp4", "oblig-18-pull.mp4",
                                                "tavver-12-pull.mp4", "vinto-11-pull.mp4"})
                         if (pass.request.clip.filename() == file) some.push_back(pass.id);
                     }
                     window_.lineUp().studied().want(some);
                     whenOpen_ = [this] {
                       window_.lineUp().inStep().goTo(1.1);
                       window_.lineUp().findChild<QPushButton*>("filmInStep")->click();
                     };
                   }});
  const auto laidOver = [this](const char* file, Protocol protocol, OverlayPage::What what) {
    left_.push_back({file, [this, protocol, what] {
                       std::vector<PassId> wanted;
                       for (const LoggedPass& pass : window_.passController().passes()) {
                         if (pass.day == window_.day().plan().id && pass.request.protocol == protocol)
                           wanted.push_back(pass.id);
                       }
                       window_.go(Place::LineUp);
                       window_.lineUp().go(LineUpPlace::Page::Overlay);
                       window_.lineUp().overlay().choose(what);
                       window_.lineUp().studied().want(wanted);
                     }});
  };
  laidOver("line-up-laid-over.png", Protocol::Twitch, OverlayPage::What::Twitches);
  laidOver("line-up-skirts.png", Protocol::Skirt, OverlayPage::What::Skirts);
  // The last pass of a protocol on the bench.
  const auto benchOf = [this](const char* file, Protocol protocol) {
    left_.push_back({file, [this, protocol] {
                       window_.go(Place::Bench);
                       press("calibrationDone");
                       for (const LoggedPass& pass : window_.passController().passes()) {
                         if (pass.day == window_.day().plan().id && pass.request.protocol == protocol)
                           window_.passController().select(pass.id);
                       }
                     }});
  };
  benchOf("bench-twitch.png", Protocol::Twitch);
  benchOf("bench-skirt.png", Protocol::Skirt);
  benchOf("bench-sound.png", Protocol::Sound);
  benchOf("bench-hop.png", Protocol::Hop);
  lineUp("line-up-ear.png", LineUpPlace::Page::Ear);
  lineUp("line-up-compared.png", LineUpPlace::Page::Spread);
  lineUp("line-up-ladder.png", LineUpPlace::Page::Ladder);
  lineUp("line-up-eye.png", LineUpPlace::Page::Eye);
  lineUp("line-up-weight.png", LineUpPlace::Page::Weight);
  const auto verdict = [this](const char* file, VerdictPlace::Page page) {
    left_.push_back({file, [this, page] {
                       window_.go(Place::Verdict);
                       window_.verdict().go(page);
                     }});
  };
  verdict("verdict-places.png", VerdictPlace::Page::Places);
  verdict("verdict-points.png", VerdictPlace::Page::Points);
  verdict("verdict-purpose.png", VerdictPlace::Page::Purpose);
  verdict("verdict-price.png", VerdictPlace::Page::Price);
  verdict("verdict-together.png", VerdictPlace::Page::Together);
  verdict("verdict-vote.png", VerdictPlace::Page::Vote);
  verdict("verdict-report.png", VerdictPlace::Page::Report);
  left_.push_back(
      {"verdict-report-end.png", [this] {
         using enum ReportPage::Form;
         for (const auto& [form, name] :
              {std::pair(Pdf, "report"), {WebPage, "report"}, {Table, "readings"}, {Json, "readings"}})
           window_.verdict().report().write(form, folder_.filePath(name));
       }});
  left_.push_back({"log.png", [this] {
                     window_.go(Place::Log);
                     auto* words = window_.findChild<QLineEdit*>("findWords");
                     words->setText("oblag");
                     emit words->returnPressed();
                   }});
  left_.push_back({"log-claims.png", [this] {
                     auto* words = window_.findChild<QLineEdit*>("findWords");
                     words->setText("skrell");
                     emit words->returnPressed();
                     window_.findChild<QPushButton*>("modelClaims")->click();
                   }});
  left_.push_back({"plan-tie-on.png", [this] {
                     window_.day().choose(kGlassDay);
                     window_.go(Place::Plan);
                     window_.plan().go(PlanPlace::Page::TieOn);
                   }});
  left_.push_back({"plan-conditions.png", [this] { window_.plan().go(PlanPlace::Page::Conditions); }});
  left_.push_back({"poolside-water.png", [this] { window_.go(Place::Poolside); }});
  left_.push_back({"verdict-catches.png", [this] {
                     window_.go(Place::Verdict);
                     window_.verdict().showCatches();
                   }});
  // Last, as it takes marks away from the day.
  left_.push_back({"look-through.png", [this] {
                     window_.day().choose(1);
                     PassController& controller = window_.passController();
                     std::vector<PassChange> changes;
                     for (const LoggedPass& pass : controller.passes()) {
                       const bool wanted = pass.request.protocol == Protocol::Twitch ||
                                           pass.request.protocol == Protocol::Hop;
                       if (pass.day != window_.day().plan().id || !wanted) continue;
                       changes.push_back({pass, pass});
                       changes.back().after.request.marks.clear();
                     }
                     controller.change("Take the marks away", changes);
                     window_.queue().add(window_.queue().unmarked(), Depth::Find);
                     window_.go(Place::LookThrough);
                     whenOpen_ = [this] { window_.lookThrough().step(1); };
                   }});
  for (const auto& printed : {printPassSheet(window_.day(), folder_.filePath("pass-sheet.pdf")),
                              printCautions(folder_.filePath("cautions.pdf"))}) {
    if (!printed) std::fprintf(stderr, "agile-fin: %s\n", printed.error().message.c_str());
  }
  connect(&timer_, &QTimer::timeout, this, [this] {
    quiet_ = window_.settled() ? quiet_ + 1 : 0;
    if (quiet_ == kQuietTicks && whenOpen_) {
      std::exchange(whenOpen_, nullptr)();
      quiet_ = 0;
    }
    if (quiet_ >= kQuietTicks) take();
  });
  timer_.start(kTick_ms);
  next();
}

void Shots::press(const char* button) {
  window_.bench().findChild<QPushButton*>(button)->click();
}

void Shots::next() {
  if (left_.empty()) return QApplication::quit();
  quiet_ = 0;
  left_.front().prepare();
}

void Shots::take() {
  const QString file = folder_.filePath(left_.front().file);
  if (!window_.grab().save(file)) {
    std::fprintf(stderr, "agile-fin: %s cannot be written\n", qPrintable(file));
    return QApplication::exit(1);
  }
  left_.pop_front();
  next();
}

}  // namespace fin::app
