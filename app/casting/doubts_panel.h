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
  /// What the doubts are of.
  struct Of {
    build::Id piece = 0;
    build::List<build::Scan> scans;
    build::List<build::PartSurface> surfaces;
    Pose seat;
    bool operator==(const Of& other) const;
  };
  Of now() const;
  void take(std::vector<casting::ScanDoubt> doubts);

  Of of_;
  Aside<std::vector<casting::ScanDoubt>, Of> aside_{this, [this] { return now(); },
                                                    [this](auto doubts) { take(std::move(doubts)); },
                                                    [this](const QString&) { of_ = {}; }}; // asked again
};

} // namespace datrin::app
