#include "app/document.h"
#include "core/io/design_json.h"
#include "core/io/text_file.h"
#include "core/structures/assemble.h"
#include <QCoreApplication>
#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QSettings>
#include <QStandardPaths>
#include <QUndoCommand>
#include <QUuid>
#include <csignal>

namespace hinge {

/// The only undo command: the whole design before and after, shared parts and all.
class DesignCommand : public QUndoCommand {
public:
  DesignCommand(Document& document, Design before, Design after, const QString& text)
      : QUndoCommand(text), m_document(document), m_before(std::move(before)), m_after(std::move(after)) {}
  void undo() override { m_document.set(m_before); }
  void redo() override { m_document.set(m_after); }

private:
  Document& m_document;
  Design m_before, m_after;
};

Document::Document(QObject* parent) : QObject(parent) {
  connect(&m_stack, &QUndoStack::cleanChanged, this, &Document::titleChanged);
  m_autosave.setSingleShot(true);
  m_autosave.setInterval(1500);
  connect(&m_autosave, &QTimer::timeout, this, &Document::autosaveNow);
}

Document::~Document() { clearRecovery(); }

void Document::set(const Design& design) {
  m_design = design;
  m_preview.reset();
  if (m_selection && !m_design.find(*m_selection)) select(std::nullopt);
  emit designChanged();
  if (m_stack.isClean()) clearRecovery();
  else m_autosave.start();
}

void Document::select(std::optional<StructureId> id) {
  if (id && !design().find(*id)) id.reset();
  if (id == m_selection) return;
  m_selection = id;
  emit selectionChanged();
}

Result<void> Document::apply(const Design& next, const QString& what) {
  if (next == m_design) {
    endPreview();
    return {};
  }
  if (auto assembled = assembleDesign(next); !assembled) {
    endPreview();
    return assembled.error();
  }
  m_stack.push(new DesignCommand(*this, m_design, next, what));
  return {};
}

Result<void> Document::preview(const Design& next) {
  if (auto assembled = assembleDesign(next); !assembled) return assembled.error();
  m_preview = next;
  emit designChanged();
  return {};
}

void Document::endPreview() {
  if (!m_preview) return;
  m_preview.reset();
  emit designChanged();
}

QString Document::name() const {
  if (!m_path.isEmpty()) return QFileInfo(m_path).completeBaseName();
  return m_design.title.empty() ? tr("New card") : QString::fromStdString(m_design.title);
}

void Document::start(const Design& design) {
  clearRecovery();
  m_stack.clear();
  m_path.clear();
  m_selection.reset();
  set(design);
  emit selectionChanged();
  emit titleChanged();
}

Result<void> Document::open(const QString& path) {
  auto loaded = loadDesign(path.toStdString());
  if (!loaded) return loaded.error();
  start(*loaded);
  m_path = QFileInfo(path).absoluteFilePath();
  emit titleChanged();
  return {};
}

Result<void> Document::saveTo(const QString& path) {
  if (auto saved = saveDesign(m_design, path.toStdString()); !saved) return saved;
  m_path = QFileInfo(path).absoluteFilePath();
  m_stack.setClean();
  clearRecovery();
  emit titleChanged();
  return {};
}

QString Document::recoveryFolder() { return QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation) + QStringLiteral("/recovery"); }

void Document::autosaveNow() {
  m_autosave.stop();
  if (m_stack.isClean()) return;
  const QString folder = recoveryFolder();
  QDir().mkpath(folder);
  // The process number in the name tells later starts whether the writer is still alive.
  if (m_recoveryFile.isEmpty())
    m_recoveryFile = QStringLiteral("%1/%2-%3.hinge").arg(folder).arg(QCoreApplication::applicationPid()).arg(QUuid::createUuid().toString(QUuid::Id128));
  // A failed safety copy must not disturb the work; the next edit tries again.
  (void)saveDesign(m_design, m_recoveryFile.toStdString()).ok();
  (void)writeFile(m_recoveryFile.toStdString() + ".path", m_path.toStdString()).ok();
}

void Document::clearRecovery() {
  m_autosave.stop();
  if (m_recoveryFile.isEmpty()) return;
  discard({m_recoveryFile, {}, {}});
  m_recoveryFile.clear();
}

QList<Document::Recovery> Document::recoveries() {
  QList<Recovery> found;
  for (const QFileInfo& info : QDir(recoveryFolder()).entryInfoList({QStringLiteral("*.hinge")}, QDir::Files, QDir::Time)) {
    const qint64 process = info.fileName().section(QLatin1Char('-'), 0, 0).toLongLong();
    const bool alive = process > 0 && (process == QCoreApplication::applicationPid() || ::kill(static_cast<pid_t>(process), 0) == 0);
    if (alive) continue;
    auto original = readFile((info.filePath() + QStringLiteral(".path")).toStdString());
    found.append({info.filePath(), original ? QString::fromStdString(*original) : QString(), info.lastModified()});
  }
  return found;
}

Result<void> Document::recover(const Recovery& recovery) {
  auto loaded = loadDesign(recovery.file.toStdString());
  if (!loaded) return loaded.error();
  // Undo leads back to what is on disk, so the recovered work counts as unsaved.
  Design before;
  if (auto original = loadDesign(recovery.originalPath.toStdString()); original) before = *original;
  start(before);
  m_path = recovery.originalPath;
  m_stack.push(new DesignCommand(*this, before, *loaded, tr("recovered work")));
  autosaveNow();
  discard(recovery);
  emit titleChanged();
  return {};
}

void Document::discard(const Recovery& recovery) {
  QFile::remove(recovery.file);
  QFile::remove(recovery.file + QStringLiteral(".path"));
}

} // namespace hinge
