// Verbs of a shop file: demo, jobs, export, check, repair.
#include <algorithm>
#include <iostream>

#include <fmt/format.h>
#include <CLI/CLI.hpp>

#include "cli/common.h"
#include "core/files/io/job_text.h"
#include "core/files/store/check.h"
#include "core/files/store/store.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/plan.h"
#include "demo/demo.h"

namespace {

using burl::BadInput;
using burl::of_file;
using burl::print;
using yb::Json;

void run_demo(const std::string& path) {
    const yb::Documents demo = yb::demo_shop();
    yb::Store store = yb::Store::create(path, demo, "New shop");
    store.write(yb::demo_book());
    print({{"shop", path}, {"slabs", demo.slabs.size()}, {"jobs", demo.jobs.size()}});
}

/// How far a job has come, in a word.
void run_jobs(const std::string& path) {
    const yb::Store store = yb::Store::open(path);
    Json list = Json::array();
    for (const yb::JobLine& j : yb::job_lines(store.documents()))
        list.push_back({{"id", j.id}, {"name", j.name}, {"state", j.state}, {"start", j.start}, {"slabs", j.slabs}});
    print(list);
}

void run_export(const std::string& path, const std::string& job) {
    const yb::Store store = yb::Store::open(path);
    const yb::Documents& docs = store.documents();
    const auto all = yb::job_lines(docs);
    const auto it = std::find_if(all.begin(), all.end(), [&](const yb::JobLine& j) { return j.id == job; });
    if (it == all.end()) {
        std::string known;
        for (const yb::JobLine& j : all) known += " " + j.id;
        throw BadInput("there is no job ‘" + job + "’ in " + path + ". There are:" + known);
    }
    if (it->state == "no slab") throw BadInput("the job ‘" + job + "’ has no slab yet: there is nothing to export");
    std::cout << yb::job_text(docs, job, [&](const std::string& key) { return store.attachment(key); }) << '\n';
}

int run_check(const std::string& path) {
    const yb::CheckReport r = yb::check_shop(path);
    Json problems = Json::array();
    for (const auto& p : r.problems) problems.push_back(p);
    const auto backup = yb::newest_backup(path);
    print({{"shop", path},
           {"ok", r.ok},
           {"revisions", r.revisions},
           {"slabs", r.slabs},
           {"jobs", r.jobs},
           {"attachments", r.attachments},
           {"book_entries", r.entries},
           {"problems", problems},
           {"remarks", r.remarks},
           {"newest_backup", backup ? Json(*backup) : Json(nullptr)}});
    return r.ok ? 0 : 2;
}

void run_repair(const std::string& path, const std::string& out) {
    const yb::Repair r = yb::repair_shop(path, out);
    const auto backup = yb::newest_backup(path);
    print({{"shop", path},
           {"repaired", out},
           {"whole", r.whole()},
           {"revisions", r.revisions},
           {"changes", r.changes},
           {"attachments", r.attachments},
           {"book_entries", r.entries},
           {"lost", r.lost},
           {"newest_backup", backup ? Json(*backup) : Json(nullptr)}});
}

}  // namespace

void burl::add_shop_verbs(CLI::App& app, int& code) {
    static std::string file;
    auto* demo = app.add_subcommand("demo", "writes the demo shop");
    demo->add_option("file", file, "the shop file to make")->required();
    demo->callback([] {
        of_file(file, [](const std::string& path) {
            run_demo(path);
            return 0;
        });
    });

    auto* jobs = app.add_subcommand("jobs", "the jobs of a shop: id, name and state of each");
    jobs->add_option("shop", file, "a shop file")->required();
    jobs->callback([] {
        of_file(file, [](const std::string& path) {
            run_jobs(path);
            return 0;
        });
    });

    static std::string job;
    auto* exporting = app.add_subcommand("export", "a job of a shop with its slabs, as the job file that other verbs read");
    exporting->add_option("shop", file, "a shop file")->required();
    exporting->add_option("job", job, "the job's id")->required();
    exporting->callback([] {
        of_file(file, [](const std::string& path) {
            run_export(path, job);
            return 0;
        });
    });

    auto* check = app.add_subcommand("check", "looks a shop file through");
    check->add_option("shop", file, "a shop file")->required();
    check->callback([&code] { code = of_file(file, run_check); });

    static std::string out;
    auto* repair = app.add_subcommand("repair", "everything of a damaged shop file that is whole, into a new one");
    repair->add_option("shop", file, "the damaged shop file; it is only read")->required();
    repair->add_option("out", out, "the shop file to make")->required();
    repair->callback([] {
        of_file(file, [](const std::string& path) {
            run_repair(path, out);
            return 0;
        });
    });
}
