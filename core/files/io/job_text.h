// A job of a shop as the text of a job file, for who does not look into it.
#pragma once

#include <functional>
#include <optional>
#include <string>

namespace yb {

struct Documents;

/// @param attachment bytes of the shop by their key. @throws std::out_of_range for a job or slab that is not there.
std::string job_text(const Documents& docs, const std::string& job,
                     const std::function<std::optional<std::string>(const std::string& key)>& attachment);

}  // namespace yb
