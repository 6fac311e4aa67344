// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/model/snapshot.h"
#include <string>

namespace hinge {

/// [{"key","label","thickness_mm","weight_gsm","colours",...,"used","needs":{"pieces","mats",
/// "area_mm2","sheets_at_least","at_hand","too_large"}}]; as in the project file, with what this
/// card needs of each.
std::string papersToJson(const Snapshot& snapshot);
/// [{"key","piece","panel","side":"face"|"back","outline","holes","seen":{"display","opening",
/// "never"},"class":"hidden"|"opening"|"display","rule"}]; mm in the face's own frame, shares of
/// its area, "rule" counted from 1 or null.
std::string facesToJson(const Snapshot& snapshot);
/// [{"paper","count","left","right","handed","size","width_mm","height_mm","outline","holes",
/// "up_deg","places":[{"piece","face","layer","hand"}]}]; "layer" counted from 1, from the paper
/// up.
std::string matsToJson(const Snapshot& snapshot);
/// One line for every place: piece,face,layer,paper,count,hand,width_mm,height_mm,size.
std::string matsToCsv(const Snapshot& snapshot);

/// {"thickness_mm","sheets","place","stack":[{"panel","paper","laid","thickness_mm"}],"gutter":
/// {"sheets","relief_mm"},"envelope":{"key","long_mm","short_mm","short_by_mm"},"map":{"cell_mm",
/// "origin","columns","rows","high_mm"}}; of the shut card, places in the flat frame of the first
/// page, the map row by row.
std::string thicknessToJson(const Snapshot& snapshot);

/// "97 x 60 mm", "3 3/4 x 2 3/8 in".
std::string sizeText(const Vec2& size_mm, LengthUnit unit);
/// The hand of one place of a line: "left", "right", or "either".
std::string_view handOf(const MatLine& line, const MatPlace& place);
/// "hidden", "opening", "display".
std::string_view keyOf(SeenClass seen);

} // namespace hinge
