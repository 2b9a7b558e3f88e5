#include "store/working_copy.h"

#include "store/opened_file.h"

#include <algorithm>
#include <array>
#include <chrono>
#include <cstdint>
#include <filesystem>
#include <fstream>
#include <stdexcept>
#include <thread>

namespace datrin::store {

namespace {

/// How a database and its journal stand on the disk, as far as tells whether somebody writes to them.
struct Standing {
  std::array<char, 4>
      counter{};    ///< counts the transactions, first thing each of them writes (SQLite's file format, 1.3)
  bool hot = false; ///< the journal is in use: pages are being written, or their writer was killed
  std::uintmax_t size = 0, journal_size = 0;
  std::filesystem::file_time_type written, journal_written;
  bool operator==(const Standing&) const = default;

  static Standing of(const std::string& path) {
    Standing now;
    std::error_code error;
    std::ifstream file(path, std::ios::binary), journal(path + "-journal", std::ios::binary);
    file.seekg(24).read(now.counter.data(), now.counter.size());
    std::array<char, 8> start{};
    journal.read(start.data(), start.size());
    now.hot = journal.gcount() == 8 && std::any_of(start.begin(), start.end(), [](char c) { return c != 0; });
    now.size = std::filesystem::file_size(path, error);
    now.written = std::filesystem::last_write_time(path, error);
    if (!now.hot) return now;
    now.journal_size = std::filesystem::file_size(path + "-journal", error);
    now.journal_written = std::filesystem::last_write_time(path + "-journal", error);
    return now;
  }
};

} // namespace

WorkingCopy::WorkingCopy(const std::string& link, Turns turns) {
  const auto path = std::filesystem::canonical(link).string(); // a journal lies beside a link's target
  const OpenedFile file(path);                                 // its lock goes with it
  if (turns == Turns::taken && file.lock_to_copy()) {
    copy(path);
    return;
  }
  constexpr int looks = 500, left_hot = 50; // a second and more; what stays hot so long has no writer
  for (int look = 0; look < looks; ++look) {
    const auto before = Standing::of(path);
    if (!before.hot || look >= left_hot) {
      copy(path);
      if (Standing::of(path) == before) return;
    }
    std::this_thread::sleep_for(std::chrono::milliseconds(2));
  }
  throw std::runtime_error("it is written to all the time; try again");
}

void WorkingCopy::copy(const std::string& from) const {
  constexpr auto over = std::filesystem::copy_options::overwrite_existing;
  std::filesystem::copy_file(from, path(), over);
  for (const char* beside : {"-journal", "-wal"})
    if (std::filesystem::exists(from + beside))
      std::filesystem::copy_file(from + beside, path() + beside, over);
}

} // namespace datrin::store
