#include "store/scan_file.h"

#include "quantity/text.h"
#include "store/json_reader.h"

#include <assimp/Importer.hpp>
#include <assimp/config.h>
#include <assimp/postprocess.h>
#include <assimp/scene.h>
#include <fmt/format.h>

#include <cmath>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <unordered_set>

namespace datrin::store {
namespace {

ScanFile refused(const std::string& label, const std::string& why) {
  ScanFile result;
  result.message = fmt::format("{}: {}", label, why);
  return result;
}

/// What the head of a PLY file promises, checked against how long it is: a reader would otherwise make room
/// for whatever number stands there.
std::string check_ply(std::string_view bytes) {
  const auto end = bytes.find("end_header");
  if (!bytes.starts_with("ply") || end == std::string_view::npos || end > 65536)
    return "is not a PLY file: it does not begin with \"ply\" and a header";
  std::istringstream head{std::string(bytes.substr(0, end))};
  std::string line, word, name;
  bool vertices = false;
  while (std::getline(head, line)) {
    std::istringstream words(line);
    words >> word;
    if (word != "element") continue;
    long long count = -1;
    words >> name >> count;
    if (!words || count < 0) return fmt::format("its header counts \"{}\" wrongly", name);
    // An element takes two bytes at least ("0\n", or a short).
    if (static_cast<unsigned long long>(count) > bytes.size() / 2)
      return fmt::format("its header promises {} of \"{}\", more than the file can hold: it is cut short",
                         count, name);
    vertices = vertices || (name == "vertex" && count > 0);
  }
  return vertices ? std::string() : "holds no points";
}

std::string check_stl(std::string_view bytes) {
  if (bytes.size() >= 84) {
    std::uint32_t count = 0;
    std::memcpy(&count, bytes.data() + 80, 4);
    const auto stated = 84 + std::uint64_t{50} * count;
    if (stated == bytes.size() && count > 0) return {};
    if (!bytes.starts_with("solid"))
      return fmt::format(
          "its header promises {} triangles, {} bytes; there are {}: it is cut short or not an STL "
          "file",
          count, stated, bytes.size());
  }
  if (bytes.starts_with("solid") && bytes.find("facet") != std::string_view::npos) return {};
  return "is not an STL file: it holds no triangles";
}

struct PointHash {
  std::size_t operator()(const std::array<float, 3>& p) const {
    std::uint32_t bits[3];
    std::memcpy(bits, p.data(), sizeof bits);
    return ((std::size_t{bits[0]} * 73856093) ^ (std::size_t{bits[1]} * 19349663)) ^
           (std::size_t{bits[2]} * 83492791);
  }
};

} // namespace

ScanFile read_scan(std::string_view bytes, std::string_view ending, const std::string& label, Unit unit) {
  const auto kind = lower_case(ending);
  if (kind != "ply" && kind != "stl")
    return refused(label, fmt::format("\".{}\" is not read; scans are PLY or STL files", ending));
  if (auto wrong = kind == "ply" ? check_ply(bytes) : check_stl(bytes); !wrong.empty())
    return refused(label, wrong);
  Assimp::Importer importer;
  importer.SetPropertyInteger(AI_CONFIG_PP_RVC_FLAGS, aiComponent_NORMALS | aiComponent_COLORS |
                                                          aiComponent_TEXCOORDS | aiComponent_MATERIALS);
  const aiScene* scene = nullptr;
  try {
    scene = importer.ReadFileFromMemory(bytes.data(), bytes.size(), aiProcess_RemoveComponent, kind.c_str());
  } catch (const std::exception& error) {
    return refused(label, error.what());
  }
  if (scene == nullptr)
    return refused(label, fmt::format("could not be read: {}", importer.GetErrorString()));
  ScanFile result;
  const float scale = unit == Unit::inch ? static_cast<float>(mm_per_inch) : 1.0F;
  for (unsigned m = 0; m < scene->mNumMeshes; ++m) {
    const auto& mesh = *scene->mMeshes[m];
    result.triangles = result.triangles || mesh.mNumFaces > 0;
    result.at.reserve(result.at.size() + mesh.mNumVertices);
    std::unordered_set<std::array<float, 3>, PointHash> seen; // triangles share their corners
    for (unsigned i = 0; i < mesh.mNumVertices; ++i) {
      const std::array<float, 3> p{mesh.mVertices[i].x * scale, mesh.mVertices[i].y * scale,
                                   mesh.mVertices[i].z * scale};
      if (!std::isfinite(p[0]) || !std::isfinite(p[1]) || !std::isfinite(p[2]))
        return refused(label, fmt::format("point {} is not a number", i + 1));
      if (kind == "ply" || seen.insert(p).second) result.at.push_back(p);
    }
  }
  if (result.at.empty()) return refused(label, "holds no points");
  result.ok = true;
  return result;
}

ScanFile read_scan_file(const std::string& path, Unit unit) {
  std::error_code error;
  const auto size = std::filesystem::file_size(path, error);
  if (error) return refused(path, "cannot be read: " + error.message());
  if (size > largest_file) return refused(path, "is over 256 MiB; thin the scan out first");
  std::ifstream file(path, std::ios::binary);
  std::string bytes(size, '\0');
  if (!file.read(bytes.data(), static_cast<std::streamsize>(size))) return refused(path, "cannot be read");
  auto ending = std::filesystem::path(path).extension().string();
  if (!ending.empty()) ending.erase(0, 1);
  return read_scan(bytes, ending, path, unit);
}

} // namespace datrin::store
