// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/dress_place.h"
#include "app/saying.h"
#include "core/edits/dressing.h"
#include "core/io/drawing.h"
#include "core/io/dress_words.h"
#include "core/io/maker_drawer.h"
#include "core/io/text_file.h"
#include <QFileInfo>
#include <QFrame>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

namespace hinge {
namespace {

constexpr int kDressSide_px = 500, kFindings_px = 92;
constexpr double kPictureWide_mm = 100; ///< until it is said otherwise

QFrame* hairline(QWidget* parent) {
  auto* line = new QFrame(parent);
  line->setObjectName(QStringLiteral("hairline"));
  line->setFixedHeight(1);
  return line;
}

QHBoxLayout* newRow(QVBoxLayout* column) {
  auto* row = new QHBoxLayout;
  row->setContentsMargins(16, 2, 16, 0);
  row->setSpacing(4);
  column->addLayout(row);
  return row;
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
  m_stage->restWhileHidden();
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
  connect(m_stage, &StageView::poseChanged, this, &DressPlace::refresh);
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
  connect(m_drawer, &SwatchRow::described, this, &DressPlace::takePaper);
  connect(m_drawer, &SwatchRow::keepWanted, this, [this](const QString& key) {
    const Paper* paper = m_drawer->find(key.toStdString());
    const auto kept = paper ? keepPaper(*paper) : Result<void>();
    if (!kept) return void(emit refused(said(kept.error())));
    emit notice(tr("%1 lies in your own drawer now").arg(said(nameOf(*paper))));
  });
  connect(m_drawer, &SwatchRow::dropped, this, [this] { m_hand->drop(); });
  connect(m_drawer, &SwatchRow::putBack, this, [this] { m_hand->putBack(); });
  refresh();
}

QWidget* DressPlace::makeSide(Analyst* analyst) {
  auto* side = new QWidget(this);
  side->setFixedWidth(kDressSide_px);
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(0, 0, 0, 8);
  column->setSpacing(4);
  m_face = new FaceView(m_document, m_hand, side);
  column->addWidget(m_face, 1);
  column->addWidget(hairline(side));
  makeLayerChoices(side, column);
  makeFaceChoices(column);
  makeTopperRow(side, column);
  makeLastRow(side, column);
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

/// What is said of the chosen layer.
void DressPlace::makeLayerChoices(QWidget* side, QVBoxLayout* column) {
  auto* border = newRow(column);
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
              {tr("round"), "round", [this] { m_hand->setCorners(CornerStyle::Round); },
               [this] {
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
  addChoices(newRow(column), tr("Pattern"),
             {{tr("upright on display"), "upright",
               [this] { m_hand->setTurn(PatternTurn::Upright); }, turned(PatternTurn::Upright)},
              {tr("along the fold"), "along-fold",
               [this] { m_hand->setTurn(PatternTurn::AlongFold); }, turned(PatternTurn::AlongFold)},
              {tr("a quarter round"), "quarter",
               [this] { m_hand->setTurn(PatternTurn::Angle, 90); }, turned(PatternTurn::Angle)}});
}

/// What is said of the face and those that go with it.
void DressPlace::makeFaceChoices(QVBoxLayout* column) {
  const auto reaches = [this](const QString& text, const char* word, DressReach reach) {
    return std::tuple(text, QString::fromLatin1(word),
                      std::function<void()>([this, reach] { m_hand->setReach(reach); }),
                      std::function<bool()>([this, reach] { return m_hand->reach() == reach; }));
  };
  addChoices(newRow(column), tr("Goes for"),
             {reaches(tr("this face"), "face", DressReach::Face),
              reaches(tr("its twin too"), "twins", DressReach::Twins),
              reaches(tr("all of its part"), "part", DressReach::Part),
              reaches(tr("all alike"), "alike", DressReach::Alike)});
  const auto glued = [this](const QString& text, const char* word, AtGlue how) {
    return std::tuple(text, QString::fromLatin1(word),
                      std::function<void()>([this, how] { m_hand->setAtGlue(how); }),
                      std::function<bool()>([this, how] { return m_hand->atGlue() == how; }));
  };
  addChoices(newRow(column), tr("Pieces on it"),
             {glued(tr("glued onto the layers"), "under", AtGlue::Under),
              glued(tr("their tabs below"), "over", AtGlue::Over),
              glued(tr("left out"), "around", AtGlue::Around)});
}

void DressPlace::makeTopperRow(QWidget* side, QVBoxLayout* column) {
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
}

void DressPlace::makeLastRow(QWidget* side, QVBoxLayout* column) {
  auto* last = newRow(column);
  m_all = new QToolButton(side);
  m_all->setText(tr("Dress all that is seen"));
  m_all->setAccessibleName(m_all->text());
  m_all->setToolTip(tr("A mat and a pattern on every face that is seen, with the usual borders: "
                       "those of the chosen face, or the first that lie in the drawer"));
  connect(m_all, &QToolButton::clicked, this, &DressPlace::dressAll);
  last->addWidget(m_all);
  addChoices(last, {},
             {{tr("hidden (X)"), "hidden", [this] { m_hand->showHidden(!m_hand->hiddenShown()); },
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

/// A paper that was described is in the drawer, or is changed there with all that is made of it.
void DressPlace::takePaper(const QString& words) {
  const Design& design = m_document->committed();
  const LengthUnit unit = design.settings.unit;
  auto told = paperFromWords(words.toStdString(), unit);
  if (!told) return void(emit refused(said(told.error(), unit)));
  Paper paper = std::move(told).value();
  if (const Paper* before = m_drawer->find(paper.key)) {
    paper.extras = before->extras;
    if (!paper.print) paper.picture = before->picture;
  }
  putPaper(paper);
}

void DressPlace::putPaper(const Paper& paper) {
  const auto next = withPaper(m_document->committed(), paper);
  const auto done = next ? m_document->apply(*next, tr("paper %1").arg(said(nameOf(paper))))
                         : Result<void>(next.error());
  if (!done) emit refused(said(done.error(), m_document->committed().settings.unit));
}

bool DressPlace::takeFile(const QString& path) {
  const LengthUnit unit = m_document->committed().settings.unit;
  const auto fails = [&](const Error& why) {
    emit refused(said(why, unit));
    return true;
  };
  for (const char* ending : {".png", ".jpg", ".jpeg"}) {
    if (!path.endsWith(QLatin1String(ending), Qt::CaseInsensitive)) continue;
    auto bytes = readFile(path.toStdString());
    if (!bytes) return fails(bytes.error());
    Paper paper = *findPaper(knownPapers(), "patterned-120");
    paper.label = QFileInfo(path).completeBaseName().toStdString();
    paper.key.clear();
    for (const char c : paper.label)
      paper.key += std::isalnum(static_cast<unsigned char>(c)) ? c : '-';
    paper.key.resize(std::min<std::size_t>(paper.key.size(), 40));
    paper.way = PatternWay::Along;
    paper.picture = Picture{std::move(bytes).value(), kPictureWide_mm};
    if (auto valid = validate(paper); !valid) return fails(valid.error());
    putPaper(paper);
    emit notice(tr("%1 lies in the drawer, %2 mm wide; F2 there says it otherwise")
                    .arg(asQt(paper.label))
                    .arg(kPictureWide_mm));
    return true;
  }
  const auto drawing = drawingFromFile(path.toStdString());
  if (!drawing) return fails(drawing.error());
  auto areas = areasOf(*drawing, likelyUses(*drawing));
  if (!areas) return fails(areas.error());
  return m_hand->addShape(std::move(areas).value()), true;
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
  // One of the maker's own comes into the drawer of the card with it.
  if (const Paper* own = m_drawer->find(paper)) m_hand->lay(*own);
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
      if (pattern.empty() && paper.patterned()) pattern = paper.key;
      if (mat.empty() && !paper.patterned() && paper.colours != Paper().colours) mat = paper.key;
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
  const bool hidden = key->key() == Qt::Key_X,
             off = key->key() == Qt::Key_Backspace || key->key() == Qt::Key_Delete,
             number = !key->text().isEmpty() && key->text().at(0).isDigit();
  // With a topper chosen, some letters turn it instead (see FaceView).
  const bool turns =
      watched == m_face && m_hand->topper() &&
      (key->key() == Qt::Key_R || key->key() == Qt::Key_M || key->key() == Qt::Key_P);
  if (turns || (paper.empty() && !hidden && !off && !number))
    return QWidget::eventFilter(watched, event);
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
