#include "solid/stl_file.h"

#include <Eigen/Geometry>

#include <bit>
#include <cstdint>
#include <cstring>

namespace datrin::solid {

static_assert(std::endian::native == std::endian::little, "STL is little-endian");

std::string stl_bytes(const Solid& solid, double scale) {
  const auto& mesh = solid.mesh;
  if (mesh.triangles.empty()) return {};
  constexpr std::size_t head = 80, each = 50;
  std::string bytes(head, ' ');
  bytes.reserve(head + 4 + each * mesh.triangles.size());
  const auto put = [&](const auto& value) {
    char raw[sizeof(value)];
    std::memcpy(raw, &value, sizeof(value));
    bytes.append(raw, sizeof(value));
  };
  put(static_cast<std::uint32_t>(mesh.triangles.size()));
  for (const auto& [i, j, k] : mesh.triangles) {
    const auto at = [&](std::uint32_t n) -> Vec3 {
      return scale * Vec3(mesh.at[n][0], mesh.at[n][1], mesh.at[n][2]);
    };
    const Vec3 a = at(i), b = at(j), c = at(k);
    const Vec3 normal = (b - a).cross(c - a).normalized();
    for (const auto& v : {normal, a, b, c})
      for (int n = 0; n < 3; ++n) put(static_cast<float>(v[n]));
    put(std::uint16_t{0});
  }
  return bytes;
}

} // namespace datrin::solid
