#pragma once
// One chain of dimensions: the gap g = Σ coefficient · dimension by worst case, by root sum square, and by
// simulation. Lengths mm.
//
//   a term not measured runs from nominal − minus to nominal + plus; normal: that half band is three standard
//   deviations; uniform: the whole band is equally likely (σ = half band / √3); a measured term is normal
//   about what was read, σ = uncertainty / 2.
//
// The simulation draws each uniform term by itself; the sum of all normal terms is itself normal and is drawn
// as one. Draws are a hash of seed, sample and term, so that any number of threads gives the same figure.

#include "quantity/reckoning.h"

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace datrin::chains {

enum class Distribution { normal, uniform };

/// The most a term may count for: far beyond any lever or screw.
inline constexpr double most_coefficient = 1e6;

struct ChainLink {
  std::string id;
  double coefficient = 1;
  double nominal = 0, plus = 0, minus = 0; ///< the band, both not negative
  Distribution distribution = Distribution::normal;
  std::optional<double> measured;
  double uncertainty = 0;

  double low() const { return measured ? *measured - uncertainty : nominal - minus; }
  double high() const { return measured ? *measured + uncertainty : nominal + plus; }
  double mean() const { return measured ? *measured : nominal + (plus - minus) / 2; }
  double sigma() const;
};

struct ChainInput {
  std::vector<ChainLink> links;
  double lower = 0, upper = 0; ///< of the gap
};

struct ChainOptions {
  std::int64_t samples = 1000000; ///< 0: no simulation
  std::uint64_t seed = 1;
  int threads = 0; ///< 0: as many as the machine has
  int bins = 0;    ///< of a histogram over mean ± 4.5 σ; 0: none
};

enum class ChainStatus { not_run, computed, refused };

struct Contribution {
  std::string id;
  double share = 0; ///< of the variance; the shares sum to 1
  double worst = 0; ///< mm of the worst-case band
};

struct ChainResult {
  ChainStatus status = ChainStatus::not_run;
  std::string message;
  double worst_low = 0, worst_high = 0;
  double nominal = 0; ///< Σ coefficient · nominal
  double mean = 0, sigma = 0;
  double p_within = 0;                     ///< by simulation; exact 0 or 1 when σ is 0
  std::vector<Contribution> contributions; ///< in the order of the links
  int improve = -1; ///< the link whose band to halve first: the largest share of those not measured
  std::vector<std::int64_t> histogram;
  double histogram_low = 0, histogram_width = 0; ///< of its first bin, and of each

  bool usable() const { return status == ChainStatus::computed; }
};

ChainResult chain(const ChainInput& input, const ChainOptions& options = {});

/// How the expected gap adds up, term by term.
Reckoning gap_sum(const ChainInput& input);

/// What a shim or a part made to suit must measure to bring the gap, without it, to the middle of its limits;
/// the closing part has coefficient −1.
double closing_part(double gap_without, double lower, double upper);

/// A coefficient as people write it: "2", "-1/2", "cos 30", "1/cos 30", "3/4 sin 45", "tan 5". Nothing when
/// it is not understood, with why in `message`.
std::optional<double> parse_coefficient(const std::string& text, std::string* message = nullptr);

} // namespace datrin::chains
