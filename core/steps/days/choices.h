// Days, what the maker decides and ticks in a job: what is done, what is pinned to a day, operations of his own, when it is wanted.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/fields/fields.h"

namespace yb {

/// Who does it.
enum class Who { maker, helper, both, outside };
const char* name_of(Who who);

/// Hands were off an operation then.
struct OpDone {
    std::string key;
    std::string at;                  ///< local wall clock, "2026-11-30T16:30"
    std::string name{};              ///< what it was called then: the book says so, whatever becomes of the plan
    std::optional<double> took_h{};  ///< hands were on it so long, as the maker knows it; empty: worked out from the clock
    bool operator==(const OpDone&) const = default;
};
/// An operation that does not begin before a day.
struct OpPin {
    std::string key;
    std::string on;  ///< ISO date
    bool operator==(const OpPin&) const = default;
};
/// What the maker knows better of an operation than its step does.
struct OpChange {
    std::string key;
    std::optional<double> hands_h, wait_h;  ///< empty: as its step says
    bool by_helper = false;                 ///< the helper does it
    std::optional<double> air_c{};          ///< the air it is done in, where the maker heats or waits for it; empty: the month's
    bool operator==(const OpChange&) const = default;
};
/// An operation that no step knows of: "draw with the client", a second leak.
struct OwnOp {
    std::string name;
    std::string after, before;  ///< keys of operations; empty: nothing waits
    double hands_h = 1, wait_h = 0;
    Who who = Who::maker;
    bool operator==(const OwnOp&) const = default;
};

struct DaysChoices {
    std::string wanted;      ///< ISO date the client wants it; empty: when it is ready
    bool collected = false;  ///< the client fetches it: nobody carries it in and sets it up
    std::vector<OpDone> done;
    std::vector<OpPin> pins;
    std::vector<OpChange> changes;
    std::vector<OwnOp> own;
    bool operator==(const DaysChoices&) const = default;
};

inline constexpr auto whos =
    school("days.who", "who", "Who", &OwnOp::who, Way{Who::maker, "maker", "The maker"}, Way{Who::helper, "helper", "The helper"},
           Way{Who::both, "both", "Both"}, Way{Who::outside, "outside", "Somebody outside"});

void fields(FieldVisitor& v, OpDone& d);
void fields(FieldVisitor& v, OpPin& p);
void fields(FieldVisitor& v, OpChange& c);
void fields(FieldVisitor& v, OwnOp& o);
void fields(FieldVisitor& v, DaysChoices& c);

}  // namespace yb
