// What can be done to a job: choices taken, slabs given and laid together, leaves turned, patches cut.
#include "core/shop/edit/edits.h"
#include "core/shop/edit/shop_edits.h"
#include "core/shop/job/job.h"

#include <algorithm>
#include <cmath>
#include <tuple>

#include "core/ground/fields/walk.h"
#include "core/material/wood/air_log.h"
#include "core/shop/edit/first_top.h"
#include "core/shop/edit/items.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/plan.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/arrange.h"
#include "core/steps/patch/patch.h"
#include "core/steps/under/under.h"

namespace yb {

void set_name(std::string& name, const std::string& typed) {
    const auto from = typed.find_first_not_of(" \t\r\n");
    if (from != std::string::npos) name = typed.substr(from, typed.find_last_not_of(" \t\r\n") - from + 1);
}

std::string first_free(const std::string& stem, const std::function<bool(const std::string&)>& taken) {
    for (int i = 1;; ++i)
        if (std::string id = stem + "-" + std::to_string(i); !taken(id)) return id;
}

std::string fresh_id(const char* stem, const Documents& d) {
    return first_free(stem, [&](const std::string& id) { return d.slabs.count(id) || d.jobs.count(id); });
}

namespace {

/// In a top of several leaves `2/flaw-1` is the flaw of leaf 2; without a number it is the one on the bench.
VoidFill& void_of(Job& job, std::string flaw, int leaf) {
    auto i = static_cast<std::size_t>(std::max(0, leaf));
    if (auto [of, id] = leaf_of_void(flaw); job.several() && of) i = *of, flaw = std::move(id);
    auto& voids = job.leaves.at(i).voids;
    auto it = std::find_if(voids.begin(), voids.end(), [&](const VoidFill& v) { return v.flaw_id == flaw; });
    if (it == voids.end()) {
        VoidFill fresh;
        fresh.flaw_id = flaw;
        it = voids.insert(voids.end(), fresh);
    }
    return *it;
}

void set_void(Job& job, const std::string& flaw, const std::string& option, int leaf) {
    VoidFill& v = void_of(job, flaw, leaf);
    v.leave_open = option == "open";
    v.resin = v.leave_open || option == "river" ? "" : option;
}

void set_soak(Job& job, const std::string& flaw, const std::string& option, int leaf) {
    if (option != "first" && option != "dry") throw std::invalid_argument("a void is soaked ‘first’ or filled ‘dry’, not ‘" + option + "’");
    void_of(job, flaw, leaf).soak = option == "first" ? Soak::first : Soak::dry;
}

}  // namespace

void set_choice(Job& job, const std::string& choice, const std::string& option, int leaf) {
    if (choice == "fill.river") job.fill.river = option;
    else if (const auto about = read_void_choice(choice))
        about->soak ? set_soak(job, about->id, option, leaf) : set_void(job, about->id, option, leaf);
    else if (!set_school(walk_of(job), choice, option))
        throw std::invalid_argument("there is no choice ‘" + choice + "’ with an option ‘" + option + "’");
}

void take_choice(Job& job, const std::map<std::string, Slab>& slabs, const std::string& choice, const std::string& option, int leaf) {
    set_choice(job, choice, option, leaf);
    if (choice != "lay.makeup" && choice != "makeup.ends" && choice != "makeup.line" && choice != "makeup.faces") return;
    std::vector<Slab> of;
    for (const Leaf& l : job.leaves)
        if (const auto it = slabs.find(l.slab); it != slabs.end()) of.push_back(it->second);
    make_up(job, job.makeup.kind, of);
}

namespace {
LiveEdges swapped(LiveEdges l) {
    if (l == LiveEdges::left) return LiveEdges::right;
    if (l == LiveEdges::right) return LiveEdges::left;
    return l;
}
}  // namespace

const std::vector<Leaf>& leaves_of(const Job& job) { return job.leaves; }

void give_slab(Job& job, const Slab& slab) {
    Leaf leaf;
    leaf.slab = slab.id;
    leaf.placement.oversize_mm = job.first().placement.oversize_mm;
    if (const SlabShape shape = shape_of(slab); shape.usable) {
        const double over = leaf.placement.oversize_mm;
        leaf.placement = middle_of(shape);
        leaf.placement.oversize_mm = over;
    }
    job.leaves = {leaf};
    job.makeup.kind = MakeUp::single;
    job.makeup.joints.clear();
    job.makeup.faces_flat = job.makeup.ripped = false;
    job.cuts_done = false;
}

void make_up(Job& job, MakeUp kind, const std::vector<Slab>& slabs) {
    std::vector<std::shared_ptr<const BothWays>> boards;
    for (const Slab& s : slabs) boards.push_back(both_ways(s));
    const Arrangement a = arrange(kind, boards, job.top, job.makeup);
    if (!a.possible) throw Refusal(a.why_not);
    std::vector<Leaf> leaves;
    for (std::size_t i = 0; i < a.order.size(); ++i) {
        const std::string& id = slabs[a.order[i]].id;
        // What was decided for a slab alone stays with it.
        const auto old = std::find_if(job.leaves.begin(), job.leaves.end(), [&](const Leaf& l) { return l.slab == id; });
        Leaf leaf;
        if (old != job.leaves.end()) {
            leaf = *old;
            if (leaf.placement.turned_over != a.placements[i].turned_over) leaf.supports.clear();
        }
        leaf.slab = id;
        leaf.placement = a.placements[i];
        leaves.push_back(std::move(leaf));
    }
    job.leaves = std::move(leaves);
    job.makeup.kind = kind;
    job.makeup.joints = a.joints;
    if (is_river(kind)) {
        MakeUpInputs in{{}, job.top, job.makeup, true, {}};
        for (std::size_t i = 0; i < a.order.size(); ++i) {
            const BothWays& b = *boards[a.order[i]];
            const Placement& at = job.leaves[i].placement;
            in.leaves.push_back({b.slab(at.turned_over), b.shape(at.turned_over), at});
        }
        const auto even = even_river(in);
        for (std::size_t i = 0; i < even.size(); ++i) job.leaves[i].placement = even[i];
    }
}

std::vector<Placement> evened_river(const MakeUpInputs& in, const Plan& plan) {
    std::vector<SlabShape> finished;
    for (std::size_t i = 0; i < in.leaves.size(); ++i) {
        finished.push_back(in.leaves[i].shape);
        if (i < plan.leaves.size() && plan.leaves[i].finished)
            std::tie(finished.back().ring_a, finished.back().ring_b) = *plan.leaves[i].finished;
    }
    MakeUpInputs at_planes = in;
    at_planes.leaves.clear();
    for (std::size_t i = 0; i < in.leaves.size(); ++i) at_planes.leaves.push_back({in.leaves[i].slab, finished[i], in.leaves[i].placement});
    return even_river(at_planes);
}

void set_free_form(Job& job, Ring outline) {
    const Box box = bounds(outline);
    const Vec2 middle = (box.low + box.high) * 0.5;
    for (Vec2& q : outline) q = q - middle;
    job.top.free_form = to_tenths(std::move(outline));
    job.top.shape = TopShape::free;
    job.top.live = LiveEdges::none;
    job.top.length_mm = std::round(box.width());
    job.top.width_mm = std::round(box.height());
    // The wood lies under what was drawn as it did.
    for (Leaf& l : job.leaves) move_by(l.placement, {-middle.x, -middle.y});
    for (Joint& j : job.makeup.joints) j.v_mm -= middle.y;
}

bool cut_patch_from(Job& job, std::size_t index, const Slab& slab, const Plan& plan) {
    Patch& patch = job.makeup.patches.at(index);
    std::vector<Ring> taken;
    for (std::size_t i = 0; i < job.leaves.size(); ++i) {
        const LayPlan& lay = i < plan.leaves.size() ? *plan.leaves[i].lay : *plan.lay;
        if (job.leaves[i].slab != slab.id || lay.outline.empty()) continue;
        taken.push_back(job.leaves[i].placement.turned_over ? seen_from_below(lay.outline) : lay.outline);
    }
    for (std::size_t i = 0; i < job.makeup.patches.size(); ++i)
        if (const Patch& other = job.makeup.patches[i]; i != index && other.slab == slab.id)
            taken.push_back(on_patch_slab(other).frame().to_slab(other.outline));
    const auto ways = both_ways(slab);
    const auto found = patch_place(patch, *ways, taken);
    patch.slab = slab.id;
    const Vec2 at = found.value_or(centroid(ways->shape_up.ring_a));
    patch.at = {std::round(at.x), std::round(at.y)};
    return found.has_value();
}

void turn_over(Job& job, int index, double about_v_mm) {
    Leaf& leaf = job.leaves.at(static_cast<std::size_t>(std::max(0, index)));
    Placement& p = leaf.placement;
    p.turned_over = !p.turned_over;
    p.y_mm = -p.y_mm;
    p.angle_deg = -p.angle_deg;
    // Mirrored at its own middle line, not the top's: its frame moves by twice that.
    const Vec2 by = Frame{{0, 0}, p.angle_deg}.to_slab({0, job.several() ? 2 * about_v_mm : 0});
    p.x_mm -= by.x;
    p.y_mm -= by.y;
    if (!job.several()) job.top.live = swapped(job.top.live);
    for (Support& s : leaf.supports) s.y_mm = -s.y_mm;
}

void end_for_end(Job& job, int index, double about_v_mm) {
    Placement& p = job.leaves.at(static_cast<std::size_t>(std::max(0, index))).placement;
    const Vec2 by = Frame{{0, 0}, p.angle_deg}.to_slab({0, job.several() ? 2 * about_v_mm : 0});
    p.x_mm += by.x;
    p.y_mm += by.y;
    double a = std::fmod(p.angle_deg + 180, 360);
    if (a > 180) a -= 360;
    p.angle_deg = a;
    if (!job.several()) job.top.live = swapped(job.top.live);
}

std::string add_job(Documents& docs, const std::string& name, const std::string& start) {
    Job job;
    job.id = fresh_id("job", docs);
    job.name = name;
    job.start = start;
    docs.jobs[job.id] = job;
    return job.id;
}

void move_top(Job& job, Vec2 by) {
    job.first().placement.x_mm += by.x;
    job.first().placement.y_mm += by.y;
}

void turn_top(Job& job, double degrees) { job.first().placement.angle_deg += degrees; }

void set_flaw_wish(Job& job, FlawKind kind, Wish wish) { wish_of(job.top.flaws, kind) = wish; }

void set_top_shape(Job& job, TopShape shape) {
    job.top.shape = shape;
    if (shape == TopShape::round) job.top.length_mm = job.top.width_mm = std::min(job.top.length_mm, job.top.width_mm);
    if (shape != TopShape::rectangle) job.top.live = LiveEdges::none;
}

void set_halves_from_left(Job& job, std::optional<double> from_left) {
    job.makeup.halves_u_mm = from_left ? std::optional(*from_left - job.top.length_mm / 2) : std::nullopt;
}

void set_middle_joint_curved(Job& job, bool curved) {
    job.makeup.joints = joints_of(job.makeup, job.leaves.size(), job.top.width_mm);
    if (!job.makeup.joints.empty()) job.makeup.joints[job.makeup.joints.size() / 2].curved = curved;
}

void move_leaf(Job& job, std::size_t leaf, Vec2 by) { move_by(job.leaves.at(leaf).placement, by); }
void turn_leaf(Job& job, std::size_t leaf, Vec2 about, double degrees) { turn_about(job.leaves.at(leaf).placement, about, degrees); }

void move_joint(Job& job, std::size_t k, double by, bool same_line) {
    if (!same_line) {
        job.makeup.joints = joints_of(job.makeup, job.leaves.size(), job.top.width_mm);
        job.makeup.joints.at(k).v_mm += by;
        return;
    }
    for (const auto& [i, sign] : {std::pair(k, 1.0), std::pair(k + 1, -1.0)}) move_by(job.leaves.at(i).placement, {0, sign * -by});
}

void set_placements(Job& job, const std::vector<Placement>& all) {
    for (std::size_t i = 0; i < all.size() && i < job.leaves.size(); ++i) job.leaves[i].placement = all[i];
}

void add_patch(Job& job, Ring outline) {
    Patch p;
    const auto& all = job.makeup.patches;
    p.id = first_free(
        "patch", [&](const std::string& id) { return std::any_of(all.begin(), all.end(), [&](const Patch& q) { return q.id == id; }); });
    p.outline = to_tenths(std::move(outline));
    job.makeup.patches.push_back(std::move(p));
}

void drop_patch(Job& job, std::size_t patch) {
    if (patch < job.makeup.patches.size()) job.makeup.patches.erase(job.makeup.patches.begin() + static_cast<std::ptrdiff_t>(patch));
}

void move_patch(Job& job, std::size_t patch, Vec2 by) {
    for (Vec2& q : job.makeup.patches.at(patch).outline) q = q + by;
}

void shorten(Job& job, double by, double end) {
    job.top.length_mm -= by;
    for (Leaf& l : job.leaves) {
        if (job.several()) {
            move_by(l.placement, {end * by / 2, 0});
            continue;
        }
        const Vec2 at = l.placement.frame().to_slab({-end * by / 2, 0});
        l.placement.x_mm = at.x, l.placement.y_mm = at.y;
    }
}

void set_supports(Leaf& leaf, const std::vector<Vec2>& at) {
    leaf.supports.clear();
    for (const Vec2 p : at) leaf.supports.push_back({p.x, p.y});
}

void move_support(Leaf& leaf, const std::vector<Vec2>& standing, std::size_t support, Vec2 by) {
    set_supports(leaf, standing);
    leaf.supports.at(support).x_mm += by.x;
    leaf.supports.at(support).y_mm += by.y;
}

void add_divider(Job& job, int river, double u) {
    for (const Divider& d : job.pour.dividers)
        if (d.river == river && std::abs(d.u_mm - u) < 20)
            throw Refusal(say("A divider stands there already: slide the gauge along, or take that one away."));
    job.pour.dividers.push_back({river, u, "second", job.pour.pigment_g_kg});
    std::stable_sort(job.pour.dividers.begin(), job.pour.dividers.end(),
                     [](const Divider& a, const Divider& b) { return a.river != b.river ? a.river < b.river : a.u_mm < b.u_mm; });
}
void drop_divider(Job& job, std::size_t divider) { drop(job.pour.dividers, divider); }
void drop_support(Leaf& leaf, std::vector<Vec2> standing, std::size_t support) {
    drop(standing, support);
    set_supports(leaf, standing);
}

void rename_job(Job& job, const std::string& name) { set_name(job.name, name); }
void set_client(Job& job, const std::string& client) { job.client = client; }
void set_room(Job& job, const Climate& room) { job.room = room; }
void set_room_air(Job& job, const AirLog& log, const std::string& name) {
    for (std::size_t m = 0; m < 12; ++m)
        if (log.months[m]) job.room.months[m] = *log.months[m];
    job.room.name = name;
}

void set_first_day(Job& job, const std::string& date) {
    if (!is_date(date)) throw Refusal(say("‘{}’ is not a date. Write it as 2026-11-30; the job still begins on {}", date, job.start));
    job.start = date;
}

std::string add_job_on(Documents& docs, const Slab& slab, const std::string& start) {
    const std::string id = add_job(docs, "Table " + std::to_string(docs.jobs.size() + 1), start);
    Job& job = docs.jobs[id];
    give_slab(job, slab);
    const FirstTop first = first_top(slab, docs.shop.settles_pct(start));
    job.top = first.top;
    job.leaves.front().placement = first.placement;
    return id;
}

void set_free_form_over_middle(Job& job, Ring outline) {
    const Box box = bounds(outline);
    for (Vec2& q : outline) q = q - (box.low + box.high) * 0.5;
    set_free_form(job, std::move(outline));
}

void mark_done(Job& job, bool MakeUpChoices::*what) { job.makeup.*what = !(job.makeup.*what); }

void turn_patch(Job& job, std::size_t patch, double degrees) { job.makeup.patches.at(patch).turn_deg += degrees; }

void set_patch_place(Job& job, std::size_t patch, double Vec2::*side, double mm) {
    if (patch < job.makeup.patches.size()) job.makeup.patches[patch].at.*side = mm;
}

void patch_from_nothing(Job& job, std::size_t patch) {
    if (patch < job.makeup.patches.size()) job.makeup.patches[patch].slab.clear();
}

void drop_resin(Documents& docs, const std::string& key) {
    std::erase_if(docs.shop.resins, [&](const Resin& r) { return r.key == key; });
    for (auto& [id, job] : docs.jobs) {
        if (job.fill.river == key) job.fill.river.clear();
        for (Leaf& l : job.leaves)
            for (VoidFill& v : l.voids)
                if (v.resin == key) v.resin.clear();
    }
}

}  // namespace yb
