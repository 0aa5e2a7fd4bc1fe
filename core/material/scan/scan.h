// Scan: a point cloud of a slab lying on a bench, to outline, heights and thickness.
//
// The bench is the plane that most points below the slab lie on: found by drawing triples by lot (RANSAC,
// Fischler and Bolles 1981) and refined by least squares. What stands above it and hangs together is the
// slab. Its long axis becomes the chalk line. Where the cloud has a face from below too (the slab on
// trestles, or two scans put together) both faces are told apart by height; otherwise face B lies on the bench.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/work/work.h"
#include "core/material/scan/cloud.h"
#include "core/material/slab/slab.h"

namespace yb {

struct ScanOrder {
    std::optional<double> mm_per_unit;  ///< empty: told from the size of the cloud
    double cell_mm = 20;                ///< of the heights kept with the slab
    double least_height_mm = 12;        ///< what stands less above the bench is not slab
    std::uint64_t seed = 1;             ///< of the lots drawn
};

struct ScanResult {
    Slab slab;  ///< outline, heights, thickness; the rest is the maker's to say
    double mm_per_unit = 1;
    double bench_noise_mm = 0;  ///< deviation of the bench's points from their plane
    double error_mm = 0;        ///< of the outline: half the spacing of points along it
    bool both_faces = false;
    std::size_t used = 0;             ///< points on the slab
    std::vector<CloudPoint> on_slab;  ///< they themselves, mm, in the slab's frame: for the record and for flattening
    std::vector<std::string> notes;   ///< what was taken for granted, a sentence each
};

/// A scanned slab with its heights taken anew from every point of its cloud, as medians over cells of this size:
/// what the flattening works on. @param on_slab as ScanResult has them. The slab itself where the cloud says nothing.
Slab with_all_heights(const Slab& slab, const std::vector<CloudPoint>& on_slab, double cell_mm = 10);

/// Reads a slab out of a cloud. @throws FormatError when there is no bench, no slab, or more than one slab.
/// @throws Cancelled.
ScanResult slab_from_scan(const Cloud& cloud, const ScanOrder& order = {}, const Work& work = {});

}  // namespace yb
