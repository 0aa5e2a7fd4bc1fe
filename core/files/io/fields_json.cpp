#include "core/files/io/fields_json.h"

#include <cmath>
#include <limits>

#include <fmt/format.h>

namespace yb {

namespace {

class Writer : public FieldVisitor {
  public:
    Json root = Json::object();
    /// @param bare writes which fields there are, without the long lists in them.
    explicit Writer(bool bare = false) : bare_(bare) { at_.push_back(&root); }
    void number(const NumberField& f, double& v) override { put(f.key, writable(f, v)); }
    void number(const NumberField& f, int& v) override { put(f.key, v); }
    void number(const NumberField& f, std::optional<double>& v) override {
        if (v) put(f.key, writable(f, *v));
    }
    void number(const NumberField& f, std::optional<int>& v) override {
        if (v) put(f.key, *v);
    }
    void numbers(const NumberField& f, std::vector<double>& v) override {
        if (bare_) return put(f.key, nullptr);
        Json list = Json::array();
        for (const double d : v) list.push_back(writable(f, d));
        put(f.key, std::move(list));
    }
    void numbers(const NumberField& f, std::vector<std::optional<double>>& v) override {
        if (bare_) return put(f.key, nullptr);
        Json list = Json::array();
        for (const auto& d : v) list.push_back(d ? Json(writable(f, *d)) : Json(nullptr));
        put(f.key, std::move(list));
    }
    void flag(const FieldName& f, bool& v) override { put(f.key, v); }
    void text(const FieldName& f, std::string& v) override { put(f.key, v); }
    void point(const FieldName& f, Vec2& v) override { put(f.key, Json{v.x, v.y}); }
    void ring(const FieldName& f, Ring& v) override {
        if (bare_) return put(f.key, nullptr);
        Json list = Json::array();
        for (const Vec2 p : v) list.push_back({p.x, p.y});
        put(f.key, std::move(list));
    }
    void option(const SchoolText& s, std::size_t& chosen) override {
        if (s.flag) put(s.key, chosen == s.yes);
        else put(s.key, s.options[chosen].key);
    }

  protected:
    bool enter(const FieldName& f) override {
        at_.push_back(&((*at_.back())[f.key] = Json::object()));
        return true;
    }
    bool enter_maybe(const FieldName& f, bool there) override { return there && enter(f); }
    std::size_t enter_list(const FieldName& f, std::size_t now) override {
        at_.push_back(&((*at_.back())[f.key] = Json::array()));
        // Places of items must not move while one is being written.
        at_.back()->get_ref<Json::array_t&>().resize(now, Json::object());
        return now;
    }
    void enter_item(std::size_t i) override { at_.push_back(&(*at_.back())[i]); }
    void leave() override { at_.pop_back(); }

  private:
    /// JSON has no infinity and no not-a-number: what plans take instead is written.
    static double writable(const NumberField& f, double v) {
        return std::isfinite(v) ? v : std::isnan(v) || v < 0 ? f.range.low : f.range.high;
    }
    template <class T>
    void put(const char* key, T&& v) {
        (*at_.back())[key] = std::forward<T>(v);
    }
    bool bare_;
    // An ordered object moves its members when it grows: only the innermost one, which is being written, grows.
    std::vector<Json*> at_;
};

class Reader : public FieldVisitor {
  public:
    Reader(const Json& from, const std::string& root) { at_.push_back({&from, root}); }

    void number(const NumberField& f, double& v) override {
        if (const Json* j = find(f.key, f.required)) v = real(*j, [&] { return std::string(f.key); });
    }
    void number(const NumberField& f, int& v) override {
        if (const Json* j = find(f.key, f.required)) v = whole(*j, f.key);
    }
    // What may be empty is never required: an empty one is not written.
    void number(const NumberField& f, std::optional<double>& v) override {
        const Json* j = find(f.key, false);
        v = j ? std::optional(real(*j, [&] { return std::string(f.key); })) : std::nullopt;
    }
    void number(const NumberField& f, std::optional<int>& v) override {
        const Json* j = find(f.key, false);
        v = j ? std::optional(whole(*j, f.key)) : std::nullopt;
    }
    void numbers(const NumberField& f, std::vector<double>& v) override {
        const Json* j = list(f.key, f.required);
        if (!j) return;
        v.clear();
        v.reserve(j->size());
        for (std::size_t i = 0; i < j->size(); ++i) v.push_back(real((*j)[i], [&] { return item(f.key, i); }));
    }
    void numbers(const NumberField& f, std::vector<std::optional<double>>& v) override {
        const Json* j = list(f.key, f.required);
        if (!j) return;
        v.clear();
        v.reserve(j->size());
        for (std::size_t i = 0; i < j->size(); ++i)
            v.push_back((*j)[i].is_null() ? std::nullopt : std::optional(real((*j)[i], [&] { return item(f.key, i); })));
    }
    void flag(const FieldName& f, bool& v) override {
        const Json* j = find(f.key, f.required);
        if (!j) return;
        if (!j->is_boolean()) fail(f.key, "true or false is wanted here, not " + shown(*j));
        v = j->get<bool>();
    }
    void text(const FieldName& f, std::string& v) override {
        const Json* j = find(f.key, f.required);
        if (!j) return;
        if (!j->is_string()) fail(f.key, "a text in quotes is wanted here, not " + shown(*j));
        v = j->get<std::string>();
    }
    void point(const FieldName& f, Vec2& v) override {
        if (const Json* j = find(f.key, f.required)) v = place(*j, [&] { return std::string(f.key); });
    }
    void ring(const FieldName& f, Ring& v) override {
        const Json* j = list(f.key, f.required);
        if (!j) return;
        v.clear();
        v.reserve(j->size());
        for (std::size_t i = 0; i < j->size(); ++i) v.push_back(place((*j)[i], [&] { return item(f.key, i); }));
    }
    void option(const SchoolText& s, std::size_t& chosen) override {
        const Json* j = find(s.key, false);
        if (!j) return;
        if (s.flag) {
            bool yes = false;
            flag({s.key, s.label}, yes);
            chosen = yes ? s.yes : 1 - s.yes;
            return;
        }
        std::string word;
        text({s.key, s.label}, word);
        std::string all;
        for (std::size_t i = 0; i < s.options.size(); ++i) {
            if (word == s.options[i].key) {
                chosen = i;
                return;
            }
            all += std::string(i ? ", " : "") + s.options[i].key;
        }
        fail(s.key, fmt::format("‘{}’ is not known; one of: {}", word, all));
    }
    void wrong(const char* key, const std::string& what) override { fail(key, what); }

  protected:
    bool enter(const FieldName& f) override {
        const Json* j = find(f.key, f.required);
        if (!j) return false;
        if (!j->is_object()) fail(f.key, "an object { } is wanted here");
        at_.push_back({j, path(f.key)});
        return true;
    }
    bool enter_maybe(const FieldName& f, bool) override { return enter(f); }
    std::size_t enter_list(const FieldName& f, std::size_t now) override {
        const Json* j = list(f.key, f.required);
        at_.push_back({j, path(f.key)});
        return j ? j->size() : now;
    }
    void enter_item(std::size_t i) override {
        const auto& [j, p] = at_.back();
        const Json* one = j ? &(*j)[i] : nullptr;
        std::string where = fmt::format("{}[{}]", p, i);
        if (one && !one->is_object()) throw FormatError(where, "an object { } is wanted here");
        at_.push_back({one, std::move(where)});
    }
    void leave() override { at_.pop_back(); }

  private:
    std::string path(const std::string& key) const { return at_.back().second + "." + key; }
    static std::string item(const char* key, std::size_t i) { return fmt::format("{}[{}]", key, i); }
    [[noreturn]] void fail(const std::string& key, const std::string& what) const { throw FormatError(path(key), what); }
    static std::string shown(const Json& j) { return j.dump(-1, ' ', false, Json::error_handler_t::replace).substr(0, 40); }

    /// The value of a field; nullptr where there is none, or null stands there.
    const Json* find(const char* key, bool required) const {
        const Json* j = at_.back().first;
        if (!j) return nullptr;
        if (!j->is_object()) throw FormatError(at_.back().second, "an object { } is wanted here");
        const auto it = j->find(key);
        if (it == j->end() || it->is_null()) {
            if (required) throw FormatError(at_.back().second, fmt::format("the field ‘{}’ is missing", key));
            return nullptr;
        }
        return &*it;
    }
    const Json* list(const char* key, bool required) const {
        const Json* j = find(key, required);
        if (j && !j->is_array()) fail(key, "a list [ ] is wanted here");
        return j;
    }
    /// @param key makes the field's place, for the sentence: asked only where something is wrong.
    template <class Key>
    double real(const Json& j, Key key) const {
        if (!j.is_number()) fail(key(), "a number is wanted here, not " + shown(j));
        const double v = j.get<double>();
        if (!std::isfinite(v)) fail(key(), "the number is too large");
        return v;
    }
    int whole(const Json& j, const std::string& key) const {
        if (!j.is_number_integer()) fail(key, "a whole number is wanted here, not " + shown(j));
        const bool fits = j.is_number_unsigned() ? j.get<std::uint64_t>() <= static_cast<std::uint64_t>(std::numeric_limits<int>::max())
                                                 : j.get<std::int64_t>() >= std::numeric_limits<int>::min() &&
                                                       j.get<std::int64_t>() <= std::numeric_limits<int>::max();
        if (!fits) fail(key, "the number is too large to count with: " + shown(j));
        return j.get<int>();
    }
    template <class Key>
    Vec2 place(const Json& j, Key key) const {
        if (!j.is_array() || j.size() != 2) fail(key(), "a point is two numbers [x, y]");
        return {real(j[0], [&] { return key() + "[0]"; }), real(j[1], [&] { return key() + "[1]"; })};
    }

    std::vector<std::pair<const Json*, std::string>> at_;
};

/// What tells an item of a list from its neighbours.
const Json* name_of(const Json& item) {
    for (const char* key : {"id", "key", "flaw_id"})
        if (const auto it = item.is_object() ? item.find(key) : item.end(); item.is_object() && it != item.end() && it->is_string())
            return &*it;
    return nullptr;
}

}  // namespace

Json write_fields(const FieldWalk& walk) {
    Writer w;
    walk(w);
    return std::move(w.root);
}

void read_fields(const Json& from, const std::string& root, const FieldWalk& into) {
    if (!from.is_object()) throw FormatError(root, "an object { } is wanted here");
    Reader r(from, root);
    into(r);
}

Json known_fields(const FieldWalk& walk) {
    Writer w(true);
    walk(w);
    return std::move(w.root);
}

Json left_over(const Json& body, const Json& written) {
    Json out;
    if (body.is_object() && written.is_object()) {
        for (const auto& [key, value] : body.items()) {
            if (value.is_null()) continue;
            const auto it = written.find(key);
            if (it == written.end()) {
                out[key] = value;
            } else if (Json inner = left_over(value, *it); !inner.is_null()) {
                out[key] = std::move(inner);
            }
        }
    } else if (body.is_array() && written.is_array() && body.size() == written.size() && !body.empty() && body[0].is_object()) {
        Json list = Json::array();
        bool any = false;
        for (std::size_t i = 0; i < body.size(); ++i) {
            Json inner = left_over(body[i], written[i]);
            if (!inner.is_null()) {
                any = true;
                if (const Json* name = name_of(written[i])) inner["@"] = *name;
            }
            list.push_back(std::move(inner));
        }
        if (any) out = std::move(list);
    }
    return out;
}

void put_back(Json& written, const Json& extra) {
    if (written.is_object() && extra.is_object()) {
        for (const auto& [key, value] : extra.items()) {
            if (key == "@") continue;
            const auto it = written.find(key);
            if (it == written.end()) written[key] = value;
            else put_back(*it, value);
        }
    } else if (written.is_array() && extra.is_array()) {
        for (std::size_t i = 0; i < extra.size(); ++i) {
            if (!extra[i].is_object()) continue;
            const auto name = extra[i].find("@");
            if (name == extra[i].end()) {
                if (i < written.size() && !name_of(written[i])) put_back(written[i], extra[i]);
                continue;
            }
            for (Json& item : written)
                if (const Json* n = name_of(item); n && *n == *name) put_back(item, extra[i]);
        }
    }
}

}  // namespace yb
