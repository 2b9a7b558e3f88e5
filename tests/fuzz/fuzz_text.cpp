// One fuzz target a reader, chosen when compiled: any bytes must be read or refused, never crash, hang or be
// undefined behaviour under the sanitizers. What is read must come back the same when written.

#include "store/build_file.h"
#include "store/build_json.h"
#include "store/chain_case.h"
#include "store/scan_file.h"
#include "store/seat_case.h"
#include "store/survey_csv.h"
#include "store/targets_case.h"

#include <cstdint>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <string_view>

#include <unistd.h>

using namespace datrin;

namespace {

[[maybe_unused]] void check(bool holds) {
  if (!holds) std::abort();
}

[[maybe_unused]] void seat_case(std::string_view text) {
  const auto read = store::read_seat_case(text, "case.json");
  check(read.ok() || !read.message.empty());
  constexpr std::size_t few = 8; // cases are seated: that takes long
  if (!read.ok() || read.input.points.size() > 100 || text.size() % few != 0) return;
  const auto result = casting::seat(read.input);
  check(result.usable() || !result.message.empty());
}

[[maybe_unused]] void targets_case(std::string_view text) {
  const auto read = store::read_targets_case(text, "case.json");
  check(read.ok() || !read.message.empty());
  if (!read.ok() || read.input.dimensions.size() > 50 || read.input.conditions.size() > 50) return;
  const auto result = chains::targets(read.input);
  check(result.usable() || !result.message.empty());
}

[[maybe_unused]] void chain_case(std::string_view text) {
  auto read = store::read_chain_case(text, "case.json");
  check(read.ok() || !read.message.empty());
  if (!read.ok()) return;
  read.options.samples = 100;
  const auto result = chains::chain(read.input, read.options);
  check(result.usable() || !result.message.empty());
}

[[maybe_unused]] void survey_csv(std::string_view text) {
  const store::SurfaceNames names{{7, "foot"}, {8, "bore"}, {9, "end A"}};
  const auto read = store::read_survey_csv(text, "survey.csv", names);
  std::vector<build::Touch> touches;
  for (const auto& line : read.good) {
    check(line.touch.centre.allFinite() && line.touch.tip_radius >= 0 && line.touch.uncertainty >= 0);
    touches.push_back(line.touch);
  }
  const auto again = store::read_survey_csv(store::write_survey_csv(touches, names), "again.csv", names);
  check(!again.refused && again.bad.empty() && again.good.size() == touches.size());
  for (std::size_t i = 0; i < touches.size(); ++i) check(again.good[i].touch.centre == touches[i].centre);
}

[[maybe_unused]] void build_json(std::string_view text) {
  const auto read = store::read_build_json(text, "build.json");
  check(read.ok != !read.message.empty());
  if (!read.ok) return;
  const auto again = store::read_build_json(store::write_build_json(read.build, read.log), "again.json");
  check(again.ok && again.build.records() == read.build.records());
}

[[maybe_unused]] void scan(std::string_view bytes, const char* ending) {
  const auto read = store::read_scan(bytes, ending, "scan", Unit::mm);
  check(read.ok ? !read.at.empty() : !read.message.empty());
}

/// The bytes as a build file on disk: opened, recovered or refused, and never written over.
[[maybe_unused]] void build_file(std::string_view bytes) {
  namespace fs = std::filesystem;
  static const fs::path folder = fs::temp_directory_path() / ("datrin-fuzz-" + std::to_string(::getpid()));
  fs::create_directories(folder);
  const auto path = (folder / "fuzz.datrin").string();
  for (const auto& entry : fs::directory_iterator(folder)) fs::remove(entry.path());
  {
    std::ofstream file(path, std::ios::binary);
    file.write(bytes.data(), static_cast<std::streamsize>(bytes.size()));
  }
  store::FileOutcome outcome;
  const auto file = store::BuildFile::open(path, outcome);
  check(outcome.ok() || !outcome.message.empty());
  check(file.has_value() || !outcome.ok());
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const std::string_view text(reinterpret_cast<const char*>(data), size);
  DATRIN_FUZZ_TARGET;
  return 0;
}
