#pragma once
// The exchange format of one chain: "datrin-chain-case" in, "datrin-chain-result" out.
// (store uses chains here, because a file of a computation is that computation's inputs and results written
// down.)

#include "chains/chain.h"
#include "store/case_header.h"

#include <nlohmann/json.hpp>

namespace datrin::store {

struct ChainCase {
  ReadStatus status = ReadStatus::not_run;
  std::string message;               ///< why it was refused: "file: place: rule"
  std::vector<std::string> warnings; ///< keys that were left out
  Unit unit = Unit::mm;              ///< the case's own; `input` is in mm
  std::string title;
  chains::ChainInput input;
  chains::ChainOptions options;

  bool ok() const { return status == ReadStatus::ok; }
};

/// Reads a case from JSON text; `label` (the file's name) begins every message.
ChainCase read_chain_case(std::string_view text, const std::string& label);
ChainCase read_chain_case_file(const std::string& path);

/// The result in the case's unit.
nlohmann::ordered_json chain_result_json(const ChainCase& chain_case, const chains::ChainResult& result);

/// The same as a table for people.
std::string chain_result_text(const ChainCase& chain_case, const chains::ChainResult& result);

} // namespace datrin::store
