#include "store/csv.h"

#include "quantity/text.h"

#include <algorithm>

namespace datrin::store {

namespace {

bool like_a_formula(std::string_view text) {
  text.remove_prefix(std::min(text.find_first_not_of('\''), text.size()));
  return !text.empty() && std::string_view("=+-@\t\r").find(text.front()) != std::string_view::npos;
}

} // namespace

std::optional<std::vector<std::string>> csv_split(std::string_view line, char separator) {
  std::vector<std::string> fields(1);
  std::vector<bool> was_quoted(1);
  bool quoted = false;
  for (std::size_t i = 0; i < line.size(); ++i) {
    const char c = line[i];
    if (quoted) {
      if (c != '"')
        fields.back() += c;
      else if (i + 1 < line.size() && line[i + 1] == '"')
        fields.back() += line[++i];
      else
        quoted = false;
    } else if (c == '"' && trimmed(fields.back()).empty()) {
      quoted = true;
      was_quoted.back() = true;
      fields.back().clear();
    } else if (c == separator) {
      fields.emplace_back();
      was_quoted.push_back(false);
    } else if (!was_quoted.back() || c != ' ') {
      fields.back() += c;
    }
  }
  if (quoted) return std::nullopt;
  for (std::size_t k = 0; k < fields.size(); ++k)
    if (!was_quoted[k]) fields[k] = std::string(trimmed(fields[k]));
  return fields;
}

std::string csv_field(const std::string& text) {
  auto whole = like_a_formula(text) ? "'" + text : text;
  if (whole.find_first_of(",;\"\t#\n\r") == std::string::npos && trimmed(whole) == whole) return whole;
  std::string out = "\"";
  for (const char c : whole) {
    if (c == '"') out += '"';
    out += c;
  }
  return out + '"';
}

std::string csv_text(const std::string& field) {
  return field.starts_with('\'') && like_a_formula(field) ? field.substr(1) : field;
}

std::size_t csv_line_end(std::string_view text) {
  const auto own = text.find('\n');
  const auto first = trimmed(text.substr(0, own));
  if (first.starts_with('#') || first.find('"') == std::string_view::npos) return own;
  bool quoted = false, blank_so_far = true; // a quote begins a field only where nothing else stands in it
  for (std::size_t i = 0; i < std::min(text.size(), csv_longest_line + 1); ++i) {
    const char c = text[i];
    if (quoted) {
      if (c != '"') continue;
      if (text.substr(i + 1).starts_with('"')) {
        ++i;
        continue;
      }
      const auto next = text.find_first_not_of(" \r", i + 1);
      if (next != std::string_view::npos &&
          std::string_view(",;\t\n").find(text[next]) == std::string_view::npos)
        return own;
      quoted = false;
    } else if (c == '\n') {
      return i;
    } else if (c == ',' || c == ';' || c == '\t') {
      blank_so_far = true;
    } else if (c == '"' && blank_so_far) {
      quoted = true;
      blank_so_far = false;
    } else if (c != ' ') {
      blank_so_far = false;
    }
  }
  return !quoted && text.size() <= csv_longest_line ? std::string_view::npos : own;
}

char csv_separator(std::string_view header) {
  return header.find(';') != std::string_view::npos    ? ';'
         : header.find('\t') != std::string_view::npos ? '\t'
                                                       : ',';
}

} // namespace datrin::store
