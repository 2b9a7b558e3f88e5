#include "quantity/plain_text.h"

#include <array>
#include <utility>

namespace datrin {

PlainText plain_text(std::string_view typed) {
  static constexpr std::array<std::pair<std::string_view, std::string_view>, 35> spelling{{
      {"\u2212", "-"},    {"\u2013", "-"},    {"\u00BD", " 1/2"}, {"\u00BC", " 1/4"}, {"\u00BE", " 3/4"},
      {"\u215B", " 1/8"}, {"\u215C", " 3/8"}, {"\u215D", " 5/8"}, {"\u215E", " 7/8"}, {"\u2033", "\""},
      {"\u2032", "'"},    {"\u201D", "\""},   {"\u201C", "\""},   {"''", "\""},       {"\u00B5", "u"},
      {"\u03BC", "u"},    {"\u00A0", " "},    {"\u2009", " "},    {"\u202F", " "},    {"\u2044", "/"},
      {"\t", " "},        {"\r", " "},        {"\n", " "},        {"\u2300", ""},     {"\u00D8", ""},
      {"\u00F8", ""}, // a diameter
      {"\u00D7", "*"},    {"\u00B7", "*"},    {"\u22C5", "*"},    {"\u00F7", ":"},    {"\u221A", "sqrt "},
      {"\u03C0", "pi"},   {"\u00B2", "^2"},   {"\u00B3", "^3"},   {"\u00B0", " deg"},
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

} // namespace datrin
