// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/document.h"
#include <QWidget>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/resizing.h"
#include "core/paper/envelope.h"
#endif

namespace hinge {

/// The card open on the sheets it is cut from, shut, and in its envelope: three figures to one
/// scale. The far edges of the open and the shut card, and of an envelope of the maker's own, can
/// be pulled; one pull is one undoable step.
class SizeDrawing : public QWidget {
  Q_OBJECT
public:
  SizeDrawing(Document* document, QWidget* parent);

  enum class Figure { Open, Shut, Envelope };
  /// An edge that can be pulled, on the screen.
  struct Edge {
    Figure figure;
    bool across;           ///< the size that it moves runs across the folds of the card
    bool upright, upwards; ///< on the screen; pulled out upwards, if it is level
    QPointF from, to;
    QPointF middle() const { return 0.5 * (from + to); }
  };
  std::vector<Edge> edges() const;
  /// The shut leaves as they lie on the screen: width and height as the card is held.
  const QSizeF& shut_mm() const { return m_shutSize; }

signals:
  void refused(const QString& why);

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void leaveEvent(QEvent*) override;

private:
  /// Where the figures stand and how large, in pixels.
  struct Layout {
    double scale = 1;
    QRectF sheets, open, shut, envelope;
  };
  void look(); ///< at the card anew
  Layout laidOut() const;
  std::optional<Edge> edgeAt(const QPointF& at) const;
  Result<Design> pulledTo(const QPointF& at) const;
  void paintGrips(QPainter& p) const;
  void paintOpen(QPainter& p) const;
  void paintShut(QPainter& p) const;
  void paintEnvelope(QPainter& p) const;
  void label(QPainter& p, const QRectF& under, const QString& text, bool trouble = false) const;
  QString size(const QSizeF& mm) const;

  Document* m_document;
  std::shared_ptr<const Snapshot> m_bare; ///< the card without what stands on it
  QSizeF m_openSize, m_shutSize, m_sheetSize, m_envelopeSize; ///< mm, as they lie on the screen
  int m_columns = 1, m_rows = 1;                              ///< of sheets under the open card
  Layout m_layout;
  std::optional<Edge> m_hovered, m_held;
  QPointF m_from;
};

} // namespace hinge
