#include "store/targets_case.h"

#include "chains/conflicts.h"
#include "quantity/length_text.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <cmath>
#include <map>

namespace datrin::store {

using nlohmann::ordered_json;

namespace {

class TargetsReader {
public:
  explicit TargetsReader(TargetsCase& out) : out_(out) {}

  void read(const JsonAt& root) {
    root.only_keys({"format", "version", "unit", "title", "dimensions", "conditions"});
    only_format(root, "datrin-targets-case");
    out_.unit = unit_from(root.at("unit"));
    if (root.has("title")) out_.title = root.at("title").text();
    const auto dimensions = root.at("dimensions");
    if (dimensions.size() == 0) dimensions.refuse("must have at least one dimension");
    for (std::size_t k = 0; k < dimensions.size(); ++k) dimension(dimensions.at(k));
    const auto conditions = root.at("conditions");
    for (std::size_t k = 0; k < conditions.size(); ++k) condition(conditions.at(k));
  }

private:
  double mm(double value) const { return to_mm(value, out_.unit); }

  void dimension(const JsonAt& at) {
    at.only_keys({"id", "nominal", "lower", "upper", "capability", "measured", "uncertainty"});
    chains::TargetDimension d;
    d.id = at.at("id").name();
    if (!index_.emplace(d.id, static_cast<int>(out_.input.dimensions.size())).second)
      at.at("id").refuse(fmt::format("two dimensions are called \"{}\"", one_line(d.id)));
    ids_.push_back(d.id);
    d.nominal = mm(at.at("nominal").number());
    d.lower = mm(at.at("lower").number());
    d.upper = mm(at.at("upper").number());
    if (d.lower > d.upper) at.at("lower").refuse("must not be above upper");
    if (at.has("measured")) {
      d.measured = mm(at.at("measured").number());
      if (at.has("uncertainty")) d.uncertainty = mm(at.at("uncertainty").not_negative());
      if (at.has("capability")) d.capability = mm(at.at("capability").positive());
    } else {
      d.capability = mm(at.at("capability").positive());
      if (at.has("uncertainty")) {
        at.at("uncertainty").not_negative();
        at.at("uncertainty").warn("is left out: the dimension is not measured");
      }
    }
    out_.input.dimensions.push_back(std::move(d));
  }

  void condition(const JsonAt& at) {
    at.only_keys({"id", "terms", "min", "max"});
    chains::TargetCondition c;
    c.id = at.at("id").name();
    if (!conditions_.emplace(c.id, 0).second)
      at.at("id").refuse(fmt::format("two conditions are called \"{}\"", one_line(c.id)));
    const auto terms = at.at("terms");
    if (terms.size() == 0) terms.refuse("must have at least one term");
    for (std::size_t k = 0; k < terms.size(); ++k) {
      const auto term = terms.at(k);
      term.only_keys({"dimension", "coefficient"});
      const auto name = term.at("dimension").text();
      const auto found = index_.find(name);
      if (found == index_.end())
        term.at("dimension")
            .refuse(fmt::format("no dimension is called \"{}\"{}", one_line(name), did_you_mean(name, ids_)));
      c.terms.push_back({found->second, term.at("coefficient").number()});
    }
    if (!at.has("min") && !at.has("max")) at.refuse("must have a min or a max");
    if (at.has("min")) c.least = mm(at.at("min").number());
    if (at.has("max")) c.most = mm(at.at("max").number());
    if (c.least > c.most) at.at("min").refuse("must not be above max");
    out_.input.conditions.push_back(std::move(c));
  }

  TargetsCase& out_;
  std::map<std::string, int> index_, conditions_;
  std::vector<std::string> ids_;
};

} // namespace

TargetsCase read_targets_case(std::string_view text, const std::string& label) {
  TargetsCase out;
  read_case(out, text, label, [&](const JsonAt& root) { TargetsReader(out).read(root); });
  return out;
}

TargetsCase read_targets_case_file(const std::string& path) {
  return read_case_file(path, read_targets_case);
}

ordered_json targets_result_json(const TargetsCase& targets_case, const chains::TargetsResult& result) {
  const auto& in = targets_case.input;
  const auto length = [&](double mm) { return from_mm(mm, targets_case.unit); };
  const auto number = [](double v) { return std::isfinite(v) ? ordered_json(v) : ordered_json(nullptr); };
  ordered_json out{
      {"format", "datrin-targets-result"}, {"version", 1}, {"unit", unit_name(targets_case.unit)}};
  out["feasible"] = result.feasible;
  out["least_room"] = number(result.least_room);
  out["targets"] = ordered_json::array();
  for (const auto& t : result.targets)
    out["targets"].push_back({{"dimension", in.dimensions[static_cast<std::size_t>(t.dimension)].id},
                              {"make", length(t.make)},
                              {"hold", length(t.hold)}});
  out["conditions"] = ordered_json::array();
  for (std::size_t c = 0; c < result.conditions.size(); ++c)
    out["conditions"].push_back({{"id", in.conditions[c].id},
                                 {"expected", length(result.conditions[c].expected)},
                                 {"room", number(result.conditions[c].room)},
                                 {"limiting", result.conditions[c].limiting}});
  out["held_by"] = ordered_json::array();
  for (const auto& hold : result.held_by)
    out["held_by"].push_back({{"limit", hold.limit}, {"share", hold.share}});
  return out;
}

std::string targets_result_text(const TargetsCase& targets_case, const chains::TargetsResult& result) {
  const auto& in = targets_case.input;
  const auto unit = targets_case.unit;
  const LengthTextOptions figures{.decimals_mm = 4, .decimals_inch = 5};
  std::string text = targets_case.title.empty() ? std::string{} : targets_case.title + "\n";
  text += fmt::format("{}: the least room is {}\n\n",
                      result.feasible ? "It can be made" : "It cannot all be held",
                      number_text(result.least_room, 3, true));
  text += fmt::format("{:<36} {:>11} {:>11} {:>8}\n", "make", unit_name(unit), "hold \u00B1", "room");
  for (const auto& t : result.targets)
    text += fmt::format(
        "{:<36} {:>11} {:>11} {:>8}{}\n", in.dimensions[static_cast<std::size_t>(t.dimension)].id,
        length_text(t.make, unit, figures), length_text(t.hold, unit, figures), number_text(t.room, 2, true),
        t.departs != 0
            ? fmt::format("  departs from the drawing by {}", length_text(t.departs, unit, figures))
            : "");
  text += fmt::format("\n{:<36} {:>11} {:>11} {:>8}\n", "condition", "expected", "", "room");
  for (std::size_t c = 0; c < result.conditions.size(); ++c)
    text += fmt::format("{:<36} {:>11} {:>11} {:>8}{}\n", in.conditions[c].id,
                        length_text(result.conditions[c].expected, unit, figures), "",
                        number_text(result.conditions[c].room, 2, true),
                        result.conditions[c].limiting ? "  limits" : "");
  text += "\nHeld by\n";
  for (const auto& hold : result.held_by)
    text += fmt::format("{:<48} {:>5.1f} %\n", hold.limit, 100 * hold.share);
  const auto conflicts = chains::conflicts(in, result);
  if (!conflicts.empty()) text += "\nWhat would end it\n";
  for (const auto& conflict : conflicts) text += chains::conflict_words(in, conflict, unit) + "\n";
  return text;
}

} // namespace datrin::store
