#include "app/casting/marking_page.h"

#include "app/theme.h"
#include "build/edit_casting.h"
#include "casting/jacks.h"
#include "casting/spots.h"
#include "sheets/figures.h"
#include "sheets/marking_dxf.h"
#include "store/text_file.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QPainterPath>
#include <QPrintDialog>
#include <QPrinter>
#include <QRegularExpression>
#include <QSignalBlocker>

#include <cmath>

namespace datrin::app {

using sheets::qt;

MarkingCanvas::MarkingCanvas(QWidget* parent) : QWidget(parent) {
  setMinimumSize(320, 200);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
  setAccessibleName("The piece as it stands on the plate, with the lines to scribe");
}

void MarkingCanvas::show_picture(sheets::MarkingPicture picture) {
  picture_ = std::move(picture);
  title_.clear();
  update();
}

void MarkingCanvas::show_words(const QString& title, const QString& words) {
  title_ = title;
  words_ = words;
  update();
}

void MarkingCanvas::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  QPainterPath ground;
  ground.addRoundedRect(rect(), 4, 4);
  painter.fillPath(ground, t.blue.ground);
  if (!title_.isEmpty()) {
    const QRectF box(width() * 0.5 - t.px(230), height() * 0.5 - t.px(50), t.px(460), t.px(140));
    painter.setPen(t.blue.line);
    painter.setFont(t.title());
    painter.drawText(box, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, title_);
    painter.setFont(t.text());
    painter.setPen(t.blue.label);
    painter.drawText(box.adjusted(0, t.px(30), 0, 0), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                     words_);
    return;
  }
  sheets::paint_marking(painter, QRectF(rect()).adjusted(t.px(12), t.px(20), -t.px(12), -t.px(12)), picture_,
                        t.blue, t.px(13));
  painter.setFont(t.text());
  painter.setPen(t.blue.label);
  painter.drawText(QRectF(rect()).adjusted(t.px(16), t.px(10), -t.px(16), 0), Qt::AlignRight | Qt::AlignTop,
                   QString("heights above the plate, %1").arg(qt(unit_name(picture_.unit))));
}

MarkingPage::MarkingPage(Document& document)
    : Page(document, Step::marking), canvas_(new MarkingCanvas), way_(new QComboBox),
      reference_(new QComboBox), base_(new LengthField("Base height")), jack_rows_(new QWidget),
      words_(muted_label()), tip_(muted_label()), caution_(words_label()), not_scribed_(muted_label()),
      pdf_(new QPushButton("Save the sheet\u2026")), print_(new QPushButton("Print the sheet\u2026")) {
  make_picture();
  make_side();
  connect_choices();
  connect(&document_.solids(), &PartSolids::made, this, [this](qlonglong part) {
    if (isVisible() && part == document_.part()) refresh();
  });
}

void MarkingPage::make_picture() {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 8, 8);
  column->setSpacing(10);
  column->addWidget(canvas_, 1);
  auto* lists = new QHBoxLayout;
  lists->setSpacing(20);
  jack_list_ = list_column("Jacks under", 1, lists);
  check_list_ = list_column("Read before scribing", 1, lists);
  line_list_ = list_column("Scribe", 1, lists);
  column->addLayout(lists);
}

void MarkingPage::make_side() {
  auto* side = new QVBoxLayout(side_);
  side->setContentsMargins(12, 16, 12, 12);
  side->setSpacing(6);
  side->addWidget(heading_label("Which way up"));
  way_->setAccessibleName("Which way up");
  side->addWidget(way_);
  side->addSpacing(6);
  side->addWidget(heading_label("At the base height"));
  reference_->setAccessibleName("What stands at the base height");
  side->addWidget(reference_);
  base_->set_label_width(theme().ipx(84));
  base_->set_rule(must_be_positive);
  side->addWidget(base_);
  auto* jack_column = new QVBoxLayout(jack_rows_);
  jack_column->setContentsMargins(0, 6, 0, 0);
  jack_column->setSpacing(6);
  jack_column->addWidget(heading_label("Jacks under touches"));
  for (int k = 0; k < 3; ++k) {
    auto* row = new QHBoxLayout;
    auto* label = new QLabel(sheets::jack_name(k));
    label->setFixedWidth(theme().ipx(18));
    auto*& box = jacks_[static_cast<std::size_t>(k)];
    box = new QComboBox;
    box->setAccessibleName("Jack " + sheets::jack_name(k));
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    row->addWidget(label);
    row->addWidget(box, 1);
    jack_column->addLayout(row);
  }
  side->addWidget(jack_rows_);
  side->addSpacing(6);
  side->addWidget(words_);
  side->addWidget(caution_);
  colour_label(caution_, theme().gone);
  side->addWidget(not_scribed_);
  side->addStretch(1);
  side->addWidget(tip_);
  side->addSpacing(4);
  pdf_->setShortcut(QKeySequence("Ctrl+Shift+S"));
  pdf_->setToolTip("Ctrl+Shift+S");
  print_->setToolTip("Ctrl+P");
  side->addWidget(pdf_);
  side->addWidget(print_);
  connect(pdf_, &QPushButton::clicked, this, &MarkingPage::ask_pdf);
  connect(print_, &QPushButton::clicked, this, &MarkingPage::ask_print);
}

void MarkingPage::connect_choices() {
  connect(way_, &QComboBox::activated, this, [this](int k) {
    auto marking = marking_;
    const auto& way = ways_[static_cast<std::size_t>(k)];
    marking.up = way.up;
    // What is of known stock stands on the metal still there, a casting by the finished face.
    marking.reference = state_.cast && way.down_surface >= 0
                            ? state_.input.surface_ids[static_cast<std::size_t>(way.down_surface)]
                            : 0;
    marking.jacks = {0, 0, 0};
    keep(marking, QString("%1 for marking out").arg(name_words(way.name)));
  });
  connect(reference_, &QComboBox::activated, this, [this](int k) {
    auto marking = marking_;
    marking.reference = reference_->itemData(k).toLongLong();
    keep(marking, "Reference of the heights");
  });
  connect(base_, &LengthField::committed, this, [this](double mm) {
    auto marking = marking_;
    marking.base_height = mm;
    keep(marking, "Base height");
  });
  for (int k = 0; k < 3; ++k)
    connect(jacks_[static_cast<std::size_t>(k)], &QComboBox::activated, this, [this, k](int row) {
      auto marking = marking_;
      // Choosing one keeps the other two where they stand now.
      if (result_.usable())
        for (std::size_t j = 0; j < 3; ++j)
          if (marking.jacks[j] == 0)
            marking.jacks[j] = state_.input.touch_ids[static_cast<std::size_t>(result_.jacks[j].point)];
      const build::Id chosen = jacks_[static_cast<std::size_t>(k)]->itemData(row).toLongLong();
      if (chosen == 0)
        marking.jacks = {0, 0, 0};
      else
        marking.jacks[static_cast<std::size_t>(k)] = chosen;
      keep(marking, QString("Jack %1").arg(sheets::jack_name(k)));
    });
}

QVBoxLayout* MarkingPage::list_column(const QString& heading, int stretch, QBoxLayout* into) {
  auto* holder = new QWidget;
  auto* box = new QVBoxLayout(holder);
  box->setContentsMargins(0, 0, 0, 0);
  box->setSpacing(2);
  box->addWidget(heading_label(heading));
  auto* rows = new QVBoxLayout;
  rows->setSpacing(0);
  box->addLayout(rows);
  box->addStretch(1);
  into->addWidget(holder, stretch);
  return rows;
}

void MarkingPage::keep(const build::Marking& marking, const QString& what) {
  if (!document_.apply(build::set_marking(document_.build(), marking, what.toStdString()))) refresh();
}

void MarkingPage::fill_boxes() {
  ways_ = casting::ways_up(state_.input.seat);
  way_->clear();
  int now = -1;
  for (std::size_t k = 0; k < ways_.size(); ++k) {
    way_->addItem(name_words(ways_[k].name));
    if ((ways_[k].up - marking_.up).norm() < 1e-9) now = static_cast<int>(k);
  }
  if (now < 0) {
    way_->addItem("as set");
    now = way_->count() - 1;
    ways_.push_back({marking_.up, -1, "as set"});
  }
  way_->setCurrentIndex(now);

  reference_->clear();
  reference_->addItem(state_.cast ? "the lowest jack" : "its underside", QVariant::fromValue<qlonglong>(0));
  for (std::size_t i = 0; i < state_.input.seat.surfaces.size(); ++i) {
    const auto& surface = state_.input.seat.surfaces[i];
    const double along = std::abs(surface.shape.direction.dot(marking_.up));
    if (surface.machined && (surface.shape.round() ? along < 1e-6 : along > 1 - 1e-9))
      reference_->addItem(name_words(surface.id) + (surface.shape.round() ? ", centre line" : ""),
                          QVariant::fromValue<qlonglong>(state_.input.surface_ids[i]));
  }
  reference_->setCurrentIndex(
      std::max(0, reference_->findData(QVariant::fromValue<qlonglong>(marking_.reference))));
  base_->set_value(marking_.base_height, document_.unit(), marking_.piece);

  const auto underneath = casting::touches_underneath(state_.input.seat, state_.pose, marking_.up);
  for (std::size_t k = 0; k < 3; ++k) {
    auto* box = jacks_[k];
    box->clear();
    box->addItem("chosen for you", QVariant::fromValue<qlonglong>(0));
    for (const int i : underneath) {
      const auto& point = state_.input.seat.points[static_cast<std::size_t>(i)];
      const auto& surface = state_.input.seat.surfaces[static_cast<std::size_t>(point.surface)];
      box->addItem(filled("touch %1 on %2", i + 1, name_words(surface.id)),
                   QVariant::fromValue<qlonglong>(state_.input.touch_ids[static_cast<std::size_t>(i)]));
    }
    box->setCurrentIndex(std::max(0, box->findData(QVariant::fromValue<qlonglong>(marking_.jacks[k]))));
  }
}

void MarkingPage::refresh() {
  state_ = piece_state(document_.build(), document_.piece());
  marking_ = casting::marking_or_start(document_.build(), document_.piece(), state_.input);
  if (!state_.cast && !document_.build().marking_of(document_.piece())) {
    marking_.reference = 0; // on the plate as it is
    marking_.base_height = 0;
  }
  base_->set_rule(state_.cast ? must_be_positive : must_not_be_negative);
  jack_rows_->setVisible(state_.cast);
  jack_list_->parentWidget()->setVisible(state_.cast);
  tip_->setText(state_.cast
                    ? "A casting on jacks can tip. Lower it on gently, keep fingers clear, steady it before "
                      "scribing."
                    : "Burrs off, faces clean; hold it against an angle plate so that it does not slide.");
  fill_boxes();
  result_ = {};
  if (!state_.cast) {
    mark_out_stock();
  } else if (!state_.can_judge()) {
    canvas_->show_words("First a survey",
                        "Marking out starts from where the part sits in the casting. Enter touches, then "
                        "seat the part; its heights for jacks and scriber stand here.");
  } else if (!state_.seated) {
    canvas_->show_words("First a seat", "The touches are there, but the part has not been placed among them. "
                                        "Go to the Seat step and press S.");
  } else {
    result_ = casting::mark_out(casting::marking_input(state_.input, state_.pose, marking_));
    if (result_.usable()) {
      canvas_->show_picture(picture());
    } else {
      canvas_->show_words("It cannot stand this way up yet", sheets::sentence(result_.message));
    }
  }
  side_->setEnabled(state_.piece != 0);
  pdf_->setEnabled(can_print());
  print_->setEnabled(can_print());
  show_figures();
}

/// Of bar, plate and block the underside is known without a touch.
void MarkingPage::mark_out_stock() {
  if (state_.piece == 0)
    return canvas_->show_words("No piece to mark out", "Add a part, then say what it is made from.");
  standing_ = allowance::standing(document_.build(), state_.piece, marking_.up);
  if (!standing_.wrong.empty())
    return canvas_->show_words("First its sizes",
                               "How it stands on the plate is not known: " + qt(standing_.wrong) +
                                   ". Say so under Stock in the Drawing step.");
  auto input = casting::marking_input(state_.input, {}, marking_);
  input.underside = standing_.low;
  input.top = standing_.high;
  result_ = casting::mark_out(input);
  if (result_.usable())
    canvas_->show_picture(picture());
  else
    canvas_->show_words("It cannot stand this way up yet", sheets::sentence(result_.message));
}

sheets::MarkingPicture MarkingPage::picture() const {
  return {with_solid(piece_scene(document_.build(), state_, state_.cast ? state_.pose : Pose{}), document_),
          marking_.up, result_, document_.unit(), state_.cast ? std::vector<Vec3>{} : standing_.outline};
}

void MarkingPage::show_figures() {
  for (auto* row : rows_) {
    row->hide();
    row->deleteLater();
  }
  rows_.clear();
  const auto unit = document_.unit();
  const auto add = [&](QVBoxLayout* list, const QString& mark, const QString& name, double mm,
                       Reckoning why) {
    auto* row = new FigureRow(mark, name, mm, unit, std::move(why));
    list->addWidget(row);
    rows_.push_back(row);
  };
  const auto& surfaces = state_.input.seat.surfaces;
  const auto touched = [&](int point) {
    const auto surface =
        static_cast<std::size_t>(state_.input.seat.points[static_cast<std::size_t>(point)].surface);
    return filled("touch %1, %2", point + 1, name_words(surfaces[surface].id));
  };
  for (std::size_t k = 0; k < result_.jacks.size(); ++k)
    add(jack_list_, sheets::jack_name(static_cast<int>(k)), touched(result_.jacks[k].point),
        result_.jacks[k].height, result_.jacks[k].reckoning);
  if (result_.top_height) {
    auto why = standing_.high_sum;
    why.title = "top of the piece";
    why.lines.push_back({"drawing's origin stands at", result_.height_zero, "underside"});
    add(check_list_, "1", "top of the piece", *result_.top_height, std::move(why));
  }
  for (std::size_t k = 0; k < result_.checks.size(); ++k) {
    const auto& check = result_.checks[k];
    Reckoning why{"reading at touch " + std::to_string(check.point + 1),
                  {{"drawing origin stands at", result_.height_zero, "base height"},
                   {"touch above the origin", check.height - result_.height_zero, "survey, seated"}}};
    add(check_list_, QString::number(k + 1), touched(check.point), check.height, std::move(why));
  }
  for (auto line = result_.lines.rbegin(); line != result_.lines.rend(); ++line)
    add(line_list_, line->centre_line ? "\u2295" : "\u2014",
        name_words(surfaces[static_cast<std::size_t>(line->surface)].id) +
            (line->centre_line ? " centre" : ""),
        line->height, line->reckoning);
  QStringList left_out;
  for (const auto& not_now : result_.not_scribed)
    left_out << name_words(surfaces[static_cast<std::size_t>(not_now.surface)].id);
  not_scribed_->setText(left_out.isEmpty()
                            ? QString()
                            : "Not level this way up: " + left_out.join(", ") + ". Turn it over for those.");
  words_->setText(
      !result_.usable() ? QString()
      : state_.cast
          ? QString("The drawing's upright stands true when the jacks are set so.")
          : filled("It stands on %1, as it is now.",
                   qt(standing_.low_sum.title.substr(0, standing_.low_sum.title.find(" as it is now")))));
  caution_->setText(result_.caution.empty() ? QString() : qt(result_.caution));
  caution_->setVisible(!result_.caution.empty());
}

sheets::SheetInput MarkingPage::sheet() const {
  document_.solids().wait_for(document_.build(), document_.part());
  sheets::SheetInput sheet;
  sheet.picture = picture();
  sheet.build = name_words(document_.build().info().name);
  sheet.part = piece_title(document_.build(), state_.piece);
  sheet.way_up = way_->currentText();
  const auto least = sheets::figure_with_unit(state_.margins.least, document_.unit(), true);
  for (const auto& [id, spot] : document_.build().spots_of(state_.piece))
    if (casting::is_open(spot)) sheet.seen << qt(casting::spot_text(document_.build(), spot));
  if (!state_.cast) return sheet; // it has no seat among touches
  sheet.seat_line = state_.margins.least >= 0 ? QString("Least room %1.").arg(least)
                                              : QString("It does not clean up: least room %1.").arg(least);
  return sheet;
}

QString MarkingPage::save_sheet(const QString& path) const {
  if (!can_print()) return "there is nothing to print yet";
  if (const auto wrong = document_.is_own_file(path); !wrong.isEmpty()) return wrong;
  const auto ending = QFileInfo(path).suffix().toLower();
  if (ending == "pdf") return sheets::write_sheet_pdf(path, sheet());
  if (ending == "svg") return sheets::write_sheet_svg(path, sheet());
  if (ending == "dxf") {
    const auto text = sheets::marking_dxf(sheet().picture);
    return qt(store::write_text_file(path.toStdString(), text));
  }
  return QString("%1: a sheet is written as .pdf, .svg or .dxf").arg(path);
}

void MarkingPage::ask_pdf() {
  if (!can_print()) return;
  const auto name = QString("%1.pdf").arg(
      piece_title(document_.build(), state_.piece).replace(QRegularExpression("[^A-Za-z0-9]+"), "-"));
  const auto path = QFileDialog::getSaveFileName(
      this, "Save the sheet", name,
      "The page as PDF (*.pdf);;The page as SVG (*.svg);;The lines as DXF (*.dxf)");
  if (path.isEmpty()) return;
  const auto wrong = save_sheet(path);
  emit say(wrong.isEmpty() ? "Sheet written to " + path : wrong);
}

void MarkingPage::ask_print() {
  if (!can_print()) return;
  QPrinter printer(QPrinter::HighResolution);
  printer.setPageSize(QPageSize(QPageSize::A4));
  printer.setFullPage(true);
  QPrintDialog dialog(&printer, this);
  if (dialog.exec() != QDialog::Accepted) return;
  QPainter painter(&printer);
  const double scale = printer.resolution() / 254.0;
  painter.scale(scale, scale);
  sheets::paint_sheet(painter, sheet());
}

} // namespace datrin::app
