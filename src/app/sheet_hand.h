// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/document.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/sheet.h"
#include "core/pieces/strokes.h"
#endif

namespace hinge {

/// The hand on the sheet: what it works on (the selected free piece, or a sheet of the base when
/// nothing is selected), how its next stroke goes, and what comes of it. Strokes are shown while
/// they last and become one undoable step each, said as the sentence that does the same.
class SheetHand : public QObject {
  Q_OBJECT
public:
  SheetHand(Document* document, QObject* parent);

  // --- the sheet -----------------------------------------------------------------------------
  std::optional<SheetTarget> target() const; ///< nothing: what is selected is no sheet
  void turnTo(std::size_t sheet);            ///< of a base of several
  std::size_t sheetCount() const;
  SheetInWork sheet() const;     ///< as it is shown; there must be a target
  SheetInWork committed() const; ///< what a stroke starts from

  // --- how -----------------------------------------------------------------------------------
  const Stroke& stroke() const { return m_stroke; }
  void setTool(SheetTool tool);
  void setFold(WorkLine::Kind kind);
  /// What the opening, or the outline, is drawn as by the tool at hand; a named shape by its key.
  void setShape(DrawnShape shape, const std::string& key = {});
  void setCorner(CornerCut how);
  void setFarEnd(bool on);
  void setReach(double mm) { m_stroke.snapping.reach_mm = mm; } ///< a few pixels
  const Grip& chosen() const { return m_chosen; }
  /// Openings and outlines are drawn about the middle of the chosen line or panel.
  bool canCentre() const;
  bool centred() const { return m_stroke.centredOn.has_value(); }
  void setCentred(bool on);
  void choose(const Grip& grip);
  void chooseNext(int by); ///< through the lines of the sheet

  // --- strokes -------------------------------------------------------------------------------
  void point(const Vec2& at, Qt::KeyboardModifiers keys);
  void press(const Vec2& at);
  void release();
  /// Takes back what is not finished; false when there is nothing.
  bool cancel();
  /// Closes an outline that is being drawn corner by corner.
  void finishOutline();
  bool underWay() const { return m_stroke.pressed || !m_stroke.corners.empty(); }
  const Drawn& drawn() const { return m_drawn; }
  /// The last stroke when it was refused: it stays in sight until the next one, or Escape.
  const std::vector<Edge>& refusedStroke() const { return m_refused; }
  /// Typed in place of the measures, shown at once; keepTyped() makes it. Without a stroke under
  /// way it is a sentence, with the tool's verb before it where that is left out.
  bool showTyped(const QString& text);
  bool keepTyped(const QString& text);

  // --- what one key does ---------------------------------------------------------------------
  bool say(const QString& sentence); ///< one undoable step; false when it was refused
  /// The scores of a list in a file (CSV) in place of those from edge to edge.
  Result<void> takeScores(const QString& path);
  void turnChosen();
  /// A sentence about the chosen line, begun: "repeat 20,30 every "; empty when none is chosen.
  QString begunWith(const QString& verb, const QString& then) const;
  /// Parts the piece along the chosen line: two pieces from then on.
  void partChosen();
  /// Marks the chosen edge: the next edge that is clicked on another piece grows together with it.
  void markEdge();
  bool edgeMarked() const { return m_marked.has_value(); }
  void eraseChosen();
  void nudgeChosen(const Vec2& by);
  double lattice_mm() const;
  const QString& lastSaid() const { return m_lastSaid; }

signals:
  void started(); ///< on another card
  void changed();
  void refused(const QString& why);

private:
  void redraw();   ///< what the stroke means now
  void showLive(); ///< the card as it would be
  bool keep(const std::string& sentence);
  QString verb() const;
  QString verbBefore(const QString& text) const;
  std::string placeOf(const Vec2& at) const;

  Document* m_document;
  std::size_t m_sheet = 0;
  Stroke m_stroke;
  Drawn m_drawn;
  std::vector<Edge> m_refused;
  Grip m_chosen;
  Vec2 m_chosenAt = Vec2::Zero(); ///< where it was taken
  struct MarkedEdge {
    StructureId piece;
    std::size_t edge;
  };
  std::optional<MarkedEdge> m_marked;
  void joinMarked(std::size_t edge);
  bool m_wasChosen = false; ///< what is pressed was chosen before
  QString m_lastSaid;
  std::string m_shown; ///< the sentence whose card is previewed
};

} // namespace hinge
