#pragma once
#include "core/assembly/builder.h"
#include "core/base/result.h"
#include <span>

namespace hinge {

/// A recipe of the card itself: makes the pages, the driven fold and the first seats.
struct BaseKind {
  std::string_view key, label, summary;
  Result<void> (*build)(const CardBase& card, AssemblyBuilder& builder);
};

std::span<const BaseKind* const> baseKinds();
const BaseKind* findBaseKind(std::string_view key);

const BaseKind& singleFoldBase(); ///< one per file; entered in bases/registry.cpp

} // namespace hinge
