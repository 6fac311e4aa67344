// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/size_place.h"
#include "app/fit_dialog.h"
#include "app/look.h"
#include "app/saying.h"
#include "app/sheet_words.h"
#include "app/size_drawing.h"
#include "app/size_tags.h"
#include "core/bases/base.h"
#include "core/edits/dressing.h"
#include "core/edits/sheet.h"
#include "core/paper/envelope.h"
#include <QFormLayout>
#include <QHBoxLayout>
#include <QSettings>

namespace hinge {
namespace {

const QString kUnit = QStringLiteral("unit"), kSheet = QStringLiteral("sheet");

QString envelopeText(const Design& design) {
  return said(nameOf(envelopeByKey(design.settings.envelope)), design.settings.unit);
}

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
  m_drawing = new SizeDrawing(document, this);
  connect(m_drawing, &SizeDrawing::refused, this, &SizePlace::refused);
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
  addUse();
}

/// How the card is used is asked for by those who want it otherwise than usual.
void SizePlace::addUse() {
  int row = -1;
  m_form->getWidgetPosition(m_display, &row, nullptr);
  m_use = new QToolButton(this);
  m_use->setObjectName(QStringLiteral("handchoice"));
  m_use->setText(tr("How it is used …"));
  m_use->setCheckable(true);
  m_form->insertRow(row, QString(), m_use);
  const auto show = [this](bool shown) {
    for (QWidget* field :
         std::initializer_list<QWidget*>{m_display, m_openBy, m_worksFrom, m_worksTo, m_rests})
      m_form->setRowVisible(field, shown);
  };
  connect(m_use, &QToolButton::toggled, this, show);
  show(false);
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
  const CardBase usual;
  if (d.card.openBy_deg != usual.openBy_deg || d.card.worksFrom_deg != usual.worksFrom_deg ||
      d.card.worksTo_deg != usual.worksTo_deg)
    m_use->setChecked(true);
  m_rests->setCurrentIndex(d.card.rests == Rests::OnPage ? 0 : 1);
  sayFacts(d);
}

/// What the drawing beside it does not show.
void SizePlace::sayFacts(const Design& d) {
  QString facts = tr("Shut parts stay %1 inside the edge. An envelope wants the card's thickness "
                     "as well.")
                      .arg(asQt(sayLength(d.settings.edgeReserve_mm, d.settings.unit)));
  const QSizeF beyond = m_drawing->shut_mm() - QSizeF(d.card.width_mm, d.card.height_mm);
  constexpr double kAlike_mm = 0.05;
  if (std::max(std::abs(beyond.width()), std::abs(beyond.height())) > kAlike_mm)
    facts += tr("\nThe finished size is that of the page the others fold onto.");
  m_facts->setText(facts);
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
