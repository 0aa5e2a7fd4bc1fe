// Headlines of what this step minds: at most seven words for each key. A key without one is a mistake that tests/house finds.
#include "core/steps/join/join.h"

namespace yb {

std::span<const Headline> join_headlines() {
    static constexpr Headline all[] = {
        {"join.bark", "Bark left on falls off"},
        {"join.before", "What can't be reached after"},
        {"join.carved", "Carve along the grain"},
        {"join.carved_nothing", "No side to carve"},
        {"join.cauls", "Nothing square to clamp on"},
        {"join.clash", "Two things meet in the wood"},
        {"join.close", "Little open time to spare"},
        {"join.connector", "A connector in the river"},
        {"join.dry", "Go through it dry first"},
        {"join.edge", "The edge takes too much"},
        {"join.edge_meets", "The shaped edge meets what is in"},
        {"join.feather", "A live edge runs out thin"},
        {"join.gap", "A joint stands open"},
        {"join.halves", "Halves joined on site"},
        {"join.knot", "Something lands in a knot"},
        {"join.rim_thin", "The shaped rim is thin"},
        {"join.rods", "Rods, in their order"},
        {"join.rods_move", "Rods glued at one bank only"},
        {"join.skins", "The glue skins before it is done"},
        {"join.spring", "The spring joint pulls hard"},
        {"join.square", "Edges are not square"},
        {"join.surface", "It goes through the top"},
        {"join.take", "Plane an edge where it touches"},
        {"join.thick", "Tenons too thick for the top"},
        {"join.thin", "Little wood is left between"},
        {"join.through", "Too little wood above a tenon"},
        {"join.tie_along", "A bow tie along the grain"},
        {"join.tie_out", "A bow tie past the edge"},
        {"join.tie_shallow", "A bow tie too shallow"},
    };
    return all;
}

}  // namespace yb
