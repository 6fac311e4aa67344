// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/new_place.h"
#include "app/live_picture.h"
#include "app/look.h"
#include "core/io/design_json.h"
#include <QDir>
#include <QFile>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>

namespace hinge {

std::vector<Design> startingDesigns() {
  std::vector<Design> all;
  const QDir folder(QStringLiteral(":/designs"));
  for (const QString& name : folder.entryList(QDir::Files, QDir::Name)) {
    QFile file(folder.filePath(name));
    if (!file.open(QIODevice::ReadOnly)) continue;
    if (auto design = designFromJson(file.readAll().toStdString()))
      all.push_back(std::move(design).value());
  }
  std::ranges::sort(all, {}, &Design::title);
  return all;
}

NewPlace::NewPlace(QWidget* parent) : QDialog(parent), m_loading(this) {
  setWindowTitle(tr("New card"));
  setAttribute(Qt::WA_DeleteOnClose);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 20, 24, 20);
  column->setSpacing(12);
  auto* heading = new QLabel(tr("What will it be?"), this);
  heading->setObjectName(QStringLiteral("large"));
  column->addWidget(heading);
  auto* empty = new QPushButton(tr("An empty card"), this);
  empty->setObjectName(QStringLiteral("primary"));
  connect(empty, &QPushButton::clicked, this, [this] {
    emit emptyChosen();
    close();
  });
  column->addWidget(empty, 0, Qt::AlignLeft);
  auto* hint =
      new QLabel(tr("Or begin with one of these and change it: every size is yours."), this);
  hint->setObjectName(QStringLiteral("soft"));
  column->addWidget(hint);
  m_scroll = new QScrollArea(this);
  m_scroll->setFrameShape(QFrame::NoFrame);
  m_scroll->setWidgetResizable(true);
  auto* wait = new QLabel(tr("Laying them out …"), m_scroll);
  wait->setObjectName(QStringLiteral("soft"));
  wait->setAlignment(Qt::AlignCenter);
  m_scroll->setWidget(wait);
  column->addWidget(m_scroll, 1);
  resize(1010, 700);
  m_loading.start([](std::stop_token) { return startingDesigns(); },
                  [this](const std::vector<Design>& designs) { layOut(designs); });
}

void NewPlace::layOut(const std::vector<Design>& designs) {
  auto* page = new QWidget(this);
  auto* grid = new QGridLayout(page);
  grid->setSpacing(12);
  constexpr int kColumns = 5;
  int count = 0;
  for (const Design& design : designs) {
    const QString title = QString::fromStdString(design.title);
    auto* box = new QVBoxLayout;
    auto* button = new LivePicture(QString(), page);
    button->showCard(design);
    button->setObjectName(QStringLiteral("start-") + title);
    button->setAccessibleName(tr("Begin with %1").arg(title));
    connect(button, &QToolButton::clicked, this, [this, button] {
      emit designChosen(button->design());
      close();
    });
    auto* name = new QLabel(title, page);
    name->setFont(Look::font(13, QFont::Bold));
    box->addWidget(button);
    box->addWidget(name, 0, Qt::AlignHCenter);
    grid->addLayout(box, count / kColumns, count % kColumns);
    ++count;
  }
  m_scroll->setWidget(page);
}

} // namespace hinge
