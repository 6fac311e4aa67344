// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/units/length.h"

/// The one place of starting values that a user can change in the settings of a design.
namespace hinge::starting {

constexpr double kTabDepth_mm = 10.0;
constexpr double kCardThickness_mm = 0.27;
constexpr double kLeastTabDepth_mm = 6.0; ///< a shallower tab does not hold
constexpr double kLeastGlue_mm2 = 20.0;   ///< less glue than this lets go at a touch
constexpr double kTabBevel_deg = 30.0;    ///< ends of a tab lean in by this angle
constexpr double kFoldClearance_mm = 1.5; ///< glue stops this far from a fold it does not belong to
constexpr double kEdgeReserve_mm = 3.0;   ///< shut parts stay this far inside the cover
constexpr double kEnvelopeRoom_mm =
    3.0; ///< an envelope is this much larger than the card all round
constexpr double kStandingTilt_deg = 5.0; ///< a display must survive this tilt in every direction
constexpr double kDisplay_deg = 90.0;     ///< opening at which a card is shown
constexpr double kMostStretch = 2.5;      ///< a band may be drawn to this many times its length
constexpr double kSlidePlay_mm = 0.5;     ///< room beside what slides, for hand accuracy
constexpr double kPinPlay_mm = 0.2;       ///< a hole is as much larger than the pin in it
constexpr double kMostPinPlay_mm = 5.0;
constexpr double kPinHead_mm = 1.2; ///< head of a paper pin over the limb it holds, pressed flat
constexpr double kClosureLimit_mm =
    0.3; ///< folds and glue give as much where a loop does not close
constexpr double kMostClosureLimit_mm = 3.0;
constexpr double kStrapOverlap_mm = 8.0; ///< a strap is glued to itself over this length
constexpr double kMatBorder_mm = 3.0;    ///< of a layer round what lies below it
constexpr double kNarrowPanel_mm = 25.0; ///< panels narrower than this have half the border
constexpr double kNarrowNeck_mm = 4.0;   ///< paper narrower than this tears

// The same for cards in inches, on numbers that an inch ruler has.
constexpr double kTabDepthInch_mm = kMillimetresPerInch / 2;
constexpr double kFoldClearanceInch_mm = kMillimetresPerInch / 16;
constexpr double kEdgeReserveInch_mm = kMillimetresPerInch / 8;
constexpr double kMatBorderInch_mm = kMillimetresPerInch / 8;

// Smallest and largest finished card; a page under 20 mm carries no tab, over 1 m is no card.
constexpr double kLeastCard_mm = 20.0;
constexpr double kLargestCard_mm = 1000.0;

} // namespace hinge::starting
