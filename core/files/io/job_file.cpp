#include "core/files/io/job_file.h"
#include "core/files/io/job_text.h"

#include <algorithm>

#include <fmt/format.h>
#include <sodium.h>

#include "core/files/io/json.h"
#include "core/ground/file/digest.h"
#include "core/shop/edit/edits.h"
#include "core/shop/edit/slab_edits.h"

namespace yb {

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
    const auto keep = [&](const std::string& key) {
        const auto bytes = key.empty() ? std::nullopt : attachment(key);
        if (!bytes) return;
        std::string text(sodium_base64_encoded_len(bytes->size(), sodium_base64_VARIANT_ORIGINAL), '\0');
        sodium_bin2base64(text.data(), text.size(), reinterpret_cast<const unsigned char*>(bytes->data()), bytes->size(),
                          sodium_base64_VARIANT_ORIGINAL);
        text.pop_back();  // its closing nought
        f.pictures[key] = std::move(text);
    };
    keep(f.job.skin.sample_picture);
    for (const std::string& slab : f.job.slabs()) {
        const auto it = docs.slabs.find(slab);
        if (it == docs.slabs.end()) continue;
        f.slabs.push_back(it->second);
        for (const auto& picture : {it->second.picture_a, it->second.picture_b})
            if (picture) keep(picture->key);
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

std::string take_job_file(Documents& docs, JobFile f, const std::function<std::optional<std::string>(const std::string&)>& kept,
                          std::vector<std::pair<std::string, std::string>>& pictures) {
    const auto take = [&](std::string& key) {
        const auto it = f.pictures.find(key);
        if (it == f.pictures.end()) return;
        std::string bytes = from_base64(it->second);
        if (const auto there = kept(key); there && *there != bytes) key = attachment_key(bytes);
        pictures.emplace_back(key, std::move(bytes));
    };
    take(f.job.skin.sample_picture);
    for (Slab& slab : f.slabs) {
        const std::string was = slab.id;
        if (docs.slabs.count(slab.id) && !(docs.slabs.at(slab.id) == slab)) slab.id = fresh_id("slab", docs);
        for (auto* picture : {&slab.picture_a, &slab.picture_b})
            if (*picture) take((*picture)->key);
        slab.scan.clear();  // the cloud stayed behind; the heights taken from it are here
        take_instead(f.job, was, slab.id);
        docs.slabs[slab.id] = slab;
    }
    if (docs.jobs.count(f.job.id)) f.job.id = fresh_id("job", docs);
    docs.jobs[f.job.id] = f.job;
    return f.job.id;
}

std::string job_text(const Documents& docs, const std::string& job,
                     const std::function<std::optional<std::string>(const std::string& key)>& attachment) {
    return write_job_file(job_file(docs, job, attachment));
}

}  // namespace yb
