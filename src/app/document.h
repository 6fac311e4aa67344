#pragma once
#include "core/base/result.h"
#include "core/design/design.h"
#include <QDateTime>
#include <QObject>
#include <QString>
#include <QTimer>
#include <QUndoStack>
#include <optional>

namespace hinge {

/// The open design with its undo stack and file. Edits go through apply(); a drag shows itself with preview() and is
/// pushed once with apply() or dropped with endPreview().
class Document : public QObject {
  Q_OBJECT
public:
  explicit Document(QObject* parent = nullptr);
  ~Document() override;

  const Design& design() const { return m_preview ? *m_preview : m_design; }
  const Design& committed() const { return m_design; }
  bool previewing() const { return m_preview.has_value(); }
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
  void start(const Design& design);          ///< a new, unsaved document
  Result<void> open(const QString& path);    ///< leaves the open document alone when it fails
  Result<void> saveTo(const QString& path);

  // --- recovery after a crash ----------------------------------------------------------------------------------------
  struct Recovery {
    QString file, originalPath;
    QDateTime saved;
  };
  /// Files left by a program that ended without closing its document.
  static QList<Recovery> recoveries();
  Result<void> recover(const Recovery& recovery);
  static void discard(const Recovery& recovery);
  void autosaveNow();
  static QString recoveryFolder();

signals:
  void designChanged();    ///< also for previews
  void selectionChanged();
  void titleChanged();

private:
  friend class DesignCommand;
  void set(const Design& design);
  void clearRecovery();

  Design m_design;
  std::optional<Design> m_preview;
  std::optional<StructureId> m_selection;
  QUndoStack m_stack;
  QString m_path, m_recoveryFile;
  QTimer m_autosave;
};

} // namespace hinge
