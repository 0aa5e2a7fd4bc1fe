// The base put together again from its cut list alone; how holes are made; what has to fit.
#include <tuple>

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>

#include "tests/steps/under/table.h"

using namespace yb;

namespace {

constexpr double deg = std::numbers::pi / 180;

BaseInputs two_plates(BaseKind kind) {
    BaseInputs in;
    in.leg_mm = 680;
    in.choices.base = kind;
    in.choices.plates = {{-600, 0, 100, 620, 3, 1}, {600, 0, 100, 620, 3, 1}};
    in.choices.leg_wide_mm = 80, in.choices.leg_thick_mm = 60;
    in.choices.stock_mm = 45;
    return in;
}

const BasePart& named(const BasePlan& p, const std::string& name) {
    for (const BasePart& part : p.parts)
        if (part.name == name) return part;
    FAIL(name);
    throw 0;
}

double distance(Vec2 a, Vec2 b) { return std::hypot(a.x - b.x, a.y - b.y); }
double apart(Vec3 a, Vec3 b) { return std::sqrt(std::pow(a.x - b.x, 2) + std::pow(a.y - b.y, 2) + std::pow(a.z - b.z, 2)); }

/// How far the nearest corner of another piece lies from a corner.
double nearest_other(const BasePlan& p, std::size_t piece, Vec3 corner) {
    double best = 1e300;
    for (std::size_t i = 0; i < p.pieces.size(); ++i)
        if (i != piece)
            for (const Vec3 q : p.pieces[i].corners) best = std::min(best, apart(q, corner));
    return best;
}

bool tells(const std::vector<Figure>& figures, const std::string& key) {
    return std::any_of(figures.begin(), figures.end(), [&](const Figure& f) { return f.key == key; });
}

struct Walker {
    Vec2 at;
    double heading = 0;
    void go(double mm) { at = at + Vec2{std::cos(heading) * mm, std::sin(heading) * mm}; }
    /// Round a corner whose two cuts stand so far off square.
    void corner(double first_deg, double second_deg) { heading += std::numbers::pi - (90 - first_deg + 90 - second_deg) * deg; }
};

}  // namespace

TEST_CASE("a frame put together from its cut list closes to a hundredth, its diagonals are alike", "[under][base]") {
    for (const double splay : {0.0, 4.0, 12.5}) {
        INFO(splay);
        BaseInputs in = two_plates(BaseKind::frames);
        in.choices.splay_deg = splay;
        const BasePlan p = plan_base(in);
        const BasePart& rail = named(p, "frame, upper bar");
        const BasePart& sill = named(p, "frame, lower bar");
        const BasePart& post = named(p, "frame, upright");
        CHECK(rail.count == 2);
        CHECK(sill.count == 2);
        CHECK(post.count == 4);
        CHECK(rail.length_mm == 620);
        // Round the outside: along the floor, up, back along the top, down.
        Walker w;
        std::vector<Vec2> corners{w.at};
        w.go(sill.length_mm), corners.push_back(w.at);
        w.corner(sill.second_deg, post.second_deg);
        w.go(post.length_mm), corners.push_back(w.at);
        w.corner(post.first_deg, rail.first_deg);
        w.go(rail.length_mm), corners.push_back(w.at);
        w.corner(rail.second_deg, post.first_deg);
        w.go(post.length_mm);
        CHECK(distance(w.at, {0, 0}) < 0.01);
        w.corner(post.second_deg, sill.first_deg);
        CHECK(w.heading == Approx(2 * std::numbers::pi));
        CHECK(corners[2].y == Approx(680).margin(0.01));  // as high as its legs were to be
        const double one = distance(corners[0], corners[2]);
        const double other = distance(corners[1], corners[3]);
        CHECK(one == Approx(other).margin(0.01));
        CHECK(one == Approx(p.diagonal_mm).margin(0.01));
        // Where it stands, every corner of every bar meets one of its neighbour's.
        REQUIRE(p.pieces.size() == 8);
        for (std::size_t i = 0; i < p.pieces.size(); ++i)
            for (const Vec3 q : p.pieces[i].corners) CHECK(nearest_other(p, i, q) < 0.01);
        const Box feet = bounds(Ring(p.feet.begin(), p.feet.end()));
        CHECK(feet.height() == Approx(sill.length_mm));
        CHECK(feet.width() == Approx(1200 + 60));
    }
    // By hand: 620 wide, 680 high, square.
    const BasePlan square = plan_base(two_plates(BaseKind::frames));
    CHECK(square.diagonal_mm == Approx(920.217));
    CHECK(named(square, "frame, upright").first_deg == 45);
    // Two layers of stock make 60 out of 45; 620, 620 and twice 680 of 80 by 60, twice: 24.96 L.
    CHECK(named(square, "frame, upright").layers == 2);
    CHECK(square.glue_stages == 1);
    CHECK(square.volume_l == Approx(24.96));
    // Three and four layers: pairs, then the pairs together; five want a third stage.
    for (const auto& [stock, layers, stages] : {std::tuple(20.0, 3, 2), std::tuple(15.0, 4, 2), std::tuple(12.0, 5, 3)}) {
        BaseInputs thin = two_plates(BaseKind::frames);
        thin.choices.stock_mm = stock;
        const BasePlan p = plan_base(thin);
        CHECK(named(p, "frame, upright").layers == layers);
        CHECK(p.glue_stages == stages);
    }
}

TEST_CASE("crossed legs fill their box, level above and below", "[under][base]") {
    const BasePlan p = plan_base(two_plates(BaseKind::cross));
    const BasePart& bar = named(p, "crossed leg");
    CHECK(bar.count == 4);
    CHECK(bar.first_deg == bar.second_deg);
    // From the cut list: a parallelogram whose slanting ends are laid level.
    const double a = bar.first_deg * deg;
    const double edge = bar.length_mm - bar.width_mm * std::tan(a);
    CHECK(edge * std::cos(a) == Approx(680).margin(0.01));
    CHECK(edge * std::sin(a) + bar.width_mm / std::cos(a) == Approx(620).margin(0.01));
    for (const BasePiece& piece : p.pieces)
        for (const Vec3 q : piece.corners) {
            CHECK(std::abs(q.y) <= 310.001);
            CHECK((std::abs(q.z) < 1e-9 || q.z == Approx(680)));
        }
    CHECK(cross_lean_deg(3000, 4000, 0.001) == Approx(std::atan2(3.0, 4.0) / deg).margin(1e-4));  // a thin one: the diagonal itself
    CHECK_THROWS_AS(cross_lean_deg(100, 700, 120), std::invalid_argument);
    CHECK_THROWS_AS(cross_lean_deg(0, 700, 20), std::invalid_argument);
}

TEST_CASE("legs that lean both ways stand on a rectangle and are all of one length", "[under][base]") {
    // By hand: 10° along and across lean 14.003° in all, and are 1.0306 as long as high.
    const Lean lean = lean_of(10, 10);
    CHECK(lean.tilt_deg == Approx(14.0028).margin(1e-3));
    CHECK(lean.per_height == Approx(1.03063).margin(1e-4));
    CHECK(lean_of(0, 7).tilt_deg == Approx(7));
    BaseInputs in = two_plates(BaseKind::legs);
    in.choices.splay_deg = 10;
    const BasePlan p = plan_base(in);
    REQUIRE(p.pieces.size() == 4);
    std::vector<Vec2> middles;
    for (const BasePiece& piece : p.pieces) {
        Vec3 low{};
        Vec3 high{};
        for (int i = 0; i < 4; ++i) {
            const Vec3 a = piece.corners[static_cast<std::size_t>(i)];
            const Vec3 b = piece.corners[static_cast<std::size_t>(i + 4)];
            CHECK(a.z == Approx(0).margin(1e-9));
            CHECK(b.z == Approx(680));
            CHECK(apart(a, b) == Approx(680 * lean.per_height));  // parallel ends: every edge alike
            low = {low.x + a.x / 4, low.y + a.y / 4, 0};
            high = {high.x + b.x / 4, high.y + b.y / 4, 0};
        }
        middles.push_back({low.x, low.y});
        CHECK(std::abs(low.x - high.x) == Approx(680 * std::tan(10 * deg)));
        CHECK(std::abs(low.y) - std::abs(high.y) == Approx(680 * std::tan(10 * deg)));
        CHECK(std::abs(low.x) > std::abs(high.x));
    }
    CHECK(distance(middles[0], middles[3]) == Approx(distance(middles[1], middles[2])));
    CHECK(named(p, "leg").length_mm > 680 * lean.per_height);
    CHECK(named(p, "leg").length_mm < 680 * lean.per_height + 110 * std::tan(lean.tilt_deg * deg));
    // Upright ones are as long as high; of one plate they stand at its corners.
    BaseInputs one = two_plates(BaseKind::legs);
    one.choices.plates = {{0, 0, 700, 500, 3, 2}};
    const BasePlan q = plan_base(one);
    CHECK(named(q, "leg").length_mm == Approx(680));
    const Box feet = bounds(Ring(q.feet.begin(), q.feet.end()));
    CHECK(feet.width() == Approx(700));
    CHECK(feet.height() == Approx(500));
}

TEST_CASE("trestle and pedestal: tenons, laps and notches come to what is there", "[under][base]") {
    const BasePlan trestle = plan_base(two_plates(BaseKind::trestle));
    // 1200 from middle to middle, posts of 60, tenons 30 past them.
    CHECK(named(trestle, "trestle, stretcher").length_mm == Approx(1200 + 60 + 60));
    CHECK(named(trestle, "trestle, stretcher").note.value(2) == Approx(1140));
    CHECK(named(trestle, "trestle, foot").length_mm == 620);
    BaseInputs wide = two_plates(BaseKind::trestle);
    wide.choices.foot_across_mm = 760;
    CHECK(named(plan_base(wide), "trestle, foot").length_mm == 760);
    BaseInputs near = two_plates(BaseKind::trestle);
    near.choices.plates.pop_back();
    for (const BasePart& part : plan_base(near).parts) CHECK(part.name != "trestle, stretcher");  // nothing to reach

    const BasePlan pedestal = plan_base(two_plates(BaseKind::pedestal));
    REQUIRE(pedestal.parts.size() == 2);
    CHECK(pedestal.parts[0].note.value(0) == 60);
    CHECK(pedestal.parts[0].note.value(1) + pedestal.parts[1].note.value(1) == Approx(680));
    CHECK(pedestal.feet.size() >= 4);
}

TEST_CASE("a base that can't be built says why, and the step goes on", "[under][base]") {
    BaseInputs in = two_plates(BaseKind::frames);
    in.choices.leg_wide_mm = 340;
    CHECK_THROWS_AS(plan_base(in), std::invalid_argument);
    in.choices.leg_wide_mm = 80;
    in.leg_mm = 0;
    CHECK_THROWS_AS(plan_base(in), std::invalid_argument);
    CHECK(plan_base(two_plates(BaseKind::bought)).parts.empty());
    BaseInputs none = two_plates(BaseKind::cross);
    none.choices.plates.clear();
    CHECK(plan_base(none).pieces.empty());

    Table t;
    t.job.under.base = BaseKind::frames;
    CHECK_FALSE(t.says("under.base"));
    CHECK(t.last.base.parts.size() == 3);
    // It stands on its own feet then, not on the plates'.
    REQUIRE(t.last.tipping);
    CHECK(bounds(Ring(t.last.feet.begin(), t.last.feet.end())).height() == Approx(t.job.under.plates[0].across_mm));
    t.job.under.leg_wide_mm = 400;
    const Caution* c = t.says("under.base");
    REQUIRE(c);
    CHECK(render(*c, Units::metric()).find("thicker than half") != std::string::npos);
    CHECK(t.last.ready);
    CHECK(t.last.base.parts.empty());
    // Every kind is offered with what it takes.
    t.job.under.leg_wide_mm = 70;
    const UnderPlan p = t.plan();
    const auto kinds = std::find_if(p.choices.begin(), p.choices.end(), [](const Choice& x) { return x.key == "under.base"; });
    REQUIRE(kinds != p.choices.end());
    CHECK(kinds->options.size() == 7);
    CHECK(render(kinds->options[1].consequence, Units::metric()).find("8 pieces") == 0);
}

TEST_CASE("holes as each way of holding asks for them, by hand [T22][T28]", "[under][fixing][T22][T28]") {
    UnderChoices c;  // bolt 8, play 1, insert 20, 8 above at least
    HoleAsked h{2.4, 1.1, false, 40, 0, 0.5};
    HoleMade m = make_hole(h, c);
    CHECK(m.opening_mm == 12.5);  // 8 + 1 + 3.5
    CHECK(m.washer_mm == 15);
    CHECK(m.drill_mm == 11.5);
    CHECK(m.stop_mm == 22);  // two past the insert
    CHECK(m.above_mm == 18);
    REQUIRE(m.pull_n);
    CHECK(*m.pull_n == Approx(125.4 * std::pow(0.5, 1.5) * std::pow(13, 0.75) * 20));
    c.fixing = Fixing::oversize;
    m = make_hole(h, c);
    CHECK(m.opening_mm == 14);  // 8 + 1 + 4.8 = 13.8
    CHECK(m.washer_mm == 25);   // 14 + 4.8 + 6 = 24.8
    // Wherever the bolt stands the washer covers the hole: it lies 2.4 off its middle at most.
    CHECK(m.washer_mm / 2 - 2.4 >= m.opening_mm / 2);
    c.fixing = Fixing::figure_eight;
    CHECK(make_hole(h, c).lets_go_mm == Approx(22 / std::sqrt(2.0)));
    h.travel_out_mm = 16;
    CHECK_FALSE(make_hole(h, c).fits);
    c.fixing = Fixing::buttons;
    h.travel_out_mm = 2.4;
    m = make_hole(h, c);
    CHECK(m.gap_mm == 2.5);      // 1.1 + 1, up to the half
    CHECK(m.lets_go_mm == 3.5);  // 10 − 4 − 2.5
    CHECK(m.fits);
    h.travel_out_mm = 3.6;
    CHECK_FALSE(make_hole(h, c).fits);
    // On the fixed line a round hole, whatever holds it elsewhere.
    h.on_fixed_line = true;
    m = make_hole(h, c);
    CHECK(m.opening_mm == 8);
    CHECK(m.gap_mm == 0);
    CHECK(m.fits);
    CHECK_THROWS_AS(make_hole({1, 1, false, 0, 0, {}}, c), std::invalid_argument);
}

TEST_CASE("the drill stops where wood enough is left above [T26]", "[under][fixing][T26]") {
    UnderChoices c;
    CHECK(make_hole({1, 1, false, 29, 0, {}}, c).stop_mm == 21);  // 29 − 8: a tip of one only
    CHECK(make_hole({1, 1, false, 25, 0, {}}, c).stop_mm == 20);  // it goes in, and the plan says that 5 are left
    CHECK(make_hole({1, 1, false, 40, 6, {}}, c).above_mm == 12);
    CHECK_FALSE(make_hole({1, 1, false, 40, 0, {}}, c).pull_n);
    Table t;
    CHECK_FALSE(t.says("under.through"));
    t.job.under.channels.clear();  // theirs start at their pockets' floors: floor_test.cpp
    t.job.under.insert_mm = 34;
    const Caution* said = t.says("under.through");
    REQUIRE(said);
    CHECK(said->severity == Severity::watch);
    CHECK(t.last.wood_left_mm == 6);
    t.job.under.least_above_mm = 5;
    CHECK_FALSE(t.says("under.through"));
}

TEST_CASE("screws hold by their own rule, hammered inserts a quarter of it [T25]", "[under][fixing][T25]") {
    UnderChoices c;
    c.inserts = InsertKind::wood_screw;
    CHECK(*make_hole({1, 1, false, 40, 0, 0.5}, c).pull_n == Approx(108.25 * 0.25 * 8 * 20));
    c.inserts = InsertKind::hammer_in;
    const double hammered = *make_hole({1, 1, false, 40, 0, 0.5}, c).pull_n;
    CHECK(hammered == Approx(125.4 * std::pow(0.5, 1.5) * std::pow(12, 0.75) * 20 / 4));
}

TEST_CASE("what holds too short is said, and slots mend it", "[under][fixing]") {
    Table t;
    t.job.under.fixing = Fixing::clips;
    for (auto& m : t.job.room.months) m.rh_pct = m.rh_pct > 50 ? 90 : 20;
    REQUIRE(t.says("under.reach"));
    t.job.under.fixing = Fixing::slots;
    CHECK_FALSE(t.says("under.reach"));
    t.job.under.fixing = Fixing::oversize;
    const UnderPlan p = t.plan();
    CHECK(tells(p.figures, "under.hole"));
    CHECK_FALSE(tells(p.figures, "under.slot"));
    for (const Slot& s : p.slots)
        CHECK(s.made.opening_mm >= t.job.under.bolt_mm + 2 * std::max(s.travel_in_mm, s.travel_out_mm) * !s.round);
}

TEST_CASE("plates that are not in one plane are packed corner by corner [T29]", "[under][T29]") {
    Table t;
    CHECK_FALSE(t.says("under.gaps"));
    t.job.under.plates[0].gaps_mm = {0.4, 0.4, 1.6, 0.9};
    t.job.under.plates[1].gaps_mm = {0.4, std::nullopt, 0.6, 0.4};
    const Caution* said = t.says("under.gaps");
    REQUIRE(said);
    CHECK(said->severity == Severity::watch);
    REQUIRE(t.last.shims_mm.size() == 2);
    CHECK(t.last.shims_mm[0][2] == Approx(1.2));
    CHECK(t.last.shims_mm[0][0] == 0);
    CHECK(t.last.shims_mm[1][1] == 0);  // not read: nothing is made up for it
    CHECK(t.last.shims_mm[1][2] == Approx(0.2));
    const auto things = under_things(t.last, t.job.under, t.job.top, {});
    CHECK(figure(things[0].figures, "plate.shims").value.value == Approx(1.2));
    t.job.under.plates[0].gaps_mm = {0, 0, 4, 0};
    CHECK(t.says("under.gaps")->severity == Severity::stop);
    t.job.under.plates[0].gaps_mm = {0.4, 0.4, 0.6, 0.4};
    CHECK_FALSE(t.says("under.gaps"));
}

TEST_CASE("knees, doors and the height of legs [T30][T33]", "[under][T30][T33]") {
    Table t;
    const UnderPlan p = t.plan();
    // 740 − 40 − 5 feet − 6 plate.
    CHECK(p.leg_mm == 689);
    CHECK(p.clear_mm == 694);
    CHECK_FALSE(t.says("under.knees"));
    t.job.under.base = BaseKind::trestle;
    CHECK(t.plan().clear_mm == 624);
    t.job.under.knee_mm = 640;
    CHECK(t.says("under.knees"));
    // 800 wide goes through a door of 800 flat, put together it is 740 high: on its side or upright it goes too.
    CHECK(p.passage.top_alone);
    CHECK(p.passage.assembled);
    CHECK_FALSE(through_door(800, 40, 740, 700, 730).top_alone);
    CHECK(through_door(800, 40, 740, 700, 2000).top_alone);  // on its edge
    CHECK_FALSE(through_door(1100, 40, 860, 800, 2000).assembled);
    t.job.under.door_wide_mm = 600;
    t.job.under.door_high_mm = 1900;
    REQUIRE(t.says("under.door"));
    CHECK(t.says("under.door")->severity == Severity::note);
    t.job.under.door_high_mm = 1000, t.job.under.door_wide_mm = 300;
    t.job.top.width_mm = 880;
    CHECK(t.plan().passage.top_alone);
    CHECK(p.end_overhang_mm == Approx(2000 / 2 - 620 - 50));
}

TEST_CASE("with and without channels, by hand", "[under][channels]") {
    Table t;
    const UnderPlan p = t.plan();
    REQUIRE(p.held);
    // Cherry, 40 mm, two points of moisture between its faces, near the room's mean.
    const double mean = (p.low_pct + p.high_pct) / 2;
    const double per_pct = 1 / (3000 / 7.1 - 30 + mean);
    CHECK(p.held->free_mm == Approx(per_pct * 2 / 40 * 800 * 800 / 8).epsilon(1e-6));
    const double wood = 10300.0 / 15 * 2000 * 40 * 40 * 40 / 12;
    const double steel = 200e3 * 2 * channel_inertia(40, 12, 3);
    CHECK(p.held->share == Approx(steel / (steel + wood)));
    CHECK(p.held->held_mm == Approx(p.held->free_mm * wood / (steel + wood)));
    // A beam of 500 between its outer bolts, drawn in by what cup is left over that length: 48·E·I·δ/L³.
    const double span = t.job.under.channels[0].length_mm - 60;
    const double delta = p.held->held_mm * span * span / (800.0 * 800.0);
    CHECK(p.held->bolt_n == Approx(48 * 200e3 * channel_inertia(40, 12, 3) * delta / std::pow(span, 3)));
    t.job.under.channels.clear();
    CHECK_FALSE(t.plan().held);
}

TEST_CASE("a slot that runs off its plate and feet that stand past the top are said", "[under][base]") {
    Table t;
    CHECK_FALSE(t.says("under.slot_off"));
    t.job.under.edge_mm = 6;  // the bolt almost at the plate's end
    const Caution* off = t.says("under.slot_off");
    REQUIRE(off);
    CHECK(off->severity == Severity::stop);
    t.job.under.fixing = Fixing::oversize;
    CHECK_FALSE(t.says("under.slot_off"));
    Table wide;
    wide.job.under.base = BaseKind::frames;
    CHECK_FALSE(wide.says("under.feet_out"));
    wide.job.under.splay_deg = 25;  // 321 mm further out at each side of 560
    REQUIRE(wide.says("under.feet_out"));
    CHECK(wide.says("under.feet_out")->says.value(0) == Approx(560 / 2.0 + 689 * std::tan(25 * deg) - 400).margin(0.5));
}
