#pragma once
// How sure a margin is, seeing that only some points of a rough surface were touched: a simulation of the
// surface that was not seen.
//
// Model. Over each surface the metal is a height that may be anything, plus a lean (round: off centre,
// leaning, tapering) that is small or as large as draft, plus a stationary Gaussian field with covariance σ²
// (1 + √3 r/ℓ) exp(−√3 r/ℓ) (Matérn, 3/2), r the distance between two places, plus the touch's own error.
// Lean, σ and ℓ are weighed over a grid by the touches themselves (restricted likelihood), times what rough
// castings usually are. Given them, the unseen surface is a conditional Gaussian over a net of points, from
// which whole surfaces are drawn; the least margin of each draw is one possible truth. (Universal kriging and
// conditional simulation: Chilès and Delfiner, Geostatistics, chapters 3 and 7; from memory.)
//
//   sure      the margin that 95 % of the draws have at least
//   standing  sure: 95 % of the draws clean up; likely: two thirds; doubtful: fewer
//
// benchmarks/trial-certainty counts how often "95 % sure" is right; docs/stock.md has the result.

#include "casting/seat_input.h"

#include <cstdint>
#include <functional>

namespace datrin::casting {

enum class Standing { unknown, sure, likely, doubtful };
const char* standing_name(Standing standing); ///< "sure", "likely", "doubtful"

/// How far each surface reaches: mm across and up for a plane, length for a round one; 0: as far as its
/// touches.
struct SurfaceReach {
  double width = 0, height = 0;
};

struct CertaintyOptions {
  int draws = 400;
  int net = 280;         ///< points a surface is drawn at, about
  int most_touches = 60; ///< of one surface; of more, every k-th is used
  std::uint64_t seed = 1;
  bool keep_draws = false; ///< for asking where to touch next
  std::function<bool()> should_stop{};
  std::function<void(double)> progress{}; ///< 0 to 1
};

struct GroupCertainty {
  int group = -1; ///< index into SeatMargins::groups
  int touches = 0;
  bool known = false;      ///< enough touches to say
  double seen = no_margin; ///< mm: least margin at the touches, without their uncertainty taken off
  double sure = 0;         ///< mm: the least margin 95 % of the draws have
  double middle = 0;       ///< mm: half of them
  double clean = 0;        ///< part of the draws that clean up
  Standing standing = Standing::unknown;
  double roughness = 0;         ///< mm: σ, the mean of what the touches allow
  double length = 0;            ///< mm: ℓ
  Vec3 thinnest = Vec3::Zero(); ///< drawing frame: where the least is most often
  std::vector<Vec3> net;        ///< drawing frame (keep_draws)
  std::vector<float> draws;     ///< margin at net point i of draw k: [k · net + i] (keep_draws)
  std::vector<double> least;    ///< per draw
};

enum class CertaintyStatus { not_run, known, refused, stopped };

struct CertaintyResult {
  CertaintyStatus status = CertaintyStatus::not_run;
  std::string message;
  std::vector<GroupCertainty> groups;     ///< per SeatMargins::groups
  double sure = 0, middle = 0, clean = 0; ///< of the least margin over all that is known
  Standing standing = Standing::unknown;
  std::vector<double> least; ///< per draw, over all

  bool usable() const { return status == CertaintyStatus::known; }
};

/// `reach` per SeatInput::surfaces (may be empty). Margins are those of margins_at: stock less what is
/// required, walls less what must be kept.
CertaintyResult certainty(const SeatInput& input, const Pose& seat, const std::vector<SurfaceReach>& reach,
                          const CertaintyOptions& options = {});

} // namespace datrin::casting
