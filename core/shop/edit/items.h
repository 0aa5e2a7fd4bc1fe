// Items of lists that edits take away. Used by core/shop/edit only.
#pragma once

#include <cstddef>
#include <vector>

namespace yb {

/// Takes the i-th away where there is one.
template <class T>
void drop(std::vector<T>& from, std::size_t i) {
    if (i < from.size()) from.erase(from.begin() + static_cast<std::ptrdiff_t>(i));
}

}  // namespace yb
