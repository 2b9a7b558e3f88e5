#pragma once
// The core's words as Qt text. What people named stands in many of them: it may hold markup, ampersands,
// place holders, line ends, and be as long as a book. Here is where each is made fit to be shown;
// docs/reliability.md.

#include "quantity/text.h"

#include <QString>

#include <string>
#include <string_view>

namespace datrin {

/// To be shown: on one line, without marks that turn the writing round, cut when it is longer than any line.
/// What is edited, kept or written to a file is `whole`.
inline constexpr std::size_t most_shown = 400;
inline QString shown(std::string_view text, std::size_t most = most_shown) {
  const auto line = one_line(text, most);
  return QString::fromUtf8(line.data(), static_cast<qsizetype>(line.size()));
}

/// A name, within a line that says more.
inline QString name_words(std::string_view text) {
  return shown(text, 60);
}

/// As it is, to the last byte: for fields, keys, paths and files.
inline QString whole(std::string_view text) {
  return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size()));
}

/// For buttons, menus and tabs, which take an ampersand for the mark of a key.
inline QString literal(QString text) {
  return text.replace('&', "&&");
}

namespace detail {
inline const QString& as_words(const QString& text) {
  return text;
}
inline QString as_words(const char* text) {
  return QString::fromUtf8(text);
}
inline QString as_words(QChar sign) {
  return QString(sign);
}
template <class Number>
requires std::is_arithmetic_v<Number> QString as_words(Number number) {
  return QString::number(number);
}
} // namespace detail

/// `pattern` with %1, %2 … replaced, all at once: a name that holds "%2" stays what it is, as it does not
/// where one `arg` follows another.
template <class... Words>
QString filled(const QString& pattern, const Words&... words) {
  return pattern.arg(QString(detail::as_words(words))...);
}

} // namespace datrin
