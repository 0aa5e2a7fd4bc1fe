// The thin face over GEOS's C API: one context per thread, geometries owned by unique_ptr.
#include <memory>
#include <stdexcept>
#include <string>

#include <geos_c.h>

#include "core/geometry/geometry.h"

namespace yb {
namespace {

struct Context {
    GEOSContextHandle_t handle = GEOS_init_r();
    std::string error;
    Context() {
        GEOSContext_setErrorMessageHandler_r(
            handle, [](const char* message, void* self) { static_cast<Context*>(self)->error = message; }, this);
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

Geometry own(GEOSGeometry* g, const char* what) {
    if (!g) throw std::runtime_error(std::string(what) + ": " + context().error);
    return Geometry(g);
}

Geometry polygon(const Ring& ring) {
    auto* h = context().handle;
    if (ring.size() < 3) return own(GEOSGeom_createEmptyPolygon_r(h), "empty polygon");
    auto* seq = GEOSCoordSeq_create_r(h, static_cast<unsigned>(ring.size() + 1), 2);
    for (unsigned i = 0; i <= ring.size(); ++i) GEOSCoordSeq_setXY_r(h, seq, i, ring[i % ring.size()].x, ring[i % ring.size()].y);
    auto* shell = GEOSGeom_createLinearRing_r(h, seq);
    if (!shell) throw std::runtime_error("ring: " + context().error);
    return own(GEOSGeom_createPolygon_r(h, shell, nullptr, 0), "polygon");
}

/// A ring that crosses itself is read as the area it winds around, so that a slab half typed still draws.
Geometry sound(const Ring& ring) {
    auto* h = context().handle;
    auto p = polygon(ring);
    if (GEOSisValid_r(h, p.get()) != 1) p = own(GEOSMakeValid_r(h, p.get()), "mend");
    return p;
}

Geometry overlap(const Ring& a, const Ring& b) {
    return own(GEOSIntersection_r(context().handle, sound(a).get(), sound(b).get()), "intersection");
}

Ring ring_of(const GEOSGeometry* poly) {
    auto* h = context().handle;
    const auto* seq = GEOSGeom_getCoordSeq_r(h, GEOSGetExteriorRing_r(h, poly));
    unsigned n = 0;
    GEOSCoordSeq_getSize_r(h, seq, &n);
    Ring out;
    for (unsigned i = 0; i + 1 < n; ++i) {
        Vec2 p;
        GEOSCoordSeq_getXY_r(h, seq, i, &p.x, &p.y);
        out.push_back(p);
    }
    if (signed_area(out) < 0) out = Ring(out.rbegin(), out.rend());
    return out;
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

std::vector<Ring> intersection(const Ring& a, const Ring& b) { return rings_of(overlap(a, b)); }

std::vector<Ring> difference(const Ring& a, const Ring& b) {
    return rings_of(own(GEOSDifference_r(context().handle, sound(a).get(), sound(b).get()), "difference"));
}

std::vector<Ring> united(const std::vector<Ring>& rings) {
    Geometry all = polygon({});
    for (const Ring& r : rings) all = own(GEOSUnion_r(context().handle, all.get(), sound(r).get()), "union");
    return rings_of(all);
}

Ring pen_outline(std::span<const Vec2> line, double half_width) {
    auto* h = context().handle;
    if (line.empty()) return {};
    Ring points(line.begin(), line.end());
    if (points.size() == 1) points.push_back(points.front() + Vec2{0.1, 0});
    auto* seq = GEOSCoordSeq_create_r(h, static_cast<unsigned>(points.size()), 2);
    for (unsigned i = 0; i < points.size(); ++i) GEOSCoordSeq_setXY_r(h, seq, i, points[i].x, points[i].y);
    const Geometry path = own(GEOSGeom_createLineString_r(h, seq), "line");
    return largest(rings_of(own(GEOSBuffer_r(h, path.get(), half_width, 4), "pen")));
}

double intersection_area(const Ring& a, const Ring& b) {
    const auto g = overlap(a, b);
    double value = 0;
    if (GEOSArea_r(context().handle, g.get(), &value) != 1) throw std::runtime_error("area: " + context().error);
    return value;
}

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
