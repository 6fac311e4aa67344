// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/booklet.h"
#include "core/io/text_file.h"
#include "render/print_dots.h"
#include "render/sheets_pdf.h"
#include "words/booklet_words.h"
#include "words/words.h"
#include <QBuffer>
#include <QFontMetricsF>
#include <QPdfWriter>
#include <algorithm>

namespace hinge {
namespace {

constexpr double kBookletMargin_mm = 11, kFoot_mm = 7, kGap_mm = 4.5, kNote_mm = 2.9,
                 kWhat_mm = 3.7, kHead_mm = 4.6;
/// Width to height of a step's picture; a little more than half a page holds two of them.
constexpr double kPicture = 0.5;

/// Something that stands on a page and is not parted.
struct Block {
  double high_mm = 0;
  std::function<void(QPainter&, const QRectF&)> draw; ///< into a box in dots
  bool ownPage = false, withNext = false;
  bool picture = false;
};

QString qt(const std::string& text) {
  return QString::fromStdString(text);
}

/// Text as it is broken into lines of a width.
class Paragraph {
public:
  Paragraph(QString text, double size_mm, int weight, double wide_mm)
      : m_text(std::move(text)), m_font(fontOf(size_mm, weight)) {
    const QRectF box = QFontMetricsF(m_font).boundingRect(QRectF(0, 0, wide_mm * kDotsPerMm, 1e7),
                                                          Qt::TextWordWrap, m_text);
    m_high = box.height();
  }
  double high() const { return m_high; } ///< dots
  void draw(QPainter& p, const QRectF& box) const {
    p.setFont(m_font);
    p.setPen(Qt::black);
    p.drawText(box, Qt::TextWordWrap, m_text);
  }

private:
  QString m_text;
  QFont m_font;
  double m_high;
};

class Booklet {
public:
  Booklet(const PlannedWork& work, const StepPainter& painter, const BookletWords& words,
          const BookletWishes& wishes)
      : m_work(work), m_painter(painter), m_words(words), m_page_mm(wishes.page_mm),
        m_wide_mm(wishes.page_mm.x() - 2 * kBookletMargin_mm) {
    cover();
    for (const BookletSection& section : words.sections)
      add(section);
    heading(say(Text("booklet.steps")));
    for (std::size_t k = 0; k < words.steps.size(); ++k)
      step(k);
    paginate();
  }

  std::size_t pages() const { return m_pages.size(); }
  std::size_t pictures() const {
    return static_cast<std::size_t>(
        std::ranges::count_if(m_blocks, [](const Block& b) { return b.picture; }));
  }

  /// A page with its left upper corner in the painter's origin. False when it was stopped.
  bool draw(QPainter& p, std::size_t page, std::stop_token stop,
            const std::function<void()>& painted) const {
    for (const auto& [block, y] : m_pages[page]) {
      if (stop.stop_requested()) return false;
      const Block& one = m_blocks[block];
      one.draw(p, QRectF(dots(kBookletMargin_mm, y),
                         dots(m_page_mm.x() - kBookletMargin_mm, y + one.high_mm)));
      if (one.picture && painted) painted();
    }
    if (page == 0) return true;
    p.setFont(fontOf(2.6));
    p.setPen(Qt::darkGray);
    p.drawText(QRectF(dots(kBookletMargin_mm, m_page_mm.y() - kBookletMargin_mm),
                      dots(m_page_mm.x() - kBookletMargin_mm, m_page_mm.y() - 3)),
               Qt::AlignVCenter | (page % 2 == 0 ? Qt::AlignRight : Qt::AlignLeft),
               qt(say(Text("booklet.page", Text("as-it-is", m_words.title), page + 1))));
    return true;
  }

private:
  void cover() {
    const double high = m_page_mm.y() - 2 * kBookletMargin_mm;
    m_blocks.push_back(
        {high,
         [this](QPainter& p, const QRectF& box) {
           const Paragraph title(qt(m_words.title), 8, QFont::Bold, m_wide_mm),
               about(qt(m_words.about), 3.4, QFont::Normal, m_wide_mm);
           const double gap = 4 * kDotsPerMm, text = title.high() + gap + about.high();
           QRectF picture = box;
           picture.setBottom(box.bottom() - text - 2 * gap);
           m_painter.paintCover(p, picture);
           title.draw(p, QRectF(box.left(), box.bottom() - text, box.width(), title.high()));
           about.draw(p,
                      QRectF(box.left(), box.bottom() - about.high(), box.width(), about.high()));
         },
         true});
  }

  void text(const QString& words, double size_mm, int weight, bool withNext = false) {
    const Paragraph paragraph(words, size_mm, weight, m_wide_mm);
    m_blocks.push_back({paragraph.high() / kDotsPerMm + 1,
                        [paragraph](QPainter& p, const QRectF& box) { paragraph.draw(p, box); },
                        false, withNext});
  }
  void heading(const std::string& words) {
    if (!m_blocks.empty()) m_blocks.push_back({3, [](QPainter&, const QRectF&) {}, false, true});
    text(qt(words), kHead_mm, QFont::Bold, true);
  }
  void add(const BookletSection& section) {
    heading(section.heading);
    for (const std::string& line : section.lines)
      text(QStringLiteral("–  ") + qt(line), kNote_mm + 0.2, QFont::Normal);
  }

  void step(std::size_t number) {
    const StepWords& words = m_words.steps[number];
    const WorkStep& step = m_work.plan.steps[number];
    constexpr double kBox_mm = 4.5, kIndent_mm = 7;
    const Paragraph what(QStringLiteral("%1.  %2").arg(number + 1).arg(qt(words.what)), kWhat_mm,
                         QFont::DemiBold, m_wide_mm - kIndent_mm);
    QString notes;
    for (const std::string& note : notesBesidePicture(step, words))
      notes += qt(note) + QLatin1Char('\n');
    for (const std::string& caution : words.cautions)
      notes += QStringLiteral("!  ") + qt(caution) + QLatin1Char('\n');
    const Paragraph below(notes.trimmed(), kNote_mm, QFont::Normal, m_wide_mm - kIndent_mm);
    const bool pictured = step.kind != WorkKind::Wait;
    const double picture = pictured ? kPicture * m_wide_mm : 0;
    const double high =
        (what.high() + (notes.isEmpty() ? 0 : below.high())) / kDotsPerMm + picture + 2 + kGap_mm;
    m_blocks.push_back({high,
                        [=, this](QPainter& p, const QRectF& box) {
                          p.setPen(QPen(Qt::black, 0.3 * kDotsPerMm));
                          p.setBrush(Qt::NoBrush);
                          p.drawRect(QRectF(box.topLeft(), QSizeF(kBox_mm, kBox_mm) * kDotsPerMm));
                          QRectF at = box;
                          at.setLeft(box.left() + kIndent_mm * kDotsPerMm);
                          what.draw(p, at);
                          at.setTop(at.top() + what.high() + kDotsPerMm);
                          if (pictured) {
                            m_painter.paint(
                                p, QRectF(at.topLeft(), QSizeF(at.width(), picture * kDotsPerMm)),
                                number);
                            at.setTop(at.top() + (picture + 1) * kDotsPerMm);
                          }
                          below.draw(p, at);
                        },
                        false, false, pictured});
  }

  void paginate() {
    double y = 1e9;
    const double bottom = m_page_mm.y() - kBookletMargin_mm - kFoot_mm;
    for (std::size_t k = 0; k < m_blocks.size(); ++k) {
      // A heading stays with what it heads.
      double needs = 0;
      for (std::size_t j = k; j < m_blocks.size(); ++j) {
        needs += m_blocks[j].high_mm;
        if (!m_blocks[j].withNext) break;
      }
      if (m_pages.empty() || m_blocks[k].ownPage || (y > kBookletMargin_mm && y + needs > bottom)) {
        m_pages.emplace_back();
        y = kBookletMargin_mm;
      }
      m_pages.back().push_back({k, y});
      y += m_blocks[k].high_mm;
      if (m_blocks[k].ownPage) y = 1e9;
    }
  }

  const PlannedWork& m_work;
  const StepPainter& m_painter;
  const BookletWords& m_words;
  Vec2 m_page_mm;
  double m_wide_mm;
  std::vector<Block> m_blocks;
  std::vector<std::vector<std::pair<std::size_t, double>>> m_pages; ///< block, and its top in mm
};

/// Which two pages stand on a side of a sheet; past the end: none.
std::vector<std::array<std::size_t, 2>> folded(std::size_t pages) {
  const std::size_t all = (pages + 3) / 4 * 4;
  std::vector<std::array<std::size_t, 2>> sides;
  for (std::size_t k = 0; k < all / 2; ++k) {
    const std::size_t low = k, high = all - 1 - k;
    sides.push_back(k % 2 == 0 ? std::array{high, low} : std::array{low, high});
  }
  return sides;
}

QString escaped(const std::string& text) {
  return qt(text).toHtmlEscaped();
}

QString tableHtml(const ReadTable& table) {
  QString html = QStringLiteral("<h3>%1</h3>").arg(escaped(table.title));
  for (const std::string& line : table.lines)
    html += QStringLiteral("<p>%1</p>").arg(escaped(line));
  if (table.rows.empty()) return html;
  const auto row = [](const std::vector<std::string>& cells, const char* tag) {
    QString all;
    for (const std::string& cell : cells)
      all += QStringLiteral("<%1>%2</%1>").arg(QLatin1String(tag), escaped(cell));
    return QStringLiteral("<tr>%1</tr>\n").arg(all);
  };
  html += QStringLiteral("<table>") + row(table.head, "th");
  for (const auto& cells : table.rows)
    html += row(cells, "td");
  return html + QStringLiteral("</table>\n");
}

constexpr QSize kHtmlPicture(760, 420);

/// As an image of its own: gradients in pictures side by side would share their names.
QString pictureHtml(const QByteArray& svg, const QString& alt) {
  return QStringLiteral("<img alt=\"%1\" src=\"data:image/svg+xml;base64,%2\">\n")
      .arg(alt, QString::fromLatin1(svg.toBase64()));
}

QString stepHtml(const StepPainter& painter, const PlannedWork& work, const StepWords& words,
                 std::size_t number) {
  QString html = QStringLiteral("<section><label><input type=\"checkbox\"> <b>%1.</b> %2</label>\n")
                     .arg(number + 1)
                     .arg(escaped(words.what));
  if (work.plan.steps[number].kind != WorkKind::Wait)
    html +=
        pictureHtml(stepSvg(painter, number, kHtmlPicture, qt(words.what)), escaped(words.what));
  for (const std::string& note : words.notes)
    html += QStringLiteral("<p>%1</p>\n").arg(escaped(note));
  for (const std::string& caution : words.cautions)
    html += QStringLiteral("<p class=\"mind\">%1</p>\n").arg(escaped(caution));
  return html + QStringLiteral("</section>\n");
}

QString htmlHead(const BookletWords& words) {
  return QStringLiteral(
             "<!doctype html>\n<html><head><meta charset=\"utf-8\"><title>%1</title><style>\n"
             "body{font:16px/1.45 Lato,sans-serif;max-width:760px;margin:2em auto;padding:0 1em;"
             "color:#222}\nsection{break-inside:avoid;margin:1.6em 0;border-top:1px solid #ccc;"
             "padding-top:.8em}\nimg{width:100%;height:auto}\ntable{border-collapse:collapse}\n"
             "th,td{text-align:left;padding:.1em .8em .1em 0;font-variant-numeric:tabular-nums}\n"
             "p{margin:.2em 0}\n.mind{border-left:4px solid #222;padding-left:.6em}\n"
             "</style></head><body>\n<h1>%1</h1>\n<p>%2</p>\n")
      .arg(escaped(words.title), escaped(words.about));
}

} // namespace

Result<void> writeBooklet(const PlannedWork& work, const StepPainter& painter, const Bench& bench,
                          const std::string& path, const BookletWishes& wishes,
                          std::stop_token stop, const Progress& progress, Replaces replaces) {
  const BookletWords words = bookletWords(work, printedPlan(*work.snapshot), bench);
  const Booklet booklet(work, painter, words, wishes);
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    const Vec2 page = wishes.page_mm;
    writer.setPageSize(exactPage(wishes.stapled ? Vec2(2 * page.x(), page.y()) : page));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    writer.setResolution(kDotsPerInch);
    writer.setTitle(qt(words.title));
    writer.setCreator(QStringLiteral("Hinge Lantern"));
    QPainter p(&writer);
    std::size_t done = 0;
    const auto painted = [&] {
      if (progress) progress(++done, booklet.pictures());
    };
    std::vector<std::vector<std::size_t>> sides;
    if (wishes.stapled)
      for (const auto& [left, right] : folded(booklet.pages()))
        sides.push_back({left, right});
    else
      for (std::size_t k = 0; k < booklet.pages(); ++k)
        sides.push_back({k});
    for (std::size_t k = 0; k < sides.size(); ++k) {
      if (k > 0) writer.newPage();
      for (std::size_t half = 0; half < sides[k].size(); ++half) {
        if (sides[k][half] >= booklet.pages()) continue;
        p.save();
        p.translate(static_cast<double>(half) * page.x() * kDotsPerMm, 0);
        const bool whole = booklet.draw(p, sides[k][half], stop, painted);
        p.restore();
        if (!whole) return Error{"stopped", path};
      }
    }
    if (wishes.templates) appendSheets(writer, p, *work.snapshot, bench);
  }
  return writeOutput(
      path,
      std::string_view(buffer.data().constData(), static_cast<std::size_t>(buffer.data().size())),
      replaces);
}

Result<void> writeBookletHtml(const PlannedWork& work, const StepPainter& painter,
                              const Bench& bench, const std::string& path, std::stop_token stop,
                              const Progress& progress, Replaces replaces) {
  const BookletWords words = bookletWords(work, printedPlan(*work.snapshot), bench);
  QString html = htmlHead(words);
  for (const BookletSection& section : words.sections) {
    html += QStringLiteral("<h2>%1</h2>\n<ul>\n").arg(escaped(section.heading));
    for (const std::string& line : section.lines)
      html += QStringLiteral("<li>%1</li>\n").arg(escaped(line));
    html += QStringLiteral("</ul>\n");
  }
  html += QStringLiteral("<h2>%1</h2>\n").arg(escaped(say(Text("booklet.steps"))));
  for (std::size_t k = 0; k < words.steps.size(); ++k) {
    if (stop.stop_requested()) return Error{"stopped", path};
    html += stepHtml(painter, work, words.steps[k], k);
    if (progress) progress(k + 1, words.steps.size());
  }
  html += QStringLiteral("<h2>%1</h2>\n").arg(escaped(say(Text("booklet.tables"))));
  for (const ReadTable& table : words.tables)
    html += tableHtml(table);
  html += QStringLiteral("</body></html>\n");
  return writeOutput(path, html.toStdString(), replaces);
}

} // namespace hinge
