#pragma once
// Records of every kind made from their descriptions, with values that keep the rules: what tests of writing,
// checking, references and the index stand on. A new kind is in all of them by being described.

#include "build/build.h"
#include "build/check.h"
#include "build/description.h"
#include "geometry/pose.h"

#include <cmath>
#include <map>
#include <memory>
#include <random>
#include <string>
#include <vector>

namespace datrin::test {

class RandomRecords {
public:
  explicit RandomRecords(unsigned seed) : random_(seed) {}

  /// A record of `kind` whose references stand in `build`; nothing when what it needs is not there, or no
  /// luck was had with the rules of several members.
  std::optional<build::Record> make(int kind, const build::Build& build) {
    const auto& d = build::description(kind);
    for (int attempt = 0; attempt < 50; ++attempt) {
      auto value = d.make();
      if (!fill(d.fields, value.get(), build)) return std::nullopt;
      build::Record record(kind, value);
      if (!build::first_wrong(record)) return record;
    }
    return std::nullopt;
  }

  std::size_t below(std::size_t n) { return std::uniform_int_distribution<std::size_t>(0, n - 1)(random_); }
  bool one_in(int n) { return below(static_cast<std::size_t>(n)) == 0; }

private:
  double real(double low, double high) { return std::uniform_real_distribution<double>(low, high)(random_); }

  double number(const build::Field& f) {
    switch (f.rule) {
    case build::Rule::not_negative:
      return one_in(3) ? 0 : real(0, 50);
    case build::Rule::positive:
      return real(0.01, 50);
    case build::Rule::within:
      return f.least + (f.most - f.least) * real(0, 1);
    default:
      return one_in(4) ? 0 : real(-50, 50);
    }
  }

  std::string text() {
    static const std::vector<std::string> words{
        "bore", "foot \u2192 boss", "a \"quoted\" one", "H7",    "\u2300 25", "tab\there",
        "",     "line\nbreak",      "\u00E9\u4E2D",     "1/2 in"};
    return words[below(words.size())];
  }

  /// An id of one of the kinds, 0 where it may be none and luck has it so.
  std::optional<build::Id> id_for(const build::Field& f, const build::Build& build) {
    std::vector<build::Id> ids;
    for (const auto& [id, record] : build.records())
      for (const int kind : f.refers_to)
        if (record.kind() == kind) ids.push_back(id);
    if (ids.empty() || (f.reference == build::Reference::points_to && one_in(4))) return 0;
    return ids[below(ids.size())];
  }

  bool fill(const std::vector<build::Field>& fields, void* record, const build::Build& build) {
    using build::FieldType;
    for (const auto& f : fields) {
      void* member = f.at(record);
      switch (f.type) {
      case FieldType::text:
        *static_cast<std::string*>(member) = text();
        break;
      case FieldType::number:
        *static_cast<double*>(member) = number(f);
        break;
      case FieldType::whole:
        *static_cast<int*>(member) = static_cast<int>(std::round(number(f)));
        break;
      case FieldType::flag:
        *static_cast<bool*>(member) = one_in(2);
        break;
      case FieldType::flags:
        for (std::size_t k = 0; k < f.count; ++k) static_cast<bool*>(member)[k] = one_in(2);
        break;
      case FieldType::word:
        f.set_word(record, static_cast<int>(below(f.words.second)));
        break;
      case FieldType::id:
        if (const auto id = id_for(f, build))
          *static_cast<build::Id*>(member) = *id;
        else
          return false;
        break;
      case FieldType::ids:
        if (f.count > 0) {
          for (std::size_t k = 0; k < f.count; ++k)
            static_cast<build::Id*>(member)[k] = id_for(f, build).value_or(0);
        } else {
          auto& ids = *static_cast<std::vector<build::Id>*>(member);
          for (std::size_t k = below(4); k > 0; --k)
            if (const auto id = id_for(f, build); id && *id != 0) ids.push_back(*id);
        }
        break;
      case FieldType::vector: {
        Vec3 v(real(-40, 40), real(-40, 40), real(-40, 40));
        if (f.rule == build::Rule::unit_length)
          v = one_in(2) ? Vec3::Unit(static_cast<int>(below(3))) : v.normalized();
        *static_cast<Vec3*>(member) = v;
        break;
      }
      case FieldType::pose: {
        auto& pose = *static_cast<Pose*>(member);
        pose.rotation = rotation_from_vector({real(-1, 1), real(-1, 1), real(-1, 1)});
        pose.translation = {real(-40, 40), real(-40, 40), real(-40, 40)};
        break;
      }
      case FieldType::list:
        for (std::size_t k = below(4); k > 0; --k)
          if (!fill(f.element, f.list.append(member), build)) return false;
        break;
      case FieldType::points: {
        auto points = std::make_shared<build::ScanPoints>();
        for (std::size_t k = below(6); k > 0; --k) {
          points->at.push_back({static_cast<float>(real(-9, 9)), 1.5F, -2.25F});
          points->surface.push_back(0);
        }
        for (const auto& [id, surface] : build.all<build::PartSurface>())
          if (points->surfaces.empty()) points->surfaces.push_back(id);
        *static_cast<std::shared_ptr<const build::ScanPoints>*>(member) = points;
        break;
      }
      }
    }
    return true;
  }

  std::mt19937 random_;
};

} // namespace datrin::test
