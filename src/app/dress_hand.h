// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/stage_hand.h"
#include "app/stage_view.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/dress/layers.h"
#endif

namespace hinge {

/// The hand that dresses the card: which face it works on, which others go with it, what it lays
/// there. Every change is one undoable step; a face is pointed at on the stage.
class DressHand : public QObject, public StageHand {
  Q_OBJECT
public:
  DressHand(Document* document, StageView* stage, QObject* parent);

  QString hint() const override;
  void pointed(const QPointF& at) override;
  void pressed(const QPointF& at) override;
  void released(const QPointF& at) override;
  bool key(const QKeyEvent& event) override;
  void paint(QPainter& painter) const override;
  void ended() override {}

  // --- the face ------------------------------------------------------------------------------
  const std::string& face() const { return m_face; } ///< key; empty: none
  void choose(const std::string& face);
  void chooseNext(int by);
  std::optional<Face> chosen() const;
  /// What it wears as shown: nothing known, or bare, is an empty stack.
  std::vector<CutLayer> wears() const;
  std::optional<FaceSeen> seen() const;         ///< nothing while it is being worked out
  std::size_t layer() const { return m_layer; } ///< that is chosen in the stack
  void chooseLayer(std::size_t layer);

  // --- how -----------------------------------------------------------------------------------
  DressReach reach() const { return m_reach; }
  void setReach(DressReach reach);
  AtGlue atGlue() const; ///< of the rule that the face follows
  std::vector<Layer> stack() const;

  // --- what ----------------------------------------------------------------------------------
  bool lay(const std::string& paper); ///< on top of what the face wears
  bool lay(const Paper& paper);       ///< the same of one that may not be in the drawer yet
  bool layOn(const std::string& face, const std::string& paper);
  void takeOff(); ///< the chosen layer
  void bare();
  /// Border of the chosen layer: all round, or on one side (0 foot, 1 right, 2 top, 3 left).
  bool setBorder(const std::vector<double>& border_mm);
  void previewBorder(const std::vector<double>& border_mm);
  void endPreview() { m_document->endPreview(); }
  void setTurn(PatternTurn turn, double angle_deg = 0);
  void setCorners(CornerStyle corners);
  void setAtGlue(AtGlue how);
  /// A mat and a pattern on everything that is seen, with the usual borders.
  bool dressAll(const std::string& mat, const std::string& pattern);
  void showHidden(bool on);
  bool hiddenShown() const { return m_hidden; }

  // --- toppers -------------------------------------------------------------------------------
  std::vector<Topper> toppers() const;  ///< on the chosen face, as shown
  std::optional<Topper> topper() const; ///< that is chosen; then papers and keys mean it
  void chooseTopper(int id);            ///< 0: none
  /// A shape on the chosen face, in its middle or at a place of it.
  bool addTopper(const std::string& shape, std::optional<Vec2> at = {});
  bool addShape(std::vector<Region> outlines); ///< of the maker's own
  bool setTopper(const Topper& topper, const QString& what);
  void previewTopper(const Topper& topper);
  bool sayTopper(const QString& words); ///< "pads 2; turned 15", see the command line
  QString topperInWords() const;
  void removeTopper();

  // --- a swatch in the hand ------------------------------------------------------------------
  /// Over a point of the stage; the face there shows what it would cover.
  void carry(const std::string& paper, const QPointF& at, bool shape = false);
  /// Over the face at large, at a place of it.
  void carryOverFace(const std::string& paper, const Vec2& at, bool shape = false);
  void drop(); ///< lays it where it is
  void putBack();
  const std::string& carried() const { return m_carried; }
  const std::string& over() const { return m_over; } ///< face under what is carried, or pointed at

signals:
  void changed();
  void refused(const QString& why);

private:
  std::string faceAt(const QPointF& at) const;
  LengthUnit unit() const;
  std::optional<DressRule> ruleNow() const;
  bool putOn(Topper topper, std::optional<Vec2> at);
  std::string topperPaper() const;
  std::optional<Paper> m_laid; ///< that comes into the drawer with the next step
  bool keep(const Result<Design>& next, const QString& what);
  /// The stack of the face after a change, as a rule for all that the hand reaches.
  Result<Design> withStack(const std::vector<Layer>& stack, AtGlue how) const;
  bool keepStack(const std::vector<Layer>& stack, const QString& what);
  void outlineFace(QPainter& painter, const std::string& face, const QColor& colour,
                   double width_px, bool filled) const;
  void strikeHidden(QPainter& painter) const;

  Document* m_document;
  StageView* m_stage;
  std::string m_face, m_over, m_carried;
  bool m_carriesShape = false;
  std::optional<Vec2> m_carriedAt; ///< on the face
  int m_topper = 0;
  std::size_t m_layer = 0;
  DressReach m_reach = DressReach::Twins;
  bool m_hidden = false;
};

} // namespace hinge
