// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/card_files.h"
#include "core/io/fold_file.h"
#include "core/io/text_file.h"
#include "core/sending/cutter_job.h"
#include "render/plan_drawings.h"
#include "render/sheets_dxf.h"
#include "render/sheets_svg.h"
#include "words/tables.h"

namespace hinge {
namespace {

Result<void> writeText(const Result<std::string>& text, const std::string& path) {
  return text ? writeOutput(path, *text) : Result<void>(text.error());
}

Result<std::string> modelOf(const Snapshot& snapshot) {
  // As a rule the verdict has had it worked out before anybody asks for a file.
  const auto motion = snapshot.motion();
  std::vector<double> openings;
  for (double t : foldFrames_deg(*motion))
    if (radians(t) >= motion->low_rad() && radians(t) <= motion->high_rad()) openings.push_back(t);
  return motionToFold(*motion, openings);
}

Result<std::string> sheetText(const CardFiles& files, const QString& format) {
  if (!files.plan || files.sheet >= files.plan->sheets.size())
    return Error{{"layout.no-sheet", files.plan ? files.plan->sheets.size() : 0, files.sheet + 1},
                 ""};
  if (format == QStringLiteral("sheet-svg")) return sheetToSvg(*files.plan, files.sheet);
  if (format == QStringLiteral("sheet-dxf")) return sheetToDxf(*files.plan, files.sheet);
  const auto job = cutterJob(*files.plan, files.sheet, files.snapshot->design(), files.bench);
  return job ? hpglOf(*job) : Result<std::string>(job.error());
}

std::vector<ReadTable> tablesOf(const CardFiles& files, const Assembly& assembly) {
  const Design& design = files.snapshot->design();
  return readTables(scoreTables(assembly, design, *files.snapshot->flatPieces(), files.bench),
                    design, assembly, files.bench);
}

} // namespace

Result<void> CardFiles::write(const QString& format, const QString& path) const {
  const std::string file = path.toStdString();
  const auto assembled = snapshot->assembly();
  if (!assembled) return assembled.error();
  const Assembly& assembly = **assembled;
  if (format.startsWith(QStringLiteral("sheet-"))) return writeText(sheetText(*this, format), file);
  if (format == QStringLiteral("svg"))
    return writeOutput(file, piecesToSvg(assembly, snapshot->design()));
  if (format == QStringLiteral("dxf"))
    return writeText(piecesToDxf(assembly, snapshot->design()), file);
  if (format == QStringLiteral("pdf")) return writeSheetsPdf(*snapshot, bench, file, pdf);
  if (format == QStringLiteral("csv"))
    return writeOutput(file, commaSeparated(tablesOf(*this, assembly)));
  if (format == QStringLiteral("txt"))
    return writeOutput(file, plainText(tablesOf(*this, assembly)));
  return writeText(modelOf(*snapshot), file);
}

} // namespace hinge
