#include "store/build_recovery.h"

#include "build/description.h"
#include "build/references.h"
#include "quantity/text.h"
#include "store/build_database.h"
#include "store/failure_words.h"
#include "store/json_reader.h"
#include "store/record_json.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <functional>
#include <map>
#include <stdexcept>

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
  const auto note = [&](const std::exception& error) { message = failure_words(error); };
  for (;;) {
    try {
      SQLite::Statement run(
          db, fmt::format("SELECT {} FROM {} WHERE {} > {} ORDER BY {}", columns, table, key, last, key));
      while (run.executeStep()) {
        const auto key_here = run.getColumn(0).getInt64();
        if (key_here <= last) throw std::runtime_error("its rows run in a circle");
        last = key_here;
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

bool has_sums(SQLite::Database& db, const char* table) {
  try {
    const SQLite::Statement there(db, fmt::format("SELECT sum FROM {} LIMIT 0", table));
    return true;
  } catch (const std::exception&) {
    return false;
  }
}

class Recovery {
public:
  explicit Recovery(const std::string& path)
      : file_(path, SQLite::OPEN_READWRITE, BuildDatabase::For::recovery), db_(file_.db) {}

  RecoveredBuild run() {
    const BuildDatabase::Bound bound(file_);
    const bool sums = has_sums(db_, "records");
    every_readable_row(
        db_, sums ? "id, kind, body, sum" : "id, kind, body", "records", "id",
        [this, sums](SQLite::Statement& row) { take_record(row, sums); }, result_.message);
    const bool log_sums = has_sums(db_, "changes");
    every_readable_row(
        db_, log_sums ? "seq, at, label, rows, state, sum" : "seq, at, label, rows, state", "changes", "seq",
        [this, log_sums](SQLite::Statement& row) { take_from_log(row, log_sums); }, result_.message);
    settle();
    result_.records = found_.size();
    for (auto& [id, record] : found_) result_.build.load(id, std::move(record));
    stand_in();
    leave_out_what_cannot_stand();
    return std::move(result_);
  }

private:
  /// Record 1 is the build itself, and no other is.
  static bool in_place(build::Id id, const build::Record& record) {
    return id > 0 && (id == build::Build::info_id) == (record.as<build::Info>() != nullptr);
  }

  void take_record(SQLite::Statement& row, bool sums) {
    const auto id = row.getColumn(0).getInt64();
    const auto kind = row.getColumn(1).getString(), body = row.getColumn(2).getString();
    try {
      auto record = record_from_json(kind, parse_stored(body));
      if (!in_place(id, record)) throw std::runtime_error("it stands where it cannot");
      const bool as_written = !sums || record_sum(id, kind, body) == row.getColumn(3).getInt64();
      (as_written ? found_ : doubtful_).insert_or_assign(id, std::move(record));
    } catch (const std::exception& error) {
      result_.message = failure_words(error);
      unreadable_.insert_or_assign(id, build::kind_called(kind) >= 0 ? kind : "record");
    }
  }

  /// The last the log knows of each record.
  void take_from_log(SQLite::Statement& row, bool sums) {
    const auto text = [&row](int column) { return row.getColumn(column).getString(); };
    const auto seq = row.getColumn(0).getInt64();
    const int state = row.getColumn(4).getInt();
    const bool undone = state == change_undone || state == change_superseded;
    result_.log.push_back({seq, as_utf8(text(1)), as_utf8(text(2)), undone});
    if (undone) return;
    if (sums && change_sum(seq, text(1), text(2), text(3), state) != row.getColumn(5).getInt64()) return;
    try {
      for (auto& change : changes_from_json(parse_stored(text(3))))
        if (!change.after || in_place(change.id, *change.after))
          in_log_.insert_or_assign(change.id, std::move(change.after));
    } catch (const std::exception& error) {
      result_.message = failure_words(error);
    }
  }

  /// What no table of records gave, or gave otherwise than written, comes from the log where that knows it.
  void settle() {
    for (auto& [id, record] : in_log_)
      if (record && !found_.contains(id)) {
        found_.insert_or_assign(id, std::move(*record));
        ++result_.from_log;
      }
    for (auto& [id, record] : doubtful_)
      if (!found_.contains(id)) {
        result_.doubtful.push_back(fmt::format("{} {}", record.description().name, id));
        found_.insert_or_assign(id, std::move(record));
      }
    if (!found_.contains(build::Build::info_id)) unreadable_.insert_or_assign(build::Build::info_id, "build");
    for (const auto& [id, kind] : unreadable_)
      if (!found_.contains(id)) result_.lost.push_back(fmt::format("{} {}", kind, id));
  }

  /// What needs a record that is there, but of another kind.
  void leave_out_what_cannot_stand() {
    const auto standing = [this](build::Id id) -> const build::Record* {
      const auto found = result_.build.records().find(id);
      return found == result_.build.records().end() ? nullptr : &found->second;
    };
    for (bool more = true; more;) {
      more = false;
      const auto records = result_.build.records();
      for (const auto& [id, record] : records) {
        if (build::dangling(id, record, standing).empty()) continue;
        result_.lost.push_back(fmt::format("{} {}", record.description().name, id));
        (void)result_.build.apply({{}, {{id, record, std::nullopt}}});
        --result_.records;
        more = true;
      }
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

  BuildDatabase file_;
  SQLite::Database& db_;
  std::map<build::Id, build::Record> found_, doubtful_;
  std::map<build::Id, std::string> unreadable_; ///< their kinds
  std::map<build::Id, std::optional<build::Record>> in_log_;
  RecoveredBuild result_;
};

} // namespace

RecoveredBuild recover_build(const std::string& copy) {
  try {
    return Recovery(copy).run();
  } catch (const std::exception& error) {
    RecoveredBuild nothing;
    nothing.message = failure_words(error);
    return nothing;
  }
}

} // namespace datrin::store
