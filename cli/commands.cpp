#include "commands.h"

#include "casting/seat.h"
#include "quantity/length.h"
#include "quantity/length_text.h"
#include "store/build_json.h"
#include "store/seat_case.h"
#include "store/text_file.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <fmt/ostream.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <limits>
#include <ostream>
#include <string>
#include <vector>

namespace datrin::cli {
namespace {

int run_seat(const std::string& path, bool as_text, std::ostream& out, std::ostream& err) {
  const auto seat_case = store::read_seat_case_file(path);
  for (const auto& warning : seat_case.warnings) fmt::print(err, "{}\n", warning);
  if (!seat_case.ok()) {
    fmt::print(err, "{}\n", seat_case.message);
    return refused;
  }
  const auto result = casting::seat(seat_case.input);
  if (result.status == casting::SeatStatus::refused || result.status == casting::SeatStatus::failed) {
    fmt::print(err, "{}: {}\n", path, result.message);
    return refused;
  }
  if (result.status == casting::SeatStatus::undetermined) fmt::print(err, "{}: {}\n", path, result.message);
  if (result.usable() && !result.check.holds)
    fmt::print(err, "{}: not proved best: {}\n", path, result.check.message);
  if (as_text)
    out << store::seat_result_text(seat_case, result);
  else
    out << store::seat_result_json(seat_case, result).dump(2) << '\n';
  return result.cleans_up() ? answer_yes : answer_no;
}

int run_length(const std::string& text, const std::string& unit, bool as_text, std::ostream& out,
               std::ostream& err) {
  LengthOptions options;
  if (!unit.empty()) {
    options.bare_unit = unit_from_name(unit);
    if (!options.bare_unit) {
      fmt::print(err, "length: --unit: there is no unit called \"{}\"; it is \"mm\" or \"in\"\n", unit);
      return refused;
    }
  }
  const auto length = parse_length(text, options);
  if (!length.ok()) {
    fmt::print(err, "length: column {}: {}\n", length.column, length.message);
    return refused;
  }
  if (as_text) {
    const LengthTextOptions figures{.decimals_mm = 4, .decimals_inch = 5};
    fmt::print(out, "{} = {}\n", length.understood, length_text_both(length.mm, Unit::mm, figures));
  } else {
    const nlohmann::ordered_json json{{"mm", length.mm}, {"in", from_mm(length.mm, Unit::inch)}};
    out << json.dump(2) << '\n';
  }
  return answer_yes;
}

int run_export(const std::string& path, const std::string& to, std::ostream& out, std::ostream& err) {
  store::FileOutcome outcome;
  const auto file = store::BuildFile::open(path, outcome);
  if (!outcome.ok()) fmt::print(err, "{}\n", outcome.message);
  if (!file) return refused;
  auto log = file->log(std::numeric_limits<int>::max());
  std::reverse(log.begin(), log.end());
  const auto text = store::write_build_json(file->build(), log);
  if (to.empty()) {
    out << text;
    return answer_yes;
  }
  if (const auto why = store::write_text_file(to, text); !why.empty()) {
    fmt::print(err, "{}\n", why);
    return refused;
  }
  return answer_yes;
}

int run_import(const std::string& path, const std::string& to, std::ostream& err) {
  const auto read = store::read_build_json_file(path);
  if (!read.ok) {
    fmt::print(err, "{}\n", read.message);
    return refused;
  }
  store::FileOutcome outcome;
  (void)store::BuildFile::create(to, read.build, read.log, outcome);
  if (!outcome.ok()) fmt::print(err, "{}\n", outcome.message);
  return outcome.ok() ? answer_yes : refused;
}

} // namespace

int run(int argc, const char* const* argv, std::ostream& out, std::ostream& err) {
  CLI::App app{"The core of Datrin without a window.", "datrin-cli"};
  app.require_subcommand(1);
  app.set_help_all_flag("--help-all");
  bool as_text = false;
  std::string path, to, length_text, unit;

  auto* seat = app.add_subcommand("seat", "Place the finished part inside the casting");
  seat->add_option("case", path, "a datrin-seat-case JSON file")->required();
  seat->add_flag("--text", as_text, "print a table for people instead of JSON");

  auto* length = app.add_subcommand("length", "Read a length as people write it");
  length->add_option("text", length_text, "such as \"1 3/8 in\", \"#30\" or \"3 mm + 9/16 in\"")->required();
  length->add_option("--unit", unit, "mm or in: unit of a number written without one");
  length->add_flag("--text", as_text, "print one line for people instead of JSON");

  auto* export_ = app.add_subcommand("export", "Write a build as one JSON file");
  export_->add_option("build", path, "a .datrin file")->required();
  export_->add_option("to", to, "the JSON file; left out: standard output");

  auto* import = app.add_subcommand("import", "Make a build from such a JSON file");
  import->add_option("from", path, "a datrin-build JSON file")->required();
  import->add_option("build", to, "the .datrin file to make; it must not be there yet")->required();

  try {
    app.parse(argc, argv);
  } catch (const CLI::CallForHelp&) {
    out << app.help();
    return answer_yes;
  } catch (const CLI::CallForAllHelp&) {
    out << app.help("", CLI::AppFormatMode::All);
    return answer_yes;
  } catch (const CLI::ParseError& error) {
    fmt::print(err, "datrin-cli: {} (datrin-cli --help lists the calls)\n", error.what());
    return refused;
  }
  if (seat->parsed()) return run_seat(path, as_text, out, err);
  if (export_->parsed()) return run_export(path, to, out, err);
  if (import->parsed()) return run_import(path, to, err);
  return run_length(length_text, unit, as_text, out, err);
}

} // namespace datrin::cli
