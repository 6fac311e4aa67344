// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/builder.h"
#include "core/base/result.h"
#include <span>

namespace hinge {

/// A recipe of the card itself: makes the pages, the driven fold and the first seats. What it is
/// called and what it is stands in words/ under "base.KEY" and "base.KEY/summary".
struct BaseKind {
  std::string_view key;
  ParameterTable parameters;
  ParameterValues (*fit)(const CardBase& card); ///< starting values that suit the card's size
  Result<void> (*build)(const CardBase& card, AssemblyBuilder& builder);
  double display_deg = 90; ///< opening at which such a card is usually shown
  Rests rests = Rests::OnPage;
  bool growsEvenly = false; ///< round: fitted to another sheet it grows in every direction

  Text name() const { return "base." + std::string(key); }
};

std::span<const BaseKind* const> baseKinds();
const BaseKind* findBaseKind(std::string_view key);

/// The card on another base: sizes of its table and the opening at which it is shown start afresh.
/// Fails when there is no such base.
Result<CardBase> onBase(const CardBase& card, std::string_view key);

const BaseKind& singleFoldBase(); ///< entered in bases/registry.cpp
const BaseKind& concertinaBase();
const BaseKind& gateBase();
const BaseKind& triFoldBase();
const BaseKind& easelBase();
const BaseKind& footBase();
const BaseKind& sleeveBase();
const BaseKind& doubleEaselBase();
const BaseKind& petalsBase();
const BaseKind& joinedBase();
const BaseKind& sheetBase();

} // namespace hinge
