// The side that asks. What goes to the other program and comes from it has no name anywhere: files in memory.

#include "solid/step_shield.h"

#include <BinTools.hxx>

#include <fmt/format.h>

#include <cerrno>
#include <chrono>
#include <csignal>
#include <filesystem>
#include <istream>
#include <poll.h>
#include <spawn.h>
#include <sstream>
#include <sys/mman.h>
#include <sys/stat.h>
#include <sys/syscall.h>
#include <sys/wait.h>
#include <system_error>
#include <unistd.h>

namespace datrin::solid {

namespace {

constexpr auto past_limits =
    "could not be read within the limits of time and memory: it is too large, or damaged";

/// A file nobody else can open; -1: none to be had.
class Nameless {
public:
  explicit Nameless(const char* what) : fd_(memfd_create(what, MFD_CLOEXEC)) {}
  explicit Nameless(int fd) : fd_(fd) {}
  ~Nameless() {
    if (fd_ >= 0) close(fd_);
  }
  Nameless(const Nameless&) = delete;
  Nameless& operator=(const Nameless&) = delete;
  int fd() const { return fd_; }

  bool write(const std::string& text) {
    for (std::size_t done = 0; done < text.size();) {
      const auto n = ::write(fd_, text.data() + done, text.size() - done);
      if (n < 0 && errno == EINTR) continue;
      if (n <= 0) return false;
      done += static_cast<std::size_t>(n);
    }
    return lseek(fd_, 0, SEEK_SET) == 0;
  }
  std::string read() const {
    struct stat is {};
    if (fstat(fd_, &is) != 0 || is.st_size <= 0) return {};
    std::string text(static_cast<std::size_t>(is.st_size), '\0');
    for (std::size_t done = 0; done < text.size();) {
      const auto n = pread(fd_, text.data() + done, text.size() - done, static_cast<off_t>(done));
      if (n < 0 && errno == EINTR) continue;
      if (n <= 0) return {};
      done += static_cast<std::size_t>(n);
    }
    return text;
  }

private:
  int fd_;
};

std::string reader_path() {
  std::error_code error;
  const auto self = std::filesystem::read_symlink("/proc/self/exe", error);
  return error ? std::string() : (self.parent_path() / "datrin-step").string();
}

/// Starts it with these as standard input, output and error. Its number; negative: it is not there.
pid_t start(const std::vector<std::string>& call, int in, int out, int err) {
  std::vector<char*> arguments;
  for (const auto& word : call) arguments.push_back(const_cast<char*>(word.c_str()));
  arguments.push_back(nullptr);
  posix_spawn_file_actions_t files;
  posix_spawn_file_actions_init(&files);
  posix_spawn_file_actions_adddup2(&files, in, STDIN_FILENO);
  posix_spawn_file_actions_adddup2(&files, out, STDOUT_FILENO);
  posix_spawn_file_actions_adddup2(&files, err, STDERR_FILENO);
  pid_t child = -1;
  const int failed = posix_spawn(&child, call.front().c_str(), &files, nullptr, arguments.data(), environ);
  posix_spawn_file_actions_destroy(&files);
  return failed != 0 ? -1 : child;
}

/// Waits for its end, `seconds` at most and only until `stop`: then it is ended. How it ended (waitpid).
int ended(pid_t child, int seconds, const std::function<bool()>& stop, bool& out_of_time, bool& stopped) {
  using clock = std::chrono::steady_clock;
  const auto last = clock::now() + std::chrono::seconds(seconds);
  const Nameless watch(static_cast<int>(
      syscall(SYS_pidfd_open, child, 0))); // where there is none, its own limit of time has to do
  constexpr int slice_ms = 50;
  while (watch.fd() >= 0) {
    pollfd one{watch.fd(), POLLIN, 0};
    if (poll(&one, 1, slice_ms) > 0) break;
    out_of_time = clock::now() > last;
    stopped = stop && stop();
    if (!out_of_time && !stopped) continue;
    kill(child, SIGKILL);
    break;
  }
  int how = 0;
  while (waitpid(child, &how, 0) < 0 && errno == EINTR) {
  }
  return how;
}

/// "2 inch\n", then the shape.
void take(const std::string& answer, StepShape& read) {
  std::stringbuf bytes(answer, std::ios::in);
  std::istream stream(&bytes);
  stream.imbue(std::locale::classic());
  std::string unit;
  stream >> read.solids >> unit;
  stream.get();
  read.unit = unit == "inch" ? Unit::inch : Unit::mm;
  try {
    BinTools::Read(read.shape, stream);
  } catch (const Standard_Failure&) {
    read.shape.Nullify();
  }
  if (read.shape.IsNull()) read.wrong = "cannot be read (nothing came of it)";
}

} // namespace

StepShape read_shielded(int file, const StepOptions& options) {
  StepShape read;
  const Nameless out("shape"), err("words");
  if (out.fd() < 0 || err.fd() < 0) {
    read.wrong = "cannot be read (no memory for it)";
    return read;
  }
  const auto program = reader_path();
  const auto child = start({program, std::to_string(options.seconds), std::to_string(options.memory),
                            std::to_string(options.most_bytes), std::to_string(options.only)},
                           file, out.fd(), err.fd());
  if (child < 0) {
    read.wrong = fmt::format("cannot be read: {}, which reads STEP files, is not there", program);
    return read;
  }
  bool out_of_time = false;
  // It may have to wait for others at work on the same machine.
  constexpr int patience = 2;
  const int how = ended(child, patience * options.seconds, options.stop, out_of_time, read.stopped);
  if (read.stopped) {
    read.wrong = "reading it was stopped";
  } else if (WIFEXITED(how) && WEXITSTATUS(how) == 0) {
    take(out.read(), read);
  } else if (out_of_time || (WIFSIGNALED(how) && (WTERMSIG(how) == SIGXCPU || WTERMSIG(how) == SIGKILL))) {
    read.wrong = past_limits;
  } else if (WIFEXITED(how)) {
    const auto words = err.read();
    const auto line = words.substr(0, words.find('\n'));
    read.wrong =
        WEXITSTATUS(how) == 1 && !line.empty() ? line : past_limits; // 127: limits too small to begin
  } else {
    read.wrong = "is damaged: what it says of its part leads nowhere";
  }
  return read;
}

StepShape read_shielded(const std::string& text, const StepOptions& options) {
  Nameless in("step");
  if (in.fd() < 0 || !in.write(text)) {
    StepShape none;
    none.wrong = "cannot be read (no memory for it)";
    return none;
  }
  return read_shielded(in.fd(), options);
}

} // namespace datrin::solid
