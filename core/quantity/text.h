#pragma once
// Small text helpers shared by readers and messages.

#include <cstddef>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace datrin {

/// True when `text` is well-formed UTF-8 (RFC 3629: no overlong forms, no surrogates, nothing above
/// U+10FFFF).
bool is_utf8(std::string_view text);

/// `text` with U+FFFD for every byte that is none of well-formed UTF-8.
std::string as_utf8(std::string_view text);

/// Without blanks, tabs and line ends on both sides.
std::string_view trimmed(std::string_view text);

/// The number that is the whole of `text` (blanks around it do not count): digits with a decimal point, or a
/// comma where `decimal_comma`; a sign, also a true minus; an exponent. Nothing for anything else, and for
/// what is not finite. Whatever the locale of the program.
std::optional<double> number_from(std::string_view text, bool decimal_comma = false);

/// The whole number that is all of `text` (no blanks, no plus sign). Nothing for anything else, and for what
/// has no room in 64 bits.
std::optional<std::int64_t> whole_from(std::string_view text);

/// The words of `text`, parted by blanks and tabs. They stand in `text` itself.
std::vector<std::string_view> words_of(std::string_view text);

/// "1,000,000" for a count.
std::string grouped(std::size_t count);

/// `text` as it can stand in a line of its own: line ends and other control characters are blanks, marks that
/// turn the direction of writing are left out, bytes that are none of UTF-8 are U+FFFD, and what is longer
/// than `most` characters ends in "…". For showing; what is kept and exported is the whole.
std::string one_line(std::string_view text, std::size_t most = 80);

/// "1 touch", "2 touches", "0 touches".
std::string counted(std::size_t count, std::string_view one, std::string_view many);

/// ASCII letters in lower case; other bytes as they are.
std::string lower_case(std::string_view text);

/// The one of `names` that is most like `word` (fewest edits: at most 1 in a short word, 2 or a third of its
/// length in others); empty when none is near. For "did you mean".
std::string nearest_name(std::string_view word, const std::vector<std::string>& names);

/// ` (did you mean "bore"?)`, or nothing when no name is near.
std::string did_you_mean(std::string_view word, const std::vector<std::string>& names);

/// A name made fit for a file name or an id: lower case letters, digits and underscores, never empty.
std::string slug(std::string_view name);

} // namespace datrin
