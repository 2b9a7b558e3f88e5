#pragma once
// What the records' bodies are written and read with.

#include "build/records.h"
#include "store/json_reader.h"

#include <Eigen/LU>
#include <fmt/format.h>
#include <fmt/ranges.h>
#include <nlohmann/json.hpp>

#include <cmath>
#include <string_view>

namespace datrin::store {

using build::Id;
using nlohmann::json;

inline json vector_json(const Vec3& v) {
  return json::array({v.x(), v.y(), v.z()});
}

inline Vec3 vector_from(const JsonAt& at) {
  return at.vector();
}

inline json pose_json(const Pose& pose) {
  json rotation = json::array();
  for (int r = 0; r < 3; ++r)
    for (int c = 0; c < 3; ++c) rotation.push_back(pose.rotation(r, c));
  return {{"rotation", rotation}, {"translation", vector_json(pose.translation)}};
}

inline Pose pose_from(const JsonAt& at) {
  Pose pose;
  const auto rotation = at.at("rotation");
  if (rotation.size() != 9) rotation.refuse("must be nine numbers, row by row");
  for (int i = 0; i < 9; ++i) pose.rotation(i / 3, i % 3) = rotation.at(static_cast<std::size_t>(i)).number();
  if ((pose.rotation * pose.rotation.transpose() - Mat3::Identity()).norm() > 1e-6 ||
      pose.rotation.determinant() < 0)
    rotation.refuse("must be a rotation");
  pose.translation = at.at("translation").vector();
  return pose;
}

inline Id id_from(const JsonAt& at) {
  const double value = at.number();
  if (value < 0 || value > 9e15 || value != std::floor(value)) at.refuse("must be a whole number");
  return static_cast<Id>(value);
}

inline bool bool_from(const JsonAt& at) {
  const auto value = at.number();
  if (value != 0 && value != 1) at.refuse("must be 0 or 1");
  return value != 0;
}

template <std::size_t N, class E>
std::string_view word(const std::string_view (&words)[N], E value) {
  return words[static_cast<std::size_t>(value)];
}

template <class E, std::size_t N>
E value_of(const std::string_view (&words)[N], const JsonAt& at) {
  const auto text = at.text();
  for (std::size_t k = 0; k < N; ++k)
    if (words[k] == text) return static_cast<E>(k);
  at.refuse(fmt::format("must be one of \"{}\"", fmt::join(words, "\", \"")));
}

} // namespace datrin::store
