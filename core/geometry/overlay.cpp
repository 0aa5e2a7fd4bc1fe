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

Geometry overlap(const Ring& a, const Ring& b) {
    auto* h = context().handle;
    auto pa = polygon(a);
    auto pb = polygon(b);
    // A ring that crosses itself is read as the area it winds around, so that a slab half typed still draws.
    if (GEOSisValid_r(h, pa.get()) != 1) pa = own(GEOSMakeValid_r(h, pa.get()), "mend");
    if (GEOSisValid_r(h, pb.get()) != 1) pb = own(GEOSMakeValid_r(h, pb.get()), "mend");
    return own(GEOSIntersection_r(h, pa.get(), pb.get()), "intersection");
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

}  // namespace

std::vector<Ring> intersection(const Ring& a, const Ring& b) {
    auto* h = context().handle;
    const auto g = overlap(a, b);
    std::vector<Ring> out;
    const int n = GEOSGetNumGeometries_r(h, g.get());
    for (int i = 0; i < n; ++i) {
        const GEOSGeometry* part = GEOSGetGeometryN_r(h, g.get(), i);
        if (GEOSGeomTypeId_r(h, part) == GEOS_POLYGON && GEOSisEmpty_r(h, part) == 0) out.push_back(ring_of(part));
    }
    return out;
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
