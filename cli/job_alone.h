// A job file read for a verb.
#pragma once

#include <string>

#include "core/shop/job/documents.h"

namespace yb {
struct Plan;
struct UnderChoices;
}  // namespace yb

namespace burl {

/// A job file's job with its slabs and shop.
struct JobAlone {
    yb::Documents docs;  ///< with this job alone, its id "job"
    const yb::Job& job() const;
    const yb::UnderChoices& under() const;
    yb::Plan plan() const;
};
/// @throws yb::FormatError.
JobAlone read_job_alone(const std::string& path);

}  // namespace burl
