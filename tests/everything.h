// All rooms of the core, for tests that follow a job from the slab to the sheet.
#pragma once

#include "core/shop/edit/edits.h"
#include "core/shop/edit/slab_edits.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/prepared.h"
#include "core/shop/job/steps.h"
#include "core/shop/templates/templates.h"
#include "core/steps/days/days.h"
#include "core/steps/fill/fill.h"
#include "core/steps/flat/flat.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/arrange.h"
#include "core/steps/makeup/cuts.h"
#include "core/steps/makeup/makeup.h"
#include "core/steps/match/likeness.h"
#include "core/steps/patch/patch.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"

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
