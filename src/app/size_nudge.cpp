// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/size_nudge.h"
#include "app/look.h"
#include "app/saying.h"
#include "app/size_tags.h"
#include "core/structures/registry.h"
#include "core/units/lattice.h"
#include <algorithm>

namespace hinge {

const ParameterSpec* SizeNudge::sizeOf(const StructureItem& item) const {
  const ParameterTable table = parametersOf(item);
  if (const ParameterSpec* spec = findSpec(table, m_chosen)) return spec;
  for (const ParameterSpec& spec : table)
    if (spec.sense != Sense::Place && !spec.whole()) return &spec;
  return nullptr;
}

bool SizeNudge::take(const QKeyEvent& event) {
  const auto id = m_document->selection();
  const StructureItem* item = id ? m_document->committed().find(*id) : nullptr;
  if (!item) return false;
  const bool control = event.modifiers() & Qt::ControlModifier;
  const int key = event.key();
  if (control && (key == Qt::Key_Left || key == Qt::Key_Right)) {
    choose(*item, key == Qt::Key_Right);
    return true;
  }
  if (key != Qt::Key_Up && key != Qt::Key_Down) return false;
  const ParameterSpec* spec =
      control ? sizeOf(*item) : findSense(parametersOf(*item), Sense::Place);
  if (!spec) return false;
  const double times = event.modifiers() & Qt::ShiftModifier ? 10 : 1;
  change(*item, *spec, key == Qt::Key_Up ? times : -times);
  return true;
}

/// Through the sizes in the order of the table.
void SizeNudge::choose(const StructureItem& item, bool next) {
  const ParameterTable table = parametersOf(item);
  const ParameterSpec* now = sizeOf(item);
  if (!now) return;
  const auto count = static_cast<std::ptrdiff_t>(table.size());
  const auto at = [&](std::ptrdiff_t k) -> const ParameterSpec& {
    return table[static_cast<std::size_t>(k)];
  };
  std::ptrdiff_t k = now - table.data();
  do
    k = (k + (next ? 1 : count - 1)) % count;
  while (at(k).sense == Sense::Place || at(k).whole());
  m_chosen = at(k).key;
  emit chosen();
}

void SizeNudge::change(const StructureItem& item, const ParameterSpec& spec, double by) {
  const double step = spec.unit == ParameterUnit::Millimetre
                          ? latticeStep_mm(m_document->design().settings.unit)
                          : kLattice_deg;
  const double value =
      std::clamp(item.values.find(spec.key)->second + by * step, spec.least, spec.most);
  const auto next =
      setValues(m_document->committed(), item.id, linkedChange(item, spec, value, true));
  const QString id = QString::fromStdString(item.id.text());
  const QString what = spec.sense == Sense::Place
                           ? tr("move %1").arg(id)
                           : tr("change %1 of %2").arg(said(nameOf(spec)), id);
  const auto done = next ? m_document->apply(*next, what) : Result<void>(next.error());
  if (!done) emit refused(said(done.error(), m_document->design().settings.unit));
}

} // namespace hinge
