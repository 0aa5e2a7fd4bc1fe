// Headlines of cautions: each step's row has its own.
#pragma once

#include <span>
#include <string>
#include <vector>

#include "core/ground/figure/figure.h"

namespace yb {

/// What days, plan and papers mind, of no step alone.
std::span<const Headline> whole_headlines();
/// A headline of at most seven words for a caution's key; the key itself where there is none.
const char* headline_of(const std::string& key);
/// Every key that has a headline.
std::vector<std::string> headline_keys();

}  // namespace yb
