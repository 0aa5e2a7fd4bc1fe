// An underside that stays as sawn: its wood weighs, its height is the legs', its unevenness is packed.
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/flat/flat.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"
#include "tests/planks.h"

#include <catch2/catch.hpp>

using namespace yb;

TEST_CASE("an underside that stays: weight, legs and packing by hand", "[under][flat][stays]") {
    // 2 m by 500 mm, 60 mm thick at the ends and 70 in the middle, all of it on one face.
    Slab slab = plank("roof", 2000, 500, 60);
    slab.tape.stations.clear();
    for (const auto& [x, thick] : {std::pair{0.0, 60.0}, {1000.0, 70.0}, {2000.0, 60.0}}) {
        Station s;
        s.x_mm = x, s.left_mm = s.right_mm = 250, s.thickness_mm = thick;
        slab.tape.stations.push_back(s);
    }
    // Under a straightedge the show face is flat, the other stands 10 mm away from it at both ends.
    slab.heights_a.x_mm = slab.heights_b.x_mm = {0, 1000, 2000};
    slab.heights_a.y_mm = slab.heights_b.y_mm = {-250, 250};
    slab.heights_a.gap_mm = {0, 0, 0, 0, 0, 0};
    slab.heights_b.gap_mm = {10, 10, 0, 0, 10, 10};
    Documents d;
    d.slabs["roof"] = slab;
    Job& job = d.jobs["job"];
    job.id = "job";
    job.first().slab = "roof";
    job.first().placement.x_mm = 1000;
    job.top.length_mm = 1800, job.top.width_mm = 400, job.top.live = LiveEdges::none, job.top.height_mm = 740, job.top.thickness_mm = 0;
    job.flat.finish = FinishTo::thickest;
    job.under.plates.assign(2, LegPlate{});
    job.under.plates[0].u_mm = -700, job.under.plates[1].u_mm = 700;
    for (LegPlate& p : job.under.plates) p.along_mm = 100, p.across_mm = 300;

    job.flat.aim = FlatAim::leave_under;
    const Plan p = plan_job(job, d);
    REQUIRE(p.under->ready);
    const double thick = p.top->thickness_mm;
    // The plane lies where the thinnest place of the top ends: 900 mm from the middle 61 mm are there.
    CHECK(p.flat->stays_mm == Approx(9).margin(0.05));
    CHECK(p.top->most_stays_mm == Approx(p.flat->stays_mm));
    CHECK(p.top->stays_mm({0, 0}) == Approx(9).margin(0.05));
    CHECK(p.top->stays_mm({-700, 100}) == Approx(2).margin(0.05));
    // 1.8 m by 400 mm, a triangle 9 mm high: 3.24 litres.
    const double stays_l = 1.8 * 0.4 * 0.0045 * 1000;
    const double plane_l = 1.8 * 0.4 * thick;
    CHECK(p.top->regions[0].volume_l == Approx(plane_l + stays_l).epsilon(0.002));
    CHECK(p.under->top_kg == Approx(p.top->regions[0].kg_m3 * (plane_l + stays_l) / 1000).epsilon(0.002));
    // Under the inner corners, 650 from the middle, 2.5 mm stand; 1.5 under the outer ones.
    CHECK(p.under->stays_mm == Approx(2.5).margin(0.05));
    CHECK(p.under->leg_mm + job.under.feet_high_mm() + (job.under.plate_let_in ? 0 : job.under.plate_mm) + p.under->stays_mm + thick ==
          Approx(740));
    REQUIRE(p.under->shims_mm.size() == 2);
    const std::array<double, 4> left{1, 0, 0, 1}, right{0, 1, 1, 0};
    for (std::size_t k = 0; k < 4; ++k) {
        CHECK(p.under->shims_mm[0][k] == Approx(left[k]).margin(0.05));
        CHECK(p.under->shims_mm[1][k] == Approx(right[k]).margin(0.05));
    }
    // What was read at the corners stands for itself.
    job.under.plates[0].gaps_mm = {0.0, 3.0, 0.0, 0.0};
    CHECK(plan_job(job, d).under->shims_mm[0][1] == 3);
    job.under.plates[0].gaps_mm.clear();
    // Made flat, nothing stays.
    job.flat.aim = FlatAim::share_out;
    const Plan flat = plan_job(job, d);
    CHECK(flat.top->most_stays_mm == 0);
    CHECK(flat.under->shims_mm.empty());
    CHECK(flat.under->leg_mm + job.under.feet_high_mm() + (job.under.plate_let_in ? 0 : job.under.plate_mm) + flat.top->thickness_mm ==
          Approx(740));
    CHECK(flat.top->regions[0].volume_l == Approx(1.8 * 0.4 * flat.top->thickness_mm).epsilon(0.002));
}
