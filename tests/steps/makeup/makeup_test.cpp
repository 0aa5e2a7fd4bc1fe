// Make-ups of several leaves: geometry against hand-made slabs, drift against grown truth.
#include <catch2/catch.hpp>

#include <cmath>

#include "core/material/tree/saw.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/makeup/arrange.h"
#include "core/steps/makeup/cuts.h"
#include "core/steps/makeup/snap.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {

/// A slab with straight edges: `left` and `right` of the chalk line at both ends, `lean` outside at face B.
Slab straight(const char* id, double length, double left0, double left1, double right0, double right1, double lean = 0, double thick = 50) {
    Slab s;
    s.id = s.name = id;
    s.species = "sycamore, American";
    s.tree = "one tree";
    s.tape.lean_left_mm = s.tape.lean_right_mm = lean;
    s.tape.stations = {{0, left0, right0, {}, {}, thick, {}}, {length, left1, right1, {}, {}, thick, {}}};
    return s;
}

Documents with(std::initializer_list<Slab> slabs) {
    Documents d;
    for (const Slab& s : slabs) d.slabs[s.id] = s;
    return d;
}

Job made(const Documents& d, MakeUp kind, std::vector<std::string> ids, WantedTop top) {
    Job j;
    j.top = top;
    j.makeup.kind = kind;
    std::vector<Slab> slabs;
    for (const auto& id : ids) slabs.push_back(d.slabs.at(id));
    const std::string why = laid_together(j, kind, slabs);
    INFO(why);
    REQUIRE(why.empty());
    return j;
}

}  // namespace

TEST_CASE("a pair is opened at the line that both leaves can give", "[makeup]") {
    Slab a = straight("a", 2000, 300, 260, 280, 280);
    Slab b = straight("b", 2000, 290, 250, 280, 280);
    a.sequence = 1, b.sequence = 2;
    const Documents d = with({a, b});
    const WantedTop top{1800, 1000, 40, 740, LiveEdges::both, 0};
    const Job j = made(d, MakeUp::book, {"a", "b"}, top);
    const Plan p = plan_job(j, d);
    REQUIRE(p.lay->ready);
    REQUIRE(p.makeup->joints.size() == 1);
    const JointPlan& joint = p.makeup->joints[0];
    CHECK(joint.worst_mm == 0);  // clean of wane on both
    // The upper slab shows the face that the saw parted.
    const auto upper = [&](const char* id) {
        for (const Leaf& l : j.leaves)
            if (l.slab == id) return !l.placement.turned_over;
        return false;
    };
    CHECK(upper("a"));
    CHECK_FALSE(upper("b"));
    // Both edges taper alike on one side of the log, so a line along the taper gives up next to nothing there.
    CHECK(joint.given_right_mm + joint.given_left_mm < 14);
    // The outlines mirror each other at the joint: every place of one leaf's outer edge has its mate.
    for (const double u : {-700.0, 0.0, 700.0}) {
        const auto r = wood_at(p.makeup->leaves[0], u, false);
        const auto l = wood_at(p.makeup->leaves[1], u, false);
        REQUIRE(r);
        REQUIRE(l);
        const double v = joint.along[36].v;
        CHECK(v - r->from == Approx(l->to - v).margin(12));
    }
    CHECK(p.lay->width_left_mm > 1000);
    CHECK(p.seams->at(0).parted);
    // Flat readings: of the 50 mm down to the wanted 40 both faces give half, and the kerf is 4.
    CHECK((*p.seams)[0].apart_mm == Approx(4 + 5 + 5).margin(0.01));
}

TEST_CASE("a joint through wane is a stop with its place", "[makeup]") {
    // Face B stands 12 mm inside face A: a line clean on the show face alone is not clean.
    Slab a = straight("a", 2000, 250, 250, 250, 250, -12);
    Slab b = straight("b", 2000, 250, 250, 250, 250, -12);
    const Documents d = with({a, b});
    Job j = made(d, MakeUp::slip, {"a", "b"}, {1800, 900, 40, 740, LiveEdges::both, 0});
    Plan p = plan_job(j, d);
    CHECK(p.makeup->joints[0].worst_mm == 0);
    CHECK(p.makeup->joints[0].given_right_mm == Approx(12).margin(0.1));
    // The line moved 5 mm into the left leaf lacks 5 mm on the right one's underside.
    j.makeup.joints[0].v_mm += 5;
    p = plan_job(j, d);
    CHECK(p.makeup->joints[0].worst_mm == Approx(5).margin(0.05));
    const Caution* c = find_caution(p.lay->cautions, "lay.joint");
    REQUIRE(c);
    CHECK(c->severity == Severity::stop);
    CHECK_FALSE(p.lay->fits);
}

TEST_CASE("best rip is the edge of the hull, as an exhaustive search finds it", "[makeup]") {
    std::vector<EdgeLimit> edge;
    for (int i = 0; i <= 60; ++i) {
        const double x = 30.0 * i;
        edge.push_back({x, 300 + 14 * std::sin(x / 260) + 5 * std::sin(x / 71) - 0.012 * x, 310});
    }
    const auto rip = best_rip(edge, true);
    REQUIRE(rip);
    double best = -1e9;
    for (double slope = -0.06; slope <= 0.06; slope += 0.00002) {
        double y = 1e9;
        for (const EdgeLimit& e : edge) y = std::min(y, e.y - slope * (e.x - 900));
        best = std::max(best, y);
    }
    CHECK(rip->y_mm == Approx(best).margin(0.02));
    for (const EdgeLimit& e : edge) CHECK(rip->at(e.x) <= e.y + 1e-9);
    // The low side is the same upside down.
    auto low = edge;
    for (EdgeLimit& e : low) e.y = -e.y, e.show = -e.show;
    CHECK(best_rip(low, false)->y_mm == Approx(-rip->y_mm));
    CHECK(best_rip(low, false)->given_up_mm == Approx(rip->given_up_mm));
}

TEST_CASE("rot at the edge is ripped off with it, a live knot is not", "[makeup]") {
    Slab s = straight("s", 1000, 200, 200, 200, 200);
    s.flaws.push_back({"rot", FlawKind::soft, Face::a, {{400, 150}, {500, 150}, {500, 195}, {400, 195}}, false, 10, 1, ""});
    s.flaws.push_back({"knot", FlawKind::knot, Face::a, {{700, 150}, {760, 150}, {760, 195}, {700, 195}}, false, 10, 1, "live"});
    const auto limits = edge_limits(s, shape_of(s), true, 0, 1000);
    double at_rot = 1e9;
    double at_knot = 1e9;
    for (const EdgeLimit& e : limits) {
        if (e.x > 410 && e.x < 490) at_rot = std::min(at_rot, e.y);
        if (e.x > 710 && e.x < 750) at_knot = std::min(at_knot, e.y);
    }
    CHECK(at_rot == Approx(150).margin(0.5));
    CHECK(at_knot == Approx(200).margin(0.5));
}

TEST_CASE("a river is measured between its banks, and evened", "[makeup]") {
    // Banks that lean against each other: 60 mm at one end, 180 at the other.
    Slab a = straight("a", 2100, 200, 140, 300, 300);
    Slab b = straight("b", 2100, 300, 300, 200, 140);
    const Documents d = with({a, b});
    Job j;
    j.top = {2000, 900, 40, 740, LiveEdges::none, 0};
    j.makeup.kind = MakeUp::river;
    j.makeup.river_mm = 120;
    j.leaves.resize(2);
    j.leaves[0].slab = "a", j.leaves[1].slab = "b";
    j.leaves[0].placement = {1050, 230, 0, false, 30};
    j.leaves[1].placement = {1050, -230, 0, false, 30};
    Plan p = plan_job(j, d);
    REQUIRE(p.lay->ready);
    const JointPlan& river = p.makeup->joints[0];
    // Right bank at v = y − 230: from 200 − 230 at x = 50 … the two slopes of 60 over 2100 add up.
    CHECK(river.above.mean_mm == Approx(120).margin(0.5));
    CHECK(river.above.widest_mm - river.above.narrowest_mm == Approx(2 * 60.0 / 2100 * 2000).margin(0.5));
    CHECK(figure(p.lay->figures, "lay.resin").value.value == Approx(120 * 2000 * 40 * 1e-6).margin(0.1));
    MakeUpInputs in{{}, j.top, j.makeup, false, {}};
    for (std::size_t i = 0; i < 2; ++i) in.leaves.push_back({p.leaves[i].slab(), p.leaves[i].shape(), j.leaves[i].placement});
    const auto even = even_river(in);
    for (std::size_t i = 0; i < 2; ++i) j.leaves[i].placement = even[i];
    p = plan_job(j, d);
    CHECK(p.makeup->joints[0].above.mean_mm == Approx(120).margin(3));
    CHECK(p.makeup->joints[0].above.widest_mm - p.makeup->joints[0].above.narrowest_mm < 20);
    CHECK(figure(p.lay->figures, "lay.resin").note.pattern.find("both ends show it") != std::string::npos);
    // Laid closer, the banks meet at the left end, where both slabs are widest: wood there.
    Job closing = j;
    closing.leaves[0].placement = {1050, 190, 0, false, 30};
    closing.leaves[1].placement = {1050, -190, 0, false, 30};
    CHECK(figure(plan_job(closing, d).lay->figures, "lay.resin").note.pattern.find("the left end stays wood") != std::string::npos);
    // The resin weighs in the top: more than the wood alone.
    const double kg_l = (2 * 1.12 + 0.97) / 3;  // slow deep casting, two parts to one
    // Straight banks: the gap changes evenly from end to end, its area is the mean of both times the length.
    const JointPlan& evened = p.makeup->joints[0];
    const double litres = (evened.above.narrowest_mm + evened.above.widest_mm) / 2 * 2000 * p.flat->thickness_mm * 1e-6;
    CHECK(p.top->river_l() == Approx(litres).epsilon(1e-3));  // evened, one leaf ends 0.7 mm before the top
    double resin_kg = 0;
    for (const Region& r : p.top->regions)
        if (r.kind == RegionKind::resin) resin_kg += r.mass_kg;
    CHECK(resin_kg == Approx(p.top->river_l() * kg_l).epsilon(1e-9));
}

TEST_CASE("an open river on rods says how long each is and when one comes through", "[makeup]") {
    Slab a = straight("a", 2100, 150, 150, 150, 150);
    Slab b = straight("b", 2100, 150, 150, 150, 150);
    const Documents d = with({a, b});
    WantedTop top{2000, 600, 40, 740, LiveEdges::both, 0};
    Job j = made(d, MakeUp::open_river, {"a", "b"}, top);
    j.makeup.river_mm = 80;
    j = [&] {
        Job k = j;
        std::vector<Slab> slabs{a, b};
        REQUIRE(laid_together(k, MakeUp::open_river, slabs).empty());
        return k;
    }();
    j.makeup.rod_depth_mm = 100;
    Plan p = plan_job(j, d);
    REQUIRE(p.makeup->joints[0].rods.size() >= 4);
    for (const Rod& r : p.makeup->joints[0].rods) CHECK(r.length_mm == Approx(80 + 200).margin(0.5));
    CHECK_FALSE(find_caution(p.lay->cautions, "lay.rod_deep"));
    j.makeup.rod_depth_mm = 290;
    p = plan_job(j, d);
    REQUIRE(find_caution(p.lay->cautions, "lay.rod_deep"));
    CHECK(find_caution(p.lay->cautions, "lay.rod_deep")->severity == Severity::stop);
    // A plate across the river has holes where there is nothing to screw into.
    j.under.plates = {{0, 0, 100, 500, 3, 1}};
    CHECK(find_caution(plan_job(j, d).under->cautions, "under.hole_in_river"));
}

TEST_CASE("bad make-ups are said and nothing is blocked", "[makeup][T1][T43]") {
    Slab a = straight("a", 2100, 150, 150, 150, 150);
    Slab b = straight("b", 2100, 150, 150, 150, 150);
    b.tree = "another";
    b.retired = true;
    const Documents d = with({a, b});
    Job j;
    j.top = {2000, 600, 40, 740, LiveEdges::none, 0};
    j.makeup.kind = MakeUp::river;
    j.leaves.resize(2);
    j.leaves[0].slab = "a", j.leaves[1].slab = "b";
    j.leaves[0].placement = {1050, 100, 0, false, 30};
    j.leaves[1].placement = {1050, -100, 0, false, 30};
    Plan p = plan_job(j, d);
    CHECK(find_caution(p.lay->cautions, "lay.overlap"));
    CHECK(find_caution(p.lay->cautions, "lay.retired"));
    CHECK(find_caution(p.lay->cautions, "lay.trees"));
    j.leaves[1].slab = "a";
    CHECK(find_caution(plan_job(j, d).lay->cautions, "lay.twice"));
    j.leaves[1].placement.y_mm = -5000;
    p = plan_job(j, d);
    CHECK(find_caution(p.lay->cautions, "lay.leaf_out"));
    CHECK(find_caution(p.lay->cautions, "lay.river_wide"));
    // Ripped before the faces are flat.
    Job book = made(d, MakeUp::book, {"a", "b"}, j.top);
    book.makeup.ripped = true;
    REQUIRE(find_caution(plan_job(book, d).lay->cautions, "lay.rip_order"));
    CHECK(find_caution(plan_job(book, d).lay->cautions, "lay.rip_order")->severity == Severity::stop);
    book.makeup.faces_flat = true;
    CHECK_FALSE(find_caution(plan_job(book, d).lay->cautions, "lay.rip_order"));
}

TEST_CASE("what can't be made says why", "[makeup]") {
    const Slab a = straight("a", 2000, 200, 200, 200, 200);
    Job j;
    CHECK(laid_together(j, MakeUp::book, {a}).find("two leaves") != std::string::npos);
    CHECK(laid_together(j, MakeUp::boards, {a, a}).find("three or four") != std::string::npos);
    Slab bare;
    bare.name = "bare";
    CHECK(laid_together(j, MakeUp::book, {a, bare}).find("bare is not measured") != std::string::npos);
    CHECK(j.leaves.size() == 1);
}

TEST_CASE("leaves come to one thickness, the thinnest decides", "[makeup]") {
    const Documents d = with({straight("a", 2000, 250, 250, 250, 250, 0, 50), straight("b", 2000, 250, 250, 250, 250, 0, 36)});
    Job j = made(d, MakeUp::slip, {"a", "b"}, {1800, 900, 45, 740, LiveEdges::both, 0});
    const Plan p = plan_job(j, d);
    REQUIRE(p.leaves.size() == 2);
    CHECK(p.leaves[0].flat->thickness_mm == Approx(36).margin(0.01));
    CHECK(p.leaves[1].flat->thickness_mm == Approx(36).margin(0.01));
    CHECK(p.flat->thickness_mm == Approx(36).margin(0.01));
    // A leaf on the bench is planned on its own slab.
    const Plan leaf = plan_job(j, d, 1);
    CHECK(leaf.slab()->id == j.leaves[1].slab);
    CHECK(leaf.flat->thickness_mm == Approx(36).margin(0.01));
}

TEST_CASE("care that is the same for every leaf is told once", "[makeup]") {
    const Documents d = demo_shop();
    const Plan p = plan_job(d.jobs.at("job-seed-cabinet"), d);
    std::map<std::string, int> seen;
    for (const Caution& c : p.sheets.cautions)
        if (!c.at) ++seen[render(c, {})];
    for (const auto& [sentence, times] : seen) {
        INFO(sentence);
        CHECK(times == 1);
    }
    int router = 0;
    for (const auto& [sentence, times] : seen) router += sentence.rfind("Router", 0) == 0;  // of no leaf by name
    CHECK(router == 1);
}

TEST_CASE("turning a leaf over or end for end leaves it where it lies", "[makeup]") {
    const Documents d = with({straight("a", 2000, 250, 200, 250, 300), straight("b", 2000, 250, 250, 240, 260)});
    Job j = made(d, MakeUp::slip, {"a", "b"}, {1800, 900, 40, 740, LiveEdges::both, 0});
    const auto middle = [&](const Job& job) { return centroid(plan_job(job, d).makeup->leaves[1].show); };
    const Vec2 before = middle(j);
    for (const bool over : {true, false}) {
        Job turned = j;
        over ? turn_over(turned, 1, before.y) : end_for_end(turned, 1, before.y);
        CHECK(middle(turned).y == Approx(before.y).margin(0.5));
        CHECK_FALSE(turned.leaves[1].placement == j.leaves[1].placement);
        over ? turn_over(turned, 1, before.y) : end_for_end(turned, 1, before.y);
        CHECK(turned.leaves[1].placement.x_mm == Approx(j.leaves[1].placement.x_mm).margin(1e-6));
        CHECK(turned.leaves[1].placement.y_mm == Approx(j.leaves[1].placement.y_mm).margin(1e-6));
    }
}

TEST_CASE("slabs measured upside down or the other way round make the same book", "[makeup]") {
    Slab a = straight("a", 2000, 300, 260, 280, 270);
    Slab b = straight("b", 2000, 295, 255, 280, 270);
    a.sequence = 1, b.sequence = 2;
    const WantedTop top{1800, 1000, 40, 740, LiveEdges::both, 0};
    const Documents plain = with({a, b});
    const Plan first = plan_job(made(plain, MakeUp::book, {"a", "b"}, top), plain);
    // The same slab measured with its lower face up.
    Slab flipped = turned_over(b);
    flipped.face_b_up = true;
    const Documents turned = with({a, flipped});
    const Plan second = plan_job(made(turned, MakeUp::book, {"a", "b"}, top), turned);
    CHECK(second.seams->at(0).parted);
    CHECK(second.lay->width_left_mm == Approx(first.lay->width_left_mm).margin(1));
    // And measured from the log's other end.
    Slab ended = b;
    ended.ends_swapped = true;
    ended.tape.stations = {{0, 270, 255, {}, {}, 50, {}}, {2000, 280, 295, {}, {}, 50, {}}};
    const Documents other = with({a, ended});
    const Plan third = plan_job(made(other, MakeUp::book, {"a", "b"}, top), other);
    CHECK(third.lay->width_left_mm == Approx(first.lay->width_left_mm).margin(1));
    CHECK(third.lay->width_right_mm == Approx(first.lay->width_right_mm).margin(1));
}

TEST_CASE("a leaf snaps to where its knot meets its mate's", "[makeup]") {
    Slab a = straight("a", 2000, 250, 250, 250, 250);
    Slab b = straight("b", 2000, 250, 250, 250, 250);
    const auto knot = [](double x, double y) {
        return Flaw{"k", FlawKind::knot, Face::a, {{x - 10, y - 10}, {x + 10, y - 10}, {x + 10, y + 10}, {x - 10, y + 10}}, false, 5, 1,
                    ""};
    };
    a.flaws.push_back(knot(900, 180));
    b.flaws.push_back(knot(915, -180));
    const Documents d = with({a, b});
    const Job j = made(d, MakeUp::slip, {"a", "b"}, {1800, 900, 40, 740, LiveEdges::both, 0});
    const Plan p = plan_job(j, d);
    MakeUpInputs in{{}, j.top, j.makeup, false, {}};
    for (std::size_t i = 0; i < 2; ++i) in.leaves.push_back({p.leaves[i].slab(), p.leaves[i].shape(), j.leaves[i].placement});
    const SnapPlaces places = snap_places(in, *p.makeup, 1);
    std::string what;
    const Vec2 to = snapped(places, {-12, 0}, 5, &what);
    CHECK(what.find("knots meet") != std::string::npos);
    CHECK(to.x == Approx(j.leaves[1].slab == "b" ? -15 : 15).margin(0.01));
    CHECK(snapped(places, {-40, 23}, 5).x == -40);  // out of reach: as the hand says
}

TEST_CASE("the cut list is in working order and the offcuts are named", "[makeup][T46]") {
    Slab a = straight("a", 2600, 300, 300, 300, 300);
    Slab b = straight("b", 2600, 300, 300, 300, 300);
    const Documents d = with({a, b});
    const Job j = made(d, MakeUp::slip, {"a", "b"}, {1800, 1100, 40, 740, LiveEdges::none, 0});
    const Plan p = plan_job(j, d);
    std::vector<CutKind> kinds;
    for (const Cut& c : p.cuts->cuts) kinds.push_back(c.kind);
    CHECK(std::is_sorted(kinds.begin(), kinds.end()));
    CHECK(std::count(kinds.begin(), kinds.end(), CutKind::rough) == 4);
    CHECK(std::count(kinds.begin(), kinds.end(), CutKind::rip) == 2);
    CHECK(std::count(kinds.begin(), kinds.end(), CutKind::sides) == 2);
    // 2600 − 1860 leaves 370 at both ends of both, less the kerf.
    REQUIRE(p.cuts->offcuts.size() >= 4);
    CHECK(p.cuts->offcuts[0].length_mm == Approx(370 - 2.4).margin(0.5));
    CHECK(p.cuts->offcuts[0].name.find("left end") != std::string::npos);
    for (const Cut& c : p.cuts->cuts) CHECK(c.after_flat == (c.kind != CutKind::rough));
}

TEST_CASE("the drift of a knot is foretold within 2 mm of the truth", "[makeup][grown]") {
    int told = 0;
    double worst = 0;
    for (const std::uint64_t seed : {3U, 8U, 14U, 21U, 33U, 52U}) {
        LogRecipe recipe = drawn_recipe(seed, "sycamore, American", 2000, 520);
        const GrownLog log(recipe);
        SawPlan saw;
        saw.thickness_mm = 60;
        const auto slabs = make_slabs(log, saw, {}, {0, false});
        for (std::size_t k = 0; k + 1 < slabs.size(); ++k) {
            Documents d;
            Slab low = slabs[k].slab;
            Slab high = slabs[k + 1].slab;
            low.id = "low", high.id = "high";
            d.slabs["low"] = low, d.slabs["high"] = high;
            Job j;
            j.top = {1600, 500, 40, 740, LiveEdges::both, 0};
            j.makeup.kind = MakeUp::book;
            if (!laid_together(j, MakeUp::book, {low, high}).empty()) continue;
            const Plan p = plan_job(j, d);
            if (!p.lay->ready || p.seams->empty()) continue;
            CHECK((*p.seams)[0].parted);
            for (const KnotDrift& knot : (*p.seams)[0].knots) {
                // The truth: where the branch itself runs at the depth of both shown faces.
                const std::size_t leaf = knot.leaf;
                const Leaf& l = j.leaves[leaf];
                const SawnSlab& s = slabs[k + (l.slab == "high" ? 1 : 0)];
                const Vec2 at = l.placement.frame().to_slab(knot.uv);
                const double y_log = (l.placement.turned_over ? -at.y : at.y);
                const double z_shown = l.placement.turned_over ? 0 : s.board.thickness_mm;
                // Nearest branch axis to that place.
                double nearest = 1e9;
                std::size_t branch = 0;
                const Vec3 p0 = s.board.in_log(at.x, y_log / s.across, z_shown);
                for (std::size_t b = 0; b < recipe.branches.size(); ++b) {
                    const Vec3 st = log.branch_start(b);
                    const Vec3 dir = log.branch_direction(b);
                    const Vec3 v{p0.x - st.x, p0.y - st.y, p0.z - st.z};
                    const double t = v.x * dir.x + v.y * dir.y + v.z * dir.z;
                    const double off = std::hypot(v.x - t * dir.x, std::hypot(v.y - t * dir.y, v.z - t * dir.z));
                    if (off < nearest) nearest = off, branch = b;
                }
                if (nearest > 12) continue;  // a blend of two, or cut at the slab's edge: no one axis is its truth
                const Vec3 dir = log.branch_direction(branch);
                const double down = std::abs(dir.x * s.board.ez.x + dir.y * s.board.ez.y + dir.z * s.board.ez.z);
                if (down < 0.25) continue;  // it runs along the face
                const double along = std::sqrt(std::max(0.0, 1 - down * down)) / down;
                worst = std::max(worst, std::abs(knot.mm() - along * knot.apart_mm));
                ++told;
            }
        }
    }
    INFO("knots told: " << told << ", worst " << worst);
    CHECK(told >= 10);
    CHECK(worst < 2);
}
