#pragma once
// Squaring a block in a vise: which face qualifies which. The first face is cut with the best raw face to the
// fixed jaw and a soft rod at the moving one, so that the fixed jaw alone decides; each face cut then goes to
// the fixed jaw for the next; once both sides between the jaws are true the rod is left out. Seated by hammer
// only on a face that is cut and does not slope (common practice).
//
// How true each comes out, standard deviations of a lean (mm over mm): a cut is as square to the face at the
// fixed jaw as the jaw is to the bed, as parallel to the face it stands on as that seats; leans add up as
// roots of sums of squares along the chain of faces.

#include <array>
#include <string>
#include <vector>

namespace datrin::route {

/// Faces of a block: 1 the largest, 2 beside it, 3 opposite 2, 4 opposite 1, 5 and 6 the ends.
inline constexpr int block_faces = 6;

struct SquaringInput {
  std::array<double, 3> size{};            ///< mm: length (face 5 to 6), width (2 to 3), height (1 to 4)
  std::array<bool, block_faces> good{};    ///< faces that are true already: bright, ground, cut before
  std::array<bool, block_faces> stays{};   ///< raw, and never cut
  std::array<bool, block_faces> missing{}; ///< there is no such face
  bool casting = false;                    ///< raw sides are packed, not hammered down
  std::array<double, block_faces> slope{}; ///< radians a raw side leans
  std::array<bool, block_faces> tapped{};  ///< faces with a thread in them: a hammer spoils it
};

struct SquaringOptions {
  double jaw = 0.0002;        ///< lean of the fixed jaw to the bed (20 µm over 100 mm; common practice)
  double seat = 0.0003;       ///< lean of a true face hammered down on parallels
  double packed = 0.002;      ///< of a raw face packed level by eye or dial
  double by_square = 0.0005;  ///< of an end set upright by a square
  double hammer_slope = 0.02; ///< radians: steeper is not hammered, it would climb
};

enum class Seating { hammered, packed, by_square };

struct SquaringStep {
  int cut = 0;        ///< the face that is cut, up
  int fixed_jaw = 0;  ///< the face at the fixed jaw; 0: no side for the jaws, clamped
  int down = 0;       ///< the face it stands on; 0: none
  int moving_jaw = 0; ///< the face at the moving jaw; 0: whatever is there
  bool rod = false;   ///< a soft rod between that one and the jaw
  Seating seating = Seating::hammered;
  int upright_by = 0;       ///< set by a square: against that face; 0: by what is marked out
  bool to_size = false;     ///< it is the second of its pair
  int square_to = 0;        ///< the face it comes out square to, 0: none
  double out_of_square = 0; ///< lean to that face, standard deviation, mm over mm
  int parallel_to = 0;      ///< the face it comes out parallel to, 0: none
  double out_of_parallel = 0;
  std::string why;
  std::string care; ///< of thread and slope: "; hammer on a pad, clear of the thread"
};

enum class SquaringStatus { not_run, planned, refused };

struct SquaringResult {
  SquaringStatus status = SquaringStatus::not_run;
  std::string message;
  std::vector<SquaringStep> steps; ///< faces that are good already are not cut
  double worst = 0;                ///< mm: three standard deviations of the worst lean over its face
  bool usable() const { return status == SquaringStatus::planned; }
};

SquaringResult squaring(const SquaringInput& input, const SquaringOptions& options = {});

/// "cut 2: 1 to the fixed jaw, a soft rod at 4, standing on 3 packed level".
std::string squaring_text(const SquaringStep& step);

} // namespace datrin::route
