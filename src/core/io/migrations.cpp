// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/migrations.h"
#include "core/io/design_json.h"
#include "core/paper/paper.h"
#include <algorithm>
#include <array>
#include <cctype>

namespace hinge {
namespace {

Json* member(Json& object, const char* key) {
  const auto it = object.is_object() ? object.find(key) : object.end();
  return it == object.end() ? nullptr : &*it;
}

/// Calls `change` for every item of a list of objects.
template <class Change> void eachIn(Json* list, Change change) {
  if (!list || !list->is_array()) return;
  for (Json& item : *list)
    if (item.is_object()) change(item);
}

/// Version 2: bands and films are called by the words of the other joints, and a side of the piece
/// ("by") is told only where the joint has one.
void toVersion2(Json& project) {
  eachIn(member(project, "structures"), [](Json& structure) {
    Json* work = member(structure, "work");
    eachIn(work ? member(*work, "joints") : nullptr, [](Json& joint) {
      Json* kind = member(joint, "kind");
      if (!kind || !kind->is_string()) return;
      if (*kind == "elastic") *kind = "band";
      if (*kind == "tie") *kind = "film";
      if (*kind == "band" || *kind == "film" || *kind == "slot") joint.erase("by");
    });
  });
}

/// Version 3: bases of sheets, what a maker decides of a fold, the working range of a card. What
/// was there before is as it was.
void toVersion3(Json&) {}

/// Version 4: the one stock of the card is a paper of its drawer, and what is made of it says so.
void toVersion4(Json& project) {
  const Json stock = project.value("stock", Json::object());
  if (!stock.is_object()) return; // the reader says what is wrong with it
  Json paper = {{"key", Paper().key}, {"label", Paper().label}};
  paper.update(stock);
  const Json* key = member(paper, "key");
  if (key->is_string()) {
    // It was any text; a key is a word.
    std::string word;
    for (const char c : key->get<std::string>())
      word += std::isalnum(static_cast<unsigned char>(c)) ? c : '-';
    if (!word.empty()) word.resize(std::min<std::size_t>(word.size(), 40));
    paper["key"] = word.empty() ? Paper().key : word;
  }
  project["stock"] = paper["key"];
  project["papers"] = Json::array({std::move(paper)});
}

/// Version 5: joints may be placed by rules. Those of before have their numbers.
void toVersion5(Json&) {}

/// The step that makes version n + 2 of version n + 1.
constexpr std::array kSteps{&toVersion2, &toVersion3, &toVersion4, &toVersion5};
static_assert(kSteps.size() + 1 == kFormatVersion, "every version but the first has its step");

} // namespace

void migrate(Json& project) {
  const std::size_t version = project.at("version").get<std::size_t>();
  for (std::size_t step = version - 1; step < kSteps.size(); ++step)
    kSteps[step](project);
  project["version"] = kFormatVersion;
}

} // namespace hinge
