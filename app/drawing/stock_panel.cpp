#include "app/drawing/stock_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/why.h"
#include "app/theme.h"
#include "build/edits.h"
#include "fits/solids.h"
#include "sheets/figures.h"

#include <QHeaderView>
#include <QShortcut>

#include <cmath>
#include <utility>

namespace datrin::app {

using build::Stock;
using build::StockForm;
using sheets::figure;
using sheets::qt;

namespace {

struct Lie {
  const char* words;
  Vec3 along, across;
};
const std::array<Lie, 6>& lies() {
  static const std::array<Lie, 6> all{{{"length x, width y", Vec3::UnitX(), Vec3::UnitY()},
                                       {"length x, width z", Vec3::UnitX(), Vec3::UnitZ()},
                                       {"length y, width x", Vec3::UnitY(), Vec3::UnitX()},
                                       {"length y, width z", Vec3::UnitY(), Vec3::UnitZ()},
                                       {"length z, width x", Vec3::UnitZ(), Vec3::UnitX()},
                                       {"length z, width y", Vec3::UnitZ(), Vec3::UnitY()}}};
  return all;
}

bool has_sizes(StockForm form) {
  return !stock::is_raw(form) && form != StockForm::bought;
}

bool is_round(StockForm form) {
  return form == StockForm::round || form == StockForm::tube;
}

bool has_thickness(StockForm form) {
  return form == StockForm::flat || form == StockForm::plate || form == StockForm::sheet ||
         form == StockForm::block;
}

/// The machined or drawn face that looks most that way, by its name; else the way's own.
QString face_towards(const build::Build& build, build::Id part, const Vec3& way, const char* otherwise) {
  const build::PartSurface* best = nullptr;
  for (const auto& [id, s] : build.surfaces_of(part))
    if (!s.round() && s.direction.dot(way) > 0.99 &&
        (best == nullptr || s.point.dot(way) > best->point.dot(way)))
      best = &s;
  return best != nullptr ? name_words(best->name) : QString(otherwise);
}

} // namespace

StockPanel::StockPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document),
      table_(plain_table("Metal over the surfaces", {"Surface", "Least", "Most", "How it is known"}, 1)),
      form_(choice_box("Made from", shown_words<StockForm>())),
      way_(choice_box("How it lies in the drawing")), width_(new LengthField("Across")),
      thick_(new LengthField("Thick")), bore_(new LengthField("Bore of the tube")),
      length_(new LengthField("Sawn to")), put_part_(new QWidget), sold_part_(new QWidget),
      message_(new MessageLine), sold_(new QListWidget) {
  const int widths[] = {200, 90, 90};
  for (int c = 0; c < 3; ++c) table_->setColumnWidth(c, theme().ipx(widths[c]));
  table_->horizontalHeader()->setStretchLastSection(true);
  table_->horizontalHeaderItem(3)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  table_->setToolTip("F1 shows how the metal over the chosen surface comes about");
  auto* why = new QShortcut(QKeySequence("F1"), table_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(why, &QShortcut::activated, this, &StockPanel::ask_why);
  for (const auto& way : lies()) way_->addItem(way.words);
  make_column();
  connect_fields();
}

void StockPanel::make_column() {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(4);
  column->addWidget(heading_label("Made from"));
  column->addWidget(form_);
  for (auto* field : {width_, thick_, bore_, length_}) {
    field->set_label_width(theme().ipx(84));
    field->set_compact();
    field->set_rule(must_be_positive);
    column->addWidget(field);
  }
  column->addWidget(way_row_ = labelled("Lies", way_));
  column->addWidget(message_);
  auto* put = new QVBoxLayout(put_part_);
  put->setContentsMargins(0, 4, 0, 0);
  put->setSpacing(4);
  put->addWidget(hairline());
  put->addWidget(heading_label("Where the part lies in it"));
  static const char* names[] = {"Length", "Width", "Thickness"};
  for (std::size_t k = 0; k < 3; ++k) {
    auto& row = puts_[k];
    row.box = choice_box(QString("How the metal along its %1 is shared").arg(QString(names[k]).toLower()),
                         {"centred", "", "", "shared"});
    row.low = new LengthField(QString("Metal at the low side of its %1").arg(QString(names[k]).toLower()));
    row.low->set_compact();
    row.low->set_label_width(theme().ipx(84));
    row.low->set_rule(must_not_be_negative);
    row.row = labelled(names[k], row.box);
    row.name = row.low->findChild<QLabel*>();
    put->addWidget(row.row);
    put->addWidget(row.low);
  }
  column->addWidget(put_part_);
  auto* sold = new QVBoxLayout(sold_part_);
  sold->setContentsMargins(0, 4, 0, 0);
  sold->setSpacing(4);
  sold->addWidget(hairline());
  sold->addWidget(heading_label("In the shop or sold, and holds it"));
  sold_->setAccessibleName("Stock that is sold and holds the part");
  sold_->setWordWrap(true);
  sold_->setMinimumHeight(theme().ipx(120));
  sold_->setToolTip("Enter or a double click: made from that; F1 shows what length of it is taken");
  sold->addWidget(sold_, 1);
  column->addWidget(sold_part_, 1);
}

void StockPanel::connect_fields() {
  connect(form_, &QComboBox::activated, this, [this](int k) {
    auto s = stock();
    s.form = static_cast<StockForm>(k);
    keep(s, "Made from " + form_->currentText());
  });
  connect(way_, &QComboBox::activated, this, [this](int k) {
    auto s = stock();
    s.along = lies()[static_cast<std::size_t>(k)].along;
    s.across = lies()[static_cast<std::size_t>(k)].across;
    s.shift = Vec3::Zero();
    keep(s, "Way of the stock");
  });
  const auto length = [this](LengthField* field, double Stock::*into, const char* what) {
    connect(field, &LengthField::committed, this, [this, field, into, what](double mm) {
      auto s = stock();
      s.*into = mm;
      if (s.form == StockForm::tube && s.width > 0 && s.bore >= s.width)
        return field->refuse("the bore of a tube must stay below its outside");
      keep(s, what);
    });
  };
  length(width_, &Stock::width, "Size of the stock");
  length(thick_, &Stock::thick, "Thickness of the stock");
  length(bore_, &Stock::bore, "Bore of the stock");
  length(length_, &Stock::length, "Sawn length");
  for (int k = 0; k < 3; ++k) {
    auto& row = puts_[static_cast<std::size_t>(k)];
    connect(row.box, &QComboBox::activated, this, [this, k](int how) {
      puts_[static_cast<std::size_t>(k)].sharing = static_cast<stock::Put>(how) == stock::Put::shared;
      show_put(stock()); // its field appears, also where nothing is another yet
      put(k, static_cast<stock::Put>(how), stock::sides_of(document_.build(), stock()).low[k]);
    });
    connect(row.low, &LengthField::committed, this, [this, k](double mm) { put(k, stock::Put::shared, mm); });
  }
  connect(sold_, &QListWidget::itemActivated, this, &StockPanel::take_sold);
  auto* why = new QShortcut(QKeySequence("F1"), sold_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(why, &QShortcut::activated, this, &StockPanel::ask_length);
}

Stock StockPanel::stock() const {
  if (const auto kept = document_.build().stock_of(document_.part())) return kept->second;
  Stock s;
  s.part = document_.part();
  s.form = StockForm::casting;
  return s;
}

void StockPanel::keep(const Stock& s, const QString& what) {
  document_.apply(stock::set_stock(document_.build(), s, what.toStdString()));
}

void StockPanel::put(int k, stock::Put how, double low) {
  static const char* names[] = {"length", "width", "thickness"};
  keep(stock::put_in(document_.build(), stock(), k, how, low),
       QString("Where it lies along its %1").arg(names[k]));
}

void StockPanel::take_sold() {
  const int row = sold_->currentRow();
  if (row < 0 || row >= static_cast<int>(choices_.size())) return;
  if (row < static_cast<int>(offcuts_.size())) {
    document_.apply(
        stock::take_offcut(document_.build(), document_.part(), offcuts_[static_cast<std::size_t>(row)]));
    return;
  }
  auto s = choices_[static_cast<std::size_t>(row)].stock;
  s.part = document_.part();
  keep(s, "Made from " + qt(choices_[static_cast<std::size_t>(row)].text));
}

void StockPanel::refresh() {
  const auto s = stock();
  if (std::exchange(shown_, s.part) != s.part)
    for (auto& row : puts_) row.sharing = false;
  const auto unit = document_.unit();
  const auto of = static_cast<qint64>(s.part);
  const bool sized = has_sizes(s.form);
  setEnabled(document_.part() != 0);
  form_->setCurrentIndex(static_cast<int>(s.form));
  static const auto label = [](LengthField* field, const char* words) {
    if (auto* name = field->findChild<QLabel*>()) name->setText(words);
  };
  label(width_, is_round(s.form)                                              ? "Diameter"
                : s.form == StockForm::square || s.form == StockForm::hexagon ? "Across flats"
                                                                              : "Wide");
  width_->set_value(s.width, unit, of);
  thick_->set_value(s.thick, unit, of);
  bore_->set_value(s.bore, unit, of);
  length_->set_value(s.length, unit, of);
  width_->setVisible(sized);
  length_->setVisible(sized);
  thick_->setVisible(has_thickness(s.form));
  bore_->setVisible(s.form == StockForm::tube);
  way_row_->setVisible(sized);
  for (std::size_t k = 0; k < lies().size(); ++k)
    if (lies()[k].along.dot(s.along) > 0.9 && lies()[k].across.dot(s.across) > 0.9)
      way_->setCurrentIndex(static_cast<int>(k));
  const auto wrong = stock::sizes_wrong(s);
  const bool ready = sized && wrong.empty();
  if (stock::is_raw(s.form))
    message_->tell("The metal over its faces is known by touches, in the Touches step.");
  else if (s.form == StockForm::bought)
    message_->tell("It is bought finished: nothing is asked of it but what is read.");
  else if (!wrong.empty())
    message_->tell("Of a " + qt(build::shown_word(s.form)) + " " + qt(wrong) +
                   "; or read across the piece. No touches are asked for.");
  else
    message_->tell("No touches are asked for. Read across the piece, and that counts.");
  put_part_->setVisible(ready);
  if (ready) show_put(s);
  show_metal();
  show_sold();
}

void StockPanel::show_put(const Stock& s) {
  const auto sides = stock::sides_of(document_.build(), s);
  const auto axes = stock::axes_of(s);
  const std::array<Vec3, 3> way{axes.along, axes.across, axes.through};
  const auto& b = document_.build();
  constexpr double nothing = 1e-6; // mm
  for (int k = 0; k < 3; ++k) {
    auto& row = puts_[static_cast<std::size_t>(k)];
    const auto low = face_towards(b, s.part, -way[static_cast<std::size_t>(k)], "the low side");
    const auto high = face_towards(b, s.part, way[static_cast<std::size_t>(k)], "the high side");
    row.box->setItemText(1, "against " + low);
    row.box->setItemText(2, "against " + high);
    const bool centred = std::abs(s.shift[k]) < nothing;
    const int how = row.sharing                         ? 3
                    : centred                           ? 0
                    : std::abs(sides.low[k]) < nothing  ? 1
                    : std::abs(sides.high[k]) < nothing ? 2
                                                        : 3;
    row.box->setCurrentIndex(how);
    row.low->setVisible(how == 3);
    row.name->setText("on " + low);
    row.low->set_value(sides.low[k], document_.unit(), static_cast<qint64>(s.part));
  }
}

void StockPanel::show_metal() {
  constexpr double nothing = 1e-6; // mm: bar of the part's own size holds it
  const auto& b = document_.build();
  rows_.clear();
  table_->setRowCount(0);
  const auto kept = stock();
  for (const auto& [id, s] : b.surfaces_of(document_.part())) {
    QStringList cells{name_words(s.name), "\u2013", "\u2013", {}};
    if (stock::made_from_solid(b, id))
      cells[3] = "made from the solid";
    else if (!s.machined)
      cells[3] = stock::is_raw(kept.form) ? "stays as cast" : "stays as it came";
    else if (const auto metal = stock::raw_metal(b, document_.piece(), id)) {
      cells[1] = figure(metal->least, document_.unit());
      cells[2] = figure(metal->most, document_.unit());
      cells[3] = metal->least < -nothing ? "the stock does not hold it"
                 : metal->read           ? "read across"
                                         : "sizes of the stock";
    } else
      cells[3] = stock::is_raw(kept.form)    ? "by touches"
                 : stock::is_shoulder(b, id) ? "a shoulder: with what stands on it"
                                             : "not known yet";
    const int row = table_->rowCount();
    table_->insertRow(row);
    fill_row(table_, row, cells);
    table_->item(row, 3)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    if (cells[3].contains("does not hold")) table_->item(row, 3)->setForeground(theme().gone);
    rows_.push_back(id);
  }
}

void StockPanel::show_sold() {
  const auto& b = document_.build();
  stock::ChooseInput in;
  in.unit = document_.unit();
  in.patches = stock::shape_of(b, document_.part());
  const auto found = stock::choose_stock(in);
  const int row = sold_->currentRow();
  sold_->clear();
  // What lies in the shop stands before what is sold.
  offcuts_ = stock::offcuts_for(b, document_.part(), found.choices);
  choices_.clear();
  for (const auto& offcut : offcuts_) choices_.push_back(offcut.choice);
  choices_.insert(choices_.end(), found.choices.begin(), found.choices.end());
  if (!found.usable()) {
    auto* item = new QListWidgetItem(sheets::sentence(found.message), sold_);
    item->setFlags(Qt::NoItemFlags);
    return;
  }
  const auto* part = b.find<build::Part>(document_.part());
  const auto* solid = part ? fits::find_solid(part->material).solid : nullptr;
  for (const auto& offcut : offcuts_)
    sold_->addItem(filled("in the shop: %1\n%2 of it taken, %3 left",
                          qt(stock::offcut_text(*b.find<build::Offcut>(offcut.offcut), in.unit)),
                          figure(offcut.choice.takes, in.unit),
                          sheets::figure_with_unit(offcut.left, in.unit)));
  for (const auto& c : found.choices) {
    const double cm3 = c.volume / 1000;
    sold_->addItem(filled("%1\n%2 to %3 a side comes off, %4", qt(c.text), figure(c.least, in.unit),
                          sheets::figure_with_unit(c.most, in.unit),
                          solid ? qt(number_text(cm3 * solid->density, 0)) + "\u202Fg"
                                : qt(number_text(cm3, 0)) + "\u202Fcm\u00B3"));
  }
  sold_->setCurrentRow(std::clamp(row, 0, sold_->count() - 1));
}

void StockPanel::ask_length() {
  const int row = sold_->currentRow();
  if (row >= 0 && row < static_cast<int>(choices_.size()))
    show_why(sold_, choices_[static_cast<std::size_t>(row)].sum, document_.unit());
}

void StockPanel::ask_why() {
  const int row = table_->currentRow();
  if (row < 0 || row >= static_cast<int>(rows_.size())) return;
  if (const auto metal =
          stock::raw_metal(document_.build(), document_.piece(), rows_[static_cast<std::size_t>(row)]))
    show_why(table_, metal->sum, document_.unit());
}

} // namespace datrin::app
