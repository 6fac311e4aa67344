// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/findings_panel.h"
#include "app/look.h"
#include "app/saying.h"
#include <QEvent>
#include <QHBoxLayout>
#include <QPainter>
#include <QScrollArea>
#include <cmath>

namespace hinge {
namespace {

/// The same mark as on the stage: a diamond spoils the card, a disc is advice.
class BadgeLabel : public QWidget {
public:
  BadgeLabel(int number, bool spoils, QWidget* parent)
      : QWidget(parent), m_number(number), m_spoils(spoils) {
    setFixedSize(26, 26);
  }

protected:
  void paintEvent(QPaintEvent*) override {
    const Theme& theme = Look::theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(m_spoils ? theme.trouble : theme.advice);
    if (m_spoils)
      p.drawPolygon(QPolygonF({{13, 0}, {26, 13}, {13, 26}, {0, 13}}));
    else
      p.drawEllipse(QPointF(13, 13), 10, 10);
    p.setPen(theme.dark ? QColor(0x1c, 0x16, 0x18) : QColor(Qt::white));
    p.setFont(Look::font(12, QFont::Bold));
    p.drawText(rect(), Qt::AlignCenter, QString::number(m_number));
  }

private:
  int m_number;
  bool m_spoils;
};

/// A text button that shortens its text instead of widening the list; the tool tip has the whole of
/// it.
class ElidedButton : public QPushButton {
public:
  ElidedButton(const QString& text, QWidget* parent) : QPushButton(parent), m_text(text) {
    setToolTip(text);
    setFont(Look::font(13, QFont::Bold));
    setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  }

protected:
  void resizeEvent(QResizeEvent*) override {
    setText(fontMetrics().elidedText(m_text, Qt::ElideRight, width() - 2));
  }

private:
  QString m_text;
};

} // namespace

FindingsPanel::FindingsPanel(Document* document, Analyst* analyst, QWidget* parent)
    : QWidget(parent), m_document(document), m_analyst(analyst) {
  setAccessibleName(tr("Findings"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  auto* head = new QHBoxLayout;
  m_verdict = new QLabel(this);
  m_verdict->setObjectName(QStringLiteral("heading"));
  m_verdict->setAccessibleName(tr("Verdict"));
  m_mendAll = new QPushButton(tr("Mend all"), this);
  m_mendAll->setToolTip(tr("Applies every proposed change, one undoable step"));
  connect(m_mendAll, &QPushButton::clicked, this, [this] {
    if (m_analyst->mending())
      m_analyst->cancel();
    else
      m_analyst->mendAll(m_document->committed());
  });
  connect(analyst, &Analyst::mended, this, [this](const std::shared_ptr<const Design>& design) {
    if (auto done = m_document->apply(*design, tr("mend all")); !done)
      emit refused(said(done.error(), m_document->design().settings.unit));
  });
  head->addWidget(m_verdict);
  auto* before = new QLabel(tr("before this stroke"), this);
  before->setObjectName(QStringLiteral("soft"));
  before->hide();
  connect(document, &Document::designChanged, before,
          [before, document] { before->setVisible(document->previewing()); });
  head->addWidget(before);
  head->addStretch();
  head->addWidget(m_mendAll);
  column->addLayout(head);
  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll->setAccessibleName(tr("List of findings"));
  m_content = new QWidget(scroll);
  m_list = new QVBoxLayout(m_content);
  m_list->setContentsMargins(0, 0, 8, 0);
  m_list->setSpacing(8);
  scroll->setWidget(m_content);
  column->addWidget(scroll, 1);
  connect(analyst, &Analyst::changed, this, &FindingsPanel::rebuild);
  connect(analyst, &Analyst::advanced, this, [this] {
    if (m_analyst->mending() || !m_analyst->current()) showWorking();
  });
  m_more.setInterval(0);
  connect(&m_more, &QTimer::timeout, this, &FindingsPanel::addRows);
  rebuild();
}

void FindingsPanel::clearRows() {
  m_more.stop();
  m_rows.clear();
  while (QLayoutItem* item = m_list->takeAt(0)) {
    if (item->widget()) {
      item->widget()->hide();
      item->widget()->deleteLater();
    }
    delete item;
  }
}

void FindingsPanel::rebuild() {
  const auto analysis = m_analyst->current();
  m_mendAll->setVisible(false);
  if (!analysis) {
    clearRows();
    m_shownOf.reset();
    if (m_analyst->busy())
      showWorking();
    else
      m_verdict->setText(tr("Not checked"));
    return;
  }
  showVerdict(*analysis);
  if (m_shownOf != analysis->motion) {
    clearRows();
    m_shownOf = analysis->motion;
    addRows();
    return;
  }
  // The same findings as before: only their mends can be new.
  for (std::size_t k = 0; k < m_rows.size(); ++k)
    showMend(m_rows[k], analysis->findings[k], k, analysis->design);
}

/// In place of the verdict while there is none, or while it is about to change.
void FindingsPanel::showWorking() {
  const bool mending = m_analyst->mending();
  QString text = mending ? tr("Mending …") : tr("Checking …");
  if (m_analyst->all() > 0)
    text = (mending ? tr("Mending … %1 of %2") : tr("Checking … %1 of %2"))
               .arg(m_analyst->done())
               .arg(m_analyst->all());
  m_verdict->setText(text);
}

void FindingsPanel::changeEvent(QEvent* event) {
  QWidget::changeEvent(event);
  const auto analysis = m_analyst->current();
  // Its own colour is a change of style too: the palette changes only with the bench.
  if (event->type() == QEvent::PaletteChange && analysis) showVerdict(*analysis);
}

void FindingsPanel::showVerdict(const Analysis& analysis) {
  const Theme& theme = Look::theme();
  const auto spoiling = std::ranges::count(analysis.findings, Severity::Spoils, &Finding::severity);
  const auto pieces = analysis.findings.size();
  QString text;
  QColor colour;
  switch (analysis.verdict) {
  case Verdict::Good:
    text = tr("✓  Good: opens, clears and shuts flat"), colour = theme.fine;
    break;
  case Verdict::Advice:
    text = pieces == 1
               ? tr("✓  Works, with one piece of advice")
               : tr("✓  Works, with %n pieces of advice", nullptr, static_cast<int>(pieces));
    colour = theme.advice;
    break;
  case Verdict::Spoiled:
    text = spoiling == 1 ? tr("◆  One finding spoils the card")
                         : tr("◆  %n findings spoil the card", nullptr, static_cast<int>(spoiling));
    colour = theme.trouble;
    break;
  }
  const bool mending = m_analyst->mending();
  if (mending)
    showWorking();
  else
    m_verdict->setText(text);
  m_verdict->setStyleSheet(QStringLiteral("color: %1").arg(colour.name()));
  m_mendAll->setText(mending ? tr("Cancel") : tr("Mend all"));
  m_mendAll->setVisible(mending || std::ranges::any_of(analysis.findings, [](const Finding& f) {
                          return f.severity == Severity::Spoils && f.mend;
                        }));
}

void FindingsPanel::addRows() {
  const auto analysis = m_analyst->current();
  if (!analysis || analysis->motion != m_shownOf) return m_more.stop();
  const std::size_t count = analysis->findings.size();
  for (int k = 0; k < kRowsAtOnce && m_rows.size() < count; ++k)
    addRow(*analysis, m_rows.size());
  if (m_rows.size() < count) return m_more.start();
  m_more.stop();
  if (count == 0) addFacts(*analysis);
  m_list->addStretch();
}

void FindingsPanel::addRow(const Analysis& analysis, std::size_t k) {
  const Finding& finding = analysis.findings[k];
  auto* row = new QWidget(m_content);
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(10);
  const bool spoils = finding.severity == Severity::Spoils;
  line->addWidget(new BadgeLabel(static_cast<int>(k) + 1, spoils, row), 0, Qt::AlignTop);
  auto* texts = new QVBoxLayout;
  texts->setSpacing(1);
  QString said = asQt(describe(finding, analysis.design));
  if (finding.goesWith) said = tr("With %1: %2").arg(*finding.goesWith + 1).arg(said);
  auto* sentence = new QLabel(said + QLatin1Char('.'), row);
  sentence->setWordWrap(true);
  sentence->setAccessibleName(tr("Finding %1").arg(k + 1));
  texts->addWidget(sentence);
  QWidget* mend = mendOf(finding, k, analysis.design);
  texts->addWidget(mend);
  line->addLayout(texts, 1);
  auto* show = new QPushButton(tr("Show me"), row);
  show->setAccessibleName(tr("Show finding %1").arg(k + 1));
  connect(show, &QPushButton::clicked, this,
          [this, k] { emit showRequested(static_cast<int>(k)); });
  line->addWidget(show, 0, Qt::AlignTop);
  m_list->addWidget(row);
  m_rows.push_back({texts, mend, finding.mendSought, finding.otherMends.size()});
}

QWidget* FindingsPanel::mendOf(const Finding& finding, std::size_t k, const Design& design) {
  if (!finding.mend) {
    const bool looking = !finding.mendSought && m_analyst->searchingMends();
    const QString text = looking              ? tr("Looking for a mend …")
                         : finding.mendSought ? tr("No change of one size mends this")
                                              : tr("Not looked for a mend");
    auto* none = new QLabel(text, m_content);
    none->setObjectName(QStringLiteral("soft"));
    return none;
  }
  QPushButton* first = mendButton(*finding.mend, tr("Mend: %1"), k, design);
  first->setAccessibleName(tr("Mend finding %1").arg(k + 1));
  if (finding.otherMends.empty()) return first;
  auto* all = new QWidget(m_content);
  auto* column = new QVBoxLayout(all);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(1);
  column->addWidget(first);
  for (const Mend& other : finding.otherMends) {
    QPushButton* button = mendButton(other, tr("or: %1"), k, design);
    button->setAccessibleName(tr("Mend finding %1 another way").arg(k + 1));
    column->addWidget(button);
  }
  return all;
}

QPushButton* FindingsPanel::mendButton(const Mend& change, const QString& how, std::size_t k,
                                       const Design& design) {
  auto* mend = new ElidedButton(how.arg(asQt(describe(change, design))), m_content);
  mend->setObjectName(QStringLiteral("mend"));
  mend->setProperty("finding", static_cast<int>(k));
  mend->setCursor(Qt::PointingHandCursor);
  connect(mend, &QPushButton::clicked, this, [this, edits = change] {
    const auto next = applyMend(m_document->committed(), edits);
    Result<void> done;
    if (!next)
      done = next.error();
    else
      done = m_document->apply(*next, tr("mend"));
    if (!done) emit refused(said(done.error(), m_document->design().settings.unit));
  });
  return mend;
}

void FindingsPanel::showMend(Row& row, const Finding& finding, std::size_t k,
                             const Design& design) {
  if (row.sought && row.others == finding.otherMends.size()) return;
  row.sought = finding.mendSought, row.others = finding.otherMends.size();
  QWidget* mend = mendOf(finding, k, design);
  row.texts->replaceWidget(row.mend, mend);
  row.mend->hide();
  row.mend->deleteLater();
  mend->show();
  row.mend = mend;
}

namespace {

/// How the shut card measures.
QString shutFacts(const Analysis& analysis) {
  if (!analysis.motion->shuts())
    return FindingsPanel::tr("The card is not used shut: what it measures when shut is not known.");
  const ShutState& shut = *analysis.shut;
  const LengthUnit unit = analysis.design.settings.unit;
  const auto length = [&](double mm, LengthUnit in) {
    return QString::fromStdString(sayLength(mm, in));
  };
  const auto thin = [&](double mm) { return QString::fromStdString(sayThickness(mm, unit)); };
  QString text = FindingsPanel::tr(
                     "Shut: %1 × %2, %3 thick where most paper lies (%4 sheets). Nothing is left "
                     "loose: the opening alone decides where every panel is.")
                     .arg(QString::fromStdString(formatLength(shut.width_mm, unit, false)),
                          length(shut.height_mm, unit), thin(shut.thickness_mm))
                     .arg(shut.thickestSheets);
  const CardBase& card = analysis.design.card;
  if (std::abs(shut.width_mm - card.width_mm) > 0.05 ||
      std::abs(shut.height_mm - card.height_mm) > 0.05)
    text += QLatin1Char('\n') +
            FindingsPanel::tr("The finished size %1 × %2 is that of the page the others fold onto.")
                .arg(QString::fromStdString(formatLength(card.width_mm, unit, false)),
                     length(card.height_mm, unit));
  if (shut.gutterSheets > 0)
    text += QLatin1Char('\n') +
            FindingsPanel::tr("Sheets wrapped by the gutter: %1. Offset its fold by %2 for them.")
                .arg(shut.gutterSheets)
                .arg(thin(shut.gutterRelief_mm));
  if (shut.pads_mm > 0)
    text += QLatin1Char('\n') +
            FindingsPanel::tr(
                "Pin heads stand up: pads %1 high beside them carry what lies over the limbs.")
                .arg(thin(shut.pads_mm));
  return text;
}

} // namespace

void FindingsPanel::addFacts(const Analysis& analysis) {
  if (!analysis.shut || !analysis.stand) return;
  QString text = shutFacts(analysis);
  if (const Stand& stand = *analysis.stand; stand.reached)
    text += QLatin1Char('\n') +
            tr("Shown open at %1 it weighs %2 g and falls only when tilted by %3.")
                .arg(said(openingText(analysis.design.card, stand.opening_rad)))
                .arg(stand.weight_g, 0, 'f', 1)
                .arg(QString::fromStdString(formatAngle(std::round(degrees(stand.leastTip_rad)))));
  if (analysis.verdict == Verdict::Good)
    text += QLatin1Char('\n') +
            tr("It can be made: lay papers on it in Dress, or go on to its sheets in Cut.");
  auto* facts = new QLabel(text, m_content);
  facts->setObjectName(QStringLiteral("soft"));
  facts->setWordWrap(true);
  m_list->addWidget(facts);
}

QPushButton* FindingsPanel::mendButton(int index) const {
  for (QPushButton* button : m_content->findChildren<QPushButton*>(QStringLiteral("mend")))
    if (button->property("finding").toInt() == index && !button->isHidden() &&
        button->parentWidget()->isVisible())
      return button;
  return nullptr;
}

} // namespace hinge
