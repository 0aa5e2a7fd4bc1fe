#include "core/ground/figure/place.h"

#include <cmath>

namespace yb {

namespace {
/// Every place along that is `from` becomes `to`.
void told_from(Phrase& says, double from, double to) {
    for (PhraseArg& a : says.values)
        if (auto* q = std::get_if<Quantity>(&a.what); q && q->kind == Kind::along && std::abs(q->value - from) < 0.5) q->value = to;
    for (Phrase& p : says.then) told_from(p, from, to);
}
}  // namespace

void show_at(Caution& caution, Vec2 place) {
    if (caution.at) told_from(caution.says, caution.at->x, place.x);
    caution.at = place;
}

}  // namespace yb
