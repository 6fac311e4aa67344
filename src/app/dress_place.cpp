// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/dress_place.h"
#include "app/saying.h"
#include "core/io/dress_words.h"
#include <QFrame>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

namespace hinge {
namespace {

constexpr int kSide_px = 500, kFindings_px = 92;

QFrame* hairline(QWidget* parent) {
  auto* line = new QFrame(parent);
  line->setObjectName(QStringLiteral("hairline"));
  line->setFixedHeight(1);
  return line;
}

} // namespace

DressPlace::DressPlace(Document* document, Analyst* analyst, QWidget* parent)
    : QWidget(parent), m_document(document) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  auto* row = new QHBoxLayout;
  row->setSpacing(0);
  m_stage = new StageView(document, analyst, this);
  m_stage->addButton().hide();
  m_stage->standing().hide();
  m_hand = new DressHand(document, m_stage, this);
  m_drawer = new SwatchRow(document, this);
  row->addWidget(m_stage, 1);
  row->addWidget(makeSide(analyst));
  column->addLayout(row, 1);
  column->addWidget(hairline(this));
  column->addWidget(m_drawer);
  m_stage->take(m_hand);
  m_stage->installEventFilter(this);
  m_face->installEventFilter(this);
  connect(m_hand, &DressHand::changed, this, &DressPlace::refresh);
  connect(m_hand, &DressHand::refused, this, &DressPlace::refused);
  connect(analyst, &Analyst::changed, this, &DressPlace::refresh);
  connect(m_drawer, &SwatchRow::chosen, this,
          [this](const QString& item) { layItem(item.toStdString()); });
  connect(m_drawer, &SwatchRow::carried, this, [this](const QString& item, const QPoint& at) {
    const bool shape = m_drawer->showsShapes();
    if (const QPoint on = m_face->mapFromGlobal(at); m_face->rect().contains(on))
      m_hand->carryOverFace(item.toStdString(), m_face->fromScreen(on), shape);
    else
      m_hand->carry(item.toStdString(), m_stage->mapFromGlobal(at), shape);
  });
  connect(m_drawer, &SwatchRow::dropped, this, [this] { m_hand->drop(); });
  connect(m_drawer, &SwatchRow::putBack, this, [this] { m_hand->putBack(); });
  refresh();
}

QWidget* DressPlace::makeSide(Analyst* analyst) {
  auto* side = new QWidget(this);
  side->setFixedWidth(kSide_px);
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(0, 0, 0, 8);
  column->setSpacing(4);
  m_face = new FaceView(m_document, m_hand, side);
  column->addWidget(m_face, 1);
  column->addWidget(hairline(side));
  makeChoices(side, column);
  column->addWidget(hairline(side));
  m_findings = new FindingsPanel(m_document, analyst, side);
  m_findings->setFixedHeight(kFindings_px);
  auto* padded = new QVBoxLayout;
  padded->setContentsMargins(16, 4, 16, 0);
  padded->addWidget(m_findings);
  column->addLayout(padded);
  connect(m_findings, &FindingsPanel::refused, this, &DressPlace::refused);
  connect(m_findings, &FindingsPanel::showRequested, m_stage, &StageView::showFinding);
  connect(m_stage, &StageView::findingChosen, m_stage, &StageView::showFinding);
  return side;
}

void DressPlace::makeChoices(QWidget* side, QVBoxLayout* column) {
  const auto newRow = [&] {
    auto* row = new QHBoxLayout;
    row->setContentsMargins(16, 2, 16, 0);
    row->setSpacing(4);
    column->addLayout(row);
    return row;
  };
  auto* border = newRow();
  auto* label = new QLabel(tr("Border"), side);
  label->setObjectName(QStringLiteral("soft"));
  border->addWidget(label);
  m_border = new QLineEdit(side);
  m_border->setAccessibleName(tr("Border of the layer"));
  m_border->setToolTip(tr("One number, or four: foot, right, top, left. Empty: the usual one"));
  m_border->setFixedWidth(130);
  connect(m_border, &QLineEdit::editingFinished, this, &DressPlace::takeBorder);
  border->addWidget(m_border);
  addChoices(border, tr("Corners"),
             {{tr("sharp"), "sharp", [this] { m_hand->setCorners(CornerStyle::Sharp); },
               [this] {
                 const auto stack = m_hand->stack();
                 return m_hand->layer() < stack.size() &&
                        stack[m_hand->layer()].corners == CornerStyle::Sharp;
               }},
              {tr("round"), "round", [this] { m_hand->setCorners(CornerStyle::Round); }, [this] {
                 const auto stack = m_hand->stack();
                 return m_hand->layer() < stack.size() &&
                        stack[m_hand->layer()].corners == CornerStyle::Round;
               }}});
  const auto turned = [this](PatternTurn turn) {
    return [this, turn] {
      const auto stack = m_hand->stack();
      return m_hand->layer() < stack.size() && stack[m_hand->layer()].turn == turn;
    };
  };
  addChoices(newRow(), tr("Pattern"),
             {{tr("upright on display"), "upright",
               [this] { m_hand->setTurn(PatternTurn::Upright); }, turned(PatternTurn::Upright)},
              {tr("along the fold"), "along-fold",
               [this] { m_hand->setTurn(PatternTurn::AlongFold); },
               turned(PatternTurn::AlongFold)},
              {tr("a quarter round"), "quarter",
               [this] { m_hand->setTurn(PatternTurn::Angle, 90); }, turned(PatternTurn::Angle)}});
  const auto reaches = [this](const QString& text, const char* word, DressReach reach) {
    return std::tuple(text, QString::fromLatin1(word),
                      std::function<void()>([this, reach] { m_hand->setReach(reach); }),
                      std::function<bool()>([this, reach] { return m_hand->reach() == reach; }));
  };
  addChoices(newRow(), tr("Goes for"),
             {reaches(tr("this face"), "face", DressReach::Face),
              reaches(tr("its twin too"), "twins", DressReach::Twins),
              reaches(tr("all of its part"), "part", DressReach::Part),
              reaches(tr("all alike"), "alike", DressReach::Alike)});
  const auto glued = [this](const QString& text, const char* word, AtGlue how) {
    return std::tuple(text, QString::fromLatin1(word),
                      std::function<void()>([this, how] { m_hand->setAtGlue(how); }),
                      std::function<bool()>([this, how] { return m_hand->atGlue() == how; }));
  };
  addChoices(newRow(), tr("Pieces on it"),
             {glued(tr("glued onto the layers"), "under", AtGlue::Under),
              glued(tr("their tabs below"), "over", AtGlue::Over),
              glued(tr("left out"), "around", AtGlue::Around)});
  m_topperRow = new QWidget(side);
  auto* topper = new QHBoxLayout(m_topperRow);
  topper->setContentsMargins(16, 2, 16, 0);
  auto* topperLabel = new QLabel(tr("Topper"), m_topperRow);
  topperLabel->setObjectName(QStringLiteral("soft"));
  topper->addWidget(topperLabel);
  m_words = new QLineEdit(m_topperRow);
  m_words->setAccessibleName(tr("Topper in words"));
  m_words->setToolTip(tr("at 20 15; size 18 x 28; detail 0.5; turned 15; mirrored; flat; pads 2; "
                         "spring 6; mat tar border 2. On the face: arrows move it, R turns it, M "
                         "mirrors it, P puts it on pads."));
  connect(m_words, &QLineEdit::editingFinished, this, &DressPlace::takeWords);
  topper->addWidget(m_words, 1);
  column->addWidget(m_topperRow);
  auto* last = newRow();
  m_all = new QToolButton(side);
  m_all->setText(tr("Dress all that is seen"));
  m_all->setAccessibleName(m_all->text());
  m_all->setToolTip(tr("A mat and a pattern on every face that is seen, with the usual borders: "
                       "those of the chosen face, or the first that lie in the drawer"));
  connect(m_all, &QToolButton::clicked, this, &DressPlace::dressAll);
  last->addWidget(m_all);
  addChoices(last, {},
             {{tr("hidden (X)"), "hidden",
               [this] { m_hand->showHidden(!m_hand->hiddenShown()); },
               [this] { return m_hand->hiddenShown(); }}});
  addChoices(last, tr("Drawer"),
             {{tr("papers"), "papers", [this] { m_drawer->showShapes(false); },
               [this] { return m_drawer && !m_drawer->showsShapes(); }},
              {tr("shapes"), "shapes", [this] { m_drawer->showShapes(true); },
               [this] { return m_drawer && m_drawer->showsShapes(); }}});
}

void DressPlace::addChoices(
    QHBoxLayout* row, const QString& heading,
    const std::vector<std::tuple<QString, QString, std::function<void()>, std::function<bool()>>>&
        choices) {
  if (!heading.isEmpty()) {
    auto* label = new QLabel(heading, this);
    label->setObjectName(QStringLiteral("soft"));
    row->addSpacing(row->count() > 0 ? 14 : 0);
    row->addWidget(label);
  }
  for (const auto& [text, word, run, on] : choices) {
    auto* button = new QToolButton(this);
    button->setCheckable(true);
    button->setObjectName(QStringLiteral("handchoice"));
    button->setProperty("word", word);
    button->setText(text);
    button->setAccessibleName(text);
    connect(button, &QToolButton::clicked, this, [this, run = run] {
      run();
      refresh();
    });
    m_choices.emplace_back(button, on);
    row->addWidget(button);
  }
  row->addStretch(1);
}

QToolButton* DressPlace::choice(const QString& word) const {
  for (const auto& [button, on] : m_choices)
    if (button->property("word").toString() == word) return button;
  return nullptr;
}

void DressPlace::refresh() {
  for (const auto& [button, on] : m_choices)
    button->setChecked(on());
  const auto stack = m_hand->stack();
  const bool any = m_hand->layer() < stack.size();
  m_border->setEnabled(any);
  if (!m_border->hasFocus() || !m_border->isModified()) {
    QStringList borders;
    if (any)
      for (double border : stack[m_hand->layer()].border_mm)
        borders << QString::fromStdString(
            formatLength(border, m_document->design().settings.unit, false));
    m_border->setText(borders.join(QStringLiteral(", ")));
    m_border->setModified(false);
  }
  m_border->setPlaceholderText(any ? tr("the usual one") : QString());
  m_topperRow->setVisible(m_hand->topper().has_value());
  if (!m_words->hasFocus() || !m_words->isModified()) {
    m_words->setText(m_hand->topperInWords());
    m_words->setCursorPosition(0);
    m_words->setModified(false);
  }
  m_face->update();
}

void DressPlace::takeWords() {
  if (!m_words->isModified()) return;
  m_words->setModified(false);
  if (!m_hand->sayTopper(m_words->text())) refresh();
}

void DressPlace::layItem(const std::string& item) {
  if (m_drawer->showsShapes())
    m_hand->addTopper(item);
  else
    layPaper(item);
}

void DressPlace::takeBorder() {
  if (!m_border->isModified()) return;
  m_border->setModified(false);
  const LengthUnit unit = m_document->design().settings.unit;
  const QString text = m_border->text().trimmed();
  if (text.isEmpty()) return void(m_hand->setBorder({}));
  const auto borders = bordersFromText(text.toStdString(), unit);
  if (borders) return void(m_hand->setBorder(*borders));
  emit refused(said(borders.error(), unit));
  refresh();
}

void DressPlace::layPaper(const std::string& paper) {
  if (m_hand->face().empty()) return void(emit refused(tr("Choose a face first: click it")));
  m_hand->lay(paper);
}

/// What the chosen face wears, for all; or the first plain and the first printed paper of the
/// drawer; or the first two that everybody has.
void DressPlace::dressAll() {
  const auto stack = m_hand->stack();
  if (stack.size() >= 2) {
    m_hand->dressAll(stack[0].paper, stack[1].paper);
    return;
  }
  const Design& design = m_document->committed();
  std::string mat, pattern;
  const auto look = [&](std::span<const Paper> papers) {
    for (const Paper& paper : papers) {
      if (paper.key == design.stock || paper.surface == Surface::Film) continue;
      if (pattern.empty() && paper.print) pattern = paper.key;
      if (mat.empty() && !paper.print && paper.colours != Paper().colours) mat = paper.key;
    }
  };
  look(design.papers);
  look(knownPapers());
  m_hand->dressAll(mat, pattern);
}

bool DressPlace::eventFilter(QObject* watched, QEvent* event) {
  const auto* key = event->type() == QEvent::KeyPress || event->type() == QEvent::ShortcutOverride
                        ? static_cast<QKeyEvent*>(event)
                        : nullptr;
  if (!key || key->modifiers() & (Qt::ControlModifier | Qt::AltModifier))
    return QWidget::eventFilter(watched, event);
  // Letters are papers here, not what they are elsewhere.
  const std::string paper = m_drawer->paperOf(key->key());
  const bool hidden = key->key() == Qt::Key_X, off = key->key() == Qt::Key_Backspace ||
                                                     key->key() == Qt::Key_Delete,
             number = !key->text().isEmpty() && key->text().at(0).isDigit();
  // With a topper chosen, some letters turn it instead (see FaceView).
  const bool turns = watched == m_face && m_hand->topper() &&
                     (key->key() == Qt::Key_R || key->key() == Qt::Key_M || key->key() == Qt::Key_P);
  if (turns || (paper.empty() && !hidden && !off && !number)) return QWidget::eventFilter(watched, event);
  if (event->type() == QEvent::ShortcutOverride) {
    event->accept();
    return true;
  }
  if (hidden)
    m_hand->showHidden(!m_hand->hiddenShown());
  else if (off)
    m_hand->takeOff();
  else if (number) {
    m_border->setFocus();
    m_border->setText(key->text());
    m_border->setModified(true);
  } else
    layPaper(paper);
  return true;
}

} // namespace hinge
