// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/document.h"

namespace hinge {

/// The free piece an editor works on, and the one way in which its changes are set, applied and
/// refused.
class PieceEditor : public QObject {
  Q_OBJECT
public:
  /// Of one piece; without a number of the one that is selected.
  PieceEditor(Document* document, std::optional<StructureId> piece, QObject* parent);

  std::optional<StructureId> id() const { return m_piece ? m_piece : m_document->selection(); }
  const PieceWork* shown() const;     ///< previews included; null when there is no free piece
  const PieceWork* committed() const; ///< what a change starts from

  /// One undoable step; refused, with its reason, when there is no such piece or card. True when it
  /// was done.
  bool change(const Result<PieceWork>& next, const QString& what);
  /// Shows a change without making it; what cannot be is not shown.
  void preview(const Result<PieceWork>& next);
  /// Makes what is shown the next step.
  void keepPreview(const QString& what);

signals:
  void refused(const QString& why);

private:
  Document* m_document;
  std::optional<StructureId> m_piece;
};

} // namespace hinge
