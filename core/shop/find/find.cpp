#include "core/shop/find/find.h"
#include "core/shop/job/job.h"

#include <algorithm>
#include <cmath>
#include <mutex>

#include "core/ground/calendar/calendar.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/plan.h"
#include "core/steps/fill/fill.h"
#include "core/steps/flat/flat.h"
#include "core/steps/lay/place.h"
#include "core/steps/pour/pour.h"
#include "core/steps/top/top.h"

namespace yb {

namespace {

/// What is known of a slab before anything is laid on it.
struct Known {
    const Slab* slab = nullptr;
    std::shared_ptr<const BothWays> ways;  ///< made when first needed
    SlabShape shape;
    SlabMeans means;
    double length_mm = 0, area_mm2 = 0;
    double middle_flaws = 0;  ///< of its flaws, those that no rip or crosscut takes away
    std::once_flag once;
    const std::shared_ptr<const BothWays>& both() {
        std::call_once(once, [&] { ways = both_ways(*slab); });
        return ways;
    }
};

struct Candidate {
    MakeUp kind = MakeUp::single;
    std::vector<std::size_t> slabs;
    double bound = 0;
};

class Finder {
  public:
    Finder(const Documents& docs, const FindOrder& order, const Work& work, const std::function<void(const std::vector<Found>&)>& so_far)
        : docs_(docs), order_(order), work_(work), so_far_(so_far) {}

    std::vector<Found> run() {
        know();
        candidates();
        std::stable_sort(all_.begin(), all_.end(), [](const Candidate& a, const Candidate& b) { return a.bound > b.bound; });
        // The most promising first, a handful at a time over the cores; the rest is left once none can reach the list.
        std::size_t handful = 4;
        for (std::size_t from = 0, next = 0; from < all_.size(); from = next, handful = 16) {
            next = from + handful;
            work_.check();
            if (best_.size() >= order_.keep && all_[from].bound <= best_.back().score) break;
            const std::size_t to = std::min(all_.size(), from + handful);
            std::vector<std::optional<Found>> made(to - from);
            in_parallel(to - from, [&](std::size_t i) { made[i] = work_out(all_[from + i]); }, {{}, work_.stop, work_.threads});
            bool better = false;
            for (auto& f : made) better = (f && take(std::move(*f))) || better;
            if (better && so_far_) so_far_(best_);
            work_.tell(static_cast<double>(to) / static_cast<double>(all_.size()));
        }
        in_parallel(best_.size(), [&](std::size_t i) { ask_top(best_[i]); }, {{}, work_.stop, work_.threads});
        std::stable_sort(best_.begin(), best_.end(), [](const Found& a, const Found& b) { return a.score > b.score; });
        return best_;
    }

  private:
    static constexpr double most_turn_deg = 8;       ///< the top on its slab, to either side
    static constexpr double most_live_turn_deg = 5;  ///< between two live edges: turned further its ends stand askew to both

    void know() {
        const auto taken = taken_slabs(docs_, order_.for_job);
        for (const auto& [id, s] : docs_.slabs)
            if (!s.retired && !taken.count(id)) {
                known_.push_back(std::make_unique<Known>());
                known_.back()->slab = &s;
            }
        in_parallel(known_.size(),
                    [&](std::size_t i) {
                        Known& k = *known_[i];
                        k.shape = shape_of(*k.slab);
                        if (!k.shape.usable) return;
                        k.means = means_of(k.shape);
                        k.length_mm = k.shape.x1 - k.shape.x0;
                        k.area_mm2 = area(k.shape.ring_a);
                        k.middle_flaws = middle_flaws(k);
                    },
                    {{}, work_.stop, work_.threads});
        std::erase_if(known_, [](const auto& k) { return !k->shape.usable; });
    }

    void candidates() {
        for (std::size_t i = 0; i < known_.size(); ++i)
            if (order_.singles) offer(MakeUp::single, {i});
        std::map<std::string, std::vector<std::size_t>> trees;
        for (std::size_t i = 0; i < known_.size(); ++i)
            if (!known_[i]->slab->tree.empty()) trees[known_[i]->slab->tree + "\n" + known_[i]->slab->species].push_back(i);
        for (auto& [tree, list] : trees) {
            for (std::size_t a = 0; a < list.size(); ++a)
                for (std::size_t b = a + 1; b < list.size(); ++b) {
                    if (order_.pairs) offer(MakeUp::book, {list[a], list[b]}), offer(MakeUp::slip, {list[a], list[b]});
                    if (order_.rivers) offer(MakeUp::river, {list[a], list[b]});
                }
            if (!order_.boards) continue;
            // Boards in the order they were sawn, one after another.
            std::vector<std::size_t> numbered;
            for (const std::size_t i : list)
                if (known_[i]->slab->sequence) numbered.push_back(i);
            std::sort(numbered.begin(), numbered.end(),
                      [&](std::size_t x, std::size_t y) { return *known_[x]->slab->sequence < *known_[y]->slab->sequence; });
            for (const std::size_t n : {std::size_t{3}, std::size_t{4}})
                for (std::size_t a = 0; a + n <= numbered.size(); ++a)
                    offer(MakeUp::boards,
                          {numbered.begin() + static_cast<std::ptrdiff_t>(a), numbered.begin() + static_cast<std::ptrdiff_t>(a + n)});
        }
    }

    double top_area() const { return area(outline_of(order_.top)); }

    /// Adds a candidate unless its means show that it can't be: with the most it could score.
    void offer(MakeUp kind, std::vector<std::size_t> slabs) {
        Found f;
        f.kind = kind;
        double widest = 0;  // of all leaves side by side: a stretch in the middle can be wider than the mean of the whole
        double wood = 0;
        double flaws = 0;
        double thickness = 1e300;
        for (const std::size_t i : slabs) {
            const Known& k = *known_[i];
            wood += k.area_mm2;
            widest += k.means.widest_mm;
            if (kind != MakeUp::single) flaws += k.middle_flaws;
            thickness = std::min(thickness, k.means.thickest_mm);
            f.price += k.slab->price.value_or(0);
            f.moisture_pct = std::max(f.moisture_pct, k.slab->moisture_pct.value_or(order_.dry_pct));
            f.lack_mm = std::max(f.lack_mm, order_.top.length_mm - k.length_mm);
        }
        const double river = is_river(kind) ? order_.choices.river_mm : 0;
        f.lack_mm = std::max({0.0, f.lack_mm, order_.top.width_mm - widest - river});
        f.fits = f.lack_mm <= 0;
        f.thickness_mm = thickness;
        f.narrowest_mm = widest + river;
        const double resin = river * order_.top.length_mm;
        f.waste_pct = 100 * std::clamp(1 - (std::max(top_area(), 0.0) - resin) / std::max(1.0, wood), 0.0, 1.0);
        // Live edges: no more wood can lie in the top than its length at the widest.
        if (order_.top.live != LiveEdges::none)
            f.waste_pct = 100 * std::clamp(1 - order_.top.length_mm * widest / std::max(1.0, wood), 0.0, 1.0);
        f.flaw_weight = flaws;
        f.apart_mm = kind == MakeUp::single ? 0 : order_.choices.mill_kerf_mm;
        score(f, false);
        all_.push_back({kind, std::move(slabs), f.score});
    }

    /// Lays a candidate out and scores it.
    std::optional<Found> work_out(const Candidate& c) {
        Found f;
        f.kind = c.kind;
        std::vector<std::size_t> order;
        double wood = 0;
        if (c.kind == MakeUp::single) {
            order = c.slabs;
        } else {
            std::vector<std::shared_ptr<const BothWays>> boards;
            for (const std::size_t i : c.slabs) boards.push_back(known_[i]->both());
            const Arrangement a = arrange(c.kind, boards, order_.top, order_.choices);
            if (!a.possible) return {};
            for (const std::size_t i : a.order) order.push_back(c.slabs[i]);
            f.placements = a.placements;
            f.joints = a.joints;
        }
        if (c.kind == MakeUp::single) single(f, *known_[order[0]]);
        else if (!several(f, order)) return {};
        for (const std::size_t i : order) {
            const Known& k = *known_[i];
            f.slabs.push_back(k.slab->id);
            wood += k.area_mm2;
            f.price += k.slab->price.value_or(0);
            f.moisture_pct = std::max(f.moisture_pct, k.slab->moisture_pct.value_or(order_.dry_pct));
        }
        f.waste_pct = 100 * std::clamp(1 - f.wood_mm2 / std::max(1.0, wood), 0.0, 1.0);
        score(f, true);
        return f;
    }

    /// One slab, either face up and, where one live edge stays, either of its edges: what lacks least, then what shows the
    /// fewest flaws.
    void single(Found& f, Known& k) {
        const BothWays& ways = *k.both();
        const bool rectangle = order_.top.shape == TopShape::rectangle;
        const LiveEdges live = order_.top.live;
        const bool one_edge = rectangle && (live == LiveEdges::left || live == LiveEdges::right);
        const double length = std::min(order_.top.length_mm, k.length_mm - 1);
        std::optional<LayPlan> best;
        std::pair<double, double> least;
        double widest = 0;
        const auto look = [&](bool over, const Widest& w, WideBy by, bool ended) {
            Placement p = w.by(by) > 0 ? w.placement : middle_of(ways.shape(over));
            p.turned_over = over;
            if (ended) p.angle_deg += 180;
            LayPlan lay = plan_lay({ways.slab(over), ways.shape(over), order_.top, p});
            double shown = 0;
            for (const FlawInside& i : lay.flaws)
                if (const Flaw& flaw = ways.slab(over).flaws[i.index]; flaw.face == Face::a || flaw.through) shown += weight_of(flaw.kind);
            const std::pair now{lack_of(lay), shown};
            if (best && now >= least) return;
            least = now;
            best = std::move(lay);
            f.placements = {p};
            widest = w.by(by);
        };
        Widest place;
        for (const bool over : {false, true}) {
            if (!one_edge) {
                const WideBy by = live != LiveEdges::none && rectangle ? WideBy::live : WideBy::sawn;
                // Turned over the place is the same, seen from below, for sawn edges; between live ones each face has its own.
                if (!over || by == WideBy::live)
                    place = widest_top(ways.shape(over), length, by, by == WideBy::live ? most_live_turn_deg : most_turn_deg);
                else place.placement.y_mm = -place.placement.y_mm, place.placement.angle_deg = -place.placement.angle_deg;
                look(over, place, by, false);
                continue;
            }
            // The top's left is the slab's +y, or its −y where it lies end for end.
            for (const WideBy by : {WideBy::live_high, WideBy::live_low})
                look(over, widest_top(ways.shape(over), length, by, most_turn_deg), by,
                     (by == WideBy::live_high) != (live == LiveEdges::left));
        }
        const bool over = f.placements[0].turned_over;
        measure(f, *best);
        // Where an edge is sawn there is as much as the place has, not as much as is wanted.
        if (rectangle && live != LiveEdges::both) f.narrowest_mm = widest;
        f.thickness_mm =
            rested_inside(ways.slab(over), ways.shape(over), best->outline, best->rough, order_.flat, order_.settles_pct).value_or(0);
        weigh(f, k, best->outline);
        count_flaws(f, ways.slab(over), best->flaws);
    }

    /// @returns false where a joint would run outside the top: that is no way to make it.
    bool several(Found& f, const std::vector<std::size_t>& order) {
        MakeUpInputs in{{}, order_.top, order_.choices, true, {}};
        in.choices.kind = f.kind;
        in.choices.joints = f.joints;
        for (std::size_t i = 0; i < order.size(); ++i) {
            const bool over = f.placements[i].turned_over;
            const BothWays& b = *known_[order[i]]->both();
            in.leaves.push_back({b.slab(over), b.shape(over), f.placements[i]});
        }
        if (is_river(f.kind)) {
            f.placements = even_river(in);
            for (std::size_t i = 0; i < order.size(); ++i) in.leaves[i].placement = f.placements[i];
        }
        const LaidTogether laid = plan_makeup(in);
        for (const JointPlan& j : laid.plan.joints)
            if (j.outside_mm >= 0.05) return false;
        measure(f, laid.lay);
        for (const JointPlan& j : laid.plan.joints)
            if (!j.river && j.worst_mm > 0.5) f.fits = false, f.lack_mm = std::max(f.lack_mm, j.worst_mm);
        f.thickness_mm = 1e300;
        for (std::size_t i = 0; i < order.size(); ++i) {
            const LayPlan& own = laid.plan.leaves[i].lay;
            if (!own.ready) {
                f.fits = false;
                f.thickness_mm = 0;
                continue;
            }
            f.thickness_mm = std::min(
                f.thickness_mm,
                rested_inside(in.leaves[i].slab, in.leaves[i].shape, own.outline, own.rough, order_.flat, order_.settles_pct).value_or(0));
            weigh(f, *known_[order[i]], own.outline);
            count_flaws(f, in.leaves[i].slab, own.flaws);
        }
        if (f.kind == MakeUp::river) {
            f.resin_l = laid.plan.water_mm2 * order_.top.thickness_mm * 1e-6;
            f.weight_kg += f.resin_l * river_resin(docs_.shop.resins, {}).mixed_density();
            f.price += f.resin_l * order_.resin_price_l;
        } else if (!is_river(f.kind)) {
            const auto a = known_[order[order.size() / 2 - 1]]->slab->sequence;
            const auto b = known_[order[order.size() / 2]]->slab->sequence;
            const int between = a && b ? std::abs(*a - *b) - 1 : 1;
            f.apart_mm = order_.choices.mill_kerf_mm * (between + 1) + between * known_[order[0]]->means.thickness_mm;
        }
        return true;
    }

    /// A river that was found is flattened and poured as the job would be: its litres, weight and thickness are the real top's.
    void ask_top(Found& f) const {
        if (!is_river(f.kind)) return;
        const auto for_job = docs_.jobs.find(order_.for_job);
        Job job = for_job == docs_.jobs.end() ? Job() : for_job->second;
        job.top = order_.top, job.makeup = order_.choices;
        take_find(job, f);
        const Plan plan = plan_job(job, docs_);
        if (!plan.top || !plan.top->ready) return;
        const double mixed_l = plan.pour && plan.pour->ready ? plan.pour->mix_l : plan.top->river_l();
        f.price += (mixed_l - f.resin_l) * order_.resin_price_l;
        f.resin_l = mixed_l;
        f.weight_kg = plan.top->mass_kg;
        f.gains.clear(), f.costs.clear();
        score(f, true);
    }

    void measure(Found& f, const LayPlan& lay) const {
        f.narrowest_mm = lay.narrowest_mm;
        f.lack_mm = lack_of(lay);
        f.fits = f.lack_mm < 0.05;
    }

    /// What both sides lack together, or both ends: so much wider or longer the slab would have to be.
    static double lack_of(const LayPlan& lay) {
        double sides = 0;
        double ends = 0;
        for (const Shortfall& s : lay.short_at) (is_end(s.side) ? ends : sides) += s.mm;
        return std::max(sides, ends);
    }

    void weigh(Found& f, const Known& k, const Ring& outline) {
        f.wood_mm2 += area(outline);
        f.weight_kg +=
            area(outline) * std::min(order_.top.thickness_mm, std::max(0.0, f.thickness_mm)) * 1e-9 * density_of(*k.slab).value_or(600);
    }

    static double weight_of(FlawKind kind) {
        const bool heavy = kind == FlawKind::crack || kind == FlawKind::void_ || kind == FlawKind::soft || kind == FlawKind::pith;
        return heavy ? 2 : 1;
    }

    /// Flaws near the slab's middle: leaves are laid there, so they stay in whatever is made of it.
    double middle_flaws(const Known& k) const {
        double sum = 0;
        const double mid = (k.shape.x0 + k.shape.x1) / 2;
        for (const Flaw& f : k.slab->flaws) {
            if (f.outline.size() < 3) continue;
            const Vec2 c = centroid(f.outline);
            if (std::abs(c.x - mid) > order_.top.length_mm / 2 - 150) continue;
            const auto cut = cut_at_x(k.shape.ring_a, c.x);
            if (cut.empty()) continue;
            const double from_edge = std::min(c.y - cut.front().from, cut.back().to - c.y);
            if (order_.top.live == LiveEdges::both && from_edge > 0.3 * (cut.back().to - cut.front().from)) sum += weight_of(f.kind);
        }
        return sum;
    }

    static void count_flaws(Found& f, const Slab& slab, const std::vector<FlawInside>& inside) {
        for (const FlawInside& i : inside) {
            ++f.flaws;
            f.flaw_weight += weight_of(slab.flaws[i.index].kind);
        }
    }

    /// The score and, for `tell`, what speaks for it and against it. Each part runs from 0 (bad) to 1 (as good as can be).
    void score(Found& f, bool tell) const {
        struct Part {
            double weight, good;
            Phrase gain, cost;
        };
        const FindWeights& w = order_.weights;
        const double wanted = order_.top.thickness_mm;
        std::vector<Part> parts;
        parts.push_back(
            {w.thickness,
             std::clamp(f.thickness_mm / wanted, 0.0, 1.0) * 0.8 + 0.2 * std::clamp(f.thickness_mm / wanted - 1, 0.0, 0.25) / 0.25,
             say("finishes up to {} thick", fine(f.thickness_mm)),
             say("finishes {} too thin", fine(std::max(0.0, wanted - f.thickness_mm)))});
        parts.push_back({w.waste, 1 - f.waste_pct / 100, say("uses {} of the wood", percent(100 - f.waste_pct)),
                         say("gives up {} of the wood", percent(f.waste_pct))});
        const double like = f.kind == MakeUp::single ? 1
                            : is_river(f.kind)       ? 0.6
                            : f.kind == MakeUp::slip ? 0.5 / (1 + (f.apart_mm - order_.choices.mill_kerf_mm) / 150)  // it repeats
                                                     : 1 / (1 + f.apart_mm / 40);
        parts.push_back({w.likeness, like,
                         f.kind == MakeUp::single ? say("one figure, no joint") : say("faces only {} apart in the log", fine(f.apart_mm)),
                         is_river(f.kind)         ? say("the figure does not meet")
                         : f.kind == MakeUp::slip ? say("the figure repeats, it does not mirror")
                                                  : say("faces {} apart in the log", fine(f.apart_mm))});
        parts.push_back({w.flaws, 1 / (1 + 0.12 * f.flaw_weight),
                         f.flaws == 0 ? say("no flaw inside") : say("{} inside", counted(f.flaws, "flaw", "flaws")),
                         say("{} inside", counted(f.flaws, "flaw", "flaws"))});
        parts.push_back({w.resin, 1 / (1 + f.resin_l / 12), say("no resin to pour"), say("{} of resin", litres(f.resin_l))});
        parts.push_back({w.weight, 1 / (1 + f.weight_kg / 120), say("weighs {}", kg(f.weight_kg)), say("weighs {}", kg(f.weight_kg))});
        const double wet = std::max(0.0, f.moisture_pct - order_.dry_pct);
        parts.push_back({w.moisture, 1 / (1 + wet / 3), say("dry enough at {}", percent(f.moisture_pct)),
                         say("at {} still too wet", percent(f.moisture_pct))});
        parts.push_back({w.money, 1 / (1 + f.price / 900),
                         f.price > 0 ? say("{} for the slabs", number(std::round(f.price))) : say("no price known"),
                         say("{} for the slabs", number(std::round(f.price)))});
        double sum = 0;
        double weights = 0;
        for (const Part& p : parts) sum += p.weight * p.good, weights += p.weight;
        f.score = weights > 0 ? sum / weights : 0;
        // What does not fit ranks below all that does, the nearer the better.
        f.score = f.fits ? 0.5 + 0.5 * f.score : 0.5 * f.score / (1 + f.lack_mm / 60);
        if (!tell) return;
        if (f.lack_mm >= 0.05) f.costs.push_back(say("short by {}", mm(f.lack_mm)));
        const auto told = [&](bool gains, std::vector<Phrase>& out) {
            std::vector<const Part*> list;
            for (const Part& p : parts)
                if (p.weight > 0 && (gains ? p.good >= 0.7 : p.good < 0.7)) list.push_back(&p);
            std::stable_sort(list.begin(), list.end(), [&](const Part* a, const Part* b) {
                return gains ? a->weight * a->good > b->weight * b->good : a->weight * (1 - a->good) > b->weight * (1 - b->good);
            });
            for (const Part* p : list)
                if (out.size() < 3) out.push_back(gains ? p->gain : p->cost);
        };
        told(true, f.gains);
        told(false, f.costs);
    }

    /// Of a pair the better of opened and drawn out stays: the other is one click away.
    bool take(Found f) {
        const auto better = [](const Found& a, const Found& b) { return a.score > b.score; };
        const auto pair = [](MakeUp kind) { return kind == MakeUp::book || kind == MakeUp::slip; };
        const auto twin = std::find_if(best_.begin(), best_.end(), [&](const Found& g) {
            return pair(f.kind) && pair(g.kind) && std::is_permutation(f.slabs.begin(), f.slabs.end(), g.slabs.begin(), g.slabs.end());
        });
        if (twin != best_.end()) {
            if (f.score <= twin->score) return false;
            best_.erase(twin);
        }
        if (best_.size() >= order_.keep && f.score <= best_.back().score) return false;
        best_.insert(std::upper_bound(best_.begin(), best_.end(), f, better), std::move(f));
        if (best_.size() > order_.keep) best_.pop_back();
        return true;
    }

    const Documents& docs_;
    const FindOrder& order_;
    const Work& work_;
    const std::function<void(const std::vector<Found>&)>& so_far_;
    std::vector<std::unique_ptr<Known>> known_;
    std::vector<Candidate> all_;
    std::vector<Found> best_;
};

}  // namespace

std::vector<Found> find_tops(const Documents& docs, const FindOrder& order, const Work& work,
                             const std::function<void(const std::vector<Found>&)>& so_far) {
    return Finder(docs, order, work, so_far).run();
}

double usual_dry_pct() { return dry_enough_pct(Job().room, Shop()); }

FindOrder find_order(const Job& job, const Shop& shop) {
    FindOrder o;
    o.top = job.top, o.choices = job.makeup, o.for_job = job.id;
    o.dry_pct = dry_enough_pct(job.room, shop);
    o.flat = job.flat, o.settles_pct = shop.settles_pct(is_date(job.start) ? date_after(job.start, job.flat.rest_h) : job.start);
    if (!shop.resins.empty()) o.resin_price_l = river_resin(shop.resins, job.fill.river).price_l.value_or(0);
    return o;
}

FindOrder find_order(const Shop& shop) { return find_order(Job(), shop); }

void take_find(Job& job, const Found& found) {
    job.leaves.clear();
    for (std::size_t i = 0; i < found.slabs.size(); ++i) {
        Leaf l;
        l.slab = found.slabs[i];
        l.placement = found.placements[i];
        job.leaves.push_back(l);
    }
    job.makeup.kind = found.kind;
    job.makeup.joints = found.joints;
    job.makeup.ripped = job.makeup.faces_flat = false;
    job.cuts_done = false;
}

}  // namespace yb
