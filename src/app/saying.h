// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "words/words.h"
#include <QString>

namespace hinge {

/// A key or another text of the core as Qt wants it.
inline QString asQt(std::string_view text) {
  return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size()));
}

/// What the core has to say, in the user's language.
inline QString said(const Text& text, LengthUnit unit = LengthUnit::Millimetre) {
  return asQt(say(text, unit));
}
inline QString said(const Error& error, LengthUnit unit = LengthUnit::Millimetre) {
  return asQt(say(error, unit));
}

} // namespace hinge
