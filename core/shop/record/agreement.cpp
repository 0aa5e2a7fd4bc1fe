#include "core/shop/record/agreement.h"

#include <algorithm>
#include <cmath>

#include "core/ground/calendar/calendar.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/shop/job/skin_of.h"
#include "core/shop/job/steps.h"
#include "core/shop/money/money.h"
#include "core/steps/days/days.h"
#include "core/steps/fill/fill.h"
#include "core/steps/flat/flat.h"
#include "core/steps/lay/lay.h"
#include "core/steps/skin/skin.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"

namespace yb {

std::vector<AgreedLine> to_agree(const Plan& plan, const Job& job, const Shop& shop) {
    std::vector<AgreedLine> out;
    if (!plan.drawable()) return out;
    const auto add = [&](const char* key, const Phrase& says, std::string of) {
        out.push_back({key, render(says, shop.units), std::move(of)});
    };
    const auto whole = [](double v) { return std::to_string(std::llround(v)); };
    const double thick = plan.top ? plan.top->thickness_mm : job.top.thickness_mm;
    add("size", say("{} long, {} wide where it is narrowest, {} thick", mm(job.top.length_mm), mm(job.top.width_mm), mm(std::round(thick))),
        whole(job.top.length_mm) + " " + whole(job.top.width_mm) + " " + whole(thick));
    const auto i = live_edges.index(job.top.live);
    add("edges", say("live edges: {}", live_edges.options[i].label), live_edges.options[i].key);
    if (plan.fill && plan.fill->ready) {
        int open = 0, filled = 0;
        for (const VoidPlan& v : plan.fill->voids)
            if (!v.gone) (v.left_open ? open : filled) += 1;
        if (open + filled > 0)
            add("voids",
                say("{} filled with resin, {} left open; knots and what else the wood shows stay as they are",
                    counted(filled, "void", "voids"), count(open)),
                whole(filled) + " " + whole(open));
    }
    if (const SkinPlan& s = skin_of(plan); s.ready && !s.used.empty()) {
        std::string names, keys;
        for (const Finish f : s.used) {
            const auto& option = finishes.options[finishes.index(f)];
            names += (names.empty() ? "" : ", ") + std::string(option.label), keys += (keys.empty() ? "" : " ") + std::string(option.key);
        }
        add("finish", say("finish: {}", names), keys);
        if (job.skin.finish == Finish::tinted || job.skin.before != BeforeFinish::nothing)
            add("colour",
                job.skin.sample_signed ? say("the colour is that of the board that was signed")
                                       : say("the colour is that of a board that is still to be signed"),
                job.skin.sample_signed ? "signed" : "unsigned");
    }
    if (const UnderPlan& u = *plan.under; u.ready && u.travel_mm > 0)
        add("seasons",
            say("the top grows and shrinks across its grain by about {} in a year; it is left free to move",
                mm(std::max(1.0, std::round(u.travel_mm)))),
            whole(std::max(1.0, std::round(u.travel_mm))));
    if (is_date(job.days.wanted)) add("day", say("wanted on {}", job.days.wanted), job.days.wanted);
    if (shop.money.hour || job.money.hour)
        if (const Money m = money_of(plan, job, shop); m.missing.empty())
            add("price",
                shop.money.currency.empty() ? say("price: {}", in_decimals(m.offer))
                                            : say("price: {} {}", in_decimals(m.offer), shop.money.currency),
                in_decimals(m.offer));
    return out;
}

std::vector<BrokenLine> broken(const Plan& plan, const Job& job, const Shop& shop) {
    std::vector<BrokenLine> out;
    if (job.record.agreed.empty()) return out;
    const auto now = to_agree(plan, job, shop);
    for (const AgreedLine& a : job.record.agreed.back().lines) {
        const auto it = std::find_if(now.begin(), now.end(), [&](const AgreedLine& n) { return n.key == a.key; });
        const bool same = it != now.end() && (a.of.empty() ? it->says == a.says : it->of == a.of);
        if (!same) out.push_back({a.key, a.says, it == now.end() ? std::string() : it->says});
    }
    return out;
}

std::vector<Caution> agreement_cautions(const Plan& plan, const Job& job, const Shop& shop) {
    std::vector<Caution> out;
    if (!plan.drawable()) return out;
    for (const BrokenLine& b : broken(plan, job, shop))
        out.push_back({"record.broken", Severity::watch, step_key::sheets,
                       b.now.empty() ? say("Agreed on {} was: {}. The plan says nothing of it now: agree anew, or change it back.",
                                           job.record.agreed.back().on, b.agreed)
                                     : say("Agreed on {} was: {}. Now it is: {}. Agree anew, or change it back.",
                                           job.record.agreed.back().on, b.agreed, b.now)});
    if (job.record.agreed.empty() && !job.client.empty() && plan.lay && plan.lay->ready) {
        const auto flaws = plan.lay->flaws.size();
        const bool open = plan.fill && std::any_of(plan.fill->voids.begin(), plan.fill->voids.end(),
                                                   [](const VoidPlan& v) { return v.left_open && !v.gone; });
        if (flaws > 0 || open)
            out.push_back({"record.not_agreed", Severity::note, step_key::sheets,
                           say("{} in the top and nothing agreed in writing: print what is agreed, have it signed, keep it in the book.",
                               counted(static_cast<double>(flaws), "flaw stays", "flaws stay"))});
    }
    return out;
}

}  // namespace yb
