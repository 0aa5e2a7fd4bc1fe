// What sawing boards and measuring them share.
#pragma once

#include "core/material/tree/saw.h"

namespace yb {

inline Vec3 operator+(Vec3 a, Vec3 b) { return {a.x + b.x, a.y + b.y, a.z + b.z}; }
inline Vec3 operator*(Vec3 a, double k) { return {a.x * k, a.y * k, a.z * k}; }
inline double dot(Vec3 a, Vec3 b) { return a.x * b.x + a.y * b.y + a.z * b.z; }

/// No wood of the log lies further than this from its pith, mm.
double largest_radius(const LogRecipe& recipe);

/// Where wood begins and ends across a face, or nothing. @param z height over the board's lower face, mm.
std::optional<Span1> wood_across(const GrownLog& log, const Board& board, double x_mm, double z_mm, double reach_mm);

}  // namespace yb
