// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/booklet_dialog.h"
#include "app/saying.h"
#include "core/io/maker_bench.h"
#include <QFileDialog>
#include <QFormLayout>

namespace hinge {

BookletDialog::BookletDialog(Document* document, std::shared_ptr<const ReadyPlan> plan,
                             QWidget* parent)
    : WorkDialog(document, tr("Booklet of the work"),
                 tr("The card, what it takes, every step with its picture and a box to tick, and "
                    "the cutting sheets. It reads well without colour."),
                 parent),
      m_plan(std::move(plan)), m_format(new QComboBox(this)), m_page(new QComboBox(this)),
      m_pages(new QComboBox(this)),
      m_templates(new QCheckBox(tr("With cutting sheets and tables at full size"), this)),
      m_stop(new QPushButton(tr("Stop"), this)), m_writing(this) {
  auto* form = new QFormLayout;
  const auto add = [&](const QString& name, QComboBox* box, const QStringList& choices) {
    box->addItems(choices);
    box->setAccessibleName(name);
    form->addRow(name, box);
  };
  add(tr("File"), m_format, {tr("PDF, to print"), tr("HTML, to read on a screen")});
  add(tr("Page"), m_page, {tr("A5"), tr("Half letter")});
  add(tr("Pages"), m_pages,
      {tr("One after another"), tr("In order for folding and stapling, two on a side")});
  m_page->setCurrentIndex(document->design().settings.unit == LengthUnit::Inch ? 1 : 0);
  m_templates->setChecked(true);
  form->addRow(QString(), m_templates);
  m_column->addLayout(form);
  m_column->addStretch();
  addFoot(tr("Write it…"));
  m_stop->hide();
  m_buttons->insertWidget(1, m_stop);
  connect(m_format, &QComboBox::currentIndexChanged, this, [this](int format) {
    for (QWidget* one : {static_cast<QWidget*>(m_page), static_cast<QWidget*>(m_pages),
                         static_cast<QWidget*>(m_templates)})
      one->setEnabled(format == 0);
  });
  connect(m_take, &QPushButton::clicked, this, &BookletDialog::ask);
  connect(m_stop, &QPushButton::clicked, this, [this] {
    m_writing.stop();
    m_stop->hide();
    m_take->setEnabled(true);
    m_says->setText(tr("Stopped; nothing was written"));
  });
}

BookletWishes BookletDialog::wishes() const {
  BookletWishes wishes;
  if (m_page->currentIndex() == 1) wishes.page_mm = Vec2(5.5, 8.5) * kMillimetresPerInch;
  wishes.stapled = m_pages->currentIndex() == 1;
  wishes.templates = m_templates->isChecked();
  return wishes;
}

void BookletDialog::ask() {
  const QString ending =
      m_format->currentIndex() == 0 ? QStringLiteral("pdf") : QStringLiteral("html");
  const QString path = QFileDialog::getSaveFileName(
      this, tr("Booklet"), tr("%1 booklet.%2").arg(m_document->name(), ending),
      QStringLiteral("%1 (*.%2)").arg(ending.toUpper(), ending));
  if (!path.isEmpty()) write(path);
}

void BookletDialog::write(const QString& path) {
  const auto bench = makersBench();
  if (!bench) return sayRefusal(bench.error());
  m_take->setEnabled(false);
  m_stop->show();
  m_says->setText(tr("Writing %1 …").arg(path));
  m_writing.start(
      [this, plan = m_plan, wishes = wishes(), bench = *bench, path](std::stop_token stop,
                                                                     const NewestWork::Tell& tell) {
        const Progress progress = toldNowAndThen(tell, [this](std::size_t done, std::size_t all) {
          m_says->setText(tr("Pictures: %1 of %2").arg(done).arg(all));
        });
        const std::string file = path.toStdString();
        return path.endsWith(QStringLiteral(".html"))
                   ? writeBookletHtml(*plan->work, *plan->painter, bench, file, stop, progress)
                   : writeBooklet(*plan->work, *plan->painter, bench, file, wishes, stop, progress);
      },
      [this, path](const Result<void>& done) { tell(done, path); });
}

void BookletDialog::tell(const Result<void>& done, const QString& path) {
  m_stop->hide();
  m_take->setEnabled(true);
  if (!done) return sayRefusal(done.error());
  m_says->setText(tr("Written: %1").arg(path));
  emit notice(tr("Written: %1").arg(path));
}

} // namespace hinge
