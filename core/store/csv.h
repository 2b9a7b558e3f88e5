#pragma once
// Fields and lines of CSV files (RFC 4180, with other separators), as every table here is read and written.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::store {

inline constexpr std::size_t csv_longest_line = std::size_t{1} << 20; ///< bytes

/// Where the line that begins `text` ends; line ends in a quoted field do not count. npos: at the end of it
/// all. A quote that is not closed as a field's must be spoils its own line only.
std::size_t csv_line_end(std::string_view text);

/// What parts the columns, by the line that names them: a semicolon, a tab, else a comma.
char csv_separator(std::string_view header);

/// Splits one line; a field may stand in double quotes, doubled inside, and is then taken as it is. Nothing
/// when a quote is not closed.
std::optional<std::vector<std::string>> csv_split(std::string_view line, char separator);

/// `text` as a field: in quotes where it must be, and with an apostrophe where a table program would take it
/// for a formula and carry it out (common practice).
std::string csv_field(const std::string& text);

/// A field as it was before `csv_field` wrote it.
std::string csv_text(const std::string& field);

} // namespace datrin::store
