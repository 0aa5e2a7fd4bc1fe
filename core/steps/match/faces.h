// Faces of slabs told so that they can be compared, and how ill one lies on another. Used by the order of a log's slabs.
//
// What a face tells: its edges at even stations, its knots, its figure where there is a picture. The maker's chalk line lies
// anywhere: every slab is first turned so that the middle line of both its faces runs along x, and told from its own middle.
#pragma once

#include <array>
#include <vector>

#include "core/ground/picture/picture.h"
#include "core/material/slab/slab.h"

namespace yb {

/// One face as seen from above face A, straightened, from the slab's middle.
struct FaceView {
    static constexpr std::size_t stations = 81;
    std::array<double, stations> low{}, high{};  ///< edges at even stations, carried half a kerf further as they lean, mm
    std::array<double, stations> lean{};         ///< how far the edges move sideways for 1 mm of height, root mean square of both
    std::vector<Vec2> knots;                     ///< their middles, mm
    // The picture in cells of `cell` mm: (2 nx + 1) × (2 ny + 1), its own mean over 11 cells taken out; NaN outside.
    static constexpr double cell = 8;
    int nx = 0, ny = 0;
    std::vector<float> light;
    float at(int x, int y) const { return light[static_cast<std::size_t>((y + ny) * (2 * nx + 1) + x + nx)]; }
};

struct SlabView {
    std::array<FaceView, 2> faces;          ///< A, B
    double half_length = 0;                 ///< of the stretch that both faces have, mm
    double thickness_mm = 0, width_mm = 0;  ///< means
    /// How high the slab's middle lay over the middle of the log, face A up: in a round log (w/2)² = R² − z², so that the
    /// two faces' widths tell it: h = (w_b² − w_a²)/(8 t), mean over the stations, mm.
    double height_mm = 0;
    double station(std::size_t i) const { return (2.0 * static_cast<double>(i) / (FaceView::stations - 1) - 1) * half_length; }
};

/// @param shape as measured. @param face_a,face_b their pictures, as slab.picture_a places them; nullptr for none.
/// @param kerf_mm of the saw that parted the slabs. @throws std::invalid_argument for a slab without an outline.
SlabView view_of(const Slab& slab, const SlabShape& shape, const Picture* face_a, const Picture* face_b, double kerf_mm);

/// How one face lies on another where it lies best.
struct FaceMatch {
    double cost = 0;       ///< minus the logarithm of its likelihood, but for a constant; lower is likelier
    double shift_mm = 0;   ///< along the slab, of the second
    double misfit_mm = 0;  ///< of the edges, root mean square, a shift, a turn and a difference of the width taken out
    double width_mm = 0;   ///< mean difference of the width
    int knots = 0;         ///< that lie on one another
    double likeness = 0;   ///< correlation of the pictures there, −1 to 1; 0 where there are none
};

/// What the faces' readings are worth.
struct Trust {
    double edge_mm = 2;  ///< how far an edge of one parted face lies from the other's, deviation
    double knot_mm = 9;  ///< the same of a knot
};

/// The face `b` of one slab, mirrored across and turned end for end as told, laid on the face `a` of another: the best over
/// all slides that the lengths allow. @param pictures compare them too.
FaceMatch lay_on(const SlabView& slab_a, int a, const SlabView& slab_b, int b, bool mirrored, bool round, const Trust& trust,
                 bool pictures = true);

}  // namespace yb
