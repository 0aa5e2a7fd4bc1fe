#include "core/shop/money/money.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <stdexcept>

#include <fmt/format.h>
#include <boost/multiprecision/cpp_dec_float.hpp>

#include "core/ground/file/csv.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/shop/job/steps.h"
#include "core/steps/days/days.h"
#include "core/steps/makeup/cuts.h"

namespace yb {

namespace {

using Decimal = boost::multiprecision::number<boost::multiprecision::cpp_dec_float<60>, boost::multiprecision::et_off>;

/// The decimal that was typed: the shortest one that is this double.
Decimal typed(double v) {
    if (!std::isfinite(v) || std::abs(v) > 9e12) throw std::invalid_argument("a price or amount that is no number");
    char buffer[64];
    const auto [end, e] = std::to_chars(buffer, buffer + sizeof buffer, v);
    return Decimal(std::string(buffer, end));
}

Cents rounded(const Decimal& hundredths) {
    const Decimal half_up = floor(abs(hundredths) + Decimal("0.5"));
    if (half_up > Decimal("9e17")) throw std::invalid_argument("a sum that no shop could pay");
    const auto whole = half_up.convert_to<Cents>();
    return hundredths < 0 ? -whole : whole;
}

double thousandth(double v) { return std::round(v * 1000) / 1000; }

}  // namespace

std::string in_decimals(Cents c) {
    const auto u = static_cast<std::uint64_t>(c < 0 ? -(c + 1) : c) + (c < 0 ? 1 : 0);
    return fmt::format("{}{}.{:02}", c < 0 ? "-" : "", u / 100, u % 100);
}

Cents times_price(double amount, double price) { return rounded(typed(thousandth(amount)) * typed(price) * 100); }
Cents percent_of(Cents c, double pct) { return rounded(Decimal(c) * typed(pct) / 100); }

namespace {

class Summing {
  public:
    Summing(const Plan& plan, const Job& job, const Shop& shop, const RealHours* real) : plan_(plan), job_(job), shop_(shop), real_(real) {}

    Money run() {
        if (!plan_.drawable()) return m_;
        needs();
        hours();
        for (const ExtraCost& e : job_.money.extra) line({key_of(NeedKind::extra), "extra " + e.what, e.what, e.amount, "pcs", e.price});
        for (const MoneyLine& l : m_.lines) m_.parts += l.sum, m_.hours += l.kind == std::string("hours") ? l.sum : 0;
        m_.overhead = percent_of(m_.parts, shop_.money.overhead_pct);
        m_.cost = m_.parts + m_.overhead;
        const double margin = std::clamp(job_.money.margin_pct.value_or(shop_.money.margin_pct), 0.0, 95.0);
        // What it really cost changes what an hour of it earned, not what it was offered for.
        m_.net = real_ ? money_of(plan_, job_, shop_).net : rounded(Decimal(m_.cost) * 100 / (100 - typed(margin)));
        m_.margin = m_.net - m_.cost;
        m_.tax = percent_of(m_.net, shop_.money.tax_pct);
        m_.offer = m_.net + m_.tax;
        if (m_.hands_h > 0) m_.hour_earns = rounded(Decimal(m_.net - m_.cost + maker_) / typed(thousandth(m_.hands_h)));
        figures(margin);
        return std::move(m_);
    }

  private:
    void line(MoneyLine l) {
        if (!(std::abs(l.amount) > 5e-4)) return;
        l.amount = thousandth(l.amount);
        if (l.price) l.sum = times_price(l.amount, *l.price);
        else m_.missing.push_back(l.what);
        m_.lines.push_back(std::move(l));
    }

    /// Share of a slab's upper face that goes back to the rack.
    double goes_back(std::size_t leaf) const {
        const LeafPlan& l = plan_.leaves[leaf];
        const double whole = std::abs(area(l.shape().ring_a));
        if (!(whole > 0) || !l.lay) return 0;
        const double used = std::clamp(std::abs(area(l.lay->rough)) / whole, 0.0, 1.0);
        double back = 0;
        if (plan_.cuts)
            for (const Offcut& o : plan_.cuts->offcuts)
                if (o.leaf == leaf) back += o.length_mm * o.width_mm;
        return std::clamp(back / whole, 0.0, 1 - used);
    }

    void needs() {
        for (const Need& n : needs_of(plan_, job_, shop_)) {
            if (n.kind != NeedKind::slab) {
                // Out of what is on the shelf first, the rest in whole kits: what stays over is paid too.
                line({key_of(n.kind), n.key, n.what, paid_for(n.amount, n.left.value_or(0), n.kit.value_or(0)), n.unit, n.price});
                continue;
            }
            std::size_t leaf = 0;
            while (leaf < plan_.leaves.size() && "slab " + plan_.leaves[leaf].slab().id != n.key) ++leaf;
            const double back = goes_back(leaf);
            if (job_.money.slabs == SlabCost::share) {
                // What does not go back to the rack is used up by this top: its part of the face, and what falls off it.
                line({key_of(n.kind), n.key, n.what, 1 - back, "of it", n.price});
            } else {
                line({key_of(n.kind), n.key, n.what, 1, "pcs", n.price});
                if (n.price) line({key_of(n.kind), "back " + n.key, n.what + ", back to the rack", -back, "of it", n.price});
            }
        }
    }

    void hours() {
        struct Sum {
            double maker = 0, helper = 0;
        };
        std::map<std::string_view, Sum> by_step;
        for (const Operation& o : plan_.days->operations) {
            if (o.who == Who::outside) continue;
            double h = o.hands_on_h;
            if (real_)
                if (const auto it = real_->find(o.key); it != real_->end()) h = it->second;
            Sum& s = by_step[o.step.key];
            if (o.works() != Who::helper) s.maker += h;
            if (o.works() != Who::maker) s.helper += h;
        }
        const auto rate = job_.money.hour ? job_.money.hour : shop_.money.hour;
        const auto helper = shop_.money.helper_hour ? shop_.money.helper_hour : rate;
        for (const StepRow& row : steps()) {
            const auto it = by_step.find(row.step.key);
            if (it == by_step.end()) continue;
            m_.hands_h += thousandth(it->second.maker);
            line({"hours", std::string("hours ") + std::string(row.step.key), row.name, it->second.maker, "h", rate});
            if (rate && !m_.lines.empty() && m_.lines.back().key == std::string("hours ") + std::string(row.step.key))
                maker_ += m_.lines.back().sum;
            line({"hours", std::string("helper ") + std::string(row.step.key), std::string(row.name) + ", the helper", it->second.helper,
                  "h", helper});
        }
        // One word for all hours without a rate.
        if (!rate) {
            std::erase_if(m_.missing, [&](const std::string& s) {
                for (const MoneyLine& l : m_.lines)
                    if (l.kind == std::string("hours") && l.what == s) return true;
                return false;
            });
            m_.missing.push_back("The maker's hours");
        }
    }
    Quantity money(Cents c) const { return number(static_cast<double>(c) / 100); }

    void figures(double margin) {
        std::vector<Given> kinds;
        const auto add_kind = [&](const char* key, const char* name) {
            Cents c = 0;
            bool any = false;
            for (const MoneyLine& l : m_.lines)
                if (l.kind == std::string(key)) c += l.sum, any = true;
            if (any) kinds.push_back({name, money(c), "its lines"});
        };
        for (int k = 0; k <= static_cast<int>(NeedKind::extra); ++k)
            add_kind(key_of(static_cast<NeedKind>(k)), name_of(static_cast<NeedKind>(k)));
        add_kind("hours", "Hours");
        const Phrase left = m_.missing.empty()
                                ? Phrase()
                                : say("without what has no price: {}", counted(static_cast<double>(m_.missing.size()), "thing", "things"));
        m_.figures.push_back({"money.cost",
                              "It costs",
                              money(m_.cost),
                              {},
                              left,
                              {"Σ lines + overhead",
                               [&] {
                                   auto t = kinds;
                                   t.push_back({"overhead", money(m_.overhead), "a share of the lines"});
                                   return t;
                               }(),
                               "each line: amount × price, to the hundredth"}});
        m_.figures.push_back({"money.offer",
                              "Offered for",
                              money(m_.offer),
                              {},
                              left,
                              {"cost / (1 − margin) + tax",
                               {{"cost", money(m_.cost), "its figure"},
                                {"margin", percent(margin), "of the offer before tax"},
                                {"tax", money(m_.tax), "on it"}},
                               "to the hundredth"}});
        if (m_.hour_earns)
            m_.figures.push_back({"money.hour_earns",
                                  "An hour of it earns",
                                  money(*m_.hour_earns),
                                  {},
                                  {},
                                  {"(offer before tax − cost + the maker's hours) / hours",
                                   {{"before tax", money(m_.net), ""},
                                    {"cost", money(m_.cost), ""},
                                    {"maker", money(maker_), "in the cost"},
                                    {"hours", hours_of(m_.hands_h), "of all operations"}},
                                   "what is left for the maker"}});
    }
    static Quantity hours_of(double h) { return yb::hours(h); }

    const Plan& plan_;
    const Job& job_;
    const Shop& shop_;
    const RealHours* real_;
    Money m_;
    Cents maker_ = 0;
};

}  // namespace

Money money_of(const Plan& plan, const Job& job, const Shop& shop, const RealHours* real) { return Summing(plan, job, shop, real).run(); }

std::vector<ShoppingLine> shopping_list(const Plan& plan, const Job& job, const Shop& shop) {
    std::vector<ShoppingLine> out;
    for (Need& n : needs_of(plan, job, shop)) {
        if (n.kind == NeedKind::slab || n.kind == NeedKind::outside || n.key == "cutter") continue;
        ShoppingLine l{std::move(n), {}};
        if (l.need.price) l.cost = times_price(l.need.buys(), *l.need.price);
        out.push_back(std::move(l));
    }
    std::stable_sort(out.begin(), out.end(), [](const ShoppingLine& a, const ShoppingLine& b) { return a.need.kind < b.need.kind; });
    return out;
}

std::string shopping_csv(const std::vector<ShoppingLine>& list) {
    std::string out = "kind,what,needed,unit,on_shelf,to_buy,price,cost\n";
    for (const ShoppingLine& l : list)
        out += fmt::format("{},{},{},{},{},{},{},{}\n", key_of(l.need.kind), csv_field(l.need.what), thousandth(l.need.amount),
                           csv_field(l.need.unit), l.need.left ? fmt::format("{}", *l.need.left) : "", thousandth(l.need.buys()),
                           l.need.price ? fmt::format("{}", *l.need.price) : "", l.cost ? in_decimals(*l.cost) : "");
    return out;
}

}  // namespace yb
