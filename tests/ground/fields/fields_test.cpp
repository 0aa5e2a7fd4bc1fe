// Numbers and schools declared once: found by path, held in range, listed.
#include <catch2/catch.hpp>

#include <cmath>
#include <fstream>
#include <set>
#include <sstream>

#include "core/ground/fields/walk.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

TEST_CASE("a number is found, read and set by its path, in one item or in every item of a list", "[fields]") {
    Job j;
    j.top.length_mm = 1875;
    j.under.plates = {{0, 0, 100, 500, 3, 1}, {400, 0, 100, 450, 3, 1}};
    const FieldWalk walk = walk_of(j);
    const NumberAt length = number_at(walk, "top.length_mm");
    REQUIRE(length.there);
    CHECK(*length.value == 1875);
    CHECK(length.field.range.low == 50);
    CHECK(length.field.range.high == 20000);
    CHECK_FALSE(length.whole);
    CHECK(number_at(walk, "top.seats").whole);
    CHECK(set_number(walk, "top.length_mm", 2010) == 1);
    CHECK(j.top.length_mm == 2010);
    CHECK(set_number(walk, "top.seats", 5.6) == 1);
    CHECK(j.top.seats == 6);
    CHECK(number_at(walk, "under.plates[1].across_mm").there);
    CHECK(set_number(walk, "under.plates[].across_mm", 333) == 2);
    CHECK(j.under.plates[0].across_mm == 333);
    CHECK(j.under.plates[1].across_mm == 333);
    CHECK(set_number(walk, "under.plates[1].across_mm", 444) == 1);
    CHECK(j.under.plates[0].across_mm == 333);
    // Paths that lead nowhere change nothing and say so.
    const Job before = j;
    for (const char* path : {"", "top", "top.", "top.length", "under.plates[7].across_mm", "under.plates[x]", "client"}) {
        CHECK(set_number(walk, path, 1) == 0);
        CHECK_FALSE(number_at(walk, path).there);
    }
    CHECK(j == before);
    CHECK_THROWS_AS(declared_at(walk, "top.breadth_mm"), std::out_of_range);
    // An empty list's items are declared all the same.
    j.under.plates.clear();
    CHECK(declared_at(walk, "under.plates[].across_mm").field.range.high > 0);
}

TEST_CASE("an empty value empties what may be empty and leaves the rest", "[fields]") {
    Slab s;
    s.moisture_pct = 11;
    CHECK(number_at(walk_of(s), "moisture_pct").may_be_empty);
    CHECK(set_number(walk_of(s), "moisture_pct", {}) == 1);
    CHECK_FALSE(s.moisture_pct);
    Job j;
    const double length = j.top.length_mm;
    set_number(walk_of(j), "top.length_mm", {});
    CHECK(j.top.length_mm == length);
}

TEST_CASE("what is out of its range is brought in, and each is named once", "[fields]") {
    Job j;
    j.top.length_mm = 9e8;
    j.top.seats = -4;
    j.fill.reserve_pct = std::nan("");
    auto held = hold_in_range(walk_of(j));
    REQUIRE(held.size() == 3);
    std::set<std::string> paths;
    for (const OutOfRange& o : held) {
        paths.insert(o.path);
        CHECK(o.held >= o.range.low);
        CHECK(o.held <= o.range.high);
        CHECK_FALSE(o.label.empty());
    }
    CHECK(paths.size() == 3);
    for (const char* path : {"top.length_mm", "top.seats", "fill.reserve_pct"}) CHECK(paths.count(path));
    CHECK(j.top.length_mm == 20000);
    CHECK(j.top.seats == 0);
    CHECK(j.fill.reserve_pct == declared_at(walk_of(j), "fill.reserve_pct").field.range.low);
    CHECK(hold_in_range(walk_of(j)).empty());
}

TEST_CASE("defaults of job, slab and shop lie in their ranges, and no path is declared twice", "[fields]") {
    Job j;
    Slab s;
    Shop shop;
    for (const FieldWalk& walk : {walk_of(j), walk_of(s), walk_of(shop)}) {
        CHECK(hold_in_range(walk).empty());
        std::set<std::string> seen;
        for (const FieldLine& l : describe(walk)) {
            CHECK(seen.insert(l.path).second);
            CHECK_FALSE(l.what.empty());
        }
        CHECK(seen.size() > 8);
    }
}

TEST_CASE("a school is set by the key of its choice – others are refused", "[fields]") {
    Job j;
    const OptionAt aim = option_at(walk_of(j), "flat.aim");
    REQUIRE(aim.there);
    REQUIRE(aim.school.options.size() == 5);
    for (std::size_t i = 0; i < aim.school.options.size(); ++i) {
        CHECK(set_option(walk_of(j), "flat.aim", i));
        CHECK(option_at(walk_of(j), "flat.aim").chosen == i);
        CHECK(static_cast<std::size_t>(j.flat.aim) == i);
    }
    CHECK_FALSE(set_option(walk_of(j), "flat.aim", 5));
    CHECK_FALSE(set_option(walk_of(j), "flat.nothing", 0));
    CHECK(set_school(walk_of(j), "flat.aim", "as_it_lies"));
    CHECK(j.flat.aim == FlatAim::as_it_lies);
    CHECK_FALSE(set_school(walk_of(j), "flat.aim", "upside down"));
    CHECK_FALSE(set_school(walk_of(j), "nothing", "as_it_lies"));
    CHECK(j.flat.aim == FlatAim::as_it_lies);
}

TEST_CASE("every choice of a plan can be set to every option it offers, and the plan then shows it", "[fields]") {
    const Documents& d = demo_shop();
    for (const auto& [id, job] : d.jobs) {
        const Plan p = plan_job(job, d);
        for (const StepRow& row : steps()) {
            if (!row.says(p)) continue;
            for (const Choice& c : row.says(p)->choices)
                for (const auto& option : c.options) {
                    INFO(id << " " << c.key << " " << option.key);
                    Job j = job;
                    CHECK_NOTHROW(set_choice(j, c.key, option.key, p.on_bench));
                }
        }
        Job j = job;
        CHECK_THROWS_AS(set_choice(j, "no.such", "thing"), std::invalid_argument);
        CHECK(j == job);
    }
}

TEST_CASE("docs/formats.md holds the fields of a job as they are declared", "[fields][docs]") {
    std::ifstream in(YB_SOURCE "/docs/formats.md");
    std::stringstream text;
    text << in.rdbuf();
    const std::string all = text.str();
    constexpr std::string_view mark = "<!-- fields -->\n```\n";
    const auto from = all.find(mark);
    const auto to = all.find("```\n<!-- /fields -->");
    REQUIRE(from != std::string::npos);
    REQUIRE(to != std::string::npos);
    const std::size_t begin = from + mark.size();
    Job j;
    CHECK(all.substr(begin, to - begin) == table_of(describe(walk_of(j))));
}
