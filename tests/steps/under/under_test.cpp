// Under: slots, pockets, weight and every caution, on tops that can be worked out by hand.
#include <algorithm>
#include <array>

#include <catch2/catch.hpp>

#include "core/shop/edit/mends.h"
#include "core/shop/job/documents.h"
#include "demo/demo.h"
#include "tests/steps/under/table.h"

using namespace yb;

TEST_CASE("a top moves by the handbook's equation between the room's extremes", "[under]") {
    Table t;
    const UnderPlan p = t.plan();
    const double low = equilibrium_moisture(21, 36);
    const double high = equilibrium_moisture(21, 61);
    CHECK(p.low_pct == Approx(low));
    CHECK(p.high_pct == Approx(high));
    CHECK(p.day_pct == 9);
    CHECK(p.travel_mm == Approx(800 * (high - low) / (3000 / 7.1 - 30 + low)));  // black cherry, tangential: 7.1 %
    // Typed for the day it stands above the meter; beyond fibre saturation nothing moves.
    t.job.under.day_moisture_pct = 34;
    CHECK(t.plan().day_pct == 30);
    CHECK(t.plan().high_pct == 30);
    t.job.under.day_moisture_pct.reset();
    t.slab.moisture_pct.reset();
    const Month& air = t.shop.air.months[0];
    CHECK(t.plan().day_pct == Approx(equilibrium_moisture(air.temp_c, air.rh_pct)));
}

TEST_CASE("a known pith lessens the movement by the rings' slant", "[under]") {
    Table t;
    const double flat = t.plan().shrink_pct;
    t.slab.pith_mm = 60;
    const double known = t.plan().shrink_pct;
    CHECK(known < flat);
    // Thin strips: each ring's slant at its place, radial and tangential shares added up.
    const Species& cherry = *find_species("cherry, black");
    double sum = 0;
    for (int i = 0; i < 8000; ++i) {
        const double y = -400 + 800 * (i + 0.5) / 8000;
        const double cos2 = 60.0 * 60 / (60.0 * 60 + y * y);
        sum += (*cherry.shrink_tangential_pct * cos2 + *cherry.shrink_radial_pct * (1 - cos2)) / 8000;
    }
    CHECK(known == Approx(sum).epsilon(1e-4));
}

TEST_CASE("the fixed line decides which bolts travel", "[under]") {
    Table t;
    const auto longest = [&] {
        double most = 0;
        for (const Slot& s : t.plan().slots) most = std::max(most, s.length_mm);
        return most;
    };
    const double middle = longest();
    set_choice(t.job, "under.fixed", "left");
    const double left = longest();
    set_choice(t.job, "under.fixed", "right");
    CHECK(left == Approx(longest()));  // the top is even
    CHECK(left > middle);
    // Holes on the line are round and done up tight; at a side it is the outermost bolts' own.
    CHECK_FALSE(t.says("under.no_fixed"));
    const auto slots = t.plan().slots;
    double least = 0;
    for (const Slot& s : slots)
        if (s.part.kind == "plate") least = std::min(least, s.uv.y);
    for (const Slot& s : slots)
        if (s.part.kind == "plate") CHECK(s.round == (s.uv.y < least + t.job.under.bolt_mm));
    set_choice(t.job, "under.fixed", "middle");
    CHECK_FALSE(t.says("under.no_fixed"));
    int round = 0;
    for (const Slot& s : t.plan().slots) round += s.round;
    CHECK(round == 4);  // the middle bolt of two plates and two channels
    for (const Slot& s : t.plan().slots) CHECK(s.round == (std::abs(s.uv.y) < t.job.under.bolt_mm));
}

TEST_CASE("holes of plates and channels lie where they are drilled", "[under]") {
    LegPlate plate{300, -20, 120, 500, 3, 2};
    UnderChoices c;
    c.edge_mm = 30;
    const auto holes = holes_of(plate, c);
    REQUIRE(holes.size() == 6);
    const Box b = bounds(holes);
    CHECK(b.low.x == Approx(300 - 30));
    CHECK(b.high.x == Approx(300 + 30));
    CHECK(b.low.y == Approx(-20 - 220));
    CHECK(b.high.y == Approx(-20 + 220));
    CHECK(area(footprint(plate)) == Approx(120 * 500));
    const auto three = holes_of(Channel{100, 0, 600, 40, 12, 3, 3}, c);
    REQUIRE(three.size() == 3);
    CHECK(three[0].y == Approx(-270));
    CHECK(three[1].y == Approx(0));
    CHECK(area(footprint(Channel{100, 0, 600, 40, 12, 3, 3})) == Approx(600 * 40));
}

TEST_CASE("a pocket leaves its channel room, and the channel its share of stiffness", "[under]") {
    Table t;
    const UnderPlan p = t.plan();
    REQUIRE(p.pockets.size() == 2);
    const Channel& ch = t.job.under.channels[0];
    // Both ends of the wood come in by what half the channel's length shrinks, day to driest; a millimetre of play each.
    const double in = ch.length_mm / 2 * (9 - p.low_pct) / (3000 / 7.1 - 30 + 9);
    CHECK(p.pockets[0].length_mm == Approx(std::ceil(ch.length_mm + 2 * in + 2 * t.job.under.play_mm)));
    // E I of 1000 mm of wood across the grain, E_L / 15, against the steel's.
    const double wood = *find_species("cherry, black")->moe_mpa / 15 * 1000 * 40 * 40 * 40 / 12;
    const double steel = 200e3 * channel_inertia(ch.width_mm, ch.depth_mm, ch.wall_mm);
    CHECK(p.pockets[0].stiffness_share == Approx(steel / (steel + wood)).epsilon(1e-6));
}

TEST_CASE("what stands in the way underneath is said with its place", "[under][T27][T32]") {
    Table t;
    for (const char* key : {"under.outside", "under.clash", "under.through", "under.deep_channel", "under.channel_end", "under.wet",
                            "under.leg", "under.no_plates", "under.hole_in_void"})
        CHECK_FALSE(t.says(key));
    const UnderChoices good = t.job.under;
    t.job.under.channels[0].u_mm = -900;
    CHECK(t.says("under.channel_end"));
    t.job.under = good;
    t.job.under.channels[0].depth_mm = 22;
    CHECK(t.says("under.deep_channel"));
    t.job.under = good;
    t.job.under.channels[1].u_mm = t.job.under.channels[0].u_mm + 10;
    REQUIRE(t.says("under.clash"));
    CHECK(t.says("under.clash")->says.pattern.find("meet") != std::string::npos);
    t.job.under = good;
    t.job.under.channels.clear();
    t.job.under.insert_mm = 35;
    REQUIRE(t.says("under.through"));
    CHECK(t.says("under.through")->severity == Severity::watch);
    t.job.under.insert_mm = 38;
    CHECK(t.says("under.through")->severity == Severity::stop);
    t.job.under = good;
    t.job.under.channels.clear();
    t.job.under.plate_let_in = true;
    t.job.under.insert_mm = 28;  // 40 − 28 − 6 of a plate let in
    CHECK(t.plan().wood_left_mm == Approx(6));
    CHECK(t.says("under.through"));
    t.job.under = good;
    t.job.under.plates.clear();
    CHECK(t.says("under.no_plates"));
    t.job.under = good;
    t.job.top.height_mm = 320;
    CHECK(t.says("under.leg"));
    t.job.top.height_mm = 740;
    t.job.under.day_moisture_pct = 15;
    REQUIRE(t.says("under.wet"));
    CHECK(t.says("under.wet")->severity == Severity::stop);
    t.job.under = good;
    // A void under the outermost bolt of the first plate.
    const Slot slot = t.plan().slots.front();
    const Vec2 hole = t.job.first().placement.frame().to_slab(slot.uv);
    t.slab.flaws.push_back({"v", FlawKind::void_, Face::a, box(hole.x - 20, hole.y - 20, hole.x + 20, hole.y + 20), true, {}, 1, ""});
    REQUIRE(t.says("under.hole_in_void"));
    CHECK(length(*t.says("under.hole_in_void")->at - hole) < 1);
}

TEST_CASE("a heavy top asks for people, as an estimate", "[under]") {
    Table t;
    // 2.0 × 0.8 × 0.04 m of black cherry, 0.50 at 12 %, at 9 %.
    CHECK(t.plan().top_kg == Approx(2.0 * 0.8 * 0.04 * 1000 * 0.50 * 1.09).epsilon(1e-4));
    CHECK(t.says("under.lift"));
    t.job.under.helpers = 2;
    CHECK_FALSE(t.says("under.lift"));
    t.job.top.thickness_mm = 48;
    t.slab.species = "hickory, shagbark";
    t.job.under.helpers = 1;
    REQUIRE(t.says("under.lift"));
    CHECK(t.says("under.lift")->says.pattern.find("estimate") != std::string::npos);
}

TEST_CASE("a wood that nobody named stops the step and says where to mend it", "[under]") {
    Table t;
    t.slab.species.clear();
    const UnderPlan p = t.plan();
    CHECK_FALSE(p.ready);
    REQUIRE(find_caution(p.cautions, "under.species"));
    CHECK(find_caution(p.cautions, "under.species")->says.pattern.find("rack") != std::string::npos);
    CHECK(p.slots.empty());
}

TEST_CASE("a bolt sits in its slot where the season says", "[under][T23]") {
    Table t;
    // A dry day: nearly all the travel is outward, so the bolt sits near the inner end.
    t.job.under.day_moisture_pct = equilibrium_moisture(21, 36);
    UnderPlan p = t.plan();
    for (const Slot& s : p.slots)
        if (!s.round) {
            CHECK(s.travel_in_mm == Approx(0).margin(1e-6));
            CHECK(s.bolt_from_inner_mm == Approx(4 + 0.5));
        }
    CHECK(t.says("under.bolt_place"));
    // Which bolts are done up hard, and which only snug.
    const Caution* tight = t.says("under.tighten");
    REQUIRE(tight);
    CHECK(render(tight->says, Units::metric()).find("outside it snug") != std::string::npos);
    // In between it sits in the middle, and nothing is said.
    t.job.under.day_moisture_pct = (p.low_pct + p.high_pct) / 2;
    CHECK_FALSE(t.says("under.bolt_place"));
    for (const Slot& s : t.plan().slots) {
        CHECK(s.length_mm * 2 == Approx(std::round(s.length_mm * 2)));  // to half a millimetre
        if (!s.round) CHECK(s.length_mm >= 8 + 1 + s.travel_in_mm + s.travel_out_mm - 1e-9);
    }
}

TEST_CASE("over a river the only fixed bolt is never advised into the resin", "[under][T32]") {
    Documents d = demo_shop();
    const std::string id = "job-tarn-river";
    const Plan p = plan_job(d.jobs.at(id), d);
    // Two bolts a row, the river below the middle of both plates.
    const Caution* c = find_caution(p.under->cautions, "under.no_fixed");
    REQUIRE(c);
    CHECK(render(c->says, {}).find("no wood is") != std::string::npos);
    const auto mend = mend_of(*c, d, id, p);
    REQUIRE(mend);
    mended(d, id, *mend);
    const Job& j = d.jobs.at(id);
    CHECK(j.under.fixed == FixedLine::left);
    const Plan after = plan_job(j, d);
    CHECK_FALSE(find_caution(after.under->cautions, "under.no_fixed"));
    int tight = 0;
    for (const Slot& s : after.under->slots) {
        if (!s.round || s.part.kind != "plate") continue;
        ++tight;
        const Across* there = nullptr;
        const auto across = after.top->across(s.uv.x);
        for (const Across& a : across)
            if (s.uv.y > a.from && s.uv.y < a.to) there = &a;
        REQUIRE(there);
        CHECK(after.top->regions[there->region].wood());
    }
    CHECK(tight == 4);  // a row of two on each plate
    // An odd number would have put one into the river: it is told, and does not count as fixed.
    Documents odd = demo_shop();
    for (LegPlate& plate : odd.jobs.at(id).under.plates) plate.bolts_across = 3;
    const Plan in_river = plan_job(odd.jobs.at(id), odd);
    CHECK(find_caution(in_river.under->cautions, "under.hole_in_resin"));
    CHECK(find_caution(in_river.under->cautions, "under.no_fixed"));
    // A plate wholly in it holds nothing: one stop in place of a line for each hole.
    odd.jobs.at(id).under.plates = {{0, 0, 200, 80, 3, 2}};
    const Plan wholly = plan_job(odd.jobs.at(id), odd);
    const Caution* all = find_caution(wholly.under->cautions, "under.all_in_river");
    REQUIRE(all);
    CHECK(all->severity == Severity::stop);
    CHECK_FALSE(find_caution(wholly.under->cautions, "under.hole_in_resin"));
}

TEST_CASE("each half of an open river has a fixed line of its own, through its own bolt nearest the middle", "[under][T22]") {
    Documents d = demo_shop();
    Job& j = d.jobs.at("job-open-river");
    const Plan p = plan_job(j, d);
    REQUIRE(p.under->leaf_fixed_v_mm.size() == 2);
    CHECK_FALSE(find_caution(p.under->cautions, "under.no_fixed"));
    CHECK_FALSE(find_caution(p.under->cautions, "under.leaf_loose"));
    std::array<int, 2> tight{};
    for (const Slot& s : p.under->slots) {
        if (s.part.kind != "plate") continue;
        const Region* there = p.top->at(s.uv, 1);
        REQUIRE(there);
        if (there->kind != RegionKind::leaf) continue;
        const double line = p.under->leaf_fixed_v_mm[there->index];
        CHECK(s.held_v_mm == line);
        CHECK(line * s.uv.y > 0);                          // on its own side of the river
        CHECK(std::abs(s.uv.y) >= std::abs(line) - 1e-9);  // of the leaf's bolts the nearest to the middle
        tight[there->index] += s.round;
        // Only the wood between the line and the hole moves it: W·S·ΔM, as one leaf by itself.
        const double w = std::abs(s.uv.y - line);
        const double mean = there->shrinkage(s.uv.x, std::min(line, s.uv.y), std::max(line, s.uv.y)).value_or(0);
        const double leaf = std::clamp(there->moisture_pct.value_or(0), 0.0, 30.0);
        if (w > 1) CHECK(s.travel_in_mm == Approx(std::max(0.0, -movement(w, mean, leaf, p.under->low_pct))).margin(0.02));
    }
    CHECK(tight[0] > 0);
    CHECK(tight[1] > 0);
    // A base that reaches one half only lets the other go.
    for (LegPlate& plate : j.under.plates) plate.v_mm = 260, plate.across_mm = 160, plate.bolts_across = 2;
    const Plan one = plan_job(j, d);
    const Caution* loose = find_caution(one.under->cautions, "under.leaf_loose");
    REQUIRE(loose);
    CHECK(loose->severity == Severity::stop);
    // Poured shut it is one top with one line.
    j.makeup.kind = MakeUp::river;
    CHECK(plan_job(j, d).under->leaf_fixed_v_mm.empty());
}
