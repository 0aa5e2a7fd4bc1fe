#include "core/steps/under/base.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <stdexcept>

namespace yb {

namespace {

constexpr double deg = std::numbers::pi / 180;
constexpr double tenon_past_mm = 30;  ///< a wedged tenon stands out beyond its post
constexpr double seams_apart_mm = 120;

Vec3 operator+(Vec3 a, Vec3 b) { return {a.x + b.x, a.y + b.y, a.z + b.z}; }
Vec3 operator*(Vec3 a, double k) { return {a.x * k, a.y * k, a.z * k}; }
double dot(Vec3 a, Vec3 b) { return a.x * b.x + a.y * b.y + a.z * b.z; }
Vec3 unit(Vec3 a) { return a * (1 / std::sqrt(dot(a, a))); }
Vec3 cross_product(Vec3 a, Vec3 b) { return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}; }

/// A plane: every place q with dot(normal, q) = at.
struct Plane {
    Vec3 normal;
    double at = 0;
};

/// A bar along `way` through `middle`, ±half_a along `a` and ±half_b along `b`, cut off by two planes.
std::vector<Vec3> bar(Vec3 middle, Vec3 way, Vec3 a, double half_a, Vec3 b, double half_b, Plane low, Plane high) {
    std::vector<Vec3> out;
    for (const Plane& cut : {low, high})
        for (const auto& [sa, sb] : {std::pair{-1.0, -1.0}, {1.0, -1.0}, {1.0, 1.0}, {-1.0, 1.0}}) {
            const Vec3 from = middle + a * (sa * half_a) + b * (sb * half_b);
            const double t = (cut.at - dot(cut.normal, from)) / dot(cut.normal, way);
            out.push_back(from + way * t);
        }
    return out;
}

/// From point to point along a direction.
double reaches(const BasePiece& piece, Vec3 way) {
    double low = 1e300;
    double high = -1e300;
    for (const Vec3 q : piece.corners) low = std::min(low, dot(q, way)), high = std::max(high, dot(q, way));
    return high - low;
}

/// Where a pedestal stands, and how long its panels are.
struct Pedestal {
    Vec3 at;
    double along_mm = 0, across_mm = 0;
};
Pedestal pedestal_of(const UnderChoices& c) {
    Pedestal p;
    p.across_mm = c.foot_across_mm.value_or(c.plates.front().across_mm);
    p.along_mm = c.foot_along_mm.value_or(p.across_mm);
    const auto n = static_cast<double>(c.plates.size());
    for (const LegPlate& l : c.plates) p.at.x += l.u_mm / n, p.at.y += l.v_mm / n;
    return p;
}

class Builder {
  public:
    explicit Builder(const BaseInputs& in) : c_(in.choices), labour_(in.labour), high_(in.leg_mm) {}

    BasePlan run() {
        if (c_.base == BaseKind::bought || c_.plates.empty()) return p_;
        if (!(high_ > 0)) throw std::invalid_argument("there is no height left for a base");
        switch (c_.base) {
            case BaseKind::frames: frames(); break;
            case BaseKind::legs: legs(); break;
            case BaseKind::trestle: trestle(); break;
            case BaseKind::pedestal: pedestal(); break;
            case BaseKind::cross: cross(); break;
            case BaseKind::panels: panels(); break;
            case BaseKind::bought: break;
        }
        laminated();
        one_stop();
        wood_for_it();
        making();
        finished_first();
        standing();
        return p_;
    }

  private:
    std::size_t part(BasePart part) {
        p_.parts.push_back(std::move(part));
        return p_.parts.size() - 1;
    }
    void piece(std::size_t part, std::vector<Vec3> corners) { p_.pieces.push_back({part, std::move(corners)}); }

    /// Two closed frames across the top; wider at the floor where they splay. Mitred at all four corners, or bars that lie over one
    /// another: then the level bars reach from outside to outside and the uprights from the floor to the top.
    void frames() {
        const double b = c_.leg_wide_mm;
        const double s = c_.splay_deg * deg;
        const bool mitred = c_.corners == BarJoint::mitre;
        const double above = c_.plates.front().across_mm;
        const double below = above + 2 * high_ * std::tan(s);
        if (high_ <= 2 * b || above <= 2 * b) throw std::invalid_argument("the frame's bars are thicker than half of it");
        // A corner's cut halves its angle: 90° + splay above, 90° − splay at the floor. Lapped, level bars end along the uprights.
        const double upper = mitred ? 45 - c_.splay_deg / 2 : c_.splay_deg;
        const double lower = mitred ? 45 + c_.splay_deg / 2 : c_.splay_deg;
        const int n = static_cast<int>(c_.plates.size());
        const double lean_adds = mitred ? 0 : b * std::tan(s);
        const std::size_t rail = part({"frame, upper bar", n, above + 2 * lean_adds, b, c_.leg_thick_mm, upper, upper});
        const std::size_t sill = part({"frame, lower bar", n, below, b, c_.leg_thick_mm, lower, lower});
        const std::size_t post = part({"frame, upright", 2 * n, high_ / std::cos(s) + lean_adds, b, c_.leg_thick_mm, upper, lower});
        if (!mitred) frame_notes(rail, sill, post, s);
        p_.diagonal_mm = std::hypot(high_, (above + below) / 2);
        p_.notes.push_back(say("Both diagonals of each frame measure {}: alike, or it is not square. Glue it round a board cut to that.",
                               fine(p_.diagonal_mm)));
        for (const LegPlate& plate : c_.plates) {
            const Vec3 through{1, 0, 0};
            const auto at = [&](double v, double z) { return Vec3{plate.u_mm, plate.v_mm + v, z}; };
            // A mitre lies on the line that halves its corner, from the outer corner inward.
            const auto cut = [&](double v, double z, double side, double up) {
                const double half = (up > 0 ? upper : lower) * deg;
                // The line from the corner inward, half the angle from the level bar.
                const double from_level = std::numbers::pi / 2 - half;
                const Vec3 inward{0, -side * std::cos(from_level), -up * std::sin(from_level)};
                const Vec3 normal{0, -inward.z, inward.y};
                return Plane{normal, dot(normal, at(v, z))};
            };
            // Lapped, along the outer face of the upright.
            const auto along = [&](double side) {
                const Vec3 outward{0, side * std::cos(s), std::sin(s)};
                return Plane{outward, dot(outward, at(side * below / 2, 0))};
            };
            const Plane floor{{0, 0, 1}, 0};
            const Plane level{{0, 0, 1}, high_};
            const Plane ul = mitred ? cut(-above / 2, high_, -1, 1) : along(-1);
            const Plane ur = mitred ? cut(above / 2, high_, 1, 1) : along(1);
            const Plane ll = mitred ? cut(-below / 2, 0, -1, -1) : along(-1);
            const Plane lr = mitred ? cut(below / 2, 0, 1, -1) : along(1);
            const double half_t = c_.leg_thick_mm / 2;
            piece(rail, bar(at(0, high_ - b / 2), {0, 1, 0}, through, half_t, {0, 0, 1}, b / 2, ul, ur));
            piece(sill, bar(at(0, b / 2), {0, 1, 0}, through, half_t, {0, 0, 1}, b / 2, ll, lr));
            for (const double side : {-1.0, 1.0}) {
                const Vec3 way{0, -side * std::sin(s), std::cos(s)};     // upward, inward
                const Vec3 outward{0, side * std::cos(s), std::sin(s)};  // square to it, away from the middle
                const Vec3 outer = at(side * below / 2, 0);
                piece(post, bar(outer + outward * (-b / 2), way, through, half_t, outward, b / 2, mitred ? (side < 0 ? ll : lr) : floor,
                                mitred ? (side < 0 ? ul : ur) : level));
            }
        }
    }

    /// How the bars of a frame lie over one another, or go through.
    void frame_notes(std::size_t rail, std::size_t sill, std::size_t post, double splay) {
        const double b = c_.leg_wide_mm;
        const double t = c_.leg_thick_mm;
        if (c_.corners == BarJoint::half_lap) {
            for (const std::size_t i : {rail, sill})
                p_.parts[i].note = say("half-laps at both ends, {} long and {} deep", fine(b / std::cos(splay)), fine(t / 2));
            p_.parts[post].note = say("half-laps at both ends, {} long and {} deep; ends parallel", fine(b / std::cos(splay)), fine(t / 2));
        } else {
            for (const std::size_t i : {rail, sill})
                p_.parts[i].note = say("a mortise {} wide right through at both ends, {} in from the end, {} long", fine(t / 3),
                                       fine(tenon_in(b)), fine(b - 2 * tenon_in(b)));
            p_.parts[post].note = say("tenons {} thick right through both bars, wedged; shoulders {} apart", fine(t / 3),
                                      fine((high_ - 2 * b) / std::cos(splay)));
        }
    }
    /// Wood left beside a mortise at a bar's end.
    static double tenon_in(double b) { return std::round(b / 5); }

    /// Four legs, at the outer corners of the plates that lie furthest out; of one plate, at its corners.
    void legs() {
        const auto [first, last] =
            std::minmax_element(c_.plates.begin(), c_.plates.end(), [](const LegPlate& a, const LegPlate& b) { return a.u_mm < b.u_mm; });
        const Lean lean = lean_of(c_.splay_deg, c_.splay_deg);
        const double reach = high_ * std::tan(c_.splay_deg * deg);
        const double w = c_.leg_wide_mm / 2;
        const double t = c_.leg_thick_mm / 2;
        const std::size_t leg = part({"leg", 4, 0, c_.leg_wide_mm, c_.leg_thick_mm, lean.tilt_deg, lean.tilt_deg});
        if (c_.splay_deg > 0) {
            p_.parts[leg].note =
                say("both ends parallel, level with the floor: {} off square as seen from either side", degrees(c_.splay_deg));
            p_.notes.push_back(say("Each leg leans {} along and {} across, {} in all; mark left and right, two of each.",
                                   degrees(c_.splay_deg), degrees(c_.splay_deg), degrees(lean.tilt_deg)));
        }
        for (const double along : {-1.0, 1.0})
            for (const double side : {-1.0, 1.0}) {
                const LegPlate& plate = along < 0 ? *first : *last;
                const double u = plate.u_mm + (first == last ? along * (plate.along_mm / 2 - t) : 0);
                const Vec3 above{u, plate.v_mm + side * (plate.across_mm / 2 - w), high_};
                const Vec3 axis = unit(Vec3{-along * reach, -side * reach, high_});
                // Its faces look along and across as nearly as the lean lets them.
                const Vec3 a = unit(Vec3{1, 0, 0} + axis * -axis.x);
                const Vec3 b = cross_product(axis, a);
                piece(leg, bar(above, axis, a, t, b, w, {{0, 0, 1}, 0}, {{0, 0, 1}, high_}));
                p_.parts[leg].length_mm = std::max(p_.parts[leg].length_mm, reaches(p_.pieces.back(), axis));
            }
    }

    /// Posts on feet under bearers, half-lapped, and a stretcher through them with wedged tenons.
    void trestle() {
        const double b = c_.leg_wide_mm;
        const double t = c_.leg_thick_mm;
        if (high_ <= 2 * b) throw std::invalid_argument("the trestle's bars are thicker than half of it");
        const auto& plates = c_.plates;
        const int n = static_cast<int>(plates.size());
        const double across = plates.front().across_mm;
        const double foot = c_.foot_across_mm.value_or(across);
        const std::size_t bearer = part({"trestle, bearer", n, across, b, t});
        const std::size_t floor = part({"trestle, foot", n, foot, b, t});
        const std::size_t post = part({"trestle, post", n, high_, std::max(b, 2 * t), t});
        const bool tenoned = c_.corners == BarJoint::tenon;
        for (const std::size_t i : {bearer, floor})
            p_.parts[i].note = tenoned ? say("a mortise {} wide and {} long in the middle, right through", fine(t / 3),
                                             fine(p_.parts[post].width_mm - 2 * tenon_in(b)))
                                       : say("half-lap in the middle, {} wide and {} deep", mm(p_.parts[post].width_mm), fine(t / 2));
        p_.parts[post].note = tenoned ? say("tenons {} thick right through, wedged; shoulders {} apart", fine(t / 3), fine(high_ - 2 * b))
                                      : say("half-laps at both ends, {} long and {} deep", mm(b), fine(t / 2));
        double low = 1e300;
        double high = -1e300;
        for (const LegPlate& plate : plates) {
            low = std::min(low, plate.u_mm), high = std::max(high, plate.u_mm);
            const Vec3 at{plate.u_mm, plate.v_mm, 0};
            const auto level = [&](double z, double length) {
                return bar(at + Vec3{0, 0, z}, {0, 1, 0}, {1, 0, 0}, t / 2, {0, 0, 1}, b / 2, {{0, 1, 0}, at.y - length / 2},
                           {{0, 1, 0}, at.y + length / 2});
            };
            piece(bearer, level(high_ - b / 2, across));
            piece(floor, level(b / 2, foot));
            piece(post, bar(at, {0, 0, 1}, {1, 0, 0}, t / 2, {0, 1, 0}, p_.parts[post].width_mm / 2, {{0, 0, 1}, 0}, {{0, 0, 1}, high_}));
        }
        if (high - low > 2 * t) {
            const double length = high - low + t + 2 * tenon_past_mm;
            const double tenon = t / 3;
            const std::size_t rail = part({"trestle, stretcher", 1, length, b, t / 2});
            p_.parts[rail].note = say("a tenon {} thick through each post and {} past it, wedged; shoulders {} apart", fine(tenon),
                                      fine(tenon_past_mm), mm(high - low - t));
            const double z = high_ / 2;
            piece(rail, bar({0, plates.front().v_mm, z}, {1, 0, 0}, {0, 1, 0}, t / 4, {0, 0, 1}, b / 2,
                            {{1, 0, 0}, low - t / 2 - tenon_past_mm}, {{1, 0, 0}, high + t / 2 + tenon_past_mm}));
        }
    }

    /// Two panels crossed over each other, each notched for half its height; the notch keeps them square.
    void pedestal() {
        const double t = c_.leg_thick_mm;
        const auto [at, along, across] = pedestal_of(c_);
        if (across <= 2 * t || along <= 2 * t) throw std::invalid_argument("the pedestal's panels are thicker than half their width");
        const std::size_t one = part({"pedestal, panel across", 1, high_ + c_.notch_mm, across, t});
        const std::size_t two = part({"pedestal, panel along", 1, high_ + c_.notch_mm, along, t});
        p_.parts[one].note = say("a notch {} wide in the middle, from above down to {}", fine(t), mm(high_ / 2));
        p_.parts[two].note = say("a notch {} wide in the middle, from below up to {}", fine(t), mm(high_ / 2));
        if (c_.notch_mm > 0)
            p_.notes.push_back(
                say("Both panels go {} into the underside, in a cross {} wide cut to a stop: it registers them, and their "
                    "shoulders carry nothing.",
                    fine(c_.notch_mm), fine(t)));
        const Plane floor{{0, 0, 1}, 0};
        const Plane above{{0, 0, 1}, high_ + c_.notch_mm};
        piece(one, bar(at, {0, 0, 1}, {1, 0, 0}, t / 2, {0, 1, 0}, across / 2, floor, above));
        piece(two, bar(at, {0, 0, 1}, {1, 0, 0}, along / 2, {0, 1, 0}, t / 2, floor, above));
    }

    /// An X under each plate, halved where the bars cross.
    void cross() {
        const double b = c_.leg_wide_mm;
        const double t = c_.leg_thick_mm;
        const int n = static_cast<int>(c_.plates.size());
        const double wide = c_.plates.front().across_mm;
        const double lean = cross_lean_deg(wide, high_, b) * deg;
        // Level ends: the long edge is the axis and what the slanting cut adds.
        const double length = high_ / std::cos(lean) + b * std::tan(lean);
        const std::size_t bars = part({"crossed leg", 2 * n, length, b, t, lean / deg, lean / deg});
        p_.parts[bars].note = say("both ends parallel; half-lap in the middle, {} deep, {} long along the bar, at {} to it", fine(t / 2),
                                  fine(b / std::sin(2 * lean)), degrees(2 * lean / deg));
        p_.diagonal_mm = std::hypot(high_, wide);
        for (const LegPlate& plate : c_.plates)
            for (const double side : {-1.0, 1.0}) {
                const Vec3 way{0, side * std::sin(lean), std::cos(lean)};
                const Vec3 over{0, std::cos(lean), -side * std::sin(lean)};
                piece(bars,
                      bar({plate.u_mm, plate.v_mm, high_ / 2}, way, {1, 0, 0}, t / 2, over, b / 2, {{0, 0, 1}, 0}, {{0, 0, 1}, high_}));
            }
    }

    /// Panels that stand on edge round an outline, mitred where they meet: what any shape of one's own comes down to.
    void panels() {
        Ring ring;
        for (const BaseCorner& q : base_outline(c_)) ring.push_back({q.u_mm, q.v_mm});
        if (ring.size() < 3) throw std::invalid_argument("an outline has three corners at least");
        if (signed_area(ring) < 0) std::reverse(ring.begin(), ring.end());
        const std::size_t n = ring.size();
        const auto corner = [&](std::size_t i) { return ring[i % n]; };
        for (std::size_t i = 0; i < n; ++i) {
            if (length(corner(i + 1) - corner(i)) < 1) throw std::invalid_argument("two corners of the outline lie in one place");
            for (std::size_t k = i + 2; k < n; ++k)
                if (!(i == 0 && k == n - 1) && cross_over(corner(i), corner(i + 1), corner(k), corner(k + 1)))
                    throw std::invalid_argument("the outline crosses itself");
        }
        // A mitre halves its corner; inside, the panels meet so far in.
        const double t = c_.leg_thick_mm;
        std::vector<double> off;
        Ring inner;
        for (std::size_t i = 0; i < n; ++i) {
            const Vec2 in = corner(i) - corner(i + n - 1);
            const Vec2 out = corner(i + 1) - corner(i);
            const double turn = std::atan2(in.x * out.y - in.y * out.x, in.x * out.x + in.y * out.y);
            if (std::abs(turn) > 170 * deg) throw std::invalid_argument("a corner of the outline is too sharp to be mitred");
            off.push_back(turn / 2 / deg);
            const Vec2 left = Vec2{-in.y, in.x} * (1 / length(in));
            const Vec2 along = in * (1 / length(in));
            inner.push_back(corner(i) + left * t - along * (t * std::tan(turn / 2)));
        }
        for (std::size_t i = 0; i < n; ++i) {
            const Vec2 out = corner(i + 1) - corner(i);
            const Vec2 in = inner[(i + 1) % n] - inner[i];
            if (out.x * in.x + out.y * in.y <= 0) throw std::invalid_argument("the panels are thicker than half of it");
            const std::size_t one = part({"base, panel " + std::to_string(i + 1), 1, length(out), high_, t, off[i], off[(i + 1) % n]});
            p_.parts[one].note = say("mitred at both upright edges, length measured outside");
            std::vector<Vec3> corners;
            for (const Vec2 q : {corner(i), inner[i], corner(i + 1), inner[(i + 1) % n]})
                for (const double z : {0.0, high_}) corners.push_back({q.x, q.y, z});
            piece(one, std::move(corners));
        }
        p_.outline = ring;
        p_.notes.push_back(
            say("Draw the outline on a board, 1:1, and glue the panels up standing on it; the last joint is planed to fit."));
    }

    /// Whether two stretches cross.
    static bool cross_over(Vec2 a, Vec2 b, Vec2 c, Vec2 d) {
        const auto side = [](Vec2 p, Vec2 q, Vec2 r) { return (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x); };
        return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
    }

    void laminated() {
        for (BasePart& part : p_.parts) {
            p_.volume_l += part.count * part.length_mm * part.width_mm * part.thick_mm * 1e-6;
            part.layers = std::max(1, static_cast<int>(std::ceil(part.thick_mm / std::max(1.0, c_.stock_mm) - 1e-9)));
            // Pairs, then fours: each stage halves what is left to be joined, and fits one open time.
            int stages = 0;
            for (int joined = 1; joined < part.layers; joined *= 2) ++stages;
            p_.glue_stages = std::max(p_.glue_stages, stages);
        }
        if (p_.glue_stages > 0)
            p_.notes.push_back(
                p_.glue_stages == 1
                    ? say("Laminated parts: glued in pairs, one open time each; where a layer is pieced, seams {} apart from one layer to "
                          "the next.",
                          mm(seams_apart_mm))
                    : say("Laminated parts: pairs first, then the pairs together, {} stages with a clamp time between; where a layer is "
                          "pieced, seams {} apart from one layer to the next.",
                          count(p_.glue_stages), mm(seams_apart_mm)));
    }

    /// Cuts at the same slant are made at one stop, before it is moved.
    void one_stop() {
        std::map<long, int> cuts;  // by tenths of a degree
        for (const BasePart& part : p_.parts)
            for (const double off : {part.first_deg, part.second_deg})
                if (const long tenths = std::lround(std::abs(off) * 10); tenths > 0) cuts[tenths] += part.count;
        for (const auto& [tenths, n] : cuts)
            if (n > 1)
                p_.notes.push_back(say("{} ends at {}: set the stop once and cut them all before it is moved.", count(n),
                                       degrees(static_cast<double>(tenths) / 10)));
    }

    void wood_for_it() {
        p_.notes.push_back(
            say("No pith in a leg, a post or a bar: it splits. No screws into end grain: they go into long grain or an insert."));
    }

    /// What is finished before it is glued: bare wood stays where glue goes.
    void finished_first() {
        if (!c_.parts_first || p_.pieces.empty()) return;
        p_.glue_faces = 2 * static_cast<int>(p_.pieces.size());
        p_.masking.set_up(labour_.mask_set_min).add("glue face", p_.glue_faces, labour_.mask_min);
        p_.notes.push_back(
            say("Finished before it is glued: tape over {} glue faces, both ends of every piece, tenons and laps too; the tape "
                "comes off before the glue goes on.",
                count(p_.glue_faces)));
    }

    void making() {
        constexpr double night_h = 12;
        double pieces = 0;
        double slanted = 0;
        for (const BasePart& part : p_.parts) {
            pieces += part.count * part.layers;
            slanted += part.count * ((part.first_deg != 0) + (part.second_deg != 0));
        }
        if (pieces == 0) return;
        p_.making.add("piece", pieces, labour_.piece_min)
            .add("slanted end", slanted, labour_.slant_min)
            .add("joint", static_cast<double>(p_.pieces.size()), labour_.base_joint_min)
            .add("stage glued", p_.glue_stages, labour_.stage_min);
        p_.wait_h = (p_.glue_stages + 1) * night_h;
    }

    /// Where it meets the floor, from its own corners.
    void standing() {
        std::vector<Vec2> down;
        for (const BasePiece& piece : p_.pieces)
            for (const Vec3 q : piece.corners)
                if (std::abs(q.z) < 1e-6) down.push_back({q.x, q.y});
        if (down.size() < 3) return;
        const Box box = bounds(Ring(down.begin(), down.end()));
        p_.feet = convex_hull(std::move(down));
        p_.floor_diagonal_mm = std::hypot(box.width(), box.height());
    }

    const UnderChoices& c_;
    const Labour& labour_;
    double high_;
    BasePlan p_;
};

}  // namespace

Lean lean_of(double along_deg, double across_deg) {
    const double flat = std::hypot(std::tan(along_deg * deg), std::tan(across_deg * deg));
    return {std::atan(flat) / deg, std::sqrt(1 + flat * flat)};
}

double cross_lean_deg(double wide, double high, double bar) {
    if (!(wide > 0) || !(high > 0) || !(bar > 0)) throw std::invalid_argument("an X has a width, a height and a bar");
    const double r = std::hypot(wide, high);
    if (bar >= wide) throw std::invalid_argument("the bars of the X are as wide as it is");
    // wide·cos θ − high·sin θ = bar.
    return (std::acos(bar / r) - std::atan2(high, wide)) / deg;
}

std::vector<Ring> notches_of(const UnderChoices& c) {
    if (c.base != BaseKind::pedestal || c.plates.empty() || !(c.notch_mm > 0)) return {};
    const auto [at, along, across] = pedestal_of(c);
    return {box_ring({at.x, at.y}, c.leg_thick_mm, across), box_ring({at.x, at.y}, along, c.leg_thick_mm)};
}

std::vector<BaseCorner> base_outline(const UnderChoices& c) {
    if (!c.outline.empty() || c.plates.empty()) return c.outline;
    Box box{{1e300, 1e300}, {-1e300, -1e300}};
    for (const LegPlate& p : c.plates) {
        box.low = {std::min(box.low.x, p.u_mm - p.along_mm / 2), std::min(box.low.y, p.v_mm - p.across_mm / 2)};
        box.high = {std::max(box.high.x, p.u_mm + p.along_mm / 2), std::max(box.high.y, p.v_mm + p.across_mm / 2)};
    }
    return {{box.low.x, box.low.y}, {box.high.x, box.low.y}, {box.high.x, box.high.y}, {box.low.x, box.high.y}};
}

BasePlan plan_base(const BaseInputs& in) { return Builder(in).run(); }

}  // namespace yb
