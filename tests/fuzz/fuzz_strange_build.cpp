// A build file as somebody with a database program would change it: the bytes are instructions carried out on
// a small build, so that most of what comes out opens as a database, its checksums right, and is strange
// inside. Whatever it is, it is opened, recovered or refused; what is opened keeps every rule, can be taken
// back to its beginning, worked on, exported, and read again.

#include "build/check.h"
#include "build/edit_drawing.h"
#include "build/references.h"
#include "store/build_database.h"
#include "store/build_file.h"
#include "store/build_json.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <iterator>
#include <string>

#include <unistd.h>

using namespace datrin;
namespace fs = std::filesystem;

namespace {

void check(bool holds, const std::string& words = {}) {
  if (holds) return;
  std::fprintf(stderr, "what does not hold: %s\n", words.c_str());
  std::abort();
}

/// The instructions, taken from the front.
class Bytes {
public:
  Bytes(const std::uint8_t* data, std::size_t size) : data_(data), size_(size) {}
  bool more() const { return size_ > 0; }
  std::uint8_t byte() {
    if (size_ == 0) return 0;
    --size_;
    return *data_++;
  }
  std::size_t below(std::size_t end) {
    return (std::size_t{byte()} << 16 | std::size_t{byte()} << 8 | byte()) % end;
  }
  /// To the next zero.
  std::string text() {
    std::string out;
    while (size_ > 0)
      if (const auto next = byte(); next != 0)
        out += static_cast<char>(next);
      else
        break;
    return out;
  }

private:
  const std::uint8_t* data_;
  std::size_t size_;
};

const fs::path& folder() {
  static const fs::path made = [] {
    auto path = fs::temp_directory_path() / ("datrin-strange-" + std::to_string(::getpid()));
    fs::create_directories(path);
    return path;
  }();
  return made;
}

const std::string& small_build() {
  static const std::string bytes = [] {
    const auto path = (folder() / "base").string();
    store::FileOutcome outcome;
    {
      auto file = store::BuildFile::create(path, "Engine", outcome);
      check(file.has_value());
      const auto part = build::add_part(file->build(), "Pedestal");
      check(file->apply(part.edit).ok());
      for (int k = 0; k < 3; ++k)
        check(file->apply(build::add_surface(file->build(), file->build().parts().front().first,
                                             SurfaceKind::bore)
                              .edit)
                  .ok());
      check(file->undo().ok());
    }
    std::ifstream file(path, std::ios::binary);
    std::string all(std::istreambuf_iterator<char>(file), {});
    fs::remove(path);
    return all;
  }();
  return bytes;
}

void put_record(SQLite::Database& db, std::int64_t id, const std::string& kind, const std::string& body) {
  SQLite::Statement put(db, "INSERT OR REPLACE INTO records(id, kind, body, sum) VALUES(?, ?, ?, ?)");
  put.bind(1, id);
  put.bind(2, kind);
  put.bind(3, body);
  put.bind(4, store::record_sum(id, kind, body));
  put.exec();
}

void put_change(SQLite::Database& db, std::int64_t seq, const std::string& label, const std::string& rows,
                int state) {
  SQLite::Statement put(
      db, "INSERT OR REPLACE INTO changes(seq, at, label, rows, state, sum) VALUES(?, ?, ?, ?, ?, ?)");
  put.bind(1, seq);
  put.bind(2, "2026-01-01T00:00:00Z");
  put.bind(3, label);
  put.bind(4, rows);
  put.bind(5, state);
  put.bind(6, store::change_sum(seq, "2026-01-01T00:00:00Z", label, rows, state));
  put.exec();
}

/// Some part of a body another, the checksum put right: what another program would write that knows of them.
void replace_in_record(SQLite::Database& db, Bytes& bytes) {
  const auto id = static_cast<std::int64_t>(1 + bytes.below(6));
  SQLite::Statement find(db, "SELECT kind, body FROM records WHERE id = ?");
  find.bind(1, id);
  if (!find.executeStep()) return;
  const auto kind = find.getColumn(0).getString();
  auto body = find.getColumn(1).getString();
  find.reset();
  const auto from = bytes.below(body.size() + 1);
  const auto length = bytes.below(12);
  body.replace(from, length, bytes.text());
  put_record(db, id, kind, body);
}

void carry_out(const std::string& path, Bytes& bytes) {
  SQLite::Database db(path, SQLite::OPEN_READWRITE);
  db.exec("PRAGMA synchronous = OFF");
  db.exec("PRAGMA journal_mode = MEMORY");
  for (int k = 0; k < 12 && bytes.more(); ++k) try {
      switch (bytes.byte() % 8) {
      case 0:
      case 1:
        replace_in_record(db, bytes);
        break;
      case 2: {
        const auto id = static_cast<std::int64_t>(bytes.below(12));
        const auto kind = bytes.text();
        put_record(db, id, kind, bytes.text());
        break;
      }
      case 3: {
        const auto seq = static_cast<std::int64_t>(bytes.below(9));
        const int state = bytes.byte() % 6;
        const auto label = bytes.text();
        put_change(db, seq, label, bytes.text(), state);
        break;
      }
      case 4: {
        SQLite::Statement drop(db, "DELETE FROM records WHERE id = ?");
        drop.bind(1, static_cast<std::int64_t>(bytes.below(8)));
        drop.exec();
        break;
      }
      case 5:
        db.exec("UPDATE metadata SET value = '" + std::to_string(static_cast<int>(bytes.below(100)) - 9) +
                "' WHERE key = 'next_id'");
        break;
      case 6: {
        auto text = bytes.text(); // any statement at all, that ends by itself
        if (text.size() < 300 && text.find("RECURSIVE") == std::string::npos) db.exec(text);
        break;
      }
      default:
        db.exec("PRAGMA user_version = " + std::to_string(bytes.byte() % 8));
      }
    } catch (const std::exception&) { // no such statement: the next
    }
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const auto path = (folder() / "fuzz.datrin").string();
  for (const auto& entry : fs::directory_iterator(folder())) fs::remove_all(entry.path());
  std::ofstream(path, std::ios::binary) << small_build();
  Bytes bytes(data, size);
  const int flips = bytes.byte() % 4;
  try {
    carry_out(path, bytes);
  } catch (const std::exception&) {
    return 0;
  }
  if (flips == 3) {
    std::fstream file(path, std::ios::binary | std::ios::in | std::ios::out);
    file.seekp(static_cast<std::streamoff>(bytes.below(fs::file_size(path))));
    file.put(static_cast<char>(bytes.byte()));
  }
  store::FileOutcome outcome;
  auto file = store::BuildFile::open(path, outcome);
  check(outcome.ok() || !outcome.message.empty());
  check(file.has_value() || !outcome.ok());
  if (!file) return 0;
  check(build::first_dangling(file->build()).empty(), build::first_dangling(file->build()));
  for (const auto& [id, record] : file->build().records()) check(!build::first_wrong(record));
  const auto json = store::write_build_json(file->build(), file->log(100));
  const auto back = store::read_build_json(json, "b.json");
  check(back.ok && back.build.records() == file->build().records(),
        "exported and read again: " + back.message);
  for (int k = 0; k < 20 && file->undo_label() && file->undo().ok(); ++k) continue;
  if (file->read_only().empty()) {
    const auto added = file->apply(build::add_part(file->build(), "New").edit);
    check(added.ok(), added.message);
    const auto now = file->build().records();
    const auto where = file->path();
    file.reset();
    auto again = store::BuildFile::open(where, outcome);
    check(again && outcome.ok() && again->build().records() == now,
          "worked on and opened again: " + outcome.message);
  }
  return 0;
}
