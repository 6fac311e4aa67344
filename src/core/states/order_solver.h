// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstddef>
#include <vector>

namespace hinge {

/// Statements that are true or false, and what ties them together. A statement is "the second of
/// two sheets lies above the first".
class OrderSolver {
public:
  /// A statement, or its contrary.
  struct Literal {
    int statement = 0;
    bool holds = true;
    Literal contrary() const { return {statement, !holds}; }
  };

  int addStatement();
  /// An even number of them is true. `group` 0 counts always, another one only when it is asked
  /// for.
  void addEven(std::vector<Literal> of, int group = 0);
  /// They are not all true and not all false.
  void addUnlike(const Literal& a, const Literal& b, const Literal& c, int group = 0);

  /// What is known of every statement: 0 nothing, 1 true, -1 false.
  using Known = std::vector<signed char>;
  Known nothing() const { return Known(m_of.size(), 0); }
  /// Takes a fact and all that follows from it in group 0 and `group`; false, with `known` as it
  /// was, when that contradicts what is known.
  bool take(const Literal& fact, Known& known, int group = 0) const;
  /// Takes what follows from all that is known once a group is asked for; false as above.
  bool settle(Known& known, int group) const;
  enum class Found { Yes, No, CutOff };
  /// Decides everything that is left open without contradiction, in one of the ways in which that
  /// can be done; `known` is as it was when there is none. Tries at most so many.
  Found decide(Known& known, int tries) const;

private:
  struct Tie {
    std::vector<Literal> of;
    bool even = true; ///< else not all alike
    int group = 0;
  };
  void add(Tie tie);
  bool follow(std::vector<int>& open, Known& known, int group) const;
  /// What a tie makes of its last open statement; false on a contradiction.
  bool apply(const Tie& tie, Known& known, std::vector<int>& open) const;

  std::vector<Tie> m_ties;
  std::vector<std::vector<std::size_t>> m_of; ///< ties of a statement
};

} // namespace hinge
