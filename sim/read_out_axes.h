#pragma once
// The scales of a simulated read-out: where each axis is, and what turns it. mm.

#include <fmt/format.h>

#include <array>
#include <charconv>
#include <cmath>
#include <string>

namespace datrin::sim {

class ReadOutAxes {
public:
  /// "turn X 0.5" moves, "set X 0" makes it show that. False: it is neither.
  bool take(const std::string& command) {
    const auto first = command.find(' '), second = command.find(' ', first + 1);
    if (first == std::string::npos || second != first + 2) return false;
    const auto what = command.substr(0, first);
    const char axis = command[first + 1];
    double mm = 0;
    const auto [end, wrong] =
        std::from_chars(command.data() + second + 1, command.data() + command.size(), mm);
    if (wrong != std::errc() || end != command.data() + command.size() || !std::isfinite(mm)) return false;
    const auto k = std::string("XYZ").find(axis);
    if (k == std::string::npos || (what != "turn" && what != "set")) return false;
    shows_[k] = what == "turn" ? shows_[k] + mm : mm;
    return true;
  }

  /// As such a thing sends it: to the last figure of its scales.
  std::string line() const {
    const auto shown = [](double mm) { return std::round(mm / scale) * scale + 0.0; };
    return fmt::format("X {:+.3f} Y {:+.3f} Z {:+.3f} mm\n", shown(shows_[0]), shown(shows_[1]),
                       shown(shows_[2]));
  }

private:
  static constexpr double scale = 0.005;
  std::array<double, 3> shows_{-18.42, 6.015, 24.0};
};

} // namespace datrin::sim
