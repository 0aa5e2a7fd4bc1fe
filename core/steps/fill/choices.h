// Fill, what the maker decides.
#pragma once

#include <string>
#include <vector>

#include "core/ground/fields/fields.h"
#include "core/ground/figure/figure.h"

namespace yb {

namespace step_key {
inline constexpr Step fill{"fill"};
}

enum class Soak { advised, first, dry };
/// What is done with one flaw.
struct VoidFill {
    std::string flaw_id;
    std::string resin;  ///< a resin's key; empty takes the advice
    bool leave_open = false;
    Soak soak = Soak::advised;  ///< with a penetrating resin before it is filled
    bool operator==(const VoidFill&) const = default;
};

struct FillChoices {
    double overfill_mm = 1.5;  ///< stands proud for shrinkage and levelling
    double reserve_pct = 10;   ///< stays in the cup and soaks in
    double tape_mm = 50;       ///< width of the tape that shuts what is open below
    double pigment_g_kg = 0;   ///< of the mix, in every round of every void alike
    std::string colour;        ///< what it is called
    std::string river;         ///< the resin a river is poured of, its key; empty: the one that takes the deepest lift
    bool operator==(const FillChoices&) const = default;
};

inline constexpr auto soaks = school(nullptr, "soak", "Soaked before", &VoidFill::soak, Way{Soak::advised, "advised", "As advised"},
                                     Way{Soak::first, "first", "Soaked first"}, Way{Soak::dry, "dry", "Filled dry"});

void fields(FieldVisitor& v, VoidFill& f);
void fields(FieldVisitor& v, FillChoices& c);

}  // namespace yb
