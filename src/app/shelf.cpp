#include "app/shelf.h"
#include "app/look.h"
#include "core/checks/propose.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include "render/stage_painter.h"
#include <QFutureWatcher>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QToolButton>
#include <QtConcurrent>
#include <cmath>

namespace hinge {
namespace {

/// A button whose face is the card with the new structure in it, moving.
class LivePicture : public QToolButton {
public:
  explicit LivePicture(QWidget* parent) : QToolButton(parent) {
    setFixedSize(168, 132);
    setEnabled(false);
    m_timer.setInterval(40);
    connect(&m_timer, &QTimer::timeout, this, [this] {
      m_time += 0.04;
      update();
    });
  }

  void show(const std::optional<Added>& added) {
    m_searched = true;
    if (added) {
      m_design = added->design, m_added = added->id;
      if (auto assembled = assembleDesign(*m_design)) m_assembly = std::make_shared<const Assembly>(std::move(assembled).value());
    }
    if (m_assembly) setEnabled(true), lookAtAdded(), m_timer.start();
    update();
  }
  const std::optional<Design>& design() const { return m_design; }
  StructureId added() const { return m_added; }

  /// So near that the new structure fills half of the picture when the card is half open.
  void lookAtAdded() {
    const QRectF area = QRectF(rect()).adjusted(6, 6, -6, -6);
    m_camera = cameraFor(m_design->card, area, *m_assembly);
    QRectF box;
    for (double deg : {60.0, 120.0}) {
      const Pose pose = Motion::quickPose(*m_assembly, radians(deg));
      for (PanelIndex panel : m_assembly->panels.indices()) {
        if (m_assembly->panels[panel].owner != m_added || !pose.placed[panel]) continue;
        QPolygonF outline;
        for (const Vec2& c : m_assembly->panels[panel].outline) outline << m_camera.project(benchPose(*m_assembly, pose.opening_rad) * (pose.panels[panel] * lift(c)));
        box = box.isNull() ? outline.boundingRect() : box.united(outline.boundingRect());
      }
    }
    if (box.isNull()) return;
    const double nearer = std::clamp(0.55 * std::min(area.width() / box.width(), area.height() / box.height()), 1.0, 8.0);
    m_camera.centre = area.center() + nearer * (m_camera.centre - box.center());
    m_camera.scale_px *= nearer;
  }

protected:
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    QPainterPath clip;
    clip.addRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 7, 7);
    p.setClipPath(clip);
    if (m_assembly) {
      const double opening = radians(95 + 70 * std::sin(m_time * 1.1));
      StageStyle style;
      style.theme = Look::theme();
      style.selected = m_added;
      paintStage(p, rect(), *m_assembly, Motion::quickPose(*m_assembly, drawableOpening(opening)), m_camera, style);
    } else {
      p.fillRect(rect(), Look::theme().stageBottom);
      p.setPen(Look::theme().stageSoft);
      p.drawText(rect(), Qt::AlignCenter | Qt::TextWordWrap, m_searched ? tr("no room here") : tr("finding sizes …"));
    }
    p.setClipping(false);
    p.setPen(QPen(hasFocus() || underMouse() ? Look::theme().accent : Look::theme().line, hasFocus() || underMouse() ? 2.5 : 1));
    p.setBrush(Qt::NoBrush);
    p.drawRoundedRect(QRectF(rect()).adjusted(1.5, 1.5, -1.5, -1.5), 7, 7);
  }

private:
  std::optional<Design> m_design;
  StructureId m_added;
  std::shared_ptr<const Assembly> m_assembly;
  Camera m_camera;
  QTimer m_timer;
  double m_time = 0;
  bool m_searched = false;
};

/// Sizes with which the structure stands on the seat, put into the design.
std::optional<Added> tried(const Design& design, std::string_view kind, const std::string& seat) {
  const auto values = proposeValues(design, kind, seat, {});
  if (!values) return std::nullopt;
  const auto added = addStructure(design, kind, seat, *values);
  return added ? std::optional(*added) : std::nullopt;
}

} // namespace

Shelf::Shelf(const Design& design, const QString& seat, QWidget* parent) : QFrame(parent, Qt::Popup | Qt::FramelessWindowHint) {
  setObjectName(QStringLiteral("shelf"));
  setAttribute(Qt::WA_DeleteOnClose);
  setAccessibleName(tr("Structures for this fold"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(14, 12, 14, 14);
  auto assembled = assembleDesign(design);
  const Seat* place = assembled ? assembled->findSeat(seat.toStdString()) : nullptr;
  auto* title = new QLabel(!place ? tr("This fold is gone") : (place->kind() == SeatKind::Face ? tr("What goes on the %1?") : tr("What stands on the %1?")).arg(QString::fromStdString(place->label)), this);
  title->setObjectName(QStringLiteral("heading"));
  column->addWidget(title);
  auto* grid = new QGridLayout;
  grid->setSpacing(10);
  constexpr int kColumns = 5;
  int count = 0;
  if (place)
    for (const StructureKind* kind : structureKinds()) {
      if (!kind->standsOn(*place, *assembled)) continue;
      auto* box = new QVBoxLayout;
      auto* button = new LivePicture(this);
      const QString key = QString::fromUtf8(kind->key.data()), label = QString::fromUtf8(kind->label.data());
      button->setAccessibleName(tr("Add %1").arg(label));
      button->setToolTip(QString::fromUtf8(kind->summary.data()));
      button->setObjectName(QStringLiteral("add-") + key);
      connect(button, &QToolButton::clicked, this, [this, button] {
        emit chosen(*button->design(), button->added());
        close();
      });
      auto* search = new QFutureWatcher<std::optional<Added>>(button);
      ++m_searching;
      connect(search, &QFutureWatcherBase::finished, this, [this, search, button] {
        button->show(search->result());
        if (--m_searching == 0) emit ready();
      });
      search->setFuture(QtConcurrent::run([design, kind, on = place->key] { return tried(design, kind->key, on); }));
      auto* name = new QLabel(label, this);
      name->setFont(Look::font(13, QFont::Bold));
      box->addWidget(button);
      box->addWidget(name, 0, Qt::AlignHCenter);
      grid->addLayout(box, count / kColumns, count % kColumns);
      ++count;
    }
  if (place && count == 0) column->addWidget(new QLabel(tr("Nothing stands here."), this));
  column->addLayout(grid);
}

} // namespace hinge
