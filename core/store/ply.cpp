#include "store/ply.h"

#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <bit>
#include <charconv>
#include <cmath>
#include <cstdint>
#include <cstring>
#include <map>
#include <optional>

namespace datrin::store {
namespace {

/// Goes through a file as its own head says it is laid out.
class PlyReader {
public:
  PlyPoints read(std::string_view bytes) {
    std::size_t body = 0;
    out_.wrong = read_head(bytes, body);
    if (out_.wrong.empty())
      out_.wrong = format_ == "ascii" ? walk_text(bytes.substr(body)) : walk_binary(bytes.substr(body));
    return std::move(out_);
  }

private:
  struct Property {
    bool list = false;
    int count_size = 0, size = 0; ///< bytes
    int axis = -1;                ///< 0 to 2: a point's x, y, z
  };
  struct Element {
    std::string name;
    unsigned long long count = 0;
    std::vector<Property> properties;
    int coordinates = 0; ///< of x, y, z
    bool points = false; ///< the one that is read
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
          property.axis = name.front() - 'x';
        }
        elements_.back().properties.push_back(property);
      } else {
        return refuse(fmt::format("begins with \"{}\"", word.substr(0, 20)));
      }
    }
    return "has a header without an end";
  }

  std::string finish() {
    if (format_.empty()) return "states no format";
    const auto named = [&](const char* name) {
      return std::find_if(elements_.begin(), elements_.end(),
                          [&](const Element& e) { return e.name == name; });
    };
    const auto face = named("face"), vertex = named("vertex");
    out_.faces = face != elements_.end() && face->count > 0;
    if (vertex == elements_.end() || vertex->count == 0) return "holds no points";
    if (vertex->coordinates != 3) return "has points without x, y and z";
    vertex->points = true;
    return {};
  }

  /// The number at the front of `bytes`, a float or double in the file's order of bytes.
  double number_at(std::string_view bytes, int size) const {
    char own[8];
    std::copy_n(bytes.begin(), size, own);
    if ((format_ == "binary_big_endian") == (std::endian::native == std::endian::little))
      std::reverse(own, own + size);
    if (size == 8) {
      double value = 0;
      std::memcpy(&value, own, sizeof value);
      return value;
    }
    float value = 0;
    std::memcpy(&value, own, sizeof value);
    return value;
  }

  static std::string cut_short(const Element& element) {
    return fmt::format("its header promises {} of \"{}\", more than the file holds: it is cut short",
                       element.count, element.name);
  }

  std::string walk_binary(std::string_view body) {
    std::size_t at = 0;
    for (const auto& element : elements_) {
      if (element.properties.empty() || element.count > body.size()) return cut_short(element);
      for (unsigned long long k = 0; k < element.count; ++k) {
        if (element.points) out_.at.emplace_back();
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
          if (element.points && property.axis >= 0)
            out_.at.back()[static_cast<std::size_t>(property.axis)] =
                number_at(body.substr(at), property.size);
          at += bytes;
        }
      }
    }
    return {};
  }

  std::string walk_text(std::string_view body) {
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
        if (element.points) out_.at.emplace_back();
        for (const auto& property : element.properties) {
          const auto value = next();
          if (!value) return wrong();
          if (element.points && property.axis >= 0)
            out_.at.back()[static_cast<std::size_t>(property.axis)] = *value;
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
  PlyPoints out_;
};

} // namespace

PlyPoints read_ply(std::string_view bytes) {
  return PlyReader().read(bytes);
}

} // namespace datrin::store
