#include "build/descriptions.h"
#include "build/words.h"

namespace datrin::build {

using namespace describing;

std::vector<Description> describe_all() {
  std::vector<Description> all(static_cast<std::size_t>(kind_count));
  describe_drawing(all);
  describe_casting(all);
  describe_making(all);
  describe_mating(all);
  return all;
}

namespace {

constexpr double most_pieces = 100000; ///< of one part
constexpr double most_copies = 10000;  ///< of a body in a pattern
constexpr double most_places = 1000;   ///< of a profile

Wrong dimension_limits(const void* record) {
  const auto& d = *static_cast<const Dimension*>(record);
  return d.lower > d.upper ? Wrong{"lower", "must not be above upper"} : Wrong{};
}

Wrong cone_angle(const void* record) {
  const auto& s = *static_cast<const PartSurface*>(record);
  if (is_cone(s.kind) == (s.half_angle > 0)) return {};
  return {"half_angle",
          is_cone(s.kind) ? "must be above 0 for a cone" : "must be 0 where the surface is no cone"};
}

Wrong body_sizes(const void* record) {
  const auto& b = *static_cast<const Body*>(record);
  for (std::size_t k = 0; k < b.sizes.size(); ++k)
    for (std::size_t m = 0; m < k; ++m)
      if (b.sizes[k].role == b.sizes[m].role && b.sizes[k].profile_place == b.sizes[m].profile_place)
        return {"sizes", "must say each size once"};
  return {};
}

} // namespace

void describe_drawing(std::vector<Description>& all) {
  put<Info>(all, "build", "the build itself; there is one, with id 1",
            {field<&Info::name>("name"), field<&Info::unit>("unit"), field<&Info::third_angle>("third_angle"),
             field<&Info::setup_minutes>("setup_minutes").between(0, most_minutes).from_version(12),
             field<&Info::tool_minutes>("tool_minutes").between(0, most_minutes).from_version(12)});
  put<Part>(all, "part", "a part of the build",
            {field<&Part::name>("name"), field<&Part::material>("material"),
             field<&Part::quantity>("quantity").between(1, most_pieces), place<Part>(),
             field<&Part::condition>("condition").from_version(10),
             field<&Part::drawn_material>("drawn_material").from_version(10),
             field<&Part::material_reason>("material_reason").from_version(10)});
  put<PartSurface>(
      all, "surface", "a surface of a part's drawing",
      {of_part<PartSurface>(), field<&PartSurface::name>("name"), field<&PartSurface::kind>("kind"),
       mm(field<&PartSurface::point>("point")),
       field<&PartSurface::direction>("direction").ruled(Rule::unit_length),
       mm_not_negative(field<&PartSurface::diameter>("diameter")),
       mm_not_negative(field<&PartSurface::width>("width")),
       mm_not_negative(field<&PartSurface::height>("height")), field<&PartSurface::machined>("machined"),
       mm(field<&PartSurface::required>("required")), place<PartSurface>(),
       field<&PartSurface::half_angle>("half_angle").in(Measures::angle).between(0, 1.5).from_version(5),
       field<&PartSurface::from_solid>("from_solid").from_version(9),
       field<&PartSurface::body>("body").needs<Body>().from_version(10),
       field<&PartSurface::face>("face").from_version(10),
       field<&PartSurface::copy>("copy").between(0, most_copies).from_version(10),
       field<&PartSurface::profile_place>("profile_place").between(0, most_places).from_version(11)},
      &cone_angle);
  put<Wall>(all, "wall", "as-cast surface `from` stays at least so far from finished surface `to`",
            {of_part<Wall>(), field<&Wall::from>("from").needs<PartSurface>(),
             field<&Wall::to>("to").needs<PartSurface>(), mm(field<&Wall::least>("least"))});
  put<Piece>(all, "piece", "one of the quantity of a part",
             {of_part<Piece>(), field<&Piece::number>("number").between(1, 1e9).place(),
              field<&Piece::rejected>("rejected").from_version(8)});
  put<Dimension>(
      all, "dimension", "a dimension of a part's drawing with its limits (an angle: radians)",
      {of_part<Dimension>(), field<&Dimension::name>("name"), field<&Dimension::kind>("kind"),
       field<&Dimension::surface>("surface").needs<PartSurface>(),
       field<&Dimension::other>("other").needs<PartSurface>(), mm(field<&Dimension::nominal>("nominal")),
       mm(field<&Dimension::lower>("lower")), mm(field<&Dimension::upper>("upper")),
       field<&Dimension::tolerance>("tolerance"), field<&Dimension::importance>("class"),
       field<&Dimension::source>("source"), field<&Dimension::reason>("reason"),
       mm_not_negative(field<&Dimension::capability>("capability")),
       mm_not_negative(field<&Dimension::cutter>("cutter")), mm_not_negative(field<&Dimension::run>("run")),
       mm_not_negative(field<&Dimension::rise>("rise")), field<&Dimension::sum>("sum"),
       list_field<&Dimension::history>("history", {field<&OldValue::was>("was"), field<&OldValue::at>("at")}),
       place<Dimension>()},
      &dimension_limits);
  put<GeometricTolerance>(
      all, "geometric_tolerance", "how wide the zone is that a surface, or its axis, must lie in (ISO 1101)",
      {of_part<GeometricTolerance>(), field<&GeometricTolerance::what>("what"),
       field<&GeometricTolerance::surface>("surface").needs<PartSurface>(),
       field<&GeometricTolerance::datums>("datums").points_to<PartSurface>(),
       mm_not_negative(field<&GeometricTolerance::within>("within")), place<GeometricTolerance>()});
  put<Body>(
      all, "body", "metal added to a part or taken from it",
      {of_part<Body>(),
       field<&Body::name>("name"),
       field<&Body::shape>("shape"),
       field<&Body::cut>("cut"),
       field<&Body::on>("on").needs<Body>(),
       field<&Body::face>("face"),
       field<&Body::lie>("lie"),
       field<&Body::from_along>("from_along"),
       field<&Body::from_across>("from_across"),
       list_field<&Body::sizes>(
           "sizes",
           {field<&BodySize::role>("role"), field<&BodySize::dimension>("dimension").points_to<Dimension>(),
            field<&BodySize::value>("value"),
            field<&BodySize::profile_place>("profile_place").between(0, most_places).from_version(11)}),
       field<&Body::sides>("sides").between(2, 100),
       field<&Body::through>("through"),
       field<&Body::mouth>("mouth"),
       field<&Body::making>("making"),
       field<&Body::thread>("thread"),
       field<&Body::pattern>("pattern"),
       field<&Body::count>("count").between(1, 100),
       field<&Body::count_across>("count_across").between(1, 100),
       field<&Body::step>("step"),
       place<Body>(),
       field<&Body::surface>("surface").needs<PartSurface>(),
       list_field<&Body::profile>("profile", {mm_not_negative(field<&ProfilePoint::at>("at")),
                                              mm_not_negative(field<&ProfilePoint::diameter>("diameter")),
                                              mm(field<&ProfilePoint::arc>("arc"))}),
       field<&Body::on_profile_place>("on_profile_place").between(0, most_places).from_version(11)},
      &body_sizes);
  put<Decision>(all, "decision", "a change to the drawing that was decided on",
                {of_part<Decision>(), of_piece<Decision>(),
                 field<&Decision::surface>("surface").points_to<PartSurface>(),
                 field<&Decision::what>("what"), field<&Decision::reason>("reason"),
                 field<&Decision::at>("at")});
}

} // namespace datrin::build
