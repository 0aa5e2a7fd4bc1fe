// A shop of two planks, and what is told of a job on them: for tests that provoke a caution and lift it again.
#pragma once

#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/rack/rack.h"
#include "tests/planks.h"

namespace yb {

/// Two planks of one tree in a shop, and jobs on them.
struct SmallShop {
    Documents d;
    Job j;
    SmallShop() {
        for (const char* id : {"a", "b"}) {
            d.slabs[id] = plank(id, 2400, 500, 50, "cherry, black");
            d.slabs[id].moisture_pct = 9, d.slabs[id].moisture_on = "2026-11-02";
        }
        j = on(d.slabs.at("a"), {1800, 400, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}});
        j.start = "2026-11-30";
    }
    Slab& slab(const char* id = "a") { return d.slabs.at(id); }
    void lay(MakeUp kind, double width) {
        j.top.width_mm = width;
        const std::string why = laid_together(j, kind, {d.slabs.at("a"), d.slabs.at("b")});
        INFO(why);
        REQUIRE(why.empty());
    }
    Flaw& flaw(FlawKind kind, Ring outline, const char* id = "a") {
        slab(id).flaws.push_back({"f" + std::to_string(slab(id).flaws.size()), kind, Face::a, std::move(outline), false, 10.0, 1, ""});
        return slab(id).flaws.back();
    }
    void heights(double step, const char* id = "a") {
        // Both faces read on a grid, flat, but for one corner of face A.
        HeightGrid g;
        for (double x = 100; x < 2400; x += 550) g.x_mm.push_back(x);
        g.y_mm = {-200, 0, 200};
        g.gap_mm.assign(g.x_mm.size() * g.y_mm.size(), 5.0);
        slab(id).heights_b = g;
        g.gap_mm.front() = 5.0 + step;
        slab(id).heights_a = g;
    }
    const Caution* says(const char* key) {
        d.jobs["job"] = j;
        last = plan_job(j, d);
        for (const StepRow& row : steps())
            if (row.says(last))
                if (const Caution* c = find_caution(row.says(last)->cautions, key)) return c;
        return nullptr;
    }
    /// The keys of all that was told last, for a test that fails.
    std::string told() const {
        std::string all;
        for (const StepRow& row : steps())
            if (row.says(last))
                for (const Caution& c : row.says(last)->cautions) all += c.key + " ";
        return all;
    }
    Plan last;
};

}  // namespace yb
