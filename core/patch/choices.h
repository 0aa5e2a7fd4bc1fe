// Patches, what the maker decides.
#pragma once

#include <string>

#include "core/fields/fields.h"

namespace yb {

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
void fields(FieldVisitor& v, Patch& p);

}  // namespace yb
