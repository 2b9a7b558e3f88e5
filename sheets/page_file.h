#pragma once
// A painted A4 page as a PDF file.

#include <QPainter>
#include <QString>

#include <functional>

namespace datrin::sheets {

inline constexpr double page_left = 150, page_right = 1950; ///< the margins of such a page

/// One A4 page, portrait, a tenth of a millimetre a dot: 2100 by 2970. The message is empty when it was
/// written.
QString write_page_pdf(const QString& path, const QString& title,
                       const std::function<void(QPainter&)>& paint);

/// The same of several pages, counted from 0.
QString write_pages_pdf(const QString& path, const QString& title, std::size_t pages,
                        const std::function<void(QPainter&, std::size_t)>& paint);

/// Words on such a page with their foot at `y`, beginning at `x` or, `right`, ending there; elided to `room`.
void page_words(QPainter& painter, double x, double y, double size, bool bold, const QString& text,
                bool right = false, double room = page_right - page_left);
void page_rule(QPainter& painter, double y); ///< from margin to margin

/// Writes bytes whole or not at all; the message is empty when they were written.
QString write_bytes(const QString& path, const QByteArray& bytes);

} // namespace datrin::sheets
