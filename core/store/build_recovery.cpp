#include "store/build_recovery.h"

#include "build/description.h"
#include "store/record_json.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/format.h>

#include <functional>
#include <map>

namespace datrin::store {
namespace {

using nlohmann::json;

constexpr int give_up_after = 20000; // ids in a row that cannot be read or are not there

/// Calls `take` for every row of `table` that can be read. A page that is lost takes its rows with it, not
/// those behind it: they are asked for one by one until they can be read in a run again.
void every_readable_row(SQLite::Database& db, const std::string& columns, const std::string& table,
                        const std::string& key, const std::function<void(SQLite::Statement&)>& take,
                        std::string& message) {
  std::int64_t last = 0;
  const auto note = [&](const std::exception& error) { message = error.what(); };
  for (;;) {
    try {
      SQLite::Statement run(
          db, fmt::format("SELECT {} FROM {} WHERE {} > {} ORDER BY {}", columns, table, key, last, key));
      while (run.executeStep()) {
        last = run.getColumn(0).getInt64();
        take(run);
      }
      return;
    } catch (const std::exception& error) {
      note(error);
    }
    bool found = false;
    try {
      SQLite::Statement one(db, fmt::format("SELECT {} FROM {} WHERE {} = ?", columns, table, key));
      for (int missing = 0; !found && missing < give_up_after; ++missing) {
        ++last;
        try {
          one.bind(1, last);
          if (one.executeStep()) {
            take(one);
            found = true;
          }
        } catch (const std::exception& error) {
          note(error);
        }
        one.tryReset();
      }
      if (!found) return;
    } catch (const std::exception& error) {
      note(error);
      return; // the table itself is gone
    }
  }
}

class Recovery {
public:
  explicit Recovery(const std::string& path) : db_(path, SQLite::OPEN_READWRITE) {
    db_.exec("PRAGMA writable_schema = ON"); // reads a file whose end is missing
  }

  RecoveredBuild run() {
    every_readable_row(
        db_, "id, kind, body", "records", "id",
        [this](SQLite::Statement& row) {
          const auto id = row.getColumn(0).getInt64();
          if (auto record = read(row.getColumn(1).getString(), row.getColumn(2).getString()))
            found_.insert_or_assign(id, std::move(*record));
        },
        result_.message);
    every_readable_row(
        db_, "seq, at, label, rows, state", "changes", "seq",
        [this](SQLite::Statement& row) { take_from_log(row); }, result_.message);
    for (auto& [id, record] : in_log_)
      if (record && !found_.contains(id)) {
        found_.insert_or_assign(id, std::move(*record));
        ++result_.from_log;
      }
    result_.records = found_.size();
    for (auto& [id, record] : found_) result_.build.load(id, std::move(record));
    stand_in();
    return std::move(result_);
  }

private:
  static std::optional<build::Record> read(const std::string& kind, const std::string& body) {
    try {
      return record_from_json(kind, json::parse(body));
    } catch (const std::exception&) {
      return std::nullopt;
    }
  }

  /// The last the log knows of each record.
  void take_from_log(SQLite::Statement& row) {
    const int state = row.getColumn(4).getInt();
    const bool undone = state == 1 || state == 2;
    result_.log.push_back(
        {row.getColumn(0).getInt64(), row.getColumn(1).getString(), row.getColumn(2).getString(), undone});
    if (undone) return;
    try {
      for (auto& change : changes_from_json(json::parse(row.getColumn(3).getString())))
        in_log_.insert_or_assign(change.id, std::move(change.after));
    } catch (const std::exception& error) {
      result_.message = error.what();
    }
  }

  /// The record of `kind` that `by` refers to, itself or by way of what it needs; 0: none that is known.
  build::Id owner_of(const build::Record& by, int kind, int depth = 3) const {
    for (const auto& f : by.description().fields) {
      if (f.reference != build::Reference::needs) continue;
      const auto id = *static_cast<const build::Id*>(f.at_const(by.value().get()));
      const auto found = result_.build.records().find(id);
      if (found == result_.build.records().end()) {
        if (id != 0 && f.refers_to.front() == kind) return id; // lost as well: it is stood in for
        continue;
      }
      if (found->second.kind() == kind) return id;
      if (depth > 0)
        if (const auto further = owner_of(found->second, kind, depth - 1); further != 0) return further;
    }
    return 0;
  }

  /// Puts a record with its defaults, named "Lost surface 7", where `by` needs record `id` and it is not
  /// there.
  void stand_in_for(build::Id id, int kind, const build::Record& by) {
    const auto& description = build::description(kind);
    auto record = description.make();
    for (const auto& f : description.fields) {
      if (f.type == build::FieldType::text && std::string_view(f.name) == "name")
        *static_cast<std::string*>(f.at(record.get())) = fmt::format("Lost {} {}", description.name, id);
      if (f.orders && f.type == build::FieldType::number)
        *static_cast<double*>(f.at(record.get())) = last_place;
      if (f.reference != build::Reference::needs) continue;
      const int owner_kind = f.refers_to.front();
      auto owner = owner_of(by, owner_kind);
      if (owner == 0 && owner_kind == build::kind_of<build::Part>) { // whatever part there is
        const auto parts = result_.build.parts();
        owner = parts.empty() ? result_.build.next_id() : parts.front().first;
      }
      *static_cast<build::Id*>(f.at(record.get())) = owner;
    }
    result_.build.load(id, build::Record(kind, std::move(record)));
    ++result_.stand_ins;
  }

  void stand_in() {
    // A stand-in may need another: until none is missing. Each round makes at least one, of ids that were
    // named.
    for (bool more = true; more;) {
      more = false;
      const auto records = result_.build.records(); // as they are; stand-ins are added to the other
      for (const auto& [id, record] : records)
        for (const auto& f : record.description().fields) {
          if (f.reference != build::Reference::needs) continue;
          const auto needed = *static_cast<const build::Id*>(f.at_const(record.value().get()));
          if (needed == 0 || result_.build.records().contains(needed)) continue;
          stand_in_for(needed, f.refers_to.front(), record);
          more = true;
        }
    }
    for (const auto& [id, part] : result_.build.parts())
      if (result_.build.pieces_of(id).empty()) {
        result_.build.load(result_.build.next_id(), build::Piece{id, 1});
        ++result_.stand_ins;
      }
  }

  static constexpr double last_place = 1e6; ///< stand-ins come last in lists

  SQLite::Database db_;
  std::map<build::Id, build::Record> found_;
  std::map<build::Id, std::optional<build::Record>> in_log_;
  RecoveredBuild result_;
};

} // namespace

RecoveredBuild recover_build(const std::string& copy) {
  try {
    return Recovery(copy).run();
  } catch (const std::exception& error) {
    RecoveredBuild nothing;
    nothing.message = error.what();
    return nothing;
  }
}

} // namespace datrin::store
