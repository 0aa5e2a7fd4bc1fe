// Make-ups, what the maker decides: how leaves make up a top.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/fields/fields.h"

namespace yb {

enum class MakeUp { single, book, slip, boards, river, open_river };
const char* name_of(MakeUp kind);
bool is_river(MakeUp kind);
/// What so many leaves can be made up as: the kind itself where it may have that many, otherwise the nearest.
MakeUp made_of(MakeUp kind, std::size_t leaves);

/// A line across the top at which two leaves meet; in a river, its middle.
struct Joint {
    double v_mm = 0;       ///< across, at the top's middle
    double angle_deg = 0;  ///< against the top's length
    bool curved = false;   ///< follows the right leaf's edge with a fair curve instead
    bool operator==(const Joint&) const = default;
};

/// A piece let into the show face over a flaw.
struct Patch {
    std::string id;
    Ring outline;         ///< in the top's frame
    double depth_mm = 8;  ///< of the recess
    std::string slab;     ///< it is cut from; empty: not said
    Vec2 at;              ///< where its middle lies on that slab as measured, face A up
    double turn_deg = 0;  ///< of its grain against the top's length, to the left
    bool operator==(const Patch&) const = default;
};

struct MakeUpChoices {
    MakeUp kind = MakeUp::single;
    std::vector<Joint> joints;                     ///< one fewer than leaves; missing ones lie evenly across
    double mill_kerf_mm = 4;                       ///< of the saw that parted the slabs
    double rip_kerf_mm = 2.4;                      ///< of the saw that rips the leaves
    bool same_line = true;                         ///< both leaves of a book are ripped along the same line in the log
    bool ends_swapped = false;                     ///< outer boards of three or four turned end for end
    bool outer_faces = false;                      ///< the set lies the other way up: the faces the saw did not part show
    double river_mm = 120;                         ///< wanted mean width of a river
    bool two_colours = false;                      ///< a divider down the middle of the river
    double least_radius_mm = 400, cutter_mm = 12;  ///< of a curved joint
    double rod_mm = 16, rod_pitch_mm = 400, rod_depth_mm = 90;
    std::optional<double> halves_u_mm;  ///< cut across here and joined on site
    std::vector<Patch> patches;
    bool faces_flat = false;  ///< both faces of every leaf are flat: the joints may be ripped
    bool ripped = false;      ///< the joints are ripped
    bool operator==(const MakeUpChoices&) const = default;
};

inline constexpr auto make_ups =
    school("lay.makeup", "kind", "Made up as", &MakeUpChoices::kind, Way{MakeUp::single, "single", "One slab"},
           Way{MakeUp::book, "book", "Opened like a book"}, Way{MakeUp::slip, "slip", "Side by side, same face up"},
           Way{MakeUp::boards, "boards", "Middle opened, outer drawn out"}, Way{MakeUp::river, "river", "A resin river"},
           Way{MakeUp::open_river, "open_river", "An open river on rods"});
inline constexpr auto rip_lines = school("makeup.line", "same_line", "Rip line", &MakeUpChoices::same_line,
                                         Way{true, "same", "The same line in the log"}, Way{false, "own", "Each leaf its own"});
inline constexpr auto outer_boards = school("makeup.ends", "ends_swapped", "Outer boards", &MakeUpChoices::ends_swapped,
                                            Way{false, "straight", "Drawn straight out"}, Way{true, "swapped", "Turned end for end"});
inline constexpr auto faces_shown = school("makeup.faces", "outer_faces", "Faces that show", &MakeUpChoices::outer_faces,
                                           Way{false, "parted", "Those the saw parted"}, Way{true, "outer", "The whole set turned over"});
inline constexpr auto river_colours = school("makeup.colours", "two_colours", "The river", &MakeUpChoices::two_colours,
                                             Way{false, "one", "One colour"}, Way{true, "two", "Two colours, a divider between"});

void fields(FieldVisitor& v, Joint& j);
void fields(FieldVisitor& v, Patch& p);
void fields(FieldVisitor& v, MakeUpChoices& c);

}  // namespace yb
