// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/sizes_panel.h"
#include "app/look.h"
#include "app/saying.h"
#include "app/size_tags.h"
#include "core/checks/finding.h"
#include "core/structures/registry.h"
#include <QEvent>
#include <QHBoxLayout>
#include <QPainter>
#include <cmath>

namespace hinge {
namespace {
constexpr const char* kWidth = "card.width";
constexpr const char* kCardHeight = "card.height";
} // namespace

SketchView::SketchView(QWidget* parent) : QWidget(parent) {
  setFixedSize(132, 116);
  setAccessibleName(tr("Drawing of the sizes"));
}

void SketchView::show(const StructureKind* kind) {
  m_kind = kind;
  update();
}

void SketchView::light(const QString& key) {
  m_lit = key;
  update();
}

void SketchView::paintEvent(QPaintEvent*) {
  if (!m_kind) return;
  const Theme& theme = Look::theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Sketch sketch = m_kind->sketch();
  const auto at = [&](const Vec2& q) {
    return QPointF(6 + q.x() * (width() - 12), height() - 6 - q.y() * (height() - 12));
  };
  for (const Sketch::Line& line : sketch.lines) {
    p.setPen(line.use == Sketch::Line::Use::Page ? QPen(theme.inkFaint, 1, Qt::DashLine)
             : line.use == Sketch::Line::Use::Fold
                 ? QPen(theme.mountain.lighter(theme.dark ? 190 : 100), 1.4)
                 : QPen(theme.ink, 1.4));
    p.drawLine(at(line.from), at(line.to));
  }
  p.setFont(Look::font(11, QFont::DemiBold));
  for (const Sketch::Dimension& d : sketch.dimensions) {
    const bool lit = m_lit == asQt(d.key);
    const ParameterSpec* spec = findSpec(m_kind->parameters, d.key);
    p.setPen(QPen(lit ? theme.accent : theme.inkSoft, lit ? 2.4 : 1));
    QPointF place = 0.5 * (at(d.from) + at(d.to));
    if (d.corner) {
      const QPointF c = at(*d.corner);
      const QLineF u(c, at(d.from)), v(c, at(d.to));
      double span = v.angle() - u.angle();
      while (span > 180)
        span -= 360;
      while (span < -180)
        span += 360;
      const double r = d.key == "alpha" || d.key == "beta" ? 15 : 25;
      if (lit)
        p.drawArc(QRectF(c.x() - r, c.y() - r, 2 * r, 2 * r), static_cast<int>(u.angle() * 16),
                  static_cast<int>(span * 16));
      if (!lit) continue;
      place = c;
    } else if (lit) {
      p.drawLine(at(d.from), at(d.to));
    }
    if (!lit && d.corner) continue;
    const QString text = said(nameOf(*spec)).toLower();
    if (lit) {
      p.setPen(theme.accent);
      const double w = QFontMetricsF(p.font()).horizontalAdvance(text);
      p.drawText(QPointF(std::clamp(place.x() - 0.5 * w, 2.0, width() - w - 2),
                         d.corner ? height() - 3 : std::clamp(place.y() - 6, 12.0, height() - 4.0)),
                 text);
    } else {
      p.setBrush(theme.inkFaint);
      p.setPen(Qt::NoPen);
      p.drawEllipse(place, 2, 2);
    }
  }
}

SizesPanel::SizesPanel(Document* document, QWidget* parent)
    : QWidget(parent), m_document(document) {
  setAccessibleName(tr("Sizes"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(8);
  auto* head = new QHBoxLayout;
  m_name = new QLineEdit(this);
  m_name->setAccessibleName(tr("Name of the structure"));
  m_name->setToolTip(tr("Name of the structure"));
  m_name->setFixedWidth(150);
  connect(m_name, &QLineEdit::editingFinished, this, [this] {
    const auto id = m_document->selection();
    if (!id || !m_name->isModified()) return;
    m_name->setModified(false);
    Design next = m_document->committed();
    for (StructureItem& item : next.structures)
      if (item.id == *id) item.label = m_name->text().trimmed().toStdString();
    (void)m_document->apply(next, tr("rename %1").arg(QString::fromStdString(id->text()))).ok();
  });
  m_alike = new QCheckBox(tr("both sides alike"), this);
  m_alike->setObjectName(QStringLiteral("soft"));
  m_alike->setToolTip(tr("A change on one side is made on the other too, which keeps a symmetric "
                         "structure shutting flat"));
  m_remove = new QPushButton(tr("Remove"), this);
  m_remove->setAccessibleName(tr("Remove the structure"));
  connect(m_remove, &QPushButton::clicked, this, [this] {
    const auto id = m_document->selection();
    if (!id) return;
    auto next = removeStructure(m_document->committed(), *id);
    if (next)
      (void)m_document->apply(*next, tr("remove %1").arg(QString::fromStdString(id->text()))).ok();
  });
  head->addWidget(m_name);
  head->addWidget(m_alike);
  head->addStretch();
  head->addWidget(m_remove);
  column->addLayout(head);
  auto* body = new QHBoxLayout;
  body->setSpacing(14);
  m_sketch = new SketchView(this);
  body->addWidget(m_sketch, 0, Qt::AlignTop);
  m_grid = new QGridLayout;
  m_grid->setHorizontalSpacing(8);
  m_grid->setVerticalSpacing(4);
  m_grid->setColumnStretch(0, 1);
  body->addLayout(m_grid, 1);
  column->addLayout(body);
  m_work = new WorkPanel(document, this);
  connect(m_work, &WorkPanel::refused, this, &SizesPanel::refused);
  connect(m_work, &WorkPanel::notice, this, &SizesPanel::notice);
  column->addWidget(m_work);
  column->addStretch();
  connect(document, &Document::designChanged, this, &SizesPanel::refill);
  connect(document, &Document::selectionChanged, this, &SizesPanel::rebuild);
  rebuild();
}

QLineEdit* SizesPanel::field(const QString& key) const {
  const auto it = m_fields.find(key.toStdString());
  return it == m_fields.end() ? nullptr : it->second;
}

QLineEdit* SizesPanel::makeField(const std::string& key, const QString& name, const QString& tip) {
  auto* edit = new QLineEdit(this);
  edit->setAccessibleName(name);
  edit->setToolTip(tip);
  edit->setFixedWidth(74);
  edit->setAlignment(Qt::AlignRight);
  edit->installEventFilter(this);
  edit->setProperty("key", QString::fromStdString(key));
  connect(edit, &QLineEdit::editingFinished, this, [this, key, edit] { commit(key, edit); });
  m_fields[key] = edit;
  return edit;
}

void SizesPanel::addRow(int row, const QString& label, const QString& tip,
                        const std::vector<std::string>& keys, const QStringList& names) {
  auto* text = new QLabel(label, this);
  text->setToolTip(tip);
  m_grid->addWidget(text, row, 0);
  for (std::size_t k = 0; k < keys.size(); ++k)
    m_grid->addWidget(makeField(keys[k], names[static_cast<qsizetype>(k)], tip), row,
                      1 + static_cast<int>(k));
}

void SizesPanel::addSwitch(int row, const ParameterSpec& spec, const QString& tip) {
  m_grid->addWidget(new QLabel(said(nameOf(spec)), this), row, 0);
  auto* choice = new QComboBox(this);
  choice->setAccessibleName(said(nameOf(spec)));
  choice->setToolTip(tip);
  for (int k = 0; k < spec.choices(); ++k)
    choice->addItem(said(choiceOf(spec, k)));
  const std::string key(spec.key);
  connect(choice, &QComboBox::activated, this, [this, key](int index) {
    auto next = setValues(m_document->committed(), *m_shown, {{key, static_cast<double>(index)}});
    Result<void> done;
    if (!next)
      done = next.error();
    else
      done = m_document->apply(*next, tr("change %1").arg(QString::fromStdString(m_shown->text())));
    if (!done) emit refused(said(done.error(), m_document->design().settings.unit));
  });
  m_switches[key] = choice;
  m_grid->addWidget(choice, row, 1, 1, 2);
}

void SizesPanel::rebuild() {
  while (QLayoutItem* item = m_grid->takeAt(0)) {
    if (item->widget()) {
      item->widget()->hide();
      item->widget()->removeEventFilter(this);
      item->widget()->disconnect(this);
      item->widget()->deleteLater();
    }
    delete item;
  }
  m_fields.clear();
  m_switches.clear();
  m_shown = m_document->selection();
  const StructureItem* item = m_shown ? m_document->design().find(*m_shown) : nullptr;
  const bool structure = item != nullptr;
  m_name->setVisible(structure);
  m_remove->setVisible(structure);
  m_alike->setVisible(structure);
  const bool free = structure && waysOf(*item).carriesWork();
  m_sketch->setVisible(structure && !free);
  m_work->setVisible(free);
  if (free) m_work->refill();
  int row = 0;
  if (!structure) {
    addRow(row++, said("card.width"), said("card.width/meaning"), {kWidth}, {said("card.width")});
    addRow(row++, said("card.height"), said("card.height/meaning"), {kCardHeight},
           {said("card.height")});
    auto* hint = new QLabel(
        tr("Click a panel to see its sizes, or add a structure on a fold or a face."), this);
    hint->setObjectName(QStringLiteral("soft"));
    hint->setWordWrap(true);
    m_grid->addWidget(hint, row++, 0, 1, 3);
    refill();
    return;
  }
  const StructureKind* kind = findStructureKind(item->kind);
  m_sketch->show(kind);
  m_alike->setChecked(sidesAlike(*item));
  m_alike->setVisible(std::ranges::any_of(
      kind->parameters, [](const ParameterSpec& spec) { return !spec.twin.empty(); }));
  if (free) { // its widths stand on the ruler and on the drawings
    refill();
    return;
  }
  for (const ParameterSpec& spec : kind->parameters) {
    const QString tip = said(meaningOf(spec)) + (spec.role == ParameterRole::Held
                                                     ? tr("\nHeld: mends leave it alone")
                                                     : tr("\nGives: mends may change it"));
    if (spec.unit == ParameterUnit::Switch) {
      addSwitch(row++, spec, tip);
      continue;
    }
    const ParameterSpec* twin = spec.twin.empty() ? nullptr : findSpec(kind->parameters, spec.twin);
    if (twin && twin < &spec) continue; // shown in its twin's row
    const QString label = said(twin ? nameOnBothSides(spec) : nameOf(spec));
    std::vector<std::string> keys{std::string(spec.key)};
    QStringList names{said(nameOf(spec))};
    if (twin) keys.emplace_back(twin->key), names << said(nameOf(*twin));
    addRow(row++, label, tip, keys, names);
  }
  refill();
}

double SizesPanel::valueOf(const std::string& key) const {
  const Design& design = m_document->design();
  if (key == kWidth) return design.card.width_mm;
  if (key == kCardHeight) return design.card.height_mm;
  return design.find(*m_shown)->values.find(key)->second;
}

void SizesPanel::refill() {
  const Design& design = m_document->design();
  const StructureItem* item = m_shown ? design.find(*m_shown) : nullptr;
  if (m_shown && !item) return; // the selection changes next
  if (item) {
    if (!m_name->hasFocus()) m_name->setText(said(nameOf(design, item->id)));
    for (const auto& [key, choice] : m_switches)
      choice->setCurrentIndex(static_cast<int>(item->values.find(key)->second));
  }
  const StructureKind* kind = item ? findStructureKind(item->kind) : nullptr;
  for (const auto& [key, edit] : m_fields) {
    if (edit->hasFocus() && edit->isModified()) continue;
    const QString text =
        kind ? shownValue(design, *findSpec(kind->parameters, key), valueOf(key))
             : QString::fromStdString(formatLength(valueOf(key), design.settings.unit, false));
    edit->setText(text);
    edit->setProperty("wrong", false);
    edit->style()->unpolish(edit);
    edit->style()->polish(edit);
  }
}

void SizesPanel::commit(const std::string& key, QLineEdit* edit) {
  if (!edit->isModified()) return;
  edit->setModified(false);
  const Design& design = m_document->committed();
  const StructureItem* item = m_shown ? design.find(*m_shown) : nullptr;
  const ParameterSpec* spec = item ? findSpec(parametersOf(*item), key) : nullptr;
  const auto typed = spec ? typedValue(design, *spec, edit->text())
                          : parseLength_mm(edit->text().toStdString(), design.settings.unit);
  Result<void> done;
  if (!typed) {
    done = typed.error();
  } else if (spec) {
    auto next =
        setValues(design, *m_shown, linkedChange(*item, *spec, *typed, m_alike->isChecked()));
    if (!next)
      done = next.error();
    else
      done = m_document->apply(
          *next,
          tr("change %1 of %2").arg(said(nameOf(*spec)), QString::fromStdString(m_shown->text())));
  } else {
    CardBase card = design.card;
    (key == kWidth ? card.width_mm : card.height_mm) = *typed;
    auto next = setCard(design, card);
    if (!next)
      done = next.error();
    else
      done = m_document->apply(*next, tr("change the card's size"));
  }
  if (done) return refill();
  edit->setProperty("wrong", true);
  edit->style()->unpolish(edit);
  edit->style()->polish(edit);
  emit refused(said(done.error(), m_document->design().settings.unit));
}

bool SizesPanel::eventFilter(QObject* object, QEvent* event) {
  if (event->type() == QEvent::FocusIn || event->type() == QEvent::Enter)
    m_sketch->light(object->property("key").toString());
  if (event->type() == QEvent::Leave) m_sketch->light({});
  return false;
}

} // namespace hinge
