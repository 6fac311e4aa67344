// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf.h"
#include "app/background.h"
#include "app/live_picture.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/checks/propose.h"
#include "core/structures/registry.h"
#include <QFutureWatcher>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>
#include <QtConcurrent>

namespace hinge {
namespace {

/// Sizes with which the structure stands on the seat, put into the design.
std::optional<Added> tried(const Design& design, std::string_view kind, const std::string& seat,
                           std::stop_token stop) {
  if (stop.stop_requested()) return std::nullopt;
  const auto added = addProposed(design, kind, seat, {}, stop);
  return added ? std::optional(*added) : std::nullopt;
}

} // namespace

Shelf::Shelf(std::shared_ptr<const Snapshot> snapshot, const QString& seat, QWidget* parent)
    : QFrame(parent, Qt::Popup | Qt::FramelessWindowHint) {
  setObjectName(QStringLiteral("shelf"));
  setAttribute(Qt::WA_DeleteOnClose);
  setAccessibleName(tr("Structures for this fold"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(14, 12, 14, 14);
  const Design& design = snapshot->design();
  const auto assembled = snapshot->assembly();
  const Seat* place = assembled ? (*assembled)->findSeat(seat.toStdString()) : nullptr;
  auto* title =
      new QLabel(!place ? tr("This fold is gone")
                        : (place->kind() == SeatKind::Span   ? tr("What bridges %1?")
                           : place->kind() == SeatKind::Face ? tr("What goes on the %1?")
                                                             : tr("What stands on the %1?"))
                              .arg(said(place->label)),
                 this);
  title->setObjectName(QStringLiteral("heading"));
  column->addWidget(title);
  auto* grid = new QGridLayout;
  grid->setSpacing(10);
  constexpr int kColumns = 5;
  int count = 0;
  if (place)
    for (const StructureKind* kind : structureKinds()) {
      if (!kind->offeredOn(*place, **assembled, design.settings)) continue;
      auto* box = new QVBoxLayout;
      auto* button = new LivePicture(tr("finding sizes …"), this);
      const QString key = asQt(kind->key), label = said(kind->name());
      button->setAccessibleName(tr("Add %1").arg(label));
      button->setToolTip(said(Text(kind->name().key + "/summary")));
      button->setObjectName(QStringLiteral("add-") + key);
      connect(button, &QToolButton::clicked, this, [this, button] {
        emit chosen(button->design(), button->added());
        close();
      });
      auto* search = new QFutureWatcher<std::optional<Added>>(button);
      ++m_searching;
      connect(search, &QFutureWatcherBase::finished, this, [this, search, button] {
        if (const auto added = search->result()) {
          button->showCard(added->design, added->id);
          if (!qobject_cast<LivePicture*>(focusWidget())) button->setFocus();
        } else
          button->showNothing(tr("no room here"));
        if (--m_searching == 0) emit ready();
      });
      search->setFuture(QtConcurrent::run(
          &backgroundPool(), [snapshot, kind, on = place->key, stop = m_stop.get_token()] {
            yieldToWindow();
            return tried(snapshot->design(), kind->key, on, stop);
          }));
      auto* name = new QLabel(label, this);
      name->setFont(Look::font(13, QFont::Bold));
      box->addWidget(button);
      box->addWidget(name, 0, Qt::AlignHCenter);
      grid->addLayout(box, count / kColumns, count % kColumns);
      ++count;
    }
  if (place && count == 0) column->addWidget(new QLabel(tr("Nothing stands here."), this));
  column->addLayout(grid);
  if (place) offerCards(*place, **assembled, *column);
}

void Shelf::keyPressEvent(QKeyEvent* event) {
  auto* button = qobject_cast<QAbstractButton*>(focusWidget());
  switch (event->key()) {
  case Qt::Key_Return:
  case Qt::Key_Enter:
    if (button) button->click();
    return;
  case Qt::Key_Right:
  case Qt::Key_Down: focusNextChild(); return;
  case Qt::Key_Left:
  case Qt::Key_Up: focusPreviousChild(); return;
  default: QFrame::keyPressEvent(event);
  }
}

/// Cards that are finished already stand there as they are.
void Shelf::offerCards(const Seat& place, const Assembly& assembly, QBoxLayout& column) {
  for (const StructureKind* kind : structureKinds()) {
    if (!kind->ways->carriesCard() || !kind->standsOn(place, assembly)) continue;
    const QString key = asQt(kind->key), seat = asQt(place.key);
    auto* button = new QPushButton(tr("%1 from a file …").arg(said(kind->name())), this);
    button->setToolTip(said(Text(kind->name().key + "/summary")));
    button->setObjectName(QStringLiteral("add-") + key);
    connect(button, &QPushButton::clicked, this, [this, key, seat] {
      close();
      emit cardWanted(key, seat);
    });
    column.addWidget(button, 0, Qt::AlignLeft);
  }
}

} // namespace hinge
