#include "app/casting/doubts_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "casting/survey.h"
#include "sheets/figures.h"

#include <QLabel>

namespace datrin::app {

DoubtsPanel::DoubtsPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 6, 0, 0);
  column_->setSpacing(3);
  hide();
}

bool DoubtsPanel::Of::operator==(const Of& other) const {
  return piece == other.piece && scans == other.scans && surfaces == other.surfaces &&
         seat.rotation == other.seat.rotation && seat.translation == other.seat.translation;
}

DoubtsPanel::Of DoubtsPanel::now() const {
  const auto& build = document_.build();
  const auto kept = build.seat_of(document_.piece());
  return {document_.piece(), build.scans_of(document_.piece()), build.surfaces_of(document_.part()),
          kept ? kept->second.pose : Pose{}};
}

void DoubtsPanel::refresh() {
  auto of = now();
  if (of == of_) return;
  of_ = std::move(of);
  aside_.forget();
  take({});
  if (!of_.scans.empty())
    aside_.start([build = document_.build(), piece = of_.piece](const auto&) {
      return casting::scan_doubts(build, piece);
    });
}

void DoubtsPanel::take(std::vector<casting::ScanDoubt> doubts) {
  doubts_ = std::move(doubts);
  show_rows();
}

void DoubtsPanel::show_rows() {
  constexpr std::size_t most_shown = 6; // the largest
  while (auto* item = column_->takeAt(0)) {
    if (auto* widget = item->widget()) {
      widget->hide();
      widget->deleteLater();
    }
    delete item;
  }
  boxes_.clear();
  setVisible(!doubts_.empty());
  if (doubts_.empty()) return;
  column_->addWidget(heading_label("Doubtful scan points"));
  const auto name = [&](build::Id id) { return name_words(build::surface_name(document_.build(), id)); };
  for (std::size_t k = 0; k < doubts_.size() && k < most_shown; ++k) {
    const auto& doubt = doubts_[k];
    const auto words = filled("%1 between %2 and %3", static_cast<qulonglong>(doubt.points.size()),
                              name(doubt.first), name(doubt.second));
    auto* label = muted_label(words);
    auto* box = choice_box("Give the " + words + " to", {"given to none"});
    for (const auto id : {doubt.first, doubt.second})
      box->addItem("to " + name(id), QVariant::fromValue<qlonglong>(id));
    column_->addWidget(label);
    column_->addWidget(box);
    boxes_.push_back(box);
    connect(box, &QComboBox::activated, this, [this, k, box](int row) {
      if (row > 0 && k < doubts_.size())
        document_.apply(casting::give_points(document_.build(), doubts_[k], box->currentData().toLongLong()));
    });
  }
}

} // namespace datrin::app
