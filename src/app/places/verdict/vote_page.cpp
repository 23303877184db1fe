// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/verdict/vote_page.h"

#include <qcustomplot.h>

#include <QFile>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QRandomGenerator>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/phrases/publish_words.h"
#include "app/plots/plot.h"
#include "app/plots/vote_plot.h"
#include "app/ui/files.h"
#include "app/ui/pieces.h"
#include "app/ui/table_heads.h"
#include "app/ui/theme.h"
#include "core/exchange/ballot_json.h"
#include "core/publishing/vote_readings.h"

namespace fin::app {
namespace {

constexpr qint64 kLargestBallot_bytes = 1 << 20;

QTableWidget* readTable(const char* name, const QString& says, const QStringList& heads, int stretched) {
  auto* table = new QTableWidget;
  TableHeads::keepWhole(*table);
  table->setObjectName(name);
  table->setAccessibleName(says);
  table->setColumnCount(static_cast<int>(heads.size()));
  table->setHorizontalHeaderLabels(heads);
  table->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  // One column takes what is left, and long words go on in a second line.
  table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  table->horizontalHeader()->setSectionResizeMode(stretched, QHeaderView::Stretch);
  table->verticalHeader()->hide();
  table->verticalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  table->setTabKeyNavigation(false);
  return table;
}

void fill(QTableWidget& table, const std::vector<QStringList>& rows) {
  table.setRowCount(static_cast<int>(rows.size()));
  for (int i = 0; i < table.rowCount(); ++i) {
    for (int k = 0; k < table.columnCount(); ++k)
      table.setItem(i, k, readOnlyCell(rows[static_cast<std::size_t>(i)][k]));
  }
}

Result<ReadBallot> ballotIn(const QString& name) {
  QFile file(name);
  if (!file.open(QIODevice::ReadOnly) || file.size() > kLargestBallot_bytes)
    return failure(ErrorCode::Unreadable, QObject::tr("it cannot be read").toStdString(), name.toStdString());
  return parseBallot(file.readAll().toStdString());
}

}  // namespace

VotePage::VotePage(VerdictController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      asked_(new QLineEdit),
      rigs_(new QListWidget),
      leftOut_(new WholeLabel),
      row_(new MakingRow(publisher_, "voteSaid", "stopVote")),
      first_(new WholeLabel),
      words_(new WholeLabel),
      result_(new QWidget),
      plot_(dressedPlot("votePlot")),
      pairs_(readTable("votePairs", tr("Any two, and how often one is preferred"),
                       {tr("Which over which"), tr("Times in 100 (95 %)"), {}}, 0)),
      readings_(readTable("voteReadings", tr("Readings held against the vote"),
                          {tr("Reading"), tr("Goes with the vote")}, 1)) {
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(14);
  layout->addWidget(buildLeft());
  layout->addWidget(buildRight(), 1);
  connect(&controller, &VerdictController::changed, this, &VotePage::refresh);
}

QWidget* VotePage::buildLeft() {
  auto* box = new QWidget;
  keepColumn(*box, kChoicesWidth_px);
  auto* left = new QVBoxLayout(box);
  left->setContentsMargins(0, 0, 0, 0);
  auto* label = headingLabel(tr("What is asked"));
  label->setBuddy(asked_);
  asked_->setObjectName("voteAsked");
  asked_->setAccessibleName(label->text());
  asked_->setPlaceholderText(tr("Which of the two do you like better?"));
  connect(asked_, &QLineEdit::editingFinished, this, &VotePage::keepQuestion);
  left->addWidget(label);
  left->addWidget(asked_);
  auto* which = headingLabel(tr("Which rigs are in it"));
  which->setBuddy(rigs_);
  rigs_->setObjectName("voteRigs");
  rigs_->setAccessibleName(which->text());
  left->addWidget(which);
  left->addWidget(rigs_, 1);
  setLook(*leftOut_, "faint", true);
  left->addWidget(leftOut_);
  auto* write = namedButton(tr("Write the ballot page …"), "writeBallotPage");
  write->setToolTip(
      tr("A folder with a page and nameless clips, to be handed to those who vote. It works without a "
         "network."));
  auto* take = namedButton(tr("Take in ballots …"), "takeBallots");
  left->addWidget(write);
  left->addWidget(take);
  left->addWidget(row_);
  connect(write, &QPushButton::clicked, this, [this] {
    const QString folder = askWhereTo(this, tr("Where to"), "ballot");
    if (!folder.isEmpty()) writePage(folder);
  });
  connect(take, &QPushButton::clicked, this, [this] {
    const QStringList files = askForFiles(this, tr("Ballots that came back"), tr("Ballots (*.json)"));
    if (!files.isEmpty()) takeIn(files);
  });
  return box;
}

QWidget* VotePage::buildRight() {
  auto* box = new QWidget;
  auto* right = new QVBoxLayout(box);
  right->setContentsMargins(0, 0, 0, 0);
  first_->setObjectName("voteFirst");
  setLetters(*first_, "large");
  right->addWidget(first_);
  words_->setObjectName("voteWords");
  right->addWidget(words_);
  auto* inner = new QVBoxLayout(result_);
  inner->setContentsMargins(0, 0, 0, 0);
  inner->addWidget(plot_, 3);
  auto* tables = new QHBoxLayout;
  tables->addWidget(pairs_, 3);
  tables->addWidget(readings_, 2);
  inner->addLayout(tables, 2);
  right->addWidget(result_, 1);
  right->addStretch();
  return box;
}

void VotePage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void VotePage::keepQuestion() {
  const std::string asked = asked_->text().trimmed().toStdString();
  controller_.edit(tr("What is asked"), [&asked](VerdictPlan& plan) { plan.vote.asked = asked; });
}

std::vector<std::string> VotePage::ticked() const {
  std::vector<std::string> out;
  for (int i = 0; i < rigs_->count(); ++i) {
    if (rigs_->item(i)->checkState() == Qt::Checked) out.push_back(rigs_->item(i)->text().toStdString());
  }
  return out;
}

void VotePage::writePage(const QString& folder) {
  if (publisher_.busy()) return;  // how far it is stands below
  keepQuestion();
  const std::vector<std::string> rigs = ticked();
  if (rigs.size() < 2) return row_->say(tr("Tick two rigs at least."), true);
  controller_.edit(tr("Begin the vote"), [&rigs](VerdictPlan& plan) {
    plan.vote = votePrepared(std::move(plan.vote), rigs, QRandomGenerator::system()->generate64());
  });
  std::vector<ShownPass> passes = shownPasses(controller_.lineUp());
  std::erase_if(passes, [&](const ShownPass& pass) {
    return std::find(rigs.begin(), rigs.end(), pass.rig.toStdString()) == rigs.end();
  });
  publisher_.writeBallot(controller_.plan().vote, passes, folder);
}

void VotePage::takeIn(const QStringList& files) {
  Vote vote = controller_.plan().vote;
  std::size_t taken = 0;
  QStringList troubles;
  for (const QString& file : files) {
    const auto ballot = ballotIn(file);
    const std::string why =
        ballot ? whyNotCounted(vote, ballot->vote, ballot->ballot) : ballot.error().message;
    if (!why.empty()) {
      troubles += QString("%1: %2").arg(QFileInfo(file).fileName(), QString::fromStdString(why));
      continue;
    }
    vote.ballots.push_back(ballot->ballot);
    ++taken;
  }
  if (taken > 0) controller_.edit(tr("Ballots"), [&vote](VerdictPlan& plan) { plan.vote = vote; });
  QString says = tr("%1 taken in.").arg(counted(taken, tr("ballot"), tr("ballots")));
  if (!troubles.isEmpty()) says += " " + tr("Not counted: %1.").arg(troubles.join("; "));
  row_->say(says, !troubles.isEmpty());
}

void VotePage::refresh() {
  if (!isVisible()) return;
  const Vote& vote = controller_.plan().vote;
  if (!asked_->hasFocus()) asked_->setText(QString::fromStdString(vote.asked));
  showRigs();
  const VoteCount count = countVote(vote, ungradedAmong(controller_.lineUp().entries()));
  result_->setVisible(!count.rigs.empty());
  if (count.rigs.empty()) {
    first_->setText(tr("Nobody has voted yet."));
    words_->setText(
        tr("Write the ballot page and hand its folder to those who watch. They see two nameless clips at a "
           "time and "
           "keep a small file at the end. Take those files in here."));
    return;
  }
  QStringList lines = voteInWords(vote, count);
  first_->setText(lines.takeFirst());
  words_->setText(lines.join(" "));
  drawVote(*plot_, count);
  showPairs(count);
  showReadings(count);
}

/// Those that are graded; ticked at first, or as the vote was begun.
void VotePage::showRigs() {
  const Vote& vote = controller_.plan().vote;
  QStringList names, apart;
  for (const Entry& entry : controller_.lineUp().entries())
    (entry.graded ? names : apart) += QString::fromStdString(entry.rig);
  leftOut_->setText(apart.isEmpty() ? QString()
                                    : tr("Shown, not graded, so in no vote: %1.").arg(apart.join("; ")));
  leftOut_->setVisible(!apart.isEmpty());
  QStringList now;
  for (int i = 0; i < rigs_->count(); ++i) now += rigs_->item(i)->text();
  if (now == names) return;
  rigs_->clear();
  for (const QString& name : names) {
    auto* item = new QListWidgetItem(name, rigs_);
    const bool in = vote.rigs.empty() ||
                    std::find(vote.rigs.begin(), vote.rigs.end(), name.toStdString()) != vote.rigs.end();
    item->setCheckState(in ? Qt::Checked : Qt::Unchecked);
  }
}

void VotePage::showPairs(const VoteCount& count) {
  std::vector<QStringList> rows;
  for (const PreferredPair& pair : count.pairs) {
    rows.push_back({tr("%1 over %2")
                        .arg(QString::fromStdString(count.rigs[pair.a].rig),
                             QString::fromStdString(count.rigs[pair.b].rig)),
                    QString("%1 (%2 – %3)")
                        .arg(100.0 * pair.p, 0, 'f', 0)
                        .arg(100.0 * pair.low, 0, 'f', 0)
                        .arg(100.0 * pair.high, 0, 'f', 0),
                    pair.apart() ? tr("preferred") : tr("too close to call")});
  }
  fill(*pairs_, rows);
}

void VotePage::showReadings(const VoteCount& count) {
  std::vector<QStringList> rows;
  for (const ReadingAndVote& one : readingsAndVote(count, controller_.lineUp().passes())) {
    rows.push_back(
        {spokenName(one.reading),
         one.tooFew.empty()
             ? tr("rank agreement %1, p %2").arg(one.agreement.rho, 0, 'f', 2).arg(one.p, 0, 'f', 3)
             : QString::fromStdString(one.tooFew)});
  }
  fill(*readings_, rows);
}

}  // namespace fin::app
