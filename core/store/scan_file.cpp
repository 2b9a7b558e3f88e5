#include "store/scan_file.h"

#include "quantity/text.h"
#include "store/failure_words.h"
#include "store/json_reader.h"
#include "store/ply.h"
#include "store/system_error.h"

#include <assimp/Importer.hpp>
#include <assimp/config.h>
#include <assimp/postprocess.h>
#include <assimp/scene.h>
#include <fmt/format.h>

#include <cmath>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <unordered_set>

namespace datrin::store {
namespace {

ScanFile refused(const std::string& label, const std::string& why) {
  ScanFile result;
  result.message = fmt::format("{}: {}", label, why);
  return result;
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

/// Adds point number `k`, in mm; or why it cannot be one.
std::string take(const std::array<double, 3>& point, std::size_t k, Unit unit,
                 std::vector<std::array<float, 3>>& to) {
  for (const double c : point) {
    if (!std::isfinite(c)) return fmt::format("point {} is not a number", k + 1);
    if (!is_length(to_mm(c, unit))) return fmt::format("point {}: a coordinate {}", k + 1, too_long);
  }
  const auto mm = [&](std::size_t axis) { return static_cast<float>(to_mm(point[axis], unit)); };
  to.push_back({mm(0), mm(1), mm(2)});
  return {};
}

ScanFile scaled(const PlyPoints& points, const std::string& label, Unit unit) {
  if (!points.wrong.empty()) return refused(label, points.wrong);
  ScanFile result;
  result.at.reserve(points.at.size());
  for (std::size_t k = 0; k < points.at.size(); ++k)
    if (auto wrong = take(points.at[k], k, unit, result.at); !wrong.empty()) return refused(label, wrong);
  result.triangles = points.faces;
  result.ok = true;
  return result;
}

} // namespace

ScanFile read_scan(std::string_view bytes, std::string_view ending, const std::string& label, Unit unit) {
  const auto kind = lower_case(ending);
  if (kind != "ply" && kind != "stl")
    return refused(label, fmt::format("\".{}\" is not read; scans are PLY or STL files", ending));
  if (kind == "ply") return scaled(read_ply(bytes), label, unit);
  if (const auto wrong = check_stl(bytes); !wrong.empty()) return refused(label, wrong);
  Assimp::Importer importer;
  importer.SetPropertyInteger(AI_CONFIG_PP_RVC_FLAGS, aiComponent_NORMALS | aiComponent_COLORS |
                                                          aiComponent_TEXCOORDS | aiComponent_MATERIALS);
  const aiScene* scene = nullptr;
  try {
    scene = importer.ReadFileFromMemory(bytes.data(), bytes.size(), aiProcess_RemoveComponent, kind.c_str());
  } catch (const std::bad_alloc& error) {
    return refused(label, failure_words(error));
  } catch (const std::exception&) { // what the library says of itself helps nobody: no scene, as below
  }
  if (scene == nullptr)
    return refused(label, "could not be read: it is not as its head says, or is cut short");
  ScanFile result;
  for (unsigned m = 0; m < scene->mNumMeshes; ++m) {
    const auto& mesh = *scene->mMeshes[m];
    result.triangles = result.triangles || mesh.mNumFaces > 0;
    result.at.reserve(result.at.size() + mesh.mNumVertices);
    std::unordered_set<std::array<float, 3>, PointHash> seen; // triangles share their corners
    for (unsigned i = 0; i < mesh.mNumVertices; ++i) {
      const auto& v = mesh.mVertices[i];
      if (auto wrong = take({v.x, v.y, v.z}, i, unit, result.at); !wrong.empty())
        return refused(label, wrong);
      if (!seen.insert(result.at.back()).second) result.at.pop_back();
    }
  }
  if (result.at.empty()) return refused(label, "holds no points");
  result.ok = true;
  return result;
}

ScanFile read_scan_file(const std::string& path, Unit unit, const ReadOptions& options) {
  std::error_code error;
  const auto size = std::filesystem::file_size(path, error);
  if (error) return refused(path, "cannot be read: " + system_words(error));
  if (size > largest_file) return refused(path, "is over 256 MiB; thin the scan out first");
  std::ifstream file(path, std::ios::binary);
  std::string bytes(size, '\0');
  if (!file.read(bytes.data(), static_cast<std::streamsize>(size))) return refused(path, "cannot be read");
  auto ending = std::filesystem::path(path).extension().string();
  if (!ending.empty()) ending.erase(0, 1);
  // The library does not say how far it is, nor can it be stopped.
  auto scan = read_scan(bytes, ending, path, unit);
  return options.stopped() ? refused(path, reading_stopped) : std::move(scan);
}

} // namespace datrin::store
