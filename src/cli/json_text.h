// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/region.h"
#include <nlohmann/json.hpp>
#include <string>

namespace hinge {

// What several reports of the command line write alike.

using ReportJson = nlohmann::ordered_json;

inline std::string printed(const ReportJson& json) {
  return json.dump(2, ' ', false, ReportJson::error_handler_t::replace) + "\n";
}

inline ReportJson pointJson(const Vec2& p) {
  return {p.x(), p.y()};
}

inline ReportJson ringJson(const Polygon& ring) {
  ReportJson points = ReportJson::array();
  for (const Vec2& p : ring)
    points.push_back(pointJson(p));
  return points;
}

/// Adds "outline" and "holes".
inline void addRegion(ReportJson& entry, const Region& region) {
  entry["outline"] = ringJson(region.rim);
  entry["holes"] = ReportJson::array();
  for (const Polygon& hole : region.holes)
    entry["holes"].push_back(ringJson(hole));
}

} // namespace hinge
