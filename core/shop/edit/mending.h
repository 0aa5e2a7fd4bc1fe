// What a step offers as mends of its cautions (mends.h), in its row of the table: edits by their keys, and when each might help.
#pragma once

#include <optional>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/ground/geometry/geometry.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/plan.h"

namespace yb {

/// The numbers of a mend.
using Takes = std::vector<double>;
inline std::size_t index(double v) { return v > 0 ? static_cast<std::size_t>(v) : 0; }

/// One edit: what it changes, given the numbers of its mend. @throws std::out_of_range where what it is about is gone.
struct MendEdit {
    const char* key;
    void (*make)(Documents&, Job&, const Takes&);
};

/// A caution, and the job it is told of.
struct MendAsk {
    const Caution& caution;
    const Documents& docs;
    const Job& job;
    const Plan& plan;
    std::optional<Vec2> uv;  ///< its place in the top's frame
    std::vector<Mend>& out;
    void offer(const char* edit, Phrase label, Takes takes = {}) const { out.push_back({edit, std::move(label), std::move(takes)}); }
};

}  // namespace yb
