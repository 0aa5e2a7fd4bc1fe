#include "core/steps/days/choices.h"

namespace yb {

void fields(FieldVisitor& v, OpDone& d) {
    v.text({"key", "Operation", true}, d.key);
    v.text({"at", "Hands off it at"}, d.at);
    v.text({"name", "Called"}, d.name);
    v.number({"took_h", "It took", Kind::hours, {0, 2000}}, d.took_h);
}

void fields(FieldVisitor& v, OpPin& p) {
    v.text({"key", "Operation", true}, p.key);
    v.text({"on", "Not before"}, p.on);
}

void fields(FieldVisitor& v, OpChange& c) {
    v.text({"key", "Operation", true}, c.key);
    v.number({"hands_h", "Hands on it", Kind::hours, {0, 2000}}, c.hands_h);
    v.number({"wait_h", "Then it waits", Kind::hours, {0, 20000}}, c.wait_h);
    v.flag({"by_helper", "The helper does it"}, c.by_helper);
    v.number({"air_c", "Air it is done in", Kind::temperature, {-20, 50}}, c.air_c);
}

void fields(FieldVisitor& v, OwnOp& o) {
    v.text({"name", "Called", true}, o.name);
    v.text({"after", "After"}, o.after);
    v.text({"before", "Before"}, o.before);
    v.number({"hands_h", "Hands on it", Kind::hours, {0, 2000}}, o.hands_h);
    v.number({"wait_h", "Then it waits", Kind::hours, {0, 20000}}, o.wait_h);
    v.school(whos, o);
}

void fields(FieldVisitor& v, DaysChoices& c) {
    v.text({"wanted", "Wanted on"}, c.wanted);
    v.flag({"collected", "The client fetches it"}, c.collected);
    v.list({"done", "What is done"}, c.done);
    v.list({"pins", "Pinned to a day"}, c.pins);
    v.list({"changes", "What the maker knows better"}, c.changes);
    v.list({"own", "Operations of your own"}, c.own);
}

const char* name_of(Who who) {
    static constexpr const char* names[] = {"maker", "helper", "both", "outside"};
    return names[static_cast<int>(who)];
}

}  // namespace yb
