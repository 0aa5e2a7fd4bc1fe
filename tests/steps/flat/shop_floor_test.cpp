// What stands around a slab while it is flattened: lanes both ways, shims from the stock, the bed, the sled's parts, other ways, and
// what it does while it rests.
#include <catch2/catch.hpp>

#include "core/material/slab/guess.h"
#include "core/material/tree/saw.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/things.h"
#include "core/steps/flat/flat.h"
#include "core/steps/flat/next_reading.h"
#include "core/steps/flat/rest.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {
const Ring board{{0, 0}, {1000, 0}, {1000, 400}, {0, 400}};
const char* table = "job-reading-table";
}  // namespace

TEST_CASE("lanes of a plain board are counted by hand, both ways, and fed against the cutter", "[flat][lanes][T15][T47]") {
    Sled s;
    s.cutter_mm = 40, s.overlap = 0.5, s.depth_mm = 3;
    const auto five = [](Vec2) { return 5.0; };
    const LanePlan across = plan_lanes(board, s, LaneWay::across, 1, five);
    CHECK(across.lanes == 51);  // ceil(1000 / 20) + 1
    CHECK(across.layers.levels_mm == std::vector<double>{4, 1, 0});
    CHECK(across.layers.last == 1);
    CHECK(across.passes_cut == 3 * 51);
    CHECK(across.cut_mm == Approx(3 * 51 * (400 + 40)));
    const LanePlan along = plan_lanes(board, s, LaneWay::along, 1, five);
    CHECK(along.lanes == 21);
    CHECK(along.cut_mm == Approx(3 * 21 * (1000 + 40)));
    CHECK(along.hours < across.hours);  // fewer turns
    // The next lane lies at the left of the feed: against the cutter.
    for (const LanePlan* p : {&across, &along}) {
        const LanePass& one = p->passes[0];
        const LanePass& next = p->passes[1];
        CHECK(cross(one.to - one.from, next.from - one.from) > 0);
    }
    // Air is skipped: half of it stands above.
    const LanePlan half = plan_lanes(board, s, LaneWay::across, 0, [](Vec2 p) { return p.x < 500 ? 2.0 : -1.0; });
    CHECK(half.passes_cut < half.lanes);
    CHECK(half.passes_cut >= 25);
    // A light pass at the end.
    s.light_mm = 0.5;
    const Layers light = layers_of(5, 1, s);
    CHECK(light.levels_mm.back() == 0);
    CHECK(light.levels_mm[light.levels_mm.size() - 2] == Approx(0.5));
    CHECK(layers_of(5, 0, s).levels_mm[layers_of(5, 0, s).levels_mm.size() - 2] == Approx(0.5));
    CHECK(layers_of(0.3, 0, s).levels_mm == std::vector<double>{0});
    s.depth_mm = 0;
    CHECK_THROWS_AS(layers_of(5, 1, s), std::invalid_argument);
}

TEST_CASE("a shim is laid together from the stock with few pieces", "[flat][shims][T11]") {
    const std::vector<double> stock{0.5, 1, 2, 5, 10};
    const auto sum = [](const std::vector<double>& v) {
        double s = 0;
        for (const double x : v) s += x;
        return s;
    };
    CHECK(stack_for(7.5, stock) == std::vector<double>{5, 2, 0.5});
    CHECK(stack_for(20, stock) == std::vector<double>{10, 10});
    CHECK(stack_for(0.1, stock).empty());
    CHECK(stack_for(5, {}).empty());
    CHECK(stack_for(3, {4}) == std::vector<double>{4});
    for (double h = 0.3; h < 60; h += 0.37) CHECK(sum(stack_for(h, stock)) == Approx(h).margin(0.45));
    CHECK(stack_for(33.3, stock).size() <= 6);
}

TEST_CASE("a slab rocks on the shim that is short, by hand", "[flat][shims]") {
    const auto shim = [](double x, double y, double want, double stands) { return Shim{{x, y}, want, {stands}, stands}; };
    std::vector<Shim> four{shim(0, 0, 5, 5), shim(1000, 0, 5, 5), shim(1000, 400, 5, 5), shim(0, 400, 5, 4)};
    // The fourth is a millimetre short: the slab stands on the other three.
    CHECK(rest_on(four, {600, 150}).gap_mm == Approx(1));
    four[3] = shim(0, 400, 5, 5);
    CHECK(rest_on(four, {500, 200}).gap_mm == Approx(0).margin(1e-9));
    four.pop_back();
    CHECK(rest_on(four, {600, 150}).gap_mm == 0);
    const std::vector<Shim> line{shim(0, 0, 1, 1), shim(400, 5, 1, 1), shim(900, 0, 1, 1)};
    CHECK(in_one_line(line));
    CHECK_FALSE(in_one_line(four));
    // Its own weight between supports 800 apart: 5wL⁴/384EI, the overhang of 100 at either end helping a little.
    const std::vector<Shim> ends{shim(100, 50, 0, 0), shim(100, 350, 0, 0), shim(900, 50, 0, 0), shim(900, 350, 0, 0)};
    const double w = 600e-9 * 9.80665 * 400 * 30;
    const double i = 400 * 27000 / 12.0;
    const double mid = 5 * w * std::pow(800, 4) / (384 * 10000 * i) - w * 100 * 100 / 2 * 800 * 800 / (8 * 10000 * i);
    CHECK(hangs_through_mm(board, 30, 10000, 600, ends) == Approx(mid).epsilon(1e-3));
}

TEST_CASE("six gaps tell whether the bed is flat, and where to shim it – level does not matter", "[flat][sled][T14]") {
    Bed flat;
    flat.front_mm = flat.back_mm = flat.left_mm = flat.right_mm = flat.rising_mm = 0;
    CHECK_FALSE(check_bed(flat));  // one was not read
    flat.falling_mm = 0;
    REQUIRE(check_bed(flat));
    CHECK(check_bed(flat)->worst_mm == Approx(0).margin(1e-12));
    // A bed with known heights, tilted besides: gaps taken from it give the same shims.
    const auto height = [](double x, double y) { return 0.4 * x * x - 0.7 * y * y + 0.3 * x * y + 5 * x - 3 * y; };
    Bed bed;
    const auto gap = [&](double x0, double y0, double x1, double y1) {
        return (height(x0, y0) + height(x1, y1)) / 2 - height((x0 + x1) / 2, (y0 + y1) / 2);
    };
    bed.front_mm = gap(-1, -1, 1, -1), bed.back_mm = gap(-1, 1, 1, 1);
    bed.left_mm = gap(-1, -1, -1, 1), bed.right_mm = gap(1, -1, 1, 1);
    bed.rising_mm = gap(-1, -1, 1, 1), bed.falling_mm = gap(1, -1, -1, 1);
    const BedCheck c = *check_bed(bed);
    CHECK(c.twist_mm == Approx(4 * 0.3));
    // What is left of those heights over their best plane is the quadratic part, its mean taken off.
    std::array<double, 9> z{};
    for (int i = 0; i < 9; ++i) {
        const double x = i % 3 - 1;
        const double y = i / 3 - 1;
        z[static_cast<std::size_t>(i)] = 0.4 * x * x - 0.7 * y * y + 0.3 * x * y;
    }
    const double highest = *std::max_element(z.begin(), z.end());
    for (std::size_t i = 0; i < 9; ++i) CHECK(c.shim_mm[i] == Approx(highest - z[i]));
    Documents docs = demo_shop();
    docs.shop.sled.bed = bed;
    const Plan plan = plan_job(docs.jobs.at(table), docs);
    const Caution* told = find_caution(plan.flat->cautions, "flat.bed");
    REQUIRE(told);
    CHECK(told->says.value(1) == Approx(c.worst_mm));
}

TEST_CASE("out of tram: the step, the hollow, and what the router can take", "[flat][sled][T13]") {
    Sled s;
    s.cutter_mm = 50, s.overlap = 0.5;
    s.tram_mm = 0.05, s.tram_feed_mm = 0.05;  // 0.1 in 100
    CHECK(lane_step_mm(s) == Approx(0.025));
    CHECK(lane_hollow_mm(s) == Approx(0.0033).margin(5e-5));
    Documents docs = demo_shop();
    Sled& own = docs.shop.sled;
    const auto told = [&](const char* key) { return find_caution(plan_job(docs.jobs.at(table), docs).flat->cautions, key) != nullptr; };
    CHECK_FALSE(told("flat.power"));
    own.depth_mm = 9, own.feed_mm_s = 400;
    CHECK(told("flat.power"));
    own = Sled();
    own.depth_mm = 12;
    CHECK(told("flat.deep"));
    own = Sled();
    own.reach_mm = 10;
    CHECK(told("flat.reach"));
    own = Sled();
    own.tram_feed_mm = 1.5;
    CHECK(told("flat.hollow"));
    own = Sled();
    own.shims_mm.clear();
    CHECK(told("flat.no_shims"));
    own = Sled();
    // A cutter wider than the piece: a plank of 280, and one of 320.
    for (const double wide : {280.0, 320.0}) {
        INFO(wide);
        docs.slabs["narrow"] = plank("narrow", 2000, wide, 50);
        Job j = on(docs.slabs.at("narrow"), {1500, 250, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}});
        own.cutter_mm = 300;
        CHECK((find_caution(plan_job(j, docs).flat->cautions, "flat.cutter_wide") != nullptr) == (wide < 300));
        own.cutter_mm = 50;
        CHECK_FALSE(find_caution(plan_job(j, docs).flat->cautions, "flat.cutter_wide"));
    }
}

TEST_CASE("the sled's parts go together", "[flat][sled]") {
    Sled s;
    const auto parts = sled_parts(s, 2260);
    REQUIRE(parts.size() == 4);
    CHECK(parts[0].width_mm == Approx(s.base_mm + 4 + 2 * s.beam_wide_mm));
    CHECK(parts[0].length_mm > s.span_mm);
    CHECK(parts[1].length_mm == parts[0].length_mm);
    CHECK(parts[2].length_mm == Approx(s.base_mm + 4));
    CHECK(parts[3].width_mm == s.rail_mm);
    CHECK(parts[3].length_mm == Approx(2260 + 2 * parts[0].width_mm));
    s.rails_beside = true;
    CHECK(sled_parts(s, 2260)[3].width_mm == Approx(s.rail_mm + s.deck_mm));
}

TEST_CASE("every aim leaves what it says: the underside as it is, least wood, one tilt", "[flat][aims]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at(table);
    const Plan share = plan_job(job, docs);
    job.flat.aim = FlatAim::leave_under;
    const Plan left = plan_job(job, docs);
    CHECK(left.flat->under_stays);
    CHECK(left.flat->thickness_mm == Approx(share.flat->thickness_mm).margin(1e-6));
    CHECK(left.flat->face(Face::b).layers == 0);
    CHECK(left.flat->face(Face::b).removed_l == 0);
    CHECK(left.flat->hours < share.flat->hours);
    CHECK(left.flat->stays_mm > 1);
    CHECK(left.flat->stays_l > 0);
    CHECK(find_caution(left.flat->cautions, "flat.uneven"));
    job.flat.aim = FlatAim::least_wood;
    const Plan least = plan_job(job, docs);
    const auto removed = [](const Plan& p) { return p.flat->faces[0].removed_l + p.flat->faces[1].removed_l; };
    CHECK(removed(least) <= removed(share) + 1e-3);
    CHECK(least.flat->thickness_mm == Approx(share.flat->thickness_mm).margin(0.05));
    // Leaves of a pair flattened alike lose alike.
    Job& pair = docs.jobs.at("job-opened-pair");
    pair.flat.tilts = Tilts::one;
    const Plan one = plan_job(pair, docs);
    const Tilt& a = one.leaves[0].flat->tilt;
    const Tilt& b = one.leaves[1].flat->tilt;
    CHECK(std::abs(a.a) == Approx(std::abs(b.a)).margin(1e-12));
    CHECK(std::abs(a.b) == Approx(std::abs(b.b)).margin(1e-12));
    CHECK(one.leaves[0].flat->thickness_mm == Approx(one.leaves[1].flat->thickness_mm));
    pair.flat.tilts = Tilts::own;
    CHECK(plan_job(pair, docs).flat->most_mm >= one.flat->most_mm - 1e-6);
}

TEST_CASE("other ways to flatten: what they take, refuse and cost, and the days follow", "[flat][ways][T41]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at(table);
    const Plan sled = plan_job(job, docs);
    job.flat.by = FlatBy::planer;
    CHECK(find_caution(plan_job(job, docs).flat->cautions, "flat.way")->severity == Severity::stop);  // a metre wide
    docs.shop.sled.tools.planer_mm = 1500;
    CHECK(find_caution(plan_job(job, docs).flat->cautions, "flat.way")->severity == Severity::watch);
    job.flat.by = FlatBy::machine_shop;
    const Plan away = plan_job(job, docs);
    CHECK(away.flat->work.wait_h == Approx(240));
    const Box rough = bounds(away.lay->rough);
    CHECK(away.flat->work.cost == Approx(rough.width() * rough.height() * 1e-6 * 55));
    CHECK(away.days->end_h > sled.days->end_h + 100);
    docs.shop.sled.tools.machine_wide_mm = 400;
    CHECK_FALSE(plan_job(job, docs).flat->work.possible);
    for (const FlatBy by : {FlatBy::hand_planer, FlatBy::drum_sander, FlatBy::bought_flat}) {
        job.flat.by = by;
        const FlatWork w = plan_job(job, docs).flat->work;
        CHECK(w.by == by);
        CHECK(w.leaves_mm > 0);
    }
}

TEST_CASE("a slab that moved over the weekend: what it did, what is left, whether it still moves", "[flat][rounds][T16]") {
    const std::vector<Support> supports{{100, 50}, {100, 350}, {900, 50}, {900, 350}};
    // Pure twist of 4 between the winding sticks: a corner rises 1 over the middle, and 2 of it can't be tilted away on either face.
    const auto twisted = plan_rounds({{"2026-11-27", 0, 0, 4, 44}}, board, supports, {0.5, 1, 2});
    REQUIRE(twisted.size() == 1);
    CHECK(twisted[0].thickest_mm == Approx(42).margin(1e-6));
    CHECK_FALSE(twisted[0].mm_a_day);
    // Cup alone: all of it is lost, half from either face's wrong places.
    const auto cupped = plan_rounds({{"2026-11-27", 0, 2.5, 0, 44}}, board, supports, {0.5, 1, 2});
    CHECK(cupped[0].thickest_mm == Approx(41.5).margin(1e-6));
    CHECK(cupped[0].off_show_mm == Approx(2.5).margin(1e-6));
    for (const Shim& s : cupped[0].shims) CHECK(s.height_mm == Approx(2.5 * 0.75 * 0.75).margin(1e-6));
    // Three readings that slow down: v = 3(1 − exp(−t/2)).
    const auto at = [](double t) { return 3 * (1 - std::exp(-t / 2)); };
    const auto slows = plan_rounds({{"2026-11-27", 0, at(0), 0, 44}, {"2026-11-28", 0, at(1), 0, 44}, {"2026-11-30", 0, at(3), 0, 44}},
                                   board, supports, {1});
    CHECK(*slows[2].mm_a_day == Approx((at(3) - at(1)) / 2));
    CHECK(slows[2].still_moving);
    // 1.5·exp(−t/2) falls to a tenth at 2·ln 15 = 5.4 days.
    REQUIRE(slows[2].days_more);
    CHECK(*slows[2].days_more == Approx(2 * std::log(15.0) - 3).margin(0.3));
    // In a job: told, with what it costs.
    Documents docs = demo_shop();
    Job& job = docs.jobs.at(table);
    job.leaves[0].rounds = {{"2026-12-01", 0.5, 3, 2, 50}};
    const Plan plan = plan_job(job, docs);
    REQUIRE(plan.flat->rounds.size() == 1);
    const Caution* moved = find_caution(plan.flat->cautions, "flat.moved");
    REQUIRE(moved);
    CHECK(moved->severity == Severity::stop);
    job.leaves[0].rounds[0].thickness_mm = 60;
    CHECK_FALSE(find_caution(plan_job(job, docs).flat->cautions, "flat.moved"));
    job.leaves[0].rounds.push_back({"2026-12-02", 0.5, 5, 2, 60});
    CHECK(find_caution(plan_job(job, docs).flat->cautions, "flat.moving"));
}

TEST_CASE("what will move is told before it is cut, with what to leave – one face shut says the cup", "[flat][T16][T17]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at(table);
    Slab& slab = docs.slabs.at(job.leaves[0].slab);
    slab.pith_mm = 70;
    slab.moisture_pct = 18;
    const Plan plan = plan_job(job, docs);
    REQUIRE(plan.flat->cup_mm);
    const Caution* moves = find_caution(plan.flat->cautions, "flat.moves");
    REQUIRE(moves);
    CHECK(moves->says.value(2) == Approx(std::abs(*plan.flat->cup_mm)));
    job.flat.allowance_mm = moves->says.value(3);
    CHECK_FALSE(find_caution(plan_job(job, docs).flat->cautions, "flat.moves"));
    job.flat.rests = Rests::face_down;
    const Plan covered = plan_job(job, docs);
    const Caution* shut = find_caution(covered.flat->cautions, "flat.airtight");
    REQUIRE(shut);
    CHECK(shut->says.value(0) == face_down_pct);
    CHECK(shut->says.value(1) > 5);
}

TEST_CASE("faces, rounds and the next reading are things with their figures", "[flat][things]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at(table);
    job.leaves[0].rounds = {{"2026-12-01", 0.5, 1, 0, 50}};
    const Plan plan = plan_job(job, docs, 0);
    const auto things = things_of(plan, job, docs.shop, step_key::flat);
    const auto count = [&](const char* kind) {
        return std::count_if(things.begin(), things.end(), [&](const Thing& t) { return t.kind == kind; });
    };
    CHECK(count("shim") == 4);
    CHECK(count("face") == 2);
    CHECK(count("round") == 1);
    CHECK(count("reading") <= 1);
    double hours = 0;
    for (const Thing& t : things)
        if (t.kind == "face") hours += figure(t.figures, "face.hours").value.value;
    CHECK(hours == Approx(plan.flat->hours));
}

TEST_CASE("between readings the stated band holds the truth of grown slabs nine times in ten", "[slab][guess]") {
    int places = 0;
    int held = 0;
    int slabs = 0;
    for (unsigned seed = 3; slabs < 20; ++seed) {
        LogRecipe recipe = drawn_recipe(seed, "sycamore, American", 2600, 560);
        const GrownLog log(recipe);
        SawPlan saw;
        saw.thickness_mm = 60;
        const auto boards = boards_of(log, saw);
        DryPlan dry;
        dry.bow_mm = 9, dry.twist_deg = 1.1;
        dry.every_x_mm = 330, dry.every_y_mm = 170;
        for (std::size_t b = 1; b + 1 < boards.size() && slabs < 20; b += 2) {
            const SawnSlab s = make_slab(log, boards[b], saw, dry, {0, false});
            const auto guess = guess_of(s.slab.heights_a);
            if (!guess) continue;
            ++slabs;
            // The truth on the same reference: read and true heights differ by a plane that the readings' frame hides.
            const Box box = bounds(s.truth.ring_a);
            std::vector<Vec2> at;
            for (double x = box.low.x + 180; x < box.high.x - 150; x += 171)
                for (double y = box.low.y + 60; y < box.high.y - 50; y += 83)
                    if (contains(s.truth.ring_a, {x, y})) at.push_back({x, y});
            // Least squares plane through the differences.
            double sw = 0, sx = 0, sy = 0, sz = 0, sxx = 0, sxy = 0, syy = 0, sxz = 0, syz = 0;
            for (const Vec2 p : at) {
                const double d = s.truth.top.at(p) - guess->at(p).mm;
                const double x = p.x / 1000;
                const double y = p.y / 1000;
                sw += 1, sx += x, sy += y, sz += d, sxx += x * x, sxy += x * y, syy += y * y, sxz += x * d, syz += y * d;
            }
            const double det = sw * (sxx * syy - sxy * sxy) - sx * (sx * syy - sxy * sy) + sy * (sx * sxy - sxx * sy);
            const double c = (sz * (sxx * syy - sxy * sxy) - sx * (sxz * syy - sxy * syz) + sy * (sxz * sxy - sxx * syz)) / det;
            const double a = (sw * (sxz * syy - sxy * syz) - sz * (sx * syy - sxy * sy) + sy * (sx * syz - sxz * sy)) / det;
            const double e = (sw * (sxx * syz - sxz * sxy) - sx * (sx * syz - sxz * sy) + sz * (sx * sxy - sxx * sy)) / det;
            for (const Vec2 p : at) {
                const Guess::At g = guess->at(p);
                const double truth = s.truth.top.at(p) - (c + a * p.x / 1000 + e * p.y / 1000);
                ++places;
                held += std::abs(truth - g.mm) <= nine_in_ten * g.sigma_mm + 0.02;
            }
        }
    }
    INFO(held << " of " << places);
    CHECK(places > 500);
    CHECK(held >= 0.9 * places);
    CHECK_THROWS_AS(Guess(std::vector<Vec3>{{0, 0, 0}, {1, 0, 0}, {2, 0, 0}}), std::invalid_argument);
    CHECK_THROWS_AS(Guess(std::vector<Vec3>{{0, 0, 0}, {1, 0, 0}, {2, 0, 0}, {3, 0, 0}, {4, 0, 0}}), std::invalid_argument);
}

TEST_CASE("a guess goes through its readings and opens up between them", "[slab][guess]") {
    std::vector<Vec3> readings;
    for (double x = 0; x <= 2000; x += 250)
        for (double y = -300; y <= 300; y += 150) readings.push_back({x, y, 3 * std::sin(x / 500) + 0.002 * y + 0.001 * x});
    const Guess g(readings);
    for (const Vec3& r : readings) CHECK(g.at({r.x, r.y}).mm == Approx(r.z).margin(0.15));
    CHECK(g.at({1000, 0}).sigma_mm < g.at({1125, 75}).sigma_mm + 1e-9);
    CHECK(g.at({3000, 0}).sigma_mm > 3 * g.at({1125, 75}).sigma_mm);
    CHECK(g.at({1125, 75}).mm == Approx(3 * std::sin(1125 / 500.0) + 0.15 + 1.125).margin(0.15));
    // One reading taken away is the one that is worth having.
    std::vector<Vec3> holed = readings;
    std::erase_if(holed, [](const Vec3& r) { return r.x == 1000; });
    CHECK(Guess(holed).at({1000, 0}).sigma_mm > g.at({1000, 0}).sigma_mm);
}

TEST_CASE("a practice slab tells afterwards what its readings missed", "[flat][practice]") {
    const GrownLog log(drawn_recipe(5, "sycamore, American", 2600, 560));
    SawPlan saw;
    saw.thickness_mm = 60;
    DryPlan dry;
    dry.bow_mm = 9, dry.twist_deg = 1.2;
    dry.every_x_mm = 700, dry.every_y_mm = 300;  // few readings miss much
    dry.keep_truth = true;
    const auto boards = boards_of(log, saw);
    const auto missed = [&](double every_x, double every_y) {
        DryPlan d = dry;
        d.every_x_mm = every_x, d.every_y_mm = every_y;
        Slab slab = make_slab(log, boards.at(boards.size() / 2), saw, d, {0, false}).slab;
        REQUIRE(slab.truth_a);
        Documents docs;
        slab.id = "practice";
        docs.slabs[slab.id] = slab;
        Job job;
        job.leaves[0].slab = slab.id;
        job.top = {1600, 300, 30, 740, LiveEdges::none, 5};
        job.leaves[0].placement = {1300, 0, 0, false, 25};
        const Plan plan = plan_job(job, docs);
        REQUIRE(plan.flat->ready);
        const auto m = what_readings_missed(*plan.slab(), *plan.shape(), *plan.flat, plan.lay->outline);
        REQUIRE(m);
        const auto things = things_of(plan, job, docs.shop, step_key::flat);
        CHECK(std::any_of(things.begin(), things.end(), [](const Thing& t) { return t.kind == "practice"; }));
        return std::pair(*m, plan.flat->thickest_mm);
    };
    const auto [few, few_mm] = missed(900, 300);
    const auto [many, many_mm] = missed(150, 90);
    CHECK(many.higher_mm < few.higher_mm + 0.3);
    CHECK(many.higher_mm < 2);
    CHECK(many.true_mm == Approx(many_mm).margin(1.5));
    // The truth is the same whatever was read.
    CHECK(few.true_mm == Approx(many.true_mm).margin(0.6));
    // A slab that was measured for real keeps its truth to itself.
    Slab plain = make_slab(log, boards.at(1), saw, DryPlan(), {0, false}).slab;
    CHECK_FALSE(plain.truth_a);
    const Slab over = turned_over(make_slab(log, boards.at(1), saw, dry, {0, false}).slab);
    CHECK(over.truth_a);
}

TEST_CASE("each turn says what it weighs, and who planes without a sled is told nothing of one", "[flat][T33]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at(table);
    const Plan plan = plan_job(job, docs);
    const Caution* turn = find_caution(plan.flat->cautions, "flat.turn");
    REQUIRE(turn);
    const Slab& slab = docs.slabs.at(job.leaves[0].slab);
    const double kg = area(plan.lay->rough) * plan.shape()->thickness_at(centroid(plan.lay->rough)) * 1e-9 * *density_of(slab);
    CHECK(turn->says.value(1) == Approx(kg));
    CHECK(turn->says.value(2) < kg);
    // Rails too low and a sled out of tram are a sled's matter.
    docs.shop.sled.rail_mm = 20, docs.shop.sled.tram_mm = 1;
    CHECK(find_caution(plan_job(job, docs).flat->cautions, "flat.rails"));
    CHECK(find_caution(plan_job(job, docs).flat->cautions, "flat.tram"));
    for (const FlatBy by : {FlatBy::hand_planer, FlatBy::machine_shop, FlatBy::bought_flat, FlatBy::drum_sander}) {
        job.flat.by = by;
        const Plan other = plan_job(job, docs);
        for (const char* key : {"flat.rails", "flat.tram", "flat.stickout", "flat.sag", "flat.feed"})
            CHECK_FALSE(find_caution(other.flat->cautions, key));
    }
}

TEST_CASE("a top that comes out too thin says at what length it would not", "[flat]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at(table);
    job.top.thickness_mm = plan_job(job, docs).flat->most_mm + 1;
    const Plan plan = plan_job(job, docs);
    const Caution* thin = find_caution(plan.flat->cautions, "flat.thin");
    REQUIRE(thin);
    REQUIRE(render(thin->says, Units::metric()).find("in the same place, it gives them") != std::string::npos);
    const double shorter = thin->says.value(2);
    CHECK(shorter < job.top.length_mm);
    job.top.length_mm = shorter;
    CHECK_FALSE(find_caution(plan_job(job, docs).flat->cautions, "flat.thin"));
    job.top.length_mm = shorter + 60;
    CHECK(find_caution(plan_job(job, docs).flat->cautions, "flat.thin"));
}
