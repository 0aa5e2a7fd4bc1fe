#include "core/shop/edit/job_edits.h"

#include "core/shop/edit/edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"

namespace yb {

std::string copy_job(Documents& docs, const std::string& id) {
    Job copy = docs.jobs.at(id);
    copy.id = fresh_id("job", docs);
    copy.name += " (copy)";
    copy.runs.clear();
    copy.cuts_done = copy.makeup.faces_flat = copy.makeup.ripped = copy.put_away = false;
    const std::string made = copy.id;
    docs.jobs[made] = std::move(copy);
    return made;
}

void put_away(Job& job, bool away) { job.put_away = away; }

}  // namespace yb
