// A photograph of a slab to its rectified face and outline. OpenCV (core, imgproc), no Qt.
//
// Four corners of anything of known size lying in the face fix the perspective; or two known lengths, one along
// and one across, where the photograph was taken straight from above. The slab is parted from the floor by
// GrabCut (Rother, Kolmogorov, Blake 2004) at a coarse scale, its edge then moved at the fine scale to where
// the colours change most across it. Strokes of "slab" and "not slab" correct it.
#pragma once

#include <array>
#include <stdexcept>
#include <string>
#include <variant>
#include <vector>

#include "core/ground/file/format_error.h"
#include "core/ground/picture/picture.h"
#include "core/ground/work/work.h"
#include "core/material/slab/slab.h"

namespace yb {

/// Why a photograph gives no slab, in one sentence with what to do.
struct PhotoError : Told {
    using Told::Told;
};

/// Four corners in the photograph, px, of a rectangle of known size, in any order around it.
struct KnownRectangle {
    std::array<Vec2, 4> corners_px;
    double width_mm = 0, height_mm = 0;  ///< left to right and up and down, as it lies in the photograph
};
/// Two lengths in the photograph, px to mm.
struct KnownLengths {
    std::array<Vec2, 2> along_px, across_px;
    double along_mm = 0, across_mm = 0;
};

struct Stroke {
    std::vector<Vec2> points_px;  ///< in the photograph
    double width_px = 20;
    bool slab = true;
};

struct PhotoOrder {
    std::variant<KnownRectangle, KnownLengths> known;
    std::vector<Stroke> strokes;
    double mm_per_px = 1;     ///< of the rectified face
    double tolerance_mm = 1;  ///< the outline is smoothed so far and no further
};

struct PhotoResult {
    Picture face;                      ///< rectified, lying lengthwise
    FacePicture place;                 ///< where it lies; its key is for the caller to give
    TracedOutline outline;             ///< both rings alike: lean or the other face come after
    double error_mm = 0;               ///< deviation of the edge points from the smoothed outline, and half a pixel
    std::array<double, 9> to_photo{};  ///< homography slab mm → photograph px, row by row
};

/// @throws PhotoError, Cancelled.
PhotoResult slab_from_photo(const Picture& photo, const PhotoOrder& order, const Work& work = {});

/// Joins the outlines of both faces, each photographed from its own side: the second is mirrored, laid end to end
/// and edge to edge on the first, and both are read at the same stations.
/// @throws PhotoError when their lengths differ by more than a fiftieth.
TracedOutline match_outlines(const TracedOutline& a, const TracedOutline& b_seen_from_below);

}  // namespace yb
