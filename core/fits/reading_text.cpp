#include "fits/reading_text.h"

#include "quantity/length_text.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <vector>

namespace datrin::fits {
namespace {

/// Reads one text. Every reader of a kind returns whether it is of that kind; `out_.message` says what is
/// wrong with it.
class Reader {
public:
  Reader(const LengthOptions& options, Side side) : options_(options), side_(side) {}

  ReadingText read(std::string_view typed) {
    auto text = std::string(trimmed(typed));
    if (!take_uncertainty(text)) return std::move(out_);
    const bool known =
        gauges(text) || comparison(text) || dial(text) || over_pins(text) || two_sides(text) || size(text);
    out_.ok = known && out_.message.empty();
    return std::move(out_);
  }

private:
  bool refuse(std::string why) {
    if (out_.message.empty()) out_.message = std::move(why);
    return true; // it is of this kind, and wrong
  }

  std::string shown(double mm) const {
    return length_text(mm, options_.bare_unit.value_or(Unit::mm),
                       {.decimals_mm = 4, .decimals_inch = 5, .show_unit = true});
  }

  std::optional<double> length(std::string_view text) const {
    const auto read = parse_length(trimmed(text), options_);
    return read.ok() ? std::optional(read.mm) : std::nullopt;
  }

  /// A length that must be there; wrong: said.
  double must_be_length(std::string_view text) {
    const auto read = parse_length(trimmed(text), options_);
    if (!read.ok()) refuse(read.message);
    return read.mm;
  }

  bool take_uncertainty(std::string& text) {
    for (const std::string_view mark : {"\u00B1", "+/-"})
      if (const auto at = text.find(mark); at != std::string::npos) {
        const double u = must_be_length(std::string_view(text).substr(at + mark.size()));
        if (!out_.message.empty()) return false;
        if (u < 0) return !refuse("after \u00B1 comes a length without a sign");
        out_.uncertainty = u;
        text = trimmed(text.substr(0, at));
        return true;
      }
    return true;
  }

  // --- Gauges

  struct Gauge {
    double size = 0;
    bool went = false;
  };

  /// Where a gauge's word begins at `at` of `small`: its length and whether it is the one to go.
  static std::pair<std::size_t, bool> gauge_word(std::string_view small, std::size_t at) {
    if (at > 0 && small[at - 1] != ' ' && small[at - 1] != ',') return {0, false};
    for (const auto& [word, goes] : {std::pair{std::string_view("no-go"), false},
                                     {"no go", false},
                                     {"nogo", false},
                                     {"goes", true},
                                     {"go", true},
                                     {"stops", false}}) {
      if (!small.substr(at).starts_with(word)) continue;
      const auto after = small.substr(at + word.size());
      if (after.empty() || after.front() == ' ' || after.front() == ':') return {word.size(), goes};
    }
    return {0, false};
  }

  /// A gauge's words after its own: "10.00 stops". What it did, when that is said.
  std::optional<Gauge> one_gauge(std::string_view text, bool should_go) {
    text = trimmed(text);
    while (!text.empty() && (text.back() == ',' || text.back() == ';'))
      text = trimmed(text.substr(0, text.size() - 1));
    const auto small = lower_case(text);
    static constexpr std::array<std::pair<std::string_view, bool>, 8> did{{{"does not go", false},
                                                                           {"doesn't go", false},
                                                                           {"will not go", false},
                                                                           {"stops", false},
                                                                           {"goes", true},
                                                                           {"enters", true},
                                                                           {"passes", true},
                                                                           {"went", true}}};
    for (const auto& [words, went] : did)
      if (small.ends_with(words)) {
        const auto size = length(text.substr(0, text.size() - words.size()));
        if (!size) return std::nullopt;
        return Gauge{*size, went};
      }
    const auto size = length(text);
    if (!size) return std::nullopt;
    return Gauge{*size, should_go};
  }

  bool gauges(const std::string& text) {
    const auto small = lower_case(text);
    if (gauge_word(small, 0).first == 0) return false;
    out_.kind = ReadingKind::gauges;
    std::vector<Gauge> read;
    for (std::size_t at = 0; at < text.size();) {
      const auto [word, should_go] = gauge_word(small, at);
      // The next one's words; "goes" and "stops" after a size say what this one did.
      auto next = at + word;
      while (next < text.size() && text[next] == ' ') ++next;
      const auto size_at = next;
      while (next < text.size()) {
        const auto [length, goes] = gauge_word(small, next);
        if (length > 0 && next + length < text.size() && !trimmed(small.substr(next + length)).empty() &&
            length_follows(text.substr(next + length)))
          break;
        ++next;
      }
      const auto gauge = one_gauge(text.substr(size_at, next - size_at), should_go);
      if (!gauge)
        return refuse(fmt::format("\"{}\" is no gauge; write go 10.00 no-go 10.02, or go 10.00 stops",
                                  one_line(trimmed(text.substr(at, next - at)))));
      if (!(gauge->size > 0)) return refuse("a gauge must be above 0");
      read.push_back(*gauge);
      at = next;
    }
    return settle(read);
  }

  bool length_follows(std::string_view text) const {
    text = trimmed(text);
    return !text.empty() && (text.front() == '.' || text.front() == '#' ||
                             (text.front() >= '0' && text.front() <= '9') || length(text).has_value());
  }

  /// What the gauges leave: plugs in a hole, rings on a shaft.
  bool settle(const std::vector<Gauge>& read) {
    const bool shaft = side_ == Side::shaft;
    double low = 0, high = std::numeric_limits<double>::infinity();
    for (const auto& gauge : read)
      if (gauge.went != shaft) // a plug that went, a ring that did not
        low = std::max(low, gauge.size);
      else
        high = std::min(high, gauge.size);
    const bool below = std::isfinite(high);
    if (side_ == Side::unknown) {
      // Two gauges leave the same size either way; one says which way only where it is known what it is of.
      if (low <= 0 || !below)
        return refuse(
            "one gauge says which way only of a hole or a shaft: write both, or point a joint at it");
      if (low > high) std::swap(low, high);
    }
    if (low > 0 && below && !(low < high))
      return refuse(
          shaft ? fmt::format("the ring that goes, {}, is not larger than the one that does not, {}",
                              shown(high), shown(low))
                : fmt::format("the gauge that goes, {}, is not smaller than the one that does not, {}",
                              shown(low), shown(high)));
    if (low > 0 && below) {
      out_.shown = (low + high) / 2;
      out_.uncertainty = (high - low) / 2 + out_.uncertainty.value_or(0);
    } else {
      out_.bound = below ? Bound::below : Bound::above;
      out_.shown = below ? high : low;
    }
    return true;
  }

  // --- Differences

  bool comparison(const std::string& text) {
    if (!lower_case(text).starts_with("mate")) return false;
    out_.kind = ReadingKind::comparison;
    out_.shown = must_be_length(std::string_view(text).substr(4));
    return true;
  }

  bool dial(const std::string& text) {
    if (!lower_case(text).starts_with("dial")) return false;
    out_.kind = ReadingKind::dial;
    auto moved = std::string(trimmed(std::string_view(text).substr(4)));
    static constexpr std::array<std::pair<std::string_view, bool>, 4> ways{
        {{"a side", false}, {"per side", false}, {"on diameter", true}, {"on the diameter", true}}};
    const auto small = lower_case(moved);
    for (const auto& [words, on_diameter] : ways)
      if (small.ends_with(words)) {
        out_.on_diameter = on_diameter;
        moved = trimmed(std::string_view(moved).substr(0, moved.size() - words.size()));
      }
    out_.shown = must_be_length(moved);
    if (out_.message.empty() && !(out_.shown > 0)) refuse("what came off is above 0: dial 0.35 a side");
    return true;
  }

  // --- Over pins, and from two sides

  /// Without the words that only read well: "an 8.32 pin" is 8.32.
  static std::string plain(std::string_view text) {
    std::string out;
    for (const auto word : words_of(text)) {
      static constexpr std::array<std::string_view, 8> reads_well{"a",    "an",   "the",   "pin",
                                                                  "pins", "ball", "balls", "hole"};
      if (std::find(reads_well.begin(), reads_well.end(), word) != reads_well.end()) continue;
      out += (out.empty() ? "" : " ") + std::string(word);
    }
    return out;
  }

  /// Where `word` parts `text` into two lengths; "in" may be a unit, so every place is tried, the last first.
  std::optional<std::pair<double, double>> two_lengths(std::string_view text, std::string_view word) const {
    for (auto at = text.rfind(word); at != std::string_view::npos && at > 0; at = text.rfind(word, at - 1)) {
      const auto first = length(text.substr(0, at)), second = length(text.substr(at + word.size()));
      if (first && second) return std::pair(*first, *second);
    }
    return std::nullopt;
  }

  bool over_pins(const std::string& text) {
    const auto small = lower_case(text);
    bool over = true;
    auto at = small.find(" over ");
    if (at == std::string::npos) {
      over = false;
      at = small.find(" inside ");
    }
    if (at == std::string::npos) return false;
    out_.kind = ReadingKind::over_pins;
    out_.shown = must_be_length(std::string_view(text).substr(0, at));
    if (!out_.message.empty()) return true;
    const auto rest = plain(std::string_view(text).substr(at + (over ? 6 : 8)));
    const auto wrong = [&] {
      return refuse("after over or inside come the pin and its hole, as in 27.11 over 8.32 in 8.33, or two "
                    "pins, as in 60.1 over 8.32 and 10");
    };
    double sum = 0, play = 0; // of the diameters
    int count = 0;
    std::string_view pins = rest;
    // Each pin, and the hole it stands in where that is said.
    while (!pins.empty()) {
      const auto both = pins.find(" and ");
      const auto one = pins.substr(0, both);
      pins = both == std::string_view::npos ? std::string_view{} : pins.substr(both + 5);
      double pin = 0;
      if (const auto in_hole = two_lengths(one, " in ")) {
        pin = in_hole->first;
        if (in_hole->second < pin)
          return refuse(
              fmt::format("a pin of {} does not go into a hole of {}", shown(pin), shown(in_hole->second)));
        play += in_hole->second - pin;
      } else if (const auto alone = length(one)) {
        pin = *alone;
      } else {
        return wrong();
      }
      if (!(pin > 0)) return refuse("a pin must be above 0");
      sum += pin;
      if (++count > 2) return wrong();
    }
    if (count == 0) return wrong();
    out_.pins = over ? -sum / 2 : sum / 2;
    out_.play = play / 2;
    return positive(out_.shown + out_.pins);
  }

  bool two_sides(const std::string& text) {
    const auto at = lower_case(text).find(" and ");
    if (at == std::string::npos) return false;
    const auto both = two_lengths(text, " and ");
    if (!both) return refuse("two sides of one width are two lengths, as in 3.68 and 3.74");
    out_.kind = ReadingKind::two_sides;
    out_.shown = (both->first + both->second) / 2;
    out_.off_centre = std::abs(both->first - both->second) / 2;
    return positive(std::min(both->first, both->second));
  }

  bool size(const std::string& text) {
    out_.shown = must_be_length(text);
    return out_.message.empty() ? positive(out_.shown) : true;
  }

  bool positive(double size) {
    if (!(size > 0)) refuse("a size must be above 0");
    return true;
  }

  const LengthOptions& options_;
  Side side_;
  ReadingText out_;
};

} // namespace

ReadingText parse_reading(std::string_view text, const LengthOptions& options, Side side) {
  return Reader(options, side).read(text);
}

} // namespace datrin::fits
