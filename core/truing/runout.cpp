#include "truing/runout.h"

#include "geometry/solve.h"
#include "quantity/angle.h"
#include "quantity/length.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace datrin::truing {

namespace {

constexpr double turn = 2 * std::numbers::pi;
constexpr double least_pivot = 1e-9;

double within_turn(double angle) {
  const double out = std::fmod(angle, turn);
  return out < 0 ? out + turn : out;
}

Matrix columns(const std::vector<RunoutReading>& readings, bool second) {
  Matrix a(static_cast<Eigen::Index>(readings.size()), second ? 5 : 3);
  for (std::size_t k = 0; k < readings.size(); ++k) {
    const auto row = static_cast<Eigen::Index>(k);
    const double at = readings[k].at;
    a(row, 0) = 1;
    a(row, 1) = std::cos(at);
    a(row, 2) = std::sin(at);
    if (second) a(row, 3) = std::cos(2 * at), a(row, 4) = std::sin(2 * at);
  }
  return a;
}

Runout refused(std::string why) {
  Runout out;
  out.status = RunoutStatus::refused;
  out.message = std::move(why);
  return out;
}

} // namespace

double Runout::direction() const {
  return offset() < 1e-12 ? 0 : within_turn(std::atan2(off.y(), off.x()));
}

Runout runout(const RunoutInput& input) {
  const auto& readings = input.readings;
  constexpr double same = 1e-6; // radians
  for (std::size_t a = 0; a < readings.size(); ++a) {
    if (!std::isfinite(readings[a].value) || std::abs(readings[a].value) > 1e3)
      return refused("a reading is more than an indicator has");
    for (std::size_t b = a + 1; b < readings.size(); ++b) {
      const double apart = within_turn(readings[a].at - readings[b].at);
      if (apart < same || apart > turn - same)
        return refused(fmt::format("{:g}\u00B0 is read twice: which of the two counts?",
                                   degrees(within_turn(readings[a].at))));
    }
  }
  if (readings.size() < 3) return refused("at least three readings round are wanted");
  Vector values(static_cast<Eigen::Index>(readings.size()));
  for (std::size_t k = 0; k < readings.size(); ++k) values(static_cast<Eigen::Index>(k)) = readings[k].value;
  const auto first = least_squares(columns(readings, false), values, least_pivot);
  if (!first) return refused("the readings stand too near each other to say where it lies");
  Runout out;
  out.status = RunoutStatus::found;
  // An outside pushes the plunger where the axis lies; the wall of a bore on the side it does not.
  out.off = (input.bore ? -1 : 1) * Vec2(first->x(1), first->x(2));
  out.rest = first->residuals.cwiseAbs().maxCoeff();
  out.form = out.rest;
  constexpr std::size_t enough = 5;
  if (readings.size() < enough) return out;
  if (const auto both = least_squares(columns(readings, true), values, least_pivot)) {
    const double c = both->x(3), s = both->x(4);
    out.second = std::hypot(c, s);
    out.second_at = out.second < 1e-12 ? 0 : within_turn(std::atan2(s, c)) / 2;
    if (input.bore) out.second_at = std::fmod(out.second_at + turn / 4, turn / 2); // wide where it reads low
    out.form = both->residuals.cwiseAbs().maxCoeff();
  }
  return out;
}

ParsedReadings parse_readings(std::string_view text, Unit unit) {
  ParsedReadings out;
  LengthOptions lengths;
  lengths.bare_unit = unit;
  const auto words = words_of(text);
  // Readings alone: evenly round, the first at 0.
  const bool alone = words.size() >= 3 && text.find(':') == std::string_view::npos;
  for (std::size_t k = 0; k < words.size(); ++k) {
    const auto word = words[k];
    const auto colon = word.find(':');
    auto at = colon == std::string_view::npos ? std::nullopt : number_from(word.substr(0, colon));
    if (alone) at = 360.0 * static_cast<double>(k) / static_cast<double>(words.size());
    if (!at) {
      out.wrong =
          fmt::format("\"{}\" is no reading: the angle, a colon, what was read, as 90:0.05; or readings "
                      "alone, three or more, evenly round from 0",
                      word);
      return out;
    }
    const auto figure = alone ? word : word.substr(colon + 1);
    constexpr std::string_view begins = "+-.,0123456789\xE2"; // no letter: that would be a drill's
    if (figure.empty() || begins.find(figure.front()) == std::string_view::npos) {
      out.wrong = fmt::format("at {:g}\u00B0: \"{}\" is no reading", *at, figure);
      return out;
    }
    const auto value = parse_length(std::string(figure), lengths);
    if (!value.ok()) {
      out.wrong = fmt::format("at {:g}\u00B0: {}", *at, value.message);
      return out;
    }
    constexpr double no_indicator = 20; // mm: so much is an angle whose colon was left out
    if (alone && std::abs(value.mm) >= no_indicator) {
      out.wrong = fmt::format("\"{}\" is no reading: with angles write 90:0.05", word);
      return out;
    }
    out.readings.push_back({radians(*at), value.mm});
  }
  if (out.readings.empty()) out.wrong = "nothing was read";
  return out;
}

std::vector<double> jaw_moves(const Runout& runout, double first, int jaws) {
  std::vector<double> out;
  for (int k = 0; k < jaws; ++k) {
    const double at = first + turn * k / jaws;
    const double in = runout.off.x() * std::cos(at) + runout.off.y() * std::sin(at);
    out.push_back(std::abs(in) < 1e-12 ? 0 : in);
  }
  return out;
}

double tilt_between(const Vec2& near_off, const Vec2& far_off, double apart) {
  return apart > 0 ? std::atan((far_off - near_off).norm() / apart) : 0;
}

} // namespace datrin::truing
