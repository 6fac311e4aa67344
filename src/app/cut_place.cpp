// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/cut_place.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/checks/finding.h"
#include "core/io/fold_file.h"
#include "core/io/text_file.h"
#include "render/flat_painter.h"
#include "render/sheets_dxf.h"
#include "render/sheets_pdf.h"
#include "render/sheets_svg.h"
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>

namespace hinge {
namespace {

class SheetsView : public QWidget {
public:
  SheetsView(Document* document, QWidget* parent) : QWidget(parent), m_document(document) {
    setAccessibleName(tr("Cutting sheets"));
  }
  void refresh() {
    const auto assembled = m_document->snapshot()->assembly();
    if (!assembled) return;
    m_assembly = *assembled;
    m_pieces = m_document->snapshot()->sheets()->pieces;
    m_layout = m_document->snapshot()->sheets()->layout;
    updateGeometry();
    setMinimumHeight(std::max(0, heightFor(width())));
    update();
  }
  int sheets() const { return m_layout.sheets; }

protected:
  void resizeEvent(QResizeEvent*) override { setMinimumHeight(std::max(0, heightFor(width()))); }
  void paintEvent(QPaintEvent*) override {
    if (!m_assembly) return;
    const Theme& theme = Look::theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const double scale = scaleFor(width());
    const int columns = columnsFor(width());
    for (int sheet = 0; sheet < m_layout.sheets; ++sheet) {
      Box2 extent;
      extent.add(Vec2(0, 0)), extent.add(Vec2(m_layout.width_mm, m_layout.height_mm));
      bool oversize = false;
      for (const SheetPlace& place : m_layout.places)
        if (place.sheet == sheet && place.oversize) {
          oversize = true;
          const FlatPiece& piece = *std::ranges::find(m_pieces, place.piece, &FlatPiece::piece);
          for (const Vec2& c : {piece.bounds.low, piece.bounds.high})
            extent.add(Vec2(place.onSheet(c) + Vec2(m_layout.margin_mm, m_layout.margin_mm)));
        }
      // A piece larger than the sheet is shown whole, smaller.
      const double shrink =
          std::min(m_layout.width_mm / extent.size().x(), m_layout.height_mm / extent.size().y());
      const int column = sheet % columns, row = sheet / columns;
      const QPointF corner(column * (m_layout.width_mm * scale + 26) + 8,
                           row * (m_layout.height_mm * scale + 46) + 8);
      const QRectF page(corner, QSizeF(m_layout.width_mm, m_layout.height_mm) * scale);
      p.setPen(QPen(theme.sheetEdge, 1));
      p.setBrush(theme.sheet);
      p.drawRect(page);
      FlatStyle style;
      style.theme = Theme::light();
      style.fillSheet = false;
      style.lineWidth_px = 1.0;
      for (const SheetPlace& place : m_layout.places) {
        if (place.sheet != sheet) continue;
        const FlatPiece& piece = *std::ranges::find(m_pieces, place.piece, &FlatPiece::piece);
        const QTransform toSheet = place.turned
                                       ? QTransform(0, 1, -1, 0, place.offset.x(), place.offset.y())
                                       : QTransform(1, 0, 0, 1, place.offset.x(), place.offset.y());
        const double s = scale * shrink;
        const QTransform toPage =
            toSheet * QTransform(s, 0, 0, -s, page.left(), page.bottom() - (oversize ? 0 : 14) * s);
        paintFlatPiece(p, *m_assembly, piece, toPage, style);
        paintLabels(p, m_document->design(), *m_assembly, piece, toPage, s, style.theme.inkSoft);
      }
      p.setPen(theme.inkSoft);
      p.setFont(Look::font(12));
      p.drawText(QRectF(page.left(), page.bottom() + 4, page.width(), 18), Qt::AlignLeft,
                 (oversize ? tr("sheet %1, printed in parts").arg(sheet + 1)
                           : tr("sheet %1").arg(sheet + 1)) +
                     paperOf(sheet));
    }
  }

private:
  /// What a sheet is of, where the card is made of several papers.
  QString paperOf(int sheet) const {
    const Design& design = m_document->design();
    const auto at = static_cast<std::size_t>(sheet);
    if (at >= m_layout.papers.size() || design.papers.size() < 2) return {};
    const Paper* paper = design.findPaper(m_layout.papers[at]);
    return paper ? QStringLiteral(", ") + said(nameOf(*paper)) : QString();
  }
  int columnsFor(int width) const { return width > 560 && m_layout.sheets > 1 ? 2 : 1; }
  double scaleFor(int width) const {
    return std::min(1.6, ((width - 16.0) / columnsFor(width) - 26) / m_layout.width_mm);
  }
  int heightFor(int width) const {
    const int columns = columnsFor(width), rows = (m_layout.sheets + columns - 1) / columns;
    return static_cast<int>(rows * (m_layout.height_mm * scaleFor(width) + 46)) + 16;
  }
  Document* m_document;
  std::shared_ptr<const Assembly> m_assembly;
  std::vector<FlatPiece> m_pieces;
  SheetLayout m_layout;
};

/// Score positions of a piece along its x axis, from its left edge, tabs included: what a maker
/// sets on the scorer.
QString scoresOf(const FlatPiece& piece, LengthUnit unit) {
  std::vector<double> across;
  bool slanted = false;
  for (const FlatLine& line : piece.lines) {
    if (line.kind == LineKind::Cut) continue;
    if (std::abs(line.corners.front().x() - line.corners.back().x()) < 1e-6)
      across.push_back(line.corners.front().x() - piece.bounds.low.x());
    else
      slanted = true;
  }
  std::ranges::sort(across);
  QStringList texts;
  for (double x : across)
    texts << QString::fromStdString(formatLength(x, unit, false));
  if (slanted) texts << QObject::tr("slanted: see the sheet");
  return texts.join(QStringLiteral(",  "));
}

QString capital(QString text) {
  if (!text.isEmpty()) text[0] = text[0].toUpper();
  return text;
}

} // namespace

CutPlace::CutPlace(Document* document, QWidget* parent) : QWidget(parent), m_document(document) {
  setObjectName(QStringLiteral("page"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(32, 26, 32, 26);
  row->setSpacing(32);
  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setAccessibleName(tr("Sheets"));
  auto* sheets = new SheetsView(document, scroll);
  m_sheets = sheets;
  scroll->setWidget(sheets);
  row->addWidget(scroll, 3);
  auto* column = new QVBoxLayout;
  column->setSpacing(12);
  auto* heading = new QLabel(tr("Pieces to cut"), this);
  heading->setObjectName(QStringLiteral("large"));
  column->addWidget(heading);
  m_summary = new QLabel(this);
  m_summary->setObjectName(QStringLiteral("soft"));
  column->addWidget(m_summary);
  makeTable();
  column->addWidget(m_pieces, 3);
  m_slice = new QCheckBox(tr("Equal plain strips as one wide sheet: score it, then slice"), this);
  connect(m_slice, &QCheckBox::clicked, this, [this](bool on) {
    Design next = m_document->committed();
    next.settings.slice = on;
    if (auto applied = m_document->apply(next, tr("slice equal strips")); !applied)
      emit refused(said(applied.error(), m_document->design().settings.unit));
  });
  column->addWidget(m_slice);
  auto* together = new QLabel(tr("Put together in this order"), this);
  together->setObjectName(QStringLiteral("large"));
  column->addWidget(together);
  m_order = new QListWidget(this);
  m_order->setAccessibleName(tr("Order of work"));
  m_order->setWordWrap(true);
  m_order->setSelectionMode(QAbstractItemView::NoSelection);
  m_order->setFocusPolicy(Qt::TabFocus);
  column->addWidget(m_order, 2);
  auto* caution =
      new QLabel(tr("Cut on a mat along a metal rule, away from your hand, and cover the blade "
                    "afterwards. Follow the maker's own data sheet for glue and board."),
                 this);
  caution->setObjectName(QStringLiteral("soft"));
  caution->setWordWrap(true);
  column->addWidget(caution);
  column->addLayout(makeButtons());
  row->addLayout(column, 4);
  connect(document, &Document::designChanged, this, [this] {
    if (!m_document->previewing()) refill();
  });
  refill();
}

void CutPlace::makeTable() {
  m_pieces = new QTableWidget(0, 3, this);
  m_pieces->setAccessibleName(tr("Piece list"));
  m_pieces->setHorizontalHeaderLabels({tr("Piece"), tr("Size"), tr("Scores from the left edge")});
  m_pieces->horizontalHeader()->setStretchLastSection(true);
  m_pieces->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  m_pieces->horizontalHeader()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
  m_pieces->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft);
  m_pieces->verticalHeader()->hide();
  m_pieces->setShowGrid(false);
  m_pieces->setEditTriggers(QAbstractItemView::NoEditTriggers);
  m_pieces->setSelectionBehavior(QAbstractItemView::SelectRows);
  m_pieces->setWordWrap(true);
}

QHBoxLayout* CutPlace::makeButtons() {
  auto* buttons = new QHBoxLayout;
  for (const auto& [format, label, primary] :
       {std::tuple{"pdf", tr("Print sheets (PDF 1:1)"), true},
        std::tuple{"svg", tr("Cutting file (SVG)"), false}, std::tuple{"dxf", tr("DXF"), false},
        std::tuple{"fold", tr("Folded model (FOLD)"), false}}) {
    auto* button = new QPushButton(label, this);
    if (primary) button->setObjectName(QStringLiteral("primary"));
    connect(button, &QPushButton::clicked, this,
            [this, f = QString::fromLatin1(format)] { ask(f); });
    buttons->addWidget(button);
  }
  buttons->addStretch();
  return buttons;
}

void CutPlace::refill() {
  auto* sheets = static_cast<SheetsView*>(m_sheets);
  sheets->refresh();
  const auto snapshot = m_document->snapshot();
  const auto assembled = snapshot->assembly();
  if (!assembled) return;
  const LengthUnit unit = m_document->design().settings.unit;
  const auto pieces = *snapshot->flatPieces();
  m_pieces->setRowCount(static_cast<int>(pieces.size()));
  m_matsShown = false;
  for (std::size_t k = 0; k < pieces.size(); ++k) {
    const Vec2 size = pieces[k].bounds.size();
    const int row = static_cast<int>(k);
    m_pieces->setItem(row, 0,
                      new QTableWidgetItem(capital(
                          said(pieceName(m_document->design(), **assembled, pieces[k].piece)))));
    m_pieces->setItem(
        row, 1,
        new QTableWidgetItem(QString::fromStdString(formatLength(size.x(), unit, false) + " × " +
                                                    formatLength(size.y(), unit))));
    m_pieces->setItem(row, 2, new QTableWidgetItem(scoresOf(pieces[k], unit)));
    m_pieces->setRowHeight(row, 32);
  }
  m_slice->setChecked(m_document->design().settings.slice);
  m_summary->setText(said(
      {"cut.summary", Text("cut.pieces", pieces.size()), Text("cut.sheets", sheets->sheets())}));
}

/// Layers behind the pieces, once they are known: how many, of what, how large, of which hand,
/// where.
void CutPlace::showMats(const Snapshot& snapshot) {
  const auto dressed = snapshot.dressedIfReady();
  if (!dressed || &snapshot != m_document->snapshot().get() || m_matsShown) return;
  m_matsShown = true;
  const Design& design = snapshot.design();
  const LengthUnit unit = design.settings.unit;
  for (const MatLine& line : matList(design, *dressed)) {
    const Paper* paper = design.findPaper(line.paper);
    if (!paper) continue;
    QStringList where;
    for (const MatPlace& place : line.places)
      where << said((*snapshot.assembly())->seats[(*snapshot.faces())[place.face].seat].label);
    QString text = tr("layer on %1").arg(where.join(QStringLiteral(", ")));
    if (line.handed)
      text = tr("%1 left, %2 right, cut pattern to pattern: %3")
                 .arg(line.left())
                 .arg(line.right())
                 .arg(text);
    const int row = m_pieces->rowCount();
    m_pieces->insertRow(row);
    m_pieces->setItem(
        row, 0, new QTableWidgetItem(tr("%1 × %2").arg(line.count()).arg(said(nameOf(*paper)))));
    m_pieces->setItem(row, 1,
                      new QTableWidgetItem(
                          QString::fromStdString(formatLength(line.size_mm().x(), unit, false) +
                                                 " × " + formatLength(line.size_mm().y(), unit))));
    m_pieces->setItem(row, 2, new QTableWidgetItem(text));
    m_pieces->setRowHeight(row, 32);
  }
}

void CutPlace::showOrder(const Analysis& analysis) {
  showMats(*analysis.snapshot);
  if (m_orderOf == analysis.motion) return; // only mends have been added since
  m_orderOf = analysis.motion;
  m_order->clear();
  if (!analysis.order) {
    m_order->addItem(tr("Something cannot be put together: see the findings"));
    return;
  }
  const AssemblyOrder& order = *analysis.order;
  const auto lines = describe(order, analysis.design, *analysis.assembly);
  for (std::size_t k = 0; k < lines.size(); ++k) {
    const QString text = QString::fromStdString(lines[k]);
    m_order->addItem(k < order.steps.size() ? tr("%1   %2").arg(k + 1).arg(text) : text);
  }
  if (lines.empty()) m_order->addItem(tr("Nothing to glue: cut and fold"));
}

void CutPlace::ask(const QString& format) {
  const QString suggested = m_document->name() + QLatin1Char('.') + format;
  const QString path = QFileDialog::getSaveFileName(
      this, tr("Export"), suggested, QStringLiteral("%1 (*.%2)").arg(format.toUpper(), format));
  if (!path.isEmpty()) exportTo(format, path);
}

bool CutPlace::exportTo(const QString& format, const QString& path) {
  if (isSameFile(path.toStdString(), m_document->path().toStdString())) {
    emit refused(tr("%1 is the card itself: choose another name").arg(path));
    return false;
  }
  const auto snapshot = m_document->committedSnapshot();
  const Design& design = snapshot->design();
  const auto assembled = snapshot->assembly();
  Result<void> written;
  if (!assembled)
    written = assembled.error();
  else if (format == QStringLiteral("svg"))
    written = writeFile(path.toStdString(), piecesToSvg(**assembled, design));
  else if (format == QStringLiteral("dxf")) {
    const auto drawing = piecesToDxf(**assembled, design);
    written = drawing ? writeFile(path.toStdString(), *drawing) : Result<void>(drawing.error());
  } else if (format == QStringLiteral("pdf"))
    written = writeSheetsPdf(**assembled, design, path.toStdString());
  else {
    // As a rule the verdict has had it worked out before anybody asks for a file.
    const auto motion = snapshot->motion();
    std::vector<double> openings;
    for (double t : foldFrames_deg(*motion))
      if (radians(t) >= motion->low_rad() && radians(t) <= motion->high_rad())
        openings.push_back(t);
    auto text = motionToFold(*motion, openings);
    if (!text)
      written = text.error();
    else
      written = writeFile(path.toStdString(), *text);
  }
  if (!written)
    emit refused(said(written.error(), m_document->design().settings.unit));
  else
    emit notice(tr("Written: %1").arg(path));
  return written.ok();
}

} // namespace hinge
