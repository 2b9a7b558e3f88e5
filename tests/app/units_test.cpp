// A build in inches speaks inches, one in millimetres speaks millimetres, and no sentence leaves a length
// without its unit: harvested from every face of the real window, over several pieces.

#include "tests/app/bench.h"
#include "tests/app/harvest.h"

#include "build/edit_drawing.h"
#include "sheets/local_time.h"

#include <QRegularExpression>

#include <set>

#include <ctime>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

namespace {

QRegularExpression pattern(const char* text) {
  const QRegularExpression made(text, QRegularExpression::UseUnicodePropertiesOption);
  EXPECT_TRUE(made.isValid()) << made.errorString();
  return made;
}

} // namespace

class Units : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
  }
  /// Every face, of pieces of several kinds, in the unit.
  void visit(Unit unit,
             const std::function<void(const std::string& face, const HarvestedText& found)>& look) {
    const auto& b = window->document().build();
    window->document().apply(build::work_in(b, unit));
    for (const auto& part : {"Main pedestal", "Cylinder block", "Pedestal bush"}) {
      for (const auto& [id, p] : b.parts())
        if (p.name == part) window->document().choose(id, b.pieces_of(id).front().first);
      for (const auto& row : app::steps()) {
        window->go_to(row.step);
        for (int face = 0; face < std::max<int>(1, static_cast<int>(row.faces.size())); ++face) {
          window->show_face(face);
          QApplication::processEvents();
          for (const auto& found : harvest(window.get()))
            look((row.name + " " + row.faces.value(face)).toStdString(), found);
        }
      }
    }
  }
  /// What people called things may hold any unit; names of the demo, longest first.
  QString without_names(QString text) {
    if (names_.empty()) {
      std::set<QString> names;
      for (const auto& [id, record] : window->document().build().records())
        if (const auto name = QString::fromStdString(build::name_of(record)); name.contains(pattern("[0-9]")))
          names.insert(name);
      for (auto name = names.rbegin(); name != names.rend(); ++name)
        names_.emplace_back("(?<![0-9.])" + QRegularExpression::escape(*name));
    }
    for (const auto& name : names_) text.replace(name, "");
    return text;
  }
  std::vector<QRegularExpression> names_;
};

// Shown beside the own unit on purpose: "17.98 mm · 0.7079 in", a tip that is the other unit alone, what can
// be typed.
TEST_F(Units, ABuildSpeaksItsOwnUnit) {
  const auto inches = pattern("[0-9]\\s*(in|thou)\\b"), millimetres = pattern("[0-9]\\s*(mm|\\x{00B5}m)\\b");
  std::set<std::pair<Unit, std::string>> looked_at;
  const auto either = pattern("[0-9]\\s*(in|thou|mm|\\x{00B5}m)\\b");
  std::set<std::string> seen;
  for (const auto unit : {Unit::inch, Unit::mm})
    visit(unit, [&](const std::string& face, const HarvestedText& found) {
      const auto& own = unit == Unit::inch ? inches : millimetres;
      const auto& other = unit == Unit::inch ? millimetres : inches;
      if (!looked_at.insert({unit, found.text}).second) return;
      const auto text = without_names(QString::fromStdString(found.text));
      if (!other.match(text).hasMatch() || own.match(text).hasMatch()) return; // both: one beside the other
      const bool tip = found.from.ends_with(" tip") || found.from.find("cell") != std::string::npos;
      // A tip, or a muted figure beside a field, that is the other unit and nothing else.
      const bool figure_alone =
          QString(text)
              .remove(pattern("[-\\x{2212}+\\x{00B1}\\x{00F8}\\x{00D7}0-9.,\\s]|mm|in|\\x{00B5}m|thou"))
              .isEmpty();
      if (figure_alone && (tip || found.from.find("QLabel") != std::string::npos)) return;
      if (found.from.find("Dial figure") != std::string::npos) return; // the dial's unit is the machine's
      if (either.match(text).capturedStart() > 0 && text.contains("clean")) return;
      if (!seen.insert(found.text).second) return;
      ADD_FAILURE() << face << " | " << found.from << " | " << found.text;
    });
}

TEST_F(Units, NoSentenceLeavesALengthWithoutItsUnit) {
  const auto decimal = pattern("(?<![\\w.#])[-\\x{2212}+\\x{00B1}]?[0-9]+\\.[0-9]+(?![\\w.])");
  // A unit, or what says that it is none: room counts capabilities, shares are parts.
  const auto told =
      pattern("\\b(mm|in|\\x{00B5}m|thou|room|Room|N|Nm|min|h|H[0-9]+|g)\\b|[\\x{00B0}%\"\\x{00B5}]");
  const auto word = pattern("[a-zA-Z]{2}"), stop = pattern("(?<=[a-z)])\\.\\s|;\\s");
  std::set<std::pair<Unit, std::string>> looked_at;
  std::set<std::string> seen;
  for (const auto unit : {Unit::inch, Unit::mm})
    visit(unit, [&](const std::string& face, const HarvestedText& found) {
      // Tables and rulers have their unit in the heading; fields show theirs; a figure alone stands by its
      // unit.
      for (const char* skip :
           {"QTable", "QHeaderView", " field", "BatchTable", "Measured on", "Hole, read", "Shaft, read"})
        if (found.from.find(skip) != std::string::npos) return;
      if (!looked_at.insert({unit, found.text}).second) return;
      const auto text = without_names(QString::fromStdString(found.text));
      if (!text.contains(word)) return;
      for (const auto& sentence : text.split(stop)) {
        if (!decimal.match(sentence).hasMatch() || told.match(sentence).hasMatch()) continue;
        if (!seen.insert(found.text).second) continue;
        ADD_FAILURE() << face << " | " << found.from << " | " << found.text;
      }
    });
}

// Every new build began in millimetres.
TEST_F(Units, ANewBuildBeginsInTheUnitLastUsed) {
  window->document().apply(build::work_in(window->document().build(), Unit::inch));
  ASSERT_TRUE(window->new_build(folder.filePath("new.datrin"))) << window->message();
  EXPECT_EQ(window->document().unit(), Unit::inch);
  window->document().apply(build::work_in(window->document().build(), Unit::mm));
  ASSERT_TRUE(window->new_build(folder.filePath("newer.datrin"))) << window->message();
  EXPECT_EQ(window->document().unit(), Unit::mm);
}

TEST(LocalTime, IsThePersonsClock) {
  qputenv("TZ", "UTC-2"); // two hours ahead, in the POSIX way of writing it
  tzset();
  EXPECT_EQ(sheets::local_time("2026-01-02T23:30:00Z"), "2026-01-03 01:30");
  qputenv("TZ", "UTC");
  tzset();
  EXPECT_EQ(sheets::local_time("long ago"), "long ago");
}
