#pragma once
// Surveys as CSV. UTF-8, a header line, comma, semicolon or tab; `#` starts a comment line. Columns:
// `surface`; `x`, `y`, `z` with the unit in the name (`x_mm` or `x_in`); optional `tip_radius_mm`,
// `toward_x`, `toward_y`, `toward_z`, `uncertainty_mm`, `setting`, `note`. Other columns are kept in the
// note. A line on the surface "mark A" is a reading of the reference mark A. A decimal comma is read only
// where the separator is a semicolon. A field in double quotes may hold line ends. A text that a table would
// take for a formula stands behind an apostrophe ("'=1+1"), which is taken off again.
//
// A survey is touches made by hand: at most 200,000 of them, a line of at most a mebibyte, a thousand
// columns; a file of which ten thousand lines cannot be read is refused as none.

#include "build/records.h"
#include "store/read_options.h"

#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace datrin::store {

struct SurveyLine {
  std::size_t line = 0; ///< in the file, from 1
  build::Id surface = 0;
  build::Touch touch; ///< piece is left 0
};

struct BadLine {
  std::size_t line = 0;
  std::string message; ///< "line 12, x_mm: \"abc\" is not a number"
};

struct SurveyCsv {
  bool refused = false; ///< nothing could be read at all
  std::string message;  ///< why
  std::vector<SurveyLine> good;
  std::vector<build::Mark> marks; ///< lines on a surface "mark NAME"; piece is left 0
  std::vector<BadLine> bad;
  std::vector<std::string> kept_as_notes; ///< names of columns not known
};

using SurfaceNames = std::vector<std::pair<build::Id, std::string>>;

/// Reads `text`; surfaces are known by `surfaces`, upper and lower case and "_" for a blank being the same.
SurveyCsv read_survey_csv(std::string_view text, const std::string& label, const SurfaceNames& surfaces,
                          const ReadOptions& options = {});
SurveyCsv read_survey_csv_file(const std::string& path, const SurfaceNames& surfaces,
                               const ReadOptions& options = {});

/// All columns, in mm, separated by commas; read again it gives the same touches.
std::string write_survey_csv(const std::vector<build::Touch>& touches, const SurfaceNames& surfaces,
                             const std::vector<build::Mark>& marks = {});

} // namespace datrin::store
