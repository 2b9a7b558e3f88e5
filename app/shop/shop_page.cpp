#include "app/shop/shop_page.h"

#include "app/shop/own_shop.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/waiting.h"
#include "app/theme.h"
#include "build/now.h"
#include "quantity/length_text.h"
#include "sheets/figures.h"
#include "sheets/page_file.h"
#include "shop/shop_file.h"
#include "stock/offcuts.h"

#include <QDir>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QHeaderView>
#include <QShortcut>
#include <QSignalBlocker>

namespace datrin::app {

using build::Id;
using sheets::qt;

namespace {

QString kind_word(int kind) {
  return kind == build::kind_of<build::Machine>      ? "machine"
         : kind == build::kind_of<build::Tool>       ? "tool"
         : kind == build::kind_of<build::Instrument> ? "instrument"
         : kind == build::kind_of<build::Supply>     ? "supply"
                                                     : "offcut";
}

/// Shown fit to be read, edited as it is.
class SheetItem : public QTableWidgetItem {
public:
  explicit SheetItem(const std::string& text) : QTableWidgetItem(name_words(text)), whole_(whole(text)) {}
  /// Says what to do where nothing stands yet.
  explicit SheetItem(const QString& hint) : QTableWidgetItem(hint) { setForeground(theme().muted); }
  QVariant data(int role) const override {
    return role == Qt::EditRole ? QVariant(whole_) : QTableWidgetItem::data(role);
  }
  void setData(int role, const QVariant& value) override {
    if (role == Qt::EditRole || role == Qt::DisplayRole) whole_ = value.toString();
    QTableWidgetItem::setData(role, value);
  }
  QTableWidgetItem* clone() const override { return new SheetItem(*this); }

private:
  QString whole_;
};

QString hint_of(int kind) {
  if (kind == build::kind_of<build::Machine>)
    return "Type a name into the last row: lathe, mill. What it takes and how fast it turns is looked at "
           "when "
           "setups are planned. A lathe's cross slide often reads the diameter, a mill's table a side. "
           "Reads at: where its read-out sends its figures, as /dev/ttyUSB0; simulated, to try it at the "
           "bench.";
  if (kind == build::kind_of<build::Tool>)
    return "Drills, reamers, taps, cutters; parallels, blocks and collets too. Operations take a drill or "
           "reamer of their size from here.";
  if (kind == build::kind_of<build::Instrument>)
    return "How far one reading may be off, and what it shows when it should show 0.";
  if (kind == build::kind_of<build::Supply>)
    return "Fasteners on hand by thread and length, what is used up, and what is to be bought.";
  return "What is left over of bar, plate, sheet and tube: offered again when a part is made. Begin with its "
         "form: round bar.";
}

} // namespace

ShopSheet::ShopSheet(Document& document, int kind, QWidget* parent)
    : QTableWidget(parent), document_(document), kind_(kind) {
  QStringList heads;
  for (const auto& column : shop::columns(kind)) heads << qt(column.title);
  make_plain(this, "Sheet of every " + kind_word(kind), heads, static_cast<int>(heads.size()));
  setEditTriggers(AnyKeyPressed | DoubleClicked | EditKeyPressed);
  setSelectionBehavior(SelectItems);
  int c = 0;
  for (const auto& column : shop::columns(kind)) {
    horizontalHeaderItem(c)->setTextAlignment((column.number ? Qt::AlignRight : Qt::AlignLeft) |
                                              Qt::AlignVCenter);
    const int least = c == 0 ? 168 : column.number ? 72 : 92;
    setColumnWidth(c,
                   std::max(theme().ipx(least), fontMetrics().horizontalAdvance(heads[c]) + theme().ipx(22)));
    ++c;
  }
  connect(this, &QTableWidget::itemChanged, this, &ShopSheet::take);
}

Id ShopSheet::chosen() const {
  const int row = currentRow();
  return row >= 0 && row < static_cast<int>(ids_.size()) ? ids_[static_cast<std::size_t>(row)] : 0;
}

void ShopSheet::choose(Id id) {
  for (std::size_t k = 0; k < ids_.size(); ++k)
    if (ids_[k] == id) setCurrentCell(static_cast<int>(k), 0);
}

void ShopSheet::show_rows() {
  const QSignalBlocker quiet(this);
  const int row = currentRow(), column = std::max(0, currentColumn());
  const auto unit = document_.unit();
  ids_.clear();
  const auto all = shop::rows(document_.build(), kind_);
  setRowCount(static_cast<int>(all.size()) + 1);
  const auto& columns = shop::columns(kind_);
  for (std::size_t r = 0; r <= all.size(); ++r)
    for (std::size_t c = 0; c < columns.size(); ++c) {
      const auto text = r < all.size() ? shop::cell_text(all[r].second, columns[c], unit) : std::string();
      const bool empty = r == all.size() && c == 0;
      auto* cell = empty
                       ? new SheetItem(kind_ == build::kind_of<build::Offcut> ? QString("a form to add one")
                                                                              : QString("a name to add one"))
                       : new SheetItem(text);
      cell->setTextAlignment(Qt::Alignment(horizontalHeaderItem(static_cast<int>(c))->textAlignment()));
      cell->setToolTip(empty ? QString() : name_words(text));
      if (r == all.size() && c > 0) cell->setFlags(cell->flags() & ~Qt::ItemIsEditable);
      setItem(static_cast<int>(r), static_cast<int>(c), cell);
    }
  for (const auto& [id, record] : all) ids_.push_back(id);
  if (row >= 0) setCurrentCell(std::min(row, rowCount() - 1), column);
}

void ShopSheet::type(int row, int column, const QString& text) {
  item(row, column)->setText(text);
}

void ShopSheet::take(QTableWidgetItem* cell) {
  const auto row = static_cast<std::size_t>(cell->row());
  const auto& column = shop::columns(kind_)[static_cast<std::size_t>(cell->column())];
  const auto text = cell->data(Qt::EditRole).toString().trimmed().toStdString();
  if (row >= ids_.size()) {
    if (text.empty()) return;
    const auto begun = shop::begin(document_.build(), kind_, text);
    if (!begun.ok()) {
      emit told(sheets::sentence(begun.wrong));
    } else if (document_.apply(begun.edit)) {
      emit told({});
    }
    return show_rows();
  }
  const auto found = document_.build().records().find(ids_[row]);
  if (found == document_.build().records().end()) return;
  const auto typed = shop::typed(found->second, column, text, document_.unit());
  if (!typed.ok()) {
    emit told(sheets::sentence(typed.wrong) + " It stays as it was.");
    return show_rows();
  }
  if (document_.apply(shop::set_cell(document_.build(), ids_[row], column, typed.record))) emit told({});
  show_rows();
}

ShopPage::ShopPage(Document& document)
    : Page(document, Step::shop), stack_(new QStackedWidget), title_(new QLabel("Shop")),
      message_(new MessageLine), missing_(new QListWidget), buy_(new QPushButton("To buy")),
      log_(new QPushButton("Log it")), wanted_(new LengthField("Wanted")), made_(new LengthField("Made")),
      log_words_(muted_label()) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 8, 8);
  column->setSpacing(6);
  title_->setFont(theme().title());
  column->addWidget(title_);
  for (const int kind : shop::kinds()) {
    auto* sheet = new ShopSheet(document_, kind);
    sheets_.push_back(sheet);
    stack_->addWidget(sheet);
    connect(sheet, &ShopSheet::told, this, [this](const QString& why) {
      if (why.isEmpty())
        message_->tell({});
      else
        message_->refuse(why);
    });
    auto* drop = new QShortcut(QKeySequence::Delete, sheet, nullptr, nullptr, Qt::WidgetShortcut);
    connect(drop, &QShortcut::activated, this, &ShopPage::remove_chosen);
    connect(sheet, &QTableWidget::currentCellChanged, this, [this] {
      show_tool();
      show_cost();
    });
  }
  column->addWidget(stack_, 1);
  column->addWidget(message_);
  put_faces({face(shop::kinds()[0]), face(shop::kinds()[1]), face(shop::kinds()[2]), face(shop::kinds()[3]),
             face(shop::kinds()[4])});
  connect(tabs_, &Tabs::changed, this, [this](int k) {
    stack_->setCurrentIndex(k);
    message_->tell({});
    refresh();
  });
}

QWidget* ShopPage::face(int kind) {
  auto* face = new QWidget;
  auto* side = face_column(face);
  side->addWidget(muted_label(hint_of(kind)));
  auto* remove = new QPushButton("Remove");
  remove->setAccessibleName("Remove the chosen " + kind_word(kind));
  side->addWidget(remove);
  connect(remove, &QPushButton::clicked, this, &ShopPage::remove_chosen);
  if (kind == build::kind_of<build::Tool> || kind == build::kind_of<build::Supply>)
    side->addWidget(cost_[kind] = words_label());
  if (kind == build::kind_of<build::Tool>) {
    side->addWidget(hairline());
    side->addWidget(heading_label("What it really makes"));
    for (auto* field : {wanted_, made_}) {
      field->set_label_width(theme().ipx(72));
      field->set_rule(must_not_be_negative);
      field->set_compact();
      side->addWidget(field);
    }
    wanted_->edit()->setAccessibleName("Size that was wanted");
    made_->edit()->setAccessibleName("Size the tool made");
    side->addWidget(log_);
    side->addWidget(log_words_);
    connect(log_, &QPushButton::clicked, this, [this] {
      const auto edit = shop::log_made(document_.build(), sheet()->chosen(), wanted_->value(), made_->value(),
                                       build::utc_now());
      if (edit.empty()) return message_->refuse("Choose a tool, and say what was wanted and what it made.");
      document_.apply(edit);
    });
    side->addWidget(hairline());
    side->addWidget(heading_label("Wanted, not in the shop"));
    missing_->setAccessibleName("Tools operations want and the shop has not");
    missing_->setWordWrap(true);
    side->addWidget(missing_, 1);
    side->addWidget(buy_);
    buy_->setAccessibleName("Put the chosen tool on the list of what is to be bought");
    connect(buy_, &QPushButton::clicked, this, [this] {
      const auto* item = missing_->currentItem();
      if (!item) return;
      const auto added = shop::to_buy(document_.build(), item->data(Qt::UserRole).toString().toStdString());
      if (!added.edit.changes.empty())
        document_.apply(added.edit);
      else
        message_->tell(sheets::sentence(added.wrong));
    });
  } else {
    side->addStretch(1);
  }
  side->addWidget(hairline());
  auto* row = new QVBoxLayout;
  row->setSpacing(4);
  auto* own = muted_label();
  auto* keep_mine = new QPushButton("Keep as my shop");
  auto* take_mine = new QPushButton("Take my shop");
  keep_mine->setToolTip("For every build made at this computer; builds keep what they took");
  own_words_.push_back(own);
  take_own_.push_back(take_mine);
  for (QWidget* w : std::initializer_list<QWidget*>{own, keep_mine, take_mine}) row->addWidget(w);
  connect(keep_mine, &QPushButton::clicked, this, &ShopPage::keep_own);
  connect(take_mine, &QPushButton::clicked, this, &ShopPage::take_own);
  auto* take = new QPushButton("Take from a file\u2026");
  auto* save = new QPushButton("Write to a file\u2026");
  row->addWidget(take);
  row->addWidget(save);
  side->addLayout(row);
  connect(take, &QPushButton::clicked, this, [this] {
    const auto path =
        QFileDialog::getOpenFileName(this, "Take a shop from a file", {}, "Shop (*.json *.csv)");
    if (!path.isEmpty())
      if (const auto wrong = take_shop(path); !wrong.isEmpty()) message_->refuse(wrong);
  });
  connect(save, &QPushButton::clicked, this, [this] {
    const auto path = QFileDialog::getSaveFileName(this, "Write the shop to a file", "shop.json",
                                                   "JSON (*.json);;CSV (*.csv)");
    if (path.isEmpty()) return;
    const auto wrong = save_shop(path);
    if (wrong.isEmpty())
      message_->tell(filled("%1 written.", path));
    else
      message_->refuse(wrong);
  });
  return face;
}

ShopSheet* ShopPage::sheet() const {
  return sheets_[static_cast<std::size_t>(stack_->currentIndex())];
}

ShopSheet* ShopPage::sheet_of(int kind) const {
  for (auto* sheet : sheets_)
    if (sheet->kind() == kind) return sheet;
  return nullptr;
}

void ShopPage::refresh() {
  for (auto* sheet : sheets_) sheet->show_rows();
  show_tool();
  show_missing();
  show_cost();
  show_own();
}

void ShopPage::show_cost() {
  for (const auto& [kind, label] : cost_) {
    const auto found = document_.build().records().find(sheet_of(kind)->chosen());
    const auto words =
        found == document_.build().records().end() ? std::string() : shop::cost_text(found->second);
    label->setText(words.empty() ? QString("Price and edges say what an edge costs.")
                                 : sheets::sentence(words));
  }
}

void ShopPage::show_own() {
  const auto kept = own_shop_kept();
  const bool bare = document_.build().machines().empty() && document_.build().tools().empty();
  for (auto* label : own_words_)
    label->setText(kept.isEmpty() ? QString("No shop is kept for your other builds yet.")
                   : bare         ? filled("Your shop, kept %1, is there to be taken.", kept)
                                  : filled("Your shop was kept %1.", kept));
  for (auto* button : take_own_) button->setEnabled(!kept.isEmpty());
}

void ShopPage::keep_own() {
  const auto path = own_shop_path();
  if (!QDir().mkpath(QFileInfo(path).absolutePath()))
    return message_->refuse(filled("%1: the folder cannot be made", QFileInfo(path).absolutePath()));
  const auto wrong = save_shop(path);
  show_own();
  if (wrong.isEmpty())
    message_->tell("Kept: another build takes it with \u201CTake my shop\u201D.");
  else
    message_->refuse(wrong);
}

void ShopPage::take_own() {
  if (const auto wrong = take_shop(own_shop_path()); !wrong.isEmpty()) message_->refuse(wrong);
}

void ShopPage::show_tool() {
  const auto* tool = document_.build().find<build::Tool>(sheet_of(build::kind_of<build::Tool>)->chosen());
  for (QWidget* w : std::initializer_list<QWidget*>{wanted_, made_, log_}) w->setEnabled(tool != nullptr);
  wanted_->set_value(tool ? tool->size : 0, document_.unit(), tool ? sheet()->chosen() : 0);
  made_->set_value(0, document_.unit(), tool ? sheet()->chosen() : 0);
  if (!tool) return log_words_->setText("Choose a tool in the sheet.");
  const auto over = shop::cuts_over(*tool);
  if (!over)
    return log_words_->setText("Nothing logged yet: after a cut, say what was wanted and what it made.");
  log_words_->setText(
      filled(tool->made.size() == 1 ? "By %1 cut it makes %2 %3." : "By %1 cuts it makes %2 %3, on the mean.",
             tool->made.size(), qt(length_text_both(std::abs(*over), document_.unit())),
             *over >= 0 ? "over" : "under"));
}

void ShopPage::show_missing() {
  const int row = missing_->currentRow();
  missing_->clear();
  const auto unit = document_.unit();
  for (const auto& m : shop::missing_tools(document_.build())) {
    const auto word = m.kind == build::OperationKind::ream  ? QString("reamer")
                      : m.kind == build::OperationKind::tap ? QString("tap")
                                                            : QString("drill");
    const auto what = filled("%1 %2", word, sheets::figure_with_unit(m.size, unit));
    auto text = filled(m.operations.size() == 1 ? "%1, for %2 operation" : "%1, for %2 operations", what,
                       m.operations.size());
    if (!m.instead.empty()) text += "; or " + qt(m.instead);
    auto* item = new QListWidgetItem(text, missing_);
    item->setData(Qt::UserRole, what);
    item->setToolTip(text);
  }
  if (missing_->count() == 0) {
    auto* item = new QListWidgetItem("Nothing: operations find their tools.", missing_);
    item->setFlags(Qt::NoItemFlags);
  }
  missing_->setCurrentRow(std::clamp(row, 0, missing_->count() - 1));
}

void ShopPage::remove_chosen() {
  if (const Id id = sheet()->chosen(); id != 0) document_.apply(build::take_away(document_.build(), id));
}

QString ShopPage::save_shop(const QString& path) const {
  if (const auto wrong = document_.is_own_file(path); !wrong.isEmpty()) return wrong;
  const auto ending = QFileInfo(path).suffix().toLower();
  if (ending != "json" && ending != "csv") return filled("%1: a shop is written as .json or .csv", path);
  return sheets::write_bytes(path,
                             QByteArray::fromStdString(ending == "csv" ? shop::shop_csv(document_.build())
                                                                       : shop::shop_json(document_.build())));
}

QString ShopPage::take_shop(const QString& path) {
  QFile file(path);
  constexpr qint64 most = 20'000'000; // bytes: no shop is as large
  if (QFileInfo::exists(path) && !QFileInfo(path).isFile())
    return filled("%1: is no file that can be read from end to end", path);
  if (!file.open(QIODevice::ReadOnly)) return filled("%1: %2", path, file.errorString());
  if (file.size() > most) return filled("%1: is too large for a shop", path);
  const auto bytes = file.readAll();
  QString thrown;
  const auto came = wait_for(this, filled("Reading %1\u2026", QFileInfo(path).fileName()), thrown,
                             [&, build = document_.build()](const store::ReadOptions&) {
                               return shop::take_shop(build, bytes.toStdString(), path.toStdString());
                             });
  if (!came) return path + ": " + thrown;
  const auto& read = *came;
  if (!read.ok()) return qt(read.wrong);
  if (!read.edit.changes.empty() && !document_.apply(read.edit)) return "It was not taken.";
  message_->tell(filled("%1 added, %2 changed, %3 as they were.", read.added, read.changed, read.same));
  return {};
}

} // namespace datrin::app
