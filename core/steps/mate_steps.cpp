#include "steps/mate_steps.h"

#include "build/made.h"
#include "build/words.h"
#include "readings/size_now.h"
#include "readings/trials.h"

#include <fmt/format.h>

#include <array>
#include <charconv>

namespace datrin::steps {

using namespace build;

namespace {

/// What tells where it holds, each a word of a trial's note.
constexpr std::array signs{"ring of dye", "light at the edge", "drag", "sound", "finger nail"};

struct Mate {
  Id joint = 0;
  bool hole_here = false; ///< the piece has the hole
  Id dimension = 0, piece = 0;
};

/// The piece that goes with `piece` in a joint: as paired, else the first of its part.
Id piece_with(const Build& build, const Joint& joint, Id piece, bool hole_here, Id other_dimension) {
  for (const auto& pair : joint.pairs)
    if ((hole_here ? pair.first : pair.second) == piece) return hole_here ? pair.second : pair.first;
  const auto* other = build.find<Dimension>(other_dimension);
  if (!other) return 0;
  const auto pieces = build.pieces_of(other->part);
  return pieces.empty() ? 0 : pieces.front().first;
}

std::vector<Mate> mates_of(const Build& build, Id piece, const std::vector<Id>& surfaces) {
  std::vector<Mate> mates;
  const auto is_here = [&](Id dimension) {
    const auto* d = build.find<Dimension>(dimension);
    return d && (contains(surfaces, d->surface) || contains(surfaces, d->other));
  };
  for (const auto& [id, joint] : build.joints())
    for (const bool hole_here : {true, false}) {
      if (!is_here(hole_here ? joint.hole : joint.shaft)) continue;
      const Id other = hole_here ? joint.shaft : joint.hole;
      if (other != 0)
        mates.push_back({id, hole_here, other, piece_with(build, joint, piece, hole_here, other)});
    }
  return mates;
}

std::vector<Id> surfaces_of(const Build& build, const Operation& o) {
  auto surfaces = o.surfaces;
  for (const auto& [id, s] : build.surfaces_of(o.part))
    if (s.body != 0 && contains(o.bodies, s.body)) surfaces.push_back(id);
  return surfaces;
}

std::string felt_list() {
  std::string list;
  const auto [words, count] = shown_words_of<Felt>();
  for (std::size_t k = 0; k < count; ++k) list += fmt::format("{}{} {}", k ? ", " : "", k + 1, words[k]);
  return list;
}

std::string sign_list() {
  std::string list;
  for (std::size_t k = 0; k < signs.size(); ++k)
    list += fmt::format("{}{} {}", k ? ", " : "", k + 1, signs[k]);
  return list;
}

} // namespace

void MateSteps::transfer(Id id, const Operation& o, const route::Feature& f, bool done,
                         std::vector<BenchStep>& work) const {
  auto step = plain(fmt::format("transfer-{}-{}", id, f.body), StepKind::note,
                    "Spot " + f.name + " through its mate");
  step.operation = id;
  step.lit = f.surfaces;
  step.done = step.done || done;
  step.may_be_empty = true;
  auto surfaces = f.surfaces;
  for (const Id s : surfaces_of(build_, o))
    if (!contains(surfaces, s)) surfaces.push_back(s);
  const auto mates = mates_of(build_, in_.piece, surfaces);
  if (mates.empty()) {
    step.words =
        "Clamp the two together as they are to go, edges and marks in line. Nothing says what is its mate: "
        "state the joint, and it says how wide the spotting drill is.";
  } else {
    const auto& mate = mates.front();
    const auto* d = build_.find<Dimension>(mate.dimension);
    const auto now = readings::size_now(build_, {mate.dimension, mate.piece});
    step.number = now.read() ? now.value : d->nominal;
    step.words =
        fmt::format("Clamp it to {} as the two are to go, edges and marks in line. Spot with a drill or a "
                    "transfer punch that fills its hole",
                    piece_name(build_, mate.piece));
    step.sum = {"the mate's hole",
                {{made_name(build_, {mate.dimension, mate.piece}), *step.number,
                  now.read() ? "measured" : "drawing"}},
                {}};
  }
  work.push_back(std::move(step));
}

void MateSteps::trials(Id id, const Operation& o, bool done, std::vector<BenchStep>& work) const {
  for (const auto& mate : mates_of(build_, in_.piece, surfaces_of(build_, o))) {
    const auto* joint = build_.find<Joint>(mate.joint);
    auto step = plain(fmt::format("try-{}-{}", id, mate.joint), StepKind::feel, "Try " + joint->name);
    step.operation = id;
    step.joint = mate.joint;
    step.mate_piece = mate.piece;
    step.lit = surfaces_of(build_, o);
    step.done = step.done || done;
    step.words =
        fmt::format("Clean both, no burr. Push {} in by hand, do not force it.\n{}.\nWhere it jams its depth "
                    "with +, then what tells: {}: 2+12.5+1",
                    mate.hole_here ? piece_name(build_, mate.piece) : "it", felt_list(), sign_list());
    step.ask = "How does it go? Enter: it goes as it should";
    const auto tried = build_.trials_of(mate.joint);
    for (const auto& [trial_id, trial] : tried)
      if ((mate.hole_here ? trial.hole_piece : trial.shaft_piece) == in_.piece)
        step.also =
            "last: " + readings::trial_text(build_, trial) + (trial.note.empty() ? "" : ", " + trial.note);
    work.push_back(std::move(step));
  }
}

StepTaken take_trial(const Build& build, const BenchInput& input, const BenchStep& step,
                     const std::string& typed, const TakeOptions& options) {
  std::vector<std::string> said{""};
  for (const char c : trimmed(typed)) {
    if (c != '+' && c != ' ')
      said.back() += c;
    else if (!said.back().empty())
      said.emplace_back();
  }
  if (said.size() > 1 && said.back().empty()) said.pop_back();
  const auto number_of = [](const std::string& word, std::size_t most) {
    std::size_t n = 0;
    const auto [end, wrong] = std::from_chars(word.data(), word.data() + word.size(), n);
    return wrong == std::errc() && end == word.data() + word.size() && n >= 1 && n <= most ? n : 0;
  };
  constexpr auto felt_count = static_cast<std::size_t>(Felt::loose) + 1;
  const auto felt = number_of(said[0], felt_count);
  if (felt == 0) return StepTaken::refused("how it went is one of these: " + felt_list());
  const auto* joint = build.find<Joint>(step.joint);
  const auto* hole = joint ? build.find<Dimension>(joint->hole) : nullptr;
  const auto* piece = build.find<Piece>(input.piece);
  if (!hole || !piece) return StepTaken::refused("the joint is not there any more");
  const bool hole_here = hole->part == piece->part;
  Trial trial;
  trial.joint = step.joint;
  trial.hole_piece = hole_here ? input.piece : step.mate_piece;
  trial.shaft_piece = hole_here ? step.mate_piece : input.piece;
  trial.felt = static_cast<Felt>(felt - 1);
  std::size_t next = 1;
  if (trial.felt == Felt::jams) {
    if (said.size() < 2) return StepTaken::refused("where does it jam? Type 2+ and how far it went in");
    const auto deep = parse_length(said[next++], options.lengths);
    if (!deep.ok()) return StepTaken::refused("the depth: " + deep.message);
    if (deep.mm <= 0) return StepTaken::refused("the depth is above 0: what will not start is 1");
    if (joint->length > 0 && deep.mm > joint->length)
      return StepTaken::refused(
          fmt::format("that is deeper than it is to go, {}: is the unit right?",
                      length_text(joint->length, options.lengths.bare_unit.value_or(build.info().unit),
                                  {.decimals_mm = 2, .decimals_inch = 3, .show_unit = true})));
    trial.depth = deep.mm;
  }
  for (; next < said.size(); ++next) {
    const auto sign = number_of(said[next], signs.size());
    if (sign == 0) return StepTaken::refused("what tells of it is one of these: " + sign_list());
    trial.note += fmt::format("{}{}", trial.note.empty() ? "" : ", ", signs[sign - 1]);
  }
  const auto kept = readings::try_now(build, trial, options.at);
  StepTaken out;
  out.edit = readings::keep_trial(build, kept);
  out.told = readings::trial_text(build, kept);
  readings::TrialView view;
  view.cut_hole = hole_here;
  view.wanted = (joint->least + joint->most) / 2;
  const auto judged = fits::judge_trial(readings::trial_input(build, kept, view));
  const auto& why = judged.usable() ? judged.words : judged.message;
  if (!why.empty()) out.told += ". " + why;
  return out;
}

} // namespace datrin::steps
