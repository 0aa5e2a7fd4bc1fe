// A job file as a shop of its own, ids as they stand in it.
#pragma once

#include "core/files/io/job_file.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"

namespace yb {

inline Documents documents_of(const JobFile& f) {
    Documents d;
    d.shop = f.shop;
    for (const Slab& s : f.slabs) d.slabs[s.id] = s;
    d.jobs[f.job.id] = f.job;
    return d;
}

}  // namespace yb
