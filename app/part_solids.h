#pragma once
// The solids of the parts as they are drawn, made aside and kept until their bodies change: what is shown
// stays till the new one is there.

#include "app/aside.h"
#include "build/build.h"
#include "sheets/solid_picture.h"

#include <QObject>

#include <map>
#include <memory>

namespace datrin::app {

/// A solid with what was worked out of it.
struct PartSolid {
  std::shared_ptr<const sheets::SolidPicture> picture; ///< null: there is no metal
  std::vector<solid::SolidProblem> problems;           ///< what could not be made, and why
};

class PartSolids : public QObject {
  Q_OBJECT
public:
  explicit PartSolids(QObject* parent = nullptr);

  /// The solid of that part, as it was last made; where its bodies are others by now a new one is begun, and
  /// `made` tells when it is there. Null: it has no bodies, or none is there yet. What is made within the
  /// twinkling of an eye is waited for.
  std::shared_ptr<const PartSolid> of(const build::Build& build, build::Id part);
  /// That part's solid is wanted before others that wait.
  void prefer(build::Id part) { preferred_ = part; }
  bool busy() const { return under_way_ != 0; }
  /// Waits for what is being made.
  void wait();
  void forget();

signals:
  void made();

private:
  struct Kept {
    build::List<build::Body> bodies;
    std::shared_ptr<const PartSolid> solid;
  };
  struct Made {
    build::Id part = 0;
    build::List<build::Body> bodies;
    std::shared_ptr<const PartSolid> solid;
  };
  void begin(const build::Build& build, build::Id part, const build::List<build::Body>& bodies);
  void take(const Made& made);

  std::map<build::Id, Kept> kept_;
  build::Id under_way_ = 0, preferred_ = 0;
  build::List<build::Body> making_;
  std::map<build::Id, build::Build> waiting_; ///< asked for while another is made
  Aside<Made> aside_;
};

} // namespace datrin::app
