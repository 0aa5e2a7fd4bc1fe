// A base of one's own outline, how bars meet, the way up a stair, feet on a floor that is not flat, and wood whose pith nobody knows.
#include <random>

#include <catch2/catch.hpp>

#include "core/material/tree/saw.h"
#include "tests/steps/under/table.h"

using namespace yb;

namespace {

BaseInputs base_of(BaseKind kind, double leg = 680) {
    BaseInputs in;
    in.choices.base = kind;
    in.choices.plates = {{-500, 0, 100, 560, 3, 1}, {500, 0, 100, 560, 3, 1}};
    in.leg_mm = leg;
    return in;
}

const BasePart& part_of(const BasePlan& b, const std::string& name) {
    for (const BasePart& p : b.parts)
        if (p.name == name) return p;
    FAIL(name);
    return b.parts.front();
}

/// Walks round the panels of the cut list by lengths and mitres alone: where it comes back to, and what it turned.
std::pair<Vec2, double> walked(const BasePlan& b) {
    Vec2 at;
    double heading = 0;
    for (const BasePart& p : b.parts) {
        at = at + Vec2{std::cos(heading), std::sin(heading)} * p.length_mm;
        heading += 2 * p.second_deg * M_PI / 180;
    }
    return {at, heading};
}

}  // namespace

TEST_CASE("panels cut by their list alone close round any outline to a hundredth", "[under][base][panels]") {
    std::mt19937 dice(5);
    std::uniform_real_distribution<double> r(180, 420);
    for (int trial = 0; trial < 100; ++trial) {
        BaseInputs in = base_of(BaseKind::panels);
        in.choices.leg_thick_mm = 20;
        const int n = 3 + trial % 7;
        for (int i = 0; i < n; ++i) {
            const double a = 2 * M_PI * i / n;
            const double out = r(dice);
            in.choices.outline.push_back({out * std::cos(a), out * std::sin(a)});
        }
        // Given the other way round it is the same base.
        if (trial % 2) std::reverse(in.choices.outline.begin(), in.choices.outline.end());
        const BasePlan b = plan_base(in);
        REQUIRE(b.parts.size() == static_cast<std::size_t>(n));
        const auto [end, turned] = walked(b);
        CHECK(length(end) < 0.01);
        CHECK(turned == Approx(2 * M_PI));
        // Neighbours meet at one mitre, and their inner corners in one place.
        for (std::size_t i = 0; i < b.parts.size(); ++i) {
            const std::size_t next = (i + 1) % b.parts.size();
            CHECK(b.parts[i].second_deg == Approx(b.parts[next].first_deg));
            const auto has = [&](Vec3 q) {
                return std::any_of(b.pieces[next].corners.begin(), b.pieces[next].corners.end(),
                                   [&](Vec3 o) { return std::hypot(o.x - q.x, o.y - q.y) < 0.01 && std::abs(o.z - q.z) < 0.01; });
            };
            int shared = 0;
            for (const Vec3 q : b.pieces[i].corners) shared += has(q);
            CHECK(shared == 4);
        }
        // As thick as its panels everywhere: the inner face lies that far in.
        for (const BasePiece& p : b.pieces) {
            const Vec3 a = p.corners[0];
            const Vec3 c = p.corners[4];
            const double run = std::hypot(c.x - a.x, c.y - a.y);
            const Vec3 in_a = p.corners[2];
            CHECK(std::abs((c.x - a.x) * (in_a.y - a.y) - (c.y - a.y) * (in_a.x - a.x)) / run == Approx(20).margin(0.01));
        }
    }
}

TEST_CASE("an outline that can't be built says why", "[under][base][panels]") {
    BaseInputs in = base_of(BaseKind::panels);
    in.choices.leg_thick_mm = 20;
    const auto why = [&](std::vector<BaseCorner> outline) {
        in.choices.outline = std::move(outline);
        try {
            plan_base(in);
        } catch (const std::invalid_argument& e) {
            return std::string(e.what());
        }
        return std::string();
    };
    CHECK(why({{0, 0}, {300, 0}}) == "an outline has three corners at least");
    CHECK(why({{0, 0}, {300, 300}, {300, 0}, {0, 300}}) == "the outline crosses itself");
    CHECK(why({{0, 0}, {300, 0}, {300, 0}, {0, 300}}) == "two corners of the outline lie in one place");
    CHECK(why({{0, 0}, {300, 0}, {300, 30}, {0, 30}}) == "the panels are thicker than half of it");
    CHECK(why({{0, 0}, {300, 5}, {0, 10}}) == "a corner of the outline is too sharp to be mitred");
    CHECK(why({{-200, -200}, {200, -200}, {200, 200}, {-200, 200}}).empty());
    // Without one of its own it stands round the plates.
    CHECK(why({}).empty());
    CHECK(plan_base(in).outline.size() == 4);
    CHECK(part_of(plan_base(in), "base, panel 1").length_mm == Approx(1100));
    CHECK(part_of(plan_base(in), "base, panel 2").length_mm == Approx(560));
    CHECK(part_of(plan_base(in), "base, panel 1").first_deg == Approx(45));
    // The step says it and goes on.
    Table t;
    t.job.under.base = BaseKind::panels;
    t.job.under.outline = {{0, 0}, {300, 300}, {300, 0}, {0, 300}};
    REQUIRE(t.says("under.base"));
    CHECK(t.last.base.parts.empty());
}

TEST_CASE("an outline is the maker's own once a corner is moved", "[under][base][edit]") {
    Job j;
    j.top = {2000, 800, 40, 740, LiveEdges::none, 6, TopShape::rectangle, {}};
    lay_plates(j);
    CHECK(j.under.outline.empty());
    const auto usual = base_outline(j.under);
    REQUIRE(usual.size() == 4);
    move_base_corner(j, 1, {50, -20});
    REQUIRE(j.under.outline.size() == 4);
    CHECK(j.under.outline[1].u_mm == usual[1].u_mm + 50);
    CHECK(j.under.outline[1].v_mm == usual[1].v_mm - 20);
    CHECK(j.under.outline[2] == usual[2]);
    set_base_corner(j, 0, &BaseCorner::v_mm, -111);
    CHECK(j.under.outline[0].v_mm == -111);
    add_base_corner(j);
    REQUIRE(j.under.outline.size() == 5);
    drop_base_corner(j, 4);
    drop_base_corner(j, 0);
    CHECK_THROWS_AS(drop_base_corner(j, 0), Refusal);
    CHECK(j.under.outline.size() == 3);
    CHECK_THROWS_AS(move_base_corner(j, 9, {1, 1}), std::out_of_range);
}

TEST_CASE("lapped and tenoned frames: bars from outside to outside, by hand", "[under][base]") {
    for (const BarJoint way : {BarJoint::half_lap, BarJoint::tenon})
        for (const double splay : {0.0, 5.0}) {
            BaseInputs in = base_of(BaseKind::frames);
            in.choices.corners = way;
            in.choices.splay_deg = splay;
            in.choices.leg_wide_mm = 60, in.choices.leg_thick_mm = 40;
            const BasePlan b = plan_base(in);
            const double tan = std::tan(splay * M_PI / 180);
            const double cos = std::cos(splay * M_PI / 180);
            // The upper bar's long edge is its lower one, 60 below the top; the lower bar's is on the floor.
            CHECK(part_of(b, "frame, upper bar").length_mm == Approx(560 + 2 * 60 * tan));
            CHECK(part_of(b, "frame, lower bar").length_mm == Approx(560 + 2 * 680 * tan));
            CHECK(part_of(b, "frame, upright").length_mm == Approx(680 / cos + 60 * tan));
            CHECK(part_of(b, "frame, upright").first_deg == Approx(splay).margin(1e-12));
            // As far out as the mitred one stands, and its diagonals the same.
            BaseInputs mitred = in;
            mitred.choices.corners = BarJoint::mitre;
            CHECK(b.diagonal_mm == Approx(plan_base(mitred).diagonal_mm));
            const auto reach = [](const BasePlan& p) {
                double most = 0;
                for (const BasePiece& piece : p.pieces)
                    for (const Vec3 q : piece.corners) most = std::max(most, std::abs(q.y));
                return most;
            };
            CHECK(reach(b) == Approx(reach(plan_base(mitred))).margin(0.01));
            for (const BasePiece& piece : b.pieces) {
                double longest = 0;
                for (const Vec3 p : piece.corners)
                    for (const Vec3 q : piece.corners)
                        if (std::abs(p.x - q.x) < 1e-6) longest = std::max(longest, std::hypot(p.y - q.y, p.z - q.z));
                const BasePart& part = b.parts[piece.part];
                // Point to point along it: the longest of its corners' distances is that and its width.
                CHECK(longest <= std::hypot(part.length_mm, part.width_mm) + 0.01);
                CHECK(longest >= part.length_mm - 0.01);
            }
            const std::string note = render(part_of(b, "frame, upright").note, Units::metric());
            CHECK(note.find(way == BarJoint::half_lap ? "half-laps" : "wedged") != std::string::npos);
        }
    BaseInputs trestle = base_of(BaseKind::trestle);
    trestle.choices.corners = BarJoint::tenon;
    const BasePlan b = plan_base(trestle);
    CHECK(render(part_of(b, "trestle, post").note, Units::metric()).find("540.0 mm apart") != std::string::npos);
}

TEST_CASE("round a landing goes what two walls let through", "[under][stair][T33]") {
    // Two passages alike and a line: √8 of their width. A thickness takes twice itself off it.
    CHECK(longest_round_bend_mm(1000, 1000, 0) == Approx(std::sqrt(8.0) * 1000));
    CHECK(longest_round_bend_mm(1000, 1000, 100) == Approx(std::sqrt(8.0) * 1000 - 200));
    // Of two passages: (a^⅔ + b^⅔)^(3/2).
    CHECK(longest_round_bend_mm(800, 1200, 0) == Approx(std::pow(std::cbrt(800.0 * 800) + std::cbrt(1200.0 * 1200), 1.5)));
    CHECK(longest_round_bend_mm(800, 1200, 50) == Approx(longest_round_bend_mm(1200, 800, 50)));
    CHECK(longest_round_bend_mm(900, 900, 900) == 0);
    CHECK_THROWS_AS(longest_round_bend_mm(0, 900, 10), std::invalid_argument);
    // Tried angle by angle.
    for (const double t : {20.0, 45.0, 120.0}) {
        double least = 1e300;
        for (int i = 1; i < 200000; ++i) {
            const double a = M_PI / 2 * i / 200000;
            least = std::min(least, (850 * std::cos(a) + 1100 * std::sin(a) - t) / (std::sin(a) * std::cos(a)));
        }
        CHECK(longest_round_bend_mm(850, 1100, t) == Approx(least).epsilon(1e-7));
    }
    Table t;
    CHECK_FALSE(t.says("under.stair"));
    t.job.under.stair_mm = 700;  // 1980 − 80: less than the 2000 of the top
    const Caution* c = t.says("under.stair");
    REQUIRE(c);
    CHECK(c->severity == Severity::stop);
    CHECK(*t.last.stair_longest_mm == Approx(std::sqrt(8.0) * 700 - 2 * 40));
    // In halves it goes up.
    t.job.makeup.halves_u_mm = 100;
    CHECK_FALSE(t.says("under.stair"));
    CHECK(t.last.carried_mm == Approx(1100));
    t.job.makeup.halves_u_mm.reset();
    t.job.under.stair_mm = 900;
    CHECK_FALSE(t.says("under.stair"));
    t.job.under.stair_high_mm = 700;  // the top on edge is 800
    CHECK(t.says("under.stair"));
}

TEST_CASE("legs of unequal length are told foot by foot", "[under][feet][T29]") {
    Table t;
    const double leg = t.plan().leg_mm;
    t.job.under.floor_gaps_mm = {0.5, std::nullopt, 2.5, 0.5};
    const Caution* c = t.says("under.floor");
    REQUIRE(c);
    CHECK(c->severity == Severity::watch);
    REQUIRE(t.last.foot_out_mm.size() == 4);
    CHECK(t.last.foot_out_mm[0] == 0);
    CHECK(t.last.foot_out_mm[1] == 0);
    CHECK(t.last.foot_out_mm[2] == Approx(2));
    // Feet that screw by 10 stand half-way out and take it; legs are that much shorter.
    t.job.under.feet_travel_mm = 10;
    c = t.says("under.floor");
    REQUIRE(c);
    CHECK(c->severity == Severity::note);
    CHECK(t.last.leg_mm == Approx(leg - 5));
    t.job.under.feet_travel_mm = 3;
    CHECK(t.says("under.floor")->severity == Severity::watch);
    t.job.under.floor_gaps_mm = {0.5, 0.5, 0.5, 6};
    t.job.under.feet_travel_mm = 0;
    CHECK(t.says("under.floor")->severity == Severity::stop);
    t.job.under.floor_gaps_mm = {1, 1, 1, 1.1};
    CHECK_FALSE(t.says("under.floor"));
    // Set one by one; the last one taken away leaves none.
    Job j;
    set_floor_gap(j, 2, 1.5);
    REQUIRE(j.under.floor_gaps_mm.size() == 4);
    CHECK(j.under.floor_gaps_mm[2] == 1.5);
    set_floor_gap(j, 2, {});
    CHECK(j.under.floor_gaps_mm.empty());
    CHECK_THROWS_AS(set_floor_gap(j, 4, 1), std::out_of_range);
}

TEST_CASE("wood whose pith nobody knows moves as it is said to be sawn", "[under][sawn][T22]") {
    Table t;
    const Species& cherry = *find_species("cherry, black");
    const double tangential = *cherry.shrink_tangential_pct;
    const double radial = *cherry.shrink_radial_pct;
    const auto travel = [&](Sawn sawn) {
        t.job.under.sawn = sawn;
        return t.plan().travel_mm;
    };
    const UnderPlan flat = t.plan();
    CHECK(travel(Sawn::flat) == Approx(movement(800, tangential, flat.low_pct, flat.high_pct)));
    CHECK(travel(Sawn::quarter) == Approx(movement(800, radial, flat.low_pct, flat.high_pct)));
    CHECK(travel(Sawn::rift) == Approx(movement(800, (radial + tangential) / 2, flat.low_pct, flat.high_pct)));
    // It is a choice, told with what it does; where the pith is known there is nothing to choose.
    const auto offered = [&] {
        const UnderPlan p = t.plan();
        return std::any_of(p.choices.begin(), p.choices.end(), [](const Choice& c) { return c.key == "under.sawn"; });
    };
    CHECK(offered());
    t.slab.pith_mm = 60;
    CHECK_FALSE(offered());
    CHECK(travel(Sawn::quarter) == Approx(travel(Sawn::flat)));
}

TEST_CASE("wood drier than any air dries it is doubted, wood as dry as the room is not", "[under]") {
    Table t;
    t.slab.moisture_pct = 2;
    const Caution* c = t.says("under.dry");
    REQUIRE(c);
    CHECK(c->severity == Severity::watch);
    t.slab.moisture_pct = 7;
    CHECK_FALSE(t.says("under.dry"));
    t.slab.moisture_pct.reset();
    CHECK_FALSE(t.says("under.dry"));
}

TEST_CASE("holes travel square to the grain of their leaf, those of a cross-cut outward", "[under][way]") {
    Table t;
    for (const Slot& s : t.plan().slots)
        if (!s.round) {
            CHECK(s.way.x == Approx(0).margin(1e-12));
            CHECK(s.way.y == (s.from_fixed_mm > 0 ? 1 : -1));
        }
    // Laid at three degrees to the slab the grain runs at three degrees through the top.
    t.job.leaves.front().placement.angle_deg = 3;
    for (const Slot& s : t.plan().slots) {
        CHECK(length(s.way) == Approx(1));
        if (s.round) continue;
        CHECK(std::atan2(std::abs(s.way.x), std::abs(s.way.y)) * 180 / M_PI == Approx(3));
        CHECK(s.way.y * s.from_fixed_mm > 0);
    }
}

TEST_CASE("two pockets that meet, though their channels do not", "[under][clash][T28]") {
    Table t;
    t.job.under.plates.clear();
    // Side by side in one line across: 3 mm between the channels, less than their pockets are longer.
    t.job.under.channels = {{0, -151.5, 300, 40, 12, 3, 3}, {0, 151.5, 300, 40, 12, 3, 3}};
    const Caution* c = t.says("under.clash");
    REQUIRE(c);
    CHECK(render(c->says, Units::metric()).find("pockets") != std::string::npos);
    t.job.under.channels[1].v_mm = 175;
    CHECK_FALSE(t.says("under.clash"));
}

TEST_CASE("a top moves as its grown slab does, dried in steps ring by ring", "[under][grown][T22]") {
    LogRecipe recipe;
    recipe.species = "hackberry";
    recipe.length_mm = 2600;
    recipe.seed = 41;
    const GrownLog log(recipe);
    SawPlan saw;
    saw.thickness_mm = 55;
    DryPlan dry;
    dry.moisture_pct = 12;
    const Species& wood = *find_species("hackberry");
    int looked = 0;
    for (const Board& board : boards_of(log, saw)) {
        const SawnSlab sawn = make_slab(log, board, saw, dry, {});
        if (!sawn.slab.pith_mm) continue;
        Job job = on(sawn.slab, {1600, 300, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}});
        const Plan plan = plan_job(job, sawn.slab, Shop());
        if (!plan.top->ready) continue;
        const Region& leaf = plan.top->regions.front();
        const double u = 0;
        const auto across = plan.top->across(u);
        if (across.size() != 1) continue;
        // Cell by cell over the section: the ring's own normal there, found from the years around it, one step of moisture after another.
        const double v0 = across.front().from;
        const double v1 = across.front().to;
        constexpr int wide = 60;
        constexpr int high = 8;
        double moved = 0;
        for (int i = 0; i < wide; ++i) {
            double strain = 0;
            for (int k = 0; k < high; ++k) {
                const Vec2 on_slab = leaf.placed.frame().to_slab({u, v0 + (v1 - v0) * (i + 0.5) / wide});
                const double z = board.thickness_mm * (0.2 + 0.6 * (k + 0.5) / high);
                const auto year = [&](double dy, double dz) {
                    return log.at(board.in_log(on_slab.x, on_slab.y / sawn.across + dy, z + dz)).stem;
                };
                const double gy = year(2, 0) - year(-2, 0);
                const double gz = year(0, 2) - year(0, -2);
                const double c2 = gy * gy / std::max(1e-12, gy * gy + gz * gz);  // across runs along the radius by so much
                const double s = *wood.shrink_radial_pct * c2 + *wood.shrink_tangential_pct * (1 - c2);
                double width = 1;
                for (int step = 0; step < 50; ++step) {
                    const double m = 12 - 6.0 * step / 50;
                    width += width * (-6.0 / 50) / (3000 / s - 30 + m);
                }
                strain += (width - 1) / high;
            }
            moved += strain * (v1 - v0) / wide;
        }
        const double told = plan.top->widens(u, v0, v1, 12, 6);
        INFO("board " << board.number << ", pith " << *sawn.slab.pith_mm);
        CHECK(told == Approx(moved).epsilon(0.02));  // 1.2 % at worst when it was written
        ++looked;
    }
    CHECK(looked >= 4);
}

TEST_CASE("what the year does to its width, in words for the client", "[under]") {
    Table t;
    const Caution* c = t.says("under.client");
    REQUIRE(c);
    CHECK(c->severity == Severity::note);
    const std::string text = render(c->says, Units::metric());
    // Narrower after the dry months, wider after the damp ones; both as the months of the wood have it.
    CHECK(text.find("narrower than the day") != std::string::npos);
    const auto [dry, damp] = std::minmax_element(t.last.month_pct.begin(), t.last.month_pct.end());
    const double s = *find_species("cherry, black")->shrink_tangential_pct;
    CHECK(c->says.value(1) == Approx(-movement(800, s, 9, *dry)));
    CHECK(c->says.value(3) == Approx(movement(800, s, 9, *damp)));
    // Wet from the yard it only narrows, dry as a bone it only widens.
    t.slab.moisture_pct = 16;
    CHECK(render(t.says("under.client")->says, Units::metric()).find("always narrower") != std::string::npos);
    t.slab.moisture_pct = 4;
    CHECK(render(t.says("under.client")->says, Units::metric()).find("always wider") != std::string::npos);
    // A room that never changes has nothing to tell.
    t.slab.moisture_pct = 9;
    for (Month& m : t.job.room.months) m = {21, 48};
    CHECK_FALSE(t.says("under.client"));
}

TEST_CASE("a top that waits in the store is let go for the store's air too", "[under][T22]") {
    Table t;
    const UnderPlan straight = t.plan();
    // A damp store, all the year.
    for (Month& m : t.shop.store.months) m = {12, 85};
    CHECK(t.plan().travel_mm == Approx(straight.travel_mm));
    t.job.under.waits = true;
    const UnderPlan waits = t.plan();
    CHECK(waits.high_pct == Approx(equilibrium_moisture(12, 85)));
    CHECK(waits.low_pct == Approx(straight.low_pct));
    CHECK(waits.travel_mm > straight.travel_mm + 3);
    const auto longest = [](const UnderPlan& p) {
        double most = 0;
        for (const Slot& s : p.slots) most = std::max(most, s.length_mm);
        return most;
    };
    CHECK(longest(waits) > longest(straight));
    CHECK(std::any_of(waits.choices.begin(), waits.choices.end(), [](const Choice& c) { return c.key == "under.waits"; }));
}
