// Point clouds in and out: PLY (ASCII and binary little-endian) and plain XYZ or CSV text.
#pragma once

#include <string>
#include <vector>

#include "core/ground/file/format_error.h"
#include "core/ground/work/work.h"

namespace yb {

/// One point as a scanner gives it, in the file's own unit.
struct CloudPoint {
    float x = 0, y = 0, z = 0;
    bool operator==(const CloudPoint&) const = default;
};

/// The farthest a coordinate of a cloud may be from nought, in whatever unit it has (docs/formats.md).
inline constexpr float farthest_point = 1e7F;

struct Cloud {
    std::vector<CloudPoint> points;
    std::size_t not_numbers = 0;  ///< points left out because a coordinate is none
};

/// Reads a cloud, told apart by its first bytes: `ply`, otherwise lines of x y z parted by blanks, commas or
/// semicolons; lines that begin with `#`, `//` or a letter are headings. Points with NaN or infinite
/// coordinates are left out and counted. @throws FormatError that says where and what; a PLY cut short says
/// how many points are there.
Cloud read_cloud(const std::string& bytes, const Work& work = {});

/// Binary little-endian PLY with float x, y, z.
std::string to_ply(const std::vector<CloudPoint>& points);

}  // namespace yb
