// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/publisher.h"

#include <QRect>
#include <algorithm>

#include "app/controllers/pass_controller.h"
#include "app/jobs/picture_image.h"
#include "core/publishing/ballot_page.h"
#include "core/publishing/filmed_pass.h"
#include "core/units/whole_file.h"
#include "core/units/whole_folder.h"

namespace fin::app {
namespace {

constexpr int kStill_px = 960;
constexpr double kLureShare = 0.5;  ///< of the picture's width
constexpr double kNearer = 2.5;     ///< where its length is not known
constexpr int kLeastPart_px = 120;

/// About the lure, 4 to 3, within the picture.
QRect partAbout(const PixelPoint& lure, std::optional<double> length_px, QSize picture) {
  const double wanted = length_px ? *length_px / kLureShare : picture.width() / kNearer;
  const int width =
      std::clamp(static_cast<int>(wanted), std::min(kLeastPart_px, picture.width()), picture.width());
  QRect part(0, 0, width, std::min(3 * width / 4, picture.height()));
  part.moveCenter(QPoint(static_cast<int>(lure.x_px), static_cast<int>(lure.y_px)));
  part.moveLeft(std::clamp(part.left(), 0, picture.width() - part.width()));
  part.moveTop(std::clamp(part.top(), 0, picture.height() - part.height()));
  return part;
}

QImage pictureOf(const ShownPass& pass, const JobControl& job) {
  const auto clip = openClip(pass.request, {.job = {job.stop, {}}});
  const auto reader = clip ? Clip::reader(*clip, {}) : tl::unexpected(clip.error());
  if (!reader) return {};
  const std::vector<FilmLure> lure = pass.measured ? lureOn(pass.measured->track) : std::vector<FilmLure>();
  const FilmLure middle = lure.empty() ? FilmLure{pass.request.firstFrame, {}} : lure[lure.size() / 2];
  const auto picture = (*reader)->frame(middle.frame);
  if (!picture) return {};
  const QSize size(picture->width(), picture->height());
  const QRect part =
      lure.empty() ? QRect() : partAbout(middle.at, lureLength_px(pass.request, pass.measured->track), size);
  return imageOf(*picture, kStill_px, part);
}

/// Loops of the passes into a folder, each called by its number from 1; true for those that could be made.
Result<std::vector<bool>> writeLoops(const std::vector<ShownPass>& passes,
                                     const std::filesystem::path& folder, const JobControl& job) {
  std::error_code failed;
  std::filesystem::create_directory(folder, failed);
  std::vector<bool> out;
  for (std::size_t i = 0; i < passes.size(); ++i) {
    const double each = 1.0 / static_cast<double>(passes.size());
    const JobControl part = partOf(job, each * static_cast<double>(i), each * static_cast<double>(i + 1));
    const Track none;
    const auto loop = loopOf(passes[i].request, passes[i].measured ? passes[i].measured->track : none, part);
    const auto written =
        loop ? writeLoop(*loop, folder / std::to_string(i + 1), part) : tl::unexpected(loop.error());
    const bool mayGoOn = written || written.error().code == ErrorCode::Unreadable ||
                         written.error().code == ErrorCode::BadRequest;
    if (!mayGoOn) return tl::unexpected(written.error());
    out.push_back(written.has_value());
  }
  return out;
}

std::size_t missing(const std::vector<bool>& made) {
  return static_cast<std::size_t>(std::count(made.begin(), made.end(), false));
}

QString writtenInWords(const QString& folder, const std::vector<bool>& made) {
  QString out = QObject::tr("Written: %1. Open index.html in it.").arg(folder);
  if (missing(made) > 0)
    out += " " + QObject::tr("Without a clip, as it is gone or cannot be read: %1.")
                     .arg(counted(missing(made), QObject::tr("rig"), QObject::tr("rigs")));
  return out;
}

Result<QString> webPage(Report report, const std::vector<ShownPass>& passes, const QString& folder,
                        const JobControl& job) {
  auto whole = WholeFolder::begin(folder.toStdString());
  if (!whole) return tl::unexpected(whole.error());
  const auto made = writeLoops(passes, whole->part() / "clips", job);
  if (!made) return tl::unexpected(made.error());
  for (ReportRig& rig : report.rigs) {
    for (std::size_t i = 0; i < passes.size(); ++i) {
      if (passes[i].rig == rig.name && (*made)[i]) rig.loop = QString("clips/%1").arg(i + 1);
    }
  }
  const std::string page = reportHtml(report, ReportForm::Web).toStdString();
  if (auto ok = writeWhole(whole->part() / "index.html", page); !ok) return tl::unexpected(ok.error());
  if (auto ok = whole->keep(); !ok) return tl::unexpected(ok.error());
  return writtenInWords(folder, *made);
}

Result<QString> ballot(const Vote& vote, const std::vector<ShownPass>& passes, const QString& folder,
                       const JobControl& job) {
  auto whole = WholeFolder::begin(folder.toStdString());
  if (!whole) return tl::unexpected(whole.error());
  // By place in the vote, so that files tell nothing of the order in which rigs were filmed.
  std::vector<ShownPass> byPlace;
  std::vector<std::size_t> places;
  for (std::size_t place = 0; place < vote.rigs.size(); ++place) {
    for (const ShownPass& pass : passes) {
      if (pass.rig.toStdString() != vote.rigs[place]) continue;
      byPlace.push_back(pass);
      places.push_back(place);
    }
  }
  const auto made = writeLoops(byPlace, whole->part() / "clips", job);
  if (!made) return tl::unexpected(made.error());
  std::vector<BallotClip> clips;
  for (std::size_t i = 0; i < places.size(); ++i) {
    const std::string name = "clips/" + std::to_string(i + 1);
    if ((*made)[i]) clips.push_back({places[i], name + ".mp4", name + ".webm"});
  }
  if (clips.size() < 2)
    return failure(ErrorCode::BadRequest,
                   QObject::tr("A vote needs the clips of two rigs at least.").toStdString(), "ballot");
  if (auto ok = writeWhole(whole->part() / "index.html", ballotPage(vote, clips)); !ok)
    return tl::unexpected(ok.error());
  if (auto ok = whole->keep(); !ok) return tl::unexpected(ok.error());
  return writtenInWords(folder, *made);
}

}  // namespace

std::vector<ShownPass> shownPasses(const LineUp& lineUp) {
  const Log& log = lineUp.passController().log();
  struct Candidate {
    QString rig;
    LoggedPass pass;
  };
  std::vector<Candidate> all;
  std::map<std::pair<Protocol, View>, std::vector<QString>> rigsOf;
  std::vector<QString> rigs;
  for (const ComparedPass& compared : lineUp.passes()) {
    const auto pass = log.pass(compared.id);
    if (!pass) continue;
    const QString rig = QString::fromStdString(compared.rig);
    if (std::find(rigs.begin(), rigs.end(), rig) == rigs.end()) rigs.push_back(rig);
    auto& same = rigsOf[{pass->request.protocol, pass->request.view}];
    if (std::find(same.begin(), same.end(), rig) == same.end()) same.push_back(rig);
    all.push_back({rig, *pass});
  }
  const auto commonest = std::max_element(rigsOf.begin(), rigsOf.end(), [](const auto& a, const auto& b) {
    return a.second.size() < b.second.size();
  });
  std::vector<ShownPass> out;
  for (const QString& rig : rigs) {
    const auto first = [&](bool ofCommonest) {
      return std::find_if(all.begin(), all.end(), [&](const Candidate& c) {
        return c.rig == rig &&
               (!ofCommonest || std::pair(c.pass.request.protocol, c.pass.request.view) == commonest->first);
      });
    };
    auto chosen = first(true);
    if (chosen == all.end()) chosen = first(false);
    auto measured = log.measurement(chosen->pass.id);
    out.push_back({rig, chosen->pass.request, measured ? std::move(*measured) : nullptr});
  }
  return out;
}

std::map<QString, QImage> picturesOf(const std::vector<ShownPass>& passes, const JobControl& job) {
  std::map<QString, QImage> out;
  for (const ShownPass& pass : passes) {
    if (job.cancelled()) break;
    if (QImage picture = pictureOf(pass, job); !picture.isNull()) out.emplace(pass.rig, std::move(picture));
  }
  return out;
}

void Publisher::writeWebPage(const Report& report, const std::vector<ShownPass>& passes,
                             const QString& folder) {
  start([report, passes, folder](const JobControl& job) { return webPage(report, passes, folder, job); });
}

void Publisher::writeBallot(const Vote& vote, const std::vector<ShownPass>& passes, const QString& folder) {
  start([vote, passes, folder](const JobControl& job) { return ballot(vote, passes, folder, job); });
}

}  // namespace fin::app
