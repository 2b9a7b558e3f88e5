#pragma once
// The numbers a tool goes to in a setup, in the axes and by the read-out of the machine: over a hole and down
// into it; round a slot or a pocket; along what is turned.

#include "cutting/cutter_path.h"
#include "route/features.h"
#include "steps/places.h"
#include "steps/step_maker.h"
#include "steps/zeros.h"

#include <array>
#include <map>

namespace datrin::steps {

/// One place of an operation, as the tool comes to it.
struct ToolPlace {
  build::Id operation = 0;
  std::string key; ///< of its own within the operation: "1", "2-3"
  std::string name;
  Vec3 at = Vec3::Zero(), out = Vec3::UnitZ(); ///< its mouth; out of the metal
  bool done = false;
  std::vector<build::Id> lit{};
};

class PlaceSteps : public StepMaker {
public:
  PlaceSteps(const build::Build& build, const BenchInput& in, const BenchOptions& options,
             const Places& places);

  /// Over it, along axis 0 X or 1 Y. `moving`: what is done on the way.
  BenchStep go(const ToolPlace& place, std::size_t axis, const std::string& moving = "Move") const;
  /// How deep a hole goes, from the face as it is now: what is still to come off that is drilled through as
  /// well. On a mill Z is set before the first of an operation.
  void hole_depth(const ToolPlace& place, const build::Operation& operation, const route::Feature& feature,
                  std::vector<BenchStep>& work);
  /// Scribed lines and pops: where each is from the datums.
  void marks(build::Id id, const route::Feature& feature, bool done, std::vector<BenchStep>& work) const;
  /// Between holes, centre to centre: a check that no zero and no read-out comes into.
  void chords(build::Id id, const route::Feature& feature, const std::vector<Vec3>& mouths, bool done,
              std::vector<BenchStep>& work) const;
  /// Down, then round with the operation's cutter: slots and pockets whose mouth the tool comes to, and
  /// blocks milled all round. Nothing where it comes from elsewhere.
  void outline(build::Id id, const build::Operation& operation, const route::Feature& feature, bool done,
               std::vector<BenchStep>& work);
  /// What is turned by a profile: the numbers of its lengths, of its arcs in stairs; tapers by the top slide.
  void turned(build::Id id, const build::Operation& operation, const route::Feature& feature, bool done,
              std::vector<BenchStep>& work);
  double cutter_across(const build::Operation& operation) const; ///< mm: its tool's, or as it says
  /// "turn at 540 rev/min": for the metal of the part, of the speeds the machine has; what holds it loosely
  /// is told.
  std::string turn_at(const build::Operation& operation, double across) const;

private:
  /// Every tool is as long as it is: Z is set with each, on the face the first of its operation starts in.
  struct Height {
    Vec3 at = Vec3::Zero();
    MetalOver face;
  };
  const Height& height_of(const ToolPlace& place, const build::Operation& operation,
                          std::vector<BenchStep>& work);
  BenchStep set_height(const ToolPlace& place, const build::Operation& operation, const Height& height) const;
  void below_where_it_was_set(BenchStep& step, const ToolPlace& place, const Height& height) const;
  void as_counted(Reckoning& sum, std::size_t axis, const Counting& count, const std::string& datum) const;
  void as_height(Reckoning& sum, const Height& height, build::Id operation) const;
  std::string by_the_screw(double number) const;
  std::string gives(const build::Operation& operation) const;
  Reckoning as_turned(std::size_t axis, const Vec3& at) const;
  Vec2 in_machine(const Vec3& way) const;
  double off_axes(const Vec3& way) const;
  BenchStep told(const ToolPlace& place, const std::string& key, std::string words) const;
  void mill_to(const ToolPlace& place, const Vec3& before, const std::string& moving, const Vec3* away_from,
               std::vector<BenchStep>& work) const;
  void corners(const ToolPlace& on, const Pose& pose, const cutting::CutterPathInput& block, double top,
               Vec3 before, std::vector<BenchStep>& work) const;
  void metal_in_the_way(BenchStep& step, const MetalOver& over) const;
  BenchStep slide(const ToolPlace& place, std::size_t axis, double diameter) const;
  BenchStep turn_to(const ToolPlace& place, const build::Operation& operation, double diameter) const;
  BenchStep along_to(const ToolPlace& place, const Height& height, double diameter, double from,
                     double to) const;
  Vec3 at_its_side(const ToolPlace& place, double diameter) const;
  BenchStep outline_depth(const ToolPlace& place, const build::Operation& operation, const Height& height,
                          double deep, bool through) const;

  const Places& places_;
  route::AsHeld held_;
  bool soft_; ///< what holds it gives
  double block_ = 0;
  double turn_ = 0; ///< radians the part lies turned
  std::array<Counting, 3> counts_;
  build::Machine machine_;
  std::map<build::Id, Height> heights_; ///< of an operation
};

} // namespace datrin::steps
