// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/finding.h"

namespace hinge {

bool sameTrouble(const Finding& a, const Finding& b) {
  // Several of these may be had by one structure, or by nobody.
  const bool each = a.code == "tab-narrow" || a.code.starts_with("mat-") ||
                    a.code.starts_with("topper-") || a.owners.empty();
  return a.code == b.code && a.owners == b.owners && (!each || a.elements == b.elements);
}

std::string_view severityKey(Severity severity) {
  return severity == Severity::Spoils ? "spoils" : "advice";
}

std::string_view unitKey(AmountUnit unit) {
  switch (unit) {
  case AmountUnit::Millimetre: return "mm";
  case AmountUnit::Degree: return "deg";
  case AmountUnit::Count: return "count";
  }
  return "";
}

} // namespace hinge
