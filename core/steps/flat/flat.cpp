#include "core/steps/flat/flat.h"

#include <algorithm>
#include <cmath>

#include "core/ground/work/work.h"
#include "core/material/wood/wood.h"
#include "core/steps/flat/dragged.h"
#include "core/steps/flat/told.h"

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

Tilt chosen_tilt(const FlatInputs& in, const Solved& solved) {
    return in.tilt ? at_tilt(solved.top, solved.bottom, in.tilt->x, in.tilt->y)
                   : tilt_of(in.choices.aim, solved, in.top.thickness_mm, in.shape, in.lay.rough);
}

MostOf most_of(const FlatInputs& in, const Tilt& planes, bool known_only) {
    const auto rest = rest_takes(in.slab, in.shape, in.lay.outline, in.lay.rough, planes, in.choices, in.settles_pct, known_only);
    return {planes.thickness_mm - (rest && rest->known ? rest->mm : 0), rest};
}

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
        p_.cup_mm = settling_cup_mm(in_.slab, in_.settles_pct, bounds(in_.lay.rough).height(), p_.thickness_mm);
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
        dragged_ = true;
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
        p_.tilt = chosen_tilt(in_, tried_);
        const MostOf most = most_of(in_, p_.tilt, dragged_);
        p_.most_mm = most.mm, p_.rest = most.rest;
        const double to = comes_to_mm(in_, p_.most_mm);
        const Tilt widest = p_.tilt;
        if (widest.thickness_mm > to) p_.tilt = thinned(widest, in_.choices.aim, to);
        p_.thickness_mm = p_.tilt.thickness_mm;
        leave_for_the_rest(widest);
    }

    /// What stays above both finished planes until the last pass: the allowance, and as much more as the rest would take of the thickness.
    void leave_for_the_rest(const Tilt& widest) {
        left_ = {};
        if (in_.choices.rest_h <= 0) return;
        left_ = {in_.choices.allowance_mm, in_.choices.allowance_mm};
        if (!p_.rest || !p_.rest->known || p_.rest->mm <= 0) return;
        const double after = after_cupping_mm(in_.shape, in_.lay.outline, in_.lay.rough, p_.tilt, in_.choices.allowance_mm, p_.rest->cup_mm)
                                 .value_or(p_.thickness_mm);
        const double more = std::min(widest.thickness_mm, p_.thickness_mm + std::max(0.0, p_.thickness_mm - after));
        const Tilt roughed = thinned(widest, in_.choices.aim, more);
        left_[0] += (roughed.top_mm - p_.tilt.top_mm) / p_.tilt.slope_factor();
        left_[1] += (p_.tilt.bottom_mm - roughed.bottom_mm) / p_.tilt.slope_factor();
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

    /// Nothing of a face is high enough to be planed first.
    bool small(const Surface& off) const {
        double most = 0;
        for (const Vec3& q : deciding_points(off, in_.lay.rough)) most = std::max(most, q.z);
        return most < least_planed_mm;
    }

    void lanes_of(FacePlan& f, const Surface& off, const Surface& other) const {
        const bool show = f.face == Face::a;
        if (in_.choices.by == FlatBy::bought_flat || (!show && p_.under_stays)) return;
        f.left_mm = left_[show ? 0 : 1];
        f.skim = small(off);
        // What is not cut does not move: a skim waits for the other face's rest, or is not needed.
        if (f.skim && (f.left_mm <= 0 || p_.under_stays || small(other))) return;
        const double skimmed = std::min(least_planed_mm, f.left_mm);
        LanePlan lanes =
            plan_lanes(in_.lay.rough, in_.sled, in_.choices.lanes, f.left_mm, [&](Vec2 p) { return f.skim ? skimmed : off.at(p); });
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

    void face(int i) {
        FacePlan& f = p_.faces[static_cast<std::size_t>(i)];
        const bool show = (i == 0) == first_is_show();
        f.face = show ? Face::a : Face::b;
        const Surface& off = show ? p_.off_top : p_.off_bottom;
        for (const Vec3& q : deciding_points(off, in_.lay.outline)) f.most_off_mm = std::max(f.most_off_mm, q.z);
        f.mean_off_mm = mean_inside(off);
        lanes_of(f, off, show ? p_.off_bottom : p_.off_top);
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
        if (f.layers == 0) return;  // nothing runs over it
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

    const FlatInputs& in_;
    FlatPlan p_;
    Tried tried_;
    bool dragged_ = false;          ///< what is only told is left as it was
    std::array<double, 2> left_{};  ///< above the show face's finished plane and below the underside's, for after the rest
};

}  // namespace

std::optional<MostOf> most_of(const FlatInputs& in, const Solved& solved) {
    if (solved.empty()) return {};
    return most_of(in, chosen_tilt(in, solved), true);
}

FlatPlan plan_flat(const FlatInputs& in) { return Planner(in).run(); }
FlatPlan plan_flat_dragged(const FlatInputs& in, const FlatPlan& before) { return Planner(in).run_dragged(before); }

}  // namespace yb
