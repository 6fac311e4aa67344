// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/splice_dialog.h"
#include "app/saying.h"
#include "core/edits/splices.h"
#include "core/structures/names.h"

namespace hinge {

SpliceDialog::SpliceDialog(Document* document, double margin_mm, QWidget* parent)
    : WorkDialog(document, tr("Split oversize pieces"),
                 tr("A piece that is longer than every sheet of its paper is cut in parts, which a "
                    "tab holds as one panel: off folds and openings, where it is least seen."),
                 parent),
      m_list(new QListWidget(this)), m_working(this) {
  resize(620, 400);
  m_list->setAccessibleName(tr("Where pieces would be parted"));
  m_list->setWordWrap(true);
  m_list->setSelectionMode(QAbstractItemView::NoSelection);
  m_column->addWidget(m_list, 1);
  addFoot(tr("Part them"));
  m_take->setEnabled(false);
  m_says->setText(tr("Working it out …"));
  connect(m_take, &QPushButton::clicked, this, &SpliceDialog::take);
  // What it was worked out from is gone when the document changes behind it.
  connect(document, &Document::designChanged, this, &QDialog::reject);
  m_working.start([snapshot = document->committedSnapshot(),
                   margin_mm](std::stop_token stop) { return worked(snapshot, margin_mm, stop); },
                  [this](const Result<Answer>& answer) { receive(answer); });
}

Result<SpliceDialog::Answer> SpliceDialog::worked(const std::shared_ptr<const Snapshot>& snapshot,
                                                  double margin_mm, std::stop_token stop) {
  const auto assembly = snapshot->assembly();
  if (!assembly) return assembly.error();
  const auto seen = snapshot->seen(stop);
  const auto laid = snapshot->laid(stop);
  if (!seen || !laid) return Error{"stopped", ""};
  Answer made;
  made.proposals = proposedSplices(snapshot->design(), **assembly, *snapshot->flatPieces(),
                                   *snapshot->faces(), *seen, *laid, margin_mm);
  const auto next = withSplices(snapshot->design(), splicesOf(made.proposals));
  if (!next) return next.error();
  const auto then = analyse(std::make_shared<const Snapshot>(*next), stop);
  if (then) made.then = *then;
  return made;
}

void SpliceDialog::receive(const Result<Answer>& answer) {
  if (!answer) return sayRefusal(answer.error());
  m_answer = *answer;
  const Design& design = m_document->committed();
  const LengthUnit unit = design.settings.unit;
  const Assembly& assembly = **m_document->committedSnapshot()->assembly();
  const auto length = [&](double mm) { return asQt(formatLength(mm, unit)); };
  std::size_t cuts = 0;
  for (const SpliceProposal& one : m_answer->proposals) {
    const QString name = asQt(saySentence(pieceName(design, assembly, one.piece)));
    QString text = tr("%1: a sheet of %2 × %3 would hold it whole")
                       .arg(name, asQt(formatLength(one.spared_width_mm, unit, false)),
                            length(one.spared_height_mm));
    if (one.splices.empty()) text += tr("; ◆ there is no panel on which it can be parted");
    for (const Splice& splice : one.splices)
      text += QLatin1Char('\n') +
              (splice.level ? tr("   parted on %1, %2 from its lower border, a tab of %3 behind it")
                            : tr("   parted on %1, %2 from its left border, a tab of %3 behind it"))
                  .arg(said(panelName(design, assembly, assembly.findPanel(splice.panel))),
                       length(splice.at_mm), length(splice.overlap_mm));
    if (!one.splices.empty())
      text += tr("; %1 % of the cut is seen on display").arg(std::lround(100 * one.seen));
    m_list->addItem(text);
    cuts += one.splices.size();
  }
  QString says = cuts == 0 ? tr("Nothing is to be parted") : tr("The card stays as good as it is.");
  if (m_answer->then && m_answer->then->verdict == Verdict::Spoiled &&
      !m_answer->then->findings.empty())
    says =
        QStringLiteral("◆  ") +
        tr("Then %1").arg(asQt(describe(m_answer->then->findings.front(), m_answer->then->design)));
  m_says->setText(says);
  m_take->setEnabled(cuts > 0);
}

void SpliceDialog::take() {
  if (!m_answer) return;
  const auto next = withSplices(m_document->committed(), splicesOf(m_answer->proposals));
  if (!next) return sayRefusal(next.error());
  if (const auto done = m_document->apply(*next, tr("part what is too long")); !done)
    return sayRefusal(done.error());
  emit notice(tr("Parted: the tabs are glued first, flat and under a weight"));
}

} // namespace hinge
