// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/finding.h"

namespace hinge {

bool sameTrouble(const Finding& a, const Finding& b) {
  return a.code == b.code && a.owners == b.owners &&
         (a.code != "tab-narrow" || a.elements == b.elements);
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
