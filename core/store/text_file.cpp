#include "store/text_file.h"

#include "store/system_error.h"

#include <fmt/format.h>

#include <cerrno>
#include <cstdio>
#include <filesystem>

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

namespace datrin::store {

namespace {

namespace fs = std::filesystem;

/// Where the bytes go in the end: a link's target.
struct Target {
  std::string path, wrong;
  mode_t mode = 0666; ///< less the umask, where nothing is there yet
  bool there = false;
};

Target target_of(const std::string& path, Existing existing) {
  Target target{path, {}};
  struct stat at {};
  if (::lstat(path.c_str(), &at) != 0) {
    if (errno != ENOENT) target.wrong = fmt::format("{} cannot be written: {}", path, system_words(errno));
    return target;
  }
  if (S_ISLNK(at.st_mode)) {
    std::error_code error;
    target.path = fs::canonical(path, error).string();
    if (error || ::stat(target.path.c_str(), &at) != 0) {
      target.wrong = fmt::format("{} is a link that leads nowhere; choose another name", path);
      return target;
    }
  }
  target.there = true;
  target.mode = at.st_mode & 07777;
  if (S_ISDIR(at.st_mode))
    target.wrong = fmt::format("{} is a folder; name a file in it", path);
  else if (!S_ISREG(at.st_mode))
    target.wrong = fmt::format("{} is a device or a pipe, not an ordinary file; choose another name", path);
  else if (existing == Existing::refuse)
    target.wrong = fmt::format("{} is there already; choose another name", path);
  else if (::faccessat(AT_FDCWD, target.path.c_str(), W_OK, AT_EACCESS) != 0)
    target.wrong = fmt::format("{} may not be written to; choose another name", path);
  return target;
}

bool write_all(int file, std::string_view text) {
  while (!text.empty()) {
    const auto done = ::write(file, text.data(), text.size());
    if (done < 0 && errno == EINTR) continue;
    if (done <= 0) return false;
    text.remove_prefix(static_cast<std::size_t>(done));
  }
  return ::fsync(file) == 0;
}

/// Renames `part` over the target; over a name that came up meanwhile it is not done.
bool put_in_place(const std::string& part, const Target& target) {
  if (target.there) return ::rename(part.c_str(), target.path.c_str()) == 0;
  if (::renameat2(AT_FDCWD, part.c_str(), AT_FDCWD, target.path.c_str(), RENAME_NOREPLACE) == 0) return true;
  if (errno != EINVAL && errno != ENOSYS) return false;
  return ::rename(part.c_str(), target.path.c_str()) == 0; // a disk that knows no such rename
}

} // namespace

std::string write_text_file(const std::string& path, std::string_view text, Existing existing) {
  const auto target = target_of(path, existing);
  if (!target.wrong.empty()) return target.wrong;
  const auto part = fmt::format("{}.new-{}", target.path, ::getpid());
  const auto failed = [&] {
    const auto why = system_words(errno);
    ::unlink(part.c_str());
    return fmt::format("{} could not be written ({}); check the folder and the space on the disk", path, why);
  };
  ::unlink(part.c_str()); // left by one that was killed
  const int file = ::open(part.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, target.mode);
  if (file < 0) return failed();
  const bool whole = (!target.there || ::fchmod(file, target.mode) == 0) && write_all(file, text);
  const int why = errno;
  if (::close(file) != 0 || !whole) {
    if (!whole) errno = why;
    return failed();
  }
  return put_in_place(part, target) ? std::string() : failed();
}

} // namespace datrin::store
