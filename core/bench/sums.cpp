#include "bench/sum_lists.h"
#include "quantity/text.h"
#include "quantity/unit.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace datrin::bench {

const std::vector<Sum>& sums() {
  static const auto all = [] {
    std::vector<Sum> list;
    add_stock_sums(list);
    add_casting_sums(list);
    add_setup_sums(list);
    add_cutting_sums(list);
    add_taper_sums(list);
    add_angle_sums(list);
    add_truing_sums(list);
    add_machine_sums(list);
    add_path_sums(list);
    add_dividing_sums(list);
    add_trade_words(list);
    return list;
  }();
  return all;
}

const Sum* sum_called(std::string_view id) {
  for (const auto& sum : sums())
    if (sum.id == id) return &sum;
  return nullptr;
}

std::string key_of(std::string_view name) {
  std::string key;
  for (const char c : lower_case(name)) {
    const bool kept = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
    if (kept)
      key += c;
    else if (!key.empty() && key.back() != '_')
      key += '_';
  }
  while (!key.empty() && key.back() == '_') key.pop_back();
  return key;
}

bool is_called(const Sum& sum, std::string_view words) {
  std::string all = sum.id + " " + sum.group + " " + sum.title + " " + sum.words + " " + sum.trade;
  for (const auto& field : sum.fields) all += " " + field.name;
  all = lower_case(all);
  const auto wanted = lower_case(words);
  const auto parts = words_of(wanted);
  return std::all_of(parts.begin(), parts.end(),
                     [&](std::string_view word) { return all.find(word) != std::string::npos; });
}

SumValues::SumValues(const std::vector<SumField>& fields, std::vector<SumValue> values)
    : fields_(fields), values_(std::move(values)) {
  values_.resize(fields_.size());
}

const SumValue& SumValues::at(std::string_view field) const {
  for (std::size_t k = 0; k < fields_.size(); ++k)
    if (fields_[k].name == field) return values_[k];
  throw std::logic_error(fmt::format("this sum has no field {}", field));
}

namespace {

/// What the figures came to, looked at once more: nothing endless, nothing beyond any workshop.
SumAnswer within_reason(SumAnswer out) {
  if (!out.ok) return out;
  for (const auto& line : out.lines) {
    const bool size = line.quantity == Quantity::length;
    if (std::isfinite(line.value) && (!size || is_length(line.value))) continue;
    SumAnswer none;
    none.message =
        fmt::format("{}: comes to no size there is; look at what was typed, and at its unit", line.label);
    return none;
  }
  return out;
}

} // namespace

SumAnswer answer(const Sum& sum, const std::vector<SumValue>& values, Unit unit) {
  SumAnswer out;
  for (std::size_t k = 0; k < sum.fields.size(); ++k) {
    const auto& field = sum.fields[k];
    const bool given = k < values.size() && values[k].given;
    if (!given && !field.may_be_empty) {
      out.message = fmt::format("{} is missing", field.name);
      return out;
    }
    if (!given) continue;
    if (!std::isfinite(values[k].value)) {
      out.message = fmt::format("{}: not a number", field.name);
      return out;
    }
    if (field.quantity == Quantity::length && values[k].value < 0 && !field.either_side) {
      out.message = fmt::format("{}: must not be below 0", field.name);
      return out;
    }
    if (field.quantity == Quantity::length && !is_length(values[k].value)) {
      out.message = fmt::format("{}: {}", field.name, too_long);
      return out;
    }
    if (field.quantity == Quantity::count &&
        (values[k].value < 1 || values[k].value != std::floor(values[k].value) || values[k].value > 10000)) {
      out.message = fmt::format("{}: a whole number from 1 to 10000 is needed", field.name);
      return out;
    }
  }
  auto all = values;
  all.resize(sum.fields.size());
  for (std::size_t k = 0; k < all.size(); ++k) {
    const auto& field = sum.fields[k];
    if (field.quantity != Quantity::choice) continue;
    const auto& choices = field.choices;
    if (!all[k].given) all[k].text = choices.front();
    if (std::find(choices.begin(), choices.end(), all[k].text) == choices.end()) {
      out.message = fmt::format("{}: write {}", field.name, fmt::join(choices, " or "));
      return out;
    }
  }
  return within_reason(sum.reckon(SumValues(sum.fields, std::move(all)), unit));
}

} // namespace datrin::bench
