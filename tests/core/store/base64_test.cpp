#include "store/base64.h"

#include <gtest/gtest.h>

#include <cstring>
#include <random>

using namespace datrin::store;

namespace {

std::string encoded(std::string_view text) {
  return base64(std::as_bytes(std::span(text.data(), text.size())));
}

std::string decoded(std::string_view text) {
  const auto bytes = from_base64(text);
  if (!bytes) return "refused";
  return {reinterpret_cast<const char*>(bytes->data()), bytes->size()};
}

} // namespace

// RFC 4648, section 10: test vectors.
TEST(Base64, TheVectorsOfRfc4648) {
  const std::pair<const char*, const char*> vectors[] = {{"", ""},
                                                         {"f", "Zg=="},
                                                         {"fo", "Zm8="},
                                                         {"foo", "Zm9v"},
                                                         {"foob", "Zm9vYg=="},
                                                         {"fooba", "Zm9vYmE="},
                                                         {"foobar", "Zm9vYmFy"}};
  for (const auto& [plain, text] : vectors) {
    EXPECT_EQ(encoded(plain), text);
    EXPECT_EQ(decoded(text), plain);
  }
}

TEST(Base64, AnyBytesComeBack) {
  std::mt19937 random(4648);
  for (std::size_t size : {1U, 2U, 3U, 100U, 1001U, 4096U}) {
    std::string bytes(size, '\0');
    for (auto& b : bytes) b = static_cast<char>(random());
    EXPECT_EQ(decoded(encoded(bytes)), bytes);
  }
}

TEST(Base64, WhatIsNotBase64IsRefused) {
  for (const char* text : {"Zg=", "Z", "Zg==Zg", "Zm9*", "Zm 9v", "====", "Zg=A"})
    EXPECT_EQ(decoded(text), "refused") << text;
}
