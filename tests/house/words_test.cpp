// The catalogue of American words: all that is spelled otherwise is in it, and nothing that is said no more.
#include <filesystem>
#include <fstream>
#include <map>
#include <regex>
#include <set>
#include <sstream>

#include <catch2/catch.hpp>

#include "core/files/io/json.h"
#include "core/ground/measure/measure.h"
#include "core/ground/measure/words.h"
#include "tests/house/text_of.h"

using namespace yb;
namespace fs = std::filesystem;

namespace {

/// The string literals of a source, those that stand side by side joined; comments, characters and raw strings left out.
std::vector<std::string> literals(const std::string& s) {
    std::vector<std::string> out;
    bool joined = false;
    for (std::size_t i = 0; i < s.size();) {
        if (s.compare(i, 2, "//") == 0) {
            i = std::min(s.find('\n', i), s.size());
        } else if (s.compare(i, 2, "/*") == 0) {
            i = s.find("*/", i) + 2;
        } else if (s.compare(i, 3, "R\"(") == 0) {
            i = s.find(")\"", i) + 2;
            joined = false;
        } else if (s[i] == '\'' && (s.compare(i + 2, 1, "'") == 0 || (s[i + 1] == '\\' && s.compare(i + 3, 1, "'") == 0))) {
            i += s[i + 1] == '\\' ? 4 : 3;
            joined = false;
        } else if (s[i] == '"') {
            std::string text;
            for (++i; s[i] != '"'; ++i) {
                if (s[i] != '\\') text += s[i];
                else if (const char c = s[++i]; c == 'n') text += '\n';
                else text += c;
            }
            ++i;
            if (joined) out.back() += text;
            else out.push_back(text);
            joined = true;
        } else {
            if (!std::isspace(static_cast<unsigned char>(s[i]))) joined = false;
            ++i;
        }
    }
    return out;
}

std::set<std::string> all_literals() {
    std::set<std::string> out;
    for (const char* folder : {"core", "app"})
        for (const auto& e : fs::recursive_directory_iterator(fs::path(YB_SOURCE) / folder))
            if (e.path().extension() == ".h" || e.path().extension() == ".cpp")
                for (std::string& text : literals(text_of(e.path()))) out.insert(std::move(text));
    return out;
}

}  // namespace

TEST_CASE("every text that Americans spell otherwise is in their catalogue, and the catalogue has no other", "[house][words]") {
    const Json words = parse_json(text_of(fs::path(YB_SOURCE) / "assets/words/en_US.json"));
    const std::set<std::string> texts = all_literals();
    REQUIRE(texts.size() > 2000);
    const std::regex british(
        R"(itre|etre[s ]|metre\b|olour|entre\b|ould(ed|ing)|Mould|[gG]rey\b|abelled|evelled|judgement|[fF]ibre|ancelled|luminium|tabilis|ensitis|eighbour|\bnought)");
    for (const std::string& text : texts) {
        // A sentence or a label; keys of files and what is typed are no words.
        if (!std::regex_search(text, british) || text.find(' ') == std::string::npos) continue;
        if (text.find("wants millimetres with a point") != std::string::npos) continue;  // about a file's own format
        INFO(text);
        CHECK(words.contains(text));
    }
    for (const auto& [english, american] : words.items()) {
        INFO(english);
        CHECK(texts.count(english) == 1);
        CHECK(american.get<std::string>() != english);
        CHECK_FALSE(std::regex_search(american.get<std::string>(), british));
        // The same places for quantities and names.
        for (const char* place : {"{}", "%1", "%2", "%3"}) {
            const auto count = [&](const std::string& s) {
                int n = 0;
                for (std::size_t at = s.find(place); at != std::string::npos; at = s.find(place, at + 1)) ++n;
                return n;
            };
            CHECK(count(english) == count(american.get<std::string>()));
        }
    }
}

TEST_CASE("a phrase is said in the language that is spoken: patterns and words, not names", "[words]") {
    speak([](const std::string& english) {
        if (english == "{} of {} lies in the {}.") return std::string("Dans le {2}: {}.");
        if (english == "knot") return std::string("nœud");
        return english == "a {} by {}" ? std::string("un {} près de {}") : english;
    });
    CHECK(render(say("a {} by {}", "knot", std::string("knot")), Units::metric()) == "un nœud près de knot");
    CHECK(render(say("said by nobody: {}", mm(12)), Units::metric()) == "said by nobody: 12 mm");
    speak({});
    CHECK(render(say("a {} by {}", "knot", std::string("knot")), Units::metric()) == "a knot by knot");
}
