// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/table_pages.h"
#include "render/flat_painter.h"
#include "render/print_dots.h"
#include <QCoreApplication>
#include <QFontMetricsF>

namespace hinge {
namespace {

struct TableTexts {
  Q_DECLARE_TR_FUNCTIONS(hinge::TableTexts)
};

constexpr double kTableMargin_mm = 12, kLine_mm = 4.6, kText_mm = 2.8, kTableHead_mm = 3.6;

class Pages {
public:
  Pages(QPdfWriter& writer, QPainter& painter, const Vec2& page_mm, QString title, bool first)
      : m_writer(writer), m_painter(painter), m_page_mm(page_mm), m_title(std::move(title)),
        m_open(first) {}

  void add(const ReadTable& table) {
    const double lines = 1.4 + static_cast<double>(table.lines.size()) +
                         (table.rows.empty() ? 0 : 1.2 + static_cast<double>(table.rows.size()));
    const double room = m_page_mm.y() - kTableMargin_mm - m_y;
    if (!m_begun || (lines * kLine_mm > room && room < m_page_mm.y() - 4 * kTableMargin_mm))
      begin();
    write(kTableMargin_mm, table.title, kTableHead_mm, QFont::Bold);
    m_y += 1.4 * kLine_mm;
    for (const std::string& line : table.lines)
      write(kTableMargin_mm + 3, line, kText_mm), m_y += kLine_mm;
    if (table.rows.empty()) {
      m_y += 0.6 * kLine_mm;
      return;
    }
    const std::vector<double> columns = columnsOf(table);
    row(table.head, columns, QFont::Bold);
    m_painter.setPen(QPen(Qt::black, 0.15 * kDotsPerMm));
    m_painter.drawLine(dots(kTableMargin_mm + 3, m_y - 0.7 * kLine_mm),
                       dots(m_page_mm.x() - kTableMargin_mm, m_y - 0.7 * kLine_mm));
    m_y += 0.2 * kLine_mm;
    for (const auto& cells : table.rows) {
      if (m_y > m_page_mm.y() - kTableMargin_mm) begin();
      row(cells, columns, QFont::Normal);
    }
    m_y += 0.6 * kLine_mm;
  }

private:
  void begin() {
    if (!m_open) {
      m_writer.setPageSize(exactPage(m_page_mm));
      m_writer.newPage();
    }
    m_open = false, m_begun = true, m_y = kTableMargin_mm + kTableHead_mm;
    write(kTableMargin_mm, TableTexts::tr("%1: where to score and cut").arg(m_title).toStdString(),
          kTableHead_mm, QFont::Bold);
    m_y += 1.3 * kLine_mm;
    legend();
    m_y += 2 * kLine_mm;
  }

  /// The line code, as it is on the sheets.
  void legend() {
    const Theme theme = Theme::light();
    double x = kTableMargin_mm;
    for (LineKind kind : {LineKind::Cut, LineKind::Mountain, LineKind::Valley}) {
      m_painter.setPen(linePen(kind, theme, 0.3 * kDotsPerMm));
      m_painter.drawLine(dots(x, m_y - 1), dots(x + 14, m_y - 1));
      m_painter.setPen(Qt::black);
      m_painter.setFont(fontOf(kText_mm));
      m_painter.drawText(dots(x + 16, m_y), lineName(kind));
      x += 46;
    }
  }

  void write(double x, const std::string& text, double size_mm, int weight = QFont::Normal) {
    m_painter.setPen(Qt::black);
    m_painter.setFont(fontOf(size_mm, weight));
    m_painter.drawText(dots(x, m_y), QString::fromStdString(text));
  }

  void row(const std::vector<std::string>& cells, const std::vector<double>& columns, int weight) {
    for (std::size_t c = 0; c < cells.size(); ++c)
      write(columns[c], cells[c], kText_mm, weight);
    m_y += kLine_mm;
  }

  /// Where the columns begin: as wide as their widest cell.
  std::vector<double> columnsOf(const ReadTable& table) const {
    const QFontMetricsF metrics(fontOf(kText_mm, QFont::Bold));
    std::vector<double> at{kTableMargin_mm + 3};
    for (std::size_t c = 0; c + 1 < table.head.size(); ++c) {
      const auto width = [&](const std::string& text) {
        return metrics.horizontalAdvance(QString::fromStdString(text)) / kDotsPerMm;
      };
      double wide = width(table.head[c]);
      for (const auto& cells : table.rows)
        wide = std::max(wide, width(cells[c]));
      at.push_back(at.back() + wide + 4);
    }
    return at;
  }

  QPdfWriter& m_writer;
  QPainter& m_painter;
  Vec2 m_page_mm;
  QString m_title;
  double m_y = 0;
  bool m_begun = false, m_open;
};

} // namespace

void paintTables(QPdfWriter& writer, QPainter& painter, const Vec2& page_mm, const QString& title,
                 const std::vector<ReadTable>& tables, bool first) {
  Pages pages(writer, painter, page_mm, title, first);
  for (const ReadTable& table : tables)
    pages.add(table);
}

} // namespace hinge
