// The thin face over GEOS's C API: one context per thread, geometries owned by unique_ptr.
#include <algorithm>
#include <memory>

#include <geos_c.h>

#include "core/ground/file/format_error.h"
#include "core/ground/geometry/geometry.h"

namespace yb {
namespace {

struct Context {
    GEOSContextHandle_t handle = GEOS_init_r();
    Context() {  // quietly: what goes wrong is thrown, in words of ours
        GEOSContext_setErrorMessageHandler_r(
            handle, [](const char*, void*) {}, nullptr);
    }
    ~Context() { GEOS_finish_r(handle); }
    Context(const Context&) = delete;
    Context& operator=(const Context&) = delete;
};

Context& context() {
    thread_local Context c;
    return c;
}

struct Destroy {
    void operator()(GEOSGeometry* g) const { GEOSGeom_destroy_r(context().handle, g); }
};
using Geometry = std::unique_ptr<GEOSGeometry, Destroy>;

Geometry own(GEOSGeometry* g) {
    if (!g) throw Told("two outlines can't be laid over one another");
    return Geometry(g);
}

/// What has an area of a mixture of areas, lines and points: nothing can be laid over a mixture.
Geometry areas_of(Geometry g) {
    auto* h = context().handle;
    if (GEOSGeomTypeId_r(h, g.get()) != GEOS_GEOMETRYCOLLECTION) return g;
    std::vector<GEOSGeometry*> parts;
    for (int i = 0; i < GEOSGetNumGeometries_r(h, g.get()); ++i) {
        const GEOSGeometry* part = GEOSGetGeometryN_r(h, g.get(), i);
        for (int k = 0; k < GEOSGetNumGeometries_r(h, part); ++k)
            if (const GEOSGeometry* one = GEOSGetGeometryN_r(h, part, k); GEOSGeomTypeId_r(h, one) == GEOS_POLYGON)
                parts.push_back(GEOSGeom_clone_r(h, one));
    }
    return own(GEOSGeom_createCollection_r(h, GEOS_MULTIPOLYGON, parts.data(), static_cast<unsigned>(parts.size())));
}

Geometry mended(const GEOSGeometry* g) { return areas_of(own(GEOSMakeValid_r(context().handle, g))); }

/// Two that all but touch can be beyond what doubles tell apart: then both are mended first, and laid over one another on a grid.
Geometry overlaid(GEOSGeometry* exactly, GEOSGeometry* (*on_grid)(GEOSContextHandle_t, const GEOSGeometry*, const GEOSGeometry*, double),
                  const GEOSGeometry* a, const GEOSGeometry* b) {
    if (exactly) return areas_of(own(exactly));
    const Geometry left = mended(a);
    const Geometry right = mended(b);
    for (const double grid_mm : {1e-6, 1e-4, 1e-2})
        if (GEOSGeometry* made = on_grid(context().handle, left.get(), right.get(), grid_mm)) return areas_of(own(made));
    return own(nullptr);
}
Geometry overlap_of(const GEOSGeometry* a, const GEOSGeometry* b) {
    return overlaid(GEOSIntersection_r(context().handle, a, b), GEOSIntersectionPrec_r, a, b);
}
Geometry difference_of(const GEOSGeometry* a, const GEOSGeometry* b) {
    return overlaid(GEOSDifference_r(context().handle, a, b), GEOSDifferencePrec_r, a, b);
}

Geometry polygon(const Ring& ring) {
    auto* h = context().handle;
    if (ring.size() < 3) return own(GEOSGeom_createEmptyPolygon_r(h));
    auto* seq = GEOSCoordSeq_create_r(h, static_cast<unsigned>(ring.size() + 1), 2);
    for (unsigned i = 0; i <= ring.size(); ++i) GEOSCoordSeq_setXY_r(h, seq, i, ring[i % ring.size()].x, ring[i % ring.size()].y);
    auto* shell = GEOSGeom_createLinearRing_r(h, seq);
    if (!shell) throw Told("an outline has a place that is no number");
    return own(GEOSGeom_createPolygon_r(h, shell, nullptr, 0));
}

/// The points of a closed sequence, the last one, which is the first again, left out.
Ring points_of(const GEOSCoordSequence* seq) {
    auto* h = context().handle;
    unsigned n = 0;
    GEOSCoordSeq_getSize_r(h, seq, &n);
    Ring out;
    for (unsigned i = 0; i + 1 < n; ++i) {
        Vec2 p;
        GEOSCoordSeq_getXY_r(h, seq, i, &p.x, &p.y);
        out.push_back(p);
    }
    return out;
}

Ring ring_of(const GEOSGeometry* poly) {
    auto* h = context().handle;
    const Ring out = points_of(GEOSGeom_getCoordSeq_r(h, GEOSGetExteriorRing_r(h, poly)));
    return signed_area(out) < 0 ? Ring(out.rbegin(), out.rend()) : out;
}

Geometry line_of(const Ring& points) {
    auto* h = context().handle;
    auto* seq = GEOSCoordSeq_create_r(h, static_cast<unsigned>(points.size()), 2);
    for (unsigned i = 0; i < points.size(); ++i) GEOSCoordSeq_setXY_r(h, seq, i, points[i].x, points[i].y);
    return own(GEOSGeom_createLineString_r(h, seq));
}

std::vector<Ring> rings_of(const Geometry& g) {
    auto* h = context().handle;
    std::vector<Ring> out;
    const int n = GEOSGetNumGeometries_r(h, g.get());
    for (int i = 0; i < n; ++i) {
        const GEOSGeometry* part = GEOSGetGeometryN_r(h, g.get(), i);
        if (GEOSGeomTypeId_r(h, part) == GEOS_POLYGON && GEOSisEmpty_r(h, part) == 0) out.push_back(ring_of(part));
    }
    return out;
}

}  // namespace

Ring convex_hull(std::vector<Vec2> points) {
    if (points.size() < 2) return points;
    auto* h = context().handle;
    const auto first = [](Vec2 a, Vec2 b) { return a.x < b.x || (a.x == b.x && a.y < b.y); };
    const Geometry hull = own(GEOSConvexHull_r(h, line_of(points).get()));
    if (GEOSGeomTypeId_r(h, hull.get()) != GEOS_POLYGON) {
        // All in one place or on one line.
        const auto [low, high] = std::minmax_element(points.begin(), points.end(), first);
        return *low == *high ? Ring{*low} : Ring{*low, *high};
    }
    Ring out = ring_of(hull.get());
    std::rotate(out.begin(), std::min_element(out.begin(), out.end(), first), out.end());
    return out;
}

namespace {

/// A ring that crosses itself is read as the area it winds around, so that a slab half typed still draws; a tangle as its hull.
Geometry sound(const Ring& ring) {
    auto* h = context().handle;
    auto p = polygon(thinned(ring));
    if (GEOSisValid_r(h, p.get()) == 1) return p;
    if (tangled(ring)) return polygon(convex_hull(ring));
    return mended(p.get());
}

Geometry overlap(const Ring& a, const Ring& b) { return overlap_of(sound(a).get(), sound(b).get()); }

}  // namespace

namespace {

bool boxes_meet(const Box& a, const Box& b) {
    return a.low.x <= b.high.x && b.low.x <= a.high.x && a.low.y <= b.high.y && b.low.y <= a.high.y;
}

/// True when two sides meet or touch.
bool sides_meet(Vec2 a, Vec2 b, Vec2 c, Vec2 d) {
    const auto side = [](Vec2 p, Vec2 q, Vec2 r) { return cross(q - p, r - p); };
    return side(a, b, c) * side(a, b, d) <= 0 && side(c, d, a) * side(c, d, b) <= 0;
}

}  // namespace

bool tangled(const Ring& given) {
    const Ring ring = thinned(given);
    const std::size_t n = ring.size();
    int crossings = 0;
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t k = i + 2; k < n; ++k)
            if ((k + 1) % n != i && sides_meet(ring[i], ring[i + 1], ring[k], ring[(k + 1) % n]) && ++crossings > most_crossings)
                return true;
    return false;
}

namespace {

/// True when a small simple ring certainly lies whole inside another: what most flaws and plates do. Anything else is
/// left to the overlay.
bool surely_inside(const Ring& a, const Ring& b) {
    constexpr std::size_t small = 64;
    if (a.size() < 3 || a.size() > small || b.size() < 3 || !contains(b, a.front())) return false;
    const std::size_t n = a.size();
    for (std::size_t i = 0; i < n; ++i)  // crosses it itself?
        for (std::size_t k = i + 2; k < n; ++k)
            if ((k + 1) % n != i && sides_meet(a[i], a[i + 1], a[k], a[(k + 1) % n])) return false;
    const Box box = bounds(a);
    for (std::size_t i = 0, j = b.size() - 1; i < b.size(); j = i++) {
        const Box side{{std::min(b[i].x, b[j].x), std::min(b[i].y, b[j].y)}, {std::max(b[i].x, b[j].x), std::max(b[i].y, b[j].y)}};
        if (!boxes_meet(box, side)) continue;
        for (std::size_t k = 0; k < n; ++k)
            if (sides_meet(a[k], a[(k + 1) % n], b[j], b[i])) return false;
    }
    return true;
}

}  // namespace

std::vector<Ring> intersection(const Ring& a, const Ring& b) {
    if (a.size() < 3 || b.size() < 3 || !boxes_meet(bounds(a), bounds(b))) return {};
    if (surely_inside(a, b)) return {signed_area(a) < 0 ? Ring(a.rbegin(), a.rend()) : a};
    return rings_of(overlap(a, b));
}

Ring simplified(const Ring& ring, double tolerance) {
    if (ring.size() < 4) return ring;
    Ring closed = ring;
    closed.push_back(ring.front());
    const Geometry line = own(GEOSSimplify_r(context().handle, line_of(closed).get(), tolerance));
    Ring out = points_of(GEOSGeom_getCoordSeq_r(context().handle, line.get()));
    return out.size() < 3 ? ring : out;
}

Ring pen_outline(std::span<const Vec2> line, double half_width) {
    auto* h = context().handle;
    if (line.empty()) return {};
    Ring points(line.begin(), line.end());
    if (points.size() == 1) points.push_back(points.front() + Vec2{0.1, 0});
    const Geometry path = line_of(points);
    return largest(rings_of(own(GEOSBuffer_r(h, path.get(), half_width, 4))));
}

double intersection_area(const Ring& a, const Ring& b) {
    if (a.size() < 3 || b.size() < 3 || !boxes_meet(bounds(a), bounds(b))) return 0;
    if (surely_inside(a, b)) return area(a);
    const auto g = overlap(a, b);
    double value = 0;
    if (GEOSArea_r(context().handle, g.get(), &value) != 1) throw Told("an outline has no area");
    return value;
}

namespace {

Ring half_plane(const Ring& ring, Vec2 a, Vec2 b) {
    const Box box = bounds(ring);
    const double far = 10 * (box.width() + box.height() + length(a - box.low) + length(b - box.low) + 1);
    const Vec2 along = (b - a) * (far / length(b - a));
    const Vec2 left{-along.y, along.x};
    return {a - along, a + along, a + along + left, a - along + left};
}

void simple_pieces(Geometry g, int depth, std::vector<Ring>& out) {
    auto* h = context().handle;
    const int n = GEOSGetNumGeometries_r(h, g.get());
    for (int i = 0; i < n; ++i) {
        const GEOSGeometry* part = GEOSGetGeometryN_r(h, g.get(), i);
        if (GEOSGeomTypeId_r(h, part) != GEOS_POLYGON || GEOSisEmpty_r(h, part) != 0) continue;
        const Ring ring = ring_of(part);
        if (GEOSGetNumInteriorRings_r(h, part) == 0 || depth > 40) {
            if (area(ring) >= 1) out.push_back(ring);
            continue;
        }
        const Vec2 at = centroid(points_of(GEOSGeom_getCoordSeq_r(h, GEOSGetInteriorRingN_r(h, part, 0))));
        for (const Vec2 up : {Vec2{0, 1}, Vec2{0, -1}}) {
            const Geometry side = polygon(half_plane(ring, at, at + up));
            simple_pieces(overlap_of(part, side.get()), depth + 1, out);
        }
    }
}

}  // namespace

Ring left_of(const Ring& ring, Vec2 a, Vec2 b) {
    if (ring.size() < 3) return {};
    const auto side = [&](Vec2 p) { return cross(b - a, p - a); };
    Ring out;
    int crossings = 0;
    for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        const double s = side(ring[j]);
        const double t = side(ring[i]);
        if ((s > 0) != (t > 0)) {
            ++crossings;
            out.push_back(lerp(ring[j], ring[i], s / (s - t)));
        }
        if (t > 0) out.push_back(ring[i]);
    }
    if (out.size() < 3) return {};
    if (crossings > 2) return largest(rings_of(overlap(ring, half_plane(ring, a, b))));
    return out;
}

std::vector<Ring> without(const Ring& ring, const std::vector<Ring>& holes) {
    Geometry left = sound(ring);
    for (const Ring& hole : holes) {
        if (hole.size() < 3 || !boxes_meet(bounds(ring), bounds(hole))) continue;
        left = difference_of(left.get(), sound(hole).get());
    }
    std::vector<Ring> out;
    simple_pieces(std::move(left), 0, out);
    return out;
}

Ring widened(const Ring& ring, double by) { return largest(rings_of(own(GEOSBuffer_r(context().handle, sound(ring).get(), by, 8)))); }

std::optional<Vec2> self_crossing(const Ring& ring) {
    if (ring.size() < 3) return {};
    auto* h = context().handle;
    const auto p = polygon(ring);
    char* reason = nullptr;
    GEOSGeometry* where = nullptr;
    const char ok = GEOSisValidDetail_r(h, p.get(), 0, &reason, &where);
    GEOSFree_r(h, reason);
    if (ok == 1) return {};
    Vec2 at = ring.front();
    if (where) {
        const Geometry keep(where);
        GEOSGeomGetX_r(h, where, &at.x);
        GEOSGeomGetY_r(h, where, &at.y);
    }
    return at;
}

}  // namespace yb
