#pragma once
// What every exchange case begins with: its format, version and unit.

#include "quantity/text.h"
#include "quantity/unit.h"
#include "store/json_reader.h"

#include <string>
#include <string_view>

namespace datrin::store {

enum class ReadStatus { not_run, ok, refused };

inline Unit unit_from(const JsonAt& at) {
  const auto name = at.text();
  const auto unit = unit_from_name(name);
  if (!unit) at.refuse("there is no unit called \"" + one_line(name) + "\"; it is \"mm\" or \"in\"");
  return *unit;
}

/// Refuses a case that is not of `format`, version 1.
inline void only_format(const JsonAt& root, const std::string& format) {
  if (const auto at = root.at("format"); at.text() != format) at.refuse("must be \"" + format + "\"");
  if (const auto at = root.at("version"); at.number() != 1) at.refuse("must be 1, the only version there is");
}

/// Reads with `read(JsonAt root)` into a case that has `status`, `message` and `warnings`.
template <class Case, class Read>
void read_case(Case& out, std::string_view text, const std::string& label, Read read) {
  try {
    if (!is_utf8(text)) throw Refusal(label + ": the text is not UTF-8");
    const auto document = parse_json(text, label);
    read(JsonAt(document, label, out.warnings));
    out.status = ReadStatus::ok;
  } catch (const Refusal& refusal) {
    out.status = ReadStatus::refused;
    out.message = refusal.what();
  }
}

/// The case in the file at `path`, read with `read(text, label)`.
template <class Read>
auto read_case_file(const std::string& path, Read read) -> decltype(read(std::string_view{}, path)) {
  try {
    return read(read_text_file(path), path);
  } catch (const Refusal& refusal) {
    decltype(read(std::string_view{}, path)) out;
    out.status = ReadStatus::refused;
    out.message = refusal.what();
    return out;
  }
}

} // namespace datrin::store
