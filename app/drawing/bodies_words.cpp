#include "app/drawing/bodies_words.h"

#include "build/words.h"
#include "quantity/angle.h"
#include "sheets/figures.h"
#include "solid/body_edits.h"

namespace datrin::app {

using build::Body;
using build::HoleMaking;
using build::HoleMouth;
using sheets::qt;
using solid::BodyFace;
using solid::BodyRole;
using solid::BodyShape;

QString shape_words(const Body& body) {
  auto text = whole(build::words_of<BodyShape>().first[static_cast<std::size_t>(body.shape)]);
  if (body.shape == BodyShape::hole) {
    text = whole(build::words_of<HoleMaking>().first[static_cast<std::size_t>(body.making)]) + " hole";
    if (body.mouth != HoleMouth::plain)
      text += ", " + whole(build::words_of<HoleMouth>().first[static_cast<std::size_t>(body.mouth)]);
  } else if (body.cut && !solid::always_cuts(body.shape)) {
    text += ", taken away";
  }
  return text;
}

QString face_name(const Body& body, const solid::FaceOf& of) {
  const auto face = of.face;
  if (of.profile_place > 0)
    return qt(solid::profile_face_words(body, of.profile_place)) + " of " + name_words(body.name);
  if (face == BodyFace::middle) return "middle of " + name_words(body.name);
  if (face == BodyFace::side && solid::always_cuts(body.shape)) return "wall of " + name_words(body.name);
  if (solid::is_open(solid::form_of(body), face)) return "mouth of " + name_words(body.name);
  return whole(build::words_of<BodyFace>().first[static_cast<std::size_t>(face)]) + " of " +
         name_words(body.name);
}

QString sizes_text(const Body& body, Unit unit) {
  QStringList parts;
  for (const auto role : solid::roles_of(solid::form_of(body))) {
    const auto* size = body.size(role);
    if (!size || size->value == 0) continue;
    if (role == BodyRole::taper) {
      parts << qt(taper_text(size->value));
      continue;
    }
    parts << (solid::is_angle(role)
                  ? qt(angle_text(size->value))
                  : (role == BodyRole::diameter ? "\u2300\u202F" : "") + sheets::figure(size->value, unit));
  }
  if (body.shape == BodyShape::turned && !body.profile.empty()) {
    const auto form = solid::form_of(body);
    parts << "\u2300\u202F" + sheets::figure(2 * solid::half_across(form).x(), unit)
          << sheets::figure(body.profile.back().at, unit);
  }
  auto text = parts.join(" \u00D7 ");
  if (body.through) text += ", through";
  if (!body.thread.empty()) text += ", " + name_words(body.thread);
  return text;
}

QString place_text(const build::Build& b, const Body& body) {
  const auto* on = b.find<Body>(body.on);
  const auto* stated = b.find<build::PartSurface>(body.surface);
  QString text = stated ? name_words(stated->name)
                 : on   ? face_name(*on, body.stands_on())
                        : QString("the drawing's origin");
  for (const auto role : solid::place_roles_of(body)) {
    const auto* size = body.size(role);
    if (!size || size->value == 0) continue;
    text +=
        ", " + qt(solid::role_words(body, role)) + " " +
        (solid::is_angle(role) ? qt(angle_text(size->value)) : sheets::figure(size->value, b.info().unit));
  }
  const auto word =
      whole(build::words_of<build::BodyPattern>().first[static_cast<std::size_t>(body.pattern)]);
  if (body.pattern == build::BodyPattern::grid)
    text +=
        filled(", %1 of %2 \u00D7 %3", word, QString::number(body.count), QString::number(body.count_across));
  else if (body.pattern == build::BodyPattern::row || body.pattern == build::BodyPattern::circle)
    text += filled(", %1 of %2", word, QString::number(body.count));
  else if (body.pattern != build::BodyPattern::single)
    text += ", " + word;
  return text;
}

} // namespace datrin::app
