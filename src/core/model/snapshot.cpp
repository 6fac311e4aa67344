// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/snapshot.h"
#include "core/production/spliced.h"
#include "core/structures/assemble.h"

namespace hinge {

Result<std::shared_ptr<const Assembly>> Snapshot::assembly() const {
  return *m_assembled.get({}, [&] {
    auto made = assembleDesign(m_design);
    return std::make_shared<const Assembled>(
        made ? Assembled(std::make_shared<const Assembly>(std::move(made).value()))
             : Assembled(made.error()));
  });
}

Result<void> Snapshot::possible() const {
  const auto made = assembly();
  if (!made) return made.error();
  return {};
}

std::shared_ptr<const Motion> Snapshot::motion(std::stop_token stop) const {
  return m_motion.get(stop, [&]() -> std::shared_ptr<const Motion> {
    const auto made = assembly();
    if (!made) return nullptr;
    auto traced = std::make_shared<const Motion>(Motion::trace(*made, stop, m_near.get()));
    return stop.stop_requested() ? nullptr : traced;
  });
}

std::shared_ptr<const ContactReport> Snapshot::contacts(std::stop_token stop) const {
  return m_contacts.get(stop, [&]() -> std::shared_ptr<const ContactReport> {
    const auto moves = motion(stop);
    if (!moves) return nullptr;
    auto report = std::make_shared<const ContactReport>(findContacts(*moves, {}, stop));
    return report->complete ? report : nullptr;
  });
}

std::shared_ptr<const AssemblyOrder> Snapshot::order(std::stop_token stop) const {
  return m_order.get(stop, [&]() -> std::shared_ptr<const AssemblyOrder> {
    const auto moves = motion(stop);
    if (!moves || !moves->impossible().empty()) return nullptr;
    return std::make_shared<const AssemblyOrder>(
        assemblyOrder(*moves, radians(m_design.card.display_deg)));
  });
}

std::shared_ptr<const ShutState> Snapshot::shut(std::stop_token stop) const {
  return m_shut.get(stop, [&]() -> std::shared_ptr<const ShutState> {
    const auto moves = motion(stop);
    const auto on = moves ? laid(stop) : nullptr;
    return on ? std::make_shared<const ShutState>(shutState(*moves, m_design, *on)) : nullptr;
  });
}

std::shared_ptr<const InPlaneReport> Snapshot::inPlane(std::stop_token stop) const {
  return m_inPlane.get(stop, [&]() -> std::shared_ptr<const InPlaneReport> {
    const auto moves = motion(stop);
    if (!moves) return nullptr;
    InPlaneOptions options;
    options.shown_rad = radians(m_design.card.display_deg);
    auto found = findInPlaneHits(*moves, options, stop);
    if (stop.stop_requested()) return nullptr;
    return std::make_shared<const InPlaneReport>(std::move(found));
  });
}

std::shared_ptr<const Stacking> Snapshot::stack(std::stop_token stop) const {
  return m_stack.get(stop, [&]() -> std::shared_ptr<const Stacking> {
    const auto moves = motion(stop);
    const auto sheets = inPlane(stop);
    if (!moves || !sheets) return nullptr;
    auto found = stackShut(*moves, sheets->order, stop);
    if (stop.stop_requested()) return nullptr;
    return std::make_shared<const Stacking>(std::move(found));
  });
}

std::shared_ptr<const Stand> Snapshot::stand(std::stop_token stop) const {
  return m_stand.get(stop, [&]() -> std::shared_ptr<const Stand> {
    const auto moves = motion(stop);
    const auto on = moves ? laid(stop) : nullptr;
    return on ? std::make_shared<const Stand>(standOf(*moves, m_design, *on)) : nullptr;
  });
}

std::shared_ptr<const KeyedVector<FaceIndex, Face>> Snapshot::faces() const {
  return m_faces.get({}, [&]() -> std::shared_ptr<const KeyedVector<FaceIndex, Face>> {
    const auto made = assembly();
    if (!made) return nullptr;
    return std::make_shared<const KeyedVector<FaceIndex, Face>>(facesOf(**made));
  });
}

std::shared_ptr<const std::vector<FaceSeen>> Snapshot::seen(std::stop_token stop) const {
  return m_seen.get(stop, [&]() -> std::shared_ptr<const std::vector<FaceSeen>> {
    const auto moves = motion(stop);
    const auto sheets = inPlane(stop);
    if (!moves || !sheets) return nullptr;
    auto found = seenFaces(*moves, sheets->order, m_design.card, *faces(), stop);
    if (stop.stop_requested()) return nullptr;
    return std::make_shared<const std::vector<FaceSeen>>(std::move(found));
  });
}

std::shared_ptr<const std::vector<DressedFace>> Snapshot::dressed(std::stop_token stop) const {
  return m_dressed.get(stop, [&]() -> std::shared_ptr<const std::vector<DressedFace>> {
    const auto moves = motion(stop);
    if (!moves) return nullptr;
    std::vector<SeenClass> classes;
    if (asksForSight(m_design.dressing)) {
      const auto found = seen(stop);
      if (!found) return nullptr;
      classes = seenClasses(*found);
    }
    return std::make_shared<const std::vector<DressedFace>>(
        dressedFaces(m_design, moves->assembly(), *faces(), classes,
                     moves->poseAt(displayOpening_rad(m_design.card, moves->assembly()))));
  });
}

std::shared_ptr<const std::vector<LaidOn>> Snapshot::laid(std::stop_token stop) const {
  return m_laid.get(stop, [&]() -> std::shared_ptr<const std::vector<LaidOn>> {
    if (m_design.dressing.empty() && m_design.splices.empty())
      return std::make_shared<const std::vector<LaidOn>>();
    const auto wears = dressed(stop);
    const auto made = assembly();
    if (!wears || !made) return nullptr;
    return std::make_shared<const std::vector<LaidOn>>(
        everythingLaid(m_design, **made, *faces(), *wears));
  });
}

std::shared_ptr<const std::vector<FlatPiece>> Snapshot::cutPieces() const {
  if (m_design.splices.empty()) return flatPieces();
  return m_cutPieces.get({}, [&]() -> std::shared_ptr<const std::vector<FlatPiece>> {
    const auto made = assembly();
    if (!made) return nullptr;
    std::vector<FlatPiece> all;
    for (const FlatPiece& whole : *flatPieces())
      for (FlatPiece& part : cutParts(whole, **made, m_design.splices))
        all.push_back(std::move(part));
    return std::make_shared<const std::vector<FlatPiece>>(std::move(all));
  });
}

std::shared_ptr<const std::vector<FlatPiece>> Snapshot::flatPieces() const {
  return m_pieces.get({}, [&]() -> std::shared_ptr<const std::vector<FlatPiece>> {
    const auto made = assembly();
    if (!made) return nullptr;
    return std::make_shared<const std::vector<FlatPiece>>(hinge::flatPieces(**made));
  });
}

} // namespace hinge
