#include "core/files/io/json.h"

#include <algorithm>

#include <fmt/format.h>
#include <simdjson.h>

#include "core/files/io/upgrade.h"
#include "core/ground/file/file.h"
#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"

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
    if (const Json extra = left_over(body, known); !extra.is_null())
        v.kept = nlohmann::json(extra).dump();  // by name: the same whatever order it came in
    return v;
}

}  // namespace

Json to_json(const Shop& s) { return written(Body::shop, s); }
Json to_json(const Slab& s) { return written(Body::slab, s); }
Json to_json(const Job& j) { return written(Body::job, j); }

Shop shop_from_json(const Json& j) { return read<Shop>(Body::shop, j, "shop"); }

Slab slab_from_json(const Json& j) { return read<Slab>(Body::slab, j, "slab"); }

Job job_from_json(const Json& j) {
    Job v = read<Job>(Body::job, j, "job");
    if (v.leaves.empty()) throw FormatError("job.leaves", "a top has one leaf at least");
    return v;
}

namespace {

/// Line and column of a byte, for a sentence.
std::string place_in(const std::string& text, std::size_t at) {
    std::size_t line = 1;
    std::size_t column = 1;
    for (std::size_t i = 0; i < std::min(at, text.size()); ++i) text[i] == '\n' ? (++line, column = 1) : ++column;
    return fmt::format("line {}, column {}", line, column);
}

/// How deep it nests and how many values it holds, looked at before memory is asked for.
void check_size(const std::string& text) {
    if (text.size() > most_json_bytes) throw FormatError(fmt::format("the text is longer than {} MB", most_json_bytes >> 20));
    int depth = 0;
    std::size_t values = 0;
    bool quoted = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (quoted) {
            if (c == '\\') ++i;
            else if (c == '"') quoted = false;
            continue;
        }
        if (c == '"') quoted = true;
        else if (c == '[' || c == '{') {
            if (++depth > most_json_depth)
                throw FormatError(place_in(text, i), fmt::format("lists and objects are nested more than {} deep", most_json_depth));
            ++values;
        } else if (c == ']' || c == '}') {
            --depth;
        } else if (c == ',') {
            ++values;
        }
        if (values > most_json_values)
            throw FormatError(place_in(text, i), fmt::format("more than {} million values are not read", most_json_values / 1000000));
    }
}

/// The same document as the library reads it that gives places for errors, several times as fast.
Json copied(const simdjson::dom::element& e) {
    using T = simdjson::dom::element_type;
    switch (e.type()) {
        case T::OBJECT: {
            Json out = Json::object();
            auto& members = out.get_ref<Json::object_t&>();
            const simdjson::dom::object object = e.get_object();
            members.reserve(object.size());
            for (const auto& [key, value] : object) {
                const auto twice = std::find_if(members.begin(), members.end(), [&k = key](const auto& m) { return m.first == k; });
                if (twice == members.end()) members.emplace_back(std::string(key), copied(value));
                else twice->second = copied(value);
            }
            return out;
        }
        case T::ARRAY: {
            Json out = Json::array();
            auto& items = out.get_ref<Json::array_t&>();
            const simdjson::dom::array array = e.get_array();
            items.reserve(array.size());
            for (const simdjson::dom::element item : array) items.push_back(copied(item));
            return out;
        }
        case T::INT64: {
            const std::int64_t v = e.get_int64();
            return v < 0 ? Json(v) : Json(static_cast<std::uint64_t>(v));
        }
        case T::UINT64: return Json(std::uint64_t{e.get_uint64()});
        case T::DOUBLE: return Json(double{e.get_double()});
        case T::STRING: return Json(std::string(std::string_view(e.get_string())));
        case T::BOOL: return Json(bool{e.get_bool()});
        default: return Json(nullptr);
    }
}

}  // namespace

Json parse_json(const std::string& text) {
    check_size(text);
    {
        // It keeps the room that its largest document took: a small one is kept for the many bodies of a shop.
        thread_local simdjson::dom::parser small;
        simdjson::dom::parser large;
        simdjson::dom::element root;
        if ((text.size() < std::size_t{1} << 20 ? small : large).parse(text).get(root) == simdjson::SUCCESS) return copied(root);
    }
    // What it does not take is read again, for the place and the kind of the mistake.
    try {
        return Json::parse(text);
    } catch (const Json::parse_error& e) {
        const std::size_t at = e.byte > 0 ? std::min<std::size_t>(e.byte - 1, text.size()) : 0;
        throw FormatError(place_in(text, at), at >= text.size() ? "the file ends too early: it was cut short"
                                                                : "this is not JSON; a bracket, comma or quote is missing near here");
    } catch (const Json::exception& e) {  // a number beyond all bounds
        const std::string what = e.what();
        const auto quote = what.find('\'');
        throw FormatError("a number in it is too large to be one" + (quote == std::string::npos ? "" : ": " + what.substr(quote)));
    }
}

}  // namespace yb
