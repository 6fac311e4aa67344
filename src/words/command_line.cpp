// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/sentences.h"

// What the command line says: its help, and the lines around what it lists.

namespace hinge {

namespace {

constexpr Sentence kCommandLineSaid[] = {
    {"help.write-here-instead-of-changing",
     QT_TRANSLATE_NOOP("words", "write here instead of changing the file")},
    {"help.papers", QT_TRANSLATE_NOOP("words", "the papers in the card's drawer, with a star what "
                                               "it is made of; put some in or take them out")},
    {"help.papers-all", QT_TRANSLATE_NOOP("words", "list the papers that everybody has instead")},
    {"help.papers-put",
     QT_TRANSLATE_NOOP("words", "a paper that everybody has, or one of your own: \"KEY: thick 0.2, "
                                "weight 160, face #2f6d86, back #2f6d86, print dots every 8 share "
                                "0.4 #f2b134, way both, sheets 210 x 297 5, called Name\"")},
    {"help.papers-picture",
     QT_TRANSLATE_NOOP("words", "a PNG or JPEG that is printed on the papers put in")},
    {"help.papers-wide", QT_TRANSLATE_NOOP("words", "how wide that picture is on paper (100 mm)")},
    {"help.papers-mine",
     QT_TRANSLATE_NOOP("words", "list your own drawer, which is there for all cards, instead")},
    {"help.papers-keep", QT_TRANSLATE_NOOP("words", "keep papers of this card in your own drawer")},
    {"help.papers-forget", QT_TRANSLATE_NOOP("words", "take papers out of your own drawer")},
    {"help.papers-take-out", QT_TRANSLATE_NOOP("words", "take papers out that nothing is made of")},
    {"help.faces",
     QT_TRANSLATE_NOOP("words",
                       "list the faces that can be dressed, and how much of each is seen")},
    {"help.dress",
     QT_TRANSLATE_NOOP("words", "lay papers on faces; without faces or papers, list the rules")},
    {"help.dress-faces", QT_TRANSLATE_NOOP("words", "faces, see faces")},
    {"help.dress-papers", QT_TRANSLATE_NOOP("words", "papers, the lowest layer first")},
    {"help.dress-border",
     QT_TRANSLATE_NOOP("words", "border of each layer: one number, or four for foot, right, top "
                                "and left (3,0,3,3); left out: the usual one")},
    {"help.dress-for",
     QT_TRANSLATE_NOOP("words", "face: only that face, twins: its twin too, part: all that do the "
                                "same work in its structure, alike: all of the same outline")},
    {"help.dress-at-glue",
     QT_TRANSLATE_NOOP("words", "where other pieces are glued on: under them (they are glued onto "
                                "the layers), over their tabs, or around these")},
    {"help.dress-turn",
     QT_TRANSLATE_NOOP("words",
                       "of a pattern: upright on display (the usual), along-fold, or degrees")},
    {"help.dress-round",
     QT_TRANSLATE_NOOP("words", "corners that stand into the paper are rounded")},
    {"help.dress-all-seen",
     QT_TRANSLATE_NOOP("words", "everything that is seen, on display or while the card opens")},
    {"help.dress-all-displayed", QT_TRANSLATE_NOOP("words", "everything that is seen on display")},
    {"help.dress-more",
     QT_TRANSLATE_NOOP("words", "on top of what is there, instead of in its place")},
    {"help.dress-bare",
     QT_TRANSLATE_NOOP("words", "nothing on these faces, whatever other rules say")},
    {"help.dress-drop", QT_TRANSLATE_NOOP("words", "take rule number N away")},
    {"help.mats",
     QT_TRANSLATE_NOOP(
         "words", "the layers to be cut: paper, size, how many, mirrored or not, for which face")},
    {"help.as-csv", QT_TRANSLATE_NOOP("words", "as lines of values between commas")},
    {"help.topper", QT_TRANSLATE_NOOP("words", "put a shape on a face, change one (its name, such "
                                               "as t1, in place of the face), or list them")},
    {"help.topper-face",
     QT_TRANSLATE_NOOP("words", "face, see faces; or the name of a topper that is there")},
    {"help.topper-shape",
     QT_TRANSLATE_NOOP("words", "shape, see --shapes; or lettering, or own with --from")},
    {"help.topper-paper", QT_TRANSLATE_NOOP("words", "its paper")},
    {"help.topper-set",
     QT_TRANSLATE_NOOP("words", "at X Y; size W x H; detail 0..1; turned DEG; mirrored; flat, pads "
                                "H or spring H; mat PAPER border B; text WORDS")},
    {"help.topper-from",
     QT_TRANSLATE_NOOP("words", "the outlines of a drawing (SVG, DXF, FOLD) as its shape")},
    {"help.topper-remove", QT_TRANSLATE_NOOP("words", "take it away")},
    {"help.topper-shapes", QT_TRANSLATE_NOOP("words", "list the shapes instead")},
    {"help.as-json", QT_TRANSLATE_NOOP("words", "as JSON")},
    {"help.list-every-base-and-structure",
     QT_TRANSLATE_NOOP("words", "list every base and structure kind with its parameters")},
    {"help.list-the-folds-on-which",
     QT_TRANSLATE_NOOP("words", "list the folds on which a structure can stand")},
    {"help.make-an-empty-card", QT_TRANSLATE_NOOP("words", "make an empty card")},
    {"help.project-file-to-write", QT_TRANSLATE_NOOP("words", "project file to write")},
    {"help.finished-shut-width", QT_TRANSLATE_NOOP("words", "finished (shut) width")},
    {"help.finished-shut-height", QT_TRANSLATE_NOOP("words", "finished (shut) height")},
    {"help.unit-told", QT_TRANSLATE_NOOP("words", "unit in which lengths are read and told (mm)")},
    {"help.unit-of-the-card", QT_TRANSLATE_NOOP("words", "unit of the card")},
    {"help.edge-with-the-fold", QT_TRANSLATE_NOOP("words", "edge with the fold")},
    {"help.kind-of-base-see-structures",
     QT_TRANSLATE_NOOP("words", "kind of base, see \"structures\"")},
    {"help.sizes-of-the-base-keyvalue",
     QT_TRANSLATE_NOOP("words", "sizes of the base, key=value ...")},
    {"help.replace-a-file-that-is", QT_TRANSLATE_NOOP("words", "replace a file that is there")},
    {"help.put-a-structure-on-a",
     QT_TRANSLATE_NOOP("words", "put a structure on a seat; prints its id")},
    {"help.structure-kind-see-structures",
     QT_TRANSLATE_NOOP("words", "structure kind, see \"structures\"")},
    {"help.seat-id-see-seats", QT_TRANSLATE_NOOP("words", "seat id, see \"seats\"")},
    {"help.keyvalue", QT_TRANSLATE_NOOP("words", "key=value ...")},
    {"help.change-parameters-of-a-structure",
     QT_TRANSLATE_NOOP("words", "change parameters of a structure")},
    {"help.structure-id-s1-s2-or",
     QT_TRANSLATE_NOOP(
         "words",
         "structure id (s1, s2, ...) for its sizes, its name and its paper, or \"card\" for its "
         "base (base=gate), the sizes of that, "
         "width, height, title, unit, stock, sheet, envelope, slice, fold, rests, display_deg, "
         "open_by_deg, works_from_deg and works_to_deg (the openings between which it is used), "
         "thickness, weight_gsm, least_tab, tab_bevel_deg, fold_clearance, edge_reserve, "
         "pin_play, closure (by how much a loop may miss closing)")},
    {"help.take-a-structure-away-with",
     QT_TRANSLATE_NOOP("words", "take a structure away with everything on it")},
    {"help.structure-id", QT_TRANSLATE_NOOP("words", "structure id")},
    {"help.describe", QT_TRANSLATE_NOOP("words", "write the card on one page, in the card's unit")},
    {"help.read-a-page",
     QT_TRANSLATE_NOOP("words", "make a card from a page as \"describe\" writes it")},
    {"help.page", QT_TRANSLATE_NOOP("words", "page to read")},
    {"help.base-as-a-sheet",
     QT_TRANSLATE_NOOP("words", "the base as a sheet in words, see \"sheet --help\"; the finished "
                                "size is then what the shut card needs unless it is given")},
    {"help.small-card",
     QT_TRANSLATE_NOOP("words",
                       "take a small card out into a file of its own, to work on it, or put "
                       "another in its place")},
    {"help.small-card-instead",
     QT_TRANSLATE_NOOP("words", "file of the card that takes its place")},
    {"help.small-card-out",
     QT_TRANSLATE_NOOP("words", "write the small card here; with --card the large one")},
    {"help.card-on-a-card",
     QT_TRANSLATE_NOOP("words", "file of a finished card that stands on this one (kinds "
                                "card-on-face and card-on-fold)")},
    {"help.piece-as-a-sheet",
     QT_TRANSLATE_NOOP("words", "a free piece in words, see \"sheet --help\"")},
    {"help.part-a-piece",
     QT_TRANSLATE_NOOP("words", "part a free piece in two along a line that runs across it")},
    {"help.line-of-it",
     QT_TRANSLATE_NOOP("words",
                       "a score by its place on the lower edge, or a line by a point x,y")},
    {"help.join-pieces",
     QT_TRANSLATE_NOOP("words", "two free pieces as one sheet, edge to edge, scored there")},
    {"help.edge-of-it", QT_TRANSLATE_NOOP("words", "its edge, by a point x,y on it")},
    {"help.other-piece", QT_TRANSLATE_NOOP("words", "the piece that grows together with it")},
    {"help.bring-paper-in",
     QT_TRANSLATE_NOOP("words", "bring paper in from a drawing (SVG, DXF, FOLD) or a list of "
                                "scores (CSV)")},
    {"help.drawing", QT_TRANSLATE_NOOP("words", "the drawing, or the list of scores")},
    {"help.import-as",
     QT_TRANSLATE_NOOP("words", "what it becomes; \"list\" only says what is in it")},
    {"help.import-into",
     QT_TRANSLATE_NOOP("words", "the sheet for openings and scores: \"card\", \"card/2\" or the id "
                                "of a free piece")},
    {"help.import-lines",
     QT_TRANSLATE_NOOP("words", "look=use ...: what lines of a layer, colour or dash are: cut, "
                                "mountain, valley, nothing")},
    {"help.import-number",
     QT_TRANSLATE_NOOP("words", "which piece of the drawing, the largest is 1")},
    {"help.import-at",
     QT_TRANSLATE_NOOP("words", "x,y: where the middle of the openings comes to lie")},
    {"cli.unused", QT_TRANSLATE_NOOP("words", "not used: %1 (%2)")},
    {"cli.drawn-piece", QT_TRANSLATE_NOOP("words", "piece %1: %2 x %3, lines: %4, openings: %5")},
    {"help.work-on-a-sheet",
     QT_TRANSLATE_NOOP("words", "work on a sheet of the base or on a free piece, in words; without "
                                "words say what is on it. Exit 1 if the card is spoiled then")},
    {"help.which-sheet",
     QT_TRANSLATE_NOOP("words", "\"card\" (\"card/2\" and so on for a base of several sheets; "
                                "the next number adds one) or the id of a free piece")},
    {"help.sentences", QT_TRANSLATE_NOOP("words", "sentences, with \";\" between them")},
    {"help.sheet-sentences",
     QT_TRANSLATE_NOOP(
         "words",
         "Places are read from the left end and the lower edge; a number without a unit is in\n"
         "the card's own. P is a point x,y; KIND is valley or mountain (v, m).\n\n"
         "  size 300 x 150                          a rectangle\n"
         "  outline SHAPE\n"
         "  score 80 v, 160 > 170 m                 from edge to edge; slanted: low > high\n"
         "  score 80 v from 20 to 60                only between these heights\n"
         "  score across 30 v                       from the left end to the right one\n"
         "  score P to P KIND                       anywhere; scores in one row fold together\n"
         "  cut P to P to P ...\n"
         "  opening SHAPE                           P to P | P P P ... | disc P across 20\n"
         "                                          | oval P 30 x 20 | rectangle P 30 x 20\n"
         "                                          | ring P from 10 to 18 towards 90 wide 120\n"
         "                                          | boat P 30 x 20 (see topper --shapes)\n"
         "                                          the middle P may be \"centred\" on the sheet,\n"
         "                                          or \"centred on P\": on what lies there\n"
         "  reverse 60 to 100 between 20 and 50     a section that folds the other way\n"
         "  tab left|right|bottom|top 12 KIND       paper added beyond an edge\n"
         "  tab at P 12 KIND [bevel 45]             beyond the edge on which P lies\n"
         "  trim top 10 [from 20] [to 80]           so much off an edge, with all that is on it\n"
         "  corners round 5 | round P by 5 | snip P by 5\n"
         "  pull corner|end|line|opening P to P     moves what is at the first point\n"
         "  pull edge P to 60                       until the paper behind it is so wide\n"
         "  kink P | smooth P                       another corner on an edge; a corner gone\n"
         "  close P                                 the opening there gone\n"
         "  lean 80 15                              a score leans by so many degrees\n"
         "  repeat 80 every 20 [times 3] [turning]  more scores like one\n"
         "  alike                                   both sides of the middle\n"
         "  turn 80 | erase 80 | move 80 to 85      a score by its place, a line by a point\n"
         "  move 80 to 85 carrying                  with all that lies beyond it\n"
         "  turn over                               glued by its other side, where it lies\n"
         "  fold 80 free | held at 90 | lifted from 180 to 60 [step 30]\n"
         "                                          | opens to 120 [between 0 and 90]\n"
         "                                          | folded 60, before it was glued\n"
         "                                          what moves it: the joints; nothing; a hand; "
         "the\n"
         "                                          card. Angles between the leaves, inner side\n"
         "  JOINT P on FACE at P | RULES [by face] [...]\n"
         "                                          FACE as in \"seats\"; JOINT is glue, slot, "
         "pivot,\n"
         "                                          slide, band or film, with its numbers: turned "
         "90,\n"
         "                                          way 90, deep 20, into 20, catch 5, least 0, "
         "most\n"
         "                                          40, pulled 40, after 90, until 180, long 60;\n"
         "                                          by hand, from where it rests: spun -30 to 45,\n"
         "                                          pushed 0 to 40, step 5; over 1: not next to "
         "the\n"
         "                                          face, but over one of the things that lie "
         "there\n"
         "                                          only P P P ...: the part that takes glue\n"
         "  RULES, parted by \"and\", hold when sizes change:\n"
         "    left edge on fold gutter              an edge of the panel on a line below\n"
         "    left edge 1/4 from fold gutter        the panel goes on from there\n"
         "    right edge up to 30 from left edge    it ends there; \"edge P\" is the edge or\n"
         "                                          score nearest to P, \"point\" the joint's\n"
         "    centred on bottom edge | spaced 1 of 3 on fold gutter\n"
         "    level with P | mirrored from P        as another joint of the piece, at P\n"
         "  loosen P                                the joints at that panel\n"
         "  glued P only P P P ... | all            the part of that panel that takes the glue\n"
         "  ground P                                the panel of the base that lies on the table")},
    {"cli.seat-face", QT_TRANSLATE_NOOP("words", "x along %1, y away from it; lines: %2")},
    {"cli.seat-fold", QT_TRANSLATE_NOOP("words", "side a: %1, side b: %2")},
    {"seat.start/fold", QT_TRANSLATE_NOOP("words", "%1")},
    {"seat.start/edge", QT_TRANSLATE_NOOP("words", "the lower edge")},
    {"cli.nearest-fit",
     QT_TRANSLATE_NOOP("words", "the nearest length that does not spoil it: %1")},
    {"cli.nearest-fit/none",
     QT_TRANSLATE_NOOP("words", "no length on the way there was found that does not spoil it")},
    {"cli.notch",
     QT_TRANSLATE_NOOP("words", "an opening reaches the edge of the paper: it is a notch there")},
    {"cli.unit", QT_TRANSLATE_NOOP("words", "lengths in %1")},
    {"help.show-or-change-the-scores",
     QT_TRANSLATE_NOOP("words",
                       "show the scores of a structure's pieces, or of the base, read from "
                       "the left end; change those of a free piece")},
    {"help.places-from-the-left-end",
     QT_TRANSLATE_NOOP("words",
                       "places from the left end with their marks, such as \"1 3/4 m, 2 1/2 "
                       "v\"; without a mark a score keeps the one it has; or \"none\"")},
    {"help.keep-places-by-rules",
     QT_TRANSLATE_NOOP("words", "place what lies on the base by rules (so far from the fold, from "
                                "the lower edge): they hold when sizes change")},
    {"help.only-this-piece", QT_TRANSLATE_NOOP("words", "only this free piece (s1, s2, ...)")},
    {"cli.kept-by-rules", QT_TRANSLATE_NOOP("words", "%1 of %2 joints are placed by rules now")},
    {"help.make-a-free-piece-lie",
     QT_TRANSLATE_NOOP("words", "make a free piece lie flat in the shut card, or even steps")},
    {"help.score-it-as-this-many",
     QT_TRANSLATE_NOOP("words", "score it as this many even steps between the two pages")},
    {"help.fold-it-as-a-strap",
     QT_TRANSLATE_NOOP(
         "words",
         "fold it as a strap round the panel it lies on, closed by an overlap of this length")},
    {"help.round",
     QT_TRANSLATE_NOOP("words", "move every free length of the card to what a hand can set, all "
                                "closures kept exactly, with the least greatest change")},
    {"help.bench", QT_TRANSLATE_NOOP("words", "show or describe the maker's bench, kept for all "
                                              "cards: trimmer, scoring board, steps, habits")},
    {"help.bench-set",
     QT_TRANSLATE_NOOP("words",
                       "key=value: trimmer, board, grid, step, thickest, offcut (lengths); of a "
                       "cutting machine blade, overcut, offset-x, offset-y (lengths), scale-x, "
                       "scale-y, speed:PAPER (cm/s); "
                       "sides=face|both, length=whole|folding, "
                       "order=score-first|cut-first, first=left|right")},
    {"help.layout",
     QT_TRANSLATE_NOOP("words",
                       "put pieces and layers on sheets: the sheets at hand of each paper, "
                       "else the sheet of the card; exit 1 when something finds no place")},
    {"help.layout-for",
     QT_TRANSLATE_NOOP("words", "trimmer: cuts from edge to edge, in order, with the stop of each; "
                                "machine: outlines nested")},
    {"help.layout-for-bench",
     QT_TRANSLATE_NOOP("words", "trimmer: cuts from edge to edge, in order, with the stop of each; "
                                "machine: outlines nested. Without it a trimmer, if the maker's "
                                "bench has been described and has one")},
    {"help.layout-cards", QT_TRANSLATE_NOOP("words", "for so many cards")},
    {"help.layout-from-stock",
     QT_TRANSLATE_NOOP("words", "only from the sheets at hand; also says how many cards they are "
                                "enough for")},
    {"help.plan",
     QT_TRANSLATE_NOOP("words",
                       "the whole work on one card, step by step: parts, adhesive, how, how long, "
                       "what to look at; exit 1 when a joint cannot be reached")},
    {"help.plan-copies",
     QT_TRANSLATE_NOOP("words",
                       "for so many cards: when the first and the last is ready, and when a "
                       "break is possible")},
    {"help.plan-card-by-card",
     QT_TRANSLATE_NOOP("words",
                       "one card after the other, not what one tool does for all of them")},
    {"help.step", QT_TRANSLATE_NOOP("words", "one step of the work, in words and as a picture")},
    {"help.step-number", QT_TRANSLATE_NOOP("words", "its number in the plan, from 1")},
    {"help.step-picture", QT_TRANSLATE_NOOP("words", "write the picture here: .png or .svg")},
    {"help.step-progress",
     QT_TRANSLATE_NOOP("words", "how far through the step the paper is, 0 to 1; as tells most")},
    {"help.booklet", QT_TRANSLATE_NOOP("words", "the work as a booklet: the card, what it takes, "
                                                "every step with its picture and a box to tick")},
    {"help.booklet-out", QT_TRANSLATE_NOOP("words", "write it here: .pdf or .html")},
    {"help.booklet-page", QT_TRANSLATE_NOOP("words", "a5, half-letter (a5)")},
    {"help.booklet-stapled",
     QT_TRANSLATE_NOOP("words", "two pages on each side of a sheet, in the order for folding and "
                                "stapling; print on both sides, turned about the short edge")},
    {"help.booklet-bare",
     QT_TRANSLATE_NOOP("words", "without the cutting sheets and tables at full size")},
    {"cli.plan-schedule",
     QT_TRANSLATE_NOOP("words",
                       "%1 cards: the first is ready after %2, all after %3; the hands are "
                       "busy for %4, tools are changed %5 times; %6 of the least there is")},
    {"cli.plan-break", QT_TRANSLATE_NOOP("words", "  a break after %1, for %2")},
    {"help.plan-closing",
     QT_TRANSLATE_NOOP("words", "shut: the last side of a structure takes adhesive and the card is "
                                "shut on it, wherever that can be; marks: laid on marked lines")},
    {"help.plan-glue", QT_TRANSLATE_NOOP("words", "of joints that lie still (wet-glue)")},
    {"help.plan-moving", QT_TRANSLATE_NOOP("words", "of what is pulled at (strong-tape)")},
    {"help.plan-drying", QT_TRANSLATE_NOOP("words", "ADHESIVE=TIME: how long it is pressed, as in "
                                                    "wet-glue=5min, solvent-glue=90s")},
    {"help.plan-layers", QT_TRANSLATE_NOOP("words", "of layers (glue-stick)")},
    {"cli.plan-sum",
     QT_TRANSLATE_NOOP("words", "%1 steps, %2 for the hands, glue on %3, %4 of tape")},
    {"help.splice",
     QT_TRANSLATE_NOOP("words",
                       "part what is longer than every sheet of its paper: where, with which tab, "
                       "and which larger sheet would spare it; --on puts a splice yourself")},
    {"help.splice-on", QT_TRANSLATE_NOOP("words", "the panel that is cut through")},
    {"help.splice-from",
     QT_TRANSLATE_NOOP("words", "the cut, from the panel's left border in its flat piece")},
    {"help.splice-level", QT_TRANSLATE_NOOP("words", "a level cut, from the lower border")},
    {"help.splice-overlap", QT_TRANSLATE_NOOP("words", "of the tab that holds the parts (12 mm)")},
    {"help.splice-on-face",
     QT_TRANSLATE_NOOP("words", "the tab lies on the face of the other part, not behind it")},
    {"help.splice-remove", QT_TRANSLATE_NOOP("words", "in one piece again: number of the splice")},
    {"help.splice-apply", QT_TRANSLATE_NOOP("words", "part all pieces as proposed")},
    {"help.cut", QT_TRANSLATE_NOOP(
                     "words", "send one sheet of the layout to a cutting machine (HPGL), stroke by "
                              "stroke; without --to say how long it takes")},
    {"help.cut-sheet", QT_TRANSLATE_NOOP("words", "number of the sheet (1)")},
    {"help.cut-to",
     QT_TRANSLATE_NOOP("words", "the machine: a local socket or a serial terminal; see "
                                "hinge-lantern-cutter for a simulated one")},
    {"help.cut-resume",
     QT_TRANSLATE_NOOP("words", "go on with the job that was broken off, where the tool stands")},
    {"help.cut-again", QT_TRANSLATE_NOOP("words", "begin on a new sheet, whatever was broken off")},
    {"help.cut-squares",
     QT_TRANSLATE_NOOP("words", "cut two squares of the sheet of the card instead, to measure")},
    {"help.cut-measured",
     QT_TRANSLATE_NOOP("words",
                       "what the squares measure: from the sheet's left and from its lower edge to "
                       "the first, from there to the second, across and up; kept on the bench")},
    {"help.layout-margin", QT_TRANSLATE_NOOP("words", "of a sheet that is not cut from")},
    {"help.layout-gap", QT_TRANSLATE_NOOP("words", "between parts")},
    {"help.export-prints",
     QT_TRANSLATE_NOOP("words", "pdf: the papers are printed too, 3 mm past the cuts")},
    {"help.export-lines",
     QT_TRANSLATE_NOOP("words", "with --prints: over the print (as usual), or under it with marks "
                                "beside it, so that no line stays on the card")},
    {"help.export-backs",
     QT_TRANSLATE_NOOP("words", "pdf: after each sheet its back, mirrored, to print both sides")},
    {"help.export-page",
     QT_TRANSLATE_NOOP("words", "pdf: the printer's page, on which larger sheets are tiled")},
    {"help.export-only", QT_TRANSLATE_NOOP("words", "pdf: sheets or tables alone")},
    {"help.export-sheet",
     QT_TRANSLATE_NOOP("words",
                       "svg, dxf and hpgl: only this sheet of the layout, a layer for each tool, "
                       "inside before outside")},
    {"help.scores-table",
     QT_TRANSLATE_NOOP("words", "score and cut tables: where each line of each distinct piece is "
                                "set, from both edges and from the line before")},
    {"help.scores-table-fit",
     QT_TRANSLATE_NOOP("words", "beside the numbers those for a sheet of this flat length (see "
                                "fit): what was locked, what was free")},
    {"help.scores-table-piece", QT_TRANSLATE_NOOP("words", "only the piece with this letter")},
    {"help.scores-table-set",
     QT_TRANSLATE_NOOP("words", "the bench otherwise than it is kept, this once; see bench")},
    {"help.as-text", QT_TRANSLATE_NOOP("words", "as plain text, which it is anyway")},
    {"help.round-to",
     QT_TRANSLATE_NOOP("words", "the step: 1/16in, 1/8in, 0.5mm, 1mm or another length")},
    {"help.round-apply",
     QT_TRANSLATE_NOOP("words", "change the file (or write it with -o); otherwise only list what "
                                "would change")},
    {"help.fit-the-cards-sheet-or",
     QT_TRANSLATE_NOOP(
         "words", "fit the card's sheet, or a free piece, to another flat length; without one: "
                  "list what is locked and what is free")},
    {"help.card-or-the-id-of", QT_TRANSLATE_NOOP("words", "\"card\", or the id of a free piece")},
    {"help.flat-length", QT_TRANSLATE_NOOP("words", "flat length")},
    {"help.lengths-to-hold", QT_TRANSLATE_NOOP("words", "lengths to hold")},
    {"help.held-lengths-that-may-give",
     QT_TRANSLATE_NOOP("words", "locked lengths that are free this time")},
    {"help.an-order-of-work-in",
     QT_TRANSLATE_NOOP(
         "words",
         "an order of work in which every joint can be reached; exit 1 when there is none")},
    {"help.judge-the-design-exit-1",
     QT_TRANSLATE_NOOP("words", "judge the design; exit 1 when something spoils the card")},
    {"help.seconds-to-look-for-mends",
     QT_TRANSLATE_NOOP("words",
                       "seconds to look for mends after the verdict (2); 0: none are looked for")},
    {"help.apply-proposed-changes", QT_TRANSLATE_NOOP("words", "apply proposed changes")},
    {"help.number-of-one-finding-as",
     QT_TRANSLATE_NOOP("words", "number of one finding as \"check\" lists them")},
    {"help.mend-way",
     QT_TRANSLATE_NOOP("words",
                       "which of several mends of the finding, as \"check\" numbers them (1)")},
    {"help.all-that-can-be-mended", QT_TRANSLATE_NOOP("words", "all that can be mended")},
    {"help.write-here", QT_TRANSLATE_NOOP("words", "write here")},
    {"help.panel-corners-along-the-opening",
     QT_TRANSLATE_NOOP("words", "panel corners along the opening")},
    {"help.degrees-between-openings-10",
     QT_TRANSLATE_NOOP("words", "degrees between openings (10)")},
    {"help.write-cutting-files-folded-frames",
     QT_TRANSLATE_NOOP("words", "write cutting files, folded frames or a picture")},
    {"help.format", QT_TRANSLATE_NOOP("words", "format")},
    {"help.opening-in-degrees-picture-model",
     QT_TRANSLATE_NOOP("words", "opening in degrees (picture, model, folded frame)")},
    {"help.file-to-write", QT_TRANSLATE_NOOP("words", "file to write")},
    {"help.one-picture-of-several-cards",
     QT_TRANSLATE_NOOP("words", "one picture of several cards")},
    {"help.project-files", QT_TRANSLATE_NOOP("words", "project files")},
    {"help.cards-in-a-row-3", QT_TRANSLATE_NOOP("words", "cards in a row (3)")},
    {"help.width-of-one-picture-in",
     QT_TRANSLATE_NOOP("words", "width of one picture in pixels (400)")},
    {"help.opening-in-degrees-as-each",
     QT_TRANSLATE_NOOP("words", "opening in degrees (as each card is shown)")},
    {"help.picture-to-write", QT_TRANSLATE_NOOP("words", "picture to write")},
    {"help.program",
     QT_TRANSLATE_NOOP(
         "words", "Pop-up card engineering: build, check, mend and cut. Lengths may carry a unit "
                  "(95mm, 9.5 cm, 1 1/2in); without one they are in the card's own.")},
    {"help.project-file", QT_TRANSLATE_NOOP("words", "project file (.hinge)")},
    {"help.label/Usage", QT_TRANSLATE_NOOP("words", "Usage")},
    {"help.label/Options", QT_TRANSLATE_NOOP("words", "Options")},
    {"help.label/Subcommands", QT_TRANSLATE_NOOP("words", "Verbs")},
    {"help.label/Positionals", QT_TRANSLATE_NOOP("words", "What it works on")},
    {"help.label/OPTIONS", QT_TRANSLATE_NOOP("words", "OPTIONS")},
    {"help.label/SUBCOMMAND", QT_TRANSLATE_NOOP("words", "VERB")},
    {"help.label/REQUIRED", QT_TRANSLATE_NOOP("words", "(needed)")},
    {"help.label/TEXT", QT_TRANSLATE_NOOP("words", "TEXT")},
    {"help.label/INT", QT_TRANSLATE_NOOP("words", "NUMBER")},
    {"help.label/FLOAT", QT_TRANSLATE_NOOP("words", "NUMBER")},
    {"help.help", QT_TRANSLATE_NOOP("words", "say this and end")},
    {"value.unknown/none", QT_TRANSLATE_NOOP("words", "%1 has no parameter \"%2\": it has none")},
    {"work.missing/no-piece", QT_TRANSLATE_NOOP("words", "is no free piece")},
    {"usage/required", QT_TRANSLATE_NOOP("words", "%1 is required")},
    {"usage/overlap", QT_TRANSLATE_NOOP("words", "the overlap must be %1 to %2")},
    {"cli.round-would-spoil",
     QT_TRANSLATE_NOOP("words", "rounded so, the card would be spoiled: it stays as it is")},
    {"usage/empty", QT_TRANSLATE_NOOP("words", "was given an empty text")},
    {"file.exists", QT_TRANSLATE_NOOP("words", "is there already; --force replaces it")},
    {"piece.impossible",
     QT_TRANSLATE_NOOP("words",
                       "cannot be put together as it is joined: how it lies flat cannot be told")},
    {"mend.none/width", QT_TRANSLATE_NOOP("words", "no single width makes it lie flat")},
    {"usage/command-line", QT_TRANSLATE_NOOP("words", "%1")},
    {"usage/see-help", QT_TRANSLATE_NOOP("words", "Run with --help for more information.")},
    {"file.unwritable/output", QT_TRANSLATE_NOOP("words", "output cannot be written: %1")},
    {"usage/step", QT_TRANSLATE_NOOP("words", "must be from 0.01 to 180 degrees")},
    {"usage/columns", QT_TRANSLATE_NOOP("words", "must be from 1 to 12")},
    {"cli.lies-flat", QT_TRANSLATE_NOOP("words", "%1 lies flat exactly as it is")},
    {"cli.flat-length", QT_TRANSLATE_NOOP("words", "flat length %1")},
    {"cli.held", QT_TRANSLATE_NOOP("words", "locked")},
    {"cli.gives", QT_TRANSLATE_NOOP("words", "free")},
    {"cli.bench-choice", QT_TRANSLATE_NOOP("words", "%1 = %2: %3")},
    {"cli.bench-length", QT_TRANSLATE_NOOP("words", "%1 = %2")},
    {"cli.bench-speed", QT_TRANSLATE_NOOP("words", "%1 = %2 cm/s")},
    {"cli.splice", QT_TRANSLATE_NOOP("words", "parted on %1, %2 from its left border; a tab of %3 "
                                              "%4 the other part")},
    {"cli.splice/level", QT_TRANSLATE_NOOP("words", "parted on %1, %2 from its lower border; a tab "
                                                    "of %3 %4 the other part")},
    {"splice.behind", QT_TRANSLATE_NOOP("words", "behind")},
    {"splice.before", QT_TRANSLATE_NOOP("words", "on the face of")},
    {"cli.splice-proposed",
     QT_TRANSLATE_NOOP("words", "%1 is longer than every sheet; a sheet of %3 x %4 would hold it. "
                                "With %2 % of a cut seen on display:")},
    {"cli.splice-nowhere",
     QT_TRANSLATE_NOOP("words", "%1 is longer than every sheet, and there is no panel on which it "
                                "can be parted; a sheet of %3 x %4 would hold it")},
    {"cli.splice-none", QT_TRANSLATE_NOOP("words", "every piece finds place on a sheet")},
    {"cli.cut-job", QT_TRANSLATE_NOOP("words", "%1 strokes, %2 m with the tool down, at %3 cm/s "
                                               "and %4 g: about %5 minutes")},
    {"cli.cut-so-far", QT_TRANSLATE_NOOP("words", "%1 % is cut")},
    {"cli.cut-done", QT_TRANSLATE_NOOP("words", "the sheet is cut")},
    {"cli.cut-stopped", QT_TRANSLATE_NOOP("words", "stopped; --resume goes on")},
    {"cli.squares",
     QT_TRANSLATE_NOOP("words", "two squares of %1: the first %2 from the sheet's left and lower "
                                "edge, the second %3 to its right and %4 above")},
    {"cli.machine-fit",
     QT_TRANSLATE_NOOP("words",
                       "the machine makes %1 of a length of 1 across and %2 up, and begins "
                       "%3 and %4 off; jobs are told so that they come out right")},
    {"cli.part-of", QT_TRANSLATE_NOOP("words", "%1, part %2")},
    {"cli.layer-part", QT_TRANSLATE_NOOP("words", "layer %1, %2")},
    {"cli.laid-out",
     QT_TRANSLATE_NOOP("words", "%1 parts on %2; %3 % of the paper is waste, %4 % worth keeping")},
    {"cli.laid-sheets", QT_TRANSLATE_N_NOOP("words", "%n sheets"), "one sheet"},
    {"cli.sheet-line", QT_TRANSLATE_NOOP("words", "sheet %1: %2, %3 x %4, parts %5")},
    {"cli.offcut", QT_TRANSLATE_NOOP("words", "keep %1 x %2")},
    {"cli.trim-set", QT_TRANSLATE_NOOP("words", "set %1")},
    {"cli.trim-cut", QT_TRANSLATE_NOOP("words", "cut blank %1: strip %2, rest %3")},
    {"cli.trim-turned", QT_TRANSLATE_NOOP("words", "turned, %1")},
    {"cli.settings", QT_TRANSLATE_NOOP("words", "%1 cuts, %2 fence settings")},
    {"cli.need", QT_TRANSLATE_NOOP("words", "%1, %2 x %3: %4")},
    {"cli.need-at-hand", QT_TRANSLATE_NOOP("words", "%1, %2 x %3: %4, %5 at hand, %6 to buy")},
    {"cli.too-large",
     QT_TRANSLATE_NOOP(
         "words", "%1 (%2 x %3) is larger than every sheet of its paper: part it (see splice), or "
                  "get sheets of at least that")},
    {"cli.no-sheet", QT_TRANSLATE_NOOP("words", "%1: no sheet of its paper is left")},
    {"cli.cards-from-stock", QT_TRANSLATE_NOOP("words", "what is at hand is enough for %1 cards; "
                                                        "%2 ends first")},
    {"cli.cards-from-stock/uncounted",
     QT_TRANSLATE_NOOP("words", "no sheets of these papers are counted in the drawer")},
    {"cli.fit-held", QT_TRANSLATE_NOOP("words", "locked %1: %2")},
    {"cli.fit-gave", QT_TRANSLATE_NOOP("words", "gave   %1: %2 -> %3")},
    {"cli.rounded", QT_TRANSLATE_NOOP("words", "%1 of %2 lengths change, %3 conditions kept; the "
                                               "greatest change is %4")},
    {"cli.left-as-is", QT_TRANSLATE_NOOP("words", "%1 has sizes that stay as they are: %2")},
    {"cli.grown", QT_TRANSLATE_NOOP("words", "free lengths have grown to %1 %")},
    {"cli.score-above", QT_TRANSLATE_NOOP("words", "%1  (%2 above)")},
    {"cli.partly", QT_TRANSLATE_NOOP("words", "partly")},
    {"cli.from-to", QT_TRANSLATE_NOOP("words", "%1 from %2 to %3")},
    {"line.mountain/short", QT_TRANSLATE_NOOP("words", "mountain")},
    {"line.valley/short", QT_TRANSLATE_NOOP("words", "valley")},
    {"line.cut/short", QT_TRANSLATE_NOOP("words", "cut")},
    {"cli.no-order", QT_TRANSLATE_NOOP("words", "something cannot be put together: see \"check\"")},
    {"cli.verdict", QT_TRANSLATE_NOOP("words", "%1: %2, mobility %3")},
    {"cli.spoils", QT_TRANSLATE_NOOP("words", "spoils the card: %1")},
    {"cli.advice", QT_TRANSLATE_NOOP("words", "advice: %1")},
    {"cli.goes-with", QT_TRANSLATE_NOOP("words", "with %1: %2")},
    {"cli.mend", QT_TRANSLATE_NOOP("words", "mend %1: %2")},
    {"cli.other-mend", QT_TRANSLATE_NOOP("words", "or %1: %2")},
    {"verdict.good", QT_TRANSLATE_NOOP("words", "good")},
    {"verdict.advice", QT_TRANSLATE_NOOP("words", "advice")},
    {"verdict.spoiled", QT_TRANSLATE_NOOP("words", "spoiled")},
    {"cli.not-mended", QT_TRANSLATE_NOOP("words", "not mended: %1")},
    {"cli.row-range", QT_TRANSLATE_NOOP("words", "%1 to %2")},
    {"seen/display", QT_TRANSLATE_NOOP("words", "seen on display (%1 %)")},
    {"seen/opening", QT_TRANSLATE_NOOP("words", "seen while opening (%2 %), %1 % on display")},
    {"seen/hidden", QT_TRANSLATE_NOOP("words", "hidden (%1 % on display, %2 % while opening)")},
    {"mats.line", QT_TRANSLATE_NOOP("words", "%1 of %2, %3")},
    {"mats.handed",
     QT_TRANSLATE_NOOP("words", "%1 of %2, %3: %4 left, %5 right, cut pattern to pattern")},
    {"help.thickness",
     QT_TRANSLATE_NOOP("words", "how thick the shut card is, where, and what lies there")},
    {"thickness.whole",
     QT_TRANSLATE_NOOP("words", "%1 thick where most lies: %2 sheets, %3 and %4 from the corner of "
                                "the first page")},
    {"thickness.panel", QT_TRANSLATE_NOOP("words", "  %1  %2, %3")},
    {"thickness.laid", QT_TRANSLATE_NOOP("words", "  %1  %3 on %2")},
    {"thickness.pads", QT_TRANSLATE_NOOP("words", "  %1  pads on %2")},
    {"thickness.gutter",
     QT_TRANSLATE_NOOP("words", "the gutter wraps %1 sheets: offset its fold by %2")},
    {"cli.kind", QT_TRANSLATE_NOOP("words", "%1: %2")},
    {"cli.frame-left-out",
     QT_TRANSLATE_NOOP("words", "left out the frame at %1, which the design does not reach")},
    {"cli.residual", QT_TRANSLATE_NOOP("words", "%1  residual %2 mm")},
    {"cli.unsought",
     QT_TRANSLATE_N_NOOP("words",
                         "%n of %2 findings not looked into within %3 s (--mends SECONDS)"),
     "%n of %2 findings not looked into within %3 s (--mends SECONDS)"},
    {"cli.mended", QT_TRANSLATE_N_NOOP("words", "%n mended, verdict %2"), "%n mended, verdict %2"},
};

} // namespace

std::span<const Sentence> Words::commandLine() {
  return kCommandLineSaid;
}

} // namespace hinge
