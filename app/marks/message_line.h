#pragma once
// The line a form answers in: what was kept, what is wrong and what to do, what to do next.

#include <QLabel>

namespace datrin::app {

class MessageLine : public QLabel {
public:
  explicit MessageLine(QWidget* parent = nullptr);
  void tell(const QString& words);   ///< muted
  void refuse(const QString& words); ///< in the colour of what cannot be
  bool refuses() const { return refuses_; }

private:
  void say(const QString& words, bool wrong);
  bool refuses_ = false;
};

} // namespace datrin::app
