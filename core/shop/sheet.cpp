#include "shop/sheet.h"

#include "allowance/passes.h"
#include "build/check.h"
#include "build/rows.h"
#include "build/words.h"
#include "cutting/speed.h"
#include "quantity/angle.h"
#include "quantity/length.h"
#include "quantity/length_text.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace datrin::shop {

using namespace build;

namespace {

struct Title {
  const char *kind, *field, *title; ///< kind empty: of any
};
constexpr Title titles[] = {
    {"machine", "reads_diameter", "Dial reads \u2300"},
    {"machine", "unit", "Dial in"},
    {"machine", "resolution", "Graduation"},
    {"machine", "note", "Quirks"},
    {"machine", "reach", "Takes"},
    {"machine", "chuck", "Chuck, vise"},
    {"machine", "shank", "Shank"},
    {"machine", "cutting", "Cuts within, \u03C3"},
    {"machine", "seating", "Seats within, \u03C3"},
    {"machine", "speeds", "Speeds, rpm"},
    {"machine", "site", "Stands"},
    {"machine", "travel", "Travel"},
    {"machine", "cross_travel", "Across"},
    {"machine", "up_travel", "Up"},
    {"machine", "reversed", "Counts backwards"},
    {"machine", "dial_turn", "A turn of the dial"},
    {"machine", "backlash", "Play"},
    {"machine", "read_out", "Reads at"},
    {"tool", "least_cut", "Thinnest cut"},
    {"tool", "point_angle", "Point"},
    {"instrument", "resolution", "Shows"},
    {"instrument", "uncertainty", "\u00B1, 95 %"},
    {"instrument", "zero", "At zero"},
    {"instrument", "temperature", "At \u00B0C"},
    {"supply", "count", "How many"},
    {"supply", "edges", "Edges for it"},
    {"tool", "edges", "Edges for it"},
    {"offcut", "width", "Across"},
};

std::string title_of(const char* kind, const char* field) {
  for (const auto& title : titles)
    if (std::string_view(title.kind) == kind && std::string_view(title.field) == field) return title.title;
  std::string text = field;
  std::replace(text.begin(), text.end(), '_', ' ');
  if (!text.empty() && text[0] >= 'a' && text[0] <= 'z') text[0] = static_cast<char>(text[0] - 'a' + 'A');
  return text;
}

bool is_shown(const Field& f) {
  return !f.orders && (f.type == FieldType::text || f.type == FieldType::number ||
                       f.type == FieldType::whole || f.type == FieldType::flag || f.type == FieldType::word);
}

/// What 0 says nothing of; an instrument's zero is one.
bool means_nothing_at_zero(const Field& f) {
  const std::string_view name = f.name;
  return (f.type == FieldType::number && f.rule != Rule::any && name != "temperature") || name == "edges";
}

/// Without the noughts at its end: 26, 6.35.
std::string short_number(double value, int decimals) {
  auto text = number_text(value, decimals);
  if (text.find('.') == std::string::npos) return text;
  while (text.back() == '0') text.pop_back();
  if (text.back() == '.') text.pop_back();
  return text;
}

std::string lower(std::string text) {
  for (auto& c : text)
    if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
  return text;
}

} // namespace

const std::vector<int>& kinds() {
  static const std::vector<int> list{kind_of<Machine>, kind_of<Tool>, kind_of<Instrument>, kind_of<Supply>,
                                     kind_of<Offcut>};
  return list;
}

const std::vector<Column>& columns(int kind) {
  static std::map<int, std::vector<Column>> known = [] {
    std::map<int, std::vector<Column>> all;
    for (const int k : kinds()) {
      const auto& d = description(k);
      for (const auto& f : d.fields)
        if (is_shown(f))
          all[k].push_back(
              {&f, title_of(d.name, f.name), f.type == FieldType::number || f.type == FieldType::whole});
      // What it is stands beside its name.
      auto& list = all[k];
      std::stable_sort(list.begin(), list.end(), [](const Column& a, const Column& b) {
        const auto place = [](const Column& c) {
          const std::string_view name = c.field->name;
          return name == "name" || name == "form" ? 0 : name == "kind" || name == "material" ? 1 : 2;
        };
        return place(a) < place(b);
      });
    }
    return all;
  }();
  return known.at(kind);
}

std::vector<std::pair<Id, Record>> rows(const Build& build, int kind) {
  std::vector<std::pair<Id, Record>> out;
  for (const auto& [id, record] : build.records())
    if (record.kind() == kind) out.emplace_back(id, record);
  std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) {
    return a.second.description().place_of(a.second.value().get()) <
           b.second.description().place_of(b.second.value().get());
  });
  return out;
}

std::string cell_text(const Record& record, const Column& column, Unit unit) {
  const auto& f = *column.field;
  const void* at = f.at_const(record.value().get());
  switch (f.type) {
  case FieldType::text:
    return *static_cast<const std::string*>(at);
  case FieldType::flag:
    return *static_cast<const bool*>(at) ? "yes" : "";
  case FieldType::whole: {
    const int n = *static_cast<const int*>(at);
    return n == 0 ? "" : std::to_string(n);
  }
  case FieldType::word: {
    const auto word = f.words.first[static_cast<std::size_t>(f.word_at(record.value().get()))];
    return word == "not stated" ? "" : std::string(word);
  }
  default:
    break;
  }
  const double value = *static_cast<const double*>(at);
  if (value == 0 && means_nothing_at_zero(f)) return "";
  if (f.measures == Measures::length)
    return short_number(unit == Unit::mm ? value : value / 25.4, unit == Unit::mm ? 3 : 4);
  if (f.measures == Measures::angle) return angle_text(value);
  return short_number(value, 3);
}

std::string exact_text(const Record& record, const Column& column) {
  const auto& f = *column.field;
  const void* at = f.at_const(record.value().get());
  // Empty is what a record begins with: what differs from that is written.
  const auto begun = description(record.kind()).make();
  const void* first = f.at_const(begun.get());
  if (f.type == FieldType::flag) {
    const bool yes = *static_cast<const bool*>(at);
    return yes == *static_cast<const bool*>(first) ? (yes ? "yes" : "") : yes ? "yes" : "no";
  }
  if (f.type == FieldType::whole) {
    const int n = *static_cast<const int*>(at);
    return n == 0 && *static_cast<const int*>(first) == 0 ? "" : std::to_string(n);
  }
  if (f.type == FieldType::word)
    return f.word_at(record.value().get()) == f.word_at(begun.get()) && f.word_at(begun.get()) == 0
               ? cell_text(record, column, Unit::mm)
               : std::string(f.words.first[static_cast<std::size_t>(f.word_at(record.value().get()))]);
  if (f.type != FieldType::number) return cell_text(record, column, Unit::mm);
  const double value = *static_cast<const double*>(at);
  if (value == 0 && *static_cast<const double*>(first) == 0 && means_nothing_at_zero(f)) return "";
  return f.measures == Measures::angle ? fmt::format("{}\u00B0", degrees(value)) : fmt::format("{}", value);
}

Typed typed(const Record& record, const Column& column, const std::string& text, Unit unit) {
  const auto& f = *column.field;
  auto changed = record.description().copy(record.value().get());
  void* at = f.at(changed.get());
  const std::string words(trimmed(text));
  const auto refuse = [&](std::string why) { return Typed{record, column.title + ": " + std::move(why)}; };
  switch (f.type) {
  case FieldType::text:
    if (std::string_view(f.name) == "name" && words.empty()) return refuse("needs a name");
    if (std::string_view(f.name) == "speeds")
      if (auto wrong = cutting::speeds_of(words).wrong; !wrong.empty()) return refuse(std::move(wrong));
    *static_cast<std::string*>(at) = words;
    break;
  case FieldType::flag: {
    const auto said = lower(words);
    const bool yes = said == "yes" || said == "y" || said == "x" || said == "1" || said == "true";
    const bool no =
        said.empty() || said == "no" || said == "n" || said == "0" || said == "false" || said == "-";
    if (!yes && !no) return refuse("yes or no");
    *static_cast<bool*>(at) = yes;
    break;
  }
  case FieldType::whole: {
    const auto n = words.empty() ? std::optional<std::int64_t>(0) : whole_from(words);
    if (!n || *n < 0 || *n > 1000000) return refuse("a whole number");
    *static_cast<int*>(at) = static_cast<int>(*n);
    break;
  }
  case FieldType::word: {
    std::size_t found = f.words.second;
    std::string all;
    for (std::size_t k = 0; k < f.words.second; ++k) {
      if (lower(std::string(f.words.first[k])) == lower(words) || (words.empty() && k == 0)) found = k;
      all += (k == 0 ? "" : ", ") + std::string(f.words.first[k]);
    }
    if (found == f.words.second) return refuse("one of " + all);
    f.set_word(changed.get(), static_cast<int>(found));
    break;
  }
  case FieldType::number: {
    double value = 0;
    if (!words.empty() && f.measures == Measures::length) {
      LengthOptions options;
      options.bare_unit = unit;
      options.decimal_comma = true;
      const auto length = parse_length(words, options);
      if (length.status != LengthStatus::ok) return refuse(length.message);
      value = length.mm;
    } else if (!words.empty() && f.measures == Measures::angle) {
      const auto angle = parse_angle(words);
      if (!angle.ok) return refuse(angle.message);
      value = angle.radian;
    } else if (!words.empty()) {
      const auto number = number_from(words, true);
      if (!number) return refuse("a number");
      value = *number;
    } else if (f.rule == Rule::positive) {
      return refuse("must be above 0");
    }
    *static_cast<double*>(at) = value;
    break;
  }
  default:
    break;
  }
  Record made(record.kind(), std::move(changed));
  if (const auto wrong = first_wrong(made)) return refuse(wrong->rule);
  return {std::move(made), {}};
}

Added begin(const Build& build, int kind, const std::string& name) {
  const auto order = static_cast<double>(rows(build, kind).size());
  const auto begun = [&](auto record, const std::string& label) {
    record.order = order;
    return added(build, std::move(record), "Add " + label);
  };
  if (kind == kind_of<Offcut>) {
    Offcut o;
    const auto [list, count] = words_of<StockForm>();
    bool known = false;
    for (std::size_t k = 0; k < count; ++k)
      if (lower(name) == list[k]) o.form = static_cast<StockForm>(k), known = true;
    if (!known || o.form == StockForm::casting || o.form == StockForm::forging || o.form == StockForm::bought)
      return {0, {}, "Form: say which bar, plate, sheet or tube is left over: \"round bar\""};
    return begun(o, "an offcut");
  }
  if (trimmed(name).empty()) return {0, {}, "Name: needs a name"};
  if (kind == kind_of<Machine>) {
    Machine m;
    m.name = name;
    m.unit = build.info().unit;
    m.resolution = allowance::usual_graduation(m.unit);
    // "lathe", "the small mill": what it is follows from its name, until something else is said.
    const auto [list, count] = words_of<MachineKind>();
    for (std::size_t k = 1; k < count; ++k)
      if (lower(name).find(list[k]) != std::string::npos) m.kind = static_cast<MachineKind>(k);
    m.reads_diameter = m.kind == MachineKind::lathe;
    return begun(m, name);
  }
  if (kind == kind_of<Tool>) {
    Tool t;
    t.name = name;
    const auto [list, count] = words_of<ToolKind>();
    for (std::size_t k = 1; k < count; ++k)
      if (lower(name).find(list[k]) != std::string::npos) t.kind = static_cast<ToolKind>(k);
    return begun(t, name);
  }
  if (kind == kind_of<Instrument>) {
    Instrument i;
    i.name = name;
    return begun(i, name);
  }
  Supply s;
  s.name = name;
  return begun(s, name);
}

Edit set_cell(const Build& build, Id id, const Column& column, const Record& changed) {
  return replace(build, id, changed, fmt::format("{} of {}", column.title, build::name_of(changed)));
}

Edit log_made(const Build& build, Id tool, double wanted, double made, const std::string& at) {
  const auto* t = build.find<Tool>(tool);
  if (!t) return build::is_gone();
  if (wanted <= 0 || made <= 0) return build::cannot("what was wanted and what it made must be above 0");
  auto changed = *t;
  changed.made.push_back({wanted, made, at});
  return replace(build, tool, changed, "Size made by " + t->name);
}

std::optional<double> cuts_over(const Tool& tool) {
  if (tool.made.empty()) return std::nullopt;
  double sum = 0;
  for (const auto& one : tool.made) sum += one.made - one.wanted;
  return sum / static_cast<double>(tool.made.size());
}

std::optional<double> cost_per_edge(double price, int edges) {
  if (!(price > 0) || edges <= 0) return std::nullopt;
  return price / edges;
}

std::string cost_text(const Record& record) {
  const auto* tool = record.as<Tool>();
  const auto* supply = record.as<Supply>();
  const double price = tool ? tool->price : supply ? supply->price : 0;
  const int edges = tool ? tool->edges : supply ? supply->edges : 0;
  const auto each = cost_per_edge(price, edges);
  if (!each) return {};
  return fmt::format("{} for {} edge{}: {} an edge", number_text(price, 2), edges, edges == 1 ? "" : "s",
                     number_text(*each, 2));
}

std::vector<Missing> missing_tools(const Build& build) {
  constexpr double same = 0.03; // mm: a drill so near serves
  std::vector<Missing> out;
  for (const auto& [id, o] : build.all<Operation>()) {
    const bool wants =
        o.kind == OperationKind::drill || o.kind == OperationKind::ream || o.kind == OperationKind::tap;
    if (!wants || o.tool != 0 || o.size <= 0) continue;
    const auto known = std::find_if(out.begin(), out.end(), [&, &o = o](const Missing& m) {
      return m.kind == o.kind && std::abs(m.size - o.size) < 1e-6;
    });
    if (known != out.end()) {
      known->operations.push_back(id);
      continue;
    }
    Missing missing{o.kind, o.size, {id}, {}};
    const auto text = [&](double mm) {
      return length_text(mm, build.info().unit, {.decimals_mm = 2, .show_unit = true});
    };
    if (o.kind == OperationKind::tap) missing.instead = "cut the thread in the lathe";
    for (const auto& [tool_id, tool] : build.tools()) {
      if (tool.kind == ToolKind::end_mill && o.kind == OperationKind::drill &&
          std::abs(tool.size - o.size) < same)
        missing.instead = fmt::format("{}, plunged after a pilot hole", tool.name);
      if (tool.kind == ToolKind::boring_bar && o.kind != OperationKind::tap && tool.size > 0 &&
          tool.size < 0.9 * o.size)
        missing.instead = fmt::format("bore it with {}", tool.name);
      if (tool.kind == ToolKind::drill && o.kind == OperationKind::drill && tool.size < o.size &&
          o.size - tool.size < 0.2 && missing.instead.empty())
        missing.instead =
            fmt::format("{} and a reamer or a file: {} smaller", tool.name, text(o.size - tool.size));
    }
    out.push_back(std::move(missing));
  }
  std::sort(out.begin(), out.end(), [](const Missing& a, const Missing& b) {
    return std::tie(a.kind, a.size) < std::tie(b.kind, b.size);
  });
  return out;
}

Added to_buy(const Build& build, const std::string& what) {
  for (const auto& [id, s] : build.supplies())
    if (s.kind == SupplyKind::to_buy && s.name == what) return {id, {}, "it is on the list already: " + what};
  Supply s;
  s.name = what;
  s.kind = SupplyKind::to_buy;
  s.count = 1;
  s.order = static_cast<double>(build.supplies().size());
  return added(build, s, "To buy: " + what);
}

std::string sizes_of(const Build& build, ToolKind kind, Unit unit) {
  std::string sizes;
  for (const auto& [id, tool] : build.tools())
    if (tool.kind == kind && tool.size > 0)
      sizes += (sizes.empty() ? "" : " ") + short_number(from_mm(tool.size, unit), 5);
  return sizes;
}

} // namespace datrin::shop
