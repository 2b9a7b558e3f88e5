#pragma once
// Scan points that lie about as near to one surface as to another, given to one of them by hand.

#include "app/aside.h"
#include "app/document.h"
#include "casting/scan_doubts.h"

#include <QComboBox>
#include <QVBoxLayout>
#include <QWidget>

#include <vector>

namespace datrin::app {

class DoubtsPanel : public QWidget {
  Q_OBJECT
public:
  explicit DoubtsPanel(Document& document, QWidget* parent = nullptr);
  void refresh(); ///< works them out aside where anything they follow from has changed

  const std::vector<casting::ScanDoubt>& doubts() const { return doubts_; }
  std::vector<QComboBox*> boxes() const { return boxes_; }
  bool busy() const { return aside_.busy(); }

private:
  void show_rows();

  Document& document_;
  QVBoxLayout* column_;
  std::vector<casting::ScanDoubt> doubts_;
  std::vector<QComboBox*> boxes_;
  build::Id piece_ = 0;
  build::List<build::Scan> scans_; ///< the doubts are of
  build::List<build::PartSurface> surfaces_;
  Pose seat_;
  Aside<std::vector<casting::ScanDoubt>> aside_;
};

} // namespace datrin::app
