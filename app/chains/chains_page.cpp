#include "app/chains/chains_page.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/edit_mating.h"
#include "quantity/text.h"
#include "sheets/figures.h"

#include <algorithm>
#include <cmath>

namespace datrin::app {

using sheets::fit_figure;
using sheets::qt;

ChainsPage::ChainsPage(Document& document, TargetsState& targets)
    : Page(document, Step::chains), targets_(targets), left_(new QWidget), heading_(heading_label("Chains")),
      list_(new RoomList("Chains, tightest first")), add_(new QPushButton("State a chain")),
      remove_(new QPushButton("Remove")), view_(new ChainView), gap_view_(new ClearanceView),
      gap_(new QWidget), name_(text_field("Name of the chain")), reason_(text_field("Why it must close so")),
      least_(new LengthField("Least")), most_(new LengthField("Most")), figures_(words_label()),
      advice_(words_label()), message_(new MessageLine), closing_(choice_box("Part that is made to suit")),
      links_(new LinkPanel(document)) {
  put_faces({gap_, links_});
  make_list();
  make_picture();
  make_gap_face();
  connect_list();
  connect_gap();
}

void ChainsPage::make_list() {
  auto* rows = new QVBoxLayout(left_);
  rows->setContentsMargins(8, 8, 8, 12);
  rows->setSpacing(6);
  heading_->setContentsMargins(12, 0, 0, 0);
  rows->addWidget(heading_);
  rows->addWidget(list_, 1);
  rows->addWidget(add_);
}

void ChainsPage::make_picture() {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 8, 8);
  column->setSpacing(8);
  view_->set_empty_text("What must close",
                        "State a chain: an end float, the clearance at a dead centre, a shim. Walk from "
                        "feature to feature on the drawings, or add its dimensions one by one; the gap "
                        "that is left is worked out, and who spreads it most.");
  column->addWidget(view_, 62);
  column->addWidget(gap_view_, 38);
}

void ChainsPage::make_gap_face() {
  auto* side = face_column(gap_, 4);
  auto* head = new QHBoxLayout;
  head->addWidget(heading_label("The gap"));
  head->addStretch(1);
  head->addWidget(remove_);
  side->addLayout(head);
  side->addWidget(labelled("Name", name_, 52));
  side->addWidget(labelled("Why", reason_, 52));
  for (auto* field : {least_, most_}) {
    field->set_label_width(theme().ipx(52));
    field->edit()->setAccessibleName(field == least_ ? "Least gap" : "Most gap");
    field->set_compact();
    side->addWidget(field);
  }
  side->addWidget(message_);
  side->addWidget(hairline());
  side->addWidget(heading_label("What comes of it"));
  figures_->setTextFormat(Qt::RichText);
  side->addWidget(figures_);
  side->addWidget(hairline());
  side->addWidget(heading_label("What would help"));
  side->addWidget(advice_);
  side->addWidget(heading_label("Made to suit"));
  side->addWidget(closing_);
  side->addStretch(1);
}

void ChainsPage::connect_list() {
  connect(list_, &RoomList::chosen_by_hand, this, [this](qlonglong id) { choose(id); });
  connect(add_, &QPushButton::clicked, this, &ChainsPage::state_chain);
  connect(remove_, &QPushButton::clicked, this,
          [this] { document_.apply(build::take_away(document_.build(), chosen_)); });
}

void ChainsPage::connect_gap() {
  const auto text = [this](QLineEdit* edit, std::string build::Chain::*into, const char* what) {
    connect(edit, &QLineEdit::editingFinished, this, [this, edit, into, what] {
      const auto* chain = document_.build().find<build::Chain>(chosen_);
      if (chain == nullptr || !edit->isModified()) return;
      auto changed = *chain;
      changed.*into = edit->text().trimmed().toStdString();
      if (!changed.name.empty()) keep(changed, what);
    });
  };
  text(name_, &build::Chain::name, "Name");
  text(reason_, &build::Chain::reason, "Reason");
  for (auto* field : {least_, most_})
    connect(field, &LengthField::committed, this, [this, field](double mm) {
      const auto* chain = document_.build().find<build::Chain>(chosen_);
      if (chain == nullptr) return;
      const auto gap = build::set_gap(document_.build(), chosen_, field == least_ ? mm : chain->least,
                                      field == least_ ? chain->most : mm);
      if (!gap.ok()) field->refuse(qt(gap.wrong));
      document_.apply(gap.edit);
    });
  connect(closing_, &QComboBox::activated, this, [this] { show_gap(); });
  connect(view_, &ChainView::row_chosen, links_, &LinkPanel::choose_row);
}

void ChainsPage::keep(const build::Chain& changed, const QString& what) {
  document_.apply(build::change(document_.build(), chosen_, changed, what.toStdString()));
}

void ChainsPage::choose(build::Id chain) {
  if (chain == chosen_) return;
  chosen_ = chain;
  refresh();
}

void ChainsPage::refresh() {
  const auto& b = document_.build();
  const auto& targets = targets_.now();
  std::vector<RoomEntry> entries;
  for (const auto& [id, chain] : b.chains()) {
    RoomEntry e;
    e.id = id;
    e.name = name_words(chain.name);
    e.what = qt(counted(chain.terms.size(), "link", "links"));
    e.below = QString("%1 to %2")
                  .arg(fit_figure(chain.least, document_.unit()),
                       sheets::fit_with_unit(chain.most, document_.unit()));
    const int c = targets.condition_of_chain(id);
    if (c >= 0 && targets.result.usable()) {
      e.known = true;
      e.room = targets.result.conditions[static_cast<std::size_t>(c)].room;
      e.limiting = targets.result.conditions[static_cast<std::size_t>(c)].limiting;
    }
    e.made = targets.made_so_far(id);
    entries.push_back(std::move(e));
  }
  heading_->setText(entries.empty() ? QString("CHAINS")
                                    : qt(counted(entries.size(), "CHAIN", "CHAINS")) +
                                          (theme().large() ? "" : ", TIGHTEST FIRST"));
  chosen_ = list_->show_entries(std::move(entries), chosen_);
  add_->setEnabled(document_.is_open());
  const auto* chain = b.find<build::Chain>(chosen_);
  gap_->setEnabled(chain != nullptr);
  show_from_start(name_, chain ? whole(chain->name) : QString());
  show_from_start(reason_, chain ? whole(chain->reason) : QString());
  name_->setModified(false);
  reason_->setModified(false);
  message_->clear();
  if (chain != nullptr) {
    least_->set_value(chain->least, document_.unit(), chosen_);
    most_->set_value(chain->most, document_.unit(), chosen_);
  }
  {
    const QSignalBlocker quiet(closing_);
    const auto kept = closing_->currentText();
    closing_->clear();
    closing_->addItem("a shim", -1);
    if (chain != nullptr) {
      const auto input = chains::chain_input(b, *chain);
      for (std::size_t k = 0; k < input.links.size(); ++k)
        if (!input.links[k].measured) closing_->addItem(name_words(input.links[k].id), static_cast<int>(k));
    }
    closing_->setCurrentIndex(std::max(0, closing_->findText(kept)));
  }
  links_->show_chain(chosen_);
  show_gap();
}

void ChainsPage::show_gap() {
  const auto& b = document_.build();
  const auto unit = document_.unit();
  const auto* chain = b.find<build::Chain>(chosen_);
  result_ = {};
  ClearancePicture picture;
  picture.title = "Gap that results";
  picture.fine = false;
  if (chain == nullptr || chain->terms.empty()) {
    view_->show_chain(chain ? name_words(chain->name) : QString(), {}, 0, 0, true, unit);
    gap_view_->show_picture(picture, unit);
    figures_->setText(QString());
    advice_->setText(chain ? "Add its dimensions in Links, or walk along them." : QString());
    return;
  }
  const auto input = chains::chain_input(b, *chain);
  chains::ChainOptions options;
  options.samples = 200000;
  options.bins = 60;
  result_ = chains::chain(input, options);
  const auto& targets = targets_.now();
  const int condition = targets.condition_of_chain(chosen_);
  const bool known = condition >= 0 && targets.result.usable();
  const double room = known ? targets.result.conditions[static_cast<std::size_t>(condition)].room : 0;
  std::vector<ChainRow> rows;
  for (std::size_t k = 0; k < input.links.size(); ++k) {
    const auto& link = input.links[k];
    rows.push_back({name_words(link.id), link.coefficient * link.measured.value_or(link.nominal),
                    link.coefficient, link.measured.has_value(), result_.contributions[k].share,
                    static_cast<int>(k) == result_.improve});
  }
  view_->show_chain(name_words(chain->name), rows, chain->least, chain->most, room >= 0, unit,
                    chains::gap_sum(input));
  picture.known = result_.usable();
  picture.expected = result_.mean;
  picture.sigma = result_.sigma;
  picture.least = chain->least;
  picture.most = chain->most;
  picture.worst_low = result_.worst_low;
  picture.worst_high = result_.worst_high;
  for (const auto count : result_.histogram) picture.histogram.push_back(static_cast<double>(count));
  picture.histogram_low = result_.histogram_low;
  picture.histogram_width = result_.histogram_width;
  picture.lines << QString("Bracket: worst case. Bars: %1 tries, terms not made anywhere in their limits, "
                           "those read within "
                           "their uncertainty.")
                       .arg(options.samples);
  gap_view_->show_picture(picture, unit);
  const auto row = [](const QString& name, const QString& figure) {
    return QString("<tr><td>%1</td><td align='right'>%2</td></tr>").arg(name.toHtmlEscaped(), figure);
  };
  figures_->setText(
      "<table width='100%' cellspacing='0' cellpadding='1'>" +
      row("expected, to drawing", sheets::fit_with_unit(result_.mean, unit)) +
      row("worst case",
          fit_figure(result_.worst_low, unit) + " to " + sheets::fit_with_unit(result_.worst_high, unit)) +
      row(QString("root sum square, 3 \u03C3"), "\u00B1" + sheets::fit_with_unit(3 * result_.sigma, unit)) +
      row("closes", qt(number_text(100 * result_.p_within, 1)) + "\u202F%") +
      row("room, made to target", known ? qt(number_text(room, 1, true)) : QString("\u2013")) + "</table>");
  QStringList words;
  if (result_.improve >= 0) {
    const auto k = static_cast<std::size_t>(result_.improve);
    words << QString("%1 spreads it most: %2\u202F%. Hold that closer first.")
                 .arg(name_words(input.links[k].id),
                      qt(number_text(100 * result_.contributions[k].share, 0)));
  }
  if (result_.worst_low >= chain->least && result_.worst_high <= chain->most)
    words << "It closes whatever is made within the drawing.";
  const int k = closing_->currentData().toInt();
  const double without = k < 0 ? result_.mean
                               : result_.mean - input.links[static_cast<std::size_t>(k)].coefficient *
                                                    input.links[static_cast<std::size_t>(k)].mean();
  if (k < 0) {
    const double shim = chains::closing_part(without, chain->least, chain->most);
    if (result_.mean >= chain->least && result_.mean <= chain->most)
      words << QString("Made to the middle of the drawing it closes without a shim, %1 %2 the middle.")
                   .arg(sheets::fit_with_unit(std::abs(shim), unit), shim > 0 ? "over" : "under");
    else if (shim > 0)
      words << QString("A shim of %1 brings it to the middle.").arg(sheets::fit_with_unit(shim, unit));
    else
      words << QString("A shim cannot help: %1 must come off somewhere.")
                   .arg(sheets::fit_with_unit(-shim, unit));
  } else {
    const auto& link = input.links[static_cast<std::size_t>(k)];
    const double make = ((chain->least + chain->most) / 2 - without) / link.coefficient;
    words
        << QString("Made last, %1 would be %2.").arg(name_words(link.id), sheets::fit_with_unit(make, unit));
  }
  advice_->setText(words.join("\n"));
}

void ChainsPage::state_chain() {
  if (!document_.is_open()) return;
  const auto added = build::state_chain(document_.build());
  if (!document_.apply(added)) return;
  choose(added.id);
  tabs_->choose(gap_face);
  name_->setFocus();
  name_->selectAll();
}

} // namespace datrin::app
