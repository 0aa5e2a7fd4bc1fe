// The client's picture as geometry: perspective against its formula, what is seen, what stands behind what.
#include <catch2/catch.hpp>

#include <random>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/picture/scene.h"
#include "core/steps/top/top.h"
#include "demo/demo.h"

using namespace yb;

TEST_CASE("a level plane is seen through its own projection – the box fills the picture and stays inside", "[picture]") {
    std::mt19937 dice(9);
    std::uniform_real_distribution<double> any(-1, 1);
    for (int i = 0; i < 200; ++i) {
        const Eye eye{180 * any(dice), 40 + 35 * any(dice), 1200, 800};
        const Vec3 low{-1000 - 300 * any(dice), -450, 0}, high{1000, 450 + 100 * any(dice), 740};
        const Camera camera(eye, low, high);
        const double z = 370 + 300 * any(dice);
        const auto m = camera.level(z);
        for (int k = 0; k < 5; ++k) {
            const Vec3 p{900 * any(dice), 400 * any(dice), z};
            const Vec2 seen = camera.px(p);
            const double w = m[6] * p.x + m[7] * p.y + m[8];
            CHECK((m[0] * p.x + m[1] * p.y + m[2]) / w == Approx(seen.x).margin(1e-6));
            CHECK((m[3] * p.x + m[4] * p.y + m[5]) / w == Approx(seen.y).margin(1e-6));
            CHECK(camera.depth(p) > 0);
        }
        double left = 1e9, right = -1e9, top = 1e9, bottom = -1e9;
        for (const double x : {low.x, high.x})
            for (const double y : {low.y, high.y})
                for (const double h : {low.z, high.z}) {
                    const Vec2 p = camera.px({x, y, h});
                    left = std::min(left, p.x), right = std::max(right, p.x), top = std::min(top, p.y), bottom = std::max(bottom, p.y);
                }
        CHECK(left >= 0);
        CHECK(top >= 0);
        CHECK(right <= eye.width_px);
        CHECK(bottom <= eye.height_px);
        CHECK(std::max((right - left) / eye.width_px, (bottom - top) / eye.height_px) == Approx(0.88).margin(0.01));
        // Of two places one behind the other on the axis the nearer looks larger.
        CHECK(camera.depth(camera.eye()) == Approx(0).margin(1e-9));
    }
}

TEST_CASE("every demo table has its picture: faces look at the eye, the farthest first, light between dark and full", "[picture]") {
    const Documents& d = demo_shop();
    for (const auto& [id, job] : d.jobs) {
        INFO(id);
        const Plan p = plan_job(job, d);
        if (!p.top->ready) continue;
        for (const double turn : {-28.0, 60.0, 170.0}) {
            const SceneBox room = box_of(p, job, true);
            const Camera camera({turn, 24, 1600, 1000}, room.low, room.high);
            const Scene s = scene_of(p, job, camera, true);
            CHECK(s.top_z - s.under_z == Approx(p.top->thickness_mm));
            CHECK_FALSE(s.rims.empty());
            CHECK(s.behind.size() + s.before.size() >= 12);
            double before = 1e300;
            for (const SceneFace& f : s.rims) {
                double depth = 0;
                for (const Vec3& q : f.at) depth += camera.depth(q) / static_cast<double>(f.at.size());
                CHECK(depth <= before + 60);  // by the middle of its corners
                before = depth;
                CHECK((f.light >= 0.4 && f.light <= 1));
                for (const Vec3& q : f.at) CHECK((q.z >= s.under_z - 1e-9 && q.z <= s.top_z + 1e-9));
            }
        }
    }
    const Plan nothing;
    CHECK_THROWS_AS(box_of(nothing, Job(), false), std::invalid_argument);
}
