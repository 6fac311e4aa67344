// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QKeyEvent>
#include <QPainter>
#include <QString>

namespace hinge {

/// What a hand does on the stage in place of choosing and turning the card: lays a sheet on a face,
/// folds a panel. The stage hands pointer and keys on to it until it lets go; the right button
/// still turns the card.
class StageHand {
public:
  virtual ~StageHand() = default;
  virtual QString hint() const = 0; ///< stands on the stage
  virtual void pointed(const QPointF& at) = 0;
  virtual void pressed(const QPointF& at) = 0;
  virtual void released(const QPointF& at) = 0;
  virtual bool key(const QKeyEvent& event) = 0; ///< false: none of its keys
  virtual void paint(QPainter& painter) const = 0;
  virtual void ended() = 0; ///< by Escape, or by something else that took the stage
};

} // namespace hinge
