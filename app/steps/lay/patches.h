// Pieces let into the show face: painted on the top, dragged, cut from a slab of the rack.
#pragma once

#include "app/kit/bench/step_view.h"

namespace yb {
class Bench;
}

namespace yb::patches {

void draw(QPainter& p, const BenchMap& map, const Session& s);
std::vector<Handle> handles(const BenchMap& map, const Session& s);
/// Of the patch that is picked.
std::vector<Field> fields(const Session& now);
std::vector<PickField> picks(const Session& s, Pictures& pictures);
std::vector<Action> actions(Session& session, Bench& bench);

}  // namespace yb::patches
