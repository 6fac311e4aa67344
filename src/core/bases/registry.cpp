#include "core/bases/base.h"

namespace hinge {

std::span<const BaseKind* const> baseKinds() {
  static const BaseKind* const all[] = {&singleFoldBase()};
  return all;
}

const BaseKind* findBaseKind(std::string_view key) {
  for (const BaseKind* kind : baseKinds())
    if (kind->key == key) return kind;
  return nullptr;
}

} // namespace hinge
