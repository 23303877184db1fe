// SPDX-License-Identifier: GPL-3.0-or-later
// A season of thousands: opening its log and finding in it, beside a day of twenty passes.
#include <fmt/format.h>

#include <QApplication>
#include <QLineEdit>
#include <QListView>
#include <QtTest/QTest>
#include <chrono>
#include <fstream>

#include "app/main_window.h"
#include "app/ui/theme.h"
#include "core/units/date.h"

namespace {

using namespace fin;
namespace fs = std::filesystem;

struct Size {
  int days = 0;
  int rigs = 0;
  int passes = 0;
};

double secondsFor(const std::function<void()>& work) {
  const auto begun = std::chrono::steady_clock::now();
  work();
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
}

void makeLog(const fs::path& file, const Size& size) {
  const auto log = std::move(*Log::open(file));
  DayPlan plan;
  for (int r = 0; r < size.rigs; ++r) {
    plan.rack.models.push_back({.id = 2 * r + 1, .name = fmt::format("Model {}", r)});
    plan.rack.rigs.push_back({.id = 2 * r + 2, .model = 2 * r + 1, .name = "7 g head"});
  }
  (void)log->savePlan(DayPlan{}, plan);
  const fs::path clip = file.parent_path() / "clip.mp4";
  std::ofstream(clip) << "stands for a clip";
  const auto print = fingerprintOf(clip);
  std::int64_t id = 10000;
  (void)log->together([&]() -> Result<void> {
    for (int d = 0; d < size.days; ++d) {
      DayPlan none;
      none.id = d == 0 ? DayId(1) : DayId(++id);
      none.rack = plan.rack;
      DayPlan day = none;
      day.date = dateAt(1.8e9 + 86400.0 * d);
      for (int p = 0; p < size.passes / size.days; ++p) {
        day.sheet.push_back({.id = ++id, .rig = 2 * ((d * 7 + p) % size.rigs) + 2, .state = PassState::Done});
        PassRequest request;
        request.clip = clip;
        request.rigName = plan.rack.fullName(*plan.rack.rig(day.sheet.back().rig));
        request.marks = {{MarkName::Nose, 1, {10, 10}}, {MarkName::Tail, 1, {20, 10}}};
        (void)log->addPass({.title = fmt::format("Pass {} of day {}", p, d),
                            .request = request,
                            .clip = *print,
                            .planned = day.sheet.back().id,
                            .day = day.id});
      }
      if (d == 0) {
        DayPlan first = plan;
        first.date = day.date;
        first.sheet = day.sheet;
        if (auto ok = log->savePlan(plan, first); !ok) return ok;
      } else if (auto ok = log->savePlan(none, day); !ok) {
        return ok;
      }
    }
    return {};
  });
}

struct Took {
  double open_s = 0.0;
  double log_s = 0.0;
  double letter_s = 0.0;
};
Took measure(const fs::path& file) {
  Took out;
  std::unique_ptr<app::MainWindow> window;
  out.open_s = secondsFor([&] {
    window = std::make_unique<app::MainWindow>(std::move(*Log::open(file)));
    window->show();
    QTest::qWait(1);
  });
  out.log_s = secondsFor([&] {
    window->go(app::Place::Log);
    QTest::qWait(1);
  });
  auto* words = window->findChild<QLineEdit*>("findWords");
  const QString typed = "pass 3 of day 12";
  out.letter_s = secondsFor([&] {
                   for (int i = 1; i <= typed.size(); ++i) {
                     words->setText(typed.left(i));
                     QTest::qWait(1);
                   }
                 }) /
                 static_cast<double>(typed.size());
  fmt::print("  {} of {} found\n", window->findChild<QListView*>("foundList")->model()->rowCount(),
             window->passController().passes().size());
  return out;
}

}  // namespace

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  app::dress(application);
  const fs::path folder = fs::temp_directory_path() / "agile-fin-thousands";
  fs::remove_all(folder);
  fs::create_directories(folder);
  makeLog(folder / "day.finlog", {1, 5, 20});
  makeLog(folder / "season.finlog", {300, 500, 2100});
  (void)measure(folder / "day.finlog");  // fonts and styles are read once
  const Took day = measure(folder / "day.finlog");
  const Took season = measure(folder / "season.finlog");
  fmt::print("{:<22} {:>10} {:>10} {:>8}\n", "", "day", "season", "times");
  for (const auto& [what, of] : {std::pair("opening, s", &Took::open_s),
                                 {"the Log place, s", &Took::log_s},
                                 {"a letter typed, s", &Took::letter_s}})
    fmt::print("{:<22} {:>10.3f} {:>10.3f} {:>8.1f}\n", what, day.*of, season.*of, season.*of / day.*of);
  fs::remove_all(folder);
}
