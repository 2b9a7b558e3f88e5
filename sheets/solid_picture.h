#pragma once
// A part's solid as it is drawn: worked out once, looked at as often as one likes. No painting here, and no
// Qt.

#include "sheets/scene.h"
#include "solid/solid.h"
#include "solid/views.h"

#include <list>
#include <memory>
#include <mutex>
#include <utility>
#include <vector>

namespace datrin::sheets {

struct SolidPicture {
  explicit SolidPicture(solid::Solid of) : solid(std::move(of)) {}

  const solid::Solid solid;

  /// The lines seen that way: worked out the first time that is asked, from whatever thread.
  const std::vector<solid::DrawnLine>& lines_in(const ViewAxes& axes) const;

private:
  struct SolidView {
    ViewAxes axes;
    std::vector<solid::DrawnLine> lines;
  };
  mutable std::mutex asked_;
  mutable std::list<SolidView> views_; ///< as many as there are ways a part is held
};

/// The solid, with its views from the front, above and both ends; null where there is no metal.
std::shared_ptr<const SolidPicture> picture_of(solid::Solid solid);

/// Which surfaces are drawn as the solid has them: they lie on a face of it. The others stand for something
/// else, and are drawn beside it as they were stated. All of them where there is no solid.
std::vector<bool> drawn_as_stated(const SceneInput& input);

/// The face one sees at a place of a view (mm on its paper): index into Solid::faces; −1: none there.
int face_seen(const solid::Solid& solid, const ViewAxes& axes, const Vec2& at);

/// Everything the solid covers in a view, as triangles that overlap.
std::vector<std::vector<Vec2>> covered_by(const solid::Solid& solid, const ViewAxes& axes);

} // namespace datrin::sheets
