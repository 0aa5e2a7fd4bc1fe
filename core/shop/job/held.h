// The job and shop as they are planned: every number in its range, no list longer than any top has; each that was not is told.
#pragma once

#include <utility>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/ground/geometry/geometry.h"
#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"

namespace yb {

struct OutOfRange;

/// A top is planned of so many leaves at most: more are no table, and would be laid over one another for minutes.
inline constexpr std::size_t most_leaves = 24;
/// One caution a field that lies out of its range.
Caution out_of_range(const OutOfRange& o, Step step);

struct Held {
    Job job;
    Shop shop;
    std::vector<std::pair<Step, Caution>> cautions;

    Held(const Job& j, const Shop& s);
    /// Keeps the first of a list: so many as no top has would be planned for minutes, laid over one another.
    template <class T>
    void at_most(std::vector<T>& list, std::size_t most, Counted what, Step step) {
        if (list.size() <= most) return;
        what.n = static_cast<double>(list.size());
        many(what, most, step);
        list.resize(most);
    }
    /// An outline that is a tangle, or of more points than are overlaid in a blink.
    void fewer_points(Ring& ring, const char* what, Step step);

  private:
    void many(const Counted& what, std::size_t most, Step step);
};

}  // namespace yb
