// What a person never writes, but a program may: inputs of hundreds of megabytes. Each is refused in one
// line, in a process that may use only so much memory and so many seconds.

#include "allowance/passes.h"
#include "store/survey_csv.h"

#include <gtest/gtest.h>

#include <cstdio>
#include <functional>
#include <string>

#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace datrin;
using namespace datrin::store;

namespace {

constexpr rlim_t mebibyte = rlim_t{1} << 20;

/// Does `work` in a process of its own that may take so much more memory than it has and half a minute of the
/// processor; the answer is what it says, cut; "killed" when it fell over.
std::string bounded([[maybe_unused]] rlim_t memory, const std::function<std::string()>& work) {
  int ends[2];
  if (::pipe(ends) != 0) return "no pipe";
  const auto child = ::fork();
  if (child == 0) {
#ifndef __SANITIZE_ADDRESS__ // whose own bookkeeping takes terabytes of addresses
    struct rlimit most {};
    ::getrlimit(RLIMIT_AS, &most);
    std::FILE* mine = std::fopen("/proc/self/statm", "r");
    unsigned long pages = 0;
    if (mine == nullptr || std::fscanf(mine, "%lu", &pages) != 1) ::_exit(2);
    std::fclose(mine);
    most.rlim_cur = pages * static_cast<rlim_t>(::sysconf(_SC_PAGESIZE)) + memory;
    ::setrlimit(RLIMIT_AS, &most);
#endif
    struct rlimit seconds {};
    seconds.rlim_cur = seconds.rlim_max = 30;
    ::setrlimit(RLIMIT_CPU, &seconds);
    std::string said;
    try {
      said = work().substr(0, 300);
    } catch (const std::exception& error) {
      said = std::string("threw ") + error.what();
    }
    const bool whole = ::write(ends[1], said.data(), said.size()) == static_cast<ssize_t>(said.size());
    ::_exit(whole ? 0 : 3);
  }
  ::close(ends[1]);
  std::string said(400, '\0');
  const auto count = ::read(ends[0], said.data(), said.size());
  ::close(ends[0]);
  int status = 0;
  ::waitpid(child, &status, 0);
  if (!WIFEXITED(status) || WEXITSTATUS(status) != 0) return "killed";
  return said.substr(0, static_cast<std::size_t>(count));
}

std::string repeated(const std::string& before, const std::string& again, std::size_t bytes,
                     const std::string& after) {
  std::string text;
  text.reserve(bytes + before.size() + after.size() + again.size() + 200000);
  text = before;
  std::string block;
  while (block.size() < 100000) block += again;
  while (text.size() < bytes) text += block;
  return text += after;
}

} // namespace

TEST(Bounded, ASurveyWithoutEnd) {
  const SurfaceNames names{{1, "foot"}};
  const auto survey = [&](const std::string& before, const std::string& line) {
    return read_survey_csv(repeated(before, line, 110'000'000, ""), "s.csv", names).message;
  };
  EXPECT_EQ(bounded(400 * mebibyte, [&] { return survey("surface,x_mm,y_mm,z_mm", ",colour"); }),
            "s.csv: line 1: it is over 1 MiB long; this is no survey");
  EXPECT_EQ(bounded(400 * mebibyte,
                    [&] { return survey("surface,x_mm,y_mm,z_mm" + std::string(1000, ','), "\n"); }),
            "s.csv: line 1: it names 1,004 columns; at most 1,000 are read");
  EXPECT_EQ(bounded(900 * mebibyte, [&] { return survey("surface,x_mm,y_mm,z_mm\n", "foot,1,2,3\n"); }),
            "s.csv: line 200002: a survey has at most 200,000 touches; read a cloud of points as a scan");
  EXPECT_EQ(bounded(400 * mebibyte, [&] { return survey("surface,x_mm,y_mm,z_mm\n", "boor,1,2,3\n"); }),
            "s.csv: 10,000 lines cannot be read, the first: line 2, surface: no surface is called \"boor\" "
            "(did you mean \"foot\"?)");
  EXPECT_EQ(bounded(400 * mebibyte, [&] { return survey("surface,x_mm,y_mm,z_mm\n\"", "\n"); }).substr(0, 6),
            ""); // one quote that is never closed: its line is bad, the rest is empty
}

// A rough cut of 0.00001 mm took 1.4 GB, a touch 10 km deep 17.6 GB.
TEST(Bounded, PassesWithoutEnd) {
  const auto plan = [](double most, double rough, Unit unit) {
    return bounded(100 * mebibyte, [=] {
      allowance::PassInput input;
      input.most = input.least = most;
      input.rough = rough;
      input.unit = unit;
      const auto passes = allowance::plan_passes(input);
      return passes.usable() ? std::to_string(passes.passes.size()) : passes.message;
    });
  };
  EXPECT_EQ(plan(9.3, 0.00001, Unit::mm),
            "9.000\u202Fmm to rough off at 0.000010\u202Fmm a pass are 900,000 passes, more than the 1,000 "
            "that are "
            "planned; take more at a pass"); // 0.3 mm of it is the finishing cut
  EXPECT_NE(plan(1e7, 1.5, Unit::mm).find(" 6,666,667 passes"), std::string::npos);
  EXPECT_NE(plan(1e7, 1e-300, Unit::inch).find("over a thousand million passes"), std::string::npos);
  EXPECT_EQ(plan(100.3, 0.1, Unit::mm), "1001");
  EXPECT_NE(plan(100.4, 0.1, Unit::mm).find(" 1,001 passes"), std::string::npos);
}
