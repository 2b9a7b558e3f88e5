#pragma once
// How sure the margins are, seeing that only some points were touched; and where to touch next. Worked out
// aside.

#include "app/aside.h"
#include "app/casting/piece_state.h"
#include "app/document.h"
#include "casting/next_touch.h"

#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QTableWidget>

#include <atomic>
#include <memory>

namespace datrin::app {

class SurePanel : public QWidget {
  Q_OBJECT
public:
  struct Found {
    casting::CertaintyResult certainty;
    casting::NextTouchResult next;
  };

  explicit SurePanel(Document& document, QWidget* parent = nullptr);
  void show_state(const PieceState& state);

  QTableWidget* table() const { return table_; }
  QString words() const { return words_->text(); }
  QString next_words() const { return next_->text(); }
  const Found& found() const { return found_; }
  bool busy() const { return working_.busy(); }
  std::vector<sheets::SceneSpot> advice_spots() const; ///< A, B, C where to touch next, drawing frame

signals:
  void ready(); ///< an answer is there

private:
  void start();
  void take(Found found);
  static Found failed(const QString& why);
  void fill();

  Document& document_;
  QTableWidget* table_;
  QLabel *words_, *next_, *how_;
  QProgressBar* progress_;
  QPushButton* button_;
  PieceState state_;
  PieceState asked_; ///< the state the answer is for: another may have come since
  Found found_;
  bool have_ = false;
  Aside<Found, PieceAsOf> working_{this, [this] { return document_.piece_now(); },
                                   [this](Found found) { take(std::move(found)); },
                                   [this](const QString& why) { take(failed(why)); }};
};

} // namespace datrin::app
