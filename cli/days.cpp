// `burl days`.
#include <ctime>
#include <filesystem>
#include <fstream>

#include <CLI/CLI.hpp>

#include "cli/common.h"
#include "cli/job_alone.h"
#include "core/files/io/ics.h"
#include "core/files/store/store.h"
#include "core/shop/edit/slab_edits.h"
#include "core/shop/job/job.h"

namespace burl {

namespace {

using yb::Json;

struct Asked {
    std::vector<std::string> jobs;
    std::string shop, ics, today;
    bool soonest = false, waits = false;
};

/// The jobs of the files as one shop: the first file's. A job id that two files share gets a number.
yb::Documents documents_of(const Asked& a) {
    if (!a.shop.empty()) return yb::Store::open(a.shop).documents();
    yb::Documents all;
    for (const std::string& path : a.jobs) {
        JobAlone one = read_job_alone(path);
        if (all.jobs.empty()) all.shop = one.docs.shop;
        yb::Job job = one.job();
        const std::string stem = std::filesystem::path(path).stem().string();
        std::string id = stem;
        for (int n = 2; all.jobs.count(id); ++n) id = stem + "-" + std::to_string(n);
        // Slabs of two files may share their ids and be others.
        for (auto& [slab_id, slab] : one.docs.slabs) {
            const std::string as = id + ":" + slab_id;
            yb::take_instead(job, slab_id, as);
            slab.id = as;
            all.slabs[as] = std::move(slab);
        }
        job.id = id;
        all.jobs[id] = std::move(job);
        all.shop.job_order.push_back({id});
    }
    return all;
}

void run_days(const Asked& a) {
    if (a.jobs.empty() == a.shop.empty()) throw BadInput("days: give job files, or a shop with --shop, one of the two");
    if (!a.today.empty() && !yb::is_date(a.today)) throw BadInput("--today: ‘" + a.today + "’ is not a date: write it as 2026-11-30");
    const yb::Documents docs = documents_of(a);
    const yb::Season s = yb::season_of(docs, {a.today, a.soonest ? yb::Rule::soonest : yb::Rule::ranks, {}});
    Json week = Json::array();
    for (int d = 0; d < 7; ++d)
        for (const auto& [from, to] : yb::stretches_on(docs.shop.workday, yb::Crew::maker, d)) {
            const auto clock = [](double h) { return h >= 24 ? std::string("24:00") : yb::wall_clock("2001-01-01", h).substr(11); };
            week.push_back({{"day", yb::name_of_day(d)}, {"from", clock(from)}, {"to", clock(to)}});
        }
    Json off = Json::array();
    for (const yb::DayOff& o : docs.shop.workday.off)
        for (std::string day = o.from; yb::is_date(day) && day <= (o.to.empty() ? o.from : o.to); day = yb::date_after(day, 24))
            off.push_back(day);
    Json operations = Json::array();
    for (const yb::JobDays& j : s.jobs)
        for (const yb::Operation& o : j.operations) {
            Json after = Json::array();
            for (const std::string& k : o.after) after.push_back(j.id + "/" + k);
            Json who = yb::name_of(o.who);
            if (o.who == yb::Who::both) who = Json::array({"maker", "helper"});
            operations.push_back({{"id", j.id + "/" + o.key},
                                  {"job", j.id},
                                  {"label", o.label},
                                  {"after", after},
                                  {"who", who},
                                  {"hands_on_min", o.hands_on_h * 60},
                                  {"wait_h", o.waiting_h},
                                  {"start", yb::wall_clock(s.start, o.start_h)},
                                  {"hands_end", yb::wall_clock(s.start, o.hands_end_h)},
                                  {"end", yb::wall_clock(s.start, o.end_h)},
                                  {"slack_h", o.slack_h()},
                                  {"in_one_go", o.in_one_go},
                                  {"decides", o.decides}});
        }
    Json jobs = Json::array();
    for (const yb::JobDays& j : s.jobs) {
        Json job{{"id", j.id},
                 {"name", j.name},
                 {"ready", j.operations.empty() ? Json() : Json(yb::wall_clock(s.start, j.ready_h))},
                 {"wanted", nullptr}};
        if (j.wanted_h) job["wanted"] = yb::date_after(s.start, *j.wanted_h - 24);
        jobs.push_back(job);
    }
    Json cautions = Json::array();
    for (const yb::Caution& c : s.cautions) cautions.push_back({{"key", c.key}, {"says", yb::render(c.says, docs.shop.units)}});
    if (!a.ics.empty()) {
        char stamp[32];
        const std::time_t now = std::time(nullptr);
        std::tm utc{};
        gmtime_r(&now, &utc);
        std::strftime(stamp, sizeof stamp, "%Y-%m-%dT%H:%M:%SZ", &utc);
        std::ofstream f(a.ics, std::ios::binary);
        f << yb::to_ics(s, {stamp, a.waits});
        if (!f.flush()) throw BadInput(a.ics + " can't be written. Choose another place with --ics");
    }
    print({{"week", week}, {"days_off", off}, {"jobs", jobs}, {"operations", operations}, {"cautions", cautions}});
}

}  // namespace

void add_days_verbs(CLI::App& app) {
    auto* days = app.add_subcommand("days", "when each operation of one or several jobs is done, who does it, what it waits for");
    auto asked = std::make_shared<Asked>();
    days->add_option("jobs", asked->jobs, "jobs exported as JSON, the first to come first");
    days->add_option("--shop", asked->shop, "all jobs of a shop instead");
    days->add_option("--today", asked->today, "nothing that is not done begins before this day, YYYY-MM-DD");
    days->add_flag("--soonest", asked->soonest, "in whatever order lets all be done soonest");
    days->add_option("--ics", asked->ics, "write a calendar, an event an operation");
    days->add_flag("--waits", asked->waits, "in it, what waits stands as days of its own");
    days->callback([asked] { run_days(*asked); });
}

}  // namespace burl
