// The faces there are to treat, from the real top and the real base: each with its area and how that is reached.
#pragma once

#include <string>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/steps/top/top.h"
#include "core/steps/under/base.h"

namespace yb {

struct SkinFace {
    enum class Kind { upper, under, edge, live_edge, end, rim, resin_above, resin_below, pocket, tie, patch, base };
    std::string key;  ///< "upper", "under", "edge left", "end right", "resin above", "pocket 1", "tie 1", "patch 1 above", "base 1"
    Kind kind = Kind::upper;
    Phrase name;
    double m2 = 0;
    double long_mm = 0;    ///< of an edge, along it
    double lean_deg = 0;   ///< of an edge, the mean, outward below positive
    std::vector<Ring> at;  ///< in the top's frame: what is zoned and picked; of an edge the strip between both faces' outlines
    bool resin() const { return kind == Kind::resin_above || kind == Kind::resin_below; }
    bool edge() const { return kind == Kind::edge || kind == Kind::live_edge || kind == Kind::end || kind == Kind::rim; }
    Working working;
};

/// A bow tie that is let in: its outline in the top's frame, and from which side.
struct LetInTie {
    Ring outline;
    bool from_above = true;
};

/// @param pockets cut from below, in the top's frame, with how deep: their floor and walls are a face of their own. @param base cut list,
/// empty for a bought one: a face a row of it. Bow ties and patches are faces of their own, taken out of the one they lie in. Resin counts
/// apart from wood; air is nothing. An edge's area is that of the ruled surface between the outlines of both faces, in 240 stretches.
/// @returns nothing for a top that is not ready.
std::vector<SkinFace> skin_faces(const Top& top, const std::vector<std::pair<Ring, double>>& pockets, const BasePlan& base,
                                 const std::vector<LetInTie>& ties = {});

/// Area of the ruled surface between two chains matched point by point, one so much above the other, m²: each cell as the mean of its two
/// ways to be cut in triangles.
double ruled_m2(const std::vector<Vec2>& above, const std::vector<Vec2>& below, double apart_mm);

}  // namespace yb
