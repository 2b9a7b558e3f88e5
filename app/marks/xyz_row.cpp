#include "app/marks/xyz_row.h"

#include "sheets/figures.h"

namespace datrin::app {

std::array<LengthEdit*, 3> add_xyz_row(QBoxLayout* to, const QString& what, std::function<void()> last) {
  auto* row = new QHBoxLayout;
  row->setSpacing(4);
  std::array<LengthEdit*, 3> fields{};
  for (int k = 0; k < 3; ++k) {
    auto* field = fields[static_cast<std::size_t>(k)] =
        new LengthEdit(filled("%1, %2", what, QChar('x' + k)), QString(QChar('x' + k)));
    field->setMinimumWidth(30);
    row->addWidget(field);
  }
  for (std::size_t k = 0; k < 2; ++k)
    QObject::connect(fields[k], &QLineEdit::returnPressed, fields[k + 1], qOverload<>(&QLineEdit::setFocus));
  QObject::connect(fields[2], &QLineEdit::returnPressed, fields[2], std::move(last));
  to->addLayout(row);
  return fields;
}

} // namespace datrin::app
