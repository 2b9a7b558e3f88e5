#include "solid/body_form.h"

#include "build/words.h"
#include "solid/profile.h"
#include "threads/threads.h"

#include <Eigen/Geometry>

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace datrin::solid {

namespace {

constexpr double pi = std::numbers::pi;

/// How deep or tall: what it is called depends on the shape.
double tall(const BodyForm& f) {
  if (f.through) {
    // A taper comes to a point where there is metal left.
    const double taper = f.shape == BodyShape::cone ? f[BodyRole::taper] : 0;
    return taper > 0 ? std::min(f.reach, f[BodyRole::diameter] / 2 / std::tan(taper / 2)) : f.reach;
  }
  switch (f.shape) {
  case BodyShape::hole:
  case BodyShape::slot:
  case BodyShape::pocket:
    return f[BodyRole::depth];
  case BodyShape::groove:
    return f[BodyRole::width];
  case BodyShape::turned:
    return f.profile.empty() ? 0 : f.profile.back().at;
  default:
    return f[BodyRole::height];
  }
}

/// Across the corners of a prism, half.
double corner_radius(const BodyForm& f) {
  return f[BodyRole::flats] / 2 / std::cos(pi / f.sides);
}

Mat3 columns(const Vec3& x, const Vec3& y, const Vec3& z) {
  Mat3 m;
  m << x, y, z;
  return m;
}

/// Puts faces together; `s` is +1 where metal is added, −1 where it is taken away.
class Faces {
public:
  explicit Faces(const BodyForm& form) : form_(form), sign_(form.cut ? -1 : 1) {}

  void plane(BodyFace face, const Vec3& at, const Vec3& right, const Vec3& out, double width, double height,
             double stands) {
    const Pose frame{columns(right, out.cross(right), out), at};
    list.push_back({face, frame, {SurfaceKind::plane, at, sign_ * out, 0, 0}, width, height, stands});
  }
  /// About z, from `low` to `high`, `r0` below and `r1` above; `hollow`: the other side of the metal.
  void round(BodyFace face, double low, double high, double r0, double r1, bool hollow) {
    const double middle = (low + high) / 2, r = (r0 + r1) / 2;
    const bool outside = (sign_ > 0) != hollow;
    Surface shape{outside ? SurfaceKind::boss : SurfaceKind::bore, {0, 0, middle}, Vec3::UnitZ(), 2 * r, 0};
    if (r0 != r1) {
      shape.kind = outside ? SurfaceKind::taper_shank : SurfaceKind::taper_bore;
      if (r1 < r0) shape.direction = -shape.direction;
      shape.half_angle = std::atan2(std::abs(r1 - r0), high - low);
    }
    // To the right is along the axis: as one lays a shaft on the bench.
    const Pose frame{columns(Vec3::UnitZ(), -Vec3::UnitX(), -Vec3::UnitY()), {0, -r, middle}};
    list.push_back({face, frame, shape, high - low, 2 * r, 2 * r});
  }
  void box_sides(double length, double width, double low, double high) {
    const double middle = (low + high) / 2, up = high - low;
    const Vec3 x = Vec3::UnitX(), y = Vec3::UnitY();
    plane(BodyFace::left, {-length / 2, 0, middle}, -y, -x, width, up, length);
    plane(BodyFace::right, {length / 2, 0, middle}, y, x, width, up, length);
    plane(BodyFace::front, {0, -width / 2, middle}, x, -y, length, up, width);
    plane(BodyFace::back, {0, width / 2, middle}, -x, y, length, up, width);
  }
  void ends(double low, double high, double length, double width, double top_length, double top_width) {
    plane(BodyFace::top, {0, 0, high}, Vec3::UnitX(), Vec3::UnitZ(), top_length, top_width, high - low);
    if (form_.cut) {
      if (!form_.through) floor(low, length, width);
      return;
    }
    plane(BodyFace::bottom, {0, 0, low}, Vec3::UnitX(), -Vec3::UnitZ(), length, width, high - low);
  }
  /// Of a cut: `top` is where it starts (open), what is below is its floor.
  void floor(double low, double length, double width) {
    // Seen from above, as one looks into it.
    list.push_back({BodyFace::floor,
                    {Mat3::Identity(), {0, 0, low}},
                    {SurfaceKind::plane, {0, 0, low}, Vec3::UnitZ(), 0, 0},
                    length,
                    width,
                    0});
  }

  /// The side of what is turned, from the place before; arcs are no face a seat knows.
  void profile(int place) {
    const auto k = static_cast<std::size_t>(place - 1);
    const auto &a = form_.profile[k - 1], &b = form_.profile[k];
    const auto z = [this](const build::ProfilePoint& p) { return form_.cut ? -p.at : p.at; };
    switch (step_to(form_.profile, place)) {
    case ProfileStep::cylinder:
    case ProfileStep::cone:
      // What is taken away goes down as it goes on.
      if (form_.cut)
        round(BodyFace::side, z(b), z(a), b.diameter / 2, a.diameter / 2, false);
      else
        round(BodyFace::side, z(a), z(b), a.diameter / 2, b.diameter / 2, false);
      break;
    case ProfileStep::shoulder: {
      const double wide = std::max(a.diameter, b.diameter), far = form_.profile.back().at;
      const bool on = b.diameter < a.diameter; // faces the way it goes on
      plane(BodyFace::side, {0, 0, z(a)}, Vec3::UnitX(), Vec3(0, 0, on != form_.cut ? 1 : -1), wide, wide,
            on ? a.at : far - a.at);
      break;
    }
    case ProfileStep::none:
    case ProfileStep::arc:
      return;
    }
    list.back().profile_place = place;
  }

  std::vector<FormFace> list;

private:
  const BodyForm& form_;
  double sign_;
};

} // namespace

BodyForm form_of(const build::Body& body) {
  BodyForm form;
  form.shape = body.shape;
  form.cut = body.cut || always_cuts(body.shape);
  form.through = body.through && form.cut;
  form.mouth = body.mouth;
  form.sides = body.sides;
  if (body.shape == BodyShape::imported) form.step = std::make_shared<const std::string>(body.step);
  for (const auto& size : body.sizes)
    if (size.profile_place == 0) form[size.role] = size.value;
  if (body.shape == BodyShape::turned) {
    auto sized = body;
    take_profile(sized);
    form.profile = sized.profile;
  }
  if (const auto found = body.thread.empty() ? threads::Found{} : threads::find(body.thread); found.thread) {
    const double line = form.cut ? found.thread->major : found.thread->core();
    const double own = form[BodyRole::diameter];
    if (form.cut ? line > own : line < own) form.thread_line = line;
  }
  return form;
}

double top_diameter(const BodyForm& form) {
  const double taper = form[BodyRole::taper];
  if (taper <= 0) return form[BodyRole::top_diameter];
  return std::max(0.0, form[BodyRole::diameter] - 2 * tall(form) * std::tan(taper / 2));
}

bool always_cuts(BodyShape shape) {
  return shape == BodyShape::hole || shape == BodyShape::slot || shape == BodyShape::pocket ||
         shape == BodyShape::groove;
}

bool is_mark(BodyShape shape) {
  return shape == BodyShape::scribed || shape == BodyShape::pop;
}

bool works_edges(BodyShape shape) {
  return shape == BodyShape::chamfer || shape == BodyShape::fillet;
}

std::vector<BodyRole> roles_of(const BodyForm& form) {
  using R = BodyRole;
  std::vector<R> roles;
  switch (form.shape) {
  case BodyShape::block:
    roles = {R::length, R::width, R::height, R::corner};
    break;
  case BodyShape::round:
    roles = {R::diameter, R::height};
    break;
  case BodyShape::cone:
    roles = {R::diameter, R::top_diameter, R::taper, R::height};
    break;
  case BodyShape::tube:
    roles = {R::diameter, R::bore, R::height};
    break;
  case BodyShape::prism:
    roles = {R::flats, R::height};
    break;
  case BodyShape::rib:
    roles = {R::length, R::height, R::thickness};
    break;
  case BodyShape::spokes:
    roles = {R::inside_diameter, R::outside_diameter, R::width, R::height};
    break;
  case BodyShape::hole:
    roles = {R::diameter};
    if (!form.through) roles.insert(roles.end(), {R::depth, R::point_angle});
    if (form.mouth != build::HoleMouth::plain) roles.push_back(R::mouth_diameter);
    if (form.mouth == build::HoleMouth::counterbored || form.mouth == build::HoleMouth::spot_faced)
      roles.push_back(R::mouth_depth);
    if (form.mouth == build::HoleMouth::countersunk) roles.push_back(R::mouth_angle);
    return roles;
  case BodyShape::slot:
    roles = {R::length, R::width, R::depth};
    break;
  case BodyShape::pocket:
    roles = {R::length, R::width, R::depth, R::corner};
    break;
  case BodyShape::groove:
    return {R::outside_diameter, R::diameter, R::width};
  case BodyShape::chamfer:
  case BodyShape::fillet:
    return {R::height};
  case BodyShape::scribed:
    return {R::length};
  case BodyShape::imported:
  case BodyShape::pop:
  case BodyShape::turned:
    return {};
  }
  if (form.through) std::erase_if(roles, [](R role) { return role == R::height || role == R::depth; });
  return roles;
}

bool is_angle(BodyRole role) {
  return role == BodyRole::point_angle || role == BodyRole::mouth_angle || role == BodyRole::taper ||
         role == BodyRole::turn || role == BodyRole::tilt;
}

bool may_be_zero(BodyRole role) {
  return role == BodyRole::corner || role == BodyRole::point_angle || role == BodyRole::top_diameter ||
         role == BodyRole::taper || role >= BodyRole::along;
}

std::string form_wrong(const BodyForm& form) {
  using R = BodyRole;
  const auto word = [](R role) { return build::words_of<R>().first[static_cast<std::size_t>(role)]; };
  for (const auto role : roles_of(form)) {
    if (!std::isfinite(form[role])) return fmt::format("{} is no number", word(role));
    if (form[role] < 0) return fmt::format("{} must not be below 0", word(role));
    if (form[role] == 0 && !may_be_zero(role)) return fmt::format("needs a {} above 0", word(role));
  }
  switch (form.shape) {
  case BodyShape::block:
  case BodyShape::pocket:
    if (2 * form[R::corner] >= std::min(form[R::length], form[R::width]))
      return "corner radius must be less than half its length and width";
    return {};
  case BodyShape::tube:
    return form[R::bore] < form[R::diameter] ? "" : "bore must be less than the diameter";
  case BodyShape::cone:
    if (form[R::taper] >= pi) return "taper must be less than 180°";
    if (!form.through && form[R::taper] > 0 &&
        2 * tall(form) * std::tan(form[R::taper] / 2) > form[R::diameter] * (1 + 1e-12))
      return "it comes to a point before it is as long: less taper, or shorter";
    return {};
  case BodyShape::turned:
    return profile_wrong(form.profile);
  case BodyShape::prism:
    return form.sides >= 3 ? "" : "a prism has at least 3 sides";
  case BodyShape::spokes:
    return form[R::inside_diameter] < form[R::outside_diameter]
               ? ""
               : "inside diameter must be less than the outside diameter";
  case BodyShape::slot:
    return form[R::length] >= form[R::width] ? "" : "a slot is at least as long as it is wide";
  case BodyShape::groove:
    return form[R::diameter] < form[R::outside_diameter] ? ""
                                                         : "at its bottom it must be smaller than outside";
  case BodyShape::hole:
    if (!form.through && form[R::point_angle] >= pi)
      return "point angle must be less than 180°; 0 is a flat bottom";
    if (form.mouth != build::HoleMouth::plain && form[R::mouth_diameter] <= form[R::diameter])
      return "mouth diameter must be above the diameter";
    if (form.mouth == build::HoleMouth::countersunk && form[R::mouth_angle] >= pi)
      return "mouth angle must be less than 180°";
    return {};
  default:
    return {};
  }
}

ZSpan z_span(const BodyForm& form) {
  if (works_edges(form.shape) || is_mark(form.shape) || form.shape == BodyShape::imported) return {};
  if (form.shape == BodyShape::groove) return {-form[BodyRole::width], 0};
  return form.cut ? ZSpan{-tall(form), 0} : ZSpan{0, tall(form)};
}

Vec2 half_across(const BodyForm& form) {
  using R = BodyRole;
  switch (form.shape) {
  case BodyShape::block:
  case BodyShape::slot:
  case BodyShape::pocket:
    return {form[R::length] / 2, form[R::width] / 2};
  case BodyShape::rib:
    return {form[R::length] / 2, form[R::thickness] / 2};
  case BodyShape::cone: {
    const double r = std::max(form[R::diameter], top_diameter(form)) / 2;
    return {r, r};
  }
  case BodyShape::prism:
    return {corner_radius(form), form[R::flats] / 2};
  case BodyShape::spokes:
  case BodyShape::groove:
    return Vec2::Constant(form[R::outside_diameter] / 2);
  case BodyShape::round:
  case BodyShape::tube:
  case BodyShape::hole:
    return Vec2::Constant(form[R::diameter] / 2);
  case BodyShape::turned:
    return Vec2::Constant(widest_radius(form.profile));
  case BodyShape::scribed:
    return {form[R::length] / 2, 0};
  case BodyShape::chamfer:
  case BodyShape::fillet:
  case BodyShape::imported:
  case BodyShape::pop:
    return Vec2::Zero();
  }
  return Vec2::Zero();
}

bool is_open(const BodyForm& form, BodyFace face) {
  return face == BodyFace::middle || (form.cut && face == BodyFace::top);
}

std::vector<FormFace> faces_of(const BodyForm& form) {
  using R = BodyRole;
  Faces faces(form);
  if (works_edges(form.shape)) return {};
  const auto [deep, high] = z_span(form);
  // Of a cut that is through only as much is a face as there is metal.
  const double low = form.through && form.metal > 0 ? std::max(deep, -form.metal) : deep;
  const Vec2 half = half_across(form);
  faces.list.push_back({BodyFace::middle,
                        {Mat3::Identity(), {0, 0, (low + high) / 2}},
                        {SurfaceKind::plane, {0, 0, (low + high) / 2}, Vec3::UnitZ(), 0, 0},
                        0, // it has no edges: what is counted from one is counted from the middle
                        0,
                        0});
  const double d = form[R::diameter];
  switch (form.shape) {
  case BodyShape::block:
    faces.ends(low, high, 2 * half.x(), 2 * half.y(), 2 * half.x(), 2 * half.y());
    faces.box_sides(2 * half.x(), 2 * half.y(), low, high);
    break;
  case BodyShape::round:
    faces.ends(low, high, d, d, d, d);
    faces.round(BodyFace::side, low, high, d / 2, d / 2, false);
    break;
  case BodyShape::cone: {
    // What is taken away starts at its mouth, whose size is `diameter`.
    const double t = top_diameter(form), below = form.cut ? t : d, above = form.cut ? d : t;
    faces.ends(low, high, below, below, above, above);
    faces.round(BodyFace::side, low, high, below / 2, above / 2, false);
    break;
  }
  case BodyShape::tube:
    faces.ends(low, high, d, d, d, d);
    faces.round(BodyFace::side, low, high, d / 2, d / 2, false);
    faces.round(BodyFace::inside, low, high, form[R::bore] / 2, form[R::bore] / 2, true);
    break;
  case BodyShape::prism: {
    faces.ends(low, high, 2 * half.x(), 2 * half.y(), 2 * half.x(), 2 * half.y());
    // A flat to the front, whatever the number of sides; named are the front one and, where there is one, the
    // back.
    const double flat = 2 * half.y() * std::tan(pi / form.sides), middle = (low + high) / 2;
    faces.plane(BodyFace::front, {0, -half.y(), middle}, Vec3::UnitX(), -Vec3::UnitY(), flat, high - low,
                2 * half.y());
    if (form.sides % 2 == 0)
      faces.plane(BodyFace::back, {0, half.y(), middle}, -Vec3::UnitX(), Vec3::UnitY(), flat, high - low,
                  2 * half.y());
    break;
  }
  case BodyShape::rib: {
    const double l = form[R::length], h = form[R::height], t = form[R::thickness];
    faces.plane(BodyFace::bottom, {0, 0, low}, Vec3::UnitX(), -Vec3::UnitZ(), l, t, 0);
    faces.plane(BodyFace::left, {-l / 2, 0, (low + high) / 2}, -Vec3::UnitY(), -Vec3::UnitX(), t, h, 0);
    const Vec3 out = Vec3(h, 0, l).normalized();
    faces.plane(BodyFace::top, {0, 0, (low + high) / 2}, Vec3(l, 0, -h).normalized(), out, std::hypot(l, h),
                t, 0);
    faces.plane(BodyFace::front, {0, -t / 2, (low + high) / 2}, Vec3::UnitX(), -Vec3::UnitY(), l, h, t);
    faces.plane(BodyFace::back, {0, t / 2, (low + high) / 2}, -Vec3::UnitX(), Vec3::UnitY(), l, h, t);
    break;
  }
  case BodyShape::turned: {
    if (form.profile.empty()) break;
    const double start = form.profile.front().diameter, end = form.profile.back().diameter;
    const double below = form.cut ? end : start, above = form.cut ? start : end;
    faces.ends(low, high, below, below, above, above);
    for (int place = 2; place <= static_cast<int>(form.profile.size()); ++place) faces.profile(place);
    break;
  }
  case BodyShape::spokes:
    break;
  case BodyShape::hole: {
    faces.plane(BodyFace::top, {0, 0, 0}, Vec3::UnitX(), Vec3::UnitZ(), d, d, 0);
    double wall = 0;
    const double m = form[R::mouth_diameter];
    if (form.mouth == build::HoleMouth::countersunk && form[R::mouth_angle] > 0) {
      wall = (m - d) / 2 / std::tan(form[R::mouth_angle] / 2);
      faces.round(BodyFace::mouth, -wall, 0, d / 2, m / 2, false);
    } else if (form.mouth != build::HoleMouth::plain) {
      wall = form[R::mouth_depth];
      faces.round(BodyFace::mouth, -wall, 0, m / 2, m / 2, false);
      faces.list.push_back({BodyFace::seat,
                            {Mat3::Identity(), {0, 0, -wall}},
                            {SurfaceKind::plane, {0, 0, -wall}, Vec3::UnitZ(), 0, 0},
                            m,
                            m,
                            0});
    }
    faces.round(BodyFace::side, low, -std::min(wall, -low), d / 2, d / 2, false);
    if (!form.through && form[R::point_angle] == 0) faces.floor(low, d, d);
    break;
  }
  case BodyShape::slot:
  case BodyShape::pocket: {
    const double l = 2 * half.x(), w = 2 * half.y();
    faces.plane(BodyFace::top, {0, 0, 0}, Vec3::UnitX(), Vec3::UnitZ(), l, w, 0);
    const bool slot = form.shape == BodyShape::slot;
    if (!slot) faces.box_sides(l, w, low, high);
    if (slot) { // its ends are round
      faces.plane(BodyFace::front, {0, -w / 2, low / 2}, Vec3::UnitX(), -Vec3::UnitY(), l - w, -low, w);
      faces.plane(BodyFace::back, {0, w / 2, low / 2}, -Vec3::UnitX(), Vec3::UnitY(), l - w, -low, w);
    }
    if (!form.through) faces.floor(low, l, w);
    break;
  }
  case BodyShape::groove:
    faces.round(BodyFace::side, low, high, d / 2, d / 2, true);
    break;
  case BodyShape::chamfer:
  case BodyShape::fillet:
  case BodyShape::imported:
  case BodyShape::scribed:
  case BodyShape::pop:
    break;
  }
  return faces.list;
}

} // namespace datrin::solid
