#include "build/descriptions.h"
#include "build/words.h"

#include <cmath>

namespace datrin::build {

using namespace describing;

namespace {

Wrong scan_points(const void* record) {
  const auto& scan = *static_cast<const Scan*>(record);
  if (!scan.points) return {};
  const auto& p = *scan.points;
  if (p.surface.size() != p.at.size()) return {"given_to", "must name a surface for every point"};
  for (const auto k : p.surface)
    if (k != ScanPoints::no_surface && k >= p.surfaces.size())
      return {"given_to", "names a surface that is not listed"};
  for (const auto& at : p.at)
    for (const float c : at)
      if (!(std::abs(c) <= static_cast<float>(most_length)))
        return {"points", "must be finite numbers of at most 10 km"};
  return {};
}

} // namespace

void describe_casting(std::vector<Description>& all) {
  constexpr double most_draw = 1.5; ///< radians
  put<Touch>(all, "touch", "a touch on a rough piece",
             {of_piece<Touch>(), field<&Touch::surface>("surface").needs<PartSurface>(),
              mm(field<&Touch::centre>("centre")), mm_not_negative(field<&Touch::tip_radius>("tip_radius")),
              field<&Touch::toward>("toward"), mm_not_negative(field<&Touch::uncertainty>("uncertainty")),
              field<&Touch::setting>("setting"), field<&Touch::note>("note"), place<Touch>(),
              field<&Touch::standing>("standing").from_version(2),
              field<&Touch::corrected>("corrected").from_version(2),
              mm(field<&Touch::right>("right")).from_version(10),
              mm(field<&Touch::up>("up")).from_version(10)});
  put<Setting>(all, "setting", "a way the casting stood while it was touched",
               {of_piece<Setting>(), field<&Setting::name>("name"), field<&Setting::frame>("frame"),
                place<Setting>()});
  put<Mark>(all, "mark", "a reference mark read in one setting",
            {of_piece<Mark>(), field<&Mark::setting>("setting"), field<&Mark::name>("name"),
             mm(field<&Mark::at>("at")), mm_not_negative(field<&Mark::uncertainty>("uncertainty")),
             place<Mark>()});
  put<SizeReading>(all, "size", "a size read across the rough piece",
                   {of_piece<SizeReading>(), field<&SizeReading::surface>("surface").needs<PartSurface>(),
                    field<&SizeReading::other>("other").needs<PartSurface>(),
                    mm_positive(field<&SizeReading::size>("size")),
                    mm_not_negative(field<&SizeReading::uncertainty>("uncertainty")),
                    field<&SizeReading::note>("note"), place<SizeReading>()});
  put<Spot>(all, "spot", "something seen on a rough piece, at a place",
            {of_piece<Spot>(), field<&Spot::surface>("surface").points_to<PartSurface>(),
             field<&Spot::kind>("kind"), mm(field<&Spot::at>("at")),
             mm_not_negative(field<&Spot::size>("size")), field<&Spot::note>("note"),
             field<&Spot::cure>("cure").from_version(9), field<&Spot::done>("done").from_version(9)});
  put<Scan>(all, "scan",
            "a scan of a rough piece; points are three 32-bit floats each, given_to one 16-bit number each",
            {of_piece<Scan>(), field<&Scan::name>("name"), field<&Scan::pose>("pose"),
             mm_not_negative(field<&Scan::uncertainty>("uncertainty")), field<&Scan::points>("points")},
            &scan_points);
  put<Judgement>(
      all, "judgement", "what is wanted of the seat of a piece",
      {of_piece<Judgement>(), field<&Judgement::locked>("locked"),
       list_field<&Judgement::favours>("favours", {field<&Favour::surface>("surface").needs<PartSurface>(),
                                                   mm(field<&Favour::by>("by"))}),
       field<&Judgement::central_bore>("central_bore").points_to<PartSurface>()});
  put<Seat>(all, "seat", "where the finished part sits in a piece",
            {of_piece<Seat>(), field<&Seat::pose>("pose"), field<&Seat::best>("best")});
  put<Marking>(all, "marking", "how a piece is marked out",
               {of_piece<Marking>(), field<&Marking::up>("up").ruled(Rule::unit_length),
                field<&Marking::reference>("reference").points_to<PartSurface>(),
                mm(field<&Marking::base_height>("base_height")),
                field<&Marking::jacks>("jacks").points_to<Touch>()});
  put<Foundry>(all, "foundry", "how a part is cast",
               {of_part<Foundry>(), field<&Foundry::metal>("metal"), field<&Foundry::process>("process"),
                field<&Foundry::tolerance_grade>("tolerance_grade").between(1, 16),
                field<&Foundry::allowance>("allowance"),
                field<&Foundry::shrinkage>("shrinkage").between(-1, 1),
                field<&Foundry::draft>("draft").in(Measures::angle).between(0, most_draw),
                field<&Foundry::draw>("draw").ruled(Rule::unit_length),
                field<&Foundry::own_pattern>("own_pattern").from_version(9)});
}

} // namespace datrin::build
