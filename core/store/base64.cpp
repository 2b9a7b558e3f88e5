#include "store/base64.h"

#include <boost/archive/iterators/base64_from_binary.hpp>
#include <boost/archive/iterators/binary_from_base64.hpp>
#include <boost/archive/iterators/transform_width.hpp>

#include <algorithm>

namespace datrin::store {

namespace it = boost::archive::iterators;

std::string base64(std::span<const std::byte> bytes) {
  using Encode = it::base64_from_binary<it::transform_width<const char*, 6, 8>>;
  const auto* begin = reinterpret_cast<const char*>(bytes.data());
  // The adaptor reads past the end of a group that is not full: whole groups first, the rest padded by hand.
  const std::size_t whole = bytes.size() / 3 * 3;
  std::string text;
  text.reserve((bytes.size() + 2) / 3 * 4);
  if (whole > 0) text.append(Encode(begin), Encode(begin + whole));
  if (const std::size_t rest = bytes.size() - whole; rest > 0) {
    char last[3] = {0, 0, 0};
    std::copy(begin + whole, begin + bytes.size(), last);
    std::string group{Encode(last), Encode(last + 3)};
    std::fill(group.begin() + static_cast<std::ptrdiff_t>(rest) + 1, group.end(), '=');
    text += group;
  }
  return text;
}

std::optional<std::vector<std::byte>> from_base64(std::string_view text) {
  if (text.size() % 4 != 0) return std::nullopt;
  std::size_t padding = 0;
  std::string body(text);
  while (padding < 2 && padding < body.size() && body[body.size() - 1 - padding] == '=')
    body[body.size() - 1 - padding++] = 'A';
  const auto known = [](char c) {
    return (c >= 'A' && c <= 'Z') || (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '+' || c == '/';
  };
  if (!std::all_of(body.begin(), body.end(), known)) return std::nullopt;
  using Decode = it::transform_width<it::binary_from_base64<const char*>, 8, 6>;
  std::vector<std::byte> bytes;
  bytes.reserve(body.size() / 4 * 3);
  for (auto at = Decode(body.data()); bytes.size() < body.size() / 4 * 3; ++at)
    bytes.push_back(static_cast<std::byte>(*at));
  bytes.resize(bytes.size() - padding);
  return bytes;
}

} // namespace datrin::store
