#pragma once
// A trial fit as it lay in the hole: sizes along hole and shaft, how far it went, and what must come off.

#include "app/marks/spoken.h"
#include "fits/trial.h"

#include <QWidget>

namespace datrin::app {

struct TrialPicture {
  bool known = false;
  fits::TrialInput input;
  fits::TrialResult result;
};

class TrialView : public QWidget, public SpokenPicture {
public:
  explicit TrialView(QWidget* parent = nullptr);
  void show_picture(const TrialPicture& picture);
  const TrialPicture& picture() const { return picture_; }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  TrialPicture picture_;
};

} // namespace datrin::app
