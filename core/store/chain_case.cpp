#include "store/chain_case.h"

#include "quantity/length_text.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <cmath>
#include <set>

namespace datrin::store {

using nlohmann::ordered_json;

namespace {

std::int64_t whole(const JsonAt& at, double least, double most) {
  const double value = at.number();
  if (value < least || value > most || value != std::floor(value))
    at.refuse(fmt::format("must be a whole number from {:.0f} to {:.0f}", least, most));
  return static_cast<std::int64_t>(value);
}

void read(const JsonAt& root, ChainCase& out) {
  root.only_keys({"format", "version", "unit", "title", "terms", "lower", "upper", "samples", "seed"});
  only_format(root, "datrin-chain-case");
  out.unit = unit_from(root.at("unit"));
  if (root.has("title")) out.title = root.at("title").text();
  const auto mm = [&](double value) { return to_mm(value, out.unit); };
  const auto terms = root.at("terms");
  if (terms.size() == 0) terms.refuse("must have at least one term");
  std::set<std::string> ids;
  for (std::size_t k = 0; k < terms.size(); ++k) {
    const auto at = terms.at(k);
    at.only_keys(
        {"id", "coefficient", "nominal", "plus", "minus", "distribution", "measured", "uncertainty"});
    chains::ChainLink link;
    link.id = at.at("id").name();
    if (!ids.insert(link.id).second)
      at.at("id").refuse(fmt::format("two terms are called \"{}\"", one_line(link.id)));
    link.coefficient = at.at("coefficient").number();
    link.nominal = mm(at.at("nominal").number());
    link.plus = mm(at.at("plus").not_negative());
    link.minus = mm(at.at("minus").not_negative());
    if (at.has("distribution")) {
      const auto name = at.at("distribution").text();
      if (name != "normal" && name != "uniform")
        at.at("distribution")
            .refuse(fmt::format("there is no distribution called \"{}\"; it is \"normal\" or \"uniform\"",
                                one_line(name)));
      link.distribution = name == "normal" ? chains::Distribution::normal : chains::Distribution::uniform;
    }
    if (at.has("measured")) {
      link.measured = mm(at.at("measured").number());
      if (at.has("uncertainty")) link.uncertainty = mm(at.at("uncertainty").not_negative());
    }
    out.input.links.push_back(std::move(link));
  }
  out.input.lower = mm(root.at("lower").number());
  out.input.upper = mm(root.at("upper").number());
  if (out.input.lower > out.input.upper) root.at("lower").refuse("must not be above upper");
  if (root.has("samples")) out.options.samples = whole(root.at("samples"), 1, 1e9);
  if (root.has("seed")) out.options.seed = static_cast<std::uint64_t>(whole(root.at("seed"), 0, 9e15));
}

} // namespace

ChainCase read_chain_case(std::string_view text, const std::string& label) {
  ChainCase out;
  read_case(out, text, label, [&](const JsonAt& root) { read(root, out); });
  return out;
}

ChainCase read_chain_case_file(const std::string& path) {
  return read_case_file(path, read_chain_case);
}

ordered_json chain_result_json(const ChainCase& chain_case, const chains::ChainResult& result) {
  const auto length = [&](double mm) { return from_mm(mm, chain_case.unit); };
  ordered_json out{{"format", "datrin-chain-result"}, {"version", 1}, {"unit", unit_name(chain_case.unit)}};
  out["worst_case"] = {length(result.worst_low), length(result.worst_high)};
  out["mean"] = length(result.mean);
  out["sigma"] = length(result.sigma);
  out["p_within"] = result.p_within;
  out["contributions"] = ordered_json::array();
  for (const auto& c : result.contributions)
    out["contributions"].push_back({{"id", c.id}, {"share", c.share}});
  return out;
}

std::string chain_result_text(const ChainCase& chain_case, const chains::ChainResult& result) {
  const LengthTextOptions figures{.decimals_mm = 4, .decimals_inch = 5};
  const auto text_of = [&](double mm) { return length_text(mm, chain_case.unit, figures); };
  std::string text = chain_case.title.empty() ? std::string{} : chain_case.title + "\n";
  text += fmt::format(
      "wanted      {} to {} {}\nworst case  {} to {}\nexpected    {} \u00B1{} (3 \u03C3)\nwithin      {} % "
      "of {} tries\n\n",
      text_of(chain_case.input.lower), text_of(chain_case.input.upper), unit_name(chain_case.unit),
      text_of(result.worst_low), text_of(result.worst_high), text_of(result.mean), text_of(3 * result.sigma),
      number_text(100 * result.p_within, 2), chain_case.options.samples);
  for (const auto& c : result.contributions) text += fmt::format("{:<36} {:>5.1f} %\n", c.id, 100 * c.share);
  return text;
}

} // namespace datrin::store
