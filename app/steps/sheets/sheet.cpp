#include "app/steps/sheets/sheet.h"

#include <QBuffer>
#include <QDate>
#include <QLocale>
#include <QPageSize>
#include <QPdfWriter>
#include <QPrinter>

#include "app/ground/session/whole_file.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/step_views.h"
#include "app/steps/sheets/sheets.h"
#include "core/shop/days/season.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/flat/flat.h"
#include "core/steps/lay/lay.h"

namespace yb {

QSizeF sheet_size_mm(const Shop& shop) { return shop.letter ? QSizeF(215.9, 279.4) : QSizeF(210, 297); }

QString SheetData::say(Quantity q) const { return QString::fromStdString(format(q, shop.units)); }
QString SheetData::say(const Phrase& phrase) const { return QString::fromStdString(render(phrase, shop.units)); }
const WantedTop& SheetData::top() const { return job.top; }
const MakeUpChoices& SheetData::makeup() const { return job.makeup; }
const FlatChoices& SheetData::flat() const { return job.flat; }
const PourChoices& SheetData::pour() const { return job.pour; }
const JoinChoices& SheetData::join() const { return job.join; }
const UnderChoices& SheetData::under() const { return job.under; }
bool SheetData::several() const { return job.several(); }
bool SheetData::face_b_up(std::size_t leaf) const { return job.leaves.at(leaf).placement.turned_over; }
QString SheetData::job_name() const { return QString::fromStdString(job.name); }

namespace {

QString about(const Job& job, const Plan& plan, const SheetData& d) {
    const std::string species = plan.leaves.empty() ? std::string() : plan.leaves.front().slab().species;
    return d.say(plan.title) + QString::fromStdString(" · " + species + " · ") +
           (job.several()                       ? told(name_of(job.makeup.kind))
            : job.first().placement.turned_over ? QObject::tr("turned over")
                                                : QObject::tr("face A up")) +
           QObject::tr(" · wanted %1 × %2 × %3")
               .arg(d.say(mm(job.top.length_mm)), d.say(mm(job.top.width_mm)), d.say(fine(job.top.thickness_mm)));
}

/// Writes all matters one after another.
void write_all(QPainter& p, QSizeF size, const SheetData& data, SheetLook& look, bool finding, const std::function<void()>& next_page) {
    Flow flow(
        p, size, next_page,
        {QString::fromStdString(data.job.name), QString::fromStdString(data.shop.name), about(data.job, data.plan, data),
         QObject::tr("Weights, loads and lifting are estimates for the maker's judgement; local codes and licensed practice stand above "
                     "them.")},
        look, finding);
    write_first_sheet(flow, data);
    write_cut_sheet(flow, data);
    for (const StepViewRow& row : step_views())
        if (row.sheet) row.sheet(flow, data);
    write_packing_sheet(flow, data);
    write_mind_sheet(flow, data);
}

void set_up(QPdfWriter& pdf, const Shop& shop) {
    pdf.setResolution(600);
    pdf.setPageSize(QPageSize(shop.letter ? QPageSize::Letter : QPageSize::A4));
    pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
}

bool far_enough(const Plan& plan) { return plan.lay->ready && plan.flat->ready; }

}  // namespace

QByteArray paint_pdf(const Shop& shop, const QString& title, const std::function<void(QPainter&, QPdfWriter&)>& paint) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter pdf(&buffer);
    set_up(pdf, shop);
    if (!title.isEmpty()) pdf.setTitle(title);
    QPainter p(&pdf);
    p.scale(pdf.resolution() / 25.4, pdf.resolution() / 25.4);
    paint(p, pdf);
    p.end();
    return bytes;
}

SheetLook look_of(const Job& job, const Plan& plan, const Shop& shop) {
    SheetLook look;
    if (!far_enough(plan)) return look;
    // On paper that nobody keeps: letters are as wide on it as they will be. Twice: the first page tells what is on which.
    paint_pdf(shop, {}, [&](QPainter& dry, QPdfWriter&) {
        for (int i = 0; i < 2; ++i) write_all(dry, sheet_size_mm(shop), {job, plan, shop}, look, true, [] {});
    });
    return look;
}

void draw_sheet(QPainter& p, QSizeF size, const Job& job, const Plan& plan, const Shop& shop, const SheetLook& look,
                const std::function<void()>& next_page) {
    if (!far_enough(plan)) {
        p.setFont(theme::text(4));  // its unit is a millimetre
        p.drawText(QRectF(12, 12, size.width() - 24, 40), Qt::TextWordWrap,
                   QObject::tr("The slab is not measured far enough for a sheet."));
        return;
    }
    SheetLook found = look;
    write_all(p, size, {job, plan, shop}, found, false, next_page);
}

QString print_sheet(QPrinter& printer, const Job& job, const Plan& plan, const Shop& shop) {
    printer.setPageSize(QPageSize(shop.letter ? QPageSize::Letter : QPageSize::A4));
    printer.setFullPage(true);
    QPainter p;
    if (!p.begin(&printer)) return QObject::tr("The printer did not take the sheet. Look whether it is on, or save a PDF.");
    const double k = printer.resolution() / 25.4;
    p.scale(k, k);
    draw_sheet(p, sheet_size_mm(shop), job, plan, shop, look_of(job, plan, shop), [&] { printer.newPage(); });
    return {};
}

namespace {

QString day_named(const std::string& iso) {
    return QLocale().toString(QDate::fromString(QString::fromStdString(iso), Qt::ISODate), QStringLiteral("dddd d MMMM"));
}

void write_week(QPainter& p, const Season& season, const std::string& day, const Shop& shop, SheetLook& look, bool finding,
                const std::function<void()>& next_page) {
    const auto as = [&](Quantity q) { return QString::fromStdString(format(q, shop.units)); };
    const auto clock = [](double h) {
        const int minutes = static_cast<int>(std::lround(h * 60));
        return QStringLiteral("%1:%2").arg(minutes / 60).arg(minutes % 60, 2, 10, QLatin1Char('0'));
    };
    Flow flow(p, sheet_size_mm(shop), next_page,
              {QObject::tr("The days"), QString::fromStdString(shop.name), day_named(day),
               QObject::tr("Hours are estimates; what is late moves the rest.")},
              look, finding);
    const auto table_of = [&](Flow& page, const Today& t, double points) {
        std::vector<std::vector<QString>> rows;
        for (const TodayLine& l : t.hands)
            rows.push_back({l.goes_on ? QObject::tr("goes on") : clock(l.from_h), QString::fromStdString(l.job), told(l.label),
                            as(hours(l.hands_h)), l.waits_h > 0 ? as(hours(l.waits_h)) : QString()});
        if (rows.empty()) return page.note(QObject::tr("Nothing that wants hands."), points);
        page.table({{QObject::tr("from"), 1.2},
                    {QObject::tr("job"), 3},
                    {QObject::tr("what"), 2.6},
                    {QObject::tr("takes"), 1.2, true},
                    {QObject::tr("then waits"), 1.4, true}},
                   rows, points);
    };
    flow.matter(day_named(day), 0, {}, [&](Flow& page) {
        const Today t = today_of(season, day);
        table_of(page, t, 14);
        page.heading(QObject::tr("Before going home"));
        if (t.set_going.empty()) page.note(QObject::tr("Nothing that waits over the night."), 13);
        for (const TodayLine& l : t.set_going)
            page.note(QObject::tr("%1 of %2: it waits for %3 from then on.")
                          .arg(told(l.label), QString::fromStdString(l.job), as(hours(l.waits_h))),
                      13);
        if (!t.order_by.empty()) page.heading(QObject::tr("To be ordered this week"));
        for (const TodayLine& l : t.order_by)
            page.note(QObject::tr("%1 for %2, by %3").arg(told(l.label), QString::fromStdString(l.job), day_named(l.by)), 13);
    });
    flow.matter(QObject::tr("The week"), 0, {}, [&](Flow& page) {
        for (int d = 1; d <= 6; ++d) {
            const std::string iso = date_after(day, d * 24.0);
            const Today t = today_of(season, iso);
            if (t.hands.empty()) continue;
            page.need(30);
            page.heading(day_named(iso));
            table_of(page, t, 11);
        }
    });
}

}  // namespace

QString write_week_pdf(const QString& path, const Season& season, const std::string& day, const Shop& shop) {
    SheetLook look;
    paint_pdf(shop, {}, [&](QPainter& dry, QPdfWriter&) { write_week(dry, season, day, shop, look, true, [] {}); });
    return write_whole(path, paint_pdf(shop, {}, [&](QPainter& p, QPdfWriter& pdf) {
                           write_week(p, season, day, shop, look, false, [&] { pdf.newPage(); });
                       }));
}

QString write_sheet_pdf(const QString& path, const Job& job, const Plan& plan, const Shop& shop) {
    const SheetLook look = look_of(job, plan, shop);
    return write_whole(path, paint_pdf(shop, QString::fromStdString(job.name), [&](QPainter& p, QPdfWriter& pdf) {
                           draw_sheet(p, sheet_size_mm(shop), job, plan, shop, look, [&] { pdf.newPage(); });
                       }));
}

}  // namespace yb
