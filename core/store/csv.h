#pragma once
// Fields and lines of CSV files (RFC 4180, with other separators), as every table here is read and written.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::store {

/// Splits one line; a field may stand in double quotes, doubled inside, and is then taken as it is. Nothing
/// when a quote is not closed.
std::optional<std::vector<std::string>> csv_split(std::string_view line, char separator);

/// `text` as a field: in quotes where it must be, and with an apostrophe where a table program would take it
/// for a formula and carry it out (common practice).
std::string csv_field(const std::string& text);

/// A field as it was before `csv_field` wrote it.
std::string csv_text(const std::string& field);

} // namespace datrin::store
