// Rules of the house that a compiler does not hold.
#include <algorithm>
#include <filesystem>
#include <fstream>
#include <iterator>
#include <map>
#include <regex>
#include <set>
#include <sstream>

#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/headlines.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/house/text_of.h"

using namespace yb;
namespace fs = std::filesystem;

namespace {

const fs::path source = YB_SOURCE;

std::vector<fs::path> sources(const char* folder) {
    std::vector<fs::path> out;
    for (const auto& e : fs::recursive_directory_iterator(source / folder))
        if (e.path().extension() == ".h" || e.path().extension() == ".cpp") out.push_back(e.path());
    return out;
}

}  // namespace

TEST_CASE("the core has no interface in it", "[house]") {
    const auto files = sources("core");
    REQUIRE(files.size() > 80);
    const std::regex bad(R"(#include\s*[<"](Q[A-Z]\w*|app/|cli/|devices/|vision/))");
    for (const fs::path& p : files) {
        INFO(p.string());
        CHECK_FALSE(std::regex_search(text_of(p), bad));
    }
}

namespace {

/// A source's place in the tree: the groups it lies in, "core/steps/flat"; what stands in a group itself is a room of its own.
std::string room_of(const std::string& path) {
    const std::size_t last = path.rfind('/');
    const std::string folder = path.substr(0, last);
    const auto deep = std::count(folder.begin(), folder.end(), '/');
    const std::string name = path.substr(last + 1, path.rfind('.') - last - 1);
    if (deep == 1) return folder + "/" + name;
    // What the maker decides stands below what is planned: choices.h sees fields and other choices only.
    return name == "choices" ? folder + " choices" : folder;
}

struct Inclusions {
    std::map<std::string, std::set<std::string>> of;  ///< room to rooms
    std::vector<std::pair<std::string, std::string>> files;
};

Inclusions inclusions(const char* tree) {
    const std::regex include("#include \"(" + std::string(tree) + "/[\\w/]+\\.h)\"");
    Inclusions out;
    for (const fs::path& p : sources(tree)) {
        const std::string from = fs::relative(p, source).string();
        const std::string text = text_of(p);
        for (std::sregex_iterator i(text.begin(), text.end(), include), end; i != end; ++i) {
            const std::string to = (*i)[1];
            out.files.emplace_back(from, to);
            if (room_of(from) != room_of(to)) out.of[room_of(from)].insert(room_of(to));
        }
    }
    return out;
}

/// Which of the groups, lowest first, a source lies in; those of the tree's root above them all.
std::size_t height(const std::vector<std::string>& groups, const std::string& path) {
    const auto it = std::find_if(groups.begin(), groups.end(), [&](const std::string& g) { return path.rfind(g + "/", 0) == 0; });
    return static_cast<std::size_t>(it - groups.begin());
}

}  // namespace

TEST_CASE("lines are typed into controls that survive pasting nothing", "[house]") {
    // QPlainTextEdit and QTextEdit end the program where the clipboard offers no format: app/kit/fields/lines_edit.h goes round it.
    const std::regex raw(R"(\bnew Q(PlainText|Text)Edit\b|UsePlainTextEditForTextInput|getMultiLineText)");
    for (const fs::path& p : sources("app")) {
        INFO(p.string());
        CHECK_FALSE(std::regex_search(text_of(p), raw));
    }
}

TEST_CASE("no dialog for files can take a file or a folder away", "[house]") {
    // The toolkit's own dialog deletes what is picked in it, a folder with all that is in it, at the Delete key and a Return.
    std::size_t asked = 0;
    for (const fs::path& p : sources("app")) {
        const std::string text = text_of(p);
        for (std::size_t at = text.find("QFileDialog::get"); at != std::string::npos; at = text.find("QFileDialog::get", at + 1), ++asked) {
            INFO(p.string());
            CHECK(text.substr(at, text.find(';', text.find("QFileDialog::ReadOnly", at)) - at).size() < 400);
            CHECK(text.find("QFileDialog::ReadOnly", at) < text.find("QFileDialog::get", at + 1));
        }
        CHECK(text.find("QFileDialog dialog") == std::string::npos);
    }
    CHECK(asked >= 10);
}

TEST_CASE("no group includes one above it", "[house]") {
    const std::map<std::string, std::vector<std::string>> trees{
        {"core", {"core/ground", "core/material", "core/steps", "core/shop", "core/files"}},
        {"app", {"app/ground", "app/kit", "app/files", "app/steps", "app/pages"}}};
    for (const auto& [tree, groups] : trees) {
        const Inclusions all = inclusions(tree.c_str());
        REQUIRE(all.files.size() > 150);
        for (const auto& [from, to] : all.files) {
            INFO(from << " includes " << to);
            CHECK(height(groups, to) <= height(groups, from));
        }
    }
}

TEST_CASE("rooms include each other one way only", "[house]") {
    for (const char* tree : {"core", "app"}) {
        const auto uses = inclusions(tree).of;
        REQUIRE(uses.size() > 15);
        // Everything that a room leads to must not lead back.
        std::map<std::string, std::set<std::string>> all = uses;
        for (bool more = true; more;) {
            more = false;
            for (auto& [room, reached] : all)
                for (const std::string& r : std::set<std::string>(reached))
                    for (const std::string& next : all[r]) more = reached.insert(next).second || more;
        }
        for (const auto& [room, reached] : all) {
            INFO(room);
            CHECK_FALSE(reached.count(room));
        }
    }
}

TEST_CASE("in the order of work no step includes one that comes after it, and none its neighbours' choices", "[house]") {
    // Under's plates are let in before the top is joined: Join asks it.
    const std::vector<std::string> order{"labour", "rack", "lay",   "makeup", "flat", "match", "top", "patch",
                                         "fill",   "pour", "under", "join",   "skin", "days",  "pace"};
    const auto place = [&](const std::string& room) {
        const std::string name = room.substr(room.rfind('/') + 1);
        const auto it = std::find(order.begin(), order.end(), name);
        REQUIRE(it != order.end());
        return it - order.begin();
    };
    for (const auto& [room, reached] : inclusions("core").of) {
        if (room.rfind("core/steps/", 0) != 0 || room.find("choices") != std::string::npos) continue;
        for (const std::string& other : reached) {
            if (other.rfind("core/steps/", 0) != 0 || other.find("choices") != std::string::npos) continue;
            INFO(room << " includes " << other);
            CHECK(place(other) < place(room));
        }
    }
    const auto uses = inclusions("core").of;
    CHECK(uses.at("core/steps/top").count("core/steps/fill choices") == 0);
    CHECK(uses.at("core/steps/rack").count("core/steps/lay") == 0);
    for (const auto& [room, reached] : uses)
        if (room.rfind("core/steps/", 0) == 0 && room.find(" choices") != std::string::npos)
            for (const std::string& other : reached) {
                INFO(room << " includes " << other);
                CHECK((other.find("core/steps/") == std::string::npos || other.find(" choices") != std::string::npos));
            }
}

TEST_CASE("nothing asks what something is by how its name begins", "[house]") {
    // Names are made and read where they are written; people's words are matched by their beginning.
    const std::set<std::string> reads_names{"core/ground/figure/part.cpp", "core/steps/fill/choices.cpp", "core/shop/book/book.cpp",
                                            "core/shop/edit/tape_edits.cpp", "app/main.cpp"};
    const std::regex begins(R"(\brfind\([^;]*, 0\) *[=!]= *0|\bstarts_with\(|\batoi\(|\bstd::sto[a-z]+\()");
    std::size_t looked = 0;
    for (const char* group : {"core/steps", "core/shop", "app"})
        for (const fs::path& p : sources(group)) {
            const std::string name = fs::relative(p, source).string();
            ++looked;
            if (reads_names.count(name)) continue;
            std::istringstream lines(text_of(p));
            for (std::string line; std::getline(lines, line);) {
                INFO(name << ": " << line);
                CHECK_FALSE(std::regex_search(line, begins));
            }
        }
    CHECK(looked > 250);
}

TEST_CASE("every caution has a headline of at most seven words, and no headline is left without its caution", "[house]") {
    std::set<std::string> used;
    std::string everything;
    for (const fs::path& p : sources("core"))
        if (p.filename() != "headlines.cpp") everything += text_of(p);
    const auto keys = headline_keys();
    REQUIRE(keys.size() > 40);
    for (const std::string& key : keys) {
        INFO(key);
        std::istringstream words(headline_of(key));
        const auto count = std::distance(std::istream_iterator<std::string>(words), std::istream_iterator<std::string>());
        CHECK(count >= 1);
        CHECK(count <= 7);
        CHECK(everything.find('"' + key + '"') != std::string::npos);
    }
    const Documents& d = demo_shop();
    for (const auto& [id, job] : d.jobs) {
        const Plan p = plan_job(job, d);
        for (const StepRow& row : steps())
            if (row.says(p))
                for (const Caution& c : row.says(p)->cautions) {
                    INFO(id << " " << c.key);
                    CHECK(headline_of(c.key) != c.key);
                }
    }
}

TEST_CASE("the table of steps: keys are found, unknown ones are not, the order is one", "[house]") {
    std::set<std::string_view> keys;
    for (const StepRow& row : steps()) {
        CHECK(keys.insert(row.step.key).second);
        CHECK(find_step(row.step.key) == &row);
        CHECK(std::string(name_of(row.step)) == row.name);
    }
    CHECK(find_step("varnish of the moon") == nullptr);
    CHECK_THROWS_AS(row_of(Step{"varnish of the moon"}), std::out_of_range);
    CHECK(before(step_key::lay, step_key::flat));
    CHECK_FALSE(before(step_key::flat, step_key::lay));
}

TEST_CASE("every room of the core is named in docs/architecture.md", "[house][docs]") {
    const std::string doc = text_of(source / "docs/architecture.md");
    for (const auto& group : fs::directory_iterator(source / "core"))
        for (const auto& e : fs::directory_iterator(group)) {
            if (!e.is_directory()) continue;
            INFO(e.path());
            CHECK(std::regex_search(
                doc, std::regex("\\| core/" + group.path().filename().string() + "/(\\w+, )*" + e.path().filename().string() + "[ ,]")));
        }
}

TEST_CASE("every mistake of the guide's page has a test with its number, and every number a row", "[house][docs]") {
    const std::string page = text_of(source / "docs/guide/mistakes.md");
    std::set<int> rows;
    const std::regex row(R"(\n\| (\d+) \|)");
    for (std::sregex_iterator i(page.begin(), page.end(), row), end; i != end; ++i) rows.insert(std::stoi((*i)[1]));
    REQUIRE(rows.size() > 35);
    std::map<int, int> tests;
    const std::regex test(R"rx((?:TEST_CASE|SECTION)\("([^)]*)\))rx");
    const std::regex tag(R"(\[T(\d+)\])");
    for (const auto& e : fs::recursive_directory_iterator(source / "tests")) {
        if (e.path().extension() != ".cpp") continue;
        const std::string text = text_of(e.path());
        for (std::sregex_iterator i(text.begin(), text.end(), test), end; i != end; ++i) {
            const std::string tags = (*i)[1];
            for (std::sregex_iterator k(tags.begin(), tags.end(), tag); k != end; ++k) ++tests[std::stoi((*k)[1])];
        }
    }
    for (const int number : rows) {
        INFO("T" << number << " stands on the page and no test provokes it");
        CHECK(tests.count(number) == 1);
    }
    for (const auto& [number, n] : tests) {
        INFO("T" << number << " is tested and stands on no row of the page");
        CHECK(rows.count(number) == 1);
    }
}
