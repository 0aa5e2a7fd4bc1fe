// The sheets as they are printed: read at arm's length, no page half blank.
#include <QRegularExpression>

#include <QPdfWriter>
#include "core/steps/under/under.h"

#include "app/steps/sheets/sheet.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/lay/lay.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

struct OnPage {
    double top = 0, bottom = 0;
    QString text;
    double left = 0, right = 0;
};

QString plain(QString text) {
    return text.replace("&lt;", "<")
        .replace("&gt;", ">")
        .replace("&quot;", "\"")
        .replace("&apos;", "'")
        .replace("&#39;", "'")
        .replace("&amp;", "&");
}

/// Every word of a PDF by page, places in points from the upper edge.
std::vector<std::vector<OnPage>> words_of_pdf(const QString& path, double& height) {
    QProcess read;
    read.start("pdftotext", {"-bbox", path, "-"});
    REQUIRE(read.waitForFinished());
    std::vector<std::vector<OnPage>> out;
    static const QRegularExpression page("<page width=\"[0-9.]+\" height=\"([0-9.]+)\">");
    static const QRegularExpression word(
        "<word xMin=\"([-0-9.]+)\" yMin=\"([-0-9.]+)\" xMax=\"([-0-9.]+)\" yMax=\"([-0-9.]+)\">(.*)</word>");
    for (const QString& line : QString::fromUtf8(read.readAllStandardOutput()).split('\n')) {
        if (const auto p = page.match(line); p.hasMatch()) height = p.captured(1).toDouble(), out.emplace_back();
        if (const auto w = word.match(line); w.hasMatch() && !out.empty())
            out.back().push_back({w.captured(2).toDouble(), w.captured(4).toDouble(), plain(w.captured(5)), w.captured(1).toDouble(),
                                  w.captured(3).toDouble()});
    }
    return out;
}

}  // namespace

namespace {

/// Letters as large as is read at arm's length, and no page half blank.
void read_at_arms_length(const std::vector<std::vector<OnPage>>& pages, double height) {
    for (std::size_t i = 0; i < pages.size(); ++i) {
        INFO("page " << i + 1 << " of " << pages.size());
        double low = 0;
        for (const OnPage& w : pages[i]) {
            // A line of 11 points is 13 high and more in both typefaces; a turned word is as high as it is long.
            INFO(w.text.toStdString());
            CHECK(w.bottom - w.top >= 12.5);
            if (w.bottom < height - 50) low = std::max(low, w.bottom);
        }
        // What is to be minded runs on to a last page and ends where it ends.
        CHECK(low > (i + 1 == pages.size() ? 0.25 : 0.5) * height);
    }
}

void none_on_another(const std::vector<std::vector<OnPage>>& pages) {
    for (std::size_t i = 0; i < pages.size(); ++i)
        for (std::size_t a = 0; a < pages[i].size(); ++a)
            for (std::size_t b = a + 1; b < pages[i].size(); ++b) {
                const OnPage& x = pages[i][a];
                const OnPage& y = pages[i][b];
                // A box is as high as its line; letters fill the middle of it.
                const double over = std::min(x.right, y.right) - std::max(x.left, y.left);
                const double under = std::min(x.bottom, y.bottom) - std::max(x.top, y.top);
                const double high = std::min(x.bottom - x.top, y.bottom - y.top);
                if (over < 1 || under < 0.45 * high) continue;
                INFO("page " << i + 1 << ": " << x.text.toStdString() << " and " << y.text.toStdString());
                CHECK(false);
            }
}

/// How often each word is on each page, in what was to be written and in what is read; nothing beyond the paper.
void all_on_paper(const std::vector<std::vector<OnPage>>& pages, double height, double wide,
                  const std::vector<std::pair<int, QString>>& written) {
    std::vector<std::map<QString, int>> there(pages.size()), asked(pages.size());
    for (std::size_t i = 0; i < pages.size(); ++i)
        for (const OnPage& w : pages[i]) {
            ++there[i][w.text];
            INFO("page " << i + 1 << ": " << w.text.toStdString());
            CHECK((w.left >= 0 && w.right <= wide + 0.5 && w.bottom <= height + 0.5));
        }
    static const QRegularExpression blank("\\s+");
    for (const auto& [page, text] : written) {
        REQUIRE(page >= 1);
        REQUIRE(static_cast<std::size_t>(page) <= pages.size());
        for (const QString& word : text.split(blank, Qt::SkipEmptyParts)) ++asked[static_cast<std::size_t>(page) - 1][word];
    }
    for (std::size_t i = 0; i < pages.size(); ++i)
        for (const auto& [word, times] : asked[i]) {
            INFO("page " << i + 1 << ": " << word.toStdString());
            CHECK(there[i][word] >= times);
        }
}

}  // namespace

TEST_CASE(
    "every page of every job: each word of each cell is there, none on another, read at arm's length, each place with its side of the line",
    "[app][sheets]") {
    Desk desk;
    const Documents docs = desk.session().documents();
    for (const bool metric : {true, false}) {
        Shop shop = docs.shop;
        if (!metric) shop.units.length = LengthStyle::inches_16;
        for (const auto& [id, job] : docs.jobs) {
            const Plan plan = plan_job(job, docs);
            if (!plan.lay->ready) continue;
            INFO(id << (metric ? "" : ", inches"));
            SheetLook look = look_of(job, plan, shop);
            std::vector<std::pair<int, QString>> written;
            look.written = &written;
            const QByteArray pdf = paint_pdf(shop, {}, [&](QPainter& p, QPdfWriter& paper) {
                draw_sheet(p, sheet_size_mm(shop), job, plan, shop, look, [&] { paper.newPage(); });
            });
            const QString path = desk.dir.filePath("cells.pdf");
            QFile file(path);
            REQUIRE(file.open(QIODevice::WriteOnly));
            file.write(pdf);
            file.close();
            double height = 0;
            const auto pages = words_of_pdf(path, height);
            REQUIRE_FALSE(pages.empty());
            REQUIRE(written.size() > 40);
            if (metric) read_at_arms_length(pages, height);
            none_on_another(pages);
            all_on_paper(pages, height, sheet_size_mm(shop).width() / 25.4 * 72, written);
            int holes = 0, sides = 0;
            for (const Slot& s : plan.under->slots) holes += std::abs(s.from_fixed_mm) > 0.5;
            for (const auto& page : pages)
                for (const OnPage& w : page) sides += w.text == "left" || w.text == "right";
            CHECK(sides >= holes);
        }
    }
}

TEST_CASE("what is cut and drilled stands in sixteen points", "[app][sheets]") {
    Desk desk;
    const QString pdf = desk.dir.filePath("sheet.pdf");
    REQUIRE(desk.window->save_pdf(pdf));
    double height = 0;
    int large = 0;
    for (const auto& page : words_of_pdf(pdf, height))
        for (const OnPage& w : page) large += w.bottom - w.top >= 19;
    CHECK(large > 60);
}
