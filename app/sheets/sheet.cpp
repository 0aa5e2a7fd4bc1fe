#include "app/sheets/sheet.h"

#include <cmath>

#include <QBuffer>
#include <QImage>
#include <QPageSize>
#include <QPdfWriter>
#include <QPrinter>

#include "app/session/whole_file.h"
#include "app/sheets/sheets.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/flat/flat.h"
#include "core/job/documents.h"
#include "core/lay/lay.h"

namespace yb {

QSizeF sheet_size_mm(const Shop& shop) { return shop.letter ? QSizeF(215.9, 279.4) : QSizeF(210, 297); }

QString SheetData::say(Quantity q) const { return QString::fromStdString(format(q, shop.units)); }
QString SheetData::say(const Phrase& phrase) const { return QString::fromStdString(render(phrase, shop.units)); }

namespace {

const SheetRow table[] = {{"bench", write_bench_sheet},
                          {"pour", write_pour_sheet},
                          {"under", write_under_sheet},
                          {"cuts", write_cut_sheet},
                          {"mind", write_mind_sheet}};

QString about(const Job& job, const Plan& plan, const SheetData& d) {
    const std::string species = plan.leaves.empty() ? std::string() : plan.leaves.front().slab().species;
    return d.say(plan.title) + QString::fromStdString(" · " + species + " · ") +
           (job.several()                       ? told(name_of(job.makeup.kind))
            : job.first().placement.turned_over ? QObject::tr("turned over")
                                                : QObject::tr("face A up")) +
           QObject::tr(" · wanted %1 × %2 × %3")
               .arg(d.say(mm(job.top.length_mm)), d.say(mm(job.top.width_mm)), d.say(fine(job.top.thickness_mm)));
}

}  // namespace

std::span<const SheetRow> sheets() { return table; }

void draw_sheet(QPainter& p, QSizeF size, const Job& job, const Plan& plan, const Shop& shop, const std::function<void()>& next_page) {
    if (!plan.lay->ready || !plan.flat->ready) {
        p.setFont(theme::text(4));  // its unit is a millimetre
        p.drawText(QRectF(12, 12, size.width() - 24, 40), Qt::TextWordWrap,
                   QObject::tr("The slab is not measured far enough for a sheet."));
        return;
    }
    SheetData data{job, plan, shop};
    const QString foot = QObject::tr(
        "Weights, loads and lifting are estimates for the maker's judgement; local codes and licensed practice stand above them.");
    const auto write = [&](QPainter& on, const std::function<void()>& turn) {
        Flow flow(on, size, turn, QString::fromStdString(job.name), QString::fromStdString(shop.name), about(job, plan, data), foot);
        for (const SheetRow& row : sheets()) row.write(flow, data);
        return std::pair(flow.pages(), flow.filled());
    };
    // The drawing as large as leaves no page half blank: tried without ink first.
    QImage nowhere(1, 1, QImage::Format_ARGB32);
    nowhere.setDotsPerMeterX(static_cast<int>(std::lround(p.device()->logicalDpiX() / 0.0254)));
    nowhere.setDotsPerMeterY(static_cast<int>(std::lround(p.device()->logicalDpiY() / 0.0254)));
    QPainter dry(&nowhere);
    dry.setClipRect(QRectF(-1, -1, 0.1, 0.1));
    double best = -1;
    double best_mm = data.drawing_mm;
    for (const double mm : {170.0, 140.0, 112.0, 88.0, 66.0}) {
        data.drawing_mm = mm;
        const auto [pages, filled] = write(dry, [] {});
        const double worth = std::min(filled, 0.62) - 0.001 * pages;
        if (worth > best + 0.02) best = worth, best_mm = mm;
        if (filled >= 0.6) break;
    }
    dry.end();
    data.drawing_mm = best_mm;
    write(p, next_page);
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
