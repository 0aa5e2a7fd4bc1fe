// The order of work: from what each kind of operation says it comes after.
#include <catch2/catch.hpp>

#include <set>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/work_order.h"
#include "core/steps/days/days.h"
#include "core/steps/pace/pace.h"
#include "demo/demo.h"

using namespace yb;

TEST_CASE("every kind of operation comes after all that it names, once, and has a pace that there is", "[days][order]") {
    const WorkOrder order;
    std::set<std::string> before;
    for (const OperationKind* k : order.kinds()) {
        INFO(k->key);
        for (const Before& b : k->after) {
            INFO("after " << b.key);
            CHECK(before.count(b.key) == 1);
        }
        for (const char* b : k->follows) {
            INFO("follows " << b);
            CHECK(before.count(b) == 1);
        }
        CHECK(before.insert(k->key).second);
        CHECK((*k->pace == 0 || (find_pace_kind(k->pace) && !find_pace_kind(k->pace)->unit)));
    }
    CHECK(before.size() > 35);
}

TEST_CASE("every operation of the demo's jobs has a kind, and parts of one stand between it and the next", "[days][order]") {
    const WorkOrder order;
    const Documents d = demo_shop();
    for (const auto& [id, job] : d.jobs)
        for (const Plan p = plan_job(job, d); const Operation& o : p.days->operations) {
            INFO(id << " " << o.key);
            const bool own = std::any_of(job.days.own.begin(), job.days.own.end(), [&](const OwnOp& w) { return w.name == o.label; });
            const bool known =
                std::any_of(order.kinds().begin(), order.kinds().end(), [&](const OperationKind* k) { return k->key == kind_key(o.key); });
            CHECK((own || known));
            if (known) CHECK((o.order >= order.order_of(kind_key(o.key)) && o.order < order.order_of(kind_key(o.key)) + 100));
        }
    CHECK(kind_key("pour_12") == "pour");
    CHECK(kind_key("buy_resin") == "buy_resin");
    CHECK(kind_key("last_grit") == "last_grit");
    CHECK(kind_key("") == "");
    Operation second, unknown;
    second.key = "coat_2", unknown.key = "varnish of the moon";
    order.place(second), order.place(unknown);
    CHECK(second.order == order.order_of("coat") + 2);
    CHECK(second.after.empty());
    CHECK(unknown.order > second.order);
    CHECK(unknown.pace.empty());
}
