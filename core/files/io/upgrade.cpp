#include "core/files/io/upgrade.h"

#include <vector>

#include "core/ground/file/format_error.h"

namespace yb {

namespace {

using Json = nlohmann::ordered_json;
using Upgrade = void (*)(Json&);

/// Version 1 of a job had one slab; its placement, supports and voids stood in places of their own.
void job_to_2(Json& j) {
    Json leaf = Json::object();
    for (const char* key : {"slab", "placement"})
        if (j.contains(key)) {
            leaf[key] = j[key];
            j.erase(key);
        }
    const auto out_of = [&](const char* step, const char* key) {
        if (!j.contains(step) || !j[step].is_object() || !j[step].contains(key)) return;
        leaf[key] = j[step][key];
        j[step].erase(key);
    };
    out_of("flat", "supports");
    out_of("fill", "voids");
    j["leaves"] = Json::array({leaf});
}

/// Version 3 says which version it is; nothing else changed.
void says_version(Json&) {}

/// Version 1 of a slab called a dead knot so in its note; version 2 has a field for it.
void slab_to_2(Json& j) {
    if (!j.contains("flaws") || !j["flaws"].is_array()) return;
    for (Json& f : j["flaws"]) {
        if (!f.is_object() || f.value("kind", Json()) != "knot") continue;
        const Json note = f.value("note", Json());
        if (note.is_string() && note.get<std::string>().find("dead") != std::string::npos) f["loose"] = true;
    }
}

/// Version 4 knows a third way of resting, both faces wrapped, and one hollow of a joint where there were two.
void job_to_4(Json& j) {
    if (j.contains("makeup") && j["makeup"].is_object() && j["makeup"].contains("hollow_mm")) {
        const Json was = j["makeup"]["hollow_mm"];
        j["makeup"].erase("hollow_mm");
        if (!j.contains("join")) j["join"] = Json::object();
        if (Json& join = j["join"];
            was.is_number() && was.get<double>() > 0 && join.is_object() && join.value("spring", Json("straight")) != "hollow")
            join["spring"] = "hollow", join["spring_mm"] = was;
    }
    if (!j.contains("flat") || !j["flat"].is_object() || !j["flat"].contains("both_faces_to_air")) return;
    const Json was = j["flat"]["both_faces_to_air"];
    j["flat"].erase("both_faces_to_air");
    if (was.is_boolean()) j["flat"]["rests"] = was.get<bool>() ? "to_air" : "face_down";
}

const std::vector<Upgrade>& chain(Body kind) {
    static const std::vector<Upgrade> shop{says_version};
    static const std::vector<Upgrade> slab{slab_to_2};
    static const std::vector<Upgrade> job{job_to_2, says_version, job_to_4};
    return kind == Body::shop ? shop : kind == Body::slab ? slab : job;
}

}  // namespace

int version_of(Body kind) { return static_cast<int>(chain(kind).size()) + 1; }

int version_in(Body kind, const Json& body, const std::string& root) {
    if (!body.is_object()) throw FormatError(root, "an object { } is wanted here");
    const auto it = body.find("v");
    if (it == body.end()) return kind == Body::job && body.contains("leaves") ? 2 : 1;
    if (!it->is_number_integer() || it->get<std::int64_t>() < 1 || it->get<std::int64_t>() > 1000000)
        throw FormatError(root + ".v", "the version is a whole number from 1 on, not " + it->dump().substr(0, 40));
    return it->get<int>();
}

Json upgraded(Body kind, Json body, const std::string& root) {
    for (auto v = static_cast<std::size_t>(version_in(kind, body, root)); v < chain(kind).size() + 1; ++v) chain(kind)[v - 1](body);
    return body;
}

}  // namespace yb
