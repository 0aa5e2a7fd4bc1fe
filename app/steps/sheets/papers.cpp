#include "app/steps/sheets/papers.h"

#include <algorithm>
#include <set>

#include <QDate>
#include <QLocale>
#include <QPdfWriter>

#include "app/ground/session/whole_file.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/steps/sheets/sheet.h"
#include "core/ground/calendar/calendar.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/shop/job/skin_of.h"
#include "core/shop/job/steps.h"
#include "core/shop/record/agreement.h"
#include "core/steps/days/days.h"
#include "core/steps/skin/skin.h"
#include "core/steps/top/top.h"

namespace yb {

namespace {

QString day(const std::string& iso) {
    const QDate d = QDate::fromString(QString::fromStdString(iso.substr(0, 10)), Qt::ISODate);
    return d.isValid() ? QLocale().toString(d, QStringLiteral("d MMMM yyyy")) : QString::fromStdString(iso);
}

QString text(const std::string& s) { return QString::fromStdString(s); }

/// "1284.50 crowns".
QString money(Cents c, const Shop& shop) {
    return shop.money.currency.empty() ? text(in_decimals(c))
                                       : QStringLiteral("%1 %2").arg(text(in_decimals(c)), text(shop.money.currency));
}

/// The woods of a top, each once, with the tree where it is known.
QStringList woods_of(const Plan& plan) {
    QStringList out;
    for (const LeafPlan& l : plan.leaves) {
        if (!l.made) continue;
        const Slab& s = l.slab();
        const QString wood = s.tree.empty() ? told(s.species) : QObject::tr("%1, of %2").arg(told(s.species), text(s.tree));
        if (!out.contains(wood)) out << wood;
    }
    return out;
}

}  // namespace

QString write_paper(const QString& path, const Shop& shop, const Flow::Words& words, const std::function<void(Flow&)>& write) {
    SheetLook look;
    const auto once = [&](QPainter& p, bool finding, const std::function<void()>& next) {
        Flow flow(p, sheet_size_mm(shop), next, words, look, finding);
        write(flow);
    };
    paint_pdf(shop, {}, [&](QPainter& dry, QPdfWriter&) { once(dry, true, [] {}); });
    return write_whole(path, paint_pdf(shop, words.title, [&](QPainter& p, QPdfWriter& pdf) { once(p, false, [&] { pdf.newPage(); }); }));
}

QString write_agreement_pdf(const QString& path, const Job& job, const Plan& plan, const Shop& shop, const std::string& on) {
    return write_paper(path, shop,
                       {QObject::tr("What is agreed"), text(shop.name), text(job.name),
                        QObject::tr("Wood is a grown thing: it goes on moving with the air it stands in.")},
                       [&](Flow& flow) {
                           flow.matter(text(job.name), 0, {}, [&](Flow& page) {
                               page.note(job.client.empty() ? day(on) : QObject::tr("For %1, on %2").arg(text(job.client), day(on)), 13);
                               page.gap(3);
                               for (const AgreedLine& l : to_agree(plan, job, shop)) page.note(QStringLiteral("•  ") + told(l.says), 14);
                               if (!job.money.not_included.empty())
                                   page.note(QObject::tr("Not included: %1").arg(text(job.money.not_included)), 13);
                               page.gap(24);
                               page.need(40);
                               page.table(
                                   {{QObject::tr("place and day"), 2}, {QObject::tr("for the shop"), 2}, {QObject::tr("the client"), 2}},
                                   {{QString(), QString(), QString()}}, 13);
                           });
                       });
}

QString write_book_pdf(const QString& path, const Job& job, const std::vector<BookLine>& lines, const Shop& shop) {
    return write_paper(
        path, shop,
        {QObject::tr("The book"), text(shop.name), text(job.name),
         QObject::tr("Lines are only ever added; what was wrong is corrected by a line that names it.")},
        [&](Flow& flow) {
            flow.matter(text(job.name), 0, {}, [&](Flow& page) {
                std::vector<std::vector<QString>> rows;
                for (const BookLine& l : lines) {
                    const BookEntry& e = l.entry;
                    if (e.job != job.id) continue;
                    const QString value = text(e.value + (e.unit.empty() ? "" : " " + e.unit));
                    const QString what = e.what.empty()    ? value
                                         : value.isEmpty() ? told(e.what)
                                                           : QStringLiteral("%1: %2").arg(told(e.what), value);
                    rows.push_back({QString::number(e.id), text(e.at).left(16).replace('T', ' '), told(e.kind),
                                    l.corrected_by ? QObject::tr("%1 (corrected by %2)").arg(what, QString::number(l.corrected_by)) : what,
                                    text(e.of)});
                }
                if (rows.empty()) return page.note(QObject::tr("Nothing of it is in the book yet."));
                page.table({{QObject::tr("line"), 0.6, true},
                            {QObject::tr("when"), 1.7},
                            {QObject::tr("kind"), 1.1},
                            {QObject::tr("what"), 4},
                            {QObject::tr("of"), 1.6}},
                           rows);
            });
        });
}

QString write_label_pdf(const QString& path, const Job& job, const Plan& plan, const Shop& shop) {
    const std::string year = (job.record.delivered.empty() ? job.start : job.record.delivered).substr(0, 4);
    return write_whole(
        path, paint_pdf(shop, QObject::tr("Label"), [&](QPainter& p, QPdfWriter&) {
            const auto& c = theme::colours();
            const QRectF card(20, 20, 90, 55);
            p.setPen(QPen(c.ink, 0.4));
            p.drawRect(card);
            p.setPen(QPen(c.brass, 0.8));
            p.drawLine(QPointF(26, 36), QPointF(104, 36));
            p.setPen(c.ink);
            const auto put = [&](double y, const QString& said, double mm, bool slab) {
                QFont f = slab ? theme::figures(10) : theme::text(10);
                f.setPixelSize(100);
                p.save();
                p.translate(26, y);
                p.scale(mm / 100, mm / 100);
                p.setFont(f);
                p.drawText(QPointF(0, 0), p.fontMetrics().elidedText(said, Qt::ElideRight, static_cast<int>(78 / (mm / 100))));
                p.restore();
            };
            put(32, text(shop.name), 6, true);
            put(43, text(job.name), 4.4, false);
            put(50, woods_of(plan).join(QStringLiteral("; ")), 3.6, false);
            put(57, text(year), 4.4, true);
            put(67, job.record.number.empty() ? QObject::tr("No. –") : QObject::tr("No. %1 in our book").arg(text(job.record.number)), 5,
                true);
        }));
}

QString write_offer_pdf(const QString& path, const std::vector<OfferedWay>& ways, const Shop& shop, const std::string& on) {
    if (ways.empty()) return QObject::tr("There is nothing to offer yet: lay a top first.");
    const Job& first = *ways.front().job;
    const std::string until = is_date(on) ? date_after(on, shop.money.valid_days * 24) : on;
    const auto as = [&](Quantity q) { return text(format(q, shop.units)); };
    // Nothing that has no price may be left out of a sum unsaid.
    std::set<std::string> missing;
    for (const OfferedWay& w : ways)
        for (const std::string& m : money_of(*w.plan, *w.job, shop).missing) missing.insert(m);
    return write_paper(
        path, shop, {QObject::tr("Offer"), text(shop.name), text(first.name), QObject::tr("Valid until %1.").arg(day(until))},
        [&](Flow& flow) {
            for (const OfferedWay& w : ways) {
                const Money m = money_of(*w.plan, *w.job, shop);
                const QString title = ways.size() > 1 ? QObject::tr("%1: %2").arg(text(first.name), w.name) : text(first.name);
                flow.matter(title, w.picture.isNull() ? 0 : 96, w.picture.isNull() ? std::function<void(QPainter&, const QRectF&)>() : [&](QPainter& p, const QRectF& box) {
                const QSizeF size = QSizeF(w.picture.size()).scaled(box.size(), Qt::KeepAspectRatio);
                p.setRenderHint(QPainter::SmoothPixmapTransform);
                p.drawImage(QRectF(box.center() - QPointF(size.width() / 2, size.height() / 2), size), w.picture);
            }, [&](Flow& page) {
                page.figures({{QObject::tr("price"), money(m.offer, shop)}, {QObject::tr("ready about"), day(w.plan->days->ready)}});
                if (m.tax != 0) page.note(QObject::tr("%1 of it is tax.").arg(money(m.tax, shop)));
                page.heading(QObject::tr("What it is"));
                page.note(QObject::tr("Wood: %1.").arg(woods_of(*w.plan).join(QStringLiteral("; "))));
                for (const AgreedLine& l : to_agree(*w.plan, *w.job, shop))
                    if (l.key != "price") page.note(QStringLiteral("•  ") + told(l.says));
                page.heading(QObject::tr("How it is kept"));
                for (const Phrase& c : care_of(skin_of(*w.plan))) page.note(QStringLiteral("•  ") + told(render(c, shop.units)));
                if (!w.job->money.not_included.empty()) {
                    page.heading(QObject::tr("Not included"));
                    page.note(text(w.job->money.not_included));
                }
            });
            }
            if (ways.size() > 1)
                flow.matter(QObject::tr("The ways side by side"), 0, {}, [&](Flow& page) {
                    std::vector<std::vector<QString>> rows;
                    for (const OfferedWay& w : ways)
                        rows.push_back({w.name, as(mm(w.plan->top->thickness_mm)), as(kg(w.plan->top->mass_kg)), day(w.plan->days->ready),
                                        money(money_of(*w.plan, *w.job, shop).offer, shop)});
                    page.table({{QObject::tr("way"), 3},
                                {QObject::tr("thick"), 1.2, true},
                                {QObject::tr("weighs"), 1.3, true},
                                {QObject::tr("ready about"), 2},
                                {QObject::tr("price"), 2, true}},
                               rows, 12);
                });
            if (!missing.empty())
                flow.matter(QObject::tr("Not in these sums yet"), 0, {}, [&](Flow& page) {
                    for (const std::string& m : missing) page.note(QStringLiteral("•  ") + told(m));
                    page.note(QObject::tr("These have no price on the shop's page: type them before the offer is sent."));
                });
        });
}

QString write_shopping_pdf(const QString& path, const Job& job, const Plan& plan, const Shop& shop) {
    return write_paper(
        path, shop,
        {QObject::tr("To buy"), text(shop.name), text(job.name), QObject::tr("What is on the shelf is taken off; kits are whole.")},
        [&](Flow& flow) {
            flow.matter(QObject::tr("To buy for %1").arg(text(job.name)), 0, {}, [&](Flow& page) {
                const auto list = shopping_list(plan, job, shop);
                const auto number = [](double v) { return QLocale::c().toString(std::round(v * 1000) / 1000, 'g', 7); };
                std::optional<NeedKind> kind;
                std::vector<std::vector<QString>> rows;
                const auto put = [&] {
                    if (rows.empty()) return;
                    page.heading(told(name_of(*kind)));
                    page.table({{QObject::tr("what"), 3.4},
                                {QObject::tr("needed"), 1.2, true},
                                {QObject::tr("on the shelf"), 1.2, true},
                                {QObject::tr("to buy"), 1.2, true},
                                {QObject::tr("costs"), 1.6, true}},
                               rows);
                    rows.clear();
                };
                for (const ShoppingLine& l : list) {
                    if (kind != l.need.kind) put(), kind = l.need.kind;
                    const QString unit = QStringLiteral(" ") + told(l.need.unit);
                    rows.push_back({told(l.need.what), number(l.need.amount) + unit,
                                    l.need.left ? number(*l.need.left) + unit : QStringLiteral("–"), number(l.need.buys()) + unit,
                                    l.cost ? money(*l.cost, shop) : QObject::tr("no price")});
                }
                put();
                if (list.empty()) page.note(QObject::tr("Nothing is to be bought."));
            });
        });
}

}  // namespace yb
