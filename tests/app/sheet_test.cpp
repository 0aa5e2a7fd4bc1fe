// The sheets as they are printed: read at arm's length, no page half blank.
#include <QRegularExpression>

#include "core/steps/under/under.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

struct OnPage {
    double top = 0, bottom = 0;
    QString text;
    double left = 0, right = 0;
};

/// Every word of a PDF by page, places in points from the upper edge.
std::vector<std::vector<OnPage>> words_of_pdf(const QString& path, double& height) {
    QProcess read;
    read.start("pdftotext", {"-bbox", path, "-"});
    REQUIRE(read.waitForFinished());
    std::vector<std::vector<OnPage>> out;
    static const QRegularExpression page("<page width=\"[0-9.]+\" height=\"([0-9.]+)\">");
    static const QRegularExpression word("<word xMin=\"([-0-9.]+)\" yMin=\"([-0-9.]+)\" xMax=\"([-0-9.]+)\" yMax=\"([-0-9.]+)\">(.*)</word>");
    for (const QString& line : QString::fromUtf8(read.readAllStandardOutput()).split('\n')) {
        if (const auto p = page.match(line); p.hasMatch()) height = p.captured(1).toDouble(), out.emplace_back();
        if (const auto w = word.match(line); w.hasMatch() && !out.empty())
            out.back().push_back({w.captured(2).toDouble(), w.captured(4).toDouble(), w.captured(5), w.captured(1).toDouble(), w.captured(3).toDouble()});
    }
    return out;
}

}  // namespace

TEST_CASE("sheets are read at arm's length and no page is half blank", "[app][sheets]") {
    Desk desk;
    for (const auto& [id, name] : desk.session().job_names()) {
        desk.session().set_job(QString::fromStdString(id));
        const QString pdf = desk.dir.filePath("sheet.pdf");
        if (!desk.session().plan()->said(step_key::lay).ready) continue;
        REQUIRE(desk.window->save_pdf(pdf));
        double height = 0;
        const auto pages = words_of_pdf(pdf, height);
        REQUIRE_FALSE(pages.empty());
        for (std::size_t i = 0; i < pages.size(); ++i) {
            INFO(id << " page " << i + 1 << " of " << pages.size());
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
}

TEST_CASE("no word of a sheet lies on another, and every place is told with its side of the line", "[app][sheets]") {
    Desk desk;
    for (const bool metric : {true, false}) {
        if (desk.session().units().metric_length() != metric) desk.click("units");
        for (const auto& [id, name] : desk.session().job_names()) {
            desk.session().set_job(QString::fromStdString(id));
            const QString pdf = desk.dir.filePath("sheet.pdf");
            if (!desk.session().plan()->said(step_key::lay).ready) continue;
            REQUIRE(desk.window->save_pdf(pdf));
            double height = 0;
            const auto pages = words_of_pdf(pdf, height);
            int sides = 0;
            for (std::size_t i = 0; i < pages.size(); ++i) {
                INFO(id << " page " << i + 1 << (metric ? "" : ", inches"));
                for (std::size_t a = 0; a < pages[i].size(); ++a) {
                    const OnPage& x = pages[i][a];
                    if (x.text == "left" || x.text == "right") ++sides;
                    for (std::size_t b = a + 1; b < pages[i].size(); ++b) {
                        const OnPage& y = pages[i][b];
                        // A box is as high as its line; letters fill the middle of it.
                        const double over = std::min(x.right, y.right) - std::max(x.left, y.left);
                        const double under = std::min(x.bottom, y.bottom) - std::max(x.top, y.top);
                        const double high = std::min(x.bottom - x.top, y.bottom - y.top);
                        if (over < 1 || under < 0.45 * high) continue;
                        INFO(x.text.toStdString() << " and " << y.text.toStdString());
                        CHECK(false);
                    }
                }
            }
            const auto plan = desk.session().plan_of_whole();
            int holes = 0;
            for (const Slot& s : plan->under->slots) holes += std::abs(s.from_fixed_mm) > 0.5;
            INFO(id);
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
