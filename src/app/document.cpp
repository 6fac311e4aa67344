// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/document.h"
#include "app/saying.h"
#include "core/edits/settling.h"
#include "core/io/design_json.h"
#include "core/io/file_lock.h"
#include "core/io/text_file.h"
#include <QCryptographicHash>
#include <QFile>
#include <QFileInfo>
#include <QSignalBlocker>
#include <QUndoCommand>
#include <algorithm>
#include <utility>

namespace hinge {
namespace {

QByteArray digestOf(const QByteArray& content) {
  return QCryptographicHash::hash(content, QCryptographicHash::Sha256);
}
/// Of a file as it is on the disk; of one that cannot be read, nothing.
QByteArray digestOfFile(const QString& path) {
  QFile file(path);
  return file.open(QIODevice::ReadOnly) ? digestOf(file.readAll()) : QByteArray();
}

} // namespace

/// The only undo command: the whole design before and after. Snapshots are not kept: they would
/// hold every motion of a long session.
class DesignCommand : public QUndoCommand {
public:
  DesignCommand(Document& document, Design before, std::shared_ptr<const Snapshot> after,
                const QString& text)
      : QUndoCommand(text), m_document(document), m_before(std::move(before)),
        m_after(after->design()), m_made(std::move(after)) {}
  void undo() override { m_document.set(std::make_shared<const Snapshot>(m_before)); }
  void redo() override {
    m_document.set(m_made ? std::exchange(m_made, nullptr)
                          : std::make_shared<const Snapshot>(m_after));
  }

private:
  Document& m_document;
  const Design m_before, m_after;
  std::shared_ptr<const Snapshot> m_made; ///< for the first time
};

Document::Document(QObject* parent)
    : QObject(parent), m_committed(std::make_shared<const Snapshot>(Design())) {
  connect(&m_stack, &QUndoStack::cleanChanged, this, &Document::titleChanged);
  // The index moves after the command has run: only then is it known whether the stack is clean,
  // and only then may those who hear of the change make another one (a field that commits what was
  // typed into it when it loses the focus). Within the command that would turn the order of the two
  // round.
  connect(&m_stack, &QUndoStack::indexChanged, this, [this] {
    tellOfChange();
    keepSafe();
  });
  connect(&m_watcher, &QFileSystemWatcher::fileChanged, this, &Document::titleChanged);
  m_copyTimer.setSingleShot(true);
  connect(&m_copyTimer, &QTimer::timeout, this, &Document::copyNow);
}

Document::~Document() {
  m_stack.disconnect(this); // it clears itself when it goes, and tells of it
  dropCopy();
}

void Document::set(std::shared_ptr<const Snapshot> snapshot) {
  m_committed = std::move(snapshot);
  m_preview.reset();
}

void Document::tellOfChange() {
  if (m_selection && !committed().find(*m_selection)) select(std::nullopt);
  emit designChanged();
}

void Document::select(std::optional<StructureId> id) {
  if (id && !design().find(*id)) id.reset();
  if (id == m_selection) return;
  m_selection = id;
  emit selectionChanged();
}

Result<void> Document::apply(const Design& next, const QString& what) {
  if (next == committed()) {
    endPreview();
    return {};
  }
  // What has just been shown is most often what is kept: all that is known of it goes along.
  auto made =
      m_preview && m_preview->design() == next ? m_preview : std::make_shared<const Snapshot>(next);
  if (auto possible = made->possible(); !possible) {
    endPreview();
    return possible;
  }
  if (Design settled = withPlacesSettled(made->design()); settled != made->design())
    made = std::make_shared<const Snapshot>(std::move(settled));
  m_stack.push(new DesignCommand(*this, committed(), std::move(made), what));
  return {};
}

Result<void> Document::preview(const Design& next) {
  auto made = std::make_shared<const Snapshot>(next);
  if (auto possible = made->possible(); !possible) return possible;
  m_preview = std::move(made);
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
  return committed().title.empty() ? tr("New card") : QString::fromStdString(committed().title);
}

void Document::start(const Design& design) {
  dropCopy();
  {
    const QSignalBlocker quiet(m_stack); // what it would tell of is the old design
    m_stack.clear();
  }
  setPath({}, {});
  m_selection.reset();
  set(std::make_shared<const Snapshot>(design));
  tellOfChange();
  emit selectionChanged();
  emit titleChanged();
  emit started();
}

Result<void> Document::open(const QString& path) {
  // Before it is read: what changes in between is seen when it is saved.
  const QByteArray asSaved = digestOfFile(path);
  auto loaded = loadDesign(path.toStdString());
  if (!loaded) return loaded.error();
  start(*loaded);
  setPath(path, asSaved);
  emit titleChanged();
  return {};
}

Result<void> Document::saveTo(const QString& path) {
  const FileLock hold = FileLock::of(path.toStdString());
  const std::string text = designToJson(committed());
  if (auto saved = writeFile(path.toStdString(), text); !saved) return saved;
  setPath(path, digestOf(QByteArray::fromStdString(text)));
  m_stack.setClean();
  dropCopy();
  emit titleChanged();
  return {};
}

void Document::setPath(const QString& path, const QByteArray& asSaved) {
  m_path = path.isEmpty() ? QString() : QFileInfo(path).absoluteFilePath();
  m_asSaved = asSaved;
  if (!m_watcher.files().isEmpty()) m_watcher.removePaths(m_watcher.files());
  if (!m_path.isEmpty()) m_watcher.addPath(m_path);
}

bool Document::isUnsaved() const {
  return isModified() || (!m_path.isEmpty() && !QFileInfo::exists(m_path));
}

Document::OnDisk Document::onDisk() const {
  if (m_path.isEmpty()) return OnDisk::AsItWas;
  if (!QFileInfo::exists(m_path)) return OnDisk::Gone;
  return digestOfFile(m_path) == m_asSaved ? OnDisk::AsItWas : OnDisk::Changed;
}

void Document::keepSafe() {
  if (m_stack.isClean()) return dropCopy();
  if (!m_uncopied.isValid()) m_uncopied.start();
  const int left = kLongestWithoutCopy_ms - static_cast<int>(m_uncopied.elapsed());
  m_copyTimer.start(std::clamp(left, 0, kCopyWhenQuiet_ms));
}

void Document::copyNow() {
  m_copyTimer.stop();
  if (m_stack.isClean()) return;
  if (auto written = m_copy.write(committed(), m_path); !written) {
    setCopyTrouble(said(written.error()));
    m_copyTimer.start(kLongestWithoutCopy_ms); // the disk may have room again
    return;
  }
  m_uncopied.invalidate();
  setCopyTrouble({});
}

void Document::setCopyTrouble(const QString& why) {
  if (why == m_copyTrouble) return;
  m_copyTrouble = why;
  emit copyTroubleChanged();
}

void Document::dropCopy() {
  m_copyTimer.stop();
  m_uncopied.invalidate();
  m_copy.remove();
  setCopyTrouble({});
}

Result<void> Document::recover(const SafetyCopy::Left& copy) {
  auto loaded = loadDesign(copy.file.toStdString());
  if (!loaded) return loaded.error();
  // Undo leads back to what is on disk, so the recovered work counts as unsaved.
  Design before;
  if (auto original = loadDesign(copy.originalPath.toStdString()); original) before = *original;
  start(before);
  setPath(copy.originalPath, digestOfFile(copy.originalPath));
  m_stack.push(new DesignCommand(*this, before, std::make_shared<const Snapshot>(*loaded),
                                 tr("recovered work")));
  copyNow();
  if (m_copyTrouble.isEmpty()) SafetyCopy::discard(copy);
  emit titleChanged();
  return {};
}

} // namespace hinge
