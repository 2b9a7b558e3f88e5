#include "build/edit_mating.h"

namespace datrin::build {

namespace {

template <class Alter>
Edit change_chain(const Build& build, Id id, Alter alter, const char* what) {
  const auto* chain = build.find<Chain>(id);
  if (chain == nullptr) return is_gone();
  auto changed = *chain;
  alter(changed);
  return change(build, id, changed, what);
}

} // namespace

Added state_chain(const Build& build) {
  Chain chain;
  chain.name = "chain " + std::to_string(build.chains().size() + 1);
  chain.most = 0.2;
  chain.order = next_order(build.chains());
  return added(build, chain, "State " + chain.name);
}

Added set_gap(const Build& build, Id id, double least, double most) {
  if (least > most) return {id, {}, "The least gap is above the most: nothing could be right."};
  const auto alter = [&](Chain& chain) {
    chain.least = least;
    chain.most = most;
  };
  return {id, change_chain(build, id, alter, "Gap"), {}};
}

Edit add_link(const Build& build, Id id, Id dimension, double coefficient, std::string why) {
  const auto alter = [&](Chain& chain) {
    chain.terms.push_back({dimension, 0, coefficient, std::move(why)});
  };
  return change_chain(build, id, alter, "Added link");
}

Edit remove_link(const Build& build, Id id, std::size_t link) {
  const auto alter = [&](Chain& chain) {
    if (link < chain.terms.size()) chain.terms.erase(chain.terms.begin() + static_cast<std::ptrdiff_t>(link));
  };
  return change_chain(build, id, alter, "Removed link");
}

Edit set_links(const Build& build, Id id, std::vector<ChainTerm> links) {
  const auto alter = [&](Chain& chain) { chain.terms = std::move(links); };
  return change_chain(build, id, alter, "Walked links");
}

} // namespace datrin::build
