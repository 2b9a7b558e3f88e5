#pragma once
// The allowance step of one piece: for each surface to be machined the metal over it, how it is to be spent,
// what was cut and read so far, and the next number to cut to. Uses casting/: the metal is what the seat
// leaves over, stock/: or the bar it is made from; readings/: a size read on another page is read here too.

#include "allowance/passes.h"
#include "build/build.h"
#include "casting/survey.h"
#include "quantity/reckoning.h"
#include "readings/size_now.h"

#include <optional>
#include <string>
#include <vector>

namespace datrin::allowance {

enum class SurfaceState { as_cast, roughed, finished, spoilt };

/// Where the metal over a surface is known from.
enum class StockSource {
  touches,
  expected, ///< of a casting, by its grades
  sizes,    ///< of the bar, plate or block it is made from
  solid,    ///< made from solid: what the last drill leaves
  read,     ///< a reading of its own dimension, or across the piece before it was cut
  none
};

/// Where a surface is to be finished, when its mates say so (chains/aims.h).
struct Aim {
  build::Id surface = 0;
  double left = 0;       ///< mm of metal a side over the drawing's nominal
  double within = 0;     ///< mm a side its mates let it be off that, either way; 0: not known
  bool metal_on = false; ///< it was read, and its mates want more off
};

struct SurfacePlan {
  build::Id surface = 0;
  build::PartSurface drawn;
  StockSource source = StockSource::none;
  bool of_casting = true;     ///< else of bar, plate, block …
  bool from_solid = false;    ///< nothing of it was there before it was cut
  Reckoning raw_sum;          ///< of `most`, where sizes or a reading across give it
  double most = 0, least = 0; ///< mm a side at the highest and lowest place
  double mean = 0;            ///< of the touches
  std::vector<double> stocks; ///< of the touches, ascending, at most some dozens
  build::Allowance allowance; ///< as kept, or as usual
  Dial dial;
  double least_cut = 0;                               ///< mm, of the tool
  PassPlan plan;                                      ///< from the raw surface
  std::vector<std::pair<build::Id, build::Cut>> cuts; ///< oldest first
  double now = 0;                                     ///< mm of metal a side at the highest place as it is
  PassPlan rest;                                      ///< from `now`
  double aim = 0;                                     ///< mm of metal left a side where it is finished
  bool limited = false;     ///< the drawing gives limits; else it takes what its mates want
  double low = 0, high = 0; ///< mm: metal left that is within limits
  double within = 0;        ///< mm a side its mates let it be off the aim; 0: not known
  readings::SizeNow read;   ///< of its own dimension, when newer than the last cut
  SurfaceState state = SurfaceState::as_cast;

  /// Whether `left` mm a side is what the drawing allows, or, where it gives no limits, its mates; of what
  /// neither says anything about whatever is no thicker than a finishing cut leaves it.
  bool to_size(double left) const;
  /// The diameter with `left` mm of metal a side; nothing for a plane.
  std::optional<double> size_with(double left) const;
  /// Whether the dial of its machine counts this surface on the diameter.
  Dial dial_here() const;
};

/// "as cast", of another stock "as it came", "in the solid"; "roughed", "finished", "cut too deep".
const char* state_name(const SurfacePlan& plan);

/// One per machined surface of the piece's part, in drawing order. `pose` is the seat. A surface without an
/// aim is finished at the middle of its limits, at its nominal where it has none.
std::vector<SurfacePlan> surface_plans(const build::Build& build, build::Id piece,
                                       const casting::PieceInput& input, const Pose& pose,
                                       const std::vector<Aim>& aims = {});

/// What is usual where nothing was chosen yet: skin by metal, cuts by the metal over the surface.
build::Allowance usual_allowance(const build::Build& build, build::Id piece, build::Id surface);

/// What the last step wants left, mm a side, until another number is typed: half of what a reamer of that
/// size wants on the diameter (allowance/ladder.h), 5 µm for lapping, 2.5 thou for a fit by trial (5 thou
/// over on the diameter; common practice).
double usual_last(build::LastStep step, const build::PartSurface& surface);

/// The surface there is something to do on: the first that is not finished, else the first; −1: none.
int surface_to_cut(const std::vector<SurfacePlan>& plans);

/// How the metal left after row `row` adds up: the cuts made, then the passes planned. Empty when nothing is
/// known of the metal.
Reckoning level_sum(const SurfacePlan& plan, int row);

/// What a reading after a cut is of.
enum class ReadingOf {
  left,     ///< metal over the drawing's nominal, a side
  size,     ///< the diameter as it is (round surfaces)
  distance, ///< to the face opposite, as it is (planes)
  dial      ///< how far the dial has moved since the raw surface was touched at its highest
};

inline constexpr double most_over_raw =
    5; ///< mm: a reading that much over the raw metal is of something else

/// Metal left a side by a reading, mm; nothing when it makes no sense here, with why.
std::optional<double> left_by_reading(const build::Build& build, const SurfacePlan& plan, ReadingOf of,
                                      double mm, std::string* why = nullptr);

/// The record of a cut that left `left` mm a side, against what the plan had for it.
build::Cut cut_of(const SurfacePlan& plan, const Pose& pose, double left);

/// A way to live with a cut that went too deep.
struct Absorbed {
  std::string how; ///< "the other face", "the limits", "the mate"
  bool works = false;
  double room = 0;  ///< mm left when it is done
  std::string text; ///< one sentence
};

struct MistakeResult {
  double over = 0; ///< mm a side past the limit; 0: none
  std::vector<Absorbed> ways;
  bool ends = false; ///< none works
  std::string verdict;
  Pose pose; ///< the seat with the other face taking it, when that works
  bool other_face = false;
};

/// What can be done about `plan`'s surface standing `left` mm (below 0) under size.
MistakeResult absorb_mistake(const build::Build& build, const casting::PieceInput& input, const Pose& pose,
                             const std::vector<SurfacePlan>& plans, const SurfacePlan& plan, double left);

} // namespace datrin::allowance
