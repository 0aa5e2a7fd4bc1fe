// Pictures of the program taken by itself: of one step while working on it, of every view for the docs.
#include "app/looks.h"
#include "app/ground/slow/runner.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QDate>
#include <QDir>
#include <QElapsedTimer>
#include <QPainter>
#include <QPushButton>
#include <QSettings>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTimer>

#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <memory>
#include <string_view>

#include "app/application.h"
#include "app/ground/slow/long_work.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/bench/bench.h"
#include "app/main_window.h"
#include "app/pages/book/book_page.h"
#include "app/pages/card/card_page.h"
#include "app/pages/days/days_page.h"
#include "app/pages/find/find_page.h"
#include "app/pages/jobs/jobs_page.h"
#include "app/pages/money/money_page.h"
#include "app/steps/sheets/papers.h"
#include "core/files/io/job_file.h"
#include "core/ground/file/file.h"
#include "core/shop/edit/edits.h"
#include "core/shop/job/steps.h"

namespace yb {

namespace {

/// A card in the midst of it, by a clock of its own.
void run_card(MainWindow& window, const QString& card) {
    CardPage* page = window.show_card(card);
    double now = 1795680000;
    page->set_clock([&now] { return now; });
    page->start();
    for (const double took : {780.0, 260.0, 350.0, 370.0, 190.0}) {
        now += took;
        page->tick_off();
    }
    now += 140;
    page->set_clock([at = now] { return at; });
}

/// All jobs on the rule, as on a day.
void show_days_at(MainWindow& window, const QString& today) {
    window.show_days();
    auto* page = window.findChild<DaysPage*>();
    page->set_today(today.isEmpty() ? QStringLiteral("2026-12-07") : today);
    page->wait();
}

/// The book with one of its plots.
void show_book_at(MainWindow& window, const QString& plot) {
    window.show_book();
    auto* page = window.findChild<BookPage*>();
    page->show_plot(plot);
    page->wait();
}

void show_money_of(MainWindow& window) {
    window.show_money();
    window.findChild<MoneyPage*>()->wait();
}

}  // namespace

int take_look(MainWindow& window, const QString& job, const QString& step, const QString& path, const QString& thing, QSize size) {
    QTemporaryDir dir;
    window.open_demo(dir.filePath("demo.shop"));
    window.finish_growing();
    window.resize(size);
    window.show();
    window.session().set_job(job);
    if (step == "find") window.show_find_tops();
    else if (step == "log") window.show_log();
    else if (step == "days") show_days_at(window, thing);
    else if (step == "book") show_book_at(window, thing.isEmpty() ? QStringLiteral("moisture") : thing);
    else if (step == "money") show_money_of(window);
    if (const StepRow* row = find_step(step.toLower().toStdString())) window.session().set_step(row->step);
    window.session().pick(thing);
    if (step == "card") run_card(window, thing);
    if (auto* page = window.findChild<FindPage*>(); page && step == "find") page->wait();
    if (auto* order = window.findChild<QPushButton*>("log_order"); order && step == "log") {
        order->click();
        window.long_work().wait();
    }
    window.grab();
    window.finish_growing();
    return window.grab().save(path) ? 0 : 1;
}

int write_offer_of(MainWindow& window, const QString& job_path, const QString& pdf, QString* told) {
    try {
        JobFile file = read_job_file(read_file(job_path.toStdString(), most_json_bytes));
        Documents docs;
        docs.shop = file.shop;
        std::vector<std::pair<std::string, std::string>> pictures;
        const std::string id = take_job_file(
            docs, std::move(file), [](const std::string&) { return std::optional<std::string>(); }, pictures);
        QTemporaryDir dir;
        window.session().create(dir.filePath("offer.shop"), docs);
        window.session().store()->attach(pictures);
        window.session().set_job(QString::fromStdString(id));
        window.resize(1280, 800);
        window.show();
        show_money_of(window);
        auto* page = window.findChild<MoneyPage*>();
        page->offered();  // pictures asked for by the first drawing
        window.finish_growing();
        const auto ways = page->offered();
        std::vector<OfferedWay> all;
        for (const auto& w : ways) all.push_back({w.job.get(), w.plan.get(), w.name, w.picture});
        *told = write_offer_pdf(pdf, all, docs.shop, QDate::currentDate().toString(Qt::ISODate).toStdString());
        return told->isEmpty() ? 0 : all.empty() ? 2 : 1;
    } catch (const std::exception& e) {
        *told = QString::fromStdString(sentence_of(e));
        return 2;
    }
}

int take_screenshots(MainWindow& window, const QString& folder) {
    QTemporaryDir dir;
    window.open_demo(dir.filePath("demo.shop"));
    window.finish_growing();
    QDir().mkpath(folder);
    window.resize(1280, 800);
    window.show();
    const auto shoot = [&](const QString& name) {
        window.grab();
        window.finish_growing();  // pictures asked for by the first painting
        return window.grab().save(folder + "/" + name + ".png");
    };
    bool ok = true;
    // Steps that the reading table has no use for are shown of a job that has.
    const auto job_for = [](Step step) {
        return step.key == "pour" ? "job-tarn-river" : step.key == "join" ? "job-seed-cabinet" : "job-reading-table";
    };
    for (const StepRow& row : steps()) {
        window.session().set_job(job_for(row.step));
        window.session().set_step(row.step);
        window.session().set_gauge(row.step.key == "pour" ? 900 : 1400);
        if (row.step.key == "pour") {
            // Its heat comes beside the work, once the hand has rested.
            window.grab();
            for (QElapsedTimer t =
                     [] {
                         QElapsedTimer e;
                         e.start();
                         return e;
                     }();
                 t.elapsed() < 1500;)
                QApplication::processEvents(QEventLoop::AllEvents, 50);
        }
        ok = shoot(QString::fromUtf8(row.step.key.data(), static_cast<int>(row.step.key.size()))) && ok;
    }
    window.session().set_job("job-outflow-side");
    show_book_at(window, QStringLiteral("moisture"));
    ok = shoot("book") && ok;
    window.session().set_job("job-tarn-river");
    show_money_of(window);
    window.grab();
    window.finish_growing();
    ok = shoot("money") && ok;
    run_card(window, "pour");
    ok = shoot("card") && ok;
    window.session().undo();
    window.show_jobs();
    if (auto* page = window.findChild<JobsPage*>()) page->wait();
    ok = shoot("jobs") && ok;
    show_days_at(window, {});
    ok = shoot("days") && ok;
    window.show_find_tops();
    if (auto* page = window.findChild<FindPage*>()) page->wait();
    ok = shoot("find") && ok;
    window.show_log();
    if (auto* b = window.findChild<QPushButton*>("log_order")) b->click();
    window.long_work().wait();
    ok = shoot("log") && ok;
    if (auto* b = window.findChild<QPushButton*>("log_back")) b->click();
    window.session().set_job("job-reading-table");
    Q_EMIT window.session().shop_wanted("sled");
    ok = shoot("shop") && ok;
    // A photograph of one of the demo's own slabs, as a phone would have it.
    if (const auto bytes = window.session().store()->attachment("slab-sycamore-log-4/a")) {
        QImage wood = QImage::fromData(QByteArray::fromStdString(*bytes));
        QImage photo(wood.width() + 300, wood.height() + 320, QImage::Format_RGB32);
        photo.fill(theme::colours().photo_ground);
        QPainter p(&photo);
        p.setPen(Qt::NoPen);
        p.setCompositionMode(QPainter::CompositionMode_SourceOver);
        for (int y = 0; y < wood.height(); ++y)
            for (int x = 0; x < wood.width(); ++x)
                if (const QColor c = wood.pixelColor(x, y);
                    std::abs(c.red() - 228) + std::abs(c.green() - 220) + std::abs(c.blue() - 203) > 24)
                    photo.setPixelColor(x + 150, y + 160, c);
        p.end();
        photo.save(dir.filePath("sycamore from the yard.png"));
        window.bring_photo(dir.filePath("sycamore from the yard.png"));
        window.long_work().wait();
        QApplication::processEvents();
        if (auto* b = window.findChild<QPushButton*>("photo_find")) b->click();
        window.long_work().wait();
        ok = shoot("photograph") && ok;
    }
    window.show_start();
    ok = shoot("start") && ok;
    return ok ? 0 : 1;
}

}  // namespace yb
