// Documents: everything one shop file holds, as it stands after a revision.
#pragma once

#include <map>
#include <string>

#include "core/material/slab/slab.h"
#include "core/shop/job/shop.h"

namespace yb {

struct Job;

/// Whoever only hands them on need not see what a job is made of: what looks into `jobs` includes job.h.
struct Documents {
    Documents();
    Documents(const Documents&);
    Documents(Documents&&) noexcept;
    Documents& operator=(const Documents&);
    Documents& operator=(Documents&&) noexcept;
    ~Documents();

    Shop shop;
    std::map<std::string, Slab> slabs;
    std::map<std::string, Job> jobs;
    bool operator==(const Documents&) const;
};

/// Every slab that a job takes wood from, and the name of that job. @param but a job's id to leave out.
std::map<std::string, std::string> taken_slabs(const Documents& docs, const std::string& but = {});

}  // namespace yb
