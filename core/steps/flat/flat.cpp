#include "core/steps/flat/flat.h"

#include <algorithm>
#include <cmath>

#include "core/steps/flat/dragged.h"
#include "core/steps/flat/told.h"
#include "core/ground/work/work.h"
#include "core/material/wood/cup.h"

namespace yb {

std::vector<Support> default_supports(const Ring& rough) {
    const Box b = bounds(rough);
    std::vector<Support> out;
    for (const double fx : {0.2, 0.8})
        for (const double fy : {0.17, 0.83}) {
            const double x = b.low.x + b.width() * fx;
            const auto cut = cut_at_x(rough, x);
            if (cut.empty()) continue;
            out.push_back({x, cut.front().from + (cut.back().to - cut.front().from) * fy});
        }
    return out;
}

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

/// The tilt of an aim, both planes as far out as it lets them.
Tilt tilt_of(FlatAim aim, const std::vector<Vec3>& top, const std::vector<Vec3>& bottom, const Tilt& best, double wanted,
             const SlabShape& shape, const Ring& rough) {
    if (aim == FlatAim::share_out || aim == FlatAim::leave_under) return best;
    if (aim == FlatAim::as_it_lies) return at_tilt(top, bottom, 0, 0);
    if (aim == FlatAim::least_wood) {
        const Tilt least = least_wood(top, bottom, weighed(shape.top, rough), weighed(shape.bottom, rough),
                                      std::min(wanted, best.thickness_mm * best.slope_factor()));
        return at_tilt(top, bottom, least.a, least.b);
    }
    const Tilt spare = least_off_top(top, bottom, std::min(wanted, best.thickness_mm));
    // Only as far up as the underside needs.
    Tilt t = at_tilt(top, bottom, spare.a, spare.b);
    t.top_mm = spare.top_mm;
    t.thickness_mm = (t.top_mm - t.bottom_mm) / t.slope_factor();
    return t;
}

}  // namespace

double whole_thickness(const SlabShape& shape) {
    return best_tilt(deciding_points(shape.top, shape.ring_a), deciding_points(shape.bottom, shape.ring_b)).thickness_mm;
}

std::optional<double> most_by_aim(const SlabShape& shape, const Solved& s, const Ring& rough, FlatAim aim, double wanted) {
    if (s.empty()) return {};
    return tilt_of(aim, s.top, s.bottom, s.best, wanted, shape, rough).thickness_mm;
}

double wood_above_l(const Surface& off, const Ring& piece) {
    if (piece.size() < 3 || off.empty()) return 0;
    const Box box = bounds(piece);
    // The surface's own lines across, where heights run straight between them; along, each cell in slices that a nought running
    // askew through it does not blur.
    const auto parted = [](const std::vector<double>& axis, double low, double high, double widest) {
        std::vector<double> out{low};
        for (std::size_t i = 0; i + 1 < axis.size(); ++i)
            for (int k = 0, parts = static_cast<int>(std::clamp(std::ceil((axis[i + 1] - axis[i]) / widest), 1.0, 400.0)); k < parts; ++k)
                if (const double v = axis[i] + (axis[i + 1] - axis[i]) * k / parts; v > low && v < high) out.push_back(v);
        out.push_back(high);
        return out;
    };
    std::vector<double> xs = parted(off.x(), box.low.x, box.high.x, 25);
    // … and at the corners of the piece: between them its breadth runs straight.
    for (const Vec2 p : simplified(piece, 0.3)) xs.push_back(p.x);
    std::sort(xs.begin(), xs.end());
    xs.erase(std::unique(xs.begin(), xs.end(), [](double a, double b) { return b - a < 0.01; }), xs.end());
    const std::vector<double> ys = parted(off.y(), box.low.y, box.high.y, 1e9);
    double mm3 = 0;
    const auto slice = [&](double x) {
        double sum = 0;
        for (const Span1 s : cut_at_x(piece, x)) {
            auto k = static_cast<std::size_t>(std::max<std::ptrdiff_t>(1, std::upper_bound(ys.begin(), ys.end(), s.from) - ys.begin()) - 1);
            for (; k + 1 < ys.size() && ys[k] < s.to; ++k) {
                const double from = std::max(s.from, ys[k]);
                const double to = std::min(s.to, ys[k + 1]);
                if (to <= from) continue;
                // Along a stretch of one cell the height is straight: its part above nought is a triangle or a trapezium.
                const double a = off.at({x, from});
                const double b = off.at({x, to});
                const double most = std::max(a, b);
                sum += (to - from) * (std::min(a, b) >= 0 ? (a + b) / 2 : most <= 0 ? 0 : most * most / (2 * std::abs(a - b)));
            }
        }
        return sum;
    };
    // Two places a slice, by Gauss.
    for (std::size_t i = 0; i + 1 < xs.size(); ++i) {
        const double middle = (xs[i] + xs[i + 1]) / 2;
        const double half = (xs[i + 1] - xs[i]) / 2;
        mm3 += half * (slice(middle - half / std::sqrt(3.0)) + slice(middle + half / std::sqrt(3.0)));
    }
    return mm3 * 1e-6;
}

Figure hours_figure(double hours_all, double removed_l, const Sled& sled, std::vector<Given> given, const char* formula) {
    const double loose_l = removed_l * sled.loose;
    given.push_back({"wood planed away", litres(removed_l), "both faces, inside the rough cuts"});
    given.push_back({"loose, times", number(sled.loose), "shop"});
    given.push_back({"a bag", litres(sled.bag_l), "shop"});
    return {"flat.hours",
            "Router time, loose chips",
            hours(hours_all),
            litres(std::round(loose_l)),
            say("{}; {} of wood", counted(std::ceil(loose_l / sled.bag_l - 1e-9), "bag", "bags"), litres(removed_l)),
            {formula, given, "the maker's pace; docs/methods.md, Flattening"}};
}

namespace {

class Planner {
  public:
    explicit Planner(const FlatInputs& in) : in_(in) {}

    FlatPlan run() {
        if (!in_.shape.usable || !in_.lay.ready || in_.lay.outline.size() < 3 || in_.lay.rough.size() < 3) return p_;
        p_.ready = true;
        p_.under_stays = in_.choices.aim == FlatAim::leave_under;
        choose_tilt();
        tried_.lies = at_tilt(tried_.top, tried_.bottom, 0, 0);
        tried_.spare = least_off_top(tried_.top, tried_.bottom, std::min(in_.top.thickness_mm, tried_.best.thickness_mm));
        p_.as_it_lies_mm = tried_.lies.thickness_mm;
        removal();
        shims();
        // Leaves of several are planned beside each other as it is.
        in_parallel(2, [this](std::size_t i) { face(static_cast<int>(i)); }, {{}, {}, in_.together ? 1U : 0U});
        p_.hours = p_.faces[0].hours + p_.faces[1].hours;
        p_.step_mm = lane_step_mm(in_.sled);
        p_.needs_mm = in_.needs.mm;
        p_.work = work_by(in_.choices.by, p_, bounds(in_.lay.rough), in_.sled);
        settling();
        in_service();
        std::vector<Support> standing;
        for (const Shim& s : p_.shims) standing.push_back(s.at);
        p_.rounds = plan_rounds(in_.rounds, in_.lay.rough, standing, in_.sled.shims_mm);
        tell_flat(in_, tried_, p_);
        sort_by_severity(p_.cautions);
        return p_;
    }

    FlatPlan run_dragged(const FlatPlan& before) {
        if (!before.ready || !in_.shape.usable || !in_.lay.ready || in_.lay.outline.size() < 3 || in_.lay.rough.size() < 3) return run();
        p_ = before;
        p_.under_stays = in_.choices.aim == FlatAim::leave_under;
        choose_tilt();
        removal();
        return p_;
    }

  private:
    bool first_is_show() const { return in_.choices.first == FirstFace::show || p_.under_stays; }

    void choose_tilt() {
        static_cast<Solved&>(tried_) = in_.solved ? *in_.solved : solved_inside(in_.shape, in_.lay.outline);
        p_.whole_mm = in_.whole_mm ? *in_.whole_mm : whole_thickness(in_.shape);
        p_.thickest_mm = tried_.best.thickness_mm;
        p_.tilt = in_.tilt
                      ? at_tilt(tried_.top, tried_.bottom, in_.tilt->x, in_.tilt->y)
                      : tilt_of(in_.choices.aim, tried_.top, tried_.bottom, tried_.best, in_.top.thickness_mm, in_.shape, in_.lay.rough);
        p_.most_mm = p_.tilt.thickness_mm;
        const double wanted = in_.together ? in_.together->comes_to_mm : in_.top.thickness_mm;
        const double spare = p_.tilt.thickness_mm - wanted;
        if ((in_.choices.finish == FinishTo::wanted || in_.together) && spare > 0) {
            // What is too thick comes off underneath: the show face keeps its figure. An underside that stays leaves no choice.
            if (p_.under_stays) p_.tilt.top_mm -= spare * p_.tilt.slope_factor();
            else p_.tilt.bottom_mm += spare * p_.tilt.slope_factor();
            p_.tilt.thickness_mm = wanted;
        }
        p_.thickness_mm = p_.tilt.thickness_mm;
    }

    /// The surface with its axes drawn out to the slab's edges: beyond the outermost readings heights are level, but the plane
    /// goes on.
    Surface to_edges(const Surface& s) const {
        if (s.empty()) return s;
        const Box a = bounds(in_.shape.ring_a);
        const Box b = bounds(in_.shape.ring_b);
        const auto drawn_out = [](std::vector<double> axis, double low, double high) {
            if (low < axis.front()) axis.insert(axis.begin(), low);
            if (high > axis.back()) axis.push_back(high);
            return axis;
        };
        const auto xs = drawn_out(s.x(), std::min(a.low.x, b.low.x) - 1, std::max(a.high.x, b.high.x) + 1);
        const auto ys = drawn_out(s.y(), std::min(a.low.y, b.low.y) - 1, std::max(a.high.y, b.high.y) + 1);
        std::vector<double> zs;
        for (const double x : xs)
            for (const double y : ys) zs.push_back(s.at({x, y}));
        return Surface(xs, ys, zs);
    }

    void removal() {
        const Tilt& t = p_.tilt;
        p_.off_top = to_edges(in_.shape.top).mapped([&](double x, double y, double z) { return z - t.top_at({x, y}); });
        p_.off_bottom = to_edges(in_.shape.bottom).mapped([&](double x, double y, double z) { return t.bottom_at({x, y}) - z; });
        if (!p_.under_stays) return;
        p_.stays_mm = 0;
        for (const Vec3& q : deciding_points(p_.off_bottom, in_.lay.outline)) p_.stays_mm = std::max(p_.stays_mm, q.z);
        p_.stays_l = wood_above_l(p_.off_bottom, in_.lay.outline);
        for (const Ring& plate : in_.plates) {
            double low = 1e300;
            double high = -1e300;
            for (const Vec3& q : deciding_points(p_.off_bottom, plate)) low = std::min(low, q.z), high = std::max(high, q.z);
            if (high >= low) tried_.uneven_mm = std::max(tried_.uneven_mm, high - low);
        }
        p_.stays = std::make_shared<const Surface>(p_.off_bottom);
        p_.off_bottom = p_.off_bottom.mapped([](double, double, double) { return 0.0; });
    }

    /// Height above the bench of a place on the slab as it is tilted for the first face.
    double tilted(double z, Vec2 p) const { return z - p_.tilt.a * p.x - p_.tilt.b * p.y; }

    struct Extent {
        double low = 1e300, high = -1e300;
    };
    Extent extent(const Surface& s) const {
        Extent e;
        for (const Vec3& q : deciding_points(s, in_.lay.rough)) {
            const double w = tilted(q.z, {q.x, q.y});
            e.low = std::min(e.low, w);
            e.high = std::max(e.high, w);
        }
        return e;
    }

    void face(int i) {
        FacePlan& f = p_.faces[static_cast<std::size_t>(i)];
        const bool show = (i == 0) == first_is_show();
        f.face = show ? Face::a : Face::b;
        const Surface& off = show ? p_.off_top : p_.off_bottom;
        for (const Vec3& q : deciding_points(off, in_.lay.outline)) f.most_off_mm = std::max(f.most_off_mm, q.z);
        f.mean_off_mm = mean_inside(off);
        if (show || !p_.under_stays) {
            LanePlan lanes = plan_lanes(in_.lay.rough, in_.sled, in_.choices.lanes, in_.choices.rest_h > 0 ? in_.choices.allowance_mm : 0,
                                        [&](Vec2 p) { return off.at(p); });
            f.lanes = lanes.lanes;
            f.layers = static_cast<int>(lanes.layers.levels_mm.size());
            f.last_layers = lanes.layers.last;
            f.passes_all = f.layers * f.lanes;
            f.passes_cut = lanes.passes_cut;
            f.cut_mm = lanes.cut_mm;
            f.hours = lanes.hours, f.last_hours = lanes.last_hours;
            f.passes = std::move(lanes.passes);
            f.levels_mm = std::move(lanes.layers.levels_mm);
            f.each = std::move(lanes.each);
        }
        f.removed_l = wood_above_l(off, in_.lay.rough);

        const Extent top = extent(in_.shape.top);
        const Extent bottom = extent(in_.shape.bottom);
        const double thick = p_.tilt.top_mm - p_.tilt.bottom_mm;
        if (i == 0) {
            f.highest_mm = top.high - bottom.low + p_.stacks.raised_mm;
            f.plane_mm = (show ? p_.tilt.top_mm - bottom.low : top.high - p_.tilt.bottom_mm) + p_.stacks.raised_mm;
        } else {
            // The flat face is down on the bench.
            f.highest_mm = show ? top.high - p_.tilt.bottom_mm : p_.tilt.top_mm - bottom.low;
            f.plane_mm = thick;
        }
        if (f.layers == 0 && p_.under_stays && !show) return;  // nothing runs over it
        f.stickout_mm = in_.sled.floor_mm + in_.sled.rail_mm - f.plane_mm;
        f.spacer_mm = spacer_for(f.stickout_mm, in_.sled).value_or(-1);
    }

    double mean_inside(const Surface& off) const {
        const Box b = bounds(in_.lay.outline);
        double sum = 0;
        int n = 0;
        for (int i = 0; i < 40; ++i) {
            const double x = b.low.x + b.width() * (i + 0.5) / 40;
            for (const Span1 s : cut_at_x(in_.lay.outline, x))
                for (int j = 0; j < 16; ++j) {
                    const double y = b.low.y + b.height() * (j + 0.5) / 16;
                    if (y <= s.from || y >= s.to) continue;
                    sum += off.at({x, y});
                    ++n;
                }
        }
        return n ? sum / n : 0;
    }

    void shims() {
        const auto supports = in_.supports.empty() ? default_supports(in_.lay.rough) : in_.supports;
        const bool show = first_is_show();
        const Surface& down = show ? in_.shape.bottom : in_.shape.top;
        const Extent e = extent(down);
        for (const Support& s : supports) {
            const Vec2 p{s.x_mm, s.y_mm};
            const double w = tilted(down.at(p), p);
            p_.shims.push_back({s, show ? w - e.low : e.high - w, {}, 0});
        }
        // Turned on its shims the slab is cut askew by as much.
        const double way = show ? -1 : 1;
        p_.stacks = lay_stacks(p_.shims, in_.sled.shims_mm, centroid(in_.lay.rough), [&](Turned t) {
            if (tried_.empty()) return 0.0;
            const Tilt askew = at_tilt(tried_.top, tried_.bottom, p_.tilt.a + way * t.a, p_.tilt.b + way * t.b);
            return std::max(0.0, p_.thickness_mm - askew.thickness_mm);
        });
        const Species* species = find_species(in_.slab.species);
        if (species && species->moe_mpa)
            p_.hangs_mm = hangs_through_mm(in_.lay.rough, std::max(1.0, in_.shape.thickness_at(centroid(in_.lay.rough))), *species->moe_mpa,
                                           density_of(in_.slab).value_or(0), p_.shims);
    }

    /// What the rings will do while the wood settles in the shop.
    void settling() {
        const Species* species = find_species(in_.slab.species);
        if (!species || !in_.slab.moisture_pct || !in_.settles_pct || !in_.slab.pith_mm || in_.slab.cross_cut || p_.thickness_mm <= 0)
            return;
        const double from = std::clamp(*in_.slab.moisture_pct, 0.0, 30.0);
        const double to = std::clamp(*in_.settles_pct, 0.0, 30.0);
        p_.cup_mm = ring_cup_mm(*species, *in_.slab.pith_mm, bounds(in_.lay.rough).height(), p_.thickness_mm, from, to);
    }

    /// What the rings and a face that dries alone will do where the table stands.
    void in_service() {
        const Species* species = find_species(in_.slab.species);
        if (!species || !in_.service || in_.slab.cross_cut || p_.thickness_mm <= 0) return;
        const double wide = widest_across(in_.lay.outline);
        if (!(wide > 0)) return;
        const double low = std::clamp(in_.service->low_pct, 0.0, 30.0);
        const double high = std::clamp(in_.service->high_pct, 0.0, 30.0);
        if (in_.slab.pith_mm) p_.service_cup_mm = ring_cup_mm(*species, *in_.slab.pith_mm, wide, p_.thickness_mm, low, high);
        p_.one_face_mm = face_cup_mm(*species, wide, p_.thickness_mm, (low + high) / 2, in_.service->damper_pct);
    }

    const FlatInputs& in_;
    FlatPlan p_;
    Tried tried_;
};

}  // namespace

FlatPlan plan_flat(const FlatInputs& in) { return Planner(in).run(); }
FlatPlan plan_flat_dragged(const FlatInputs& in, const FlatPlan& before) { return Planner(in).run_dragged(before); }

}  // namespace yb
