// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/rehearsal.h"
#include <algorithm>
#include <functional>
#include <set>
#include <span>

namespace hinge {
namespace {

constexpr std::size_t kChoices = 3;
/// Of equal folds, and of a piece with very many, so many are asked.
constexpr std::size_t kFoldsOfPiece = 4;
constexpr double kNarrow_mm = 10;

/// The tab of the first glue of a step.
const Glue* glueOf(const WorkStep& step, const Assembly& assembly) {
  for (JointIndex j : step.joints)
    if (const auto* glue = std::get_if<Glue>(&assembly.joints[j])) return glue;
  return nullptr;
}

} // namespace

Rehearsal::Rehearsal(const WorkPlan& plan, const Assembly& assembly, const Pose& shut)
    : m_plan(plan), m_assembly(assembly), m_shut(shut), m_all(tasks()) {
  if (m_all.empty()) m_clean = kClean;
  begin();
}

void Rehearsal::begin() {
  m_open.assign(m_all.begin(), m_all.end());
  m_erred = false;
}

/// Every fold that a hand folds, a few of each piece, then every joint.
std::vector<RehearsalTask> Rehearsal::tasks() const {
  std::vector<RehearsalTask> all;
  for (const Piece& piece : m_assembly.pieces) {
    std::vector<FoldIndex> folds;
    for (FoldIndex f : m_assembly.folds.indices()) {
      const Fold& fold = m_assembly.folds[f];
      const bool tab = m_assembly.panels[fold.left].use == PanelUse::Tab ||
                       m_assembly.panels[fold.right].use == PanelUse::Tab;
      if (&m_assembly.pieces[m_assembly.panels[fold.left].piece] != &piece || tab ||
          fold.rest_rad || !piece.owner)
        continue;
      // Mountains and valleys take turns, so that neither is the answer to all.
      if (folds.size() < kFoldsOfPiece) folds.push_back(f);
    }
    for (FoldIndex f : folds) {
      RehearsalTask task;
      task.fold = f;
      all.push_back(task);
    }
  }
  for (std::size_t k = 0; k < m_plan.steps.size(); ++k) {
    const WorkStep& step = m_plan.steps[k];
    if (step.kind != WorkKind::Join) continue;
    if (auto task = nextJoint(k)) all.push_back(*task);
    const Glue* glue = glueOf(step, m_assembly);
    if (!glue || m_assembly.panels[glue->tab].use != PanelUse::Tab) continue;
    RehearsalTask side;
    side.kind = RehearsalTask::Kind::GlueSide, side.step = k;
    all.push_back(side);
  }
  return all;
}

/// Asked only where a wrong choice shuts something in.
std::optional<RehearsalTask> Rehearsal::nextJoint(std::size_t step) const {
  RehearsalTask task;
  task.kind = RehearsalTask::Kind::NextJoint, task.step = step;
  std::vector<std::size_t> wrong, fine;
  for (std::size_t k = step; k < m_plan.steps.size(); ++k) {
    if (m_plan.steps[k].kind != WorkKind::Join || k == step) continue;
    const std::span between = std::span(m_plan.steps).subspan(step, k - step);
    const bool shutsIn = std::ranges::any_of(between, [&](const WorkStep& done) {
      return done.kind == WorkKind::Join && done.before == static_cast<int>(k);
    });
    (shutsIn ? wrong : fine).push_back(k);
  }
  if (wrong.empty()) return std::nullopt;
  task.choices = {step, wrong.front()};
  for (std::size_t k : fine)
    if (task.choices.size() < kChoices) task.choices.push_back(k);
  std::ranges::sort(task.choices);
  return task;
}

std::size_t Rehearsal::builtUpTo() const {
  if (m_open.front().kind != RehearsalTask::Kind::FoldSense) return m_open.front().step;
  return 0;
}

bool Rehearsal::isRight(int answer) const {
  const RehearsalTask& task = m_open.front();
  switch (task.kind) {
  case RehearsalTask::Kind::FoldSense:
    return (m_assembly.folds[task.fold].sense == FoldSense::Mountain) == (answer == 0);
  case RehearsalTask::Kind::GlueSide:
    return glueOf(m_plan.steps[task.step], m_assembly)->byFace == (answer == 0);
  case RehearsalTask::Kind::NextJoint: return misstep(answer).outOfReach == 0;
  }
  return false;
}

Misstep Rehearsal::misstep(int answer) const {
  const RehearsalTask& task = m_open.front();
  Misstep out;
  if (task.kind == RehearsalTask::Kind::NextJoint) {
    const std::size_t chosen = task.choices[static_cast<std::size_t>(answer)];
    for (std::size_t a = task.step; a < chosen; ++a)
      if (m_plan.steps[a].kind == WorkKind::Join &&
          m_plan.steps[a].before == static_cast<int>(chosen)) {
        out.outOfReach = a;
        break;
      }
  }
  if (task.kind != RehearsalTask::Kind::GlueSide) return out;
  // The piece lies turned over about the fold at its tab: where do its other tabs come to?
  const Glue& glue = *glueOf(m_plan.steps[task.step], m_assembly);
  const Panel& tab = m_assembly.panels[glue.tab];
  const auto turn = turnedOver(m_assembly, glue, m_shut);
  if (!turn) return out;
  for (const auto& [j, other] : m_assembly.every<Glue>()) {
    const PanelIndex end = m_assembly.panels[other.tab].piece == tab.piece    ? other.tab
                           : m_assembly.panels[other.host].piece == tab.piece ? other.host
                                                                              : PanelIndex();
    if (other.tab == glue.tab || !end.valid() || !m_shut.placed[end]) continue;
    for (const Vec2& corner : m_assembly.panels[end].outline.rim) {
      const Vec3 place = m_shut.panels[end] * lift(corner);
      out.off_mm = std::max(out.off_mm, (*turn * place - place).norm());
    }
  }
  return out;
}

void Rehearsal::answer(int answer, bool forgiven) {
  const bool right = isRight(answer) || forgiven;
  const RehearsalTask task = m_open.front();
  m_open.pop_front();
  (right ? m_rights : m_wrongs) += 1;
  if (!right) {
    m_erred = true;
    m_open.insert(
        m_open.begin() + static_cast<std::ptrdiff_t>(std::min(kAgainAfter, m_open.size())), task);
  }
  if (!m_open.empty()) return;
  m_clean = m_erred ? 0 : m_clean + 1;
  begin();
}

std::optional<Iso3> turnedOver(const Assembly& assembly, const Glue& glue, const Pose& pose) {
  const Panel& tab = assembly.panels[glue.tab];
  if (tab.folds.empty()) return std::nullopt;
  const Fold& fold = assembly.folds[tab.folds.front()];
  const Iso3& at = pose.panels[glue.tab];
  return Iso3(at *
              rotationAboutLine(lift(fold.from), lift((fold.to - fold.from).normalized()), kPi) *
              inverseOf(at));
}

std::vector<std::size_t> trickiestJoints(const WorkPlan& plan, const Assembly& assembly,
                                         std::size_t most) {
  const auto tricky = [&](std::size_t k) {
    const WorkStep& step = plan.steps[k];
    double score = step.press == PressWay::ByShutting ? 3
                   : step.press == PressWay::ByFinger ? 2
                                                      : 0;
    if (step.before >= 0) score += 2;
    if (k > 0 && plan.steps[k - 1].kind == WorkKind::DryFit) score += 2;
    for (const Region& part : step.glueOn)
      if (boundsOf(part).size().minCoeff() < kNarrow_mm) score += 1;
    if (!glueOf(step, assembly)) score += 1; // slots, pins and bands want practice
    return score;
  };
  std::vector<std::size_t> joints;
  for (std::size_t k = 0; k < plan.steps.size(); ++k)
    if (plan.steps[k].kind == WorkKind::Join) joints.push_back(k);
  std::ranges::stable_sort(joints, std::greater<>(), tricky);
  // Of the same piece one is enough.
  std::vector<std::size_t> chosen;
  std::set<PieceIndex> pieces;
  for (std::size_t k : joints)
    if (chosen.size() < most && !plan.steps[k].pieces.empty() &&
        pieces.insert(plan.steps[k].pieces.front()).second)
      chosen.push_back(k);
  return chosen;
}

} // namespace hinge
