#include "chains/chain.h"

#include "quantity/text.h"
#include "quantity/unit.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <future>
#include <numeric>
#include <thread>

namespace datrin::chains {

namespace {

constexpr std::int64_t block = 16384; // samples drawn together; one thread takes whole blocks
constexpr std::uint64_t golden = 0x9E3779B97F4A7C15ULL;

/// The finaliser of SplitMix64 (Steele, Lea and Flood): a good hash of a counter.
inline std::uint64_t mixed(std::uint64_t z) {
  z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9ULL;
  z = (z ^ (z >> 27)) * 0x94D049BB133111EBULL;
  return z ^ (z >> 31);
}

struct Draws {
  std::vector<double> widths; ///< of the uniform terms, two to a hash
  double base = 0;            ///< mean less the half widths
  double sigma = 0;           ///< of all normal terms together
  double lower = 0, upper = 0;
  std::uint64_t key = 0;
};

/// One standard normal from a counter, by Box and Muller.
inline double normal_at(std::uint64_t counter) {
  const std::uint64_t h = mixed(counter);
  const double u = (static_cast<double>(h >> 32) + 0.5) * 0x1p-32;
  const double v = static_cast<double>(h & 0xFFFFFFFFU) * 0x1p-32;
  return std::sqrt(-2 * std::log(u)) * std::cos(2 * pi * v);
}

// With AVX2 where the machine has it: the same sums, no fused multiply-adds, so the same figures.
#if defined(__GNUC__) && !defined(__clang__) && defined(__x86_64__)
#define DATRIN_CLONES __attribute__((target_clones("avx2", "default")))
#else
#define DATRIN_CLONES
#endif

/// Draws samples first … first + count − 1 into `sums`.
DATRIN_CLONES void draw(const Draws& d, std::int64_t first, std::int64_t count, double* sums) {
  const auto pairs = static_cast<std::uint64_t>((d.widths.size() + 1) / 2);
  const std::uint64_t stride = pairs + 1; // counters a sample
  std::uint64_t counter = d.key + static_cast<std::uint64_t>(first) * stride * golden;
  std::fill(sums, sums + count, d.base);
  for (std::uint64_t p = 0; p < pairs; ++p) {
    const double w1 = d.widths[2 * p] * 0x1p-32;
    const double w2 = 2 * p + 1 < d.widths.size() ? d.widths[2 * p + 1] * 0x1p-32 : 0.0;
    std::uint64_t c = counter + p * golden;
    for (std::int64_t s = 0; s < count; ++s, c += stride * golden) {
      const std::uint64_t h = mixed(c);
      sums[s] += w1 * (static_cast<double>(static_cast<std::uint32_t>(h >> 32)) + 0.5) +
                 w2 * (static_cast<double>(static_cast<std::uint32_t>(h)) + 0.5);
    }
  }
  if (d.sigma > 0) {
    std::uint64_t c = counter + pairs * golden;
    for (std::int64_t s = 0; s < count; ++s, c += stride * golden) sums[s] += d.sigma * normal_at(c);
  }
}

} // namespace

double ChainLink::sigma() const {
  if (measured) return uncertainty / 2;
  const double half = (plus + minus) / 2;
  return distribution == Distribution::normal ? half / 3 : half / std::sqrt(3.0);
}

namespace {

/// What is wrong with the numbers; empty when nothing.
std::string wrong_with(const ChainInput& in, const ChainOptions& o) {
  if (in.links.empty()) return "a chain needs a term";
  if (!is_length(in.lower) || !is_length(in.upper))
    return "the limits of the gap must be numbers, at most 10 km";
  if (in.lower > in.upper) return "lower must not be above upper";
  if (o.samples < 0 || o.samples > 1000000000) return "samples must be between 0 and 1,000,000,000";
  constexpr double most_draws = 1e10; // a quarter of a minute
  if (static_cast<double>(o.samples) * static_cast<double>(in.links.size()) > most_draws)
    return fmt::format("{} samples of {} terms take too long; take at most {:.0f}", o.samples,
                       in.links.size(), most_draws / static_cast<double>(in.links.size()));
  for (const auto& link : in.links) {
    for (const double mm : {link.nominal, link.plus, link.minus, link.measured.value_or(0), link.uncertainty})
      if (std::abs(mm) > most_length) return fmt::format("{}: every length of it {}", link.id, too_long);
    if (!(std::abs(link.coefficient) <= most_coefficient) || !is_length(link.nominal) || !(link.plus >= 0) ||
        !(link.minus >= 0))
      return link.id + ": coefficient and nominal must be numbers, plus and minus not negative";
    if (link.measured && (!is_length(*link.measured) || !(link.uncertainty >= 0)))
      return link.id + ": what was measured must be a number, its uncertainty not negative";
  }
  return {};
}

/// Worst case, root sum square, and who spreads the gap most, into `out`; returns what the tries draw from.
Draws add_up(const ChainInput& in, ChainResult& out) {
  Draws d;
  double variance = 0, normal_variance = 0;
  for (const auto& link : in.links) {
    const double a = link.coefficient * link.low(), b = link.coefficient * link.high();
    out.worst_low += std::min(a, b);
    out.worst_high += std::max(a, b);
    out.nominal += link.coefficient * link.nominal;
    out.mean += link.coefficient * link.mean();
    const double own = link.coefficient * link.coefficient * link.sigma() * link.sigma();
    variance += own;
    out.contributions.push_back({link.id, own, std::abs(b - a)});
    if (link.measured || link.distribution == Distribution::normal) {
      normal_variance += own;
    } else if (own > 0) {
      d.widths.push_back(std::abs(link.coefficient) * (link.plus + link.minus));
    }
  }
  out.sigma = std::sqrt(variance);
  for (auto& c : out.contributions) c.share = variance > 0 ? c.share / variance : 0;
  for (std::size_t k = 0; k < in.links.size(); ++k)
    if (!in.links[k].measured && out.contributions[k].share > 0 &&
        (out.improve < 0 ||
         out.contributions[k].share > out.contributions[static_cast<std::size_t>(out.improve)].share))
      out.improve = static_cast<int>(k);
  d.base = out.mean - std::accumulate(d.widths.begin(), d.widths.end(), 0.0) / 2;
  d.sigma = std::sqrt(normal_variance);
  d.lower = in.lower;
  d.upper = in.upper;
  return d;
}

/// The tries, shared out among the cores in blocks: how many close, and how often each gap comes.
void simulate(const Draws& d, const ChainOptions& o, ChainResult& out) {
  const std::int64_t blocks = (o.samples + block - 1) / block;
  const int cores =
      o.threads > 0 ? o.threads : static_cast<int>(std::max(1U, std::thread::hardware_concurrency()));
  const int threads = static_cast<int>(std::clamp<std::int64_t>(cores, 1, blocks));
  const auto bins = static_cast<std::size_t>(std::max(0, o.bins));
  out.histogram_low = out.mean - 4.5 * out.sigma;
  out.histogram_width = bins > 0 ? 9 * out.sigma / static_cast<double>(bins) : 0;
  std::vector<std::int64_t> within(static_cast<std::size_t>(threads), 0);
  std::vector<std::vector<std::int64_t>> counts(static_cast<std::size_t>(threads),
                                                std::vector<std::int64_t>(bins, 0));
  const auto work = [&](int thread) {
    std::vector<double> sums(static_cast<std::size_t>(block));
    auto& own = counts[static_cast<std::size_t>(thread)];
    std::int64_t good = 0;
    for (std::int64_t b = thread; b < blocks; b += threads) {
      const auto first = b * block, count = std::min(block, o.samples - first);
      draw(d, first, count, sums.data());
      for (std::int64_t s = 0; s < count; ++s) {
        const double g = sums[static_cast<std::size_t>(s)];
        good += static_cast<std::int64_t>(g >= d.lower) & static_cast<std::int64_t>(g <= d.upper);
      }
      if (bins > 0)
        for (std::int64_t s = 0; s < count; ++s) {
          const double at = (sums[static_cast<std::size_t>(s)] - out.histogram_low) / out.histogram_width;
          if (at >= 0 && at < static_cast<double>(bins)) ++own[static_cast<std::size_t>(at)];
        }
    }
    within[static_cast<std::size_t>(thread)] = good;
  };
  // What one of them throws is thrown here, when all have ended.
  std::vector<std::future<void>> others;
  for (int t = 1; t < threads; ++t) others.push_back(std::async(std::launch::async, work, t));
  work(0);
  for (auto& other : others) other.get();
  const auto good = std::accumulate(within.begin(), within.end(), std::int64_t{0});
  out.p_within = static_cast<double>(good) / static_cast<double>(o.samples);
  out.histogram.assign(bins, 0);
  for (const auto& own : counts)
    for (std::size_t b = 0; b < bins; ++b) out.histogram[b] += own[b];
}

} // namespace

ChainResult chain(const ChainInput& in, const ChainOptions& o) {
  ChainResult out;
  if (auto wrong = wrong_with(in, o); !wrong.empty()) {
    out.status = ChainStatus::refused;
    out.message = std::move(wrong);
    return out;
  }
  auto draws = add_up(in, out);
  draws.key = mixed(o.seed * golden + 1);
  out.status = ChainStatus::computed;
  if (!(out.sigma > 0))
    out.p_within = out.mean >= in.lower && out.mean <= in.upper ? 1 : 0;
  else if (o.samples > 0)
    simulate(draws, o, out);
  return out;
}

Reckoning gap_sum(const ChainInput& in) {
  Reckoning sum;
  sum.title = "gap, expected";
  for (const auto& link : in.links) {
    std::string label = link.id;
    if (std::abs(std::abs(link.coefficient) - 1) > 1e-9)
      label += fmt::format(" \u00D7 {:.4g}", std::abs(link.coefficient));
    sum.lines.push_back({std::move(label), link.coefficient * link.mean(),
                         link.measured ? "measured" : "middle of its limits"});
  }
  return sum;
}

double closing_part(double gap_without, double lower, double upper) {
  return gap_without - (lower + upper) / 2;
}

std::optional<double> parse_coefficient(const std::string& text, std::string* message) {
  const auto fail = [&](std::string why) -> std::optional<double> {
    if (message != nullptr) *message = std::move(why);
    return std::nullopt;
  };
  std::string rest = lower_case(trimmed(text));
  for (const std::string minus : {"\xE2\x88\x92"})
    if (rest.starts_with(minus)) rest.replace(0, minus.size(), "-");
  double sign = 1, value = 1;
  if (!rest.empty() && (rest[0] == '-' || rest[0] == '+')) {
    sign = rest[0] == '-' ? -1 : 1;
    rest = std::string(trimmed(rest.substr(1)));
  }
  if (rest.empty()) return fail("write a number, a fraction, or sin, cos or tan of an angle in degrees");
  bool over = false, joined = true; // joined: by a sign, or at the beginning
  while (!rest.empty()) {
    double factor = 0;
    bool function = false;
    for (const char* name : {"sin", "cos", "tan"})
      if (rest.starts_with(name)) {
        rest = std::string(trimmed(rest.substr(3)));
        double angle = 0;
        const auto read = std::from_chars(rest.data(), rest.data() + rest.size(), angle);
        if (read.ec != std::errc{}) return fail(fmt::format("after {} comes an angle in degrees", name));
        rest = std::string(trimmed(rest.substr(static_cast<std::size_t>(read.ptr - rest.data()))));
        if (rest.starts_with("\xC2\xB0")) rest = std::string(trimmed(rest.substr(2)));
        const double r = radians(angle);
        factor = name[0] == 's' ? std::sin(r) : name[0] == 'c' ? std::cos(r) : std::tan(r);
        function = true;
        break;
      }
    if (!function) {
      if (!joined)
        return fail(fmt::format(
            "\"{}\": put a sign between its numbers, or write one and a half as 1.5 or 3/2", text));
      const auto read = std::from_chars(rest.data(), rest.data() + rest.size(), factor);
      if (read.ec != std::errc{} || !std::isfinite(factor))
        return fail(fmt::format(
            "\"{}\" is not understood; write a number, a fraction, or sin, cos or tan of an angle "
            "in degrees",
            text));
      rest = std::string(trimmed(rest.substr(static_cast<std::size_t>(read.ptr - rest.data()))));
    }
    if (over && std::abs(factor) < 1e-12) return fail("it divides by nothing");
    value = over ? value / factor : value * factor;
    over = joined = false;
    if (rest.starts_with("/")) {
      over = joined = true;
      rest = std::string(trimmed(rest.substr(1)));
      if (rest.empty()) return fail("something must stand behind the /");
    } else if (rest.starts_with("*") || rest.starts_with("\xC3\x97")) {
      joined = true;
      rest = std::string(trimmed(rest.substr(rest[0] == '*' ? 1 : 2)));
      if (rest.empty()) return fail("something must stand behind the \u00D7");
    }
  }
  if (!std::isfinite(value)) return fail("that is no number");
  return sign * value;
}

} // namespace datrin::chains
