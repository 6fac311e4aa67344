// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/hand_bar.h"
#include "app/saying.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/paper/topper_shape.h"
#endif
#include <QHBoxLayout>
#include <QMenu>
#include <QVBoxLayout>

namespace hinge {
namespace {

/// Further numbers of a joint, as they are said.
QString numbersOfKind(std::size_t kind) {
  switch (kind) {
  case 1: return QStringLiteral("deep 20 into 20");
  case 2: return QStringLiteral("spun -30 to 30");
  case 3: return QStringLiteral("least 0 most 40 pushed 0 to 40");
  case 4:
  case 5: return QStringLiteral("long 60");
  default: return QStringLiteral("only 0,0 20,0 20,10");
  }
}

} // namespace

HandBar::HandBar(SheetHand* hand, SheetView* sheet, JointHand* joints, FoldHand* folds,
                 StageView* stage, QWidget* parent)
    : QWidget(parent), m_hand(hand), m_sheet(sheet), m_joints(joints), m_folds(folds),
      m_stage(stage) {
  setAccessibleName(tr("What the hand does"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(14, 2, 14, 0);
  column->setSpacing(2);
  auto* words = new QHBoxLayout;
  words->setSpacing(0);
  column->addLayout(words);
  m_wordRow = words;
  addWord(tr("Hold"), QStringLiteral("hold"), Qt::Key_H, Way::Tool, SheetTool::Hold,
          tr("Drag corners, edges, lines and openings; a second click turns a score over"));
  addWord(tr("Score"), QStringLiteral("score"), Qt::Key_S, Way::Tool, SheetTool::Score,
          tr("Click, or drag from edge to edge or between lines; type the place"));
  addWord(tr("Cut"), QStringLiteral("cut"), Qt::Key_C, Way::Tool, SheetTool::Cut,
          tr("Drag from point to point"));
  addWord(tr("Opening"), QStringLiteral("opening"), Qt::Key_O, Way::Tool, SheetTool::Opening,
          tr("Drag it open, across folds too"));
  addWord(tr("Reverse"), QStringLiteral("reverse"), Qt::Key_R, Way::Tool, SheetTool::Reverse,
          tr("Drag a band across scores: it is cut and folds the other way"));
  addWord(tr("Tab"), QStringLiteral("tab"), Qt::Key_T, Way::Tool, SheetTool::Tab,
          tr("Click an edge, or drag the tab out of it"));
  addWord(tr("Trim"), QStringLiteral("trim"), Qt::Key_I, Way::Tool, SheetTool::Trim,
          tr("Drag an edge inwards: so much is cut off; from a corner, as far as you drag"));
  addWord(tr("Corner"), QStringLiteral("corner"), Qt::Key_K, Way::Tool, SheetTool::Corner,
          tr("Click a corner, or drag as far as it is rounded or cut off"));
  addWord(tr("Outline"), QStringLiteral("trace"), Qt::Key_L, Way::Tool, SheetTool::Outline,
          tr("Draw the sheet anew, corner by corner; Enter closes it"));
  addWord(tr("Fold"), QStringLiteral("fold"), Qt::Key_F, Way::Fold, SheetTool::Hold,
          tr("Drag a panel on the stage about its fold, before it is glued"));
  addWord(tr("Join"), QStringLiteral("join"), Qt::Key_J, Way::Join, SheetTool::Hold,
          tr("Pick a panel here, then the face on the stage"));
  words->addStretch();
  auto* choices = new QHBoxLayout;
  choices->setSpacing(4);
  column->addLayout(choices);
  m_choiceRow = choices;
  addChoices();
  addJointChoices();
  m_more = new QLineEdit(this);
  m_more->setAccessibleName(tr("More about the joint"));
  m_more->setFixedWidth(170);
  connect(m_more, &QLineEdit::textChanged, m_joints, &JointHand::setMore);
  choices->addWidget(m_more);
  // As high with nothing in it: the drawing below keeps its place and scale, whatever is chosen.
  choices->addStrut(m_more->sizeHint().height());
  choices->addStretch();
  m_said = new QLabel(this);
  m_said->setObjectName(QStringLiteral("soft"));
  m_said->setAccessibleName(tr("Said last"));
  choices->addWidget(m_said);
  connect(m_hand, &SheetHand::started, this, [this] {
    m_way = Way::Tool;
    m_sheet->setPicking(false);
    m_more->clear();
    refresh();
  });
  connect(m_hand, &SheetHand::changed, this, &HandBar::refresh);
  connect(m_joints, &JointHand::changed, this, &HandBar::refresh);
  connect(m_sheet, &SheetView::toolKey, this, &HandBar::choose);
  connect(m_folds, &FoldHand::finished, this, [this] {
    if (m_way == Way::Fold) m_way = Way::Tool;
    refresh();
  });
  refresh();
}

void HandBar::addWord(const QString& text, const QString& name, int key, Way way, SheetTool tool,
                      const QString& tip) {
  auto* button = new QToolButton(this);
  button->setCheckable(true);
  button->setObjectName(QStringLiteral("handword"));
  button->setProperty("word", name);
  button->setText(text);
  button->setAccessibleName(tr("Hand: %1").arg(text));
  button->setToolTip(tr("%1 (%2)").arg(tip, QKeySequence(key).toString()));
  const Word word{button, key, way, tool};
  connect(button, &QToolButton::clicked, this, [this, word] { takeUp(word); });
  m_words.push_back(word);
  m_wordRow->addWidget(button);
}

void HandBar::takeUp(const Word& word) {
  m_way = word.way;
  m_hand->cancel();
  m_sheet->setPicking(word.way == Way::Join);
  if (word.way == Way::Fold)
    m_stage->take(m_folds);
  else if (m_stage->hand())
    m_stage->take(nullptr);
  if (word.way != Way::Fold) m_sheet->setFocus();
  m_way = word.way; // what ended has gone back to the first word
  m_hand->setTool(word.tool);
}

QToolButton* HandBar::word(const QString& name) const {
  for (QToolButton* button : findChildren<QToolButton*>())
    if (button->property("word") == name) return button;
  return nullptr;
}

bool HandBar::takeUpBy(int key) {
  const auto word = std::ranges::find(m_words, key, &Word::key);
  if (word == m_words.end()) return false;
  takeUp(*word);
  return true;
}

void HandBar::choose(int key) {
  if (takeUpBy(key)) return;
  switch (key) {
  case Qt::Key_V: return m_hand->setFold(WorkLine::Kind::Valley);
  case Qt::Key_M: return m_hand->setFold(WorkLine::Kind::Mountain);
  case Qt::Key_E: return m_hand->setFarEnd(!m_hand->stroke().fromFarEnd);
  case Qt::Key_B: m_hand->say(QStringLiteral("alike")); return;
  default: return;
  }
}

QToolButton* HandBar::addChoice(const QString& text, const QString& name,
                                const std::function<void()>& run, const std::function<bool()>& on,
                                const std::function<bool()>& shown) {
  auto* button = new QToolButton(this);
  button->setCheckable(true);
  button->setObjectName(QStringLiteral("handchoice"));
  button->setProperty("word", name);
  button->setText(text);
  button->setAccessibleName(text);
  connect(button, &QToolButton::clicked, this, [this, run] {
    run();
    refresh();
    if (m_sheet->typed().isHidden()) m_sheet->setFocus();
  });
  m_choices.push_back({button, on, shown});
  m_choiceRow->addWidget(button);
  return button;
}

void HandBar::addChoices() {
  const auto is = [this](SheetTool tool) {
    return m_way == Way::Tool && m_hand->stroke().tool == tool;
  };
  const auto folds = [this, is] {
    return is(SheetTool::Score) || is(SheetTool::Tab) || is(SheetTool::Hold);
  };
  using Kind = WorkLine::Kind;
  for (const auto& [text, name, kind] :
       {std::tuple(tr("valley"), QStringLiteral("valley"), Kind::Valley),
        std::tuple(tr("mountain"), QStringLiteral("mountain"), Kind::Mountain)})
    addChoice(
        text, name, [this, k = kind] { m_hand->setFold(k); },
        [this, k = kind] { return m_hand->stroke().fold == k; }, folds);
  addChoice(
      tr("from the other end"), QStringLiteral("far-end"),
      [this] { m_hand->setFarEnd(!m_hand->stroke().fromFarEnd); },
      [this] { return m_hand->stroke().fromFarEnd; },
      [is] { return is(SheetTool::Score) || is(SheetTool::Hold); });
  addChoice(
      tr("both sides alike"), QStringLiteral("alike"),
      [this] { m_hand->say(QStringLiteral("alike")); }, [] { return false; },
      [is] { return is(SheetTool::Score) || is(SheetTool::Hold); });
  // What needs a number more: the sentence is begun for the line that is chosen.
  for (const auto& [text, name, verb, then] :
       {std::tuple(tr("repeat …"), QStringLiteral("repeat"), QStringLiteral("repeat"),
                   QStringLiteral("every ")),
        std::tuple(tr("lean …"), QStringLiteral("lean"), QStringLiteral("lean"), QString())})
    addChoice(
        text, name, [this, v = verb, t = then] { m_sheet->begin(m_hand->begunWith(v, t)); },
        [] { return false; },
        [this, is] {
          const auto what = m_hand->chosen().what;
          return is(SheetTool::Hold) && (what == Grip::What::Line || what == Grip::What::LineFrom ||
                                         what == Grip::What::LineTo);
        });
  addShapes();
  for (const auto& [text, name, how] :
       {std::tuple(tr("rounded"), QStringLiteral("rounded"), CornerCut::Round),
        std::tuple(tr("cut off"), QStringLiteral("snipped"), CornerCut::Snip)})
    addChoice(
        text, name, [this, h = how] { m_hand->setCorner(h); },
        [this, h = how] { return m_hand->stroke().corner == h; },
        [is] { return is(SheetTool::Corner); });
}

void HandBar::addShapes() {
  const auto shown = [this] {
    const SheetTool tool = m_hand->stroke().tool;
    return m_way == Way::Tool && (tool == SheetTool::Opening || tool == SheetTool::Outline);
  };
  for (const auto& [text, name, shape] :
       {std::tuple(tr("rectangle"), QStringLiteral("rectangle"), DrawnShape::Rectangle),
        std::tuple(tr("disc"), QStringLiteral("disc"), DrawnShape::Disc),
        std::tuple(tr("oval"), QStringLiteral("oval"), DrawnShape::Oval),
        std::tuple(tr("piece of a ring"), QStringLiteral("ring"), DrawnShape::Ring),
        std::tuple(tr("corner by corner"), QStringLiteral("outline"), DrawnShape::Corners)})
    addChoice(
        text, name, [this, s = shape] { m_hand->setShape(s); },
        [this, s = shape] { return m_hand->stroke().drawnAs() == s; }, shown);
  QToolButton* shapes = addChoice(
      tr("shape"), QStringLiteral("shape"), [] {},
      [this] { return m_hand->stroke().drawnAs() == DrawnShape::Named; }, shown);
  auto* menu = new QMenu(shapes);
  for (const TopperShape& shape : topperShapes())
    menu->addAction(said(Text("topper." + std::string(shape.key))), this, [this, &shape] {
      m_hand->setShape(DrawnShape::Named, std::string(shape.key));
    });
  shapes->setMenu(menu);
  shapes->setPopupMode(QToolButton::InstantPopup);
  QToolButton* centred = addChoice(
      tr("centred on what is chosen"), QStringLiteral("centred"),
      [this] { m_hand->setCentred(!m_hand->centred()); }, [this] { return m_hand->centred(); },
      [this, shown] { return shown() && m_hand->canCentre(); });
  centred->setToolTip(tr("Choose a line or a panel with Hold first; the shape is drawn about its "
                         "middle"));
}

void HandBar::addJointChoices() {
  const QStringList names{tr("glue"), tr("slot"), tr("pin"), tr("slide"), tr("band"), tr("film")};
  for (std::size_t k = 0; k < kJointKeys.size(); ++k)
    addChoice(
        names.value(static_cast<int>(k)), asQt(kJointKeys[k]),
        [this, k] {
          m_more->clear();
          m_joints->setKind(k);
        },
        [this, k] { return m_joints->kind() == k; }, [this] { return m_way == Way::Join; });
}

void HandBar::refresh() {
  for (const Word& word : m_words)
    word.button->setChecked(word.way == m_way &&
                            (m_way != Way::Tool || word.tool == m_hand->stroke().tool));
  for (const Choice& choice : m_choices) {
    choice.button->setVisible(choice.shown());
    choice.button->setChecked(choice.on());
  }
  m_more->setVisible(m_way == Way::Join);
  m_more->setPlaceholderText(numbersOfKind(m_joints->kind()));
  m_said->setText(m_hand->lastSaid());
  m_said->setVisible(m_way != Way::Join && !m_hand->lastSaid().isEmpty());
}

} // namespace hinge
