// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/cut_json.h"
#include "cli/cut_verbs.h"
#include "core/checks/analysis.h"
#include "core/edits/splices.h"
#include "core/io/design_json.h"
#include "core/structures/names.h"
#include "words/words.h"
#include <fmt/format.h>

// The verb that parts what is longer than every sheet.

namespace hinge {
namespace {

/// The splice that the options describe.
Result<Splice> spliceOf(const Options& o, LengthUnit unit) {
  Splice splice;
  splice.panel = o.at, splice.level = o.level, splice.onFace = o.onFace;
  for (const auto& [text, value, name] :
       {std::tuple{&o.from, &splice.at_mm, "--from"},
        std::tuple{&o.overlap, &splice.overlap_mm, "--overlap"}}) {
    if (text->empty()) continue;
    const auto length = parseLength_mm(*text, unit);
    if (!length) return Error{length.error().message, name};
    *value = *length;
  }
  return splice;
}

void tellSplice(const Splice& splice, const Assembly& assembly, const Design& design) {
  const PanelIndex panel = assembly.findPanel(splice.panel);
  tell(Text(splice.level ? "cli.splice/level" : "cli.splice",
            panel.valid() ? panelOnSheet(design, assembly, panel) : Text("as-it-is", splice.panel),
            Millimetres{splice.at_mm}, Millimetres{splice.overlap_mm},
            Text(splice.onFace ? "splice.before" : "splice.behind")),
       design);
}

void tellProposals(const std::vector<SpliceProposal>& proposals, const Assembly& assembly,
                   const Design& design) {
  for (const SpliceProposal& one : proposals) {
    const Text name = pieceName(design, assembly, one.piece);
    const std::string width = formatLength(one.spared_width_mm, design.settings.unit, false);
    tell(Text(one.splices.empty() ? "cli.splice-nowhere" : "cli.splice-proposed", name,
              Decimal{100 * one.seen}, width, Millimetres{one.spared_height_mm}),
         design);
    for (const Splice& splice : one.splices)
      tellSplice(splice, assembly, design);
  }
}

} // namespace

int spliceVerb(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const LengthUnit unit = d->settings.unit;
  if (o.drop > 0 || !o.at.empty()) {
    const auto splice = spliceOf(o, unit);
    if (!splice) return refuse(splice.error(), unit);
    const auto next = o.drop > 0 ? withoutSplice(*d, static_cast<std::size_t>(o.drop - 1))
                                 : withSplice(*d, *splice);
    if (!next) return refuse(next.error(), unit);
    return saveAndTell(*next, o.target());
  }
  const Snapshot snapshot(*d);
  const auto assembly = snapshot.assembly();
  if (!assembly) return refuse(assembly.error(), unit);
  const auto options = layoutOptions(o, unit);
  if (!options) return refuse(options.error(), unit);
  const auto proposals = proposedSplices(*d, **assembly, *snapshot.flatPieces(), *snapshot.faces(),
                                         *snapshot.seen(), *snapshot.laid(), options->margin_mm);
  if (o.json) {
    fmt::print("{}", splicesToJson(*d, proposals, **assembly));
  } else {
    for (const Splice& splice : d->splices)
      tellSplice(splice, **assembly, *d);
    tellProposals(proposals, **assembly, *d);
    if (proposals.empty() && d->splices.empty()) tell("cli.splice-none", *d);
  }
  const bool nowhere =
      std::ranges::any_of(proposals, [](const SpliceProposal& p) { return p.splices.empty(); });
  if (!o.apply) return nowhere ? kSpoiled : kFine;
  const auto next = withSplices(*d, splicesOf(proposals));
  if (!next) return refuse(next.error(), unit);
  const int code = saveAndTell(*next, o.target());
  return code == kFine && nowhere ? kSpoiled : code;
}

} // namespace hinge
