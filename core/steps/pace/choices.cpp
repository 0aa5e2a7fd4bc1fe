#include "core/steps/pace/choices.h"

namespace yb {

void fields(FieldVisitor& v, PaceFigure& p) {
    v.text({"key", "Work", true}, p.key);
    v.number({"times", "Hours, beside the starting value", Kind::number, {0.05, 20}}, p.times);
    v.number({"spread", "… give or take", Kind::number, {0, 20}}, p.spread);
    v.number({"tables", "From so many tables", Kind::number, {0, 10000}}, p.tables);
    v.flag({"put_back", "The starting value is used all the same"}, p.put_back);
}

}  // namespace yb
