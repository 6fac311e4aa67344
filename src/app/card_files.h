// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/model/snapshot.h"
#include "core/production/bench.h"
#include "core/production/cut_plan.h"
#include "render/sheets_pdf.h"
#endif
#include <QString>

namespace hinge {

/// What a file is made of: a card as it stands, its bench, and the sheet of a layout that is meant.
struct CardFiles {
  std::shared_ptr<const Snapshot> snapshot;
  Bench bench;
  PdfWishes pdf = {};
  std::shared_ptr<const CutPlan> plan = {};
  std::size_t sheet = 0;

  /// Formats: "pdf", "svg", "dxf", "csv", "txt", "fold" of the card; "sheet-svg", "sheet-dxf",
  /// "sheet-hpgl" of the sheet. Takes seconds: not for the window's thread.
  Result<void> write(const QString& format, const QString& path) const;
};

} // namespace hinge
