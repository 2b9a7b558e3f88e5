#include "build/descriptions.h"
#include "build/words.h"

#include <cmath>

namespace datrin::build {

using namespace describing;

namespace {

constexpr double most_price = 1e9;
constexpr int most_edges = 10000;

Wrong square_to_each_other(const void* record) {
  const auto& s = *static_cast<const Stock*>(record);
  constexpr double square = 1e-6; // cosine
  if (std::abs(s.along.dot(s.across)) > square) return {"across", "must be square to along"};
  if (s.form == StockForm::tube && s.bore > s.width) return {"bore", "must not be above the outside"};
  return {};
}

/// Which axes count backwards: letters, parted by blanks or not.
Wrong names_axes(const void* record) {
  for (const char c : static_cast<const Machine*>(record)->reversed)
    if (std::string_view("XYZxyz ,").find(c) == std::string_view::npos)
      return {"reversed", "must name axes: X, Y, Z"};
  return {};
}

} // namespace

void describe_making(std::vector<Description>& all) {
  put<Measurement>(all, "measurement", "a dimension as measured on a piece (an angle: radians)",
                   {of_piece<Measurement>(), field<&Measurement::dimension>("dimension").needs<Dimension>(),
                    mm(field<&Measurement::value>("value")),
                    mm_not_negative(field<&Measurement::uncertainty>("uncertainty")),
                    field<&Measurement::instrument>("instrument"), field<&Measurement::at>("at"),
                    field<&Measurement::read>("read").from_version(4),
                    field<&Measurement::mate>("mate").points_to<Dimension>().from_version(4),
                    field<&Measurement::mate_piece>("mate_piece").points_to<Piece>().from_version(4),
                    mm(field<&Measurement::difference>("difference")).from_version(4),
                    list_field<&Measurement::places>(
                        "places", {mm(field<&PlaceReading::depth>("depth")),
                                   field<&PlaceReading::direction>("direction").in(Measures::angle),
                                   mm(field<&PlaceReading::value>("value"))})
                        .from_version(4),
                    mm_not_negative(field<&Measurement::off_centre>("off_centre")).from_version(7),
                    field<&Measurement::bound>("bound").from_version(7)});
  put<Stock>(all, "stock", "what a part is made from, and where in it the part lies",
             {of_part<Stock>(), field<&Stock::form>("form"),
              field<&Stock::along>("along").ruled(Rule::unit_length),
              field<&Stock::across>("across").ruled(Rule::unit_length),
              mm_not_negative(field<&Stock::width>("width")), mm_not_negative(field<&Stock::thick>("thick")),
              mm_not_negative(field<&Stock::bore>("bore")), mm_not_negative(field<&Stock::length>("length")),
              mm(field<&Stock::shift>("shift"))},
             &square_to_each_other);
  put<Offcut>(all, "offcut", "a piece of bar, plate, sheet or tube left over, in the shop",
              {field<&Offcut::form>("form"), field<&Offcut::material>("material"),
               mm_not_negative(field<&Offcut::width>("width")),
               mm_not_negative(field<&Offcut::thick>("thick")), mm_not_negative(field<&Offcut::bore>("bore")),
               mm_not_negative(field<&Offcut::length>("length")), field<&Offcut::note>("note"),
               place<Offcut>()});
  put<Machine>(all, "machine", "a machine in the shop, and how its dial reads",
               {field<&Machine::name>("name"),
                field<&Machine::reads_diameter>("reads_diameter"),
                field<&Machine::unit>("unit"),
                mm_positive(field<&Machine::resolution>("resolution")),
                field<&Machine::note>("note"),
                place<Machine>(),
                field<&Machine::kind>("kind").from_version(11),
                mm_not_negative(field<&Machine::spindle_bore>("spindle_bore")).from_version(11),
                mm_not_negative(field<&Machine::swing>("swing")).from_version(11),
                mm_not_negative(field<&Machine::reach>("reach")).from_version(11),
                mm_not_negative(field<&Machine::chuck>("chuck")).from_version(11),
                mm_not_negative(field<&Machine::shank>("shank")).from_version(11),
                mm_not_negative(field<&Machine::cutting>("cutting")).from_version(11),
                mm_not_negative(field<&Machine::seating>("seating")).from_version(11),
                field<&Machine::taper>("taper").from_version(11),
                field<&Machine::speeds>("speeds").from_version(11),
                field<&Machine::site>("site").from_version(11),
                mm_not_negative(field<&Machine::travel>("travel")).from_version(12),
                mm_not_negative(field<&Machine::cross_travel>("cross_travel")).from_version(12),
                mm_not_negative(field<&Machine::up_travel>("up_travel")).from_version(12),
                field<&Machine::reversed>("reversed").from_version(13),
                mm_not_negative(field<&Machine::dial_turn>("dial_turn")).from_version(13),
                mm_not_negative(field<&Machine::backlash>("backlash")).from_version(13),
                field<&Machine::read_out>("read_out").from_version(13)},
               &names_axes);
  put<Tool>(all, "tool", "a cutting tool in the shop, or what serves as a size",
            {field<&Tool::name>("name"), mm_not_negative(field<&Tool::size>("size")),
             mm_not_negative(field<&Tool::corner>("corner")),
             mm_not_negative(field<&Tool::least_cut>("least_cut")),
             mm_not_negative(field<&Tool::reach>("reach")), field<&Tool::note>("note"), place<Tool>(),
             field<&Tool::kind>("kind").from_version(4),
             mm_not_negative(field<&Tool::shank>("shank")).from_version(11),
             field<&Tool::point_angle>("point_angle").in(Measures::angle).between(0, 3.2).from_version(11),
             field<&Tool::thread>("thread").from_version(11),
             list_field<&Tool::made>("made", {mm_not_negative(field<&ToolMade::wanted>("wanted")),
                                              mm_not_negative(field<&ToolMade::made>("made")),
                                              field<&ToolMade::at>("at")})
                 .from_version(11),
             field<&Tool::price>("price").between(0, most_price).from_version(12),
             field<&Tool::edges>("edges").between(0, most_edges).from_version(12)});
  put<Supply>(all, "supply", "fasteners on hand, what is used up, what is to be bought",
              {field<&Supply::name>("name"), field<&Supply::kind>("kind"),
               mm_not_negative(field<&Supply::length>("length")), field<&Supply::hardened>("hardened"),
               field<&Supply::count>("count").between(0, 1e6), field<&Supply::note>("note"), place<Supply>(),
               field<&Supply::price>("price").between(0, most_price).from_version(12),
               field<&Supply::edges>("edges").between(0, most_edges).from_version(12)});
  put<Instrument>(
      all, "instrument", "a measuring instrument in the shop",
      {field<&Instrument::name>("name"), mm_positive(field<&Instrument::resolution>("resolution")),
       mm_not_negative(field<&Instrument::uncertainty>("uncertainty")), mm(field<&Instrument::zero>("zero")),
       field<&Instrument::temperature>("temperature").in(Measures::temperature),
       field<&Instrument::note>("note"), place<Instrument>()});
  put<Allowance>(
      all, "allowance", "how the metal over one surface of a piece is spent",
      {of_piece<Allowance>(), field<&Allowance::surface>("surface").needs<PartSurface>(),
       field<&Allowance::machine>("machine").points_to<Machine>(),
       field<&Allowance::tool>("tool").points_to<Tool>(), mm_not_negative(field<&Allowance::skin>("skin")),
       mm_positive(field<&Allowance::rough>("rough")), mm_not_negative(field<&Allowance::semi>("semi")),
       mm_not_negative(field<&Allowance::finish>("finish")), mm_not_negative(field<&Allowance::last>("last")),
       field<&Allowance::last_step>("last_step"), field<&Allowance::even>("even"),
       field<&Allowance::batch>("batch"), mm_not_negative(field<&Allowance::spare_end>("spare_end")),
       field<&Allowance::announced>("announced")});
  put<Cut>(all, "cut", "a cut taken, with what it was to leave and what it left",
           {of_piece<Cut>(), field<&Cut::surface>("surface").needs<PartSurface>(),
            mm(field<&Cut::planned>("planned")), mm(field<&Cut::left>("left")),
            mm_not_negative(field<&Cut::uncertainty>("uncertainty")), field<&Cut::read>("read"),
            field<&Cut::note>("note"), field<&Cut::at>("at"), place<Cut>(), mm(field<&Cut::place>("place"))});
  put<Setup>(all, "setup", "a way a part is held while surfaces of it are machined",
             {of_part<Setup>(), field<&Setup::name>("name"),
              field<&Setup::datums>("datums").points_to<PartSurface>(),
              field<&Setup::cuts>("cuts").points_to<PartSurface>(),
              field<&Setup::sizes>("sizes").points_to<Dimension>(),
              field<&Setup::marks>("marks").points_to<PartSurface>(), place<Setup>(),
              field<&Setup::machine>("machine").points_to<Machine>().from_version(11),
              field<&Setup::holding>("holding").from_version(11),
              mm_not_negative(field<&Setup::grip>("grip")).from_version(11),
              mm_not_negative(field<&Setup::overhang>("overhang")).from_version(11),
              field<&Setup::packing>("packing").from_version(11),
              field<&Setup::stop>("stop").from_version(11), field<&Setup::way>("way").from_version(11)});
  put<Release>(all, "release", "a piece was taken out of a setup",
               {of_piece<Release>(), field<&Release::setup>("setup").needs<Setup>(),
                field<&Release::at>("at"), field<&Release::missing>("missing"),
                field<&Release::left>("left").from_version(11)});
  put<Operation>(
      all, "operation", "a step of making a part",
      {of_part<Operation>(), field<&Operation::name>("name"), field<&Operation::kind>("kind"),
       field<&Operation::setup>("setup").points_to<Setup>(),
       field<&Operation::surfaces>("surfaces").points_to<PartSurface>(),
       field<&Operation::bodies>("bodies").points_to<Body>(),
       field<&Operation::tool>("tool").points_to<Tool>(), mm_not_negative(field<&Operation::size>("size")),
       field<&Operation::minutes>("minutes").between(0, most_minutes),
       field<&Operation::after>("after").points_to<Operation>(),
       list_field<&Operation::set_aside>(
           "set_aside",
           {field<&SetAside::before>("before").points_to<Operation>(), field<&SetAside::reason>("reason")}),
       field<&Operation::needs>("needs").points_to<Part>(), field<&Operation::until>("until"),
       field<&Operation::deferred>("deferred"), field<&Operation::note>("note"), place<Operation>()});
  put<OperationDone>(all, "operation_done", "an operation was done on a piece",
                     {of_piece<OperationDone>(),
                      field<&OperationDone::operation>("operation").needs<Operation>(),
                      field<&OperationDone::at>("at"), field<&OperationDone::note>("note")});
  put<BenchPlace>(all, "bench_place", "where a person stands at the machine with a piece in a setup",
                  {of_piece<BenchPlace>(), field<&BenchPlace::setup>("setup").needs<Setup>(),
                   field<&BenchPlace::step>("step"), field<&BenchPlace::passed>("passed"),
                   field<&BenchPlace::dials>("dials"),
                   mm_not_negative(field<&BenchPlace::finder>("finder")).from_version(13),
                   mm_not_negative(field<&BenchPlace::block>("block")).from_version(13),
                   field<&BenchPlace::at>("at")});
  put<BenchZero>(all, "bench_zero", "where a datum was found along an axis in a setup of a piece",
                 {of_piece<BenchZero>(), field<&BenchZero::setup>("setup").needs<Setup>(),
                  field<&BenchZero::axis>("axis"), field<&BenchZero::datum>("datum").points_to<PartSurface>(),
                  field<&BenchZero::operation>("operation").points_to<Operation>().from_version(14),
                  field<&BenchZero::touches>("touches"), field<&BenchZero::other_touches>("other_touches"),
                  field<&BenchZero::both_axes>("both_axes").from_version(14),
                  field<&BenchZero::across>("across").from_version(14),
                  field<&BenchZero::turn>("turn").in(Measures::angle).between(-1.6, 1.6).from_version(14),
                  mm_not_negative(field<&BenchZero::finder>("finder")), mm(field<&BenchZero::shows>("shows")),
                  mm_not_negative(field<&BenchZero::uncertainty>("uncertainty")),
                  field<&BenchZero::found>("found"), field<&BenchZero::lost>("lost"),
                  field<&BenchZero::at>("at"), field<&BenchZero::checked>("checked").from_version(14)});
  put<CrankRound>(
      all, "crank_round", "a pressed crank read on both sides, and what was done to it then",
      {of_piece<CrankRound>(), field<&CrankRound::left>("left"), field<&CrankRound::right>("right"),
       field<&CrankRound::bore>("bore"), mm_not_negative(field<&CrankRound::shaft>("shaft")),
       mm_not_negative(field<&CrankRound::rim>("rim")), mm_not_negative(field<&CrankRound::limit>("limit")),
       field<&CrankRound::move>("move"), mm(field<&CrankRound::wanted>("wanted")),
       field<&CrankRound::note>("note"), field<&CrankRound::at>("at"), place<CrankRound>()});
  put<Locator>(all, "locator", "where a fixture takes hold of the part it is made for",
               {field<&Locator::fixture>("fixture").needs<Part>(),
                field<&Locator::surface>("surface").needs<PartSurface>(), field<&Locator::kind>("kind"),
                mm_not_negative(field<&Locator::size>("size")),
                mm_not_negative(field<&Locator::closes>("closes")),
                mm_not_negative(field<&Locator::arm>("arm")), place<Locator>()});
  put<Proof>(all, "proof", "a fixture, jig or gauge was tried before good pieces went in",
             {field<&Proof::fixture>("fixture").needs<Part>(),
              field<&Proof::piece>("piece").points_to<Piece>(), mm(field<&Proof::off>("off")),
              field<&Proof::good>("good"), field<&Proof::note>("note"), field<&Proof::at>("at")});
}

} // namespace datrin::build
