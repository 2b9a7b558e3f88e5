#include "shop/shop_file.h"

#include "build/check.h"
#include "build/rows.h"
#include "quantity/text.h"
#include "shop/sheet.h"
#include "store/csv.h"
#include "store/json_reader.h"
#include "store/record_json.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>

namespace datrin::shop {

using namespace build;

namespace {

bool is_kind(int kind) {
  return std::find(kinds().begin(), kinds().end(), kind) != kinds().end();
}

/// The one there is of the same kind and name; offcuts have no names: each is one more.
Id same_as(const Build& build, const Record& record) {
  if (record.kind() == kind_of<Offcut>) {
    for (const auto& [id, other] : rows(build, record.kind()))
      if (other == record) return id;
    return 0;
  }
  for (const auto& [id, other] : rows(build, record.kind()))
    if (name_of(other) == name_of(record)) return id;
  return 0;
}

void take(Rows& all, const Record& record, ShopRead& out) {
  const Id there = same_as(all.build(), record);
  if (there == 0) {
    all.add(record);
    ++out.added;
  } else if (*std::addressof(all.build().records().at(there)) == record) {
    ++out.same;
  } else {
    all.set(there, record);
    ++out.changed;
  }
}

void read_json(Rows& all, std::string_view text, const std::string& label, ShopRead& out) {
  const auto document = nlohmann::json::parse(text, nullptr, false);
  if (document.is_discarded() || !document.is_object() || document.value("format", "") != "datrin-shop") {
    out.wrong = fmt::format("{}: is no shop of this program (format \"datrin-shop\")", label);
    return;
  }
  const auto records = document.find("records");
  if (records == document.end() || !records->is_array()) {
    out.wrong = fmt::format("{}: /records is missing", label);
    return;
  }
  std::size_t k = 0;
  for (const auto& row : *records) {
    const auto place = fmt::format("{}: /records/{}", label, k++);
    const auto kind = row.is_object() && row.contains("kind") && row["kind"].is_string()
                          ? row["kind"].get<std::string>()
                          : std::string();
    if (!is_kind(kind_called(kind)) || !row.contains("body")) {
      out.wrong = place + ": is no machine, tool, instrument, supply or offcut";
      return;
    }
    try {
      auto record = store::record_from_json(kind, row["body"]);
      if (const auto wrong = first_wrong(record)) {
        out.wrong = fmt::format("{}{}: {}", place, wrong->field, wrong->rule);
        return;
      }
      take(all, record, out);
    } catch (const store::Refusal& refusal) {
      out.wrong = fmt::format("{}: {}", place, refusal.what());
      return;
    }
  }
}

void read_csv(Rows& all, std::string_view text, const std::string& label, ShopRead& out) {
  std::vector<std::string> heads;
  char separator = ',';
  std::size_t line = 0, next = 1;
  if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
  while (!text.empty() && out.ok()) {
    const auto end = store::csv_line_end(text);
    auto row = text.substr(0, end);
    text.remove_prefix(end == std::string_view::npos ? text.size() : end + 1);
    line = next;
    next += 1 + static_cast<std::size_t>(std::count(row.begin(), row.end(), '\n'));
    if (row.ends_with('\r')) row.remove_suffix(1);
    if (trimmed(row).empty() || row.front() == '#') continue;
    if (heads.empty()) separator = store::csv_separator(row);
    const auto fields = store::csv_split(row, separator);
    const auto place = fmt::format("{}: line {}", label, line);
    if (!fields) {
      out.wrong = place + ": a quote is not closed";
      return;
    }
    if (heads.empty()) {
      heads = *fields;
      if (heads.empty() || heads.front() != "sheet") {
        out.wrong = place + ": the first column must be \"sheet\"";
        return;
      }
      continue;
    }
    const int kind = kind_called(fields->front());
    if (!is_kind(kind)) {
      out.wrong = fmt::format("{}: \"{}\" is no machine, tool, instrument, supply or offcut", place,
                              one_line(fields->front()));
      return;
    }
    Record record(kind, description(kind).make());
    for (std::size_t k = 1; k < fields->size() && k < heads.size(); ++k) {
      if ((*fields)[k].empty()) continue;
      const auto& list = columns(kind);
      const auto column =
          std::find_if(list.begin(), list.end(), [&](const Column& c) { return heads[k] == c.field->name; });
      if (column == list.end()) continue; // of another kind
      auto made = typed(record, *column, store::csv_text((*fields)[k]), Unit::mm);
      if (!made.ok()) {
        out.wrong = fmt::format("{}: {}", place, made.wrong);
        return;
      }
      record = std::move(made.record);
    }
    if (const auto wrong = first_wrong(record)) {
      out.wrong = fmt::format("{}: {} {}", place, wrong->field, wrong->rule);
      return;
    }
    if (kind != kind_of<Offcut> && name_of(record) == description(kind).name) {
      out.wrong = place + ": needs a name";
      return;
    }
    take(all, record, out);
  }
  if (heads.empty()) out.wrong = fmt::format("{}: is empty", label);
}

} // namespace

std::string shop_json(const Build& build) {
  nlohmann::ordered_json out{{"format", "datrin-shop"}, {"version", 1}};
  out["records"] = nlohmann::ordered_json::array();
  for (const int kind : kinds())
    for (const auto& [id, record] : rows(build, kind))
      out["records"].push_back({{"kind", store::record_kind(record)}, {"body", store::record_body(record)}});
  return out.dump(2) + "\n";
}

std::string shop_csv(const Build& build) {
  std::vector<std::string> heads;
  for (const int kind : kinds())
    for (const auto& column : columns(kind))
      if (std::find(heads.begin(), heads.end(), column.field->name) == heads.end())
        heads.emplace_back(column.field->name);
  std::string text = "sheet";
  for (const auto& head : heads) text += "," + head;
  text += "\n";
  for (const int kind : kinds())
    for (const auto& [id, record] : rows(build, kind)) {
      text += description(kind).name;
      for (const auto& head : heads) {
        text += ",";
        for (const auto& column : columns(kind))
          if (head == column.field->name) text += store::csv_field(exact_text(record, column));
      }
      text += "\n";
    }
  return text;
}

ShopRead take_shop(const Build& build, std::string_view text, const std::string& label) {
  ShopRead out;
  Rows all(build);
  if (!is_utf8(text)) {
    out.wrong = label + ": is not UTF-8 text";
    return out;
  }
  if (trimmed(text).starts_with("{"))
    read_json(all, text, label, out);
  else
    read_csv(all, text, label, out);
  if (out.ok()) out.edit = all.edit("Take a shop");
  return out;
}

} // namespace datrin::shop
