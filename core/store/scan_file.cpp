#include "store/scan_file.h"

#include "quantity/text.h"
#include "store/failure_words.h"
#include "store/json_reader.h"
#include "store/system_error.h"

#include <assimp/Importer.hpp>
#include <assimp/config.h>
#include <assimp/postprocess.h>
#include <assimp/scene.h>
#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <map>
#include <optional>
#include <unordered_set>

namespace datrin::store {
namespace {

ScanFile refused(const std::string& label, const std::string& why) {
  ScanFile result;
  result.message = fmt::format("{}: {}", label, why);
  return result;
}

/// The head of a PLY file, as its specification has it; the library believes whatever stands there.
class PlyHead {
public:
  /// Empty when the whole file is what its head says; else what is wrong.
  std::string check(std::string_view bytes) {
    std::size_t at = 0;
    std::string wrong = read_head(bytes, at);
    if (!wrong.empty()) return wrong;
    return format_ == "ascii" ? walk_text(bytes.substr(at)) : walk_binary(bytes.substr(at));
  }

private:
  struct Property {
    bool list = false;
    int count_size = 0, size = 0; ///< bytes
    std::string count_type;
  };
  struct Element {
    std::string name;
    unsigned long long count = 0;
    std::vector<Property> properties;
    int coordinates = 0; ///< of x, y, z
  };

  static int size_of(const std::string& type) {
    static const std::map<std::string, int> sizes{
        {"char", 1},  {"uchar", 1},  {"int8", 1},    {"uint8", 1},  {"short", 2}, {"ushort", 2},
        {"int16", 2}, {"uint16", 2}, {"int", 4},     {"uint", 4},   {"int32", 4}, {"uint32", 4},
        {"float", 4}, {"double", 8}, {"float32", 4}, {"float64", 8}};
    const auto found = sizes.find(type);
    return found == sizes.end() ? 0 : found->second;
  }

  std::string read_head(std::string_view bytes, std::size_t& at) {
    const auto line_at = [&]() -> std::optional<std::string> {
      const auto end = bytes.find('\n', at);
      if (end > 65536) return std::nullopt; // npos is further still
      auto line = bytes.substr(at, end - at);
      at = end + 1;
      if (!line.empty() && line.back() == '\r') line.remove_suffix(1);
      return std::string(line);
    };
    const auto first = line_at();
    if (!first || *first != "ply") return "is not a PLY file: it does not begin with \"ply\" and a header";
    int number = 1;
    while (const auto line = line_at()) {
      ++number;
      const auto refuse = [&](const std::string& why) {
        return fmt::format("line {} of its header {}", number, why);
      };
      if (std::any_of(line->begin(), line->end(), [](unsigned char c) { return c < 32 && c != '\t'; }) ||
          line->size() > 1000)
        return refuse("is not text");
      const auto words = words_of(*line);
      const std::string_view word = words.empty() ? std::string_view() : words[0];
      if (word == "end_header") return finish();
      if (word == "comment" || word == "obj_info") continue;
      if (word == "format") {
        format_ = words.size() > 1 ? words[1] : std::string_view();
        if (format_ != "ascii" && format_ != "binary_little_endian" && format_ != "binary_big_endian")
          return refuse("states no format this version reads");
      } else if (word == "element") {
        const auto count = words.size() == 3 ? whole_from(words[2]) : std::nullopt;
        if (!count || *count < 0) return refuse("counts an element wrongly");
        elements_.push_back({std::string(words[1]), static_cast<unsigned long long>(*count), {}, 0});
      } else if (word == "property") {
        if (elements_.empty()) return refuse("has a property of no element");
        Property property;
        property.list = words.size() > 1 && words[1] == "list";
        if (words.size() != (property.list ? 5 : 3)) return refuse("states a property wrongly");
        const std::string type(words[words.size() - 2]), name(words.back());
        if (property.list) {
          const std::string count_type(words[2]);
          property.count_type = count_type;
          property.count_size = size_of(count_type);
          if (property.count_size == 0 || count_type == "float" || count_type == "double" ||
              property.count_size == 8)
            return refuse("counts a list by no whole number");
        }
        property.size = size_of(type);
        if (property.size == 0) return refuse("states a property wrongly");
        if (!property.list && (name == "x" || name == "y" || name == "z")) {
          if (type.front() != 'f' && type.front() != 'd')
            return refuse("gives a coordinate that is not a float");
          ++elements_.back().coordinates;
        }
        elements_.back().properties.push_back(property);
      } else {
        return refuse(fmt::format("begins with \"{}\"", word.substr(0, 20)));
      }
    }
    return "has a header without an end";
  }

  std::string finish() const {
    if (format_.empty()) return "states no format";
    for (const auto& element : elements_)
      if (element.name == "vertex") {
        if (element.coordinates != 3) return "has points without x, y and z";
        return element.count > 0 ? std::string() : "holds no points";
      }
    return "holds no points";
  }

  static std::string cut_short(const Element& element) {
    return fmt::format("its header promises {} of \"{}\", more than the file holds: it is cut short",
                       element.count, element.name);
  }

  std::string walk_binary(std::string_view body) const {
    std::size_t at = 0;
    for (const auto& element : elements_) {
      if (element.properties.empty() || element.count > body.size()) return cut_short(element);
      for (unsigned long long k = 0; k < element.count; ++k)
        for (const auto& property : element.properties) {
          std::uint64_t bytes = static_cast<std::uint64_t>(property.size);
          if (property.list) {
            if (at + static_cast<std::size_t>(property.count_size) > body.size()) return cut_short(element);
            std::uint64_t count = 0;
            for (int b = 0; b < property.count_size; ++b) {
              const auto byte = static_cast<unsigned char>(body[at + static_cast<std::size_t>(b)]);
              const int shift = format_ == "binary_big_endian" ? 8 * (property.count_size - 1 - b) : 8 * b;
              count |= std::uint64_t{byte} << shift;
            }
            at += static_cast<std::size_t>(property.count_size);
            if (count > body.size()) return cut_short(element);
            bytes *= count;
          }
          if (at + bytes > body.size()) return cut_short(element);
          at += bytes;
        }
    }
    return {};
  }

  std::string walk_text(std::string_view body) const {
    std::size_t at = 0;
    for (const auto& element : elements_) {
      if (element.properties.empty()) return cut_short(element);
      for (unsigned long long k = 0; k < element.count; ++k) {
        const auto end = body.find('\n', at);
        if (at >= body.size()) return cut_short(element);
        auto line = body.substr(at, end == std::string_view::npos ? std::string_view::npos : end - at);
        at = end == std::string_view::npos ? body.size() : end + 1;
        // As many numbers as the properties ask for, and nothing else.
        const auto next = [&]() -> std::optional<double> {
          const auto start = line.find_first_not_of(" \t\r");
          if (start == std::string_view::npos) return std::nullopt;
          line.remove_prefix(start);
          if (line.front() == '+') line.remove_prefix(1);
          double value = 0;
          const auto [stop, error] = std::from_chars(line.data(), line.data() + line.size(), value);
          if (error != std::errc() || !std::isfinite(value)) return std::nullopt;
          line.remove_prefix(static_cast<std::size_t>(stop - line.data()));
          return value;
        };
        const auto wrong = [&] {
          return fmt::format("line {} of \"{}\" is not what its header says", k + 1, element.name);
        };
        for (const auto& property : element.properties) {
          const auto value = next();
          if (!value) return wrong();
          if (!property.list) continue;
          if (*value < 0 || *value > 1000 || *value != std::floor(*value)) return wrong();
          for (int n = 0; n < static_cast<int>(*value); ++n)
            if (!next()) return wrong();
        }
        if (line.find_first_not_of(" \t\r") != std::string_view::npos) return wrong();
      }
    }
    return {};
  }

  std::string format_;
  std::vector<Element> elements_;
};

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
  if (auto wrong = kind == "ply" ? PlyHead().check(bytes) : check_stl(bytes); !wrong.empty())
    return refused(label, wrong);
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
      for (const double c : p)
        if (!is_length(c)) return refused(label, fmt::format("point {}: a coordinate {}", i + 1, too_long));
      if (kind == "ply" || seen.insert(p).second) result.at.push_back(p);
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
