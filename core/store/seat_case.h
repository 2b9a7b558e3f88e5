#pragma once
// The exchange format of a seat: "datrin-seat-case" in, "datrin-seat-result" out.
// (store uses casting here, because a file of a computation is that computation's inputs and results written
// down.)

#include "casting/seat.h"
#include "quantity/unit.h"
#include "store/case_header.h"

#include <nlohmann/json.hpp>

#include <string>
#include <string_view>
#include <vector>

namespace datrin::store {

struct SeatCase {
  ReadStatus status = ReadStatus::not_run;
  std::string message;               ///< why it was refused: "file: place: rule"
  std::vector<std::string> warnings; ///< keys that were left out, and the like
  Unit unit = Unit::mm;              ///< the case's own; `input` is in mm
  std::string title;
  casting::SeatInput input;

  bool ok() const { return status == ReadStatus::ok; }
};

/// Reads a case from JSON text; `label` (the file's name) begins every message.
SeatCase read_seat_case(std::string_view text, const std::string& label);

/// The same from the file at `path`.
SeatCase read_seat_case_file(const std::string& path);

/// The result in the case's unit. Figures that are not known (a surface without touches) are null.
nlohmann::ordered_json seat_result_json(const SeatCase& seat_case, const casting::SeatResult& result);

/// The same as a table for people.
std::string seat_result_text(const SeatCase& seat_case, const casting::SeatResult& result);

} // namespace datrin::store
