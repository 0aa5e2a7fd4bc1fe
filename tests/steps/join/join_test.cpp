// The glue-up counted, clamps by hand, bow ties over a crack, and the clash check against boxes compared one by one.
#include <map>
#include <random>

#include <catch2/catch.hpp>

#include "core/shop/edit/mends.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/things.h"
#include "core/steps/join/depth.h"
#include "core/steps/join/join.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {
const char* four = "job-seed-cabinet";
}

TEST_CASE("a glue-up of four boards is counted by hand", "[join][T19]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at(four);
    JoinChoices& c = job.join;
    c.pitch_mm = 250, c.spread_m2_min = 0.1, c.piece_s = 12, c.set_min = 1.5, c.clamp_s = 25;
    const Plan plan = plan_job(job, docs);
    const JoinPlan& p = *plan.join;
    REQUIRE(p.joints.size() == 3);
    double m2 = 0;
    int pieces = 0;
    int clamps = 0;
    for (const GluedJoint& j : p.joints) {
        CHECK(j.length_mm >= job.top.length_mm - 1);
        CHECK(j.m2 == Approx(j.length_mm * plan.top->thickness_mm * 1e-6));
        CHECK(j.pieces == static_cast<int>(j.length_mm / 250 + 1e-3));
        CHECK(j.clamps == static_cast<int>(std::ceil(j.length_mm / j.spacing_mm)));
        CHECK(j.glue_l == Approx(j.m2 * 180 / 1080));
        m2 += j.m2, pieces += j.pieces, clamps += j.clamps;
    }
    CHECK(p.needed_min ==
          Approx(m2 / 0.1 + pieces * 0.2 + 3 * 1.5 + clamps * 25 / 60.0 + 2 * 2 * 25 / 60.0));  // a pair of cauls at both ends
    CHECK(p.open_min == Approx(10 * std::pow(2, (20 - p.air_c) / 10)));
    const Caution* skins = find_caution(p.cautions, "join.skins");
    REQUIRE(skins);
    CHECK(skins->says.value(0) * 60 == Approx(p.open_min));
    // Each way out does what was said of it.
    c.helped = true;
    CHECK(plan_job(job, docs).join->needed_min == Approx(skins->says.then.at(0).value(0) * 60));
    c.helped = false;
    c.two_stages = true;
    CHECK(plan_job(job, docs).join->needed_min == Approx(skins->says.then.at(1).value(0) * 60));
    c.two_stages = false;
    c.slow_glue = true;
    CHECK(plan_job(job, docs).join->open_min == Approx(skins->says.then.at(2).value(0) * 60));
    CHECK(open_minutes(10, 10) == Approx(20));
    CHECK(open_minutes(10, 30) == Approx(5));
}

TEST_CASE("clamps along an edge: every 143 mm for 45 mm of hard wood, never wider than the spread", "[join]") {
    CHECK(clamp_spacing(4500, 0.7, 45, 1000) == Approx(142.86).margin(0.01));
    CHECK(clamp_spacing(4500, 0.7, 45, 60) == Approx(120));
    CHECK(clamp_pressure(0.6) == 0.7);
    CHECK(clamp_pressure(0.35) == 0.35);
}

TEST_CASE("clamps on live edges want cauls, and a joint that stands open wants its force", "[join][T20]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at(four);
    job.join.cauls = false;
    const Plan bare = plan_job(job, docs);
    const Caution* cauls = find_caution(bare.join->cautions, "join.cauls");
    REQUIRE(cauls);
    const auto mend = mend_of(*cauls, docs, four, bare);
    REQUIRE(mend);
    mended(docs, four, *mend);
    Job& now = docs.jobs.at(four);
    CHECK_FALSE(find_caution(plan_job(now, docs).join->cautions, "join.cauls"));
    read_gap(now, 2, 0, 1.2);
    const Plan plan = plan_job(now, docs);
    const GluedJoint& j = plan.join->joints.at(1);
    CHECK(j.widest_gap_mm == Approx(1.2));
    // Two leaves bent edgewise in a row give together: 1/(1/EI₁ + 1/EI₂).
    const auto ei = [&](std::size_t leaf) {
        const Region& r = plan.top->regions.at(leaf);
        const Box b = bounds(r.above);
        const double wide = area(r.above) / b.width();
        return *r.species->moe_mpa * plan.top->thickness_mm * wide * wide * wide / 12;
    };
    const double both = 1 / (1 / ei(j.right) + 1 / ei(j.left));
    CHECK(j.close_n == Approx(384 * both * 1.2 / (5 * std::pow(j.length_mm, 3))).epsilon(1e-9));
    CHECK(find_caution(plan.join->cautions, "join.gap"));
}

TEST_CASE("bow ties go over a crack: as many as it is long, across it, clear of one another", "[join]") {
    const Ring crack{{0, -4}, {500, -2}, {500, 2}, {0, 4}};
    const auto ties = ties_over(crack, 45);
    REQUIRE(ties.size() == 3);
    for (const BowTie& t : ties) {
        CHECK(std::abs(std::remainder(t.turn_deg - 90, 180)) < 2);
        CHECK(std::abs(t.v_mm) < 2);
        CHECK(t.deep_mm == Approx(15));
        CHECK(area(outline_of(t)) == Approx(t.long_mm * t.wide_mm * 0.75));
    }
    for (std::size_t i = 1; i < ties.size(); ++i) CHECK(intersection_area(outline_of(ties[i - 1]), outline_of(ties[i])) < 1e-6);
    CHECK(ties_over({{0, 0}, {30, 0}, {30, 3}}, 45).empty());
    Documents docs = demo_shop();
    Job& job = docs.jobs.at("job-reading-table");
    const Plan plan = plan_job(job, docs);
    const std::size_t added = tie_cracks(job, plan);
    CHECK(added == job.join.ties.size());
    CHECK(tie_cracks(job, plan) == 0);
}

TEST_CASE("what is let in is checked against all the rest in three dimensions", "[join][clash][T21]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at(four);
    // The demo's inserts reach up to its tenons where a plate lies over a joint: that is told.
    CHECK(find_caution(plan_job(job, docs).join->cautions, "join.clash"));
    job.under.plates.clear();
    job.under.channels.clear();
    const Plan fair = plan_job(job, docs);
    // A tenon of it lands in a live knot: that is told too, and is no clash of what is made.
    CHECK_FALSE(find_caution(fair.join->cautions, "join.clash"));
    CHECK(find_caution(fair.join->cautions, "join.knot"));
    for (auto& [id, slab] : docs.slabs) std::erase_if(slab.flaws, [](const Flaw& f) { return f.kind == FlawKind::knot; });
    // A channel under a tenon, deep enough to meet it.
    const Vec2 tenon = fair.join->piece_at.at(3);
    job.under.channels = {{tenon.x, tenon.y, 300, 40, 18, 3, 3}};
    const Plan meets = plan_job(job, docs);
    REQUIRE_FALSE(meets.join->clashes.empty());
    const Clash& k = meets.join->clashes.front();
    CHECK(k.deep_mm == Approx(18 - (meets.top->thickness_mm / 2 - job.join.loose_thick_mm / 2)).epsilon(1e-6));
    CHECK(length(k.at - tenon) < 40);
    const Caution* told = find_caution(meets.join->cautions, "join.clash");
    REQUIRE(told);
    CHECK(told->severity == Severity::stop);
    const auto mend = mend_of(*told, docs, four, meets);
    REQUIRE(mend);
    mended(docs, four, *mend);
    CHECK(plan_job(docs.jobs.at(four), docs).join->clashes.size() < meets.join->clashes.size());
    // Shallower it passes below.
    Job& now = docs.jobs.at(four);
    now.join.pitch_mm = 250;
    now.under.channels[0].depth_mm = 6;
    now.under.insert_mm = 8;  // from the pocket's floor
    CHECK(plan_job(now, docs).join->clashes.empty());
    // A bow tie from above over a tenon; one past the edge; one along the grain; one too shallow.
    now.under.channels.clear();
    now.join.ties = {{tenon.x, tenon.y, 90, 90, 36, 25, true}, {1095, 0, 90, 90, 36, 15, true}, {0, 300, 0, 90, 36, 3, true}};
    const Plan ties = plan_job(now, docs);
    for (const char* key : {"join.clash", "join.tie_out", "join.tie_along", "join.tie_shallow"})
        CHECK(find_caution(ties.join->cautions, key));
    now.join.ties.clear();
    now.join.loose_thick_mm = 36;
    const Plan thick = plan_job(now, docs);
    CHECK(find_caution(thick.join->cautions, "join.through"));
    CHECK(find_caution(thick.join->cautions, "join.thick"));
}

TEST_CASE("clashes are those that boxes compared one by one have", "[join][clash]") {
    std::mt19937 random(7);
    const auto u = [&](double low, double high) { return low + (high - low) * (static_cast<double>(random()) / 4294967296.0); };
    Documents docs = demo_shop();
    for (int round = 0; round < 25; ++round) {
        Job& job = docs.jobs.at(four);
        job.join.pitch_mm = u(120, 400);
        job.under.channels.clear();
        for (int i = 0; i < 3; ++i) job.under.channels.push_back({u(-900, 900), u(-200, 200), u(200, 700), u(20, 60), u(4, 30), 3, 3});
        job.join.ties.clear();
        for (int i = 0; i < 6; ++i) job.join.ties.push_back({u(-900, 900), u(-500, 500), 90, 90, 36, u(5, 30), random() % 2 == 0});
        const Plan plan = plan_job(job, docs);
        // Tenons and pockets are boxes; their clashes counted plainly.
        int by_hand = 0;
        const double low = plan.top->thickness_mm / 2 - job.join.loose_thick_mm / 2;
        for (const Vec2 t : plan.join->piece_at)
            for (const Channel& c : job.under.channels) {
                const double x = std::min(t.x + job.join.loose_wide_mm / 2, c.u_mm + c.width_mm / 2) -
                                 std::max(t.x - job.join.loose_wide_mm / 2, c.u_mm - c.width_mm / 2);
                const double y = std::min(t.y + job.join.loose_long_mm / 2, c.v_mm + c.length_mm / 2) -
                                 std::max(t.y - job.join.loose_long_mm / 2, c.v_mm - c.length_mm / 2);
                if (x > 0 && y > 0 && x * y >= 4 && c.depth_mm - low > 0.05) ++by_hand;
            }
        int told = 0;
        for (const Clash& k : plan.join->clashes) {
            const bool tenon = k.one == "tenon" || k.other == "tenon";
            const bool pocket = k.one.rfind("pocket", 0) == 0 || k.other.rfind("pocket", 0) == 0;
            told += tenon && pocket;
        }
        CHECK(told == by_hand);
    }
}

TEST_CASE("no clash is missed that voxels find, on two hundred layouts drawn by lot", "[join][clash][T21]") {
    std::mt19937 random(17);
    const auto u = [&](double low, double high) { return low + (high - low) * (static_cast<double>(random()) / 4294967296.0); };
    Documents docs = demo_shop();
    const auto is = [](const std::string& s, const char* what) { return s.rfind(what, 0) == 0; };
    constexpr double cell = 4;   // mm across
    constexpr double level = 1;  // mm up
    int found = 0;
    int stray = 0;
    for (int round = 0; round < 200; ++round) {
        Job& job = docs.jobs.at(four);
        job.join.pitch_mm = u(140, 500);
        job.join.loose_thick_mm = u(6, 16);
        job.under.insert_mm = u(10, 30);
        job.under.plates = {{u(-800, 800), u(-200, 200), u(80, 150), u(300, 700), 3, 1}};
        job.under.channels = {{u(-900, 900), u(-200, 200), u(200, 700), u(20, 60), u(4, 30), 3, 3}};
        job.join.ties.clear();
        for (int i = 0; i < 4; ++i)
            job.join.ties.push_back({u(-900, 900), u(-500, 500), u(0, 180), u(70, 120), 36, u(5, 30), random() % 2 == 0});
        const JoinPlan plan = *plan_job(job, docs).join;
        std::vector<std::pair<std::uint64_t, std::uint16_t>> filled;
        for (std::size_t k = 0; k < plan.let_in.size(); ++k) {
            const LetIn& l = plan.let_in[k];
            const Box b = bounds(l.at);
            for (int x = static_cast<int>(b.low.x / cell) - 1; x * cell < b.high.x; ++x)
                for (int y = static_cast<int>(b.low.y / cell) - 1; y * cell < b.high.y; ++y) {
                    if (!contains(l.at, {(x + 0.5) * cell, (y + 0.5) * cell})) continue;
                    for (int z = 0; z < 60; ++z)
                        if ((z + 0.5) * level > l.low_mm && (z + 0.5) * level < l.high_mm)
                            filled.emplace_back((static_cast<std::uint64_t>(x + 4000) << 32) | (static_cast<std::uint64_t>(y + 4000) << 8) |
                                                    static_cast<std::uint64_t>(z),
                                                static_cast<std::uint16_t>(k));
                }
        }
        std::sort(filled.begin(), filled.end());
        std::map<std::pair<std::uint16_t, std::uint16_t>, int> shared;
        for (std::size_t i = 0; i < filled.size(); ++i)
            for (std::size_t j = i + 1; j < filled.size() && filled[j].first == filled[i].first; ++j)
                ++shared[{filled[i].second, filled[j].second}];
        for (const auto& [pair, cells] : shared) {
            const std::string& a = plan.let_in[pair.first].what;
            const std::string& b = plan.let_in[pair.second].what;
            // What a hand lets into one another on purpose is no clash; what is Under's is told there.
            const bool piece = a == "tenon" || b == "tenon";
            const bool tie = is(a, "bow tie") || is(b, "bow tie");
            const bool flaw = is(a, "filled") || is(b, "filled") || is(a, "open") || is(b, "open");
            if (!piece && !(tie && !flaw)) continue;
            if (cells < 2) continue;
            INFO("round " << round << ": " << a << " and " << b << ", " << cells << " cells");
            const bool told =
                std::any_of(plan.clashes.begin(), plan.clashes.end(), [&](const Clash& k) { return k.one == a && k.other == b; });
            CHECK(told);
            ++found;
        }
        // And none is told of what lies apart: wherever a clash is told, cells are shared or it is thinner than they are.
        for (const Clash& k : plan.clashes) {
            if (k.deep_mm < 2 * level) continue;
            const bool any = std::any_of(shared.begin(), shared.end(), [&](const auto& s) {
                return plan.let_in[s.first.first].what == k.one && plan.let_in[s.first.second].what == k.other;
            });
            stray += !any;
        }
    }
    CHECK(found > 200);
    CHECK(stray < found / 20);
}

TEST_CASE("what stays between things let in is what voxels count, on five hundred tops by lot", "[join][depth][T21][T26]") {
    std::mt19937 random(29);
    const auto u = [&](double low, double high) { return low + (high - low) * (static_cast<double>(random()) / 4294967296.0); };
    constexpr double cell = 3;
    constexpr double level = 0.5;
    int pairs = 0;
    int faces = 0;
    for (int round = 0; round < 500; ++round) {
        INFO("round " << round);
        const double t = std::round(u(30, 70));
        const auto z = [&](double low, double high) { return std::round(u(low, high) / level) * level; };
        std::vector<LetIn> all;
        for (int k = 0; k < 9; ++k) {
            LetIn l;
            const double deep = z(4, t * 0.7);
            const bool from_above = k % 3 == 0;
            const bool inside = k % 3 == 2;
            l.kind = k % 3 == 0 ? LetInKind::bow_tie : k % 3 == 1 ? LetInKind::connector : LetInKind::tenon;
            l.what = k % 3 == 0 ? "bow tie" : k % 3 == 1 ? "connector" : "tenon";
            l.what += " " + std::to_string(k);
            l.low_mm = from_above ? t - deep : inside ? z(2, t / 2) : 0;
            l.high_mm = from_above ? t : inside ? std::min(t, l.low_mm + z(4, 14)) : deep;
            l.cuts = k != 6;  // one is there already
            const double turn = u(0, 3.14);
            const Vec2 middle{u(0, 260), u(0, 160)};
            for (const Vec2 q : box_ring({0, 0}, u(40, 120), u(20, 60)))
                l.at.push_back(middle + Vec2{q.x * std::cos(turn) - q.y * std::sin(turn), q.x * std::sin(turn) + q.y * std::cos(turn)});
            all.push_back(l);
        }
        // Columns of the top: what each is taken for, from below up.
        const auto levels = static_cast<std::size_t>(t / level);
        std::map<std::pair<std::size_t, std::size_t>, double> least;  // by what is below and above, all.size() for the show face
        std::map<std::pair<std::size_t, std::size_t>, int> columns;
        for (int x = -40; x < 130; ++x)
            for (int y = -40; y < 100; ++y) {
                const Vec2 at{(x + 0.5) * cell, (y + 0.5) * cell};
                std::vector<std::size_t> here;
                for (std::size_t k = 0; k < all.size(); ++k)
                    if (contains(all[k].at, at)) here.push_back(k);
                for (const std::size_t k : here)
                    for (const std::size_t other : here) {
                        std::size_t top = 0;
                        std::size_t floor = levels;
                        for (std::size_t n = 0; n < levels; ++n) {
                            const double mid = (static_cast<double>(n) + 0.5) * level;
                            if (mid > all[k].low_mm && mid < all[k].high_mm) top = n + 1;
                            if (mid > all[other].low_mm && mid < all[other].high_mm) floor = std::min(floor, n);
                        }
                        if (k == other || floor < top) continue;
                        least[{k, other}] = static_cast<double>(floor - top) * level;
                        ++columns[{k, other}];
                    }
            }
        const std::vector<WoodLeft> told = wood_left(all, t);
        for (const auto& [pair, left] : least) {
            if (columns[pair] < 4 || (!all[pair.first].cuts && !all[pair.second].cuts)) continue;
            INFO(all[pair.first].what << " below " << all[pair.second].what);
            const auto it =
                std::find_if(told.begin(), told.end(), [&](const WoodLeft& w) { return w.below == pair.first && w.above == pair.second; });
            REQUIRE(it != told.end());
            CHECK(it->left_mm == Approx(left).margin(1e-9));
            ++pairs;
        }
        for (const WoodLeft& w : told) {
            if (w.above) {
                // None is told of what lies apart, but for slivers thinner than a column.
                const double shared = intersection_area(all[w.below].at, all[*w.above].at);
                CHECK(shared >= 4);
                if (shared > 12 * cell * cell) CHECK(least.count({w.below, *w.above}) == 1);
            } else {
                CHECK(w.left_mm == Approx(t - all[w.below].high_mm));
                ++faces;
            }
        }
    }
    CHECK(pairs > 1000);
    CHECK(faces > 1000);
}

TEST_CASE("a pocket under a bow tie, and one that nearly comes through, are told with what stays", "[join][depth][T26][T27]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at("job-reading-table");
    job.under.channels = {{0, 0, 400, 40, 18, 3, 3}};
    const double t = plan_job(job, docs).top->thickness_mm;
    const auto said = [&] {
        std::vector<std::string> out;
        const Plan plan = plan_job(job, docs);
        for (const Caution& c : plan.join->cautions)
            if (c.key == "join.thin") out.push_back(render(c.says, {}));
        return out;
    };
    job.join.ties = {{0, 0, 90, 100, 36, t - 20, true}};  // from above, down to 20 mm: 2 mm over the pocket
    REQUIRE(said().size() == 1);
    CHECK(said()[0] ==
          "Between pocket of channel 1 and bow tie 1 above it stay 2.0 mm of wood: one breaks into the other. Move one along, or sink it "
          "less.");
    job.join.ties[0].u_mm = 300;
    CHECK(said().empty());
    job.under.channels[0].depth_mm = t - 5;
    REQUIRE(said().size() == 1);
    CHECK(said()[0] == "Above pocket of channel 1 stay 5.0 mm of wood and you want 8.0 mm: it may show, or break through. Sink it less.");
}

TEST_CASE("joints and bow ties are things, a river is not glued, days count the glue-up", "[join]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at(four);
    add_tie(job, {100, 50}, 40);
    const Plan plan = plan_job(job, docs);
    const auto things = things_of(plan, job, docs.shop, step_key::join);
    CHECK(std::count_if(things.begin(), things.end(), [](const Thing& t) { return t.kind == "joint"; }) == 3);
    CHECK(std::count_if(things.begin(), things.end(), [](const Thing& t) { return t.kind == "tie"; }) == 1);
    const auto glue =
        std::find_if(plan.days->operations.begin(), plan.days->operations.end(), [](const Operation& o) { return o.key == "glue"; });
    REQUIRE(glue != plan.days->operations.end());
    // Half an hour of setting out, a dry run as long as the glue-up, ten minutes for what comes out.
    CHECK(glue->hands_on_h == Approx((40 + 2 * plan.join->needed_min) / 60));
    move_tie(job, 0, {10, 0});
    turn_tie(job, 0, 5);
    CHECK(job.join.ties[0].u_mm == Approx(110));
    CHECK(job.join.ties[0].turn_deg == Approx(95));
    drop_tie(job, 0);
    CHECK(job.join.ties.empty());
    const Plan river = plan_job(docs.jobs.at("job-tarn-river"), docs);
    CHECK(river.join->ready);
    CHECK(river.join->joints.empty());
    CHECK(river.join->needed_min == 0);
    job.join.edge = EdgeShape::round_over;
    job.join.edge_mm = 6;
    double girth = 0;
    for (std::size_t i = 0; i < plan.top->above.size(); ++i)
        girth += length(plan.top->above[(i + 1) % plan.top->above.size()] - plan.top->above[i]);
    CHECK(plan_job(job, docs).join->rim.litres == Approx(girth * 2 * (1 - M_PI / 4) * 36 * 1e-6));
}
