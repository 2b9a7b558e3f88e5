#pragma once
// A casting that does not clean up: the least changes that save it, and whether another casting of the part
// does. The person picks; the drawing keeps the change with its reason.

#include "app/aside.h"
#include "app/casting/piece_state.h"
#include "app/document.h"
#include "casting/rescue_edit.h"

#include <QLabel>
#include <QListWidget>
#include <QPushButton>

namespace datrin::app {

class RescuePanel : public QWidget {
public:
  explicit RescuePanel(Document& document, QWidget* parent = nullptr);
  void show_state(const PieceState& state);
  void look();

  QPushButton* look_button() const { return look_; }
  QPushButton* take_button() const { return take_; }
  QListWidget* list() const { return list_; }
  QString words() const { return words_->text(); }
  QString castings_text() const { return castings_->text(); }
  bool busy() const { return looking_.busy(); }

private:
  struct Found {
    casting::RescueResult rescue;
    std::vector<QString> castings; ///< how the other castings of the part, and other drawings, fare
  };
  void take();
  void show_found();
  void ask_why(); ///< the sum behind what the chosen change leaves

  Document& document_;
  PieceState state_;
  QLabel *words_, *elsewhere_, *castings_, *decisions_;
  QListWidget* list_;
  QPushButton *look_, *take_;
  Found found_;
  Aside<Found, PieceAsOf> looking_{this, [this] { return document_.piece_now(); },
                                   [this](Found found) {
                                     found_ = std::move(found);
                                     show_found();
                                   },
                                   [this](const QString& why) {
                                     found_ = {};
                                     found_.rescue.message = why.toStdString();
                                     show_found();
                                   }};
};

} // namespace datrin::app
