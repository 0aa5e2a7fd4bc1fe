#include "core/steps/flat/most.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/material/wood/cup.h"

namespace yb {

Solved solved_inside(const SlabShape& shape, const Ring& outline) {
    Solved out;
    if (outline.size() < 3) return out;
    out.top = deciding_points(shape.top, outline);
    out.bottom = deciding_points(shape.bottom, outline);
    if (!out.empty()) out.best = best_tilt(out.top, out.bottom);
    return out;
}

std::optional<double> thickest_inside(const SlabShape& shape, const Ring& outline) {
    const Solved s = solved_inside(shape, outline);
    return s.empty() ? std::nullopt : std::optional(s.best.thickness_mm);
}

double whole_thickness(const SlabShape& shape) {
    return best_tilt(deciding_points(shape.top, shape.ring_a), deciding_points(shape.bottom, shape.ring_b)).thickness_mm;
}

namespace {

/// The whole of a piece's face, each place with the area it stands for.
WeighedFace weighed(const Surface& face, const Ring& piece) {
    WeighedFace out;
    const Box b = bounds(piece);
    constexpr int along = 48;
    constexpr int across = 20;
    for (int i = 0; i < along; ++i) {
        const double x = b.low.x + b.width() * (i + 0.5) / along;
        for (const Span1 s : cut_at_x(piece, x))
            for (int j = 0; j < across; ++j) {
                const double y = s.from + (s.to - s.from) * (j + 0.5) / across;
                out.places.push_back({x, y, face.at({x, y})});
                out.weight.push_back((s.to - s.from) / across * b.width() / along);
            }
    }
    return out;
}

}  // namespace

Tilt tilt_of(FlatAim aim, const Solved& s, double wanted, const SlabShape& shape, const Ring& rough) {
    if (s.empty()) throw std::invalid_argument("no readings of both faces lie inside the outline");
    if (aim == FlatAim::share_out || aim == FlatAim::leave_under) return s.best;
    if (aim == FlatAim::as_it_lies) return at_tilt(s.top, s.bottom, 0, 0);
    if (aim == FlatAim::least_wood) {
        const Tilt least = least_wood(s.top, s.bottom, weighed(shape.top, rough), weighed(shape.bottom, rough),
                                      std::min(wanted, s.best.thickness_mm * s.best.slope_factor()));
        return at_tilt(s.top, s.bottom, least.a, least.b);
    }
    const Tilt spare = least_off_top(s.top, s.bottom, std::min(wanted, s.best.thickness_mm));
    // Only as far up as the underside needs.
    Tilt t = at_tilt(s.top, s.bottom, spare.a, spare.b);
    t.top_mm = spare.top_mm;
    t.thickness_mm = (t.top_mm - t.bottom_mm) / t.slope_factor();
    return t;
}

Tilt thinned(Tilt t, FlatAim aim, double to_mm) {
    const double spare = (t.thickness_mm - to_mm) * t.slope_factor();
    const double from_show = aim == FlatAim::leave_under ? 1 : aim == FlatAim::share_out ? 0.5 : 0;
    t.top_mm -= from_show * spare;
    t.bottom_mm += (1 - from_show) * spare;
    t.thickness_mm = to_mm;
    return t;
}

std::optional<double> settling_cup_mm(const Slab& slab, std::optional<double> settles_pct, double wide_mm, double thickness_mm) {
    const Species* species = find_species(slab.species);
    if (!species || !slab.moisture_pct || !settles_pct || !slab.pith_mm || slab.cross_cut || !(thickness_mm > 0) || !(wide_mm > 0))
        return {};
    return ring_cup_mm(*species, *slab.pith_mm, wide_mm, thickness_mm, std::clamp(*slab.moisture_pct, 0.0, 30.0),
                       std::clamp(*settles_pct, 0.0, 30.0));
}

std::optional<double> after_cupping_mm(const SlabShape& shape, const Ring& outline, const Ring& rough, const Tilt& planes, double allowance,
                                       double cup) {
    const Box piece = bounds(rough);
    const Box inside = bounds(outline);
    if (outline.size() < 3 || !(piece.height() > 0)) return {};
    std::vector<Vec3> top = deciding_points(shape.top, outline);
    std::vector<Vec3> bottom = deciding_points(shape.bottom, outline);
    // Between the readings, too: a face that is straight there bends now.
    constexpr int along = 16;
    constexpr int across = 12;
    for (int i = 0; i <= along; ++i) {
        const double x = std::clamp(inside.low.x + inside.width() * i / along, inside.low.x + 1e-6, inside.high.x - 1e-6);
        for (const Span1 s : cut_at_x(outline, x))
            for (int j = 0; j <= across; ++j) {
                const Vec2 p{x, s.from + (s.to - s.from) * j / across};
                top.push_back({p.x, p.y, shape.top.at(p)});
                bottom.push_back({p.x, p.y, shape.bottom.at(p)});
            }
    }
    if (top.empty() || bottom.empty()) return {};
    const double up = allowance * planes.slope_factor();
    const auto bent = [&](Vec2 p) {
        const double v = 2 * (p.y - piece.low.y) / piece.height() - 1;
        return cup * v * v;
    };
    for (Vec3& p : top) p.z = std::min(p.z, planes.top_at({p.x, p.y}) + up) + bent({p.x, p.y});
    for (Vec3& p : bottom) p.z = std::max(p.z, planes.bottom_at({p.x, p.y}) - up) + bent({p.x, p.y});
    return best_tilt(top, bottom).thickness_mm;
}

std::optional<RestTakes> rest_takes(const Slab& slab, const SlabShape& shape, const Ring& outline, const Ring& rough, const Tilt& planes,
                                    const FlatChoices& c, std::optional<double> settles_pct, bool known_only) {
    // What stays underneath is never planed flat, and what is bought flat or comes back from a machine shop has rested there.
    if (c.rest_h <= 0 || c.allowance_mm <= 0 || c.aim == FlatAim::leave_under || planes.thickness_mm <= 0) return {};
    if (c.by == FlatBy::bought_flat || c.by == FlatBy::machine_shop) return {};
    const auto takes = [&](double cup) {
        const double left = after_cupping_mm(shape, outline, rough, planes, c.allowance_mm, cup).value_or(planes.thickness_mm);
        return std::clamp(planes.thickness_mm - left, 0.0, planes.thickness_mm);
    };
    if (const auto cup = settling_cup_mm(slab, settles_pct, bounds(rough).height(), planes.thickness_mm))
        return RestTakes{takes(*cup), *cup, true};
    if (known_only) return {};
    return RestTakes{std::max(takes(1), takes(-1)), 1, false};
}

std::optional<double> rested_inside(const Slab& slab, const SlabShape& shape, const Ring& outline, const Ring& rough,
                                    const FlatChoices& choices, std::optional<double> settles_pct) {
    const Solved solved = solved_inside(shape, outline);
    if (solved.empty()) return {};
    const auto rest = rest_takes(slab, shape, outline, rough, solved.best, choices, settles_pct, true);
    return solved.best.thickness_mm - (rest ? rest->mm : 0);
}

}  // namespace yb
