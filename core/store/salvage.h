// What is left of a damaged shop file.
#pragma once

#include <string>
#include <vector>

#include "core/job/documents.h"

namespace yb {

/// What can still be read of a damaged file: the last good version of each document. Reads only.
struct Salvage {
    Documents documents;
    std::vector<std::string> lost;  ///< what could not be read, in words
};
Salvage salvage(const std::string& path);

}  // namespace yb
