// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QFrame>
#include <QTimer>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/model/snapshot.h"
#endif

class QBoxLayout;

namespace hinge {

/// What can stand on a seat: each kind as a tiny live picture that opens and shuts in that very
/// place. Sizes that work there are searched on other threads; a picture can be chosen as soon as
/// its own are found.
class Shelf : public QFrame {
  Q_OBJECT
public:
  Shelf(std::shared_ptr<const Snapshot> snapshot, const QString& seat, QWidget* parent);
  ~Shelf() override { m_stop.request_stop(); }
  bool isReady() const { return m_searching == 0; } ///< all pictures are there

protected:
  /// Arrows go through the pictures, Enter takes one.
  void keyPressEvent(QKeyEvent* event) override;

signals:
  /// The design with the chosen structure in it.
  void chosen(const Design& design, StructureId added);
  void ready();
  /// A finished card is to stand there: its file is still to be chosen.
  void cardWanted(const QString& kind, const QString& seat);

private:
  void offerCards(const Seat& place, const Assembly& assembly, QBoxLayout& column);
  int m_searching = 0;
  std::stop_source m_stop; ///< of the searches, which end when the shelf goes
};

} // namespace hinge
