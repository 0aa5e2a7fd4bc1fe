// Which one further height reading would be worth most before anything is cut.
#pragma once

#include <optional>

#include "core/material/slab/slab.h"
#include "core/steps/flat/flat.h"

namespace yb {

struct NextReading {
    Face face = Face::a;   ///< of the slab as laid
    Vec2 at;               ///< on it
    double height_mm = 0;  ///< likeliest there, as the plan takes it
    double sigma_mm = 0;
    double worth_mm = 0;  ///< so much thinner the top would finish if the face is out there as far as one time in twenty
};
/// Places inside the top between the readings: where the band that holds the truth nine times in ten reaches furthest past the
/// finished plane. Nothing where no heights were read, or none reaches past it by a tenth of a millimetre.
std::optional<NextReading> next_reading(const Slab& slab, const SlabShape& shape, const FlatPlan& plan, const Ring& outline);

/// It as a thing to be picked, where it would be read.
Thing reading_thing(const NextReading& next);

/// On a practice slab: what the readings missed.
struct Missed {
    Face face = Face::a;
    Vec2 at;
    double higher_mm = 0;  ///< the face truly stands so much higher than it was taken to, at its worst place inside the top
    double lower_mm = 0;   ///< … or lower, below the finished plane: a hollow that stays
    Vec2 lower_at;
    double true_mm = 0;  ///< the best tilt of how it truly lies would leave
};
/// Nothing for a slab whose truth nobody knows.
std::optional<Missed> what_readings_missed(const Slab& slab, const SlabShape& shape, const FlatPlan& plan, const Ring& outline);
/// It as a thing to be picked.
Thing missed_thing(const Missed& missed, const FlatPlan& plan);

/// How unsure a face is at a place, mm (one standard deviation); nothing where nothing was read.
std::optional<double> unsure_mm(const HeightGrid& heights, Vec2 at);

}  // namespace yb
