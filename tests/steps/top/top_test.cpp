// The real top against hand-solved cases, voxels and the grown truth.
#include <cmath>
#include <random>

#include <catch2/catch.hpp>

#include "core/material/tree/saw.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/pour/pour.h"
#include "demo/demo.h"
#include "tests/planks.h"

using namespace yb;

namespace {

/// A plank with a straight bank that leans: face B stands so much further out at its left (high) or right (low) side.
Slab leaning(const std::string& id, const std::string& species, double lean_left, double lean_right) {
    Slab s = plank(id, 2200, 360, 50);
    s.species = species;
    s.tree = id;
    s.tape.lean_left_mm = lean_left;
    s.tape.lean_right_mm = lean_right;
    s.moisture_pct = 9;
    return s;
}

struct River {
    Documents docs;
    Job job;
    explicit River(MakeUp kind = MakeUp::river, double lean = 0) {
        for (const Slab& s : {leaning("a", "cherry, black", lean, 0), leaning("b", "maple, sugar", 0, lean)}) docs.slabs[s.id] = s;
        job.top = {2000, 800, 40, 740, LiveEdges::none, 6, TopShape::rectangle, {}};
        job.makeup.kind = kind;
        job.flat.aim = FlatAim::as_it_lies;
        job.leaves.resize(2);
        // The right leaf's bank at v = 180 − 230 = −50, the left one's at −180 + 230 = 50.
        job.leaves[0].slab = "a", job.leaves[0].placement = {1100, 230, 0, false, 30};
        job.leaves[1].slab = "b", job.leaves[1].placement = {1100, -230, 0, false, 30};
        job.under.day_moisture_pct = 9;
    }
    Plan plan() const { return plan_job(job, docs); }
};

const Region& of_kind(const Top& t, RegionKind kind, std::size_t n = 0) {
    for (const Region& r : t.regions)
        if (r.kind == kind && n-- == 0) return r;
    throw std::out_of_range("no such region");
}

}  // namespace

TEST_CASE("a river of two straight leaves by hand: litres, weight, regions", "[top]") {
    const River r;
    const Plan p = r.plan();
    REQUIRE(p.top->ready);
    const Top& t = *p.top;
    REQUIRE(t.leaves == 2);
    REQUIRE(t.regions.size() == 3);
    CHECK(t.area_mm2() == Approx(2000.0 * 800).epsilon(1e-9));
    // Leaves 350 wide each, the river 100: times 2 m, times 40 mm.
    CHECK(of_kind(t, RegionKind::leaf, 0).volume_l == Approx(350 * 2000 * 40e-6).epsilon(1e-9));
    CHECK(of_kind(t, RegionKind::leaf, 1).volume_l == Approx(350 * 2000 * 40e-6).epsilon(1e-9));
    const Region& resin = of_kind(t, RegionKind::resin);
    CHECK(resin.volume_l == Approx(100 * 2000 * 40e-6).epsilon(1e-9));
    // Weight: Σ volume × density, each by hand from the species table and the resin's parts.
    const auto wood = [](const char* name) { return 28.0 * 1000 * *find_species(name)->specific_gravity_12 * 1.09 / 1000; };
    const double poured = 8.0 * (2 * 1.12 + 0.97) / 3;
    CHECK(t.mass_kg == Approx(wood("cherry, black") + wood("maple, sugar") + poured).epsilon(1e-9));
    CHECK(p.under->top_kg == Approx(t.mass_kg));
    // What is where.
    CHECK(t.at({0, -200}, 20)->of == "a");
    CHECK(t.at({0, 200}, 20)->of == "b");
    CHECK(t.at({300, 10}, 20)->kind == RegionKind::resin);
    CHECK(t.at({1001, 0}, 20) == nullptr);
    // It stands in what is to be mixed, with overfill and reserve.
    // Its banks, 2 m by 40 mm each, drink 80 mL a square metre; a tenth is reserve, a fiftieth stays in the cup.
    // The form is 60 mm longer than the sawn top.
    const double soak = 2 * 2.06 * 0.04 * 0.08;
    CHECK(p.pour->mix_l == Approx((8.0 * 1.03 + 100 * 2060 * 1.5e-6 + soak) * 1.1 * 1.02).epsilon(1e-6));
    CHECK(figure(p.pour->figures, "pour.mix").value.value == Approx(p.pour->mix_l));
    REQUIRE(p.pour->compartments.size() == 1);
    CHECK(p.pour->compartments[0].net_l == Approx(8.0));
    CHECK(p.pour->compartments[0].guess_l == Approx(8.0));  // straight banks: the usual guess is right
    CHECK(p.pour->lifts.size() == 1);                       // 40 mm of the 50 that slow casting resin takes
}

TEST_CASE("banks that lean hold what the ruled faces between the finished planes hold", "[top]") {
    const River r(MakeUp::river, 20);  // both undersides reach 20 mm further into the river
    const Plan p = r.plan();
    // Planed from 50 to 40, all of it underneath where it lies flat: the upper face at the raw one, the underside at 40 of 50
    // down the lean: 16 mm in from either bank.
    const Region& resin = of_kind(*p.top, RegionKind::resin);
    CHECK(area(resin.above) == Approx(2000.0 * 100).epsilon(1e-6));
    CHECK(area(resin.below) == Approx(2000.0 * (100 - 2 * 16)).epsilon(1e-6));
    CHECK(resin.volume_l == Approx(2000 * (100 + 68) / 2 * 40e-6).epsilon(1e-6));
    CHECK(p.top->rivers.at(0).below.narrowest_mm > 0);
    CHECK_FALSE(find_caution(p.lay->cautions, "lay.banks_meet"));
}

TEST_CASE("banks that meet below are told, and nothing lies over anything", "[top]") {
    River r(MakeUp::river, 40);
    r.job.leaves[0].placement.y_mm = 200;  // 40 mm open above, at 32 mm of lean each 24 mm of wood over one another below
    r.job.leaves[1].placement.y_mm = -200;
    const Plan p = r.plan();
    CHECK(-p.top->rivers.at(0).below.narrowest_mm == Approx(24).margin(0.01));
    const Caution* c = find_caution(p.lay->cautions, "lay.banks_meet");
    REQUIRE(c);
    CHECK(c->severity == Severity::stop);
    CHECK(c->says.value(1) == Approx(24).margin(0.01));
    CHECK(intersection_area(p.top->regions[0].below, p.top->regions[1].below) < 1);
    // The wedge that is left open above: from 40 wide down to nothing at 40/64 of the depth.
    const Region& resin = of_kind(*p.top, RegionKind::resin);
    CHECK(resin.volume_l == Approx(2000 * 40 * (40.0 / 64 * 40) / 2 * 1e-6).epsilon(0.002));
}

TEST_CASE("the movement of a river is its wood's, each leaf like its own", "[top][T22]") {
    const River r;
    const Plan p = r.plan();
    const auto moves = [](const char* name, double width, double from, double to) {
        const double s = *find_species(name)->shrink_tangential_pct;
        return width * (to - from) / (3000 / s - 30 + from);
    };
    const double low = p.under->low_pct;
    const double high = p.under->high_pct;
    CHECK(p.under->wood_mm == Approx(700));
    CHECK(p.under->travel_mm == Approx(moves("cherry, black", 350, low, high) + moves("maple, sugar", 350, low, high)).epsilon(1e-9));
    // A hole 300 left of the middle: 250 of maple between, the river's own half does not move.
    CHECK(p.top->widens(0, 0, 300, 9, 12) == Approx(moves("maple, sugar", 250, 9, 12)).epsilon(1e-9));
    CHECK(p.top->widens(0, 0, -300, 9, 12) == Approx(moves("cherry, black", 250, 9, 12)).epsilon(1e-9));
    CHECK(p.top->widens(0, -40, 40, 9, 12) == 0);
    // With a pith the ring angle counts: less than flat-sawn.
    River ringed;
    for (auto& [id, s] : ringed.docs.slabs) s.pith_mm = 60;
    CHECK(ringed.plan().under->travel_mm < 0.95 * p.under->travel_mm);
}

TEST_CASE("an open river weighs nothing and moves nothing", "[top]") {
    const River poured;
    const River open(MakeUp::open_river);
    const Plan a = poured.plan();
    const Plan b = open.plan();
    const Region& air = of_kind(*b.top, RegionKind::air);
    CHECK(air.volume_l == Approx(8));
    CHECK(air.mass_kg == 0);
    CHECK(air.of.empty());
    CHECK(b.top->mass_kg == Approx(a.top->mass_kg - of_kind(*a.top, RegionKind::resin).mass_kg));
    CHECK(b.under->travel_mm == Approx(a.under->travel_mm));
    CHECK(b.pour->compartments.empty());
    CHECK(b.pour->mix_l == 0);
    // A plate over the gap has a hole in air.
    River holes(MakeUp::open_river);
    holes.job.under.plates = {{0, 0, 100, 500, 3, 1}};
    CHECK(find_caution(holes.plan().under->cautions, "under.hole_in_river"));
    River resin;
    resin.job.under.plates = holes.job.under.plates;
    CHECK(find_caution(resin.plan().under->cautions, "under.hole_in_resin"));
}

TEST_CASE("regions cover the outline and overlap nowhere, in every demo job and in a heap of shifted ones", "[top]") {
    const Documents& d = demo_shop();
    std::mt19937 dice(12);
    std::uniform_real_distribution<double> by(-60, 60);
    for (const auto& [id, job] : d.jobs)
        for (int round = 0; round < 4; ++round) {
            Job j = job;
            for (Leaf& l : j.leaves)
                if (round > 0) l.placement.x_mm += by(dice), l.placement.y_mm += by(dice), l.placement.angle_deg += by(dice) / 60;
            const Plan p = plan_job(j, d);
            INFO(id << " " << round);
            if (!p.top->ready) continue;
            const auto pieces = cover(*p.top);
            double sum = 0;
            for (std::size_t i = 0; i < pieces.size(); ++i) {
                sum += area(pieces[i].ring);
                CHECK_FALSE(self_crossing(pieces[i].ring));
                for (std::size_t k = 0; k < i; ++k) CHECK(intersection_area(pieces[i].ring, pieces[k].ring) < 2);
            }
            CHECK(sum == Approx(p.top->area_mm2()).epsilon(1e-4));
            double mass = 0;
            for (const Region& r : p.top->regions) {
                mass += r.mass_kg;
                CHECK(r.volume_l >= 0);
                CHECK(r.low_mm >= -1e-9);
                CHECK(r.high_mm <= p.top->thickness_mm + 1e-9);
            }
            CHECK(mass == Approx(p.top->mass_kg).epsilon(1e-9));
        }
}

TEST_CASE("resin of a river between grown slabs is what voxels count", "[top][grown]") {
    const GrownLog log(drawn_recipe(11, "sycamore, American", 2400, 560));
    SawPlan saw;
    saw.thickness_mm = 58;
    DryPlan dry;
    dry.reading_noise_mm = 0;
    const auto sawn = make_slabs(log, saw, dry, {});
    REQUIRE(sawn.size() > 4);
    const SawnSlab& right = sawn[2];
    const SawnSlab& left = sawn[3];
    Documents d;
    d.slabs["r"] = right.slab, d.slabs["l"] = left.slab;
    d.slabs["r"].id = "r", d.slabs["l"].id = "l";
    Job j;
    j.top = {1800, 900, 42, 740, LiveEdges::none, 6, TopShape::rectangle, {}};
    j.makeup.kind = MakeUp::river;
    j.leaves.resize(2);
    j.leaves[0].slab = "r", j.leaves[0].placement = {1200, 320, 0.4, false, 30};
    j.leaves[1].slab = "l", j.leaves[1].placement = {1200, -320, -0.3, false, 30};
    const Plan p = plan_job(j, d);
    REQUIRE(p.top->ready);
    // Taken back from the top to the slab and unbent: its exact faces with straight banks between them, at 200 depths; and the
    // green log's own field, whose banks are round.
    struct Solid {
        const SawnSlab& sawn;
        const Placement& placed;
        const Tilt& tilt;
        std::vector<Ring> at_share;
        Solid(const SawnSlab& s, const Placement& p, const Tilt& t) : sawn(s), placed(p), tilt(t) {
            for (int k = 0; k <= 200; ++k) {
                Ring ring;
                for (std::size_t i = 0; i < s.truth.ring_a.size(); ++i)
                    ring.push_back(lerp(s.truth.ring_b[i], s.truth.ring_a[i], k / 200.0));
                at_share.push_back(std::move(ring));
            }
        }
        std::pair<Vec2, double> back(Vec2 uv, double height) const {
            const Vec2 q = placed.frame().to_slab(uv);
            const double z = tilt.bottom_at(q) + height * tilt.slope_factor();
            return {q, (z - sawn.truth.bottom.at(q)) / sawn.truth.thickness_at(q)};
        }
        bool ruled(Vec2 uv, double height) const {
            const auto [q, share] = back(uv, height);
            return contains(at_share.at(static_cast<std::size_t>(std::lround(std::clamp(share, 0.0, 1.0) * 200))), q);
        }
        bool grown(const GrownLog& log, Vec2 uv, double height) const {
            const auto [q, share] = back(uv, height);
            if (q.x < 0 || q.x > sawn.board.x1 - sawn.board.x0) return false;
            return log.inside(sawn.board.in_log(q.x + sawn.board.x0, q.y / sawn.across, share * sawn.board.thickness_mm));
        }
    };
    const Solid a(right, j.leaves[0].placement, p.leaves[0].flat->tilt);
    const Solid b(left, j.leaves[1].placement, p.leaves[1].flat->tilt);
    constexpr double du = 12;
    constexpr double dv = 1;
    constexpr int levels = 8;
    double ruled = 0;
    double grown = 0;
    const double t = p.top->thickness_mm;
    for (double u = -900 + du / 2; u < 900; u += du)
        for (int k = 0; k < levels; ++k) {
            const double h = t * (k + 0.5) / levels;
            for (double v = -160 + dv / 2; v < 160; v += dv) {
                if (!a.ruled({u, v}, h) && !b.ruled({u, v}, h)) ruled += du * dv * t / levels * 1e-6;
                if (!a.grown(log, {u, v}, h) && !b.grown(log, {u, v}, h)) grown += du * dv * t / levels * 1e-6;
            }
        }
    INFO("voxels " << ruled << " L, of the round log " << grown << " L, top " << p.top->river_l() << " L");
    CHECK(p.top->river_l() == Approx(ruled).epsilon(0.003));
    // What no tape on two faces can tell: a log is round between them, so a little less goes in. Never more than the reserve.
    CHECK(p.top->river_l() > grown);
    CHECK(p.top->river_l() < 1.03 * grown);
}

TEST_CASE("the resin of a round with voids is what voxels count", "[top]") {
    Documents d = demo_shop();
    Job j = d.jobs.at("job-round-hall");
    Slab& s = d.slabs.at(j.first().slab);
    s.flaws.clear();
    Flaw f;
    f.id = "deep", f.kind = FlawKind::void_, f.outline = {}, f.depth_mm = 27, f.floor_share = 0.4;
    const Vec2 c{j.first().placement.x_mm, j.first().placement.y_mm};
    for (int i = 0; i < 9; ++i)
        f.outline.push_back(c + Vec2{(70 + 12 * (i % 3)) * std::cos(i * 0.698), 90 + (40 + 7 * (i % 2)) * std::sin(i * 0.698)});
    s.flaws.push_back(f);
    const Plan p = plan_job(j, d);
    REQUIRE(p.top->ready);
    REQUIRE(p.fill->voids.size() == 1);
    const FlatPlan& flat = *p.flat;
    const SlabShape& shape = p.leaves[0].shape();
    const Vec2 mid = centroid(f.outline);
    const Box box = bounds(f.outline);
    double cubic = 0;
    constexpr double step = 0.75;
    for (double x = box.low.x + step / 2; x < box.high.x; x += step)
        for (double y = box.low.y + step / 2; y < box.high.y; y += step)
            for (double depth = 0.1; depth < 27; depth += 0.2) {
                // Narrower by depth about its middle; only between the finished planes.
                const double k = 1 - depth / 27 * 0.6;
                if (!contains(f.outline, mid + (Vec2{x, y} - mid) * (1 / k))) continue;
                const double z = shape.top.at({x, y}) - depth;
                if (z > flat.tilt.top_at({x, y}) || z < flat.tilt.bottom_at({x, y})) continue;
                cubic += step * step * 0.2;
            }
    INFO("voxels " << cubic * 1e-6 << " L, fill " << p.fill->volume_l << " L");
    CHECK(p.fill->volume_l == Approx(cubic * 1e-6).epsilon(0.003));
    const Region& resin = of_kind(*p.top, RegionKind::resin);
    CHECK(resin.volume_l == Approx(p.fill->volume_l));
    CHECK(resin.let_in);
    CHECK(p.top->at(j.first().placement.frame().from_slab(mid), p.top->thickness_mm - 1)->kind == RegionKind::resin);
    CHECK(p.top->at(j.first().placement.frame().from_slab(mid), 1)->kind == RegionKind::leaf);
}

TEST_CASE("a patch is a region of its own wood and its own grain", "[top]") {
    River r;
    Slab source = leaning("c", "walnut, black", 0, 0);
    r.docs.slabs["c"] = source;
    Patch patch;
    patch.id = "p", patch.depth_mm = 8, patch.slab = "c", patch.at = {600, 0};
    patch.outline = {{-60, 150}, {60, 150}, {60, 230}, {-60, 230}};
    r.job.makeup.patches = {patch};
    Plan p = r.plan();
    const Region& g = of_kind(*p.top, RegionKind::patch);
    CHECK(g.of == "c");
    CHECK(g.volume_l == Approx(120 * 80 * 8e-6));
    CHECK(g.mass_kg == Approx(120 * 80 * 8e-6 * 1000 * *find_species("walnut, black")->specific_gravity_12 * 1.09 / 1000));
    CHECK(of_kind(*p.top, RegionKind::leaf, 1).volume_l == Approx(350 * 2000 * 40e-6 - 120 * 80 * 8e-6));
    CHECK(p.top->at({0, 190}, 38)->kind == RegionKind::patch);
    CHECK(p.top->at({0, 190}, 20)->kind == RegionKind::leaf);
    const double straight = *g.shrinkage(0, 150, 230);
    CHECK(straight == Approx(*find_species("walnut, black")->shrink_tangential_pct));
    // Turned by 60 degrees only a quarter of it is across.
    r.job.makeup.patches[0].turn_deg = 60;
    p = r.plan();
    CHECK(*of_kind(*p.top, RegionKind::patch).shrinkage(0, 150, 230) == Approx(straight / 4).epsilon(1e-9));
    const Caution* c = find_caution(p.lay->cautions, "lay.patch_grain");
    REQUIRE(c);
    const double leaf = p.top->widens(0, 150, 230, 8, 12);
    const double s = straight / 4;
    CHECK(c->says.value(1) == Approx(std::abs(leaf - 80 * 4 / (3000 / s - 30 + 8))).epsilon(1e-6));
}

TEST_CASE("a void that opens into the river or runs over a joint is not dammed at the edge", "[top][fill]") {
    River r;
    Flaw f;
    f.id = "f", f.kind = FlawKind::pocket, f.depth_mm = 20, f.floor_share = 1;
    // On the right leaf's bank: 30 mm of it in the wood, the rest beyond.
    f.outline = {{1000, 150}, {1100, 150}, {1100, 230}, {1000, 230}};
    r.docs.slabs["a"].flaws = {f};
    Plan p = r.plan();
    REQUIRE(p.fill->voids.size() == 1);
    CHECK(p.fill->voids[0].meets_river);
    CHECK_FALSE(p.fill->voids[0].runs_out);
    CHECK(find_caution(p.fill->cautions, "fill.meets_river"));
    CHECK_FALSE(find_caution(p.fill->cautions, "fill.dam"));
    // At the sawn side it does run out, and the wood goes on there while it is filled: no dam.
    r.docs.slabs["a"].flaws[0].outline = {{1000, -230}, {1100, -230}, {1100, -100}, {1000, -100}};
    p = r.plan();
    REQUIRE(p.fill->voids.size() == 1);
    CHECK(p.fill->voids[0].runs_out);
    CHECK_FALSE(find_caution(p.fill->cautions, "fill.dam"));
    // Choices of a leaf's void are taken by its number.
    set_choice(r.job, "fill.1/f", "open");
    p = r.plan();
    CHECK(p.fill->voids[0].left_open);
    CHECK(of_kind(*p.top, RegionKind::air).let_in);
    CHECK(p.fill->open_l > 0);
}

TEST_CASE("faces are cut where the finished planes meet the ruled edges", "[top]") {
    SlabShape s;
    s.ring_a = {{0, -100}, {1000, -100}, {1000, 100}, {0, 100}};
    s.ring_b = {{0, -120}, {1000, -120}, {1000, 130}, {0, 130}};
    s.top = Surface({0, 1000}, {-130, 130}, {50, 50, 50, 50});
    s.bottom = Surface({0, 1000}, {-130, 130}, {0, 0, 0, 0});
    Tilt t;
    t.top_mm = 45, t.bottom_mm = 5;
    const auto [above, below] = finished_faces(s, t);
    CHECK(above[0].y == Approx(-102));  // a tenth of the way down
    CHECK(above[2].y == Approx(103));
    CHECK(below[0].y == Approx(-118));
    CHECK(below[2].y == Approx(127));
    t.top_mm = 60;  // no wood up there: the edge as it is
    CHECK(finished_faces(s, t).first[0] == s.ring_a[0]);
}

TEST_CASE("a wet leaf says what it reads, and moves no more than wood can", "[top][under]") {
    River r;
    r.job.under.day_moisture_pct.reset();
    r.docs.slabs["b"].moisture_pct = 45;
    const Plan p = r.plan();
    const Caution* c = find_caution(p.under->cautions, "under.wet");
    REQUIRE(c);
    CHECK(c->says.value(0) == 45);
    CHECK(p.under->day_pct == 30);
    CHECK(of_kind(*p.top, RegionKind::leaf, 1).kg_m3 == Approx(1000 * *find_species("maple, sugar")->specific_gravity_12 * 1.45));
}

TEST_CASE("a void that runs over a glued joint asks to be filled after the glue-up", "[top][fill]") {
    River r(MakeUp::boards);
    // Two leaves that meet at the middle of the top.
    r.job.leaves[0].placement.y_mm = 170, r.job.leaves[1].placement.y_mm = -170;
    Flaw f;
    f.id = "f", f.kind = FlawKind::pocket, f.depth_mm = 20, f.floor_share = 1;
    f.outline = {{1000, 140}, {1100, 140}, {1100, 180}, {1000, 180}};
    r.docs.slabs["a"].flaws = {f};
    const Plan p = r.plan();
    REQUIRE(p.fill->voids.size() == 1);
    CHECK(p.fill->voids[0].meets_joint);
    CHECK_FALSE(p.fill->voids[0].meets_river);
    CHECK_FALSE(p.fill->voids[0].runs_out);
    CHECK(find_caution(p.fill->cautions, "fill.over_joint"));
    CHECK_FALSE(find_caution(p.fill->cautions, "fill.dam"));
}
