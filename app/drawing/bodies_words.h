#pragma once
// Bodies in words: what they are, their sizes, where they are put.

#include "build/build.h"
#include "solid/body_form.h"

#include <QString>

namespace datrin::app {

QString shape_words(const build::Body& body);                          ///< "drilled hole, counterbored"
QString face_name(const build::Body& body, const solid::FaceOf& face); ///< "top of foot"
QString sizes_text(const build::Body& body, Unit unit);                ///< "64.00 × 32.00 × 11.00"
QString place_text(const build::Build& build,
                   const build::Body& body); ///< "top of foot, from the left edge 12.00"

} // namespace datrin::app
