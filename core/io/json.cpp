#include "core/io/json.h"

#include <algorithm>

#include <fmt/format.h>

#include "core/io/upgrade.h"
#include "core/job/job.h"
#include "core/job/shop.h"

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
