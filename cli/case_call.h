#pragma once
// What every call with a case file does: it reads, works out, prints.

#include "commands.h"

#include <fmt/format.h>
#include <fmt/ostream.h>

#include <ostream>
#include <string>

namespace datrin::cli {

/// `read` is a case with `ok()`, `message` and `warnings`; `solve(read)` gives a result with `usable()` and
/// `message`; `text(read, result)` and `json(read, result)` say it.
template <class Case, class Solve, class Text, class Json>
int answer_case(const std::string& path, const Case& read, Solve solve, Text text, Json json, bool as_text,
                std::ostream& out, std::ostream& err) {
  for (const auto& warning : read.warnings) fmt::print(err, "{}\n", warning);
  if (!read.ok()) {
    fmt::print(err, "{}\n", read.message);
    return refused;
  }
  const auto result = solve(read);
  if (!result.usable()) {
    fmt::print(err, "{}: {}\n", path, result.message);
    return refused;
  }
  if (as_text)
    out << text(read, result);
  else
    out << json(read, result).dump(2) << '\n';
  return answer_yes;
}

} // namespace datrin::cli
