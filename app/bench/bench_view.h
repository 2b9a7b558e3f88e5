#pragma once
// At the machine: the whole window for one step of a setup, one number, what it reads back. Number pad and
// Enter are enough; Backspace in the empty field goes a step back, * asks how the number adds up, / finds the
// zero again, Escape leaves. A read-out that reads by itself is counted down to the number, and says when it
// is there.

#include "app/bench/bench_picture.h"
#include "app/bench/read_out.h"
#include "app/bench/to_go.h"
#include "app/casting/piece_state.h"
#include "app/document.h"
#include "app/joints/targets_state.h"
#include "steps/take_step.h"
#include "steps/zeros.h"

#include <QLabel>
#include <QLineEdit>
#include <QPointer>

#include <functional>

namespace datrin::app {

class BenchView : public QWidget {
public:
  BenchView(Document& document, TargetsState& targets, QWidget* parent);

  /// At the setup `setup` of the chosen piece (0: the first it has not left). Empty when it opened; else why
  /// not.
  QString open(build::Id setup);
  bool is_open() const { return !isHidden(); }
  build::Id setup() const { return setup_; }
  void leave();           ///< at once: nothing more is kept, the keyboard goes back to what had it
  void look_at(int step); ///< shows another step; nothing is kept

  const std::vector<steps::BenchStep>& steps() const { return steps_; }
  const steps::BenchStep* step() const;
  QLineEdit* reading() const { return reading_; }
  QString title() const { return title_->text(); }
  QString words() const { return words_->text(); }
  QString number() const { return number_->text(); }
  QFont number_font() const { return number_->font(); }
  QString other_number() const { return other_->text(); }
  QString next_steps() const { return next_->text(); }
  QString message() const { return message_->text(); }
  QString to_go() const { return to_go_->text(); }
  ReadOut* read_out() const { return read_out_; }
  const BenchPicture* picture() const { return picture_; }

  /// What is to know when it is left.
  void on_left(std::function<void()> told) { left_ = std::move(told); }
  void set_sound(bool on) { sound_ = on; }
  bool sound() const { return sound_; }
  int chimes() const { return chimes_; } ///< how often it said that it is there

protected:
  void paintEvent(QPaintEvent*) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  void make_labels();
  void lay_out();
  void fit_to_window();
  void refresh();
  void show_step();
  QString with_another_way(const QString& enter) const;
  void show_number(const steps::BenchStep& now);
  void show_picture(const steps::BenchStep& now);
  void show_asked(const steps::BenchStep& now);
  void show_way();
  bool turn_wheel(int key, Qt::KeyboardModifiers modifiers);
  QString live() const; ///< what the read-out shows of what the step asks for; empty: nothing
  void enter();
  void find_again();
  void back();
  void why();
  void ask_to_leave();
  void say(const QString& words, const QColor& colour);
  steps::BenchInput input() const;
  Unit unit() const; ///< of the setup's machine

  Document& document_;
  TargetsState& targets_;
  build::Id setup_ = 0;
  PieceState state_;
  steps::BenchInput input_;
  std::vector<steps::BenchStep> steps_;
  int at_ = -1;
  bool leaving_ = false;
  QPointer<QWidget> had_keyboard_; ///< before the bench was opened
  QLabel *part_, *about_, *count_, *keys_, *title_, *words_, *number_, *unit_, *other_, *sum_, *ask_, *hint_,
      *message_, *next_;
  QLineEdit* reading_;
  ToGo* to_go_;
  ReadOut* read_out_;
  bool sound_ = true, was_there_ = false;
  int chimes_ = 0;
  std::function<void()> left_;
  BenchPicture* picture_;
};

} // namespace datrin::app
