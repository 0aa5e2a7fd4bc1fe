// Every figure of every demo job, worked out once more in another way: rings are walked in fine strips, heights asked on a fine
// grid, volumes summed layer by layer, the tilt solved by GLPK. A figure that has no such partner fails by its name.
#include <catch2/catch.hpp>

#include <set>

#include "demo/demo.h"
#include "tests/truth/fill_under.h"
#include "tests/truth/finishing.h"
#include "tests/truth/flattening.h"
#include "tests/truth/joining.h"
#include "tests/truth/pouring.h"
#include "tests/truth/rack_lay.h"

using namespace yb;
using namespace yb::truth;

TEST_CASE("every figure of every demo job is what another way of working it out gives", "[truth]") {
    const Documents& docs = demo_shop();
    auto partners = of_rack_and_lay();
    partners.merge(of_flat());
    partners.merge(of_fill_and_under());
    partners.merge(of_pour());
    partners.merge(of_join());
    partners.merge(of_skin());
    std::set<std::string> used;
    for (const auto& [id, job] : docs.jobs) {
        Case c{id, docs, job, plan_job(job, docs), {}, {}};
        for (const Leaf& l : job.leaves) {
            const Slab& s = docs.slabs.at(l.slab);
            c.slabs.push_back(l.placement.turned_over ? turned_over(s) : s);
            c.shapes.push_back(shape_of(c.slabs.back()));
        }
        for (const StepRow& row : steps()) {
            if (!row.says(c.plan)) continue;
            for (const Figure& f : row.says(c.plan)->figures) {
                INFO(id << " " << f.key << " \"" << f.label << "\"");
                // Of every resin after the first, by its own key.
                if (f.key.rfind("fill.parts.", 0) == 0) {
                    const auto& parts = resins(c).parts;
                    const auto own =
                        std::find_if(parts.begin() + 1, parts.end(), [&](const auto& one) { return "fill.parts." + one.first == f.key; });
                    REQUIRE(own != parts.end());
                    CHECK(f.value.value == Approx(own->second.second).margin(0.002).epsilon(0.01));
                    if (f.second) CHECK(f.second->value == Approx(own->second.first - own->second.second).margin(0.002).epsilon(0.01));
                    continue;
                }
                const auto partner = partners.find(f.key);
                CHECK(partner != partners.end());  // a figure without a partner: say how else it can be worked out
                if (partner == partners.end()) continue;
                used.insert(f.key);
                const Expected e = partner->second(c, f);
                CHECK(f.value.value == Approx(e.value).margin(e.margin).epsilon(e.epsilon));
                if (f.second)
                    CHECK(f.second->value == Approx(e.second).margin(e.second_margin > 0 ? e.second_margin : e.margin).epsilon(e.epsilon));
            }
        }
    }
    for (const auto& [key, partner] : partners) {
        INFO(key << " is told by no demo job");
        CHECK(used.count(key) == 1);
    }
}
