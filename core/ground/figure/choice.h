// A school of thought as a choice on the slip: what each of its ways gains and loses here.
#pragma once

#include "core/ground/fields/fields.h"
#include "core/ground/figure/figure.h"

namespace yb {

/// @param says of each way, in the order they are declared in; ways without a word are left out.
template <class C, class E, std::size_t N>
Choice choice_of(const School<C, E, N>& school, const C& now, std::vector<Phrase> says) {
    Choice c{school.choice, school.label, {}};
    for (std::size_t i = 0; i < N && i < says.size(); ++i)
        if (!says[i].empty())
            c.options.push_back(
                {school.options[i].key, school.options[i].label, std::move(says[i]), now.*school.member == school.values[i]});
    return c;
}

}  // namespace yb
