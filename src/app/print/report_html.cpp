// SPDX-License-Identifier: GPL-3.0-or-later
#include <QBuffer>
#include <QObject>

#include "app/print/report.h"

namespace fin::app {
namespace {

constexpr int kPageWidth_px = 680;
constexpr int kStill_px = 620;
constexpr std::size_t kInARow = 3;

QString cell(const QString& text) {
  QString out = text.toHtmlEscaped();
  return out.replace('\'', "&#39;");
}

/// Into the text itself, so that the page stands alone.
QString embedded(const QImage& image, const char* format) {
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  image.save(&buffer, format, 88);
  return QString("data:image/%1;base64,%2")
      .arg(QString(format).toLower(), QString::fromLatin1(bytes.toBase64()));
}

QString row(const QStringList& cells, const char* tag) {
  QString out = "<tr>";
  for (const QString& text : cells) out += QString("<%1>%2</%1>").arg(tag, cell(text));
  return out + "</tr>";
}

constexpr const char* kWebLook = R"(
body { font: 17px/1.5 Inter, system-ui, sans-serif; color: #1e262c; background: #f6f1e7; margin: 0; }
main { max-width: 980px; margin: 0 auto; padding: 20px 18px 60px; }
h1 { font-size: 1.5em; color: #555b5d; font-weight: 600; margin: 0.2em 0; }
h2 { font-size: 1.35em; margin: 1.8em 0 0.4em; }
h3 { font-size: 1.1em; margin: 1.2em 0 0.3em; }
.answer { font-size: 1.9em; line-height: 1.2; font-weight: 700; margin: 0.3em 0; }
.faint { color: #555b5d; }
img, video { max-width: 100%; height: auto; border-radius: 10px; display: block; }
video { width: 100%; background: #2a2f33; }
.rig { background: #fdfbf6; border: 1px solid #cfc6b4; border-radius: 14px; padding: 16px; margin: 18px 0; }
.rig h2 { margin-top: 0; }
.two { display: grid; grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr); gap: 18px; }
.reading { margin: 0 0 0.5em; } .reading b { display: block; font-size: 1.25em; font-variant-numeric: tabular-nums; }
.wide { overflow-x: auto; }
.plot img { min-width: 560px; }
table { border-collapse: collapse; font-size: 0.9em; width: 100%; }
td, th { text-align: left; vertical-align: top; padding: 5px 10px 5px 0; border-bottom: 1px solid #cfc6b4; }
nav a { color: #a84412; margin-right: 14px; display: inline-block; }
@media (max-width: 640px) { .two { grid-template-columns: minmax(0, 1fr); } .answer { font-size: 1.45em; } }
)";

/// Writes one report in one form.
class Html {
 public:
  Html(const Report& report, ReportForm form) : report_(report), web_(form == ReportForm::Web) {}

  QString page() const {
    return head() + first() + rigs() + comparisons() + section(report_.vote, NewPage::Yes) + methods() +
           appendix() + (web_ ? "</main></body></html>" : "</body></html>");
  }

 private:
  enum class NewPage { No, Yes };

  QString head() const {
    QString out = "<!DOCTYPE html><html lang='en'><head><meta charset='utf-8'>";
    if (web_) {
      out +=
          "<meta name='viewport' content='width=device-width, initial-scale=1'>"
          "<meta http-equiv='Content-Security-Policy' content=\"default-src 'self' file: data: "
          "'unsafe-inline'; "
          "script-src 'none'; connect-src 'none'\">";
      out += QString("<style>%1</style>").arg(kWebLook);
    }
    return out + "<title>" + cell(report_.title) + "</title></head><body>" + (web_ ? "<main>" : "");
  }

  QString heading(int level, const QString& text, NewPage page = NewPage::No) const {
    const QString look = !web_ && page == NewPage::Yes ? " style='page-break-before: always'" : "";
    return QString("<h%1%2>%3</h%1>").arg(level).arg(look, cell(text));
  }
  static QString paragraph(const QString& text, const char* look = "") {
    return text.isEmpty() ? QString() : QString("<p class='%1'>%2</p>").arg(look, cell(text));
  }
  static QString list(const QStringList& lines) {
    if (lines.isEmpty()) return {};
    QString out = "<ul>";
    for (const QString& line : lines) out += "<li>" + cell(line) + "</li>";
    return out + "</ul>";
  }
  QString table(const ReportTable& table) const {
    if (table.rows.empty()) return {};
    QString out =
        web_ ? "<div class='wide'><table>" : "<table border='1' cellspacing='0' cellpadding='4' width='98%'>";
    out += row(table.heads, "th");
    for (const QStringList& cells : table.rows) out += row(cells, "td");
    return out + (web_ ? "</table></div>" : "</table>");
  }
  QString picture(const QImage& image, const QString& says, int width_px, const char* format = "PNG") const {
    if (image.isNull()) return {};
    return QString("<img width='%1' alt='%2' src='%3'>")
        .arg(width_px)
        .arg(cell(says), embedded(image, format));
  }
  /// Its letters stay large enough on a phone: it is moved sideways there.
  QString drawn(const ReportPlot& plot) const {
    const QString image = picture(plot.picture, plot.title, kPageWidth_px);
    return web_ ? "<div class='wide plot'>" + image + "</div>" : "<p>" + image + "</p>";
  }
  QString plot(const ReportPlot& plot) const {
    if (plot.picture.isNull()) return {};
    return "<p>" + picture(plot.picture, plot.title, kPageWidth_px) + "</p>" +
           paragraph(plot.sentence, "faint");
  }

  /// The answer, before anything else.
  QString first() const {
    QString out = heading(1, report_.title);
    if (!report_.asked.isEmpty()) out += paragraph(report_.asked.join(" "), "faint");
    out += web_ ? paragraph(report_.answer, "answer")
                : "<p style='font-size: 19pt; font-weight: 600'>" + cell(report_.answer) + "</p>";
    out += paragraph(report_.firmness);
    out += paragraph(report_.ownWords);
    if (web_ && report_.rigs.size() > 1) out += contents();
    out += plot(report_.order);
    if (!report_.purposes.rows.empty())
      out += heading(2, QObject::tr("What each is for")) + table(report_.purposes) +
             paragraph(QObject::tr("Purposes for which no two rigs were read are left out."), "faint");
    return out;
  }

  QString contents() const {
    QString out = "<nav>";
    for (std::size_t i = 0; i < report_.rigs.size(); ++i)
      out += QString("<a href='#rig%1'>%2</a>").arg(i + 1).arg(cell(report_.rigs[i].name));
    return out + "</nav>";
  }

  QString rigs() const {
    QString out;
    for (std::size_t i = 0; i < report_.rigs.size(); ++i) out += rig(report_.rigs[i], i + 1);
    return out;
  }

  QString rig(const ReportRig& rig, std::size_t number) const {
    const QString seen = moving(rig);
    QString body = paragraph(rig.standing);
    body += web_ ? "<div class='two'><div>" + seen + "</div><div>" + numbers(rig) + "</div></div>"
                 : "<p>" + seen + "</p>" + numbers(rig);
    const auto part = [&](const QString& title, const QStringList& lines) {
      if (!lines.isEmpty()) body += heading(3, title) + list(lines);
    };
    part(QObject::tr("Best for"), rig.goodFor);
    if (rig.goodFor.isEmpty()) part(QObject::tr("Nearest to the best for"), rig.nearlyFor);
    part(QObject::tr("Against the control"), rig.againstControl);
    part(QObject::tr("Prices"), rig.prices);
    part(QObject::tr("What it is"), rig.madeOf);
    const QString name = rig.graded ? rig.name : QObject::tr("%1 (shown, not graded)").arg(rig.name);
    if (!web_) return heading(2, name, NewPage::Yes) + body;
    return QString("<section class='rig' id='rig%1'>").arg(number) + heading(2, name) + body + "</section>";
  }

  /// One under the other beside the clip; on paper in rows of three under the picture.
  QString numbers(const ReportRig& rig) const {
    if (rig.readings.empty()) return paragraph(QObject::tr("Nothing was read of it."), "faint");
    QString out = web_ ? "" : "<table width='98%' cellspacing='0' cellpadding='3'>";
    for (std::size_t i = 0; i < rig.readings.size(); ++i) {
      const QString name = cell(rig.readings[i].name), value = cell(rig.readings[i].value);
      if (web_) {
        out += QString("<p class='reading'>%1 <b>%2</b></p>").arg(name, value);
        continue;
      }
      if (i % kInARow == 0) out += i == 0 ? "<tr>" : "</tr><tr>";
      out += QString("<td width='33%'>%1<br><span style='font-size: 14pt; font-weight: 600'>%2</span></td>")
                 .arg(name, value);
    }
    return out + (web_ ? "" : "</tr></table>");
  }

  /// Its clip on the web page, else its picture.
  QString moving(const ReportRig& rig) const {
    if (web_ && !rig.loop.isEmpty()) {
      const QString poster =
          rig.picture.isNull() ? QString() : QString(" poster='%1'").arg(embedded(rig.picture, "JPEG"));
      return QString(
                 "<video autoplay muted loop playsinline controls preload='metadata' aria-label='%1'%2>"
                 "<source src='%3.mp4' type='video/mp4'><source src='%3.webm' type='video/webm'></video>")
          .arg(cell(rig.name), poster, cell(rig.loop));
    }
    if (rig.picture.isNull())
      return paragraph(QObject::tr("No picture: its clip is gone or cannot be read."), "faint");
    return picture(rig.picture, rig.name, kStill_px, "JPEG");
  }

  QString comparisons() const {
    if (report_.comparisons.empty()) return {};
    QString out =
        heading(2, QObject::tr("Side by side"), NewPage::Yes) +
        paragraph(
            QObject::tr("Rings are passes, diamonds means with their 95 % interval. A bar at the right joins "
                        "rigs that cannot be told apart."),
            "faint");
    for (const ReportPlot& one : report_.comparisons)
      out += heading(3, one.title) + drawn(one) + paragraph(one.sentence);
    return out;
  }

  QString section(const ReportSection& section, NewPage page) const {
    if (section.lines.isEmpty() && section.table.rows.empty()) return {};
    return heading(2, section.title, page) + list(section.lines) + table(section.table);
  }

  QString methods() const {
    QString out;
    for (const ReportSection& one : report_.methods)
      out += section(one, out.isEmpty() ? NewPage::Yes : NewPage::No);
    return out;
  }

  QString appendix() const {
    QString out = heading(2, QObject::tr("Appendix"), NewPage::Yes);
    for (const ReportSection& one : report_.appendix) {
      if (one.table.rows.empty()) continue;
      out += heading(3, one.title);
      for (const QString& line : one.lines) out += paragraph(line);
      out += table(one.table);
    }
    return out;
  }

  const Report& report_;
  bool web_;
};

}  // namespace

QString reportHtml(const Report& report, ReportForm form) {
  return Html(report, form).page();
}

}  // namespace fin::app
