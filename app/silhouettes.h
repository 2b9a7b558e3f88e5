#pragma once
// How the parts last looked on the shelf, kept with the build file: so that one with many parts is there at
// once, before any solid is made anew.

#include "build/build.h"

#include <QImage>

#include <cstdint>
#include <map>
#include <string>

namespace datrin::app {

/// A small picture in three shares, each as much as it covers: red its area, green its lines, blue its
/// fainter lines. Coloured when it is shown.
class Silhouettes {
public:
  /// From what `text` gave; what cannot be read is left out.
  void read(const std::string& text);
  std::string text() const;
  void forget() { kept_.clear(); }

  /// As it was last drawn; null where it was not, or is drawn otherwise by now.
  QImage of(const build::Build& build, build::Id part) const;
  void keep(const build::Build& build, build::Id part, const QImage& picture);

private:
  struct Kept {
    std::uint64_t drawn = 0; ///< what the part's bodies and surfaces come to
    QImage picture;
  };
  std::map<build::Id, Kept> kept_;
};

} // namespace datrin::app
