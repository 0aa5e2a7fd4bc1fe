// Rings, lines and surfaces in the slab's frame: x along the slab from its left end, y across to the left
// of somebody looking along x, z up from the bench. All lengths in mm. Polygon overlays go through GEOS.
#pragma once

#include <cmath>
#include <numbers>
#include <optional>
#include <span>
#include <vector>

namespace yb {

struct Vec2 {
    double x = 0, y = 0;
    bool operator==(const Vec2&) const = default;
};
inline Vec2 operator+(Vec2 a, Vec2 b) { return {a.x + b.x, a.y + b.y}; }
inline Vec2 operator-(Vec2 a, Vec2 b) { return {a.x - b.x, a.y - b.y}; }
inline Vec2 operator*(Vec2 a, double k) { return {a.x * k, a.y * k}; }
inline Vec2 lerp(Vec2 a, Vec2 b, double t) { return a + (b - a) * t; }
inline double dot(Vec2 a, Vec2 b) { return a.x * b.x + a.y * b.y; }
inline double cross(Vec2 a, Vec2 b) { return a.x * b.y - a.y * b.x; }
inline double length(Vec2 a) { return std::hypot(a.x, a.y); }
/// The turn from one direction to another, degrees, to the left.
inline double degrees_between(Vec2 a, Vec2 b) { return std::atan2(cross(a, b), dot(a, b)) * 180 / std::numbers::pi; }

/// A closed outline; the last point joins the first and is not repeated.
using Ring = std::vector<Vec2>;

/// Signed area in mm², positive counter-clockwise.
double signed_area(std::span<const Vec2> ring);
double area(std::span<const Vec2> ring);
/// Centre of area; the mean of the points where the ring has no area.
Vec2 centroid(std::span<const Vec2> ring);
/// True for points inside; points on the edge may go either way.
bool contains(std::span<const Vec2> ring, Vec2 p);

struct Box {
    Vec2 low, high;
    double width() const { return high.x - low.x; }
    double height() const { return high.y - low.y; }
};
/// Convex hull, counter-clockwise from its leftmost point; fewer than three points where the hull has no area.
Ring convex_hull(std::vector<Vec2> points);

/// From the first point of a line to its last, along it; 0 for less than two points.
double line_length(std::span<const Vec2> line);
/// Once round a ring.
double girth(std::span<const Vec2> ring);
/// A rectangle about its middle, counter-clockwise from its lowest corner.
Ring box_ring(Vec2 middle, double along, double across);
/// A circle as so many corners.
Ring circle_ring(Vec2 middle, double diameter, int corners = 48);

/// Bounding box; zero-sized at the origin for an empty ring.
Box bounds(std::span<const Vec2> ring);

/// A stretch of a line inside a ring.
struct Span1 {
    double from = 0, to = 0;
};
/// Where the line x = const runs inside the ring, as stretches of y in rising order.
std::vector<Span1> cut_at_x(std::span<const Vec2> ring, double x);

/// A place and a turn on the slab: the frame (u, v) of the top, u along it, v across.
struct Frame {
    Vec2 origin;
    double angle_deg = 0;
    Vec2 to_slab(Vec2 uv) const;
    Vec2 from_slab(Vec2 xy) const;
    Ring to_slab(const Ring& uv) const;
    Ring from_slab(const Ring& xy) const;
};

/// Overlap of two rings, as zero or more rings. Holes cannot arise from two simple rings.
/// @throws std::runtime_error when GEOS cannot make sense of a ring.
std::vector<Ring> intersection(const Ring& a, const Ring& b);
double intersection_area(const Ring& a, const Ring& b);

/// The outline of a line drawn with a round pen, so many mm to either side. Empty for no points.
Ring pen_outline(std::span<const Vec2> line, double half_width_mm);

/// The ring grown outward by so many mm, its corners rounded.
Ring widened(const Ring& ring, double by_mm);

/// The ring with as few of its points as keep every one of them within `tolerance` of it (Douglas and Peucker 1973).
Ring simplified(const Ring& ring, double tolerance);

/// Where a ring crosses or touches itself, or nothing for a simple ring.
std::optional<Vec2> self_crossing(const Ring& ring);
/// A ring that crosses itself so often is no outline any more: overlays take its hull.
inline constexpr int most_crossings = 200;
bool tangled(const Ring& ring);

/// The part of a ring to the left of the line from a to b; the largest where it falls apart. Empty for nothing.
Ring left_of(const Ring& ring, Vec2 a, Vec2 b);

/// What is left of a ring when others are taken out, as simple rings without holes that overlap nowhere: where a hole lies
/// inside, the rest is cut across at its middle. Slivers below 1 mm² are left out.
std::vector<Ring> without(const Ring& ring, const std::vector<Ring>& holes);

/// The low and the high side of a ring, each from left to right, points that turn back left out; an upright step is two points
/// a hair apart.
struct Sides {
    std::vector<Vec2> low, high;
};
Sides sides_of(const Ring& ring);
/// Height of such a side at x, level beyond its ends. @throws std::out_of_range for an empty one.
double height_at(const std::vector<Vec2>& side, double x);
/// How far apart two such sides lie over the stretch that both have, exactly: the distance is linear between their points.
struct Apart {
    double narrowest_mm = 0, narrowest_x = 0;  ///< below 0: they cross by that
    double widest_mm = 0, widest_x = 0;
    double mean_mm = 0;
    double length_mm = 0;  ///< of the stretch; 0: there is none
    bool operator==(const Apart&) const = default;
};
Apart apart(const std::vector<Vec2>& low, const std::vector<Vec2>& high);
/// So many points an outline is planned with; a traced one has some hundreds.
inline constexpr std::size_t most_ring_points = 2000;
/// The same outline with every few points only, no more than that.
Ring thinned(const Ring& ring);

/// The part of a side between two places, cut at them. Empty where it does not reach in.
std::vector<Vec2> stretch(const std::vector<Vec2>& side, double from, double to);
/// The area between two such sides where `high` lies above `low`, over the stretch that both have.
double area_between(const std::vector<Vec2>& low, const std::vector<Vec2>& high);

/// The ring seen from the other face: across is mirrored.
Ring seen_from_below(Ring ring);
/// Its points to a tenth of a millimetre, as drawings are kept.
Ring to_tenths(Ring ring);

/// The largest (by area) of several rings; empty for none.
Ring largest(const std::vector<Ring>& rings);

/// Monotone piecewise cubic through (x, y) (Fritsch and Carlson 1980): smooth between readings and never
/// higher or lower than its neighbours. x must rise strictly; one point gives a constant.
class MonotoneCubic {
  public:
    MonotoneCubic(std::vector<double> x, std::vector<double> y);
    double operator()(double x) const;

  private:
    std::vector<double> x_, y_, slope_;
};

/// Heights over a rectangular grid, bilinear between its nodes and level beyond them.
class Surface {
  public:
    Surface() = default;
    /// @param z row by row of x: z[i * y.size() + j] at (x[i], y[j]); x and y rise strictly.
    /// @throws std::invalid_argument when the sizes do not match or the axes do not rise.
    Surface(std::vector<double> x, std::vector<double> y, std::vector<double> z);

    double at(Vec2 p) const;
    const std::vector<double>& x() const { return x_; }
    const std::vector<double>& y() const { return y_; }
    const std::vector<double>& z() const { return z_; }
    bool empty() const { return z_.empty(); }
    /// The same surface with every height changed: z' = f(x, y, z).
    template <class F>
    Surface mapped(F f) const {
        Surface s = *this;
        for (std::size_t i = 0; i < x_.size(); ++i)
            for (std::size_t j = 0; j < y_.size(); ++j) s.z_[i * y_.size() + j] = f(x_[i], y_[j], z_[i * y_.size() + j]);
        return s;
    }

  private:
    std::vector<double> x_, y_, z_;
};

struct Vec3 {
    double x = 0, y = 0, z = 0;
};

/// The points that decide a tilt of this surface inside a ring: its nodes there, the ring's own points,
/// and where the ring crosses the grid's lines. Between them a bilinear surface has no extreme but along
/// the ring's edges, where it strays from the chord by less than the grid's twist over one edge.
std::vector<Vec3> deciding_points(const Surface& surface, const Ring& ring);

}  // namespace yb
