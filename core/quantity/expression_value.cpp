#include "quantity/expression_value.h"

#include "quantity/expression.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace datrin {

namespace {

constexpr double most = 1e15; ///< of any number on the way
constexpr double whole_power = 1e-9;

ExpressionOutcome wrong(std::string why, bool unit_missing = false) {
  return {{}, std::move(why), unit_missing};
}

/// Finished: within what can be reckoned with.
ExpressionOutcome done(ExpressionValue v) {
  if (!(std::abs(v.value) <= most)) return wrong("the number is too large to work with");
  if (v.power != 0) v.kind = ValueKind::dimensioned;
  return {std::move(v), {}, false};
}

std::string bracketed(const ExpressionValue& v, int binds) {
  return v.binds < binds ? "(" + v.text + ")" : v.text;
}

bool without_unit(const ExpressionValue& v) {
  return v.kind == ValueKind::bare || v.kind == ValueKind::fraction;
}

/// Of two without a length: a fraction stays one (in inches if it is ever a length), then a bare number.
ValueKind kind_of_both(const ExpressionValue& a, const ExpressionValue& b) {
  for (const auto kind : {ValueKind::fraction, ValueKind::bare})
    if (a.kind == kind || b.kind == kind) return kind;
  return ValueKind::number;
}

} // namespace

std::string power_words(double power) {
  if (power == 0) return "a bare number";
  if (power == 1) return "a length";
  if (power == 2) return "an area";
  if (power == 3) return "a volume";
  return fmt::format("a length to the power {:.4g}", power);
}

ExpressionOutcome as_length(ExpressionValue v, std::optional<Unit> dial) {
  if (v.kind == ValueKind::dimensioned) {
    if (v.power == 1) return {std::move(v), {}, false};
    return wrong(fmt::format("{} is {}; a length is wanted", v.text, power_words(v.power)));
  }
  if (v.kind == ValueKind::number)
    return wrong(fmt::format("{} is a bare number, {}; a length is wanted", v.text, number_text(v.value, 4)));
  if (v.kind == ValueKind::bare && !dial)
    return wrong(fmt::format("{} has no unit; write mm or in after it", v.text), true);
  const Unit unit = v.kind == ValueKind::fraction ? Unit::inch : *dial;
  v.text = fmt::format("{} {}", bracketed(v, 3), unit_name(unit));
  v.value = to_mm(v.value, unit);
  v.power = 1;
  v.kind = ValueKind::dimensioned;
  v.binds = 3;
  return {std::move(v), {}, false};
}

ExpressionOutcome add(ExpressionValue a, ExpressionValue b, bool minus, std::optional<Unit> dial) {
  const bool mixed = without_unit(a) && without_unit(b) && a.kind != b.kind;
  if (mixed && !(a.linear && b.linear))
    return wrong(
        fmt::format("{} and {} are not of one unit; write mm or in after the numbers", a.text, b.text));
  if (mixed || (a.power != 0) != (b.power != 0))
    for (auto* v : {&a, &b}) {
      if (v->power == 0 && std::max(a.power, b.power) != 1 && !mixed)
        return wrong(fmt::format("{} cannot be added to {}", power_words(v->power),
                                 power_words(std::max(a.power, b.power))));
      auto length = as_length(*v, dial);
      if (!length.ok()) return length;
      *v = std::move(length.value);
    }
  if (a.power != b.power)
    return wrong(fmt::format("{} cannot be added to {}", power_words(b.power), power_words(a.power)));
  ExpressionValue sum;
  // Beside a ratio or a sine a bare number is one as well: 1 + sin(30) is 1.5, of no unit.
  const bool number = a.kind == ValueKind::number || b.kind == ValueKind::number;
  sum.kind = a.power != 0 ? ValueKind::dimensioned : number ? ValueKind::number : kind_of_both(a, b);
  sum.power = a.power;
  sum.value = minus ? a.value - b.value : a.value + b.value;
  sum.linear = a.linear && b.linear;
  sum.text = a.text + (minus ? " \u2212 " + bracketed(b, 2) : " + " + b.text);
  sum.binds = 1;
  return done(std::move(sum));
}

ExpressionOutcome multiply(const ExpressionValue& a, const ExpressionValue& b) {
  ExpressionValue product;
  product.power = a.power + b.power;
  product.kind = kind_of_both(a, b);
  product.value = a.value * b.value;
  product.linear = a.linear && b.linear;
  product.text = bracketed(a, 2) + " \u00D7 " + bracketed(b, 2);
  product.binds = 2;
  return done(std::move(product));
}

ExpressionOutcome divide(const ExpressionValue& a, const ExpressionValue& b, std::optional<Unit> dial) {
  if (b.value == 0) return wrong("nothing can be divided by 0");
  auto top = a;
  if (b.power == 1 && without_unit(a)) { // a length by a length, the one in the unit it would have alone
    auto length = as_length(a, dial);
    if (!length.ok()) return length;
    top = std::move(length.value);
  }
  ExpressionValue ratio;
  ratio.power = top.power - b.power;
  const bool both_inches = a.kind == ValueKind::fraction && b.kind == ValueKind::fraction;
  const bool both_lengths = top.power != 0 && b.power != 0;
  ratio.kind = both_inches || both_lengths ? ValueKind::number : kind_of_both(top, b);
  ratio.value = top.value / b.value;
  ratio.linear = a.linear && b.linear;
  ratio.text = bracketed(top, 2) + " \u00F7 " + bracketed(b, 3);
  ratio.binds = 2;
  return done(std::move(ratio));
}

ExpressionOutcome raise(const ExpressionValue& base, const ExpressionValue& exponent) {
  if (exponent.power != 0) return wrong("an exponent is a bare number");
  const double n = exponent.value;
  if (base.value == 0 && n < 0) return wrong("nothing can be divided by 0");
  if (base.value < 0 && n != std::floor(n))
    return wrong(fmt::format("{} is below 0: it has no such root", base.text));
  ExpressionValue out;
  out.power = base.power * n;
  if (std::abs(out.power - std::round(out.power)) < whole_power) out.power = std::round(out.power);
  out.kind = base.power != 0 && out.power == 0 ? ValueKind::number : base.kind;
  out.value = std::pow(base.value, n);
  out.linear = base.linear && n == 1;
  out.text = bracketed(base, 4) + "^" + bracketed(exponent, 4);
  out.binds = 3;
  return done(std::move(out));
}

namespace {

struct Function {
  const char* name;
  double (*of)(double);
  double root = 0; ///< above 0: a root of that degree, which a length may have
};

constexpr std::array<Function, 11> functions{{
    {"sqrt", nullptr, 2},
    {"root", nullptr, 2},
    {"cbrt", nullptr, 3},
    {"sin", [](double x) { return std::sin(radians(x)); }},
    {"cos", [](double x) { return std::cos(radians(x)); }},
    {"tan", [](double x) { return std::tan(radians(x)); }},
    {"asin", [](double x) { return degrees(std::asin(x)); }},
    {"acos", [](double x) { return degrees(std::acos(x)); }},
    {"atan", [](double x) { return degrees(std::atan(x)); }},
    {"arctan", [](double x) { return degrees(std::atan(x)); }},
    {"abs", [](double x) { return std::abs(x); }},
}};

const Function* function_called(const std::string& name) {
  for (const auto& f : functions)
    if (name == f.name) return &f;
  return nullptr;
}

} // namespace

bool is_function(const std::string& name) {
  return function_called(name) != nullptr;
}

std::optional<ExpressionOutcome> apply_function(const std::string& name, const ExpressionValue& of) {
  const auto* f = function_called(name);
  if (f == nullptr) return std::nullopt;
  const auto text = fmt::format("{}({})", name, of.text);
  if (f->root > 0) {
    if (of.value < 0) return wrong(fmt::format("{} is below 0: it has no root", of.text));
    ExpressionValue exponent;
    exponent.kind = ValueKind::number;
    exponent.power = 0;
    exponent.value = 1 / f->root;
    auto root = raise(of, exponent);
    root.value.text = text;
    root.value.binds = 4;
    if (f->root == 2) root.value.value = std::sqrt(of.value);
    return root;
  }
  if (of.power != 0)
    return wrong(fmt::format("{} is {}; {} is of a bare number", of.text, power_words(of.power), name));
  ExpressionValue out;
  out.kind = ValueKind::number;
  out.power = 0;
  out.value = f->of(of.value);
  out.text = text;
  if (!std::isfinite(out.value)) return wrong(fmt::format("there is no {} of {}", name, of.text));
  return done(std::move(out));
}

} // namespace datrin
