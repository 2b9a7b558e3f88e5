#include "build/check.h"

#include "build/edits.h"
#include "build/references.h"
#include "quantity/text.h"

#include <Eigen/Core>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace datrin::build {

namespace {

/// What is wrong with a number; empty when nothing.
std::string number_wrong(const Field& f, double value) {
  if (!std::isfinite(value)) return "must be a finite number";
  if (f.measures == Measures::length && !is_length(value)) return too_long;
  switch (f.rule) {
  case Rule::any:
  case Rule::unit_length:
    return {};
  case Rule::positive:
    return value > 0 ? "" : "must be above 0";
  case Rule::not_negative:
    return value >= 0 ? "" : "must not be negative";
  case Rule::within:
    return value >= f.least && value <= f.most
               ? ""
               : fmt::format("must be {}from {} to {}", f.type == FieldType::whole ? "a whole number " : "",
                             f.least, f.most);
  }
  return {};
}

std::string vector_wrong(const Field& f, const Vec3& v) {
  for (int k = 0; k < 3; ++k)
    if (auto wrong = number_wrong(f, v[k]); !wrong.empty()) return wrong;
  if (f.rule == Rule::unit_length && !(std::abs(v.norm() - 1) <= 1e-6)) return "must be of unit length";
  return {};
}

std::string pose_wrong(const Pose& pose) {
  const Mat3& r = pose.rotation;
  if (!((r * r.transpose() - Mat3::Identity()).norm() <= 1e-6) || r.col(0).cross(r.col(1)).dot(r.col(2)) < 0)
    return "/rotation must be a rotation";
  for (int k = 0; k < 3; ++k)
    if (!is_length(pose.translation[k])) return std::string("/translation ") + too_long;
  return {};
}

std::optional<Wrong> wrong_in(const std::vector<Field>& fields, const void* record, const std::string& way);

std::optional<Wrong> wrong_with(const Field& f, const void* record, const std::string& way) {
  const void* at = f.at_const(record);
  const auto fail = [&](std::string rule) -> std::optional<Wrong> {
    if (rule.empty()) return std::nullopt;
    return Wrong{way + "/" + f.name, std::move(rule)};
  };
  const auto id = [](build::Id value) {
    return value < 0 ? std::string("must not be negative") : std::string();
  };
  switch (f.type) {
  case FieldType::text:
    return fail(is_utf8(*static_cast<const std::string*>(at)) ? "" : "must be text in UTF-8");
  case FieldType::flag:
  case FieldType::flags:
  case FieldType::points:
    return std::nullopt;
  case FieldType::number:
    return fail(number_wrong(f, *static_cast<const double*>(at)));
  case FieldType::whole:
    return fail(number_wrong(f, *static_cast<const int*>(at)));
  case FieldType::word:
    return fail(f.word_at(record) >= 0 && static_cast<std::size_t>(f.word_at(record)) < f.words.second
                    ? ""
                    : "must be one of its words");
  case FieldType::id:
    return fail(id(*static_cast<const Id*>(at)));
  case FieldType::ids:
    for (std::size_t k = 0; k < id_count(f, at); ++k)
      if (auto rule = id(id_at(f, at, k)); !rule.empty())
        return Wrong{fmt::format("{}/{}/{}", way, f.name, k), rule};
    return std::nullopt;
  case FieldType::vector:
    return fail(vector_wrong(f, *static_cast<const Vec3*>(at)));
  case FieldType::pose: {
    const auto rule = pose_wrong(*static_cast<const Pose*>(at));
    if (rule.empty()) return std::nullopt;
    const auto cut = rule.find(' ');
    return Wrong{way + "/" + f.name + rule.substr(0, cut), rule.substr(cut + 1)};
  }
  case FieldType::list:
    for (std::size_t k = 0; k < f.list.size(at); ++k)
      if (auto wrong = wrong_in(f.element, f.list.at(const_cast<void*>(at), k),
                                fmt::format("{}/{}/{}", way, f.name, k)))
        return wrong;
    return std::nullopt;
  }
  return std::nullopt;
}

std::optional<Wrong> wrong_in(const std::vector<Field>& fields, const void* record, const std::string& way) {
  for (const auto& f : fields)
    if (auto wrong = wrong_with(f, record, way)) return wrong;
  return std::nullopt;
}

} // namespace

std::optional<Wrong> first_wrong(const Description& description, const void* record) {
  if (auto wrong = wrong_in(description.fields, record, {})) return wrong;
  if (description.together == nullptr) return std::nullopt;
  auto wrong = description.together(record);
  if (wrong.rule.empty()) return std::nullopt;
  wrong.field = "/" + wrong.field;
  return wrong;
}

std::optional<Wrong> first_wrong(const Record& record) {
  return first_wrong(record.description(), record.value().get());
}

std::string edit_wrong(const Build& build, const Edit& edit) {
  if (!is_utf8(edit.label)) return "its name must be text in UTF-8";
  const auto made = std::count_if(edit.changes.begin(), edit.changes.end(),
                                  [](const Change& c) { return c.after && !c.before; });
  if (build.records().size() + static_cast<std::size_t>(made) > Build::most_records)
    return fmt::format("A build has at most {} records", grouped(Build::most_records));
  std::map<Id, const Record*> after; // null: removed
  for (const auto& change : edit.changes) after[change.id] = change.after ? &*change.after : nullptr;
  const auto standing = [&](Id id) -> const Record* {
    if (const auto changed = after.find(id); changed != after.end()) return changed->second;
    const auto here = build.records().find(id);
    return here == build.records().end() ? nullptr : &here->second;
  };
  for (const auto& change : edit.changes) {
    if (change.after) {
      if (const auto wrong = first_wrong(*change.after)) {
        auto field = wrong->field.substr(std::min<std::size_t>(1, wrong->field.size()));
        std::replace(field.begin(), field.end(), '/', ' ');
        return fmt::format("{}: {} {}", name_of(*change.after), field, wrong->rule);
      }
      if (auto wrong = dangling(change.id, *change.after, standing); !wrong.empty())
        return fmt::format("{}: {}", name_of(*change.after), wrong);
    } else {
      for (const Id id : build.needing(change.id))
        if (const auto* left = standing(id))
          if (const auto needed = needs(*left);
              std::find(needed.begin(), needed.end(), change.id) != needed.end())
            return fmt::format("{} still needs a record that would go", name_of(*left));
    }
  }
  return {};
}

} // namespace datrin::build
