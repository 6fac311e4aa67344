// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/structures/registry.h"

namespace hinge {

/// The ways of kinds whose structures are values in a table.
class TableWays : public StructureWays {
public:
  bool carriesWork() const override { return false; }
  bool ringsDecide() const override { return false; }
  ParameterTable rows(const StructureItem& item) const override;
  std::vector<MendDirection> mends(const StructureItem& item) const override;
  Result<void> settle(StructureItem& item, std::string_view place) const override;
  Result<void> set(StructureItem& item, std::string_view key, double value) const override;
  void mirror(StructureItem& item, const Seat& seat, const Assembly& assembly,
              const std::string& onto) const override;
  std::vector<LengthRow> lengths(const Design& design, const StructureItem& item,
                                 bool alone) const override;
  Result<void> scale(StructureItem& item, const Design& design, double factor,
                     const std::set<std::string>& held) const override;
  std::optional<double> flatLength_mm(const StructureItem&) const override { return std::nullopt; }
  Result<Draft> draft(const DraftPlace& place,
                      const std::function<bool(const Draft&)>& works) const override;
};

} // namespace hinge
