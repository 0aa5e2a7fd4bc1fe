// What Join says: figures, cautions, choices. Used by core/steps/join only.
#pragma once

#include "core/steps/join/join.h"

namespace yb {

/// The steps of the glue-up of the longest stage with other hands, glue or stages than the plan's.
std::vector<GlueStep> glue_sequence(const JoinPlan& p, const JoinChoices& c);

/// What comes off both edges where gaps were read along them.
void take_from_edges(const JoinInputs& in, GluedJoint& joint);
/// How long the sides are that are kept as they grew, on the upper face.
double live_edges_mm(const Top& top);
/// The rim as it is shaped, and where it is carved.
void shape_rim(const JoinInputs& in, JoinPlan& plan);

void tell_join(const JoinInputs& in, JoinPlan& plan);

}  // namespace yb
