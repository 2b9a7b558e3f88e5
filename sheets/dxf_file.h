#pragma once
// A DXF file (AC1015, millimetres) put together entity by entity.

#include "geometry/surface.h"

#include <memory>
#include <string>
#include <vector>

namespace datrin::sheets {

class DxfFile {
public:
  /// Layers by their names; those whose name is HIDDEN or CENTRE are dashed.
  explicit DxfFile(const std::vector<std::string>& layers);
  ~DxfFile();
  DxfFile(const DxfFile&) = delete;
  DxfFile& operator=(const DxfFile&) = delete;

  void line(const std::string& layer, const Vec2& from, const Vec2& to);
  void circle(const std::string& layer, const Vec2& centre, double radius);
  /// Counter-clockwise, radians from the x axis.
  void arc(const std::string& layer, const Vec2& centre, double radius, double from, double to);
  void point(const std::string& layer, const Vec2& at);
  void text(const std::string& layer, const Vec2& at, double height, const std::string& words);
  /// Straight lines from place to place; closed: back to the first.
  void path(const std::string& layer, const std::vector<Vec2>& at, bool closed = false);

  /// Ends the file and gives its text; empty when it could not be made.
  std::string finish();

private:
  struct Inside;
  std::unique_ptr<Inside> inside_;
};

} // namespace datrin::sheets
