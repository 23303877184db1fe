// SPDX-License-Identifier: GPL-3.0-or-later
// What leaves the house with clips in it, through the window: the report's web page and the vote.
#include <QTableWidget>

#include "core/exchange/ballot_json.h"
#include "numbered_day_fixture.h"

namespace fin::app {
namespace {

class Publish : public NumberedDayTest {
 protected:
  void SetUp() override {
    NumberedDayTest::SetUp();
    window_->go(Place::Verdict);
  }
  QString place(const char* name) { return QString::fromStdString((folder_ / name).string()); }
  std::size_t framesOf(const std::filesystem::path& clip) {
    const auto opened = Clip::open(clip);
    return opened ? (*opened)->index().frameCount() : 0;
  }
};

TEST_F(Publish, AWebPageHasALoopOfEachRig) {
  press("verdictReport");
  ReportPage& report = window_->verdict().report();
  ASSERT_TRUE(waitFor([&] { return !report.busy(); }));
  std::filesystem::remove(folder_ / "clip 6.mp4");
  report.write(ReportPage::Form::WebPage, place("page"));
  ASSERT_TRUE(waitFor([&] { return !report.busy(); }));
  const std::string page = test::slurp(folder_ / "page" / "index.html");
  for (int rig = 0; rig < 6; ++rig)
    EXPECT_NE(page.find("src='clips/" + std::to_string(rig + 1) + ".mp4'"), std::string::npos) << rig;
  EXPECT_EQ(page.find("clips/7"), std::string::npos) << "its clip is gone";
  EXPECT_TRUE(text("reportDone").contains("Without a clip, as it is gone or cannot be read: 1 rig"))
      << text("reportDone").toStdString();
  // 50 frames at 50 a second, at a fifth of the speed and 30 pictures a second, less the last one's stand.
  EXPECT_NEAR(static_cast<double>(framesOf(folder_ / "page" / "clips" / "1.mp4")), 0.98 * 5.0 * 30.0, 2.0);
  EXPECT_EQ(framesOf(folder_ / "page" / "clips" / "1.webm"), framesOf(folder_ / "page" / "clips" / "1.mp4"));
}

TEST_F(Publish, AWebPageThatIsStoppedLeavesNothing) {
  press("verdictReport");
  ReportPage& report = window_->verdict().report();
  ASSERT_TRUE(waitFor([&] { return !report.busy(); }));
  report.write(ReportPage::Form::WebPage, place("page"));
  const auto parts = [&] { return QDir(place("")).entryList({"page.part*"}, QDir::Dirs); };
  ASSERT_TRUE(waitFor([&] {
    return !parts().isEmpty() && QFile::exists(place("") + "/" + parts().front() + "/clips/1.mp4");
  }));
  press("stopReport");
  // The next one does not wait for the other to clear up, and is not harmed by it.
  report.write(ReportPage::Form::WebPage, place("again"));
  EXPECT_TRUE(waitFor([&] { return parts().isEmpty(); }));
  EXPECT_FALSE(std::filesystem::exists(folder_ / "page"));
  ASSERT_TRUE(waitFor([&] { return !report.busy(); }));
  EXPECT_TRUE(std::filesystem::exists(folder_ / "again" / "clips" / "7.webm"))
      << text("reportDone").toStdString();
}

TEST_F(Publish, AVoteIsAskedWithoutNamesAndCountedOncePerVoter) {
  press("verdictVote");
  EXPECT_EQ(text("voteFirst"), "Nobody has voted yet.");
  auto* rigs = find<QListWidget>("voteRigs");
  ASSERT_EQ(rigs->count(), 7);
  for (int i = 3; i < 7; ++i) rigs->item(i)->setCheckState(Qt::Unchecked);
  find<QLineEdit>("voteAsked")->setText("Which </script> one?");
  VotePage& page = window_->verdict().vote();
  page.writePage(place("ballot"));
  ASSERT_TRUE(waitFor([&] { return !page.busy(); }));
  const VerdictController& controller = window_->verdict().controller();
  const Vote vote = controller.plan().vote;
  ASSERT_EQ(vote.rigs.size(), 3U) << text("voteSaid").toStdString();
  const std::string html = test::slurp(folder_ / "ballot" / "index.html");
  EXPECT_NE(html.find(vote.id), std::string::npos);
  EXPECT_EQ(html.find("Bait"), std::string::npos) << "nameless";
  EXPECT_EQ(html.find("Which </script>"), std::string::npos);
  EXPECT_GT(framesOf(folder_ / "ballot" / "clips" / "3.webm"), 100U);

  test::write(folder_ / "one.json", writeBallot(vote.id, {"x", {{0, 1, 1.0}, {1, 0, 0.0}, {1, 2, 0.5}}}));
  test::write(folder_ / "two.json", writeBallot("other", {"y", {{0, 1, 1.0}}}));
  test::write(folder_ / "odd.json", "{");
  page.takeIn(
      {place("one.json"), place("two.json"), place("one.json"), place("odd.json"), place("gone.json")});
  const QString said = text("voteSaid");
  EXPECT_TRUE(said.startsWith("1 ballot taken in.")) << said.toStdString();
  for (const char* part : {"two.json: it belongs to another vote", "one.json: this voter was counted already",
                           "odd.json: the ballot is not valid JSON", "gone.json: it cannot be read"})
    EXPECT_TRUE(said.contains(part)) << part << "\n" << said.toStdString();
  EXPECT_TRUE(text("voteFirst").contains(QString::fromStdString(vote.rigs[0])))
      << text("voteFirst").toStdString();
  EXPECT_TRUE(text("voteFirst").contains("Too close to call"));
  EXPECT_TRUE(text("voteWords").contains("voters said the same in 1 of 1"));
  EXPECT_TRUE(text("voteWords").contains("half a win each way"));
  EXPECT_EQ(find<QTableWidget>("votePairs")->rowCount(), 3);
  EXPECT_TRUE(
      find<QTableWidget>("voteReadings")->item(0, 1)->text().contains("too few to tell: 3 of 6 rigs"));
  // It is in the report, and one step of undo takes it back.
  press("verdictReport");
  ASSERT_TRUE(waitFor([&] { return !window_->verdict().report().busy(); }));
  EXPECT_TRUE(find<QTextBrowser>("report")->toPlainText().contains("who did not know the names"));
  QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(controller.plan().vote.ballots.empty());
  EXPECT_EQ(controller.plan().vote.rigs, vote.rigs);
}

TEST_F(ReadDayTest, SixtyRigsHaveAPageAndACardEach) {
  {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    for (std::int64_t rig = 0; rig < 60; ++rig) {
      plan_.rack.models.push_back({.id = rig + 1, .name = "=<b>Bait & " + std::to_string(rig)});
      plan_.rack.rigs.push_back({.id = rig + 100, .model = rig + 1});
    }
    for (std::int64_t rig = 0; rig < 60; ++rig) {
      for (int again = 0; again < 2; ++again)
        keep(**log, rig + 100, "clip " + std::to_string(2 * rig + again), Protocol::Retrieve,
             {{ReadingId::TravelSpeed, 250.0, "mm/s", 2.0, 100.0},
              {ReadingId::WobbleAngle, 20.0 + static_cast<double>(rig) + 0.3 * again, "deg", 0.5, 50.0}},
             false);
    }
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
  }
  openWindow();
  window_->go(Place::Verdict);
  press("verdictReport");
  ReportPage& report = window_->verdict().report();
  ASSERT_TRUE(waitFor([&] { return !report.busy(); }));
  const auto place = [&](const char* name) { return QString::fromStdString((folder_ / name).string()); };
  report.write(ReportPage::Form::Pdf, place("report.pdf"));
  ASSERT_TRUE(waitFor([&] { return !report.busy() && QFile::exists(place("report.pdf")); }));
  const std::string pdf = test::slurp(folder_ / "report.pdf");
  std::size_t pages = 0;
  for (std::size_t at = pdf.find("/Type /Page "); at != std::string::npos;
       at = pdf.find("/Type /Page ", at + 1))
    ++pages;
  EXPECT_GE(pages, 60U);
  report.write(ReportPage::Form::Cards, place("cards"));
  EXPECT_EQ(QDir(place("cards")).entryList({"*.png"}).size(), 60);
  EXPECT_TRUE(find<QTextBrowser>("report")->toPlainText().contains("The first 24 of 60"));
  report.write(ReportPage::Form::Table, place("readings.csv"));
  EXPECT_NE(test::slurp(folder_ / "readings.csv").find("\n'=<b>Bait & 0,"), std::string::npos)
      << "no formula";
}

}  // namespace
}  // namespace fin::app
