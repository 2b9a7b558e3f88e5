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
#include <deque>
#include <map>

namespace datrin::shop {

using namespace build;

namespace {

bool is_kind(int kind) {
  return std::find(kinds().begin(), kinds().end(), kind) != kinds().end();
}

/// Puts what is read into the build: of the same kind and name what is there is changed, of several of one
/// name each by the row of its place. Offcuts have no names: one that is not there as it is, is one more.
class Taker {
public:
  Taker(Rows& all, ShopRead& out) : all_(all), out_(out) {
    for (const int kind : kinds())
      for (const auto& [id, record] : rows(all.build(), kind)) there_[key_of(record)].push_back(id);
  }
  /// The one the next row of that name is of; 0: none.
  Id next(int kind, const std::string& name) { return take_next({kind, name}); }
  const Record& at(Id id) const { return all_.build().records().at(id); }

  void take(const Record& record) { take(take_next(key_of(record)), record); }
  void take(Id there, const Record& record) {
    if (there == 0) {
      all_.add(record);
      ++out_.added;
    } else if (at(there) == record) {
      ++out_.same;
    } else {
      all_.set(there, record);
      ++out_.changed;
    }
  }

private:
  using Key = std::pair<int, std::string>;
  static Key key_of(const Record& record) {
    const int kind = record.kind();
    return {kind, kind == kind_of<Offcut> ? store::record_body(record).dump() : name_of(record)};
  }
  Id take_next(const Key& key) {
    const auto found = there_.find(key);
    if (found == there_.end() || found->second.empty()) return 0;
    const Id id = found->second.front();
    found->second.pop_front();
    return id;
  }
  Rows& all_;
  ShopRead& out_;
  std::map<Key, std::deque<Id>> there_;
};

constexpr std::size_t most_rows = 50'000;
std::string too_many(const std::string& label) {
  return fmt::format("{}: a shop has at most {} machines, tools and other rows", label, grouped(most_rows));
}

/// What no column of a sheet shows (its place, the sizes a tool made), by its name in a file.
const std::vector<std::string>& beside_columns(int kind) {
  static const auto all = [] {
    std::map<int, std::vector<std::string>> names;
    for (const int one : kinds())
      for (const auto& field : description(one).fields)
        if (std::none_of(columns(one).begin(), columns(one).end(),
                         [&](const Column& c) { return std::string_view(c.field->name) == field.name; }))
          names[one].emplace_back(field.name);
    return names;
  }();
  return all.at(kind);
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
  if (records->size() > most_rows) {
    out.wrong = too_many(label);
    return;
  }
  Taker taker(all, out);
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
      taker.take(record);
    } catch (const store::Refusal& refusal) {
      out.wrong = fmt::format("{}: {}", place, refusal.what());
      return;
    }
  }
}

void read_csv(Rows& all, std::string_view text, const std::string& label, ShopRead& out) {
  Taker taker(all, out);
  std::size_t taken = 0;
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
    if (++taken > most_rows) {
      out.wrong = too_many(label);
      return;
    }
    const auto& list = columns(kind);
    const auto cell = [&](std::string_view head) -> const std::string* {
      for (std::size_t k = 1; k < fields->size() && k < heads.size(); ++k)
        if (heads[k] == head) return &(*fields)[k];
      return nullptr;
    };
    // What the file says nothing of stays as it is.
    const auto* name = cell("name");
    const Id there =
        name && kind != kind_of<Offcut> ? taker.next(kind, std::string(trimmed(store::csv_text(*name)))) : 0;
    Record record = there != 0 ? taker.at(there) : Record(kind, description(kind).make());
    for (const auto& column : list) {
      const auto* said = cell(column.field->name);
      if (!said || (there == 0 && said->empty())) continue;
      const auto words = store::csv_text(*said);
      if (words == exact_text(record, column)) continue; // to the last digit
      auto made = typed(record, column, words, Unit::mm);
      if (!made.ok()) {
        out.wrong = fmt::format("{}: {}", place, made.wrong);
        return;
      }
      record = std::move(made.record);
    }
    auto body = store::record_body(record);
    bool more = false;
    for (const auto& field : beside_columns(kind))
      if (const auto* said = cell(field); said && !said->empty()) {
        auto value = nlohmann::json::parse(store::csv_text(*said), nullptr, false);
        if (value.is_discarded()) {
          out.wrong = fmt::format("{}: {}: \"{}\" cannot be read", place, field, one_line(*said));
          return;
        }
        body[field] = std::move(value);
        more = true;
      }
    if (more) try {
        record = store::record_from_json(std::string(description(kind).name), body);
      } catch (const store::Refusal& refusal) {
        out.wrong = fmt::format("{}: {}", place, refusal.what());
        return;
      }
    if (const auto wrong = first_wrong(record)) {
      out.wrong = fmt::format("{}: {} {}", place, wrong->field, wrong->rule);
      return;
    }
    if (kind != kind_of<Offcut> && name_of(record) == description(kind).name) {
      out.wrong = place + ": needs a name";
      return;
    }
    if (kind == kind_of<Offcut>)
      taker.take(record);
    else
      taker.take(there, record);
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
  const auto head = [&](const std::string& name) {
    if (std::find(heads.begin(), heads.end(), name) == heads.end()) heads.push_back(name);
  };
  for (const int kind : kinds())
    for (const auto& column : columns(kind)) head(column.field->name);
  for (const int kind : kinds())
    for (const auto& name : beside_columns(kind)) head(name);
  std::string text = "sheet";
  for (const auto& name : heads) text += "," + name;
  text += "\n";
  for (const int kind : kinds())
    for (const auto& [id, record] : rows(build, kind)) {
      text += description(kind).name;
      const auto body = store::record_body(record);
      const auto& beside = beside_columns(kind);
      for (const auto& name : heads) {
        text += ",";
        for (const auto& column : columns(kind))
          if (name == column.field->name) text += store::csv_field(exact_text(record, column));
        if (std::find(beside.begin(), beside.end(), name) != beside.end())
          text += store::csv_field(body.at(name).dump());
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
