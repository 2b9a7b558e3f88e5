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
