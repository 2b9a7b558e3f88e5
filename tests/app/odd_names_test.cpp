// Names as no program should mind them: with markup, an ampersand, a place holder, a line end, a mark that
// turns the writing round, and thousands of letters. They are shown as they are, cut to what a line holds,
// and kept whole.

#include "app/casting/seat_page.h"
#include "tests/app/bench.h"

#include "app/page/steps.h"
#include "build/description.h"
#include "build/edits.h"
#include "store/build_json.h"

#include <QAbstractButton>
#include <QAbstractItemView>
#include <QComboBox>
#include <QLabel>
#include <QMenu>
#include <QMessageBox>

#include <functional>
#include <set>

using namespace datrin;
using namespace datrin::test;

namespace {

const std::string odd = " %1%2%L3 <b>X & Co</b>\nsecond \u202eline " + std::string(3000, 'w');

/// Every free text of every record becomes odd, alike where it was alike: settings go by their names.
build::Edit all_odd(const build::Build& b) {
  static const std::set<std::string_view> free{"name",   "material", "note",    "setting",
                                               "reason", "what",     "missing", "why"};
  build::Edit edit{"Rename" + odd, {}};
  for (const auto& [id, record] : b.records()) {
    auto changed = record.description().copy(record.value().get());
    const std::function<void(const std::vector<build::Field>&, void*)> change =
        [&](const std::vector<build::Field>& fields, void* value) {
          for (const auto& f : fields) {
            void* at = f.at(value);
            if (f.type == build::FieldType::text && free.contains(f.name)) {
              auto& text = *static_cast<std::string*>(at);
              if (!text.empty()) text += odd;
            } else if (f.type == build::FieldType::list) {
              for (std::size_t k = 0; k < f.list.size(at); ++k) change(f.element, f.list.at(at, k));
            }
          }
        };
    change(record.description().fields, changed.get());
    edit.changes.push_back({id, record, build::Record(record.kind(), std::move(changed))});
  }
  return edit;
}

/// What is wrong with a text that is shown; empty when nothing. `mnemonics`: an ampersand is doubled there.
QString wrong_with(const QString& text, bool mnemonics) {
  if (text.size() > 1200) return QString("is %1 characters long").arg(text.size());
  if (text.contains(QChar(0x202e))) return "turns the writing round";
  const auto at = text.indexOf("<b>X ");
  if (at < 0) return {};
  if (!text.left(at).endsWith("%1%2%L3 ")) return "took the name for a pattern";
  if (text.mid(at).startsWith("<b>X & Co</b>\nsecond")) return "is broken by a name's line end";
  if (mnemonics && text.mid(at).startsWith("<b>X & Co")) return "takes the name's ampersand for a key";
  return {};
}

class OddNames : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    ASSERT_TRUE(window->document().apply(all_odd(window->document().build())))
        << window->message().toStdString();
  }

  /// Looks at all that is shown in `root`, and its tips.
  void look(QWidget* root, const std::string& where) {
    const auto see = [&](const QWidget* widget, const QString& text, const char* what,
                         bool mnemonics = false) {
      const auto wrong = wrong_with(text, mnemonics);
      if (wrong.isEmpty()) {
        seen_ += text.contains("<b>X &") ? 1 : 0;
        return;
      }
      const auto line = QString("%1 %2: %3 %4: \"%5\"")
                            .arg(widget->metaObject()->className(), widget->accessibleName().left(30), what,
                                 wrong, text.left(60))
                            .toStdString();
      if (told_.insert(line).second) ADD_FAILURE() << where << ": " << line;
    };
    auto widgets = root->findChildren<QWidget*>();
    widgets.append(root);
    for (const auto* widget : std::as_const(widgets)) {
      if (!widget->isVisible()) continue;
      see(widget, widget->toolTip(), "tip");
      if (const auto* label = qobject_cast<const QLabel*>(widget)) {
        if (label->textFormat() == Qt::RichText)
          EXPECT_FALSE(label->text().contains("<b>X"))
              << where << ": " << label->text().left(100).toStdString();
        else
          see(label, label->text(), "label");
        EXPECT_NE(label->textFormat(), Qt::AutoText) << where << ": " << label->text().left(60).toStdString();
      }
      if (const auto* button = qobject_cast<const QAbstractButton*>(widget))
        see(button, button->text(), "button", true);
      if (const auto* box = qobject_cast<const QComboBox*>(widget))
        for (int k = 0; k < box->count(); ++k) see(box, box->itemText(k), "choice");
      if (const auto* view = qobject_cast<const QAbstractItemView*>(widget)) see_items(view, see);
      for (const auto* action : widget->actions()) see(widget, action->text(), "action", true);
    }
  }

  template <class See>
  static void see_items(const QAbstractItemView* view, const See& see) {
    const auto* model = view->model();
    if (model == nullptr) return;
    for (int column = 0; column < model->columnCount(); ++column)
      see(view, model->headerData(column, Qt::Horizontal).toString(), "heading");
    for (int row = 0; row < model->rowCount(); ++row)
      for (int column = 0; column < model->columnCount(); ++column) {
        const auto index = model->index(row, column);
        see(view, index.data(Qt::DisplayRole).toString(), "cell");
        see(view, index.data(Qt::ToolTipRole).toString(), "cell's tip");
      }
  }

  int seen_ = 0;
  std::set<std::string> told_;
};

} // namespace

TEST_F(OddNames, AreShownAsTheyAreCutToALine) {
  for (const auto& row : app::steps()) {
    window->go_to(row.step);
    for (int face = 0; face < std::max<int>(1, static_cast<int>(row.faces.size())); ++face) {
      if (!row.faces.isEmpty()) window->show_face(face);
      QTest::qWait(30);
      ASSERT_TRUE(QTest::qWaitFor([&] { return !window->seat_page()->busy(); }, patience(10000)));
      window->grab();
      EXPECT_EQ(window->size(), QSize(1280, 800)) << row.name.toStdString() << face; // no name makes it wider
      look(window.get(), row.name.toStdString() + " " + std::to_string(face));
    }
  }
  for (auto* menu : window->findChildren<QMenu*>())
    for (const auto* action : menu->actions())
      EXPECT_EQ(wrong_with(action->text(), true), "") << action->text().left(60).toStdString();
  EXPECT_EQ(wrong_with(window->windowTitle(), false), "");
  EXPECT_GT(seen_, 100);
}

// Going through a field with the keyboard, typing nothing, leaves what is longer than it can show as it was.
TEST_F(OddNames, AreKeptWholeWhenTheirFieldsAreGoneThrough) {
  const auto before = window->document().build().records();
  for (const auto& row : app::steps()) {
    window->go_to(row.step);
    QTest::qWait(20);
    for (auto* edit : window->findChildren<QLineEdit*>()) {
      if (!edit->isVisible() || !edit->isEnabled()) continue;
      edit->setFocus();
      QTest::keyClick(edit, Qt::Key_Tab);
    }
  }
  const auto& after = window->document().build().records();
  for (const auto& [id, record] : before) EXPECT_TRUE(after.contains(id) && after.at(id) == record) << id;
  const auto json = store::write_build_json(window->document().build(), window->document().log(1));
  const auto back = store::read_build_json(json, "odd.json");
  ASSERT_TRUE(back.ok) << back.message;
  EXPECT_TRUE(back.build.records() == after);
  EXPECT_EQ(back.log.front().label, "Rename" + odd);
}

TEST_F(OddNames, AMegabyteIsStillAName) {
  const auto id = window->document().build().parts().front().first;
  auto part = *window->document().build().find<build::Part>(id);
  part.name = std::string(1 << 20, 'n');
  part.material = part.name;
  ASSERT_TRUE(
      window->document().apply(build::replace(window->document().build(), id, part, "Long" + part.name)));
  window->document().choose(id, window->document().build().pieces_of(id).front().first);
  for (const auto& row : app::steps()) {
    window->go_to(row.step);
    QTest::qWait(20);
    window->grab();
    for (auto* edit : window->findChildren<QLineEdit*>()) {
      if (!edit->isVisible() || !edit->isEnabled()) continue;
      edit->setFocus();
      QTest::keyClick(edit, Qt::Key_Tab);
    }
  }
  const auto* now = window->document().build().find<build::Part>(id);
  EXPECT_EQ(now->name, part.name);
  EXPECT_EQ(now->material, part.material);
  EXPECT_EQ(window->size(), QSize(1280, 800));
}
