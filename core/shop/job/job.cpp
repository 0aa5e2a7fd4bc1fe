#include "core/shop/job/documents.h"

#include <algorithm>

#include "core/shop/job/job.h"
#include "core/shop/job/steps.h"

namespace yb {

Documents::Documents() = default;
Documents::Documents(const Documents&) = default;
Documents::Documents(Documents&&) noexcept = default;
Documents& Documents::operator=(const Documents&) = default;
Documents& Documents::operator=(Documents&&) noexcept = default;
Documents::~Documents() = default;
bool Documents::operator==(const Documents&) const = default;

Job::Job() : room(generic_climates().front()) {}

bool Job::uses(const std::string& slab) const {
    return std::any_of(leaves.begin(), leaves.end(), [&](const Leaf& l) { return l.slab == slab; });
}

std::vector<std::string> Job::slabs() const {
    std::vector<std::string> out;
    const auto take = [&](const std::string& one) {
        if (!one.empty() && std::find(out.begin(), out.end(), one) == out.end()) out.push_back(one);
    };
    for (const Leaf& l : leaves) take(l.slab);
    for (const Patch& p : makeup.patches) take(p.slab);
    return out;
}

std::map<std::string, std::string> taken_slabs(const Documents& docs, const std::string& but) {
    // Ways of one job take the same wood: one of them is made.
    const auto piece = [&](const std::string& id) {
        const auto it = docs.jobs.find(id);
        return it == docs.jobs.end() || it->second.way_of.empty() ? id : it->second.way_of;
    };
    std::map<std::string, std::string> out;
    for (const auto& [id, j] : docs.jobs)
        if (but.empty() || piece(id) != piece(but))
            for (const std::string& used : j.slabs()) out[used] = j.name;
    return out;
}

void fields(FieldVisitor& v, Leaf& l) {
    v.text({"slab", "Slab"}, l.slab);
    v.object({"placement", "Placement"}, l.placement);
    v.list({"supports", "Supports"}, l.supports);
    v.list({"rounds", "Readings after a rest"}, l.rounds);
    v.list({"voids", "Voids"}, l.voids);
}

void fields(FieldVisitor& v, Job& j) {
    v.text({"id", "Id", true}, j.id);
    v.text({"name", "Name"}, j.name);
    v.text({"client", "For"}, j.client);
    v.text({"start", "Begins on"}, j.start);
    v.text({"notes", "Notes"}, j.notes);
    v.flag({"put_away", "Put away"}, j.put_away);
    v.flag({"cuts_done", "Rough cuts are done"}, j.cuts_done);
    v.list({"runs", "What was ticked off"}, j.runs);
    for (const StepRow& row : steps())
        if (row.fields) row.fields(v, j);
    v.object({"days", "Days"}, j.days);
    v.object({"money", "Money"}, j.money);
    v.object({"record", "Record"}, j.record);
    v.text({"way_of", "Another way of"}, j.way_of);
    v.text({"way", "This way is called"}, j.way);
}

}  // namespace yb
