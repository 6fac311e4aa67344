// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/accessible_items.h"
#include "app/piece_editor.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/pieces/profile.h"
#endif
#include <QLineEdit>
#include <QWidget>

namespace hinge {

/// The selected strip from its side, as it is folded at the opening shown. A ridge tells its height
/// over the table and its angle; click it and type "40 at 90", and the scores follow.
class ProfileView : public QWidget, public AccessibleCanvas {
  Q_OBJECT
public:
  explicit ProfileView(Document* document, QWidget* parent = nullptr);
  void setPose(std::shared_ptr<const Assembly> assembly, const Pose& pose);
  const std::optional<FoldProfile>& profile() const { return m_profile; }
  QPointF ridgePoint(std::size_t score) const;
  QLineEdit& typed() { return *m_typed; }

  QList<AccessibleItem> accessibleItems() const override;
  void pressItem(int index) override;
  QWidget* canvasWidget() override { return this; }

signals:
  void refused(const QString& why);

protected:
  bool event(QEvent*) override; ///< keys belong to the ridge before they belong to the window
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

private:
  void work(); ///< the profile anew
  QTransform toPixels() const;
  void open(int score);
  void take();
  bool eventFilter(QObject* object, QEvent* event) override;
  QString told(std::size_t score) const;

  Document* m_document;
  PieceEditor* m_editor; ///< of the selected piece
  QLineEdit* m_typed;
  std::shared_ptr<const Assembly> m_assembly;
  Pose m_pose;
  std::optional<FoldProfile> m_profile;
  int m_chosen = -1;
};

} // namespace hinge
