#include "core/shop/picture/scene.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>
#include <stdexcept>

#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"

namespace yb {

namespace {

Vec3 minus(Vec3 a, Vec3 b) { return {a.x - b.x, a.y - b.y, a.z - b.z}; }
double dot(Vec3 a, Vec3 b) { return a.x * b.x + a.y * b.y + a.z * b.z; }
Vec3 cross(Vec3 a, Vec3 b) { return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}; }
Vec3 unit(Vec3 a) {
    const double l = std::sqrt(dot(a, a));
    return l > 0 ? Vec3{a.x / l, a.y / l, a.z / l} : Vec3{0, 0, 1};
}

constexpr double nearest_mm = 1;
/// Light comes from the left, above and before.
const Vec3 light = unit({-0.55, -0.45, 0.7});

double lit(Vec3 normal) { return 0.42 + 0.58 * std::clamp(dot(unit(normal), light), 0.0, 1.0); }

Vec3 middle_of(const std::vector<Vec3>& at) {
    Vec3 m;
    for (const Vec3& p : at) m.x += p.x, m.y += p.y, m.z += p.z;
    const double n = std::max<double>(1, static_cast<double>(at.size()));
    return {m.x / n, m.y / n, m.z / n};
}

/// Six faces of a box by its eight corners, those of one end first.
std::vector<std::vector<Vec3>> faces_of(const std::vector<Vec3>& c) {
    if (c.size() != 8) return {};
    std::vector<std::vector<Vec3>> out{{c[0], c[1], c[2], c[3]}, {c[4], c[5], c[6], c[7]}};
    for (std::size_t i = 0; i < 4; ++i) out.push_back({c[i], c[(i + 1) % 4], c[4 + (i + 1) % 4], c[4 + i]});
    const Vec3 mid = middle_of(c);
    for (auto& f : out)  // corners the way round from outside
        if (dot(cross(minus(f[1], f[0]), minus(f[2], f[0])), minus(middle_of(f), mid)) < 0) std::reverse(f.begin(), f.end());
    return out;
}

std::vector<Vec3> box(Vec3 a, Vec3 b) {
    return {{a.x, a.y, a.z}, {b.x, a.y, a.z}, {b.x, b.y, a.z}, {a.x, b.y, a.z},
            {a.x, a.y, b.z}, {b.x, a.y, b.z}, {b.x, b.y, b.z}, {a.x, b.y, b.z}};
}

Vec2 nearest_on(const Ring& ring, Vec2 p) {
    Vec2 best = ring.empty() ? p : ring.front();
    double least = std::numeric_limits<double>::max();
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 a = ring[i], b = ring[(i + 1) % ring.size()];
        const double l2 = (b.x - a.x) * (b.x - a.x) + (b.y - a.y) * (b.y - a.y);
        const double t = l2 > 0 ? std::clamp(((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / l2, 0.0, 1.0) : 0;
        const Vec2 q{a.x + t * (b.x - a.x), a.y + t * (b.y - a.y)};
        const double d = (q.x - p.x) * (q.x - p.x) + (q.y - p.y) * (q.y - p.y);
        if (d < least) least = d, best = q;
    }
    return best;
}

/// A chair beside the table, its seat 450 mm high: so that a client sees how large it is.
struct Chair {
    double x = 0, y = 0;  ///< its middle on the floor
    std::vector<std::vector<Vec3>> boxes() const {
        const auto leg = [&](double dx, double dy, double h) { return box({x + dx - 18, y + dy - 18, 0}, {x + dx + 18, y + dy + 18, h}); };
        return {leg(-190, -190, 440),
                leg(190, -190, 440),
                leg(-190, 190, 860),
                leg(190, 190, 860),
                box({x - 215, y - 215, 430}, {x + 215, y + 215, 455}),
                box({x - 200, y + 178, 620}, {x + 200, y + 198, 840})};
    }
};

double height_of(const Plan& plan, const Job& job) { return std::max(job.top.height_mm, plan.top->thickness_mm + 50); }

Chair chair_of(const Plan& plan) {
    const Box b = bounds(plan.top->above);
    return {b.low.x + 0.78 * b.width(), b.high.y + 300};
}

/// Corners of a base piece seen from outside lie in the top's frame already.
void add_box(const std::vector<Vec3>& corners, SceneFace::What what, const Camera& camera, std::vector<SceneFace>& out) {
    for (auto& f : faces_of(corners)) {
        const Vec3 normal = cross(minus(f[1], f[0]), minus(f[2], f[0]));
        if (dot(normal, minus(camera.eye(), f[0])) <= 0) continue;
        out.push_back({what, f, lit(normal), 0});
    }
}

void farthest_first(std::vector<SceneFace>& faces, const Camera& camera) {
    std::stable_sort(faces.begin(), faces.end(),
                     [&](const SceneFace& a, const SceneFace& b) { return camera.depth(middle_of(a.at)) > camera.depth(middle_of(b.at)); });
}

}  // namespace

Camera::Camera(const Eye& e, const Vec3& low, const Vec3& high) {
    const double turn = e.turn_deg * std::numbers::pi / 180, lift = std::clamp(e.lift_deg, 2.0, 88.0) * std::numbers::pi / 180;
    const Vec3 mid{(low.x + high.x) / 2, (low.y + high.y) / 2, (low.z + high.z) / 2};
    const Vec3 towards{std::sin(turn) * std::cos(lift), -std::cos(turn) * std::cos(lift), std::sin(lift)};
    forward_ = {-towards.x, -towards.y, -towards.z};
    right_ = unit(cross(forward_, {0, 0, 1}));
    up_ = cross(right_, forward_);
    const Vec3 half = minus(high, mid);
    const double reach = std::sqrt(dot(half, half));
    const double off = 3.2 * std::max(reach, 100.0);  // plain: no wide angle that bends a table
    eye_ = {mid.x + towards.x * off, mid.y + towards.y * off, mid.z + towards.z * off};
    focal_ = 1, cx_ = cy_ = 0;
    // As large as the picture lets it be.
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    for (const Vec3& c : box(low, high)) {
        const Vec2 p = px(c);
        x0 = std::min(x0, p.x), x1 = std::max(x1, p.x), y0 = std::min(y0, p.y), y1 = std::max(y1, p.y);
    }
    constexpr double margin = 0.06;
    focal_ = std::min(e.width_px * (1 - 2 * margin) / std::max(1e-9, x1 - x0), e.height_px * (1 - 2 * margin) / std::max(1e-9, y1 - y0));
    cx_ = e.width_px / 2 - focal_ * (x0 + x1) / 2, cy_ = e.height_px / 2 - focal_ * (y0 + y1) / 2;
}

double Camera::depth(Vec3 at) const { return dot(minus(at, eye_), forward_); }

Vec2 Camera::px(Vec3 at) const {
    const Vec3 d = minus(at, eye_);
    const double z = std::max(nearest_mm, dot(d, forward_));
    return {cx_ + focal_ * dot(d, right_) / z, cy_ - focal_ * dot(d, up_) / z};
}

std::array<double, 9> Camera::level(double z) const {
    // px(x, y, z) with x and y free: numerator and denominator are linear in them.
    const Vec3 o = minus({0, 0, z}, eye_);
    const double w0 = dot(o, forward_);
    return {cx_ * forward_.x + focal_ * right_.x,
            cx_ * forward_.y + focal_ * right_.y,
            cx_ * w0 + focal_ * dot(o, right_),
            cy_ * forward_.x - focal_ * up_.x,
            cy_ * forward_.y - focal_ * up_.y,
            cy_ * w0 - focal_ * dot(o, up_),
            forward_.x,
            forward_.y,
            w0};
}

SceneBox box_of(const Plan& plan, const Job& job, bool chair) {
    if (!plan.top || !plan.top->ready) throw std::invalid_argument("a top that is not there yet has no picture");
    const Box b = bounds(plan.top->above);
    SceneBox out{{b.low.x, b.low.y, 0}, {b.high.x, b.high.y, height_of(plan, job)}};
    for (const BasePiece& p : plan.under->base.pieces)
        for (const Vec3& c : p.corners)
            out.low.x = std::min(out.low.x, c.x), out.low.y = std::min(out.low.y, c.y), out.high.x = std::max(out.high.x, c.x),
            out.high.y = std::max(out.high.y, c.y);
    if (chair) {
        const Chair c = chair_of(plan);
        out.high.y = std::max(out.high.y, c.y + 220), out.high.z = std::max(out.high.z, 860.0);
    }
    return out;
}

Scene scene_of(const Plan& plan, const Job& job, const Camera& camera, bool chair) {
    if (!plan.top || !plan.top->ready) throw std::invalid_argument("a top that is not there yet has no picture");
    const Top& top = *plan.top;
    Scene s;
    s.top_z = height_of(plan, job), s.under_z = s.top_z - top.thickness_mm;
    for (const BasePiece& p : plan.under->base.pieces) add_box(p.corners, SceneFace::What::base, camera, s.behind);
    // A bought base is not known: four slender legs stand for it at its plates.
    if (plan.under->base.pieces.empty())
        for (const Vec2 f : plan.under->feet)
            add_box(box({f.x - 22, f.y - 22, 0}, {f.x + 22, f.y + 22, s.under_z}), SceneFace::What::base, camera, s.behind);
    const Vec3 mid{0, 0, s.top_z / 2};
    if (chair) {
        const Chair c = chair_of(plan);
        auto& where = camera.depth({c.x, c.y, 400}) > camera.depth(mid) ? s.behind : s.before;
        for (const auto& b : c.boxes()) add_box(b, SceneFace::What::chair, camera, where);
    }
    farthest_first(s.behind, camera), farthest_first(s.before, camera);
    for (std::size_t i = 0; i < top.regions.size(); ++i) {
        const Region& r = top.regions[i];
        if (r.kind == RegionKind::air || r.let_in || r.above.size() < 3) continue;
        const bool turned = signed_area(r.above) < 0;
        for (std::size_t k = 0; k < r.above.size(); ++k) {
            Vec2 a = r.above[k], b = r.above[(k + 1) % r.above.size()];
            if (turned) std::swap(a, b);
            const Vec2 la = r.below.size() > 2 ? nearest_on(r.below, a) : a, lb = r.below.size() > 2 ? nearest_on(r.below, b) : b;
            const std::vector<Vec3> at{{a.x, a.y, s.top_z}, {la.x, la.y, s.under_z}, {lb.x, lb.y, s.under_z}, {b.x, b.y, s.top_z}};
            const Vec3 normal = cross(minus(at[1], at[0]), minus(at[3], at[0]));
            if (dot(normal, minus(camera.eye(), at[0])) <= 0) continue;
            s.rims.push_back({r.kind == RegionKind::resin ? SceneFace::What::rim_resin : SceneFace::What::rim_wood, at, lit(normal), i});
        }
    }
    farthest_first(s.rims, camera);
    // What keeps the light from the floor: top and chair, along the light.
    const auto on_floor = [&](Vec3 p) { return camera.px({p.x - light.x / light.z * p.z, p.y - light.y / light.z * p.z, 0}); };
    std::vector<Vec2> shade;
    for (const Vec2 q : top.above) shade.push_back(on_floor({q.x, q.y, s.under_z}));
    s.shadows.push_back(std::move(shade));
    return s;
}

}  // namespace yb
