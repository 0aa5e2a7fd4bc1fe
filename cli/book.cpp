// `burl book`, `burl money`, `burl offer`, `burl pace`.
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <filesystem>

#include <CLI/CLI.hpp>

#include "cli/common.h"
#include "cli/job_alone.h"
#include "core/files/io/book_io.h"
#include "core/files/store/store.h"
#include "core/ground/calendar/calendar.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/rates.h"
#include "core/shop/money/money.h"
#include "core/shop/pace/learned.h"

namespace burl {

namespace {

using yb::Json;

void run_book(const std::string& path, bool csv, const yb::BookAsk& ask) {
    for (const auto& [option, day] : {std::pair("--from", ask.from), std::pair("--to", ask.to)})
        if (!day.empty() && !yb::is_date(day)) throw BadInput(std::string(option) + " ‘" + day + "’ is not a date: write it as 2026-11-30");
    const auto lines = yb::read_book(yb::Store::open(path).book());
    std::vector<yb::BookEntry> asked;
    for (const std::size_t i : yb::search(lines, ask)) asked.push_back(lines[i].entry);
    if (csv) {
        std::cout << yb::book_csv(asked);
        return;
    }
    print(yb::book_json(asked));
}

/// Hours really taken of a job in a shop, by operation; ticks far off, forgotten over night, are left as planned.
yb::RealHours real_hours(const std::string& shop, const std::string& job_name, const std::string& id) {
    const yb::Documents docs = yb::Store::open(shop).documents();
    std::string found;
    for (const auto& [jid, j] : docs.jobs)
        if (jid == id || (found.empty() && j.name == job_name)) found = jid;
    if (found.empty()) throw BadInput(shop + " has no job ‘" + job_name + "’: give the shop that it was made in");
    return yb::hours_taken(yb::learned_paces(docs), found);
}

void run_money(const std::string& path, const std::string& shop) {
    const JobAlone f = read_job_alone(path);
    const yb::Plan plan = f.plan();
    if (!plan.drawable()) throw BadInput(path + ": the top is not there yet: measure and lay it first");
    yb::RealHours real;
    if (!shop.empty()) real = real_hours(shop, f.job().name, f.job().id);
    const yb::Money m = yb::money_of(plan, f.job(), f.docs.shop, shop.empty() ? nullptr : &real);
    Json lines = Json::array();
    for (const yb::MoneyLine& l : m.lines)
        lines.push_back({{"kind", l.kind},
                         {"what", l.what},
                         {"amount", l.amount},
                         {"unit", l.unit},
                         {"price", l.price ? Json(*l.price) : Json()},
                         {"sum", yb::in_decimals(l.sum)}});
    print({{"lines", lines},
           {"overhead", yb::in_decimals(m.overhead)},
           {"cost", yb::in_decimals(m.cost)},
           {"net", yb::in_decimals(m.net)},
           {"tax", yb::in_decimals(m.tax)},
           {"offer", yb::in_decimals(m.offer)},
           {"currency", f.docs.shop.money.currency},
           {"hour_earns", m.hour_earns ? Json(yb::in_decimals(*m.hour_earns)) : Json()},
           {"missing", m.missing}});
}

void run_pace(const std::string& path) {
    const yb::Documents docs = yb::Store::open(path).documents();
    const yb::Learned l = yb::learned_paces(docs);
    Json figures = Json::array();
    for (const yb::PaceFigure& f : l.figures) {
        Json one{{"work", f.key}, {"times", f.times}, {"spread", f.spread}, {"tables", f.tables}, {"used", yb::is_used(f)}};
        if (const auto own = yb::own_figure(f, docs.shop, docs.jobs.empty() ? yb::Job() : docs.jobs.begin()->second))
            one["value"] = own->value, one["give_or_take"] = own->spread, one["unit"] = yb::find_pace_kind(f.key)->unit;
        figures.push_back(std::move(one));
    }
    Json took = Json::array();
    for (const yb::Took& t : l.took)
        took.push_back({{"work", t.kind},
                        {"job", t.job},
                        {"operation", t.operation},
                        {"starting", t.starting},
                        {"took", t.took},
                        {"unit", t.unit},
                        {"by_clock", t.by_clock},
                        {"outlier", t.outlier}});
    print({{"figures", figures}, {"took", took}});
}

/// The window draws the offer: it stands beside this program, or where the build put it.
void run_offer(const std::string& job, const std::string& pdf) {
    namespace fs = std::filesystem;
    const JobAlone f = read_job_alone(job);  // what is wrong with it is said here
    if (!f.plan().drawable()) throw BadInput(job + ": the top is not there yet: measure and lay it first");
    const fs::path here = fs::read_symlink("/proc/self/exe").parent_path();
    fs::path window;
    for (const fs::path& p : {here / "young-burl", here / "app" / "young-burl"})
        if (window.empty() && fs::exists(p)) window = p;
    if (window.empty()) throw yb::Told("young-burl, which draws the offer, is not beside " + here.string());
    const std::string program = window.string();
    std::string arguments[] = {program, "--offer", fs::absolute(pdf).string(), fs::absolute(job).string()};
    char* argv[] = {arguments[0].data(), arguments[1].data(), arguments[2].data(), arguments[3].data(), nullptr};
    std::cout.flush();
    pid_t child = 0;
    int status = 0;
    if (posix_spawn(&child, program.c_str(), nullptr, nullptr, argv, environ) != 0 || waitpid(child, &status, 0) != child)
        throw yb::Told(program + " could not be started");
    if (WIFEXITED(status) && WEXITSTATUS(status) == 0) return print({{"pdf", pdf}});
    if (WIFEXITED(status) && WEXITSTATUS(status) == 2) throw BadInput(pdf + " was not written");
    throw yb::Told(pdf + " was not written. Choose another place with --pdf");
}

}  // namespace

void add_book_verbs(CLI::App& app) {
    struct Asked {
        std::string path;
        bool csv = false;
        yb::BookAsk ask;
    };
    auto a = std::make_shared<Asked>();
    auto* book = app.add_subcommand("book", "what really happened in a shop, oldest first");
    book->add_option("shop", a->path, "a shop file")->required();
    book->add_flag("--csv", a->csv, "as CSV: at,job,step,kind,what,value,unit,of");
    book->add_option("--job", a->ask.job, "of this job only, its id");
    book->add_option("--kind", a->ask.kind, "reading, tick, note, photo, change, agreement or correction only");
    book->add_option("--words", a->ask.words, "lines that have all of these words");
    book->add_option("--from", a->ask.from, "from this day on, YYYY-MM-DD");
    book->add_option("--to", a->ask.to, "up to this day");
    book->callback([a] { run_book(a->path, a->csv, a->ask); });

    auto m = std::make_shared<std::pair<std::string, std::string>>();
    auto* money = app.add_subcommand("money", "what a job costs, line by line, what it is offered for, what an hour of it earns");
    money->add_option("job", m->first, "a job exported as JSON")->required();
    money->add_option("--real", m->second, "hours as they were really taken, of the shop it was made in");
    money->callback([m] { run_money(m->first, m->second); });

    auto o = std::make_shared<std::pair<std::string, std::string>>();
    auto* offer = app.add_subcommand("offer", "the offer of a job as PDF, without the maker's own figures");
    offer->add_option("job", o->first, "a job exported as JSON")->required();
    offer->add_option("--pdf", o->second, "the file to write")->required();
    offer->callback([o] { run_offer(o->first, o->second); });

    auto p = std::make_shared<std::string>();
    auto* pace = app.add_subcommand("pace", "what the jobs of a shop teach of its maker's pace");
    pace->add_option("shop", *p, "a shop file")->required();
    pace->callback([p] { run_pace(*p); });
}

}  // namespace burl
