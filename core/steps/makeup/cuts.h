// The cuts of a job in working order: rough cuts, rips, final cuts, each with what to set the saw to.
#pragma once

#include <string>
#include <vector>

#include "core/steps/makeup/makeup.h"

namespace yb {

enum class CutKind { rough, rip, ends, sides, patch };
const char* name_of(CutKind kind);

struct Cut {
    CutKind kind = CutKind::rough;
    std::size_t leaf = 0;  ///< whose it is
    std::string slab;      ///< its name
    Vec2 from, to;         ///< on that slab as laid; on the whole top for the last cuts of several leaves
    double length_mm = 0;  ///< of the cut: how long the guide rail has to be
    Phrase set;            ///< what to set it to
    bool after_flat = false;
};

/// What a cut frees that is worth keeping.
struct Offcut {
    std::size_t leaf = 0;
    std::string name;
    double length_mm = 0, width_mm = 0;
};

struct CutList {
    std::vector<Cut> cuts;
    std::vector<Offcut> offcuts;
    double kerf_m2 = 0;  ///< wood that becomes dust
};

/// @param slabs as laid, with their placements. @param lays of each on its own slab. @param hollow_mm how far the middle of a joint stands
/// open before it is clamped (Join: edges planed a little hollow), half of it off each edge.
CutList cuts_of(const std::vector<LeafIn>& slabs, const std::vector<const LayPlan*>& lays, const MakeUpPlan& plan, const WantedTop& top,
                const MakeUpChoices& choices, double hollow_mm = 0);

}  // namespace yb
