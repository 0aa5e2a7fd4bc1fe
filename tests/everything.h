// All rooms of the core, for tests that follow a job from the slab to the sheet.
#pragma once

#include "core/days/days.h"
#include "core/edit/edits.h"
#include "core/edit/slab_edits.h"
#include "core/fill/fill.h"
#include "core/flat/flat.h"
#include "core/job/plan.h"
#include "core/job/prepared.h"
#include "core/job/steps.h"
#include "core/lay/lay.h"
#include "core/makeup/arrange.h"
#include "core/makeup/cuts.h"
#include "core/makeup/makeup.h"
#include "core/match/likeness.h"
#include "core/patch/patch.h"
#include "core/templates/templates.h"
#include "core/top/top.h"
#include "core/under/under.h"

namespace yb {

/// Lays slabs together; the sentence why not where it is refused, empty where it is done.
inline std::string laid_together(Job& job, MakeUp kind, const std::vector<Slab>& slabs) {
    try {
        make_up(job, kind, slabs);
        return {};
    } catch (const Refusal& e) {
        return e.what();
    }
}

}  // namespace yb
