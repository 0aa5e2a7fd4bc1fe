#include <cmath>

#include <catch2/catch.hpp>

#include "core/files/io/json.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/rack/rack.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {
Climate steady(double temp, double rh) {
    Climate c;
    c.months.fill({temp, rh});
    return c;
}
bool slab_json_round_trip(const Slab& s) { return slab_from_json(parse_json(to_json(s).dump())) == s; }
}  // namespace

TEST_CASE("drying is fitted to a slab's own readings", "[rack]") {
    const Climate air = steady(20, 50);
    const double me = equilibrium_moisture(20, 50);
    Slab s;
    // Truth: τ = 120 days from 28 %.
    const auto m = [&](double day) { return me + (28 - me) * std::exp(-day / 120); };
    s.moisture_log = {{"2026-01-01", m(0)}, {"2026-03-02", m(60)}};
    s.moisture_pct = m(120);
    s.moisture_on = "2026-05-01";
    const auto f = drying_of(s, 50, air, me + 1, "2026-05-01");
    REQUIRE(f);
    CHECK(f->fitted);
    CHECK(f->tau_days == Approx(120).epsilon(1e-6));
    REQUIRE(f->days);
    CHECK(*f->days == Approx(120 * std::log((m(120) - me) / 1)).epsilon(1e-6));
    CHECK(*f->soonest_days < *f->days);
    CHECK(*f->latest_days > *f->days);
}

TEST_CASE("before two readings there is only the prior, and it says so", "[rack]") {
    Slab s;
    s.moisture_pct = 20;
    s.moisture_on = "2026-05-01";
    const auto f = drying_of(s, 50, steady(15, 60), 12.5, "2026-05-31");
    REQUIRE(f);
    CHECK_FALSE(f->fitted);
    CHECK(f->tau_days == Approx(365.0 * 2 / 3.1));
    CHECK(f->moisture_pct < 20);
    s.moisture_on = "";
    CHECK_FALSE(drying_of(s, 50, steady(15, 60), 12, "2026-05-31"));
    s.moisture_on = "2026-05-01";
    const auto damp = drying_of(s, 50, steady(15, 85), 10, "2026-05-31");
    REQUIRE(damp);
    CHECK_FALSE(damp->days);  // it never gets there in this air
}

TEST_CASE("days between dates", "[rack]") {
    CHECK(days_between("2026-02-27", "2026-03-01") == 2);
    CHECK(days_between("2027-01-01", "2026-12-31") == -1);
    CHECK_FALSE(days_between("2026-02-30", "2026-03-01"));
}

TEST_CASE("the rack tells of every slab", "[rack]") {
    const Documents d = demo_shop();
    const WantedTop top = d.jobs.at("job-reading-table").top;
    const auto rack = rack_of({d.slabs, taken_slabs(d), d.shop.air, 10, &top, "2026-11-24"});
    REQUIRE(rack.size() == d.slabs.size());
    const auto at = [&](const std::string& id) {
        return *std::find_if(rack.begin(), rack.end(), [&](const RackEntry& e) { return e.id == id; });
    };
    const RackEntry sycamore = at("slab-sycamore-3");
    CHECK(sycamore.fits);
    CHECK(sycamore.reserved_for == "Reading table, seed library");
    CHECK(sycamore.length_mm == Approx(2720));
    CHECK(*sycamore.price_per_m2() == Approx(620 / (2.72 * sycamore.narrowest_mm / 1000)));
    CHECK(*sycamore.price_per_board_foot() == Approx(620 / sycamore.board_feet));
    CHECK(sycamore.people == static_cast<int>(std::ceil(*sycamore.weight_kg / 25)));
    CHECK_FALSE(at("slab-hackberry-1").fits);
    CHECK_FALSE(at("slab-butternut-log-3").fits);
    // The figure on the slip and the one on the rack are the same weight.
    const Plan p = plan_job(d.jobs.at("job-reading-table"), d.slabs.at("slab-sycamore-3"), d.shop);
    CHECK(*sycamore.weight_kg == Approx(figure(p.rack.figures, "rack.mass").value.value).epsilon(0.002));
}

TEST_CASE("a top fits where both faces are wide enough", "[rack]") {
    SlabShape s;
    s.ring_a = {{0, -300}, {2000, -200}, {2000, 200}, {0, 300}};
    s.ring_b = {{0, -310}, {2000, -210}, {2000, 210}, {0, 310}};
    s.x1 = 2000;
    WantedTop top;
    top.length_mm = 1000;
    top.width_mm = 490;  // face A is 500 wide in its middle, at 1000 mm
    CHECK(fits_straight(s, top));
    top.width_mm = 520;
    CHECK_FALSE(fits_straight(s, top));
    top = {};
    top.length_mm = 2100, top.width_mm = 100;
    CHECK_FALSE(fits_straight(s, top));
}

TEST_CASE("filters and orders", "[rack]") {
    const Documents d = demo_shop();
    auto rack = rack_of({d.slabs, taken_slabs(d), d.shop.air, 10, nullptr, "2026-11-24"});
    const auto count = [&](const char* text, const Units& u = Units::metric()) {
        const auto read = read_filter(text, u);
        REQUIRE(std::holds_alternative<std::vector<RackTest>>(read));
        return std::count_if(rack.begin(), rack.end(), [&](const RackEntry& e) { return passes(e, std::get<0>(read)); });
    };
    CHECK(count("") == 23);
    CHECK(count("butternut") == 5);
    CHECK(count("BUTTERNUT ferry") == 4);
    CHECK(count("length>2.6m") == 7);
    CHECK(count("length>2600") == 7);
    CHECK(count("length>8'6", Units::imperial()) == 7);
    CHECK(count("butternut moisture<11") == 1);
    CHECK(count("free sycamore") == 2);
    CHECK(count("walnut") == 0);
    const auto wrong = read_filter("length>2m colour<3", Units::metric());
    REQUIRE(std::holds_alternative<ParseError>(wrong));
    CHECK(std::get<ParseError>(wrong).sentence().find("colour") != std::string::npos);
    CHECK(std::get<ParseError>(wrong).at == 10);
    CHECK(std::holds_alternative<ParseError>(read_filter("moisture<dry", Units::metric())));
    sort_rack(rack, RackOrder::length);
    for (std::size_t i = 1; i < rack.size(); ++i) CHECK(rack[i - 1].length_mm <= rack[i].length_mm);
    sort_rack(rack, RackOrder::age);  // nobody wrote down when they were sawn: nothing moves, nothing breaks
    CHECK(rack.size() == 23);
}

TEST_CASE("a slab cut in two keeps its wood, its readings and its tree", "[rack]") {
    const Documents d = demo_shop();
    for (const char* id : {"slab-sycamore-3", "slab-sycamore-log-4"}) {
        const Slab& whole = d.slabs.at(id);
        const SlabShape w = shape_of(whole);
        const Slab left = piece_of(whole, -1e9, 1300);
        const Slab right = piece_of(whole, 1300, 1e9);
        const SlabShape l = shape_of(left);
        const SlabShape r = shape_of(right);
        INFO(id);
        REQUIRE(l.usable);
        REQUIRE(r.usable);
        CHECK(l.x1 == Approx(1300));
        CHECK(area(l.ring_a) + area(r.ring_a) == Approx(area(w.ring_a)).epsilon(0.002));
        CHECK(area(l.ring_b) + area(r.ring_b) == Approx(area(w.ring_b)).epsilon(0.002));
        CHECK(left.cut_from == id);
        CHECK(right.tree == whole.tree);
        // The same place has the same thickness.
        CHECK(r.thickness_at({400, 0}) == Approx(w.thickness_at({1700, 0})).margin(0.8));
        std::size_t flaws = 0;
        for (const Flaw& f : whole.flaws) flaws += f.outline.size() > 2;
        CHECK(left.flaws.size() + right.flaws.size() >= flaws);
        for (const Flaw& f : right.flaws)
            for (const Vec2 p : f.outline) CHECK(p.x >= -1e-6);
        CHECK(slab_json_round_trip(right));
    }
    CHECK_THROWS_AS(piece_of(d.slabs.at("slab-sycamore-3"), 1300, 1305), std::invalid_argument);
    CHECK_THROWS_AS(piece_of(Slab(), 0, 1000), std::invalid_argument);
}

TEST_CASE("rough cuts leave their offcuts", "[rack]") {
    const Documents d = demo_shop();
    const Job& j = d.jobs.at("job-reading-table");
    const Plan p = plan_job(j, d.slabs.at(j.first().slab), d.shop);
    const auto pieces = offcuts_of(d.slabs.at(j.first().slab), p.lay->rough, 150);
    REQUIRE_FALSE(pieces.empty());
    double sum = p.lay->rough_length_mm;
    for (const Slab& s : pieces) {
        CHECK(s.name.find("offcut") != std::string::npos);
        CHECK(s.tree == d.slabs.at(j.first().slab).tree);
        sum += shape_of(s).x1;
    }
    CHECK(sum <= 2720 + 1);
}

TEST_CASE("a reading that jumps is named, an even edge is not", "[rack]") {
    Slab s;
    for (int i = 0; i < 8; ++i) s.tape.stations.push_back({i * 300.0, 300 + 4.0 * i, 310.0 - 3 * i, {}, {}, 50.0, {}});
    CHECK_FALSE(find_caution(shape_of(s).cautions, "rack.jumps"));
    s.tape.stations[4].left_mm = 412;
    const SlabShape shape = shape_of(s);
    int jumps = 0;
    for (const Caution& c : shape.cautions)
        if (c.key == "rack.jumps") {
            ++jumps;
            CHECK(render(c.says, Units::metric()).find("1.20 m") != std::string::npos);
        }
    CHECK(jumps == 1);
    s.tape.stations[4].left_mm.reset();
    const SlabShape bridged = shape_of(s);
    REQUIRE(find_caution(bridged.cautions, "rack.missing"));
    CHECK(render(find_caution(bridged.cautions, "rack.missing")->says, Units::metric()).find("316 mm") != std::string::npos);
}

TEST_CASE("a damp slab is sealed, stickered and weighed down – a dry one is not", "[rack]") {
    Documents d = demo_shop();
    Slab s = d.slabs.begin()->second;
    s.moisture_pct = 38, s.moisture_on = "2026-11-20";
    CHECK(too_damp(s)->key == "look.damp");
    s.moisture_pct = 11;
    CHECK_FALSE(too_damp(s));
}
