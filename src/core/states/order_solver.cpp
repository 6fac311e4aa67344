// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/order_solver.h"
#include <utility>

namespace hinge {

int OrderSolver::addStatement() {
  m_of.emplace_back();
  return static_cast<int>(m_of.size()) - 1;
}

void OrderSolver::add(Tie tie) {
  for (const Literal& literal : tie.of)
    m_of[static_cast<std::size_t>(literal.statement)].push_back(m_ties.size());
  m_ties.push_back(std::move(tie));
}

void OrderSolver::addEven(std::vector<Literal> of, int group) {
  add({std::move(of), true, group});
}

void OrderSolver::addUnlike(const Literal& a, const Literal& b, const Literal& c, int group) {
  add({{a, b, c}, false, group});
}

bool OrderSolver::apply(const Tie& tie, Known& known, std::vector<int>& open) const {
  int isTrue = 0, isOpen = 0;
  const Literal* last = nullptr;
  for (const Literal& literal : tie.of) {
    const signed char value = known[static_cast<std::size_t>(literal.statement)];
    if (value == 0)
      ++isOpen, last = &literal;
    else if ((value > 0) == literal.holds)
      ++isTrue;
  }
  if (isOpen > 1) return true;
  const int others = static_cast<int>(tie.of.size()) - isOpen;
  const bool allAlike = isTrue == 0 || isTrue == others;
  if (isOpen == 0) return tie.even ? isTrue % 2 == 0 : !allAlike;
  if (!tie.even && !allAlike) return true;
  // The last one makes the number even, or is unlike the others.
  const bool holds = tie.even ? isTrue % 2 == 1 : isTrue == 0;
  known[static_cast<std::size_t>(last->statement)] = holds == last->holds ? 1 : -1;
  open.push_back(last->statement);
  return true;
}

bool OrderSolver::follow(std::vector<int>& open, Known& known, int group) const {
  while (!open.empty()) {
    const int statement = open.back();
    open.pop_back();
    for (std::size_t t : m_of[static_cast<std::size_t>(statement)]) {
      const Tie& tie = m_ties[t];
      if (tie.group != 0 && tie.group != group) continue;
      if (!apply(tie, known, open)) return false;
    }
  }
  return true;
}

bool OrderSolver::take(const Literal& fact, Known& known, int group) const {
  const auto at = static_cast<std::size_t>(fact.statement);
  const signed char value = fact.holds ? 1 : -1;
  if (known[at] == -value) return false;
  // Known already, it may still have more to say of the group.
  Known before = known;
  known[at] = value;
  std::vector<int> open{fact.statement};
  if (follow(open, known, group)) return true;
  known = std::move(before);
  return false;
}

bool OrderSolver::settle(Known& known, int group) const {
  Known before = known;
  std::vector<int> open;
  for (std::size_t k = 0; k < known.size(); ++k)
    if (known[k] != 0) open.push_back(static_cast<int>(k));
  if (follow(open, known, group)) return true;
  known = std::move(before);
  return false;
}

OrderSolver::Found OrderSolver::decide(Known& decided, int tries) const {
  Known known = decided;
  // What each choice was made over: the statement, and what was known before it.
  struct Choice {
    int statement;
    Known before;
  };
  std::vector<Choice> choices;
  const auto firstOpen = [&] {
    for (std::size_t k = 0; k < known.size(); ++k)
      if (known[k] == 0 && !m_of[k].empty()) return static_cast<int>(k);
    return -1;
  };
  bool holds = true;
  int statement = firstOpen();
  while (statement >= 0) {
    if (tries-- <= 0) return Found::CutOff;
    Known before = known;
    if (take({statement, holds}, known)) {
      if (holds) choices.push_back({statement, std::move(before)});
      statement = firstOpen(), holds = true;
      continue;
    }
    if (holds) {
      holds = false;
      continue;
    }
    // Neither way: back to the last choice that has another way.
    if (choices.empty()) return Found::No;
    known = std::move(choices.back().before), statement = choices.back().statement, holds = false;
    choices.pop_back();
  }
  decided = std::move(known);
  return Found::Yes;
}

} // namespace hinge
