#pragma once
// Bytes as text, RFC 4648 section 4, by Boost's iterator adaptors.

#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::store {

std::string base64(std::span<const std::byte> bytes);

/// Nothing when `text` is not base64 with its padding.
std::optional<std::vector<std::byte>> from_base64(std::string_view text);

} // namespace datrin::store
