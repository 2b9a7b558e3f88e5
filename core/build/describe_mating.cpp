#include "build/descriptions.h"
#include "build/words.h"

namespace datrin::build {

using namespace describing;

void describe_mating(std::vector<Description>& all) {
  put<Joint>(all, "joint", "two features that mate, and what the fit between them is for",
             {field<&Joint::name>("name"), field<&Joint::purpose>("purpose"),
              field<&Joint::hole>("hole").needs<Dimension>(),
              field<&Joint::shaft>("shaft").needs<Dimension>(), mm(field<&Joint::least>("least")),
              mm(field<&Joint::most>("most")), field<&Joint::basis>("basis"), field<&Joint::thread>("thread"),
              mm_not_negative(field<&Joint::length>("length")),
              mm_not_negative(field<&Joint::hub_outside>("hub_outside")),
              mm_not_negative(field<&Joint::shaft_bore>("shaft_bore")),
              field<&Joint::temperature>("temperature").in(Measures::temperature),
              field<&Joint::comes_apart>("comes_apart"), field<&Joint::through>("through"),
              field<&Joint::looks>("looks"), field<&Joint::method>("method"),
              list_field<&Joint::pairs>("pairs", {field<&PiecePair::first>("hole").needs<Piece>(),
                                                  field<&PiecePair::second>("shaft").needs<Piece>()}),
              field<&Joint::reason>("reason"), place<Joint>()},
             &least_below_most<Joint>);
  put<Chain>(
      all, "chain", "a loop of dimensions that must close with a stated gap",
      {field<&Chain::name>("name"),
       list_field<&Chain::terms>("terms", {field<&ChainTerm::dimension>("dimension").needs<Dimension>(),
                                           field<&ChainTerm::piece>("piece").points_to<Piece>(),
                                           field<&ChainTerm::coefficient>("coefficient").between(-1e6, 1e6),
                                           field<&ChainTerm::why>("why")}),
       mm(field<&Chain::least>("least")), mm(field<&Chain::most>("most")), field<&Chain::reason>("reason"),
       place<Chain>()},
      &least_below_most<Chain>);
  put<Trial>(all, "trial", "two pieces of a joint tried in each other",
             {field<&Trial::joint>("joint").needs<Joint>(),
              field<&Trial::hole_piece>("hole_piece").needs<Piece>(),
              field<&Trial::shaft_piece>("shaft_piece").needs<Piece>(), field<&Trial::felt>("felt"),
              mm_not_negative(field<&Trial::depth>("depth")), mm_not_negative(field<&Trial::hole>("hole")),
              mm_not_negative(field<&Trial::shaft>("shaft")), field<&Trial::note>("note"),
              field<&Trial::at>("at"), place<Trial>()});
}

} // namespace datrin::build
