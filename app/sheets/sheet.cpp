#include "app/sheets/sheet.h"

#include <QBuffer>
#include <QPageSize>
#include <QPdfWriter>
#include <QPrinter>

#include <algorithm>

#include "app/bench/step_view.h"
#include "app/session/whole_file.h"
#include "app/theme/theme.h"

namespace yb {

QSizeF sheet_size_mm(const Shop& shop) { return shop.letter ? QSizeF(215.9, 279.4) : QSizeF(210, 297); }

namespace {

/// Writes down the page from top to bottom, in millimetres.
class Page {
  public:
    Page(QPainter& p, QSizeF size, const Job& job, const Plan& plan, const Shop& shop)
        : p_(p), size_(size), job_(job), plan_(plan), shop_(shop) {}

    /// The first page. @returns how many of the cautions found room.
    std::size_t draw() {
        p_.setRenderHint(QPainter::Antialiasing);
        header();
        plan_picture();
        big_figures();
        const double top = y_;
        const double half = (size_.width() - 2 * margin - 6) / 2;
        shims(margin, half);
        lanes(margin, half);
        const double left_end = y_;
        y_ = top;
        resin(margin + half + 6, half);
        y_ += 2;
        under(margin + half + 6, half);
        y_ = std::max(left_end, y_) + 2;
        p_.setPen(QPen(Qt::black, 0.2));
        p_.drawLine(QPointF(margin, y_), QPointF(size_.width() - margin, y_));
        y_ += 1.5;
        const std::size_t shown = cautions(0, QObject::tr("Mind"));
        foot();
        return shown;
    }

    /// A page of cautions from one on. @returns up to which.
    std::size_t draw_cautions(std::size_t from) {
        header();
        const std::size_t shown = cautions(from, QObject::tr("Mind, continued"));
        foot();
        return std::max(shown, from + 1);
    }

    /// A page of the cut list: every cut in its order, then what to keep of what falls off. @param from,returns lines.
    std::size_t draw_cuts(std::size_t from) {
        header();
        const auto& cuts = plan_.cuts.cuts;
        const auto& keep = plan_.cuts.offcuts;
        std::size_t n = from;
        if (n < cuts.size()) heading(margin, 180, QObject::tr("Cuts, in working order"));
        for (; n < cuts.size() && y_ < size_.height() - 30; ++n) {
            const Cut& c = cuts[n];
            text(margin, 8, QString::number(n + 1), 11, true);
            text(margin + 8, 120, QString::fromLatin1(name_of(c.kind)) + " · " + QString::fromStdString(c.slab), 11, true);
            if (c.length_mm > 0)
                text(size_.width() - margin - 50, 50, QObject::tr("%1 long").arg(say(mm(c.length_mm))), 11, false, Qt::AlignRight, true);
            advance(11);
            wrapped(margin + 8, size_.width() - 2 * margin - 8,
                    say(c.set) + (c.after_flat ? QObject::tr("; after both faces are flat") : QString()), 9.5);
            y_ += 2;
        }
        if (n < cuts.size()) return n;
        if (from < cuts.size()) {
            text(margin, 180, QObject::tr("Each kerf is %1 wide and lies on the waste side.").arg(say(fine(job_.makeup.rip_kerf_mm))), 9.5);
            advance(12);
            y_ += 2;
        }
        if (n - cuts.size() < keep.size()) heading(margin, 180, QObject::tr("Back to the rack"));
        for (; n < cuts.size() + keep.size() && y_ < size_.height() - 15; ++n) {
            const Offcut& o = keep[n - cuts.size()];
            text(margin, 150,
                 QString::fromStdString(o.name) + QObject::tr(": about %1 × %2").arg(say(mm(o.length_mm)), say(mm(o.width_mm))), 10);
            advance(10);
        }
        return std::max(n, from + 1);
    }
    std::size_t cut_lines() const { return plan_.cuts.cuts.size() + plan_.cuts.offcuts.size(); }

  private:
    static constexpr double margin = 12;

    /// A font by its height in points, for a painter whose unit is a millimetre.
    QFont font(double points, bool slab = false, bool bold = false) const {
        QFont f = slab ? theme::figures(10) : theme::text(10, bold);
        f.setPixelSize(20);
        f.setPointSizeF(points * 25.4 / 72 * 72 / std::max(1, p_.device()->logicalDpiY()));
        return f;
    }
    QString say(Quantity q) const { return QString::fromStdString(format(q, shop_.units)); }
    QString say(const Phrase& ph) const { return QString::fromStdString(render(ph, shop_.units)); }

    void text(double x, double w, const QString& s, double points = 9.5, bool bold = false, int align = Qt::AlignLeft, bool slab = false) {
        p_.setFont(font(points, slab, bold));
        p_.setPen(Qt::black);
        const double h = points * 0.3528 * 1.35;
        p_.drawText(QRectF(x, y_, w, h), align | Qt::AlignVCenter, s);
    }
    void wrapped(double x, double w, const QString& s, double points) {
        p_.setFont(font(points));
        p_.setPen(Qt::black);
        const QRectF room(x, y_, w, 60);
        y_ += p_.boundingRect(room, Qt::TextWordWrap, s).height();
        p_.drawText(room, Qt::TextWordWrap, s);
    }
    void advance(double points = 9.5) { y_ += points * 0.3528 * 1.35; }

    void header() {
        y_ = 10;
        text(margin, 130, QString::fromStdString(job_.name), 17, false, Qt::AlignLeft, true);
        text(size_.width() - margin - 70, 70, QString::fromStdString(shop_.name), 9.5, false, Qt::AlignRight);
        advance(17);
        text(margin, 180,
             QString::fromStdString(plan_.slab.name + " · " + plan_.slab.species + " · " +
                                    (job_.several()                       ? name_of(job_.makeup.kind)
                                     : job_.first().placement.turned_over ? "turned over"
                                                                          : "face A up")) +
                 QObject::tr(" · wanted %1 × %2 × %3")
                     .arg(say(mm(job_.top.length_mm)), say(mm(job_.top.width_mm)), say(fine(job_.top.thickness_mm))));
        advance(11);
        y_ += 1;
    }

    void plan_picture() {
        const double h = 66;
        BenchMap map;
        const Box a = bounds(plan_.shape.ring_a);
        map.plan = QRectF(margin + 4, y_ + 6, size_.width() - 2 * margin - 8, h - 14);
        map.scale = std::min(map.plan.width() / std::max(1.0, a.width()), map.plan.height() / std::max(1.0, a.height()));
        map.x0_mm = a.low.x - (map.plan.width() / map.scale - a.width()) / 2;
        map.y_mid_mm = (a.low.y + a.high.y) / 2;
        p_.setPen(QPen(Qt::black, 0.25));
        p_.setBrush(QColor("#F0E6D2"));
        p_.drawPolygon(map.px(plan_.shape.ring_a));
        p_.setBrush(QColor("#DCC79C"));
        p_.setPen(QPen(Qt::black, 0.5));
        p_.drawPolygon(map.px(plan_.lay.outline));
        // Each leaf's share of a top of several, in two tones in turn.
        for (std::size_t i = 0; i < plan_.makeup.leaves.size() && job_.several(); ++i) {
            p_.setBrush(QColor(i % 2 ? "#CDB583" : "#DCC79C"));
            p_.drawPolygon(map.px(plan_.placement.frame().to_slab(plan_.makeup.leaves[i].part)));
        }
        p_.setBrush(QColor("#5C4630"));
        p_.setPen(Qt::NoPen);
        for (const Flaw& f : plan_.slab.flaws)
            if (!job_.several() || contains(plan_.lay.outline, centroid(f.outline))) p_.drawPolygon(map.px(f.outline));
        p_.setBrush(Qt::NoBrush);
        p_.setPen(QPen(Qt::black, 0.35));
        for (const JointPlan& j : plan_.makeup.joints) {
            QPolygonF line;
            for (const JointStation& s : j.along) line << map.px({s.u + job_.top.length_mm / 2, s.v});
            p_.drawPolyline(line);
        }
        p_.setPen(QPen(Qt::black, 0.3, Qt::DashLine));
        for (const auto& [q, r] : plan_.lay.rough_cuts) p_.drawLine(map.px(q), map.px(r));
        p_.setPen(QPen(Qt::black, 0.3));
        const Frame fr = plan_.placement.frame();
        if (const auto u = job_.makeup.halves_u_mm) {
            const double half = job_.top.width_mm / 2 + 20;
            p_.drawLine(map.px(fr.to_slab(Vec2{*u, -half})), map.px(fr.to_slab(Vec2{*u, half})));
        }
        p_.setBrush(QColor("#F0E6D2"));
        for (const Patch& patch : job_.makeup.patches) outline(patch.outline, fr, map);
        p_.setBrush(Qt::NoBrush);
        for (const auto& ch : job_.under.channels) outline(footprint(ch), fr, map);
        for (const auto& pl : job_.under.plates) outline(footprint(pl), fr, map);
        p_.setFont(font(8.5, true));
        for (std::size_t i = 0; i < plan_.flat.shims.size(); ++i) {
            const QPointF q = map.px({plan_.flat.shims[i].at.x_mm, plan_.flat.shims[i].at.y_mm});
            p_.setBrush(Qt::white);
            p_.drawEllipse(q, 2.3, 2.3);
            p_.drawText(QRectF(q.x() - 3, q.y() - 2.2, 6, 4.4), Qt::AlignCenter, QString::number(i + 1));
        }
        // Dimensions: length along the lower side, both end widths at the ends.
        const QRectF rect = map.px(plan_.lay.rectangle).boundingRect();
        p_.setFont(font(9.5, true));
        const double base = map.plan.bottom() + 3;
        p_.drawLine(QPointF(rect.left(), base), QPointF(rect.right(), base));
        for (const double x : {rect.left(), rect.right()}) p_.drawLine(QPointF(x, base - 1.5), QPointF(x, base + 1.5));
        p_.drawText(QRectF(map.plan.center().x() - 40, base + 0.5, 80, 5), Qt::AlignCenter, say(mm(job_.top.length_mm)));
        const auto end = [&](double x, double w) {
            p_.save();
            p_.translate(x, map.plan.center().y());
            p_.rotate(-90);
            p_.drawText(QRectF(-25, -2.5, 50, 5), Qt::AlignCenter, say(mm(w)));
            p_.restore();
        };
        end(std::max(margin + 1.0, map.px(a.low).x() - 3), plan_.lay.width_left_mm);
        end(std::min(size_.width() - margin - 1, map.px(a.high).x() + 3), plan_.lay.width_right_mm);
        y_ += h;
    }

    void outline(const Ring& uv, const Frame& f, const BenchMap& map) {
        Ring r;
        for (const Vec2 q : uv) r.push_back(f.to_slab(q));
        p_.drawPolygon(map.px(r));
    }

    void big_figures() {
        const std::vector<std::pair<QString, QString>> all{
            {plan_.lay.short_at.empty() ? QObject::tr("narrowest") : QObject::tr("short by"),
             plan_.lay.short_at.empty() ? say(mm(plan_.lay.narrowest_mm)) : say(mm(plan_.lay.short_at.front().mm))},
            {QObject::tr("finishes at"), say(fine(plan_.flat.thickness_mm))},
            {QObject::tr("rough-cut to"), say(mm(plan_.lay.rough_length_mm))},
            {QObject::tr("leg height"), plan_.under.ready ? say(fine(plan_.under.leg_mm)) : QObject::tr("not known")},
            {QObject::tr("top weighs"), plan_.under.top_kg > 0 ? say(kg(plan_.under.top_kg)) : QObject::tr("not known")}};
        const double w = (size_.width() - 2 * margin) / static_cast<double>(all.size());
        double x = margin;
        const double top = y_;
        for (const auto& [label, value] : all) {
            y_ = top;
            text(x, w, label, 9);
            y_ = top + 4;
            text(x, w, value, 15, false, Qt::AlignLeft, true);
            x += w;
        }
        y_ = top + 13;
        p_.setPen(QPen(Qt::black, 0.2));
        p_.drawLine(QPointF(margin, y_), QPointF(size_.width() - margin, y_));
        y_ += 2;
    }

    void heading(double x, double w, const QString& s) {
        text(x, w, s, 10.5, true);
        advance(11.5);
    }

    void row(double x, double w, const std::vector<QString>& cells, const std::vector<double>& share, double points = 9) {
        double at = x;
        for (std::size_t i = 0; i < cells.size(); ++i) {
            text(at, w * share[i], cells[i], points, false, i == 0 ? Qt::AlignLeft : Qt::AlignRight, i > 0);
            at += w * share[i];
        }
        advance(points);
    }

    /// Of several leaves the cut list stands where a single slab has its shims: it has pages of its own.
    void cuts(double x, double w) {
        heading(x, w, QObject::tr("Cuts"));
        text(x, w,
             QObject::tr("Cuts: %1, offcuts to keep: %2, all on the cut list").arg(plan_.cuts.cuts.size()).arg(plan_.cuts.offcuts.size()),
             9.5);
        advance();
        y_ += 2;
    }

    void shims(double x, double w) {
        if (job_.several()) return cuts(x, w);
        heading(x, w,
                job_.flat.first == FirstFace::show ? QObject::tr("Shims under the underside") : QObject::tr("Shims under the show face"));
        row(x, w, {QObject::tr("shim"), QObject::tr("along"), QObject::tr("across"), QObject::tr("height")}, {0.19, 0.27, 0.27, 0.27}, 8);
        for (std::size_t i = 0; i < plan_.flat.shims.size() && i < 8; ++i) {
            const Shim& s = plan_.flat.shims[i];
            row(x, w, {QString::number(i + 1), say(along(s.at.x_mm)), say(mm(s.at.y_mm)), say(fine(s.height_mm))}, {0.19, 0.27, 0.27, 0.27},
                10);
        }
        y_ += 2;
    }

    /// A line for each face of each leaf: they are flattened one by one.
    void lanes_of_leaves(double x, double w) {
        heading(x, w, QObject::tr("Lanes and layers, each leaf"));
        for (const LeafPlan& l : plan_.leaves)
            for (const FacePlan& f : l.flat.faces) {
                text(x, w,
                     QString::fromStdString(l.slab.name) +
                         (f.face == Face::a ? QObject::tr(", show face: ") : QObject::tr(", underside: ")) +
                         QObject::tr("%1 layers, %2 passes, %3").arg(f.layers).arg(f.passes_cut).arg(say(hours(f.hours))),
                     9);
                advance(9);
            }
        text(x, w,
             QObject::tr("Rough all, rest %1, then the last %2 of each")
                 .arg(say(hours(job_.flat.rest_h)), say(fine(job_.flat.allowance_mm))),
             9);
        advance(10);
    }

    void lanes(double x, double w) {
        if (job_.several()) return lanes_of_leaves(x, w);
        heading(x, w, QObject::tr("Lanes and layers"));
        for (const FacePlan& f : plan_.flat.faces) {
            text(x, w,
                 (f.face == Face::a ? QObject::tr("Show face: ") : QObject::tr("Underside: ")) +
                     QObject::tr("%1 layers of %2, %3 lanes").arg(f.layers).arg(say(fine(shop_.sled.depth_mm))).arg(f.lanes),
                 10);
            advance(10);
            text(x, w,
                 QObject::tr("   %1 passes, %2 skipped, %3, %4 off at most")
                     .arg(f.passes_cut)
                     .arg(f.passes_all - f.passes_cut)
                     .arg(say(hours(f.hours)), say(fine(f.most_off_mm))));
            advance();
            if (f.spacer_mm != 0) {
                text(x, w,
                     f.spacer_mm < 0 ? QObject::tr("   no board at hand brings the bit down far enough")
                                     : QObject::tr("   last pass on a %1 board").arg(say(fine(f.spacer_mm))));
                advance();
            }
        }
        text(x, w,
             QObject::tr("Rough both, rest %1, then the last %2 of each")
                 .arg(say(hours(job_.flat.rest_h)), say(fine(job_.flat.allowance_mm))));
        advance(11);
    }

    void resin(double x, double w) {
        heading(x, w, QObject::tr("Pour"));
        bool any = false;
        for (const VoidPlan& v : plan_.fill.voids) {
            if (v.gone || v.left_open || v.lifts.empty()) continue;
            any = true;
            const auto it = std::find_if(shop_.resins.begin(), shop_.resins.end(), [&](const Resin& r) { return r.key == v.resin; });
            text(x, w,
                 QObject::tr("%1 at %2: %3")
                     .arg(QString::fromLatin1(name_of(plan_.slab.flaws[v.flaw].kind)), say(along(v.at.x)),
                          it == shop_.resins.end() ? QString() : QString::fromStdString(it->label)),
                 9.5, true);
            advance();
            row(x, w, {QObject::tr("lift"), QObject::tr("A"), QObject::tr("B"), QObject::tr("A, weight"), QObject::tr("B, weight")},
                {0.16, 0.21, 0.21, 0.21, 0.21}, 8);
            // Alike lifts are one line: the page has one side.
            for (std::size_t i = 0; i < v.lifts.size() && i < 4; ++i) {
                const Lift& l = v.lifts[i];
                row(x, w, {QString::number(i + 1), say(litres(l.a_l)), say(litres(l.b_l)), say(kg(l.a_kg)), say(kg(l.b_kg))},
                    {0.16, 0.21, 0.21, 0.21, 0.21}, 9.5);
            }
            if (v.lifts.size() > 4) {
                text(x, w, QObject::tr("and %1 more: see Fill").arg(v.lifts.size() - 4), 8.5);
                advance(8.5);
            }
        }
        if (!any) {
            text(x, w, QObject::tr("nothing to pour"));
            advance();
        }
    }

    void under(double x, double w) {
        heading(x, w, QObject::tr("Slots"));
        if (plan_.under.slots.empty()) {
            text(x, w, QObject::tr("no plates or channels laid"));
            advance();
            return;
        }
        text(x, w,
             QObject::tr("at %1 on the day; room %2 to %3")
                 .arg(say(percent(plan_.under.day_pct)), say(percent(plan_.under.low_pct)), say(percent(plan_.under.high_pct))),
             8.5);
        advance(8.5);
        row(x, w, {QObject::tr("hole"), QObject::tr("from line"), QObject::tr("slot"), QObject::tr("bolt, inner end")},
            {0.28, 0.24, 0.2, 0.28}, 8);
        std::size_t shown = 0;
        for (const Slot& s : plan_.under.slots) {
            if (++shown > 14) break;
            row(x, w,
                {QString::fromStdString(s.part), say(mm(s.from_fixed_mm)), s.round ? QObject::tr("round") : say(fine(s.length_mm)),
                 s.round ? QObject::tr("tight") : say(fine(s.bolt_from_inner_mm))},
                {0.28, 0.24, 0.2, 0.28}, 9);
        }
        for (const Pocket& k : plan_.under.pockets) {
            text(x, w, QObject::tr("channel %1: pocket %2 long").arg(k.channel + 1).arg(say(mm(k.length_mm))), 9);
            advance(9);
        }
    }

    /// Cautions from one on, worst first. @returns up to which there was room.
    std::size_t cautions(std::size_t from, const QString& title) {
        heading(margin, 100, title);
        const auto& all = plan_.sheets.cautions;
        for (std::size_t i = from; i < all.size(); ++i) {
            const QString s = QString::fromLatin1(name_of(all[i].severity)) + ": " + say(all[i].says);
            p_.setFont(font(8.5));
            const QRectF room(margin + 5, y_, size_.width() - 2 * margin - 5, 30);
            const QRectF used = p_.boundingRect(room, Qt::TextWordWrap, s);
            if (y_ + used.height() > size_.height() - 15) {
                p_.setPen(Qt::black);
                p_.drawText(QRectF(margin + 5, size_.height() - 14, 150, 5), QObject::tr("more to mind on the last page"));
                return i;
            }
            theme::draw_sign(p_, all[i].severity, QRectF(margin, y_ + 0.8, 2.6, 2.6));
            p_.setPen(Qt::black);
            p_.drawText(room, Qt::TextWordWrap, s);
            y_ += used.height() + 0.6;
        }
        return all.size();
    }

    void foot() {
        p_.setFont(font(7));
        p_.setPen(QColor("#6E675C"));
        p_.drawText(
            QRectF(margin, size_.height() - 9, size_.width() - 2 * margin, 5), Qt::AlignLeft,
            QObject::tr(
                "Weights, loads and lifting are estimates for the maker's judgement; local codes and licensed practice stand above them."));
    }

    QPainter& p_;
    QSizeF size_;
    const Job& job_;
    const Plan& plan_;
    const Shop& shop_;
    double y_ = 0;
};

}  // namespace

void draw_sheet(QPainter& p, QSizeF size, const Job& job, const Plan& plan, const Shop& shop, const std::function<void()>& next_page) {
    if (!plan.lay.ready || !plan.flat.ready) {
        p.setFont(theme::text(4));
        p.drawText(QRectF(12, 12, size.width() - 24, 40), Qt::TextWordWrap,
                   QObject::tr("The slab is not measured far enough for a sheet."));
        return;
    }
    Page page(p, size, job, plan, shop);
    std::size_t minded = page.draw();
    for (std::size_t n = 0; n < page.cut_lines();) {
        next_page();
        n = page.draw_cuts(n);
    }
    while (minded < plan.sheets.cautions.size()) {
        next_page();
        minded = page.draw_cautions(minded);
    }
}

QString print_sheet(QPrinter& printer, const Job& job, const Plan& plan, const Shop& shop) {
    printer.setPageSize(QPageSize(shop.letter ? QPageSize::Letter : QPageSize::A4));
    printer.setFullPage(true);
    QPainter p;
    if (!p.begin(&printer)) return QObject::tr("The printer did not take the sheet. Look whether it is on, or save a PDF.");
    const double k = printer.resolution() / 25.4;
    p.scale(k, k);
    draw_sheet(p, sheet_size_mm(shop), job, plan, shop, [&] { printer.newPage(); });
    return {};
}

QString write_sheet_pdf(const QString& path, const Job& job, const Plan& plan, const Shop& shop) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter pdf(&buffer);
        pdf.setResolution(600);
        pdf.setPageSize(QPageSize(shop.letter ? QPageSize::Letter : QPageSize::A4));
        pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
        pdf.setTitle(QString::fromStdString(job.name));
        QPainter p(&pdf);
        p.scale(600 / 25.4, 600 / 25.4);
        draw_sheet(p, sheet_size_mm(shop), job, plan, shop, [&] { pdf.newPage(); });
    }
    return write_whole(path, bytes);
}

}  // namespace yb
