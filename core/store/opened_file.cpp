#include "store/opened_file.h"

#include <cerrno>
#include <chrono>
#include <thread>

#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

namespace datrin::store {

OpenedFile::OpenedFile(const std::string& path) : file_(::open(path.c_str(), O_RDONLY | O_CLOEXEC)) {}

OpenedFile::~OpenedFile() {
  if (file_ >= 0) ::close(file_);
}

bool OpenedFile::is_at(const std::string& path) const {
  struct stat mine {
  }, there{};
  return file_ >= 0 && ::fstat(file_, &mine) == 0 && ::stat(path.c_str(), &there) == 0 &&
         mine.st_dev == there.st_dev && mine.st_ino == there.st_ino;
}

FileStamp OpenedFile::stamp() const {
  struct stat is {};
  FileStamp stamp;
  if (file_ < 0 || ::fstat(file_, &is) != 0) return stamp;
  stamp.size = is.st_size;
  stamp.seconds = is.st_mtim.tv_sec;
  stamp.nanoseconds = is.st_mtim.tv_nsec;
  unsigned char counter[4] = {};
  constexpr off_t counter_at = 24; // of SQLite's file format, most significant byte first
  if (::pread(file_, counter, sizeof counter, counter_at) == sizeof counter)
    for (const auto byte : counter) stamp.changes = stamp.changes << 8 | byte;
  return stamp;
}

std::string OpenedFile::bytes() const {
  const auto size = stamp().size;
  if (size <= 0) return {};
  std::string all(static_cast<std::size_t>(size), '\0');
  for (std::size_t done = 0; done < all.size();) {
    const auto n = ::pread(file_, all.data() + done, all.size() - done, static_cast<off_t>(done));
    if (n < 0 && errno == EINTR) continue;
    if (n <= 0) return {};
    done += static_cast<std::size_t>(n);
  }
  return all;
}

bool OpenedFile::lock(int how) const {
  for (int wait = 0; wait < 20000 && file_ >= 0; ++wait) {
    if (::flock(file_, how | LOCK_NB) == 0) return true;
    if (errno != EWOULDBLOCK && errno != EINTR) return false;
    std::this_thread::sleep_for(std::chrono::microseconds(100));
  }
  return false;
}

bool OpenedFile::lock_to_write() const {
  return lock(LOCK_EX);
}

bool OpenedFile::lock_to_copy() const {
  return lock(LOCK_SH);
}

void OpenedFile::unlock() const {
  (void)::flock(file_, LOCK_UN);
}

} // namespace datrin::store
