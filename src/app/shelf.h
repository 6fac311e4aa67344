#pragma once
#include "core/design/design.h"
#include <QFrame>
#include <QTimer>

namespace hinge {

/// What can stand on a seat: each kind as a tiny live picture that opens and shuts in that very
/// place. Sizes that work there are searched on other threads; a picture can be chosen as soon as
/// its own are found.
class Shelf : public QFrame {
  Q_OBJECT
public:
  Shelf(const Design& design, const QString& seat, QWidget* parent);
  bool isReady() const { return m_searching == 0; } ///< all pictures are there

signals:
  /// The design with the chosen structure in it.
  void chosen(const Design& design, StructureId added);
  void ready();

private:
  int m_searching = 0;
};

} // namespace hinge
