// A build in inches speaks inches, one in millimetres speaks millimetres, and no sentence leaves a length
// without its unit: harvested from every face of the real window, over several pieces.

#include "app/batch/batch_page.h"
#include "app/drawing/drawing_page.h"
#include "app/joints/joints_page.h"
#include "tests/app/bench.h"
#include "tests/app/harvest.h"
#include "tests/app/random_build.h"

#include "build/edit_drawing.h"
#include "readings/size_now.h"
#include "sheets/figures.h"
#include "sheets/local_time.h"

#include <QRegularExpression>

#include <map>
#include <optional>
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

/// Looks at every text the window shows, in both units.
class Harvest : public WindowTest {
protected:
  const build::Build& b() { return window->document().build(); }

  /// Every face, of the first pieces of these parts.
  void look_at(const std::vector<build::Id>& parts) {
    for (const auto unit : {Unit::inch, Unit::mm}) {
      window->document().apply(build::work_in(b(), unit));
      std::set<std::string> looked_at;
      for (const auto part : parts) {
        window->document().choose(part, b().pieces_of(part).front().first);
        for (const auto& row : app::steps()) {
          window->go_to(row.step);
          for (int face = 0; face < std::max<int>(1, static_cast<int>(row.faces.size())); ++face) {
            window->show_face(face);
            QApplication::processEvents();
            for (const auto& found : harvest(window.get())) {
              if (!looked_at.insert(found.from + found.text).second) continue;
              const auto where = (row.name + " " + row.faces.value(face)).toStdString() + " | " + found.from;
              const auto text = without_names(QString::fromStdString(found.text));
              expect_own_unit(unit, text, found, where);
              expect_no_bare_length(text, found, where);
            }
          }
        }
      }
    }
  }
  std::vector<build::Id> named(std::initializer_list<const char*> names) {
    std::vector<build::Id> out;
    for (const auto* name : names)
      for (const auto& [id, p] : b().parts())
        if (p.name == name) out.push_back(id);
    return out;
  }

private:
  /// What people called things may hold any unit; names with figures, longest first.
  QString without_names(QString text) {
    if (!names_) {
      std::set<QString> names;
      for (const auto& [id, record] : b().records())
        if (const auto name = QString::fromStdString(build::name_of(record)); name.contains(pattern("[0-9]")))
          names.insert(name);
      names_.emplace();
      for (auto name = names.rbegin(); name != names.rend(); ++name)
        names_->emplace_back("(?<![0-9.])" + QRegularExpression::escape(*name));
    }
    for (const auto& name : *names_) text.replace(name, "");
    return text;
  }

  // Shown beside the own unit on purpose: "17.98 mm · 0.7079 in", a tip that is the other unit alone, what
  // can be typed.
  void expect_own_unit(Unit unit, const QString& text, const HarvestedText& found, const std::string& where) {
    static const auto inches = pattern("[0-9]\\s*(in|thou)\\b"),
                      millimetres = pattern("[0-9]\\s*(mm|\\x{00B5}m)\\b"),
                      either = pattern("[0-9]\\s*(in|thou|mm|\\x{00B5}m)\\b"),
                      figures =
                          pattern("[-\\x{2212}+\\x{00B1}\\x{00F8}\\x{00D7}0-9.,\\s]|mm|in|\\x{00B5}m|thou");
    const auto& own = unit == Unit::inch ? inches : millimetres;
    const auto& other = unit == Unit::inch ? millimetres : inches;
    if (!other.match(text).hasMatch() || own.match(text).hasMatch()) return; // both: one beside the other
    if (found.from.ends_with(" field")) return;                              // as it was typed
    const bool tip = found.from.ends_with(" tip") || found.from.find("cell") != std::string::npos;
    // A tip, or a muted figure beside a field, that is the other unit and nothing else.
    if ((tip || found.from.find("QLabel") != std::string::npos) && QString(text).remove(figures).isEmpty())
      return;
    if (found.from.find("Dial figure") != std::string::npos) return; // the dial's unit is the machine's
    if (either.match(text).capturedStart() > 0 && text.contains("clean")) return;
    if (said_.insert(found.text).second) ADD_FAILURE() << where << " | " << found.text;
  }

  void expect_no_bare_length(const QString& text, const HarvestedText& found, const std::string& where) {
    static const auto decimal = pattern("(?<![\\w.#])[-\\x{2212}+\\x{00B1}]?[0-9]+\\.[0-9]+(?![\\w.])");
    // A unit, or what says that it is none: room counts capabilities, shares are parts.
    static const auto told =
        pattern("\\b(mm|in|\\x{00B5}m|thou|room|Room|N|Nm|min|h|H[0-9]+|g)\\b|[\\x{00B0}%\"\\x{00B5}]");
    static const auto word = pattern("[a-zA-Z]{2}"), stop = pattern("(?<=[a-z)])\\.\\s|;\\s");
    // Tables and rulers have their unit in the heading; fields show theirs; a figure alone stands by its
    // unit.
    for (const char* skip :
         {"QTable", "QHeaderView", " field", "BatchTable", "Measured on", "Hole, read", "Shaft, read"})
      if (found.from.find(skip) != std::string::npos) return;
    if (!text.contains(word)) return;
    for (const auto& sentence : text.split(stop)) {
      if (!decimal.match(sentence).hasMatch() || told.match(sentence).hasMatch()) continue;
      if (said_.insert(found.text).second) ADD_FAILURE() << where << " | " << found.text;
    }
  }

  std::optional<std::vector<QRegularExpression>> names_;
  std::set<std::string> said_;
};

class Units : public Harvest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
  }
};

TEST_F(Units, EveryTextSpeaksItsBuildsUnitAndNoneLeavesALengthWithout) {
  look_at(named({"Main pedestal", "Cylinder block", "Pedestal bush"}));
}

/// Builds by chance.
class RandomBuilds : public Harvest, public testing::WithParamInterface<unsigned> {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    ASSERT_TRUE(window->new_build(folder.filePath("random.datrin"))) << window->message();
    RandomBuild random(GetParam(), b(), [this](const build::Edit& edit) {
      if (edit.empty()) return;
      EXPECT_TRUE(window->document().apply(edit)) << edit.label;
    });
    random.make();
    parts = random.parts;
  }
  /// As it is said everywhere; empty: not read.
  QString size_of(const build::Made& made) {
    const auto now = readings::size_now(b(), made);
    return now.read() ? sheets::fit_figure(now.value, window->document().unit()) : QString();
  }
  void compare_tables(build::Id part, build::Id piece);
  void compare_joints();

  std::vector<build::Id> parts;
  std::map<std::pair<build::Id, build::Id>, QString> makes; ///< what the batch says is to be made
  int compared = 0;
};

INSTANTIATE_TEST_SUITE_P(Seeds, RandomBuilds, testing::Values(1U, 2U));

TEST_P(RandomBuilds, SpeakTheirOwnUnitAndLeaveNoLengthWithoutIt) {
  look_at({parts[0], parts[1]});
}

void RandomBuilds::compare_tables(build::Id part, build::Id piece) {
  window->document().choose(part, piece);
  window->go_to(MainWindow::drawing);
  window->show_face(1);
  const auto* table = window->drawing_page()->dimensions()->table();
  window->go_to(MainWindow::batch);
  const auto* model = window->batch_page()->model();
  const auto& sheet = model->sheet();
  const auto at =
      std::find_if(sheet.rows.begin(), sheet.rows.end(), [&](const auto& r) { return r.piece == piece; });
  ASSERT_NE(at, sheet.rows.end());
  int row = 0;
  for (const auto& [id, d] : b().dimensions_of(part)) {
    const auto want = size_of({id, piece});
    const auto drawn = table->item(row++, 5)->text();
    EXPECT_TRUE(want.isEmpty() ? drawn == QString(QChar(0x2013)) : drawn.contains(want))
        << d.name << ": " << drawn << ", not " << want;
    for (std::size_t c = 0; c < sheet.columns.size(); ++c) {
      if (sheet.columns[c].dimension != id) continue;
      auto cell =
          model->index(static_cast<int>(at - sheet.rows.begin()), static_cast<int>(c)).data().toString();
      if (cell.startsWith("make ")) makes[{id, piece}] = cell.mid(5);
      EXPECT_TRUE(want.isEmpty() ? cell.isEmpty() || cell.startsWith("make ") : cell.contains(want))
          << d.name << ": " << cell << ", not " << want;
      ++compared;
    }
  }
}

void RandomBuilds::compare_joints() {
  window->go_to(MainWindow::joints);
  window->show_face(0);
  auto& page = *window->joints_page();
  auto* pairs = page.make()->pair_box();
  for (const auto& [id, joint] : b().joints()) {
    page.choose(id);
    for (int pair = 0; pair < std::max(1, pairs->count()); ++pair) {
      if (pairs->count() > 1) {
        pairs->setCurrentIndex(pair);
        emit pairs->activated(pair);
      }
      for (const auto& [edit, made] : {std::pair{page.make()->hole_edit(), page.state().hole},
                                       {page.make()->shaft_edit(), page.state().shaft}}) {
        const auto now = readings::size_now(b(), made);
        if (now.measurement && !now.measurement->read.empty()) continue; // as it was typed
        EXPECT_EQ(edit->text(), size_of(made)) << joint.name;
        ++compared;
      }
      // What is to be made is the same number in the batch: of the hole, where nothing was read of it.
      const auto make = makes.find({page.state().hole.dimension, page.state().hole.piece});
      if (make != makes.end() && page.make()->why().title == "make") {
        EXPECT_EQ(page.make()->figure_text(), make->second) << joint.name;
        ++compared;
      }
    }
  }
}

// One size a feature of a piece, on every page that shows it.
TEST_P(RandomBuilds, AFeatureHasOneSizeOnEveryPage) {
  for (const auto unit : {Unit::inch, Unit::mm}) {
    window->document().apply(build::work_in(b(), unit));
    makes.clear();
    for (const auto part : parts)
      for (const auto& [piece, p] : b().pieces_of(part)) compare_tables(part, piece);
    compare_joints();
  }
  EXPECT_GT(compared, 20);
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
