#pragma once
// Everything the casting pages show of one piece, worked out from the build.

#include "build/build.h"
#include "casting/seat.h"
#include "casting/survey.h"
#include "casting/survey_gaps.h"
#include "sheets/scene.h"

#include <QString>

namespace datrin::app {

class Document;
class PartCanvas;

struct PieceState {
  build::Id piece = 0, part = 0;
  casting::PieceInput input;
  Pose pose;                    ///< where the part is now
  bool seated = false;          ///< a seat is kept
  bool best = false;            ///< and the search found it
  casting::SeatMargins margins; ///< at `pose`
  std::vector<casting::SurveyGap> gaps;
  bool cast = true;      ///< its metal is known by touches; else by the stock it is made from
  std::string made_of{}; ///< of another stock: "25 mm round bar, 60 mm long"

  bool can_judge() const { return gaps.empty() && !input.seat.points.empty(); }
};

PieceState piece_state(const build::Build& build, build::Id piece);

/// Has `canvas` draw the solid of the chosen part wherever there is one.
void draw_solid_of_part(PartCanvas* canvas, Document& document);

/// `scene` with the solid of the chosen part, where there is one by now.
sheets::SceneInput with_solid(sheets::SceneInput scene, const Document& document);

/// The part's surfaces with extents, without touches.
sheets::SceneInput part_scene(const build::Build& build, build::Id part);

/// The same with the piece's touches where `pose` puts them; only surfaces and touches the seat uses, so that
/// indices agree with `state.input`. Of a scan's points some thousands are shown, and always those of `must`.
sheets::SceneInput piece_scene(const build::Build& build, const PieceState& state, const Pose& pose,
                               const std::vector<int>& must = {});

/// Of a piece that is not cast: why it is not touched, and where to go on.
QString no_touches_words(const PieceState& state);

/// "Main pedestal, no. 1 of 2", or the part's name alone when there is one.
QString piece_title(const build::Build& build, build::Id piece);

} // namespace datrin::app
