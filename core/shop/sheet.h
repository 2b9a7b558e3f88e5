#pragma once
// What is in the shop as sheets: machines, tools, instruments, supplies, offcuts, one a row, a column for
// each thing that is said of them. By their descriptions (build/description.h): what is described is shown,
// typed, written and read.

#include "build/build.h"
#include "build/description.h"
#include "build/edits.h"
#include "quantity/unit.h"

#include <string>
#include <vector>

namespace datrin::shop {

/// The kinds there are sheets of, by their number, in the order they are shown.
const std::vector<int>& kinds();

struct Column {
  const build::Field* field = nullptr;
  std::string title;   ///< "Spindle bore"
  bool number = false; ///< aligned to the right
};

/// Of one kind; its name first.
const std::vector<Column>& columns(int kind);

/// All of one kind, in their order.
std::vector<std::pair<build::Id, build::Record>> rows(const build::Build& build, int kind);

/// A cell as it is shown: lengths in `unit` without their unit, what is 0 and means "not stated" empty.
std::string cell_text(const build::Record& record, const Column& column, Unit unit);

/// The same to the last digit, lengths in mm: for files.
std::string exact_text(const build::Record& record, const Column& column);

/// The record with that said of it; `wrong` in words when it cannot be.
struct Typed {
  build::Record record;
  std::string wrong;
  bool ok() const { return wrong.empty(); }
};
Typed typed(const build::Record& record, const Column& column, const std::string& text, Unit unit);

/// A record of that kind as it is begun, under that name (of an offcut: its form); behind the others.
build::Added begin(const build::Build& build, int kind, const std::string& name);

/// One cell typed, as an edit: "Spindle bore of lathe".
build::Edit set_cell(const build::Build& build, build::Id id, const Column& column,
                     const build::Record& changed);

/// A size a tool made, kept in its log.
build::Edit log_made(const build::Build& build, build::Id tool, double wanted, double made,
                     const std::string& at);

/// How far over or under it cuts by its log, mm: the mean; nothing without a log.
std::optional<double> cuts_over(const build::Tool& tool);

/// What one cutting edge costs; nothing where price or edges are not stated.
std::optional<double> cost_per_edge(double price, int edges);

/// "17.00 for 20 edges: 0.85 an edge" of a tool or a supply; empty where it does not say.
std::string cost_text(const build::Record& record);

/// What operations of the build want that is not in the shop: "drill 5.0 mm", each once, with what wants it.
struct Missing {
  build::OperationKind kind = build::OperationKind::drill;
  double size = 0; ///< mm
  std::vector<build::Id> operations;
  std::string instead; ///< a work-around from what is there; empty: none
};
std::vector<Missing> missing_tools(const build::Build& build);

/// It, on the list of what is to be bought.
build::Added to_buy(const build::Build& build, const std::string& what);

/// The sizes of the shop's tools of a kind, bare in `unit`, parted by blanks: "1.005 1.01 2"; of angle blocks
/// degrees, with mm asked for.
std::string sizes_of(const build::Build& build, build::ToolKind kind, Unit unit);

} // namespace datrin::shop
