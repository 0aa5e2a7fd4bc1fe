#include "app/steps/sheets/flow.h"

#include <QObject>
#include <algorithm>

#include "app/ground/theme/theme.h"

namespace yb {

Flow::Flow(QPainter& p, QSizeF page, std::function<void()> next_page, Words words, SheetLook& look, bool finding)
    : p_(p), size_(page), next_page_(std::move(next_page)), words_(std::move(words)), look_(look), finding_(finding) {
    p_.setRenderHint(QPainter::Antialiasing);
    if (finding_) before_ = std::exchange(look_, {});
    begin();
}

/// A page to try a matter on: what is drawn on it is drawn over.
Flow::Flow(const Flow& like, double scale)
    : p_(like.p_),
      size_(like.size_),
      next_page_([] {}),
      words_(like.words_),
      look_(like.look_),
      before_(like.before_),
      finding_(like.finding_),
      matters_(like.matters_),
      scale_(scale) {
    begin();
}

std::vector<std::pair<QString, int>> Flow::contents() const {
    std::vector<std::pair<QString, int>> out;
    const auto& all = (finding_ ? before_ : look_).pages;
    for (std::size_t i = 0; i < all.size(); ++i)
        if (i + 1 != matters_) out.emplace_back(all[i].title, all[i].page);
    return out;
}

std::pair<int, double> Flow::tried(const QString& title, double drawing_mm, const std::function<void(QPainter&, const QRectF&)>& draw,
                                   const std::function<void(Flow&)>& write, double scale) const {
    Flow page(*this, scale);
    page.put(title, drawing_mm, draw, write);
    return {page.pages_, page.filled()};
}

void Flow::put(const QString& title, double drawing_mm, const std::function<void(QPainter&, const QRectF&)>& draw,
               const std::function<void(Flow&)>& write) {
    heading(title);
    if (drawing_mm > 0) drawing(drawing_mm, draw);
    write(*this);
}

void Flow::matter(const QString& title, double drawing_mm, const std::function<void(QPainter&, const QRectF&)>& draw,
                  const std::function<void(Flow&)>& write) {
    const std::size_t which = matters_++;
    if (which > 0) turn();
    PageLook look{title, 1, 1, pages_};
    const double most = bottom() - 60;
    const auto high = [&](double share) { return std::min(drawing_mm * share, most); };
    if (finding_) {
        // Letters as large as let it stay on one page; what needs more than one leaves none half blank.
        double best = -1;
        for (const double scale : {2.2, 2.0, 1.8, 1.65, 1.5, 1.4, 1.3, 1.25, 1.2, 1.15, 1.1, 1.05, 1.0}) {
            for (const double share : {1.0, 0.8, 0.62}) {
                if (share < 1 && (drawing_mm <= 0 || drawing_mm * share < 45)) continue;
                const auto [pages, filled] = tried(title, high(share), draw, write, scale);
                const double worth = pages == 1 ? 10 + scale + 0.2 * share : filled - 0.3 * pages;
                if (worth > best) best = worth, look.scale = scale, look.drawing = share;
            }
            if (best > 10) break;  // smaller letters are no better
        }
        look_.pages.push_back(look);
    } else if (which < look_.pages.size()) {
        look = look_.pages[which];
    }
    scale_ = look.scale;
    put(title, high(look.drawing), draw, write);
    scale_ = 1;
}

QFont Flow::font(double points, bool slab, bool bold) const {
    QFont f = slab ? theme::figures(10) : theme::text(10, bold);
    f.setPixelSize(20);
    f.setPointSizeF(points * 25.4 / 72 * 72 / std::max(1, p_.device()->logicalDpiY()));
    return f;
}

double Flow::height_of(const QString& text, double width, double points, bool bold, bool slab) {
    p_.setFont(font(points, slab, bold));
    return std::max(line(points), p_.boundingRect(QRectF(0, 0, width, 1e4), Qt::TextWordWrap, text).height());
}

void Flow::begin() {
    y_ = 10;
    p_.setPen(Qt::black);
    p_.setFont(font(17, true));
    p_.drawText(QRectF(margin, y_, width() - 72, line(17)), Qt::AlignLeft | Qt::AlignVCenter, words_.title);
    p_.setFont(font(text_points));
    p_.drawText(QRectF(size_.width() - margin - 70, y_, 70, line(17)), Qt::AlignRight | Qt::AlignVCenter, words_.shop);
    y_ += line(17);
    p_.setFont(font(text_points));
    const double tall = height_of(words_.about, width(), text_points);
    p_.drawText(QRectF(margin, y_, width(), tall), Qt::TextWordWrap, words_.about);
    y_ += tall + 2;
    p_.setFont(font(text_points));
    p_.setPen(theme::colours().pencil);
    p_.drawText(QRectF(margin, size_.height() - 16, width() - 22, 12), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, words_.foot);
    p_.drawText(QRectF(size_.width() - margin - 20, size_.height() - 16, 20, 6), Qt::AlignRight | Qt::AlignTop,
                QObject::tr("page %1").arg(pages_));
    p_.setPen(Qt::black);
}

void Flow::turn() {
    next_page_();
    ++pages_;
    begin();
}

void Flow::need(double mm) {
    if (y_ + mm > bottom()) turn();
}

void Flow::heading(const QString& text) {
    const double points = scaled(13);
    need(line(points) + 3 * line(scaled(11)));  // a heading never stands alone at the foot of a page
    p_.setFont(font(points, false, true));
    p_.setPen(Qt::black);
    p_.drawText(QRectF(margin, y_, width(), line(points)), Qt::AlignLeft | Qt::AlignVCenter, text);
    wrote(text);
    y_ += line(points) + 0.6;
}

QString Flow::head_of(QString& text, double width, double height, double points, bool bold) {
    if (height_of(text, width, points, bold) <= height) return std::exchange(text, {});
    const QStringList words = text.split(' ');
    int low = 0;
    int high = static_cast<int>(words.size());
    while (high - low > 1) {
        const int mid = (low + high) / 2;
        (height_of(words.mid(0, mid).join(' '), width, points, bold) <= height ? low : high) = mid;
    }
    text = words.mid(low).join(' ');
    return words.mid(0, low).join(' ');
}

void Flow::note(const QString& text, double at_points, bool bold) {
    const double points = scaled(at_points);
    QString rest = text;
    while (!rest.isEmpty()) {
        need(line(points));
        const QString part = head_of(rest, width(), bottom() - y_, points, bold);
        if (part.isEmpty()) {  // not even one word finds room here
            turn();
            if (y_ + height_of(rest.section(' ', 0, 0), width(), points, bold) > bottom()) break;
            continue;
        }
        const double tall = height_of(part, width(), points, bold);
        p_.setPen(Qt::black);
        p_.drawText(QRectF(margin, y_, width(), tall + 1), Qt::TextWordWrap, part);
        wrote(part);
        y_ += tall + 0.6;
    }
}

/// As the columns share the page; a column of figures is never narrower than its longest, which would break in two: the others give way.
std::vector<double> Flow::widths_of(const std::vector<Column>& columns, const std::vector<std::vector<QString>>& rows, double at_points) {
    double all = 0;
    for (const Column& c : columns) all += c.share;
    std::vector<double> out, wanted;
    for (std::size_t i = 0; i < columns.size(); ++i) {
        out.push_back(width() * columns[i].share / all);
        double longest = 0;
        p_.setFont(font(at_points, true));
        for (const auto& row : rows)
            if (columns[i].figures && i < row.size())
                longest = std::max(longest, p_.boundingRect(QRectF(0, 0, 1e4, 1e4), Qt::AlignLeft, row[i]).width() + 2);
        wanted.push_back(longest);
    }
    double lacks = 0, spare = 0;
    for (std::size_t i = 0; i < out.size(); ++i) (out[i] < wanted[i] ? lacks : spare) += std::abs(out[i] - wanted[i]);
    if (lacks <= 0 || spare <= 0) return out;
    const double give = std::min(1.0, lacks / spare);
    for (std::size_t i = 0; i < out.size(); ++i) out[i] += (out[i] < wanted[i] ? 1 : give) * (wanted[i] - out[i]);
    return out;
}

void Flow::table(const std::vector<Column>& columns, const std::vector<std::vector<QString>>& rows, double at_points) {
    const double small = text_points;
    const std::vector<double> widths = widths_of(columns, rows, at_points);
    const auto wide = [&](std::size_t i) { return widths[i]; };
    // Larger letters as far as no figure breaks for them.
    const auto whole = [&](double at) {
        for (const auto& row : rows)
            for (std::size_t i = 0; i < row.size() && i < columns.size(); ++i) {
                p_.setFont(font(at, columns[i].figures));
                if (columns[i].figures && p_.boundingRect(QRectF(0, 0, 1e4, 1e4), Qt::AlignLeft, row[i]).width() > wide(i) - 1.5)
                    return false;
            }
        return true;
    };
    double points = scaled(at_points);
    while (points > at_points && !whole(points)) points = std::max(at_points, points - 1);
    const bool heads = std::any_of(columns.begin(), columns.end(), [](const Column& c) { return !c.head.isEmpty(); });
    const auto head = [&] {
        if (!heads) return;
        double x = margin;
        p_.setFont(font(small));
        p_.setPen(theme::colours().pencil);
        for (std::size_t i = 0; i < columns.size(); ++i) {
            p_.drawText(QRectF(x, y_, wide(i) - 1.5, line(small)), (columns[i].figures ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
                        columns[i].head);
            wrote(columns[i].head);
            x += wide(i);
        }
        y_ += line(small);
        p_.setPen(QPen(Qt::black, 0.15));
        p_.drawLine(QPointF(margin, y_), QPointF(size_.width() - margin, y_));
        y_ += 0.4;
    };
    need(line(small) + line(points));
    head();
    for (const auto& row : rows) {
        double tall = line(points);
        for (std::size_t i = 0; i < row.size() && i < columns.size(); ++i)
            tall = std::max(tall, height_of(row[i], wide(i) - 1.5, points, false, columns[i].figures) + 0.3);
        if (y_ + tall > bottom()) {
            turn();
            head();
        }
        double x = margin;
        for (std::size_t i = 0; i < row.size() && i < columns.size(); ++i) {
            p_.setFont(font(points, columns[i].figures));
            p_.setPen(Qt::black);
            p_.drawText(QRectF(x, y_, wide(i) - 1.5, tall),
                        (columns[i].figures ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignTop | Qt::TextWordWrap, row[i]);
            wrote(row[i]);
            x += wide(i);
        }
        y_ += tall;
    }
    y_ += 1;
}

void Flow::figures(const std::vector<std::pair<QString, QString>>& all) {
    const double each = 37 * scale_;
    const auto in_row = static_cast<std::size_t>(std::max(1.0, std::floor(width() / each)));
    const double label = scaled(text_points);
    const double figure = scaled(cut_points);
    const double tall = line(label) + line(figure) + 1;
    for (std::size_t from = 0; from < all.size(); from += in_row) {
        need(tall);
        const std::size_t n = std::min(in_row, all.size() - from);
        const double w = width() / static_cast<double>(in_row);
        for (std::size_t i = 0; i < n; ++i) {
            const auto& [name, value] = all[from + i];
            const double x = margin + w * static_cast<double>(i);
            p_.setFont(font(label));
            p_.setPen(theme::colours().pencil);
            p_.drawText(QRectF(x, y_, w - 1, line(label)), Qt::AlignLeft | Qt::AlignVCenter, name);
            p_.setFont(font(figure, true));
            p_.setPen(Qt::black);
            p_.drawText(QRectF(x, y_ + line(label), w - 1, line(figure)), Qt::AlignLeft | Qt::AlignVCenter, value);
            wrote(name), wrote(value);
        }
        y_ += tall;
    }
}

void Flow::drawing(double height, const std::function<void(QPainter&, const QRectF&)>& draw) {
    need(std::min(height, bottom() - 40));
    const QRectF room(margin, y_, width(), std::min(height, bottom() - y_));
    p_.save();
    draw(p_, room);
    p_.restore();
    y_ = room.bottom() + 1;
}

void Flow::caution(Severity severity, const QString& text) {
    const double points = scaled(text_points);
    const double tall = height_of(text, width() - 5, points);
    need(std::min(tall, bottom() - 40));
    theme::draw_sign(p_, severity, QRectF(margin, y_ + 1, 2.8, 2.8));
    p_.setFont(font(points));
    p_.setPen(Qt::black);
    p_.drawText(QRectF(margin + 5, y_, width() - 5, tall + 1), Qt::TextWordWrap, text);
    wrote(text);
    y_ += tall + 0.8;
}

void Flow::rule() {
    need(2);
    p_.setPen(QPen(Qt::black, 0.2));
    p_.drawLine(QPointF(margin, y_), QPointF(size_.width() - margin, y_));
    y_ += 1.5;
}

}  // namespace yb
