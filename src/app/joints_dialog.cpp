// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/joints_dialog.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/structures/piece.h"
#include "core/structures/registry.h"
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QToolButton>

namespace hinge {
namespace {

QString kindName(std::size_t kind) {
  const std::array names{QObject::tr("glued to"),  QObject::tr("slotted into"),
                         QObject::tr("pinned on"), QObject::tr("slides on"),
                         QObject::tr("band to"),   QObject::tr("film to")};
  static_assert(names.size() == kJointKeys.size());
  return names[kind];
}

/// What the numbers of a joint are called, in the order of numbersOf().
QStringList numberNames(const given::Kind& kind) {
  struct {
    QStringList operator()(const given::Glue&) const { return {QObject::tr("turned by")}; }
    QStringList operator()(const given::Pivot&) const {
      return {QObject::tr("lies at"), QObject::tr("spun from"), QObject::tr("spun to"),
              QObject::tr("by steps of"), QObject::tr("over")};
    }
    QStringList operator()(const given::Slot&) const {
      return {QObject::tr("line on it"), QObject::tr("line here"), QObject::tr("slit here"),
              QObject::tr("slit there"), QObject::tr("catch")};
    }
    QStringList operator()(const given::Slide&) const {
      return {QObject::tr("way on it"),   QObject::tr("way here"),     QObject::tr("first stop"),
              QObject::tr("last stop"),   QObject::tr("pulled by"),    QObject::tr("from open"),
              QObject::tr("to open"),     QObject::tr("by hand from"), QObject::tr("by hand to"),
              QObject::tr("by steps of"), QObject::tr("over")};
    }
    QStringList operator()(const given::Band&) const { return {QObject::tr("length")}; }
    QStringList operator()(const given::Film&) const { return {QObject::tr("length")}; }
  } names;
  return std::visit(names, kind);
}

} // namespace

JointsDialog::JointsDialog(Document* document, StructureId piece, QWidget* parent)
    : QDialog(parent), m_document(document), m_piece(piece),
      m_editor(new PieceEditor(document, piece, this)) {
  setWindowTitle(tr("Joints"));
  setAttribute(Qt::WA_DeleteOnClose);
  setModal(false);
  resize(700, 460);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 16, 20, 16);
  auto* hint =
      new QLabel(tr("A point of the piece meets a point of a face. On the piece: from its left end "
                    "and lower edge. On a face: along the line it stands on, and away from it."),
                 this);
  hint->setObjectName(QStringLiteral("soft"));
  hint->setWordWrap(true);
  column->addWidget(hint);
  auto* scroll = new QScrollArea(this);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setWidgetResizable(true);
  auto* holder = new QWidget(scroll);
  m_lines = new QVBoxLayout(holder);
  m_lines->setContentsMargins(0, 0, 8, 0);
  scroll->setWidget(holder);
  column->addWidget(scroll, 1);
  auto* row = new QHBoxLayout;
  auto* add = new QPushButton(tr("Another joint"), this);
  connect(add, &QPushButton::clicked, this, [this] {
    const PieceWork* now = work();
    if (!now || now->joints.empty()) return;
    PieceWork next = *now;
    next.joints.push_back(next.joints.back());
    m_editor->change(next, tr("add a joint"));
  });
  auto* done = new QPushButton(tr("Done"), this);
  done->setObjectName(QStringLiteral("primary"));
  connect(done, &QPushButton::clicked, this, &QDialog::accept);
  // Return takes over what is typed in a field and does nothing else.
  for (QPushButton* button : {add, done})
    button->setAutoDefault(false);
  row->addWidget(add);
  row->addStretch();
  row->addWidget(done);
  column->addLayout(row);
  // What was refused shows what it was before.
  connect(m_editor, &PieceEditor::refused, this, [this](const QString& why) {
    emit refused(why);
    QMetaObject::invokeMethod(this, &JointsDialog::rebuild, Qt::QueuedConnection);
  });
  // Anew after the event that caused it, which may come from one of the fields.
  connect(document, &Document::designChanged, this, [this] {
    if (!work())
      close();
    else
      QMetaObject::invokeMethod(this, &JointsDialog::rebuild, Qt::QueuedConnection);
  });
  rebuild();
}

void JointsDialog::takePoint(std::size_t index, bool there, const std::string& face,
                             const Vec2& at) {
  const PieceWork* now = work();
  if (!now || index >= now->joints.size()) return;
  if ((ownerOfKey(face) == m_piece) == there)
    return void(emit refused(there ? tr("That is this piece itself: point at what it is joined to")
                                   : tr("That is not this piece: point at one of its own panels")));
  PieceWork next = *now;
  if (there) {
    const auto assembled = m_document->committedSnapshot()->assembly();
    const StructureItem* item = m_document->committed().find(m_piece);
    const Seat* on = assembled ? (*assembled)->findSeat(face) : nullptr;
    if (!on) return;
    next.joints[index].on = face;
    const ParameterSpec* place = findSense(parametersOf(*item), Sense::Place);
    next.joints[index].to = at - item->values.find(place->key)->second *
                                     alongFace(*(*assembled)->findSeat(item->seat), on->sides[0]);
  } else
    next.joints[index].at = at;
  m_editor->change(next, tr("change a joint"));
}

void JointsDialog::rebuild() {
  delete m_page;
  m_page = new QWidget(this);
  auto* column = new QVBoxLayout(m_page);
  column->setContentsMargins(0, 0, 0, 0);
  const PieceWork* now = work();
  for (std::size_t k = 0; now && k < now->joints.size(); ++k)
    column->addWidget(lineFor(k));
  column->addStretch();
  m_lines->addWidget(m_page);
}

void JointsDialog::edit(std::size_t index, const std::function<void(PieceJoint&)>& how,
                        const QString& what) {
  const PieceWork* now = work();
  if (!now || index >= now->joints.size()) return;
  PieceWork next = *now;
  how(next.joints[index]);
  if (!(next == *now)) m_editor->change(next, what);
}

void JointsDialog::addChoices(QGridLayout* grid, std::size_t index, const PieceJoint& joint) {
  QWidget* box = grid->parentWidget();
  auto* kind = new QComboBox(box);
  kind->setAccessibleName(tr("Kind of joint %1").arg(index + 1));
  for (std::size_t k = 0; k < kJointKeys.size(); ++k)
    kind->addItem(kindName(k));
  kind->setCurrentIndex(static_cast<int>(joint.kind.index()));
  connect(kind, &QComboBox::activated, this, [this, index](int k) {
    edit(
        index, [k](PieceJoint& j) { j.kind = changedTo(static_cast<std::size_t>(k), j.kind); },
        tr("change a joint"));
  });
  auto* side = new QComboBox(box);
  side->setAccessibleName(tr("Side of the piece at joint %1").arg(index + 1));
  side->addItems({tr("by its back"), tr("by its face")});
  const bool* byFace = byFaceOf(joint.kind);
  side->setCurrentIndex(byFace && *byFace ? 1 : 0);
  side->setVisible(byFace != nullptr);
  connect(side, &QComboBox::activated, this, [this, index](int k) {
    edit(
        index,
        [k](PieceJoint& j) {
          if (bool* own = byFaceOf(j.kind)) *own = k == 1;
        },
        tr("change a joint"));
  });
  auto* on = new QComboBox(box);
  on->setAccessibleName(tr("Face of joint %1").arg(index + 1));
  if (const auto assembled = m_document->committedSnapshot()->assembly())
    for (const Seat& seat : (*assembled)->seats)
      if (seat.kind() == SeatKind::Face) {
        on->addItem(said(seat.label), asQt(seat.key));
        if (seat.key == joint.on) on->setCurrentIndex(on->count() - 1);
      }
  connect(on, &QComboBox::activated, this, [this, index, on](int) {
    const std::string key = on->currentData().toString().toStdString();
    edit(
        index, [key](PieceJoint& j) { j.on = key; }, tr("change a joint"));
  });
  auto* remove = new QToolButton(box);
  remove->setText(tr("Remove"));
  remove->setAccessibleName(tr("Remove joint %1").arg(index + 1));
  connect(remove, &QToolButton::clicked, this, [this, index] {
    PieceWork next = *work();
    next.joints.erase(next.joints.begin() + static_cast<std::ptrdiff_t>(index));
    m_editor->change(next, tr("remove a joint"));
  });
  grid->addWidget(kind, 0, 0);
  grid->addWidget(on, 0, 1, 1, 4);
  grid->addWidget(side, 0, 5);
  grid->addWidget(remove, 0, 6);
}

void JointsDialog::addPointButton(QGridLayout* grid, std::size_t index, bool there) {
  auto* point = new QToolButton(grid->parentWidget());
  point->setText(tr("Point"));
  point->setAccessibleName(there ? tr("Point at the face for joint %1").arg(index + 1)
                                 : tr("Point at the piece for joint %1").arg(index + 1));
  point->setToolTip(there ? tr("Click on the stage where it is joined")
                          : tr("Click on the stage which point of this piece is joined"));
  connect(point, &QToolButton::clicked, this,
          [this, index, there] { emit pointWanted(index, there); });
  grid->addWidget(point, there ? 2 : 1, 6);
}

QWidget* JointsDialog::lineFor(std::size_t index) {
  const PieceJoint joint = work()->joints[index];
  const LengthUnit unit = m_document->design().settings.unit;
  auto* box = new QFrame(m_page);
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(0, 8, 0, 8);
  grid->setHorizontalSpacing(8);
  addChoices(grid, index, joint);
  const auto field = [&](int row, int column, const QString& label, double value, bool length,
                         const std::function<void(PieceJoint&, double)>& set) {
    grid->addWidget(new QLabel(label, box), row, column);
    auto* line = new QLineEdit(length ? QString::fromStdString(formatLength(value, unit, false))
                                      : QString::fromStdString(formatAngle(value)),
                               box);
    line->setAccessibleName(tr("%1 of joint %2").arg(label).arg(index + 1));
    line->setFixedWidth(76);
    line->setAlignment(Qt::AlignRight);
    connect(line, &QLineEdit::editingFinished, this, [this, line, length, unit, set, index] {
      if (!line->isModified()) return;
      line->setModified(false);
      const auto typed = length ? parseLength_mm(line->text().toStdString(), unit)
                                : parseAngle_deg(line->text().toStdString());
      if (!typed)
        return void(emit refused(said(typed.error(), m_document->design().settings.unit)));
      edit(
          index, [&](PieceJoint& j) { set(j, *typed); }, tr("change a joint"));
    });
    grid->addWidget(line, row, column + 1);
  };
  field(1, 0, tr("here, from the left"), joint.at.x(), true,
        [](PieceJoint& j, double v) { j.at.x() = v; });
  field(1, 2, tr("up"), joint.at.y(), true, [](PieceJoint& j, double v) { j.at.y() = v; });
  field(2, 0, tr("there, along"), joint.to.x(), true,
        [](PieceJoint& j, double v) { j.to.x() = v; });
  field(2, 2, tr("away"), joint.to.y(), true, [](PieceJoint& j, double v) { j.to.y() = v; });
  for (bool there : {false, true})
    addPointButton(grid, index, there);
  given::Kind kind = joint.kind;
  const QStringList names = numberNames(kind);
  const auto numbers = numbersOf(kind);
  for (int k = 0; k < static_cast<int>(numbers.size()); ++k) {
    const auto at = static_cast<std::size_t>(k);
    // Two beside the places, the others in rows of three below.
    field(k < 2 ? 1 + k : 3 + (k - 2) / 3, k < 2 ? 4 : 2 * ((k - 2) % 3), names.value(k),
          *numbers[at].value, numbers[at].isLength(),
          [at](PieceJoint& j, double v) { *numbersOf(j.kind)[at].value = v; });
  }
  return box;
}

} // namespace hinge
