#include "core/shop/job/needs.h"

#include <algorithm>
#include <cmath>

#include "core/shop/job/plan.h"
#include "core/shop/job/steps.h"

namespace yb {

namespace {
constexpr std::pair<const char*, const char*> kinds[] = {{"slab", "Slabs"},         {"resin", "Resin"},       {"finish", "Finish"},
                                                         {"glue", "Glue"},          {"hardware", "Hardware"}, {"form", "The form"},
                                                         {"consumable", "Used up"}, {"base", "The base"},     {"outside", "Outside work"},
                                                         {"extra", "What else"}};
}  // namespace

const char* key_of(NeedKind k) { return kinds[static_cast<std::size_t>(k)].first; }
const char* name_of(NeedKind k) { return kinds[static_cast<std::size_t>(k)].second; }

double Need::buys() const { return to_buy(amount, left.value_or(0), kit.value_or(0)); }

std::vector<Need> needs_of(const Plan& plan, const Job& job, const Shop& shop) {
    std::vector<Need> all;
    if (!plan.drawable()) return all;
    for (const StepRow& row : steps())
        if (row.needs) row.needs({plan, job, shop, plan.placement.frame()}, all);
    std::vector<Need> out;
    for (Need& n : all) {
        if (!(n.amount > 1e-9)) continue;
        const auto it = std::find_if(out.begin(), out.end(), [&](const Need& o) { return o.key == n.key; });
        if (it == out.end()) out.push_back(std::move(n));
        else it->amount += n.amount;
    }
    // A few millilitres of resin come from what stands open: no line, no order.
    std::erase_if(out, [](const Need& n) { return n.kind == NeedKind::resin && n.amount < 0.005; });
    return out;
}

void order_short(std::vector<Operation>& operations, const std::vector<Need>& needs, double days, const Labour& labour) {
    static constexpr std::pair<NeedKind, std::pair<const char*, const char*>> kinds_ordered[] = {
        {NeedKind::resin, {"buy_resin", "Order resin"}}, {NeedKind::finish, {"buy_finish", "Order finish"}}};
    for (const auto& [kind, op] : kinds_ordered) {
        const Operation* first = nullptr;
        for (const Need& n : needs)
            if (n.kind == kind && n.short_of())
                for (const Operation& o : operations)
                    if (o.key == n.before && (!first || o.order < first->order)) first = &o;
        if (!first) continue;
        Operation o;
        o.key = op.first, o.label = op.second;
        o.step = first->step;
        const Task task = Task().set_up(labour.order_min);
        o.hands_on_h = task.hours(), o.waiting_h = days * 24, o.task = std::make_shared<const Task>(task);
        o.aside = true, o.after = {"lay"};
        operations.push_back(std::move(o));
    }
}

}  // namespace yb
