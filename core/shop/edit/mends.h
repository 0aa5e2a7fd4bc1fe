// Mends: what the program can do itself about a caution – a plain edit with its cost in its label.
//
// A mend is offered only when it was tried: the job is planned with it, the caution must be gone or lesser, and no other stop
// may come of it.
#pragma once

#include <optional>
#include <string>

#include "core/ground/figure/figure.h"
#include "core/ground/work/work.h"

namespace yb {

struct Documents;
struct Plan;

/// What can be done about a caution of this plan of a job; nothing where the program knows no way or none that helps.
/// @param plan of the whole top, or of the leaf on the bench.
std::optional<Mend> mend_of(const Caution& caution, const Documents& docs, const std::string& job, const Plan& plan, const Work& work = {});

/// Does it. @throws Refusal where it can't be done any more; the documents stay as they were.
void mended(Documents& docs, const std::string& job, const Mend& mend);

}  // namespace yb
