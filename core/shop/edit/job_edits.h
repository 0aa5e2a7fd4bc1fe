// Edits of a job as a whole: what the page of jobs does.
#pragma once

#include <string>

namespace yb {

struct Documents;
struct Job;

/// A second job like this one, with an id of its own; nothing of it is done yet. @returns its id. @throws std::out_of_range.
std::string copy_job(Documents& docs, const std::string& id);
/// Off the page of jobs, or back on it; it stays in the shop.
void put_away(Job& job, bool away);

}  // namespace yb
