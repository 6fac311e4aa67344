// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/work_dialog.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "render/sheets_pdf.h"
#endif
#include <QCheckBox>
#include <QComboBox>

namespace hinge {

/// How cutting sheets are printed.
class PdfDialog : public WorkDialog {
  Q_OBJECT
public:
  PdfDialog(Document* document, QWidget* parent = nullptr);
  PdfWishes wishes() const;

private:
  QComboBox *m_what, *m_print, *m_page;
  QCheckBox* m_backs;
};

} // namespace hinge
