// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/make_place.h"
#include "app/work_dialog.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "render/booklet.h"
#endif

namespace hinge {

/// How the booklet of the work is printed; writes it beside the window's thread.
class BookletDialog : public WorkDialog {
  Q_OBJECT
public:
  BookletDialog(Document* document, std::shared_ptr<const ReadyPlan> plan,
                QWidget* parent = nullptr);
  bool busy() const { return m_writing.running(); }
  /// To a file whose ending says what it is: .pdf or .html.
  void write(const QString& path);

private:
  void ask();
  BookletWishes wishes() const;
  void tell(const Result<void>& done, const QString& path);

  std::shared_ptr<const ReadyPlan> m_plan;
  QComboBox *m_format, *m_page, *m_pages;
  QCheckBox* m_templates;
  QPushButton* m_stop;
  NewestWork m_writing;
};

} // namespace hinge
