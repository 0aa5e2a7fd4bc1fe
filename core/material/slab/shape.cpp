#include <algorithm>
#include <cmath>
#include <set>
#include <tuple>

#include <Eigen/Dense>

#include "core/material/slab/guess.h"
#include "core/material/slab/slab.h"

namespace yb {
namespace {

using Reading = std::optional<double>;

/// A face less long or wide than this is none.
constexpr double least_extent_mm = 1;

/// Readings along x with gaps bridged: linear between neighbours, level at the ends.
struct Series {
    std::vector<double> x, y;
    double at(double v) const {
        if (x.empty()) return 0;
        if (v <= x.front()) return y.front();
        if (v >= x.back()) return y.back();
        const auto i = static_cast<std::size_t>(std::upper_bound(x.begin(), x.end(), v) - x.begin());
        const double t = (v - x[i - 1]) / (x[i] - x[i - 1]);
        return y[i - 1] * (1 - t) + y[i] * t;
    }
};

class Builder {
  public:
    explicit Builder(const Slab& slab) : slab_(slab) {}

    SlabShape run() {
        order_stations();
        if (stations_.size() < (slab_.outline ? 1U : 2U)) {
            caution("rack.stations", Severity::stop,
                    slab_.outline ? say("No thickness is read yet. Type a station in the tape table and caliper the slab there.")
                                  : say("The tape needs two stations at least, one at each end. Type them in the tape table."));
            return shape_;
        }
        const bool edges = build_rings();
        const bool thick = read_thickness();
        if (edges && thick) {
            build_surfaces();
            check_readings();
            check_flaws();
        }
        shape_.usable = edges && thick && !blocked_;
        return shape_;
    }

  private:
    void caution(std::string key, Severity severity, Phrase says, std::optional<Vec2> at = {}) {
        if (severity == Severity::stop) blocked_ = true;
        shape_.cautions.push_back({std::move(key), severity, step_key::rack, std::move(says), at});
    }

    void order_stations() {
        stations_ = slab_.tape.stations;
        std::stable_sort(stations_.begin(), stations_.end(), [](const Station& a, const Station& b) { return a.x_mm < b.x_mm; });
        for (std::size_t i = 1; i < stations_.size();) {
            if (stations_[i].x_mm > stations_[i - 1].x_mm) {
                ++i;
                continue;
            }
            caution("rack.twice", Severity::watch,
                    say("Two stations stand at {}. The first one counts; strike out the other.", along(stations_[i].x_mm)),
                    Vec2{stations_[i].x_mm, 0});
            stations_.erase(stations_.begin() + static_cast<std::ptrdiff_t>(i));
        }
    }

    template <class Get>
    Series series(Get get, const char* what) {
        Series s;
        std::vector<double> missing;
        for (const Station& st : stations_) {
            if (const Reading r = get(st)) {
                s.x.push_back(st.x_mm);
                s.y.push_back(*r);
            } else {
                missing.push_back(st.x_mm);
            }
        }
        if (s.x.empty()) return s;
        for (const double x : missing)
            caution("rack.missing", Severity::watch,
                    say("No {} is read at {}. It is taken as {} from its neighbours; measure it.", what, along(x), mm(s.at(x))),
                    Vec2{x, 0});
        jumps(s, what);
        return s;
    }

    /// A reading far off the line between its neighbours, where the others keep near theirs: misread, or a stub.
    void jumps(const Series& s, const char* what) {
        if (s.x.size() < 5) return;
        std::vector<double> off(s.x.size(), 0);
        for (std::size_t i = 1; i + 1 < s.x.size(); ++i) {
            const double t = (s.x[i] - s.x[i - 1]) / (s.x[i + 1] - s.x[i - 1]);
            off[i] = std::abs(s.y[i] - (s.y[i - 1] * (1 - t) + s.y[i + 1] * t));
        }
        std::vector<double> sorted(off.begin() + 1, off.end() - 1);
        // One bad reading spoils three of these: a third from the least is still what the edge does by itself.
        std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 3), sorted.end());
        const double usual = sorted[sorted.size() / 3];
        for (std::size_t i = 1; i + 1 < s.x.size(); ++i)
            if (off[i] > std::max(30.0, 5 * usual) && off[i] > off[i - 1] && off[i] >= off[i + 1])
                caution("rack.jumps", Severity::watch,
                        say("The {} at {} jumps by {} from the line of its neighbours. Measure it again; leave it if it is so.", what,
                            along(s.x[i]), mm(off[i])),
                        Vec2{s.x[i], s.y[i]});
    }

    bool build_rings() {
        if (slab_.outline) return traced_rings();
        const Series left = series([](const Station& s) { return s.left_mm; }, "left edge");
        const Series right = series([](const Station& s) { return s.right_mm; }, "right edge");
        if (left.x.empty() || right.x.empty()) {
            caution("rack.edges", Severity::stop,
                    say("No edge is read yet. Type the distance from the chalk line to the left and right edge."));
            return false;
        }
        // Face B: its own readings where there are any, otherwise the lean outside face A.
        const auto lean = [&](const Series& base, double lean_mm, auto get) {
            Series s;
            for (const Station& st : stations_) {
                s.x.push_back(st.x_mm);
                s.y.push_back(get(st).value_or(base.at(st.x_mm) + lean_mm));
            }
            return s;
        };
        const Series other_left = lean(left, slab_.tape.lean_left_mm, [](const Station& s) { return s.other_left_mm; });
        const Series other_right = lean(right, slab_.tape.lean_right_mm, [](const Station& s) { return s.other_right_mm; });

        for (const Station& st : stations_) {
            const double x = st.x_mm;
            if (left.at(x) + right.at(x) <= 0)
                caution("rack.crossing", Severity::stop,
                        say("At {} the left and right edge cross: {} and {} from the chalk line. One of them has "
                            "the wrong sign or is too small.",
                            along(x), mm(left.at(x)), mm(right.at(x))),
                        Vec2{x, left.at(x)});
            else if (other_left.at(x) + other_right.at(x) <= 0)
                caution("rack.crossing", Severity::stop,
                        say("At {} the edges of face B cross. Check its distances, or the lean.", along(x)), Vec2{x, 0});
        }

        shape_.x0 = stations_.front().x_mm;
        shape_.x1 = stations_.back().x_mm;
        const std::vector<double> xs = ring_stations();
        const MonotoneCubic la(left.x, left.y);
        const MonotoneCubic ra(right.x, right.y);
        const MonotoneCubic lb(other_left.x, other_left.y);
        const MonotoneCubic rb(other_right.x, other_right.y);
        for (const double x : xs) {
            shape_.ring_a.push_back({x, -ra(x)});
            shape_.ring_b.push_back({x, -rb(x)});
        }
        for (auto it = xs.rbegin(); it != xs.rend(); ++it) {
            shape_.ring_a.push_back({*it, la(*it)});
            shape_.ring_b.push_back({*it, lb(*it)});
        }
        return true;
    }

    /// An outline from a picture, a scan, a drawing or a grown log stands in for the tape's edges.
    bool traced_rings() {
        const TracedOutline& o = *slab_.outline;
        if (o.a.size() < 3 || o.a.size() != o.b.size()) {
            caution("rack.outline", Severity::stop,
                    say("The traced outline has {} on face A and {} on face B. Trace it again, or take it away and type the tape.",
                        counted(static_cast<double>(o.a.size()), "point", "points"), count(static_cast<double>(o.b.size()))));
            return false;
        }
        shape_.ring_a = o.a;
        shape_.ring_b = o.b;
        if (signed_area(o.a) < 0) {
            std::reverse(shape_.ring_a.begin(), shape_.ring_a.end());
            std::reverse(shape_.ring_b.begin(), shape_.ring_b.end());
        }
        const Box a = bounds(o.a);
        const Box b = bounds(o.b);
        shape_.x0 = std::min(a.low.x, b.low.x);
        shape_.x1 = std::max(a.high.x, b.high.x);
        for (const Box& face : {a, b})
            if (face.width() < least_extent_mm || face.height() < least_extent_mm) {
                caution(
                    "rack.outline", Severity::stop,
                    say("The traced outline is {} long and {} wide: its points lie in one place or on one line. Trace it again, or take "
                        "it away and type the tape.",
                        mm(face.width()), mm(face.height())));
                return false;
            }
        return true;
    }

    /// Every station, and enough places between for a fair curve: 25 mm apart, never more than 150 a side.
    std::vector<double> ring_stations() const {
        const double step = std::max(25.0, (shape_.x1 - shape_.x0) / 100);
        std::vector<double> xs;
        for (std::size_t i = 0; i + 1 < stations_.size(); ++i) {
            const double a = stations_[i].x_mm;
            const double b = stations_[i + 1].x_mm;
            const int n = std::max(1, static_cast<int>(std::ceil((b - a) / step - 1e-9)));
            for (int k = 0; k < n; ++k) xs.push_back(a + (b - a) * k / n);
        }
        xs.push_back(shape_.x1);
        return xs;
    }

    bool read_thickness() {
        for (const Station& s : stations_) {
            for (const Reading& t : {s.thickness_mm, s.thickness_right_mm})
                if (t && *t <= 0)
                    caution("rack.thickness_zero", Severity::stop,
                            say("The thickness at {} reads {}. A slab has to have some; measure again or leave "
                                "it empty.",
                                along(s.x_mm), fine(*t)),
                            Vec2{s.x_mm, 0});
            if (s.thickness_mm && *s.thickness_mm > 0) {
                thick_left_.x.push_back(s.x_mm);
                thick_left_.y.push_back(*s.thickness_mm);
            }
            const Reading right = s.thickness_right_mm ? s.thickness_right_mm : s.thickness_mm;
            if (right && *right > 0) {
                thick_right_.x.push_back(s.x_mm);
                thick_right_.y.push_back(*right);
            }
        }
        if (thick_left_.x.empty() && !thick_right_.x.empty()) thick_left_ = thick_right_;
        if (thick_left_.x.empty()) {
            caution("rack.thickness", Severity::stop, say("No thickness is read yet. Caliper it at the stations, both edges if you can."));
            return false;
        }
        return true;
    }

    /// Thickness from the caliper readings: linear along, linear from edge to edge.
    double caliper(Vec2 p) const {
        const auto cut = cut_at_x(shape_.ring_a, std::clamp(p.x, shape_.x0 + 1e-6, shape_.x1 - 1e-6));
        const double l = thick_left_.at(p.x);
        const double r = thick_right_.at(p.x);
        if (cut.empty()) return (l + r) / 2;
        const double t = std::clamp((p.y - cut.front().from) / std::max(1e-9, cut.back().to - cut.front().from), 0.0, 1.0);
        return r * (1 - t) + l * t;
    }

    /// The grid with what was not read filled in: along x between readings of the same line, then across.
    Surface fill(const HeightGrid& g, double sign, const char* what) {
        const std::size_t nx = g.x_mm.size();
        const std::size_t ny = g.y_mm.size();
        std::vector<double> z(nx * ny, 0.0);
        std::vector<Series> lines(ny);
        std::size_t missing = 0;
        for (std::size_t j = 0; j < ny; ++j)
            for (std::size_t i = 0; i < nx; ++i) {
                if (!g.at(i, j) || !inside_or_near({g.x_mm[i], g.y_mm[j]})) {
                    if (!g.at(i, j) && contains(shape_.ring_a, {g.x_mm[i], g.y_mm[j]})) ++missing;
                    continue;
                }
                lines[j].x.push_back(g.x_mm[i]);
                lines[j].y.push_back(*g.at(i, j));
            }
        for (std::size_t i = 0; i < nx; ++i) {
            Series across;
            for (std::size_t j = 0; j < ny; ++j)
                if (!lines[j].x.empty()) {
                    across.x.push_back(g.y_mm[j]);
                    across.y.push_back(lines[j].at(g.x_mm[i]));
                }
            for (std::size_t j = 0; j < ny; ++j) z[i * ny + j] = sign * across.at(g.y_mm[j]);
        }
        // Places that nobody read: bridged along and across, or better by all the readings there are.
        double unsure = 0;
        if (const auto guess = missing > 0 ? guess_of(g) : nullptr)
            for (std::size_t i = 0; i < nx; ++i)
                for (std::size_t j = 0; j < ny; ++j) {
                    const Vec2 at{g.x_mm[i], g.y_mm[j]};
                    if (g.at(i, j) || !contains(shape_.ring_a, at)) continue;
                    const Guess::At there = guess->at(at);
                    z[i * ny + j] = -sign * there.mm;
                    unsure = std::max(unsure, nine_in_ten * there.sigma_mm);
                }
        if (missing > 0)
            caution("rack.heights_missing", Severity::note,
                    unsure > 0 ? say("On {}, not read: {}. Worked out from those that are, to within {} nine times in ten.", what,
                                     counted(static_cast<double>(missing), "height", "heights"), fine(unsure))
                               : say("On {}, not read: {}. Bridged from their neighbours.", what,
                                     counted(static_cast<double>(missing), "height", "heights")));
        return Surface(g.x_mm, g.y_mm, std::move(z));
    }

    bool inside_or_near(Vec2 p) const {
        constexpr double slack = 15;  // a reading just off the edge is still a reading of the edge
        for (const double dx : {0.0, slack, -slack})
            for (const double dy : {0.0, slack, -slack})
                if (contains(shape_.ring_a, p + Vec2{dx, dy}) || contains(shape_.ring_b, p + Vec2{dx, dy})) return true;
        return false;
    }

    /// Where one face reaches further out than the other, the other's height there follows it: thickness changes
    /// slowly, height does not. Works on grids that share their places; others are left as they are.
    static HeightGrid beside(HeightGrid g, const HeightGrid& other) {
        if (g.x_mm != other.x_mm || g.y_mm != other.y_mm || other.gap_mm.size() != g.gap_mm.size()) return g;
        const HeightGrid read = g;
        for (std::size_t i = 0; i < g.x_mm.size(); ++i)
            for (std::size_t j = 0; j < g.y_mm.size(); ++j) {
                if (read.at(i, j) || !other.at(i, j)) continue;
                std::optional<std::size_t> nearest;
                for (std::size_t k = 0; k < g.y_mm.size(); ++k)
                    if (read.at(i, k) && other.at(i, k) &&
                        (!nearest || std::abs(g.y_mm[k] - g.y_mm[j]) < std::abs(g.y_mm[*nearest] - g.y_mm[j])))
                        nearest = k;
                // Both gaps are measured into the slab: what one gains the other loses.
                if (nearest) g.at(i, j) = *read.at(i, *nearest) - (*other.at(i, j) - *other.at(i, *nearest));
            }
        return g;
    }

    static bool sound(const HeightGrid& g) {
        const auto rises = [](const std::vector<double>& v) {
            return std::adjacent_find(v.begin(), v.end(), std::greater_equal<>()) == v.end();
        };
        return g.has_readings() && rises(g.x_mm) && rises(g.y_mm) && g.gap_mm.size() == g.x_mm.size() * g.y_mm.size();
    }

    void build_surfaces() {
        shape_.heights_a = sound(slab_.heights_a);
        shape_.heights_b = sound(slab_.heights_b);
        if (!shape_.heights_a && !shape_.heights_b) {
            shape_.bottom = Surface({shape_.x0, shape_.x1}, {-1, 1}, {0, 0, 0, 0});
            shape_.top = caliper_grid();
            caution("rack.no_heights", Severity::watch,
                    say("No heights are read yet: the slab is taken as flat, and the finished thickness is a "
                        "guess. Lay a straightedge over it and read the gaps."));
            return;
        }
        for (const auto& [there, g, face] :
             {std::tuple(shape_.heights_a, &slab_.heights_a, "A"), std::tuple(shape_.heights_b, &slab_.heights_b, "B")})
            if (there) tell_unread_ways(*g, face);
        const Surface a = shape_.heights_a ? fill(beside(slab_.heights_a, slab_.heights_b), -1, "face A") : Surface();
        const Surface b = shape_.heights_b ? fill(beside(slab_.heights_b, slab_.heights_a), 1, "face B") : Surface();
        if (shape_.heights_a && shape_.heights_b) {
            match_faces(a, b);
        } else if (shape_.heights_a) {
            shape_.top = a;
            shape_.bottom = a.mapped([&](double x, double y, double z) { return z - caliper({x, y}); });
            one_face("B");
        } else {
            shape_.bottom = b;
            shape_.top = b.mapped([&](double x, double y, double z) { return z + caliper({x, y}); });
            one_face("A");
        }
        double low = 1e300;
        for (const Vec3& p : deciding_points(shape_.bottom, shape_.ring_b)) low = std::min(low, p.z);
        if (low > 1e299) low = 0;
        const auto lower = [&](double, double, double z) { return z - low; };
        shape_.top = shape_.top.mapped(lower);
        shape_.bottom = shape_.bottom.mapped(lower);
    }

    /// Heights on one line or at one place say nothing of what lies beside it.
    void tell_unread_ways(const HeightGrid& g, const char* face) {
        std::set<std::size_t> columns, rows;
        for (std::size_t i = 0; i < g.x_mm.size(); ++i)
            for (std::size_t j = 0; j < g.y_mm.size(); ++j)
                if (g.at(i, j)) columns.insert(i), rows.insert(j);
        if (columns.size() > 1 && rows.size() > 1) return;
        caution(
            "rack.one_line", Severity::watch,
            columns.size() <= 1 && rows.size() <= 1
                ? say("On face {} heights are read at one place only: it is taken as level. Read a line along and some across.", face)
            : rows.size() <= 1
                ? say("On face {} heights are read on one line along: across it is taken as level. Read a second line at least.", face)
                : say("On face {} heights are read on one line across: along it is taken as level. Read a second line at least.", face));
    }

    void one_face(const char* face) {
        caution("rack.one_face", Severity::note,
                say("Face {} has no heights of its own: it is taken to lie one caliper thickness away.", face));
    }

    Surface caliper_grid() const {
        std::vector<double> xs;
        for (const Station& s : stations_)
            if (s.x_mm > shape_.x0 + 1e-6 && s.x_mm < shape_.x1 - 1e-6) xs.push_back(s.x_mm);
        xs.insert(xs.begin(), shape_.x0);
        xs.push_back(shape_.x1);
        const Box box = bounds(shape_.ring_a);
        const double middle = (box.low.y + box.high.y) / 2;
        const double half = std::max(least_extent_mm, box.height() / 2);  // where the edges cross it has no width, and that is told
        const std::vector<double> ys{middle - half, middle, middle + half};
        std::vector<double> z;
        for (const double x : xs)
            for (const double y : ys) z.push_back(caliper({x, y}));
        return {xs, ys, z};
    }

    /// Sets face B under face A: z_b = gap_b + c0 + c1 x + c2 y, least squares on the caliper readings.
    void match_faces(const Surface& a, const Surface& b) {
        struct Pair {
            Vec2 p;
            double t;
        };
        std::vector<Pair> pairs;
        for (const Station& s : stations_) {
            const auto cut = cut_at_x(shape_.ring_a, std::clamp(s.x_mm, shape_.x0 + 1e-6, shape_.x1 - 1e-6));
            if (cut.empty()) continue;
            const bool both = s.thickness_mm && s.thickness_right_mm;
            if (s.thickness_mm) pairs.push_back({{s.x_mm, both ? cut.back().to : 0}, *s.thickness_mm});
            if (s.thickness_right_mm) pairs.push_back({{s.x_mm, cut.front().from}, *s.thickness_right_mm});
        }
        if (pairs.empty()) {
            // No caliper reading lies on the wood: face B one thickness below A in the middle, as it was read.
            const Vec2 middle{(shape_.x0 + shape_.x1) / 2, 0};
            const double down = a.at(middle) - b.at(middle) - caliper(middle);
            shape_.top = a;
            shape_.bottom = b.mapped([&](double, double, double z) { return z + down; });
            return;
        }
        const auto n = static_cast<Eigen::Index>(pairs.size());
        Eigen::MatrixXd m(n, 3);
        Eigen::VectorXd rhs(n);
        const double scale = std::max(1.0, shape_.x1 - shape_.x0);
        const double mid = (shape_.x0 + shape_.x1) / 2;
        for (Eigen::Index i = 0; i < n; ++i) {
            const auto& [p, t] = pairs[static_cast<std::size_t>(i)];
            m.row(i) << 1, (p.x - mid) / scale, p.y / scale;
            rhs(i) = a.at(p) - b.at(p) - t;
        }
        const Eigen::Vector3d c = m.completeOrthogonalDecomposition().solve(rhs);
        shape_.disagreement_mm = (m * c - rhs).cwiseAbs().maxCoeff();
        shape_.top = a;
        shape_.bottom = b.mapped([&](double x, double y, double z) { return z + c(0) + c(1) * (x - mid) / scale + c(2) * y / scale; });
        if (shape_.disagreement_mm > 3)
            caution("rack.disagree", Severity::watch,
                    say("Heights of the two faces and the caliper disagree by up to {}. One of them is misread; "
                        "the thickness can be off by as much.",
                        fine(shape_.disagreement_mm)));
    }

    void check_readings() {
        for (const auto* g : {&slab_.heights_a, &slab_.heights_b}) {
            const char* face = g == &slab_.heights_a ? "A" : "B";
            for (std::size_t i = 0; i < g->x_mm.size(); ++i)
                for (std::size_t j = 0; j < g->y_mm.size(); ++j) {
                    const Vec2 p{g->x_mm[i], g->y_mm[j]};
                    if (!g->at(i, j) || inside_or_near(p)) continue;
                    caution(
                        "rack.outside", Severity::watch,
                        say("The height on face {} at {}, {} from the chalk line lies outside the slab. It is left out; check its place.",
                            face, along(p.x), mm(p.y)),
                        p);
                }
        }
        for (const Vec3& p : deciding_points(shape_.bottom, shape_.ring_b))
            if (const double t = shape_.top.at({p.x, p.y}) - p.z; t <= 0) {
                caution("rack.no_wood", Severity::stop,
                        say("At {} the readings leave no wood between the faces ({}). Check heights and "
                            "thickness there.",
                            along(p.x), fine(t)),
                        Vec2{p.x, p.y});
                break;
            }
    }

    void check_flaws() {
        for (const Flaw& f : slab_.flaws) {
            if (f.outline.size() < 3) {
                caution("rack.flaw_open", Severity::watch,
                        say("Of {} fewer than three points are drawn: that has no area. Draw it again.", a_flaw(f.kind)),
                        f.outline.empty() ? std::optional<Vec2>{} : f.outline.front());
            } else if (const auto x = self_crossing(f.outline)) {
                caution(
                    "rack.flaw_crossing", Severity::watch,
                    tangled(f.outline)
                        ? say("The outline of {} at {} crosses itself hundreds of times: it is taken as the hull round it. Draw it anew.",
                              a_flaw(f.kind), along(x->x))
                        : say("The outline of {} crosses itself at {}. Its area is taken as wound.", a_flaw(f.kind), along(x->x)),
                    *x);
            }
        }
        if (const auto x = self_crossing(shape_.ring_a))
            caution("rack.crossing", Severity::stop, say("The outline of face A crosses itself at {}.", along(x->x)), *x);
    }

    const Slab& slab_;
    SlabShape shape_;
    std::vector<Station> stations_;
    Series thick_left_, thick_right_;
    bool blocked_ = false;
};

}  // namespace

SlabShape shape_of(const Slab& slab) { return Builder(slab).run(); }

}  // namespace yb
