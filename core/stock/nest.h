#pragma once
// Rectangles cut from sheets, with the saw's cut between them. Lengths mm.

#include <string>
#include <vector>

namespace datrin::stock {

struct NestPiece {
  double length = 0, width = 0;
};

struct NestInput {
  std::vector<NestPiece> pieces; ///< each once
  double sheet_length = 0, sheet_width = 0;
  double kerf = 2;      ///< between pieces; none is needed at the edge of the sheet
  double edge = 0;      ///< of the sheet all round: not used
  bool may_turn = true; ///< a quarter; else the grain runs one way
};

struct NestedPiece {
  int piece = 0;       ///< its place in the input
  int sheet = 0;       ///< from 0
  double x = 0, y = 0; ///< mm: its lower left corner, from that of the sheet
  bool turned = false; ///< its length stands along the sheet's width
};

enum class NestStatus { not_run, nested, refused };

struct NestResult {
  NestStatus status = NestStatus::not_run;
  std::string message;
  std::vector<NestedPiece> placed;
  int sheets = 0;
  int least_sheets = 0;    ///< by area alone: fewer cannot hold them
  double longest_left = 0; ///< mm: of the last sheet, from the furthest piece and its cut to the end
  double used = 0;         ///< share of the sheets' area that becomes pieces
  bool usable() const { return status == NestStatus::nested; }
};

/// Into the smallest free rectangle each fits best, in several orders of size; the fewest sheets, then the
/// longest left of the last one, stands (maximal rectangles: J. Jylänki, A thousand ways to pack the bin,
/// 2010). Not always the fewest there are: `least_sheets` bounds it.
NestResult nest(const NestInput& input);

} // namespace datrin::stock
