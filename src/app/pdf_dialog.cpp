// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/pdf_dialog.h"
#include "app/saying.h"
#include "core/paper/sheet_size.h"
#include <QFormLayout>

namespace hinge {

PdfDialog::PdfDialog(Document* document, QWidget* parent)
    : WorkDialog(document, tr("Sheets to print, at full size"),
                 tr("Print without any scaling, and hold a ruler against the one on the first page "
                    "before you cut."),
                 parent),
      m_what(new QComboBox(this)), m_print(new QComboBox(this)), m_page(new QComboBox(this)),
      m_backs(new QCheckBox(tr("After each sheet its back, mirrored, to print both sides"), this)) {
  auto* form = new QFormLayout;
  const auto add = [&](const QString& name, QComboBox* box, const QStringList& choices) {
    box->addItems(choices);
    box->setAccessibleName(name);
    form->addRow(name, box);
  };
  add(tr("What"), m_what, {tr("Sheets and numbers"), tr("Sheets"), tr("Numbers")});
  add(tr("On the sheets"), m_print,
      {tr("Lines, for papers that are there"), tr("Papers printed, lines over them"),
       tr("Papers printed, marks beside them alone")});
  const SheetSize& usual = sheetByKey(document->design().settings.sheet);
  add(tr("Printer's page"), m_page, {tr("As large as the sheets")});
  for (const SheetSize& size : knownSheets())
    m_page->addItem(tr("%1: larger sheets in parts").arg(asQt(size.key).toUpper()), asQt(size.key));
  m_page->setToolTip(tr("The card is cut from %1").arg(asQt(usual.key).toUpper()));
  form->addRow(QString(), m_backs);
  m_column->addLayout(form);
  m_column->addStretch();
  addFoot(tr("Write PDF…"));
  connect(m_take, &QPushButton::clicked, this, &QDialog::accept);
}

PdfWishes PdfDialog::wishes() const {
  PdfWishes wishes;
  wishes.what = static_cast<PdfContent>(m_what->currentIndex());
  wishes.print = static_cast<PdfPrint>(m_print->currentIndex());
  wishes.backs = m_backs->isChecked();
  const QString page = m_page->currentData().toString();
  if (!page.isEmpty()) {
    const SheetSize& size = sheetByKey(page.toStdString());
    wishes.page_mm = Vec2(size.width_mm, size.height_mm);
  }
  return wishes;
}

} // namespace hinge
