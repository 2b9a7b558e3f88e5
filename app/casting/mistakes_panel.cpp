#include "app/casting/mistakes_panel.h"

#include "app/marks/column.h"
#include "app/theme.h"
#include "build/edit_casting.h"
#include "sheets/figures.h"

#include <QKeyEvent>
#include <QVBoxLayout>

namespace datrin::app {

using build::TouchStanding;
using sheets::qt;

MistakesPanel::MistakesPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), words_(words_label()), list_(new QListWidget),
      accept_(new QPushButton("Put it right   A")), right_(new QPushButton("It is right   R")),
      aside_(new QPushButton("Set aside   S")), again_(new QPushButton) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(6);
  column->addWidget(heading_label("Touches to look at"));
  column->addWidget(words_);
  list_->setAccessibleName("Touches to look at");
  list_->setWordWrap(true);
  list_->setTextElideMode(Qt::ElideNone);
  list_->setResizeMode(QListView::Adjust);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->installEventFilter(this);
  column->addWidget(list_, 1);
  column->addWidget(accept_);
  column->addWidget(right_);
  column->addWidget(aside_);
  column->addWidget(
      muted_label("Put right, a touch keeps what it was in its record. Set aside, it stays in the list and "
                  "is not used."));
  column->addWidget(again_);
  connect(accept_, &QPushButton::clicked, this, &MistakesPanel::accept);
  connect(right_, &QPushButton::clicked, this, [this] { stand(TouchStanding::confirmed); });
  connect(aside_, &QPushButton::clicked, this, [this] { stand(TouchStanding::set_aside); });
  connect(again_, &QPushButton::clicked, this, &MistakesPanel::count_again);
  connect(list_, &QListWidget::currentRowChanged, this, [this] {
    const auto* one = current();
    accept_->setEnabled(one && one->mistake.kind != casting::MistakeKind::unexplained);
    right_->setEnabled(one != nullptr);
    aside_->setEnabled(one != nullptr);
    emit chosen(one ? one->touch : 0);
  });
}

void MistakesPanel::show_flagged(std::vector<casting::FlaggedTouch> flagged, int set_aside) {
  const int row = list_->currentRow();
  flagged_ = std::move(flagged);
  const bool quiet = list_->blockSignals(true);
  list_->clear();
  for (const auto& one : flagged_) {
    const auto* touch = document_.build().find<build::Touch>(one.touch);
    const auto* surface = touch ? document_.build().find<build::PartSurface>(touch->surface) : nullptr;
    list_->addItem(filled("touch %1 on %2\n%3%4", one.number,
                          surface ? name_words(surface->name) : QString("?"), qt(one.mistake.reason),
                          one.mistake.kind == casting::MistakeKind::unexplained
                              ? QString()
                              : QString("; it is off by %1")
                                    .arg(sheets::figure_with_unit(one.mistake.off, document_.unit(), true))));
  }
  list_->setCurrentRow(flagged_.empty() ? -1 : std::clamp(row, 0, static_cast<int>(flagged_.size()) - 1));
  list_->blockSignals(quiet);
  words_->setText(flagged_.empty()
                      ? "None: every touch lies where the others on its surface say."
                      : QString("%1 of them stand off what the others say.").arg(flagged_.size()));
  colour_label(words_, flagged_.empty() ? theme().good : theme().ink);
  emit list_->currentRowChanged(list_->currentRow());
  again_->setVisible(set_aside > 0);
  again_->setText(QString("Count %1 set aside again").arg(set_aside));
}

const casting::FlaggedTouch* MistakesPanel::current() const {
  const int row = list_->currentRow();
  return row >= 0 && row < static_cast<int>(flagged_.size()) ? &flagged_[static_cast<std::size_t>(row)]
                                                             : nullptr;
}

void MistakesPanel::accept() {
  if (const auto* one = current()) document_.apply(casting::accept_suggestion(document_.build(), *one));
}

void MistakesPanel::stand(TouchStanding standing) {
  if (const auto* one = current())
    document_.apply(casting::set_standing(document_.build(), one->touch, standing));
}

void MistakesPanel::count_again() {
  document_.apply(build::count_again(document_.build(), document_.piece()));
}

bool MistakesPanel::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::KeyPress) {
    const auto key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_A || key == Qt::Key_Return || key == Qt::Key_Enter) {
      accept_->click();
      return true;
    }
    if (key == Qt::Key_R) {
      right_->click();
      return true;
    }
    if (key == Qt::Key_S) {
      aside_->click();
      return true;
    }
  }
  return QWidget::eventFilter(watched, event);
}

} // namespace datrin::app
