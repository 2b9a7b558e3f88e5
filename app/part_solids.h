#pragma once
// The solids of the parts as they are drawn, made aside one after another and kept until their bodies change:
// what is shown stays till the new one is there.

#include "app/aside.h"
#include "build/build.h"
#include "sheets/solid_picture.h"

#include <QObject>

#include <functional>
#include <map>
#include <memory>
#include <vector>

namespace datrin::app {

/// A solid with its views, and what could not be made of it.
struct PartSolid {
  std::shared_ptr<const sheets::SolidPicture> picture; ///< null: there is no metal
  std::vector<solid::SolidProblem> problems;
};

class PartSolids : public QObject {
  Q_OBJECT
public:
  explicit PartSolids(QObject* parent = nullptr);

  /// The solid of that part, as it was last made; where its bodies are others by now a new one is begun, and
  /// `made` tells when it is there. Null: it has no bodies, or none is there yet. `wanted_now`: the person
  /// looks at it; it is made before others that wait, and when it is there within the twinkling of an eye
  /// that is waited for.
  std::shared_ptr<const PartSolid> of(const build::Build& build, build::Id part, bool wanted_now);
  /// Whether `of` gives the solid of what is drawn now, not of what was.
  bool is_made(const build::Build& build, build::Id part) const;
  bool busy() const { return under_way_.part != 0; }
  /// Waits for all that is being made.
  void wait();
  /// Waits until that one is made: what is printed shows the part as it is.
  void wait_for(const build::Build& build, build::Id part);
  void forget();

signals:
  void made(qlonglong part);

private:
  struct Made {
    build::Id part = 0;
    build::List<build::Body> bodies;
    std::shared_ptr<const PartSolid> solid;
  };
  struct Kept {
    build::List<build::Body> bodies;
    std::shared_ptr<const PartSolid> solid;
  };
  /// Starts making it; waits so long for it, ms. Whether it is there.
  bool begin(const build::Build& build, build::Id part, int wait_ms);
  void keep(const Made& made);
  void end(const Made& made);
  void next();
  void wait_while(const std::function<bool()>& wanting);

  std::map<build::Id, Kept> kept_;
  Made under_way_;                            ///< without its solid; part 0: nothing is
  std::map<build::Id, build::Build> waiting_; ///< asked for while another is made
  build::Id wanted_ = 0;
  /// Which part it is of; one is made at a time, of the bodies it had when it was begun.
  Aside<Made, build::Id> aside_;
};

} // namespace datrin::app
