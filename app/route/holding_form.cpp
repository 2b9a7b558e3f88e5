#include "app/route/holding_form.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/route/fixture_dialog.h"
#include "app/theme.h"
#include "build/edits.h"
#include "route/clashes.h"
#include "sheets/figures.h"

#include <QVBoxLayout>

namespace datrin::app {

using build::Id;
using build::Setup;
using build::Workholding;
using sheets::qt;

HoldingForm::HoldingForm(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), machine_(choice_box("Machine of the setup")),
      holding_(choice_box("What holds it", plain_words<Workholding>())), grip_(new LengthField("Gripped")),
      overhang_(new LengthField("Stands out")), packing_(text_field("Packing", "parallels, a spacer")),
      stop_(new QCheckBox("against a stop")), fixture_(new QPushButton("Fixture\u2026")),
      clashes_(words_label()) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  column->addWidget(clashes_);
  constexpr int label = 78;
  column->addWidget(labelled("On", machine_, label));
  column->addWidget(labelled("Held in", holding_, label));
  for (auto* field : {grip_, overhang_}) {
    field->set_label_width(theme().ipx(label));
    field->set_rule(must_not_be_negative);
    field->set_compact();
    column->addWidget(field);
  }
  grip_->edit()->setAccessibleName("How much of it is gripped");
  overhang_->edit()->setAccessibleName("How far it stands out");
  column->addWidget(labelled("Packing", packing_, label));
  column->addWidget(stop_);
  column->addWidget(fixture_, 0, Qt::AlignLeft);
  fixture_->setToolTip("Where the fixture takes hold, what play that leaves, what it was tried on");
  connect(fixture_, &QPushButton::clicked, this, [this] {
    const auto* now = document_.build().find<Setup>(setup_);
    if (now == nullptr) return;
    const auto fixtures = route::fixtures_of(document_.build(), setup_);
    auto* dialog = new FixtureDialog(document_, now->part, fixtures.empty() ? 0 : fixtures.front(), window());
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->open();
  });
  connect(machine_, &QComboBox::activated, this, [this] {
    const Id machine = machine_->currentData().toLongLong();
    change("Machine", [machine](Setup& s) { s.machine = machine; });
  });
  connect(holding_, &QComboBox::activated, this,
          [this](int k) { change("Holding", [k](Setup& s) { s.holding = static_cast<Workholding>(k); }); });
  connect(grip_, &LengthField::committed, this,
          [this](double mm) { change("Grip", [mm](Setup& s) { s.grip = mm; }); });
  connect(overhang_, &LengthField::committed, this,
          [this](double mm) { change("Overhang", [mm](Setup& s) { s.overhang = mm; }); });
  connect(packing_, &QLineEdit::editingFinished, this, [this] {
    if (!packing_->isModified()) return;
    const auto text = packing_->text().trimmed().toStdString();
    packing_->setModified(false);
    change("Packing", [&](Setup& s) { s.packing = text; });
  });
  connect(&document_.solids(), &PartSolids::made, this, [this](qlonglong part) { // tools are swept against it
    const auto* now = document_.build().find<Setup>(setup_);
    if (now != nullptr && now->part == part && isVisible()) show_setup(setup_);
  });
  on_tick(stop_, this, [this](bool on) { change("Stop", [on](Setup& s) { s.stop = on; }); });
}

template <class How>
void HoldingForm::change(const char* what, How how) {
  const auto* now = document_.build().find<Setup>(setup_);
  if (now == nullptr) return;
  auto changed = *now;
  how(changed);
  document_.apply(build::change(document_.build(), setup_, changed, what));
}

void HoldingForm::show_setup(Id setup) {
  if (setup != setup_) packing_->setModified(false);
  setup_ = setup;
  const auto& b = document_.build();
  const auto* now = b.find<Setup>(setup);
  setVisible(now != nullptr);
  if (now == nullptr) return;
  machine_->clear();
  machine_->addItem("not stated", 0);
  for (const auto& [id, m] : b.machines()) machine_->addItem(name_words(m.name), qlonglong(id));
  choose_data(machine_, now->machine);
  holding_->setCurrentIndex(static_cast<int>(now->holding));
  grip_->set_value(now->grip, document_.unit(), setup);
  overhang_->set_value(now->overhang, document_.unit(), setup);
  if (!(packing_->hasFocus() && packing_->isModified())) show_from_start(packing_, whole(now->packing));
  show_tick(stop_, now->stop);
  fixture_->setVisible(now->holding == Workholding::fixture || !route::fixtures_of(b, setup).empty());
  QStringList lines;
  route::ClashOptions options;
  const auto solid = document_.solid_of(now->part);
  if (solid && solid->picture) options.finished = &solid->picture->solid.mesh;
  for (const auto& clash : route::clashes(b, now->part, options)) {
    if (clash.setup != setup) continue;
    lines << (clash.certain ? "\u2717 " : "? ") + sheets::sentence(clash.text);
    QStringList ways;
    for (const auto& way : clash.ways_out) ways << qt(way);
    if (!ways.isEmpty()) lines.last() += " Or: " + ways.join("; ") + ".";
  }
  clashes_->setText(lines.join("\n"));
  clashes_->setVisible(!lines.isEmpty());
}

} // namespace datrin::app
