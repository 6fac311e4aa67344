// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/dress_hand.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/edits/dressing.h"
#include "core/io/dress_words.h"
#include "core/units/lattice.h"
#include "render/lettering.h"
#include <QKeyEvent>
#include <QPainterPath>

namespace hinge {

DressHand::DressHand(Document* document, StageView* stage, QObject* parent)
    : QObject(parent), m_document(document), m_stage(stage) {
  connect(document, &Document::designChanged, this, [this] {
    const auto faces = m_document->snapshot()->faces();
    if (faces && !m_face.empty() && !faces->find(m_face).valid()) m_face.clear();
    const std::size_t count = stack().size();
    m_layer = count == 0 ? 0 : std::min(m_layer, count - 1);
    if (!m_document->design().dressing.find(m_topper)) m_topper = 0;
    emit changed();
  });
}

QString DressHand::hint() const {
  if (!m_carried.empty())
    return m_over.empty() ? tr("Drop it on a face") : tr("Let go to lay it on this face");
  if (m_face.empty()) return tr("Click a face, then a paper. X marks hidden faces.");
  if (m_topper != 0) return tr("Drag it on the face. R turns it, M mirrors it, P puts it on pads.");
  return tr("A letter or a click lays a paper on it, Backspace takes the top one off");
}

std::string DressHand::faceAt(const QPointF& at) const {
  const SeatIndex seat = m_stage->scene().faceAt(at);
  if (!seat.valid()) return {};
  const auto faces = m_document->snapshot()->faces();
  const std::string& key = m_stage->assembly()->seats[seat].key;
  return faces && faces->find(key).valid() ? key : std::string();
}

void DressHand::pointed(const QPointF& at) {
  const std::string over = faceAt(at);
  if (over == m_over) return;
  m_over = over;
  m_stage->update();
}

void DressHand::pressed(const QPointF& at) {
  choose(faceAt(at));
}

void DressHand::released(const QPointF&) {}

bool DressHand::key(const QKeyEvent& event) {
  switch (event.key()) {
  case Qt::Key_PageDown: return chooseNext(1), true;
  case Qt::Key_PageUp: return chooseNext(-1), true;
  case Qt::Key_Escape:
    if (!m_carried.empty())
      putBack();
    else
      choose({});
    return true;
  default: return false;
  }
}

void DressHand::choose(const std::string& face) {
  m_face = face;
  m_topper = 0;
  const std::size_t count = stack().size();
  m_layer = count == 0 ? 0 : count - 1;
  m_stage->update();
  emit changed();
}

void DressHand::chooseNext(int by) {
  const auto faces = m_document->snapshot()->faces();
  if (!faces || faces->empty()) return;
  const int count = static_cast<int>(faces->size());
  const FaceIndex now = faces->find(m_face);
  const int next = now.valid() ? (now.value + by + count) % count : by > 0 ? 0 : count - 1;
  choose((*faces)[FaceIndex(next)].key);
}

std::optional<Face> DressHand::chosen() const {
  const auto faces = m_document->snapshot()->faces();
  const FaceIndex face = faces ? faces->find(m_face) : FaceIndex();
  return face.valid() ? std::optional((*faces)[face]) : std::nullopt;
}

std::vector<CutLayer> DressHand::wears() const {
  const auto faces = m_document->snapshot()->faces();
  const FaceIndex face = faces ? faces->find(m_face) : FaceIndex();
  const auto dressed = m_stage->scene().dressed();
  if (!face.valid() || !dressed) return {};
  const auto found = std::ranges::find(*dressed, face, &DressedFace::face);
  return found == dressed->end() ? std::vector<CutLayer>() : found->layers;
}

std::optional<DressRule> DressHand::ruleNow() const {
  const auto faces = m_document->snapshot()->faces();
  const FaceIndex face = faces ? faces->find(m_face) : FaceIndex();
  const auto dressed = m_stage->scene().dressed();
  if (!face.valid() || !dressed) return std::nullopt;
  const auto found = std::ranges::find(*dressed, face, &DressedFace::face);
  const auto& rules = m_document->design().dressing.rules;
  if (found == dressed->end() || found->rule >= rules.size()) return std::nullopt;
  return rules[found->rule];
}

std::vector<Layer> DressHand::stack() const {
  const auto rule = ruleNow();
  return rule ? rule->layers : std::vector<Layer>();
}

AtGlue DressHand::atGlue() const {
  const auto rule = ruleNow();
  return rule ? rule->atGlue : AtGlue::Under;
}

std::optional<FaceSeen> DressHand::seen() const {
  const auto snapshot = m_document->snapshot();
  const auto faces = snapshot->faces();
  const FaceIndex face = faces ? faces->find(m_face) : FaceIndex();
  const auto all = snapshot->seenIfReady();
  if (!face.valid() || !all) return std::nullopt;
  return (*all)[static_cast<std::size_t>(face.value)];
}

void DressHand::chooseLayer(std::size_t layer) {
  if (layer >= stack().size()) return;
  m_layer = layer;
  emit changed();
}

void DressHand::setReach(DressReach reach) {
  m_reach = reach;
  m_stage->update();
  emit changed();
}

bool DressHand::keep(const Result<Design>& next, const QString& what) {
  const auto done = next ? m_document->apply(*next, what) : Result<void>(next.error());
  if (!done) {
    m_document->endPreview();
    emit refused(said(done.error(), m_document->committed().settings.unit));
    return false;
  }
  emit changed();
  return true;
}

Result<Design> DressHand::withStack(const std::vector<Layer>& stack, AtGlue how) const {
  Design design = m_document->committed();
  if (m_laid) {
    auto with = withPaper(design, *m_laid);
    if (!with) return with;
    design = std::move(with).value();
  }
  return withRule(design, {m_reach, m_face, how, stack});
}

bool DressHand::keepStack(const std::vector<Layer>& stack, const QString& what) {
  if (m_face.empty()) {
    emit refused(tr("Choose a face first"));
    return false;
  }
  return keep(withStack(stack, atGlue()), what);
}

bool DressHand::lay(const std::string& paper) {
  if (auto chosen = topper()) {
    chosen->paper = paper;
    return setTopper(*chosen, tr("paper of %1").arg(asQt(chosen->name())));
  }
  std::vector<Layer> layers = stack();
  Layer layer;
  layer.paper = paper;
  layers.push_back(std::move(layer));
  const std::size_t top = layers.size() - 1;
  if (!keepStack(layers, tr("lay paper on %1").arg(asQt(m_face)))) return false;
  m_layer = top;
  emit changed();
  return true;
}

bool DressHand::layOn(const std::string& face, const std::string& paper) {
  choose(face);
  return lay(paper);
}

bool DressHand::lay(const Paper& paper) {
  if (!m_document->committed().findPaper(paper.key)) m_laid = paper;
  const bool done = lay(paper.key);
  m_laid.reset();
  return done;
}

void DressHand::takeOff() {
  if (m_topper != 0) return removeTopper();
  std::vector<Layer> layers = stack();
  if (m_layer >= layers.size()) return;
  layers.erase(layers.begin() + static_cast<std::ptrdiff_t>(m_layer));
  keepStack(layers, tr("take paper off %1").arg(asQt(m_face)));
}

void DressHand::bare() {
  keepStack({}, tr("leave %1 bare").arg(asQt(m_face)));
}

bool DressHand::setBorder(const std::vector<double>& border_mm) {
  std::vector<Layer> layers = stack();
  if (m_layer >= layers.size()) return false;
  layers[m_layer].border_mm = border_mm;
  return keepStack(layers, tr("border of %1").arg(asQt(m_face)));
}

void DressHand::previewBorder(const std::vector<double>& border_mm) {
  std::vector<Layer> layers = stack();
  if (m_layer >= layers.size()) return;
  layers[m_layer].border_mm = border_mm;
  const auto next = withStack(layers, atGlue());
  if (!next || !m_document->preview(*next)) m_document->endPreview();
}

void DressHand::setTurn(PatternTurn turn, double angle_deg) {
  std::vector<Layer> layers = stack();
  if (m_layer >= layers.size()) return;
  layers[m_layer].turn = turn, layers[m_layer].angle_deg = angle_deg;
  keepStack(layers, tr("turn the pattern of %1").arg(asQt(m_face)));
}

void DressHand::setCorners(CornerStyle corners) {
  std::vector<Layer> layers = stack();
  if (m_layer >= layers.size()) return;
  layers[m_layer].corners = corners;
  keepStack(layers, tr("corners of %1").arg(asQt(m_face)));
}

void DressHand::setAtGlue(AtGlue how) {
  if (m_face.empty() || stack().empty()) return;
  keep(withStack(stack(), how), tr("where pieces are glued on %1").arg(asQt(m_face)));
}

bool DressHand::dressAll(const std::string& mat, const std::string& pattern) {
  std::vector<Layer> layers(2);
  layers[0].paper = mat, layers[1].paper = pattern;
  return keep(withRule(m_document->committed(), {DressReach::Seen, "", AtGlue::Under, layers}),
              tr("dress all that is seen"));
}

void DressHand::showHidden(bool on) {
  m_hidden = on;
  m_stage->update();
  emit changed();
}

void DressHand::carry(const std::string& paper, const QPointF& at, bool shape) {
  m_carried = paper, m_carriesShape = shape;
  m_over = faceAt(at);
  m_carriedAt.reset();
  if (const auto picked = m_stage->scene().pickedAt(at, latticeStep_mm(unit())); picked && shape)
    m_carriedAt = picked->onFace;
  m_stage->update();
}

void DressHand::carryOverFace(const std::string& paper, const Vec2& at, bool shape) {
  m_carried = paper, m_carriesShape = shape;
  m_over = m_face;
  m_carriedAt = at;
  m_stage->update();
}

void DressHand::drop() {
  const std::string carried = std::exchange(m_carried, {}), on = m_over;
  m_stage->update();
  if (carried.empty() || on.empty()) return;
  if (!m_carriesShape) return void(layOn(on, carried));
  choose(on);
  addTopper(carried, m_carriedAt);
}

LengthUnit DressHand::unit() const {
  return m_document->committed().settings.unit;
}

std::vector<Topper> DressHand::toppers() const {
  std::vector<Topper> on;
  for (const Topper& topper : m_document->design().dressing.toppers)
    if (topper.face == m_face) on.push_back(topper);
  return on;
}

std::optional<Topper> DressHand::topper() const {
  const Topper* chosen = m_document->design().dressing.find(m_topper);
  return chosen ? std::optional(*chosen) : std::nullopt;
}

void DressHand::chooseTopper(int id) {
  if (const Topper* topper = m_document->design().dressing.find(id);
      topper && topper->face != m_face)
    choose(topper->face);
  m_topper = id;
  emit changed();
}

/// Of a paper that stands out from what lies below it: that of the last topper, or a plain one of
/// the drawer.
std::string DressHand::topperPaper() const {
  const Design& design = m_document->committed();
  if (!design.dressing.toppers.empty()) return design.dressing.toppers.back().paper;
  std::string paper = design.stock;
  for (const Paper& one : design.papers)
    if (!one.patterned() && one.key != design.stock) paper = one.key;
  return paper;
}

bool DressHand::addTopper(const std::string& shape, std::optional<Vec2> at) {
  const Design& design = m_document->committed();
  if (m_face.empty()) {
    emit refused(tr("Choose a face first: click it"));
    return false;
  }
  auto made = freshTopper(design, m_face, shape, topperPaper());
  if (!made) {
    emit refused(said(made.error(), unit()));
    return false;
  }
  Topper topper = std::move(made).value();
  if (shape == kLettering) {
    topper.text = design.title.empty() ? tr("Open").toStdString() : design.title;
    topper = lettered(std::move(topper));
  }
  return putOn(std::move(topper), at);
}

bool DressHand::addShape(std::vector<Region> outlines) {
  auto made = freshTopper(m_document->committed(), m_face, kOwnShape, topperPaper());
  if (!made) {
    emit refused(m_face.empty() ? tr("Choose a face first: click it") : said(made.error(), unit()));
    return false;
  }
  Topper topper = std::move(made).value();
  topper.outlines = std::move(outlines);
  return putOn(std::move(topper), {});
}

bool DressHand::putOn(Topper topper, std::optional<Vec2> at) {
  if (at) topper.at = *at;
  const QString what = said(Text("topper." + topper.shape));
  if (!setTopper(topper, tr("put %1 on %2").arg(what, asQt(m_face)))) return false;
  chooseTopper(topper.id);
  return true;
}

bool DressHand::setTopper(const Topper& topper, const QString& what) {
  const Design& design = m_document->committed();
  return keep(withTopper(m_laid ? withPaper(design, *m_laid).value() : design, topper), what);
}

void DressHand::previewTopper(const Topper& topper) {
  const auto next = withTopper(m_document->committed(), topper);
  if (!next || !m_document->preview(*next)) m_document->endPreview();
}

QString DressHand::topperInWords() const {
  const auto chosen = topper();
  if (!chosen) return {};
  Topper told = *chosen;
  told.outlines.clear();
  QString words = asQt(inWords(told, unit()));
  words.remove(0, words.indexOf(QLatin1Char(':')) + 2);
  return words.replace(QStringLiteral(", "), QStringLiteral("; "));
}

bool DressHand::sayTopper(const QString& words) {
  const auto chosen = topper();
  if (!chosen) return false;
  std::vector<std::string> parts;
  for (const QString& part : words.split(QLatin1Char(';'), Qt::SkipEmptyParts))
    parts.push_back(part.trimmed().toStdString());
  auto next = toppedUp(*chosen, parts, unit());
  if (next) next = lettered(std::move(next).value());
  if (!next) {
    emit refused(said(next.error(), unit()));
    return false;
  }
  return setTopper(*next, tr("change %1").arg(asQt(chosen->name())));
}

void DressHand::removeTopper() {
  const int id = std::exchange(m_topper, 0);
  keep(withoutTopper(m_document->committed(), id), tr("take t%1 away").arg(id));
}

void DressHand::putBack() {
  m_carried.clear();
  m_stage->update();
}

void DressHand::outlineFace(QPainter& painter, const std::string& key, const QColor& colour,
                            double width_px, bool filled) const {
  const auto faces = m_document->snapshot()->faces();
  const FaceIndex index = faces ? faces->find(key) : FaceIndex();
  if (!index.valid() || m_stage->assembly() != *m_document->snapshot()->assembly()) return;
  const QPolygonF outline = m_stage->scene().outlineOf((*faces)[index].panel);
  if (outline.isEmpty()) return;
  QColor fill = colour;
  fill.setAlphaF(0.35f);
  painter.setPen(QPen(colour, width_px, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
  painter.setBrush(filled ? QBrush(fill) : QBrush(Qt::NoBrush));
  painter.drawPolygon(outline);
}

/// A pencil X on the middle of every face that nobody will see, where it is turned to the eye.
void DressHand::strikeHidden(QPainter& painter) const {
  const auto snapshot = m_document->snapshot();
  const auto faces = snapshot->faces();
  const auto seen = snapshot->seenIfReady();
  if (!faces || !seen || m_stage->assembly() != *snapshot->assembly()) return;
  const StageScene& scene = m_stage->scene();
  painter.setPen(QPen(QColor(0x2a, 0x26, 0x2a), 2.2, Qt::SolidLine, Qt::RoundCap));
  for (FaceIndex f : faces->indices()) {
    const Face& face = (*faces)[f];
    if ((*seen)[static_cast<std::size_t>(f.value)].seenAs() != SeenClass::Hidden) continue;
    if (!scene.showsSide(face.panel, face.back)) continue;
    const Box2 box = boundsOf(face.outline);
    const double reach = 0.3 * box.size().minCoeff();
    for (const double lean : {-1.0, 1.0}) {
      const Vec2 from = box.centre() - reach * Vec2(1, lean),
                 to = box.centre() + reach * Vec2(1, lean);
      const auto a = scene.onScreen(face.panel, (face.toPiece * lift(from)).head<2>()),
                 b = scene.onScreen(face.panel, (face.toPiece * lift(to)).head<2>());
      if (a && b) painter.drawLine(*a, *b);
    }
  }
}

void DressHand::paint(QPainter& painter) const {
  const Theme& theme = Look::theme();
  if (m_hidden) strikeHidden(painter);
  const auto snapshot = m_document->snapshot();
  const auto faces = snapshot->faces();
  if (faces && !m_face.empty()) {
    std::vector<SeenClass> none;
    for (FaceIndex f : reachedBy({m_reach, m_face, {}, {}}, **snapshot->assembly(), *faces, none))
      if ((*faces)[f].key != m_face)
        outlineFace(painter, (*faces)[f].key, theme.accent, 1.4, false);
    outlineFace(painter, m_face, theme.accent, 2.8, false);
  }
  if (m_over.empty() || m_over == m_face) return;
  const Paper* paper = m_carried.empty() ? nullptr : m_document->design().findPaper(m_carried);
  if (!paper && !m_carried.empty()) paper = findPaper(knownPapers(), m_carried);
  const Colour colour = paper ? paper->colours[0] : Colour{0xff, 0xf6, 0xe4};
  outlineFace(painter, m_over, QColor(colour.red, colour.green, colour.blue), 1.6,
              paper != nullptr);
}

} // namespace hinge
