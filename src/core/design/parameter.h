// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include <map>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace hinge {

/// A switch is one of its choices by number, a count a whole number of things.
enum class ParameterUnit { Millimetre, Degree, Switch, Count };

/// Held dimensions keep their value when something must be mended; the others give.
enum class ParameterRole { Held, Gives };

/// What a row means to those who turn, mirror, move and scale structures without knowing their
/// kind.
enum class Sense {
  Size,        ///< a size like any other
  Place,       ///< where along its fold or face's line the structure stands
  FromPlace,   ///< a length along that line, beginning at the place
  AboutPlace,  ///< a length along that line, half of it on either side of the place
  Turn,        ///< an angle in the plane of a face
  Hand,        ///< a switch of two that the mirror image has the other way
  TurnedRound, ///< a switch: 1 when it stands on its fold as seen from the other end
  Tab,         ///< how deep glue tabs are
};

/// What a row is called in words/: "box.a" and, where two rows are the same size on both sides or
/// one of many, which of them ("a", "3"). What it means is said under "box.a/meaning", the choices
/// of a switch under "box.a/0", "box.a/1", ...
struct RowName {
  std::string_view key, of = {};
};

/// One row of a structure's parameter table. Forms, files, the command line, the docs, random tests
/// and mends all read this row and nothing else.
struct ParameterSpec {
  std::string_view key; ///< symbol as in the formulas: "alpha", "a"
  RowName name;
  ParameterUnit unit;
  double least, most, start;
  ParameterRole role;
  /// The same dimension on the other side of the fold; empty when it has none.
  std::string_view twin = {};
  Sense sense = Sense::Size;

  bool runsAlong() const {
    return sense == Sense::Place || sense == Sense::FromPlace || sense == Sense::AboutPlace;
  }
  bool whole() const { return unit == ParameterUnit::Switch || unit == ParameterUnit::Count; }
  /// Of a switch: how many choices it offers, from 0 on.
  int choices() const { return unit == ParameterUnit::Switch ? static_cast<int>(most) + 1 : 0; }
};

using ParameterTable = std::span<const ParameterSpec>;
using ParameterValues = std::map<std::string, double, std::less<>>;

const ParameterSpec* findSpec(ParameterTable table, std::string_view key);
/// The first row with this sense; null when there is none.
const ParameterSpec* findSense(ParameterTable table, Sense sense);
std::string_view unitKey(ParameterUnit unit); ///< "mm", "deg", "switch", "count"

/// What a row is called, what it means (from where to where), and what a switch offers as a choice.
Text nameOf(const ParameterSpec& spec);
/// The name of a row and its twin together.
Text nameOnBothSides(const ParameterSpec& spec);
Text meaningOf(const ParameterSpec& spec);
Text choiceOf(const ParameterSpec& spec, int choice);
/// A row's value with its unit.
Said valueOf(const ParameterSpec& spec, double value);

/// Every row has a value inside its range and there is no value without a row; the error names the
/// key, the value and the range. `place` is put before the key ("s3").
Result<void> validate(ParameterTable table, const ParameterValues& values, std::string_view place);

ParameterValues startingValues(ParameterTable table);

/// Exchanges every value with that of its twin: the same structure seen from the other side of its
/// fold.
ParameterValues swapTwins(ParameterTable table, const ParameterValues& values);

/// A linear condition sum(coefficient * value) = 0 between parameters that is exact when the card
/// shuts flat.
struct LinearClosure {
  struct Term {
    std::string_view key;
    double coefficient;
  };
  std::vector<Term> terms;
  ParameterUnit unit = ParameterUnit::Millimetre;
  double misfit(const ParameterValues& values) const;
};

/// A way to change a structure that keeps its closures: steps of equal size on several parameters.
struct MendDirection {
  struct Term {
    std::string_view key;
    double coefficient;
  };
  std::vector<Term> terms;
};

} // namespace hinge
