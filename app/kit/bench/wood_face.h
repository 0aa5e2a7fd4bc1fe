// A drawn face of wood, for slabs that have no photograph: rings of a stem cut at the slab's distance from
// the pith. It shows where the slab is and how it lies, not its own figure.
#pragma once

#include <functional>
#include <vector>

#include <QImage>
#include <QPainter>

#include "app/kit/bench/bench_map.h"
#include "core/material/slab/slab.h"

namespace yb {

/// Paints the face of a slab as it lies, cut at face A's outline as the painter's hints have it.
void paint_face(QPainter& painter, const Slab& slab, const SlabShape& shape, const BenchMap& map, double device_ratio);
/// The same as an image of the map's plan, transparent outside the outline.
QImage draw_face(const Slab& slab, const SlabShape& shape, const BenchMap& map);

/// The colours of a show face along a line across it: what the end grain below it goes on from.
struct FaceLine {
    double from = 0, step = 1;  ///< mm across
    std::vector<QRgb> colours;
    QRgb at(double across) const;
};
/// @param at the place on the slab for a place across. @param picture of the face; null: as paint_face() paints it.
FaceLine face_line(const Slab& slab, const SlabShape& shape, const std::function<Vec2(double across)>& at, double from, double to,
                   const QImage& picture);

/// The end grain of a section: every ring has the colour that it has where it comes out on the show face, so that figure and
/// heartwood meet at the edge; a disc's fibres stand upright below its face.
/// @param at as of the line. @param top height of the show face there, mm.
void draw_end_grain(QPainter& painter, const Slab& slab, const SlabShape& shape, const BenchMap& map, const QPolygonF& section,
                    const FaceLine& line, const std::function<Vec2(double across)>& at);

}  // namespace yb
