#include "quantity/text.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <cstdint>
#include <iterator>

namespace datrin {

bool is_utf8(std::string_view text) {
  std::size_t i = 0;
  const auto byte = [&](std::size_t k) { return static_cast<std::uint8_t>(text[k]); };
  while (i < text.size()) {
    const auto lead = byte(i);
    const std::size_t extra = lead < 0x80                   ? 0
                              : lead >= 0xC2 && lead < 0xE0 ? 1
                              : lead >= 0xE0 && lead < 0xF0 ? 2
                              : lead >= 0xF0 && lead < 0xF5 ? 3
                                                            : 9;
    if (extra == 9 || i + extra >= text.size()) return false;
    for (std::size_t k = 1; k <= extra; ++k)
      if ((byte(i + k) & 0xC0) != 0x80) return false;
    if (extra == 2 && ((lead == 0xE0 && byte(i + 1) < 0xA0) || (lead == 0xED && byte(i + 1) > 0x9F)))
      return false;
    if (extra == 3 && ((lead == 0xF0 && byte(i + 1) < 0x90) || (lead == 0xF4 && byte(i + 1) > 0x8F)))
      return false;
    i += extra + 1;
  }
  return true;
}

std::string as_utf8(std::string_view text) {
  if (is_utf8(text)) return std::string(text);
  std::string out;
  while (!text.empty()) {
    std::size_t length = 1;
    while (length < 4 && length < text.size() && !is_utf8(text.substr(0, length))) ++length;
    if (is_utf8(text.substr(0, length))) {
      out += text.substr(0, length);
      text.remove_prefix(length);
    } else {
      out += "\uFFFD";
      text.remove_prefix(1);
    }
  }
  return out;
}

std::string_view trimmed(std::string_view text) {
  const auto blank = [](char c) { return c == ' ' || c == '\t' || c == '\r' || c == '\n'; };
  while (!text.empty() && blank(text.front())) text.remove_prefix(1);
  while (!text.empty() && blank(text.back())) text.remove_suffix(1);
  return text;
}

std::optional<double> number_from(std::string_view text, bool decimal_comma) {
  std::string plain(trimmed(text));
  if (plain.starts_with("\u2212")) plain.replace(0, 3, "-");
  if (plain.starts_with('+')) plain.erase(0, 1);
  if (decimal_comma && plain.find('.') == std::string::npos)
    if (const auto comma = plain.find(','); comma != std::string::npos) plain[comma] = '.';
  double value = 0;
  const auto [end, error] = std::from_chars(plain.data(), plain.data() + plain.size(), value);
  if (plain.empty() || error != std::errc{} || end != plain.data() + plain.size() || !std::isfinite(value))
    return std::nullopt;
  return value;
}

std::optional<std::int64_t> whole_from(std::string_view text) {
  std::int64_t value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc{} || end != text.data() + text.size()) return std::nullopt;
  return value;
}

std::vector<std::string_view> words_of(std::string_view text) {
  std::vector<std::string_view> words;
  for (std::size_t from = 0; (from = text.find_first_not_of(" \t", from)) != std::string_view::npos;) {
    const auto end = std::min(text.find_first_of(" \t", from), text.size());
    words.push_back(text.substr(from, end - from));
    from = end;
  }
  return words;
}

std::string grouped(std::size_t count) {
  auto text = std::to_string(count);
  for (auto at = static_cast<std::ptrdiff_t>(text.size()) - 3; at > 0; at -= 3)
    text.insert(static_cast<std::size_t>(at), ",");
  return text;
}

std::string one_line(std::string_view any, std::size_t most) {
  const auto text_in_utf8 = as_utf8(any.substr(0, 16 * most)); // marks that are left out may be many
  const std::string_view text = text_in_utf8;
  // Unicode Standard, section 23.2: LRM, RLM, ALM; LRE to RLO; LRI to PDI. Line and paragraph separators.
  constexpr std::string_view turning[] = {"\u200e", "\u200f", "\u061c", "\u202a", "\u202b", "\u202c",
                                          "\u202d", "\u202e", "\u2066", "\u2067", "\u2068", "\u2069"};
  constexpr std::string_view breaks[] = {"\u2028", "\u2029", "\u0085"};
  std::string line;
  std::size_t shown = 0;
  for (std::size_t i = 0; i < text.size();) {
    std::size_t length = 1;
    while (i + length < text.size() && (static_cast<unsigned char>(text[i + length]) & 0xC0) == 0x80)
      ++length;
    const auto character = text.substr(i, length);
    i += length;
    const auto is = [character](std::string_view other) { return character == other; };
    if (std::any_of(std::begin(turning), std::end(turning), is)) continue;
    if (shown++ == most) return line + "…";
    const auto first = static_cast<unsigned char>(character.front());
    if (first < 0x20 || first == 0x7f || std::any_of(std::begin(breaks), std::end(breaks), is))
      line += ' ';
    else
      line += character;
  }
  return line;
}

std::string counted(std::size_t count, std::string_view one, std::string_view many) {
  return std::to_string(count) + ' ' + std::string(count == 1 ? one : many);
}

std::string lower_case(std::string_view text) {
  std::string lower(text);
  std::transform(lower.begin(), lower.end(), lower.begin(),
                 [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; });
  return lower;
}

namespace {

std::size_t edit_distance(std::string_view a, std::string_view b) {
  std::vector<std::size_t> row(b.size() + 1);
  for (std::size_t j = 0; j < row.size(); ++j) row[j] = j;
  for (std::size_t i = 1; i <= a.size(); ++i) {
    std::size_t diagonal = row[0];
    row[0] = i;
    for (std::size_t j = 1; j <= b.size(); ++j) {
      const auto above = row[j];
      row[j] = std::min({above + 1, row[j - 1] + 1, diagonal + (a[i - 1] == b[j - 1] ? 0U : 1U)});
      diagonal = above;
    }
  }
  return row.back();
}

} // namespace

std::string nearest_name(std::string_view word, const std::vector<std::string>& names) {
  const auto lower = lower_case(word.substr(0, 200));
  const auto common_start = [&](std::string_view name) {
    std::size_t n = 0;
    while (n < std::min(lower.size(), name.size()) && lower[n] == name[n]) ++n;
    return n;
  };
  std::size_t start = 0;
  std::size_t best = (lower.size() < 4 ? 1 : std::max<std::size_t>(2, lower.size() / 3)) + 1;
  std::string nearest;
  for (const auto& name : names) {
    if (name.size() > 300) continue; // nobody mistypes so much
    const auto distance = edit_distance(lower, lower_case(name));
    // Of two as near, the one that begins alike.
    if (const auto alike = common_start(lower_case(name));
        distance < best || (distance == best && !nearest.empty() && alike > start)) {
      best = distance;
      start = alike;
      nearest = name;
    }
  }
  return nearest;
}

std::string did_you_mean(std::string_view word, const std::vector<std::string>& names) {
  const auto nearest = nearest_name(word, names);
  return nearest.empty() ? std::string{} : " (did you mean \"" + nearest + "\"?)";
}

std::string slug(std::string_view name) {
  std::string id;
  for (const char c : lower_case(name)) {
    if (std::isalnum(static_cast<unsigned char>(c)))
      id += c;
    else if (!id.empty() && id.back() != '_')
      id += '_';
  }
  while (!id.empty() && id.back() == '_') id.pop_back();
  return id.empty() ? "unnamed" : id;
}

} // namespace datrin
