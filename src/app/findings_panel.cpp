#include "app/findings_panel.h"
#include "app/look.h"
#include "core/states/shut_state.h"
#include "core/states/stand.h"
#include <cmath>
#include <QHBoxLayout>
#include <QPainter>
#include <QScrollArea>

namespace hinge {
namespace {

/// The same mark as on the stage: a diamond spoils the card, a disc is advice.
class BadgeLabel : public QWidget {
public:
  BadgeLabel(int number, bool spoils, QWidget* parent) : QWidget(parent), m_number(number), m_spoils(spoils) { setFixedSize(26, 26); }

protected:
  void paintEvent(QPaintEvent*) override {
    const Theme& theme = Look::theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(m_spoils ? theme.trouble : theme.advice);
    if (m_spoils) p.drawPolygon(QPolygonF({{13, 0}, {26, 13}, {13, 26}, {0, 13}}));
    else p.drawEllipse(QPointF(13, 13), 10, 10);
    p.setPen(theme.dark ? QColor(0x1c, 0x16, 0x18) : QColor(Qt::white));
    p.setFont(Look::font(12, QFont::Bold));
    p.drawText(rect(), Qt::AlignCenter, QString::number(m_number));
  }

private:
  int m_number;
  bool m_spoils;
};

/// A text button that shortens its text instead of widening the list; the tool tip has the whole of it.
class ElidedButton : public QPushButton {
public:
  ElidedButton(const QString& text, QWidget* parent) : QPushButton(parent), m_text(text) {
    setToolTip(text);
    setFont(Look::font(13, QFont::Bold));
    setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  }

protected:
  void resizeEvent(QResizeEvent*) override { setText(fontMetrics().elidedText(m_text, Qt::ElideRight, width() - 2)); }

private:
  QString m_text;
};

} // namespace

FindingsPanel::FindingsPanel(Document* document, Analyst* analyst, QWidget* parent) : QWidget(parent), m_document(document), m_analyst(analyst) {
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
    if (m_analyst->mending()) m_analyst->cancel();
    else m_analyst->mendAll(m_document->committed());
  });
  connect(analyst, &Analyst::mended, this, [this](const std::shared_ptr<const Design>& design) {
    if (auto done = m_document->apply(*design, tr("mend all")); !done) emit refused(QString::fromStdString(done.error().text()));
  });
  head->addWidget(m_verdict);
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
  rebuild();
}

void FindingsPanel::rebuild() {
  while (QLayoutItem* item = m_list->takeAt(0)) {
    if (item->widget()) {
      item->widget()->hide();
      item->widget()->deleteLater();
    }
    delete item;
  }
  const auto analysis = m_analyst->current();
  m_mendAll->setVisible(false);
  if (!analysis) {
    m_verdict->setText(m_analyst->busy() ? tr("Checking …") : tr("Not checked"));
    return;
  }
  const Theme& theme = Look::theme();
  const auto spoiling = std::ranges::count(analysis->findings, Severity::Spoils, &Finding::severity);
  switch (analysis->verdict) {
  case Verdict::Good: m_verdict->setText(tr("✓  Good: opens, clears and shuts flat")); break;
  case Verdict::Advice: m_verdict->setText(analysis->findings.size() == 1 ? tr("✓  Works, with one piece of advice") : tr("✓  Works, with %1 pieces of advice").arg(analysis->findings.size())); break;
  case Verdict::Spoiled: m_verdict->setText(spoiling == 1 ? tr("◆  One finding spoils the card") : tr("◆  %1 findings spoil the card").arg(spoiling)); break;
  }
  m_verdict->setStyleSheet(QStringLiteral("color: %1").arg((analysis->verdict == Verdict::Spoiled ? theme.trouble : analysis->verdict == Verdict::Advice ? theme.advice : theme.fine).name()));
  m_mendAll->setText(m_analyst->mending() ? tr("Cancel") : tr("Mend all"));
  if (m_analyst->mending()) m_verdict->setText(tr("Mending …"));
  m_mendAll->setVisible(m_analyst->mending() || std::ranges::any_of(analysis->findings, [](const Finding& f) { return f.severity == Severity::Spoils && f.mend; }));
  for (std::size_t k = 0; k < analysis->findings.size(); ++k) {
    const Finding& finding = analysis->findings[k];
    auto* row = new QWidget(m_content);
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    line->setSpacing(10);
    line->addWidget(new BadgeLabel(static_cast<int>(k) + 1, finding.severity == Severity::Spoils, row), 0, Qt::AlignTop);
    auto* texts = new QVBoxLayout;
    texts->setSpacing(1);
    auto* sentence = new QLabel(QString::fromStdString(describe(finding, analysis->design)) + QLatin1Char('.'), row);
    sentence->setWordWrap(true);
    sentence->setAccessibleName(tr("Finding %1").arg(k + 1));
    texts->addWidget(sentence);
    if (finding.mend) {
      auto* mend = new ElidedButton(tr("Mend: %1").arg(QString::fromStdString(describe(*finding.mend, analysis->design))), row);
      mend->setObjectName(QStringLiteral("mend"));
      mend->setAccessibleName(tr("Mend finding %1").arg(k + 1));
      mend->setProperty("finding", static_cast<int>(k));
      mend->setCursor(Qt::PointingHandCursor);
      const Mend change = *finding.mend;
      connect(mend, &QPushButton::clicked, this, [this, change] {
        const auto next = applyMend(m_document->committed(), change);
        Result<void> done;
        if (!next) done = next.error();
        else done = m_document->apply(*next, tr("mend"));
        if (!done) emit refused(QString::fromStdString(done.error().text()));
      });
      texts->addWidget(mend);
    } else {
      auto* none = new QLabel(m_analyst->searchingMends() ? tr("Looking for a mend …") : tr("No change of one size mends this"), row);
      none->setObjectName(QStringLiteral("soft"));
      texts->addWidget(none);
    }
    line->addLayout(texts, 1);
    auto* show = new QPushButton(tr("Show me"), row);
    show->setAccessibleName(tr("Show finding %1").arg(k + 1));
    connect(show, &QPushButton::clicked, this, [this, k] { emit showRequested(static_cast<int>(k)); });
    line->addWidget(show, 0, Qt::AlignTop);
    m_list->addWidget(row);
  }
  if (analysis->findings.empty()) {
    const ShutState shut = shutState(*analysis->motion, analysis->design);
    const LengthUnit unit = analysis->design.settings.unit;
    const auto length = [&](double mm, LengthUnit in) { return QString::fromStdString(formatLength(mm, in)); };
    QString text = tr("Shut: %1 × %2, %3 thick where most paper lies (%4 sheets). Nothing is left loose: the opening alone decides where every panel is.")
                       .arg(QString::fromStdString(formatLength(shut.width_mm, unit, false)), length(shut.height_mm, unit), length(shut.thickness_mm, LengthUnit::Millimetre))
                       .arg(shut.thickestSheets);
    if (shut.gutterSheets > 0)
      text += QLatin1Char('\n') + tr("Sheets wrapped by the gutter: %1. Offset its fold by %2 for them.").arg(shut.gutterSheets).arg(length(shut.gutterRelief_mm, LengthUnit::Millimetre));
    if (shut.pads_mm > 0) text += QLatin1Char('\n') + tr("Pin heads stand up: pads %1 high beside them carry what lies over the limbs.").arg(length(shut.pads_mm, LengthUnit::Millimetre));
    if (const Stand stand = standOf(*analysis->motion, analysis->design); stand.reached)
      text += QLatin1Char('\n') + tr("Shown open at %1 it weighs %2 g and falls only when tilted by %3.")
                                      .arg(QString::fromStdString(openingText(analysis->design.card, stand.opening_rad)))
                                      .arg(stand.weight_g, 0, 'f', 1)
                                      .arg(QString::fromStdString(formatAngle(std::round(degrees(stand.leastTip_rad)))));
    auto* facts = new QLabel(text, m_content);
    facts->setObjectName(QStringLiteral("soft"));
    facts->setWordWrap(true);
    m_list->addWidget(facts);
  }
  m_list->addStretch();
}

QPushButton* FindingsPanel::mendButton(int index) const {
  for (QPushButton* button : m_content->findChildren<QPushButton*>(QStringLiteral("mend")))
    if (button->property("finding").toInt() == index && !button->isHidden() && button->parentWidget()->isVisible()) return button;
  return nullptr;
}

} // namespace hinge
