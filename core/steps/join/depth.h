// The stack of depth: what is let into the top lies one above the other, each from its own floor, up to the show face.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/steps/join/join.h"

namespace yb {

/// An insert sits in its own plate or pocket; a bow tie and the crack it holds are made for one another, and what Under tells of
/// steel over steel and holes in voids is Under's.
bool belong_together(LetInKind one, LetInKind other);

/// Wood between two things let in that is little: a starting value.
inline constexpr double thin_between_mm = 3;

/// The wood between something let in and what lies next above it.
struct WoodLeft {
    std::size_t below = 0;             ///< of what is let in
    std::optional<std::size_t> above;  ///< … ; empty: the show face
    Vec2 at;                           ///< in the middle of what both cover
    double left_mm = 0;
};

/// Of each thing that wood is taken for how much stays above it, over every thing that stands higher and covers 4 mm² of it or more, and
/// below the show face for what does not reach it. What clashes or belongs together is left out. In the order of what is let in.
/// @param thickness_mm of the finished top. @param most_mm between two things: what leaves more is not looked at.
std::vector<WoodLeft> wood_left(const std::vector<LetIn>& let_in, double thickness_mm, double most_mm = 1e300);

}  // namespace yb
