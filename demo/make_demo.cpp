// Writes the demo build: make-demo FILE.datrin [SURVEY.csv], or the other one: make-demo --small-work
// FILE.datrin. An existing build is left alone.

#include "demo/mill_engine.h"
#include "demo/small_work.h"
#include "store/build_file.h"
#include "store/survey_csv.h"

#include <cstdio>
#include <filesystem>
#include <fstream>
#include <string>

using namespace datrin;

int main(int argc, char** argv) {
  const bool small = argc > 2 && std::string(argv[1]) == "--small-work" && argv[2][0] != '-';
  const bool asked = !small && argc > 1 && argv[1][0] == '-'; // --help is a question, never a file
  if (argc < 2 || asked) {
    std::fputs("make-demo FILE.datrin [SURVEY.csv]\nmake-demo --small-work FILE.datrin\n",
               asked ? stdout : stderr);
    return asked ? 0 : 2;
  }
  const std::string path = argv[small ? 2 : 1];
  const auto demo = small ? demo::small_work() : demo::mill_engine();
  if (!std::filesystem::exists(path)) {
    store::FileOutcome outcome;
    auto file = store::BuildFile::create(path, "Demo", outcome);
    for (const auto& edit : demo.edits) {
      if (!file || !outcome.ok()) break;
      auto fitted = edit;
      // The file begins with its own name for the build; the first edit replaces whatever stands there.
      for (auto& change : fitted.changes)
        if (change.id == build::Build::info_id) change.before = file->build().records().at(change.id);
      outcome = file->apply(fitted);
    }
    if (!outcome.ok()) {
      std::fprintf(stderr, "%s\n", outcome.message.c_str());
      return 1;
    }
  }
  if (argc > 2 && !small) {
    store::SurfaceNames names;
    std::vector<build::Touch> touches;
    const auto piece = demo.pieces.front().piece;
    for (const auto& [id, surface] : demo.build.surfaces_of(demo.build.find<build::Piece>(piece)->part))
      names.emplace_back(id, surface.name);
    for (const auto& [id, touch] : demo.build.touches_of(piece)) touches.push_back(touch);
    std::ofstream(argv[2]) << store::write_survey_csv(touches, names);
  }
  return 0;
}
