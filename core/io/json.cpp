#include "core/io/json.h"

#include <algorithm>

#include <fmt/format.h>
#include <sodium.h>

#include "core/io/upgrade.h"

namespace yb {
namespace {

template <class T>
Json written(Body kind, const T& v) {
    T copy = v;
    Json j{{"v", version_of(kind)}};
    const Json body = write_fields(walk_of(copy));
    for (const auto& [key, value] : body.items()) j[key] = value;
    if (!v.kept.empty()) put_back(j, Json::parse(v.kept, nullptr, false));
    return j;
}

template <class T>
T read(Body kind, const Json& j, const char* root) {
    const bool old = version_in(kind, j, root) < version_of(kind);
    const Json made_new = old ? upgraded(kind, j, root) : Json();
    const Json& body = old ? made_new : j;
    T v;
    read_fields(body, root, walk_of(v));
    Json known = known_fields(walk_of(v));
    known["v"] = nullptr;
    if (const Json extra = left_over(body, known); !extra.is_null()) v.kept = extra.dump();
    return v;
}

}  // namespace

Json to_json(const Shop& s) { return written(Body::shop, s); }
Json to_json(const Slab& s) { return written(Body::slab, s); }
Json to_json(const Job& j) { return written(Body::job, j); }

Shop shop_from_json(const Json& j) {
    Shop s = read<Shop>(Body::shop, j, "shop");
    if (s.resins.empty()) s.resins = starting_resins();
    return s;
}

Slab slab_from_json(const Json& j) { return read<Slab>(Body::slab, j, "slab"); }

Job job_from_json(const Json& j) {
    Job v = read<Job>(Body::job, j, "job");
    if (v.leaves.empty()) throw FormatError("job.leaves", "a top has one leaf at least");
    return v;
}

std::string write_job_file(const JobFile& f) {
    Json slabs = Json::array();
    for (const Slab& s : f.slabs) slabs.push_back(to_json(s));
    Json pictures = Json::object();
    for (const auto& [key, bytes] : f.pictures) pictures[key] = bytes;
    return Json{{"format", "young-burl job"}, {"version", 2},           {"job", to_json(f.job)}, {"slabs", slabs},
                {"pictures", pictures},       {"shop", to_json(f.shop)}}
        .dump(1);
}

JobFile job_file(const Documents& docs, const std::string& id,
                 const std::function<std::optional<std::string>(const std::string&)>& attachment) {
    JobFile f{docs.jobs.at(id), {}, {}, docs.shop};
    for (const std::string& slab : f.job.slabs()) {
        const auto it = docs.slabs.find(slab);
        if (it == docs.slabs.end()) continue;
        f.slabs.push_back(it->second);
        for (const auto& picture : {it->second.picture_a, it->second.picture_b}) {
            const auto bytes = picture ? attachment(picture->key) : std::nullopt;
            if (!bytes) continue;
            std::string text(sodium_base64_encoded_len(bytes->size(), sodium_base64_VARIANT_ORIGINAL), '\0');
            sodium_bin2base64(text.data(), text.size(), reinterpret_cast<const unsigned char*>(bytes->data()), bytes->size(),
                              sodium_base64_VARIANT_ORIGINAL);
            text.pop_back();  // its closing nought
            f.pictures[picture->key] = std::move(text);
        }
    }
    return f;
}

std::string from_base64(const std::string& text) {
    std::string out(text.size() / 4 * 3 + 3, '\0');
    std::size_t n = 0;
    if (sodium_base642bin(reinterpret_cast<unsigned char*>(out.data()), out.size(), text.data(), text.size(), "\r\n ", &n, nullptr,
                          sodium_base64_VARIANT_ORIGINAL) != 0)
        throw FormatError("pictures", "a picture is not written as base64");
    out.resize(n);
    return out;
}

JobFile read_job_file(const std::string& text) {
    const Json j = parse_json(text);
    if (!j.is_object() || !j.contains("format") || j["format"] != "young-burl job")
        throw FormatError("", "this is not a job file: its first field has to be \"format\": \"young-burl job\"");
    if (!j.contains("version") || !j["version"].is_number_integer() || j["version"] < 1 || j["version"] > 2)
        throw FormatError("version", "only versions 1 and 2 can be read; this file is newer than the program");
    const bool first = j["version"] == 1;
    for (const char* part : {"job", first ? "slab" : "slabs"})
        if (!j.contains(part)) throw FormatError(part, "the file has none");
    JobFile f{job_from_json(j["job"]), {}, {}, j.contains("shop") ? shop_from_json(j["shop"]) : Shop()};
    if (first) {
        f.slabs.push_back(slab_from_json(j["slab"]));
    } else {
        if (!j["slabs"].is_array() || j["slabs"].empty()) throw FormatError("slabs", "a list [ ] of one slab at least is wanted here");
        for (std::size_t i = 0; i < j["slabs"].size(); ++i) {
            try {
                f.slabs.push_back(slab_from_json(j["slabs"][i]));
            } catch (const FormatError& e) {  // its path is told from the file's own field
                const std::string inside = e.where().substr(std::min<std::size_t>(e.where().size(), 4));
                throw FormatError(fmt::format("slabs[{}]{}", i, inside), std::string(e.what()).substr(e.where().size() + 2));
            }
        }
    }
    if (j.contains("pictures")) {
        if (!j["pictures"].is_object()) throw FormatError("pictures", "an object { } is wanted here");
        for (const auto& [key, value] : j["pictures"].items()) {
            if (!value.is_string()) throw FormatError("pictures." + key, "a text in quotes is wanted here");
            f.pictures[key] = value.get<std::string>();
        }
    }
    for (const Leaf& l : f.job.leaves)
        if (!l.slab.empty() && std::none_of(f.slabs.begin(), f.slabs.end(), [&](const Slab& s) { return s.id == l.slab; }))
            throw FormatError("job.leaves", "the slab ‘" + l.slab + "’ of a leaf is not in the file");
    return f;
}

Json parse_json(const std::string& text) {
    try {
        return Json::parse(text);
    } catch (const Json::parse_error& e) {
        const std::size_t at = e.byte > 0 ? std::min<std::size_t>(e.byte - 1, text.size()) : 0;
        std::size_t line = 1;
        std::size_t column = 1;
        for (std::size_t i = 0; i < at; ++i) text[i] == '\n' ? (++line, column = 1) : ++column;
        throw FormatError(fmt::format("line {}, column {}", line, column),
                          at >= text.size() ? "the file ends too early: it was cut short"
                                            : "this is not JSON; a bracket, comma or quote is missing near here");
    } catch (const Json::exception& e) {  // a number beyond all bounds
        const std::string what = e.what();
        const auto quote = what.find('\'');
        throw FormatError("a number in it is too large to be one" + (quote == std::string::npos ? "" : ": " + what.substr(quote)));
    }
}

}  // namespace yb
