// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/vectors.h"
#include "words/tables.h"
#include <QPainter>
#include <QPdfWriter>
#include <QString>

namespace hinge {

/// Score and cut tables on pages of a size (mm), as many as they need, each page with the title and
/// what the line code means. With `first` the page that is there already is the first of them. A
/// table that does not fit on the rest of a page begins on the next.
void paintTables(QPdfWriter& writer, QPainter& painter, const Vec2& page_mm, const QString& title,
                 const std::vector<ReadTable>& tables, bool first = false);

} // namespace hinge
