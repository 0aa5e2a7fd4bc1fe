// Edits by name: Job to Job, Slab to Slab, without a view.
#include <set>

#include <catch2/catch.hpp>

#include "core/material/wood/wood.h"
#include "core/shop/edit/mends.h"
#include "core/shop/edit/shop_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/rack/rack.h"
#include "demo/demo.h"
#include "tests/planks.h"

using namespace yb;

TEST_CASE("a resin taken off the shelf is forgotten by every leaf's voids and every river", "[edit]") {
    Documents d = demo_shop();
    const std::string key = d.shop.resins.front().key;
    Job& j = d.jobs.at("job-tarn-river");
    REQUIRE(j.leaves.size() == 2);
    j.fill.river = key;
    for (Leaf& l : j.leaves) l.voids.push_back({"some flaw", key, false});
    const std::size_t shelf = d.shop.resins.size();
    drop_resin(d, key);
    CHECK(d.shop.resins.size() == shelf - 1);
    CHECK(j.fill.river.empty());
    for (const auto& [id, job] : d.jobs)
        for (const Leaf& l : job.leaves)
            for (const VoidFill& v : l.voids) CHECK(v.resin != key);
    CHECK(plan_job(j, d).top->ready);
}

TEST_CASE("an added resin has a key that no other has", "[edit]") {
    Shop shop = demo_shop().shop;
    std::set<std::string> keys;
    for (const Resin& r : shop.resins) keys.insert(r.key);
    for (int i = 0; i < 4; ++i) CHECK(keys.insert(add_resin(shop)).second);
    // One of the middle goes: its successor is not called like another.
    shop.resins.erase(shop.resins.end() - 2);
    std::set<std::string> now;
    for (const Resin& r : shop.resins) now.insert(r.key);
    CHECK(now.insert(add_resin(shop)).second);
}

TEST_CASE("every mend that a caution offers can be made, and the caution then is gone or less", "[edit]") {
    const Documents& d = demo_shop();
    int offered = 0;
    for (const auto& [id, job] : d.jobs) {
        const Plan p = plan_job(job, d);
        std::set<std::string> asked;  // once a key: what is offered is the same for all of it
        for (const StepRow& row : steps()) {
            if (!row.says(p)) continue;
            for (const Caution& c : row.says(p)->cautions) {
                if (!asked.insert(c.key).second) continue;
                const auto m = mend_of(c, d, id, p);
                if (!m) continue;
                ++offered;
                INFO(id << " " << c.key);
                Documents after = d;
                CHECK_NOTHROW(mended(after, id, *m));
                CHECK_FALSE(after == d);
                // Gone, or lesser: fewer of its kind, or the worst of them milder; and no stop more than before.
                const auto weigh = [&](const Plan& plan) {
                    int told = 0;
                    int worst = -1;
                    int stops = 0;
                    for (const StepRow& r : steps()) {
                        if (!r.says(plan) || r.on == StepRow::On::beside) continue;
                        for (const Caution& k : r.says(plan)->cautions) {
                            stops += k.severity == Severity::stop;
                            if (k.key == c.key) ++told, worst = std::max(worst, static_cast<int>(k.severity));
                        }
                    }
                    return std::tuple(worst, told, stops);
                };
                const auto [worst, told, stops] = weigh(plan_job(after.jobs.at(id), after));
                const auto [worst_was, told_was, stops_was] = weigh(p);
                CHECK((worst < worst_was || told < told_was));
                CHECK(stops <= stops_was);
            }
        }
    }
    CHECK(offered > 0);  // or nothing is tried
    Documents after = d;
    CHECK_THROWS_AS(mended(after, "job-reading-table", Mend{"polish the moon", {}, {}}), Refusal);
    CHECK(after == d);
}

TEST_CASE("a leaf moved and turned comes back when it is moved and turned back", "[edit]") {
    const Documents& d = demo_shop();
    Job j = d.jobs.at("job-tarn-river");
    const Job before = j;
    move_leaf(j, 1, {31, -17});
    turn_leaf(j, 1, {100, 50}, 2.5);
    CHECK_FALSE(j == before);
    turn_leaf(j, 1, {100, 50}, -2.5);
    move_leaf(j, 1, {-31, 17});
    CHECK(j.leaves[1].placement.x_mm == Approx(before.leaves[1].placement.x_mm).margin(1e-6));
    CHECK(j.leaves[1].placement.y_mm == Approx(before.leaves[1].placement.y_mm).margin(1e-6));
    CHECK(j.leaves[1].placement.angle_deg == Approx(before.leaves[1].placement.angle_deg).margin(1e-9));
    CHECK(j.leaves[0].placement == before.leaves[0].placement);
    // The wood under a fixed place of the top moves as it is said.
    const Vec2 was = before.leaves[1].placement.frame().from_slab({500, 0});
    move_leaf(j, 1, {12, 5});
    const Vec2 is = j.leaves[1].placement.frame().from_slab({500, 0});
    CHECK(is.x - was.x == Approx(12));
    CHECK(is.y - was.y == Approx(5));
}

TEST_CASE("turned over twice or end for end twice a job is what it was", "[edit]") {
    const Documents& d = demo_shop();
    for (const auto& [id, job] : d.jobs) {
        if (job.leaves.empty() || job.leaves[0].slab.empty()) continue;
        INFO(id);
        const Plan was = plan_job(job, d);
        Job j = job;
        turn_over(j);
        CHECK(j.leaves[0].placement.turned_over != job.leaves[0].placement.turned_over);
        turn_over(j);
        CHECK(j.leaves[0].placement.x_mm == Approx(job.leaves[0].placement.x_mm).margin(1e-6));
        CHECK(j.leaves[0].placement.y_mm == Approx(job.leaves[0].placement.y_mm).margin(1e-6));
        // The same outline, and every leaf's wood balancing at the same place; `half` round, both with the other sign.
        const auto same_as_was = [&](double half) {
            const Plan now = plan_job(j, d);
            CHECK(now.top->mass_kg == Approx(was.top->mass_kg).epsilon(1e-6));
            const Box b = bounds(was.top->above);
            const Box a = bounds(now.top->above);
            CHECK(lerp(a.low, a.high, 0.5).x == Approx(half * lerp(b.low, b.high, 0.5).x).margin(0.01));
            CHECK(lerp(a.low, a.high, 0.5).y == Approx(half * lerp(b.low, b.high, 0.5).y).margin(0.01));
            CHECK(a.width() == Approx(b.width()).margin(0.01));
            CHECK(a.height() == Approx(b.height()).margin(0.01));
            for (std::size_t i = 0; i < was.top->leaves; ++i) {
                CHECK(now.top->regions[i].balance.x == Approx(half * was.top->regions[i].balance.x).margin(0.1));
                CHECK(now.top->regions[i].balance.y == Approx(half * was.top->regions[i].balance.y).margin(0.1));
            }
        };
        end_for_end(j);
        if (!job.several()) same_as_was(-1);
        end_for_end(j);
        same_as_was(1);
    }
}

TEST_CASE("plates and channels: where one is put from an end, there it lies", "[edit]") {
    Job j = on(plank("a", 2400, 900, 55), {2000, 800, 40, 740, LiveEdges::none, 6, TopShape::rectangle, {}});
    lay_plates(j);
    REQUIRE(j.under.plates.size() == 2);
    for (std::size_t i = 0; i < 2; ++i) {
        set_plate_from_end(j, i, 310);
        CHECK(from_end_mm(j, j.under.plates[i].u_mm) == Approx(310));
    }
    CHECK(j.under.plates[0].u_mm == Approx(-j.under.plates[1].u_mm));
    const std::size_t channels = j.under.channels.size();
    add_channel(j, 120);
    CHECK(j.under.channels.size() == channels + 1);
    set_channel_from_end(j, channels, 450);
    CHECK(from_end_mm(j, j.under.channels[channels].u_mm) == Approx(450));
    drop_channel(j, j.under.channels.size() - 1);
    CHECK(j.under.channels.size() == channels);
}

TEST_CASE("patches: added, moved, dropped, each with an id of its own", "[edit]") {
    Job j = demo_shop().jobs.at("job-tarn-river");
    j.makeup.patches.clear();
    add_patch(j, box(-60, 100, 60, 180));
    add_patch(j, box(200, 100, 300, 180));
    REQUIRE(j.makeup.patches.size() == 2);
    CHECK(j.makeup.patches[0].id != j.makeup.patches[1].id);
    move_patch(j, 0, {10, -4});
    CHECK(j.makeup.patches[0].outline[0].x == Approx(-50));
    CHECK(j.makeup.patches[0].outline[0].y == Approx(96));
    const std::string second = j.makeup.patches[1].id;
    drop_patch(j, 0);
    REQUIRE(j.makeup.patches.size() == 1);
    CHECK(j.makeup.patches[0].id == second);
    add_patch(j, box(0, 0, 50, 50));
    CHECK(j.makeup.patches[1].id != second);
}

TEST_CASE("slabs of every leaf and of every patch are taken, and the rack says for which job", "[edit][rack]") {
    Documents d = demo_shop();
    Job& river = d.jobs.at("job-tarn-river");
    REQUIRE(river.leaves.size() == 2);
    std::string free;
    {
        const auto now = taken_slabs(d);
        for (const auto& [id, s] : d.slabs)
            if (!now.count(id)) free = id;
    }
    REQUIRE_FALSE(free.empty());
    add_patch(river, box(-60, 100, 60, 180));
    river.makeup.patches.back().slab = free;
    const auto taken = taken_slabs(d);
    for (const auto& [id, job] : d.jobs)
        for (const Leaf& l : job.leaves) {
            INFO(id << " " << l.slab);
            CHECK(taken.count(l.slab) == 1);
        }
    CHECK(taken.at(river.leaves[1].slab) == river.name);
    CHECK(taken.at(free) == river.name);
    CHECK_FALSE(taken_slabs(d, river.id).count(river.leaves[1].slab));
    for (const RackEntry& e : rack_of({d.slabs, taken, d.shop.air, 10, nullptr, "2026-11-25"})) {
        INFO(e.id);
        CHECK(e.reserved_for.empty() == !taken.count(e.id));
    }
}

TEST_CASE("jobs added one after another have ids of their own", "[edit]") {
    Documents own = demo_shop();
    const std::size_t before = own.jobs.size();
    const std::string first = add_job(own, "Another", "2026-12-01");
    const std::string second = add_job(own, "And another", "2026-12-01");
    CHECK(first != second);
    CHECK(own.jobs.size() == before + 2);
    CHECK_FALSE(own.jobs.count(fresh_id("job", own)));
}

TEST_CASE("dry enough is what the room settles at and what the maker allows above it", "[rack]") {
    Shop shop = demo_shop().shop;
    const Climate room = demo_shop().jobs.at("job-reading-table").room;
    shop.dry_allowed_pct = 2;
    const double two = dry_enough_pct(room, shop);
    CHECK(two == Approx(settles_at(room) + 2));
    shop.dry_allowed_pct = 0.5;
    CHECK(dry_enough_pct(room, shop) == Approx(two - 1.5));
    // A porch is damper than a heated room: wood that is dry for the one is not for the other.
    CHECK(dry_enough_pct(demo_shop().jobs.at("job-landing-bench").room, shop) > dry_enough_pct(room, shop) + 2);
}

TEST_CASE("a new reading of moisture keeps the one before – an empty one clears what holds", "[edit]") {
    Slab s = plank("a", 2000, 500, 55);
    read_moisture(s, 14, "2026-09-01");
    read_moisture(s, 12, "2026-10-01");
    CHECK(*s.moisture_pct == 12);
    CHECK(s.moisture_on == "2026-10-01");
    REQUIRE_FALSE(s.moisture_log.empty());
    CHECK(s.moisture_log.front().pct == 14);
    read_moisture(s, {}, "2026-11-01");
    CHECK_FALSE(s.moisture_pct);
    CHECK_FALSE(s.moisture_log.empty());
}
