#pragma once
// Touches that look like mistakes, each with its reason; one key accepts the suggestion.

#include "app/document.h"
#include "casting/survey_mistakes.h"

#include <QLabel>
#include <QListWidget>
#include <QPushButton>

namespace datrin::app {

class MistakesPanel : public QWidget {
  Q_OBJECT
public:
  explicit MistakesPanel(Document& document, QWidget* parent = nullptr);
  void show_flagged(std::vector<casting::FlaggedTouch> flagged, int set_aside);
  const std::vector<casting::FlaggedTouch>& flagged() const { return flagged_; }
  QListWidget* list() const { return list_; }
  QPushButton* accept_button() const { return accept_; }
  QPushButton* right_button() const { return right_; }
  QPushButton* aside_button() const { return aside_; }

signals:
  void chosen(qlonglong touch);

protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  const casting::FlaggedTouch* current() const;
  void accept();
  void stand(build::TouchStanding standing);
  void count_again();

  Document& document_;
  std::vector<casting::FlaggedTouch> flagged_;
  QLabel* words_;
  QListWidget* list_;
  QPushButton *accept_, *right_, *aside_, *again_;
};

} // namespace datrin::app
