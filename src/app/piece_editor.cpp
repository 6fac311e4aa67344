// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/piece_editor.h"
#include "app/saying.h"

namespace hinge {
namespace {

const PieceWork* workOf(const Design& design, std::optional<StructureId> id) {
  const StructureItem* item = id ? design.find(*id) : nullptr;
  return item && item->work ? &*item->work : nullptr;
}

} // namespace

PieceEditor::PieceEditor(Document* document, std::optional<StructureId> piece, QObject* parent)
    : QObject(parent), m_document(document), m_piece(piece) {}

const PieceWork* PieceEditor::shown() const {
  return workOf(m_document->design(), id());
}

const PieceWork* PieceEditor::committed() const {
  return workOf(m_document->committed(), id());
}

bool PieceEditor::change(const Result<PieceWork>& next, const QString& what) {
  const PieceWork* now = committed();
  if (!now || (next && *next == *now)) return false;
  const auto design =
      next ? setWork(m_document->committed(), *id(), *next) : Result<Design>(next.error());
  const auto done = design ? m_document->apply(*design, what) : Result<void>(design.error());
  if (!done) emit refused(said(done.error(), m_document->design().settings.unit));
  return done.ok();
}

void PieceEditor::preview(const Result<PieceWork>& next) {
  if (!next || !committed()) return;
  if (const auto design = setWork(m_document->committed(), *id(), *next))
    (void)m_document->preview(*design).ok();
}

void PieceEditor::keepPreview(const QString& what) {
  if (!m_document->previewing()) return;
  const Design next = m_document->design();
  m_document->endPreview();
  if (const auto done = m_document->apply(next, what); !done)
    emit refused(said(done.error(), m_document->design().settings.unit));
}

} // namespace hinge
