// What the real top adds to what Lay says: how the rivers run between the finished banks, above and below, and what they hold.
#pragma once

#include "core/steps/top/top.h"

namespace yb {

/// Adds the figures and cautions of rivers to `lay`: widths, rods, litres, and where banks cross or come too near. Before the
/// leaves are flattened the widths are those of the faces as they are, and the litres are not told. Places are the bench's.
void tell_rivers(const Top& top, const MakeUpPlan& plan, const MakeUpChoices& choices, LayPlan& lay);

}  // namespace yb
