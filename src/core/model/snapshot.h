// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/contact/contact.h"
#include "core/design/design.h"
#include "core/dress/laid.h"
#include "core/dress/mats.h"
#include "core/dress/seen.h"
#include "core/making/order.h"
#include "core/model/lazy.h"
#include "core/production/flat_piece.h"
#include "core/states/shut_state.h"
#include "core/states/stacking.h"
#include "core/states/stand.h"

namespace hinge {

/// One state of a design and everything that follows from it: assembly, motion, contacts, order of
/// work, flat pieces, sheets. Each part is worked out when it is first asked for, at most once, by
/// whichever thread asks; parts and design never change. Command line, window and checks share one
/// snapshot instead of deriving the model each for itself.
///
/// A part that takes long takes a stop token: who stops gets a null pointer, and the part stays
/// open for the next one. A part is null too when the design cannot be assembled.
class Snapshot {
public:
  explicit Snapshot(Design design) : m_design(std::move(design)) {}
  /// `near` is the motion of a design that differs a little (see Motion::trace).
  Snapshot(Design design, std::shared_ptr<const Motion> near)
      : m_design(std::move(design)), m_near(std::move(near)) {}
  Snapshot(const Snapshot&) = delete;
  Snapshot& operator=(const Snapshot&) = delete;

  const Design& design() const { return m_design; }

  /// What the recipes make, or why they cannot. Quick: some microseconds a structure.
  Result<std::shared_ptr<const Assembly>> assembly() const;
  /// Why the design cannot be assembled.
  Result<void> possible() const;

  std::shared_ptr<const Motion> motion(std::stop_token stop = {}) const;
  std::shared_ptr<const Motion> motionIfReady() const { return m_motion.ready(); }
  /// All crossings of panels, over all openings.
  std::shared_ptr<const ContactReport> contacts(std::stop_token stop = {}) const;
  /// What lies on one another in one plane, and in which order.
  std::shared_ptr<const InPlaneReport> inPlane(std::stop_token stop = {}) const;
  std::shared_ptr<const InPlaneReport> inPlaneIfReady() const { return m_inPlane.ready(); }
  /// How it all lies in the shut card.
  std::shared_ptr<const Stacking> stack(std::stop_token stop = {}) const;
  /// Null also when something cannot be put together at all.
  std::shared_ptr<const AssemblyOrder> order(std::stop_token stop = {}) const;
  std::shared_ptr<const ShutState> shut(std::stop_token stop = {}) const;
  std::shared_ptr<const Stand> stand(std::stop_token stop = {}) const;

  /// The faces that can be dressed. Quick, as the assembly is.
  std::shared_ptr<const KeyedVector<FaceIndex, Face>> faces() const;
  /// How much of each face is seen.
  std::shared_ptr<const std::vector<FaceSeen>> seen(std::stop_token stop = {}) const;
  std::shared_ptr<const std::vector<FaceSeen>> seenIfReady() const { return m_seen.ready(); }
  /// What the faces wear. What is seen is worked out only when a rule asks for it.
  std::shared_ptr<const std::vector<DressedFace>> dressed(std::stop_token stop = {}) const;
  std::shared_ptr<const std::vector<DressedFace>> dressedIfReady() const {
    return m_dressed.ready();
  }

  /// What is laid on panels, and makes the shut card thicker; nothing for a card that wears
  /// nothing.
  std::shared_ptr<const std::vector<LaidOn>> laid(std::stop_token stop = {}) const;

  /// Every piece by itself, in the order of the assembly. Quick, as the assembly is.
  std::shared_ptr<const std::vector<FlatPiece>> flatPieces() const;
  /// Those again, with the parts of spliced ones in their places.
  std::shared_ptr<const std::vector<FlatPiece>> cutPieces() const;

private:
  using Assembled = Result<std::shared_ptr<const Assembly>>;

  const Design m_design;
  const std::shared_ptr<const Motion> m_near;
  Lazy<Assembled> m_assembled;
  Lazy<Motion> m_motion;
  Lazy<ContactReport> m_contacts;
  Lazy<InPlaneReport> m_inPlane;
  Lazy<Stacking> m_stack;
  Lazy<AssemblyOrder> m_order;
  Lazy<ShutState> m_shut;
  Lazy<Stand> m_stand;
  Lazy<KeyedVector<FaceIndex, Face>> m_faces;
  Lazy<std::vector<FaceSeen>> m_seen;
  Lazy<std::vector<DressedFace>> m_dressed;
  Lazy<std::vector<LaidOn>> m_laid;
  Lazy<std::vector<FlatPiece>> m_pieces, m_cutPieces;
};

} // namespace hinge
