// Whatever the program can write it reads back: every field of every list, at both ends of its range, and each that may be
// empty absent, null and at both ends – in a job file and in a shop.
#include <catch2/catch.hpp>

#include <filesystem>
#include <limits>

#include <fmt/format.h>

#include "core/files/io/job_file.h"
#include "core/files/io/json.h"
#include "core/files/store/store.h"
#include "core/ground/fields/walk.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/documents_of.h"
#include "tests/everything.h"

using namespace yb;
namespace fs = std::filesystem;

namespace {

/// Puts something into every field: an item into each list, an object wherever one may be, numbers at one end.
class Filler : public PathVisitor {
  public:
    enum class At { low, high, empty } at;
    explicit Filler(At where) : at(where) {}
    void number(const NumberField& f, double& v) override { v = end(f); }
    void number(const NumberField& f, int& v) override { v = static_cast<int>(end(f)); }
    void number(const NumberField& f, std::optional<double>& v) override { v = at == At::empty ? std::nullopt : std::optional(end(f)); }
    void number(const NumberField& f, std::optional<int>& v) override {
        v = at == At::empty ? std::nullopt : std::optional(static_cast<int>(end(f)));
    }
    void numbers(const NumberField& f, std::vector<double>& v) override { v = {end(f)}; }
    void numbers(const NumberField& f, std::vector<std::optional<double>>& v) override {
        v = {at == At::empty ? std::nullopt : std::optional(end(f))};
    }
    void flag(const FieldName&, bool& v) override { v = at == At::high; }
    void text(const FieldName& f, std::string& v) override {
        v = std::string(f.key) == "id" || std::string(f.key) == "slab" ? "x" : "ä \"{}\"\n";
    }
    void point(const FieldName&, Vec2& v) override { v = {reach.low, reach.high}; }
    void ring(const FieldName&, Ring& v) override { v = {{reach.low, 0}, {0, reach.high}}; }
    void option(const SchoolText& s, std::size_t& chosen) override { chosen = at == At::low ? 0 : s.options.size() - 1; }

  protected:
    bool enter_maybe(const FieldName& f, bool) override { return PathVisitor::enter(f); }
    std::size_t enter_list(const FieldName& f, std::size_t now) override {
        PathVisitor::enter(f);
        return std::max<std::size_t>(now, 1);
    }

  private:
    double end(const NumberField& f) const { return at == At::high ? f.range.high : f.range.low; }
};

JobFile filled(Filler::At at) {
    JobFile f;
    f.slabs.emplace_back();
    Filler fill(at);
    fields(fill, f.job);
    fields(fill, f.slabs[0]);
    fields(fill, f.shop);
    return f;
}

Documents through_a_shop(const Documents& d) {
    const fs::path dir = fs::temp_directory_path() / "yb-every-field";
    fs::remove_all(dir);
    fs::create_directories(dir);
    const std::string path = (dir / "a.shop").string();
    { Store::create(path, d, "Every field"); }
    const Documents back = Store::open(path).documents();
    fs::remove_all(dir);
    return back;
}

/// The object that holds a field, of the first item of every list on the way.
Json& holder(Json& body, const std::string& path, std::string& key) {
    Json* at = &body;
    std::size_t from = 0;
    for (std::size_t dot = path.find('.'); dot != std::string::npos; from = dot + 1, dot = path.find('.', from)) {
        std::string name = path.substr(from, dot - from);
        const bool list = name.size() > 2 && name.substr(name.size() - 2) == "[]";
        if (list) name.resize(name.size() - 2);
        at = &at->at(name);
        if (list) at = &at->at(0);
    }
    key = path.substr(from);
    return *at;
}

template <class T>
void each_that_may_be_empty(T filled, T (*read)(const Json&)) {
    int looked_at = 0;
    for (const FieldLine& line : describe(walk_of(filled))) {
        if (line.what.find("may be null") == std::string::npos) continue;
        INFO(line.path);
        ++looked_at;
        const NumberField field = declared_at(walk_of(filled), line.path).field;
        Json body = to_json(filled);
        std::string key;
        Json& in = holder(body, line.path, key);
        const auto value = [&] {
            T back = read(body);
            CHECK(back.kept.empty());
            return number_at(walk_of(back), line.path).value;
        };
        in.erase(key);
        CHECK_FALSE(value());
        in[key] = nullptr;
        CHECK_FALSE(value());
        for (const double end : {field.range.low, field.range.high}) {
            if (declared_at(walk_of(filled), line.path).whole) in[key] = static_cast<int>(end);
            else in[key] = end;
            REQUIRE(value());
            CHECK(*value() == end);
        }
    }
    CHECK(looked_at > 3);
}

}  // namespace

TEST_CASE("every field of every list comes back from a job file and from a shop, at both ends and empty", "[io][store]") {
    for (const auto at : {Filler::At::low, Filler::At::high, Filler::At::empty}) {
        INFO(static_cast<int>(at));
        const JobFile f = filled(at);
        const JobFile back = read_job_file(write_job_file(f));
        CHECK(back.job == f.job);
        CHECK(back.slabs == f.slabs);
        CHECK(back.shop == f.shop);
        const Documents d = documents_of(f);
        CHECK(through_a_shop(d) == d);
    }
}

TEST_CASE("what may be empty is read absent, null and at both ends of its range", "[io]") {
    const JobFile f = filled(Filler::At::high);
    each_that_may_be_empty(f.job, job_from_json);
    each_that_may_be_empty(f.slabs[0], slab_from_json);
    each_that_may_be_empty(f.shop, shop_from_json);
}

TEST_CASE("a joint gap typed without a squareness is there tomorrow", "[io][store]") {
    Documents d = documents_of(filled(Filler::At::high));
    d.jobs.at("x").join.gaps = {{1, 0, 0.4, EdgeRead::together, {}}};
    CHECK(through_a_shop(d) == d);
}

TEST_CASE("numbers that JSON does not know are written as what plans take instead, and empty lists stay empty", "[io]") {
    Job job;
    job.id = "x";
    job.top.length_mm = std::nan("");
    job.top.width_mm = std::numeric_limits<double>::infinity();
    job.under.day_moisture_pct = std::nan("");
    Slab slab;
    slab.id = "x";
    slab.heights_a = {{std::nan("")}, {0}, {-std::numeric_limits<double>::infinity()}};
    const Job back = job_from_json(parse_json(to_json(job).dump()));
    CHECK(back.top.length_mm == declared_at(walk_of(job), "top.length_mm").field.range.low);
    CHECK(back.top.width_mm == declared_at(walk_of(job), "top.width_mm").field.range.high);
    CHECK(back.under.day_moisture_pct == 0);
    CHECK_NOTHROW(slab_from_json(parse_json(to_json(slab).dump())));
    Shop shop;
    shop.resins.clear();
    shop.sections.clear();
    shop.bushings_mm.clear();
    CHECK(shop_from_json(parse_json(to_json(shop).dump())) == shop);
}
