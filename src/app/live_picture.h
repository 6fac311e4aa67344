// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QTimer>
#include <QToolButton>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/model/snapshot.h"
#include "render/camera.h"
#include "render/card_look.h"
#include <memory>
#endif

namespace hinge {

/// A button whose face is a card that opens and shuts: always near a new structure, a whole card
/// under the pointer. Disabled, with a word in place of the card, until there is one.
class LivePicture : public QToolButton {
  Q_OBJECT
public:
  LivePicture(QString word, QWidget* parent);

  /// Shows the card; with `added` the picture goes near to that structure and marks it.
  void showCard(const Design& design, std::optional<StructureId> added = {});
  ~LivePicture() override { m_stop.request_stop(); }
  void showNothing(const QString& word);
  const Design& design() const { return m_snapshot->design(); } ///< of the card that is shown
  StructureId added() const { return m_added.value_or(StructureId{}); }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  bool hot() const { return hasFocus() || underMouse(); }
  void lookAtAdded();
  void lookAtPapers();

  QString m_word;
  std::shared_ptr<const Snapshot> m_snapshot;
  std::stop_source m_stop; ///< of what is worked out for it
  std::optional<StructureId> m_added;
  /// The traced motion of a card with free pieces, which have no quick pose; else null.
  std::shared_ptr<const Motion> m_motion;
  Pose poseAt(double opening_rad) const;
  std::shared_ptr<const Assembly> m_assembly;
  std::shared_ptr<const CardLook> m_look; ///< null: plain card, or not yet known
  Camera m_camera;
  QTimer m_timer;
  double m_time = 0;
};

} // namespace hinge
