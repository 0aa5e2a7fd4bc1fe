// What is let in is measured from its own floor; channels are held at their own middle; bolts, bases and balance told by a second route.
#include <catch2/catch.hpp>

#include <cmath>
#include <random>

#include "core/material/wood/cup.h"
#include "core/material/wood/lag.h"
#include "core/shop/edit/mends.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/join/join.h"
#include "demo/demo.h"
#include "tests/planks.h"
#include "tests/steps/under/table.h"

using namespace yb;

namespace {

const Slot& hole(const UnderPlan& p, const Part& part, bool round) {
    for (const Slot& s : p.slots)
        if (s.part == part && s.round == round) return s;
    FAIL(key_of(part));
    throw 0;
}

Documents of(Table& t) {
    Documents d;
    d.slabs[t.slab.id] = t.slab;
    d.jobs[t.job.id] = t.job;
    d.shop = t.shop;
    return d;
}

/// The first mend that helps, done.
bool mend(Table& t, const char* key) {
    Documents d = of(t);
    const Plan plan = plan_job(t.job, d);
    for (const StepRow& row : steps())
        if (row.says(plan))
            if (const Caution* c = find_caution(row.says(plan)->cautions, key)) {
                const auto m = mend_of(*c, d, t.job.id, plan);
                if (!m) return false;
                mended(d, t.job.id, *m);
                t.job = d.jobs.at(t.job.id);
                return true;
            }
    return false;
}

}  // namespace

TEST_CASE("a channel's hole starts at its pocket's floor: 34 of wood, 12 of pocket, 22 of insert is a hole in the show face",
          "[under][T21][T26]") {
    Table t;
    t.job.top.thickness_mm = 34;
    t.job.under.channels = {{300, 0, 400, 40, 12, 3, 3}};
    t.job.under.insert_mm = 22;
    const UnderPlan p = t.plan();
    const HoleMade& m = hole(p, {"channel", 0}, true).made;
    CHECK(hole(p, {"channel", 0}, true).floor_mm == 12);
    CHECK(m.stop_mm == 22);
    CHECK(m.above_mm == Approx(34 - 12 - 22).margin(1e-9));
    REQUIRE(t.says("under.through"));
    CHECK(t.says("under.through")->severity == Severity::stop);
    CHECK(render(t.says("under.through")->says, {}).find("comes through the show face") != std::string::npos);
    // A plate's starts on the wood.
    CHECK(hole(p, {"plate", 0}, true).floor_mm == 0);
    CHECK(hole(p, {"plate", 0}, true).made.above_mm >= 8);
    // The mend leaves what is to stay above, from that floor.
    REQUIRE(mend(t, "under.through"));
    for (const Slot& s : t.plan().slots) CHECK(34 - s.floor_mm - s.made.stop_mm >= t.job.under.least_above_mm - 1e-9);
    // The maker's own measure of what stays counts, not a fixed one.
    t.job.under.insert_mm = 12, t.job.under.least_above_mm = 11;
    REQUIRE(t.says("under.through"));
    t.job.under.least_above_mm = 10;
    CHECK_FALSE(t.says("under.through"));
}

TEST_CASE("the clash check has an insert from the floor of its pocket up, all of it", "[join][under][T21]") {
    Table t;
    t.job.under.channels = {{300, 0, 400, 40, 12, 3, 3}};
    t.job.under.insert_mm = 20;
    // A bow tie from above 10 deep over the middle hole: its floor stands at 30, the insert reaches from 12 to 32.
    t.job.join.ties = {{300, 0, 0, 120, 50, 10, true}};
    Documents d = of(t);
    const Plan plan = plan_job(t.job, d);
    REQUIRE(plan.top->thickness_mm == Approx(40));
    bool seen = false;
    for (const LetIn& l : plan.join->let_in)
        if (l.what == "insert of channel 1") {
            seen = true;
            CHECK(l.low_mm == 12);
            CHECK(l.high_mm == 32);
        }
    CHECK(seen);
    const auto meets = std::find_if(plan.join->clashes.begin(), plan.join->clashes.end(), [](const Clash& c) {
        return c.one + c.other == "insert of channel 1bow tie 1" || c.other + c.one == "insert of channel 1bow tie 1";
    });
    REQUIRE(meets != plan.join->clashes.end());
    CHECK(meets->deep_mm == Approx(2));
}

TEST_CASE("a channel is held at its own middle wherever the base is held", "[under][T28]") {
    Table t;
    for (const FixedLine line : {FixedLine::middle, FixedLine::left, FixedLine::right}) {
        t.job.under.fixed = line;
        const UnderPlan p = t.plan();
        const Channel& ch = t.job.under.channels[0];
        const double shrink = 7.1;
        const auto moves = [&](double mm, double to) { return mm * (to - 9) / (3000 / shrink - 30 + 9); };
        const double out = ch.length_mm / 2 - t.job.under.edge_mm;
        int looked = 0;
        for (const Slot& s : p.slots) {
            if (s.part != Part{"channel", 0}) continue;
            ++looked;
            CHECK(s.held_v_mm == ch.v_mm);
            if (s.round) continue;
            CHECK(s.travel_out_mm == Approx(moves(out, p.high_pct)));
            CHECK(s.travel_in_mm == Approx(-moves(out, p.low_pct)));
            // Inside the channel, with steel left at its end.
            CHECK(std::abs(s.uv.y - ch.v_mm) + s.length_mm - s.bolt_from_inner_mm < ch.length_mm / 2);
        }
        CHECK(looked == 3);
        CHECK(p.pockets[0].length_mm == Approx(std::ceil(ch.length_mm - 2 * moves(ch.length_mm / 2, p.low_pct) + 2 * t.job.under.play_mm)));
    }
}

TEST_CASE("bolts in one place and bolts too near are told, and mended", "[under]") {
    Table t;
    CHECK_FALSE(t.says("under.bolts_near"));
    t.job.under.plates[0].across_mm = 2 * t.job.under.edge_mm - 4;
    REQUIRE(t.says("under.bolts_near"));
    CHECK(t.says("under.bolts_near")->severity == Severity::stop);
    REQUIRE(mend(t, "under.bolts_near"));
    CHECK_FALSE(t.says("under.bolts_near"));
    Table near;
    near.job.under.plates[1].across_mm = 2 * near.job.under.edge_mm + 2 * 20;
    REQUIRE(near.says("under.bolts_near"));
    CHECK(near.says("under.bolts_near")->severity == Severity::watch);
    CHECK(near.says("under.bolts_near")->says.value(1) == Approx(20));
    REQUIRE(mend(near, "under.bolts_near"));
    CHECK_FALSE(near.says("under.bolts_near"));
}

TEST_CASE("one bolt stiffens nothing, two have no middle one, a channel shorter than its bolts' distance has no force",
          "[under][channels]") {
    Table t;
    t.job.under.channels = {{0, 0, 400, 40, 12, 3, 3}};
    const UnderPlan three = t.plan();
    REQUIRE(three.held);
    CHECK(three.held->share > 0.02);
    CHECK_FALSE(t.says("under.few_bolts"));
    t.job.under.channels[0].bolts = 1;
    const UnderPlan one = t.plan();
    REQUIRE(one.held);
    CHECK(one.held->share == 0);
    CHECK(one.held->held_mm == Approx(one.held->free_mm));
    CHECK(one.pockets[0].stiffness_share == 0);
    CHECK(t.says("under.few_bolts")->severity == Severity::watch);
    REQUIRE(mend(t, "under.few_bolts"));
    CHECK(t.job.under.channels[0].bolts == 3);
    t.job.under.channels[0].bolts = 2;
    const UnderPlan two = t.plan();
    CHECK(two.held->bolts == 2);
    CHECK(two.held->bolt_n == Approx(three.held->bolt_n / 2));
    for (const Figure& f : two.figures)
        for (const Given& g : f.working.given) CHECK(g.name.find("middle bolt") == std::string::npos);
    t.job.under.channels[0].bolts = 3;
    t.job.under.channels[0].length_mm = 2 * t.job.under.edge_mm + 2;
    CHECK(t.plan().held->bolt_n == 0);
    CHECK(t.says("under.bolts_near"));
}

TEST_CASE("a base that misses a plate is told for every kind, and the mend brings them together", "[under][base]") {
    Table t;
    for (const BaseKind kind : {BaseKind::frames, BaseKind::legs, BaseKind::trestle, BaseKind::panels}) {
        INFO(static_cast<int>(kind));
        t.job.under.base = kind;
        t.job.under.outline.clear();
        CHECK_FALSE(t.says("under.misses"));
    }
    const UnderChoices good = t.job.under;
    // Panels on an outline of their own, well inside of both plates.
    t.job.under.outline = {{-325, -150}, {325, -150}, {325, 150}, {-325, 150}};
    REQUIRE(t.says("under.misses"));
    CHECK(t.says("under.misses")->severity == Severity::stop);
    const double gap = std::abs(good.plates[0].u_mm) - good.plates[0].along_mm / 2 - 325;
    CHECK(t.says("under.misses")->says.value(1) == Approx(gap).margin(1));
    REQUIRE(mend(t, "under.misses"));
    CHECK_FALSE(t.says("under.misses"));
    // One column stands in the middle of its plates: far apart it carries neither.
    t.job.under = good;
    t.job.under.base = BaseKind::pedestal;
    t.job.under.plates = {{-600, 0, 80, 300, 3, 1}, {600, 0, 80, 300, 3, 1}};
    const UnderPlan p = t.plan();
    REQUIRE(p.carries.size() == 2);
    for (const Carries& c : p.carries) CHECK(c.misses_mm == Approx(600 - 40 - 150).margin(1));
    CHECK(t.says("under.misses"));
}

TEST_CASE("a hole in a leaf that lies turned moves by the rings at its own place", "[under][T22]") {
    Table t;
    t.slab.pith_mm = -80;
    t.job.leaves[0].placement.angle_deg = 2;
    const UnderPlan p = t.plan();
    const Frame f = t.job.leaves[0].placement.frame();
    const Species& s = *find_species(t.slab.species);
    int looked = 0;
    for (const Slot& one : p.slots) {
        if (one.round) continue;
        // Its own stretch from the fixed line to the hole, in a hundred pieces, each with the slant of its own rings.
        double sum = 0;
        const double from = one.held_v_mm;
        for (int i = 0; i < 400; ++i) {
            const double v = from + (one.uv.y - from) * (i + 0.5) / 400;
            const double y = f.to_slab(Vec2{one.uv.x, v}).y;
            const double c2 = 80.0 * 80 / (80.0 * 80 + y * y);
            const double shrink = *s.shrink_tangential_pct * c2 + *s.shrink_radial_pct * (1 - c2);
            sum += std::abs(one.uv.y - from) / 400 * shrink;
        }
        const double mean = sum / std::abs(one.uv.y - from);
        CHECK(one.travel_out_mm == Approx(movement(std::abs(one.uv.y - from), mean, 9, p.high_pct)).epsilon(2e-3));
        ++looked;
    }
    CHECK(looked >= 4);
}

TEST_CASE("the year comes later in the wood by what the curve lags, not by its time constant", "[under][wood][lag]") {
    CHECK(comes_later_days(54.9) == Approx(44.0).margin(0.05));
    CHECK(comes_later_days(0) == 0);
    // A wave through it: where it peaks.
    const double tau = lag_days(45, filmed_s_m);
    constexpr double w = 2 * M_PI / 365.25;
    double best = 0;
    double most = -1;
    for (double day = 0; day < 365; day += 0.01)
        if (const double v = std::cos(w * day) + w * tau * std::sin(w * day); v > most) most = v, best = day;
    CHECK(comes_later_days(tau) == Approx(best).margin(0.02));
    Table t;
    t.job.under.covered = Covered::film;
    const UnderPlan p = t.plan();
    for (const Thing& thing : under_things(p, t.job.under, t.job.top, {}))
        for (const Figure& f : thing.figures)
            if (f.key == "base.lag") CHECK(f.value.value == Approx(24 * comes_later_days(p.lag_days)));
}

TEST_CASE("the balance point is that of the whole solid, wood, resin and all", "[under][top]") {
    const Documents& d = demo_shop();
    for (const char* id : {"job-tarn-river", "job-reading-table", "job-hall-table"}) {
        const Plan plan = plan_job(d.jobs.at(id), d);
        if (!plan.top->ready) continue;
        INFO(id);
        // A leaf's sides are ruled between its two faces: thrown at by lot, each height its own outline.
        std::mt19937 dice(7);
        const Top& top = *plan.top;
        const Box box = bounds(top.above);
        std::uniform_real_distribution<double> u(box.low.x - 80, box.high.x + 80), v(box.low.y - 80, box.high.y + 80), z(0, 1);
        Vec2 moment;
        double kg = 0;
        for (int i = 0; i < 200000; ++i) {
            const Vec2 at{u(dice), v(dice)};
            const double share = z(dice);
            for (std::size_t k = 0; k < top.regions.size(); ++k) {
                const Region& r = top.regions[k];
                if (r.let_in || r.above.size() < 3 || r.below.size() < 3) continue;
                // Between the cuts at this station the side runs straight.
                const auto a = cut_at_x(r.above, at.x);
                const auto b = cut_at_x(r.below, at.x);
                if (a.empty() || b.empty()) continue;
                const double low = a.front().from * share + b.front().from * (1 - share);
                const double high = a.back().to * share + b.back().to * (1 - share);
                if (at.y < low || at.y > high) continue;
                moment = moment + at * r.kg_m3, kg += r.kg_m3;
            }
        }
        Vec2 told;
        double mass = 0;
        for (const Region& r : top.regions)
            if (!r.let_in) told = told + r.balance * r.mass_kg, mass += r.mass_kg;
        told = told * (1 / mass), moment = moment * (1 / kg);
        CHECK(told.x == Approx(moment.x).margin(6));
        CHECK(told.y == Approx(moment.y).margin(3));
    }
}

TEST_CASE("resin stays flat while the wood beside it cups – one stretch alone is a parabola", "[wood][cup][T17]") {
    CHECK(hollow_mm({{900, 1e-4}}) == Approx(1e-4 * 900 * 900 / 8));
    CHECK(hollow_mm({{300, 0}, {300, 0}}) == 0);
    // Two leaves of 400 with 200 of resin between: both edges rise by κ w²/2 over the flat middle.
    CHECK(hollow_mm({{400, 1e-4}, {200, 0}, {400, 1e-4}}) == Approx(1e-4 * 400 * 400 / 2));
    CHECK(hollow_mm({{400, -1e-4}, {200, 0}, {400, -1e-4}}) == Approx(-1e-4 * 400 * 400 / 2));
    CHECK(hollow_mm({}) == 0);
    // Any row, integrated in small steps.
    const std::vector<Arc> row{{250, 2e-4}, {90, 0}, {410, 1e-4}, {60, -1e-4}};
    std::vector<double> z{0};
    double slope = 0;
    for (const Arc& a : row)
        for (int i = 0; i < a.width_mm * 10; ++i) z.push_back(z.back() + (slope + a.per_mm * 0.05) * 0.1), slope += a.per_mm * 0.1;
    double most = 0;
    for (std::size_t i = 0; i < z.size(); ++i) {
        const double below = z.back() * static_cast<double>(i) / static_cast<double>(z.size() - 1) - z[i];
        if (std::abs(below) > std::abs(most)) most = below;
    }
    CHECK(hollow_mm(row) == Approx(most).epsilon(1e-3));
    // Flat and Under tell one figure of one single top.
    Table t;
    t.job.under.channels = {{0, 0, 400, 40, 12, 3, 3}};
    Documents d = of(t);
    const Plan plan = plan_job(t.job, d);
    REQUIRE(plan.flat->one_face_mm);
    REQUIRE(plan.under->held);
    CHECK(plan.under->held->free_mm == Approx(std::abs(*plan.flat->one_face_mm)).epsilon(1e-6));
}
