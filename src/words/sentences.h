// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/text.h"
#include "core/units/length.h"
#include <QCoreApplication>
#include <functional>
#include <span>

namespace hinge {

/// A pattern under its key. `%1` to `%9` are what the text is said of, in their order; `%n` is the
/// first whole number among them, which also chooses between `one` and `source`. Other languages
/// have their own plural forms in their translation. The patterns of findings have names in braces.
struct Sentence {
  const char* key;
  const char* source;
  const char* one = nullptr; ///< English singular of a source with %n
};

/// All sentences, by topic, and what looks them up.
class Words {
  Q_DECLARE_TR_FUNCTIONS(words)
public:
  static std::span<const Sentence> parameters(); ///< rows of tables: name, meaning, choices
  static std::span<const Sentence> kinds();      ///< bases, structures, stocks, sheets, envelopes
  static std::span<const Sentence> parts();      ///< panels, folds, pieces, seats
  static std::span<const Sentence> errors();
  static std::span<const Sentence> findings();
  static std::span<const Sentence> rules();  ///< of placement
  static std::span<const Sentence> making(); ///< order of work
  static std::span<const Sentence> tables(); ///< of scores and cuts
  static std::span<const Sentence> commandLine();

  /// The sentence of a key; null when there is none.
  static const Sentence* find(std::string_view key);
  /// The pattern in the user's language, for `count` things (negative: nothing is counted).
  static QString patternOf(const Sentence& sentence, int count = -1);
  /// Puts values into a pattern in one pass, so that what they contain is not read again: `value`
  /// gets the digit after a per cent sign, or the name in braces.
  static QString filled(const QString& pattern,
                        const std::function<QString(const QString&)>& value);
  static QString said(const Text& text, LengthUnit unit);
  static QString said(const Said& one, LengthUnit unit);
  static QString withCapital(QString text);
};

} // namespace hinge
