#pragma once
// Scans as points or triangles: PLY (store/ply.h) and STL, text or binary, the latter read by the Open Asset
// Import Library.

#include "geometry/pose.h"
#include "quantity/unit.h"
#include "store/read_options.h"

#include <array>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::store {

struct ScanFile {
  bool ok = false;
  std::string message;                  ///< why it was refused: what, where, what to do
  std::vector<std::array<float, 3>> at; ///< mm; of triangles their corners, each once
  bool triangles = false;
};

/// Reads the scan at `path`; neither format states a unit, so `unit` does. Refused: over 256 MiB, no points,
/// anything that is not finite, a header that promises more than the file holds.
ScanFile read_scan_file(const std::string& path, Unit unit, const ReadOptions& options = {});

/// The same from bytes; `ending` is "ply" or "stl", `label` begins every message.
ScanFile read_scan(std::string_view bytes, std::string_view ending, const std::string& label, Unit unit);

} // namespace datrin::store
