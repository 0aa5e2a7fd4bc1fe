// Slabs that can be worked out by hand, and what is asked of them over and over.
#pragma once

#include <string>

#include "core/shop/job/job.h"
#include "tests/everything.h"

namespace yb {

/// A straight, sound slab along x from 0, its middle on the chalk line, both faces flat.
inline Slab plank(const std::string& id, double length, double width, double thick, const std::string& species = "butternut") {
    Slab s;
    s.id = s.name = id;
    s.species = species;
    s.tree = "one tree";
    s.tape.stations = {{0, width / 2, width / 2, {}, {}, thick, {}}, {length, width / 2, width / 2, {}, {}, thick, {}}};
    return s;
}

inline Ring box(double x0, double y0, double x1, double y1) { return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}}; }

/// A job on one plank, its top in the plank's middle.
inline Job on(const Slab& slab, WantedTop top) {
    Job j;
    j.id = "job";
    j.top = top;
    give_slab(j, slab);
    return j;
}

}  // namespace yb
