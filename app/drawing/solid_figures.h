#pragma once
// What the solid of a part weighs, finished and in the rough, where its middle is, where it is thinnest: each
// figure shows its sum on F1.

#include "app/document.h"
#include "app/marks/figure_row.h"
#include "app/marks/message_line.h"
#include "solid/thickness.h"

#include <QVBoxLayout>

#include <vector>

namespace datrin::app {

class SolidFigures : public QWidget {
public:
  explicit SolidFigures(Document& document, QWidget* parent = nullptr);
  void refresh();
  bool busy() const { return aside_.busy(); }
  const std::vector<FigureRow*>& rows() const { return rows_; }
  QString words() const { return words_->text(); } ///< in place of figures

private:
  struct Figures {
    solid::Thickness thin;
    double rough = 0; ///< mm³ before anything is cut; 0: not a casting
  };
  void begin();
  void show_rows();
  void add(const QString& name, const QString& figure, Reckoning why);
  Reckoning weight(const std::string& what, double volume, const std::string& how, QString& words) const;

  Document& document_;
  QVBoxLayout* column_;
  MessageLine* words_;
  std::vector<FigureRow*> rows_;
  std::shared_ptr<const PartSolid> of_;
  build::List<build::PartSurface> surfaces_; ///< the rough is made by what they need
  Figures figures_;
  using Of = std::pair<std::shared_ptr<const PartSolid>, build::List<build::PartSurface>>;
  Aside<Figures, Of> aside_;
};

} // namespace datrin::app
