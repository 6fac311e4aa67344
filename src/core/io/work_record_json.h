// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/making/work_record.h"
#include <optional>
#include <string>

namespace hinge {

/// The record of the work beside a card's file ("card.hinge.work"); of a card that was never saved,
/// one in the maker's folder.
std::string workRecordPath(const std::string& card);

/// No file is an empty record. What cannot be read is an error with its place, and left as it is.
Result<WorkRecord> readWorkRecord(const std::string& path);

/// A record to go on with. One that is damaged is set aside, so that the work can begin anew and
/// nothing is lost: `why` says what was wrong and where it is now. Fails for one of a later
/// program, and where nothing can be moved.
struct RecordToGoOn {
  WorkRecord record;
  std::optional<Error> why;
  std::string setAsideTo; ///< empty: nothing was
};
Result<RecordToGoOn> recordToGoOn(const std::string& path);
Result<void> writeWorkRecord(const std::string& path, const WorkRecord& record);

/// The record as one bench keeps it, act by act, in a file that others write too.
class KeptRecord {
public:
  /// `asRead`: what was in the file when the work began.
  KeptRecord(std::string path, WorkRecord asRead)
      : m_path(std::move(path)), m_last(std::move(asRead)) {}

  /// Rehearsals that ended meanwhile stay in it. Fails with "record.other-bench" when another bench
  /// has written since, whose work is left as it is; else as writeMakersFile().
  Result<void> write(WorkRecord record);

private:
  std::string m_path, m_text; ///< as it was written last; empty: not by this bench
  WorkRecord m_last;
};

/// The maker's own times, for all cards, in the user's data folder.
Result<OwnTimes> makersTimes();
Result<void> keepTimes(const OwnTimes& times);

} // namespace hinge
