// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/maker_drawer.h"
#include "core/io/dressing_json.h"
#include "core/io/maker_files.h"
#include "core/io/text_file.h"
#include <algorithm>

namespace hinge {
namespace {

constexpr const char* kDrawerFormat = "hinge-lantern-papers";

Result<void> write(const std::vector<Paper>& papers) {
  Json out = {{"format", kDrawerFormat}, {"version", 1}, {"papers", Json::array()}};
  for (const Paper& paper : papers)
    out["papers"].push_back(jsonOf(paper));
  return writeMakersFile(makersDrawerPath(),
                         out.dump(2, ' ', false, Json::error_handler_t::replace) + "\n");
}

} // namespace

std::string makersDrawerPath() {
  return makersFile("papers.json");
}

Result<std::vector<Paper>> makersPapers() {
  const std::string path = makersDrawerPath();
  if (!fileExists(path)) return std::vector<Paper>();
  const auto read = readMakersFile(path, kDrawerFormat);
  if (!read) return read.error();
  std::optional<Error> error;
  std::vector<Paper> papers = readPapers(read->value("papers", Json::array()), "papers", error);
  for (const Paper& paper : papers)
    if (const auto valid = validate(paper); !valid && !error) error = valid.error();
  if (error) return Error{error->message, path + ": " + error->place};
  return papers;
}

Result<void> keepPaper(const Paper& paper) {
  if (auto valid = validate(paper); !valid) return valid;
  const FileLock hold = holdMakersFiles();
  auto known = makersPapers();
  if (!known) return known.error();
  std::vector<Paper> papers = std::move(known).value();
  const auto same = std::ranges::find(papers, paper.key, &Paper::key);
  if (same != papers.end())
    *same = paper;
  else
    papers.push_back(paper);
  return write(papers);
}

Result<void> forgetPaper(std::string_view key) {
  const FileLock hold = holdMakersFiles();
  auto known = makersPapers();
  if (!known) return known.error();
  std::vector<Paper> papers = std::move(known).value();
  if (std::erase_if(papers, [&](const Paper& paper) { return paper.key == key; }) == 0) return {};
  return write(papers);
}

} // namespace hinge
