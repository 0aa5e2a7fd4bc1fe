// How much of a heavy test is run: a share by default, all of it by `scripts/test all` (YB_WHOLE in the environment).
#pragma once

#include <cstdlib>

namespace yb {

inline bool in_full() { return std::getenv("YB_WHOLE") != nullptr; }
/// So many by default, so many in the whole.
template <class T>
T so_many(T usual, T all) {
    return in_full() ? all : usual;
}

}  // namespace yb
