#include "build/descriptions.h"
#include "build/words.h"

#include <cmath>

namespace datrin::build {

using namespace describing;

namespace {

Wrong square_to_each_other(const void* record) {
  const auto& s = *static_cast<const Stock*>(record);
  constexpr double square = 1e-6; // cosine
  if (std::abs(s.along.dot(s.across)) > square) return {"across", "must be square to along"};
  if (s.form == StockForm::tube && s.bore > s.width) return {"bore", "must not be above the outside"};
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
               {field<&Machine::name>("name"), field<&Machine::reads_diameter>("reads_diameter"),
                field<&Machine::unit>("unit"), mm_positive(field<&Machine::resolution>("resolution")),
                field<&Machine::note>("note"), place<Machine>()});
  put<Tool>(all, "tool", "a cutting tool in the shop, or what serves as a size",
            {field<&Tool::name>("name"), mm_not_negative(field<&Tool::size>("size")),
             mm_not_negative(field<&Tool::corner>("corner")),
             mm_not_negative(field<&Tool::least_cut>("least_cut")),
             mm_not_negative(field<&Tool::reach>("reach")), field<&Tool::note>("note"), place<Tool>(),
             field<&Tool::kind>("kind").from_version(4)});
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
              field<&Setup::marks>("marks").points_to<PartSurface>(), place<Setup>()});
  put<Release>(all, "release", "a piece was taken out of a setup",
               {of_piece<Release>(), field<&Release::setup>("setup").needs<Setup>(),
                field<&Release::at>("at"), field<&Release::missing>("missing")});
}

} // namespace datrin::build
