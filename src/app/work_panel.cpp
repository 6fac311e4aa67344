// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/work_panel.h"
#include "app/fit_dialog.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/checks/analysis.h"
#include "core/edits/solve_piece.h"
#include "core/edits/wrap_round.h"
#include "core/pieces/sheet_words.h"
#include "core/structures/closure.h"
#include <QHBoxLayout>
#include <QStyle>

namespace hinge {

WorkPanel::WorkPanel(Document* document, QWidget* parent)
    : QWidget(parent), m_document(document),
      m_editor(new PieceEditor(document, std::nullopt, this)) {
  setAccessibleName(tr("Free piece"));
  auto* beside = new QHBoxLayout(this);
  beside->setContentsMargins(0, 0, 0, 0);
  beside->setSpacing(14);
  connect(m_editor, &PieceEditor::refused, this, &WorkPanel::refused);
  m_profile = new ProfileView(document, this);
  connect(m_profile, &ProfileView::refused, this, &WorkPanel::refused);
  beside->addWidget(m_profile, 1);
  auto* column = new QVBoxLayout;
  column->setSpacing(8);
  beside->addLayout(column, 1);
  auto* typed = new QHBoxLayout;
  typed->addWidget(new QLabel(tr("Scores"), this));
  m_scores = new QLineEdit(this);
  m_scores->setAccessibleName(tr("Scores from the left end"));
  m_scores->setToolTip(
      tr("Places of the scores from the left end, parted by commas, each with v for "
         "a valley or m for a mountain. More of them make new scores, fewer take "
         "the last away; without a letter a score keeps how it folds."));
  connect(m_scores, &QLineEdit::editingFinished, this, &WorkPanel::commitScores);
  typed->addWidget(m_scores, 1);
  column->addLayout(typed);
  column->addLayout(makeSolvers());
  column->addLayout(makeTools());
  column->addStretch();
  connect(document, &Document::designChanged, this, &WorkPanel::refill);
  refill();
}

QHBoxLayout* WorkPanel::makeSolvers() {
  auto* row = new QHBoxLayout;
  row->setSpacing(8);
  m_solve = new QPushButton(tr("Make it lie flat"), this);
  m_solve->setToolTip(
      tr("Changes the one width that makes the piece lie flat in the shut card, exactly"));
  connect(m_solve, &QPushButton::clicked, this, &WorkPanel::solve);
  m_steps = new QSpinBox(this);
  m_steps->setRange(1, 10);
  m_steps->setValue(2);
  m_steps->setAccessibleName(tr("Number of steps"));
  m_even = new QPushButton(tr("Even steps"), this);
  m_even->setToolTip(
      tr("Scores the strip as that many even steps between the two pages its ends are glued to"));
  connect(m_even, &QPushButton::clicked, this, [this] {
    if (const auto piece = item())
      m_editor->change(evenSteps(m_document->committed(), piece->id, m_steps->value()),
                       tr("even steps"));
  });
  row->addWidget(m_solve);
  row->addWidget(m_even);
  row->addWidget(m_steps);
  row->addStretch();
  return row;
}

QHBoxLayout* WorkPanel::makeTools() {
  auto* second = new QHBoxLayout;
  second->setSpacing(8);
  m_wrap = new QPushButton(tr("Wrap it round"), this);
  m_wrap->setToolTip(tr("Folds the strip as a strap round the panel it lies on, as long as its way "
                        "round all layers there"));
  connect(m_wrap, &QPushButton::clicked, this, [this] {
    if (const auto piece = item())
      m_editor->change(wrappedRound(m_document->committed(), piece->id, starting::kStrapOverlap_mm),
                       tr("wrap it round"));
  });
  m_fit = new QPushButton(tr("Fit to a length …"), this);
  m_fit->setToolTip(tr("The piece at another length, with what you lock kept"));
  connect(m_fit, &QPushButton::clicked, this, [this] {
    const auto piece = item();
    if (!piece) return;
    auto* dialog = new FitDialog(m_document, piece->id, window());
    connect(dialog, &FitDialog::notice, this, &WorkPanel::notice);
    dialog->open();
  });
  second->addWidget(m_wrap);
  second->addWidget(m_fit);
  second->addStretch();
  return second;
}

std::optional<StructureItem> WorkPanel::item() const {
  const auto id = m_document->selection();
  const StructureItem* found = id ? m_document->committed().find(*id) : nullptr;
  return found && found->work ? std::optional(*found) : std::nullopt;
}

void WorkPanel::refill() {
  const PieceWork* piece = m_editor->shown();
  if (!piece) return;
  if (!m_scores->hasFocus() || !m_scores->isModified()) {
    m_scores->setText(
        QString::fromStdString(scoreList(*piece, m_document->design().settings.unit)));
    m_scores->setProperty("wrong", false);
    m_scores->style()->polish(m_scores);
  }
}

void WorkPanel::commitScores() {
  if (!m_scores->isModified()) return;
  m_scores->setModified(false);
  const auto piece = item();
  if (!piece) return;
  const auto places =
      scorePlaces(m_scores->text().toStdString(), m_document->design().settings.unit);
  const auto next = places ? withScores(*piece->work, *places) : Result<PieceWork>(places.error());
  if (next) return void(m_editor->change(next, tr("change the scores")));
  m_scores->setProperty("wrong", true);
  m_scores->style()->polish(m_scores);
  emit refused(said(next.error(), m_document->design().settings.unit));
}

void WorkPanel::solve() {
  const auto piece = item();
  if (!piece) return;
  m_solve->setEnabled(false);
  const auto of = m_document->committedSnapshot();
  m_solving.start(
      [of, id = piece->id](std::stop_token stop) {
        Solved solved;
        if (const auto motion = of->motion(stop)) {
          solved.flatAlready = shutGap_mm(id, *motion) < kExactClosure;
          if (!solved.flatAlready) solved.mend = solveShut(of->design(), *motion, id);
        }
        return solved;
      },
      [this, of](const Solved& solved) { takeSolved(of, solved); });
}

void WorkPanel::takeSolved(const std::shared_ptr<const Snapshot>& of, const Solved& solved) {
  m_solve->setEnabled(true);
  if (of != m_document->committedSnapshot()) return; // the card has changed since
  if (solved.flatAlready) return void(emit notice(tr("It lies flat exactly as it is")));
  if (!solved.mend)
    return void(emit refused(
        tr("No single width makes it lie flat: change where it is glued, or two widths")));
  const auto next = applyMend(of->design(), *solved.mend);
  if (!next) return;
  if (const auto done = m_document->apply(*next, tr("make it lie flat")); !done)
    return void(emit refused(said(done.error(), m_document->design().settings.unit)));
  emit notice(asQt(describe(*solved.mend, of->design())));
}

} // namespace hinge
