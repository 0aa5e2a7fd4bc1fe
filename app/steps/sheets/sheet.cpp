#include "app/steps/sheets/sheet.h"

#include <QBuffer>
#include <QPageSize>
#include <QPdfWriter>
#include <QPrinter>

#include "app/ground/session/whole_file.h"
#include "app/kit/step_views.h"
#include "app/steps/sheets/sheets.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "core/steps/flat/flat.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
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
    Flow flow(p, size, next_page,
              {QString::fromStdString(data.job.name), QString::fromStdString(data.shop.name), about(data.job, data.plan, data),
               QObject::tr("Weights, loads and lifting are estimates for the maker's judgement; local codes and licensed practice stand above "
                           "them.")},
              look, finding);
    write_first_sheet(flow, data);
    write_cut_sheet(flow, data);
    for (const StepViewRow& row : step_views())
        if (row.sheet) row.sheet(flow, data);
    write_mind_sheet(flow, data);
}

void set_up(QPdfWriter& pdf, const Shop& shop) {
    pdf.setResolution(600);
    pdf.setPageSize(QPageSize(shop.letter ? QPageSize::Letter : QPageSize::A4));
    pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
}

bool far_enough(const Plan& plan) { return plan.lay->ready && plan.flat->ready; }

}  // namespace

SheetLook look_of(const Job& job, const Plan& plan, const Shop& shop) {
    SheetLook look;
    if (!far_enough(plan)) return look;
    // On paper that nobody keeps: letters are as wide on it as they will be.
    QByteArray bytes;
    QBuffer nowhere(&bytes);
    nowhere.open(QIODevice::WriteOnly);
    QPdfWriter pdf(&nowhere);
    set_up(pdf, shop);
    QPainter dry(&pdf);
    dry.scale(pdf.resolution() / 25.4, pdf.resolution() / 25.4);
    // Twice: the first page tells what is on which.
    for (int i = 0; i < 2; ++i) write_all(dry, sheet_size_mm(shop), {job, plan, shop}, look, true, [] {});
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

QString write_sheet_pdf(const QString& path, const Job& job, const Plan& plan, const Shop& shop) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter pdf(&buffer);
        set_up(pdf, shop);
        pdf.setTitle(QString::fromStdString(job.name));
        QPainter p(&pdf);
        p.scale(600 / 25.4, 600 / 25.4);
        draw_sheet(p, sheet_size_mm(shop), job, plan, shop, look_of(job, plan, shop), [&] { pdf.newPage(); });
    }
    return write_whole(path, bytes);
}

}  // namespace yb
