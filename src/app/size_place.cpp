// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/size_place.h"
#include "app/fit_dialog.h"
#include "app/look.h"
#include "app/saying.h"
#include "app/sheet_words.h"
#include "app/size_tags.h"
#include "core/bases/base.h"
#include "core/edits/dressing.h"
#include "core/edits/sheet.h"
#include "core/paper/envelope.h"
#include "core/units/lattice.h"
#include "render/flat_painter.h"
#include <QFormLayout>
#include <QHBoxLayout>
#include <QPainter>
#include <QSettings>

namespace hinge {
namespace {

const QString kUnit = QStringLiteral("unit"), kSheet = QStringLiteral("sheet");

QString envelopeText(const Design& design) {
  return said(nameOf(envelopeByKey(design.settings.envelope)), design.settings.unit);
}

/// The leaves as they are cut: x across the folds.
Box2 flatLeaves(const Assembly& assembly) {
  Box2 flat;
  for (const auto& [page, pose] : assembly.basePoses(0))
    flat.add(boundsOf(assembly.panels[page].outline));
  return flat;
}

/// The leaves as they lie in the shut card, in the frame of its ground.
Box2 shutLeaves(const Assembly& assembly) {
  Box2 shut;
  const auto pages = assembly.basePoses(0);
  for (const auto& [page, pose] : pages)
    shut.add(
        boundsOf(mapped(assembly.panels[page].outline, inverseOf(pages.front().second) * pose)));
  return shut;
}

/// The open card on its sheet, to scale, with the shut half marked.
class CardDrawing : public QWidget {
public:
  CardDrawing(Document* document, QWidget* parent) : QWidget(parent), m_document(document) {
    setMinimumSize(420, 420);
    setAccessibleName(tr("The card on its sheet"));
  }
  /// The card without anything that stands on it.
  void show(std::shared_ptr<const Snapshot> bare) {
    m_bare = std::move(bare);
    update();
  }

protected:
  void paintEvent(QPaintEvent*) override {
    const Theme& theme = Look::theme();
    const Design& design = m_document->design();
    const SheetSize& sheet = sheetByKey(design.settings.sheet);
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const bool side = design.card.fold == FoldSide::Side;
    if (!m_bare || !m_bare->possible()) return;
    const std::shared_ptr<const Assembly> assembly = *m_bare->assembly();
    // The base's own sheet; what is glued to it of others is cut for itself.
    const FlatPiece& own = m_bare->flatPieces()->front();
    const Box2& flat = own.bounds;
    const Box2 ground = boundsOf(
        assembly->panels[assembly->symmetric ? assembly->findPanel("card/page-b") : assembly->root]
            .outline);
    const double w = side ? flat.size().x() : flat.size().y(),
                 h = side ? flat.size().y() : flat.size().x();
    // Turn the sheet the way the open card lies.
    double sw = sheet.width_mm, sh = sheet.height_mm;
    if ((w > h) != (sw > sh)) std::swap(sw, sh);
    const double scale =
        std::min((width() - 60) / std::max(w, sw), (height() - 70) / std::max(h, sh));
    const QPointF middle(0.5 * width(), 0.5 * height());
    const auto box = [&](double bw, double bh) {
      return QRectF(middle - 0.5 * scale * QPointF(bw, bh), scale * QSizeF(bw, bh));
    };
    QPen dashed(theme.inkFaint, 1.2);
    dashed.setDashPattern({4, 4});
    p.setPen(dashed);
    p.setBrush(Qt::NoBrush);
    p.drawRect(box(sw, sh));
    p.setFont(Look::font(12));
    p.drawText(box(sw, sh).adjusted(8, 6, 0, 0), Qt::AlignLeft | Qt::AlignTop,
               said(Text("sheet." + std::string(sheet.key))));
    const QRectF card = box(w, h);
    const QTransform toPixels =
        side ? QTransform(scale, 0, 0, -scale, card.left() - scale * flat.low.x(),
                          card.bottom() + scale * flat.low.y())
             : QTransform(0, scale, scale, 0, card.left() - scale * flat.low.y(),
                          card.top() - scale * flat.low.x());
    paintPaper(p, *assembly, own, toPixels);
    const auto across = [&](double x) {
      return (side ? card.left() : card.top()) + scale * (x - flat.low.x());
    };
    p.setPen(QColor(0x5d, 0x57, 0x4f));
    p.setFont(Look::font(13, QFont::DemiBold));
    const auto length = [&](double mm) {
      return QString::fromStdString(formatLength(mm, design.settings.unit));
    };
    const double first = across(ground.low.x()), last = across(ground.high.x());
    const QRectF shut = side ? QRectF(first, card.top(), last - first, card.height())
                             : QRectF(card.left(), first, card.width(), last - first);
    p.drawText(shut, Qt::AlignCenter,
               tr("finished\n%1 × %2")
                   .arg(QString::fromStdString(
                            formatLength(design.card.width_mm, design.settings.unit, false)),
                        length(design.card.height_mm)));
    if (w > sw + 1e-6 || h > sh + 1e-6) {
      p.setPen(theme.trouble);
      p.drawText(QRectF(0, height() - 26, width(), 22), Qt::AlignCenter,
                 tr("◆  The open card (%1 × %2) is larger than this sheet: it will be tiled")
                     .arg(length(w), length(h)));
    }
  }

private:
  /// The open card as it is cut, lit from its middle.
  static void paintPaper(QPainter& p, const Assembly& assembly, const FlatPiece& piece,
                         const QTransform& toPixels) {
    const Theme& theme = Look::theme();
    QPainterPath paper;
    for (PanelIndex panel : assembly.pieces[piece.piece].panels)
      paper.addPath(toPath(assembly.panels[panel].outline, toPixels));
    const QRectF card = paper.boundingRect();
    QRadialGradient glow(card.center(), 0.6 * std::max(card.width(), card.height()));
    QColor warm(0xff, 0xc8, 0x7a);
    warm.setAlphaF(0.35f);
    glow.setColorAt(0, warm);
    warm.setAlphaF(0);
    glow.setColorAt(1, warm);
    p.setPen(Qt::NoPen);
    p.fillPath(paper, theme.sheet);
    p.fillPath(paper, glow);
    FlatStyle style;
    style.theme = theme;
    style.fillSheet = style.glue = style.marks = false;
    style.lineWidth_px = 1.8;
    paintFlatPiece(p, assembly, piece, toPixels, style);
  }
  Document* m_document;
  std::shared_ptr<const Snapshot> m_bare;
};

} // namespace

SizePlace::SizePlace(Document* document, QWidget* parent) : QWidget(parent), m_document(document) {
  setObjectName(QStringLiteral("page"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(56, 44, 40, 40);
  row->setSpacing(48);
  auto* column = new QVBoxLayout;
  column->setSpacing(18);
  auto* heading = new QLabel(tr("How large is the card?"), this);
  heading->setObjectName(QStringLiteral("large"));
  column->addWidget(heading);
  makeForm();
  column->addLayout(m_form);
  m_facts = new QLabel(this);
  m_facts->setObjectName(QStringLiteral("soft"));
  m_facts->setWordWrap(true);
  column->addWidget(m_facts);
  auto* onward = new QPushButton(tr("Build on it"), this);
  onward->setObjectName(QStringLiteral("primary"));
  connect(onward, &QPushButton::clicked, this, &SizePlace::done);
  auto* fit = new QPushButton(tr("Fit to another sheet …"), this);
  fit->setObjectName(QStringLiteral("fit-sheet"));
  fit->setToolTip(tr("The whole card at another open length, with what you lock kept"));
  connect(fit, &QPushButton::clicked, this, [this] {
    auto* dialog = new FitDialog(m_document, std::nullopt, window());
    connect(dialog, &FitDialog::notice, this, &SizePlace::notice);
    dialog->open();
  });
  auto* actions = new QHBoxLayout;
  actions->addWidget(onward);
  actions->addWidget(fit);
  actions->addStretch();
  column->addLayout(actions);
  column->addStretch();
  row->addLayout(column);
  auto* right = new QVBoxLayout;
  m_drawing = new CardDrawing(document, this);
  right->addWidget(m_drawing, 1);
  auto* words = new SheetWords(document, this);
  connect(words, &SheetWords::refused, this, &SizePlace::refused);
  right->addWidget(words);
  row->addLayout(right, 1);

  listen();
  connect(document, &Document::designChanged, this, &SizePlace::refill);
  refill();
}

Settings SizePlace::chosenLast() {
  const auto unit = unitFromKey(QSettings().value(kUnit).toString().toStdString());
  Settings settings = startingSettings(unit ? *unit : LengthUnit::Millimetre);
  const std::string sheet = QSettings().value(kSheet).toString().toStdString();
  if (sheetByKey(sheet).key == sheet) settings.sheet = sheet;
  return settings;
}

void SizePlace::makeForm() {
  auto* form = m_form = new QFormLayout;
  form->setHorizontalSpacing(18);
  form->setVerticalSpacing(10);
  form->setFieldGrowthPolicy(QFormLayout::FieldsStayAtSizeHint);
  const auto lineEdit = [&](const QString& label, int width) {
    auto* edit = new QLineEdit(this);
    edit->setFixedWidth(width);
    edit->setAccessibleName(label);
    form->addRow(label, edit);
    return edit;
  };
  const auto combo = [&](const QString& label) {
    auto* box = new QComboBox(this);
    box->setFixedWidth(220);
    box->setAccessibleName(label);
    form->addRow(label, box);
    return box;
  };
  m_title = lineEdit(tr("Name"), 220);
  m_width = lineEdit(said("card.width"), 110);
  m_height = lineEdit(said("card.height"), 110);
  m_base = combo(tr("Base"));
  for (const BaseKind* base : baseKinds()) {
    m_base->addItem(said(base->name()), asQt(base->key));
    m_base->setItemData(m_base->count() - 1, said(Text(base->name().key + "/summary")),
                        Qt::ToolTipRole);
  }
  m_fold = combo(tr("Fold along"));
  m_fold->addItems({tr("the side"), tr("the top")});
  m_stock = combo(tr("Stock"));
  m_unit = combo(tr("Unit"));
  m_unit->addItem(tr("millimetres"), QStringLiteral("mm"));
  m_unit->addItem(tr("centimetres"), QStringLiteral("cm"));
  m_unit->addItem(tr("inch fractions"), QStringLiteral("in"));
  m_sheet = combo(tr("Cut from"));
  for (const SheetSize& sheet : knownSheets())
    m_sheet->addItem(said(Text("sheet." + std::string(sheet.key))), asQt(sheet.key));
  m_envelope = combo(tr("Envelope"));
  for (const EnvelopeSize& envelope : knownEnvelopes())
    m_envelope->addItem(said(nameOf(envelope)), asQt(envelope.key));
  m_envelope->setEditable(true);
  m_envelope->setInsertPolicy(QComboBox::NoInsert);
  m_envelope->lineEdit()->setAccessibleName(tr("Envelope"));
  m_envelope->setToolTip(tr("One of the list, or the inside measures of another: 5 3/4 x 4 3/8"));
  m_display = lineEdit(tr("Shown open at"), 110);
  m_openBy = lineEdit(tr("Pulls begin at"), 110);
  m_openBy->setToolTip(tr("Way of the leaf by which the card is fully open; what is pulled has the "
                          "rest to itself. 180°: pulls move while the card opens"));
  m_worksFrom = lineEdit(tr("Working range, from"), 110);
  m_worksTo = lineEdit(tr("Working range, up to"), 110);
  for (QLineEdit* edit : {m_worksFrom, m_worksTo})
    edit->setToolTip(tr("The openings between which the card is used. It is judged there and only "
                        "there: a tent that opens to 60°, a stand that never lies flat"));
  m_rests = combo(tr("Shown"));
  m_rests->addItems({tr("lying on one page"), tr("standing on its edges")});
}

/// One of the list by its name, or another by its measures.
void SizePlace::commitEnvelope() {
  Design next = m_document->committed();
  const QString typed = m_envelope->currentText().trimmed();
  if (typed == envelopeText(next)) return;
  const int known = m_envelope->findText(typed);
  const Result<std::string> key =
      known >= 0 ? Result<std::string>(m_envelope->itemData(known).toString().toStdString())
                 : envelopeKeyFrom(typed.toStdString(), next.settings.unit);
  if (!key) {
    m_envelope->setEditText(envelopeText(next));
    return emit refused(said(key.error(), next.settings.unit));
  }
  next.settings.envelope = *key;
  if (auto applied = m_document->apply(next, tr("choose the envelope")); !applied)
    emit refused(said(applied.error(), next.settings.unit));
}

void SizePlace::listen() {
  connect(m_width, &QLineEdit::editingFinished, this, &SizePlace::commitCard);
  connect(m_height, &QLineEdit::editingFinished, this, &SizePlace::commitCard);
  connect(m_fold, &QComboBox::activated, this, &SizePlace::commitCard);
  connect(m_base, &QComboBox::activated, this, [this](int index) {
    const Design& d = m_document->committed();
    const std::string key = m_base->itemData(index).toString().toStdString();
    const auto card = onBase(d.card, key);
    if (!card || card->kind == d.card.kind) return;
    Design next = d;
    next.card = *card;
    // What is there becomes a sheet as it is, where it is one.
    if (key == sheetBase().key)
      if (auto same = withBaseAsSheet(d)) next = *same;
    if (auto applied = m_document->apply(next, tr("choose the base")); !applied)
      emit refused(said(applied.error(), m_document->design().settings.unit));
    refill();
  });
  const auto change = [this](const QString& what, auto edit) {
    Design next = m_document->committed();
    edit(next);
    if (auto applied = m_document->apply(next, what); !applied)
      emit refused(said(applied.error(), m_document->design().settings.unit));
  };
  connect(m_title, &QLineEdit::editingFinished, this, [this, change] {
    change(tr("name the card"),
           [this](Design& d) { d.title = m_title->text().trimmed().toStdString(); });
  });
  connect(m_stock, &QComboBox::activated, this, [this, change](int index) {
    const std::string key = m_stock->itemData(index).toString().toStdString();
    change(tr("choose the stock"), [&key](Design& d) {
      if (auto next = withCardPaper(d, key)) d = std::move(next).value();
    });
  });
  connect(m_unit, &QComboBox::activated, this, [this, change] {
    const QString key = m_unit->currentData().toString();
    change(tr("choose the unit"),
           [&](Design& d) { d = inUnit(d, unitFromKey(key.toStdString()).value()); });
    QSettings().setValue(kUnit, key);
    QSettings().setValue(kSheet, asQt(m_document->committed().settings.sheet));
  });
  connect(m_sheet, &QComboBox::activated, this, [this, change] {
    change(tr("choose the sheet"), [this](Design& d) {
      d.settings.sheet = m_sheet->currentData().toString().toStdString();
    });
    QSettings().setValue(kSheet, m_sheet->currentData());
  });
  connect(m_envelope, &QComboBox::activated, this, [this, change] {
    change(tr("choose the envelope"), [this](Design& d) {
      d.settings.envelope = m_envelope->currentData().toString().toStdString();
    });
  });
  connect(m_envelope->lineEdit(), &QLineEdit::editingFinished, this, &SizePlace::commitEnvelope);
  connect(m_display, &QLineEdit::editingFinished, this, &SizePlace::commitCard);
  connect(m_openBy, &QLineEdit::editingFinished, this, &SizePlace::commitCard);
  connect(m_worksFrom, &QLineEdit::editingFinished, this, &SizePlace::commitCard);
  connect(m_worksTo, &QLineEdit::editingFinished, this, &SizePlace::commitCard);
  connect(m_rests, &QComboBox::activated, this, &SizePlace::commitCard);
}

/// A field for every size of the base, made anew when the base has changed.
void SizePlace::refillBase() {
  const Design& d = m_document->design();
  const BaseKind* base = findBaseKind(d.card.kind);
  const QString key = QString::fromStdString(d.card.kind);
  m_base->setCurrentIndex(m_base->findData(key));
  if (!base) return;
  if (key != m_shownBase) {
    for (QLineEdit* field : m_baseFields)
      m_form->removeRow(field);
    m_baseFields.clear();
    m_shownBase = key;
    int row = -1;
    m_form->getWidgetPosition(m_base, &row, nullptr);
    for (const ParameterSpec& spec : base->parameters) {
      auto* edit = new QLineEdit(this);
      edit->setFixedWidth(110);
      const QString label = said(nameOf(spec));
      edit->setAccessibleName(label);
      edit->setToolTip(said(meaningOf(spec)));
      m_form->insertRow(++row, label, edit);
      m_baseFields.insert(asQt(spec.key), edit);
      connect(edit, &QLineEdit::editingFinished, this, &SizePlace::commitCard);
    }
  }
  for (const ParameterSpec& spec : base->parameters) {
    QLineEdit* edit = m_baseFields.value(asQt(spec.key));
    const double value = d.card.values.find(spec.key)->second;
    edit->setText(spec.unit == ParameterUnit::Millimetre
                      ? QString::fromStdString(formatLength(value, d.settings.unit))
                      : shownValue(d, spec, value));
    edit->setModified(false);
  }
}

/// Plain papers that everybody has, and what else lies in this card's drawer.
void SizePlace::offerStocks(const Design& d) {
  std::vector<Paper> offered;
  for (const Paper& paper : knownPapers())
    if (!paper.patterned() && !d.findPaper(paper.key)) offered.push_back(paper);
  offered.insert(offered.begin(), d.papers.begin(), d.papers.end());
  const bool inches = d.settings.unit == LengthUnit::Inch;
  if (offered == m_stocks && inches == m_stocksInInches)
    return void(m_stock->setCurrentIndex(m_stock->findData(asQt(d.stock))));
  m_stocks = offered, m_stocksInInches = inches;
  m_stock->clear();
  for (const Paper& paper : offered)
    m_stock->addItem(
        QStringLiteral("%1, %2").arg(said(nameOf(paper)),
                                     asQt(sayThickness(paper.thickness_mm, d.settings.unit))),
        asQt(paper.key));
  m_stock->setCurrentIndex(m_stock->findData(asQt(d.stock)));
}

void SizePlace::refill() {
  const Design& d = m_document->design();
  refillBase();
  if (!m_title->hasFocus()) m_title->setText(QString::fromStdString(d.title));
  const auto fill = [&](QLineEdit* edit, double mm) {
    edit->setText(QString::fromStdString(formatLength(mm, d.settings.unit)));
    edit->setModified(false);
  };
  fill(m_width, d.card.width_mm);
  fill(m_height, d.card.height_mm);
  m_fold->setCurrentIndex(d.card.fold == FoldSide::Side ? 0 : 1);
  offerStocks(d);
  m_unit->setCurrentIndex(m_unit->findData(QString::fromUtf8(unitKey(d.settings.unit).data())));
  m_sheet->setCurrentIndex(m_sheet->findData(QString::fromStdString(d.settings.sheet)));
  m_envelope->setCurrentIndex(m_envelope->findData(asQt(d.settings.envelope)));
  m_envelope->setEditText(envelopeText(d));
  for (const auto& [edit, angle] :
       {std::pair{m_display, d.card.display_deg}, std::pair{m_openBy, d.card.openBy_deg},
        std::pair{m_worksFrom, d.card.worksFrom_deg}, std::pair{m_worksTo, d.card.worksTo_deg}}) {
    edit->setText(QString::fromStdString(formatAngle(angle)));
    edit->setModified(false);
  }
  m_rests->setCurrentIndex(d.card.rests == Rests::OnPage ? 0 : 1);
  const auto length = [&](double mm) {
    return QString::fromStdString(formatLength(mm, d.settings.unit));
  };
  const auto bare = std::make_shared<const Snapshot>(Design{.card = d.card});
  const auto assembled = bare->assembly();
  const Vec2 flat = assembled ? flatLeaves(**assembled).size() : Vec2(0, 0);
  static_cast<CardDrawing*>(m_drawing)->show(bare);
  const bool side = d.card.fold == FoldSide::Side;
  const auto across = [&](const Vec2& size) {
    return length(side ? size.x() : size.y()) + QStringLiteral(" × ") +
           length(side ? size.y() : size.x());
  };
  const Vec2 shut = assembled ? shutLeaves(**assembled).size() : Vec2(0, 0);
  EnvelopeNeed envelope = envelopeFor(shut.x(), shut.y(), 0, starting::kEnvelopeRoom_mm);
  // What is made to measure is made by a ruler.
  const double step_mm = latticeStep_mm(d.settings.unit);
  for (double* length_mm : {&envelope.long_mm, &envelope.short_mm})
    *length_mm = -downToLattice(1e-6 - *length_mm, step_mm);
  // Of most bases the finished size is the shut card; where leaves reach past it both are told.
  const Vec2 finished(side ? d.card.width_mm : d.card.height_mm,
                      side ? d.card.height_mm : d.card.width_mm);
  const QString why = (shut - finished).cwiseAbs().maxCoeff() < 0.05
                          ? QString()
                          : tr(" (the finished size is that of the page the others fold onto)");
  m_facts->setText(tr("Open flat %1, shut %2%3. Shut parts stay %4 inside the edge.\nAn envelope "
                      "wants %5 × %6 and the thickness at least.")
                       .arg(across(flat), across(shut), why, length(d.settings.edgeReserve_mm),
                            length(envelope.long_mm), length(envelope.short_mm)));
}

void SizePlace::commitCard() {
  const Design& d = m_document->committed();
  CardBase card = d.card;
  card.fold = m_fold->currentIndex() == 1 ? FoldSide::Top : FoldSide::Side;
  for (const auto& [edit, size] :
       {std::pair{m_width, &card.width_mm}, std::pair{m_height, &card.height_mm}}) {
    if (!edit->isModified()) continue;
    edit->setModified(false);
    const auto typed = parseLength_mm(edit->text().toStdString(), d.settings.unit);
    if (!typed) {
      emit refused(said(typed.error(), m_document->design().settings.unit));
      refill();
      return;
    }
    *size = *typed;
  }
  for (const ParameterSpec& spec : findBaseKind(card.kind)->parameters) {
    QLineEdit* edit = m_baseFields.value(asQt(spec.key));
    if (!edit || !edit->isModified()) continue;
    edit->setModified(false);
    const auto typed = typedValue(d, spec, edit->text());
    if (!typed) {
      emit refused(said(typed.error(), m_document->design().settings.unit));
      refill();
      return;
    }
    card.values[std::string(spec.key)] = *typed;
  }
  card.rests = m_rests->currentIndex() == 1 ? Rests::OnEdge : Rests::OnPage;
  for (const auto& [edit, angle] :
       {std::pair{m_display, &card.display_deg}, std::pair{m_openBy, &card.openBy_deg},
        std::pair{m_worksFrom, &card.worksFrom_deg}, std::pair{m_worksTo, &card.worksTo_deg}}) {
    if (!edit->isModified()) continue;
    edit->setModified(false);
    const auto typed = parseAngle_deg(edit->text().toStdString());
    if (!typed) {
      emit refused(said(typed.error(), m_document->design().settings.unit));
      refill();
      return;
    }
    *angle = *typed;
  }
  auto next = setCard(d, card);
  Result<void> applied;
  if (!next)
    applied = next.error();
  else
    applied = m_document->apply(*next, tr("change the card"));
  if (!applied) emit refused(said(applied.error(), m_document->design().settings.unit));
  refill();
}

} // namespace hinge
