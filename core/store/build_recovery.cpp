#include "store/build_recovery.h"

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

  template <class T>
  void want(build::Id id, const std::function<T()>& make) {
    if (id == 0 || result_.build.find<T>(id) != nullptr || result_.build.records().contains(id)) return;
    result_.build.load(id, make());
    ++result_.stand_ins;
  }
  void want_part(build::Id id) {
    want<build::Part>(id, [id] { return build::Part{fmt::format("Lost part {}", id), "", 1, 1e6}; });
  }
  void want_piece(build::Id id, build::Id part) {
    if (part != 0) want_part(part);
    want<build::Piece>(id, [part] { return build::Piece{part, 1}; });
  }

  void stand_in() {
    const auto records = result_.build.records(); // as read; stand-ins are added to the other
    for (const auto& [id, record] : records) {
      if (const auto* surface = std::get_if<build::PartSurface>(&record)) want_part(surface->part);
      if (const auto* piece = std::get_if<build::Piece>(&record)) want_part(piece->part);
      if (const auto* touch = std::get_if<build::Touch>(&record)) {
        const auto* surface = result_.build.find<build::PartSurface>(touch->surface);
        build::Id part = surface ? surface->part : 0;
        const auto* piece = result_.build.find<build::Piece>(touch->piece);
        if (part == 0 && piece) part = piece->part;
        if (part == 0) {
          const auto parts = result_.build.parts();
          part = parts.empty() ? result_.build.next_id() : parts.front().first;
        }
        want_piece(touch->piece, part);
        const auto lost = touch->surface;
        want<build::PartSurface>(lost, [part, lost] {
          build::PartSurface s;
          s.part = part;
          s.name = fmt::format("Lost surface {}", lost);
          s.machined = false;
          return s;
        });
      }
    }
    for (const auto& [id, part] : result_.build.parts())
      if (result_.build.pieces_of(id).empty()) {
        result_.build.load(result_.build.next_id(), build::Piece{id, 1});
        ++result_.stand_ins;
      }
  }

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
