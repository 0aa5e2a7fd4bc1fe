#include "core/ground/fields/walk.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include <fmt/format.h>

namespace yb {

bool PathVisitor::enter(const FieldName& f) {
    marks_.push_back(path_.size());
    path_ = path(f.key);
    return true;
}
bool PathVisitor::enter_maybe(const FieldName& f, bool there) { return there && PathVisitor::enter(f); }
std::size_t PathVisitor::enter_list(const FieldName& f, std::size_t now) {
    PathVisitor::enter(f);
    return now;
}
void PathVisitor::enter_item(std::size_t i) {
    marks_.push_back(path_.size());
    path_ += "[" + std::to_string(i) + "]";
}
void PathVisitor::leave() {
    path_.resize(marks_.back());
    marks_.pop_back();
}

namespace {

/// True when a path leads to `asked`, in which `[]` stands for any item.
bool leads_to(const std::string& path, const std::string& asked) {
    std::size_t i = 0;
    std::size_t k = 0;
    while (i < path.size() && k < asked.size()) {
        if (asked[k] == '[' && k + 1 < asked.size() && asked[k + 1] == ']' && path[i] == '[') {
            i = path.find(']', i) + 1;
            k += 2;
        } else if (path[i++] != asked[k++]) {
            return false;
        }
    }
    return i == path.size() && k == asked.size();
}

class NumberVisitor : public PathVisitor {
  public:
    NumberVisitor(const std::string& asked, bool set, std::optional<double> to, bool declared = false)
        : asked_(asked), set_(set), declared_(declared), to_(to) {}
    NumberAt found;
    std::size_t count = 0;

    void number(const NumberField& f, double& v) override {
        if (!here_is(f)) return;
        note(f, v);
        if (set_ && to_) v = *to_, ++count;
    }
    void number(const NumberField& f, int& v) override {
        if (!here_is(f)) return;
        found.whole = true;
        note(f, v);
        if (set_ && to_) v = static_cast<int>(std::lround(std::clamp(*to_, -2e9, 2e9))), ++count;
    }
    void number(const NumberField& f, std::optional<double>& v) override {
        if (!here_is(f)) return;
        found.may_be_empty = true;
        note(f, v);
        if (set_) v = to_, ++count;
    }
    void number(const NumberField& f, std::optional<int>& v) override {
        if (!here_is(f)) return;
        found.may_be_empty = found.whole = true;
        note(f, v ? std::optional<double>(*v) : std::nullopt);
        if (!set_) return;
        v = to_ ? std::optional(static_cast<int>(std::lround(std::clamp(*to_, -2e9, 2e9)))) : std::nullopt;
        ++count;
    }

  private:
    bool here_is(const NumberField& f) const {
        const std::size_t key = std::char_traits<char>::length(f.key);
        return asked_.size() >= key && asked_.compare(asked_.size() - key, key, f.key) == 0 && leads_to(path(f.key), asked_);
    }
    void note(const NumberField& f, std::optional<double> v) {
        if (found.there) return;
        found.there = true;
        found.field = f;
        found.value = v;
    }
    bool describes() const override { return declared_; }
    const std::string& asked_;
    bool set_, declared_;
    std::optional<double> to_;
};

class OptionVisitor : public PathVisitor {
  public:
    explicit OptionVisitor(std::function<void(const std::string&, const SchoolText&, std::size_t&)> at) : at_(std::move(at)) {}
    void option(const SchoolText& s, std::size_t& chosen) override { at_(path(s.key), s, chosen); }

  private:
    std::function<void(const std::string&, const SchoolText&, std::size_t&)> at_;
};

class Holder : public PathVisitor {
  public:
    std::vector<OutOfRange> out;
    void number(const NumberField& f, double& v) override { hold(f, v); }
    void number(const NumberField& f, int& v) override {
        double d = v;
        if (hold(f, d)) v = static_cast<int>(d);
    }
    void number(const NumberField& f, std::optional<double>& v) override {
        if (v) hold(f, *v);
    }
    void number(const NumberField& f, std::optional<int>& v) override {
        if (!v) return;
        int i = *v;
        number(f, i);
        v = i;
    }
    void numbers(const NumberField& f, std::vector<double>& v) override {
        for (double& d : v) hold(f, d);
    }
    void numbers(const NumberField& f, std::vector<std::optional<double>>& v) override {
        for (auto& d : v)
            if (d) hold(f, *d);
    }
    void point(const FieldName& f, Vec2& v) override {
        const NumberField place{f.key, f.label, Kind::length, reach};
        hold(place, v.x), hold(place, v.y);
    }
    void ring(const FieldName& f, Ring& v) override {
        for (Vec2& q : v) point(f, q);
    }

  private:
    bool hold(const NumberField& f, double& v) {
        if (f.range.holds(v)) return false;
        const double held = std::isnan(v) ? f.range.low : std::clamp(v, f.range.low, f.range.high);
        out.push_back({path(f.key), f.label, f.kind, f.range, v, held});
        v = held;
        return true;
    }
};

const char* measures(Kind k) {
    switch (k) {
        case Kind::length:
        case Kind::fine:
        case Kind::along: return "mm";
        case Kind::area: return "m²";
        case Kind::volume: return "L";
        case Kind::mass: return "kg";
        case Kind::temperature: return "°C";
        case Kind::percent: return "%";
        case Kind::hours: return "h";
        case Kind::angle: return "degrees";
        case Kind::count: return "count";
        case Kind::number: break;
    }
    return "number";
}

class Describer : public PathVisitor {
  public:
    std::vector<FieldLine> lines;
    void number(const NumberField& f, double&) override { line(f, ""); }
    void number(const NumberField& f, int&) override { line(f, ", whole"); }
    void number(const NumberField& f, std::optional<double>&) override { line(f, ", may be null"); }
    void number(const NumberField& f, std::optional<int>&) override { line(f, ", whole, may be null"); }
    void numbers(const NumberField& f, std::vector<double>&) override { line(f, ", a list"); }
    void numbers(const NumberField& f, std::vector<std::optional<double>>&) override { line(f, ", a list, null where not read"); }
    void flag(const FieldName& f, bool&) override { put(f.key, f.label, "true or false"); }
    void text(const FieldName& f, std::string&) override { put(f.key, f.label, "text"); }
    void point(const FieldName& f, Vec2&) override {
        put(f.key, f.label, fmt::format("[x, y] in mm, {:g} to {:g}", reach.low, reach.high));
    }
    void ring(const FieldName& f, Ring&) override {
        put(f.key, f.label, fmt::format("[[x, y], …] in mm, {:g} to {:g}", reach.low, reach.high));
    }
    void option(const SchoolText& s, std::size_t&) override {
        std::string what = s.flag ? std::string("true: ") + s.options[s.yes].label + ", false: " + s.options[1 - s.yes].label : "one of";
        if (!s.flag)
            for (const OptionName& o : s.options) what += std::string(" ") + o.key;
        put(s.key, s.label, std::move(what));
    }

  protected:
    bool describes() const override { return true; }
    bool enter_maybe(const FieldName& f, bool) override { return PathVisitor::enter(f); }
    void enter_item(std::size_t) override { PathVisitor::enter_item(0); }

  private:
    void line(const NumberField& f, const char* more) {
        const auto bound = [](double v) { return std::abs(v) >= 1e9 ? std::string("any") : fmt::format("{:g}", v); };
        const bool bounded = std::abs(f.range.low) < 1e9 || std::abs(f.range.high) < 1e9;
        put(f.key, f.label, measures(f.kind) + (bounded ? ", " + bound(f.range.low) + " to " + bound(f.range.high) : std::string()) + more);
    }
    void put(const char* key, const char* label, std::string what) {
        std::string p = path(key);
        for (std::size_t at = p.find("[0]"); at != std::string::npos; at = p.find("[0]")) p.erase(at + 1, 1);
        if (std::none_of(lines.begin(), lines.end(), [&](const FieldLine& l) { return l.path == p; }))
            lines.push_back({std::move(p), label, std::move(what)});
    }
};

}  // namespace

NumberAt number_at(const FieldWalk& walk, const std::string& path) {
    NumberVisitor v(path, false, {});
    walk(v);
    return v.found;
}

NumberAt declared_at(const FieldWalk& walk, const std::string& path) {
    NumberVisitor v(path, false, {}, true);
    walk(v);
    if (!v.found.there) throw std::out_of_range("there is no number at ‘" + path + "’");
    return v.found;
}

std::size_t set_number(const FieldWalk& walk, const std::string& path, std::optional<double> value) {
    NumberVisitor v(path, true, value);
    walk(v);
    return v.count;
}

OptionAt option_at(const FieldWalk& walk, const std::string& path) {
    OptionAt out;
    OptionVisitor v([&](const std::string& at, const SchoolText& s, std::size_t& chosen) {
        if (!out.there && leads_to(at, path)) out = {true, s, chosen};
    });
    walk(v);
    return out;
}

bool set_option(const FieldWalk& walk, const std::string& path, std::size_t to) {
    bool done = false;
    OptionVisitor v([&](const std::string& at, const SchoolText& s, std::size_t& chosen) {
        if (leads_to(at, path) && to < s.options.size()) chosen = to, done = true;
    });
    walk(v);
    return done;
}

bool set_school(const FieldWalk& walk, const std::string& choice, const std::string& option) {
    bool done = false;
    OptionVisitor v([&](const std::string&, const SchoolText& s, std::size_t& chosen) {
        if (!s.choice || choice != s.choice) return;
        for (std::size_t i = 0; i < s.options.size(); ++i)
            if (option == s.options[i].key) chosen = i, done = true;
    });
    walk(v);
    return done;
}

std::vector<OutOfRange> hold_in_range(const FieldWalk& walk) {
    Holder v;
    walk(v);
    return std::move(v.out);
}

std::vector<FieldLine> describe(const FieldWalk& walk) {
    Describer v;
    walk(v);
    return std::move(v.lines);
}

std::string table_of(const std::vector<FieldLine>& fields) {
    std::string out;
    for (const FieldLine& l : fields) out += fmt::format("  {:<36} {}\n", l.path, l.what);
    return out;
}

}  // namespace yb
