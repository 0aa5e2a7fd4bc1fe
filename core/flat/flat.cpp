#include "core/flat/flat.h"

#include <algorithm>
#include <cmath>

#include "core/figure/choice.h"
#include "core/flat/machine.h"

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

std::optional<double> thickest_inside(const SlabShape& shape, const Ring& outline) {
    if (outline.size() < 3) return {};
    const auto top = deciding_points(shape.top, outline);
    const auto bottom = deciding_points(shape.bottom, outline);
    if (top.empty() || bottom.empty()) return {};
    return best_tilt(top, bottom).thickness_mm;
}

namespace {

/// The tilt of an aim, both planes as far out as it lets them.
Tilt tilt_of(FlatAim aim, const std::vector<Vec3>& top, const std::vector<Vec3>& bottom, const Tilt& best, double wanted) {
    if (aim == FlatAim::share_out) return best;
    if (aim == FlatAim::as_it_lies) return at_tilt(top, bottom, 0, 0);
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

std::optional<double> most_by_aim(const SlabShape& shape, const Ring& outline, FlatAim aim, double wanted) {
    if (outline.size() < 3) return {};
    const auto top = deciding_points(shape.top, outline);
    const auto bottom = deciding_points(shape.bottom, outline);
    if (top.empty() || bottom.empty()) return {};
    return tilt_of(aim, top, bottom, best_tilt(top, bottom), wanted).thickness_mm;
}

std::optional<double> spacer_for(double stickout_mm, const Sled& sled) {
    if (stickout_mm <= sled.stickout_mm + 1e-9) return 0;
    std::vector<double> boards = sled.spacers_mm;
    std::sort(boards.begin(), boards.end());
    for (const double b : boards)
        if (stickout_mm - b <= sled.stickout_mm + 1e-9) return b;
    return {};
}

double sled_sag_mm(const Sled& s) {
    const double inertia = s.beams * s.beam_wide_mm * s.beam_high_mm * s.beam_high_mm * s.beam_high_mm / 12;
    return s.router_n * s.span_mm * s.span_mm * s.span_mm / (48 * s.beam_mpa * inertia);
}

double wood_above_l(const Surface& off, const Ring& piece) {
    if (piece.size() < 3 || off.empty()) return 0;
    const Box box = bounds(piece);
    // Each cell of the surface in six, both ways: the lines of all of them between the piece's ends.
    const auto parted = [](const std::vector<double>& axis, double low, double high) {
        std::vector<double> out{low};
        constexpr int parts = 6;
        for (std::size_t i = 0; i + 1 < axis.size(); ++i)
            for (int k = 0; k < parts; ++k)
                if (const double v = axis[i] + (axis[i + 1] - axis[i]) * k / parts; v > low && v < high) out.push_back(v);
        out.push_back(high);
        return out;
    };
    std::vector<double> xs = parted(off.x(), box.low.x, box.high.x);
    // … and at the corners of the piece: between them its breadth runs straight.
    for (const Vec2 p : simplified(piece, 0.3)) xs.push_back(p.x);
    std::sort(xs.begin(), xs.end());
    xs.erase(std::unique(xs.begin(), xs.end(), [](double a, double b) { return b - a < 0.01; }), xs.end());
    const std::vector<double> ys = parted(off.y(), box.low.y, box.high.y);
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

int lanes_for(double cover_mm, const Sled& sled) {
    const double step = sled.cutter_mm * (1 - sled.overlap);
    return static_cast<int>(std::ceil(cover_mm / step - 1e-9)) + 1;
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
            say("{} bags; {} of wood", count(std::ceil(loose_l / sled.bag_l - 1e-9)), litres(removed_l)),
            {formula, given, "the maker's pace; docs/methods.md, Flattening"}};
}

namespace {

/// Heights along the lanes above the finished plane: the same profile serves every layer.
class Lanes {
  public:
    /// @param above height of wood over the finished plane, mm
    template <class Above>
    Lanes(const Ring& piece, const Sled& sled, Above above) : sled_(sled) {
        const Box box = bounds(piece);
        const double step = sled.cutter_mm * (1 - sled.overlap);
        count_ = lanes_for(box.width(), sled);
        for (int i = 0; i < count_; ++i) {
            Lane lane;
            lane.x = std::min(box.low.x + i * step, box.high.x);
            const double inside = std::clamp(lane.x, box.low.x + 1e-6, box.high.x - 1e-6);
            for (const Span1 s : cut_at_x(piece, inside)) {
                const int n = std::max(2, static_cast<int>((s.to - s.from) / 12) + 1);
                for (int k = 0; k < n; ++k) {
                    const double y = s.from + (s.to - s.from) * k / (n - 1);
                    lane.y.push_back(y);
                    lane.above.push_back(above(Vec2{inside, y}));
                    highest_ = std::max(highest_, lane.above.back());
                }
            }
            lanes_.push_back(std::move(lane));
        }
    }

    /// Roughing goes down in full layers to the allowance above the finished plane, the last of it after the rest.
    void plan(FacePlan& face, double allowance_mm) const {
        const Layers layers = layers_of(highest_, allowance_mm, sled_);
        face.lanes = count_;
        face.last_layers = layers.last;
        face.layers = static_cast<int>(layers.levels_mm.size());
        const int rough = face.layers - face.last_layers;
        face.passes_all = face.layers * count_;
        for (int layer = 0; layer < face.layers; ++layer) {
            const bool last = layer >= rough;
            const double level = layers.levels_mm[static_cast<std::size_t>(layer)];
            const double cut_before = face.cut_mm;
            double seconds = sled_.layer_s;
            for (const Lane& lane : lanes_) {
                const std::size_t before = face.passes.size();
                cut(lane, layer, level, face);
                if (face.passes.size() == before) continue;
                ++face.passes_cut;
                seconds += sled_.turn_s;
            }
            seconds += (face.cut_mm - cut_before) / sled_.feed_mm_s;
            face.hours += seconds / 3600;
            if (last) face.last_hours += seconds / 3600;
        }
    }

  private:
    struct Lane {
        double x = 0;
        std::vector<double> y, above;
    };

    /// Stretches where wood stands above the level, half a cutter more at both ends, joined where they meet.
    void cut(const Lane& lane, int layer, double level, FacePlan& face) const {
        const double reach = sled_.cutter_mm / 2;
        std::optional<Span1> open;
        const auto close = [&] {
            if (!open) return;
            face.passes.push_back({layer, lane.x, *open});
            face.cut_mm += open->to - open->from;
            open.reset();
        };
        for (std::size_t i = 0; i < lane.y.size(); ++i) {
            if (lane.above[i] <= level + 1e-6) continue;
            const Span1 here{lane.y[i] - reach, lane.y[i] + reach};
            if (open && here.from <= open->to) open->to = here.to;
            else close(), open = here;
        }
        close();
    }

    Sled sled_;
    int count_ = 0;
    double highest_ = 0;
    std::vector<Lane> lanes_;
};

class Planner {
  public:
    explicit Planner(const FlatInputs& in) : in_(in) {}

    FlatPlan run() {
        if (!in_.shape.usable || !in_.lay.ready || in_.lay.outline.size() < 3 || in_.lay.rough.size() < 3) return p_;
        p_.ready = true;
        choose_tilt();
        removal();
        for (const int i : {0, 1}) face(i);
        shims();
        p_.hours = p_.faces[0].hours + p_.faces[1].hours;
        p_.step_mm = in_.sled.tram_mm * (1 - in_.sled.overlap);
        figures();
        cautions();
        choices();
        sort_by_severity(p_.cautions);
        return p_;
    }

  private:
    bool first_is_show() const { return in_.choices.first == FirstFace::show; }

    void choose_tilt() {
        top_ = deciding_points(in_.shape.top, in_.lay.outline);
        bottom_ = deciding_points(in_.shape.bottom, in_.lay.outline);
        best_ = best_tilt(top_, bottom_);
        lies_ = at_tilt(top_, bottom_, 0, 0);
        spare_ = least_off_top(top_, bottom_, std::min(in_.top.thickness_mm, best_.thickness_mm));
        p_.whole_mm = in_.whole_mm ? *in_.whole_mm : whole_thickness(in_.shape);
        p_.thickest_mm = best_.thickness_mm;
        p_.as_it_lies_mm = lies_.thickness_mm;
        p_.tilt = tilt_of(in_.choices.aim, top_, bottom_, best_, in_.top.thickness_mm);
        p_.most_mm = p_.tilt.thickness_mm;
        const double wanted = in_.together ? in_.together->comes_to_mm : in_.top.thickness_mm;
        const double spare = p_.tilt.thickness_mm - wanted;
        if ((in_.choices.finish == FinishTo::wanted || in_.together) && spare > 0) {
            // What is too thick comes off underneath: the show face keeps its figure.
            p_.tilt.bottom_mm += spare * p_.tilt.slope_factor();
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
        const Lanes lanes(in_.lay.rough, in_.sled, [&](Vec2 p) { return off.at(p); });
        lanes.plan(f, in_.choices.rest_h > 0 ? in_.choices.allowance_mm : 0);
        f.removed_l = wood_above_l(off, in_.lay.rough);

        const Extent top = extent(in_.shape.top);
        const Extent bottom = extent(in_.shape.bottom);
        const double thick = p_.tilt.top_mm - p_.tilt.bottom_mm;
        if (i == 0) {
            f.highest_mm = top.high - bottom.low;
            f.plane_mm = show ? p_.tilt.top_mm - bottom.low : top.high - p_.tilt.bottom_mm;
        } else {
            // The flat face is down on the bench.
            f.highest_mm = show ? top.high - p_.tilt.bottom_mm : p_.tilt.top_mm - bottom.low;
            f.plane_mm = thick;
        }
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
            p_.shims.push_back({s, show ? w - e.low : e.high - w});
        }
    }

    void figures() {
        const Tilt& t = p_.tilt;
        const std::string heights = in_.shape.heights_a || in_.shape.heights_b ? "straightedge and caliper" : "caliper only: a guess";
        const std::string method = "linear program, exact on the readings (docs/methods.md, Flattening)";
        p_.figures.push_back({"flat.thickness",
                              "Finishes at",
                              fine(p_.thickness_mm),
                              {},
                              in_.together ? say("{} at most; all come to the thinnest", fine(p_.thickest_mm))
                                           : say("{} is the most this top can have", fine(p_.thickest_mm)),
                              {"t(a,b) = min(z_top − ax − by) − max(z_bottom − ax − by), over √(1 + a² + b²)",
                               {{"tilt along", number(t.a * 1000), "mm per m, solved"},
                                {"tilt across", number(t.b * 1000), "mm per m, solved"},
                                {"readings inside the top", count(static_cast<double>(top_.size() + bottom_.size())), heights},
                                {"wanted", fine(in_.top.thickness_mm), "wanted top"}},
                               method}});
        p_.figures.push_back({"flat.whole",
                              "Whole slab would finish at",
                              fine(p_.whole_mm),
                              {},
                              say("cutting to length first keeps {} more", fine(p_.thickest_mm - p_.whole_mm)),
                              {"the same over the whole uncut slab",
                               {{"inside the top", fine(p_.thickest_mm), "solved"}, {"whole", fine(p_.whole_mm), "solved"}},
                               method}});
        const FacePlan& top = p_.face(Face::a);
        const FacePlan& low = p_.face(Face::b);
        p_.figures.push_back({"flat.off",
                              "Comes off: show face, underside",
                              fine(top.most_off_mm),
                              fine(low.most_off_mm),
                              say("at the worst places; {} and {} on average", fine(top.mean_off_mm), fine(low.mean_off_mm)),
                              {"height − finished plane, inside the top",
                               {{"show face, most", fine(top.most_off_mm), heights}, {"underside, most", fine(low.most_off_mm), heights}},
                               ""}});
        double tallest = 0;
        for (const Shim& s : p_.shims) tallest = std::max(tallest, s.height_mm);
        p_.figures.push_back({"flat.gain",
                              "Shims gain",
                              fine(best_.thickness_mm - lies_.thickness_mm),
                              {},
                              say("tallest shim {}", fine(tallest)),
                              {"best tilt − no tilt, inside the top",
                               {{"best tilt", fine(best_.thickness_mm), "solved"}, {"as it lies", fine(lies_.thickness_mm), "readings"}},
                               method}});
        const int cut = top.passes_cut + low.passes_cut;
        const int all = top.passes_all + low.passes_all;
        const Sled& s = in_.sled;
        p_.figures.push_back(
            {"flat.passes",
             "Lane passes, both faces",
             count(cut),
             {},
             say("{} layers and {} layers; {} passes through air skipped", count(p_.faces[0].layers), count(p_.faces[1].layers),
                 count(all - cut)),
             {"lanes = ceil(length / (cutter × (1 − overlap))) + 1; layers = ceil((highest − allowance) / depth) + ceil(allowance / depth)",
              {{"lanes a layer", count(top.lanes), "rough-cut length"},
               {"cutter", fine(s.cutter_mm), "shop"},
               {"overlap", percent(s.overlap * 100), "shop"},
               {"depth", fine(s.depth_mm), "shop"},
               {"left for after the rest", fine(in_.choices.rest_h > 0 ? in_.choices.allowance_mm : 0), "what you set"},
               {"all lanes × layers", count(all), ""}},
              "lanes with no wood above the layer are skipped"}});
        p_.figures.push_back(
            hours_figure(p_.hours, p_.faces[0].removed_l + p_.faces[1].removed_l, s,
                         {{"length cut, m", number(std::round((top.cut_mm + low.cut_mm) / 100) / 10), "lanes"},
                          {"feed, mm/s", number(s.feed_mm_s), "shop"},
                          {"turn, s", number(s.turn_s), "shop"},
                          {"setting a layer, s", number(s.layer_s), "shop"}},
                         "length cut / feed + passes × turn + layers × setting; ∫ max(height − plane, 0) over the rough piece × loose"));
    }

    void add(std::string key, Severity s, Phrase says, std::optional<Vec2> at = {}) {
        p_.cautions.push_back({std::move(key), s, step_key::flat, std::move(says), at});
    }

    void cautions() {
        const Vec2 middle = centroid(in_.lay.outline);
        if (p_.thickness_mm <= 0)
            add("flat.no_wood", Severity::stop, say("No wood is left between the two planes. Choose a smaller top or another slab."),
                middle);
        else if (p_.most_mm < in_.top.thickness_mm - 0.05)
            add("flat.thin", Severity::stop,
                in_.together
                    ? say("It gives {}, {} less than the {} wanted; all leaves come to {}. Take a shorter or narrower top, another "
                          "slab, or agree on {}.",
                          fine(p_.most_mm), fine(in_.top.thickness_mm - p_.most_mm), fine(in_.top.thickness_mm), fine(p_.thickness_mm),
                          fine(p_.thickness_mm))
                    : say("It finishes {} thinner than the {} wanted. Take a shorter or narrower top, another tilt, or "
                          "agree on {}.",
                          fine(in_.top.thickness_mm - p_.most_mm), fine(in_.top.thickness_mm), fine(p_.most_mm)),
                thinnest_place());
        if (in_.choices.aim == FlatAim::as_it_lies && best_.thickness_mm - lies_.thickness_mm > 1)
            add("flat.unshimmed", Severity::watch,
                say("Without shims one corner gives everything: the best tilt keeps {} more.",
                    fine(best_.thickness_mm - lies_.thickness_mm)),
                thinnest_place());
        for (const FacePlan& f : p_.faces) reach_cautions(f);
        if (const double sag = sled_sag_mm(in_.sled); sag > 0.25)
            add("flat.sag", Severity::watch,
                say("Between rails {} apart the sled sags {} under the router: lanes come out that much hollow in the middle. Beams {} "
                    "high instead of {} hold it to {}.",
                    mm(in_.sled.span_mm), fine(sag), mm(std::ceil(in_.sled.beam_high_mm * std::cbrt(sag / 0.15))),
                    mm(in_.sled.beam_high_mm), fine(0.15)));
        if (p_.step_mm > 0.05)
            add("flat.tram", Severity::watch,
                say("The sled is out of tram: every lane leaves a step of {}. Shim the sled's base under the low "
                    "side by {}.",
                    fine(p_.step_mm), fine(in_.sled.tram_mm)));
        const double most = std::max(p_.faces[0].most_off_mm, p_.faces[1].most_off_mm);
        if (most > 3 && in_.choices.rest_h < 24)
            add("flat.rest", Severity::watch,
                say("Up to {} comes off one face, and wood moves after cutting. Rough both faces leaving {}, rest "
                    "a day or more, take the last of it then.",
                    fine(most), fine(std::max(1.0, in_.choices.allowance_mm))));
        if (!in_.choices.both_faces_to_air)
            add("flat.airtight", Severity::watch,
                say("One face left down airtight dries alone and cups. Stand the slab on sticks with air on both faces."));
        rocking();
        if (best_.at_bound)
            add("flat.steep", Severity::stop,
                say("The best tilt would be steeper than 1:2, further than any slab lies: one of its heights is misread. Look them over on "
                    "the rack; what is told here is not the best."),
                middle);
        add("flat.feed", Severity::note,
            say("Router: move it against the cutter's turning, {} at a time, the slab held fast. Dust: extraction and a respirator.",
                fine(in_.sled.depth_mm)));
    }

    void reach_cautions(const FacePlan& f) {
        const std::string which = f.face == Face::a ? "show face" : "underside";
        if (f.highest_mm > in_.sled.rail_mm + 1e-9)
            add("flat.rails", Severity::stop,
                say("On the {} the wood stands {} above the rails. Raise them to {} at least.", which,
                    fine(f.highest_mm - in_.sled.rail_mm), mm(std::ceil(f.highest_mm))));
        if (f.spacer_mm < 0) {
            add("flat.stickout", Severity::stop,
                say("For the last pass of the {} the bit would stand out {}; {} is the limit, and no board at hand lifts the slab enough. "
                    "Lower the rails by {}.",
                    which, fine(f.stickout_mm), fine(in_.sled.stickout_mm), fine(f.stickout_mm - in_.sled.stickout_mm)));
        } else if (f.spacer_mm > 0) {
            const bool clears = f.highest_mm + f.spacer_mm <= in_.sled.rail_mm;
            add("flat.stickout", Severity::watch,
                say(clears ? "For the last pass of the {} the bit would stand out {}; {} is the limit. Put a flat {} board under the slab."
                           : "For the last pass of the {} the bit would stand out {}; {} is the limit. Put a flat {} board under the slab "
                             "once the high places are down: it does not clear the rails before.",
                    which, fine(f.stickout_mm), fine(in_.sled.stickout_mm), fine(f.spacer_mm)));
        }
    }

    /// Supports must hold the slab's weight between them.
    void rocking() {
        if (p_.shims.size() < 3) {
            add("flat.supports", Severity::stop,
                say("{} supports cannot keep the slab from rocking. Lay three at least, four for a long slab.",
                    count(static_cast<double>(p_.shims.size()))));
            return;
        }
        Ring pts;
        for (const Shim& s : p_.shims) pts.push_back({s.at.x_mm, s.at.y_mm});
        const Vec2 c = centroid(in_.lay.rough);
        // Sorted around their own middle, supports form the polygon the weight has to stand over.
        Vec2 mid;
        for (const Vec2 p : pts) mid = mid + p * (1.0 / static_cast<double>(pts.size()));
        std::sort(pts.begin(), pts.end(),
                  [&](Vec2 a, Vec2 b) { return std::atan2(a.y - mid.y, a.x - mid.x) < std::atan2(b.y - mid.y, b.x - mid.x); });
        if (!contains(pts, c))
            add("flat.rocks", Severity::watch,
                say("The slab's balance point at {} lies outside the supports: it tips. Move one out past it.", along(c.x)), c);
        for (const Shim& s : p_.shims)
            if (!contains(in_.lay.rough, {s.at.x_mm, s.at.y_mm}))
                add("flat.support_off", Severity::watch,
                    say("A support at {} stands outside the piece. Move it under the wood.", along(s.at.x_mm)), Vec2{s.at.x_mm, s.at.y_mm});
    }

    Vec2 thinnest_place() const {
        Vec2 at = centroid(in_.lay.outline);
        double least = 1e300;
        for (const Vec3& q : top_)
            if (const double t = in_.shape.thickness_at({q.x, q.y}); t < least) least = t, at = {q.x, q.y};
        return at;
    }

    double most_off_show(const Tilt& t) const {
        double most = 0;
        for (const Vec3& q : top_) most = std::max(most, q.z - t.top_at({q.x, q.y}));
        return most;
    }

    /// What the chosen aim leaves, of several leaves all of them.
    double most() const { return in_.together ? in_.together->most_mm : p_.most_mm; }

    void choices() {
        const auto& c = in_.choices;
        p_.choices.push_back(choice_of(
            flat_aims, c,
            {say("{} thick at most, {} off the show face", fine(best_.thickness_mm), fine(most_off_show(best_))),
             say("{} off the show face, {} kept", fine(most_off_show(spare_)), fine(std::min(in_.top.thickness_mm, best_.thickness_mm))),
             say("{} thick at most, {} off the show face", fine(lies_.thickness_mm), fine(most_off_show(lies_)))}));
        p_.choices.push_back(
            choice_of(flat_finishes, c, {say("{}", fine(std::min(in_.top.thickness_mm, most()))), say("{}, and heavier", fine(most()))}));
        p_.choices.push_back(choice_of(flat_firsts, c, {say("shims under the underside"), say("shims under the show face")}));
        p_.choices.push_back(choice_of(flat_airs, c, {say("stays as it was cut"), say("saves room; that side stays damp and it cups")}));
    }

    const FlatInputs& in_;
    FlatPlan p_;
    std::vector<Vec3> top_, bottom_;
    Tilt best_, lies_, spare_;
};

}  // namespace

FlatPlan plan_flat(const FlatInputs& in) { return Planner(in).run(); }

std::vector<Thing> shim_things(const FlatPlan& p) {
    std::vector<Thing> out;
    for (std::size_t i = 0; i < p.shims.size(); ++i) {
        const Shim& h = p.shims[i];
        Thing t{"shim " + std::to_string(i + 1), "shim", i, say("Shim {}", count(static_cast<double>(i) + 1))};
        const Vec2 at{h.at.x_mm, h.at.y_mm};
        t.area = {at + Vec2{-30, -20}, at + Vec2{30, -20}, at + Vec2{30, 20}, at + Vec2{-30, 20}};
        t.figures = {{"shim.height",
                      "Shim, high",
                      fine(h.height_mm),
                      {},
                      say("for the first face"),
                      {"height of the tilted underside above the bench at the support", {}, "the tilt Flat chose"}},
                     {"shim.along", "From the left end", along(h.at.x_mm), {}, {}, {"where it was set", {}, ""}},
                     {"shim.across", "Off the chalk line", mm(std::abs(h.at.y_mm)), {}, {}, {"where it was set", {}, ""}}};
        out.push_back(std::move(t));
    }
    return out;
}

}  // namespace yb
