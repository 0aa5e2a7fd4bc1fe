// What can be done to a job: choices taken, slabs given and laid together, leaves turned, patches cut.
#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/job/job.h"

namespace yb {

namespace {

template <class T>
T one_of(const std::string& option, std::initializer_list<std::pair<const char*, T>> known) {
    for (const auto& [key, value] : known)
        if (option == key) return value;
    throw std::invalid_argument("there is no option ‘" + option + "’ here");
}

void set_void(Leaf& leaf, const std::string& flaw, const std::string& option) {
    auto& voids = leaf.voids;
    auto it = std::find_if(voids.begin(), voids.end(), [&](const VoidFill& v) { return v.flaw_id == flaw; });
    if (it == voids.end()) it = voids.insert(voids.end(), VoidFill{flaw, {}, false});
    it->leave_open = option == "open";
    it->resin = it->leave_open ? "" : option;
}

}  // namespace

void set_choice(Job& job, const std::string& choice, const std::string& option, int leaf) {
    if (choice == "lay.live")
        job.top.live = one_of<LiveEdges>(
            option, {{"both", LiveEdges::both}, {"left", LiveEdges::left}, {"right", LiveEdges::right}, {"none", LiveEdges::none}});
    else if (choice == "flat.aim")
        job.flat.aim = one_of<FlatAim>(
            option, {{"share_out", FlatAim::share_out}, {"spare_show", FlatAim::spare_show}, {"as_it_lies", FlatAim::as_it_lies}});
    else if (choice == "flat.finish")
        job.flat.finish = one_of<FinishTo>(option, {{"wanted", FinishTo::wanted}, {"thickest", FinishTo::thickest}});
    else if (choice == "flat.first")
        job.flat.first = one_of<FirstFace>(option, {{"show", FirstFace::show}, {"underside", FirstFace::underside}});
    else if (choice == "flat.air") job.flat.both_faces_to_air = one_of<bool>(option, {{"both", true}, {"down", false}});
    else if (choice == "under.fixed")
        job.under.fixed =
            one_of<FixedLine>(option, {{"middle", FixedLine::middle}, {"left", FixedLine::left}, {"right", FixedLine::right}});
    else if (choice == "makeup.line") job.makeup.same_line = one_of<bool>(option, {{"same", true}, {"own", false}});
    else if (choice == "makeup.ends") job.makeup.ends_swapped = one_of<bool>(option, {{"straight", false}, {"swapped", true}});
    else if (choice == "makeup.colours") job.makeup.two_colours = one_of<bool>(option, {{"one", false}, {"two", true}});
    else if (choice == "lay.makeup")
        job.makeup.kind = one_of<MakeUp>(option, {{"single", MakeUp::single},
                                                  {"book", MakeUp::book},
                                                  {"slip", MakeUp::slip},
                                                  {"boards", MakeUp::boards},
                                                  {"river", MakeUp::river},
                                                  {"open_river", MakeUp::open_river}});
    else if (choice == "under.let_in") job.under.plate_let_in = one_of<bool>(option, {{"on", false}, {"in", true}});
    else if (choice.rfind("fill.", 0) == 0) set_void(job.leaves.at(static_cast<std::size_t>(std::max(0, leaf))), choice.substr(5), option);
    else throw std::invalid_argument("there is no choice ‘" + choice + "’");
}

namespace {
LiveEdges swapped(LiveEdges l) {
    if (l == LiveEdges::left) return LiveEdges::right;
    if (l == LiveEdges::right) return LiveEdges::left;
    return l;
}
}  // namespace

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

std::string make_up(Job& job, MakeUp kind, const std::vector<Slab>& slabs) {
    std::vector<std::shared_ptr<const Board2>> boards;
    for (const Slab& s : slabs) boards.push_back(both_ways(s));
    const Arrangement a = arrange(kind, boards, job.top, job.makeup);
    if (!a.possible) return a.why_not;
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
            const Board2& b = *boards[a.order[i]];
            const Placement& at = job.leaves[i].placement;
            in.leaves.push_back({b.slab(at.turned_over), b.shape(at.turned_over), at});
        }
        const auto even = even_river(in);
        for (std::size_t i = 0; i < even.size(); ++i) job.leaves[i].placement = even[i];
    }
    return {};
}

void set_free_form(Job& job, Ring outline) {
    const Box box = bounds(outline);
    const Vec2 middle = (box.low + box.high) * 0.5;
    for (Vec2& q : outline) q = {std::round((q.x - middle.x) * 10) / 10, std::round((q.y - middle.y) * 10) / 10};
    job.top.free_form = std::move(outline);
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
        const LayPlan& lay = i < plan.leaves.size() ? plan.leaves[i].lay : plan.lay;
        if (job.leaves[i].slab != slab.id || lay.outline.empty()) continue;
        taken.push_back(lay.outline);
        if (job.leaves[i].placement.turned_over)
            for (Vec2& q : taken.back()) q.y = -q.y;
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

}  // namespace yb
