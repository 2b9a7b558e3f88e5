#include "commands.h"

#include "case_call.h"
#include "route_command.h"
#include "solid_command.h"
#include "sum_command.h"

#include "casting/seat.h"
#include "chains/targets.h"
#include "fits/fit.h"
#include "fits/heat.h"
#include "quantity/length.h"
#include "quantity/length_text.h"
#include "solid/step_file.h"
#include "store/build_json.h"
#include "store/build_schema.h"
#include "store/chain_case.h"
#include "store/failure_words.h"
#include "store/seat_case.h"
#include "store/targets_case.h"
#include "store/text_file.h"
#include "threads/thread_limits.h"
#include "threads/threads.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <fmt/ostream.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <filesystem>
#include <limits>
#include <optional>
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

int run_targets(const std::string& path, const chains::TargetsOptions& options, bool as_text,
                std::ostream& out, std::ostream& err) {
  const auto read = store::read_targets_case_file(path);
  for (const auto& warning : read.warnings) fmt::print(err, "{}\n", warning);
  if (!read.ok()) {
    fmt::print(err, "{}\n", read.message);
    return refused;
  }
  const auto result = chains::targets(read.input, options);
  if (!result.usable()) {
    fmt::print(err, "{}: {}\n", path, result.message);
    return refused;
  }
  if (!result.proved && !options.function_first) fmt::print(err, "{}: not proved best\n", path);
  if (as_text)
    out << store::targets_result_text(read, result);
  else
    out << store::targets_result_json(read, result).dump(2) << '\n';
  return result.feasible ? answer_yes : answer_no;
}

int run_chain(const std::string& path, bool as_text, std::ostream& out, std::ostream& err) {
  return answer_case(
      path, store::read_chain_case_file(path),
      [](const auto& read) { return chains::chain(read.input, read.options); }, store::chain_result_text,
      store::chain_result_json, as_text, out, err);
}

struct FitCall {
  std::string text, unit = "mm", hole = "steel", shaft = "steel";
  std::optional<double> temperature;
};

int run_fit(const FitCall& call, bool as_text, std::ostream& out, std::ostream& err) {
  const auto refuse = [&](const std::string& why) {
    fmt::print(err, "fit: {}\n", why);
    return refused;
  };
  const auto unit = unit_from_name(call.unit);
  if (!unit)
    return refuse(fmt::format("--unit: there is no unit called \"{}\"; it is \"mm\" or \"in\"", call.unit));
  const auto read = fits::read_fit(call.text, *unit);
  if (!read.ok) return refuse(read.message);
  const auto& fit = read.fit;
  const auto length = [&](double mm) { return from_mm(mm, *unit); };
  double grows = 0;
  if (call.temperature) {
    const auto hole = fits::find_solid(call.hole), shaft = fits::find_solid(call.shaft);
    if (hole.solid == nullptr) return refuse("--hole: " + hole.message);
    if (shaft.solid == nullptr) return refuse("--shaft: " + shaft.message);
    const auto hot =
        fits::clearance_hot({fit.nominal, 0, hole.solid, shaft.solid, *call.temperature, *call.temperature});
    if (!hot.ok) return refuse("--temperature: " + hot.message);
    grows = hot.clearance;
  }
  if (as_text) {
    const LengthTextOptions figures{.decimals_mm = 4, .decimals_inch = 5, .show_plus = true};
    const auto text = [&](double mm) { return length_text(mm, *unit, figures); };
    fmt::print(out, "{} {}: {}\nhole       {} to {} {}\nshaft      {} to {}\nclearance  {} to {}\n",
               length_text(fit.nominal, *unit), fit.code, fits::fit_kind_name(fit.kind()),
               text(fit.hole.lower), text(fit.hole.upper), unit_name(*unit), text(fit.shaft.lower),
               text(fit.shaft.upper), text(fit.least()), text(fit.most()));
    if (call.temperature)
      fmt::print(out, "at {} \u00B0C    {} to {}\n", *call.temperature, text(fit.least() + grows),
                 text(fit.most() + grows));
    return answer_yes;
  }
  const auto pair = [&](const char* a, double first, const char* b, double second) {
    return nlohmann::ordered_json{{a, length(first)}, {b, length(second)}};
  };
  nlohmann::ordered_json json;
  json["hole"] = pair("lower", fit.hole.lower, "upper", fit.hole.upper);
  json["shaft"] = pair("lower", fit.shaft.lower, "upper", fit.shaft.upper);
  json["clearance"] = pair("min", fit.least(), "max", fit.most());
  json["kind"] = fits::fit_kind_name(fit.kind());
  if (call.temperature) {
    json["temperature"] = *call.temperature;
    json["clearance_hot"] = pair("min", fit.least() + grows, "max", fit.most() + grows);
  }
  out << json.dump(2) << '\n';
  return answer_yes;
}

int run_length(const std::string& text, const std::string& unit, bool as_text, std::ostream& out,
               std::ostream& err) {
  LengthOptions options;
  options.thread_hole = threads::hole_of;
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

int run_thread(const std::string& name, bool with_limits, bool as_text, std::ostream& out,
               std::ostream& err) {
  const auto found = threads::find(name);
  if (found.thread == nullptr) {
    fmt::print(err, "thread: {}\n", found.message);
    return refused;
  }
  const auto& t = *found.thread;
  if (as_text) {
    threads::TapInput in{t};
    in.drawer = t.metric() ? Unit::mm : Unit::inch;
    for (const auto& line : threads::tap_words(in, threads::plan_tap(in), in.drawer))
      fmt::print(out, "{}\n", line);
    return answer_yes;
  }
  const auto drill = threads::tapping_drill(t);
  const auto clearance = threads::clearance_holes(t);
  nlohmann::ordered_json json{
      {"name", t.name}, {"outside", t.major}, {"pitch", t.pitch}, {"angle_deg", t.angle}, {"core", t.core()}};
  json["tap_drill"] = {{"name", drill.name}, {"mm", drill.size}, {"percent", drill.percent}};
  json["clearance"] = {{"fine", clearance.fine},
                       {"medium", clearance.medium},
                       {"coarse", clearance.coarse},
                       {"source", clearance.source}};
  if (with_limits) {
    if (const auto limits = threads::limits_of(t)) {
      const auto both = [](const threads::DiameterLimits& l) {
        return nlohmann::ordered_json{{"lower", l.least}, {"upper", l.most}};
      };
      json["limits"] = {{"source", limits->source},
                        {"screw",
                         {{"class", limits->screw_class},
                          {"outside", both(limits->screw_major)},
                          {"pitch_diameter", both(limits->screw_pitch)}}},
                        {"nut",
                         {{"class", limits->nut_class},
                          {"pitch_diameter", both(limits->nut_pitch)},
                          {"minor", both(limits->nut_minor)}}}};
    } else {
      json["limits"] = nullptr;
    }
  }
  out << json.dump(2) << '\n';
  return answer_yes;
}

int run_export(const std::string& path, const std::string& to, bool force, std::ostream& out,
               std::ostream& err) {
  std::error_code error;
  if (!to.empty() && std::filesystem::equivalent(path, to, error)) {
    fmt::print(err, "{} is the build itself; choose another name for the JSON file\n", to);
    return refused;
  }
  store::FileOutcome outcome;
  const auto file = store::BuildFile::open(path, outcome, store::Opening::reading);
  if (!outcome.ok()) fmt::print(err, "{}\n", outcome.message);
  if (!file) return refused;
  // What could be read of a damaged one is written; that it is not all of it, the exit status says too.
  const int done = outcome.status == store::FileStatus::damaged ? answer_no : answer_yes;
  auto log = file->log(std::numeric_limits<int>::max());
  std::reverse(log.begin(), log.end());
  const auto text = store::write_build_json(file->build(), log);
  if (to.empty()) {
    out << text;
    return done;
  }
  const auto existing = force ? store::Existing::replace : store::Existing::refuse;
  if (const auto why = store::write_text_file(to, text, existing); !why.empty()) {
    const bool there = !force && std::filesystem::is_regular_file(to, error);
    fmt::print(err, "{}{}\n", why, there ? ", or write over it with --force" : "");
    return refused;
  }
  return done;
}

int run_import(const std::string& path, const std::string& to, std::ostream& err) {
  const auto read = store::read_build_json_file(path);
  if (!read.ok) {
    fmt::print(err, "{}\n", read.message);
    return refused;
  }
  if (const auto wrong = solid::unreadable_import(read.build); !wrong.empty()) {
    fmt::print(err, "{}: {}\n", path, wrong);
    return refused;
  }
  store::FileOutcome outcome;
  (void)store::BuildFile::create(to, read.build, read.log, outcome);
  if (!outcome.ok()) fmt::print(err, "{}\n", outcome.message);
  return outcome.ok() ? answer_yes : refused;
}

} // namespace

namespace {

int run_command(int argc, const char* const* argv, std::ostream& out, std::ostream& err) {
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

  chains::TargetsOptions targets_options;
  auto* targets = app.add_subcommand("targets", "The numbers to make next, with what is measured fixed");
  targets->add_option("case", path, "a datrin-targets-case JSON file")->required();
  targets->add_flag("--function-first", targets_options.function_first,
                    "level the conditions before the drawing's limits count at all");
  targets->add_option("--enough", targets_options.enough,
                      "with --function-first: raise conditions to this room, then see to the drawing");
  targets->add_flag("--text", as_text, "print a table for people instead of JSON");

  auto* chain = app.add_subcommand("chain", "One chain: worst case, root sum square, simulation");
  chain->add_option("case", path, "a datrin-chain-case JSON file")->required();
  chain->add_flag("--text", as_text, "print a table for people instead of JSON");

  FitCall fit_call;
  auto* fit = app.add_subcommand("fit", "Limits and clearance of a fit by its code");
  fit->add_option("fit", fit_call.text, "such as \"25 H7/g6\" or \"1 in RC4\"")->required();
  fit->add_option("--unit", fit_call.unit, "mm or in: of a bare nominal and of the answer");
  fit->add_option("--temperature", fit_call.temperature, "degrees Celsius: the clearance there as well");
  fit->add_option("--hole", fit_call.hole, "metal of the hole; steel when left out");
  fit->add_option("--shaft", fit_call.shaft, "metal of the shaft; steel when left out");
  fit->add_flag("--text", as_text, "print a table for people instead of JSON");

  std::string thread_name;
  bool with_limits = false;
  auto* thread =
      app.add_subcommand("thread", "A screw thread by its name: sizes, tapping drill, clearance holes (mm)");
  thread->add_option("name", thread_name, "such as M8, M10x1.25, 1/4-20, 4BA, \"3/8 BSW\" or G1/4")
      ->required();
  thread->add_flag("--limits", with_limits,
                   "the limits of screw and nut as well (ISO 965 6g/6H, ASME B1.1 2A/2B)");
  thread->add_flag("--text", as_text, "print sentences for people instead of JSON");

  SumCall sum_call;
  auto* sum = app.add_subcommand("sum", "The sums of the bench");
  sum->add_option("id", sum_call.id, "which, such as taper or bolt-circle");
  sum->add_option("values", sum_call.values, "its fields, such as large=\"1 1/4 in\" one_in=20");
  sum->add_option("--unit", sum_call.unit, "mm or in: of numbers written without one, and of the answers");
  sum->add_flag("--list", sum_call.list, "every sum with its fields");
  sum->add_flag("--text", sum_call.as_text, "print lines for people instead of JSON");

  SolidCall solid_call;
  auto* solid = app.add_subcommand("solid", "What a STEP file holds: volume, centroid, inertia, faces");
  solid->add_option("file", solid_call.path, "a STEP file (AP203 or AP214)")->required();
  solid->add_option("--section", solid_call.section, "such as x=0: the area of a section there");
  solid->add_option("--only", solid_call.only, "of several solids that one, counted from 1");
  solid->add_option("--to", solid_call.to, "write what was read as a STEP file of its own, in mm");
  solid->add_flag("--thinnest", solid_call.thinnest, "the least thickness of metal, and where");
  solid->add_flag("--text", solid_call.as_text, "print lines for people instead of JSON");

  auto* route = app.add_subcommand("route", "The order of operations that takes the fewest minutes");
  route->add_option("case", path, "a datrin-route-case JSON file")->required();
  route->add_flag("--text", as_text, "print lines for people instead of JSON");

  auto* spread = app.add_subcommand("spread", "What the turn-overs of a part cost, by setup and cause");
  spread->add_option("case", path, "a datrin-spread-case JSON file")->required();
  spread->add_flag("--text", as_text, "print lines for people instead of JSON");

  auto* schema = app.add_subcommand("schema", "The JSON schema of an exported build");

  auto* export_ = app.add_subcommand("export", "Write a build as one JSON file");
  export_->add_option("build", path, "a .datrin file")->required();
  export_->add_option("to", to, "the JSON file; left out: standard output");
  bool force = false;
  export_->add_flag("--force", force, "write over a file that is there");

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
  if (targets->parsed()) return run_targets(path, targets_options, as_text, out, err);
  if (chain->parsed()) return run_chain(path, as_text, out, err);
  if (fit->parsed()) return run_fit(fit_call, as_text, out, err);
  if (thread->parsed()) return run_thread(thread_name, with_limits, as_text, out, err);
  if (sum->parsed()) return run_sum(sum_call, out, err);
  if (solid->parsed()) return run_solid(solid_call, out, err);
  if (route->parsed()) return run_route(path, as_text, out, err);
  if (spread->parsed()) return run_spread(path, as_text, out, err);
  if (schema->parsed()) {
    out << store::build_schema();
    return answer_yes;
  }
  if (export_->parsed()) return run_export(path, to, force, out, err);
  if (import->parsed()) return run_import(path, to, err);
  return run_length(length_text, unit, as_text, out, err);
}

} // namespace

int run(int argc, const char* const* argv, std::ostream& out, std::ostream& err) {
  int status = refused;
  try {
    status = run_command(argc, argv, out, err);
  } catch (const std::exception& error) {
    fmt::print(err, "datrin-cli: {}\n", store::failure_words(error));
    return refused;
  }
  out.flush();
  if (out) return status;
  fmt::print(err,
             "datrin-cli: the answer could not be written to standard output; the disk may be full or the "
             "output closed\n");
  return refused;
}

} // namespace datrin::cli
