// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QPointF>
#include <QSizeF>
#include <deque>
#include <optional>
#include <string>
#include <vector>

namespace hinge {

/// What the simulated machine can be told to do wrong. Ways are of the raised and the lowered tool
/// together.
struct CutterFaults {
  std::optional<double> jamAfter_mm, outAfter_mm, loseLineAfter_mm;
  QPointF scale{1, 1}, offset_mm{0, 0}; ///< of everything it does
};

/// A line that a tool has left in the sheet, in mm from its lower left corner.
struct CutterTrack {
  int tool = 0; ///< 1 scores, 2 cuts
  std::vector<QPointF> points;
};

/// A small flat-bed cutter with two tools that understands a part of HPGL: IN, SP, PU, PD, PA, VS,
/// FS, OA, OE, OS, and ESC . K. Tool 2 is a knife whose tip trails behind the axis of its holder,
/// and turns as it is drawn. It knows nothing of the program that sends: what it leaves on the
/// sheet follows from what arrives and from how a trailing tip moves. No clock and no line of its
/// own: time and text are given to it.
class DragCutter {
public:
  DragCutter(const QSizeF& sheet_mm, double blade_mm, const CutterFaults& faults);

  void take(std::string_view text); ///< that has arrived
  void advance(double seconds);
  std::string takeAnswers();
  bool idle() const { return m_todo.empty(); }
  /// The line has gone by itself, as it was told to; whoever holds the line asks and closes it.
  bool takeLoss();
  void lineCut(); ///< half an instruction does not wait for its end

  enum class State { Ready, Jammed, NoPaper };
  State state() const { return m_state; }
  void jam() { m_state = State::Jammed; }
  void runOut() { m_state = State::NoPaper; }
  void clear() { m_state = State::Ready; } ///< a hand has seen to it

  const std::vector<CutterTrack>& tracks() const { return m_tracks; }
  QSizeF sheet() const { return m_sheet; }
  QPointF axis() const { return real(m_at); } ///< of the holder over the sheet (mm)
  bool lowered() const { return m_lowered; }

  /// What has happened since the last call, a line that restore() understands; empty: nothing.
  std::string takeRecord();
  /// Goes on with the sheet of an earlier run: its record, lines that were begun and not ended are
  /// left out.
  void restore(const std::string& record);

private:
  struct Instruction {
    std::string name;
    std::vector<double> numbers;
  };
  void takeByte(char c);
  void finishInstruction();
  void begin(const Instruction& instruction);
  bool move(const QPointF& to, double& seconds); ///< true when it is there
  void drag(const QPointF& from, const QPointF& to);
  void leave(const QPointF& tip);
  double offsetOf(int tool) const { return tool == 2 ? m_blade : 0; }
  QPointF real(const QPointF& units) const;
  void lower();

  QSizeF m_sheet;
  double m_blade;
  CutterFaults m_faults;
  State m_state = State::Ready;
  std::string m_half;   ///< an instruction that is not whole yet
  std::string m_escape; ///< likewise
  std::deque<Instruction> m_todo;
  std::string m_answers, m_record;
  QPointF m_at{0, 0};      ///< of the axis, in units of 1/40 mm as it is told
  QPointF m_heading{1, 0}; ///< of the blade
  QPointF m_tip{0, 0};     ///< mm, while lowered
  bool m_lowered = false, m_began = false;
  int m_tool = 1, m_error = 0;
  double m_speed_mms = 200, m_way_mm = 0;
  bool m_lost = false;
  std::vector<CutterTrack> m_tracks;
};

} // namespace hinge
