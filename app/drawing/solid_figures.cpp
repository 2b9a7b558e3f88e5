#include "app/drawing/solid_figures.h"

#include "app/drawing/bodies_words.h"
#include "fits/material_change.h"
#include "sheets/figures.h"
#include "solid/rough.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>

namespace datrin::app {

using sheets::figure;
using sheets::figure_with_unit;
using sheets::qt;

namespace {

constexpr double mm3_per_cm3 = 1000, mm3_per_in3 = mm_per_inch * mm_per_inch * mm_per_inch,
                 gram_per_ounce = 28.349523125;

std::string volume_text(double mm3) {
  return fmt::format("{}\u202Fcm\u00B3 \u00B7 {}\u202Fin\u00B3", number_text(mm3 / mm3_per_cm3, 1),
                     number_text(mm3 / mm3_per_in3, 2));
}

} // namespace

SolidFigures::SolidFigures(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), column_(new QVBoxLayout(this)), words_(new MessageLine),
      aside_(
          this,
          [this] {
            return Of{of_, surfaces_};
          },
          [this](const Figures& figures) {
            figures_ = figures;
            show_rows();
          },
          [this](const QString& why) {
            words_->refuse(why);
            words_->show();
          }) {
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(0);
  column_->addWidget(words_);
}

void SolidFigures::refresh() {
  const auto part = document_.part();
  const auto solid = document_.solid_of(part);
  const auto surfaces = document_.build().surfaces_of(part);
  if (solid && solid->picture && (of_ != solid || !(surfaces_ == surfaces))) {
    surfaces_ = surfaces;
    if (of_ != solid) figures_ = {};
    of_ = solid;
    begin();
  }
  if (!solid || !solid->picture) of_ = nullptr;
  show_rows();
}

void SolidFigures::begin() {
  const auto part = document_.part();
  const bool cast = stock::needs_touches(document_.build(), part);
  aside_.start([picture = of_->picture, cast, build = document_.build(), part](const auto& stop) {
    Figures figures;
    if (cast) figures.rough = solid::make_solid(solid::rough_bodies(build, part), {.mesh = false}).volume;
    if (!stop()) figures.thin = solid::thinnest(picture->solid, {.stop = stop});
    return figures;
  });
}

void SolidFigures::add(const QString& name, const QString& words, Reckoning why) {
  auto* row = new FigureRow(name, words, document_.unit(), std::move(why));
  column_->addWidget(row);
  rows_.push_back(row);
}

/// By its metal; without one the volume alone.
Reckoning SolidFigures::weight(const std::string& what, double volume, const std::string& how,
                               QString& words) const {
  const auto* part = document_.build().find<build::Part>(document_.part());
  const auto* metal = part ? fits::find_in_condition(part->material, part->condition) : nullptr;
  Reckoning sum{what, {{"volume", 0, how, volume_text(volume)}}, {}};
  if (metal) {
    const double gram = volume / mm3_per_cm3 * metal->density;
    sum.lines.push_back({"density of " + metal->name, 0, "table of solids",
                         fmt::format("{}\u202Fg/cm\u00B3", number_text(metal->density, 2))});
    sum.answer = fmt::format("{}\u202Fg \u00B7 {}\u202Foz", number_text(gram, 0),
                             number_text(gram / gram_per_ounce, 1));
  } else {
    sum.answer = volume_text(volume);
  }
  words = qt(sum.answer);
  return sum;
}

void SolidFigures::show_rows() {
  // What is the same stays, and with it the keyboard.
  std::vector<FigureRow*> before;
  before.swap(rows_);
  const bool had_focus =
      std::any_of(before.begin(), before.end(), [](FigureRow* row) { return row->hasFocus(); });
  for (auto* row : before) {
    column_->removeWidget(row);
    row->hide();
    row->deleteLater();
  }
  words_->hide();
  const auto tell = [&](const char* words) {
    words_->tell(words);
    words_->show();
  };
  if (!of_) {
    const bool bodies = !document_.build().bodies_of(document_.part()).empty();
    const auto solid = document_.solid_of(document_.part());
    return tell(!bodies
                    ? "No bodies yet: add a block or a round, then what stands on it and what is cut from it."
                : solid ? "There is no metal yet."
                        : "It is being worked out\u2026");
  }
  const auto& s = of_->picture->solid;
  const auto unit = document_.unit();
  QString words;
  auto sum = weight("finished", s.volume, "bodies fused and cut", words);
  add("Finished", words, std::move(sum));
  if (figures_.rough > s.volume * (1 + 1e-9)) {
    sum = weight("in the rough", figures_.rough, "machined faces out by their stock, nothing from solid yet",
                 words);
    add("In the rough", words, std::move(sum));
  }
  Reckoning middle{"centre of gravity", {}, {}};
  static constexpr const char* axes[] = {"x", "y", "z"};
  for (int k = 0; k < 3; ++k)
    middle.lines.push_back({axes[k], s.centroid[k], "of the metal, from the drawing's origin"});
  const auto place = figure(s.centroid.x(), unit) + ", " + figure(s.centroid.y(), unit) + ", " +
                     figure_with_unit(s.centroid.z(), unit);
  middle.answer = place.toStdString();
  add("Centre", place, std::move(middle));
  if (figures_.thin.status == solid::ThicknessStatus::found) {
    const auto name = [&](std::size_t k) {
      const auto* body = k < s.faces.size() ? document_.build().find<build::Body>(s.faces[k].body) : nullptr;
      return body ? face_name(*body, s.faces[k].face_of()).toStdString() : std::string("a face");
    };
    add("Thinnest", figure_with_unit(figures_.thin.least, unit),
        {"thinnest metal",
         {{name(figures_.thin.face_from) + " to " + name(figures_.thin.face_to), figures_.thin.least,
           "square through"}},
         {}});
  }
  if (s.bodies > 1) {
    words_->refuse(filled("It is %1 separate pieces.", QString::number(s.bodies)));
    words_->show();
  }
  if (had_focus && !rows_.empty()) rows_.front()->setFocus();
}

} // namespace datrin::app
