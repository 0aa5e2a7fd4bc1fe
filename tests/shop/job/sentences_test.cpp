// Every sentence of the demo's jobs and of two hundred by lot, read as a maker reads it: no "1 clamps", no "a insert", no figure that is
// nothing, nothing less than nothing, no place left open.
#include <catch2/catch.hpp>

#include <regex>
#include <set>

#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/things.h"
#include "demo/demo.h"
#include "tests/shop/job/any_job.h"

using namespace yb;

namespace {

struct Shape {
    const char* what;
    std::regex pattern;
};

const std::vector<Shape>& shapes() {
    static const std::vector<Shape> all{
        {"one of many",
         std::regex(
             "(^|[^0-9.,])1 "
             "(?!(is|lands|has|lies|hangs|runs|comes|stands|leaves|gives|meets|gets|goes|wants|does|keeps|takes|holds|finishes|floats)\\b)"
             "[a-z]+([^s]s|es|ves)\\b")},
        {"many of one",
         std::regex("\\b(0|[2-9]|[1-9][0-9]+) (clamp|lift|batch|leaf|kit|bolt|person|caul|tenon|dowel|rod|layer|pass|lane|flaw|piece)\\b")},
        {"a before a vowel", std::regex("\\b[Aa] (?!one\\b|uni|use)[aeiou][a-z]+")},
        {"a before many", std::regex("\\b[Aa]n? [a-z]+ holes\\b")},
        {"an before a consonant", std::regex("\\b[Aa]n [bcdfgjklmnpqrstvwxyz][a-z]*")},
        {"nothing, to a tenth", std::regex("(^|[^0-9.])0\\.0 ?(mm|g|kg|L|h)\\b")},
        {"less than nothing left", std::regex("(leaves|Leave|lets go of|leave) [-−][0-9]")},
        {"less than nothing of wood", std::regex("[-−][0-9.]+ ?mm of wood")},
        {"one verb for many", std::regex("[Tt]he [a-z]+ holes (at [0-9.]+ m )?(is|lies|runs|has) ")},
        {"the before a name", std::regex("\\b[Tt]he (plate|channel|bow tie) [0-9]+ (at|is|stands|lies)")},
        {"a plan that failed", std::regex("can't be planned with what is given")},
        {"a place left open", std::regex("\\{\\}")},
        {"two spaces", std::regex("[^ ]  +[^ ]")},
        {"a space before a stop", std::regex(" [.,;]( |$)")},
        {"two stops", std::regex("\\.\\.[^.]|\\. \\.")},
        {"no number", std::regex("\\b(nan|inf)\\b")},
        {"a range of nothing", std::regex("\\bfrom ([0-9.]+ (h|d|min)) to \\1\\b")},
    };
    return all;
}

class Reader {
  public:
    int read = 0;
    void sentence(const std::string& text, const std::string& whose) {
        if (text.empty() || !seen_.insert(text).second) return;
        ++read;
        for (const Shape& s : shapes())
            if (std::regex_search(text, s.pattern)) {
                UNSCOPED_INFO(whose << ": " << s.what << ": " << text);
                ++wrong;
                if (told_.insert(std::string(s.what) + whose).second) FAIL_CHECK(whose << ": " << s.what << ": " << text);
            }
    }
    void figures(const std::vector<Figure>& all, const std::string& whose) {
        for (const Figure& f : all) sentence(render(f.note, {}), whose + " " + f.key);
    }
    void plan(const Plan& p, const Job& job, const Shop& shop, const std::string& whose) {
        for (const StepRow& row : steps()) {
            const StepPlan& says = p.said(row.step);
            figures(says.figures, whose);
            for (const Caution& c : says.cautions) sentence(render(c, {}), whose + " " + c.key);
            for (const Choice& c : says.choices)
                for (const Option& o : c.options) sentence(render(o.consequence, {}), whose + " " + c.key + " " + o.key);
            for (const Thing& t : things_of(p, job, shop, row.step)) {
                sentence(render(t.title, {}), whose);
                figures(t.figures, whose + " " + t.kind);
            }
        }
    }
    int wrong = 0;

  private:
    std::set<std::string> seen_, told_;
};

}  // namespace

TEST_CASE("every sentence of the demo and of two hundred jobs by lot reads as somebody would say it", "[words]") {
    const Documents& d = demo_shop();
    Reader reader;
    for (const auto& [id, job] : d.jobs) {
        reader.plan(plan_job(job, d), job, d.shop, id);
        for (std::size_t i = 0; job.several() && i < job.leaves.size(); ++i)
            reader.plan(plan_job(job, d, static_cast<int>(i)), job, d.shop, id);
    }
    CHECK(reader.read > 500);
    for (unsigned seed = 0; seed < 200; ++seed) {
        Dice dice{std::mt19937(seed + 1000)};
        const Job j = any_job(dice, d);
        reader.plan(plan_job(j, d), j, d.shop, "any job");
    }
    CHECK(reader.read > 3000);
}

TEST_CASE("the shapes that are looked for are found", "[words]") {
    const auto found = [](const std::string& text) {
        return std::any_of(shapes().begin(), shapes().end(), [&](const Shape& s) { return std::regex_search(text, s.pattern); });
    };
    for (const char* bad :
         {"hold it down with 1 clamps of 4500 N", "A insert lands in a knot", "a insect holes lies here", "leaves 0.0 mm of wood",
          "2 clamp more", "Leave -3.0 mm above", "from 11 h to 11 h", "it is {} wide", "-26.5 mm of wood above",
          "The insect holes at 0.16 m is open below", "The plate 1 at 0.32 m stands past the edge"}) {
        INFO(bad);
        CHECK(found(bad));
    }
    for (const char* good : {"hold it down with 1 clamp of 4500 N", "An insert lands in a knot", "leaves 1.0 mm of wood", "2 clamps more",
                             "in 1 of 3 rounds", "with the air 1 °C warmer", "from 11 h to 13 h"}) {
        INFO(good);
        CHECK_FALSE(found(good));
    }
}

TEST_CASE("numbers are spoken: none, one, two, and less than the least that is printed", "[words]") {
    const auto lifts = [](double n) { return render(say("{} of it", counted(n, "lift", "lifts")), {}); };
    CHECK(lifts(0) == "no lifts of it");
    CHECK(lifts(1) == "1 lift of it");
    CHECK(lifts(2) == "2 lifts of it");
    CHECK(lifts(1.2) == "1 lift of it");
    CHECK(render(say("{} cups.", counted(0, "set", "sets")), {}) == "No sets cups.");
    CHECK(render(say("it gives {}", fine(0.02)), {}) == "it gives less than 0.1 mm");
    CHECK(render(say("it gives {}", fine(0)), {}) == "it gives 0 mm");
    CHECK(render(say("it gives {}", mm(0.3)), {}) == "it gives less than 1 mm");
    CHECK(render(say("it gives {}", fine(0.02)), Units::imperial()).find("less than") != std::string::npos);
    CHECK(render(say("{} lies here", named("lot").values[0]), {}) == "lot lies here");
    CHECK(say("{}", counted(3, "a", "b")).value(0) == 3);
}
