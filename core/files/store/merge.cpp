#include "core/files/store/merge.h"

#include <algorithm>
#include <map>
#include <string_view>

#include "core/files/io/json.h"
#include "core/shop/edit/edits.h"
#include "core/shop/edit/slab_edits.h"
#include "core/shop/job/job.h"

namespace yb {

namespace {

/// How the members of a list are told from one another.
struct Members {
    std::vector<const char*> by{};  ///< the fields that name one; none: all of them together
    bool whole = false;             ///< a list that hangs together: one hand's as it is
    bool made = false;              ///< the program gives the name: what both hands added under one is two things
};

/// Every list of objects in our documents, by its field (a test holds it against them).
const std::map<std::string_view, Members>& lists() {
    static const std::map<std::string_view, Members> all{{"runs", {{"card", "started"}}},
                                                         {"ticks", {{"step"}}},
                                                         {"readings", {}},
                                                         {"week", {}},
                                                         {"helper", {}},
                                                         {"off", {{"from", "name"}}},
                                                         {"stations", {{"x_mm"}}},
                                                         {"moisture_log", {}},
                                                         {"flaws", {{"id"}, false, true}},
                                                         {"supports", {}},
                                                         {"rounds", {{"on"}}},
                                                         {"voids", {{"flaw_id"}}},
                                                         {"resins", {{"key"}, false, true}},
                                                         {"job_order", {{"id"}}},
                                                         {"sections", {}},
                                                         {"meter", {{"species"}}},
                                                         {"paces", {{"key"}}},
                                                         {"leaves", {{}, true}},
                                                         {"lines", {{"key"}}},
                                                         {"agreed", {{"on"}}},
                                                         {"photos", {{"key"}}},
                                                         {"extra", {{"what"}}},
                                                         {"dividers", {}},
                                                         {"joints", {{}, true}},
                                                         {"patches", {{"id"}, false, true}},
                                                         {"done", {{"key"}}},
                                                         {"pins", {{"key"}}},
                                                         {"changes", {{"key"}}},
                                                         {"own", {{"name"}}},
                                                         {"plates", {}},
                                                         {"channels", {}},
                                                         {"outline", {{}, true}},
                                                         {"faces", {{"key"}}},
                                                         {"ties", {}},
                                                         {"gaps", {{"joint", "u_mm"}}},
                                                         {"months", {{}, true}}};
    return all;
}

bool of_objects(const Json& list) {
    return list.is_array() && std::all_of(list.begin(), list.end(), [](const Json& m) { return m.is_object(); });
}

/// The members by their names, in their order; those of one name are counted.
std::vector<std::pair<std::string, const Json*>> named(const Json& list, const Members& how) {
    std::vector<std::pair<std::string, const Json*>> out;
    std::map<std::string, int> times;
    for (const Json& m : list) {
        std::string name;
        for (const char* key : how.by) name += m.contains(key) ? m.at(key).dump() + '\n' : "\n";
        if (how.by.empty()) name = m.dump();
        out.emplace_back(name + std::to_string(times[name]++), &m);
    }
    return out;
}

/// Under a name that neither hand has.
Json renamed(const Json& member, const char* key, const Json& mine, const Json& theirs) {
    const auto taken = [&](const std::string& name) {
        const auto has = [&](const Json& list) {
            return std::any_of(list.begin(), list.end(), [&](const Json& m) { return m.contains(key) && m.at(key) == name; });
        };
        return has(mine) || has(theirs);
    };
    const std::string was = member.at(key).get<std::string>();
    Json out = member;
    out[key] = first_free(was.substr(0, was.find_last_of('-')), taken);
    return out;
}

Json merged_list(const Members& how, const Json& base, const Json& mine, const Json& theirs) {
    const auto b = named(base, how), m = named(mine, how), t = named(theirs, how);
    const auto in = [](const auto& list, const std::string& name) -> const Json* {
        const auto it = std::find_if(list.begin(), list.end(), [&](const auto& one) { return one.first == name; });
        return it == list.end() ? nullptr : it->second;
    };
    std::vector<std::pair<std::string, Json>> out;
    for (const auto& [name, other] : t) {
        const Json* was = in(b, name);
        const Json* own = in(m, name);
        if (own && !was && how.made && *own != *other)
            out.emplace_back(name, *other), out.emplace_back(name, renamed(*own, how.by.front(), mine, theirs));
        else if (own) out.emplace_back(name, merged_json(was ? *was : Json(), *own, *other));
        else if (!was || *was != *other) out.emplace_back(name, *other);  // what I took away and they left as it was, goes
    }
    // Mine alone: added, or changed where they took it away. Each behind the one it follows with me.
    for (std::size_t i = 0; i < m.size(); ++i) {
        const auto& [name, own] = m[i];
        const Json* was = in(b, name);
        if (in(t, name) || (was && *was == *own)) continue;
        auto at = out.begin();
        for (std::size_t k = i; k-- > 0 && at == out.begin();) {
            const auto before = std::find_if(out.rbegin(), out.rend(), [&](const auto& o) { return o.first == m[k].first; });
            if (before != out.rend()) at = before.base();
        }
        out.insert(at, {name, *own});
    }
    Json list = Json::array();
    for (auto& [name, member] : out) list.push_back(std::move(member));
    return list;
}

}  // namespace

std::vector<std::string> merged_lists() {
    std::vector<std::string> out;
    for (const auto& [key, how] : lists()) out.emplace_back(key);
    return out;
}

Json merged_json(const Json& base, const Json& mine, const Json& theirs, const std::string& field) {
    if (mine == base || mine == theirs) return theirs;
    if (theirs == base) return mine;
    if (base.is_object() && mine.is_object() && theirs.is_object()) {
        Json out = theirs;
        const Json none;
        const auto at = [&](const Json& j, const std::string& key) -> const Json& { return j.contains(key) ? j.at(key) : none; };
        for (const auto& [key, value] : mine.items()) out[key] = merged_json(at(base, key), value, at(theirs, key), key);
        for (const auto& [key, value] : base.items())  // taken away by me, left as it was by them
            if (!mine.contains(key) && theirs.contains(key) && theirs.at(key) == value) out.erase(key);
        return out;
    }
    if (const auto how = lists().find(field); how != lists().end()) {
        // One that holds nothing may be left out of a file.
        const auto list = [](const Json& j) { return j.is_null() ? Json::array() : j; };
        const Json was = list(base), own = list(mine), other = list(theirs);
        const bool by_place = how->second.by.empty() && was.size() == own.size() && was.size() == other.size();
        if (of_objects(was) && of_objects(own) && of_objects(other) && !by_place)
            return how->second.whole ? mine : merged_list(how->second, was, own, other);
    }
    if (base.is_array() && mine.is_array() && theirs.is_array() && base.size() == mine.size() && base.size() == theirs.size() &&
        std::none_of(base.begin(), base.end(), [](const Json& m) { return m.is_array(); })) {  // points of a line hang together
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
