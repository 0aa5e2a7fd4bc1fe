// Random slabs with twist, bow and lean, for solvers to agree on.
#pragma once

#include <random>
#include <vector>

#include "core/ground/geometry/geometry.h"

namespace yb {

struct Faces {
    std::vector<Vec3> top, bottom;
};
inline Faces warped(unsigned seed, int n) {
    std::mt19937 random(seed);
    const auto u = [&] { return static_cast<double>(random()) / 4294967296.0; };
    const double twist = 24 * (u() - 0.5);
    const double bow = 20 * (u() - 0.5);
    const double lean = 12 * (u() - 0.5);
    Faces f;
    for (int i = 0; i < n; ++i) {
        const double x = 2400 * u();
        const double y = 900 * (u() - 0.5);
        const double w = twist * (x / 2400 - 0.5) * y / 450 + bow * x / 2400 * (1 - x / 2400) * 4 + lean * x / 2400;
        f.top.push_back({x, y, 55 + w + u()});
        f.bottom.push_back({2400 * u(), 900 * (u() - 0.5), w - u()});
    }
    return f;
}

}  // namespace yb
