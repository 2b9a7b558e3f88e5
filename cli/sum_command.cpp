#include "sum_command.h"

#include "bench/sum_values.h"
#include "commands.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "threads/threads.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <nlohmann/json.hpp>

namespace datrin::cli {

namespace {

constexpr const char* quantity_name(bench::Quantity quantity) {
  switch (quantity) {
  case bench::Quantity::length:
    return "length";
  case bench::Quantity::angle:
    return "angle";
  case bench::Quantity::count:
    return "count";
  case bench::Quantity::number:
    return "number";
  case bench::Quantity::lengths:
    return "text";
  case bench::Quantity::choice:
    return "choice";
  }
  return "";
}

int list_sums(bool as_text, std::ostream& out) {
  auto all = nlohmann::ordered_json::array();
  for (const auto& sum : bench::sums()) {
    auto fields = nlohmann::ordered_json::array();
    if (as_text) fmt::print(out, "{:<18} {}\n", sum.id, sum.title);
    for (const auto& field : sum.fields) {
      nlohmann::ordered_json one{{"field", bench::key_of(field)},
                                 {"name", field.name},
                                 {"quantity", quantity_name(field.quantity)},
                                 {"may_be_empty", field.may_be_empty}};
      if (!field.choices.empty()) one["choices"] = field.choices;
      fields.push_back(std::move(one));
      if (as_text)
        fmt::print(out, "  {:<16} {}{}\n", bench::key_of(field), field.name,
                   field.may_be_empty ? " (optional)" : "");
    }
    all.push_back({{"id", sum.id}, {"title", sum.title}, {"fields", std::move(fields)}});
  }
  if (!as_text) out << all.dump(2) << '\n';
  return answer_yes;
}

/// "hole" for "hole=12": the field's place in the sum, or −1.
int field_called(const bench::Sum& sum, std::string_view key) {
  for (std::size_t k = 0; k < sum.fields.size(); ++k)
    if (bench::key_of(sum.fields[k]) == key) return static_cast<int>(k);
  return -1;
}

std::string field_list(const bench::Sum& sum) {
  std::string names;
  for (const auto& field : sum.fields) names += (names.empty() ? "" : ", ") + bench::key_of(field);
  return names;
}

} // namespace

int run_sum(const SumCall& call, std::ostream& out, std::ostream& err) {
  if (call.list) return list_sums(call.as_text, out);
  const auto refuse = [&err](const std::string& why) {
    fmt::print(err, "sum: {}\n", why);
    return refused;
  };
  const auto* sum = bench::sum_called(call.id);
  if (sum == nullptr) {
    std::vector<std::string> ids;
    for (const auto& one : bench::sums()) ids.push_back(one.id);
    return refuse(fmt::format("there is no sum \"{}\"{}; datrin-cli sum --list has them all", call.id,
                              did_you_mean(call.id, ids)));
  }
  LengthOptions lengths;
  lengths.thread_hole = threads::hole_of;
  if (!call.unit.empty()) {
    lengths.bare_unit = unit_from_name(call.unit);
    if (!lengths.bare_unit)
      return refuse(fmt::format("--unit: there is no unit called \"{}\"; it is \"mm\" or \"in\"", call.unit));
  } else {
    lengths.bare_unit = Unit::mm;
  }
  const Unit unit = *lengths.bare_unit;
  std::vector<bench::SumValue> values(sum->fields.size());
  for (const auto& given : call.values) {
    const auto at = given.find('=');
    const auto key = given.substr(0, at);
    const int k = at == std::string::npos ? -1 : field_called(*sum, key);
    if (k < 0)
      return refuse(fmt::format("{}: \"{}\" is not field=value with a field of it; they are {}", sum->id,
                                given, field_list(*sum)));
    const auto& field = sum->fields[static_cast<std::size_t>(k)];
    if (values[static_cast<std::size_t>(k)].given)
      return refuse(fmt::format("{}: {} is given twice", sum->id, key));
    auto read = bench::read_value(field, given.substr(at + 1), lengths);
    if (!read.ok()) return refuse(fmt::format("{}: {}: {}", sum->id, key, read.wrong));
    values[static_cast<std::size_t>(k)] = std::move(read.value);
  }
  const auto answer = bench::answer(*sum, values, unit);
  if (!answer.ok) return refuse(fmt::format("{}: {}", sum->id, answer.message));
  const auto keys = bench::keys_of(answer);
  nlohmann::ordered_json json{{"id", sum->id},
                              {"answers", nlohmann::ordered_json::object()},
                              {"how", nlohmann::ordered_json::object()},
                              {"words", answer.words}};
  for (std::size_t k = 0; k < keys.size(); ++k) {
    const auto& line = answer.lines[k];
    const bool length = line.quantity == bench::Quantity::length,
               angle = line.quantity == bench::Quantity::angle;
    json["answers"][keys[k]] = length ? from_mm(line.value, unit) : angle ? degrees(line.value) : line.value;
    json["how"][keys[k]] = line.how;
    if (call.as_text)
      fmt::print(out, "{:<34} {}\n", line.label,
                 length  ? length_text_both(line.value, unit, {.decimals_mm = 4, .decimals_inch = 5})
                 : angle ? angle_text(line.value)
                         : number_text(line.value, line.quantity == bench::Quantity::count ? 0 : 4));
  }
  if (!call.as_text)
    out << json.dump(2) << '\n';
  else if (!answer.words.empty())
    fmt::print(out, "{}\n", answer.words);
  return answer_yes;
}

} // namespace datrin::cli
