// The sheet kit: a page that is written down from top to bottom, in millimetres. What does not fit goes to the next page by
// measure: rows of a table never fall apart and carry their heads along, paragraphs part between lines, nothing is left out.
#pragma once

#include <functional>
#include <vector>

#include <QPainter>
#include <QString>

#include "core/ground/figure/figure.h"

namespace yb {

/// How a matter stands on its page.
struct PageLook {
    QString title;
    double scale = 1;    ///< of its letters: as large as lets it stay on one page
    double drawing = 1;  ///< of its drawing, against the width of the page
    int page = 1;        ///< the first that it stands on
};

/// How every matter of a sheet stands, in order: found once, the same on screen, paper and PDF.
struct SheetLook {
    std::vector<PageLook> pages;
    /// Where it is given, what is written goes into it as it goes onto paper: the page, and the text of a cell, figure or paragraph.
    std::vector<std::pair<int, QString>>* written = nullptr;
};

class Flow {
  public:
    /// What stands on every page.
    struct Words {
        QString title, shop, about, foot;
    };
    /// @param p its unit is a millimetre of paper. @param next_page called before every page but the first.
    /// @param look how its matters stand. With `finding` it is found anew instead, on paper that nobody keeps; what it was before tells the
    /// contents.
    Flow(QPainter& p, QSizeF page_mm, std::function<void()> next_page, Words words, SheetLook& look, bool finding);

    /// One matter: a page of its own, or as many as it needs – its title, its drawing, then what is written. @param drawing_mm as high as
    /// the drawing wants to be over the whole width; 0: none.
    void matter(const QString& title, double drawing_mm, const std::function<void(QPainter&, const QRectF&)>& draw,
                const std::function<void(Flow&)>& write);
    /// What is on which page; the matter that it is asked in is left out.
    std::vector<std::pair<QString, int>> contents() const;

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
    /// A drawing so high, over the whole width, its letters in its own size. On the next page where the rest of this one is too low.
    void drawing(double height_mm, const std::function<void(QPainter&, const QRectF&)>& draw);
    /// A caution with its sign.
    void caution(Severity severity, const QString& text);
    void rule();
    void gap(double mm) { y_ += mm; }
    /// A new page unless so many millimetres are left on this one.
    void need(double mm);
    double width() const { return size_.width() - 2 * margin; }
    /// How much of the page that is written on is full, 0 to 1.
    double filled() const { return y_ / bottom(); }
    int pages() const { return pages_; }

    /// A font by its height in points, for a painter whose unit is a millimetre. As it stands: the matter's own scale is not in it.
    QFont font(double points, bool slab = false, bool bold = false) const;

    static constexpr double margin = 12;
    static constexpr double text_points = 11;  ///< the smallest that is read at arm's length
    static constexpr double cut_points = 16;   ///< of what is cut or drilled

  private:
    Flow(const Flow& like, double scale);
    /// How one matter fills its pages: how many, and how full the last of them.
    std::pair<int, double> tried(const QString& title, double drawing_mm, const std::function<void(QPainter&, const QRectF&)>& draw,
                                 const std::function<void(Flow&)>& write, double scale) const;
    void put(const QString& title, double drawing_mm, const std::function<void(QPainter&, const QRectF&)>& draw,
             const std::function<void(Flow&)>& write);
    void begin();
    void turn();
    double bottom() const { return size_.height() - 19; }
    static double line(double points) { return points * 0.3528 * 1.35; }
    double scaled(double points) const { return points * scale_; }
    void wrote(const QString& text) {
        if (!finding_ && look_.written && !text.isEmpty()) look_.written->emplace_back(pages_, text);
    }
    double height_of(const QString& text, double width, double points, bool bold = false, bool slab = false);
    std::vector<double> widths_of(const std::vector<Column>& columns, const std::vector<std::vector<QString>>& rows, double at_points);
    /// As many words of a text as fit so high; the rest is left in `text`.
    QString head_of(QString& text, double width, double height, double points, bool bold);

    QPainter& p_;
    QSizeF size_;
    std::function<void()> next_page_;
    Words words_;
    SheetLook& look_;
    SheetLook before_;  ///< what was found the last time, where it is found anew
    bool finding_;
    std::size_t matters_ = 0;
    double scale_ = 1;  ///< of the matter's letters
    double y_ = 0;
    int pages_ = 1;
};

}  // namespace yb
