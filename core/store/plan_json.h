#pragma once
// Bodies of the records that plan and log the making of a part: dimensions, foundry, shop, allowances, cuts,
// setups.

#include "build/records.h"
#include "store/json_reader.h"

#include <nlohmann/json.hpp>

#include <optional>
#include <string_view>

namespace datrin::store {

nlohmann::json plan_body(const build::Dimension& r);
nlohmann::json plan_body(const build::Measurement& r);
nlohmann::json plan_body(const build::Foundry& r);
nlohmann::json plan_body(const build::Machine& r);
nlohmann::json plan_body(const build::Tool& r);
nlohmann::json plan_body(const build::Allowance& r);
nlohmann::json plan_body(const build::Cut& r);
nlohmann::json plan_body(const build::Setup& r);
nlohmann::json plan_body(const build::Release& r);
nlohmann::json plan_body(const build::Instrument& r);
nlohmann::json plan_body(const build::Joint& r);
nlohmann::json plan_body(const build::Chain& r);

/// The record of `kind` in `at`; nothing when the kind is none of these. Throws Refusal naming the field.
std::optional<build::Record> plan_from_json(std::string_view kind, const JsonAt& at);

} // namespace datrin::store
