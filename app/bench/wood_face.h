// A drawn face of wood, for slabs that have no photograph: rings of a stem cut at the slab's distance from
// the pith. It shows where the slab is and how it lies, not its own figure.
#pragma once

#include <QImage>
#include <QPainter>

#include "app/bench/bench_map.h"
#include "core/slab/slab.h"

namespace yb {

/// The face of a slab as it lies, at the map's scale, transparent outside face A's outline.
QImage draw_face(const Slab& slab, const SlabShape& shape, const BenchMap& map, double device_ratio);

/// Ring arcs in the end view, clipped to `section`.
void draw_end_grain(QPainter& painter, const Slab& slab, const SlabShape& shape, const BenchMap& map, const QPolygonF& section);

/// Light and dark wood of a species, for faces and silhouettes.
struct WoodTone {
    QColor early, late, edge;
};
WoodTone tone_of(const std::string& species);

}  // namespace yb
