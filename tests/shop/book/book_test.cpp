// The book: what a change means for it, corrections, search, the way out and back, and that the store writes it in one breath with the
// change.
#include <algorithm>
#include <cmath>
#include <functional>

#include <catch2/catch.hpp>

#include "core/files/io/book_io.h"
#include "core/files/store/check.h"
#include "core/files/store/store.h"
#include "core/shop/book/plots.h"
#include "core/shop/edit/days_edits.h"
#include "core/shop/edit/edits.h"
#include "core/shop/edit/money_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/record/agreement.h"
#include "core/steps/pour/pour.h"
#include "demo/demo.h"
#include "tests/files/store/folder.h"

using namespace yb;

namespace {

const std::string now = "2026-11-30T16:30:00+01:00";

std::vector<BookEntry> of_change(const std::function<void(Documents&)>& change) {
    const Documents before = demo_shop();
    Documents after = before;
    change(after);
    return happened(before, after, now);
}

const BookEntry& only(const std::vector<BookEntry>& all) {
    REQUIRE(all.size() == 1);
    return all.front();
}

}  // namespace

TEST_CASE("what is read, ticked, noted, chosen and agreed comes into the book by itself", "[book]") {
    CHECK(of_change([](Documents&) {}).empty());
    // A tick keeps its own time and is called what it was called then; taken back, it is a correction.
    const BookEntry tick_line =
        only(of_change([](Documents& d) { tick(d.jobs.at("job-reading-table"), "lay", "2026-11-30T10:15", "Lay"); }));
    CHECK(tick_line.kind == "tick");
    CHECK(tick_line.at == "2026-11-30T10:15:00+01:00");
    CHECK(tick_line.what == "Lay");
    CHECK(tick_line.of == "lay");
    Documents ticked = demo_shop();
    tick(ticked.jobs.at("job-reading-table"), "lay", "2026-11-30T10:15", "Lay");
    const BookEntry back = only(happened(ticked, demo_shop(), now));
    CHECK(back.kind == "correction");
    CHECK(back.value == "not done after all");
    // Moisture, with its slab and the job that has it; the same reading moved into the log is not read twice.
    const BookEntry wet = only(of_change([](Documents& d) {
        Slab& s = d.slabs.at("slab-sycamore-3");
        s.moisture_log.push_back({s.moisture_on, *s.moisture_pct});
        s.moisture_pct = 8.7, s.moisture_on = "2026-11-29";
    }));
    CHECK(wet.kind == "reading");
    CHECK(wet.value == "8.7");
    CHECK(wet.unit == "%");
    CHECK(wet.of == "slab slab-sycamore-3");
    CHECK(wet.job.rfind("job-reading-table", 0) == 0);
    CHECK(wet.at.substr(0, 10) == "2026-11-29");
    // A decision: a school and a size, each by its own name; a place that is dragged is none.
    const BookEntry chosen = only(of_change([](Documents& d) { set_choice(d.jobs.at("job-reading-table"), "skin.finish", "soap"); }));
    CHECK(chosen.kind == "change");
    CHECK(chosen.step == "skin");
    CHECK(chosen.of == "skin.finish");
    const BookEntry wider = only(of_change([](Documents& d) { d.jobs.at("job-reading-table").top.width_mm = 900; }));
    CHECK(wider.value == "900");
    CHECK(wider.unit == "mm");
    CHECK(of_change([](Documents& d) { d.jobs.at("job-reading-table").first().placement.x_mm += 5; }).empty());
    // Second readings after a rest: four of them.
    const auto rest = of_change([](Documents& d) {
        d.jobs.at("job-hall-table").first().rounds.push_back({"2027-01-20", 0.7, 1.6, 1.7, 54.1});
    });
    REQUIRE(rest.size() == 4);
    CHECK(rest[1].what == "cup");
    CHECK(rest[1].value == "1.6");
    CHECK(rest[1].of == "leaf 1");
    // A card's tick with what was typed on it; a run for practice is none of it.
    const auto run = [](double fast) {
        return of_change([fast](Documents& d) {
            CardRun r{"pour", "2027-02-03T08:00:00Z", fast, false, {{"pour-1", "2027-02-03T09:00:00Z", 3600, 18.5, 7.25, "a bubble"}}, {}};
            r.readings.push_back({4000, 21.5});
            d.jobs.at("job-tarn-river").runs.push_back(r);
        });
    };
    CHECK(run(10).empty());
    const auto poured = run(1);
    REQUIRE(poured.size() == 5);
    CHECK(poured[0].kind == "tick");
    CHECK(poured[1].what == "air");
    CHECK(poured[2].what == "mixed");
    CHECK(poured[2].value == "7.25");
    CHECK(poured[3].value == "a bubble");
    CHECK(poured[4].what == "temperature");
    for (const BookEntry& e : poured) CHECK(e.step == "pour");
}

TEST_CASE("what is typed is a reading where it is a name, a number and a unit – all else is a note", "[book][hostile]") {
    const BookEntry film = typed_entry("dry film 0.08 mm");
    CHECK(film.kind == "reading");
    CHECK(film.what == "dry film");
    CHECK(film.value == "0.08");
    CHECK(film.unit == "mm");
    CHECK(typed_entry("dose: 12,5 g").value == "12.5");
    CHECK(typed_entry("slab moisture -3 %").value == "-3");
    for (const char* note : {"", "mm", "12 mm", "a knot of 3 mm fell out, glued in 4 mm", "moved by about 2 mm. Looked again 3 mm",
                             "dry film thin mm", "dry film 0.08", "dry film 0.08 parsecs", "dry film 1-2 mm", "dry film 0.08 mm\nand more",
                             "dry film 1e999 mm", "we let the whole of it settle 3 days"}) {
        INFO(note);
        CHECK(typed_entry(note).kind == "note");
        CHECK(typed_entry(note).value == note);
    }
}

TEST_CASE("a correction names its line – corrections of corrections, lines that are not there, lines from tomorrow", "[book][hostile]") {
    std::vector<BookEntry> all;
    const auto put = [&](BookEntry e) {
        e.id = static_cast<std::int64_t>(all.size()) + 1;
        all.push_back(std::move(e));
    };
    put({0, "2026-11-30T08:00:00+01:00", "job-reading-table", "rack", "reading", "moisture", "140", "%", "slab slab-sycamore-3"});
    put(correcting(all[0], "14", "typed wrong"));
    put(correcting(all[1], "14.5", "looked again"));
    put({0, "2126-01-01T08:00:00+01:00", "job-reading-table", "rack", "reading", "moisture", "9", "%", "slab slab-sycamore-3"});
    put({0, now, "", "", "correction", "", "1", "", "#99"});
    put({0, now, "", "", "correction", "", "1", "", "#6"});
    put({0, now, "", "", "correction", "", "1", "", "#999999999999999999999"});
    const auto lines = read_book(all);
    CHECK(lines[0].corrected_by == 3);
    CHECK(lines[1].corrected_by == 3);
    CHECK(lines[2].corrected_by == 0);
    CHECK(lines[3].corrected_by == 0);
    CHECK(lines[5].corrected_by == 0);  // it names itself
    const auto points = readings_of(lines, "moisture", "job-reading-table");
    REQUIRE(points.size() == 2);
    CHECK(points[0].value == 14.5);
    CHECK(points[1].value == 9);
    // What did not happen has no value.
    put(correcting(all[3], "", {}));
    CHECK(readings_of(read_book(all), "moisture").size() == 1);
}

TEST_CASE("readings of a slab are its own, not those of one whose name begins as its does", "[book]") {
    std::vector<BookEntry> all;
    for (const char* of : {"slab slab-1", "slab slab-12", "slab slab-1, the far end", "card glue 12"})
        all.push_back(
            {static_cast<std::int64_t>(all.size()) + 1, "2026-11-02T09:00:00+00:00", "", "rack", book::reading, "moisture", "11", "%", of});
    const auto lines = read_book(all);
    CHECK(readings_of(lines, "moisture").size() == 4);
    CHECK(readings_of(lines, "moisture", {}, "slab slab-1").size() == 2);
    CHECK(readings_of(lines, "moisture", {}, "slab slab-12").size() == 1);
    CHECK_FALSE(of_card("slab slab-1"));
    REQUIRE(of_card("card glue 12"));
    CHECK(of_card("card glue 12")->card == "glue");
    CHECK(of_card("card glue 12")->more == " 12");
    CHECK(of_card("card glue")->more == "");
}

TEST_CASE("summer time, another zone, a clock set back: readings stand in the order they were taken, lines in the order they were written",
          "[book][hostile]") {
    CHECK(*moment_of("1970-01-01T01:00:00+01:00") == 0);
    CHECK(*moment_of("2026-11-30T16:30:05+01:00") == *moment_of("2026-11-30T10:30:05-05:00"));
    for (const char* none : {"", "2026-11-30", "2026-11-30T16:30:05", "2026-02-31T16:30:05+01:00", "2026-11-30T16:30:05Zulu:00"})
        CHECK_FALSE(moment_of(none));
    std::vector<BookEntry> all;
    const auto read = [&](const char* at, const char* value) {
        all.push_back({static_cast<std::int64_t>(all.size() + 1), at, "j", "pour", book::reading, "temperature", value, "°C", ""});
    };
    read("2026-10-25T02:10:00+02:00", "1");
    read("2026-10-25T02:50:00+02:00", "2");
    read("2026-10-25T02:20:00+01:00", "3");  // half an hour later: the clock went back an hour
    read("2026-10-25T03:05:00+01:00", "4");
    read("2026-10-24T22:30:00-04:00", "5");  // on a journey
    read("2026-10-25T02:00:00+02:00", "6");  // a clock that was set back: it says so itself
    const auto lines = read_book(all);
    // The book reads in the order of its moments, whatever clock and zone they were written by.
    std::string read_as;
    for (const BookLine& l : lines) read_as += l.entry.value;
    CHECK(read_as == "612345");
    std::string order;
    for (const BookPoint& p : readings_of(lines, "temperature")) order += std::to_string(static_cast<int>(p.value));
    CHECK(order == "612345");
}

TEST_CASE("the book is searched by words, job, kind and dates", "[book]") {
    const auto lines = read_book(demo_book());
    REQUIRE(lines.size() > 100);
    const auto count = [&](const BookAsk& a) { return search(lines, a).size(); };
    CHECK(count({}) == lines.size());
    CHECK(count({"BUBBLE gun", "", "", "", ""}) == 1);
    CHECK(count({"bubble stove", "", "", "", ""}) == 0);
    CHECK(count({"", "", "reading", "", ""}) + count({"", "", "tick", "", ""}) + count({"", "", "note", "", ""}) +
              count({"", "", "agreement", "", ""}) + count({"", "", "photo", "", ""}) ==
          lines.size());
    CHECK(count({"", "job-outflow-side", "", "", ""}) < lines.size());
    const std::size_t september = count({"", "", "", "2026-09-01", "2026-09-30"});
    CHECK(september + count({"", "", "", "", "2026-08-31"}) + count({"", "", "", "2026-10-01", ""}) == lines.size());
    for (const std::size_t i : search(lines, {"", "", "", "2026-09-01", "2026-09-30"})) CHECK(lines[i].entry.at.substr(0, 7) == "2026-09");
}

TEST_CASE("a book that is written out and read back says the same – a bad one says where", "[book][hostile]") {
    const auto whole = demo_book();
    const Json json = Json::parse(book_json(whole).dump());
    REQUIRE(json.size() == whole.size());
    for (std::size_t i = 0; i < whole.size(); ++i) {
        const BookEntry& e = whole[i];
        CHECK(json[i] == Json({{"at", e.at},
                               {"job", e.job},
                               {"step", e.step},
                               {"kind", e.kind},
                               {"what", e.what},
                               {"value", e.value},
                               {"unit", e.unit},
                               {"of", e.of}}));
    }
    auto all = demo_book();
    all.push_back({0, now, "job-x", "", "note", "quotes \" and, commas", "two\nlines; \"\"", "", ""});
    for (std::size_t i = 0; i < all.size(); ++i) all[i].id = static_cast<std::int64_t>(i) + 1;
    CHECK(read_book_csv(book_csv(all)) == all);
    const auto wrong = [](const std::string& text) {
        try {
            read_book_csv(text);
        } catch (const FormatError& e) {
            return std::string(e.what());
        }
        return std::string();
    };
    CHECK(wrong("").find("line 1") != std::string::npos);
    CHECK(wrong("at,job\n").find("begins with its columns") != std::string::npos);
    CHECK(wrong("at,job,step,kind,what,value,unit,of\n1,2,3\n").find("line 2") != std::string::npos);
    CHECK(wrong("at,job,step,kind,what,value,unit,of\n\"never ends,2,3,4,5,6,7,8\n").find("never ends") != std::string::npos);
}

TEST_CASE("the store writes the book in one breath with the change – undo says so too – two hands keep their order", "[book][store]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    Store s = Store::create(path, demo_shop(), "New shop");
    CHECK(s.book().empty());
    Documents d = s.documents();
    tick(d.jobs.at("job-reading-table"), "lay", "2026-11-30T10:15", "Lay");
    s.append("Done", d);
    REQUIRE(s.book().size() == 1);
    s.undo();
    REQUIRE(s.book().size() == 2);
    CHECK(s.book()[1].kind == "correction");
    s.redo();
    REQUIRE(s.book().size() == 3);
    CHECK(s.book()[2].kind == "tick");
    // Another program that writes to the same book: nothing of either is lost, ids never go back.
    Store other = Store::open(path);
    Documents e = other.documents();
    tick(e.jobs.at("job-hall-table"), "lay", "2026-11-30T11:00", "Lay");
    other.append("Done there", e);
    d = s.documents();
    tick(d.jobs.at("job-landing-bench"), "lay", "2026-11-30T09:00", "Lay");
    s.append("Done here", d);
    s.write({0, "2026-11-29T09:00:00+01:00", "job-landing-bench", "", "note", "", "the clock was set back", "", ""});
    const auto book = Store::open(path).book();
    REQUIRE(book.size() == 6);
    for (std::size_t i = 1; i < book.size(); ++i) CHECK(book[i].id > book[i - 1].id);
    CHECK(book[3].job == "job-hall-table");
    CHECK(book[4].job == "job-landing-bench");
    CHECK(book[5].value == "the clock was set back");
    CHECK(check_shop(path).ok);
}

TEST_CASE("what is agreed is in the plan's own words – a change after it says what it breaks – flaws that nobody agreed to are told",
          "[book][record][T42]") {
    Documents d = demo_shop();
    Job& job = d.jobs.at("job-reading-table");
    const Plan plan = plan_job(job, d);
    const auto lines = to_agree(plan, job, d.shop);
    for (const char* key : {"size", "edges", "voids", "finish", "seasons", "price"}) {
        INFO(key);
        CHECK(std::count_if(lines.begin(), lines.end(), [&](const AgreedLine& l) { return l.key == key && !l.says.empty(); }) == 1);
    }
    CHECK(find_caution(plan.sheets.cautions, "record.not_agreed"));
    agree(job, {"2026-11-30", "", lines});
    const Plan agreed = plan_job(job, d);
    CHECK_FALSE(find_caution(agreed.sheets.cautions, "record.not_agreed"));
    CHECK_FALSE(find_caution(agreed.sheets.cautions, "record.broken"));
    CHECK(broken(agreed, job, d.shop).empty());
    job.top.length_mm = 2100;
    const Plan shorter = plan_job(job, d);
    const auto what = broken(shorter, job, d.shop);
    REQUIRE_FALSE(what.empty());
    CHECK(what.front().key == "size");
    CHECK(what.front().agreed.find("2200") != std::string::npos);
    CHECK(what.front().now.find("2100") != std::string::npos);
    CHECK(find_caution(shorter.sheets.cautions, "record.broken"));
    sign_agreement(job, "key of a scan");
    CHECK(job.record.agreed.back().signed_as == "key of a scan");
}

TEST_CASE("every plot draws the delivered table: readings as they stand in the book, models beside them", "[book][plots]") {
    const Documents& d = demo_shop();
    const auto lines = read_book(demo_book());
    const std::string id = "job-outflow-side";
    const Plan plan = plan_job(d.jobs.at(id), d);
    for (const auto& [key, name] : book_plots()) {
        INFO(key);
        const BookPlot p = plot_of(key, lines, d, id, &plan);
        REQUIRE_FALSE(p.lines.empty());
        for (const PlotLine& l : p.lines)
            for (const auto& [x, y] : l.points) CHECK((std::isfinite(x) && std::isfinite(y)));
        CHECK(plot_of(key, {}, Documents(), "nobody", nullptr).lines.empty());
        CHECK_FALSE(plot_of(key, {}, Documents(), "nobody", nullptr).note.empty());
    }
    CHECK_THROWS_AS(plot_of("the moon", lines, d, id, &plan), std::invalid_argument);
    const BookPlot moisture = plot_of("moisture", lines, d, id, &plan);
    CHECK(moisture.start == "2026-03-02");
    CHECK(moisture.lines[0].points.front() == std::pair(0.5, 15.6));
    REQUIRE(moisture.low.size() == moisture.high.size());
    for (std::size_t i = 0; i < moisture.low.size(); ++i) CHECK(moisture.low[i].second <= moisture.high[i].second + 1e-9);
    // The hottest the thermocouple read, and the simulation near it.
    const BookPlot pour = plot_of("pour", lines, d, id, &plan);
    REQUIRE(pour.lines.size() == 2);
    const auto hottest = [](const PlotLine& l) {
        return std::max_element(l.points.begin(), l.points.end(), [](auto& a, auto& b) { return a.second < b.second; })->second;
    };
    CHECK(hottest(pour.lines[0]) > 30);
    CHECK(hottest(pour.lines[1]) > plan.pour->air_c);
}
