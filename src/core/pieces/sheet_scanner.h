// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/geom/vectors.h"
#include "core/units/length.h"
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace hinge {

/// Reads the words, lengths, points and angles of a sentence about a sheet, from left to right. A
/// reading that fails leaves the place where it was.
class SheetScanner {
public:
  SheetScanner(std::string_view text, LengthUnit unit) : m_text(text), m_unit(unit) {}

  bool atEnd() const;
  /// The next word or sign is this one, whole; it is read then.
  bool take(std::string_view word);
  bool sees(std::string_view word) const;
  std::string_view nextWord() const; ///< up to a space, not read; empty at the end
  /// "2 1/2", "60mm", "-3 1/4 in"; mm.
  std::optional<double> length() { return length(false); }
  std::optional<double> angle_deg(); ///< "90", "90deg", "22.5°"
  std::optional<Vec2> point();       ///< "10,2 1/2": lengths
  /// Letters, digits, "-", "/" up to a space: a key such as "card/page-a".
  std::string key();
  /// What could not be understood from here on, or is too much.
  Error lost(std::string_view wanted) const;
  Error tooMuch() const;
  /// The sentence begins with none of these words; names the one that was likely meant.
  Error noVerb(std::span<const std::string_view> words) const;

private:
  void skip();
  std::string beginning() const; ///< of the sentence, to name it by
  std::string_view rest() const; ///< the beginning of what is still to be read
  std::optional<double> unsignedNumber();
  // `second`: of a point. In "0,0 1/2,0" the half is the next one's.
  std::optional<double> mixedNumber(bool second);
  std::optional<double> signedNumber(bool second); ///< "2 1/2", "-3"
  std::optional<double> length(bool second);

  std::string_view m_text;
  LengthUnit m_unit;
  std::size_t m_at = 0;
};

} // namespace hinge
