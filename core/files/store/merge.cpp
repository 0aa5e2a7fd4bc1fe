#include "core/files/store/merge.h"

#include "core/shop/job/job.h"
#include "core/shop/edit/edits.h"
#include "core/shop/edit/slab_edits.h"
#include "core/files/io/json.h"

namespace yb {

Json merged_json(const Json& base, const Json& mine, const Json& theirs) {
    if (mine == base || mine == theirs) return theirs;
    if (theirs == base) return mine;
    if (base.is_object() && mine.is_object() && theirs.is_object()) {
        Json out = theirs;
        const Json none;
        const auto at = [&](const Json& j, const std::string& key) -> const Json& { return j.contains(key) ? j.at(key) : none; };
        for (const auto& [key, value] : mine.items()) out[key] = merged_json(at(base, key), value, at(theirs, key));
        for (const auto& [key, value] : base.items())  // taken away by me, left as it was by them
            if (!mine.contains(key) && theirs.contains(key) && theirs.at(key) == value) out.erase(key);
        return out;
    }
    if (base.is_array() && mine.is_array() && theirs.is_array() && base.size() == mine.size() && base.size() == theirs.size()) {
        Json out = Json::array();
        for (std::size_t i = 0; i < base.size(); ++i) out.push_back(merged_json(base[i], mine[i], theirs[i]));
        return out;
    }
    return mine;
}

namespace {

/// Mine of what both added under one id.
template <class Map>
std::vector<std::string> added_twice(const Map& base, const Map& mine, const Map& theirs) {
    std::vector<std::string> out;
    for (const auto& [id, doc] : mine)
        if (const auto it = theirs.find(id); !base.count(id) && it != theirs.end() && !(it->second == doc)) out.push_back(id);
    return out;
}

std::string free_id(const std::string& id, const Documents& a, const Documents& b) {
    const std::string stem = id.substr(0, id.find_last_of('-'));
    return first_free(stem, [&](const std::string& other) {
        return a.slabs.count(other) || a.jobs.count(other) || b.slabs.count(other) || b.jobs.count(other);
    });
}

template <class Map, class Read>
void merge_map(const Map& base, const Map& mine, const Map& theirs, Map& out, Read read) {
    for (const auto& [id, doc] : mine) {
        const auto was = base.find(id);
        const auto other = theirs.find(id);
        const bool changed = was == base.end() || !(was->second == doc);
        if (!changed) continue;
        if (was == base.end() || other == theirs.end() || other->second == was->second) out[id] = doc;
        else out[id] = read(merged_json(to_json(was->second), to_json(doc), to_json(other->second)));
    }
    for (const auto& [id, doc] : base) {
        const auto other = theirs.find(id);
        if (!mine.count(id) && other != theirs.end() && other->second == doc) out.erase(id);
    }
}

}  // namespace

Documents merged(const Documents& base, const Documents& my, const Documents& theirs) {
    Documents mine = my;
    for (const std::string& id : added_twice(base.slabs, mine.slabs, theirs.slabs)) {
        auto node = mine.slabs.extract(id);
        node.key() = node.mapped().id = free_id(id, mine, theirs);
        for (auto& [job, j] : mine.jobs) {
            const auto before = base.jobs.find(job);
            if (before == base.jobs.end() || !(before->second == j)) take_instead(j, id, node.key());
        }
        mine.slabs.insert(std::move(node));
    }
    for (const std::string& id : added_twice(base.jobs, mine.jobs, theirs.jobs)) {
        auto node = mine.jobs.extract(id);
        node.key() = node.mapped().id = free_id(id, mine, theirs);
        mine.jobs.insert(std::move(node));
    }
    Documents out = theirs;
    if (!(mine.shop == base.shop)) out.shop = shop_from_json(merged_json(to_json(base.shop), to_json(mine.shop), to_json(theirs.shop)));
    merge_map(base.slabs, mine.slabs, theirs.slabs, out.slabs, slab_from_json);
    merge_map(base.jobs, mine.jobs, theirs.jobs, out.jobs, job_from_json);
    return out;
}

}  // namespace yb
