// Likeness of leaves: distances in the log by hand, drift by hand, pictures of a grown pair.
#include <catch2/catch.hpp>

#include <cmath>

#include "core/material/tree/saw.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/everything.h"

using namespace yb;

namespace {

Slab sister(const char* id, int number, std::optional<double> pith = {}) {
    Slab s;
    s.id = s.name = id;
    s.species = "butternut";
    s.tree = "log";
    s.sequence = number;
    s.pith_mm = pith;
    s.tape.stations = {{0, 200, 200, {}, {}, 60, {}}, {2000, 200, 200, {}, {}, 60, {}}};
    return s;
}

/// Two leaves along the top, their seam at v = 0; the joint lies `in` from each slab's chalk line.
struct Pair {
    Slab a, b;
    SlabShape sa, sb;
    JointPlan seam;
    Placement pa, pb;
    Pair(Slab first, Slab second, bool a_over, bool b_over, double in = 150)
        : a(a_over ? turned_over(first) : first), b(b_over ? turned_over(second) : second) {
        sa = shape_of(a);
        sb = shape_of(b);
        pa = {1000, in, 0, a_over, 0};
        pb = {1000, -in, 0, b_over, 0};
        for (int i = 0; i <= 72; ++i) seam.along.push_back({-900 + 25.0 * i, 0, 0, 0});
    }
    Likeness told(double kerf = 4) const { return likeness_of({a, sa, nullptr, pa}, {b, sb, nullptr, pb}, seam, kerf); }
};

}  // namespace

TEST_CASE("the shown faces lie as far apart as saw and slabs between put them", "[likeness]") {
    // Neighbours whose parted faces show: the kerf.
    Likeness l = Pair(sister("a", 3), sister("b", 4), false, true).told();
    CHECK(l.parted);
    CHECK(l.mirrored);
    CHECK(l.slabs_between == 0);
    CHECK(l.apart_mm == Approx(4));
    // The outer faces of both: kerf and both slabs.
    l = Pair(sister("a", 3), sister("b", 4), true, false).told();
    CHECK_FALSE(l.parted);
    CHECK(l.apart_mm == Approx(4 + 60 + 60));
    // Both face up: kerf and one slab; a slip pair.
    l = Pair(sister("a", 3), sister("b", 4), false, false).told();
    CHECK_FALSE(l.mirrored);
    CHECK(l.apart_mm == Approx(64));
    // One slab between.
    l = Pair(sister("a", 3), sister("b", 5), false, true).told();
    CHECK(l.slabs_between == 1);
    CHECK(l.apart_mm == Approx(2 * 4 + 60));
    // Measured upside down: face B was the upper one.
    Slab b = sister("b", 4);
    b.face_b_up = true;
    CHECK(Pair(sister("a", 3), b, false, false).told().parted);
}

TEST_CASE("rings drift by d·h/|y|, told up to five times d", "[likeness]") {
    // Seam 150 from the line above the pith. The lower slab, 60 thick, has it 75 below its middle: its shown face lies
    // 105 over the pith, the mate's 109.
    Likeness l = Pair(sister("a", 1, 75), sister("b", 2), false, true).told();
    CHECK(l.pith_known);
    CHECK(l.drift_mm == Approx(4 * 107.0 / 150));
    // Exactly: from y² + h² = r² the ring met on the mate lies further in by that much.
    const double exact = 150 - std::sqrt(150.0 * 150 + 105 * 105 - 109 * 109);
    CHECK(l.drift_mm == Approx(exact).margin(0.1));
    l = Pair(sister("a", 1, 75), sister("b", 2), false, true, 2).told();
    CHECK(l.drift_mm == Approx(5 * 4));
    // The pith in the middle of the lower slab, which the upper one, 64 higher, knows 64 away: 32 below the shown faces.
    l = Pair(sister("a", 1, 0), sister("b", 2, 64), false, true).told();
    CHECK(l.drift_mm == Approx(4 * 32.0 / 150));
    // It lies between them: 30 above the lower's middle, 34 below the upper's, at the lower's own shown face.
    l = Pair(sister("a", 1, 30), sister("b", 2, 34), false, true).told();
    CHECK(l.drift_mm == Approx(4 * 2.0 / 150));
}

TEST_CASE("a knot drifts by its dive, the nearest pairs first", "[likeness]") {
    const auto knot = [](const char* id, Face face, double x, double y) {
        return Flaw{id, FlawKind::knot, face, {{x - 8, y - 8}, {x + 8, y - 8}, {x + 8, y + 8}, {x - 8, y + 8}}, false, 5, 1, ""};
    };
    Slab a = sister("a", 1);
    // 30 along over 60 of thickness; a second knot near by that goes straight down.
    a.flaws = {knot("1a", Face::a, 800, 120), knot("1b", Face::b, 830, 120), knot("2a", Face::a, 900, 120), knot("2b", Face::b, 901, 120)};
    const auto dives = knot_dives(a, 60);
    REQUIRE(dives.size() == 2);
    for (const KnotDive& k : dives) CHECK(k.slope.x == Approx(k.flaw == 0 ? 0.5 : 1.0 / 60).margin(1e-9));
    const Likeness l = Pair(a, sister("b", 2), false, true).told(6);
    REQUIRE(l.knots.size() == 2);
    CHECK(l.worst_is_knot);
    CHECK(l.worst_mm == Approx(3));
    CHECK(l.worst_u_mm == Approx(-200));
    // The mate lies above: there the knot is met where it comes from, against its dive.
    for (const KnotDrift& k : l.knots)
        if (k.mm() > 1) CHECK(k.by.x == Approx(-3));
}

TEST_CASE("pictures of a grown pair agree along the seam, and a slide is found back", "[likeness][grown]") {
    const GrownLog log(drawn_recipe(9, "sycamore, American", 2000, 560));
    SawPlan saw;
    saw.thickness_mm = 60;
    const auto sawn = make_slabs(log, saw, {}, {2, true});
    REQUIRE(sawn.size() > 4);
    const std::size_t k = sawn.size() / 2;
    Documents d;
    Slab low = sawn[k].slab;
    Slab high = sawn[k + 1].slab;
    low.id = "low", high.id = "high";
    d.slabs = {{"low", low}, {"high", high}};
    Job j;
    j.top = {1700, 600, 40, 740, LiveEdges::both, 0};
    REQUIRE(laid_together(j, MakeUp::book, {low, high}).empty());
    const auto match = [&](const Job& job) {
        const Plan p = plan_job(job, d);
        REQUIRE(p.seams->size() == 1);
        const auto side = [&](std::size_t i) {
            return SeamSide{p.leaves[i].slab(), p.leaves[i].shape(), nullptr, job.leaves[i].placement};
        };
        const auto face = [&](std::size_t i) {
            const bool is_low = job.leaves[i].slab == "low";
            const SawnSlab& s = sawn[is_low ? k : k + 1];
            return SeamPicture{job.leaves[i].placement.turned_over ? &s.face_b : &s.face_a, *p.leaves[i].slab().picture_a};
        };
        return match_seam(side(0), face(0), side(1), face(1), p.makeup->joints[0], (*p.seams)[0].mirrored);
    };
    const SeamMatch straight = match(j);
    REQUIRE(straight.windows.size() > 5);
    CHECK(straight.mean > 0.08);  // what changes along the seam, streaks left out
    CHECK(std::abs(straight.slide_mm) <= 8);
    // The left leaf pushed 24 mm along: the advice brings it back.
    Job slid = j;
    slid.leaves[1].placement.x_mm -= 24 * std::cos(slid.leaves[1].placement.angle_deg * 3.14159265 / 180);
    const SeamMatch off = match(slid);
    CHECK(off.mean < straight.mean);
    CHECK(off.slide_mm == Approx(straight.slide_mm - 24).margin(5));
    CHECK(off.slid_mean > off.mean);
}
