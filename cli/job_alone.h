// A job file read for a verb.
#pragma once

#include <string>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"

namespace burl {

/// A job file's job with its slabs and shop.
struct JobAlone {
    yb::Job job;
    yb::Documents docs;
};
/// @throws yb::FormatError.
JobAlone read_job_alone(const std::string& path);

}  // namespace burl
