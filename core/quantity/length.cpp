#include "quantity/length.h"

#include "quantity/drills.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <array>
#include <charconv>
#include <cmath>
#include <utility>

namespace datrin {
namespace {

/// Vulgar fractions, other minus signs, quotes and micro signs, to their plain spelling; each is one
/// character for the person, so `columns` keeps where each byte of the plain text stood in what was typed.
struct PlainText {
  std::string text;
  std::vector<std::size_t> columns;
};

PlainText plain(std::string_view typed) {
  static constexpr std::array<std::pair<std::string_view, std::string_view>, 25> spelling{{
      {"\u2212", "-"},    {"\u2013", "-"},    {"\u00BD", " 1/2"}, {"\u00BC", " 1/4"},
      {"\u00BE", " 3/4"}, {"\u215B", " 1/8"}, {"\u215C", " 3/8"}, {"\u215D", " 5/8"},
      {"\u215E", " 7/8"}, {"\u2033", "\""},   {"\u201D", "\""},   {"\u201C", "\""},
      {"''", "\""},       {"\u00B5", "u"},    {"\u03BC", "u"},    {"\u00A0", " "},
      {"\u2009", " "},    {"\u202F", " "},    {"\u2044", "/"},    {"\t", " "},
      {"\r", " "},        {"\n", " "},        {"\u2300", ""},     {"\u00D8", ""},
      {"\u00F8", ""}, // a diameter
  }};
  PlainText out;
  std::size_t column = 1;
  for (std::size_t i = 0; i < typed.size();) {
    std::string_view piece = typed.substr(i, 1);
    std::size_t length = 1;
    for (const auto& [from, to] : spelling)
      if (typed.substr(i).starts_with(from)) {
        piece = to;
        length = from.size();
        break;
      }
    for (const char c : piece) {
      out.text += c;
      out.columns.push_back(column);
    }
    // Continuation bytes of a character that is not in the table belong to the column of its first byte.
    i += length;
    if (i >= typed.size() || (static_cast<unsigned char>(typed[i]) & 0xC0) != 0x80) ++column;
  }
  out.columns.push_back(column);
  return out;
}

class Parser {
public:
  Parser(std::string_view typed, const LengthOptions& options) : plain_(plain(typed)), options_(options) {}

  LengthResult run() {
    skip_blanks();
    if (at_end())
      return fail(LengthStatus::empty, "nothing was typed; write a length such as 12.5 mm or 1 3/8 in");
    double sign = take_sign().value_or(1.0);
    bool first = true;
    while (true) {
      skip_blanks();
      if (at_end())
        return fail(LengthStatus::unfinished, "the sum ends with a sign; a length is missing after it");
      LengthTerm term;
      if (!read_term(term)) return std::move(result_);
      if (!is_length(term.mm)) return fail(LengthStatus::too_large, "the length is over 10 km");
      if (first)
        result_.understood = (sign < 0 ? "\u2212" : "") + term.text;
      else
        result_.understood += (sign < 0 ? " \u2212 " : " + ") + term.text;
      first = false;
      term.mm *= sign;
      result_.mm += term.mm;
      result_.terms.push_back(term);
      skip_blanks();
      if (at_end()) break;
      const auto next = take_sign();
      if (!next)
        return fail(LengthStatus::unfinished,
                    fmt::format("\"{}\" was not expected here; write + or \u2212 between "
                                "two lengths",
                                word_here()));
      sign = *next;
    }
    result_.status = LengthStatus::ok;
    return std::move(result_);
  }

private:
  bool at_end() const { return at_ >= plain_.text.size(); }
  char here() const { return at_end() ? '\0' : plain_.text[at_]; }
  char ahead(std::size_t n) const { return at_ + n < plain_.text.size() ? plain_.text[at_ + n] : '\0'; }
  void skip_blanks() {
    while (here() == ' ') ++at_;
  }
  static bool digit(char c) { return c >= '0' && c <= '9'; }
  static bool letter(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (static_cast<unsigned char>(c) & 0x80) != 0;
  }

  LengthResult fail(LengthStatus status, std::string message) {
    result_ = {};
    result_.status = status;
    result_.message = std::move(message);
    result_.column = plain_.columns[std::min(at_, plain_.columns.size() - 1)];
    return std::move(result_);
  }
  bool refuse(LengthStatus status, std::string message) {
    result_ = fail(status, std::move(message));
    return false;
  }

  std::optional<double> take_sign() {
    if (here() != '+' && here() != '-') return std::nullopt;
    return plain_.text[at_++] == '-' ? -1.0 : 1.0;
  }

  std::string word_here() const {
    std::size_t end = at_;
    while (end < plain_.text.size() && plain_.text[end] != ' ' && end - at_ < 24) ++end;
    return plain_.text.substr(at_, end - at_);
  }

  std::string take_letters() {
    std::string word;
    while (letter(here()) && word.size() < 24) word += plain_.text[at_++];
    return word;
  }

  std::string take_digits() {
    std::string digits;
    while (digit(here())) digits += plain_.text[at_++];
    return digits;
  }

  /// "5/16-18 tap", "M6 clear": up to the word, when what stands before it is a thread.
  bool read_thread_hole(LengthTerm& term) {
    if (options_.thread_hole == nullptr) return false;
    static constexpr std::pair<std::string_view, ThreadHole> words[] = {{" tap", ThreadHole::tapping},
                                                                        {" clear", ThreadHole::clearance}};
    const auto small = lower_case(plain_.text);
    for (const auto& [word, hole] : words) {
      const auto found = small.find(word, at_);
      const auto after = found == std::string::npos ? found : found + word.size();
      if (found == std::string::npos || (after < small.size() && letter(small[after]))) continue;
      const auto name = std::string(trimmed(std::string_view(plain_.text).substr(at_, found - at_)));
      const auto diameter = options_.thread_hole(name, hole);
      if (!diameter) continue;
      term = {name + std::string(word), *diameter};
      at_ = after;
      return true;
    }
    return false;
  }

  bool read_term(LengthTerm& term) {
    if (read_thread_hole(term)) return true;
    if (here() == '#') {
      ++at_;
      skip_blanks();
      return read_number_drill(term);
    }
    if (letter(here())) return read_word_drill(term);
    return read_number(term);
  }

  bool read_number_drill(LengthTerm& term) {
    const auto start = at_;
    const auto digits = take_digits();
    const auto diameter = drill_diameter(digits);
    if (digits.empty() || !diameter) {
      at_ = start;
      return refuse(LengthStatus::bad_drill,
                    fmt::format("there is no number drill \"{}\"; they run from #1 to #97", word_here()));
    }
    term = {"#" + digits, *diameter};
    return true;
  }

  bool read_gauge(LengthTerm& term, const std::string& gauge, const std::string& number) {
    const auto diameter = wire_gauge(gauge, number);
    if (!diameter)
      return refuse(LengthStatus::bad_drill,
                    gauge == "swg" ? fmt::format("there is no gauge {} SWG; they run from 0 to 50", number)
                                   : fmt::format("there is no gauge {} AWG; they run from 0 to 40", number));
    term = {fmt::format("{} {}", number, gauge == "swg" ? "SWG" : "AWG"), *diameter};
    return true;
  }

  bool read_word_drill(LengthTerm& term) {
    const auto start = at_;
    auto word = lower_case(take_letters());
    if (word == "no" || word == "number") {
      if (here() == '.') ++at_;
      skip_blanks();
      return read_number_drill(term);
    }
    if (word == "swg" || word == "awg") {
      skip_blanks();
      return read_gauge(term, word, take_digits());
    }
    if (word == "letter") {
      skip_blanks();
      word = lower_case(take_letters());
    }
    const auto diameter = word.size() == 1 ? drill_diameter(word) : std::nullopt;
    if (!diameter) {
      at_ = start;
      return refuse(
          LengthStatus::bad_number,
          fmt::format("\"{}\" is not a length; write a number, a fraction, or a drill such as #30 or F",
                      word_here()));
    }
    term = {fmt::format("letter {}", static_cast<char>(word[0] - 'a' + 'A')), *diameter};
    return true;
  }

  static std::optional<double> value_of(const std::string& digits) {
    double value = 0;
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
    if (error != std::errc{} || end != digits.data() + digits.size() || !std::isfinite(value))
      return std::nullopt;
    return value;
  }

  /// Digits with at most one decimal mark; the mark is normalised to a point.
  bool read_decimal(std::string& digits) {
    const auto start = at_;
    digits = take_digits();
    if (here() == ',' && !options_.decimal_comma)
      return refuse(LengthStatus::bad_number, "a comma is not read as a decimal mark here; write a point");
    if (here() == '.' || here() == ',') {
      ++at_;
      digits += '.' + take_digits();
    }
    if (here() == '.' || here() == ',')
      return refuse(LengthStatus::bad_number, "a number has one decimal mark only");
    if (digits.empty() || digits == ".") {
      at_ = start;
      return refuse(LengthStatus::bad_number, fmt::format("\"{}\" is not a number", word_here()));
    }
    return true;
  }

  /// After a whole number: the "/7" of 13/7, or the " 3/8" or "-3/8" of a mixed number.
  bool read_fraction_part(const std::string& whole, double& value, std::string& text) {
    std::size_t look = 0;
    const bool joined = here() == '-' && digit(ahead(1));
    if (joined)
      look = 1;
    else
      while (ahead(look) == ' ') ++look;
    const auto mixed_at = look;
    std::size_t digits = 0;
    while (digit(ahead(look))) {
      ++look;
      ++digits;
    }
    const bool mixed = digits > 0 && (mixed_at > 0) && ahead(look) == '/';
    if (here() != '/' && !mixed) return true;

    std::string numerator = whole;
    double base = 0;
    if (mixed) {
      base = value;
      at_ += mixed_at;
      numerator = take_digits();
    }
    ++at_; // the stroke
    const auto start = at_;
    const auto denominator = take_digits();
    const auto top = value_of(numerator);
    const auto bottom = value_of(denominator);
    if (!top || !bottom) {
      at_ = start;
      return refuse(LengthStatus::bad_number, "a fraction needs a whole number below the stroke, as in 7/32");
    }
    if (*bottom == 0) {
      at_ = start;
      return refuse(LengthStatus::bad_number, "a fraction cannot have 0 below the stroke");
    }
    value = base + *top / *bottom;
    text = mixed ? fmt::format("{} {}/{}", whole, numerator, denominator)
                 : fmt::format("{}/{}", numerator, denominator);
    return true;
  }

  bool read_number(LengthTerm& term) {
    std::string digits;
    if (!read_decimal(digits)) return false;
    const auto parsed = value_of(digits.front() == '.' ? "0" + digits : digits);
    if (!parsed) return refuse(LengthStatus::bad_number, fmt::format("\"{}\" is not a number", digits));
    double value = *parsed;
    std::string text = digits.front() == '.' ? "0" + digits : digits;
    if (digits.find('.') == std::string::npos && !read_fraction_part(digits, value, text)) return false;
    skip_blanks();
    return read_unit(term, value, text);
  }

  bool read_unit(LengthTerm& term, double value, const std::string& text) {
    const auto start = at_;
    std::string unit;
    if (here() == '"') {
      ++at_;
      unit = "in";
    } else {
      unit = lower_case(take_letters());
    }
    if (unit.empty()) {
      const bool fraction = text.find('/') != std::string::npos;
      if (!options_.bare_unit && !fraction)
        return refuse(LengthStatus::unit_missing,
                      fmt::format("{} has no unit; write mm or in after it", text));
      const Unit bare = fraction ? Unit::inch : *options_.bare_unit;
      result_.fraction_as_inches = result_.fraction_as_inches || (fraction && options_.bare_unit == Unit::mm);
      term = {fmt::format("{} {}", text, unit_name(bare)), to_mm(value, bare)};
      return true;
    }
    if (unit == "swg" || unit == "awg") return read_gauge(term, unit, text);
    static constexpr std::array<std::pair<std::string_view, std::pair<std::string_view, double>>, 15> units{{
        {"mm", {"mm", 1.0}},
        {"cm", {"cm", 10.0}},
        {"m", {"m", 1000.0}},
        {"um", {"\u00B5m", 0.001}},
        {"in", {"in", mm_per_inch}},
        {"inch", {"in", mm_per_inch}},
        {"inches", {"in", mm_per_inch}},
        {"ft", {"ft", 12 * mm_per_inch}},
        {"foot", {"ft", 12 * mm_per_inch}},
        {"feet", {"ft", 12 * mm_per_inch}},
        {"thou", {"thou", mm_per_thou}},
        {"mil", {"thou", mm_per_thou}},
        {"mils", {"thou", mm_per_thou}},
        {"tenth", {"tenths of a thou", mm_per_thou / 10}},
        {"tenths", {"tenths of a thou", mm_per_thou / 10}},
    }};
    for (const auto& [name, meaning] : units)
      if (unit == name) {
        term = {fmt::format("{} {}", text, meaning.first), value * meaning.second};
        return true;
      }
    at_ = start;
    return refuse(LengthStatus::bad_unit,
                  fmt::format("\"{}\" is not a unit; write mm, cm, m, \u00B5m, in, \", ft, thou or tenths",
                              word_here()));
  }

  PlainText plain_;
  LengthOptions options_;
  std::size_t at_ = 0;
  LengthResult result_;
};

} // namespace

LengthResult parse_length(std::string_view text, const LengthOptions& options) {
  if (!is_utf8(text)) {
    LengthResult refused;
    refused.status = LengthStatus::not_utf8;
    refused.message = "the text is not UTF-8";
    refused.column = 1;
    return refused;
  }
  if (text.size() > 400) {
    LengthResult refused;
    refused.status = LengthStatus::too_large;
    refused.message = "the text is over 400 characters long; a length is shorter";
    refused.column = 400;
    return refused;
  }
  return Parser(text, options).run();
}

} // namespace datrin
