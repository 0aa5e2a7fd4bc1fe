// What may be done with a poured resin, and when: the one clock that Fill, Pour, their card, the sheet and Days ask.
//
// Soft – gelled, not yet hard – is for shaving: warm, with a sharp scraper. Hard is for unmoulding, planing, sanding, topping up. What
// a label says of its resin at 25 °C stands above the model, brought to the air of those days by the same law (Arrhenius).
#pragma once

#include <optional>
#include <vector>

#include "core/material/resin/resin.h"

namespace yb {

/// Hours after it was poured.
struct CureClock {
    double next_from_h = 0, next_to_h = 0;  ///< another lift bonds: from gel until it is no longer tacky
    double shave_from_h = 0;                ///< soft enough to be shaved, from here to hard_h
    double hard_h = 0;                      ///< out of the form; planed, sanded, its creep cleaned off with discs, topped up
    double full_h = 0;                      ///< cured
    bool next_by_label = false, hard_by_label = false, full_by_label = false;
    bool operator==(const CureClock&) const = default;
};

/// What the model says of a pour. Times that it does not reach within what it is followed are left out.
struct Simulated {
    double gel_h = 0;
    std::optional<double> tacky_h, cured_h;
};

/// The clock of a pour at this air. @param model what its simulation says; @param most_h held there where it never gets so far.
CureClock clock_of(const Resin& resin, double air_c, const Simulated& model, double most_h = 600);

/// The clock of so little that it keeps the air's temperature: a filled void, what is topped up.
CureClock clock_of_little(const Resin& resin, double air_c);

/// What is mixed and poured and sets soonest on a shelf, for little: not what only soaks in, no stick or paste. @param otherwise where
/// there is none.
const Resin& quickest(const std::vector<Resin>& shelf, const Resin& otherwise);

}  // namespace yb
