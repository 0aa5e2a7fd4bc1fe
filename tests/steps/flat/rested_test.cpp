// What a rest takes of the thickness, faces with next to nothing to take, and who gives what is too thick: by other code and by hand.
#include <catch2/catch.hpp>

#include <cmath>

#include "core/shop/job/cards.h"
#include "core/steps/days/days.h"
#include "core/steps/flat/flat.h"
#include "core/steps/flat/machine.h"
#include "tests/demo_job.h"
#include "tests/sane.h"

using namespace yb;

namespace {

const char* reading_table = "job-reading-table";

/// The thickest that any tilt leaves between two clouds, by golden sections along both slopes: no linear program.
double thickest(const std::vector<Vec3>& top, const std::vector<Vec3>& bottom) {
    const auto left = [&](double a, double b) {
        double low = 1e300, high = -1e300;
        for (const Vec3& p : top) low = std::min(low, p.z - a * p.x - b * p.y);
        for (const Vec3& p : bottom) high = std::max(high, p.z - a * p.x - b * p.y);
        return (low - high) / std::sqrt(1 + a * a + b * b);
    };
    const auto best_of = [](auto&& f, double low, double high) {
        const double g = (std::sqrt(5.0) - 1) / 2;
        double a = high - g * (high - low), b = low + g * (high - low);
        double fa = f(a), fb = f(b);
        for (int i = 0; i < 34; ++i)
            if (fa < fb) low = a, a = b, fa = fb, b = low + g * (high - low), fb = f(b);
            else high = b, b = a, fb = fa, a = high - g * (high - low), fa = f(a);
        return std::max(fa, fb);
    };
    return best_of([&](double a) { return best_of([&](double b) { return left(a, b); }, -0.05, 0.05); }, -0.05, 0.05);
}

/// Both faces of a job's slab inside its top on a fine grid, roughed to so much outside the planes and cupped.
double own_after(const Plan& p, const Tilt& planes, double allowance, double cup) {
    const SlabShape& shape = p.leaves[0].shape();
    const Ring& outline = p.leaves[0].lay->outline;
    const Box piece = bounds(p.leaves[0].lay->rough);
    const Box in = bounds(outline);
    std::vector<Vec3> top, bottom;
    const auto add = [&](Vec2 q) {
        const double v = (q.y - piece.low.y - piece.height() / 2) / (piece.height() / 2);
        const double slope = std::sqrt(1 + planes.a * planes.a + planes.b * planes.b);
        top.push_back({q.x, q.y, std::min(shape.top.at(q), planes.top_at(q) + allowance * slope) + cup * v * v});
        bottom.push_back({q.x, q.y, std::max(shape.bottom.at(q), planes.bottom_at(q) - allowance * slope) + cup * v * v});
    };
    for (int i = 0; i <= 240; ++i)
        for (int j = 0; j <= 90; ++j)
            if (const Vec2 q{in.low.x + in.width() * i / 240, in.low.y + in.height() * j / 90}; contains(outline, q)) add(q);
    for (const Vec2 q : outline) add(q);
    return thickest(top, bottom);
}

}  // namespace

TEST_CASE("what a rest takes of the thickest is what other code takes of the roughed and cupped piece", "[flat][rest]") {
    DemoJob f(reading_table);
    f.job().flat.finish = FinishTo::thickest;
    f.docs.slabs.at(f.job().leaves[0].slab).pith_mm.reset();
    const Plan p = f.plan();
    const FlatPlan& flat = *p.leaves[0].flat;
    // Its pith is not known: nothing is taken off, but what a millimetre would take is told.
    REQUIRE(flat.rest);
    CHECK_FALSE(flat.rest->known);
    CHECK(flat.most_mm == Approx(flat.thickest_mm));
    CHECK(flat.thickness_mm == Approx(flat.thickest_mm));
    CHECK(render(flat.figures[0].note, Units::metric()).find("if it stays flat while it rests") != std::string::npos);
    const auto& of = p.leaves[0];
    double before = 0;
    for (const double cup : {0.5, 1.0, 1.5}) {
        const auto after = after_cupping_mm(of.shape(), of.lay->outline, of.lay->rough, flat.tilt, 1, cup);
        REQUIRE(after);
        INFO(cup);
        CHECK(*after == Approx(own_after(p, flat.tilt, 1, cup)).margin(0.05));
        CHECK(*after < flat.thickest_mm);
        if (cup <= before) continue;
        CHECK(flat.thickest_mm - *after > 0.5 * cup);
        before = cup;
    }
    // More left for the last pass doesn't bring back what was never there; none left takes as much at least.
    const double little = *after_cupping_mm(of.shape(), of.lay->outline, of.lay->rough, flat.tilt, 0.2, 1);
    CHECK(little <= *after_cupping_mm(of.shape(), of.lay->outline, of.lay->rough, flat.tilt, 1, 1) + 1e-9);
}

TEST_CASE("an expected cup is taken off the most there is, and left on the faces for the last pass", "[flat][rest]") {
    DemoJob f(reading_table);
    Slab& slab = f.docs.slabs.at(f.job().leaves[0].slab);
    slab.pith_mm = -60, slab.moisture_pct = 14;
    f.job().flat.finish = FinishTo::thickest;
    const Plan p = f.plan();
    const FlatPlan& flat = *p.leaves[0].flat;
    REQUIRE(flat.rest);
    REQUIRE(flat.rest->known);
    REQUIRE(std::abs(flat.rest->cup_mm) > 0.3);
    const Solved solved = solved_inside(p.leaves[0].shape(), p.leaves[0].lay->outline);
    const double own = own_after(p, solved.best, f.job().flat.allowance_mm, flat.rest->cup_mm);
    CHECK(flat.most_mm == Approx(own).margin(0.05));
    CHECK(flat.thickness_mm == Approx(flat.most_mm));
    CHECK(flat.thickest_mm > flat.most_mm + 0.2);
    CHECK(flat.tilt.thickness_mm == Approx(flat.thickness_mm));
    // Before the rest no more comes off than down to where it can still be had.
    for (const FacePlan& face : flat.faces) CHECK(face.left_mm >= f.job().flat.allowance_mm - 1e-9);
    CHECK(own_after(p, flat.tilt, std::min(flat.faces[0].left_mm, flat.faces[1].left_mm), flat.rest->cup_mm) >= flat.thickness_mm - 0.06);
    CHECK(render(flat.figures[0].note, Units::metric()).find("expected to cup") != std::string::npos);
    // One that is wanted thicker than that is too thin, though today it would still do.
    f.job().flat.finish = FinishTo::wanted;
    f.job().top.thickness_mm = (flat.most_mm + flat.thickest_mm) / 2;
    const Plan thin = f.plan();
    CHECK(find_caution(thin.flat->cautions, "flat.thin"));
    CHECK(thin.flat->thickness_mm == Approx(flat.most_mm).margin(0.01));
    // Without a rest nothing is planed after it moved: what it gives is what it gives today.
    f.job().flat.rest_h = 0;
    CHECK(f.plan().flat->most_mm == Approx(flat.thickest_mm));
}

namespace {
struct Plain {
    Slab slab;
    SlabShape shape;
    LayPlan lay;
    WantedTop top{1600, 500, 40, 740, LiveEdges::none, 0};
    /// 40 mm and `over` more; flat on both faces.
    explicit Plain(double over) {
        slab.id = "p";
        for (const double x : {0.0, 1000.0, 2000.0}) slab.tape.stations.push_back({x, 300, 300, {}, {}, 40 + over, {}});
        shape = shape_of(slab);
        lay = plan_lay({slab, shape, top, {1000, 0, 0, false, 0}});
    }
};
}  // namespace

TEST_CASE("a face with next to nothing to take is not planed first", "[flat][rest]") {
    const Plain p(0.4);
    FlatChoices c;
    // Shared out each face gives 0.2: nothing to plane, nothing to rest for.
    const FlatPlan none = plan_flat({p.slab, p.shape, p.lay, p.top, c, Sled()});
    for (const FacePlan& f : none.faces) CHECK((f.layers == 0 && f.passes_cut == 0 && f.hours == 0));
    CHECK(none.hours == 0);
    CHECK(flat_card({{&none, ""}}, Sled(), FlatCard::after_rest).empty());
    // With 3 mm to take from underneath, the show face waits for the rest: one layer over all of it.
    const Plain q(3);
    c.aim = FlatAim::spare_show;
    const FlatPlan one = plan_flat({q.slab, q.shape, q.lay, q.top, c, Sled()});
    const FacePlan& show = one.face(Face::a);
    const FacePlan& under = one.face(Face::b);
    CHECK(show.most_off_mm == Approx(0).margin(1e-6));
    CHECK(show.layers == 1);
    CHECK(show.last_layers == 1);
    CHECK(show.passes_cut == show.lanes);
    CHECK(under.layers > under.last_layers);
    CHECK(flat_card({{&one, ""}}, Sled(), FlatCard::first_face).empty());
    CHECK_FALSE(flat_card({{&one, ""}}, Sled(), FlatCard::second_face).empty());
    // The machine's program says the same.
    const MachinedSide side = machined_side(one, q.lay, Sled(), c, true);
    CHECK(side.levels_mm == std::vector<double>{0});
    CHECK(machine_passes(side, Sled()).size() >= static_cast<std::size_t>(show.lanes) - 1);
    // Without a rest the show face is left alone.
    c.rest_h = 0;
    CHECK(plan_flat({q.slab, q.shape, q.lay, q.top, c, Sled()}).face(Face::a).layers == 0);
}

TEST_CASE("operations of flattening are those that have something to do", "[flat][days][rest]") {
    DemoJob f(reading_table);
    const auto keys = [&] {
        std::string out;
        for (const Operation& o : f.plan().days->operations)
            if (o.step == step_key::flat) out += o.key + " ";
        return out;
    };
    CHECK(keys() == "flat1 flat2 last ");
    f.job().flat.by = FlatBy::bought_flat;
    CHECK(keys().empty());
    const Plan bought = f.plan();
    for (const FacePlan& face : bought.flat->faces) CHECK((face.passes_cut == 0 && face.layers == 0));
    CHECK_FALSE(find_figure(bought.flat->figures, "flat.passes"));
    // Rough-cutting still comes first, and what follows waits for it.
    for (const Operation& o : bought.days->operations)
        if (o.key == "rough") CHECK(o.hands_on_h > 0);
}

TEST_CASE("what is too thick comes off both faces where it is shared out", "[flat]") {
    const Plain p(10);
    for (const FlatAim aim : {FlatAim::share_out, FlatAim::spare_show, FlatAim::as_it_lies, FlatAim::least_wood}) {
        FlatChoices c;
        c.aim = aim;
        const FlatPlan f = plan_flat({p.slab, p.shape, p.lay, p.top, c, Sled()});
        CHECK(f.thickness_mm == Approx(40));
        CHECK(f.face(Face::a).most_off_mm + f.face(Face::b).most_off_mm == Approx(10));
        if (aim == FlatAim::share_out) CHECK(f.face(Face::a).most_off_mm == Approx(5));
        else CHECK(f.face(Face::a).most_off_mm == Approx(0).margin(1e-6));
    }
}

TEST_CASE("what is left after a rest is held against what is wanted, not against the most there was", "[flat][rest]") {
    DemoJob f("job-tarn-river");
    f.job().flat.finish = FinishTo::thickest;
    const double most = f.plan().flat->thickness_mm;
    f.job().top.thickness_mm = most - 6;
    FlatRound r;
    r.on = "2026-12-20", r.cup_mm = 0, r.bow_mm = 3, r.thickness_mm = most + 1;
    f.job().leaves[0].rounds = {r};
    const auto moved = [&] {
        const Plan p = f.plan();
        const Caution* c = find_caution(p.leaves[0].flat->cautions, "flat.moved");
        REQUIRE(c);
        return *c;
    };
    CHECK(moved().severity == Severity::watch);  // less than planned, more than wanted
    f.job().leaves[0].rounds[0].bow_mm = 9;
    CHECK(moved().severity == Severity::stop);
    CHECK(moved().says.value(5) == Approx(8 - 6).margin(0.01));  // most + 1 − 9, and most − 6 is wanted
}
