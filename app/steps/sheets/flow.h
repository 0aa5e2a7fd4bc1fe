// The sheet kit: a page that is written down from top to bottom, in millimetres. What does not fit goes to the next page by
// measure: rows of a table never fall apart and carry their heads along, paragraphs part between lines, nothing is left out.
#pragma once

#include <functional>
#include <vector>

#include <QPainter>
#include <QString>

#include "core/ground/figure/figure.h"

namespace yb {

class Flow {
  public:
    /// @param p its unit is a millimetre of paper. @param next_page called before every page but the first.
    /// @param title,about stand on every page, `foot` at its end.
    Flow(QPainter& p, QSizeF page_mm, std::function<void()> next_page, QString title, QString shop, QString about, QString foot);

    /// A column of a table: its head, its share of the width, whether figures stand at the right.
    struct Column {
        QString head;
        double share = 1;
        bool figures = false;
    };

    void heading(const QString& text);
    /// A paragraph. @param points its size, 11 at least: it is read at arm's length.
    void note(const QString& text, double points = 11, bool bold = false);
    void table(const std::vector<Column>& columns, const std::vector<std::vector<QString>>& rows, double points = 11);
    /// Big figures side by side, as many in a row as find room.
    void figures(const std::vector<std::pair<QString, QString>>& label_and_figure);
    /// A drawing so high, over the whole width. On a page of its own where the rest of this one is too low.
    void drawing(double height_mm, const std::function<void(QPainter&, const QRectF&)>& draw);
    /// A caution with its sign.
    void caution(Severity severity, const QString& text, double points = text_points);
    void rule();
    void gap(double mm) { y_ += mm; }
    /// A new page unless so many millimetres are left on this one.
    void need(double mm);
    double width() const { return size_.width() - 2 * margin; }
    /// How much of a page a drawing may take beside `rest` more millimetres.
    double room_for(double rest) const { return bottom() - y_ - rest; }
    /// How much of the page that is written on is full, 0 to 1.
    double filled() const { return y_ / bottom(); }
    int pages() const { return pages_; }

    /// A font by its height in points, for a painter whose unit is a millimetre.
    QFont font(double points, bool slab = false, bool bold = false) const;

    static constexpr double margin = 12;
    static constexpr double text_points = 11;  ///< the smallest that is read at arm's length
    static constexpr double cut_points = 16;   ///< of what is cut or drilled

  private:
    void begin();
    void turn();
    double bottom() const { return size_.height() - 19; }
    static double line(double points) { return points * 0.3528 * 1.35; }
    double height_of(const QString& text, double width, double points, bool bold = false);
    /// As many words of a text as fit so high; the rest is left in `text`.
    QString head_of(QString& text, double width, double height, double points, bool bold);

    QPainter& p_;
    QSizeF size_;
    std::function<void()> next_page_;
    QString title_, shop_, about_, foot_;
    double y_ = 0;
    int pages_ = 1;
};

}  // namespace yb
