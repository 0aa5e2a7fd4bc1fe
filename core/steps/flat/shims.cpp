#include "core/steps/flat/shims.h"

#include <algorithm>
#include <cmath>

#include "core/ground/beam/beam.h"

namespace yb {

bool in_one_line(const std::vector<Shim>& shims) {
    for (std::size_t i = 0; i < shims.size(); ++i)
        for (std::size_t j = i + 1; j < shims.size(); ++j) {
            const Vec2 a{shims[i].at.x_mm, shims[i].at.y_mm};
            const Vec2 along = Vec2{shims[j].at.x_mm, shims[j].at.y_mm} - a;
            if (length(along) < 20) continue;
            double off = 0;
            for (const Shim& s : shims) off = std::max(off, std::abs(cross(along, Vec2{s.at.x_mm, s.at.y_mm} - a)) / length(along));
            if (off > 20) return false;
        }
    return true;
}

double hangs_through_mm(const Ring& rough, double thickness, double moe, double kg_m3, const std::vector<Shim>& shims) {
    if (rough.size() < 3 || !(thickness > 0) || !(moe > 0)) return 0;
    const Box box = bounds(rough);
    std::vector<double> rows;
    for (const Shim& s : shims) rows.push_back(std::clamp(s.at.x_mm, box.low.x, box.high.x));
    std::sort(rows.begin(), rows.end());
    rows.erase(std::unique(rows.begin(), rows.end(), [](double a, double b) { return b - a < 60; }), rows.end());
    double from = 0;
    double to = 0;
    for (std::size_t i = 1; i < rows.size(); ++i)
        if (rows[i] - rows[i - 1] > to - from) from = rows[i - 1], to = rows[i];
    if (to - from < 1) return 0;
    const Plank plank = plank_of(rough, thickness, moe, kg_m3, 200);
    // What hangs over beyond the two rows is held by the rows after them, where there are any.
    const bool alone = rows.size() == 2;
    if (alone) return std::max(0.0, bend(plank, from, to).at((from + to) / 2));
    Plank span = plank;
    span.x_mm.clear(), span.width_mm.clear();
    for (std::size_t i = 0; i < plank.x_mm.size(); ++i)
        if (plank.x_mm[i] >= from && plank.x_mm[i] <= to) span.x_mm.push_back(plank.x_mm[i]), span.width_mm.push_back(plank.width_mm[i]);
    if (span.x_mm.size() < 2) return 0;
    return std::max(0.0, bend(span, span.x_mm.front(), span.x_mm.back()).at((from + to) / 2));
}

}  // namespace yb
