// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/safety_copy.h"
#include "core/base/result.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/edits.h"
#include "core/model/snapshot.h"
#endif
#include <QElapsedTimer>
#include <QFileSystemWatcher>
#include <QObject>
#include <QString>
#include <QTimer>
#include <QUndoStack>
#include <optional>

namespace hinge {

/// The open design with its undo stack and file. Edits go through apply(); a drag shows itself with
/// preview() and is pushed once with apply() or dropped with endPreview().
class Document : public QObject {
  Q_OBJECT
public:
  explicit Document(QObject* parent = nullptr);
  ~Document() override;

  /// What is shown, previews included, with all that follows from it.
  std::shared_ptr<const Snapshot> snapshot() const { return m_preview ? m_preview : m_committed; }
  std::shared_ptr<const Snapshot> committedSnapshot() const { return m_committed; }
  const Design& design() const { return snapshot()->design(); }
  const Design& committed() const { return m_committed->design(); }
  bool previewing() const { return m_preview != nullptr; }
  QUndoStack& undoStack() { return m_stack; }
  std::optional<StructureId> selection() const { return m_selection; }
  void select(std::optional<StructureId> id);

  /// One undoable step. Refused, with the reason, when the design cannot be assembled.
  Result<void> apply(const Design& next, const QString& what);
  Result<void> preview(const Design& next);
  void endPreview();

  QString path() const { return m_path; }
  QString name() const; ///< what the title shows
  bool isModified() const { return !m_stack.isClean(); }
  void start(const Design& design);       ///< a new, unsaved document
  Result<void> open(const QString& path); ///< leaves the open document alone when it fails
  Result<void> saveTo(const QString& path);
  /// What has become of its file since it was opened or saved.
  enum class OnDisk { AsItWas, Changed, Gone };
  OnDisk onDisk() const;
  /// Whether something would be lost with the window: steps not saved, or all of it when its file
  /// has been taken away.
  bool isUnsaved() const;

  // --- the safety copy -----------------------------------------------------------------------
  /// Unsaved work is on disk this long after the last edit, and never later than the second one
  /// after the first edit that is not there yet.
  static constexpr int kCopyWhenQuiet_ms = 1500, kLongestWithoutCopy_ms = 5000;
  /// Takes over a copy that a program left behind; the copy goes only when this one has its own.
  Result<void> recover(const SafetyCopy::Left& copy);
  void copyNow();
  /// Why the last safety copy could not be written; empty when all is well.
  QString copyTrouble() const { return m_copyTrouble; }

signals:
  void started();       ///< another card: what was said or chosen on the last one is over
  void designChanged(); ///< also for previews
  void selectionChanged();
  void titleChanged();
  void copyTroubleChanged();

private:
  friend class DesignCommand;
  void set(std::shared_ptr<const Snapshot> snapshot);
  void tellOfChange();
  void keepSafe(); ///< after every step of the undo stack
  void dropCopy();
  void setCopyTrouble(const QString& why);
  void setPath(const QString& path, const QByteArray& asSaved);

  std::shared_ptr<const Snapshot> m_committed, m_preview; ///< m_preview: null when there is none
  std::optional<StructureId> m_selection;
  QUndoStack m_stack;
  QString m_path, m_copyTrouble;
  QByteArray m_asSaved; ///< digest of its file as this document knows it
  QFileSystemWatcher m_watcher;
  SafetyCopy m_copy;
  QTimer m_copyTimer;
  QElapsedTimer m_uncopied; ///< since the first edit that no copy has yet
};

} // namespace hinge
