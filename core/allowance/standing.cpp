#include "allowance/standing.h"

#include "allowance/plan.h"
#include "stock/part_stock.h"

#include <cmath>
#include <optional>

namespace datrin::allowance {

using namespace build;

namespace {

constexpr double square = 1 - 1e-9; ///< cosine: a face looks that way

struct Reached {
  double at = 0; ///< mm along the way
  Reckoning sum;
};

/// How far the piece reaches along `way`.
std::optional<Reached> reached(const Build& build, const std::vector<SurfacePlan>& plans, Id part,
                               const Vec3& way) {
  std::optional<Reached> most;
  for (const auto& [id, s] : build.surfaces_of(part)) {
    if (s.round() || s.direction.dot(way) < square || s.from_solid || stock::is_shoulder(build, id)) continue;
    std::optional<double> over;
    for (const auto& plan : plans)
      if (plan.surface == id && plan.source != StockSource::none) over = plan.now;
    if (!s.machined) over = 0; // good as it comes
    if (!over) continue;
    const double at = way.dot(s.point) + *over;
    if (most && at <= most->at) continue;
    most = Reached{at,
                   {s.name + " as it is now",
                    {{s.name + ", from the drawing's origin", way.dot(s.point), "drawing"},
                     {"metal still on it", *over, "allowance"}}}};
  }
  return most;
}

} // namespace

Standing standing(const Build& build, Id piece_id, const Vec3& up) {
  Standing out;
  const auto* piece = build.find<Piece>(piece_id);
  const auto kept = piece ? build.stock_of(piece->part) : std::nullopt;
  if (!kept) {
    out.wrong = "it is not said what it is made from";
    return out;
  }
  const auto& of = kept->second;
  const auto input = casting::piece_input(build, piece_id);
  const auto plans = surface_plans(build, piece_id, input, casting::seat_or_start(build, piece_id, input));
  std::optional<stock::StockBody> body;
  std::string wrong = of.form == StockForm::bought ? "it is bought finished" : stock::sizes_wrong(of);
  if (wrong.empty()) {
    const auto box = stock::finished_box(stock::shape_of(build, piece->part), stock::axes_of(of));
    if (box.known) {
      body.emplace(of, box);
      out.outline = body->outline();
    } else {
      wrong = "nothing is drawn of it yet";
    }
  }
  for (const bool top : {false, true}) {
    const Vec3 way = top ? up : Vec3(-up);
    auto found = reached(build, plans, piece->part, way);
    if (!found && body)
      found = Reached{
          body->reach(way),
          {"the outside of the stock", {{"from the drawing's origin", body->reach(way), "stock"}}, {}}};
    if (!found) {
      out.wrong = wrong.empty() ? "no face of it looks that way" : wrong;
      return out;
    }
    (top ? out.high : out.low) = top ? found->at : -found->at;
    (top ? out.high_sum : out.low_sum) = std::move(found->sum);
  }
  return out;
}

} // namespace datrin::allowance
