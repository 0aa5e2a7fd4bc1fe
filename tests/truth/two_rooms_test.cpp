// Every figure that two rooms tell, asked of both: on the demo's jobs and on two hundred made otherwise by dice.
#include <catch2/catch.hpp>

#include <functional>
#include <random>
#include <set>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/needs.h"
#include "core/shop/job/skin_of.h"
#include "core/shop/job/steps.h"
#include "core/shop/money/money.h"
#include "core/shop/record/agreement.h"
#include "core/steps/days/days.h"
#include "core/steps/fill/fill.h"
#include "core/steps/flat/flat.h"
#include "core/steps/join/join.h"
#include "core/steps/lay/lay.h"
#include "core/steps/pace/pace.h"
#include "core/steps/pour/pour.h"
#include "core/steps/skin/skin.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"
#include "demo/demo.h"
#include "tests/sane.h"

using namespace yb;

namespace {

struct Asked {
    const Documents& docs;
    const Job& job;
    const Plan& p;
    const SkinPlan& skin = skin_of(p);
    std::vector<Need> needs = needs_of(p, job, docs.shop);
    Money money = money_of(p, job, docs.shop);

    double need(const std::string& key) const {
        for (const Need& n : needs)
            if (n.key == key) return n.amount;
        return 0;
    }
    double hands(Step step, bool helper) const {
        double h = 0;
        for (const Operation& o : p.days->operations)
            if (o.step == step && o.who != Who::outside && (helper ? o.works() != Who::maker : o.works() != Who::helper)) h += o.hands_on_h;
        return h;
    }
    double paid_h(const std::string& key) const {
        for (const MoneyLine& l : money.lines)
            if (l.key == key) return l.amount;
        return 0;
    }
    /// Hands on operations of a key and its further parts.
    double hands_of(const std::string& key) const {
        double h = 0;
        for (const Operation& o : p.days->operations)
            if (o.key == key || o.part_of == key) h += o.hands_on_h;
        return h;
    }
    bool changed(const std::string& key) const {
        for (const OpChange& c : job.days.changes)
            if (c.key == key && c.hands_h) return true;
        return false;
    }
};

/// One room's figure and the other's.
using Both = std::vector<std::pair<double, double>>;
struct ToldTwice {
    const char* what;
    double within;
    std::function<Both(const Asked&)> ask;
};

std::string said(const StepPlan& p, const std::string& choice) {
    for (const Choice& c : p.choices)
        if (c.key == choice)
            for (const Option& o : c.options)
                if (o.chosen) return render(o.consequence, Units::metric());
    return {};
}

const std::vector<ToldTwice>& told_twice() {
    static const std::vector<ToldTwice> rows{
        {"thickness: Flat, the top, what is agreed", 1e-9,
         [](const Asked& a) -> Both {
             return {{a.p.flat->thickness_mm, a.p.top->thickness_mm}, {a.p.flat->tilt.thickness_mm, a.p.flat->thickness_mm}};
         }},
        {"what stays below, at most: Flat and the top", 0.5,  // the top asks it on a grid
         [](const Asked& a) -> Both {
             if (!a.p.flat->under_stays || a.job.leaves.size() != 1) return {};
             return {{a.p.flat->stays_mm, a.p.top->most_stays_mm}};
         }},
        {"weight of the top: the top, Under's figure", 1e-9,
         [](const Asked& a) -> Both {
             const Figure* f = find_figure(a.p.under->figures, "under.mass");
             if (!f) return {};
             return {{a.p.top->mass_kg, f->value.value}};
         }},
        {"cup with one face damper: Flat, Under", 1e-9,
         [](const Asked& a) -> Both {
             if (a.job.leaves.size() != 1 || !a.p.under->held || !a.p.flat->one_face_mm) return {};
             return {{std::abs(*a.p.flat->one_face_mm), a.p.under->held->free_mm}};
         }},
        {"the day's air: Days, Pour, Join, Skin", 1e-9,
         [](const Asked& a) -> Both {
             Both out;
             if (!a.p.pour->lifts.empty()) out.emplace_back(a.p.air_of(step_key::pour).day.temp_c, a.p.pour->air_c);
             if (!a.p.join->joints.empty()) out.emplace_back(a.p.air_of(step_key::join).day.temp_c, a.p.join->air_c);
             if (a.skin.ready) out.emplace_back(a.p.air_of(step_key::skin).day.temp_c, a.skin.air_c);
             return out;
         }},
        {"hours: Days and money, maker and helper, step by step", 0.002,
         [](const Asked& a) -> Both {
             Both out;
             for (const StepRow& row : steps()) {
                 const std::string key(row.step.key);
                 out.emplace_back(a.hands(row.step, false), a.paid_h("hours " + key));
                 out.emplace_back(a.hands(row.step, true), a.paid_h("helper " + key));
             }
             return out;
         }},
        {"resin of the river: Pour and the shopping", 1e-9,
         [](const Asked& a) -> Both {
             if (a.p.pour->lifts.empty()) return {};
             double fills = 0;
             for (const VoidPlan& v : a.p.fill->voids)
                 for (const Lift& l : v.lifts)
                     if (v.resin == a.p.pour->resin && !v.river) fills += l.volume_l;
             double batches = 0;
             for (const Batch& b : a.p.pour->batches) batches += b.volume_l;
             return {{a.p.pour->mix_l + fills, a.need("resin " + a.p.pour->resin)}, {a.p.pour->mix_l, batches}};
         }},
        {"resin of the voids: Fill and the shopping", 1e-9,
         [](const Asked& a) -> Both {
             std::map<std::string, double> each;
             double all = 0;
             for (const VoidPlan& v : a.p.fill->voids)
                 for (const Lift& l : v.lifts)
                     if (!v.river) each[v.resin] += l.volume_l, all += l.volume_l;
             Both out{{all, a.p.fill->mixed_l}};
             for (const auto& [key, l] : each)
                 if (key != a.p.pour->resin && a.p.fill->soak_l <= 0 && l >= 0.005) out.emplace_back(l, a.need("resin " + key));
             return out;
         }},
        {"finish: Skin and the shopping", 1e-9,
         [](const Asked& a) -> Both {
             Both out;
             double all = 0;
             for (const Finish f : a.skin.used) {
                 const double l = a.need(std::string("finish ") + finishes.options[finishes.index(f)].key);
                 all += l;
             }
             if (a.skin.ready) out.emplace_back(1000 * all, a.skin.ml_in_all);
             return out;
         }},
        {"glue and pieces: Join and the shopping", 1e-9,
         [](const Asked& a) -> Both {
             if (a.p.join->joints.empty()) return {};
             return {{a.p.join->glue_l, a.need("glue")}, {a.p.join->pieces, a.need("glued_piece")}};
         }},
        {"discs: Skin and the shopping", 1e-9,
         [](const Asked& a) -> Both {
             return a.skin.ready ? Both{{std::ceil(a.skin.discs), a.need("discs")}} : Both{};
         }},
        {"hands at the pour, lift by lift: Pour and Days", 1e-6,
         [](const Asked& a) -> Both {
             if (a.p.pour->lifts.empty() || a.changed("pour")) return {};
             const Labour& l = a.docs.shop.labour;
             const double batch = a.job.pour.mix_min + l.pour_batch_min + (a.job.pour.degas ? 10 : 0);
             const double minutes =
                 static_cast<double>(a.p.pour->visits.size()) * l.pour_set_min + static_cast<double>(a.p.pour->batches.size()) * batch;
             return {{minutes / 60 * pace_of(a.docs.shop.paces, "pour"), a.hands_of("pour")}};
         }},
        {"hands at the filling, round by round: Fill and Days", 1e-6,
         [](const Asked& a) -> Both {
             if (a.p.fill->rounds == 0 || a.p.fill->soak_l > 0 || a.changed("fill")) return {};
             const Labour& l = a.docs.shop.labour;
             double minutes = 0;
             std::vector<std::set<std::string>> resins;
             for (const VoidPlan& v : a.p.fill->voids) {
                 if (v.left_open || v.river) continue;
                 resins.resize(std::max(resins.size(), v.lifts.size()));
                 for (std::size_t k = 0; k < v.lifts.size(); ++k)
                     resins[k].insert(v.resin),
                         minutes += l.fill_place_min + (k > 0 ? 0 : l.fill_ready_min + (v.through ? l.fill_tape_min : 0));
             }
             for (const auto& r : resins) minutes += l.fill_set_min + l.fill_batch_min * static_cast<double>(r.size());
             return {{minutes / 60 * pace_of(a.docs.shop.paces, "fill"), a.hands_of("fill")}};
         }},
        {"sanding: Skin and Days", 1e-6,
         [](const Asked& a) -> Both {
             if (!a.skin.ready) return {};
             // Setting up each time, and pin holes closed where something was filled.
             const Labour& l = a.docs.shop.labour;
             double minutes = a.skin.sanding_min, hands = 0;
             for (const Operation& o : a.p.days->operations) {
                 if (o.pace != "sand") continue;
                 if (o.lacks || a.changed(o.key)) return {};
                 minutes += l.sand_set_min, hands += o.hands_on_h;
                 if (o.key == "sand" && (a.p.fill->rounds > 0 || !a.p.pour->lifts.empty()))
                     minutes += area(a.p.top->above) * 1e-6 * l.hairline_m2_min;
             }
             return {{minutes / 60 * pace_of(a.docs.shop.paces, "sand"), hands}};
         }},
        {"a glue-up's minutes: Join and Days", 1e-6,
         [](const Asked& a) -> Both {
             if (a.p.join->joints.empty()) return {};
             Both out;
             for (const Operation& o : a.p.days->operations)
                 if ((o.key == "glue" || o.part_of == "glue") && !o.lacks)
                     // Set out, run dry for as long as it takes, glued, what comes out taken off.
                     out.emplace_back((a.docs.shop.labour.glue_set_min + 2 * a.p.join->needed_min + a.docs.shop.labour.glue_wipe_min) / 60 *
                                          pace_of(a.docs.shop.paces, "glue"),
                                      o.hands_on_h);
             return out;
         }},
        {"the finish that is chosen: its words and its plan", 0,
         [](const Asked& a) -> Both {
             if (!a.skin.ready) return {};
             const std::string words = said(a.skin, "skin.finish");
             const std::string plan =
                 render(say("{}, {}", counted(a.skin.coats, "coat", "coats"), litres(a.skin.ml_in_all / 1000)), Units::metric());
             const std::string days = render(say("{} until it is handled", hours(24 * a.skin.days())), Units::metric());
             return {{words.find(plan) == 0 ? 0 : 1, 0}, {words.find(days) == std::string::npos, 0}};
         }},
        {"the aim that is chosen: its words and its plan", 0,
         [](const Asked& a) -> Both {
             Both out;
             if (a.job.flat.tilts == Tilts::one) return out;
             for (const LeafPlan& l : a.p.leaves) {
                 if (!l.flat->ready || a.job.flat.aim != FlatAim::share_out) continue;
                 const std::string plan =
                     render(say("{} thick at most, {} off the show face", fine(l.flat->most_mm), fine(l.flat->face(Face::a).most_off_mm)),
                            Units::metric());
                 out.emplace_back(said(*l.flat, "flat.aim") == plan ? 0 : 1, 0);
             }
             return out;
         }},
        {"the glue-up that is chosen: its words and its plan", 0,
         [](const Asked& a) -> Both {
             if (a.p.join->joints.empty()) return {};
             const std::string plan =
                 render(say("{} of {} open", hours(a.p.join->needed_min / 60), hours(a.p.join->open_min / 60)), Units::metric());
             const std::string words = said(*a.p.join, "join.hands");
             return {{words == plan ? 0 : 1, 0}};
         }},
        {"what is agreed to: its size and the plan's", 0,
         [](const Asked& a) -> Both {
             Both out;
             for (const AgreedLine& l : to_agree(a.p, a.job, a.docs.shop))
                 if (l.key == "size")
                     out.emplace_back(l.of == std::to_string(std::llround(a.job.top.length_mm)) + " " +
                                                  std::to_string(std::llround(a.job.top.width_mm)) + " " +
                                                  std::to_string(std::llround(a.p.flat->thickness_mm))
                                          ? 0
                                          : 1,
                                      0);
             return out;
         }},
    };
    return rows;
}

void ask_both(const Documents& docs, const Job& job, std::set<std::string>& used) {
    const Plan p = plan_job(job, docs);
    if (!p.drawable() || !p.top->ready) return;
    const Asked a{docs, job, p};
    for (const ToldTwice& t : told_twice())
        for (const auto& [one, other] : t.ask(a)) {
            INFO(t.what);
            used.insert(t.what);
            CHECK(one == Approx(other).margin(std::max(t.within, 1e-9)).epsilon(1e-9));
        }
}

template <class School, class Choices>
void by_dice(const School& school, Choices& c, std::mt19937& dice) {
    c.*school.member = school.values[dice() % school.values.size()];
}

}  // namespace

TEST_CASE("what two rooms tell is the same in both, on the demo's jobs and on two hundred made otherwise", "[truth][two_rooms]") {
    std::set<std::string> used;
    Documents docs = demo_shop();
    for (const auto& [id, job] : docs.jobs) {
        INFO(id);
        ask_both(docs, job, used);
    }
    std::mt19937 dice(44);
    const auto any = [&](double low, double high) { return low + (high - low) * static_cast<double>(dice()) / 4294967296.0; };
    std::vector<std::string> ids;
    for (const auto& [id, job] : docs.jobs) ids.push_back(id);
    for (int round = 0; round < 200; ++round) {
        Documents d = docs;
        Job& j = d.jobs.at(ids[dice() % ids.size()]);
        INFO("round " << round << ": " << j.id);
        j.start = "2027-" + std::string(dice() % 2 ? "0" : "1") + std::to_string(dice() % 2 + 1) + "-04";
        j.top.thickness_mm = std::round(any(28, 60));
        j.top.length_mm = std::round(j.top.length_mm * any(0.8, 1));
        by_dice(flat_aims, j.flat, dice), by_dice(flat_finishes, j.flat, dice), by_dice(flat_firsts, j.flat, dice);
        by_dice(flat_bys, j.flat, dice), by_dice(flat_helds, j.flat, dice);
        j.flat.rest_h = dice() % 3 ? 24 : 0, j.flat.allowance_mm = any(0.2, 2);
        by_dice(join_hands, j.join, dice), by_dice(join_glues, j.join, dice), by_dice(join_stages, j.join, dice),
            by_dice(join_looses, j.join, dice);
        by_dice(finishes, j.skin, dice), by_dice(skin_hands, j.skin, dice), by_dice(raisings, j.skin, dice),
            by_dice(sides_finished, j.skin, dice);
        j.skin.faces.clear();
        for (const char* face : {"upper", "under", "edge left"})
            if (dice() % 3 == 0)
                j.skin.faces.push_back({face, dice() % 4 == 0, false, static_cast<FaceFinish>(dice() % face_finishes.values.size())});
        j.skin.coats = dice() % 2 ? std::optional<int>(1 + static_cast<int>(dice() % 6)) : std::nullopt;
        j.skin.seams_mm = dice() % 3 ? std::vector<double>() : std::vector<double>{any(-600, 0), any(0, 600)};
        j.pour.lifts = static_cast<int>(dice() % 4), j.pour.cup_l = any(1, 6), j.pour.fans = dice() % 2;
        j.money.slabs = dice() % 2 ? SlabCost::whole : SlabCost::share;
        d.shop.workday.helper.clear();
        if (dice() % 2)
            for (int day = 0; day < 5; ++day) d.shop.workday.helper.push_back({day, 9, 16});
        for (Month& m : d.shop.air.months) m.temp_c = any(8, 26);
        if (dice() % 2)
            for (const auto& leaf : j.leaves)
                d.slabs.at(leaf.slab).pith_mm = any(-200, 200), d.slabs.at(leaf.slab).moisture_pct = any(8, 16);
        ask_both(d, j, used);
    }
    for (const ToldTwice& t : told_twice()) {
        INFO(t.what << " is told by no job");
        CHECK(used.count(t.what) == 1);
    }
}
