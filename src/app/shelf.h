#pragma once
#include "core/design/design.h"
#include <QFrame>
#include <QTimer>

namespace hinge {

/// What can stand on a seat: each kind as a tiny live picture that opens and shuts in that very place.
class Shelf : public QFrame {
  Q_OBJECT
public:
  Shelf(const Design& design, const QString& seat, QWidget* parent);

signals:
  void chosen(const QString& kind, const QString& seat);
};

} // namespace hinge
