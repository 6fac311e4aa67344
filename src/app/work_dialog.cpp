// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/work_dialog.h"
#include "app/saying.h"

namespace hinge {

WorkDialog::WorkDialog(Document* document, const QString& title, const QString& hint,
                       QWidget* parent)
    : QDialog(parent), m_document(document), m_column(new QVBoxLayout(this)),
      m_says(new QLabel(this)) {
  setWindowTitle(title);
  setAttribute(Qt::WA_DeleteOnClose);
  m_column->setContentsMargins(20, 16, 20, 16);
  m_column->setSpacing(12);
  auto* about = new QLabel(hint, this);
  about->setObjectName(QStringLiteral("soft"));
  about->setWordWrap(true);
  m_column->addWidget(about);
}

void WorkDialog::addFoot(const QString& doIt) {
  m_says->setWordWrap(true);
  m_column->addWidget(m_says);
  m_buttons = new QHBoxLayout;
  m_buttons->addStretch();
  auto* leave = new QPushButton(tr("Leave it"), this);
  connect(leave, &QPushButton::clicked, this, &QDialog::reject);
  m_take = new QPushButton(doIt, this); // behind the others, also for the Tab key
  m_take->setObjectName(QStringLiteral("primary"));
  m_take->setDefault(true);
  m_buttons->addWidget(leave);
  m_buttons->addWidget(m_take);
  m_column->addLayout(m_buttons);
}

void WorkDialog::sayRefusal(const Error& error) {
  m_says->setText(QStringLiteral("◆  ") + said(error, m_document->design().settings.unit));
}

} // namespace hinge
