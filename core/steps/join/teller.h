// What is told of a glue-up: figures and choices (told.cpp), what is to be minded (minded.cpp).
#pragma once

#include "core/steps/join/told.h"

namespace yb {

inline Quantity minutes(double m) { return hours(m / 60); }

class JoinTeller {
  public:
    JoinTeller(const JoinInputs& in, JoinPlan& p) : in_(in), p_(p) {}

    void tell() {
        figures();
        beside();
        glue_up();
        pieces();
        clashes();
        gaps();
        others();
        choices();
    }

  private:
    void add(std::string key, Severity s, Phrase says, std::optional<Vec2> at = {});
    void figures();
    double with(bool helped, bool slow, bool stages) const;
    /// What is sawn before the glue is opened; what draws two halves together; the rods of an open river.
    void beside();
    /// The rods of an open river: how long each is, in what order they go in, what the wood does at them.
    void rods();
    void glue_up();
    void pieces();
    void clashes();
    /// What stays between things that lie one above the other, and below the show face.
    void thin_between();
    void gaps();
    void others();
    /// The rim: what shaping it leaves, what is let in too near to it, where a live edge runs out thin.
    void rim();
    /// What is let in and does not lie inside a face that was drawn in, between two heights.
    void near_the_rim(const Ring& inside, double low, double high);
    void choices();

    const JoinInputs& in_;
    JoinPlan& p_;
};

}  // namespace yb
