// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/sentences.h"

// Rules of placement: what they are called, and why they cannot hold.

namespace hinge {

namespace {

constexpr Sentence kRulesSaid[] = {
    {"rule.side/left", QT_TRANSLATE_NOOP("words", "left")},
    {"rule.side/right", QT_TRANSLATE_NOOP("words", "right")},
    {"rule.side/bottom", QT_TRANSLATE_NOOP("words", "bottom")},
    {"rule.side/top", QT_TRANSLATE_NOOP("words", "top")},
    {"rule.edge", QT_TRANSLATE_NOOP("words", "the %1 edge")},
    {"rule.fold", QT_TRANSLATE_NOOP("words", "the fold")},
    {"rule.fold/named", QT_TRANSLATE_NOOP("words", "the fold %1")},
    {"rule.own/side", QT_TRANSLATE_NOOP("words", "%1 edge")},
    {"rule.own/at", QT_TRANSLATE_NOOP("words", "edge at %1, %2")},
    {"rule.own/point", QT_TRANSLATE_NOOP("words", "point")},
    {"rule.on", QT_TRANSLATE_NOOP("words", "%1 on %2")},
    {"rule.from", QT_TRANSLATE_NOOP("words", "%1 %2 from %3")},
    {"rule.past", QT_TRANSLATE_NOOP("words", "%1 %2 past %3")},
    {"rule.up-to-line", QT_TRANSLATE_NOOP("words", "%1 up to %2")},
    {"rule.up-to", QT_TRANSLATE_NOOP("words", "%1 up to %2 from %3")},
    {"rule.centred", QT_TRANSLATE_NOOP("words", "centred on %1")},
    {"rule.spaced", QT_TRANSLATE_NOOP("words", "%1 of %2, equally spaced on %3")},
    {"rule.level/said", QT_TRANSLATE_NOOP("words", "level with the other end")},
    {"rule.mirrored/said", QT_TRANSLATE_NOOP("words", "mirrored from the other side")},
    {"rule.both", QT_TRANSLATE_NOOP("words", "\"%1\" and \"%2\" cannot both hold")},
    {"rule.both/turned",
     QT_TRANSLATE_NOOP("words", "\"%1\" and \"%2\" cannot both hold: by the first the paper lies "
                                "the other way round. Name its opposite edge in the second, or "
                                "join it by its other side")},
    {"rule.no-side", QT_TRANSLATE_NOOP("words", "%1 has no straight edge on its %2 side")},
    {"rule.no-fold", QT_TRANSLATE_NOOP("words", "%1 has no fold \"%2\"; its folds are %3")},
    {"rule.no-fold/none", QT_TRANSLATE_NOOP("words", "%1 has no fold")},
    {"rule.which-fold", QT_TRANSLATE_NOOP("words", "%1 has several folds, say which: %2")},
    {"rule.own-line",
     QT_TRANSLATE_NOOP("words", "\"%1\": only glue, pins and slides lie by their edges; say "
                                "\"point\" in place of the edge")},
    {"rule.no-room",
     QT_TRANSLATE_NOOP("words", "%1 pieces of %2 each do not fit beside one another on %3")},
    {"rule.no-joint",
     QT_TRANSLATE_NOOP("words", "the rule goes by another joint, but the piece has none there")},
    {"rule.later",
     QT_TRANSLATE_NOOP("words", "the rule goes by a joint that is made after it: make that first")},
    {"rule.level",
     QT_TRANSLATE_NOOP("words", "\"level with\" needs two faces of one sheet with parallel folds "
                                "between them")},
    {"rule.mirrored",
     QT_TRANSLATE_NOOP("words", "\"mirrored from\" needs two faces on both sides of one fold")},
    {"rule.mirrored-side",
     QT_TRANSLATE_NOOP("words", "the joint it is mirrored from takes the glue on the other side of "
                                "the piece: say \"by face\" at both or at none")},
    {"work.rule", QT_TRANSLATE_NOOP("words", "a rule of placement has a number no paper can have")},
    {"work.rules", QT_TRANSLATE_NOOP("words", "more than %1 rules for one joint")},
};

} // namespace

std::span<const Sentence> Words::rules() {
  return kRulesSaid;
}

} // namespace hinge
