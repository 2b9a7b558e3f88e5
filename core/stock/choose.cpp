#include "stock/choose.h"

#include "build/words.h"
#include "quantity/length.h"
#include "quantity/length_text.h"
#include "quantity/table.h"
#include "quantity/text.h"
#include "stock/part_stock.h"
#include "stock_sizes_csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace datrin::stock {

namespace {

/// Sizes of one form in one unit, mm, rising.
struct Sold {
  StockForm form = StockForm::round;
  Unit unit = Unit::mm;
  std::vector<double> sizes, beside;
};

std::vector<double> lengths(const std::string& words, Unit unit) {
  std::vector<double> out;
  LengthOptions options;
  options.bare_unit = unit;
  for (const auto one : words_of(words)) {
    std::string word(one);
    std::replace(word.begin(), word.end(), '-', ' '); // 1-1/8
    if (const auto read = parse_length(word, options); read.ok()) out.push_back(read.mm);
  }
  return out;
}

const std::vector<Sold>& all_sold() {
  static const auto sold = [] {
    std::vector<Sold> out;
    const auto table = read_table(data::stock_sizes_csv);
    const auto [words, count] = build::words_of<StockForm>();
    for (const auto& row : table.rows) {
      Sold one;
      for (std::size_t k = 0; k < count; ++k)
        if (words[k] == row[0]) one.form = static_cast<StockForm>(k);
      one.unit = row[1] == "in" ? Unit::inch : Unit::mm;
      one.sizes = lengths(row[2], one.unit);
      if (row.size() > 3) one.beside = lengths(row[3], one.unit);
      out.push_back(std::move(one));
    }
    return out;
  }();
  return sold;
}

/// The first of `sizes` that is at least `needed`; 0: none.
double smallest(const std::vector<double>& sizes, double needed) {
  const auto at = std::lower_bound(sizes.begin(), sizes.end(), needed - 1e-9);
  return at == sizes.end() ? 0 : *at;
}

constexpr double flat_enough = 2; ///< a plate is at least so much wider than thick: else it is a bar

class Chooser {
public:
  Chooser(const ChooseInput& in, const ChooseOptions& o) : in_(in), o_(o) {}

  std::vector<StockChoice> choices() {
    static const std::array<Vec3, 3> ways{Vec3::UnitX(), Vec3::UnitY(), Vec3::UnitZ()};
    for (const auto& sold : all_sold()) {
      if (sold.unit != in_.unit) continue;
      std::optional<StockChoice> best;
      for (std::size_t k = 0; k < 3; ++k)
        for (const std::size_t other : {(k + 1) % 3, (k + 2) % 3}) {
          auto one = fitted(sold, ways[k], ways[other]);
          if (one && (!best || one->volume < best->volume - 1e-6)) best = std::move(one);
        }
      if (best) out_.push_back(std::move(*best));
    }
    std::stable_sort(out_.begin(), out_.end(),
                     [](const auto& a, const auto& b) { return a.volume < b.volume; });
    if (out_.size() > o_.most) out_.resize(o_.most);
    return std::move(out_);
  }

private:
  double facing() const { return o_.facing.value_or(usual_length(in_.unit, 1, 0.03125)); }
  std::optional<StockChoice> fitted(const Sold& sold, const Vec3& along, const Vec3& across) const {
    Stock s;
    s.form = sold.form;
    s.along = along;
    s.across = across;
    const auto box = finished_box(in_.patches, axes_of(s));
    const Vec3 size = box.size();
    s.length = size.x() + 2 * facing();
    switch (sold.form) {
    case StockForm::flat: {
      // The other way of it is tried too; a slice off a wide bar is nobody's choice.
      if (size.y() < size.z() || size.x() < 0.3 * size.y()) return std::nullopt;
      s.width = smallest(sold.sizes, size.y() + 2 * o_.skin);
      s.thick = smallest(sold.beside, size.z() + 2 * o_.skin);
      if (!(s.width > 0 && s.thick > 0) || s.thick > s.width - 1e-9)
        return std::nullopt; // as wide as thick: a square bar
      break;
    }
    case StockForm::plate:
    case StockForm::sheet:
      if (size.y() > size.x() || size.z() > size.y() / flat_enough) return std::nullopt;
      s.thick = smallest(sold.sizes, size.z() + 2 * (sold.form == StockForm::sheet ? 0 : o_.skin));
      s.width = size.y() + 2 * facing();
      if (!(s.thick > 0)) return std::nullopt;
      break;
    default:
      // By trying: round bosses and corners of boxes alike are held or not.
      for (const double width : sold.sizes) {
        s.width = width;
        if (sold.form == StockForm::tube) {
          s.bore = tube_bore(sold, width, along, box);
          s.width = s.bore > 0 ? width : 0;
          if (!(s.bore > 0)) continue;
        }
        if (thinnest(s, box).least >= o_.skin - 1e-9) break;
        s.width = 0;
      }
      if (!(s.width > 0)) return std::nullopt;
      break;
    }
    StockChoice choice;
    const auto metal = thinnest(s, box);
    if (metal.least < 0) return std::nullopt;
    choice.least = metal.least;
    choice.most = metal.most;
    choice.takes = s.length + o_.parting + o_.chucking;
    choice.volume = StockBody(s, box).volume() / s.length * choice.takes;
    choice.sum.title = "bar that it takes";
    choice.sum.lines = {{"the part, along it", size.x(), "drawing"},
                        {"facing both ends", 2 * facing(), "common practice"},
                        {"parting or sawing off", o_.parting, "common practice"}};
    if (o_.chucking > 0) choice.sum.lines.push_back({"to hold it by", o_.chucking, "chosen"});
    choice.text = stock_text(s, in_.unit);
    choice.stock = std::move(s);
    return choice;
  }

  /// Metal across the bar, from its sides only: the ends are faced anyway.
  MetalOver thinnest(const Stock& s, const FinishedBox& box) const {
    Stock endless = s;
    constexpr double far = 1e6; // mm
    endless.length = far;
    const StockBody body(endless, box);
    MetalOver out{1e300, -1e300};
    const auto take = [&](double metal) {
      out.least = std::min(out.least, metal);
      out.most = std::max(out.most, metal);
    };
    for (const auto& patch : in_.patches) {
      if (is_hole(patch.shape.kind)) continue;
      if (patch.shape.round() && std::abs(patch.shape.direction.dot(s.along)) > 0.999) {
        if (const auto metal = metal_over(body, patch, in_.patches)) {
          take(metal->least);
          take(metal->most);
        }
        continue;
      }
      // Every place of an outline has skin around it, the shortest way out.
      for (const auto& at : outline_of(patch, in_.patches)) take(body.depth(at));
      if (!patch.shape.round() && std::abs(patch.shape.direction.dot(s.along)) < 1e-6)
        if (const auto metal = metal_over(body, patch, in_.patches))
          out.most = std::max(out.most, metal->most);
    }
    if (out.least > 1e299) return {-1, -1};
    return out;
  }

  /// The largest bore of that outside that leaves skin in the part's own hole; 0: there is none.
  double tube_bore(const Sold& sold, double outside, const Vec3& along, const FinishedBox& box) const {
    double hole = 0;
    for (const auto& p : in_.patches)
      if (is_hole(p.shape.kind) && std::abs(p.shape.direction.dot(along)) > 0.999 &&
          p.height > 0.999 * (box.high.x() - box.low.x()))
        hole = std::max(hole, p.shape.diameter);
    double bore = 0;
    for (const double wall : sold.beside) {
      const double inside = outside - 2 * wall;
      if (inside > 0 && inside <= hole - 2 * o_.skin + 1e-9) bore = std::max(bore, inside);
    }
    return bore;
  }

  const ChooseInput& in_;
  const ChooseOptions& o_;
  std::vector<StockChoice> out_;
};

} // namespace

ChooseResult choose_stock(const ChooseInput& input, const ChooseOptions& options) {
  ChooseResult out;
  const auto refuse = [&](std::string why) {
    out.status = ChooseStatus::refused;
    out.message = std::move(why);
    return out;
  };
  for (const double mm : {options.skin, options.facing.value_or(0), options.parting, options.chucking})
    if (!(mm >= 0) || !std::isfinite(mm)) return refuse("skin, facing, parting and chucking are 0 or more");
  const auto box = finished_box(input.patches, {});
  if (!box.known || !(box.size().minCoeff() > 0))
    return refuse(
        "the part has no size in all three directions yet: draw its faces, or a round one and its ends");
  out.choices = Chooser(input, options).choices();
  if (out.choices.empty())
    return refuse("nothing that is sold is large enough: a casting, or a block sawn to order");
  out.status = ChooseStatus::found;
  return out;
}

double largest_square(double diameter) {
  return diameter / std::sqrt(2.0);
}

double largest_hexagon(double diameter) {
  return diameter * std::sqrt(3.0) / 2;
}

double largest_width(double diameter, double proportion) {
  return diameter * proportion / std::sqrt(1 + proportion * proportion);
}

} // namespace datrin::stock
