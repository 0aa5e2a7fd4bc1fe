// Lay, what the maker decides: the wanted top and where it lies on a slab.
#pragma once

#include "core/ground/fields/fields.h"
#include "core/ground/figure/figure.h"
#include "core/ground/geometry/geometry.h"

namespace yb {

namespace step_key {
inline constexpr Step lay{"lay"};
}

enum class LiveEdges { both, left, right, none };

enum class TopShape { rectangle, round, oval, free };

/// What a search for a place does about a flaw of the slab.
enum class Wish { allow, avoid, seek };
/// … kind by kind: what tends to spoil a top is kept out of it, the rest may be character.
struct FlawWishes {
    Wish crack = Wish::avoid;
    Wish void_ = Wish::allow;
    Wish pocket = Wish::allow;
    Wish knot = Wish::allow;
    Wish soft = Wish::avoid;
    Wish insects = Wish::allow;
    Wish pith = Wish::avoid;
    Wish scar = Wish::allow;
    bool operator==(const FlawWishes&) const = default;
};

/// What the client asked for.
struct WantedTop {
    double length_mm = 1800;
    double width_mm = 800;  ///< the least width anywhere along the top; of a round or oval its other diameter
    double thickness_mm = 40;
    double height_mm = 740;  ///< floor to the top's upper face
    LiveEdges live = LiveEdges::both;
    int seats = 0;  ///< 0: not said
    TopShape shape = TopShape::rectangle;
    Ring free_form{};  ///< of a free form: its outline, stretched to length and width
    FlawWishes flaws{};
    bool operator==(const WantedTop&) const = default;
};

/// Where the top lies on a slab as laid, or where a slab's wood lies in the top.
struct Placement {
    double x_mm = 0, y_mm = 0;  ///< the top's middle on the slab as laid
    double angle_deg = 0;
    bool turned_over = false;  ///< face B is the show face
    double oversize_mm = 30;   ///< left beyond each end when rough-cutting
    bool operator==(const Placement&) const = default;
    Frame frame() const { return {{x_mm, y_mm}, angle_deg}; }
};

/// Which live edges stay.
inline constexpr auto live_edges = school("lay.live", "live", "Live edges that stay", &WantedTop::live,
                                          Way{LiveEdges::both, "both", "Both"}, Way{LiveEdges::left, "left", "Left only"},
                                          Way{LiveEdges::right, "right", "Right only"}, Way{LiveEdges::none, "none", "None, all sawn"});
inline constexpr auto top_shapes =
    school(nullptr, "shape", "Shape", &WantedTop::shape, Way{TopShape::rectangle, "rectangle", "rectangle"},
           Way{TopShape::round, "round", "round"}, Way{TopShape::oval, "oval", "oval"}, Way{TopShape::free, "free", "free form"});

inline constexpr Way wish_allow{Wish::allow, "allow", "as it comes"}, wish_avoid{Wish::avoid, "avoid", "keep it out"},
    wish_seek{Wish::seek, "seek", "have it in"};
inline constexpr auto wish_crack = school(nullptr, "crack", "Cracks", &FlawWishes::crack, wish_allow, wish_avoid, wish_seek);
inline constexpr auto wish_void = school(nullptr, "void", "Voids", &FlawWishes::void_, wish_allow, wish_avoid, wish_seek);
inline constexpr auto wish_pocket = school(nullptr, "pocket", "Bark pockets", &FlawWishes::pocket, wish_allow, wish_avoid, wish_seek);
inline constexpr auto wish_knot = school(nullptr, "knot", "Knots", &FlawWishes::knot, wish_allow, wish_avoid, wish_seek);
inline constexpr auto wish_soft = school(nullptr, "soft", "Soft wood and rot", &FlawWishes::soft, wish_allow, wish_avoid, wish_seek);
inline constexpr auto wish_insects = school(nullptr, "insects", "Insect holes", &FlawWishes::insects, wish_allow, wish_avoid, wish_seek);
inline constexpr auto wish_pith = school(nullptr, "pith", "The pith", &FlawWishes::pith, wish_allow, wish_avoid, wish_seek);
inline constexpr auto wish_scar = school(nullptr, "scar", "Saw scars", &FlawWishes::scar, wish_allow, wish_avoid, wish_seek);

inline bool left_live(LiveEdges l) { return l == LiveEdges::both || l == LiveEdges::left; }
inline bool right_live(LiveEdges l) { return l == LiveEdges::both || l == LiveEdges::right; }

void fields(FieldVisitor& v, FlawWishes& w);
void fields(FieldVisitor& v, WantedTop& t);
void fields(FieldVisitor& v, Placement& p);

}  // namespace yb
